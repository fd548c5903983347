package edit

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// SetOutline draws the board's outline: a closed polygon, or none.
type SetOutline struct {
	Outline []geom.Point `json:"outline"`
}

// Apply the command.
func (c *SetOutline) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if slices.Equal(b.Outline, c.Outline) {
		return nil
	}
	b.Outline = c.Outline
	return tx.Put(&b)
}

// SetRules replaces the board's rules.
type SetRules struct {
	Rules design.Rules `json:"rules"`
}

// Apply the command.
func (c *SetRules) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if b.Rules == c.Rules {
		return nil
	}
	b.Rules = c.Rules
	return tx.Put(&b)
}

// Carry takes the circuit's changes over to the board, all or those whose keys are given.
type Carry struct {
	All  bool     `json:"all,omitempty"`
	Keys []string `json:"keys,omitempty"`
}

// Apply the command.
func (c *Carry) Apply(tx *Tx) error {
	nets := tx.Nets()
	var adds []circuit.Package
	differences := layout.Differences(tx.Doc, nets)
	renames, accepted := map[string]string{}, map[string]string{}
	for _, x := range differences {
		if x.Kind == "rename" {
			renames[x.From] = x.To
		}
	}
	for _, x := range differences {
		if !c.All && !slices.Contains(c.Keys, x.Key) || x.Kind == "none" {
			continue
		}
		p, on := tx.Doc.Parts[x.Part], tx.Doc.Placed[x.On]
		k, _ := circuit.PackageOf(tx.Doc, nets.Tree, circuit.PartRef{Part: x.Part, Path: x.Path})
		switch x.Kind {
		case "add":
			adds = append(adds, k)
		case "remove":
			tx.Remove(on)
		case "rename":
			accepted[x.From] = x.To
		case "change":
			q := *on
			q.Designator, q.Value, q.NotFitted = k.Designator, p.Value, p.NotFitted
			if p.Footprint != "" {
				if err := tx.ensureFootprint(p.Footprint); err != nil {
					return err
				}
				q.Footprint = p.Footprint
			}
			if err := tx.Put(&q); err != nil {
				return err
			}
		case "nets":
			q := *tx.Doc.Placed[x.On]
			want := layout.PadNets(tx.Doc, nets, k)
			next := map[string]string{}
			for pad, net := range want {
				// a renamed net is its own difference and may be declined
				if was := q.Nets[pad]; was != "" && renames[was] == net {
					net = was
				}
				next[pad] = net
			}
			q.Nets = next
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	if err := renameOnBoard(tx, accepted); err != nil {
		return err
	}
	return arrive(tx, adds)
}

func renameOnBoard(tx *Tx, renames map[string]string) error {
	if len(renames) == 0 {
		return nil
	}
	for on := range tx.Doc.Placed.All() {
		q := *on
		q.Nets = maps.Clone(on.Nets)
		for pad, net := range on.Nets {
			if to, ok := renames[net]; ok {
				q.Nets[pad] = to
			}
		}
		if !maps.Equal(q.Nets, on.Nets) {
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for t := range tx.Doc.Tracks.All() {
		if to, ok := renames[t.Net]; ok {
			q := *t
			q.Net = to
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for v := range tx.Doc.Vias.All() {
		if to, ok := renames[v.Net]; ok {
			q := *v
			q.Net = to
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return nil
}

// arrive puts new parts beside the outline.
func arrive(tx *Tx, packages []circuit.Package) error {
	feet := make([]*design.Footprint, len(packages))
	for i, k := range packages {
		p := tx.Doc.Parts[k.Lead().Part]
		if err := tx.ensureFootprint(p.Footprint); err != nil {
			return err
		}
		feet[i] = tx.Doc.Footprint(p.Footprint)
	}
	nets := tx.Nets()
	for i, at := range layout.Arrive(tx.Doc, feet) {
		k := packages[i]
		p := tx.Doc.Parts[k.Lead().Part]
		if err := tx.Put(&design.Placed{ID: tx.Doc.NewID(), Part: p.ID, Path: k.Lead().Path, Designator: k.Designator, Value: p.Value,
			Footprint: p.Footprint, NotFitted: p.NotFitted, At: at, Nets: layout.PadNets(tx.Doc, nets, k)}); err != nil {
			return err
		}
	}
	return nil
}

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

// AddHole drills an unplated hole.
type AddHole struct {
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
}

// Apply the command.
func (c *AddHole) Apply(tx *Tx) error {
	return tx.Put(&design.Hole{ID: tx.Doc.NewID(), At: c.At, Diameter: c.Diameter})
}

// AddLegend prints a text on the board.
type AddLegend struct {
	At     geom.Point `json:"at"`
	Angle  int32      `json:"angle,omitempty"`
	Bottom bool       `json:"bottom,omitempty"`
	Height int64      `json:"height"`
	Text   string     `json:"text"`
}

// Apply the command.
func (c *AddLegend) Apply(tx *Tx) error {
	return tx.Put(&design.Legend{ID: tx.Doc.NewID(), At: c.At, Angle: c.Angle, Bottom: c.Bottom, Height: c.Height, Text: c.Text})
}

// SetLegend changes a text on the board; nil fields stay.
type SetLegend struct {
	ID     design.ID `json:"id"`
	Text   *string   `json:"text,omitempty"`
	Height *int64    `json:"height,omitempty"`
}

// Apply the command.
func (c *SetLegend) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Legends, c.ID, "text")
	if err != nil {
		return err
	}
	l := *old
	set(&l.Text, c.Text)
	set(&l.Height, c.Height)
	return tx.Put(&l)
}
