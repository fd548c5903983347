package edit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Ways to line things up on the board: by the sides or the middles of their courtyards, the first of them staying; or spread so that the gaps
// between them are alike, the outermost staying; or one after the other with a gap that is given, the first staying.
const (
	AlignLeft   = "left"
	AlignRight  = "right"
	AlignTop    = "top"
	AlignBottom = "bottom"
	AlignColumn = "column" // middles above each other
	AlignRow    = "row"    // middles beside each other
	SpreadX     = "across"
	SpreadY     = "down"
	PackX       = "packAcross"
	PackY       = "packDown"
)

// LineUpWays lists them.
var LineUpWays = []string{AlignLeft, AlignRight, AlignTop, AlignBottom, AlignColumn, AlignRow, SpreadX, SpreadY, PackX, PackY}

// LineUp lines parts, holes and texts of the board up, or spreads them.
type LineUp struct {
	IDs []design.ID `json:"ids"`
	How string      `json:"how"`
	Gap int64       `json:"gap,omitempty"` // between courtyards, of PackX and PackY
	Following
}

// lined is a thing that is lined up, and its room.
type lined struct {
	id  design.ID
	box geom.Box
}

// Apply the command.
func (c *LineUp) Apply(tx *Tx) error {
	if !slices.Contains(LineUpWays, c.How) {
		return fmt.Errorf("%q is not a way to line things up", c.How)
	}
	if c.Gap < 0 || c.Gap > units.Limit {
		return fmt.Errorf("a gap is 0 to %s", units.Text(units.Limit))
	}
	var list []lined
	seen := map[design.ID]bool{}
	for _, id := range c.IDs {
		if box, ok := layout.RoomOf(tx.Doc, id); ok && !seen[id] {
			seen[id] = true
			list = append(list, lined{id, box})
		}
	}
	least := 2
	if c.How == SpreadX || c.How == SpreadY {
		least = 3
	}
	if len(list) < least {
		return fmt.Errorf("pick at least %d parts to line them up or spread them", least)
	}
	steps := c.steps(list)
	still := true
	for _, it := range list {
		step := steps[it.id]
		if step == (geom.Point{}) {
			continue
		}
		still = false
		if err := (&MovePlaced{IDs: []design.ID{it.id}, Step: step}).Apply(tx); err != nil {
			return err
		}
	}
	if still {
		return fmt.Errorf("they stand so already")
	}
	return c.follow(tx)
}

// steps are the ways by which the things go.
func (c *LineUp) steps(list []lined) map[design.ID]geom.Point {
	out := map[design.ID]geom.Point{}
	across := c.How == SpreadX || c.How == PackX
	first := list[0].box
	put := func(it lined, v int64) {
		if across {
			out[it.id] = geom.Pt(v-it.box.Min.X, 0)
		} else {
			out[it.id] = geom.Pt(0, v-it.box.Min.Y)
		}
	}
	span := func(b geom.Box) (from, to int64) {
		if across {
			return b.Min.X, b.Max.X
		}
		return b.Min.Y, b.Max.Y
	}
	for _, it := range list {
		b := it.box
		switch c.How {
		case AlignLeft:
			out[it.id] = geom.Pt(first.Min.X-b.Min.X, 0)
		case AlignRight:
			out[it.id] = geom.Pt(first.Max.X-b.Max.X, 0)
		case AlignTop:
			out[it.id] = geom.Pt(0, first.Max.Y-b.Max.Y)
		case AlignBottom:
			out[it.id] = geom.Pt(0, first.Min.Y-b.Min.Y)
		case AlignColumn:
			out[it.id] = geom.Pt(first.Centre().X-b.Centre().X, 0)
		case AlignRow:
			out[it.id] = geom.Pt(0, first.Centre().Y-b.Centre().Y)
		}
	}
	switch c.How {
	case SpreadX, SpreadY:
		order := slices.Clone(list)
		slices.SortStableFunc(order, func(a, b lined) int {
			x, _ := span(a.box)
			y, _ := span(b.box)
			return cmp.Compare(x, y)
		})
		from, at := span(order[0].box)
		_, to := span(order[len(order)-1].box)
		room := to - from
		for _, it := range order {
			lo, hi := span(it.box)
			room -= hi - lo
		}
		n := int64(len(order) - 1)
		taken := int64(0)
		for i, it := range order[1 : len(order)-1] {
			put(it, at+room*int64(i+1)/n+taken)
			lo, hi := span(it.box)
			taken += hi - lo
		}
	case PackX:
		at := first.Max.X
		for _, it := range list[1:] {
			put(it, at+c.Gap)
			at += c.Gap + it.box.Max.X - it.box.Min.X
		}
	case PackY: // downwards
		at := first.Min.Y
		for _, it := range list[1:] {
			at -= c.Gap + it.box.Max.Y - it.box.Min.Y
			put(it, at)
		}
	}
	return out
}

// SwapPlaced lets two parts change places: each takes the other's place, angle and side.
type SwapPlaced struct {
	A design.ID `json:"a"`
	B design.ID `json:"b"`
	Following
}

// Apply the command.
func (c *SwapPlaced) Apply(tx *Tx) error {
	a, err := get(tx.Doc.Placed, c.A, "part")
	if err != nil {
		return err
	}
	b, err := get(tx.Doc.Placed, c.B, "part")
	if err != nil {
		return err
	}
	if a == b {
		return fmt.Errorf("two parts are needed to change places")
	}
	for _, p := range []*design.Placed{a, b} {
		if p.Locked {
			return fmt.Errorf("%s is locked; unlock it first", p.Designator)
		}
	}
	p, q := *a, *b
	p.At, p.Angle, p.Bottom = b.At, b.Angle, b.Bottom
	q.At, q.Angle, q.Bottom = a.At, a.Angle, a.Bottom
	if err := tx.Put(&p); err != nil {
		return err
	}
	if err := tx.Put(&q); err != nil {
		return err
	}
	return c.follow(tx)
}

// SetLabel moves a part's designator on the board; without a place it is back where the footprint has it.
type SetLabel struct {
	ID design.ID   `json:"id"`
	At *geom.Point `json:"at,omitempty"` // middle, on the board
}

// Apply the command.
func (c *SetLabel) Apply(tx *Tx) error {
	p, err := get(tx.Doc.Placed, c.ID, "part")
	if err != nil {
		return err
	}
	q := *p
	q.Label = nil
	if c.At != nil {
		if max(c.At.X, -c.At.X, c.At.Y, -c.At.Y) > units.Limit {
			return fmt.Errorf("that lies beyond what a board can reach")
		}
		at := p.Pose().Undo(*c.At)
		q.Label = &at
	}
	return tx.Put(&q)
}

// OrderLabels puts designators in order around their parts, so that none lies on a pad, a hole or another text; none named: all.
type OrderLabels struct {
	IDs []design.ID `json:"ids,omitempty"`
}

// Apply the command.
func (c *OrderLabels) Apply(tx *Tx) error {
	places := layout.OrderLabels(tx.Doc, c.IDs)
	changed := false
	for p := range tx.Doc.Placed.All() {
		at, ok := places[p.ID]
		if !ok || p.Label != nil && *p.Label == at {
			continue
		}
		q := *p
		q.Label = &at
		changed = true
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	if !changed {
		return fmt.Errorf("the texts stand in order already")
	}
	return nil
}
