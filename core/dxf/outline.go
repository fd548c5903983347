package dxf

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Taking says how an outline is made of a drawing.
type Taking struct {
	Unit      float64  `json:"unit,omitempty"`   // nanometres of one unit, where the file does not say; 0: as it says
	Layers    []string `json:"layers,omitempty"` // of the drawing; none: all
	Gap       int64    `json:"gap,omitempty"`    // ends so near are joined; 0: 10 µm
	Tolerance int64    `json:"tolerance,omitempty"`
}

// Mended is a gap that was closed.
type Mended struct {
	At   geom.Point `json:"at"`
	Size int64      `json:"size"`
}

// Edges are what a drawing gives: the board's edge and what is cut out of it.
type Edges struct {
	Outline []geom.Corner   `json:"outline"`
	CutOuts [][]geom.Corner `json:"cutOuts"`
	Mended  []Mended        `json:"mended"`
	Open    []geom.Point    `json:"open"`            // ends of lines that close nowhere
	Loose   []geom.Piece    `json:"loose"`           // those lines, which are left out
	Notes   []string        `json:"notes"`           // what was left out, and why
	Doubt   string          `json:"doubt,omitempty"` // why the outline may not be the one that is meant

	longest *openLine
}

// Usual ways of taking a drawing.
const (
	usualGap       = 10_000
	usualTolerance = 5_000
	mostPieces     = 20_000
)

// Outline joins the curves of a drawing to closed lines. The one that encloses the most is the edge, those within it are cut out; what lies
// outside or within a cut-out is left out, and said. Cost: O(n log n) of the curves.
func (d *Drawing) Outline(t Taking) (*Edges, error) {
	unit := d.Unit
	if t.Unit > 0 {
		unit = t.Unit
	}
	if unit <= 0 {
		return nil, errors.New("the drawing does not say its unit; name it")
	}
	gap, tolerance := cmp.Or(t.Gap, usualGap), cmp.Or(t.Tolerance, usualTolerance)
	if gap < 0 || gap > 5*units.MM || tolerance < 100 || tolerance > units.MM {
		return nil, errors.New("gaps up to 5 mm can be closed, and curves followed within 0.1 µm to 1 mm")
	}
	var pieces geom.Ring
	for _, c := range d.curves {
		if len(t.Layers) > 0 && !slices.Contains(t.Layers, c.layer) {
			continue
		}
		list, err := piecesOf(c.path, unit, float64(tolerance))
		if err != nil {
			return nil, err
		}
		if pieces = append(pieces, list...); len(pieces) > mostPieces {
			return nil, fmt.Errorf("the drawing has more than %d lines and arcs; choose fewer layers, or a coarser tolerance", mostPieces)
		}
	}
	if len(pieces) == 0 {
		return nil, errors.New("no line or arc of the drawing was chosen")
	}
	out := &Edges{CutOuts: [][]geom.Corner{}, Mended: []Mended{}, Open: []geom.Point{}, Loose: []geom.Piece{}, Notes: []string{}, longest: &openLine{}}
	pieces = out.once(pieces)
	loops, err := out.join(pieces, gap)
	if err != nil {
		return nil, err
	}
	if len(loops) == 0 {
		return nil, fmt.Errorf("no line of the drawing closes: its ends are more than %s apart", units.Text(gap))
	}
	if err := out.sort(loops); err != nil {
		return out, err
	}
	out.doubts(loops[0])
	return out, nil
}

// piecesOf is a curve as lines and arcs within a tolerance.
func piecesOf(p path, unit, tolerance float64) (geom.Ring, error) {
	at := func(t float64) vec { return p.at(t).times(unit) }
	point := func(t float64) (geom.Point, error) {
		v := at(t)
		if math.Abs(v.x) > float64(units.Limit) || math.Abs(v.y) > float64(units.Limit) {
			return geom.Point{}, fmt.Errorf("the drawing reaches beyond what a board can; is its unit right?")
		}
		return geom.Pt(int64(math.Round(v.x)), int64(math.Round(v.y))), nil
	}
	var out geom.Ring
	straight, exact := p.plain()
	var follow func(from, to float64, depth int) error
	follow = func(from, to float64, depth int) error {
		a, err := point(from)
		if err != nil {
			return err
		}
		b, err := point(to)
		if err != nil {
			return err
		}
		m, err := point((from + to) / 2)
		if err != nil {
			return err
		}
		piece := geom.Piece{A: a, M: m, B: b}
		flat := piece.Radius() > float64(units.Limit)
		if straight || flat {
			piece = geom.Straight(a, b)
		}
		if (!exact || flat) && depth < 14 && a != b {
			worst := 0.0
			for _, share := range []float64{0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875} {
				q, err := point(from + (to-from)*share)
				if err != nil {
					return err
				}
				off, _, _ := geom.PieceDistance(piece, geom.Straight(q, q))
				worst = max(worst, off)
			}
			if worst > tolerance {
				if err := follow(from, (from+to)/2, depth+1); err != nil {
					return err
				}
				return follow((from+to)/2, to, depth+1)
			}
		}
		if a != b {
			out = append(out, piece)
		}
		return nil
	}
	cuts := p.cuts()
	for i := 0; i+1 < len(cuts); i++ {
		if err := follow(cuts[i], cuts[i+1], 0); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// once leaves out what is drawn twice, either way round.
func (o *Edges) once(pieces geom.Ring) geom.Ring {
	seen := map[geom.Piece]bool{}
	kept := pieces[:0]
	for _, p := range pieces {
		if seen[p] || seen[p.Back()] {
			continue
		}
		seen[p] = true
		kept = append(kept, p)
	}
	if n := len(pieces) - len(kept); n > 0 {
		o.Notes = append(o.Notes, counted(n, "line or arc that is drawn twice counts", "lines and arcs that are drawn twice count")+" once.")
	}
	return kept
}

// end of a piece: its first or its last place.
type end struct {
	piece int
	last  bool
}

// join makes closed lines of pieces whose ends lie near each other.
func (o *Edges) join(pieces geom.Ring, gap int64) ([]geom.Ring, error) {
	spots := spotsOf(pieces, gap)
	at := make([][2]int, len(pieces)) // spot of the first and the last place
	for s, spot := range spots {
		for _, e := range spot.ends {
			at[e.piece][side(e)] = s
		}
	}
	used := make([]bool, len(pieces))
	var loops []geom.Ring
	in := make([]bool, len(pieces)) // of a closed line
	for i := range pieces {
		if used[i] {
			continue
		}
		loop, members, closed := o.walk(pieces, spots, at, used, i)
		if closed {
			loops = append(loops, loop)
			for _, k := range members {
				in[k] = true
			}
		}
	}
	together := geom.NewForest(len(pieces)) // loose pieces that hang together
	for _, s := range spots {
		for _, e := range s.ends[1:] {
			if !in[e.piece] && !in[s.ends[0].piece] {
				together.Join(e.piece, s.ends[0].piece)
			}
		}
	}
	lines := map[int]*openLine{}
	for i, p := range pieces {
		if in[i] {
			continue
		}
		o.Loose = append(o.Loose, p)
		root := together.Root(i)
		if lines[root] == nil {
			lines[root] = &openLine{}
		}
		lines[root].long += p.Length()
		if lines[root].long > o.longest.long {
			o.longest = lines[root]
		}
	}
	for _, s := range spots {
		if len(s.ends) == 1 && !in[s.ends[0].piece] {
			l := lines[together.Root(s.ends[0].piece)]
			l.ends = append(l.ends, s.at)
		}
	}
	for _, s := range spots {
		switch {
		case len(s.ends) == 1:
			o.Open = append(o.Open, s.at)
		case len(s.ends) > 2:
			return nil, fmt.Errorf("%d lines of the drawing meet at %s, %s; an edge goes on from there in one way only: choose its layer", len(s.ends), units.Text(s.at.X), units.Text(s.at.Y))
		case s.wide > 1000: // a micrometre is what writing in decimals loses
			o.Mended = append(o.Mended, Mended{s.at, s.wide})
		}
	}
	if len(o.Open) > 0 {
		o.Notes = append(o.Notes, fmt.Sprintf("Lines with %d loose ends close nowhere and are left out.", len(o.Open)))
	}
	return loops, nil
}

// openLine is one that does not close: how long it is, and where it ends.
type openLine struct {
	long float64
	ends []geom.Point
}

// doubts says that a line which does not close is longer than the outline that was found.
func (o *Edges) doubts(outline geom.Ring) {
	around := 0.0
	for _, p := range outline {
		around += p.Length()
	}
	if o.longest.long <= around {
		return
	}
	apart := ""
	if len(o.longest.ends) == 2 {
		apart = fmt.Sprintf(" (its ends are %s apart)", units.Text(int64(o.longest.ends[0].Dist(o.longest.ends[1]))))
	}
	o.Doubt = fmt.Sprintf("A line of %s does not close%s; the outline that was found is only %s long. If the longer one is the edge, close wider gaps or choose its layer alone.",
		units.Text(int64(o.longest.long)), apart, units.Text(int64(around)))
}

func side(e end) int {
	if e.last {
		return 1
	}
	return 0
}

// walk goes on from a piece until it is back, or at a loose end.
func (o *Edges) walk(pieces geom.Ring, spots []spot, at [][2]int, used []bool, first int) (loop geom.Ring, members []int, closed bool) {
	e := end{first, true}
	for {
		used[e.piece] = true
		members = append(members, e.piece)
		p := pieces[e.piece]
		from, to := at[e.piece][0], at[e.piece][1]
		if !e.last {
			p, from, to = p.Back(), to, from
		}
		if p.Round() {
			p.A, p.B = spots[from].at, spots[to].at
		} else {
			p = geom.Straight(spots[from].at, spots[to].at)
		}
		if p.A != p.B {
			loop = append(loop, p)
		}
		if to == at[first][0] {
			return loop, members, len(loop) > 1
		}
		next, ok := spots[to].other(e)
		if !ok || used[next.piece] {
			return nil, members, false
		}
		e = end{next.piece, !next.last} // entered at one end, left at the other
	}
}

// spot is where ends of pieces meet.
type spot struct {
	at   geom.Point
	wide int64 // the distance that was closed
	ends []end
}

func (s *spot) other(e end) (end, bool) {
	if len(s.ends) != 2 {
		return end{}, false
	}
	if s.ends[0] == e {
		return s.ends[1], true
	}
	return s.ends[0], true
}

// spotsOf gathers the ends of pieces that lie within the gap of each other.
func spotsOf(pieces geom.Ring, gap int64) []spot {
	type met struct {
		at geom.Point
		e  end
	}
	var all []met
	for i, p := range pieces {
		all = append(all, met{p.A, end{i, false}}, met{p.B, end{i, true}})
	}
	slices.SortStableFunc(all, func(a, b met) int { return cmp.Compare(a.at.X, b.at.X) })
	f := geom.NewForest(len(all))
	for i := range all {
		for k := i + 1; k < len(all) && all[k].at.X-all[i].at.X <= gap; k++ {
			if all[i].at.Dist(all[k].at) <= float64(gap) {
				f.Join(i, k)
			}
		}
	}
	by := map[int]int{}
	var out []spot
	var members [][]geom.Point
	for i, p := range all {
		root := f.Root(i)
		s, ok := by[root]
		if !ok {
			s = len(out)
			by[root], out, members = s, append(out, spot{}), append(members, nil)
		}
		out[s].ends = append(out[s].ends, p.e)
		members[s] = append(members[s], p.at)
	}
	for s := range out {
		var x, y int64
		for _, m := range members[s] {
			x, y = x+m.X, y+m.Y
			for _, k := range members[s] {
				out[s].wide = max(out[s].wide, int64(math.Round(m.Dist(k))))
			}
		}
		n := int64(len(members[s]))
		out[s].at = geom.Pt(x/n, y/n)
	}
	return out
}

// sort tells edge and cut-outs apart.
func (o *Edges) sort(loops []geom.Ring) error {
	slices.SortStableFunc(loops, func(a, b geom.Ring) int { return cmp.Compare(math.Abs(b.Area()), math.Abs(a.Area())) })
	for _, l := range loops {
		if p, bad := geom.Crossing(l); bad {
			return fmt.Errorf("a closed line of the drawing crosses itself at %s, %s", units.Text(p.X), units.Text(p.Y))
		}
		if len(l) > design.MostCorners {
			return fmt.Errorf("a closed line of the drawing has %d corners; %d are the most: follow its curves less closely", len(l), design.MostCorners)
		}
	}
	o.Outline = cornersOf(loops[0])
	within, outside := 0, 0
	var cut []geom.Ring
	for _, l := range loops[1:] {
		switch {
		case !loops[0].Holds(l[0].A):
			outside++
		case slices.ContainsFunc(cut, func(c geom.Ring) bool { return c.Holds(l[0].A) }):
			within++
		default:
			cut = append(cut, l)
			o.CutOuts = append(o.CutOuts, cornersOf(l))
		}
	}
	if p, bad := geom.Crossing(loops...); bad {
		return fmt.Errorf("closed lines of the drawing cross each other at %s, %s", units.Text(p.X), units.Text(p.Y))
	}
	if outside > 0 {
		o.Notes = append(o.Notes, counted(outside, "closed line beside the largest is", "closed lines beside the largest are")+" left out; a project has one board.")
	}
	if within > 0 {
		o.Notes = append(o.Notes, counted(within, "closed line within a cut-out is", "closed lines within cut-outs are")+" left out.")
	}
	return nil
}

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// cornersOf a closed line, anticlockwise.
func cornersOf(r geom.Ring) []geom.Corner {
	if r.Area() < 0 {
		back := make(geom.Ring, len(r))
		for i, p := range r {
			back[len(r)-1-i] = p.Back()
		}
		r = back
	}
	out := make([]geom.Corner, len(r))
	for i, p := range r {
		out[i] = geom.Corner{Point: p.A}
		if p.Round() {
			m := p.M
			out[i].Mid = &m
		}
	}
	return out
}
