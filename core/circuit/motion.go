package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Motion says where an object of the selection goes: the object in its new place, under
// the same id.
type Motion func(o design.Object) design.Object

func transformed(c design.Transform) Motion {
	return func(o design.Object) design.Object {
		if o, ok := o.(design.OnSheet); ok {
			return o.Transformed(c)
		}
		return o
	}
}

// By moves everything by the same step.
func By(step geom.Point) Motion {
	return transformed(design.Transform{Point: func(p geom.Point) geom.Point { return p.Add(step) }})
}

// Turned turns the selection by quarter turns anticlockwise about the pivot; mirror flips
// it left to right about the pivot first.
func Turned(pivot geom.Point, quarters int, mirror bool) Motion {
	return transformed(design.Transform{Turned: true, Mirror: mirror, Quarters: quarters, Point: func(p geom.Point) geom.Point {
		q := p.Sub(pivot)
		if mirror {
			q.X = -q.X
		}
		return geom.Turn(q, int32(quarters)*90_000).Add(pivot)
	}})
}

// Each moves every object by a step of its own; those without one stay.
func Each(steps map[design.ID]geom.Point) Motion {
	return func(o design.Object) design.Object { return By(steps[o.ObjectID()])(o) }
}
