package route

import (
	"fmt"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Pull is what the hand does to a track: it takes a piece of it at a place and goes to another.
type Pull struct {
	Track    design.ID
	From, To geom.Point
	// Grip is how far from a corner the hand takes the corner and not the piece, in nanometres.
	Grip   int64
	Corner bool // it pulls a jog out of the piece
	Aside  bool // others make way, else they stop it
}

// Pulled is how a track lies then.
type Pulled struct {
	Moved
	Aside   *Aside    // what moved for it; nil: nothing
	Blocked *Obstacle // why it ends before the hand
}

// Pull finds how a track follows the hand: a piece slides sideways, the pieces beside it keep their directions; a corner goes where the hand
// goes; a jog is pulled out of a piece. The ends of the strand stay. It refuses with a sentence what cannot be pulled at all.
func (f Field) Pull(p Pull) (*Pulled, error) {
	s := f.strandOf(p.Track)
	if s == nil {
		return nil, f.unmovable(p.Track)
	}
	i, node := s.grip(p.From, p.Grip)
	by := func(share float64) []geom.Point {
		d := p.To.Sub(p.From)
		step := geom.Pt(int64(math.Round(share*float64(d.X))), int64(math.Round(share*float64(d.Y))))
		switch {
		case p.Corner:
			return jogged(s.Path, i, p.From.Add(step), s.Width)
		case node > 0 && node < len(s.Path)-1:
			return cornerMoved(s.Path, node, step)
		}
		return slidBy(s.Path, i, step)
	}
	free := f.With(s.IDs)
	lies := func(path []geom.Point) *Obstacle {
		for _, c := range s.copper(path) {
			if o := free.Clear(wishOf(c)); o != nil {
				return o
			}
		}
		return f.joinsAnew(s, path)
	}
	out := &Pulled{Moved: Moved{Strand: s, To: s.Path}}
	whole := by(1)
	if whole != nil {
		if out.Blocked = lies(whole); out.Blocked == nil {
			out.To = whole
			return out, nil
		}
		if p.Aside {
			aside, no := free.MakeWay(s.copper(whole), map[design.ID]bool{})
			if no == nil {
				if no = f.joinsAnew(s, whole); no == nil {
					out.To, out.Aside, out.Blocked = whole, aside, nil
					return out, nil
				}
			}
			out.Blocked = no
		}
	}
	// as far as it goes
	lo, hi := 0.0, 1.0
	for range 16 {
		mid := (lo + hi) / 2
		path := by(mid)
		if path == nil {
			hi = mid
			continue
		}
		if o := lies(path); o != nil {
			hi, out.Blocked = mid, o
		} else {
			lo, out.To = mid, path
		}
	}
	return out, nil
}

// Strand is the stretch that a track belongs to, or a sentence why it cannot be laid otherwise.
func (f Field) Strand(id design.ID) (*Strand, error) {
	if s := f.strandOf(id); s != nil {
		return s, nil
	}
	return nil, f.unmovable(id)
}

// Rounding is a strand's line with corners of a radius, as far as they are free; the field is one without the strand.
func (f Field) Rounding(s *Strand, radius int64) []geom.Corner {
	return lane{f, s.Width, s.Layer, s.Net}.rounded(s.Path, radius)
}

// unmovable is why a track has no strand.
func (f Field) unmovable(id design.ID) error {
	t := f.Doc.Tracks[id]
	switch {
	case t == nil:
		return fmt.Errorf("there is no such track any more (id %d)", id)
	case t.Locked:
		return fmt.Errorf("this track is locked")
	case f.held(t):
		return fmt.Errorf("something of %s hangs on the middle of this track; it would be parted", f.Doc.NetName(t.Net))
	}
	return fmt.Errorf("this track cannot be pulled: it goes round in a ring, or in an arc that rounds no corner")
}

// grip is the piece of the strand that is nearest to a place, and the corner within the grip, −1: there is none.
func (s *Strand) grip(at geom.Point, within int64) (piece, node int) {
	best := math.Inf(1)
	for i := 0; i+1 < len(s.Path); i++ {
		if d, _, _ := geom.SegmentDistance(s.Path[i], s.Path[i+1], at, at); d < best {
			best, piece = d, i
		}
	}
	node = -1
	near := float64(within)
	for i, p := range s.Path {
		if d := p.Dist(at); d <= near {
			near, node = d, i
		}
	}
	return piece, node
}

// unit is a step in the direction of a way, of whole nanometres for the eight directions.
func unit(d geom.Point) geom.Point {
	if octal(d) {
		return geom.Pt(signOrNone(d.X), signOrNone(d.Y))
	}
	return d
}

func signOrNone(v int64) int64 {
	if v == 0 {
		return 0
	}
	return sign(v)
}

// slidBy is the path with its i-th piece moved sideways as far as a step leads across it; nil: it cannot. Pieces that get no length are left
// out; at an end of the path a slanted piece is put in.
func slidBy(path []geom.Point, i int, step geom.Point) []geom.Point {
	a, b := path[i], path[i+1]
	u := b.Sub(a)
	e, long := normal(a, b)
	var across geom.Point
	side := 0.0
	if long > 0 {
		k := int64(math.Round(float64(step.X*e.X+step.Y*e.Y) / (long * long)))
		across, side = geom.Pt(k*e.X, k*e.Y), float64(k)
	} else {
		l2 := float64(u.X)*float64(u.X) + float64(u.Y)*float64(u.Y)
		k := (-float64(step.X)*float64(u.Y) + float64(step.Y)*float64(u.X)) / l2
		across, side = geom.Pt(int64(math.Round(-k*float64(u.Y))), int64(math.Round(k*float64(u.X)))), k
		e = geom.Pt(-u.Y, u.X)
	}
	if across == (geom.Point{}) {
		return path
	}
	way := int64(1)
	if side < 0 {
		way = -1
	}
	slanted := func(forth int64) geom.Point { // 45° to the piece, towards where it goes
		v := unit(u)
		return geom.Pt(v.X+forth*way*e.X, v.Y+forth*way*e.Y)
	}
	on := a.Add(across)
	p, front := leads(path[:i+1], slanted(1), on, u)
	q, back := leads(reversed(path[i+1:]), geom.Pt(-slanted(-1).X, -slanted(-1).Y), on, u)
	if front == nil || back == nil || !along(q.Sub(p), u) {
		return nil
	}
	return plain(append(append(front, p), append([]geom.Point{q}, reversed(back)...)...))
}

// leads is where what leads to a piece that moved meets its line, and what stays of the way there. A way of one place alone gets a slanted
// piece.
func leads(way []geom.Point, slanted, on, u geom.Point) (at geom.Point, kept []geom.Point) {
	n := len(way)
	if n == 1 {
		p, ok := meet(way[0], slanted, on, u)
		if !ok || !along(p.Sub(way[0]), slanted) {
			return at, nil
		}
		return p, slices.Clone(way)
	}
	for n >= 2 {
		dir := way[n-1].Sub(way[n-2])
		p, ok := meet(way[n-2], dir, on, u)
		if ok && along(p.Sub(way[n-2]), dir) {
			return p, slices.Clone(way[:n-1])
		}
		n-- // the piece has no length left
	}
	p, ok := meet(way[0], slanted, on, u)
	if !ok || !along(p.Sub(way[0]), slanted) {
		return at, nil
	}
	return p, slices.Clone(way[:1])
}

// cornerMoved is the path with a corner moved by a step: both pieces beside it keep their directions.
func cornerMoved(path []geom.Point, i int, step geom.Point) []geom.Point {
	next := path[i+1]
	first := slidBy(path, i-1, step)
	if first == nil {
		return nil
	}
	j := slices.Index(first, next)
	if j < 1 {
		return nil
	}
	return slidBy(first, j-1, step)
}

// jogged is the path with a jog pulled out of its i-th piece: it leads aside at 45°, a stretch along the hand, and back at 45°. The jog keeps a track's
// width from the ends of the piece; nil: there is no room for it.
func jogged(path []geom.Point, i int, hand geom.Point, width int64) []geom.Point {
	a, b := path[i], path[i+1]
	v := unit(b.Sub(a))
	if v == (geom.Point{}) {
		return nil
	}
	n := geom.Pt(-v.Y, v.X)
	vv := float64(v.X)*float64(v.X) + float64(v.Y)*float64(v.Y)
	of := func(p, w geom.Point) float64 { return (float64(p.X)*float64(w.X) + float64(p.Y)*float64(w.Y)) / vv }
	at, high, long := of(hand.Sub(a), v), of(hand.Sub(a), n), of(b.Sub(a), v)
	wide := float64(width) / math.Sqrt(vv)
	if octal(b.Sub(a)) { // whole nanometres stay on the eight directions
		high = math.Round(high)
	}
	aside := math.Abs(high)
	if aside == 0 {
		return path
	}
	half := min(max(2*wide, aside/2), (long-2*wide)/2-aside)
	if half < wide/2 {
		return nil
	}
	at = max(half+aside+wide, min(at, long-half-aside-wide))
	place := func(along, across float64) geom.Point {
		along = math.Round(along*vv) / vv
		return a.Add(geom.Pt(int64(math.Round(along*float64(v.X)+across*float64(n.X))), int64(math.Round(along*float64(v.Y)+across*float64(n.Y)))))
	}
	if octal(b.Sub(a)) {
		at, half = math.Round(at), math.Round(half)
		place = func(along, across float64) geom.Point {
			return a.Add(geom.Pt(int64(along)*v.X+int64(across)*n.X, int64(along)*v.Y+int64(across)*n.Y))
		}
	}
	jog := []geom.Point{place(at-half-aside, 0), place(at-half, high), place(at+half, high), place(at+half+aside, 0)}
	return plain(slices.Concat(path[:i+1], jog, path[i+1:]))
}

// joinsAnew tells whether a strand along another path touches copper of its net that it did not touch before.
func (f Field) joinsAnew(s *Strand, path []geom.Point) *Obstacle {
	m := f.mover(nil)
	t := &thing{strand: s, path: s.Path}
	for _, id := range s.IDs {
		m.strands[id] = t
	}
	m.put(t, path)
	return m.joins(t, f)
}

// PullVia finds how a via goes to another place and its tracks follow; with aside others make way, else they stop it. It goes as far as it
// can on the straight way there.
func (f Field) PullVia(id design.ID, to geom.Point, aside bool) (*Aside, *Obstacle, error) {
	v := f.Doc.Vias[id]
	if v == nil {
		return nil, nil, fmt.Errorf("there is no such via any more (id %d)", id)
	}
	if v.Locked {
		return nil, nil, fmt.Errorf("this via is locked")
	}
	c := f.Index.Of(id)[0]
	try := func(at geom.Point) (*Aside, *Obstacle) {
		m := f.mover(nil)
		t := &thing{via: c, at: v.At}
		m.vias[id] = t
		if o := m.set(t, at, &Obstacle{Name: "what hangs on the via", Net: f.Doc.NetName(v.Net), At: v.At}); o != nil {
			return nil, o
		}
		m.stack = append(m.stack, t)
		if aside {
			if o := m.run(); o != nil {
				return nil, o
			}
			m.settle()
		}
		return m.result(f)
	}
	a, no := try(to)
	if no == nil {
		return a, nil, nil
	}
	lo, hi := 0.0, 1.0
	for range 12 {
		mid := (lo + hi) / 2
		if b, o := try(v.At.Towards(to, mid)); o != nil {
			hi = mid
		} else {
			lo, a = mid, b
		}
	}
	if a == nil {
		a = &Aside{}
	}
	return a, no, nil
}
