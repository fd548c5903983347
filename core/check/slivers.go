package check

import (
	"fmt"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/units"
)

// sliverTolerance is how exactly thin pieces are found, in nanometres.
const sliverTolerance = 2_000

// sliverSlack is how much thinner than asked for a piece is at least that is told of.
const sliverSlack = 500

// sliver checks that a filled piece of copper, of a figure or a pad of a drawn form, is nowhere thinner than lines may be: thin tongues peel off
// when the board is etched.
func (b *Board) sliver(c *layout.Copper, by kinds) {
	if !by.has(design.LeastWidth) || c.Kind != "figure" && c.Kind != "pad" {
		return
	}
	for _, level := range c.Levels(c.Layers) {
		s := level.Shape
		if !s.Area || c.Kind == "pad" && s.Mids == nil && len(s.Pts) <= 4 && convex(s.Pts) {
			continue // plain pads are as wide as they are said to be
		}
		if f := b.doc.Figures[c.ID]; f != nil && f.Filled {
			s.R += f.Width / 2 // lines of a width go around it
		}
		layer := bits.TrailingZeros32(level.Layers)
		ruling := b.rules.For(design.LeastWidth, c.Subject(), layer, c.At)
		need := ruling.Of(0)
		if 2*s.R >= need {
			continue
		}
		worst, at := need, geom.Point{}
		err := overlay.Done(func() error {
			w := overlay.Begin()
			for _, thin := range w.Shapes([]geom.Shape{s}, sliverTolerance).Thin(need-sliverSlack, sliverTolerance) {
				if wide := w.Areas([]overlay.Area{thin}).Widest(); wide < worst {
					worst, at = wide, thin.Outer[0]
				}
			}
			return nil
		})
		if err != nil || !geom.Short(float64(worst), need) {
			continue
		}
		b.list(Finding{Key: "sliver " + ref(c), Kind: "sliver", Severity: Fault, Rule: "Least track width", Measured: worst, Required: need,
			Text: fmt.Sprintf("%s has a sliver of copper %s wide.", capital(b.named(c)), units.Text(worst)), At: at, Layer: b.uppermost(level.Layers),
			Objects: []design.ID{c.ID}, Says: b.says(ruling)})
		return
	}
}

// convex tells whether a closed line turns one way only.
func convex(pts []geom.Point) bool {
	n := len(pts)
	left, right := false, false
	for i := range n {
		turn := geom.Area([]geom.Point{pts[i], pts[(i+1)%n], pts[(i+2)%n]})
		left, right = left || turn > 0, right || turn < 0
	}
	return !left || !right
}
