package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/house"
)

// limitRules are the rules for everything that follow from a house's limits.
var limitRules = []struct {
	limit house.Limit
	kind  design.RuleKind
}{
	{house.Track, design.LeastWidth}, {house.Gap, design.Clearance}, {house.Gap, design.WithinPart}, {house.Edge, design.EdgeClearance}, {house.HoleSize, design.LeastHole},
	{house.Ring, design.LeastRing}, {house.HoleGap, design.HoleClearance}, {house.Wall, design.HoleCopper}, {house.Web, design.MaskWeb},
	{house.Silk, design.LeastSilk}, {house.Letters, design.LetterHeight},
}

// TakeLimits makes what a house asks for in one of its classes the board's rules for everything. Rules for something stay.
type TakeLimits struct {
	House string `json:"house"` // its key
	Class string `json:"class"`
}

// LimitTaken is a rule that becomes another.
type LimitTaken struct {
	Kind design.RuleKind `json:"kind"`
	Was  int64           `json:"was"` // nanometres; of a share the most it comes to
	Is   int64           `json:"is"`
}

// Changes are what taking a class would change, in the order of the rules; the error says that there is no such class.
func (c *TakeLimits) Changes(d *design.Doc) (out []LimitTaken, err error) {
	h, err := house.In(d, c.House)
	if err != nil {
		return nil, err
	}
	for i := range h.Classes {
		class := &h.Classes[i]
		if class.Name != c.Class {
			continue
		}
		for _, r := range limitRules {
			is, was := class.Limits[r.limit], d.Base(r.kind)
			if was == nil || was.Value != design.Fixed(is) || was.Inner != nil {
				before := int64(0)
				if was != nil {
					before = was.Value.Greatest()
				}
				out = append(out, LimitTaken{r.kind, before, is})
			}
		}
		return out, nil
	}
	return nil, fmt.Errorf("%s makes no boards of a class called %q", h.Name, c.Class)
}

// Apply the command.
func (c *TakeLimits) Apply(tx *Tx) error {
	list, err := c.Changes(tx.Doc)
	if err != nil {
		return err
	}
	if len(list) == 0 {
		return fmt.Errorf("the board's rules are those of the class already")
	}
	for _, l := range list {
		r := *tx.Doc.Base(l.Kind)
		r.Value, r.Inner = design.Fixed(l.Is), nil
		if err := tx.Put(&r); err != nil {
			return err
		}
	}
	return nil
}
