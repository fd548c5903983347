package library

import (
	"cmp"
	"slices"

	"goldentrace/core/parts"
)

// Foot is a footprint as a list of suggestions needs it.
type Foot struct {
	Name    string
	Library string
	Shape   parts.Shape
	Density string // of a generated one
}

// FootprintsOf lists the footprints of a source that has a list of them, by name; others are asked for theirs one by one.
func FootprintsOf(s Source) []Foot {
	if l, ok := s.(interface{ Feet() []Foot }); ok {
		return l.Feet()
	}
	return nil
}

// Feet are the footprints of the catalog. The list is made once.
func (c *Catalog) Feet() []Foot {
	c.listed.Do(func() {
		for _, f := range c.feet {
			c.list = append(c.list, Foot{f.Name, f.Origin.Library, parts.ShapeOf(f), f.Density()})
		}
		slices.SortFunc(c.list, func(a, b Foot) int { return cmp.Compare(a.Name, b.Name) })
	})
	return c.list
}

// Feet are the footprints of all of them; the first's hide others of their names.
func (s Sources) Feet() []Foot {
	var out []Foot
	seen := map[string]bool{}
	for _, from := range s {
		for _, f := range FootprintsOf(from) {
			if !seen[f.Name] {
				seen[f.Name] = true
				out = append(out, f)
			}
		}
	}
	return out
}
