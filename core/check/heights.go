package check

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/units"
)

// The bodies of parts in space: how high they reach, and whether they meet.

// bodies checks the bodies of parts: of all, or those among ids against all others.
func (b *Board) bodies(ids map[design.ID]bool, by kinds) {
	look := func(p *design.Placed) {
		b.height(p, by)
		if by == nil {
			b.clashes(p, ids)
		}
	}
	b.eachPart(ids, look)
}

// bodiesOf are the pieces of a part's body. Those that its footprint says itself are worked out once.
func (b *Board) bodiesOf(p *design.Placed) []layout.Body {
	f := b.doc.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	if f.Model != 0 {
		return layout.BodiesOf(b.doc, p)
	}
	list, ok := b.solids[f]
	if !ok {
		if b.solids == nil || len(b.solids) >= mostSolids {
			b.solids = map[*design.Footprint][]layout.Body{}
		}
		list = layout.PatternBodies(b.doc, f)
		b.solids[f] = list
	}
	return layout.PlacedBodies(list, p)
}

// mostSolids is of how many footprints, some of which may be of the past, the bodies are kept.
const mostSolids = 1_000

// widen notes how far bodies reach beyond their courtyards: of all parts, or of those among ids.
func (b *Board) widen(ids map[design.ID]bool) {
	look := func(p *design.Placed) {
		yard, ok := layout.Yard(b.doc, p)
		for _, body := range b.bodiesOf(p) {
			if own := geom.BoxOf(body.Edge...); ok {
				y := yard.Box()
				b.widest = max(b.widest, y.Min.X-own.Min.X, y.Min.Y-own.Min.Y, own.Max.X-y.Max.X, own.Max.Y-y.Max.Y)
			}
		}
	}
	if ids == nil {
		b.widest = 0
	}
	b.eachPart(ids, look)
}

// height checks how far a part reaches above and below the board.
func (b *Board) height(p *design.Placed, by kinds) {
	above, beyond := layout.Heights(b.doc, p)
	if p.Bottom {
		above, beyond = beyond, above
	}
	for _, side := range []struct {
		kind  design.RuleKind
		has   int64
		where string
	}{{design.HeightAbove, above, "above"}, {design.HeightBelow, beyond, "below"}} {
		if side.has <= 0 || !by.has(side.kind) {
			continue
		}
		need := MostHeight(b.doc, b.rules, p, side.kind)
		if need == 0 || side.has <= need {
			continue
		}
		b.list(Finding{Key: fmt.Sprintf("height %d %s", p.ID, side.where), Kind: "height", Severity: Fault,
			Rule: "Greatest height " + side.where, Measured: side.has, Required: need, At: p.At, Objects: []design.ID{p.ID},
			Text: fmt.Sprintf("%s reaches %s %s the board; %s is the most there.", p.Designator, units.Text(side.has), side.where,
				units.Text(need))})
	}
}

// MostHeight is how high a part may reach above or below the board, by the kind of the rule; 0: nothing is said. Where it stands in several
// areas the least of all counts.
func MostHeight(d *design.Doc, r *rules.Set, p *design.Placed, kind design.RuleKind) (need int64) {
	layer := surface.Board{Doc: d}.Outer(kind == design.HeightBelow)
	for _, at := range under(d, r, p) {
		most := r.For(kind, rules.Subject{Thing: design.APart, Part: p.ID}, layer, at).Of(0)
		if most > 0 && (need == 0 || most < need) {
			need = most
		}
	}
	return need
}

// under are the places that tell in which areas a part stands: its own, and the corners of its body.
func under(d *design.Doc, r *rules.Set, p *design.Placed) []geom.Point {
	out := []geom.Point{p.At}
	if r.ByPlace(design.HeightAbove) || r.ByPlace(design.HeightBelow) {
		for _, body := range layout.BodiesOf(d, p) {
			out = append(out, body.Edge...)
		}
	}
	return out
}

// clashes finds parts whose bodies lie over each other at the same height.
func (b *Board) clashes(p *design.Placed, ids map[design.ID]bool) {
	mine := b.bodiesOf(p)
	if len(mine) == 0 {
		return
	}
	var e geom.Extent
	for _, body := range mine {
		e.Add(body.Edge...)
	}
	for id := range b.index.Parts(e.Box.Grow(b.widest)) {
		q := b.doc.Placed[id]
		if q == nil || id == p.ID || (ids == nil || ids[id]) && id < p.ID {
			continue // the other one looks at this pair
		}
		first, second := p, q
		if q.ID < p.ID {
			first, second = q, p
		}
		at, deep := b.meet(first, second)
		if deep <= 0 {
			continue
		}
		b.list(Finding{Key: fmt.Sprintf("bodies %d %d", first.ID, second.ID), Kind: "bodies", Severity: Fault,
			Rule: "Bodies of parts do not meet", At: at,
			Objects: []design.ID{first.ID, second.ID}, Measured: -deep,
			Text: fmt.Sprintf("The bodies of %s and %s meet over %s of height.", first.Designator, second.Designator, units.Text(deep))})
	}
}

// reaches is a body as heights above the middle of the board.
func (b *Board) reaches(p *design.Placed, body layout.Body) (from, to int64) {
	half := b.doc.Board.Thickness() / 2
	if p.Bottom {
		return -half - body.To, -half - body.From
	}
	return half + body.From, half + body.To
}

// meet tells over how much of their height two parts' bodies lie in each other, and where; 0: they do not.
func (b *Board) meet(p, q *design.Placed) (at geom.Point, deep int64) {
	for _, x := range b.bodiesOf(p) {
		low, high := b.reaches(p, x)
		own := geom.BoxOf(x.Edge...)
		for _, y := range b.bodiesOf(q) {
			from, to := b.reaches(q, y)
			common := min(high, to) - max(low, from)
			if common <= max(deep, geom.Slack) || !own.Meets(geom.BoxOf(y.Edge...)) {
				continue
			}
			gap, place, _ := depth(geom.Shape{Pts: slices.Clone(x.Edge), Area: true}, geom.Shape{Pts: slices.Clone(y.Edge), Area: true})
			if gap < 0 {
				at, deep = place, common
			}
		}
	}
	return at, deep
}
