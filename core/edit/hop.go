package edit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// leads checks that a run's hop leads from where the runs before end to where it begins.
func (tx *Tx) leads(run Run, before []Run, at geom.Point) error {
	holes := run.Hop.Holes
	if len(before) == 0 || len(holes) == 0 || len(holes) > design.MostSteps {
		return fmt.Errorf("a hop of a track has 1 to %d holes, between two of its stretches", design.MostSteps)
	}
	if holes[0].At != at || holes[len(holes)-1].At != run.Path[0].Point {
		return fmt.Errorf("the stretches of the track do not meet its holes")
	}
	for i := 1; i < len(holes); i++ {
		if far := int64(holes[i].At.Dist(holes[i-1].At)); far > 10*units.MM {
			return fmt.Errorf("holes of a hop are up to 10 mm apart, not %s", units.Text(far))
		}
	}
	b := tx.Doc.Board
	from, to, down := before[len(before)-1].Layer, run.Layer, *run.Hop
	if b.Position(from) > b.Position(to) {
		from, to, down.Holes = to, from, slices.Clone(holes)
		slices.Reverse(down.Holes)
	}
	return b.Cannot(down.Way(from, to))
}

// putHop puts the holes of a hop, and what joins those that stand apart, where they keep the rules.
func (tx *Tx) putHop(field *route.Field, hop *route.Hop, net design.ID, width int64) error {
	vias, tracks := field.HopThings(hop, net, width)
	group := design.ID(0)
	if len(vias) > 1 {
		group = tx.Doc.NewID()
	}
	tx.raised = cmp.Or(tx.raised, field.Raised(hop.Holes, net))
	for _, v := range vias {
		v.Group, v.Own = group, hop.Own
		if err := tx.setVia(field, v); err != nil {
			return err
		}
	}
	for _, t := range tracks {
		t.ID, t.Group = tx.Doc.NewID(), group
		if err := t.Valid(); err != nil {
			return err
		}
		pieces := layout.PiecesOf(tx.Doc, t)
		if o := field.ClearOf(pieces[0]); o != nil {
			return fmt.Errorf("the holes cannot be joined here: %w", o)
		}
		field.Lay(pieces...)
		if err := tx.Put(t); err != nil {
			return err
		}
	}
	return nil
}
