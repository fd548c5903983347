package layout

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Newcomer is a part that comes to the board, and the group that it comes with.
type Newcomer struct {
	Footprint *design.Footprint
	Group     Group
}

// Group is what parts of the circuit belong together in: the smallest cluster around them, else a use of a sheet.
type Group struct {
	Path    string
	Sheet   design.ID
	Cluster design.ID // 0: in none
}

// GroupOf a part in a use of its sheet. Cost: that of the clusters of the project.
func GroupOf(d *design.Doc, ref circuit.PartRef) Group {
	p := d.Parts[ref.Part]
	if p == nil {
		return Group{}
	}
	g := Group{Path: ref.Path, Sheet: p.Sheet}
	least := math.Inf(1)
	for c := range d.Clusters.All() {
		b := c.Box()
		if area := float64(b.Max.X-b.Min.X) * float64(b.Max.Y-b.Min.Y); c.Sheet == p.Sheet && b.Holds(p.At) && area < least {
			least, g.Cluster = area, c.ID
		}
	}
	return g
}

// between parts that arrive, and between groups of them.
const (
	partGap  = 2 * units.MM
	groupGap = 5 * units.MM
)

// Arrive finds places beside the outline for new parts: to the right of all that is there, those of a group together, in columns from
// the top, on the
// 1.27 mm grid, none over another.
func Arrive(d *design.Doc, list []Newcomer) []geom.Point {
	here := standing(d)
	tall := max(here.Max.Y-here.Min.Y, 40*units.MM)
	from := geom.Pt(here.Max.X+5*units.MM, here.Max.Y)
	boxes := make([]geom.Box, len(list))
	var order []Group
	members := map[Group][]int{}
	for i, n := range list {
		boxes[i] = geom.BoxOf(Courtyard(n.Footprint, geom.Pose{})...)
		if members[n.Group] == nil {
			order = append(order, n.Group)
		}
		members[n.Group] = append(members[n.Group], i)
	}
	out := make([]geom.Point, len(list))
	var blocks []geom.Point
	within := make([]geom.Point, len(list)) // upper left corner as seen from its block's
	for _, g := range order {
		sizes := make([]geom.Point, len(members[g]))
		area := 0.0
		for k, i := range members[g] {
			sizes[k] = boxes[i].Max.Sub(boxes[i].Min)
			area += float64(sizes[k].X+partGap) * float64(sizes[k].Y+partGap)
		}
		own := tall
		if len(order) > 1 { // about as wide as tall
			own = min(int64(math.Sqrt(area)*1.1), tall)
		}
		at, size := columns(sizes, own, partGap)
		for k, i := range members[g] {
			within[i] = at[k]
		}
		blocks = append(blocks, size)
	}
	corners, _ := columns(blocks, tall, groupGap)
	for b, g := range order {
		for _, i := range members[g] {
			corner := from.Add(corners[b]).Add(within[i])
			out[i] = geom.Snap(geom.Pt(corner.X-boxes[i].Min.X, corner.Y-boxes[i].Max.Y), 1_270_000)
		}
	}
	return out
}

// standing is the room of all that is on the board or beside it. Where no outline is drawn, one will most likely be drawn from the
// origin on.
func standing(d *design.Doc) geom.Box {
	var all geom.Extent
	all.AddRing(d.Board.Outline)
	for p := range d.Placed.All() {
		if f := d.Footprint(p.Footprint); f != nil {
			all.Add(Courtyard(f, p.Pose())...)
		}
	}
	if len(d.Board.Outline) == 0 {
		all.Add(geom.Pt(0, 0), geom.Pt(100*units.MM, 80*units.MM))
	}
	return all.Box
}

// columns lays boxes out in columns from the top, the widest first so that columns are even; at are their upper left corners as seen from
// that of all, size is that of all.
func columns(sizes []geom.Point, tall, gap int64) (at []geom.Point, size geom.Point) {
	order := make([]int, len(sizes))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(sizes[b].X, sizes[a].X) })
	at = make([]geom.Point, len(sizes))
	x, y, widest := int64(0), int64(0), int64(0)
	for _, i := range order {
		s := sizes[i]
		if s.Y-y > tall && widest > 0 {
			x, y, widest = x+widest+gap, 0, 0
		}
		at[i] = geom.Pt(x, y)
		size.X, size.Y = max(size.X, x+s.X), max(size.Y, s.Y-y)
		y -= s.Y + gap
		widest = max(widest, s.X)
	}
	return at, size
}
