package edit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Forms that an edge is drawn in.
const (
	EdgeRectangle = "rectangle" // from A to B, its corners rounded by R
	EdgeCircle    = "circle"    // about A through B
	EdgeSlot      = "slot"      // from A to B, round ends of the radius R
	EdgeFree      = "free"      // through the corners
)

// EdgeForms lists them.
var EdgeForms = []string{EdgeRectangle, EdgeCircle, EdgeSlot, EdgeFree}

// DrawEdge draws the board's outline in place of the one there is, or something that is cut out of it. Lengths are nanometres.
type DrawEdge struct {
	Form    string        `json:"form"`
	A       geom.Point    `json:"a"`
	B       geom.Point    `json:"b"`
	R       int64         `json:"r,omitempty"`
	Corners []geom.Corner `json:"corners,omitempty"`
	Cut     bool          `json:"cut,omitempty"`
}

// Line is what is drawn.
func (c *DrawEdge) Line() ([]geom.Corner, error) {
	if d := c.B.Sub(c.A); max(d.X, -d.X, d.Y, -d.Y, c.R, -c.R) > units.Limit {
		return nil, fmt.Errorf("an edge up to %s can be drawn", units.Text(units.Limit))
	}
	box := geom.BoxOf(c.A, c.B)
	switch c.Form {
	case EdgeRectangle:
		if box.Min.X == box.Max.X || box.Min.Y == box.Max.Y {
			return nil, fmt.Errorf("a rectangle has a width and a height")
		}
		return geom.Rectangle(box, c.R), nil
	case EdgeCircle:
		if c.A == c.B {
			return nil, fmt.Errorf("a circle has a radius")
		}
		return geom.CircleLine(c.A, int64(c.A.Dist(c.B)+0.5)), nil
	case EdgeSlot:
		if c.R <= 0 {
			return nil, fmt.Errorf("a slot has a width")
		}
		return geom.SlotLine(c.A, c.B, 2*c.R), nil
	case EdgeFree:
		return c.Corners, nil
	}
	return nil, fmt.Errorf("%q is not a form of an edge", c.Form)
}

// Apply the command.
func (c *DrawEdge) Apply(tx *Tx) error {
	line, err := c.Line()
	if err != nil {
		return err
	}
	b := *tx.Doc.Board
	if c.Cut {
		b.CutOuts = append(slices.Clone(b.CutOuts), line)
	} else {
		b.Outline = line
	}
	return tx.Put(&b)
}

// SizeEdge makes the board so wide and so high; 0: as it is. What the outline is stays: corners keep their rounding, a circle becomes another one.
// A board without an outline gets a rectangle from the origin. Cut-outs, parts and tracks stay where they are.
type SizeEdge struct {
	Width  int64 `json:"width,omitempty"`
	Height int64 `json:"height,omitempty"`
}

// Apply the command.
func (c *SizeEdge) Apply(tx *Tx) error {
	if min(c.Width, c.Height) < 0 || max(c.Width, c.Height) > units.Limit {
		return fmt.Errorf("a board is up to %s wide and high", units.Text(units.Limit))
	}
	b := *tx.Doc.Board
	if len(b.Outline) == 0 {
		size := geom.Pt(cmp.Or(c.Width, c.Height), cmp.Or(c.Height, c.Width))
		if size.X == 0 {
			return fmt.Errorf("a board has a width and a height")
		}
		b.Outline = geom.Rectangle(geom.BoxOf(geom.Point{}, size), 0)
		return tx.Put(&b)
	}
	line, err := geom.SizeLine(b.Outline, c.Width, c.Height)
	if err != nil {
		return err
	}
	if geom.SameCorners(line, b.Outline) {
		return nil
	}
	b.Outline = line
	return tx.Put(&b)
}

// Ways to shape an edge.
const (
	MoveCorner = "move"     // the corner to To
	AddCorner  = "add"      // a corner at To on its side
	DropCorner = "drop"     // the corner
	Round      = "round"    // the corner by the radius Size
	Bevel      = "bevel"    // the corner, Size along both sides
	RoundAll   = "roundAll" // every corner between straight sides by the radius Size
	Bend       = "bend"     // its side to an arc through To
	Radius     = "radius"   // its side to an arc of the radius Size; 0: straight
	Length     = "length"   // its side to the length Size
	MoveAll    = "moveAll"  // the whole line by To
)

// EdgeActs lists them.
var EdgeActs = []string{MoveCorner, AddCorner, DropCorner, Round, Bevel, RoundAll, Bend, Radius, Length, MoveAll}

// ShapeEdge changes the board's outline (line 0) or one of its cut-outs (from 1) at a corner, or at the side from that corner to the next.
type ShapeEdge struct {
	Line   int        `json:"line"`
	Corner int        `json:"corner"`
	Act    string     `json:"act"`
	To     geom.Point `json:"to"`
	Size   int64      `json:"size,omitempty"`
}

// Apply the command.
func (c *ShapeEdge) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	line, err := edgeLine(&b, c.Line)
	if err != nil {
		return err
	}
	if c.Corner < 0 || c.Corner >= len(line) {
		return fmt.Errorf("the line has %d corners; there is none %d", len(line), c.Corner+1)
	}
	if max(c.To.X, -c.To.X, c.To.Y, -c.To.Y, c.Size) > 2*units.Limit {
		return fmt.Errorf("that lies beyond what a board can reach")
	}
	if line, err = c.shaped(line); err != nil {
		return err
	}
	if c.Line == 0 {
		b.Outline = line
	} else {
		b.CutOuts = slices.Clone(b.CutOuts)
		b.CutOuts[c.Line-1] = line
	}
	return tx.Put(&b)
}

func edgeLine(b *design.Board, n int) ([]geom.Corner, error) {
	switch {
	case n == 0 && len(b.Outline) > 0:
		return b.Outline, nil
	case n > 0 && n <= len(b.CutOuts):
		return b.CutOuts[n-1], nil
	}
	return nil, fmt.Errorf("the board has no such edge any more")
}

func (c *ShapeEdge) shaped(line []geom.Corner) ([]geom.Corner, error) {
	switch c.Act {
	case MoveCorner:
		return geom.MoveCorner(line, c.Corner, c.To), nil
	case AddCorner:
		return geom.SplitSide(line, c.Corner, c.To), nil
	case DropCorner:
		return geom.DropCorner(line, c.Corner)
	case Round:
		return geom.RoundCorner(line, c.Corner, c.Size)
	case Bevel:
		return geom.BevelCorner(line, c.Corner, c.Size)
	case RoundAll:
		return roundAll(line, c.Size)
	case Bend:
		return geom.BendSide(line, c.Corner, c.To), nil
	case Radius:
		return geom.BendRadius(line, c.Corner, c.Size)
	case Length:
		return geom.SetSide(line, c.Corner, c.Size)
	case MoveAll:
		return geom.Pose{At: c.To}.ApplyCorners(line), nil
	}
	return nil, fmt.Errorf("%q is not a way to shape an edge", c.Act)
}

// roundAll rounds every corner between two straight sides.
func roundAll(line []geom.Corner, r int64) ([]geom.Corner, error) {
	n := len(line)
	out, done := line, 0
	for i := n - 1; i >= 0; i-- {
		if line[i].Mid != nil || line[(i+n-1)%n].Mid != nil {
			continue
		}
		next, err := geom.RoundCorner(out, i, r)
		if err != nil {
			return nil, fmt.Errorf("corner %d cannot be rounded by %s: %w", i+1, units.Text(r), err)
		}
		out = next
		done++
	}
	if done == 0 {
		return nil, fmt.Errorf("it has no corner between two straight sides")
	}
	return out, nil
}

// DropCut takes a cut-out away (from 1), so that the board is whole there.
type DropCut struct {
	Line int `json:"line"`
}

// Apply the command.
func (c *DropCut) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if c.Line < 1 {
		return fmt.Errorf("the outline stays; draw another in its place")
	}
	if _, err := edgeLine(&b, c.Line); err != nil {
		return err
	}
	b.CutOuts = slices.Delete(slices.Clone(b.CutOuts), c.Line-1, c.Line)
	return tx.Put(&b)
}
