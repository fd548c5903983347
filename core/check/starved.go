package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
)

// leastSpokes is by how many spokes a pad is to be joined with copper areas: one alone breaks, or carries little.
const leastSpokes = 2

// StarvedKey is the key of the finding about a pad or via that copper areas join by too few spokes.
func StarvedKey(of layout.Ref) string { return fmt.Sprintf("starved %d.%d", of.ID, of.Pad) }

// Starved is the finding about a pad or via that copper areas join by one spoke in all, while nothing else joins it. nil: it is joined by more,
// otherwise, or not at all, which is an open link.
func Starved(d *design.Doc, x *layout.Index, f *pour.Fills, c *layout.Copper) *Finding {
	has, wanted := 0, 0
	var on pour.Key
	for p := range d.Pours.All() {
		if p.Net != c.Net || c.Net == 0 {
			continue
		}
		for _, l := range p.Layers {
			k := pour.Key{Pour: p.ID, Layer: l}
			n, of := f.Spokes(k, c)
			if of == 0 && d.Board.Position(l) >= 0 && c.Has(d.Board.Position(l)) && f.At(k, c.At) != nil {
				return nil // it lies in the area whole
			}
			if n > 0 && has == 0 {
				on = k
			}
			has, wanted = has+n, wanted+of
		}
	}
	if has == 0 || has >= leastSpokes {
		return nil
	}
	for o := range x.Near(c.Box()) {
		if o.Net == c.Net && o.ID != c.ID && (o.Kind == "track" || o.Kind == "via") && layout.Touching(o, c) {
			return nil
		}
	}
	p, l := d.Pours[on.Pour], d.Board.Layer(on.Layer)
	return &Finding{Key: StarvedKey(c.Ref()), Kind: "starved", Severity: Warning, Rule: "Pads are joined by two spokes", Stage: "board", At: c.At,
		Layer: on.Layer, Objects: []design.ID{c.ID, p.ID},
		Text: fmt.Sprintf("%s (%s) is joined by one spoke of %d alone, with the copper area %s on %s.", capital(c.Name), d.NetName(c.Net), wanted,
			p.Name, l.Name)}
}
