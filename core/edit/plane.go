package edit

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// SetPlane makes a copper layer a plane of a net: a copper area without an outline that lies on it. Of no net, the layer is a plane no
// longer; one that lies on other layers too stays there.
type SetPlane struct {
	Layer design.LayerID `json:"layer"`
	Net   design.ID      `json:"net,omitempty"`
}

// Apply the command.
func (c *SetPlane) Apply(tx *Tx) error {
	if tx.Doc.Board.Position(c.Layer) < 0 {
		return fmt.Errorf("the board has no such copper layer (id %d)", c.Layer)
	}
	if c.Net != 0 && tx.Doc.Nets[c.Net] == nil {
		return fmt.Errorf("there is no such net on the board (id %d)", c.Net)
	}
	kept := false
	for _, id := range slices.Sorted(maps.Keys(tx.Doc.Pours)) {
		p := tx.Doc.Pours[id]
		if len(p.Outline) > 0 || !p.On(c.Layer) {
			continue
		}
		if p.Net == c.Net && !kept {
			kept = true
			continue
		}
		if p.Locked {
			return fmt.Errorf("the copper area %s is locked; unlock it first", p.Name)
		}
		if len(p.Layers) == 1 {
			tx.Remove(p)
			continue
		}
		less := slices.DeleteFunc(slices.Clone(p.Layers), func(l design.LayerID) bool { return l == c.Layer })
		if err := tx.Put(with(p, func(q *design.Pour) { q.Layers = less })); err != nil {
			return err
		}
	}
	if c.Net == 0 || kept {
		return nil
	}
	return (&PutPour{design.Pour{Net: c.Net, Layers: []design.LayerID{c.Layer}}}).Apply(tx)
}

// CutPour cuts a copper area in two along a line that leads across it: the smaller part becomes an area of the net, the other stays
// what it was. A plane becomes an area whose edge is the board's.
type CutPour struct {
	ID   design.ID    `json:"id"`
	Line []geom.Point `json:"line"`
	Net  design.ID    `json:"net"`
}

// Apply the command.
func (c *CutPour) Apply(tx *Tx) error {
	p, err := get(tx.Doc.Pours, c.ID, "copper area")
	if err != nil {
		return err
	}
	if p.Locked {
		return fmt.Errorf("the copper area %s is locked; unlock it first", p.Name)
	}
	if tx.Doc.Nets[c.Net] == nil {
		return fmt.Errorf("there is no such net on the board (id %d)", c.Net)
	}
	if len(c.Line) < 2 || len(c.Line) > design.MostCorners {
		return fmt.Errorf("a line across has 2 to %d places, not %d", design.MostCorners, len(c.Line))
	}
	outline := p.Outline
	if len(outline) == 0 {
		outline = tx.Doc.Board.Outline
	}
	one, other, err := geom.CutAcross(outline, c.Line)
	if err != nil {
		return err
	}
	if geom.Closing(one).Area() > geom.Closing(other).Area() {
		one, other = other, one
	}
	if err := tx.Put(with(p, func(q *design.Pour) { q.Outline = other })); err != nil {
		return err
	}
	part := *p
	part.ID, part.Name, part.Net, part.Outline = 0, "", c.Net, one
	return (&PutPour{part}).Apply(tx)
}
