package library

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"goldentrace/core/design"
)

// Catalog is a list of items made ready for searching as somebody types: a search looks at
// each item once, at about a tenth of a microsecond.
type Catalog struct {
	items []Item
	by    map[string]int               // items by their exact name
	feet  map[string]*design.Footprint // by name
	own   map[string]int               // whose item a footprint is
	names []string                     // in lower case
	rest  []string                     // all other texts, in lower case, words between spaces
	pins  []int

	listed sync.Once // the list of footprints
	list   []Foot
}

// NewCatalog makes items ready for searching.
func NewCatalog(items []Item) *Catalog {
	c := &Catalog{items: items, by: map[string]int{}, feet: map[string]*design.Footprint{}, own: map[string]int{}}
	for i, it := range items {
		p := it.Part
		c.by[p.Name] = i
		if it.Footprint != nil {
			c.foot(i, it.Footprint)
		}
		for _, f := range it.Others {
			c.foot(i, f)
		}
		c.names = append(c.names, strings.ToLower(p.Name))
		c.rest = append(c.rest, strings.ToLower(strings.Join([]string{"", p.Value, p.Footprint, p.Prefix, p.Description, p.Keywords, ""}, " ")))
		n := len(it.Symbol.Pins)
		if len(it.Units) > 0 {
			n = 0
			for _, u := range it.Units {
				n += len(u.Pins)
			}
		}
		c.pins = append(c.pins, n)
	}
	return c
}

// Find is the item with the exact name.
func (c *Catalog) Find(name string) (Item, bool) {
	i, ok := c.by[name]
	if !ok {
		return Item{}, false
	}
	return c.items[i], true
}

func (c *Catalog) foot(of int, f *design.Footprint) {
	if f != nil {
		c.feet[f.Name], c.own[f.Name] = f, of
	}
}

// Asset that the footprint of the name refers to, or nil.
func (c *Catalog) Asset(footprint string, id design.ID) *design.Asset {
	i, ok := c.own[footprint]
	if !ok {
		return nil
	}
	return c.items[i].Assets[id]
}

// Footprint by its name, or nil.
func (c *Catalog) Footprint(name string) *design.Footprint { return c.feet[name] }

var shipped = sync.OnceValue(func() *Catalog { return NewCatalog(shippedItems()) })

// Shipped is the catalog of the shipped library.
func Shipped() *Catalog { return shipped() }

// Search the shipped library.
func Search(query string) []Item {
	found, _ := shipped().Search(query, 0)
	return found
}

var (
	pinCount = regexp.MustCompile(`([0-9]+)[ -]pins?\b`)
	wild     = strings.NewReplacer(`\*`, `\S*`, `\?`, `\S`)
)

// Search lists the items in which every word of the query occurs, best first: in the name's
// beginning, at the beginning of one of its words, within it, then in value, footprint,
// prefix, description and keywords. A word may hold the wildcards * and ?, which stand for
// any letters and for one; "8 pins" asks for a number of pins. Most bounds the list, 0 does
// not; found is how many there are in all.
func (c *Catalog) Search(query string, most int) (list []Item, found int) {
	query = strings.ToLower(query)
	pins := -1
	if m := pinCount.FindStringSubmatch(query); m != nil {
		pins, _ = strconv.Atoi(m[1]) // digits only
		query = strings.Replace(query, m[0], " ", 1)
	}
	words := strings.Fields(query)
	whole := strings.Join(words, " ")
	slices.SortStableFunc(words, func(a, b string) int { return len(b) - len(a) }) // long words leave less to look at
	globs := make([]*glob, len(words))
	for i, w := range words {
		if strings.ContainsAny(w, "*?") {
			globs[i] = &glob{pieces: strings.FieldsFunc(w, func(r rune) bool { return r == '*' || r == '?' })}
			globs[i].whole = regexp.MustCompile(`(^|\s)` + wild.Replace(regexp.QuoteMeta(w)) + `(\s|$)`)
		}
	}
	type hit struct{ i, rank int }
	var hits []hit
	for i, name := range c.names {
		if pins >= 0 && c.pins[i] != pins {
			continue
		}
		rank := 0
		for k, w := range words {
			r := rankOf(name, c.rest[i], w, globs[k])
			if r < 0 {
				rank = -1
				break
			}
			rank += r
		}
		if rank < 0 {
			continue
		}
		switch { // what is called just so comes first, then what begins so
		case name == whole:
			rank = -2
		case len(words) > 1 && strings.HasPrefix(name, whole):
			rank = -1
		}
		hits = append(hits, hit{i, rank})
	}
	slices.SortStableFunc(hits, func(a, b hit) int { return cmp.Compare(a.rank, b.rank) })
	found = len(hits)
	if most > 0 && len(hits) > most {
		hits = hits[:most]
	}
	for _, h := range hits {
		list = append(list, c.items[h.i])
	}
	return list, found
}

// rankOf tells how well a word fits an item, 0 best; below 0 it does not.
func rankOf(name, rest, w string, g *glob) int {
	switch {
	case g != nil && g.in(name):
		return 1
	case g != nil && g.in(rest):
		return 4
	case g != nil:
		return -1
	case strings.HasPrefix(name, w):
		return 0
	}
	if i := strings.Index(name, w); i > 0 && name[i-1] == ' ' {
		return 1
	} else if i > 0 {
		return 2
	}
	switch i := strings.Index(rest, w); {
	case i < 0:
		return -1
	case i > 0 && rest[i-1] == ' ', strings.Contains(rest[i:], " "+w):
		return 3
	}
	return 5
}

// glob is a word with wildcards; its letters are looked for first, which is quick.
type glob struct {
	pieces []string
	whole  *regexp.Regexp
}

func (g *glob) in(text string) bool {
	for _, p := range g.pieces {
		if !strings.Contains(text, p) {
			return false
		}
	}
	return g.whole.MatchString(text)
}
