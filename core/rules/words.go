package rules

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// Length says what an amount is, in a sentence.
func Length(a design.Amount) string {
	if a.Share == 0 {
		return units.Text(a.Fixed)
	}
	return fmt.Sprintf("%g %% of the size, at least %s and at most %s", float64(a.Share)/10, units.Text(a.Least), units.Text(a.Most))
}

// Sentence is a rule as it is read: "Between supplies and anything: clearance 0.4 mm."
func Sentence(d *design.Doc, r *design.Rule) string {
	value := r.Kind.Words() + " " + Length(r.Value)
	if r.Inner != nil {
		value += ", on inner layers " + Length(*r.Inner)
	}
	switch {
	case r.Everywhere():
		return fmt.Sprintf("Everywhere: %s.", value)
	case r.Kind.Pairs():
		return fmt.Sprintf("Between %s and %s: %s.", scope(d, r.A), scope(d, r.B), value)
	}
	return fmt.Sprintf("For %s: %s.", scope(d, r.A), value)
}

var thingWords = map[design.Thing]string{
	design.ATrack: "tracks", design.SurfacePad: "surface pads", design.ThroughPad: "plated pads", design.AVia: "vias", design.UnplatedOne: "unplated holes", design.APart: "parts", design.AFigure: "copper texts and figures", design.AFiducial: "fiducials", design.APour: "copper areas",
}

// scope says for what a rule holds: "surface pads of the class bus on Inner 1".
func scope(d *design.Doc, c design.Scope) string {
	if c == (design.Scope{}) {
		return "anything"
	}
	what := "anything"
	if c.Thing != "" {
		what = thingWords[c.Thing]
	}
	var of []string
	if c.Class != "" {
		of = append(of, "of the class "+c.Class)
	}
	if c.Net != "" {
		of = append(of, "of nets "+c.Net)
	}
	if c.Part != 0 {
		name := "a part that is gone"
		if p := d.Placed[c.Part]; p != nil {
			name = p.Designator
		}
		of = append(of, "of "+name)
	}
	if c.Layer != 0 {
		name := "a layer that is gone"
		if l := d.Board.Layer(c.Layer); l != nil {
			name = l.Name
		}
		of = append(of, "on "+name)
	}
	if c.Area != 0 {
		name := "an area that is gone"
		if a := d.RuleAreas[c.Area]; a != nil {
			name = a.Name
		}
		of = append(of, "in "+name)
	}
	return strings.TrimSpace(what + " " + strings.Join(of, " "))
}
