package glance

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"slices"

	"goldentrace/core/geom"
)

// A board of very many shapes is drawn into points: as an SVG of so many elements its picture would be larger
// than the list that it stands in, and take a browser seconds to show.
const (
	mostShapes = 8_000
	points     = 480 // along the longer side
)

// raster draws shapes into points of a picture of a box, y downwards. Each point has fine by fine places that
// a shape covers or not.
type raster struct {
	img    *image.RGBA
	box    geom.Box
	scale  float64 // places per nanometre
	places *image.Gray
}

const fine = 3

func newRaster(b geom.Box) *raster {
	w, h := float64(b.Max.X-b.Min.X), float64(b.Max.Y-b.Min.Y)
	k := points / math.Max(w, h)
	size := image.Pt(max(1, int(math.Round(w*k))), max(1, int(math.Round(h*k))))
	return &raster{img: image.NewRGBA(image.Rectangle{Max: size}), box: b, scale: k * fine, places: image.NewGray(image.Rectangle{Max: size.Mul(fine)})}
}

// shape adds a shape to what is filled next.
func (r *raster) shape(s geom.Shape) {
	sides := s.Edges()
	if s.Area {
		r.polygon(sides.Flat(flat, false))
	}
	if s.R == 0 {
		return
	}
	for _, side := range sides {
		along := side.Along(flat, false)
		for i := 0; i+1 < len(along); i++ {
			r.stroke(along[i], along[i+1], s.R)
		}
	}
}

// stroke is everything within a distance of a line, its ends as half octagons.
func (r *raster) stroke(a, b geom.Point, reach int64) {
	way := math.Atan2(float64(b.Y-a.Y), float64(b.X-a.X))
	pts := make([]geom.Point, 0, 10)
	for i, end := range []geom.Point{b, a} {
		for k := range 5 {
			s, c := math.Sincos(way - math.Pi/2 + float64(i)*math.Pi + float64(k)*math.Pi/4)
			pts = append(pts, end.Add(geom.Pt(int64(c*float64(reach)), int64(s*float64(reach)))))
		}
	}
	r.polygon(pts)
}

// polygon covers the places whose middle lies within: between the first and the second crossing of their row, the
// third and the fourth, and so on.
func (r *raster) polygon(pts []geom.Point) {
	at := make([][2]float64, len(pts))
	low, high := math.Inf(1), math.Inf(-1)
	for i, p := range pts {
		at[i] = [2]float64{float64(p.X-r.box.Min.X) * r.scale, float64(r.box.Max.Y-p.Y) * r.scale}
		low, high = min(low, at[i][1]), max(high, at[i][1])
	}
	size := r.places.Bounds().Max
	var crossings []float64
	for y := max(0, int(low-0.5)); y < min(size.Y, int(high)+1); y++ {
		crossings = crossings[:0]
		middle := float64(y) + 0.5
		for i, p := range at {
			if q := at[(i+1)%len(at)]; (p[1] > middle) != (q[1] > middle) {
				crossings = append(crossings, p[0]+(middle-p[1])/(q[1]-p[1])*(q[0]-p[0]))
			}
		}
		slices.Sort(crossings)
		row := r.places.Pix[y*r.places.Stride:]
		for i := 0; i+1 < len(crossings); i += 2 {
			for x := max(0, int(math.Ceil(crossings[i]-0.5))); x < min(size.X, int(math.Ceil(crossings[i+1]-0.5))); x++ {
				row[x] = 1
			}
		}
	}
}

// fill fills what was added in a colour, and begins anew.
func (r *raster) fill(colour string) {
	var c color.RGBA
	_, _ = fmt.Sscanf(colour, "#%02x%02x%02x", &c.R, &c.G, &c.B) // they stand above
	c.A = 255
	cover := image.NewAlpha(r.img.Bounds())
	for y := range cover.Rect.Dy() {
		for x := range cover.Rect.Dx() {
			n := 0
			for i := range fine * fine {
				n += int(r.places.Pix[(y*fine+i/fine)*r.places.Stride+x*fine+i%fine])
			}
			cover.Pix[y*cover.Stride+x] = uint8(255 * n / (fine * fine))
		}
	}
	draw.DrawMask(r.img, r.img.Bounds(), image.NewUniform(c), image.Point{}, cover, image.Point{}, draw.Over)
	clear(r.places.Pix)
}

// element is the picture as an element of an SVG.
func (r *raster) element() string {
	var out bytes.Buffer
	_ = png.Encode(&out, r.img) // into memory
	return fmt.Sprintf(`<image x="%s" y="%s" width="%s" height="%s" href="data:image/png;base64,%s"/>`+"\n", mm(r.box.Min.X), mm(r.box.Min.Y), mm(r.box.Max.X-r.box.Min.X), mm(r.box.Max.Y-r.box.Min.Y),
		base64.StdEncoding.EncodeToString(out.Bytes()))
}
