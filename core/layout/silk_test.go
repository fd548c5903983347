package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// The box around what is printed of a part holds every line of it, whatever its form, turn and side; where nothing is turned by odd angles little beside.
func TestBoxAroundSilk(t *testing.T) {
	place := func(t *rapid.T, name string) geom.Point {
		return geom.Pt(rapid.Int64Range(-3000, 3000).Draw(t, name+"x")*1000, rapid.Int64Range(-3000, 3000).Draw(t, name+"y")*1000)
	}
	const width = 150_000
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("silk")
		f := &design.Footprint{ID: d.NewID(), Name: "F", DesignatorAt: place(t, "name")}
		for range rapid.IntRange(0, 3).Draw(t, "figures") {
			fig := design.Figure{Form: rapid.SampledFrom([]string{"line", "circle", "arc", "area"}).Draw(t, "form"), Width: rapid.Int64Range(0, 1).Draw(t, "own") * 400_000}
			for range 3 {
				fig.Pts = append(fig.Pts, place(t, "p"))
			}
			if fig.Form == "circle" {
				fig.Pts, fig.R = fig.Pts[:1], rapid.Int64Range(100, 3000).Draw(t, "r")*1000
			}
			if fig.Form == "arc" {
				a := fig.Pts[0]
				fig.Pts = []geom.Point{a, a.Add(geom.Pt(700_000, 700_000)), a.Add(geom.Pt(1_400_000, 0))} // half a circle
			}
			f.Silk = append(f.Silk, fig)
		}
		d.Put(f)
		p := &design.Placed{ID: d.NewID(), Designator: rapid.SampledFrom([]string{"", "R1", "Çg9", "ÅÄ100"}).Draw(t, "designator"), Footprint: "F", At: place(t, "at"),
			Angle: int32(rapid.IntRange(0, 359).Draw(t, "turn")) * 1000, Bottom: rapid.Bool().Draw(t, "bottom")}
		var all geom.Extent
		for _, l := range layout.SilkPieces(d, p) {
			if l.Width == 0 {
				l.Width = width
			}
			all.AddBox(l.Shape().Box())
		}
		box, any := layout.SilkBox(d, p, width)
		assert.Equal(t, all.Any, any)
		if !any {
			return
		}
		assert.Equal(t, box.Grow(3), box.Grow(3).Union(all.Box), "it holds %v", all.Box) // places are rounded when they are turned
		if p.Angle%90_000 == 0 {
			assert.Equal(t, all.Box.Grow(p.LetterHeight()), all.Box.Grow(p.LetterHeight()).Union(box), "of %v little beside", all.Box)
		}
	})
}
