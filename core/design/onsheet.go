package design

import "goldentrace/core/geom"

// OnSheet is an object that stands on a sheet of the circuit.
type OnSheet interface {
	Object
	SheetID() ID
	// Transformed is the object under the same id, carried to another place.
	Transformed(c Transform) Object
	withSheet(ID) Object
}

// Transform carries what stands on a sheet: places by Point, directions by quarter turns.
type Transform struct {
	Point    func(geom.Point) geom.Point
	Turned   bool // else everything keeps its direction
	Mirror   bool // left to right, before turning
	Quarters int
}

// direction carries a direction in quarter turns.
func (c Transform) direction(t int) int {
	if c.Mirror && t%2 == 0 {
		t += 2
	}
	return (t + c.Quarters + 8) % 4
}

// corner carries the lower left corner of an upright box of the given size, so that the
// box, which stays upright itself, keeps its middle.
func (c Transform) corner(at, size geom.Point) geom.Point {
	if !c.Turned {
		return c.Point(at)
	}
	const grid = 2_500_000
	half := geom.Pt(size.X/2/grid*grid, size.Y/2/grid*grid)
	return c.Point(at.Add(half)).Sub(half)
}

// WithSheet is the object on another sheet; the original stays as it was.
func WithSheet(o OnSheet, sheet ID) OnSheet { return o.withSheet(sheet).(OnSheet) }

func (o *Part) SheetID() ID           { return o.Sheet }
func (o *Part) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Wire) SheetID() ID           { return o.Sheet }
func (o *Wire) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Label) SheetID() ID           { return o.Sheet }
func (o *Label) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Port) SheetID() ID           { return o.Sheet }
func (o *Port) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Tap) SheetID() ID           { return o.Sheet }
func (o *Tap) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Supply) SheetID() ID           { return o.Sheet }
func (o *Supply) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *OpenMark) SheetID() ID           { return o.Sheet }
func (o *OpenMark) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *SheetBlock) SheetID() ID           { return o.Sheet }
func (o *SheetBlock) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Cluster) SheetID() ID           { return o.Sheet }
func (o *Cluster) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Note) SheetID() ID           { return o.Sheet }
func (o *Note) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Picture) SheetID() ID           { return o.Sheet }
func (o *Picture) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Timing) SheetID() ID           { return o.Sheet }
func (o *Timing) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

func (o *Graphic) SheetID() ID           { return o.Sheet }
func (o *Graphic) withSheet(s ID) Object { c := *o; c.Sheet = s; return &c }

// Transformed is the part in its new place.
func (o *Part) Transformed(c Transform) Object {
	p := *o
	p.At = c.Point(p.At)
	if c.Turned {
		if c.Mirror { // mirror ∘ turn(t) = turn(−t) ∘ mirror
			p.Mirror = !p.Mirror
			p.Turn = -p.Turn
		}
		p.Turn = (p.Turn + c.Quarters + 8) % 4
		p.DesignatorAt, p.ValueAt = nil, nil
	}
	return &p
}

// Transformed is the wire in its new place.
func (o *Wire) Transformed(c Transform) Object {
	w := *o
	w.A, w.B = c.Point(w.A), c.Point(w.B)
	return &w
}

// Transformed is the label in its new place.
func (o *Label) Transformed(c Transform) Object {
	l := *o
	l.At, l.Turn = c.Point(l.At), c.direction(l.Turn)
	return &l
}

// Transformed is the port in its new place.
func (o *Port) Transformed(c Transform) Object {
	p := *o
	p.At, p.Turn = c.Point(p.At), c.direction(p.Turn)
	return &p
}

// Transformed is the tap in its new place.
func (o *Tap) Transformed(c Transform) Object {
	t := *o
	t.At = c.Point(t.At)
	if c.Turned {
		if c.Mirror { // the slants of a tap are mirrored in pairs: 0 with 1, 2 with 3
			t.Turn ^= 1
		}
		t.Turn = (t.Turn + c.Quarters + 8) % 4
	}
	return &t
}

// Transformed is the supply mark in its new place.
func (o *Supply) Transformed(c Transform) Object {
	s := *o
	s.At, s.Turn = c.Point(s.At), c.direction(s.Turn)
	return &s
}

// Transformed is the mark in its new place.
func (o *OpenMark) Transformed(c Transform) Object {
	m := *o
	m.At = c.Point(m.At)
	return &m
}

// Transformed is the block in its new place; blocks stay upright.
func (o *SheetBlock) Transformed(c Transform) Object {
	b := *o
	b.At = c.corner(b.At, b.Size)
	return &b
}

// Transformed is the cluster in its new place.
func (o *Cluster) Transformed(c Transform) Object {
	k := *o
	k.A, k.B = c.Point(k.A), c.Point(k.B)
	return &k
}

// Transformed is the note in its new place; notes stay upright.
func (o *Note) Transformed(c Transform) Object {
	n := *o
	n.At = c.Point(n.At)
	return &n
}

// Transformed is the picture in its new place; pictures stay upright.
func (o *Picture) Transformed(c Transform) Object {
	p := *o
	p.At = c.corner(p.At, p.Size)
	return &p
}

// Transformed is the timing diagram in its new place; it stays upright.
func (o *Timing) Transformed(c Transform) Object {
	t := *o
	t.At = c.Point(t.At)
	return &t
}

// Transformed is the shape in its new place.
func (o *Graphic) Transformed(c Transform) Object {
	s := *o
	s.Pts = make([]geom.Point, len(o.Pts))
	for i, p := range o.Pts {
		s.Pts[i] = c.Point(p)
	}
	return &s
}
