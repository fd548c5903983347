package finished

import (
	"bytes"
	"context"
	"fmt"
	"image/color"
	"strconv"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// SVG draws a view as lines and areas, in millimetres. When the context ends, its error is given back after the coat in work.
func (v *View) SVG(ctx context.Context) ([]byte, error) {
	w := &writer{v: v}
	fmt.Fprintf(w, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %s %s" width="%smm" height="%smm">`+"\n",
		mm(v.Box.Max.X-v.Box.Min.X), mm(v.Box.Max.Y-v.Box.Min.Y), mm(v.Box.Max.X-v.Box.Min.X), mm(v.Box.Max.Y-v.Box.Min.Y))
	for i := range v.Coats {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		w.coat(i, &v.Coats[i])
	}
	w.WriteString("</svg>\n")
	return w.Bytes(), nil
}

type writer struct {
	bytes.Buffer
	v *View
}

func mm(nm int64) string { return strconv.FormatFloat(float64(nm)/1e6, 'f', -1, 64) }

func (w *writer) place(p geom.Point) string {
	x := p.X - w.v.Box.Min.X
	if w.v.Bottom {
		x = w.v.Box.Max.X - p.X
	}
	return mm(x) + " " + mm(w.v.Box.Max.Y-p.Y)
}

func hex(c color.NRGBA) string { return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B) }

func (w *writer) coat(i int, t *Coat) {
	if len(t.Shapes)+len(t.Areas) == 0 {
		return
	}
	open := fmt.Sprintf(`<g id="coat%d" color="%s" fill="%s" stroke="%s" stroke-linecap="round" stroke-linejoin="round"`, i, hex(t.Colour), hex(t.Colour), hex(t.Colour))
	if t.Colour.A < 255 {
		open += fmt.Sprintf(` opacity="%.3f"`, float64(t.Colour.A)/255)
	}
	if t.Within != nil || len(t.Without) > 0 {
		fmt.Fprintf(w, `<mask id="mask%d" maskUnits="userSpaceOnUse" x="0" y="0" width="%s" height="%s">`, i, mm(w.v.Box.Max.X-w.v.Box.Min.X), mm(w.v.Box.Max.Y-w.v.Box.Min.Y))
		if t.Within == nil {
			w.WriteString(`<rect width="100%" height="100%" fill="#fff"/>`)
		} else {
			w.group("#fff", t.Within)
		}
		w.group("#000", t.Without)
		w.WriteString("</mask>\n")
		open += fmt.Sprintf(` mask="url(#mask%d)"`, i)
	}
	w.WriteString(open + ">\n")
	for _, s := range t.Shapes {
		w.shape(s)
	}
	if len(t.Areas) > 0 {
		w.WriteString(`<path stroke="none" d="`)
		for _, line := range overlay.Rings(t.Areas) {
			w.line(line)
			w.WriteString("Z")
		}
		w.WriteString(`"/>` + "\n")
	}
	w.WriteString("</g>\n")
}

func (w *writer) group(colour string, list []geom.Shape) {
	fmt.Fprintf(w, `<g fill="%s" stroke="%s" stroke-linecap="round" stroke-linejoin="round">`, colour, colour)
	for _, s := range list {
		w.shape(s)
	}
	w.WriteString("</g>")
}

func (w *writer) shape(s geom.Shape) {
	if len(s.Pts) == 1 {
		x := w.place(s.Pts[0])
		var cx, cy string
		_, _ = fmt.Sscan(x, &cx, &cy)
		fmt.Fprintf(w, `<circle cx="%s" cy="%s" r="%s" stroke="none"/>`, cx, cy, mm(s.R))
		return
	}
	line := flat(s)
	w.WriteString(`<path d="`)
	w.line(line)
	if s.Area {
		fmt.Fprintf(w, `Z" stroke-width="%s"/>`, mm(2*s.R))
		return
	}
	fmt.Fprintf(w, `" fill="none" stroke-width="%s"/>`, mm(2*s.R))
}

// line leads a path along places.
func (w *writer) line(line []geom.Point) {
	for i, p := range line {
		if i == 0 {
			w.WriteString("M" + w.place(p))
		} else {
			w.WriteString("L" + w.place(p))
		}
	}
}
