package geom

import (
	"errors"
	"fmt"
)

// SizeLine makes a closed line so wide and so high; 0: as it is. The left and the lower side stay. What lies right of the middle moves, what
// lies left of it stays, and so below and above it: corners keep their rounding, sides their arcs. A whole circle gets another diameter. It refuses
// a line that bends across its middle, since two numbers cannot tell what becomes of that.
func SizeLine(c []Corner, width, height int64) ([]Corner, error) {
	box := Closing(c).Box()
	w, h := box.Max.X-box.Min.X, box.Max.Y-box.Min.Y
	if width == 0 {
		width = w
	}
	if height == 0 {
		height = h
	}
	if centre, r, ok := wholeCircle(c); ok {
		d := width
		if width == w {
			d = height
		} else if height != h && height != width {
			return nil, errors.New("a circle is as wide as it is high")
		}
		if d < 2 {
			return nil, errors.New("a circle has a diameter")
		}
		out := CircleLine(Pt(centre.X-r+d/2, centre.Y-r+d/2), d/2)
		if len(out) == len(c) {
			return out, nil
		}
	}
	out := cloned(c)
	if err := stretch(out, func(p *Point) *int64 { return &p.X }, box.Min.X, box.Max.X, width-w, "wide"); err != nil {
		return nil, err
	}
	if err := stretch(out, func(p *Point) *int64 { return &p.Y }, box.Min.Y, box.Max.Y, height-h, "high"); err != nil {
		return nil, err
	}
	return out, nil
}

// wholeCircle tells whether a line is one circle, and which.
func wholeCircle(c []Corner) (centre Point, r int64, ok bool) {
	if len(c) == 0 {
		return centre, 0, false
	}
	box := Closing(c).Box()
	centre, r = box.Centre(), (box.Max.X-box.Min.X)/2
	near := func(p Point) bool { d := p.Dist(centre) - float64(r); return d > -10 && d < 10 }
	for _, k := range c {
		if k.Mid == nil || !near(k.Point) || !near(*k.Mid) {
			return centre, 0, false
		}
	}
	return centre, r, true
}

// stretch moves what lies beyond the middle of one direction by so much; what lies just there goes half of the way.
func stretch(c []Corner, of func(*Point) *int64, low, high, by int64, word string) error {
	if by == 0 {
		return nil
	}
	middle := low + (high-low)/2
	far := func(v int64) int64 { // which way of the middle; 1 nm is rounding
		switch {
		case v > middle+1:
			return 2
		case v < middle-1:
			return 0
		}
		return 1
	}
	side := make([]int64, len(c))
	for i := range c {
		side[i] = far(*of(&c[i].Point))
	}
	lowest, highest := high, low
	for i := range c {
		next := (i + 1) % len(c)
		v := *of(&c[i].Point)
		switch side[i] {
		case 2:
			lowest = min(lowest, v)
		case 0:
			highest = max(highest, v)
		}
		if c[i].Mid == nil {
			continue
		}
		if side[i] != side[next] {
			return errors.New("the edge bends across its middle, so that it cannot be sized by two numbers: drag its corners, or give its sides their lengths")
		}
		if m := *of(c[i].Mid); side[i] == 2 {
			lowest = min(lowest, m)
		} else if side[i] == 0 {
			highest = max(highest, m)
		}
	}
	if least := lowest - highest; by <= -least { // how far apart the two halves are
		return fmt.Errorf("with its corners as they are the board is more than %s mm %s", millimetres(high-low-least), word)
	}
	for i := range c {
		move := by * side[i] / 2
		*of(&c[i].Point) += move
		if c[i].Mid != nil {
			*of(c[i].Mid) += move
		}
	}
	return nil
}

// millimetres of a length, for a sentence.
func millimetres(nm int64) string { return fmt.Sprintf("%g", float64(nm)/1e6) }
