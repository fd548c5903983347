package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// onBoard calls f for each movable thing among ids and puts what it returns.
func (tx *Tx) onBoard(ids []design.ID, place func(at geom.Point, angle int32, bottom bool) (geom.Point, int32, bool)) error {
	turn := func(a int32) int32 { return ((a % 360_000) + 360_000) % 360_000 }
	for _, id := range ids {
		var put design.Object
		switch o := tx.Doc.Get(id).(type) {
		case *design.Placed:
			if o.Locked {
				return fmt.Errorf("%s is locked; unlock it first", o.Designator)
			}
			q := *o
			q.At, q.Angle, q.Bottom = place(o.At, o.Angle, o.Bottom)
			if q.Bottom && !o.Bottom && tx.Doc.Board.OneSide {
				return fmt.Errorf("%s stays on the upper side: this board has parts on that one alone", o.Designator)
			}
			q.Angle = turn(q.Angle)
			put = &q
		case *design.Hole:
			if o.Locked {
				return fmt.Errorf("the hole is locked; unlock it first")
			}
			q := *o
			q.At, _, _ = place(o.At, 0, false)
			put = &q
		case *design.Legend:
			q := *o
			q.At, q.Angle, q.Bottom = place(o.At, o.Angle, o.Bottom)
			q.Angle = turn(q.Angle)
			put = &q
		default:
			return fmt.Errorf("something that was picked cannot be moved on the board (id %d)", id)
		}
		if err := tx.Put(put); err != nil {
			return err
		}
	}
	return nil
}

// MovePlaced moves parts, holes and texts on the board.
type MovePlaced struct {
	IDs  []design.ID `json:"ids"`
	Step geom.Point  `json:"step"`
}

// Apply the command.
func (c *MovePlaced) Apply(tx *Tx) error {
	if (c.Step == geom.Point{}) {
		return nil
	}
	return tx.onBoard(c.IDs, func(at geom.Point, a int32, b bool) (geom.Point, int32, bool) { return at.Add(c.Step), a, b })
}

// TurnPlaced turns things on the board anticlockwise about the pivot by Angle millidegrees.
type TurnPlaced struct {
	IDs   []design.ID `json:"ids"`
	Pivot geom.Point  `json:"pivot"`
	Angle int32       `json:"angle"`
}

// Apply the command.
func (c *TurnPlaced) Apply(tx *Tx) error {
	return tx.onBoard(c.IDs, func(at geom.Point, a int32, b bool) (geom.Point, int32, bool) {
		return geom.Turn(at.Sub(c.Pivot), c.Angle).Add(c.Pivot), a%360_000 + c.Angle%360_000, b
	})
}

// FlipPlaced carries things to the board's other side, each about its own origin.
type FlipPlaced struct {
	IDs []design.ID `json:"ids"`
}

// Apply the command.
func (c *FlipPlaced) Apply(tx *Tx) error {
	return tx.onBoard(c.IDs, func(at geom.Point, a int32, b bool) (geom.Point, int32, bool) { return at, -a, !b })
}

// SetPlaced gives a part, hole or text an exact place; nil fields stay.
type SetPlaced struct {
	ID     design.ID `json:"id"`
	X      *int64    `json:"x,omitempty"`
	Y      *int64    `json:"y,omitempty"`
	Angle  *int32    `json:"angle,omitempty"`
	Bottom *bool     `json:"bottom,omitempty"`
}

// Apply the command.
func (c *SetPlaced) Apply(tx *Tx) error {
	return tx.onBoard([]design.ID{c.ID}, func(at geom.Point, a int32, b bool) (geom.Point, int32, bool) {
		set(&at.X, c.X)
		set(&at.Y, c.Y)
		set(&a, c.Angle)
		set(&b, c.Bottom)
		return at, a, b
	})
}

// Lock locks or unlocks parts, tracks, vias and holes.
type Lock struct {
	IDs    []design.ID `json:"ids"`
	Locked bool        `json:"locked"`
}

// Apply the command.
func (c *Lock) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		var put design.Object
		switch o := tx.Doc.Get(id).(type) {
		case *design.Placed:
			q := *o
			q.Locked = c.Locked
			put = &q
		case *design.Track:
			q := *o
			q.Locked = c.Locked
			put = &q
		case *design.Via:
			q := *o
			q.Locked = c.Locked
			put = &q
		case *design.Hole:
			q := *o
			q.Locked = c.Locked
			put = &q
		default:
			return fmt.Errorf("something that was picked cannot be locked (id %d)", id)
		}
		if err := tx.Put(put); err != nil {
			return err
		}
	}
	return nil
}
