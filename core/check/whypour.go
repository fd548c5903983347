package check

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// pour tells what holds for a copper area by itself, layer by layer; what it says itself goes before the rules.
func (w *why) pour(set *rules.Set, p *design.Pour) {
	who := rules.Subject{Net: p.Net, Thing: design.APour}
	at := w.within(p)
	for _, l := range p.Layers {
		layer := w.d.Board.Position(l)
		of := p.Name + " on " + w.d.Board.Layer(l).Name
		w.own(design.Clearance, p.Clearance, set.Between(design.Clearance, who, rules.Subject{}, layer, at), of)
		w.add(design.EdgeClearance, set.For(design.EdgeClearance, who, layer, at), 0, of, "")
		w.own(design.LeastWidth, p.LeastWidth, set.For(design.LeastWidth, who, layer, at), of)
		if p.Join != design.ByRule && p.Join != design.BySpokes {
			w.joined(p.Join, "pads in "+of, "The copper area says so itself.")
			continue
		}
		w.spokes(set, p, rules.Subject{Net: p.Net, Thing: design.SurfacePad}, layer, at, "pads in "+of)
	}
}

// spokes tells how wide the spokes of a pad or via are, and their gap.
func (w *why) spokes(set *rules.Set, p *design.Pour, pad rules.Subject, layer int, at geom.Point, of string) {
	w.own(design.SpokeWidth, p.Spokes.Width, set.For(design.SpokeWidth, pad, layer, at), of)
	w.own(design.SpokeGap, p.Spokes.Gap, set.For(design.SpokeGap, pad, layer, at), of)
}

// joined tells that a pad or via is joined solidly, or not at all, and why.
func (w *why) joined(how, of, says string) {
	key := told{Joined, how, of, 0}
	if !w.seen[key] {
		w.seen[key] = true
		value := map[string]string{design.Solidly: "solidly", design.NotJoined: "not at all"}[how]
		w.out = append(w.out, Asked{Kind: Joined, Of: of, Value: value, Says: says})
	}
}

// within is a place of an area.
func (w *why) within(p *design.Pour) geom.Point {
	if len(p.Outline) > 0 {
		return p.Outline[0].Point
	}
	if len(w.d.Board.Outline) > 0 {
		return w.d.Board.Outline[0].Point
	}
	return geom.Point{}
}

// own tells a length that a thing says itself, and the rule that it beats; 0: it says none. Of clearances the greater holds.
func (w *why) own(k design.RuleKind, own int64, r *rules.Ruling, of string) {
	if own == 0 || k == design.Clearance && own <= r.Of(0) {
		w.add(k, r, 0, of, "")
		return
	}
	key := told{k, units.Text(own), of, 0}
	if w.seen[key] {
		return
	}
	w.seen[key] = true
	a := Asked{Kind: k, Of: of, Value: key.value, Says: "The copper area says so itself."}
	if r.Rule != nil {
		a.Beaten = []string{rules.Sentence(w.d, r.Rule)}
	}
	w.out = append(w.out, a)
}

// pourAnd tells what holds between a copper area and another thing on the layers that both are on: how pads and vias of its net are joined,
// and what it keeps from all else.
func (w *why) pourAnd(x *layout.Index, set *rules.Set, p *design.Pour, other design.ID) {
	who := rules.Subject{Net: p.Net, Thing: design.APour}
	for _, c := range x.Of(other) {
		for _, l := range p.Layers {
			layer := w.d.Board.Position(l)
			of := p.Name + " and " + c.Name
			switch {
			case c.Bare:
				w.add(design.EdgeClearance, set.For(design.EdgeClearance, who, layer, c.At), 0, of, "")
			case !c.Has(layer):
			case c.Net != p.Net:
				w.own(design.Clearance, p.Clearance, set.Between(design.Clearance, who, c.Subject(), layer, c.At), of)
			case c.Kind == "pad" || c.Kind == "via":
				how := pour.Joins(w.d, set, p, layer, c)
				if how == design.BySpokes {
					w.spokes(set, p, c.Subject(), layer, c.At, of)
				} else {
					w.joined(how, of, map[string]string{"pad": "The pad, the copper area or a rule says so.",
						"via": "Vias are joined solidly, unless the via, the copper area or a rule for vias says otherwise."}[c.Kind])
				}
			}
		}
	}
	if q := w.d.Pours[other]; q != nil && q.Net != p.Net {
		for _, l := range p.Layers {
			if q.On(l) {
				w.own(design.Clearance, max(p.Clearance, q.Clearance),
					set.Between(design.Clearance, who, rules.Subject{Net: q.Net, Thing: design.APour}, w.d.Board.Position(l), w.within(p)), p.Name+" and "+q.Name)
			}
		}
	}
}
