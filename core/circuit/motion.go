package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Motion says where an object of the selection goes: the object in its new place, under
// the same id.
type Motion func(o design.Object) design.Object

// By moves everything by the same step.
func By(step geom.Point) Motion {
	return func(o design.Object) design.Object {
		switch o := o.(type) {
		case *design.Part:
			c := *o
			c.At = c.At.Add(step)
			return &c
		case *design.Wire:
			c := *o
			c.A, c.B = c.A.Add(step), c.B.Add(step)
			return &c
		case *design.Label:
			c := *o
			c.At = c.At.Add(step)
			return &c
		case *design.Supply:
			c := *o
			c.At = c.At.Add(step)
			return &c
		case *design.OpenMark:
			c := *o
			c.At = c.At.Add(step)
			return &c
		}
		return o
	}
}

// Turned turns the selection by quarter turns anticlockwise about the pivot; mirror flips
// it left to right about the pivot first.
func Turned(pivot geom.Point, quarters int, mirror bool) Motion {
	carry := func(p geom.Point) geom.Point {
		q := p.Sub(pivot)
		if mirror {
			q.X = -q.X
		}
		return geom.Turn(q, int32(quarters)*90_000).Add(pivot)
	}
	direction := func(t int) int {
		if mirror && t%2 == 0 {
			t += 2
		}
		return (t + quarters + 8) % 4
	}
	return func(o design.Object) design.Object {
		switch o := o.(type) {
		case *design.Part:
			c := *o
			c.At = carry(c.At)
			if mirror { // mirror ∘ turn(t) = turn(−t) ∘ mirror
				c.Mirror = !c.Mirror
				c.Turn = -c.Turn
			}
			c.Turn = (c.Turn + quarters + 8) % 4
			c.DesignatorAt, c.ValueAt = nil, nil
			return &c
		case *design.Wire:
			c := *o
			c.A, c.B = carry(c.A), carry(c.B)
			return &c
		case *design.Label:
			c := *o
			c.At, c.Turn = carry(c.At), direction(c.Turn)
			return &c
		case *design.Supply:
			c := *o
			c.At, c.Turn = carry(c.At), direction(c.Turn)
			return &c
		case *design.OpenMark:
			c := *o
			c.At = carry(c.At)
			return &c
		}
		return o
	}
}
