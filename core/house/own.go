package house

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// ownKey begins the keys of houses that a project keeps; its id follows.
const ownKey = "own-"

// Known are the houses that a project knows: those that are built in, then its own by their names.
func Known(d *design.Doc) []House {
	var own []House
	for h := range d.Houses.All() {
		own = append(own, of(h))
	}
	slices.SortFunc(own, func(a, b House) int { return strings.Compare(a.Name, b.Name) })
	return append(All(), own...)
}

// of is a house that a project keeps, its classes from the cheapest on.
func of(h *design.House) House {
	out := House{Key: fmt.Sprint(ownKey, h.ID), Own: h.ID, Name: h.Name, Text: h.Text, Of: h.Of}
	for _, c := range h.Classes {
		class := Class{c.Name, c.Text, c.Price, map[Limit]int64{}}
		for l, v := range c.Limits {
			class.Limits[Limit(l)] = v
		}
		out.Classes = append(out.Classes, class)
	}
	slices.SortStableFunc(out.Classes, func(a, b Class) int { return cmp.Compare(a.Price, b.Price) })
	return out
}

// Kept is a house as a project keeps it.
func (h *House) Kept() *design.House {
	out := &design.House{ID: h.Own, Name: h.Name, Text: h.Text, Of: h.Of}
	for _, c := range h.Classes {
		class := design.HouseClass{Name: c.Name, Text: c.Text, Price: c.Price, Limits: map[string]int64{}}
		for l, v := range c.Limits {
			class.Limits[string(l)] = v
		}
		out.Classes = append(out.Classes, class)
	}
	return out
}

// In finds a house that a project knows by its key or its name, in whatever case.
func In(d *design.Doc, name string) (*House, error) {
	list := Known(d)
	var names []string
	for i := range list {
		if strings.EqualFold(list[i].Key, name) || strings.EqualFold(list[i].Name, name) {
			return &list[i], nil
		}
		names = append(names, list[i].Name)
	}
	return nil, fmt.Errorf("there is no board house called %q; there are %s", name, strings.Join(names, ", "))
}

// Knows tells whether a house sets limits that there are, as they can be.
func Knows(h *design.House) error {
	for _, c := range h.Classes {
		for l, v := range c.Limits {
			if !slices.Contains(Limits, Limit(l)) {
				return fmt.Errorf("the class %s sets a limit to %q, which is none that is known", c.Name, l)
			}
			if Limit(l) == Copper && v > 64 {
				return fmt.Errorf("the class %s makes boards of %d copper layers; at most 64 are meant", c.Name, v)
			}
		}
	}
	return h.Valid()
}

// Differing is a limit that a variant sets otherwise than what it is a variant of.
type Differing struct {
	Class string
	Limit Limit
	Was   int64 // 0: it was not made
	Is    int64 // 0: it is not made
}

// Differs tells in what a variant differs from a house: limits by limits, prices, and classes that are only in one of both.
func (h *House) Differs(from *House) (limits []Differing, other []string) {
	old := map[string]*Class{}
	for i := range from.Classes {
		old[from.Classes[i].Name] = &from.Classes[i]
	}
	for _, c := range h.Classes {
		was := old[c.Name]
		if was == nil {
			other = append(other, c.Name+" is new")
			continue
		}
		delete(old, c.Name)
		for _, l := range Limits {
			if was.Limits[l] != c.Limits[l] {
				limits = append(limits, Differing{c.Name, l, was.Limits[l], c.Limits[l]})
			}
		}
		if was.Price != c.Price {
			other = append(other, fmt.Sprintf("%s costs %.2f × instead of %.2f ×", c.Name, float64(c.Price)/100, float64(was.Price)/100))
		}
	}
	for _, c := range from.Classes {
		if old[c.Name] != nil {
			other = append(other, c.Name+" is gone")
		}
	}
	return limits, other
}
