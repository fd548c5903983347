package workbench_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/ordering"
	"goldentrace/core/workbench"
)

const mm = 1_000_000

// hand is a board of 30 × 20 mm with two pads of the net A at (5, 10) and (25, 10) and one of B at (28, 18), and what commands make of it.
type hand struct {
	*workbench.Bench
	t    *testing.T
	a, b design.ID
}

func handOf(t *testing.T) *hand {
	t.Helper()
	d := design.New("joined")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(30*mm, 0), geom.Pt(30*mm, 20*mm), geom.Pt(0, 20*mm))
	d.Put(&b)
	h := &hand{t: t, a: d.NewID(), b: d.NewID()}
	d.Put(&design.Net{ID: h.a, Name: "A"})
	d.Put(&design.Net{ID: h.b, Name: "B"})
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", DesignatorAt: geom.Pt(0, 3*mm), Pads: []design.Pad{{Number: "1",
		Form: design.Round, Size: geom.Pt(1*mm, 1*mm)}}})
	for i, x := range []int64{5, 25} {
		d.Put(&design.Placed{ID: d.NewID(), Part: design.ID(9000 + i), Designator: []string{"R1", "R2"}[i], Footprint: "F",
			At:   geom.Pt(x*mm, 10*mm),
			Nets: map[string]design.ID{"1": h.a}})
	}
	d.Put(&design.Placed{ID: d.NewID(), Part: 9002, Designator: "R3", Footprint: "F", At: at(28, 18), Nets: map[string]design.ID{"1": h.b}})
	h.Bench = workbench.Open(d, 0)
	return h
}

func (h *hand) do(c edit.Command) edit.ChangeSet {
	h.t.Helper()
	cs, err := h.Edit(c)
	require.NoError(h.t, err)
	return cs
}

func (h *hand) track(net design.ID, points ...geom.Point) edit.ChangeSet {
	return h.do(&edit.DrawTrack{Net: net, Runs: []edit.Run{{Layer: h.Doc.Board.Top(), Path: geom.Corners(points...)}}})
}

// said are the texts of the findings of a kind; those of the design opened anew are the same.
func (h *hand) said(kind string) (out []string) {
	h.t.Helper()
	texts := func(b *workbench.Bench) (out []string) {
		for _, f := range b.Findings() {
			if f.Kind == kind {
				out = append(out, f.Text)
			}
		}
		slices.Sort(out)
		return out
	}
	out = texts(h.Bench)
	require.Equal(h.t, texts(workbench.Open(h.Doc.Snapshot(), 0)), out, "as from scratch")
	return out
}

func at(x, y float64) geom.Point { return geom.Pt(int64(x*mm), int64(y*mm)) }

// A track that ends in nothing is told of once its net is joined; while links are open it is work. Copper at the end, or what an area fills
// there, holds it.
func TestTracksThatEndInNothing(t *testing.T) {
	h := handOf(t)
	h.track(h.a, at(5, 10), at(15, 10))
	assert.Empty(t, h.said("end"), "the net is open still")
	h.track(h.a, at(15, 10), at(25, 10))
	assert.Empty(t, h.said("end"))
	stub := h.track(h.a, at(15, 10), at(15, 15))
	require.Equal(t, []string{"A track of A ends in nothing."}, h.said("end"))
	for _, f := range h.Findings() {
		if f.Kind == "end" {
			assert.Equal(t, at(15, 15), f.At)
			assert.Equal(t, check.Warning, f.Severity)
			assert.Equal(t, []design.ID{stub[0].ID}, f.Objects)
		}
	}
	via := h.do(&edit.AddVia{At: at(15, 15), Net: h.a})
	assert.Empty(t, h.said("end"))
	h.do(&edit.Remove{IDs: []design.ID{via[0].ID}})
	assert.Len(t, h.said("end"), 1)
	area := &design.Pour{Name: "area", Net: h.a, Layers: []design.LayerID{h.Doc.Board.Top()}, Outline: geom.Corners(at(12, 12),
		at(18, 12), at(18, 18), at(12, 18))}
	h.do(&edit.PutPour{Pour: *area})
	assert.Empty(t, h.said("end"), "it ends in the area")
	var id design.ID
	for p := range h.Doc.Pours.All() {
		id = p.ID
	}
	moved := *h.Doc.Pours[id]
	moved.Outline = geom.Corners(at(12, 12), at(18, 12), at(18, 14.5), at(12, 14.5))
	h.do(&edit.PutPour{Pour: moved})
	assert.Len(t, h.said("end"), 1, "the area ends before it")
	h.do(&edit.Remove{IDs: []design.ID{id}})
	h.do(&edit.Remove{IDs: []design.ID{stub[0].ID}})
	assert.Empty(t, h.said("end"))
	// a piece that hangs on nothing makes the net open, which says it all
	h.do(&edit.DrawTrack{Net: h.a, Runs: []edit.Run{{Layer: h.Doc.Board.Bottom(), Path: geom.Corners(at(15, 8), at(15, 12))}}})
	assert.Empty(t, h.said("end"))
}

// A pad that an area joins by one spoke alone is told of, unless a track or a via joins it too, or more spokes come to be.
func TestStarvedPads(t *testing.T) {
	h := handOf(t)
	layers := []design.LayerID{h.Doc.Board.Bottom(), h.Doc.Board.Top()} // the pad is on one of them alone
	h.do(&edit.PutPour{Pour: design.Pour{Name: "area", Net: h.a, Layers: layers}})
	assert.Empty(t, h.said("starved"), "four spokes")
	// walls right, above and below R1, as near as the clearance lets them
	right := h.track(h.b, at(6, 8.8), at(6, 11.2))
	assert.Empty(t, h.said("starved"), "three")
	h.track(h.b, at(4.2, 11), at(5.8, 11))
	assert.Empty(t, h.said("starved"), "two")
	below := h.track(h.b, at(4.2, 9), at(5.8, 9))
	require.Equal(t, []string{"Pad R1.1 (A) is joined by one spoke of 4 alone, with the copper area area on Top."}, h.said("starved"))
	own := h.track(h.a, at(5, 10), at(3, 10))
	assert.Empty(t, h.said("starved"), "a track joins it too")
	h.do(&edit.Remove{IDs: []design.ID{own[0].ID}})
	assert.Len(t, h.said("starved"), 1)
	h.do(&edit.Remove{IDs: []design.ID{below[0].ID}})
	assert.Empty(t, h.said("starved"))
	h.do(&edit.Remove{IDs: []design.ID{right[0].ID}})
	assert.Empty(t, h.said("starved"))
}

// Islands that stay on purpose although nothing reaches them are told of.
func TestIslandsThatStay(t *testing.T) {
	h := handOf(t)
	p := design.Pour{Name: "area", Net: h.a, Layers: []design.LayerID{h.Doc.Board.Top()}, Islands: design.IslandsStay}
	h.do(&edit.PutPour{Pour: p})
	assert.Empty(t, h.said("pour"))
	h.track(h.b, at(10, 0.6), at(10, 19.4)) // both parts have a pad
	h.track(h.b, at(20, 0.6), at(20, 19.4)) // the middle has none
	assert.Equal(t, []string{"One island of the copper area area on Top stays that nothing of A reaches."}, h.said("pour"))
	h.track(h.b, at(10.1, 10), at(19.9, 10))
	assert.Equal(t, []string{"2 islands of the copper area area on Top stay that nothing of A reaches."}, h.said("pour"))
}

// Parts without ordering data, and those that are not fitted, are told of together, as worth knowing.
func TestPartsToBuyAndFit(t *testing.T) {
	h := handOf(t)
	sheet := h.Doc.SheetsInOrder()[0].ID
	var ids []design.ID
	for i := range 10 {
		cs := h.do(&edit.PlacePart{Library: "Resistor", Sheet: sheet, At: geom.Pt(int64(i)*20*mm, 40*mm)})
		for _, c := range cs {
			if c.Kind == design.KindPart {
				ids = append(ids, c.ID)
			}
		}
	}
	require.Len(t, ids, 10)
	one := h.said("unordered")
	require.Len(t, one, 1)
	assert.True(t, strings.HasPrefix(one[0], "10 parts have no ordering data: R"), one[0])
	assert.True(t, strings.HasSuffix(one[0], " …."), "eight are named")
	assert.Empty(t, h.said("notFitted"))
	var cells []edit.Cell
	for _, id := range ids[1:] {
		cells = append(cells, edit.Cell{ID: id, Field: ordering.FieldNumber, Text: "HX-100"})
	}
	h.do(&edit.SetParts{Cells: cells})
	assert.Equal(t, []string{"One part has no ordering data: " + h.Doc.Parts[ids[0]].Designator + "."}, h.said("unordered"))
	h.do(&edit.SetParts{Cells: []edit.Cell{{ID: ids[0], Field: "fitted", Text: "no"}}})
	assert.Empty(t, h.said("unordered"), "what is not fitted is not bought")
	assert.Equal(t, []string{"One part is not fitted: " + h.Doc.Parts[ids[0]].Designator + ". Their pads get solder paste all the same."}, h.said("notFitted"))
}
