package check

import (
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// OpenLinks makes one finding for a net that copper does not yet join, or none.
func OpenLinks(net string, links []layout.Link) *Finding {
	if len(links) == 0 {
		return nil
	}
	l := links[0]
	f := &Finding{Key: "links " + net, Kind: "links", Severity: ToDo, Rule: "Every net is joined", Stage: "board", At: l.A.Towards(l.B, 0.5)}
	if len(links) == 1 {
		f.Text = fmt.Sprintf("%s is open between %s and %s.", net, l.FromName, l.ToName)
	} else {
		f.Text = fmt.Sprintf("%s is open in %d places, first between %s and %s.", net, len(links), l.FromName, l.ToName)
	}
	return f
}

// Drift makes the findings of a board that differs from its circuit. A board on which
// nothing was ever put has none: it is not begun.
func Drift(d *design.Doc, diffs []layout.Difference) []Finding {
	if len(d.Placed) == 0 {
		return nil
	}
	var out []Finding
	for _, x := range diffs {
		f := Finding{Key: "drift " + x.Key, Kind: "drift", Severity: Warning, Rule: "The board agrees with the circuit", Stage: "board",
			Text: "Not carried to the board: " + x.Text}
		if x.Kind == "none" {
			f.Severity, f.Text, f.Stage = Fault, x.Text, "circuit"
		}
		if on := d.Placed[x.On]; on != nil {
			f.At, f.Objects = on.At, []design.ID{on.ID}
		} else if p := d.Parts[x.Part]; p != nil {
			f.At, f.Objects, f.Stage, f.Sheet, f.Path = p.At, []design.ID{p.ID}, "circuit", p.Sheet, x.Path
		}
		out = append(out, f)
	}
	return out
}

// Electrical turns a finding about the circuit into a finding.
func Electrical(d circuit.Finding) *Finding {
	f := &Finding{Key: d.Key, Kind: d.Kind, Severity: Warning, Text: d.Text, Rule: ercRules[d.Kind], Stage: "circuit", At: d.At, Sheet: d.Sheet, Path: d.Path, Objects: d.Objects, about: d.About}
	if d.Severity != "" {
		f.Severity = Severity(d.Severity)
	}
	return f
}

var ercRules = func() map[string]string {
	out := map[string]string{}
	for _, k := range circuit.ErcKinds {
		out[k.Kind] = k.Rule
	}
	return out
}()
