package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// carried says how things are carried elsewhere: places, angles, and whether they change sides, which is about
// the place given.
type carried struct {
	at    func(geom.Point) geom.Point
	angle func(int32) int32
	over  bool
}

// onBoard carries each thing among ids elsewhere.
func (tx *Tx) onBoard(ids []design.ID, by carried) error {
	for _, id := range ids {
		put, err := tx.carry(id, by)
		if err != nil {
			return err
		}
		if err := tx.Put(put); err != nil {
			return err
		}
	}
	return nil
}

func (by carried) turned(a int32) int32 {
	if by.angle != nil {
		a = by.angle(a)
	}
	return ((a % 360_000) + 360_000) % 360_000
}

func (by carried) lines(lines [][]geom.Corner) [][]geom.Corner {
	out := make([][]geom.Corner, len(lines))
	for i, l := range lines {
		out[i] = by.line(l)
	}
	return out
}

func (by carried) line(l []geom.Corner) []geom.Corner {
	out := make([]geom.Corner, len(l))
	for i, c := range l {
		out[i].Point = by.at(c.Point)
		out[i].Mid = by.middle(c.Mid)
	}
	return out
}

func (by carried) middle(m *geom.Point) *geom.Point {
	if m == nil {
		return nil
	}
	at := by.at(*m)
	return &at
}

// carry is the thing as it will be. Copper goes along without being cut off or joined: what it then meets is
// left to the checks to say.
func (tx *Tx) carry(id design.ID, by carried) (design.Object, error) {
	locked := func(is bool, what string) error {
		if is {
			return fmt.Errorf("%s is locked; unlock it first", what)
		}
		return nil
	}
	switch o := tx.Doc.Get(id).(type) {
	case *design.Placed:
		q := *o
		q.At, q.Angle, q.Bottom = by.at(o.At), by.turned(o.Angle), o.Bottom != by.over
		if q.Bottom && !o.Bottom && tx.Doc.Board.OneSide {
			return nil, fmt.Errorf("%s stays on the upper side: this board has parts on that one alone", o.Designator)
		}
		return &q, locked(o.Locked, o.Designator)
	case *design.Hole:
		q := *o
		q.At = by.at(o.At)
		return &q, locked(o.Locked, "the hole")
	case *design.Legend:
		q := *o
		q.At, q.Angle, q.Bottom = by.at(o.At), by.turned(o.Angle), o.Bottom != by.over
		q.Layer = tx.otherSide(o.Layer, by.over)
		return &q, locked(o.Locked, "the text "+o.Text)
	case *design.BoardFigure:
		q := *o
		q.Lines, q.Bottom, q.Layer = by.lines(o.Lines), o.Bottom != by.over, tx.otherSide(o.Layer, by.over)
		return &q, locked(o.Locked, "a figure")
	case *design.Track:
		q := *o
		q.A, q.Mid, q.B, q.Layer = by.at(o.A), by.middle(o.Mid), by.at(o.B), tx.otherSide(o.Layer, by.over)
		return &q, locked(o.Locked, "a track")
	case *design.Via:
		q := *o
		q.At = by.at(o.At)
		return &q, locked(o.Locked, "a via")
	case *design.RuleArea:
		q := *o
		q.Outline = by.line(o.Outline)
		return &q, locked(o.Locked, "the area "+o.Name)
	case *design.Pour:
		if len(o.Outline) == 0 {
			return nil, fmt.Errorf("the copper area %s fills the whole board; it has no place of its own", o.Name)
		}
		return with(o, func(q *design.Pour) { q.Outline = by.line(o.Outline) }), locked(o.Locked, "the copper area "+o.Name)
	}
	return nil, fmt.Errorf("something that was picked cannot be moved on the board (id %d)", id)
}

// otherSide is the layer as far from the lower side as the one is from the upper.
func (tx *Tx) otherSide(layer design.LayerID, over bool) design.LayerID {
	if layer == 0 || !over {
		return layer
	}
	return tx.Doc.Board.At(tx.Doc.Board.Layers() - 1 - tx.Doc.Board.Position(layer))
}

// MovePlaced moves things on the board, with tracks and vias rigidly where they are among them.
type MovePlaced struct {
	IDs  []design.ID `json:"ids"`
	Step geom.Point  `json:"step"`
	Following
}

// Apply the command.
func (c *MovePlaced) Apply(tx *Tx) error {
	if (c.Step == geom.Point{}) {
		return nil
	}
	if err := tx.onBoard(c.IDs, carried{at: func(p geom.Point) geom.Point { return p.Add(c.Step) }}); err != nil {
		return err
	}
	return c.follow(tx)
}

// TurnPlaced turns things on the board anticlockwise about the pivot by Angle millidegrees.
type TurnPlaced struct {
	IDs   []design.ID `json:"ids"`
	Pivot geom.Point  `json:"pivot"`
	Angle int32       `json:"angle"`
	Following
}

// Apply the command.
func (c *TurnPlaced) Apply(tx *Tx) error {
	err := tx.onBoard(c.IDs, carried{
		at:    func(p geom.Point) geom.Point { return geom.Turn(p.Sub(c.Pivot), c.Angle).Add(c.Pivot) },
		angle: func(a int32) int32 { return a%360_000 + c.Angle%360_000 },
	})
	if err != nil {
		return err
	}
	return c.follow(tx)
}

// FlipPlaced carries parts, texts and figures to the board's other side, each about its own origin or middle.
type FlipPlaced struct {
	IDs []design.ID `json:"ids"`
	Following
}

// Apply the command.
func (c *FlipPlaced) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		by := carried{at: func(p geom.Point) geom.Point { return p }, angle: func(a int32) int32 { return -a }, over: true}
		switch o := tx.Doc.Get(id).(type) {
		case *design.Track, *design.Via, *design.RuleArea, *design.Pour:
			return fmt.Errorf("%s does not change sides by itself", tx.Doc.Called(o))
		case *design.BoardFigure:
			var e geom.Extent
			for _, l := range o.Lines {
				e.Add(geom.Named(l)...)
			}
			middle := e.Box.Min.X + e.Box.Max.X
			by.at = func(p geom.Point) geom.Point { return geom.Pt(middle-p.X, p.Y) }
		}
		if err := tx.onBoard([]design.ID{id}, by); err != nil {
			return err
		}
	}
	return c.follow(tx)
}

// SetPlaced gives a part, hole or text an exact place; nil fields stay.
type SetPlaced struct {
	ID     design.ID `json:"id"`
	X      *int64    `json:"x,omitempty"`
	Y      *int64    `json:"y,omitempty"`
	Angle  *int32    `json:"angle,omitempty"`
	Bottom *bool     `json:"bottom,omitempty"`
	Following
}

// Apply the command.
func (c *SetPlaced) Apply(tx *Tx) error {
	by := carried{at: func(at geom.Point) geom.Point {
		set(&at.X, c.X)
		set(&at.Y, c.Y)
		return at
	}}
	if c.Angle != nil {
		by.angle = func(int32) int32 { return *c.Angle }
	}
	switch o := tx.Doc.Get(c.ID).(type) {
	case *design.Placed:
		by.over = c.Bottom != nil && *c.Bottom != o.Bottom
	case *design.Legend:
		by.over = c.Bottom != nil && *c.Bottom != o.Bottom
	case *design.Hole:
	default:
		return fmt.Errorf("something that was picked has no place to be set (id %d)", c.ID)
	}
	if err := tx.onBoard([]design.ID{c.ID}, by); err != nil {
		return err
	}
	return c.follow(tx)
}

// with is a copy of an object that was changed.
func with[T any, P interface {
	*T
	design.Object
}](o P, change func(P)) P {
	q := *o
	change(&q)
	return &q
}

// Lock locks or unlocks parts, copper, holes, texts, figures and areas.
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
			put = with(o, func(q *design.Placed) { q.Locked = c.Locked })
		case *design.Track:
			put = with(o, func(q *design.Track) { q.Locked = c.Locked })
		case *design.Via:
			put = with(o, func(q *design.Via) { q.Locked = c.Locked })
		case *design.Hole:
			put = with(o, func(q *design.Hole) { q.Locked = c.Locked })
		case *design.Legend:
			put = with(o, func(q *design.Legend) { q.Locked = c.Locked })
		case *design.BoardFigure:
			put = with(o, func(q *design.BoardFigure) { q.Locked = c.Locked })
		case *design.RuleArea:
			put = with(o, func(q *design.RuleArea) { q.Locked = c.Locked })
		case *design.Stitching:
			put = with(o, func(q *design.Stitching) { q.Locked = c.Locked })
		case *design.Pour:
			put = with(o, func(q *design.Pour) { q.Locked = c.Locked })
		default:
			return fmt.Errorf("something that was picked cannot be locked (id %d)", id)
		}
		if err := tx.Put(put); err != nil {
			return err
		}
	}
	return nil
}
