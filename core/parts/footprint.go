package parts

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strconv"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Limits are what a footprint is held against by itself: the board's rules for everything.
type Limits struct {
	Clearance int64 // between pads of different numbers
	Hole      int64 // least
	Ring      int64 // least around a plated hole
	Silk      int64 // width of lines that give none
	Mask      int64 // opening beyond a pad
}

// LimitsOf a project.
func LimitsOf(d *design.Doc) Limits {
	n := d.Numbers()
	return Limits{n[design.Clearance], n[design.LeastHole], n[design.LeastRing], n[design.SilkWidth], n[design.MaskMargin]}
}

// UsualLimits are those of a new project.
func UsualLimits() Limits {
	d := design.New("limits")
	return LimitsOf(d)
}

// CheckFootprint finds what is wrong with a footprint by itself. Cost: O(n log n) of pads and figures.
func CheckFootprint(f *design.Footprint, l Limits) []Flaw {
	c := &footprintCheck{f: f, l: l, out: []Flaw{}}
	if len(f.Pads) == 0 {
		c.say("empty", Warning, geom.Point{}, nil, "The footprint has no pads.")
		return c.out
	}
	c.numbers()
	c.pairs()
	for i := range f.Pads {
		c.hole(i)
	}
	c.silk()
	c.yard()
	c.mark()
	return c.out
}

type footprintCheck struct {
	f   *design.Footprint
	l   Limits
	out []Flaw
}

func (c *footprintCheck) say(kind, severity string, at geom.Point, pads []int, format string, args ...any) {
	c.out = append(c.out, Flaw{Kind: kind, Severity: severity, Text: fmt.Sprintf(format, args...), Pads: pads, X: at.X, Y: at.Y})
}

func (c *footprintCheck) ref(i int) int { return design.Ref(c.f.Pads[i].ID, i) }

// copper tells whether the pad is of copper: a hole without plating has none.
func copper(p *design.Pad) bool { return p.Hole == 0 || !p.Bare }

// numbers finds pads without one, those that repeat without touching, and gaps in a row of whole numbers.
func (c *footprintCheck) numbers() {
	by := map[string][]int{}
	whole, most := 0, 0
	for i := range c.f.Pads {
		p := &c.f.Pads[i]
		switch {
		case !copper(p):
		case p.Number == "":
			c.say("number", Warning, p.At, []int{c.ref(i)}, "A pad at %s, %s has no number.", units.Text(p.At.X), units.Text(p.At.Y))
		default:
			if n, err := strconv.Atoi(p.Number); err == nil && n > 0 && len(by[p.Number]) == 0 {
				whole++
				most = max(most, n)
			}
			by[p.Number] = append(by[p.Number], i)
		}
	}
	for _, n := range slices.Sorted(maps.Keys(by)) {
		list := by[n]
		if len(list) < 2 || c.f.BelongTogether(n, n+"\x00") || slices.ContainsFunc(c.f.Together, func(g []string) bool { return slices.Contains(g, n) }) || c.joined(list) {
			continue
		}
		refs := make([]int, len(list))
		for k, i := range list {
			refs[k] = c.ref(i)
		}
		c.say("number", Warning, c.f.Pads[list[1]].At, refs, "%d pads bear the number %s and do not touch; name them as belonging together if that is meant.", len(list), n)
	}
	// a footprint numbered 1, 2, 4 lacks one; one numbered by letters or with many left out on purpose does not
	if whole > 2 && most-whole <= max(whole/4, 1) {
		for n := 1; n < most; n++ {
			if len(by[strconv.Itoa(n)]) == 0 {
				c.say("number", Warning, geom.Point{}, nil, "There is no pad %d, though there are pads up to %d.", n, most)
			}
		}
	}
}

// joined tells whether pads of one number make one piece of copper.
func (c *footprintCheck) joined(list []int) bool {
	f := geom.NewForest(len(list))
	parts := len(list)
	for a := range list {
		for b := range a {
			if gap, _, _ := geom.Gap(layout.PadShape(&c.f.Pads[list[a]]), layout.PadShape(&c.f.Pads[list[b]])); gap <= 0 && f.Join(a, b) {
				parts--
			}
		}
	}
	return parts == 1
}

// pairs finds pads of different numbers that overlap, and says how near the nearest two are where that is nearer than the board's rule.
func (c *footprintCheck) pairs() {
	var tree rtree.RTreeG[int]
	shape := make([]geom.Shape, len(c.f.Pads))
	nearest := nearPair{gap: math.Inf(1)}
	for i := range c.f.Pads {
		p := &c.f.Pads[i]
		shape[i] = layout.PadShape(p)
		if !copper(p) {
			shape[i] = bore(p)
		}
		box := shape[i].Box().Grow(c.l.Clearance)
		tree.Search([2]float64{float64(box.Min.X), float64(box.Min.Y)}, [2]float64{float64(box.Max.X), float64(box.Max.Y)}, func(_, _ [2]float64, k int) bool {
			c.pair(k, i, shape, &nearest)
			return true
		})
		own := shape[i].Box()
		tree.Insert([2]float64{float64(own.Min.X), float64(own.Min.Y)}, [2]float64{float64(own.Max.X), float64(own.Max.Y)}, i)
	}
	if geom.Short(nearest.gap, c.l.Clearance) {
		c.say("near", Warning, nearest.at, []int{c.ref(nearest.a), c.ref(nearest.b)}, "%s and %s are %s apart; the board's rule is %s.",
			capital(c.called(nearest.a)), c.called(nearest.b), units.Text(geom.Measured(nearest.gap)), units.Text(c.l.Clearance))
	}
}

// nearPair are the two pads that come nearest to each other.
type nearPair struct {
	gap  float64
	a, b int
	at   geom.Point
}

func (c *footprintCheck) pair(a, b int, shape []geom.Shape, nearest *nearPair) {
	p, q := &c.f.Pads[a], &c.f.Pads[b]
	if copper(p) && copper(q) && (p.Hole == 0 && q.Hole == 0 && p.Far != q.Far || p.Number != "" && c.f.BelongTogether(p.Number, q.Number)) {
		return
	}
	gap, at, _ := geom.Gap(shape[a], shape[b])
	switch {
	case gap <= 0:
		c.say("overlap", Fault, at, []int{c.ref(a), c.ref(b)}, "%s and %s overlap.", capital(c.called(a)), c.called(b))
	case gap < nearest.gap:
		*nearest = nearPair{gap, a, b, at}
	}
}

func (c *footprintCheck) called(i int) string {
	p := &c.f.Pads[i]
	switch {
	case !copper(p):
		return fmt.Sprintf("the hole at %s, %s", units.Text(p.At.X), units.Text(p.At.Y))
	case p.Number == "":
		return fmt.Sprintf("a pad without a number at %s, %s", units.Text(p.At.X), units.Text(p.At.Y))
	}
	return "pad " + p.Number
}

// bore is a pad's hole at its place.
func bore(p *design.Pad) geom.Shape {
	t := p.Pose()
	at := t.Apply(p.HoleAt)
	if p.Slot == (geom.Point{}) {
		return geom.Disc(at, p.Hole/2)
	}
	return geom.Stroke(at, t.Apply(p.HoleAt.Add(p.Slot)), p.Hole)
}

// hole checks a pad's hole: its size, and the ring of copper around it.
func (c *footprintCheck) hole(i int) {
	p := &c.f.Pads[i]
	if p.Hole == 0 {
		return
	}
	refs := []int{c.ref(i)}
	if p.Hole < c.l.Hole {
		c.say("hole", Warning, p.At, refs, "The hole of %s is %s; the board's least is %s.", c.called(i), units.Text(p.Hole), units.Text(c.l.Hole))
	}
	if p.Bare {
		return
	}
	ring := Ring(p)
	switch {
	case ring <= 0:
		c.say("ring", Fault, p.At, refs, "The hole of %s breaks out of its copper.", c.called(i))
	case geom.Short(ring, c.l.Ring):
		c.say("ring", Warning, p.At, refs, "The ring around the hole of %s is %s; the board's least is %s.", c.called(i), units.Text(geom.Measured(ring)), units.Text(c.l.Ring))
	}
}

// Ring is the least copper around a pad's hole; less than nothing where the hole breaks out.
func Ring(p *design.Pad) float64 {
	pad := layout.PadShape(p)
	t := p.Pose()
	ends := []geom.Point{t.Apply(p.HoleAt), t.Apply(p.HoleAt.Add(p.Slot))}
	least := 1e18
	for _, end := range ends {
		if !pad.Holds(end) {
			return -1
		}
		least = min(least, inside(pad, end)-float64(p.Hole)/2)
	}
	return least
}

// inside is how far a place within a shape is from its border.
func inside(s geom.Shape, p geom.Point) float64 {
	if len(s.Pts) == 1 {
		return float64(s.R) - s.Pts[0].Dist(p)
	}
	least := 1e18
	for _, e := range s.Edges() {
		d, _, _ := geom.PieceDistance(geom.Straight(p, p), e)
		least = min(least, d)
	}
	if !s.Area { // within R of a line
		return float64(s.R) - least
	}
	if core := (geom.Shape{Pts: s.Pts, Mids: s.Mids, Area: true}); core.Holds(p) {
		return float64(s.R) + least
	}
	return float64(s.R) - least
}

// silk finds what would be printed on pads.
func (c *footprintCheck) silk() {
	for _, fig := range c.f.Silk {
		w := fig.Width
		if w == 0 {
			w = c.l.Silk
		}
		for _, ink := range inkOf(fig, w) {
			for i := range c.f.Pads {
				p := &c.f.Pads[i]
				if p.Far && p.Hole == 0 {
					continue
				}
				s := layout.PadShape(p)
				if !copper(p) {
					s = bore(p)
				}
				if !s.Box().Grow(c.l.Mask).Meets(ink.Box()) {
					continue
				}
				if gap, at, _ := geom.Gap(ink, s); gap < float64(c.l.Mask)-2 {
					c.say("silkOnPad", Warning, at, []int{c.ref(i)}, "Silk lies on %s or on its opening in the mask.", c.called(i))
					break
				}
			}
		}
	}
}

// inkOf are the shapes that a figure prints with a pen so wide.
func inkOf(fig design.Figure, w int64) []geom.Shape {
	var out []geom.Shape
	switch fig.Form {
	case "arc":
		return []geom.Shape{geom.Bow(geom.Piece{A: fig.Pts[0], M: fig.Pts[1], B: fig.Pts[2]}, w)}
	case "circle":
		c, r := fig.Pts[0], fig.R
		for _, s := range []int64{1, -1} {
			out = append(out, geom.Bow(geom.Piece{A: c.Add(geom.Pt(r, 0)), M: c.Add(geom.Pt(0, s*r)), B: c.Sub(geom.Pt(r, 0))}, w))
		}
		return out
	}
	pts := fig.Pts
	if fig.Form != "line" {
		pts = append(slices.Clone(pts), pts[0])
	}
	for i := 0; i+1 < len(pts); i++ {
		if pts[i] != pts[i+1] {
			out = append(out, geom.Stroke(pts[i], pts[i+1], w))
		}
	}
	return out
}

// yard checks that there is a courtyard and that it holds the pads.
func (c *footprintCheck) yard() {
	if len(c.f.Courtyard) < 3 {
		c.say("courtyard", Warning, geom.Point{}, nil, "There is no courtyard.")
		return
	}
	for i := range c.f.Pads {
		box := layout.PadShape(&c.f.Pads[i]).Box()
		for _, p := range []geom.Point{box.Min, box.Max, geom.Pt(box.Min.X, box.Max.Y), geom.Pt(box.Max.X, box.Min.Y)} {
			if !geom.InPolygon(p, c.f.Courtyard) && !onBorder(p, c.f.Courtyard) {
				c.say("courtyard", Warning, c.f.Pads[i].At, []int{c.ref(i)}, "%s reaches beyond the courtyard.", capital(c.called(i)))
				break
			}
		}
	}
}

func onBorder(p geom.Point, poly []geom.Point) bool {
	for i := range poly {
		if geom.OnSegment(p, poly[i], poly[(i+1)%len(poly)]) {
			return true
		}
	}
	return false
}

func capital(s string) string {
	if s == "" || s[0] < 'a' || s[0] > 'z' {
		return s
	}
	return string(s[0]-'a'+'A') + s[1:]
}

// mark finds out whether what is printed tells how the part is turned: of more than two pads, copper and silk together must not look
// the same when turned half or a quarter around the middle of the pads.
func (c *footprintCheck) mark() {
	numbers := map[string]bool{}
	var e geom.Extent
	for i := range c.f.Pads {
		if p := &c.f.Pads[i]; copper(p) && p.Number != "" {
			numbers[p.Number] = true
			e.AddBox(layout.PadShape(p).Box())
		}
	}
	if len(numbers) < 3 {
		return
	}
	mid := e.Box.Centre()
	for _, turn := range []int32{180_000, 90_000} {
		if c.same(mid, turn) {
			c.say("mark", Warning, c.f.Pads[0].At, []int{c.ref(0)}, "Nothing tells where pin 1 is: the footprint looks the same when it is turned by %d°.", turn/1000)
			return
		}
	}
}

// same tells whether pads and silk fall on themselves when turned about a place. Rounding may move them by so much.
func (c *footprintCheck) same(mid geom.Point, turn int32) bool {
	const slack = 5 * units.Micrometre
	about := func(p geom.Point) geom.Point { return geom.Turn(p.Sub(mid), turn).Add(mid) }
	near := func(a, b geom.Point) bool { return max(a.X-b.X, b.X-a.X, a.Y-b.Y, b.Y-a.Y) <= slack }
	type look struct {
		at   geom.Point
		what string
		box  geom.Point
	}
	var all []look
	add := func(what string, box geom.Box) {
		all = append(all, look{box.Centre(), what, box.Max.Sub(box.Min)})
	}
	for i := range c.f.Pads {
		p := &c.f.Pads[i]
		add("pad "+p.Form, layout.PadShape(p).Box())
		if p.Hole > 0 {
			add("hole", bore(p).Box())
		}
	}
	for _, fig := range c.f.Silk {
		for _, ink := range inkOf(fig, max(fig.Width, 1000)) {
			add("ink "+fig.Form, ink.Box())
		}
	}
	for _, a := range all {
		at := about(a.at)
		want := a.box
		if turn == 90_000 {
			want = geom.Pt(a.box.Y, a.box.X)
		}
		if !slices.ContainsFunc(all, func(b look) bool { return b.what == a.what && near(b.at, at) && near(b.box, want) }) {
			return false
		}
	}
	return true
}
