package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Rules that cannot be kept together are said, for what they are about alone; those that can are not.
func TestConflicts(t *testing.T) {
	d := synthetic.FourLayers()
	said := func() []string { return rules.Conflicts(d, rules.Of(d)) }
	assert.Empty(t, said())
	d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 500_000})
	assert.Equal(t, []string{"New tracks (everything) would be 0.4 mm wide, and 0.5 mm is the least width there."}, said())
	d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 400_000, design.ViaHole: 800_000})
	assert.Equal(t, []string{"New vias (everything) would have a hole of 0.8 mm in 0.8 mm of copper."}, said())
	d.SetBase(map[design.RuleKind]int64{design.ViaHole: 400_000, design.LeastHole: 450_000, design.LeastRing: 201_000})
	assert.Equal(t, []string{"New vias (everything) would have a hole of 0.4 mm, and 0.45 mm is the least there.", "New vias (everything) would have a ring of 0.2 mm, and 0.201 mm is the least there."}, said())
	d.SetBase(map[design.RuleKind]int64{design.LeastHole: 300_000, design.LeastRing: 200_000})
	assert.Empty(t, said(), "at the limit")

	n := *d.Nets[synthetic.FourB]
	n.Class = "bus"
	d.Put(&n)
	d.Put(&design.Rule{ID: 700, Kind: design.LeastWidth, Order: 20, A: design.Scope{Class: "bus"}, Value: design.Fixed(600_000)})
	assert.Equal(t, []string{"New tracks (anything of the class bus) would be 0.4 mm wide, and 0.6 mm is the least width there."}, said())
	d.Put(&design.Rule{ID: 701, Kind: design.TrackWidth, Order: 21, A: design.Scope{Net: "B"}, Value: design.Fixed(700_000)})
	assert.Empty(t, said(), "its one net has a width of its own")
	d.Put(&design.RuleArea{ID: 702, Name: "Tight", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9_000_000, 0), geom.Pt(9_000_000, 9_000_000))})
	d.Put(&design.Rule{ID: 703, Kind: design.TrackWidth, Order: 22, A: design.Scope{Area: 702}, Value: design.Fixed(100_000)})
	assert.Equal(t, []string{"New tracks (anything in Tight) would be 0.1 mm wide, and 0.4 mm is the least width there."}, said())
	d.Put(&design.Rule{ID: 704, Kind: design.LeastWidth, Order: 23, A: design.Scope{Area: 702, Thing: design.AVia}, Value: design.Fixed(100_000)})
	assert.Len(t, said(), 1, "a rule about vias says nothing of tracks")
	d.Put(&design.Rule{ID: 705, Kind: design.LeastWidth, Order: 24, A: design.Scope{Area: 702, Thing: design.ATrack}, Value: design.Fixed(100_000)})
	assert.Empty(t, said(), "one about tracks does")

	// rules that hold on one layer are looked at there
	d = synthetic.FourLayers()
	inner := d.Board.At(2)
	d.Put(&design.Rule{ID: 700, Kind: design.LeastWidth, Order: 20, A: design.Scope{Layer: inner}, Value: design.Fixed(600_000)})
	assert.Equal(t, []string{"New tracks (anything on Inner 2) would be 0.4 mm wide, and 0.6 mm is the least width there."}, said())
	d.Put(&design.Rule{ID: 701, Kind: design.TrackWidth, Order: 21, A: design.Scope{Layer: inner}, Value: design.Fixed(600_000)})
	assert.Empty(t, said())
	d.Put(&design.RuleArea{ID: 702, Name: "Tight", Layers: []design.LayerID{inner}, Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9_000_000, 0), geom.Pt(9_000_000, 9_000_000))})
	d.Put(&design.Rule{ID: 703, Kind: design.TrackWidth, Order: 22, A: design.Scope{Area: 702}, Value: design.Fixed(500_000)})
	assert.Equal(t, []string{"New tracks (anything in Tight) would be 0.5 mm wide, and 0.6 mm is the least width there."}, said(), "an area of one layer alone")
}
