package route_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// A new via is never below the least hole and ring, whatever the rules for new ones say, and says so; what the house's table says it makes is
// made so.
func TestNewViasKeepTheLeast(t *testing.T) {
	f := field()
	with := func(n map[design.RuleKind]int64) route.Field {
		f.Doc.SetBase(n)
		f.Rules = rules.Of(f.Doc)
		return f
	}
	size := func(f route.Field) [2]int64 {
		d, h := f.ViaSize(geom.Pt(5_000_000, 5_000_000), 900)
		return [2]int64{d, h}
	}
	holes := []route.HopHole{{At: geom.Pt(5_000_000, 5_000_000)}}
	sane := map[design.RuleKind]int64{design.ViaDiameter: 800 * um, design.ViaHole: 400 * um, design.LeastHole: 300 * um, design.LeastRing: 150 * um}
	assert.Equal(t, [2]int64{800 * um, 400 * um}, size(with(sane)))
	assert.Empty(t, f.Raised(holes, 900))

	thin := with(map[design.RuleKind]int64{design.LeastHole: 600 * um})
	assert.Equal(t, [2]int64{900 * um, 600 * um}, size(thin), "0.6 mm, and 0.15 mm around")
	assert.Equal(t, "New vias are 0.9 mm with a hole of 0.6 mm: 0.8 mm with 0.4 mm, as the rules have new ones, is below the least hole or ring.", thin.Raised(holes, 900))

	ringed := with(map[design.RuleKind]int64{design.LeastHole: 300 * um, design.LeastRing: 350 * um})
	assert.Equal(t, [2]int64{1100 * um, 400 * um}, size(ringed))

	// a rule of a net alone, and of an inner layer: the greatest of all layers holds
	with(sane)
	f.Doc.Put(&design.Net{ID: 900, Name: "A"})
	f.Doc.Put(&design.Rule{ID: 700, Kind: design.LeastHole, Order: 1, A: design.Scope{Net: "A"}, Value: design.Fixed(500 * um)})
	in := design.Fixed(300 * um)
	f.Doc.Put(&design.Rule{ID: 701, Kind: design.LeastRing, Order: 1, A: design.Scope{Net: "A"}, Value: design.Fixed(100 * um), Inner: &in})
	f.Rules = rules.Of(f.Doc)
	assert.Equal(t, [2]int64{800 * um, 500 * um}, size(f), "a board of two layers has no inner ones")
	d, h := f.ViaSize(geom.Pt(5_000_000, 5_000_000), 901)
	assert.Equal(t, [2]int64{800 * um, 400 * um}, [2]int64{d, h}, "another net")

	board := *f.Doc.Board
	board.Holes.Drilled = design.HoleLimits{LeastHole: 550 * um}
	f.Doc.Put(&board)
	assert.Equal(t, [2]int64{800 * um, 550 * um}, size(f), "what the house makes at least")
	board.Holes.Barrels = []design.Barrel{{ID: 1, Name: "Own", From: board.Top(), To: board.Bottom(), Hole: 200 * um, Diameter: 450 * um}}
	f.Doc.Put(&board)
	assert.Equal(t, [2]int64{450 * um, 200 * um}, size(f), "as its table says")
	assert.Empty(t, f.Raised([]route.HopHole{{Barrel: 1, At: geom.Pt(0, 0)}}, 900))
}
