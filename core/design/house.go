package design

import (
	"fmt"
	"maps"
	"slices"
)

// House is what a board house makes, as this project knows it: read from a file, or a variant of one that is known already.
type House struct {
	ID      ID           `json:"id"`
	Name    string       `json:"name"`
	Text    string       `json:"text,omitempty"`
	Of      string       `json:"of,omitempty"` // the key of the house that it is a variant of
	Classes []HouseClass `json:"classes"`      // the cheapest first
}

// HouseClass is what a house makes at a price.
type HouseClass struct {
	Name   string           `json:"name"`
	Text   string           `json:"text,omitempty"`
	Price  int              `json:"price"`  // in hundredths of the price of a plain board
	Limits map[string]int64 `json:"limits"` // by what they bound; lengths are nanometres
}

// MostClasses bounds the classes of a house, mostPrice what one may cost.
const (
	MostClasses = 20
	mostPrice   = 1_000_000
)

// Valid checks the house. Which limits there are is told by who knows what they bound.
func (h *House) Valid() error {
	if err := firstOf(name("house's name", h.Name), text("the words about the house "+h.Name, h.Text),
		check(len(h.Classes) > 0, "the house %s has no class of boards that it makes", h.Name),
		most("the classes of the house "+h.Name, len(h.Classes), MostClasses)); err != nil {
		return err
	}
	seen := map[string]bool{}
	for _, c := range h.Classes {
		what := fmt.Sprintf("the class %s of the house %s", c.Name, h.Name)
		if err := firstOf(name("name of a class", c.Name), text("the words about "+what, c.Text), check(!seen[c.Name], "%s is there twice", what),
			check(c.Price >= 0 && c.Price <= mostPrice, "%s costs %d hundredths of a plain board", what, c.Price),
			check(len(c.Limits) > 0, "%s sets no limit", what), most("the limits of "+what, len(c.Limits), 100)); err != nil {
			return err
		}
		seen[c.Name] = true
		for _, l := range slices.Sorted(maps.Keys(c.Limits)) {
			if v := c.Limits[l]; v < 1 || v > 2_000_000_000 {
				return fmt.Errorf("%s sets %s to %d", what, l, v)
			}
		}
	}
	return nil
}
