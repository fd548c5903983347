package layout

import (
	"cmp"
	"math"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// RoomOf is the room that a part takes on the board (its courtyard), or a hole, or a text.
func RoomOf(d *design.Doc, id design.ID) (geom.Box, bool) {
	switch o := d.Get(id).(type) {
	case *design.Placed:
		if f := d.Footprint(o.Footprint); f != nil {
			return geom.BoxOf(Courtyard(f, o.Pose())...), true
		}
	case *design.Hole:
		return geom.BoxOf(o.At).Grow(o.Room()), true
	case *design.Legend, *design.BoardFigure:
		var e geom.Extent
		for _, shape := range PrintOf(d, o, 0).Shapes() {
			e.AddBox(shape.Box())
		}
		return e.Box, e.Any
	}
	return geom.Box{}, false
}

// labelling puts designators in order.
type labelling struct {
	d     *design.Doc
	edge  Edge
	lines int64                     // half the width of what is printed
	hard  [2]rtree.RTreeG[geom.Box] // by side: what no text may lie on
	soft  [2]rtree.RTreeG[geom.Box] // courtyards: better not
	yards map[design.ID]geom.Box
}

// gaps of texts from what they keep off, and how far from its part one may go.
const (
	labelGap  = 150 * units.Micrometre
	labelFar  = 6 * units.MM
	labelStep = 500 * units.Micrometre
)

// OrderLabels finds places for the designators of parts, as seen from their footprints: around the part and near it, on no pad, hole or
// other text of
// its side, off other parts where that is possible, within the board's edge; one for which there is none stays where it is. Texts keep
// the angle of their part, which
// is read from below or from the right. None named: all parts. Cost: O(parts · places tried · things near).
func OrderLabels(d *design.Doc, ids []design.ID) map[design.ID]geom.Point {
	l := &labelling{d: d, edge: EdgeOf(d.Board), lines: d.Numbers()[design.SilkWidth] / 2, yards: map[design.ID]geom.Box{}}
	wanted := map[design.ID]bool{}
	for _, id := range ids {
		wanted[id] = true
	}
	var list []*design.Placed
	for p := range d.Placed.All() {
		f := d.Footprint(p.Footprint)
		if f == nil {
			continue
		}
		yard := geom.BoxOf(Courtyard(f, p.Pose())...)
		l.yards[p.ID] = yard
		insert(&l.soft[side(p)], yard)
		for _, c := range PiecesOf(d, p) {
			l.pad(c)
		}
		for _, fig := range f.Silk { // no text lies on a line of the silk, its own part's or another's
			for _, line := range FigureLines(fig) {
				line = p.Pose().ApplyAll(line)
				for i := 0; i+1 < len(line); i++ {
					insert(&l.hard[side(p)], geom.BoxOf(line[i], line[i+1]).Grow(cmp.Or(fig.Width/2, l.lines)))
				}
			}
		}
		if len(ids) > 0 && !wanted[p.ID] {
			insert(&l.hard[side(p)], l.text(p, l.at(p, f)))
		} else {
			list = append(list, p)
		}
	}
	for v := range d.Vias.All() {
		for s := range 2 {
			insert(&l.hard[s], geom.BoxOf(v.At).Grow(v.Hole/2))
		}
	}
	for h := range d.Holes.All() {
		for s := range 2 {
			insert(&l.hard[s], geom.BoxOf(h.At).Grow(h.Room()))
		}
	}
	block := func(o design.Object, on string, bottom bool) {
		if on != design.OnSilk && on != design.OnMask {
			return
		}
		s := 0
		if bottom {
			s = 1
		}
		for _, shape := range PrintOf(d, o, 2*l.lines).Shapes() {
			insert(&l.hard[s], shape.Box().Grow(l.lines))
		}
	}
	for t := range d.Legends.All() {
		block(t, t.On, t.Bottom)
	}
	for f := range d.Figures.All() {
		block(f, f.On, f.Bottom)
	}
	// those with the least room around them first: the smallest parts
	slices.SortStableFunc(list, func(a, b *design.Placed) int {
		return cmp.Or(cmp.Compare(l.size(a), l.size(b)), cmp.Compare(a.ID, b.ID))
	})
	out := map[design.ID]geom.Point{}
	for _, p := range list {
		at, ok := l.place(p)
		if !ok {
			at = l.at(p, d.Footprint(p.Footprint))
		} else {
			out[p.ID] = p.Pose().Undo(at)
		}
		insert(&l.hard[side(p)], l.text(p, at))
	}
	return out
}

func insert(t *rtree.RTreeG[geom.Box], b geom.Box) {
	lo, hi := corners(b)
	t.Insert(lo, hi, b)
}

func (l *labelling) size(p *design.Placed) float64 {
	b := l.yards[p.ID]
	return float64(b.Max.X-b.Min.X) * float64(b.Max.Y-b.Min.Y)
}

// pad keeps texts off a pad on the sides where it is seen.
func (l *labelling) pad(c *Copper) {
	box := c.Box()
	if c.Bare {
		box = c.Bore().Box()
	}
	if c.Has(0) {
		insert(&l.hard[0], box)
	}
	if c.Has(l.d.Board.Layers() - 1) {
		insert(&l.hard[1], box)
	}
}

// at is where a part's designator stands now.
func (l *labelling) at(p *design.Placed, f *design.Footprint) geom.Point {
	if p.Label != nil {
		return p.Pose().Apply(*p.Label)
	}
	return p.Pose().Apply(f.DesignatorAt)
}

// text is the room of a part's designator at a place.
func (l *labelling) text(p *design.Placed, at geom.Point) geom.Box {
	var e geom.Extent
	e.Add(at)
	for _, line := range TextLines(p.Designator, p.LetterHeight(), at, p.Angle, p.Bottom) {
		e.Add(line...)
	}
	return e.Box.Grow(l.lines)
}

// place finds the best place for a designator.
func (l *labelling) place(p *design.Placed) (best geom.Point, found bool) {
	zero := l.text(p, geom.Point{})
	w, h := zero.Max.X-zero.Min.X, zero.Max.Y-zero.Min.Y
	yard := l.yards[p.ID]
	least := math.Inf(1)
	try := func(lower geom.Point, weight float64) { // by the lower left corner of its room
		at := lower.Sub(zero.Min)
		box := l.text(p, at)
		if clash(&l.hard[side(p)], box.Grow(labelGap)) > 0 || !l.inside(yard, box) {
			return
		}
		cost := weight * (box.Centre().Dist(yard.Centre()) + 2e6*clash(&l.soft[side(p)], box))
		if cost < least {
			least, best, found = cost, at, true
		}
	}
	for off := labelGap; off <= labelFar; off += labelStep {
		for x := yard.Min.X - w; x <= yard.Max.X; x += labelStep {
			try(geom.Pt(x, yard.Max.Y+off), 1) // above, rather than elsewhere
			try(geom.Pt(x, yard.Min.Y-off-h), 1.05)
		}
		for y := yard.Min.Y - h; y <= yard.Max.Y; y += labelStep {
			try(geom.Pt(yard.Max.X+off, y), 1.1)
			try(geom.Pt(yard.Min.X-off-w, y), 1.1)
		}
		middle := yard.Centre()
		try(geom.Pt(middle.X-w/2, yard.Max.Y+off), 0.95) // in line with its middle is best
		try(geom.Pt(middle.X-w/2, yard.Min.Y-off-h), 1)
		try(geom.Pt(yard.Max.X+off, middle.Y-h/2), 1.05)
		try(geom.Pt(yard.Min.X-off-w, middle.Y-h/2), 1.05)
		if found && off > labelGap+2*labelStep {
			break // farther out is worse
		}
	}
	return best, found
}

// clash is how many of the boxes a box meets with its inside.
func clash(t *rtree.RTreeG[geom.Box], b geom.Box) (n float64) {
	lo, hi := corners(b)
	t.Search(lo, hi, func(_, _ [2]float64, o geom.Box) bool {
		if b.Min.X < o.Max.X && o.Min.X < b.Max.X && b.Min.Y < o.Max.Y && o.Min.Y < b.Max.Y {
			n++
		}
		return true
	})
	return n
}

// inside tells whether a text lies on the board; of a part beside the board it need not.
func (l *labelling) inside(yard, b geom.Box) bool {
	if !l.edge.Drawn() || !l.edge.Holds(yard.Centre()) {
		return true
	}
	for _, p := range []geom.Point{b.Min, b.Max, geom.Pt(b.Min.X, b.Max.Y), geom.Pt(b.Max.X, b.Min.Y)} {
		if !l.edge.Holds(p) {
			return false
		}
	}
	return true
}
