package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Of a copper area it is told which rules hold, which numbers it says itself, and what it keeps from another thing or how it joins it.
func TestWhyOfACopperArea(t *testing.T) {
	d := synthetic.FourLayers()
	top := d.Board.At(0)
	area := &design.Pour{ID: d.NewID(), Name: "Ground", Net: synthetic.FourA, Layers: []design.LayerID{top}, Clearance: 350_000,
		Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(30e6, 0), geom.Pt(30e6, 25e6))}
	d.Put(area)
	d.Put(&design.Rule{ID: 900, Kind: design.SpokeWidth, Order: 50, A: design.Scope{Thing: design.AVia}, Value: design.Fixed(450_000)})
	d.Put(&design.Rule{ID: 902, Kind: design.SpokeGap, Order: 52, A: design.Scope{Thing: design.AVia}, Value: design.Fixed(220_000)})
	d.Put(&design.Rule{ID: 901, Kind: design.LeastWidth, Order: 51, A: design.Scope{Thing: design.APour}, Value: design.Fixed(170_000)})
	asked := func(ids ...design.ID) map[design.RuleKind]string {
		out := map[design.RuleKind]string{}
		for _, a := range check.Why(d, layout.NewIndex(d), rules.Of(d), ids) {
			out[a.Kind] = a.Value + "; " + a.Says
		}
		return out
	}
	alone := asked(area.ID)
	assert.Equal(t, "0.35 mm; The copper area says so itself.", alone[design.Clearance])
	assert.Contains(t, alone[design.LeastWidth], "0.17 mm; For copper areas")
	assert.Contains(t, alone[design.EdgeClearance], "0.3 mm; ")
	assert.Contains(t, alone[design.SpokeGap], "0.25 mm; ")
	assert.Contains(t, asked(area.ID, synthetic.FourThrough)[design.SpokeWidth], "0.45 mm; For vias", "of its net")
	via := *d.Vias[synthetic.FourThrough]
	via.Join = design.NotJoined
	d.Put(&via)
	assert.Equal(t, map[design.RuleKind]string{check.Joined: "not at all; Vias are joined solidly, unless the via, the copper area or a rule for vias says otherwise."},
		asked(via.ID, area.ID))
	via.Join = design.ByRule
	d.Remove(design.KindRule, 902)
	assert.Contains(t, asked(via.ID, area.ID)[check.Joined], "solidly; Vias are")
	solid := *area
	solid.Join = design.Solidly
	d.Put(&solid)
	assert.Equal(t, "solidly; The copper area says so itself.", asked(area.ID)[check.Joined])
	assert.NotContains(t, asked(area.ID), design.SpokeGap)
	d.Put(area)
	for a := range d.Tracks.All() {
		if a.Net != synthetic.FourA && a.Layer == top {
			t.Fatal("the board has none of another net on top")
		}
	}
	other := &design.Track{ID: d.NewID(), Layer: top, A: geom.Pt(1e6, 8e6), B: geom.Pt(3e6, 8e6), Width: 200_000, Net: synthetic.FourB}
	d.Put(other)
	assert.Equal(t, map[design.RuleKind]string{design.Clearance: "0.35 mm; The copper area says so itself."}, asked(other.ID, area.ID))
	narrow := *area
	narrow.Clearance = 150_000
	d.Put(&narrow)
	assert.Contains(t, asked(other.ID, area.ID)[design.Clearance], "0.2 mm; ", "the greater holds")
	assert.Equal(t, []design.RuleKind{design.EdgeClearance}, kindsOf(asked(area.ID, synthetic.FourScrew)))
	second := &design.Pour{ID: d.NewID(), Name: "Supply", Net: synthetic.FourC, Layers: []design.LayerID{top}, Clearance: 600_000}
	d.Put(second)
	assert.Contains(t, asked(area.ID, second.ID)[design.Clearance], "0.6 mm; ")
	second.Layers = []design.LayerID{d.Board.At(1)}
	assert.Empty(t, asked(area.ID, second.ID), "on no layer together")
}

func kindsOf(m map[design.RuleKind]string) (out []design.RuleKind) {
	for k := range m {
		out = append(out, k)
	}
	return out
}
