package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// over lists what texts lie on, and which letters are lacking.
func over(d *design.Doc) (out []string) {
	for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		if f.Kind == "silkOver" || f.Kind == "lacking" {
			out = append(out, f.Text)
		}
	}
	return out
}

// A text on another text, or on a line, is told, on the same face alone; at its limit: ink that touches is none that lies on it. Lines may cross lines.
func TestTextsOnSilk(t *testing.T) {
	text := func(id design.ID, x, y int64, words string, bottom bool) *design.Legend {
		return &design.Legend{ID: id, At: geom.Pt(20*mm+x, 20*mm+y), Height: 1_200_000, Stroke: 200_000, Text: words, On: design.OnSilk, Bottom: bottom}
	}
	d := faced()
	d.Put(text(70, 0, 0, "HH", false)) // four strokes of 0.2 mm; capitals from -0.6 to 0.6 mm
	assert.Empty(t, over(d))
	d.Put(text(71, 0, 0, "HH", true))
	assert.Empty(t, over(d), "on the other face")
	d.Put(text(71, 0, 1_400_000, "HH", false))
	assert.Empty(t, over(d), "ink from 0.7 mm on meets ink up to 0.7 mm")
	d.Put(text(71, 0, 1_399_000, "HH", false))
	assert.Equal(t, []string{"The text “HH” lies on the text “HH”."}, over(d))
	d.Remove(design.KindLegend, 71)

	d.Put(silkLine(72, 300_000, false, geom.Pt(16*mm, 20*mm+850_000), geom.Pt(24*mm, 20*mm+850_000)))
	assert.Empty(t, over(d), "0.15 and 0.1 mm of ink, 0.25 mm apart")
	d.Put(silkLine(72, 300_000, false, geom.Pt(16*mm, 20*mm+849_000), geom.Pt(24*mm, 20*mm+849_000)))
	assert.Equal(t, []string{"The text “HH” lies on a printed figure."}, over(d))
	d.Put(silkLine(72, 300_000, true, geom.Pt(16*mm, 20*mm), geom.Pt(24*mm, 20*mm)))
	assert.Empty(t, over(d))
	d.Put(silkLine(73, 300_000, true, geom.Pt(20*mm, 16*mm), geom.Pt(20*mm, 24*mm)))
	assert.Empty(t, over(d), "lines may cross")

	// a part's designator on its own line, and on another text
	dot(d, 50, round(1*mm), geom.Pt(30*mm, 30*mm), 0, false, "A")
	f := *d.Footprint(d.Placed[50].Footprint)
	f.Silk = []design.Figure{{Form: "line", Pts: []geom.Point{{X: -3 * mm, Y: 3 * mm}, {X: 3 * mm, Y: 3 * mm}}, Width: 150_000}}
	d.Put(&f)
	p := *d.Placed[50]
	p.Label = &geom.Point{Y: 3 * mm}
	d.Put(&p)
	assert.Equal(t, []string{"The designator U50 lies on its own lines."}, over(d))
	q := p
	q.Label = &geom.Point{Y: 5 * mm}
	d.Put(&q)
	assert.Empty(t, over(d))
	d.Put(text(74, 10*mm, 15*mm, "H", false))
	assert.Equal(t, []string{"The designator U50 lies on the text “H”."}, over(d))
}

// Letters that a font lacks are told, whichever font; those it has are not.
func TestLackingLetters(t *testing.T) {
	d := faced()
	for i, font := range []string{design.Strokes, design.Words, design.Mono} {
		d.Put(&design.Legend{ID: design.ID(70 + i), At: geom.Pt(20*mm, int64(10+8*i)*mm), Height: 1_500_000, Text: "10 µΩ Größe", On: design.OnSilk, Font: font})
	}
	assert.Empty(t, over(d))
	for i, font := range []string{design.Strokes, design.Words, design.Mono} {
		d.Put(&design.Legend{ID: design.ID(70 + i), At: geom.Pt(20*mm, int64(10+8*i)*mm), Height: 1_500_000, Text: "漢 R1", On: design.OnSilk, Font: font})
	}
	got := over(d)
	require.Len(t, got, 3)
	for _, said := range got {
		assert.Equal(t, "The font of the text “漢 R1” has no “漢”; a frame stands for what it lacks.", said)
	}
}
