package layout

import (
	"iter"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// Yard is the place that a part takes; false: its footprint is not there.
func Yard(d *design.Doc, p *design.Placed) (geom.Shape, bool) {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return geom.Shape{}, false
	}
	return geom.Shape{Pts: Courtyard(f, p.Pose()), Area: true}, true
}

// putYard notes the place of a part, so that it is found.
func (x *Index) putYard(d *design.Doc, p *design.Placed) {
	if s, ok := Yard(d, p); ok {
		b := s.Box()
		lo, hi := corners(b)
		x.yards.Insert(lo, hi, p.ID)
		x.yardOf[p.ID] = b
	}
}

func (x *Index) removeYard(id design.ID) {
	if b, ok := x.yardOf[id]; ok {
		lo, hi := corners(b)
		x.yards.Delete(lo, hi, id)
		delete(x.yardOf, id)
	}
}

// Parts gives the parts whose courtyards' boxes meet b.
func (x *Index) Parts(b geom.Box) iter.Seq[design.ID] {
	return func(yield func(design.ID) bool) {
		lo, hi := corners(b)
		x.yards.Search(lo, hi, func(_, _ [2]float64, id design.ID) bool { return yield(id) })
	}
}

// Apart is how far two parts of one side are apart, and what the rule of spacing asks for there.
type Apart struct {
	Gap  float64
	A, B geom.Point // where they come nearest
	Need int64
	Rule *rules.Ruling
}

// Short tells whether they are nearer than is asked for.
func (a Apart) Short() bool { return a.Need > 0 && geom.Short(a.Gap, a.Need) }

// Spaced measures two parts; ok is false when they stand on different sides or have no place.
func Spaced(d *design.Doc, set *rules.Set, p, q *design.Placed) (a Apart, ok bool) {
	if p.Bottom != q.Bottom {
		return a, false
	}
	one, ok := Yard(d, p)
	other, also := Yard(d, q)
	if !ok || !also {
		return a, false
	}
	a.Gap, a.A, a.B = geom.Gap(one, other)
	layer := 0
	if p.Bottom {
		layer = d.Board.Layers() - 1
	}
	part := func(p *design.Placed) rules.Subject { return rules.Subject{Thing: design.APart, Part: p.ID} }
	a.Rule = set.Between(design.Spacing, part(p), part(q), layer, a.A.Towards(a.B, 0.5))
	a.Need = a.Rule.Of(0)
	return a, true
}

// Clashing are the parts that lie over each other on one side, or nearer than the rule of spacing asks, of those that are moved and
// all others; touching is no clash. Cost: a look at the parts around each that is moved.
func Clashing(d *design.Doc, x *Index, set *rules.Set, moved map[design.ID]*design.Placed) []design.ID {
	clash := map[design.ID]bool{}
	look := func(p, q *design.Placed) {
		if clash[p.ID] && clash[q.ID] {
			return
		}
		if a, ok := Spaced(d, set, p, q); ok && (a.Short() || a.Gap <= 0 && overlap(d, p, q)) {
			clash[p.ID], clash[q.ID] = true, true
		}
	}
	reach := set.Greatest(design.Spacing) + 1
	for id, p := range moved {
		yard, ok := Yard(d, p)
		if !ok {
			continue
		}
		for other := range x.Parts(yard.Box().Grow(reach)) {
			if q := d.Placed[other]; q != nil && moved[other] == nil {
				look(p, q)
			}
		}
		for other, q := range moved {
			if other > id {
				look(p, q)
			}
		}
	}
	out := make([]design.ID, 0, len(clash))
	for id := range clash {
		out = append(out, id)
	}
	return out
}

// overlap tells whether two courtyards that meet do more than touch.
func overlap(d *design.Doc, p, q *design.Placed) bool {
	one, _ := Yard(d, p)
	other, _ := Yard(d, q)
	a, b := one.Box(), other.Box()
	w := math.Min(float64(a.Max.X), float64(b.Max.X)) - math.Max(float64(a.Min.X), float64(b.Min.X))
	h := math.Min(float64(a.Max.Y), float64(b.Max.Y)) - math.Max(float64(a.Min.Y), float64(b.Min.Y))
	return w > float64(units.Micrometre) && h > float64(units.Micrometre)
}
