package rules

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Conflicts are sentences about rules that cannot be kept together: new tracks thinner than is allowed, vias whose holes are too small,
// too large, or leave too little copper around. Asked are what holds for everything, and for what each rule about these things names.
// Cost: that of
// the rules.
func Conflicts(d *design.Doc, s *Set) []string {
	var out []string
	say := func(format string, args ...any) {
		if text := fmt.Sprintf(format, args...); !slices.Contains(out, text) {
			out = append(out, text)
		}
	}
	look := func(c design.Scope) {
		who, layer, at := s.example(d, c)
		of := scope(d, c)
		if c == (design.Scope{}) {
			of = "everything"
		}
		length := func(k design.RuleKind, thing design.Thing, size int64) int64 {
			w := who
			w.Thing = cmp.Or(w.Thing, thing)
			return s.For(k, w, layer, at).Of(size)
		}
		if c.Thing == "" || c.Thing == design.ATrack {
			if is, least := length(design.TrackWidth, design.ATrack, 0), length(design.LeastWidth, design.ATrack, 0); is < least {
				say("New tracks (%s) would be %s wide, and %s is the least width there.", of, units.Text(is), units.Text(least))
			}
		}
		if c.Thing != "" && c.Thing != design.AVia {
			return
		}
		whole, hole := length(design.ViaDiameter, design.AVia, 0), length(design.ViaHole, design.AVia, 0)
		switch {
		case hole >= whole:
			say("New vias (%s) would have a hole of %s in %s of copper.", of, units.Text(hole), units.Text(whole))
		default:
			if least := length(design.LeastHole, design.AVia, 0); hole < least {
				say("New vias (%s) would have a hole of %s, and %s is the least there.", of, units.Text(hole), units.Text(least))
			}
			if ring := length(design.LeastRing, design.AVia, hole); (whole-hole)/2 < ring {
				say("New vias (%s) would have a ring of %s, and %s is the least there.", of, units.Text((whole-hole)/2), units.Text(ring))
			}
		}
	}
	look(design.Scope{})
	about := []design.RuleKind{design.TrackWidth, design.LeastWidth, design.ViaDiameter, design.ViaHole, design.LeastHole, design.LeastRing}
	for r := range d.Rules.All() {
		if !r.Everywhere() && slices.Contains(about, r.Kind) {
			look(r.A)
		}
	}
	return out
}

// example is something that fits a scope, where there is any: the first net by name, a copper layer, a place of the area.
func (s *Set) example(d *design.Doc, c design.Scope) (who Subject, layer int, at geom.Point) {
	who, at = Subject{Thing: c.Thing, Part: c.Part}, geom.Pt(-units.Limit, -units.Limit) // in no area
	if c.Class != "" || c.Net != "" {
		var first *design.Net
		for n := range d.Nets.All() {
			if FitsNet(c, n) && (first == nil || n.Name < first.Name) {
				first = n
			}
		}
		if first != nil {
			who.Net = first.ID
		}
	}
	if c.Layer != 0 {
		layer = max(d.Board.Position(c.Layer), 0)
	}
	if a := d.RuleAreas[c.Area]; a != nil {
		ring := geom.Closing(a.Outline)
		at = ring.Box().Centre()
		if !ring.Holds(at) {
			at = a.Outline[0].Point
		}
		if len(a.Layers) > 0 && c.Layer == 0 {
			layer = max(d.Board.Position(a.Layers[0]), 0)
		}
	}
	return who, layer, at
}
