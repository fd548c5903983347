package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// spacing checks that parts of one side stand as far apart as the rule of spacing asks: all, or those among ids against all
// others.
func (b *Board) spacing(ids map[design.ID]bool) {
	most := b.rules.Greatest(design.Spacing)
	if most <= 0 {
		return
	}
	look := func(p *design.Placed) {
		yard, ok := layout.Yard(b.doc, p)
		if !ok {
			return
		}
		for id := range b.index.Parts(yard.Box().Grow(most)) {
			q := b.doc.Placed[id]
			if q == nil || q.ID == p.ID || (ids == nil || ids[id]) && q.ID < p.ID { // the other one looks at this pair
				continue
			}
			b.near(p, q)
		}
	}
	b.eachPart(ids, look)
}

func (b *Board) near(p, q *design.Placed) {
	if q.ID < p.ID {
		p, q = q, p
	}
	a, ok := layout.Spaced(b.doc, b.rules, p, q)
	if !ok || !a.Short() {
		return
	}
	m := max(int64(a.Gap+0.5), 0)
	text := fmt.Sprintf("%s and %s are %s apart.", p.Designator, q.Designator, units.Text(m))
	if m == 0 {
		text = fmt.Sprintf("%s and %s touch or lie over each other.", p.Designator, q.Designator)
	}
	b.list(Finding{Key: fmt.Sprintf("spacing %d %d", p.ID, q.ID), Kind: "spacing", Severity: Fault, Rule: "Spacing of parts", Measured: m,
		Required: a.Need,
		Text:     text, At: a.A.Towards(a.B, 0.5), Objects: []design.ID{p.ID, q.ID}, Ends: []geom.Point{a.A, a.B}, Says: b.says(a.Rule)})
}
