package route_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

const netA, netB design.ID = 900, 901

// random piece of copper on a board of four layers, of one shape on some of its layers and another on others.
func random(t *rapid.T, n int) *layout.Copper {
	at := func(what string) geom.Point {
		return geom.Pt(rapid.Int64Range(180, 220).Draw(t, what+" x")*50*um, rapid.Int64Range(130, 170).Draw(t, what+" y")*50*um)
	}
	shape := func(what string) geom.Shape {
		a, r := at(what), rapid.Int64Range(1, 6).Draw(t, what+" half")*50*um
		switch rapid.IntRange(0, 2).Draw(t, what) {
		case 0:
			return geom.Disc(a, r)
		case 1:
			return geom.Stroke(a, a.Add(geom.Pt(rapid.Int64Range(-20, 20).Draw(t, "dx")*50*um, 500*um)), 2*r)
		}
		return geom.Shape{Pts: []geom.Point{a, a.Add(geom.Pt(600*um, 0)), a.Add(geom.Pt(600*um, 400*um)), a.Add(geom.Pt(0,
			400*um))}, Area: true}
	}
	c := &layout.Copper{ID: design.ID(5000 + n), Pad: -1, Kind: "track", Thing: design.ATrack, Name: "thing", Shape: shape("shape"),
		Layers: uint32(rapid.IntRange(1, 15).Draw(t, "layers")), Net: rapid.SampledFrom([]design.ID{0, netA, netB}).Draw(t, "net")}
	if other := c.Layers & uint32(rapid.IntRange(0, 15).Draw(t, "other")); other != 0 && rapid.Bool().Draw(t, "another") {
		c.Other = []layout.Level{{Layers: other, Shape: shape("other")}}
	}
	c.At = c.Shape.Pts[0]
	switch rapid.IntRange(0, 3).Draw(t, "hole") {
	case 0:
		c.Shape = geom.Disc(c.At, 400*um)
		c.Kind, c.Thing, c.Hole, c.Drill = "via", design.AVia, rapid.Int64Range(2, 8).Draw(t, "drill")*100*um, c.At
	case 1:
		if n > 0 {
			c.Shape, c.Other = geom.Disc(c.At, 300*um), nil
			c.Kind, c.Hole, c.Drill, c.Bare, c.Net, c.Layers = "hole", 600*um, c.At, true, 0, 15
		}
	}
	return c
}

// Whatever shapes pieces have on which layers: what the field says of a wish is what each pair of layers says, one by one.
func TestClearLayerByLayer(t *testing.T) {
	refused, clear := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("layers")
		synthetic.Layers(d, 4)
		b := *d.Board
		b.Outline = geom.Corners(mm(0, 0), mm(20, 0), mm(20, 20), mm(0, 20))
		d.Put(&b)
		d.Put(&design.Net{ID: netA, Name: "A"})
		d.Put(&design.Net{ID: netB, Name: "B"})
		numbers := map[design.RuleKind]int64{design.Clearance: 200 * um, design.HoleClearance: 250 * um,
			design.EdgeClearance: 300 * um, design.HoleCopper: 450 * um}
		d.SetBase(numbers)
		inner := rapid.Bool().Draw(t, "a rule for a layer")
		if inner {
			d.Put(&design.Rule{ID: 4000, Kind: design.Clearance, Order: 9, A: design.Scope{Layer: d.Board.At(1)},
				Value: design.Fixed(500 * um)})
			d.Put(&design.Rule{ID: 4001, Kind: design.EdgeClearance, Order: 8, A: design.Scope{Layer: d.Board.At(2)},
				Value: design.Fixed(700 * um)})
		}
		f := route.Field{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
		for i := range rapid.IntRange(1, 5).Draw(t, "things") {
			f.Laid = append(f.Laid, random(t, i+1))
		}
		if rapid.Bool().Draw(t, "boxed") {
			f = f.Boxed()
		}
		c := random(t, 0)
		worst, found := int64(0), false
		note := func(gap float64, need int64) {
			if gap < float64(need)-2.5 {
				if lacks := geom.Measured(gap) - need; !found || lacks < worst {
					worst, found = lacks, true
				}
			}
		}
		for _, o := range f.Laid {
			common := c.Layers & o.Layers
			if c.Hole > 0 && o.Hole > 0 && common != 0 {
				one := common&(common-1) == 0 && c.Layers != common && o.Layers != common && c.At == o.At
				if gap := c.At.Dist(o.At) - float64(c.Hole+o.Hole)/2; !one {
					note(gap, 250*um)
				}
			}
			near := false
			for l := range 4 {
				if common&(1<<l) == 0 || !o.Bare && o.Net == c.Net && c.Net != 0 {
					continue
				}
				need := int64(200 * um)
				switch {
				case o.Bare && inner && l == 2:
					need = 700 * um
				case o.Bare:
					need = 300 * um
				case inner && l == 1:
					need = 500 * um
				}
				gap, _, _ := geom.Gap(c.On(l), o.On(l))
				note(gap, need)
				near = near || gap < float64(need)-2.5
			}
			if near || o.Bare || o.Net == c.Net && c.Net != 0 {
				continue // their copper is too near, which says it all
			}
			for l := range 4 {
				for _, p := range [][2]*layout.Copper{{c, o}, {o, c}} {
					if common&(1<<l) != 0 && p[0].Hole > 0 {
						gap, _, _ := geom.Gap(geom.Disc(p[0].At, p[0].Hole/2), p[1].On(l))
						note(gap, 450*um)
					}
				}
			}
		}
		got := f.ClearOf(c)
		if !found {
			clear++
			require.Nil(t, got)
		} else {
			refused++
			require.NotNil(t, got)
			require.Equal(t, worst, got.Measured-got.Required)
		}
		require.Equal(t, !found, f.Free(route.Wish{Shape: c.Shape, Layers: c.Layers, Net: c.Net, Thing: c.Thing, Hole: c.Hole,
			Other: c.Other}))
	})
	assert.Positive(t, refused)
	assert.Positive(t, clear)
}
