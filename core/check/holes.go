package check

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Vias against what the board's house makes.

// atLeast is what a piece's hole or ring has to have: what a rule says, and for a via what the board's house makes at least, where that is
// more. Rules are made for drills, so that of a laser's hole the house alone decides, where it says anything. What stands in the house's own
// table of holes it makes so, whatever is said of holes at large: made is what its table says of a hole, which it may be.
func (b *Board) atLeast(c *layout.Copper, ruled int64, of func(design.HoleLimits) int64, made func(*design.Barrel) int64) int64 {
	v := b.doc.Vias[c.ID]
	if v == nil || c.Kind != "via" {
		return ruled
	}
	if l := b.tabled(v); l != nil && made(l) > 0 {
		return made(l)
	}
	if l := of(b.doc.Board.Holes.Limits(v.Kind)); l > 0 && (l > ruled || v.Kind == design.Lasered) {
		return l
	}
	return ruled
}

// tabled is the hole of the house's table that a via is, with the sizes that it says; nil: there is none.
func (b *Board) tabled(v *design.Via) *design.Barrel {
	list := b.doc.Board.Holes.Barrels
	for i := range list {
		if l := &list[i]; l.Kind == v.Kind && l.From == v.From && l.To == v.To && (l.ID == v.Barrel || v.Barrel == 0) {
			return l
		}
	}
	return nil
}

// barrel checks that a via is one that the house makes.
func (b *Board) barrel(c *layout.Copper) {
	v := b.doc.Vias[c.ID]
	if v == nil || c.Kind != "via" {
		return
	}
	board, one := b.doc.Board, []design.ID{c.ID}
	lim := board.Holes.Limits(v.Kind)
	tabled := b.tabled(v)
	if depth := board.Depth(v.Kind, v.From, v.To); design.TooDeep(depth, v.Hole, lim) && (tabled == nil || tabled.Hole == 0 || v.Hole < tabled.Hole) {
		b.list(Finding{Key: "deep " + ref(c), Kind: "deep", Severity: Fault, Rule: "Depth of holes", Measured: depth,
			Required: int64(lim.Aspect) * v.Hole / 100,
			Text: fmt.Sprintf("The hole of %s is %s deep, %.2f times its diameter; the house makes %.2f.", b.named(c), units.Text(depth),
				float64(depth)/float64(v.Hole), float64(lim.Aspect)/100),
			At: c.At, Objects: one})
	}
	if list := board.Holes.Barrels; len(list) > 0 && !slices.ContainsFunc(list,
		func(l design.Barrel) bool { return l.Kind == v.Kind && l.From == v.From && l.To == v.To }) {
		kind := map[string]string{design.Drilled: "drilled", design.Lasered: "lasered"}[v.Kind]
		b.list(Finding{Key: "barrel " + ref(c), Kind: "barrel", Severity: Fault, Rule: "Holes of the house", At: c.At, Objects: one,
			Text: fmt.Sprintf("The house makes no %s hole from %s to %s, as that of %s.", kind, b.layerName(v.From), b.layerName(v.To), b.named(c))})
	}
	b.stacked(c, v)
}

func (b *Board) layerName(id design.LayerID) string {
	if l := b.doc.Board.Layer(id); l != nil {
		return l.Name
	}
	return "?"
}

// stacked checks how many holes stand on each other where a via is.
func (b *Board) stacked(c *layout.Copper, v *design.Via) {
	pile := []*layout.Copper{c}
	for i := 0; i < len(pile); i++ {
		for o := range b.index.Near(geom.BoxOf(c.Drill)) {
			if o.Kind == "via" && o.Net == c.Net && !slices.Contains(pile, o) && layout.Stacked(pile[i].Layers, o.Layers, pile[i].Drill, o.Drill) {
				pile = append(pile, o)
			}
		}
	}
	if len(pile) < 2 {
		return
	}
	slices.SortFunc(pile, compare)
	drilled := 0
	var ids []design.ID
	for _, o := range pile {
		ids = append(ids, o.ID)
		if b.doc.Vias[o.ID].Kind != design.Lasered {
			drilled++
		}
	}
	most := max(b.doc.Board.Holes.Stacked, 1)
	f := Finding{Key: "stacked " + ref(pile[0]), Kind: "stacked", Severity: Fault, Rule: "Stacked holes", At: c.At, Objects: ids}
	switch {
	case len(pile) > most && most == 1:
		f.Text = fmt.Sprintf("%d holes stand on each other; the house stacks none.", len(pile))
	case len(pile) > most:
		f.Text = fmt.Sprintf("%d holes stand on each other; the house stacks %d at most.", len(pile), most)
	case drilled > 1:
		f.Text = fmt.Sprintf("%d drilled holes stand on each other; only lasered ones are stacked.", drilled)
	default:
		return
	}
	if b.Found[f.Key] == nil {
		b.list(f)
	}
}

// piles are the vias that stood on each other with those that changed, as was found before.
func (b *Board) piles(ids map[design.ID]bool) (out []design.ID) {
	for id := range ids {
		for key := range b.owners[id] {
			if f := b.Found[key]; f != nil && f.Kind == "stacked" {
				out = append(out, f.Objects...)
			}
		}
	}
	return out
}
