package question

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

func mm(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }

// R1's pads are 1 × 2 mm at (8, 10) and (12, 10): 4 mm apart in the middle, 3 from edge to edge; to the via of 0.8 mm at (20, 20) from pad 2
// it is √(7.5² + 9²) − 0.4; its courtyard ends at x = 13, 27 from the edge at x = 40.
func TestMeasures(t *testing.T) {
	b := workbench.Open(synthetic.FourLayers(), 0)
	ask := func(a, o Met) *Gauged {
		got, err := (&Measure{a, o}).Answer(b)
		require.NoError(t, err)
		return got
	}
	pad := func(n string, x float64) Met { return Met{At: mm(x, 10), Of: synthetic.FourR1, Pad: n} }
	got := ask(pad("1", 8), pad("2", 12))
	assert.Equal(t, []int64{4_000_000, 3_000_000}, []int64{got.Straight, got.Edges.Gap})
	assert.Nil(t, got.Along, "they are of two nets")
	assert.False(t, got.Apart)
	got = ask(pad("2", 12), Met{At: mm(20, 20), Of: synthetic.FourThrough})
	assert.InDelta(t, 11_315_373, got.Edges.Gap, 2)
	got = ask(Met{At: mm(10, 10), Of: synthetic.FourR1}, Met{At: mm(40, 10), Of: design.BoardID})
	assert.EqualValues(t, 27_000_000, got.Edges.Gap)
	assert.Equal(t, []geom.Point{mm(13, 8).Add(geom.Pt(0, got.Edges.A.Y-8_000_000)), {X: 40_000_000, Y: got.Edges.B.Y}}, []geom.Point{got.Edges.A, got.Edges.B})
	got = ask(Met{At: mm(5, 1), Of: synthetic.FourTop}, Met{At: mm(15, 1), Of: synthetic.FourTop})
	require.NotNil(t, got.Along)
	assert.EqualValues(t, 10_000_000, got.Along.Length)
	got = ask(Met{At: mm(5, 1), Of: synthetic.FourTop}, pad("1", 8))
	assert.True(t, got.Apart, "net A, and no copper joins them")
	got = ask(Met{At: mm(1, 1)}, Met{At: mm(4, 5)})
	assert.EqualValues(t, 5_000_000, got.Straight)
	assert.Nil(t, got.Edges, "places alone have no edges")
	_, err := (&Measure{A: Met{At: geom.Pt(1<<60, 0)}}).Answer(b)
	assert.ErrorContains(t, err, "beyond what a drawing can reach")
}

// By each property of a thing: which others have it.
func TestAlike(t *testing.T) {
	b := workbench.Open(synthetic.FourLayers(), 0)
	by := func(id design.ID) map[string]Likeness {
		list, err := (&Alike{ID: id}).Answer(b)
		require.NoError(t, err)
		out := map[string]Likeness{}
		for _, l := range list {
			assert.Contains(t, l.IDs, id, l.By)
			out[l.By] = l
		}
		return out
	}
	top := by(synthetic.FourTop)
	assert.Equal(t, Likeness{"width", "0.3 mm", []design.ID{110, 111, 112, 113}}, top["width"])
	assert.Equal(t, Likeness{"layer", "Top", []design.ID{110}}, top["layer"])
	assert.Equal(t, []design.ID{111, 112}, by(synthetic.FourInner1)["net"].IDs)
	assert.Equal(t, Likeness{"layers", "Top to Bottom", []design.ID{120}}, by(synthetic.FourThrough)["layers"])
	assert.Equal(t, []design.ID{120, 121}, by(synthetic.FourThrough)["net"].IDs)
	r1 := by(synthetic.FourR1)
	assert.Equal(t, []string{"Two pads", "R", "top", "1 kΩ, Two pads"}, []string{r1["footprint"].Is, r1["kind"].Is, r1["side"].Is, r1["value and footprint"].Is})
	assert.Equal(t, []design.ID{131, 132}, by(synthetic.FourTextTop)["height"].IDs)
	assert.Equal(t, "3.2 mm", by(synthetic.FourScrew)["diameter"].Is)
	_, err := (&Alike{ID: design.BoardID}).Answer(b)
	assert.ErrorContains(t, err, "nothing on the board is like that")
}

// The table of widths: currents first, what is needed, what there is, its resistance.
func TestWidthsOfNets(t *testing.T) {
	d := synthetic.FourLayers()
	n := *d.Nets[synthetic.FourB]
	n.Current, n.Class = 1_000_000, "supply"
	d.Put(&n)
	b := workbench.Open(d, 0)
	got, err := (&Widths{}).Answer(b)
	require.NoError(t, err)
	require.Len(t, got.Rows, 1)
	r := got.Rows[0]
	assert.Equal(t, []any{"B", "supply", int64(20_000_000), int64(300_000), int64(400_000), true, 10.0}, []any{r.Name, r.Class, r.Length, r.Least, r.Asked, r.Thin, got.Rise})
	assert.InDelta(t, 300_500, r.Outer, 500)
	assert.InDelta(t, 1_520_000, r.Inner, 5_000)
	// two tracks of 10 × 0.3 mm, 18 µm, at 30 °C: 1.724·10⁻⁸·1.0393·0.02/(0.3·10⁻³·18·10⁻⁶) = 66.36 mΩ, and the open links in copper of 0.4 mm, 35 µm
	open := 1.724e-8 * 1.0393 * float64(r.Open) / 1e9 / (0.4e-3 * 35e-6) * 1e3
	assert.InDelta(t, 66.36+open, r.Milliohm, 0.05)
	assert.InDelta(t, r.Milliohm, r.Drop, 1e-9, "of 1 A")
	thin := *d.Board
	thin.Stack = append([]design.StackLayer{}, thin.Stack...)
	for i := range thin.Stack {
		if thin.Stack[i].ID == thin.Bottom() {
			thin.Stack[i].Thickness = 17_500
		}
	}
	d.Put(&thin)
	got, err = (&Widths{}).Answer(workbench.Open(d, 0))
	require.NoError(t, err)
	assert.InDelta(t, 601_000, got.Rows[0].Outer, 1_000, "the thinner of both outer layers asks for more")
	all, err := (&Widths{All: true}).Answer(b)
	require.NoError(t, err)
	assert.Len(t, all.Rows, 3)
	assert.Equal(t, "B", all.Rows[0].Name)
}
