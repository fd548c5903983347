package paper_test

import (
	"bytes"
	"context"
	"encoding/base64"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/png"
	"io"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// deep is a picture of 2 by 1 points, 16 bits a colour: the left one red, the right one blue.
func deep(t *testing.T) []byte {
	t.Helper()
	img := image.NewNRGBA64(image.Rect(0, 0, 2, 1))
	img.Set(0, 0, color.NRGBA64{R: 0xffff, A: 0xffff})
	img.Set(1, 0, color.NRGBA64{B: 0xffff, A: 0xffff})
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	return b.Bytes()
}

// printed draws a project of one sheet, changed, as PDF and as SVG.
func printed(t *testing.T, change func(d *design.Doc, sheet design.ID)) (r *pdf.Reader, data []byte, replaced, svg string) {
	t.Helper()
	d := design.New("pictures")
	change(d, d.SheetsInOrder()[0].ID)
	n := circuit.Find(d)
	data, replaced, err := paper.PDF(context.Background(), d, n, time.Date(2026, 11, 23, 0, 0, 0, 0, time.UTC), func(float64) {})
	require.NoError(t, err)
	r, err = pdf.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	return r, data, replaced, string(paper.SVG(d, paper.PageOf(d, n, n.Tree.Uses[0])))
}

// Pictures are in the PDF as they are, also those of 16 bits; an SVG is painted at 12 points a
// millimetre, one that cannot be painted leaves its place empty and the page whole.
func TestPicturesOnPaper(t *testing.T) {
	vector := []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10" viewBox="0 0 10 10"><rect width="5" height="10" fill="#00ff00"/></svg>`)
	r, data, _, svg := printed(t, func(d *design.Doc, sheet design.ID) {
		for i, a := range []*design.Asset{{Type: "png", Data: deep(t)}, {Type: "svg", Data: vector}, {Type: "svg", Data: []byte("<svg")}} {
			a.ID = d.NewID()
			d.Put(a)
			d.Put(&design.Picture{ID: d.NewID(), Sheet: sheet, Asset: a.ID, At: geom.Pt(int64(20+50*i)*mm, 30*mm), Size: geom.Pt(40*mm, 20*mm)})
		}
		d.Put(&design.Picture{ID: d.NewID(), Sheet: sheet, Asset: 999_999, At: geom.Pt(0, 0), Size: geom.Pt(mm, mm)})
	})
	objects := r.Page(1).Resources().Key("XObject")
	require.Len(t, objects.Keys(), 2, "the two that can be painted")
	red, blue, green := color.NRGBA{R: 255, A: 255}, color.NRGBA{B: 255, A: 255}, color.NRGBA{G: 255, A: 255}
	first, painted := embedded(t, data, 2, 1), embedded(t, data, 480, 240) // 40 by 20 mm at 12 points a millimetre
	assert.Equal(t, []color.Color{red, blue}, []color.Color{nrgba(first, 0, 0), nrgba(first, 1, 0)})
	assert.Equal(t, green, nrgba(painted, 100, 120), "its left half is green")
	assert.NotEqual(t, green, nrgba(painted, 400, 120))

	assert.Contains(t, svg, fmt.Sprintf(`<image x="20" y="%d" width="40" height="20" preserveAspectRatio="none" href="data:image/png;base64,%s"`, 210-50, base64.StdEncoding.EncodeToString(deep(t))))
	assert.Equal(t, 3, strings.Count(svg, "<image "), "what is not there is not drawn")
}

func nrgba(img image.Image, x, y int) color.Color {
	return color.NRGBAModel.Convert(img.At(x, y))
}

// embedded finds the picture of so many points in a PDF. Its bytes are packed as those of a PNG
// are (ISO 32000-1, 7.4.4.4: predictor 15), so that it is read as one.
func embedded(t *testing.T, data []byte, width, height uint32) image.Image {
	t.Helper()
	at := bytes.Index(data, fmt.Appendf(nil, "/Width %d\n/Height %d\n", width, height))
	require.Positive(t, at)
	begin := at + bytes.Index(data[at:], []byte("stream\n")) + len("stream\n")
	packed := data[begin : begin+bytes.Index(data[begin:], []byte("\nendstream"))]
	require.Contains(t, string(data[at:begin]), "/Colors 3")
	out := bytes.NewBufferString("\x89PNG\r\n\x1a\n")
	chunk := func(kind string, body []byte) {
		_ = binary.Write(out, binary.BigEndian, uint32(len(body)))
		whole := append([]byte(kind), body...)
		out.Write(whole)
		_ = binary.Write(out, binary.BigEndian, crc32.ChecksumIEEE(whole))
	}
	chunk("IHDR", append(binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, width), height), 8, 2, 0, 0, 0))
	chunk("IDAT", packed)
	chunk("IEND", nil)
	img, err := png.Decode(out)
	require.NoError(t, err)
	return img
}

// Letters that no font of ours has are replaced by "?" and said, each once; Greek and Cyrillic
// letters are there.
func TestLettersThatAreReplaced(t *testing.T) {
	r, _, replaced, svg := printed(t, func(d *design.Doc, sheet design.ID) {
		d.Settings.Title = "Ωμέγα Плотина"
		d.Put(&design.Note{ID: d.NewID(), Sheet: sheet, At: geom.Pt(50*mm, 200*mm), Width: 80 * mm, Size: 3 * mm, Tint: "none", Text: "水門 and 水"})
	})
	assert.Equal(t, "水門", replaced)
	var text strings.Builder
	for _, w := range r.Page(1).Content().Text {
		text.WriteString(w.S)
	}
	assert.Contains(t, text.String(), "?? and ?")
	assert.Contains(t, svg, "水門 and 水", "a browser has more letters than we ship")
}

// What is written in an SVG cannot break out of its text.
func TestTextsAreEscaped(t *testing.T) {
	_, _, _, svg := printed(t, func(d *design.Doc, sheet design.ID) {
		d.Put(&design.Label{ID: d.NewID(), Sheet: sheet, Name: `A<b>&"c"`, At: geom.Pt(mm, mm), Turn: 1})
	})
	assert.Contains(t, svg, "A&lt;b&gt;&amp;&#34;c&#34;")
	assert.Contains(t, svg, `transform="rotate(-90 `, "upright words read from below")
	assert.Contains(t, svg, `stroke-linecap="round"`)
}

// A picture lies in the PDF where it lies on the sheet: 72/25.4 points a millimetre, from below.
func TestPlaceOfAPictureInThePDF(t *testing.T) {
	r, _, _, _ := printed(t, func(d *design.Doc, sheet design.ID) {
		a := &design.Asset{ID: d.NewID(), Type: "png", Data: deep(t)}
		d.Put(a)
		d.Put(&design.Picture{ID: d.NewID(), Sheet: sheet, Asset: a.ID, At: geom.Pt(70*mm, 30*mm), Size: geom.Pt(40*mm, 20*mm)})
	})
	stream := r.Page(1).V.Key("Contents").Reader()
	defer stream.Close()
	raw, err := io.ReadAll(stream)
	require.NoError(t, err)
	found := regexp.MustCompile(`q ([-.\d]+) 0 0 ([-.\d]+) ([-.\d]+) ([-.\d]+) cm /I`).FindStringSubmatch(string(raw))
	require.Len(t, found, 5)
	for i, want := range []float64{40, 20, 70, 30} {
		got, err := strconv.ParseFloat(found[i+1], 64)
		require.NoError(t, err)
		assert.InDelta(t, want*72/25.4, got, 0.05)
	}
}
