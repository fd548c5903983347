package gerber_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/fab/gerber"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// inked tells whether a place of a file is dark after all marks, the last one that covers it deciding.
func inked(t *testing.T, data []byte, x, y float64) (dark bool) {
	t.Helper()
	art, err := reread.Gerber(data)
	require.NoError(t, err)
	p := geom.Pt(int64(x*1e6), int64(y*1e6))
	for _, m := range art.Marks {
		for _, s := range m.Shapes {
			if s.Holds(p) {
				dark = m.Dark
			}
		}
	}
	return dark
}

func mm(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }

func with(t *testing.T, commands ...edit.Command) gerber.Job {
	t.Helper()
	d := synthetic.FourLayers()
	for _, c := range commands {
		_, err := edit.Apply(d, edit.Env{}, c)
		require.NoError(t, err)
	}
	return gerber.Job{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d), Stamp: "2026-03-04T05:06:07Z"}
}

func corners(pts ...float64) (out []geom.Corner) {
	for i := 0; i < len(pts); i += 2 {
		out = append(out, geom.Corner{Point: mm(pts[i], pts[i+1])})
	}
	return out
}

// A frame 26–30 × 22–26 mm with a hole of 1 mm around its middle lies on what it was put on and nowhere else, its hole free.
func TestFiguresOnTheirSurfaces(t *testing.T) {
	frame := func(on string, bottom bool) gerber.Job {
		return with(t, &edit.AddFigure{On: on, Bottom: bottom, Closed: true, Filled: true, Lines: [][]geom.Corner{corners(26, 22, 30, 22, 30, 26, 26, 26), corners(27.5, 23.5, 28.5, 23.5, 28.5, 24.5, 27.5, 24.5)}})
	}
	type file func(gerber.Job) []byte
	files := map[string]file{
		"silk top":    func(j gerber.Job) []byte { return j.Silk(false) },
		"silk bottom": func(j gerber.Job) []byte { return j.Silk(true) },
		"copper 1":    func(j gerber.Job) []byte { return j.Copper(0) },
		"copper 2":    func(j gerber.Job) []byte { return j.Copper(1) },
		"copper 4":    func(j gerber.Job) []byte { return j.Copper(3) },
		"mask top":    func(j gerber.Job) []byte { return j.Mask(false) },
		"mask bottom": func(j gerber.Job) []byte { return j.Mask(true) },
		"paste top":   func(j gerber.Job) []byte { return j.Paste(false) },
		"paste low":   func(j gerber.Job) []byte { return j.Paste(true) },
	}
	for _, c := range []struct {
		on     string
		bottom bool
		in     string
	}{
		{design.OnSilk, false, "silk top"}, {design.OnSilk, true, "silk bottom"}, {design.OnCopper, false, "copper 1"}, {design.OnCopper, true, "copper 4"},
		{design.OnMask, false, "mask top"}, {design.OnMask, true, "mask bottom"}, {design.OnPaste, false, "paste top"}, {design.OnPaste, true, "paste low"}, {design.OnDrawing, false, "none"},
	} {
		j := frame(c.on, c.bottom)
		for name, of := range files {
			data := of(j)
			assert.Equal(t, name == c.in, inked(t, data, 26.5, 22.5), "%s %v in %s", c.on, c.bottom, name)
			assert.False(t, inked(t, data, 28, 24), "the hole of %s in %s", c.on, name)
			assert.False(t, inked(t, data, 25.9, 24), "beside %s in %s", c.on, name)
		}
	}
	art, err := reread.Gerber(frame(design.OnCopper, false).Copper(0))
	require.NoError(t, err)
	last := art.Marks[len(art.Marks)-1]
	assert.Equal(t, []string{"N/C", "NonConductor"}, []string{last.Net, last.Function})
}

// Lines are as wide as they say, with round ends; closed ones close, a place alone is a dot.
func TestLinesOfFigures(t *testing.T) {
	line := corners(26, 22, 30, 22)
	data := with(t, &edit.AddFigure{Width: 1_000_000, Lines: [][]geom.Corner{line, corners(35, 25)}}).Silk(false)
	for _, c := range []struct {
		x, y float64
		in   bool
	}{{28, 22.45, true}, {28, 22.55, false}, {30.45, 22, true}, {30.45, 22.4, false}, {35.4, 25, true}, {35.4, 25.4, false}} {
		assert.Equal(t, c.in, inked(t, data, c.x, c.y), "%g, %g", c.x, c.y)
	}
	bow := []geom.Corner{{Point: mm(26, 22), Mid: &geom.Point{X: 28_000_000, Y: 24_000_000}}, {Point: mm(30, 22)}}
	for closed, across := range map[bool]bool{true: true, false: false} {
		data := with(t, &edit.AddFigure{Width: 400_000, Closed: closed, Lines: [][]geom.Corner{bow}}).Silk(false)
		assert.True(t, inked(t, data, 28, 24.1), "the top of the arc")
		assert.Equal(t, across, inked(t, data, 28, 22), "its chord")
	}
}

// A text on copper is copper of no net, the right way round: an L has its upright on the left seen from above, and, on the
// bottom, on the right, so that it reads from below.
func TestTextsOfCopper(t *testing.T) {
	for _, font := range []string{design.Strokes, design.Bold, design.Mono} {
		for _, bottom := range []bool{false, true} {
			add := &edit.AddLegend{At: mm(28, 24), Height: 4_000_000, Text: "L", Font: font, On: design.OnCopper, Bottom: bottom}
			j := with(t, add)
			layer := 0
			if bottom {
				layer = 3
			}
			data := j.Copper(layer)
			left, right := 0, 0
			for i := range 40 { // along the height above the foot
				for k := range 40 {
					x, y := 26.0+0.05*float64(k), 23.2+0.06*float64(i)
					if inked(t, data, x, y) {
						left++
					}
					if inked(t, data, 56-x, y) {
						right++
					}
				}
				if i == 3 && left+right > 0 {
					break
				}
			}
			require.NotZero(t, left+right, font)
			assert.Equal(t, bottom, right > left, "%s, bottom %v", font, bottom)
		}
	}
}

// The mask leaves a bare track free along its whole width and the margin, on its side alone; on an inner layer nothing opens.
func TestBareTracks(t *testing.T) {
	j := with(t, &edit.SetTrack{IDs: []design.ID{synthetic.FourTop}, Bare: new(true)})
	tr := j.Doc.Tracks[synthetic.FourTop]
	mid := tr.Piece().Middle()
	x, y := float64(mid.X)/1e6, float64(mid.Y)/1e6
	reach := float64(tr.Width)/2e6 + 0.1 // the margin of this board
	assert.True(t, inked(t, j.Mask(false), x, y+reach-0.01))
	assert.False(t, inked(t, j.Mask(false), x, y+reach+0.01))
	assert.False(t, inked(t, j.Mask(true), x, y))
	for _, id := range []design.ID{synthetic.FourTop} {
		q := *j.Doc.Tracks[id]
		q.Layer = j.Doc.Board.At(1)
		j.Doc.Put(&q)
	}
	assert.False(t, inked(t, j.Mask(false), x, y))
}

// A text that is kept off pads is cleared so far around what the mask leaves free; another beside it is not.
func TestKeptOffPads(t *testing.T) {
	// R1's pad 2 at (12, 10) is 1 × 2 mm, open 0.1 mm around
	band := func(apart int64) *edit.AddFigure {
		return &edit.AddFigure{Width: 600_000, Apart: apart, Lines: [][]geom.Corner{corners(8, 10.5, 20, 10.5)}}
	}
	at := func(j gerber.Job) (out []bool) {
		for _, x := range []float64{12.5, 12.65, 12.85, 13.05, 13.4} { // within the pad, in its opening, beyond it
			out = append(out, inked(t, j.Silk(false), x, 10.5))
		}
		return out
	}
	assert.Equal(t, []bool{false, true, true, true, true}, at(with(t, band(0))))
	assert.Equal(t, []bool{false, false, false, true, true}, at(with(t, band(300_000))))
	assert.Equal(t, []bool{false, false, true, true, true}, at(with(t, band(100_000), &edit.AddFigure{Width: 300_000, Apart: 700_000, Lines: [][]geom.Corner{corners(20, 20, 25, 20)}})))
}
