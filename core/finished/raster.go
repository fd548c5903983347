package finished

import (
	"context"
	"image"
	"image/color"
	"math"

	"golang.org/x/image/vector"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// MostPixels bounds a picture's longer side.
const MostPixels = 8_000

// chord is how far straight lines may stray from arcs in pictures, in nanometres.
const chord = 2_000

// canvas is a picture that is being made.
type canvas struct {
	v     *View
	scale float64 // pixels per nanometre
	img   *image.NRGBA
	ctx   context.Context // nothing more is drawn once it ends
}

// Image draws a view, the board's longer side so many pixels long. What is not board is clear. When the context ends,
// its error is given back soon.
func (v *View) Image(ctx context.Context, side int) (*image.NRGBA, error) {
	w, h := float64(v.Box.Max.X-v.Box.Min.X), float64(v.Box.Max.Y-v.Box.Min.Y)
	k := float64(min(max(side, 16), MostPixels)) / math.Max(w, h)
	c := &canvas{ctx: ctx, v: v, scale: k, img: image.NewNRGBA(image.Rect(0, 0, max(1, int(math.Round(w*k))), max(1, int(math.Round(h*k)))))}
	for i := range v.Coats {
		c.coat(&v.Coats[i])
	}
	return c.img, ctx.Err()
}

// at is where a place lies in the picture.
func (c *canvas) at(p geom.Point) (x, y float32) {
	dx := float64(p.X - c.v.Box.Min.X)
	if c.v.Bottom {
		dx = float64(c.v.Box.Max.X - p.X)
	}
	return float32(dx * c.scale), float32(float64(c.v.Box.Max.Y-p.Y) * c.scale)
}

// pixels are those that a shape may touch.
func (c *canvas) pixels(s geom.Shape) image.Rectangle {
	b := s.Box()
	x0, y0 := c.at(b.Min)
	x1, y1 := c.at(b.Max)
	r := image.Rect(int(math.Floor(float64(min(x0, x1)))), int(math.Floor(float64(min(y0, y1)))), int(math.Ceil(float64(max(x0,
		x1))))+1, int(math.Ceil(float64(max(y0, y1))))+1)
	return r.Intersect(c.img.Rect)
}

// cover is how much of each pixel shapes cover.
func (c *canvas) cover(list []geom.Shape, within image.Rectangle) *image.Alpha {
	out := image.NewAlpha(within)
	for _, s := range list {
		if c.ctx.Err() != nil {
			break
		}
		r := c.pixels(s).Intersect(within)
		if r.Empty() {
			continue
		}
		for _, line := range outlines(s) {
			c.fill(out, r, line)
		}
	}
	return out
}

// fill adds what lines bound, that wind around no place twice.
func (c *canvas) fill(out *image.Alpha, r image.Rectangle, lines ...[]geom.Point) {
	z := vector.NewRasterizer(r.Dx(), r.Dy())
	for _, line := range lines {
		for i, p := range line {
			x, y := c.at(p)
			x, y = x-float32(r.Min.X), y-float32(r.Min.Y)
			if i == 0 {
				z.MoveTo(x, y)
			} else {
				z.LineTo(x, y)
			}
		}
		z.ClosePath()
	}
	one := image.NewAlpha(image.Rect(0, 0, r.Dx(), r.Dy()))
	z.Draw(one, one.Rect, image.Opaque, image.Point{})
	for y := range r.Dy() {
		to := out.Pix[out.PixOffset(r.Min.X, r.Min.Y+y):]
		for x, a := range one.Pix[y*one.Stride : y*one.Stride+r.Dx()] {
			to[x] = 255 - uint8(uint16(255-to[x])*uint16(255-a)/255)
		}
	}
}

// outlines are closed lines that bound what a shape covers, together.
func outlines(s geom.Shape) (out [][]geom.Point) {
	edges := s.Edges()
	if s.Area {
		out = append(out, edges.Flat(chord, false))
	}
	if s.R == 0 {
		return out
	}
	for _, e := range edges {
		along := e.Along(chord, false)
		for i := 0; i+1 < len(along); i++ {
			out = append(out, overlay.Round(geom.Shape{Pts: along[i : i+2], R: s.R}, chord))
		}
	}
	return out
}

// coat lays a coat over what is there.
func (c *canvas) coat(t *Coat) {
	box := image.Rectangle{}
	for _, s := range t.Shapes {
		box = box.Union(c.pixels(s))
	}
	for _, a := range t.Areas {
		box = box.Union(c.pixels(geom.Shape{Pts: a.Outer, Area: true}))
	}
	if box.Empty() || c.ctx.Err() != nil {
		return
	}
	cover, without := c.cover(t.Shapes, box), c.cover(t.Without, box)
	c.fill(cover, box, overlay.Rings(t.Areas)...)
	var within *image.Alpha
	if t.Within != nil {
		within = c.cover(t.Within, box)
	}
	for y := box.Min.Y; y < box.Max.Y; y++ {
		for x := box.Min.X; x < box.Max.X; x++ {
			i := cover.PixOffset(x, y)
			a := uint32(cover.Pix[i]) * uint32(255-without.Pix[i]) / 255
			if within != nil {
				a = a * uint32(within.Pix[i]) / 255
			}
			if a > 0 {
				c.over(x, y, t.Colour, a*uint32(t.Colour.A)/255)
			}
		}
	}
}

// over lays a colour of an opacity over a pixel (Porter, Duff 1984).
func (c *canvas) over(x, y int, of color.NRGBA, a uint32) {
	i := c.img.PixOffset(x, y)
	p := c.img.Pix[i : i+4 : i+4]
	below := uint32(p[3]) * (255 - a) / 255
	all := a + below
	for k, v := range [3]uint8{of.R, of.G, of.B} {
		p[k] = uint8((uint32(v)*a + uint32(p[k])*below) / max(all, 1))
	}
	p[3] = uint8(all)
}
