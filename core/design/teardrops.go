package design

import (
	"fmt"
	"slices"

	"goldentrace/core/units"
)

// Teardrops are how tracks widen where they reach pads and vias, as far as there is room.
type Teardrops struct {
	Length  int32   `json:"length"`  // from the pad's edge along the track, of the pad's breadth across it, in thousandths
	Breadth int32   `json:"breadth"` // where it begins, of the pad's breadth, in thousandths
	Most    int64   `json:"most"`    // none is longer, in nanometres
	On      []Thing `json:"on"`      // kinds of pads and vias that have them
}

// UsualTeardrops are how long and broad those are of which nobody said more.
func UsualTeardrops() Teardrops { return Teardrops{Length: 600, Breadth: 900, Most: 1_000_000} }

// TeardropThings are what may have teardrops.
var TeardropThings = []Thing{SurfacePad, ThroughPad, AVia}

// valid says what is wrong with them; nil are none.
func (t *Teardrops) valid() error {
	if t == nil {
		return nil
	}
	for i, on := range t.On {
		if !slices.Contains(TeardropThings, on) || slices.Contains(t.On[:i], on) {
			return fmt.Errorf("teardrops are of surface pads, of pads with holes and of vias; %q is none of them or said twice", on)
		}
	}
	switch {
	case len(t.On) == 0:
		return fmt.Errorf("teardrops of nothing are none: say what is to have them")
	case t.Length < 100 || t.Length > 3000:
		return fmt.Errorf("a teardrop's length is 10 %% to 300 %% of the pad's breadth, not %g %%", float64(t.Length)/10)
	case t.Breadth < 200 || t.Breadth > 1000:
		return fmt.Errorf("a teardrop's breadth is 20 %% to 100 %% of the pad's, not %g %%", float64(t.Breadth)/10)
	case t.Most < 50_000 || t.Most > 3_000_000:
		return fmt.Errorf("teardrops are at most 0.05 to 3 mm long, not %s", units.Text(t.Most))
	}
	return nil
}
