package gerber_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/gerber"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

func job() gerber.Job {
	d := synthetic.FourLayers()
	return gerber.Job{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d), Stamp: "2026-03-04T05:06:07Z"}
}

// read tells the marks of a file in words: kind, middle or first place, width × height of its box,
// net and pin, function; in thousandths of a millimetre. Sorted.
func read(t *testing.T, data []byte) (marks []string, art *reread.Artwork) {
	t.Helper()
	art, err := reread.Gerber(data)
	require.NoError(t, err)
	for _, m := range art.Marks {
		var box geom.Extent
		for _, s := range m.Shapes {
			box.AddBox(s.Box())
		}
		b := box.Box
		polarity := ""
		if !m.Dark {
			polarity = " clear"
		}
		marks = append(marks, strings.TrimSpace(fmt.Sprintf("%s %d,%d %dx%d %s %s.%s%s", m.Kind, b.Min.X/1000, b.Min.Y/1000, (b.Max.X-b.Min.X)/1000, (b.Max.Y-b.Min.Y)/1000, m.Net, m.Part, m.Pin, polarity)))
	}
	slices.Sort(marks)
	return marks, art
}

// Every copper layer of the four-layer board, as its drawing gives it: boxes by their lower left
// corner. U1 lies on the bottom, mirrored and turned by 90°: what was at (5, 0) is at (0, −5) of it
// and lies upright.
func TestCopperByHand(t *testing.T) {
	want := [][]string{
		{
			"flash 11500,9000 1000x2000 B R1.2", "flash 7500,9000 1000x2000 A R1.1", "flash 9200,19200 1600x1600 A U1.1",
			"flash 19600,19600 800x800 A .", "flash 24600,19600 800x800 A .", "line 4850,850 10300x300 A .",
		},
		{"flash 9200,19200 1600x1600 A U1.1", "flash 19600,19600 800x800 A .", "flash 24600,19600 800x800 A .", "flash 29600,19600 800x800 B .", "line 4850,1850 10300x300 B ."},
		{"flash 9200,19200 1600x1600 A U1.1", "flash 19600,19600 800x800 A .", "flash 29600,19600 800x800 B .", "flash 34600,19600 800x800 C .", "line 4850,2850 10300x300 B ."},
		{
			"flash 9200,19200 1600x1600 A U1.1", "flash 9500,14000 1000x2000 C U1.2", "flash 6500,14000 1000x2000 N/C U1.3",
			"flash 19600,19600 800x800 A .", "flash 34600,19600 800x800 C .", "line 4850,3850 10300x300 C .",
		},
	}
	for layer, marks := range want {
		slices.Sort(marks)
		got, art := read(t, job().Copper(layer))
		assert.Equal(t, marks, got, "copper layer %d", layer+1)
		assert.Equal(t, fmt.Sprintf("Copper,L%d,%s", layer+1, []string{"Top", "Inr", "Inr", "Bot"}[layer]), art.Attributes[".FileFunction"])
		assert.Equal(t, "Positive", art.Attributes[".FilePolarity"])
	}
}

// The mask is open 0.1 mm beyond the pads of its side, around through pads and bare holes on
// both; vias are covered. Paste lies 0.05 mm within the surface pads of its side.
func TestMaskAndPasteByHand(t *testing.T) {
	sets := map[string][]string{
		"mask top": {
			"flash 11400,8900 1200x2200  .", "flash 7400,8900 1200x2200  .", "flash 9100,19100 1800x1800  .", "flash 9400,24400 1200x1200  .", "flash 35300,1300 3400x3400  .",
		},
		"mask bottom": {
			"flash 9100,19100 1800x1800  .", "flash 9400,13900 1200x2200  .", "flash 6400,13900 1200x2200  .", "flash 9400,24400 1200x1200  .", "flash 35300,1300 3400x3400  .",
		},
		"paste top":    {"flash 11550,9050 900x1900  .", "flash 7550,9050 900x1900  ."},
		"paste bottom": {"flash 9550,14050 900x1900  .", "flash 6550,14050 900x1900  ."},
	}
	for what, want := range sets {
		kind, side, _ := strings.Cut(what, " ")
		data := job().Mask(side == "bottom")
		function := "Soldermask," + map[string]string{"top": "Top", "bottom": "Bot"}[side]
		if kind == "paste" {
			data = job().Paste(side == "bottom")
			function = strings.Replace(function, "Soldermask", "Paste", 1)
		}
		got, art := read(t, data)
		slices.Sort(want)
		assert.Equal(t, want, got, what)
		assert.Equal(t, function, art.Attributes[".FileFunction"])
		assert.Equal(t, map[string]string{"mask": "Negative", "paste": "Positive"}[kind], art.Attributes[".FilePolarity"])
	}
	// a pad that the margin eats up gets no paste, and corners grow and shrink with it
	j := job()
	j.Doc.SetBase(map[design.RuleKind]int64{design.PasteMargin: 500_000})
	j.Rules = rules.Of(j.Doc)
	got, _ := read(t, j.Paste(false))
	assert.Empty(t, got, "half a millimetre off each side of a millimetre")
}

// What is printed lies on its own side, is cleared where the mask is open, and is as wide as the
// rules say, texts an eighth of their height.
func TestSilkByHand(t *testing.T) {
	for _, bottom := range []bool{false, true} {
		data := job().Silk(bottom)
		got, art := read(t, data)
		lines, clear := 0, 0
		where := geom.Extent{}
		for _, m := range art.Marks {
			if !m.Dark {
				clear++
				continue
			}
			lines++
			for _, s := range m.Shapes {
				where.AddBox(s.Box())
			}
		}
		mask, _ := read(t, job().Mask(bottom))
		assert.Equal(t, len(mask), clear, "cleared at every opening")
		assert.Greater(t, lines, 4)
		if bottom {
			assert.Equal(t, "Legend,Bot", art.Attributes[".FileFunction"])
			assert.NotContains(t, got, "line 8925,8925 2150x150  R1.", "R1's line is on the top")
			assert.True(t, where.Box.Meets(geom.BoxOf(geom.Pt(28_000_000, 9_000_000), geom.Pt(32_000_000, 11_000_000))))
		} else {
			assert.Equal(t, "Legend,Top", art.Attributes[".FileFunction"])
			assert.Contains(t, got, "line 8925,8925 2150x150  R1.", "from (−1, −1) to (1, −1) of R1, 0.15 mm wide")
		}
		text := string(data)
		assert.Contains(t, text, "C,0.250000", "letters of 2 mm are drawn 0.25 mm wide")
		assert.Contains(t, text, "C,0.150000", "all else as the rules say")
	}
}

func TestOutlineByHand(t *testing.T) {
	got, art := read(t, job().Outline())
	assert.ElementsMatch(t, []string{"line -50,-50 40100x100  .", "line -50,-50 100x30100  .", "line -50,29950 40100x100  .", "line 39950,-50 100x30100  ."}, got)
	assert.Equal(t, "Profile,NP", art.Attributes[".FileFunction"])
	d := design.New("none")
	got, _ = read(t, gerber.Job{Doc: d, Index: layout.NewIndex(d)}.Outline())
	assert.Empty(t, got)
}

// The only copper of a one-sided board lies below when its stack says so (Gerber layer format
// specification, 5.6.3: Top, Inr or Bot).
func TestCopperOfAOneSidedBoard(t *testing.T) {
	for key, want := range map[string]string{"oneSided": "Copper,L1,Bot", "twoSided": "Copper,L1,Top"} {
		d, err := design.FromTemplate(key, "x")
		require.NoError(t, err)
		_, art := read(t, gerber.Job{Doc: d, Index: layout.NewIndex(d)}.Copper(0))
		assert.Equal(t, want, art.Attributes[".FileFunction"], key)
	}
}
