package route

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// HopHole is one hole of a hop.
type HopHole struct {
	Barrel design.BarrelID `json:"barrel"`
	At     geom.Point      `json:"at"`
}

// Hop is a change of layer: its holes from where it begins to where it ends.
type Hop struct {
	Holes []HopHole `json:"holes"`
	Own   bool      `json:"own,omitempty"` // a person chose the way, rather than that it is the best that fits
}

// End is where the hop ends.
func (h *Hop) End() geom.Point { return h.Holes[len(h.Holes)-1].At }

// HopAsk says what hop is sought.
type HopAsk struct {
	At    geom.Point
	Net   design.ID
	From  int    // position of the copper layer it begins on
	To    int    // and of that it ends on
	Width int64  // of what joins holes that stand apart; 0: as the rules say
	Only  int    // the place of the one way that is meant among all, from 1 on; 0: the best that fits
	Angle *int32 // towards where holes stand apart, in millidegrees; nil: where there is most room
	Apart int64  // how far they do; 0: as the way says
	Stay  bool   // it ends where it begins
}

// HopTried is what came of one way.
type HopTried struct {
	Way design.Way
	Hop *Hop  // nil: it does not fit
	Why error // then
}

// How far a hop may be set from where it was asked for, and in which steps that is tried, in nanometres.
const (
	viaReach = 2_500_000
	viaStep  = 100_000
)

// Angles that holes may stand apart at: all multiples of a part of the turn, from the right on, in millidegrees. Room is told apart in
// steps of roomStep, and not beyond roomEnough, in nanometres.
const (
	hopTurn    = 15_000
	fullTurn   = 360_000
	roomStep   = 1_000
	roomEnough = 500_000
)

// HopAt tries the ways of a hop at its place, the best first, up to the first that fits; that is the last one of the list. Where a
// plated hole of the net is there already that leads to the layer, the list is empty.
func (f Field) HopAt(a HopAsk) []HopTried {
	ways, _ := f.Doc.Board.WaysOf(f.Doc.Board.At(a.From), f.Doc.Board.At(a.To))
	return f.hopAt(a, ways)
}

// hopAt does so with the ways there are.
func (f Field) hopAt(a HopAsk, ways []design.Way) (tried []HopTried) {
	if f.PlatedAt(a.At, a.Net, 1<<a.From|1<<a.To) {
		return nil
	}
	for i, w := range ways {
		if a.Only != 0 && a.Only != i+1 || a.Stay && w.Stepped() {
			continue
		}
		hop, why := f.HopBy(a, w)
		tried = append(tried, HopTried{w, hop, why})
		if hop != nil {
			hop.Own = a.Only > 1
			return tried
		}
	}
	if len(tried) == 0 {
		tried = append(tried, HopTried{Why: f.nowhere(a, len(ways) > 0)})
	}
	return tried
}

// nowhere says that nothing leads from the layer to the other, or only aside.
func (f Field) nowhere(a HopAsk, aside bool) error {
	b := f.Doc.Board
	from, to := b.Layer(b.At(a.From)).Name, b.Layer(b.At(a.To)).Name
	if aside {
		return fmt.Errorf("from %s to %s only holes beside each other lead, which end elsewhere than they begin", from, to)
	}
	return fmt.Errorf("no hole that the house makes leads from %s to %s", from, to)
}

// HopNear is the hop nearest to a place, of the best way that fits there; nil and why, where there is none within viaReach. A hop
// without holes: a plated hole of the net is there.
func (f Field) HopNear(a HopAsk) (*Hop, geom.Point, error) {
	at := a.At
	ways, _ := f.Doc.Board.WaysOf(f.Doc.Board.At(a.From), f.Doc.Board.At(a.To))
	var first error
	for r := int64(0); r <= viaReach; r += viaStep {
		n := max(8*int(min(r/viaStep, 6)), 1)
		for k := range n {
			sin, cos := math.Sincos(2 * math.Pi * float64(k) / float64(n))
			a.At = geom.Pt(at.X+int64(math.Round(cos*float64(r))), at.Y+int64(math.Round(sin*float64(r))))
			tried := f.hopAt(a, ways)
			if len(tried) == 0 {
				return &Hop{}, a.At, nil
			}
			last := tried[len(tried)-1]
			if last.Hop != nil {
				return last.Hop, a.At, nil
			}
			if first == nil {
				first = tried[0].Why
			}
		}
	}
	return nil, at, first
}

// HopOf is how one leg is come to from another on a different layer: as it says, else by the best hop that ends where it begins; where
// none fits there, by the best of those. A hop without holes: a plated hole of the net is there. The error says that nothing leads there.
func (f Field) HopOf(before, l Leg, net design.ID) (*Hop, error) {
	if l.Hop != nil {
		return l.Hop, nil
	}
	a := HopAsk{At: l.Path[0].Point, Net: net, From: before.Layer, To: l.Layer, Width: l.Width, Stay: true}
	tried := f.HopAt(a)
	switch {
	case len(tried) == 0:
		return &Hop{}, nil
	case tried[len(tried)-1].Hop != nil:
		return tried[len(tried)-1].Hop, nil
	case len(tried[0].Way.Steps) > 0:
		return f.laidOut(a, tried[0].Way, 0), nil
	}
	return nil, tried[0].Why
}

// HopBy makes a hop by one way: at the angle with the most room, where its holes stand apart and none is asked for.
func (f Field) HopBy(a HopAsk, w design.Way) (*Hop, error) {
	if !w.Stepped() || a.Angle != nil {
		angle := int32(0)
		if a.Angle != nil {
			angle = *a.Angle
		}
		hop := f.laidOut(a, w, angle)
		if o := f.hopFits(a, hop, 0); o != nil {
			return nil, o
		}
		return hop, nil
	}
	for _, c := range layout.PiecesOf(f.Doc, f.ViaOf(f.laidOut(a, w, 0).Holes[0], a.Net)) { // which stands there at any angle
		if o := f.ClearOf(c); o != nil {
			return nil, o
		}
	}
	var best *Hop
	var why *Obstacle
	most := int64(-roomStep)
	for angle := int32(0); angle < fullTurn; angle += hopTurn {
		hop := f.laidOut(a, w, angle)
		if o := f.hopFits(a, hop, most+roomStep); o != nil {
			if why == nil {
				why = o
			}
			continue
		}
		if f.hopFits(a, hop, roomEnough) == nil {
			return hop, nil
		}
		lo, hi := most+roomStep, int64(roomEnough) // it fits with lo to spare, and not with hi
		for hi-lo > roomStep {
			if mid := (lo + hi) / 2; f.hopFits(a, hop, mid) == nil {
				lo = mid
			} else {
				hi = mid
			}
		}
		best, most = hop, lo
	}
	if best == nil {
		return nil, why
	}
	return best, nil
}

// laidOut places the holes of a way in the order they are passed, those that stand apart towards an angle.
func (f Field) laidOut(a HopAsk, w design.Way, angle int32) *Hop {
	steps := w.Steps
	n := len(steps)
	hop := &Hop{Holes: make([]HopHole, n)}
	at := a.At
	for i := range n {
		k, joint := i, i // the step that is passed, and the one that says how far the hole is from the one before
		if a.From > a.To {
			k, joint = n-1-i, n-i
		}
		if i > 0 && steps[joint].Stepped {
			far := steps[joint].Apart
			if a.Apart != 0 {
				far = a.Apart
			}
			if far == 0 {
				far = f.nearest(steps[joint-1].Barrel, steps[joint].Barrel, at, a.Net)
			}
			sin, cos := math.Sincos(float64(angle) / 180_000 * math.Pi)
			at = at.Add(geom.Pt(int64(math.Round(cos*float64(far))), int64(math.Round(sin*float64(far)))))
		}
		hop.Holes[i] = HopHole{steps[k].Barrel, at}
	}
	return hop
}

// nearest is how near two holes may stand beside each other, middle to middle.
func (f Field) nearest(x, y design.BarrelID, at geom.Point, net design.ID) int64 {
	v, w := f.ViaOf(HopHole{x, at}, net), f.ViaOf(HopHole{y, at}, net)
	return (v.Hole+w.Hole+1)/2 + f.Usual(design.HoleClearance, Wish{Shape: geom.Disc(at, 0), Layers: 1<<f.Doc.Board.Layers() - 1, Net: net, Thing: design.AVia})
}

// HopThings are the vias of a hop, and the tracks that join those that stand apart; their ids are 0.
func (f Field) HopThings(hop *Hop, net design.ID, width int64) (vias []*design.Via, tracks []*design.Track) {
	for i, h := range hop.Holes {
		v := f.ViaOf(h, net)
		vias = append(vias, v)
		if i == 0 || hop.Holes[i-1].At == h.At {
			continue
		}
		last := vias[i-1]
		layer := min(f.Doc.Board.Position(last.To), f.Doc.Board.Position(v.To)) // where both meet: the lower end of the upper one
		w := width
		if w == 0 {
			w = f.Usual(design.TrackWidth, Wish{Shape: geom.Stroke(last.At, v.At, 0), Layers: 1 << layer, Net: net, Thing: design.ATrack})
		}
		tracks = append(tracks, &design.Track{Layer: f.Doc.Board.At(layer), A: last.At, B: v.At, Width: w, Net: net})
	}
	return vias, tracks
}

// hopCopper is the copper of a hop.
func (f Field) hopCopper(hop *Hop, net design.ID, width int64) (out []*layout.Copper) {
	vias, tracks := f.HopThings(hop, net, width)
	for _, v := range vias {
		out = append(out, layout.PiecesOf(f.Doc, v)...)
	}
	for _, t := range tracks {
		out = append(out, layout.PiecesOf(f.Doc, t)...)
	}
	return out
}

// hopFits tells whether a hop keeps the rules with so much to spare; nil: it does.
func (f Field) hopFits(a HopAsk, hop *Hop, spare int64) *Obstacle {
	pieces := f.hopCopper(hop, a.Net, a.Width)
	for _, c := range pieces {
		w := wishOf(c)
		w.Shape.R += spare
		if w.Hole > 0 {
			w.Hole += 2 * spare
		}
		if o := f.Clear(w); o != nil {
			return o
		}
	}
	if spare > 0 {
		return nil
	}
	for i, c := range pieces { // its own holes among each other
		for _, d := range pieces[:i] {
			if c.Hole > 0 && d.Hole > 0 {
				if o := f.With(nil, d).ClearOf(c); o != nil {
					return o
				}
			}
		}
	}
	return nil
}
