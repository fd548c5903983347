package paper_test

import (
	"bytes"
	"context"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
	"goldentrace/demo"
)

func gauge(t *testing.T) (*design.Doc, *circuit.Nets) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	return d, circuit.Find(d)
}

// The PDF is read by a reader that is not ours: a page for each use of each sheet in its
// size, all texts to be searched, a bookmark for each, blocks that lead to their sheets.
func TestPDF(t *testing.T) {
	d, n := gauge(t)
	var shares []float64
	data, replaced, err := paper.PDF(context.Background(), d, n, time.Date(2026, 11, 23, 0, 0, 0, 0, time.UTC), func(s float64) { shares = append(shares, s) })
	require.NoError(t, err)
	assert.Empty(t, replaced, "the type has all letters of the gauge")
	assert.Len(t, shares, 10)
	assert.EqualValues(t, 1, shares[9])
	r, err := pdf.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	require.Equal(t, 10, r.NumPage())
	read := func(page int) string {
		var b strings.Builder
		for _, w := range r.Page(page).Content().Text {
			b.WriteString(w.S)
		}
		return b.String()
	}
	assert.Contains(t, read(1), "Reads four pressure probes")
	power := read(2)
	for _, s := range []string{"OM-2405", "POWER_OK", "BV36S", "+3V3A", "22µ", "HRT-021"} {
		assert.Contains(t, power, s)
	}
	// the four uses of one sheet show their own designators
	probe := d.Bearers("J4")[0]
	for i, place := range n.Tree.Of(probe.Sheet) {
		assert.Contains(t, read(4+i), probe.Called(place.Path))
	}
	box := r.Page(1).V.Key("MediaBox")
	assert.InDelta(t, 420*72/25.4, box.Index(2).Float64(), 0.1, "A3, landscape")
	assert.InDelta(t, 297*72/25.4, box.Index(3).Float64(), 0.1)
	var marks []string
	var walk func(o pdf.Outline)
	walk = func(o pdf.Outline) {
		if o.Title != "" {
			marks = append(marks, o.Title)
		}
		for _, c := range o.Child {
			walk(c)
		}
	}
	walk(r.Outline())
	assert.Len(t, marks, 10)
	assert.Equal(t, "Overview", strings.TrimSpace(marks[0]))
	links := r.Page(1).V.Key("Annots")
	assert.Equal(t, len(d.Blocks), links.Len(), "each block is a link")
	led := map[string]bool{}
	for i := range links.Len() {
		area, to := links.Index(i).Key("Rect"), links.Index(i).Key("Dest")
		for b := range d.Blocks.All() { // the one whose frame it is
			if math.Abs(float64(b.At.X)/1e6*72/25.4-area.Index(0).Float64()) < 0.1 && math.Abs(float64(b.At.Y)/1e6*72/25.4-min(area.Index(1).Float64(), area.Index(3).Float64())) < 0.1 {
				assert.InDelta(t, float64(b.Size.X)/1e6*72/25.4, area.Index(2).Float64()-area.Index(0).Float64(), 0.1)
				var said strings.Builder
				for _, w := range (pdf.Page{V: to.Index(0)}).Content().Text {
					said.WriteString(w.S)
				}
				assert.Contains(t, said.String(), d.Sheets[b.Of].Name, "and leads to its sheet")
				led[b.Name] = true
			}
		}
	}
	assert.Len(t, led, len(d.Blocks))

	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, _, err = paper.PDF(ctx, d, n, time.Now(), func(float64) {})
	assert.ErrorIs(t, err, context.Canceled)
}

// The SVG is well-formed and says the same places as the design, in millimetres from the
// upper left.
func TestSVG(t *testing.T) {
	d, n := gauge(t)
	for _, place := range n.Tree.Uses {
		page := paper.PageOf(d, n, place)
		dec := xml.NewDecoder(bytes.NewReader(paper.SVG(d, page)))
		lines := map[[4]float64]bool{}
		var texts []string
		in := false
		for {
			tok, err := dec.Token()
			if errors.Is(err, io.EOF) {
				break
			}
			require.NoError(t, err)
			switch tok := tok.(type) {
			case xml.StartElement:
				in = tok.Name.Local == "text"
				for _, a := range tok.Attr {
					if a.Name.Local == "d" {
						f := strings.FieldsFunc(a.Value, func(r rune) bool { return strings.ContainsRune("MLZ ", r) })
						if len(f) == 4 {
							var v [4]float64
							for i := range v {
								v[i], _ = strconv.ParseFloat(f[i], 64)
							}
							lines[v] = true
						}
					}
				}
			case xml.CharData:
				if in {
					texts = append(texts, string(tok))
				}
			}
		}
		h := float64(design.SheetSizes[d.Sheets[place.Sheet].Size].Y) / 1e6
		for _, o := range d.ItemsOf(place.Sheet) {
			switch o := o.(type) {
			case *design.Wire:
				assert.True(t, lines[[4]float64{float64(o.A.X) / 1e6, h - float64(o.A.Y)/1e6, float64(o.B.X) / 1e6, h - float64(o.B.Y)/1e6}], "%s: a wire from %v", place.Label, o.A)
			case *design.Part:
				assert.Contains(t, texts, o.Called(place.Path)+o.UnitLetter())
			case *design.Port:
				assert.Contains(t, texts, o.Name)
			}
		}
	}
}

// Notes are broken into lines that are not wider than they may be; what is strong is so.
func TestNotesAreBroken(t *testing.T) {
	n := &design.Note{At: geom.Pt(0, 0), Width: 40_000_000, Size: 3_000_000, Tint: "sand", Text: "# Head\nThe quick *brown otter* swims over the lazy weir and back again.\n\n- one\n- two"}
	require.NoError(t, n.Valid())
	marks := paper.Marks(design.Empty(), n, "")
	rows := map[int64]int64{}
	bold := ""
	for _, m := range marks {
		if m.Text == "" {
			continue
		}
		rows[m.Pts[1]] = max(rows[m.Pts[1]], m.Pts[0]+paper.TextWidth(m))
		if m.Bold {
			bold += m.Text + "|"
		}
	}
	assert.Len(t, rows, 6, "head, three lines, two items")
	for y, right := range rows {
		assert.LessOrEqual(t, right, n.Width, "at %d", y)
	}
	assert.Contains(t, bold, "Head|")
	assert.Contains(t, strings.ReplaceAll(bold, "|", ""), "brown otter")
	assert.NotContains(t, bold, "lazy")
}

// A part is drawn where its pins are: every pin's line begins where wires meet it, however
// the part is turned.
func TestPinsBeginWhereWiresMeet(t *testing.T) {
	d := design.New("pins")
	sheet := d.SheetsInOrder()[0].ID
	for turn := range 4 {
		for _, mirror := range []bool{false, true} {
			_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "NPN transistor", At: geom.Pt(int64(turn)*50_000_000, 0), Turn: turn, Mirror: mirror})
			require.NoError(t, err)
		}
	}
	for p := range d.Parts.All() {
		ends := map[geom.Point]bool{}
		for _, m := range paper.Marks(d, p, "") {
			if len(m.Pts) >= 2 {
				ends[geom.Pt(m.Pts[0], m.Pts[1])] = true
			}
		}
		sym := d.SymbolOf(p)
		for i := range sym.Pins {
			assert.True(t, ends[circuit.PinPlace(p, &sym.Pins[i])], "%s turned %d", sym.Pins[i].Name, p.Turn)
		}
	}
}
