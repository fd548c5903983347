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
)

const um = 1000

func TestCornerStyles(t *testing.T) {
	a, b := geom.Pt(0, 0), geom.Pt(10, 4)
	assert.Equal(t, []geom.Point{a, {X: 6, Y: 0}, b}, route.Path(a, b, route.StraightFirst))
	assert.Equal(t, []geom.Point{a, {X: 4, Y: 4}, b}, route.Path(a, b, route.DiagonalFirst))
	assert.Equal(t, []geom.Point{a, {X: 10, Y: 0}, b}, route.Path(a, b, route.Square))
	assert.Equal(t, []geom.Point{a, b}, route.Path(a, b, route.Free))
	assert.Equal(t, []geom.Point{a, {X: 0, Y: 7}}, route.Path(a, geom.Pt(0, 7), route.StraightFirst))
	assert.Equal(t, []geom.Point{a}, route.Path(a, a, route.Square))
}

func TestEveryWayIsOctilinear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := func(n string) geom.Point {
			return geom.Pt(rapid.Int64Range(-1e9, 1e9).Draw(t, n+"x"), rapid.Int64Range(-1e9, 1e9).Draw(t, n+"y"))
		}
		a, b := p("a"), p("b")
		way := route.Path(a, b, rapid.SampledFrom([]route.Corner{route.StraightFirst, route.DiagonalFirst}).Draw(t, "style"))
		assert.Equal(t, a, way[0])
		assert.Equal(t, b, way[len(way)-1])
		for i := 0; i+1 < len(way); i++ {
			d := way[i+1].Sub(way[i])
			assert.True(t, d.X == 0 || d.Y == 0 || d.X == d.Y || d.X == -d.Y, "%v", d)
		}
	})
}

// field is an empty board of 20 by 20 mm with the given copper.
func field(objects ...design.Object) route.Field {
	d := design.New("field")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(20_000*um, 0), geom.Pt(20_000*um, 20_000*um), geom.Pt(0, 20_000*um))
	d.Put(&b)
	for i, name := range netNames {
		d.Put(&design.Net{ID: design.ID(900 + i), Name: name})
	}
	for _, o := range objects {
		d.Put(o)
	}
	return route.Field{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
}

var netNames = []string{"A", "B", "WALL", "NEAR", "NEARER", "C", "N6", "N7", "N8", "N9", "N10", "N11", "N12", "N13", "N14", "N15", "N16", "N17", "N18", "N19", "N20", "N21", "N22", "N23"}

// net is the id of a field's net; of no name, none.
func net(name string) design.ID {
	for i, n := range netNames {
		if n == name {
			return design.ID(900 + i)
		}
	}
	return 0
}

// track lies on the copper layer at a position; in a new document their ids are 1 and 3.
func track(id design.ID, of string, layer int, x0, y0, x1, y1 int64) *design.Track {
	return &design.Track{ID: id, Net: net(of), Layer: design.LayerID(1 + 2*layer), A: geom.Pt(x0*um, y0*um), B: geom.Pt(x1*um, y1*um), Width: 400 * um}
}

// A track stops just where the clearance begins: hand-computed, to the micrometre.
func TestStopsAtTheClearance(t *testing.T) {
	f := field(track(50, "WALL", 0, 10_000, 1_000, 10_000, 19_000))
	from := geom.Pt(2_000*um, 10_000*um)
	p := f.Draw(from, geom.Pt(18_000*um, 10_000*um), route.Free, 0, net("A"), 400*um)
	require.NotNil(t, p.Blocked)
	assert.Equal(t, "WALL", p.Blocked.Net)
	// 10 mm − half the wall's width − clearance − half its own width
	assert.InDelta(t, (10_000-200-200-200)*um, p.Path[len(p.Path)-1].X, 1.5*um)
	assert.Equal(t, geom.Pt(18_000*um, 10_000*um), p.Rest[len(p.Rest)-1])
	for _, free := range []struct {
		net   string
		layer int
	}{{"WALL", 0}, {"A", 1}} {
		p := f.Draw(from, geom.Pt(18_000*um, 10_000*um), route.Free, free.layer, net(free.net), 400*um)
		assert.Nil(t, p.Blocked, "its own net, or another layer, is no wall")
		assert.EqualValues(t, 16_000*um, route.Length(p.Path))
	}
}

func TestStopsAtEdgeAndHole(t *testing.T) {
	f := field(&design.Hole{ID: 50, At: geom.Pt(10_000*um, 10_000*um), Diameter: 3_000 * um})
	p := f.Draw(geom.Pt(2_000*um, 10_000*um), geom.Pt(18_000*um, 10_000*um), route.Free, 0, net("A"), 400*um)
	assert.InDelta(t, (10_000-1_500-300-200)*um, p.Path[1].X, 1.5*um, "0.3 mm from the hole's wall")
	p = f.Draw(geom.Pt(2_000*um, 5_000*um), geom.Pt(30_000*um, 5_000*um), route.Free, 0, net("A"), 400*um)
	assert.InDelta(t, (20_000-300-200)*um, p.Path[1].X, 1.5*um, "0.3 mm from the edge")
	assert.Equal(t, "the board's edge", p.Blocked.Name)
}

func TestWholeTrack(t *testing.T) {
	via := &design.Via{ID: 60, At: geom.Pt(8_000*um, 5_000*um), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3, Net: net("A")}
	f := field(track(50, "A", 0, 2_000, 2_000, 5_000, 5_000), track(51, "A", 0, 5_000, 5_000, 8_000, 5_000), via,
		track(52, "A", 1, 8_000, 5_000, 12_000, 5_000), track(53, "A", 1, 12_000, 5_000, 15_000, 5_000), track(54, "A", 1, 12_000, 5_000, 12_000, 9_000))
	assert.Equal(t, []design.ID{50, 51, 52, 60}, route.WholeTrack(f.Doc, f.Index, 51), "through the via, up to where three meet")
	assert.Equal(t, []design.ID{54}, route.WholeTrack(f.Doc, f.Index, 54))
}
