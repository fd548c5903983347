package route

import (
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Manner says what a track does at an obstacle.
type Manner string

// Manners: it ends before it; it goes round it; the obstacle moves aside.
const (
	Stop     Manner = "stop"
	GoAround Manner = "around"
	MoveThem Manner = "aside"
)

// Drawing is a track that the hand draws.
type Drawing struct {
	Net    design.ID
	Width  int64 // 0: as the rules say
	Style  Corner
	Radius int64 // that its corners will be rounded with; 0: they stay sharp
	Manner Manner
	Other  bool  // it goes round by the other side
	Neck   bool  // it gets as narrow as the rules let it where only that fits
	Done   []Leg // drawn so far
	From   geom.Point
	Layer  int
	To     geom.Point
}

// Head is how a track goes on to the hand.
type Head struct {
	Legs    []Leg        // from where it stands
	Blocked *Obstacle    // why it ends before the hand
	Rest    []geom.Point // from there to the hand, not allowed
	Aside   *Aside       // what moves for it; nil: nothing
}

// End is where the head ends.
func (h *Head) End() geom.Point {
	last := h.Legs[len(h.Legs)-1].Path
	return last[len(last)-1].Point
}

// Head finds how a track goes on from where it stands to the hand.
func (f Field) Head(d Drawing) Head {
	width := d.Width
	if width == 0 {
		width = f.Usual(design.TrackWidth, Wish{Shape: geom.Disc(d.From, 0), Layers: 1 << d.Layer, Net: d.Net, Thing: design.ATrack})
	}
	l := lane{f, width, d.Layer, d.Net}
	if least := f.Usual(design.LeastWidth, Wish{Shape: geom.Disc(d.From, 0), Layers: 1 << d.Layer, Net: d.Net, Thing: design.ATrack}); d.Neck && least < width {
		l.width = least
	}
	var path []geom.Point
	var out Head
	switch d.Manner {
	case GoAround:
		path = l.around(d.From, d.To, d.Style, d.Other)
	case MoveThem:
		path, out.Aside, out.Blocked = l.aside(d)
	}
	if path == nil {
		p := f.Draw(d.From, d.To, d.Style, d.Layer, d.Net, l.width)
		path, out.Rest = p.Path, p.Rest
		if out.Blocked == nil {
			out.Blocked = p.Blocked
		}
	} else if end := path[len(path)-1]; end != d.To {
		p := f.Draw(end, d.To, d.Style, d.Layer, d.Net, l.width)
		out.Blocked, out.Rest = p.Blocked, append([]geom.Point{end}, Path(end, d.To, d.Style)[1:]...)
	}
	out.Legs = f.widths(d, geom.Corners(path...), width)
	return out
}

// around is a way from a to b round what is in the way, by the shorter side or by the other; nil: there is none that gets nearer than
// where it begins. It ends before b where that cannot be reached.
func (l lane) around(a, b geom.Point, style Corner, other bool) []geom.Point {
	direct := Path(a, b, style)
	if !other && l.passes(direct) {
		return direct
	}
	for _, style := range []Corner{StraightFirst, DiagonalFirst} {
		if way := Path(a, b, style); !other && style != Square && l.passes(way) {
			return way
		}
	}
	far := int64(a.Dist(b))
	q := quest{net: l.net, width: func(int) int64 { return l.width }, from: a, layers: 1 << l.layer, box: geom.BoxOf(a, b).Grow(max(far, 6_000_000)),
		goals: []goal{{at: b, shape: geom.Disc(b, 0), layers: 1 << l.layer}}, pitch: min(max(far/120, 50_000), 250_000), most: 12_000, eager: 1.3, square: style == Square}
	first := l.found(q)
	if other && first != nil {
		if o := l.f.Clear(track(a, b, l.width, l.layer, l.net)); o != nil {
			q.fence = [][2]geom.Point{fence(first, a, b, o.At)}
			if second := l.found(q); second != nil {
				first = second
			}
		}
	}
	if len(first) < 2 {
		return nil
	}
	if style == Free {
		return l.pulled(first)
	}
	return first
}

func (l lane) found(q quest) []geom.Point {
	way, arrived := l.f.newMaze(q).run()
	if !arrived && len(way) < 2 {
		return nil
	}
	path := make([]geom.Point, len(way))
	for i, s := range way {
		path[i] = s.at
	}
	if q.square {
		return plain(path)
	}
	return l.tightened(path)
}

// fence is a line from an obstacle over the place where a way passes it, and on: a way that does not cross it goes by the other side.
func fence(way []geom.Point, a, b, at geom.Point) [2]geom.Point {
	// where the line through the obstacle, across the way from a to b, meets the way that was found
	across := geom.Pt(-(b.Y - a.Y), b.X-a.X)
	best, by := math.Inf(1), at.Add(across)
	for i := 0; i+1 < len(way); i++ {
		if p, ok := meet(at, across, way[i], way[i+1].Sub(way[i])); ok && geom.BoxOf(way[i], way[i+1]).Grow(1).Holds(p) && p.Dist(at) < best {
			best, by = p.Dist(at), p
		}
	}
	return [2]geom.Point{at, at.Towards(by, 1e8/max(1, at.Dist(by)))}
}

// pulled is a path drawn straight wherever that is free.
func (l lane) pulled(path []geom.Point) []geom.Point {
	path = parted(path, 8)
	out := []geom.Point{path[0]}
	for i := 0; i+1 < len(path); {
		j := len(path) - 1
		for ; j > i+1; j-- {
			if l.f.Free(track(path[i], path[j], l.width, l.layer, l.net)) {
				break
			}
		}
		out = append(out, path[j])
		i = j
	}
	for range 3 {
		for i := 1; i+1 < len(out); i++ {
			out[i] = l.drawnIn(out[i-1], out[i], out[i+1])
		}
	}
	return plain(out)
}

// parted is a path with places between its corners, each piece in so many parts.
func parted(path []geom.Point, parts int) []geom.Point {
	out := []geom.Point{path[0]}
	for i := 0; i+1 < len(path); i++ {
		for k := 1; k <= parts; k++ {
			if p := path[i].Towards(path[i+1], float64(k)/float64(parts)); p != out[len(out)-1] {
				out = append(out, p)
			}
		}
	}
	return out
}

// drawnIn is a corner between two places drawn towards the straight way between them, as far as that is free.
func (l lane) drawnIn(a, p, b geom.Point) geom.Point {
	_, foot, _ := geom.Gap(geom.Stroke(a, b, 0), geom.Disc(p, 0))
	lo, hi := 0.0, 1.0
	for range 8 {
		mid := (lo + hi) / 2
		q := p.Towards(foot, mid)
		if q != a && q != b && l.f.Free(track(a, q, l.width, l.layer, l.net)) && l.f.Free(track(q, b, l.width, l.layer, l.net)) {
			lo = mid
		} else {
			hi = mid
		}
	}
	if lo == 0 {
		return p
	}
	return p.Towards(foot, lo)
}

// aside is the way straight to the hand, and what moves aside for it; nil: it cannot, for the reason given.
func (l lane) aside(d Drawing) ([]geom.Point, *Aside, *Obstacle) {
	path := Path(d.From, d.To, d.Style)
	if len(path) < 2 {
		return nil, nil, nil
	}
	legs := append(d.Done[:len(d.Done):len(d.Done)], Leg{Layer: l.layer, Width: l.width, Path: geom.Corners(path...)})
	aside, no := l.f.MakeWay(l.f.HandOf(l.f.RoundLegs(legs, d.Net, d.Radius), d.Net), nil)
	if no == nil {
		return path, aside, nil
	}
	return nil, nil, no
}

// HandOf is the copper of legs that are being laid: tracks, and vias where a leg is on another layer than the one before, unless a plated
// hole is there.
func (f Field) HandOf(legs []Leg, net design.ID) (out []*layout.Copper) {
	add := func(c *layout.Copper) {
		c.ID, c.Pad, c.Net = handID, -1-len(out), net
		out = append(out, c)
	}
	for i, l := range legs {
		if len(l.Path) == 0 {
			continue
		}
		if i > 0 && legs[i-1].Layer != l.Layer {
			if hop, no := f.HopOf(legs[i-1], l, net); no == nil {
				for _, c := range f.hopCopper(hop, net, l.Width) {
					add(c)
				}
			}
		}
		for _, p := range PiecesOf(l.Path) {
			add(&layout.Copper{Kind: "track", Thing: design.ATrack, Layers: 1 << l.Layer, Shape: geom.Bow(p, l.Width), At: p.A, Name: "track"})
		}
	}
	return out
}

// handID is the id of copper that is not of the document yet.
const handID = design.MaxID

// rounded is a path with round corners as far as they are free.
func (l lane) rounded(path []geom.Point, radius int64) []geom.Corner {
	for ; radius >= 10_000; radius /= 2 {
		line := Rounded(path, radius)
		free := true
		for _, p := range PiecesOf(line) {
			free = free && (!p.Round() || l.f.Free(Wish{Shape: geom.Bow(p, l.width), Layers: 1 << l.layer, Net: l.net, Thing: design.ATrack}))
		}
		if free {
			return line
		}
	}
	return geom.Corners(path...)
}

// RoundLegs are legs of sharp corners with round ones, as far as they are free; those of one width and layer are rounded as one line.
func (f Field) RoundLegs(legs []Leg, net design.ID, radius int64) []Leg {
	if radius <= 0 {
		return legs
	}
	var out []Leg
	for _, l := range legs {
		if n := len(out) - 1; n >= 0 && out[n].Layer == l.Layer && out[n].Width == l.Width && len(l.Path) > 0 {
			out[n].Path = append(slices.Clip(out[n].Path), l.Path[1:]...)
			continue
		}
		out = append(out, l)
	}
	for i, l := range out {
		out[i].Path = lane{f, l.Width, l.Layer, net}.rounded(plain(geom.Places(l.Path)), radius)
	}
	return out
}
