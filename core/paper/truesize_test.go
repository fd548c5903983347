package paper_test

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// twoPads is a footprint of two pads of 2 by 1 mm, their middles so far apart.
func twoPads(name string, distance int64) *design.Footprint {
	return &design.Footprint{Name: name, Pads: []design.Pad{
		{Number: "1", Form: design.Rect, At: geom.Pt(-distance/2, 0), Size: geom.Pt(2*mm, mm)},
		{Number: "2", Form: design.Rect, At: geom.Pt(distance/2, 0), Size: geom.Pt(2*mm, mm)}}}
}

// path is a line or an area of a page as its content says, in millimetres from the lower left.
type path [][2]float64

// pathsOf reads the paths of a page's content: operators m and l of ISO 32000-1, table 59.
func pathsOf(t *testing.T, p pdf.Page) []path {
	t.Helper()
	body, err := io.ReadAll(p.V.Key("Contents").Reader())
	require.NoError(t, err)
	var out []path
	for _, m := range regexp.MustCompile(`(-?[\d.]+) (-?[\d.]+) (m|l)\b`).FindAllStringSubmatch(string(body), -1) {
		x, _ := strconv.ParseFloat(m[1], 64)
		y, _ := strconv.ParseFloat(m[2], 64)
		if m[3] == "m" {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], [2]float64{x * 25.4 / 72, y * 25.4 / 72})
	}
	return out
}

func pages(t *testing.T, list ...*design.Footprint) (*pdf.Reader, func(page int) string) {
	t.Helper()
	data, _, err := paper.FootprintsPDF(context.Background(), list, "River", time.Date(2026, 11, 26, 0, 0, 0, 0, time.UTC), func(float64) {})
	require.NoError(t, err)
	r, err := pdf.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	return r, func(page int) string {
		var b strings.Builder
		for _, w := range r.Page(page).Content().Text {
			b.WriteString(w.S)
		}
		return b.String()
	}
}

// On paper, pads have their size and distance, and both bars have 100 mm.
func TestFootprintsAtTrueSize(t *testing.T) {
	r, read := pages(t, twoPads("Wide two", 50*mm))
	require.Equal(t, 1, r.NumPage())
	box := r.Page(1).V.Key("MediaBox")
	assert.InDelta(t, 210*72/25.4, box.Index(2).Float64(), 0.1, "A4, upright")
	assert.InDelta(t, 297*72/25.4, box.Index(3).Float64(), 0.1)
	var pads []path
	across, up := 0, 0
	for _, p := range pathsOf(t, r.Page(1)) {
		w, h := extent(p)
		switch {
		case len(p) == 4 && abs(w-2) < 0.02 && abs(h-1) < 0.02:
			pads = append(pads, p)
		case abs(w-100) < 0.02 && h < 0.02:
			across++
		case abs(h-100) < 0.02 && w < 0.02:
			up++
		}
	}
	require.Len(t, pads, 2)
	assert.InDelta(t, 50, abs(pads[0][0][0]-pads[1][0][0]), 0.02)
	assert.InDelta(t, pads[0][0][1], pads[1][0][1], 0.02)
	assert.Equal(t, []int{1, 1}, []int{across, up})
	for _, s := range []string{"Wide two", "2 pads", "100 mm", "River"} {
		assert.Contains(t, read(1), s)
	}
}

// Holes are white on their pads, lines of print are as wide as they are, arcs stay within what they leave.
func TestRoundThingsAtTrueSize(t *testing.T) {
	f := &design.Footprint{Name: "Round", Pads: []design.Pad{{Number: "1", Form: design.Round, Size: geom.Pt(3*mm, 3*mm), Hole: mm}},
		Silk: []design.Figure{{Form: "arc", Pts: []geom.Point{geom.Pt(-8*mm, 0), geom.Pt(0, 8*mm), geom.Pt(8*mm, 0)}, Width: 250_000}}}
	r, _ := pages(t, f)
	body, err := io.ReadAll(r.Page(1).V.Key("Contents").Reader())
	require.NoError(t, err)
	assert.Contains(t, string(body), fmt.Sprintf("%.2f w", 0.25*72/25.4))
	arc := path(nil)
	for _, p := range pathsOf(t, r.Page(1)) {
		if len(p) > 20 {
			require.Nil(t, arc)
			arc = p
		}
	}
	w, h := extent(arc)
	assert.InDelta(t, 16, w, 0.02)
	assert.InDelta(t, 8, h, 0.02)
	mid := arc[0][0] + 8
	for _, p := range arc {
		assert.InDelta(t, 64, (p[0]-mid)*(p[0]-mid)+(p[1]-arc[0][1])*(p[1]-arc[0][1]), 0.3)
	}
	amber, white := strings.Index(string(body), "0.886 0.718 0.408 rg"), strings.LastIndex(string(body), "1.000 g")
	assert.Positive(t, amber)
	assert.Greater(t, white, amber, "the hole is laid over its pad")
}

// Many footprints fill rows and pages without lying over each other or the bars; large ones get larger pages, too large ones a sentence.
func TestManyFootprintsOnPages(t *testing.T) {
	var list []*design.Footprint
	for i := range 200 {
		list = append(list, twoPads(fmt.Sprintf("Two-%03d", i), int64(3+i%40)*mm))
	}
	list = append(list, twoPads("Very wide", 250*mm))
	r, read := pages(t, list...)
	require.Greater(t, r.NumPage(), 2)
	all := ""
	for n := 1; n <= r.NumPage(); n++ {
		all += read(n)
		var pads []path
		for _, p := range pathsOf(t, r.Page(n)) {
			if w, h := extent(p); len(p) == 4 && abs(w-2) < 0.02 && abs(h-1) < 0.02 {
				pads = append(pads, p)
				assert.Greater(t, p[0][1], 28.0, "above the bars")
				assert.Greater(t, p[0][0], 14.9)
			}
		}
		for i, p := range pads {
			for _, q := range pads[:i] {
				assert.False(t, abs(p[0][0]-q[0][0]) < 2 && abs(p[0][1]-q[0][1]) < 1, "page %d", n)
			}
		}
	}
	for _, f := range list {
		assert.Equal(t, 1, strings.Count(all, f.Name), f.Name)
	}
	assert.InDelta(t, 297*72/25.4, r.Page(r.NumPage()).V.Key("MediaBox").Index(2).Float64(), 0.1, "A3, upright, for the wide one")

	_, _, err := paper.FootprintsPDF(context.Background(), []*design.Footprint{twoPads("Endless", 900*mm)}, "River", time.Now(), func(float64) {})
	assert.ErrorContains(t, err, "Endless is 902.5 mm by 1.5 mm: no sheet up to A1 takes it")
	_, _, err = paper.FootprintsPDF(context.Background(), nil, "River", time.Now(), func(float64) {})
	assert.ErrorContains(t, err, "no footprints")
	gone, stop := context.WithCancel(context.Background())
	stop()
	_, _, err = paper.FootprintsPDF(gone, list, "River", time.Now(), func(float64) {})
	assert.ErrorIs(t, err, context.Canceled)
}

func abs(f float64) float64 { return max(f, -f) }

func extent(p path) (w, h float64) {
	lo, hi := p[0], p[0]
	for _, q := range p {
		lo = [2]float64{min(lo[0], q[0]), min(lo[1], q[1])}
		hi = [2]float64{max(hi[0], q[0]), max(hi[1], q[1])}
	}
	return hi[0] - lo[0], hi[1] - lo[1]
}
