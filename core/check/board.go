package check

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
)

// Board holds the design-rule findings of a board and keeps them up to date.
type Board struct {
	doc     *design.Doc
	index   *layout.Index
	rules   *rules.Set
	faces   *surface.Index
	widest  int64                               // how far a part's body reaches beyond its courtyard, at most
	solids  map[*design.Footprint][]layout.Body // in their own frames
	Found   map[string]*Finding
	owners  map[design.ID]map[string]bool
	added   map[string]bool
	dropped map[string]bool
	further int   // places that break rules beyond those listed
	changed kinds // of rules, since the findings were brought up to date
	noting  noting
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
func NewBoard(d *design.Doc, x *layout.Index, r *rules.Set) *Board {
	b := &Board{doc: d, index: x, rules: r}
	b.All()
	return b
}

// Unchecked is a board of which nothing was checked yet: what another check of it finds is to be adopted first.
func Unchecked(d *design.Doc, x *layout.Index, r *rules.Set) *Board {
	b := &Board{doc: d, index: x, rules: r, Found: map[string]*Finding{}, owners: map[design.ID]map[string]bool{}}
	b.begin()
	return b
}

// All checks everything anew.
func (b *Board) All() { _ = b.survey(context.Background(), nil) }

// Survey checks a whole board. It may be stopped; progress, which may be nil, is told the share done.
func Survey(ctx context.Context, d *design.Doc, x *layout.Index, r *rules.Set, progress func(float64)) (*Board, error) {
	b := &Board{doc: d, index: x, rules: r}
	return b, b.survey(ctx, progress)
}

// Adopt takes over what another check of the same board found.
func (b *Board) Adopt(other *Board) {
	old := b.Found
	b.begin()
	b.Found, b.owners, b.further, b.noting = other.Found, other.owners, other.further, other.noting
	b.faces, b.widest = other.faces, other.widest
	b.faces.Board = surface.Board{Doc: b.doc, Index: b.index, Rules: b.rules}
	for k := range b.Found {
		b.added[k] = true
	}
	b.lost(old)
}

// lost notes which of the earlier findings are gone.
func (b *Board) lost(old map[string]*Finding) {
	for k := range old {
		if b.Found[k] == nil {
			b.dropped[k] = true
		}
	}
}

func (b *Board) survey(ctx context.Context, progress func(float64)) error {
	old := b.Found
	b.Found, b.owners = map[string]*Finding{}, map[design.ID]map[string]bool{}
	b.begin()
	b.further, b.changed = 0, nil
	b.faces = surface.NewIndex(b.doc, b.index, b.rules)
	b.widen(nil)
	all := slices.SortedFunc(b.index.All(), compare) // so that the same ones are listed each time
	for i, c := range all {
		if b.further >= mostCounted {
			break
		}
		if i%1024 == 0 {
			if ctx.Err() != nil {
				return ctx.Err()
			}
			if progress != nil {
				progress(float64(i) / float64(len(all)))
			}
		}
		b.single(c, nil)
		b.pairs(c, nil, func(other *layout.Copper) bool { return less(c, other) })
	}
	b.ofFaces(nil, nil)
	b.bodies(nil, nil)
	b.outside(nil)
	b.partsKeptOut(nil)
	b.spacing(nil)
	b.notes(nil)
	b.outline()
	b.stack()
	b.count()
	b.lost(old)
	return nil
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

// Update checks the objects anew, after the index took their change in, and what rules that changed ask
// for. When the board itself changed (outline, layers), All is the way. It tells whether there was
// anything to do.
func (b *Board) Update(ids map[design.ID]bool) bool {
	if len(ids) == 0 && len(b.changed) == 0 {
		return false
	}
	if b.further > 0 { // what is not listed may come up now
		b.All()
		return true
	}
	b.begin()
	for id := range ids {
		b.faces.Renew(id)
	}
	b.widen(ids)
	b.again(ids)
	piles := b.piles(ids)
	for id := range ids {
		for key := range b.owners[id] {
			b.drop(key)
		}
	}
	for id := range ids {
		for _, c := range b.index.Of(id) {
			b.single(c, nil)
			b.pairs(c, nil, func(other *layout.Copper) bool { return !ids[other.ID] || less(c, other) })
		}
	}
	for _, id := range piles {
		if v := b.doc.Vias[id]; v != nil && !ids[id] {
			b.stacked(b.index.Of(id)[0], v)
		}
	}
	if len(ids) > 0 {
		b.ofFaces(ids, nil)
		b.bodies(ids, nil)
		b.outside(ids)
		b.partsKeptOut(ids)
		b.spacing(ids)
		b.notes(ids)
		b.drop("noOutline")
		b.outline()
	}
	b.count()
	return true
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
//
// Of a text or figure that consists of several pieces the worst place stands for all of them.
func (b *Board) list(f Finding) {
	if old := b.Found[f.Key]; old != nil && b.added[f.Key] && !worse(&f, old) {
		return
	}
	if b.Found[f.Key] != nil || !b.full() {
		b.put(f)
	}
}

// worse tells whether a finding falls shorter of what is asked for than another of the same key.
func worse(f, old *Finding) bool {
	return cmp.Or(cmp.Compare(f.Measured-f.Required, old.Measured-old.Required), cmp.Compare(f.At.X, old.At.X), cmp.Compare(f.At.Y, old.At.Y),
		slices.CompareFunc(f.Ends, old.Ends, geom.Point.Compare), cmp.Compare(f.Layer, old.Layer)) < 0
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
func (b *Board) named(c *layout.Copper) string {
	if c.Net == 0 {
		return c.Name
	}
	return fmt.Sprintf("%s (%s)", c.Name, b.doc.NetName(c.Net))
}

// uppermost is the first copper layer of a mask.
func (b *Board) uppermost(mask uint32) design.LayerID {
	if mask == 0 {
		return 0
	}
	return b.doc.Board.At(bits.TrailingZeros32(mask))
}

func ref(c *layout.Copper) string {
	if c.Pad >= 0 {
		return fmt.Sprintf("%d.%d", c.ID, c.Pad)
	}
	return fmt.Sprint(c.ID)
}

func capital(s string) string {
	if s != "" && s[0] >= 'a' && s[0] <= 'z' {
		return string(s[0]-32) + s[1:]
	}
	return s
}

// outsideParts tells whether the piece belongs to a part that stands wholly outside the
// outline, which is a finding of its own.
func (b *Board) outsideParts(c *layout.Copper) bool {
	p := b.doc.Placed[c.ID]
	return p != nil && b.isOutside(p)
}

func (b *Board) isOutside(p *design.Placed) bool {
	f := b.doc.Footprint(p.Footprint)
	edge := b.index.Edge()
	if f == nil || !edge.Drawn() {
		return false
	}
	yard := layout.Courtyard(f, p.Pose())
	if slices.ContainsFunc(yard, edge.Holds) {
		return false
	}
	for _, q := range b.doc.Board.Outline {
		if geom.InPolygon(q.Point, yard) {
			return false
		}
	}
	return !edge.Holds(p.At)
}

// outside lists parts that stand beside the outline: all, or those among ids.
func (b *Board) outside(ids map[design.ID]bool) {
	look := func(p *design.Placed) {
		if b.isOutside(p) {
			b.list(Finding{Key: fmt.Sprintf("outside %d", p.ID), Kind: "outside", Severity: ToDo, Rule: "Parts lie on the board",
				Text: fmt.Sprintf("%s is still beside the board.", p.Designator), At: p.At, Objects: []design.ID{p.ID}})
		}
	}
	b.eachPart(ids, look)
}

// eachPart looks at all parts, or at those among ids.
func (b *Board) eachPart(ids map[design.ID]bool, look func(*design.Placed)) {
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
