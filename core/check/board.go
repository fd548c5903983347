package check

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// Board holds the design-rule findings of a board and keeps them up to date.
type Board struct {
	doc     *design.Doc
	index   *layout.Index
	Found   map[string]*Finding
	owners  map[design.ID]map[string]bool
	added   map[string]bool
	dropped map[string]bool
	further int // places that break rules beyond those listed
}

// The findings that are listed, and those that are counted beyond them. A slip of the hand, such
// as a clearance of 20 mm instead of 0.2, breaks the rules at every place of a board: nobody
// reads on, and listing them would hold everybody up.
const (
	MostListed  = 3_000
	mostCounted = 100_000
)

// full tells whether no further finding is listed; it counts one more then.
func (b *Board) full() bool {
	if len(b.Found) < MostListed {
		return false
	}
	b.further++
	return true
}

// NewBoard checks the whole board against its rules.
func NewBoard(d *design.Doc, x *layout.Index) *Board {
	b := &Board{doc: d, index: x}
	b.All()
	return b
}

// All checks everything anew.
func (b *Board) All() {
	old := b.Found
	b.Found, b.owners = map[string]*Finding{}, map[design.ID]map[string]bool{}
	b.begin()
	b.further = 0
	for _, c := range slices.SortedFunc(b.index.All(), compare) { // so that the same ones are listed each time
		if b.further >= mostCounted {
			break
		}
		b.single(c)
		b.pairs(c, func(other *layout.Copper) bool { return less(c, other) })
	}
	b.outside(nil)
	b.outline()
	b.count()
	for k := range old {
		if b.Found[k] == nil {
			b.dropped[k] = true
		}
	}
}

// count makes the finding that stands for those that are not listed.
func (b *Board) count() {
	if b.further == 0 {
		return
	}
	text := fmt.Sprintf("%d further places break the board's rules; the first %d are listed.", b.further, MostListed)
	if b.further >= mostCounted {
		text = fmt.Sprintf("More than %d further places break the board's rules; the first %d are listed.", mostCounted, MostListed)
	}
	b.put(Finding{Key: "further", Kind: "further", Severity: Fault, Rule: "The board keeps its rules", Text: text, Objects: []design.ID{design.BoardID}})
}

func (b *Board) begin() { b.added, b.dropped = map[string]bool{}, map[string]bool{} }

// Changes since the last All or Update: keys of findings added or altered, and dropped.
func (b *Board) Changes() (added, dropped []string) {
	return slices.Sorted(maps.Keys(b.added)), slices.Sorted(maps.Keys(b.dropped))
}

// Update checks the objects anew, after the index took their change in. When the board
// itself changed (outline, rules), All is the way.
func (b *Board) Update(ids map[design.ID]bool) {
	if b.further > 0 { // what is not listed may come up now
		b.All()
		return
	}
	b.begin()
	for id := range ids {
		for key := range b.owners[id] {
			b.drop(key)
		}
	}
	for id := range ids {
		for _, c := range b.index.Of(id) {
			b.single(c)
			b.pairs(c, func(other *layout.Copper) bool { return !ids[other.ID] || less(c, other) })
		}
	}
	b.outside(ids)
	b.drop("noOutline")
	b.outline()
	b.count()
}

func compare(a, c *layout.Copper) int {
	return cmp.Or(cmp.Compare(a.ID, c.ID), cmp.Compare(a.Pad, c.Pad))
}

func less(a, c *layout.Copper) bool { return compare(a, c) < 0 }

func (b *Board) drop(key string) {
	f := b.Found[key]
	if f == nil {
		return
	}
	for _, id := range f.Objects {
		delete(b.owners[id], key)
	}
	delete(b.Found, key)
	delete(b.added, key)
	b.dropped[key] = true
}

// list adds a finding to those listed, or counts it.
func (b *Board) list(f Finding) {
	if b.Found[f.Key] != nil || !b.full() {
		b.put(f)
	}
}

func (b *Board) put(f Finding) {
	f.Stage = "board"
	b.Found[f.Key] = &f
	for _, id := range f.Objects {
		if b.owners[id] == nil {
			b.owners[id] = map[string]bool{}
		}
		b.owners[id][f.Key] = true
	}
	delete(b.dropped, f.Key)
	b.added[f.Key] = true
}

// named names a piece of copper with its net: "pad R1.2 (GND)".
func named(c *layout.Copper) string {
	if c.Net == "" {
		return c.Name
	}
	return fmt.Sprintf("%s (%s)", c.Name, c.Net)
}

// lowestLayer is the lowest copper layer in a mask.
func lowestLayer(mask uint32) *int {
	if mask == 0 {
		return nil
	}
	n := bits.TrailingZeros32(mask)
	return &n
}

func ref(c *layout.Copper) string {
	if c.Pad >= 0 {
		return fmt.Sprintf("%d.%d", c.ID, c.Pad)
	}
	return fmt.Sprint(c.ID)
}

// pairs checks one piece against those near it that want says.
func (b *Board) pairs(c *layout.Copper, want func(*layout.Copper) bool) {
	r := b.doc.Board.Rules
	reach := max(r.Clearance, r.EdgeClearance, r.HoleClearance)
	for o := range b.index.Near(c.Shape.Box().Grow(reach)) {
		if o == c || !want(o) || b.together(c, o) {
			continue
		}
		if b.further >= mostCounted {
			return
		}
		x, y := c, o
		if less(y, x) {
			x, y = y, x
		}
		b.holes(x, y, r)
		b.clearance(x, y, r)
	}
}

// together tells whether two pieces are pads of one part that its footprint lets meet.
func (b *Board) together(x, y *layout.Copper) bool {
	if x.ID != y.ID {
		return false
	}
	f := b.doc.Footprint(b.doc.Placed[x.ID].Footprint)
	return x.Hole == 0 && x.Number == y.Number || x.Number != y.Number && f.BelongTogether(x.Number, y.Number)
}

func (b *Board) holes(x, y *layout.Copper, r design.Rules) {
	if x.Hole == 0 || y.Hole == 0 || x.Layers&y.Layers == 0 {
		return
	}
	gap, p, q := geom.Gap(geom.Disc(x.At, x.Hole/2), geom.Disc(y.At, y.Hole/2))
	if m := geom.Measured(gap); geom.Short(gap, r.HoleClearance) && !b.full() {
		b.list(Finding{Key: "holes " + ref(x) + " " + ref(y), Kind: "holes", Severity: Fault, Rule: "Clearance between holes",
			Text: fmt.Sprintf("The holes of %s and %s are %s apart.", named(x), named(y), units.Text(max(m, 0))), Measured: max(m, 0), Required: r.HoleClearance,
			At: p.Towards(q, 0.5), Objects: []design.ID{x.ID, y.ID}})
	}
}

func (b *Board) clearance(x, y *layout.Copper, r design.Rules) {
	if x.Bare && y.Bare || x.Net == y.Net && (x.Net != "" || x.ID == y.ID && x.Number == y.Number) || x.Layers&y.Layers == 0 {
		return
	}
	need, rule, kind := r.Clearance, "Clearance", "clearance"
	if x.Bare || y.Bare {
		need, rule, kind = r.EdgeClearance, "Clearance to the edge", "holeEdge"
	}
	gap, p, q := geom.Gap(x.Shape, y.Shape)
	if !geom.Short(gap, need) || b.full() {
		return
	}
	m := geom.Measured(gap)
	f := Finding{Key: kind + " " + ref(x) + " " + ref(y), Kind: kind, Severity: Fault, Rule: rule, Measured: m, Required: need,
		At: p.Towards(q, 0.5), Layer: lowestLayer(x.Layers & y.Layers), Objects: []design.ID{x.ID, y.ID}}
	if m <= 0 {
		f.Text = fmt.Sprintf("%s and %s touch.", capital(named(x)), named(y))
		f.Measured = 0
	} else {
		f.Text = fmt.Sprintf("%s and %s are %s apart.", capital(named(x)), named(y), units.Text(m))
	}
	b.list(f)
}

func capital(s string) string {
	if s != "" && s[0] >= 'a' && s[0] <= 'z' {
		return string(s[0]-32) + s[1:]
	}
	return s
}

// single checks a piece by itself and against the edge.
func (b *Board) single(c *layout.Copper) {
	r := b.doc.Board.Rules
	one := []design.ID{c.ID}
	if c.Kind == "track" {
		if w := 2 * c.Shape.R; geom.Short(float64(w), r.LeastWidth) {
			b.list(Finding{Key: "width " + ref(c), Kind: "width", Severity: Fault, Rule: "Least track width", Measured: w, Required: r.LeastWidth,
				Text: fmt.Sprintf("A %s is %s wide.", named(c), units.Text(w)), At: c.Shape.Pts[0].Towards(c.Shape.Pts[1], 0.5), Layer: lowestLayer(c.Layers), Objects: one})
		}
	}
	if c.Hole > 0 && geom.Short(float64(c.Hole), r.LeastHole) {
		b.list(Finding{Key: "hole " + ref(c), Kind: "hole", Severity: Fault, Rule: "Least hole", Measured: c.Hole, Required: r.LeastHole,
			Text: fmt.Sprintf("The hole of %s is %s wide.", named(c), units.Text(c.Hole)), At: c.At, Objects: one})
	}
	if c.Hole > 0 && !c.Bare {
		if width := ring(c); geom.Short(width, r.LeastRing) {
			ring := geom.Measured(width)
			b.list(Finding{Key: "ring " + ref(c), Kind: "ring", Severity: Fault, Rule: "Least ring", Measured: ring, Required: r.LeastRing,
				Text: fmt.Sprintf("The copper ring around the hole of %s is %s.", named(c), units.Text(ring)), At: c.At, Objects: one})
		}
	}
	if b.outsideParts(c) {
		return
	}
	if o := route.EdgeGap(b.doc.Board.Outline, c.Shape); o != nil && geom.Short(float64(o.Measured), r.EdgeClearance) {
		text := fmt.Sprintf("%s is %s from the board's edge.", capital(named(c)), units.Text(o.Measured))
		if o.Measured < 0 {
			text = fmt.Sprintf("%s reaches beyond the board's edge.", capital(named(c)))
		}
		b.list(Finding{Key: "edge " + ref(c), Kind: "edge", Severity: Fault, Rule: "Clearance to the edge", Measured: max(o.Measured, 0), Required: r.EdgeClearance,
			Text: text, At: o.At, Layer: lowestLayer(c.Layers), Objects: one})
	}
}

// ring is the least copper around a piece's hole, below zero where the hole breaks out.
func ring(c *layout.Copper) float64 {
	hole := float64(c.Hole) / 2
	core := c.Shape
	core.R = 0
	if !core.Area {
		gap, _, _ := geom.Gap(core, geom.Disc(c.At, 0))
		return float64(c.Shape.R) - gap - hole
	}
	least := math.Inf(1)
	for i, p := range core.Pts {
		d, _, _ := geom.SegmentDistance(c.At, c.At, p, core.Pts[(i+1)%len(core.Pts)])
		least = min(least, d)
	}
	if !geom.InPolygon(c.At, core.Pts) {
		least = -least
	}
	return least + float64(c.Shape.R) - hole
}

// outsideParts tells whether the piece belongs to a part that stands wholly outside the
// outline, which is a finding of its own.
func (b *Board) outsideParts(c *layout.Copper) bool {
	p := b.doc.Placed[c.ID]
	return p != nil && b.isOutside(p)
}

func (b *Board) isOutside(p *design.Placed) bool {
	f := b.doc.Footprint(p.Footprint)
	if f == nil || len(b.doc.Board.Outline) < 3 {
		return false
	}
	yard := layout.Courtyard(f, p.Pose())
	for _, q := range yard {
		if geom.InPolygon(q, b.doc.Board.Outline) {
			return false
		}
	}
	for _, q := range b.doc.Board.Outline {
		if geom.InPolygon(q, yard) {
			return false
		}
	}
	return !geom.InPolygon(p.At, b.doc.Board.Outline)
}

// outside lists parts that stand beside the outline: all, or those among ids.
func (b *Board) outside(ids map[design.ID]bool) {
	look := func(p *design.Placed) {
		if b.isOutside(p) {
			b.list(Finding{Key: fmt.Sprintf("outside %d", p.ID), Kind: "outside", Severity: ToDo, Rule: "Parts lie on the board",
				Text: fmt.Sprintf("%s is still beside the board.", p.Designator), At: p.At, Objects: []design.ID{p.ID}})
		}
	}
	if ids == nil {
		for p := range b.doc.Placed.All() {
			look(p)
		}
		return
	}
	for id := range ids {
		if p := b.doc.Placed[id]; p != nil {
			look(p)
		}
	}
}

func (b *Board) outline() {
	if len(b.doc.Board.Outline) == 0 && len(b.doc.Placed) > 0 {
		b.list(Finding{Key: "noOutline", Kind: "noOutline", Severity: ToDo, Rule: "A board has an outline",
			Text: "The board has no outline yet.", Objects: []design.ID{design.BoardID}})
	}
}
