// Package teardrop finds how tracks widen where they reach pads and vias of their net. A teardrop joins nothing that is not joined, and gives
// way to everything that is not of its net: where it does not fit whole it is made smaller, and left out where nothing fits that is worth it. Lengths are nanometres;
// copper layers count from 0 at the top.
package teardrop

import (
	"cmp"
	"iter"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// Teardrop is the copper by which a track widens towards a pad or via.
type Teardrop struct {
	Track, Pad layout.Ref
	Net        design.ID
	Shape      geom.Shape // a closed line of straight sides
}

// Finder finds teardrops. It belongs to one goroutine, as the index and the rules do.
type Finder struct {
	field route.Field
	like  design.Teardrops
}

// Of finds teardrops as the board asks for them; nil: it has none.
func Of(d *design.Doc, x *layout.Index, r *rules.Set) *Finder {
	if d.Board.Teardrops == nil {
		return nil
	}
	return &Finder{field: route.Field{Doc: d, Index: x, Rules: r}, like: *d.Board.Teardrops}
}

// Farthest is how far at most a teardrop reaches from the end of its track, in nanometres.
const Farthest = 3_000_000

// Reach is how near to the end of a track something must lie to matter for its teardrop: to be in its way, or to make one of another net
// that would be.
func (f *Finder) Reach() int64 {
	return Farthest + f.like.Most + f.field.Rules.Reach(1<<f.field.Doc.Board.Layers()-1)
}

// sizes are the shares of its whole size that a teardrop is tried in.
var sizes = []float64{1, 0.75, 0.5}

// In are the teardrops of the tracks that end within a box on a layer, its right and upper side left out, in the order of their tracks.
func (f *Finder) In(b geom.Box, layer int) (out []Teardrop) {
	for e := range f.ends(b, layer) {
		if t, ok := f.fitting(e); ok {
			out = append(out, t)
		}
	}
	slices.SortFunc(out, func(x, y Teardrop) int {
		return cmp.Or(x.Track.Compare(y.Track), x.Pad.Compare(y.Pad), x.Shape.Pts[0].Compare(y.Shape.Pts[0]))
	})
	return out
}

// end of a track in a pad or via.
type end struct {
	track, pad *layout.Copper
	layer      int
	from       geom.Piece // along the track, from within the pad
}

// ends gives those that lie within a box, its right and upper side left out.
func (f *Finder) ends(b geom.Box, layer int) iter.Seq[end] {
	return func(yield func(end) bool) {
		for c := range f.field.Index.Near(b) {
			if c.Kind != "track" || !c.Has(layer) || c.Net == 0 {
				continue
			}
			p := f.field.Doc.Tracks[c.ID].Piece()
			for _, from := range []geom.Piece{p, p.Back()} {
				if at := from.A; at.X < b.Min.X || at.X >= b.Max.X || at.Y < b.Min.Y || at.Y >= b.Max.Y {
					continue
				}
				if pad := f.padAt(from.A, c.Net, layer); pad != nil && !yield(end{c, pad, layer, from}) {
					return
				}
			}
		}
	}
}

// has tells whether a piece is a pad or via that teardrops lead to on a layer.
func (f *Finder) has(c *layout.Copper, layer int) bool {
	return !c.Bare && c.Has(layer) && slices.Contains(f.like.On, c.Thing)
}

// padAt is the pad or via of a net that a place on a layer lies in, the first of several; nil: none that has teardrops.
func (f *Finder) padAt(at geom.Point, net design.ID, layer int) (pad *layout.Copper) {
	for c := range f.field.Index.Near(geom.BoxOf(at)) {
		if c.Net == net && f.has(c, layer) && c.On(layer).Holds(at) && (pad == nil || c.Ref().Compare(pad.Ref()) < 0) {
			pad = c
		}
	}
	return pad
}

// fitting is the greatest teardrop of an end that keeps its clearance from everything, and from what others would be whole.
func (f *Finder) fitting(e end) (t Teardrop, ok bool) {
	whole, ok := f.shape(e, 1)
	if !ok {
		return t, false
	}
	others := f.others(e, whole)
	for _, share := range sizes {
		s := whole
		if share < 1 {
			if s, ok = f.shape(e, share); !ok {
				break
			}
		}
		wish := route.Wish{Shape: s, Layers: 1 << e.layer, Net: e.track.Net, Thing: design.ATrack}
		if f.field.Free(wish) && f.apart(e, s, others) && !f.joins(e, s) {
			return Teardrop{Track: e.track.Ref(), Pad: e.pad.Ref(), Net: e.track.Net, Shape: s}, true
		}
	}
	return t, false
}

// rival is what another teardrop would be, whole.
type rival struct {
	geom.Shape
	of end
}

// others are what the teardrops near one would be: those of pads that are no farther from it than theirs are long.
func (f *Finder) others(e end, whole geom.Shape) (out []rival) {
	box := whole.Box().Grow(f.field.Rules.Reach(1 << e.layer))
	for c := range f.field.Index.Near(box.Grow(f.like.Most)) {
		if c.Net == 0 || !f.has(c, e.layer) {
			continue
		}
		room := c.On(e.layer).Box()
		room.Max = room.Max.Add(geom.Pt(1, 1))
		for o := range f.ends(room, e.layer) {
			if o.pad != c || o.track == e.track || o.track.Net == e.track.Net && hang(e, o.track, o.pad) {
				continue
			}
			if s, ok := f.shape(o, 1); ok && s.Box().Meets(box) {
				out = append(out, rival{s, o})
			}
		}
	}
	return out
}

// hang tells whether one of some pieces touches the track or the pad of an end, on its layer.
func hang(e end, pieces ...*layout.Copper) bool {
	for _, c := range pieces {
		for _, own := range []*layout.Copper{e.track, e.pad} {
			if gap, _, _ := geom.Gap(c.On(e.layer), own.On(e.layer)); gap <= 0 {
				return true
			}
		}
	}
	return false
}

// joins tells whether a teardrop would touch copper of its net that neither its track nor its pad does.
func (f *Finder) joins(e end, s geom.Shape) bool {
	for c := range f.field.Index.Near(s.Box()) {
		if c.Net != e.track.Net || c.Bare || !c.Has(e.layer) || c == e.track || c == e.pad {
			continue
		}
		if gap, _, _ := geom.Gap(s, c.On(e.layer)); gap <= 0 && !hang(e, c) {
			return true
		}
	}
	return false
}

// apart tells whether a teardrop keeps its clearance from others of other nets, and touches none of its own that does not hang on it.
func (f *Finder) apart(e end, s geom.Shape, others []rival) bool {
	for _, o := range others {
		far := f.field.Rules.Nearest(design.Clearance, s, o.Shape, func(gap float64, p, q geom.Point) bool {
			if o.of.track.Net == e.track.Net {
				return gap > 0
			}
			need := f.field.Rules.Between(design.Clearance, e.track.Subject(), o.of.track.Subject(), e.layer, p.Towards(q, 0.5)).Of(0)
			return !geom.Short(gap, need)
		})
		if !far {
			return false
		}
	}
	return true
}
