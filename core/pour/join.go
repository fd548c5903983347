package pour

import (
	"cmp"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// What spokes are like where somebody asks for them and neither the area nor a rule says how, in nanometres.
const (
	usualWidth = 300_000
	usualGap   = 250_000
)

// joining is how an area joins a pad or via of its net.
type joining struct {
	how    string // design.Solidly, BySpokes or NotJoined
	spokes design.Spokes
}

// joins finds how the area joins a piece of its net: what the pad itself says goes before what the area says, and that before the rules.
func (a *area) joins(c *layout.Copper) joining {
	if c.Kind != "pad" && c.Kind != "via" {
		return joining{how: design.Solidly}
	}
	ruled := func(k design.RuleKind) *rules.Ruling { return a.rules.For(k, c.Subject(), a.layer, c.At) }
	width, gap := ruled(design.SpokeWidth), ruled(design.SpokeGap)
	out := joining{cmp.Or(a.own(c), a.Join), a.Spokes}
	out.spokes.Number = a.Spokes.Count()
	out.spokes.Width, out.spokes.Gap = cmp.Or(a.Spokes.Width, width.Of(0)), cmp.Or(a.Spokes.Gap, gap.Of(0))
	if out.how == design.ByRule {
		switch {
		case c.Kind == "via" && gap.Rule.A.Thing != design.AVia, gap.Of(0) == 0: // a via needs no soldering; a rule for vias may say otherwise
			out.how = design.Solidly
		case width.Of(0) == 0:
			out.how = design.NotJoined
		default:
			out.how = design.BySpokes
		}
	}
	if out.how == design.BySpokes {
		out.spokes.Width, out.spokes.Gap = cmp.Or(out.spokes.Width, usualWidth), cmp.Or(out.spokes.Gap, usualGap)
	}
	return out
}

// Joins is how an area joins a pad or via of its net on a layer that both are on, counted from 0 at the top: design.Solidly, BySpokes or
// NotJoined.
func Joins(d *design.Doc, set *rules.Set, p *design.Pour, layer int, c *layout.Copper) string {
	a := &area{ground: ground{doc: d, rules: set}, Pour: p, layer: layer}
	return a.joins(c).how
}

// own is what a pad or via says itself of how it is joined.
func (a *area) own(c *layout.Copper) string {
	switch o := a.doc.Get(c.ID).(type) {
	case *design.Via:
		return o.Join
	case *design.Placed:
		if how := o.Joins[c.Number]; how != "" {
			return how
		}
		if f := a.doc.Footprint(o.Footprint); f != nil && c.Pad >= 0 && c.Pad < len(f.Pads) {
			return f.Pads[c.Pad].Join
		}
	}
	return design.ByRule
}

// turned is by how much a pad is turned on the board, in millidegrees.
func (a *area) turned(c *layout.Copper) int32 {
	o := a.doc.Placed[c.ID]
	if o == nil {
		return 0
	}
	f := a.doc.Footprint(o.Footprint)
	if f == nil || c.Pad < 0 || c.Pad >= len(f.Pads) {
		return 0
	}
	angle := f.Pads[c.Pad].Angle
	if o.Bottom {
		angle = -angle
	}
	return angle + o.Angle
}

// join puts into a task how the area joins a piece of its net, and tells the gap around it.
func (a *area) join(t *Task, c *layout.Copper, box geom.Box) []guard {
	shape := c.On(a.layer)
	if shape.Box().Meets(box) {
		t.own = append(t.own, ownCopper{c.Ref(), shape})
	}
	j := a.joins(c)
	if j.how == design.Solidly {
		return nil
	}
	gap := j.spokes.Gap
	if j.how == design.NotJoined {
		gap = max(gap, a.clearance(c, shape))
	}
	if !shape.Box().Grow(gap + j.spokes.Width + 4*a.least + joint).Meets(box.Grow(a.reach)) {
		return nil
	}
	around := []guard{{shape, gap, j.how == design.BySpokes}}
	if j.how == design.NotJoined {
		return around
	}
	for _, s := range spokesOf(shape, c.At, j.spokes.Number, j.spokes.Width, gap, j.spokes.Angle+a.turned(c), a.least) {
		if strip := geom.BoxOf(s.strip(0, s.limit+float64(a.least)/2+joint)...); strip.Meets(box.Grow(a.least)) {
			t.spokes = append(t.spokes, s)
			t.window = t.window.Union(strip)
		}
	}
	return around
}
