package paper_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// framed draws the frame of the only sheet of an empty project.
func framed(t *testing.T, change func(d *design.Doc, s *design.Sheet)) []paper.Mark {
	t.Helper()
	d := design.New("frame")
	s := d.SheetsInOrder()[0]
	change(d, s)
	return paper.Frame(d, circuit.Find(d).Tree, circuit.SheetUse{Sheet: s.ID, Label: s.Name})
}

// ISO 5457, table 2: the number of zones on the long and the short side; 50 mm from the middle
// outwards, letters from above without I and O.
func TestZonesOfTheFrame(t *testing.T) {
	for size, want := range map[string][2]int{"A1": {16, 12}, "A2": {12, 8}, "A3": {8, 6}, "A4": {6, 4}} {
		marks := framed(t, func(_ *design.Doc, s *design.Sheet) { s.Size = size })
		across, down := map[string][]geom.Point{}, map[string][]geom.Point{}
		for _, m := range marks {
			if m.Text == "" || m.Size != 2_600_000 {
				continue
			}
			at := geom.Pt(m.Pts[0], m.Pts[1])
			if strings.ContainsAny(m.Text, "0123456789") {
				across[m.Text] = append(across[m.Text], at)
			} else {
				down[m.Text] = append(down[m.Text], at)
			}
		}
		assert.Len(t, across, want[0], size)
		assert.Len(t, down, want[1], size)
		assert.NotContains(t, down, "I")
		paper := design.SheetSizes[size]
		last := "ABCDEFGHJKLM"[want[1]-1 : want[1]]
		for name, places := range map[string][]geom.Point{"1": across["1"], fmt.Sprint(want[0]): across[fmt.Sprint(want[0])], "A": down["A"], last: down[last]} {
			assert.Len(t, places, 2, "%s %s: on both sides", size, name)
		}
		assert.Greater(t, down["A"][0].Y, down[last][0].Y, "%s: from above", size)
		assert.Less(t, across["1"][0].X, across["2"][0].X, "%s: from the left", size)
		// the zones beside the middle are 50 mm wide
		mid := across[fmt.Sprint(want[0]/2)][0].X
		assert.Equal(t, paper.X/2-25_000_000, mid, size)
		assert.Equal(t, paper.Y/2+25_000_000, down["ABCDEFGHJKLM"[want[1]/2-1:want[1]/2]][0].Y, size)
		for _, at := range across["1"] {
			assert.Contains(t, []int64{5_000_000 / 2 * 3, paper.Y - 7_500_000}, at.Y, "between the frame, 10 mm in, and half of that margin")
		}
		// a line between two zones, not at the corners
		ticks := 0
		for _, m := range marks {
			if m.Stroke == "frame" && m.Width == 250_000 && len(m.Pts) == 4 && (m.Pts[1] == 10_000_000 && m.Pts[3] == 5_000_000 || m.Pts[0] == paper.X-10_000_000 && m.Pts[2] == paper.X-5_000_000) {
				ticks++
			}
		}
		assert.Equal(t, want[0]-1+want[1]-1, ticks, size)
	}
}

// cell finds the words of the title block that stand under a head.
func cell(t *testing.T, marks []paper.Mark, head string) []paper.Mark {
	t.Helper()
	for i, m := range marks {
		if m.Text != head || m.Size != 1_800_000 {
			continue
		}
		var out []paper.Mark
		for _, n := range marks[i+1:] {
			if n.Size == 1_800_000 {
				break
			}
			out = append(out, n)
		}
		return out
	}
	require.Fail(t, "no cell "+head)
	return nil
}

func joined(list []paper.Mark) string {
	var out []string
	for _, m := range list {
		out = append(out, m.Text)
	}
	return strings.Join(out, " ")
}

func TestTheTitleBlockSaysWhatWasTyped(t *testing.T) {
	marks := framed(t, func(d *design.Doc, s *design.Sheet) {
		s.Size = "A3"
		s.Name = "Power"
		d.Settings.Title, d.Settings.Number, d.Settings.Author, d.Settings.Date, d.Settings.Revision = "Weir Gauge", "OM-1", "Ada", "2026-11-01", "B"
		s.Fields = map[string]string{"number": "OM-2", "date": ""}
	})
	for head, want := range map[string]string{"Title": "Weir Gauge", "Sheet": "Power", "Document": "OM-2", "Author": "Ada", "Date": "", "Revision": "B", "A3": "1 of 1"} {
		assert.Equal(t, want, joined(cell(t, marks, head)), head)
	}
	// the block is 120 by 27 mm in the lower right corner of the frame
	title := cell(t, marks, "Title")[0]
	assert.EqualValues(t, 420_000_000-10_000_000-120_000_000+1_600_000, title.Pts[0])
	assert.True(t, title.Bold)
	assert.EqualValues(t, 4_400_000, title.Size)
}

// Long words are set smaller, then on two lines, and cut at the very last; nothing runs out of its cell.
func TestLongWordsStayInTheirCell(t *testing.T) {
	const room = 120_000_000 - 3_000_000
	for _, c := range []struct {
		words       string
		rows        int
		cut, shrunk bool
	}{
		{"Gauge", 1, false, false},
		{strings.Repeat("Weir gauge ", 6) + "board", 1, false, true},
		{strings.Repeat("Weir gauge ", 14) + "board", 2, false, true},
		{strings.Repeat("Плотина ", 22), 2, false, true},
		{strings.Repeat("Weir gauge ", 90) + "board", 2, true, true},
		{strings.Repeat("W", 150), 2, false, true},
		{strings.Repeat("W", 900), 2, true, true},
	} {
		got := cell(t, framed(t, func(d *design.Doc, _ *design.Sheet) { d.Settings.Title = c.words }), "Title")
		require.Len(t, got, c.rows, "%.40s", c.words)
		for i, m := range got {
			assert.LessOrEqual(t, paper.TextWidth(m), int64(room*102/100), "%.40s", m.Text)
			assert.Equal(t, c.shrunk, m.Size < 4_400_000, "%.40s", m.Text)
			assert.GreaterOrEqual(t, m.Size, int64(1_100_000), "%.40s: it can be read", m.Text)
			if i > 0 {
				assert.InDelta(t, 1.2*float64(m.Size), got[i-1].Pts[1]-m.Pts[1], 2, "the next line below")
			}
		}
		said := strings.ReplaceAll(joined(got), " ", "")
		whole := strings.ReplaceAll(c.words, " ", "")
		if c.cut {
			assert.True(t, strings.HasSuffix(said, "…"), said)
			assert.True(t, strings.HasPrefix(whole, strings.TrimSuffix(said, "…")))
		} else {
			assert.Equal(t, whole, said)
		}
	}
}
