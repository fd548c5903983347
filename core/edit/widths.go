package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/check"
	"goldentrace/core/design"
)

// SetRise says how much warmer than their surroundings currents may make tracks.
type SetRise struct {
	Rise int32 `json:"rise"` // kelvins
}

// Apply the command.
func (c *SetRise) Apply(tx *Tx) error {
	if c.Rise < 1 {
		return fmt.Errorf("a track becomes at least 1 K warmer")
	}
	b := *tx.Doc.Board
	b.Rise = c.Rise
	return tx.Put(&b)
}

// TakeWidths makes rules of the widths that nets need for their currents: new tracks are so wide, and none may be thinner. Of classes
// the rules hold for the class, as wide as its net with the most current needs.
type TakeWidths struct {
	Nets    []design.ID `json:"nets"`
	Classes bool        `json:"classes,omitempty"` // for the classes of those nets that have one
	Widen   bool        `json:"widen,omitempty"`   // tracks that are there and too thin become as wide, but for locked ones
}

// Apply the command.
func (c *TakeWidths) Apply(tx *Tx) error {
	most := map[design.Scope]int64{} // the current of each scope
	var order []design.Scope
	for _, id := range c.Nets {
		n, err := get(tx.Doc.Nets, id, "net")
		if err != nil {
			return err
		}
		if n.Current <= 0 {
			return fmt.Errorf("nothing is said of the current of %s", n.Name)
		}
		s := design.Scope{Net: n.Name}
		if c.Classes && n.Class != "" {
			s = design.Scope{Class: n.Class}
		} else if strings.ContainsAny(n.Name, "*?") {
			return fmt.Errorf("the name %s would be read as a pattern of names; give the net a class", n.Name)
		}
		if _, ok := most[s]; !ok {
			order = append(order, s)
		}
		most[s] = max(most[s], n.Current)
	}
	for _, s := range order {
		if err := tx.takeWidth(s, most[s]); err != nil {
			return err
		}
	}
	if !c.Widen {
		return nil
	}
	for _, id := range c.Nets {
		n := tx.Doc.Nets[id]
		current := n.Current
		if c.Classes && n.Class != "" {
			current = most[design.Scope{Class: n.Class}]
		}
		if err := tx.widen(n, current); err != nil {
			return err
		}
	}
	return nil
}

// fine is to what widths are rounded up.
const fine = 10_000

func roundUp(v int64) int64 { return (v + fine - 1) / fine * fine }

// takeWidth makes the rules of one scope, or changes those that are there.
func (tx *Tx) takeWidth(s design.Scope, current int64) error {
	layers := tx.Doc.Board.Layers()
	outer := roundUp(max(check.Needs(tx.Doc.Board, current, 0), check.Needs(tx.Doc.Board, current, layers-1)))
	inner := int64(0)
	for i := 1; i < layers-1; i++ {
		inner = max(inner, roundUp(check.Needs(tx.Doc.Board, current, i)))
	}
	for _, kind := range []design.RuleKind{design.TrackWidth, design.LeastWidth} {
		base := tx.Doc.Base(kind).Value.Fixed
		r := design.Rule{Kind: kind, Order: len(design.RuleKinds), A: s}
		for o := range tx.Doc.Rules.All() {
			if o.Kind == kind && o.A == s && o.B == (design.Scope{}) {
				r = *o
				break
			}
			r.Order = max(r.Order, o.Order+1)
		}
		if r.ID == 0 {
			r.ID = tx.Doc.NewID()
		}
		r.Value, r.Inner = design.Fixed(max(outer, base)), nil
		if inner > 0 {
			v := design.Fixed(max(inner, base))
			r.Inner = &v
		}
		if err := tx.Put(&r); err != nil {
			return err
		}
	}
	return nil
}

// widen makes the tracks of a net as wide as they need to be. What then comes too near to something is left to the checks to say.
func (tx *Tx) widen(n *design.Net, current int64) error {
	for _, t := range tx.tracksOf(n.ID) {
		need := roundUp(check.Needs(tx.Doc.Board, current, tx.Doc.Board.Position(t.Layer)))
		if t.Locked || t.Width >= need {
			continue
		}
		q := *t
		q.Width = need
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}

// tracksOf are the tracks of a net.
func (tx *Tx) tracksOf(net design.ID) (out []*design.Track) {
	for _, c := range tx.Index().NetPieces(net) {
		if t := tx.Doc.Tracks[c.ID]; t != nil {
			out = append(out, t)
		}
	}
	return out
}
