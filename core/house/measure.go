package house

import (
	"context"
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
)

// Found is the least that a board has of what is bounded, or the most, and where.
type Found struct {
	Value   int64          `json:"value"` // nanometres; of Aspect hundredths, of Copper a number
	At      geom.Point     `json:"at"`
	Layer   design.LayerID `json:"layer,omitempty"`
	Objects []design.ID    `json:"objects,omitempty"`
}

// far is how far apart things are no longer looked at, in nanometres.
const far = 2_000_000

// measure is a board being measured.
type measure struct {
	d     *design.Doc
	x     *layout.Index
	found map[Limit]*Found
}

// note takes a value in, where none is worse.
func (m *measure) note(l Limit, value float64, at geom.Point, layer int, objects ...design.ID) {
	v := int64(math.Floor(value + 0.5))
	if old := m.found[l]; old != nil && (!l.Most() && old.Value <= v || l.Most() && old.Value >= v) {
		return
	}
	f := &Found{Value: v, At: at, Objects: objects}
	if layer >= 0 {
		f.Layer = m.d.Board.At(layer)
	}
	m.found[l] = f
}

// reach is within which a limit of distances is yet to be looked for.
func (m *measure) reach(l Limit) int64 {
	if f := m.found[l]; f != nil {
		return max(f.Value, 0)
	}
	return far
}

// Measure finds the least, or most, of all limits on a board. What areas fill keeps the clearances that are asked for and is not measured. It
// may be stopped; progress, unless it is nil, is told as a share.
func Measure(ctx context.Context, d *design.Doc, x *layout.Index, r *rules.Set, progress func(float64)) (map[Limit]*Found, error) {
	m := &measure{d, x, map[Limit]*Found{}}
	n := 0
	for c := range x.All() {
		if n%1024 == 0 {
			if progress != nil {
				progress(0.8 * float64(n) / float64(x.Len()))
			}
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
		}
		n++
		m.single(c)
		m.pairs(c)
	}
	m.faces(surface.NewIndex(d, x, r))
	m.board()
	return m.found, nil
}

// single measures a piece by itself.
func (m *measure) single(c *layout.Copper) {
	layer := bits.TrailingZeros32(c.Layers)
	if c.Kind == "track" || c.Kind == "figure" && !c.Shape.Area {
		m.note(Track, float64(2*c.Shape.R), c.Shape.Side(0).Middle(), layer, c.ID)
	}
	for _, level := range c.Levels(c.Layers) {
		if c.Bare {
			break
		}
		if gap, at, near := m.x.Edge().Gap(level.Shape, m.reach(Edge)); near {
			m.note(Edge, gap, at, bits.TrailingZeros32(level.Layers), c.ID)
		}
	}
	if c.Hole == 0 {
		return
	}
	size, ring := HoleSize, Ring
	if c.Laser {
		size, ring = MicroHole, MicroRing
	} else if c.Kind == "via" || !c.Bare {
		depth := m.d.Board.Thickness()
		if v := m.d.Vias[c.ID]; v != nil {
			depth = m.d.Board.Depth(v.Kind, v.From, v.To)
		}
		m.note(Aspect, 100*float64(depth)/float64(c.Hole), c.At, -1, c.ID)
	}
	m.note(size, float64(c.Hole), c.At, -1, c.ID)
	if c.Bare {
		return
	}
	for _, level := range c.Levels(c.Layers) {
		if c.Kind != "via" || level.Shape.R > c.Hole/2 { // a via without a pad there wants no ring
			m.note(ring, layout.Ring(c, level.Shape), c.At, bits.TrailingZeros32(level.Layers), c.ID)
		}
	}
}

// pairs measures a piece against those near it.
func (m *measure) pairs(c *layout.Copper) {
	most := max(m.reach(Gap), m.reach(HoleGap), m.reach(Wall))
	for o := range m.x.Near(c.Box().Grow(most)) {
		common := c.Layers & o.Layers
		if o == c || common == 0 {
			continue
		}
		if c.Hole > 0 && o.Hole > 0 && less(c, o) && !layout.Stacked(c.Layers, o.Layers, c.Drill, o.Drill) {
			gap, p, q := geom.Gap(c.Bore(), o.Bore())
			if gap < float64(m.reach(HoleGap)) {
				m.note(HoleGap, gap, p.Towards(q, 0.5), -1, c.ID, o.ID)
			}
		}
		if o.Bare || c.Net == o.Net && c.Net != 0 || m.together(c, o) {
			continue
		}
		for _, level := range o.Levels(common) {
			layer := bits.TrailingZeros32(level.Layers)
			if c.Hole > 0 && !c.Bare {
				if gap, p, q := geom.Gap(c.Bore(), level.Shape); gap < float64(m.reach(Wall)) {
					m.note(Wall, gap, p.Towards(q, 0.5), layer, c.ID, o.ID)
				}
			}
			if c.Bare || !less(c, o) {
				continue
			}
			for _, own := range c.Levels(level.Layers) {
				if gap, p, q := geom.Gap(own.Shape, level.Shape); gap < float64(m.reach(Gap)) {
					m.note(Gap, gap, p.Towards(q, 0.5), bits.TrailingZeros32(own.Layers), c.ID, o.ID)
				}
			}
		}
	}
}

func less(a, b *layout.Copper) bool { return a.ID < b.ID || a.ID == b.ID && a.Pad < b.Pad }

// together tells whether two pieces may meet although they bear different nets: pads of one number, or that their footprint lets meet; copper
// that is drawn.
func (m *measure) together(x, y *layout.Copper) bool {
	if x.Thing == design.AFigure && y.Thing == design.AFigure {
		return true
	}
	p := m.d.Placed[x.ID]
	return x.ID == y.ID && (p == nil || m.d.Footprint(p.Footprint).BelongTogether(x.Number, y.Number))
}

// faces measures what lies on the faces.
func (m *measure) faces(f *surface.Index) {
	for o := range surface.Objects(m.d) {
		for _, bottom := range []bool{false, true} {
			layer := f.Outer(bottom)
			for _, own := range f.Of(o.ObjectID(), bottom) {
				for n := range f.Near(own.Shape.Box().Grow(m.reach(Web)), bottom) {
					if n.Owner < own.Owner || n.Owner == own.Owner && n.Pad <= own.Pad {
						continue
					}
					if gap, p, q := geom.Gap(own.Shape, n.Shape); gap > 0 && gap < float64(m.reach(Web)) {
						m.note(Web, gap, p.Towards(q, 0.5), layer, own.Owner, n.Owner)
					}
				}
			}
			printed := f.Silk(o, bottom)
			for _, s := range printed {
				if s.Width > 0 {
					m.note(Silk, float64(s.Width), s.Shape.Pts[0], layer, o.ObjectID())
				}
			}
			if len(printed) == 0 {
				continue
			}
			switch o := o.(type) {
			case *design.Placed:
				m.note(Letters, float64(o.LetterHeight()), o.At, layer, o.ID)
			case *design.Legend:
				m.note(Letters, float64(o.Height), o.At, layer, o.ID)
			}
		}
	}
}

// board measures the board itself.
func (m *measure) board() {
	m.note(Copper, float64(m.d.Board.Layers()), geom.Point{}, -1)
	if r := m.d.Board.Region(); len(r.Outer) > 0 {
		b := r.Outer.Box()
		m.note(Side, float64(max(b.Max.X-b.Min.X, b.Max.Y-b.Min.Y)), b.Centre(), -1)
	}
}
