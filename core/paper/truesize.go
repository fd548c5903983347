package paper

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Places on a page of footprints at true size, in nanometres.
const (
	bar     = 100 * mm // the length of the bars by which a print is judged
	edge    = 15 * mm  // left free at the left, right and above
	foot    = 28 * mm  // left free below, for the bars
	caption = 9 * mm   // below a footprint
	apart   = 6 * mm
	flatTo  = 2000 // how far straight pieces leave an arc
)

// portrait are the pages a footprint can be put on, the smallest first: ISO 216, upright.
var portrait = []string{"A4", "A3", "A2", "A1"}

// FootprintsPDF draws footprints at true size, as many on a page as have room, each with its name, and two bars of 100 mm on each page
// by which a print can be judged. One that is larger than A4 gets a larger page. Progress is told as a share.
func FootprintsPDF(ctx context.Context, list []*design.Footprint, title string, made time.Time, progress func(share float64)) (data []byte, replaced string, err error) {
	if len(list) == 0 {
		return nil, "", errors.New("there are no footprints to print")
	}
	f := newPDF(title, "", made)
	w := &pdfWriter{f: f, replaced: map[rune]bool{}}
	var page, at geom.Point // its size; the upper left corner of the next footprint
	row := int64(0)         // height of the row
	open := func(size geom.Point) {
		page, at, row = size, geom.Pt(edge, size.Y-edge), 0
		w.h = float64(page.Y) / perMM
		f.AddPageFormat("P", fpdf.SizeType{Wd: float64(page.X) / perMM, Ht: w.h})
		for _, m := range bars(page, title) {
			w.draw(m)
		}
	}
	for i, p := range list {
		if err := ctx.Err(); err != nil {
			return nil, "", err
		}
		marks, box := trueSize(p)
		need := geom.Pt(max(box.Max.X-box.Min.X, 30*mm), box.Max.Y-box.Min.Y+caption)
		size, ok := pageFor(need)
		if !ok {
			return nil, "", fmt.Errorf("the footprint %s is %s by %s: no sheet up to A1 takes it", p.Name, units.Text(box.Max.X-box.Min.X), units.Text(box.Max.Y-box.Min.Y))
		}
		if at.X > edge && at.X+need.X > page.X-edge { // the next row
			at, row = geom.Pt(edge, at.Y-row-apart), 0
		}
		if page.X < size.X || at.X+need.X > page.X-edge || at.Y-need.Y < foot {
			open(size)
		}
		move := geom.Pt(at.X-box.Min.X, at.Y-box.Max.Y)
		for _, m := range marks {
			w.draw(moved(m, move))
		}
		name := text(p.Name, "ink", milli(2.6), geom.Pt(at.X, at.Y-need.Y+caption-milli(3)), -1)
		w.draw(within(name, need.X))
		says := text(fmt.Sprintf("%d pads, %s × %s", len(p.Pads), units.Text(box.Max.X-box.Min.X), units.Text(box.Max.Y-box.Min.Y)), "quiet", milli(2.1), geom.Pt(at.X, at.Y-need.Y+caption-milli(6)), -1)
		w.draw(within(says, need.X))
		at.X += need.X + apart
		row = max(row, need.Y)
		progress(float64(i+1) / float64(len(list)))
	}
	var b bytes.Buffer
	if err := f.Output(&b); err != nil {
		return nil, "", fmt.Errorf("writing the PDF: %w", err)
	}
	return b.Bytes(), w.lost(), nil
}

func pageFor(need geom.Point) (geom.Point, bool) {
	for _, name := range portrait {
		s := design.SheetSizes[name]
		s = geom.Pt(s.Y, s.X)
		if need.X <= s.X-2*edge && need.Y <= s.Y-edge-foot {
			return s, true
		}
	}
	return geom.Point{}, false
}

// within makes a text smaller until it has room.
func within(m Mark, room int64) Mark {
	if w := TextWidth(m); w > room {
		m.Size = m.Size * room / w
	}
	return m
}

// bars are the two lines of 100 mm with a tick each 10 mm, what they are for, and what the page is of.
func bars(page geom.Point, title string) []Mark {
	at := geom.Pt(edge, 12*mm)
	out := []Mark{line("ink", milli(0.2), at, at.Add(geom.Pt(bar, 0))), line("ink", milli(0.2), geom.Pt(8*mm, 25*mm), geom.Pt(8*mm, 25*mm+bar))}
	for i := int64(0); i <= bar; i += 10 * mm {
		long := milli(1.2)
		if i == 0 || i == bar {
			long = milli(2.4)
		}
		out = append(out, line("ink", milli(0.2), at.Add(geom.Pt(i, 0)), at.Add(geom.Pt(i, long))), line("ink", milli(0.2), geom.Pt(8*mm, 25*mm+i), geom.Pt(8*mm+long, 25*mm+i)))
	}
	says := text("True size: both bars are 100 mm long on a right print.", "ink", milli(2.6), at.Add(geom.Pt(0, -4*mm)), -1)
	says.Words = true
	head := text(title, "quiet", milli(2.6), geom.Pt(page.X-edge, 8*mm), 1)
	head.Words = true
	return append(out, says, within(head, page.X-2*edge-TextWidth(says)-apart))
}

// trueSize draws a footprint about its origin, as seen from the side its part is on.
func trueSize(f *design.Footprint) ([]Mark, geom.Box) {
	p := layout.PatternOf(f)
	var e geom.Extent
	var out []Mark
	put := func(o layout.Outline, fill, ink string, least int64) {
		m := outlined(o, fill, ink, least)
		for i := 0; i+1 < len(m.Pts); i += 2 {
			e.AddBox(geom.Box{Min: geom.Pt(m.Pts[i], m.Pts[i+1]), Max: geom.Pt(m.Pts[i], m.Pts[i+1])}.Grow(m.R + m.Width/2))
		}
		out = append(out, m)
	}
	for _, pad := range p.Pads {
		for _, group := range []string{design.Far, design.Near} { // the near side is uppermost
			if o, ok := pad.On[group]; ok {
				put(o, "pad", "", 0)
			}
		}
		if pad.Barrel != nil {
			put(*pad.Barrel, "pad", "", 0)
		}
	}
	for _, pad := range p.Pads {
		if pad.Bore != nil {
			put(*pad.Bore, "paper", "", 0)
		}
	}
	for _, o := range p.Silk {
		put(o, "", "quiet", milli(0.1))
	}
	yard := line("frame", milli(0.1), p.Courtyard...)
	yard.Closed, yard.Dash = true, true
	out = append(out, yard)
	for _, c := range p.Courtyard {
		e.AddBox(geom.Box{Min: c, Max: c})
	}
	for i := range f.Pads {
		box := layout.PadShape(&f.Pads[i]).Box()
		room := min(box.Max.X-box.Min.X, box.Max.Y-box.Min.Y)
		if size := min(room*6/10, milli(2)); size >= milli(0.3) && f.Pads[i].Number != "" {
			n := text(f.Pads[i].Number, "ink", size, geom.Pt((box.Min.X+box.Max.X)/2, (box.Min.Y+box.Max.Y)/2), 0)
			out = append(out, within(n, (box.Max.X-box.Min.X)*8/10))
		}
	}
	return out, e.Box
}

// outlined draws an outline, arcs in straight pieces.
func outlined(o layout.Outline, fill, ink string, least int64) Mark {
	if len(o.Corners) == 1 {
		return Mark{Pts: flat(o.Corners[0].Point), R: o.R, Fill: fill, Stroke: ink}
	}
	var pts []geom.Point
	if o.Area {
		pts = geom.Closing(o.Corners).Flat(flatTo, true)
	} else {
		var ring geom.Ring
		for i := 1; i < len(o.Corners); i++ {
			ring = append(ring, o.Corners[i-1].PieceTo(o.Corners[i]))
		}
		pts = append(ring.Flat(flatTo, true), o.Corners[len(o.Corners)-1].Point)
	}
	if ink == "" { // copper: all within R of the line
		ink, least = fill, 0
	}
	m := Mark{Pts: flat(pts...), Closed: o.Area, Stroke: ink, Width: max(2*o.R, least)}
	if o.Area {
		m.Fill = fill
	}
	if m.Width == 0 {
		m.Stroke = ""
	}
	return m
}

// moved is a mark elsewhere.
func moved(m Mark, by geom.Point) Mark {
	pts := make([]int64, len(m.Pts))
	for i, v := range m.Pts {
		if i%2 == 0 {
			pts[i] = v + by.X
		} else {
			pts[i] = v + by.Y
		}
	}
	m.Pts = pts
	return m
}

// lost are the letters that the type does not have, each once.
func (w *pdfWriter) lost() string { return string(slices.Sorted(maps.Keys(w.replaced))) }
