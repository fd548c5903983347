package paper

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/png"
	"strconv"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"github.com/srwiley/oksvg"
	"github.com/srwiley/rasterx"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/picture"
	"goldentrace/core/typeface"
)

// PDF writes all uses of all sheets as one file: vectors, texts that can be searched, a
// bookmark for each sheet, blocks that lead to the sheet they stand for. Progress is told
// page by page as a share of the whole. replaced are the letters that the type does not have,
// each once; "?" stands in their places.
func PDF(ctx context.Context, d *design.Doc, n *circuit.Nets, made time.Time, progress func(share float64)) (data []byte, replaced string, err error) {
	f := newPDF(d.Settings.Title, d.Settings.Author, made)
	links := map[string]int{}
	key := func(path string, sheet design.ID) string { return fmt.Sprintf("%s#%d", path, sheet) }
	for _, p := range n.Tree.Uses {
		links[key(p.Path, p.Sheet)] = f.AddLink()
	}
	w := &pdfWriter{f: f, d: d, replaced: map[rune]bool{}}
	for i, place := range n.Tree.Uses {
		if err := ctx.Err(); err != nil {
			return nil, "", err
		}
		page := PageOf(d, n, place)
		w.h = float64(page.Size.Y) / perMM
		f.AddPageFormat("P", fpdf.SizeType{Wd: float64(page.Size.X) / perMM, Ht: w.h})
		f.SetLink(links[key(place.Path, place.Sheet)], 0, -1)
		label := place.Label
		if name := d.Sheets[place.Sheet].Name; place.Depth > 0 && name != label {
			label += " (" + name + ")"
		}
		f.Bookmark(label, place.Depth, 0)
		for _, it := range page.Items {
			for _, m := range it.Marks {
				w.draw(m)
			}
			if b := d.Blocks[it.ID]; b != nil {
				if to, ok := links[key(circuit.Below(place.Path, b.ID), b.Of)]; ok {
					f.Link(float64(b.At.X)/perMM, w.h-float64(b.At.Y+b.Size.Y)/perMM, float64(b.Size.X)/perMM, float64(b.Size.Y)/perMM, to)
				}
			}
		}
		progress(float64(i+1) / float64(len(n.Tree.Uses)))
	}
	if len(n.Tree.Uses) == 0 {
		return nil, "", errors.New("the circuit has no sheet that could be printed")
	}
	var b bytes.Buffer
	if err := f.Output(&b); err != nil {
		return nil, "", fmt.Errorf("writing the PDF: %w", err)
	}
	return b.Bytes(), w.lost(), nil
}

// newPDF begins a file without pages.
func newPDF(title, author string, made time.Time) *fpdf.Fpdf {
	f := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: 297, Ht: 210}})
	f.SetAutoPageBreak(false, 0)
	f.SetMargins(0, 0, 0)
	f.SetCreationDate(made)
	f.SetModificationDate(made)
	f.SetCatalogSort(true)
	f.SetTitle(title, true)
	f.SetAuthor(author, true)
	f.SetCreator("Golden Trace", true)
	for _, face := range typeface.Shipped() {
		f.AddUTF8FontFromBytes(face.Name, "", face.Data)
	}
	return f
}

type pdfWriter struct {
	f *fpdf.Fpdf
	d *design.Doc
	h float64
	// replaced are the letters that no font has.
	replaced map[rune]bool
}

func rgb(hex string) (r, g, b int) {
	v, _ := strconv.ParseUint(hex[1:], 16, 32) // the table's own
	return int(v >> 16), int(v >> 8 & 255), int(v & 255)
}

func (w *pdfWriter) draw(m Mark) {
	f := w.f
	switch {
	case m.Text != "":
		w.text(m)
		return
	case m.Asset != 0:
		w.picture(m)
		return
	}
	style := ""
	if hex := Print[m.Fill]; hex != "" {
		f.SetFillColor(rgb(hex))
		style = "F"
	}
	if hex := Print[m.Stroke]; hex != "" {
		f.SetDrawColor(rgb(hex))
		f.SetLineWidth(float64(m.Width) / perMM)
		f.SetLineCapStyle("round")
		f.SetLineJoinStyle("round")
		style += "D"
	}
	if style == "" {
		return
	}
	if m.Dash {
		f.SetDashPattern([]float64{2, 1.4}, 0)
		defer f.SetDashPattern(nil, 0)
	}
	x := func(i int) float64 { return float64(m.Pts[i]) / perMM }
	y := func(i int) float64 { return w.h - float64(m.Pts[i])/perMM }
	if m.R > 0 {
		f.Circle(x(0), y(1), float64(m.R)/perMM, style)
		return
	}
	f.MoveTo(x(0), y(1))
	for i := 2; i+1 < len(m.Pts); i += 2 {
		f.LineTo(x(i), y(i+1))
	}
	if m.Closed {
		f.ClosePath()
	}
	f.DrawPath(style)
}

func (w *pdfWriter) text(m Mark) {
	f := w.f
	hex := Print[m.Fill]
	if hex == "" {
		return
	}
	f.SetTextColor(rgb(hex))
	for _, r := range Replaced(m) {
		w.replaced[r] = true
	}
	size := float64(m.Size) / perMM
	x, y := float64(m.Pts[0])/perMM, w.h-float64(m.Pts[1])/perMM
	width := float64(TextWidth(m)) / perMM
	left := map[int]float64{-1: 0, 0: -width / 2, 1: -width}[m.Align]
	if m.Up {
		f.TransformBegin()
		f.TransformRotate(90, x, y)
		defer f.TransformEnd()
	}
	for _, p := range pieces(m) {
		f.SetFont(p.face.Name, "", size*72/25.4)
		f.Text(x+left, y+size*0.35, p.text)
		left += p.width * size
	}
}

// picture embeds a PNG or JPEG as it is; an SVG is painted at 12 dots a millimetre.
func (w *pdfWriter) picture(m Mark) {
	a := w.d.Assets[m.Asset]
	if a == nil {
		return
	}
	name := fmt.Sprint("asset", a.ID)
	kind, data := map[string]string{"png": "PNG", "jpeg": "JPG"}[a.Type], a.Data
	wd, ht := float64(m.Pts[2]-m.Pts[0])/perMM, float64(m.Pts[3]-m.Pts[1])/perMM
	if a.Type == "svg" {
		painted, err := paintSVG(a.Data, int(wd*12), int(ht*12))
		if err != nil {
			return // what cannot be painted leaves its place empty; the screen shows it
		}
		kind, data = "PNG", painted
	} else if a.Type == "png" { // interlaced and 16-bit files are not read by the writer
		if img, err := png.Decode(bytes.NewReader(a.Data)); err == nil {
			var b bytes.Buffer
			if png.Encode(&b, to8(img)) == nil {
				data = b.Bytes()
			}
		}
	}
	w.f.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: kind}, bytes.NewReader(data))
	w.f.ImageOptions(name, float64(m.Pts[0])/perMM, w.h-float64(m.Pts[3])/perMM, wd, ht, false, fpdf.ImageOptions{ImageType: kind}, 0, "")
}

func to8(img image.Image) image.Image {
	out := image.NewNRGBA(img.Bounds())
	for y := img.Bounds().Min.Y; y < img.Bounds().Max.Y; y++ {
		for x := img.Bounds().Min.X; x < img.Bounds().Max.X; x++ {
			out.Set(x, y, img.At(x, y))
		}
	}
	return out
}

func paintSVG(data []byte, w, h int) (out []byte, err error) {
	defer func() { // the reader of SVG trips over some odd files
		if recover() != nil {
			err = errors.New("the SVG cannot be painted")
		}
	}()
	if err := picture.Bounded(data); err != nil { // of a project kept before pictures were looked at so
		return nil, err
	}
	w, h = min(max(w, 1), 4000), min(max(h, 1), 4000)
	icon, err := oksvg.ReadIconStream(bytes.NewReader(data), oksvg.IgnoreErrorMode)
	if err != nil {
		return nil, err
	}
	icon.SetTarget(0, 0, float64(w), float64(h))
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	icon.Draw(rasterx.NewDasher(w, h, rasterx.NewScannerGV(w, h, img, img.Bounds())), 1)
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}
