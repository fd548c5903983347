package edit

import (
	"cmp"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// AddVia sets a via of a net where it keeps the rules; of no net it belongs to none. Layers that are 0
// are the outer ones, sizes that are 0 those of the rules.
type AddVia struct {
	At       geom.Point      `json:"at"`
	Net      design.ID       `json:"net,omitempty"`
	From     design.LayerID  `json:"from,omitempty"`
	To       design.LayerID  `json:"to,omitempty"`
	Diameter int64           `json:"diameter,omitempty"`
	Hole     int64           `json:"hole,omitempty"`
	Kind     string          `json:"made,omitempty"`
	Cover    string          `json:"cover,omitempty"`
	Pads     []design.ViaPad `json:"pads,omitempty"`
}

// Apply the command.
func (c *AddVia) Apply(tx *Tx) error {
	v := &design.Via{At: c.At, Net: c.Net, From: c.From, To: c.To, Diameter: c.Diameter, Hole: c.Hole, Kind: c.Kind, Cover: c.Cover, Pads: c.Pads}
	if c.Net != 0 && tx.Doc.Nets[c.Net] == nil {
		return fmt.Errorf("there is no such net on the board (id %d)", c.Net)
	}
	return tx.setVia(tx.field(), v)
}

// field is what copper has to respect.
func (tx *Tx) field() *route.Field {
	return &route.Field{Doc: tx.Doc, Index: tx.Index(), Rules: tx.Rules()}
}

// setVia puts a via that keeps the rules, with what is not said of it taken from them.
func (tx *Tx) setVia(field *route.Field, v *design.Via) error {
	b := tx.Doc.Board
	if b.Layers() < 2 {
		return fmt.Errorf("the board has one copper layer, so that a via would join nothing")
	}
	if v.From == 0 {
		v.From = b.Top()
	}
	if v.To == 0 {
		v.To = b.Bottom()
	}
	if l := b.Through(); l != nil && v.Barrel == 0 && v.Diameter == 0 && v.Hole == 0 && v.From == l.From && v.To == l.To && v.Kind == l.Kind {
		v.Barrel, v.Cover = l.ID, cmp.Or(v.Cover, l.Cover)
	}
	if v.Diameter == 0 || v.Hole == 0 {
		diameter, hole := field.ViaSize(v.At, v.Net)
		if v.Diameter == 0 {
			v.Diameter = diameter
		}
		if v.Hole == 0 {
			v.Hole = hole
		}
	}
	v.ID = tx.Doc.NewID()
	if err := v.Valid(); err != nil {
		return err
	}
	if err := tx.Doc.Refers(v); err != nil {
		return err
	}
	pieces := layout.PiecesOf(tx.Doc, v)
	if o := field.ClearOf(pieces[0]); o != nil {
		return fmt.Errorf("no via fits here: %w", o)
	}
	field.Lay(pieces...)
	return tx.Put(v)
}
