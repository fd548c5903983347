package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// BeginBoard begins a board in one act: layers, edge, width of new tracks, on which sides parts may stand, the circuit's parts
// beside it, and which layers are planes. Lengths are nanometres.
type BeginBoard struct {
	Copper  int          `json:"copper"` // layers, where no ready-made stack is taken
	Ready   *TakeStack   `json:"ready,omitempty"`
	Form    string       `json:"form"`            // rectangle or circle; empty: no outline yet
	Width   int64        `json:"width,omitempty"` // of a circle its diameter
	Height  int64        `json:"height,omitempty"`
	R       int64        `json:"r,omitempty"` // of the corners
	Track   int64        `json:"track"`       // width of new tracks; 0: as it is
	OneSide bool         `json:"oneSide,omitempty"`
	Parts   bool         `json:"parts,omitempty"` // the parts come too
	Planes  []BeginPlane `json:"planes,omitempty"`
}

// BeginPlane says that a copper layer becomes a plane of a net, which comes with the parts.
type BeginPlane struct {
	At  int    `json:"at"`  // position of the layer, 0 at the top
	Net string `json:"net"` // its name
}

// Apply the command.
func (c *BeginBoard) Apply(tx *Tx) error {
	if len(tx.Doc.Board.Outline) > 0 || len(tx.Doc.Placed) > 0 {
		return fmt.Errorf("the board is begun already; what differs from the circuit is carried over by itself")
	}
	if c.Ready != nil {
		if err := c.Ready.Apply(tx); err != nil {
			return err
		}
	} else if err := (&SetLayers{c.Copper}).Apply(tx); err != nil {
		return err
	}
	if err := (&SetSides{c.OneSide}).Apply(tx); err != nil {
		return err
	}
	if c.Track != 0 {
		if err := (&SetRules{map[design.RuleKind]int64{design.TrackWidth: c.Track}}).Apply(tx); err != nil {
			return err
		}
	}
	if c.Form != "" {
		edge := DrawEdge{Form: c.Form, B: geom.Pt(c.Width, c.Height), R: c.R}
		switch {
		case c.Width < units.MM || c.Form == EdgeRectangle && c.Height < units.MM:
			return fmt.Errorf("a board is 1 mm wide and high at least")
		case c.Form == EdgeCircle:
			edge.A, edge.B = geom.Pt(c.Width/2, c.Width/2), geom.Pt(c.Width, c.Width/2)
		case c.Form != EdgeRectangle:
			return fmt.Errorf("a board begins as a rectangle or a circle; draw any other form with the outline's tool")
		}
		if err := edge.Apply(tx); err != nil {
			return err
		}
	}
	if c.Parts {
		if err := (&Carry{All: true}).Apply(tx); err != nil {
			return err
		}
	}
	for _, p := range c.Planes {
		n := tx.Doc.NetNamed(p.Net)
		if n == nil {
			return fmt.Errorf("no part of the board has the net %s, so that no layer can be its plane", p.Net)
		}
		if err := (&SetPlane{Layer: tx.Doc.Board.At(p.At), Net: n.ID}).Apply(tx); err != nil {
			return err
		}
	}
	return nil
}

// SetSides says whether parts may stand on the upper side alone.
type SetSides struct {
	OneSide bool `json:"oneSide"`
}

// Apply the command.
func (c *SetSides) Apply(tx *Tx) error {
	if tx.Doc.Board.OneSide == c.OneSide {
		return nil
	}
	if c.OneSide {
		for p := range tx.Doc.Placed.All() {
			if p.Bottom {
				return fmt.Errorf("%s stands on the lower side; carry it to the upper one first", p.Designator)
			}
		}
	}
	b := *tx.Doc.Board
	b.OneSide = c.OneSide
	return tx.Put(&b)
}

// SetPaste says whether parts that are not fitted get solder paste all the same, so that they can be soldered later.
type SetPaste struct {
	Unfitted bool `json:"unfitted"`
}

// Apply the command.
func (c *SetPaste) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	b.NoPaste = !c.Unfitted
	return tx.Put(&b)
}

// Gather brings parts together around a place, what is connected beside each other.
type Gather struct {
	IDs []design.ID `json:"ids"`
	At  geom.Point  `json:"at"`
	Following
}

// Apply the command.
func (c *Gather) Apply(tx *Tx) error {
	if max(c.At.X, -c.At.X, c.At.Y, -c.At.Y) > units.Limit {
		return fmt.Errorf("that lies beyond what a board can reach")
	}
	places, err := layout.Gather(tx.Doc, c.IDs, c.At)
	if err != nil {
		return err
	}
	for _, id := range c.IDs {
		at, ok := places[id]
		if p := tx.Doc.Placed[id]; ok && p.At != at {
			q := *p
			q.At = at
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return c.follow(tx)
}
