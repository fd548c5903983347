package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// PutFiducials puts three fiducials on a side, near three of the board's corners where nothing is in their way: dots of bare copper that an
// assembler's machine finds the board by. Those of the side that are not locked are put anew. Copper keeps off them as a rule says, which is
// given when there is none yet.
type PutFiducials struct {
	Bottom   bool  `json:"bottom,omitempty"`
	Diameter int64 `json:"diameter,omitempty"` // 0: 1 mm
	Opening  int64 `json:"opening,omitempty"`  // of the mask; 0: twice the diameter
}

// fiducials a side should have: three tell where it lies, how it is turned, and how it shrank.
const fiducials = 3

// Of the search for their places, in nanometres: as far apart as places are looked at, and how far from the corner at most.
const (
	fiducialStep = 500_000
	fiducialFar  = 25_000_000
)

// Apply the command.
func (c *PutFiducials) Apply(tx *Tx) error {
	size, opening := c.Diameter, c.Opening
	if size == 0 {
		size = units.MM
	}
	if opening == 0 {
		opening = 2 * size
	}
	board := tx.Doc.Board
	layer := board.Top()
	if c.Bottom {
		layer = board.Bottom()
	}
	switch {
	case len(board.Outline) == 0:
		return fmt.Errorf("the board has no outline yet, by whose corners fiducials stand")
	case board.Layers() == 1 && c.Bottom != board.OnlyBelow():
		return fmt.Errorf("the board has no copper on that side")
	}
	kept := 0
	for f := range tx.Doc.Figures.All() {
		if f.Fiducial > 0 && f.Layer == layer {
			if f.Locked {
				kept++
				continue
			}
			tx.Remove(f)
		}
	}
	field := tx.field()
	box := board.Region().Outer.Box()
	put := kept
	var taken []geom.Shape
	for _, corner := range [][2]int64{{box.Min.X, box.Min.Y}, {box.Max.X, box.Max.Y}, {box.Min.X, box.Max.Y}, {box.Max.X, box.Min.Y}} {
		if put >= fiducials {
			break
		}
		at, ok := fiducialPlace(tx.Doc, field.Index, layer, opening, geom.Pt(corner[0], corner[1]), taken)
		if !ok {
			continue
		}
		taken = append(taken, geom.Disc(at, opening/2))
		put++
		if err := tx.Put(&design.BoardFigure{ID: tx.Doc.NewID(), Name: "Fiducial", On: design.OnCopper, Layer: layer, Bottom: c.Bottom, Width: size,
			Fiducial: opening, Lines: [][]geom.Corner{{{Point: at}}}}); err != nil {
			return err
		}
	}
	if put < fiducials {
		return fmt.Errorf("at %d of the board's corners there is room for a fiducial with %s of bare board around it; a side needs %d", put,
			units.Text(opening), fiducials)
	}
	return tx.keepOffFiducials((opening - size) / 2)
}

// fiducialPlace is the place nearest to a corner with nothing in the way.
func fiducialPlace(d *design.Doc, x *layout.Index, layer design.LayerID, opening int64, corner geom.Point, taken []geom.Shape) (best geom.Point, ok bool) {
	least := 0.0
	for dx := -int64(fiducialFar); dx <= fiducialFar; dx += fiducialStep {
		for dy := -int64(fiducialFar); dy <= fiducialFar; dy += fiducialStep {
			at := corner.Add(geom.Pt(dx, dy))
			far := at.Dist(corner)
			if far > fiducialFar || ok && far >= least || !x.Edge().Holds(at) {
				continue
			}
			if free(d, x, layer, geom.Disc(at, opening/2), taken) {
				best, least, ok = at, far, true
			}
		}
	}
	return best, ok
}

// free tells whether nothing lies on a disc: no edge, copper, hole or part.
func free(d *design.Doc, x *layout.Index, layer design.LayerID, disc geom.Shape, taken []geom.Shape) bool {
	if gap, _, near := x.Edge().Gap(disc, units.MM); near && gap < float64(units.MM) {
		return false
	}
	meets := func(s geom.Shape) bool {
		gap, _, _ := geom.Gap(s, disc)
		return gap <= 0
	}
	for _, s := range taken {
		if meets(s) {
			return false
		}
	}
	position := d.Board.Position(layer)
	for c := range x.Near(disc.Box()) {
		if d.Figures[c.ID] != nil && d.Figures[c.ID].Fiducial > 0 && !d.Figures[c.ID].Locked {
			continue
		}
		if c.Hole > 0 && meets(c.Bore()) || c.Has(position) && meets(c.On(position)) {
			return false
		}
	}
	for h := range d.Holes.All() {
		if meets(geom.Disc(h.At, h.Room()+h.Keep)) {
			return false
		}
	}
	for a := range d.RuleAreas.All() {
		if len(a.KeepOut) > 0 && meets(geom.Within(a.Outline)) {
			return false
		}
	}
	for id := range x.Parts(disc.Box()) {
		p := d.Placed[id]
		if yard, ok := layout.Yard(d, p); ok && (p.Bottom == (layer == d.Board.Bottom() && d.Board.Layers() > 1)) && meets(yard) {
			return false
		}
	}
	return true
}

// keepOffFiducials gives the rule that copper keeps off fiducials, unless there is one.
func (tx *Tx) keepOffFiducials(apart int64) error {
	order := 0
	for r := range tx.Doc.Rules.All() {
		if r.Kind == design.Clearance && (r.A.Thing == design.AFiducial || r.B.Thing == design.AFiducial) {
			return nil
		}
		order = max(order, r.Order+1)
	}
	return tx.Put(&design.Rule{ID: tx.Doc.NewID(), Kind: design.Clearance, Order: order, A: design.Scope{Thing: design.AFiducial}, Value: design.Fixed(apart)})
}
