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

// Joining is how an area joins a pad or via of its net.
type Joining struct {
	How    string // design.Solidly, BySpokes or NotJoined
	Spokes design.Spokes
	Rule   *design.Rule // that decided; nil: the pad or the area says so itself
}

// joining finds how the area joins a piece of its net: what the pad itself says goes before what the area says, and that before the rules.
func (a *area) joining(c *layout.Copper) Joining {
	if c.Kind != "pad" && c.Kind != "via" {
		return Joining{How: design.Solidly}
	}
	who := c.Subject()
	ruled := func(k design.RuleKind) *rules.Ruling { return a.rules.For(k, who, a.layer, c.At) }
	width, gap := ruled(design.SpokeWidth), ruled(design.SpokeGap)
	s := a.Spokes
	s.Number = s.Count()
	s.Width, s.Gap = cmp.Or(s.Width, width.Of(0)), cmp.Or(s.Gap, gap.Of(0))
	how := cmp.Or(a.own(c), a.Join)
	out := Joining{How: how, Spokes: s}
	switch {
	case how == design.ByRule && c.Kind == "via" && gap.Rule.A.Thing != design.AVia: // it needs no soldering; a rule for vias may say otherwise
		out.How = design.Solidly
	case how == design.ByRule && gap.Of(0) == 0:
		out.How, out.Rule = design.Solidly, gap.Rule
	case how == design.ByRule && width.Of(0) == 0:
		out.How, out.Rule = design.NotJoined, width.Rule
	case how == design.ByRule:
		out.How, out.Rule = design.BySpokes, gap.Rule
	}
	if out.How == design.BySpokes {
		out.Spokes.Width, out.Spokes.Gap = cmp.Or(s.Width, usualWidth), cmp.Or(s.Gap, usualGap)
	}
	return out
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
	j := a.joining(c)
	if j.How == design.Solidly {
		return nil
	}
	gap := j.Spokes.Gap
	if j.How == design.NotJoined {
		gap = max(gap, a.clearance(c, shape))
	}
	if !shape.Box().Grow(gap + j.Spokes.Width + a.least + joint).Meets(box.Grow(a.reach)) {
		return nil
	}
	around := []guard{{shape, gap}}
	if j.How == design.NotJoined {
		return around
	}
	for _, s := range spokesOf(shape, c.At, j.Spokes.Number, j.Spokes.Width, gap, j.Spokes.Angle+a.turned(c)) {
		if strip := geom.BoxOf(s.strip...); strip.Meets(box) {
			t.spokes = append(t.spokes, s)
			t.window = t.window.Union(strip)
		}
	}
	return around
}
