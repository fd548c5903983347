package check_test

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

const um = 1000

// said are the findings but for corners of tracks and silk on pads, of which generated boards have some.
func said(b *workbench.Bench) []*check.Finding {
	return slices.DeleteFunc(b.OpenFindings(), func(f *check.Finding) bool { return f.Kind == "corner" || f.Kind == "silkOn" })
}

// clean is a generated board with no finding but its open links and corners.
func clean(t *testing.T) *workbench.Bench {
	t.Helper()
	d, err := synthetic.Design(60)
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	for _, f := range said(b) {
		require.Equal(t, "links", f.Kind, f.Text)
	}
	return b
}

// free is a place in the board's empty upper right corner.
func free(b *workbench.Bench, dx, dy int64) geom.Point {
	o := b.Doc.Board.Outline[2]
	return geom.Pt(o.X-4000*um+dx*um, o.Y-2500*um+dy*um)
}

// Each kind of rule is broken at a known place; that and nothing else is found, with the
// figures that hand measurement gives.
func TestSeededFaults(t *testing.T) {
	type seed struct {
		name               string
		put                func(b *workbench.Bench) []design.Object
		kind               string
		measured, required int64
	}
	track := func(b *workbench.Bench, net string, x0, y0, x1, y1, width int64) design.Object {
		return &design.Track{ID: b.Doc.NewID(), Layer: b.Doc.Board.Top(), A: free(b, x0, y0), B: free(b, x1, y1), Width: width * um, Net: synthetic.Net(b.Doc, net)}
	}
	via := func(b *workbench.Bench, net string, x, y, diameter, hole int64) design.Object {
		return &design.Via{ID: b.Doc.NewID(), At: free(b, x, y), Diameter: diameter * um, Hole: hole * um, From: b.Doc.Board.Top(), To: b.Doc.Board.At(1), Net: synthetic.Net(b.Doc, net)}
	}
	for _, s := range []seed{
		{"two tracks 0.15 mm apart", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 0, 1000, 0, 200), track(b, "+5V", 0, 350, 1000, 350, 200)}
		}, "clearance", 150 * um, 200 * um},
		{"two tracks that cross", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 0, 1000, 0, 200), track(b, "+5V", 500, -500, 500, 500, 200)}
		}, "clearance", 0, 200 * um},
		{"a via 0.1 mm from a track", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 0, 1000, 0, 200), via(b, "+5V", 500, 600, 800, 400)}
		}, "clearance", 100 * um, 200 * um},
		{"a track 0.2 mm from the edge", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 2500-300, 1000, 2500-300, 200)}
		}, "edge", 200 * um, 300 * um},
		{"two holes 0.2 mm apart", func(b *workbench.Bench) []design.Object {
			return []design.Object{via(b, "GND", 0, 0, 800, 400), via(b, "GND", 600, 0, 800, 400)}
		}, "holes", 200 * um, 250 * um},
		{"a track of 0.1 mm", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 0, 1000, 0, 100)}
		}, "width", 100 * um, 150 * um},
		{"a hole of 0.2 mm", func(b *workbench.Bench) []design.Object {
			return []design.Object{via(b, "GND", 0, 0, 800, 200)}
		}, "hole", 200 * um, 300 * um},
		{"a ring of 0.1 mm", func(b *workbench.Bench) []design.Object {
			return []design.Object{via(b, "GND", 0, 0, 600, 400)}
		}, "ring", 100 * um, 150 * um},
		{"a screw hole 0.1 mm from a track", func(b *workbench.Bench) []design.Object {
			return []design.Object{track(b, "GND", 0, 0, 1000, 0, 200), &design.Hole{ID: b.Doc.NewID(), At: free(b, 500, 700), Diameter: 1000 * um}}
		}, "holeEdge", 100 * um, 300 * um},
	} {
		t.Run(s.name, func(t *testing.T) {
			b := clean(t)
			var cs edit.ChangeSet
			ids := map[design.ID]bool{}
			for _, o := range s.put(b) {
				cs = append(cs, edit.Change{Kind: o.ObjectKind(), ID: o.ObjectID(), After: o})
				ids[o.ObjectID()] = true
			}
			b.Apply(cs)
			var found []*check.Finding
			for _, f := range said(b) {
				if f.Kind != "links" {
					found = append(found, f)
				}
			}
			require.Len(t, found, 1)
			f := found[0]
			assert.Equal(t, s.kind, f.Kind)
			assert.Equal(t, s.measured, f.Measured)
			assert.Equal(t, s.required, f.Required)
			assert.Less(t, f.At.Dist(free(b, 500, 0)), 2600.0*um, "it points at the place")
			assert.NotEmpty(t, f.Rule)
			for _, id := range f.Objects {
				assert.True(t, ids[id])
			}
			b.Apply(cs.Inverted())
			for _, f := range said(b) {
				assert.Equal(t, "links", f.Kind, "mended: %s", f.Text)
			}
		})
	}
}

// What is exactly at the clearance is kept.
func TestExactlyTheClearance(t *testing.T) {
	b := clean(t)
	put := func(o design.Object) edit.Change {
		return edit.Change{Kind: o.ObjectKind(), ID: o.ObjectID(), After: o}
	}
	b.Apply(edit.ChangeSet{
		put(&design.Track{ID: b.Doc.NewID(), Layer: b.Doc.Board.Top(), A: free(b, 0, 0), B: free(b, 1000, 0), Width: 200 * um, Net: synthetic.Net(b.Doc, "GND")}),
		put(&design.Track{ID: b.Doc.NewID(), Layer: b.Doc.Board.Top(), A: free(b, 0, 400), B: free(b, 1000, 400), Width: 200 * um, Net: synthetic.Net(b.Doc, "+5V")}),
	})
	for _, f := range said(b) {
		assert.Equal(t, "links", f.Kind, f.Text)
	}
}

// After random edits the findings kept up to date equal those of a check from scratch.
func TestKeptUpToDateEqualsFromScratch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("random")
		d.Board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(9_000_000, 0), geom.Pt(9_000_000, 9_000_000), geom.Pt(0, 9_000_000))
		x := layout.NewIndex(d)
		b := check.NewBoard(d, x, rules.Of(d))
		at := func(n string) geom.Point {
			return geom.Pt(rapid.Int64Range(-2, 50).Draw(t, n+"x")*200_000, rapid.Int64Range(-2, 50).Draw(t, n+"y")*200_000)
		}
		for range rapid.IntRange(1, 20).Draw(t, "edits") {
			ids := map[design.ID]bool{}
			net := synthetic.Net(d, rapid.SampledFrom([]string{"A", "B", "C"}).Draw(t, "net"))
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				a, c := at("a"), at("c")
				if a == c {
					continue
				}
				o := &design.Track{ID: d.NewID(), Layer: d.Board.At(rapid.IntRange(0, 1).Draw(t, "layer")), A: a, B: c, Width: 200_000, Net: net}
				d.Put(o)
				x.Put(d, o)
				ids[o.ID] = true
			case 1:
				o := &design.Via{ID: d.NewID(), At: at("v"), Diameter: 700_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.At(1), Net: net}
				d.Put(o)
				x.Put(d, o)
				ids[o.ID] = true
			case 2:
				o := &design.Hole{ID: d.NewID(), At: at("h"), Diameter: 900_000}
				d.Put(o)
				x.Put(d, o)
				ids[o.ID] = true
			case 3:
				for _, id := range slices.Sorted(maps.Keys(d.Tracks)) {
					d.Remove(design.KindTrack, id)
					x.Remove(id)
					ids[id] = true
					break
				}
			}
			b.Update(ids)
			fresh := check.NewBoard(d, layout.NewIndex(d), rules.Of(d))
			assert.Equal(t, texts(fresh.Found), texts(b.Found))
		}
	})
}

func texts(m map[string]*check.Finding) []string {
	var out []string
	for k, f := range m {
		out = append(out, fmt.Sprintf("%s: %s %d", k, f.Text, f.Measured))
	}
	slices.Sort(out)
	return out
}

func TestCircuitFindings(t *testing.T) {
	d := design.New("erc")
	sheet := d.SheetsInOrder()[0].ID
	b := workbench.Open(d, 0)
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	kinds := func() []string {
		var out []string
		for _, f := range said(b) {
			out = append(out, f.Kind)
		}
		slices.Sort(out)
		return out
	}
	const g = 2_500_000
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: geom.Pt(0, 0)})
	assert.Equal(t, []string{"openPin", "openPin"}, kinds())
	do(&edit.PlaceOpenMark{Sheet: sheet, At: geom.Pt(-2*g, 0)})
	assert.Equal(t, []string{"openPin"}, kinds())
	do(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(2*g, 0), geom.Pt(6*g, 0)}})
	assert.Equal(t, []string{"looseEnd", "singlePin"}, kinds())
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: geom.Pt(8*g, 0)})
	assert.Equal(t, []string{"openPin"}, kinds())
	do(&edit.PlaceSupply{Sheet: sheet, Name: "GND", Shape: "ground", At: geom.Pt(4*g, 0)})
	do(&edit.PlaceSupply{Sheet: sheet, Name: "+5V", Shape: "bar", At: geom.Pt(3*g, 0)})
	assert.Equal(t, []string{"openPin", "twoSupplies"}, kinds())
	do(&edit.PlaceOpenMark{Sheet: sheet, At: geom.Pt(2*g, 0)})
	assert.Contains(t, kinds(), "markOnNet")
}
