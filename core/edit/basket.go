package edit

import (
	"maps"
	"reflect"
)

// SetBasket changes how parts are bought for the project; nil fields stay.
type SetBasket struct {
	Boards *int  `json:"boards,omitempty"`
	Spares *int  `json:"spares,omitempty"` // percent
	Least  *int  `json:"least,omitempty"`  // spare pieces of each, at least
	Reels  *bool `json:"reels,omitempty"`
	// Held are the pieces at hand of some order numbers; 0: none.
	Held map[string]int `json:"held,omitempty"`
	// Buy says of some order numbers that at least so many are bought; 0: as many as are needed.
	Buy map[string]int `json:"buy,omitempty"`
	// Packaging of some order numbers; empty: the cheapest.
	Packaging map[string]string `json:"packaging,omitempty"`
}

// Apply the command.
func (c *SetBasket) Apply(tx *Tx) error {
	old := tx.Doc.BasketOr()
	b := *old
	set(&b.Boards, c.Boards)
	set(&b.Spares, c.Spares)
	set(&b.Least, c.Least)
	set(&b.Reels, c.Reels)
	b.Held, b.Buy, b.Packaging = merged(b.Held, c.Held), merged(b.Buy, c.Buy), merged(b.Packaging, c.Packaging)
	if tx.Doc.Basket != nil && reflect.DeepEqual(b, *old) {
		return nil
	}
	return tx.Put(&b)
}

// merged is the map with entries changed; those without a value fall away.
func merged[V comparable](was, with map[string]V) map[string]V {
	if len(with) == 0 {
		return was
	}
	out := maps.Clone(was)
	if out == nil {
		out = map[string]V{}
	}
	maps.Copy(out, with)
	maps.DeleteFunc(out, func(_ string, v V) bool { return v == *new(V) })
	if len(out) == 0 {
		return nil
	}
	return out
}
