package handoff_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
)

// within tells by plain reckoning whether a place, seen from a pad's middle, lies in the pad, or false for sure when it is too near its
// edge to say.
func within(p *design.Pad, x, y float64) (in, sure bool) {
	if p.Angle == 90_000 || p.Angle == 270_000 {
		x, y = y, x // all forms here look the same from both sides
	}
	w, h := float64(p.Size.X)/2, float64(p.Size.Y)/2
	r := 0.0
	switch p.Form {
	case design.Rounded:
		r = float64(p.Corner)
	case design.Round, design.Oval:
		r = min(w, h)
	}
	// the distance beyond a rectangle that is smaller by r on all sides
	dx, dy := max(0, max(x, -x)-(w-r)), max(0, max(y, -y)-(h-r))
	off := dx*dx + dy*dy - r*r
	if r == 0 {
		off = max(max(x, -x)-w, max(y, -y)-h)
		return off < 0, off < -2000 || off > 2000
	}
	slack := 4000 * r
	return off < 0, off < -slack || off > slack
}

// The artwork of a generated footprint of every family, read back, has the very pads that were computed, at their places, of their forms and
// sizes; the drill files have their holes.
func TestArtworkHasTheGeneratedPads(t *testing.T) {
	for _, family := range landpattern.Families() {
		r := family.Example.Clone()
		made, err := landpattern.Make(r)
		require.NoError(t, err, family.ID)
		f := made.Footprint
		d := design.New("pads")
		at := geom.Pt(100_000_000, 100_000_000)
		f.ID = d.NewID()
		d.Put(f)
		b := *d.Board
		b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(200_000_000, 0), geom.Pt(200_000_000, 200_000_000), geom.Pt(0, 200_000_000))
		d.Put(&b)
		d.Put(&design.Placed{ID: d.NewID(), Designator: "U1", Footprint: f.Name, At: at})
		out := files(t, d, "pads")
		art, err := reread.Gerber(out["copper-1.gbr"])
		require.NoError(t, err, family.ID)
		var holes []reread.Hole
		for name, data := range out {
			if name == "plated.xnc" || name == "unplated.xnc" {
				drilled, err := reread.Drill(data)
				require.NoError(t, err, family.ID)
				holes = append(holes, drilled.Holes...)
			}
		}
		copper, bored := 0, 0
		for i := range f.Pads {
			p := &f.Pads[i]
			middle := geom.Pt(at.X+p.At.X, at.Y+p.At.Y)
			if p.Hole > 0 {
				bored++
				assert.True(t, slices.ContainsFunc(holes, func(h reread.Hole) bool { return h.At == middle && h.Diameter == p.Hole }), "%s: hole of pad %s", f.Name, p.Number)
			}
			if p.Bare {
				continue
			}
			copper++
			k := slices.IndexFunc(art.Marks, func(m reread.Mark) bool { return m.At == middle && m.Pin == p.Number && m.Part == "U1" })
			require.GreaterOrEqual(t, k, 0, "%s: pad %s", f.Name, p.Number)
			for i := -12; i <= 12; i++ {
				for j := -12; j <= 12; j++ {
					x, y := float64(i)*float64(p.Size.X)/20, float64(j)*float64(p.Size.Y)/20
					if p.Angle == 90_000 || p.Angle == 270_000 {
						x, y = y, x
					}
					in, sure := within(p, x, y)
					if !sure {
						continue
					}
					q := geom.Pt(middle.X+int64(x), middle.Y+int64(y))
					got := slices.ContainsFunc(art.Marks[k].Shapes, func(s geom.Shape) bool { return s.Holds(q) })
					require.Equal(t, in, got, "%s: pad %s, %.0f %.0f from its middle", f.Name, p.Number, x, y)
				}
			}
		}
		assert.Len(t, art.Marks, copper, "%s: no copper beside its pads", f.Name)
		assert.Len(t, holes, bored, "%s: no holes beside its own", f.Name)
	}
}
