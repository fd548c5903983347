package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/escape"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// Escape leads the pads of dense parts out: by short tracks and hops beyond the part, or into areas of their nets.
type Escape struct {
	EscapeAsk
	said string
}

// EscapeAsk says which pads escape and how.
type EscapeAsk struct {
	Parts  []design.ID      `json:"parts"`            // on the board
	Layers []design.LayerID `json:"layers"`           // on which tracks may lead beyond the part
	Beyond int64            `json:"beyond,omitempty"` // how far beyond the outermost pads they end
	Holes  bool             `json:"holes,omitempty"`  // a hop beside each pad is enough
	Areas  bool             `json:"areas,omitempty"`  // only pads of nets that have a copper area
}

// Said tells how many pads lead out.
func (c *Escape) Said() string { return c.said }

// mostBeyond is how far beyond a part tracks may lead that let its pads escape.
const mostBeyond = 20 * units.MM

// Of finds how the pads escape, without laying anything; errors say what is wrong with what is asked.
func (c *EscapeAsk) Of(f *route.Field, going func(float64) error) (out escape.Outcome, err error) {
	a := escape.Ask{Parts: c.Parts, Beyond: c.Beyond, Holes: c.Holes, Areas: c.Areas}
	d := f.Doc
	if len(c.Parts) == 0 {
		return out, fmt.Errorf("pick the parts first whose pads are to escape")
	}
	for _, id := range c.Parts {
		if _, err := get(d.Placed, id, "part"); err != nil {
			return out, err
		}
	}
	for _, id := range c.Layers {
		l := d.Board.Position(id)
		if l < 0 {
			return out, fmt.Errorf("the board has no such copper layer (id %d)", id)
		}
		a.Layers = append(a.Layers, l)
	}
	if c.Beyond < 0 || c.Beyond > mostBeyond {
		return out, fmt.Errorf("tracks lead 0 to %s beyond a part, not %s", units.Text(mostBeyond), units.Text(c.Beyond))
	}
	return escape.Of(*f, a, going)
}

// Apply the command.
func (c *Escape) Apply(tx *Tx) error {
	field := tx.field()
	out, err := c.Of(field, tx.going)
	if err != nil {
		return err
	}
	if len(out.Led) == 0 {
		return fmt.Errorf("no pad could be led out%s", firstWhy(out))
	}
	*field = field.Boxed()
	for _, e := range out.Led {
		if err := tx.layLegs(field, e.Legs, e.Net); err != nil {
			return err
		}
		for _, l := range e.Legs {
			field.Lay(field.HandOf([]route.Leg{{Layer: l.Layer, Width: l.Width, Path: l.Path}}, e.Net)...)
		}
	}
	c.said = counted(len(out.Led), "pad leads out.", "pads lead out.")
	if n := len(out.Stuck); n > 0 {
		c.said += " " + counted(n, "could not.", "could not.")
	}
	if tx.raised != "" {
		c.said += " " + tx.raised
	}
	return nil
}

// firstWhy says why the first of those that could not be led out was not.
func firstWhy(out escape.Outcome) string {
	switch {
	case len(out.Stuck) > 0:
		return fmt.Sprintf("; of %s, for one: %v", out.Stuck[0].Name, out.Stuck[0].Why)
	case out.Already > 0:
		return ": of all, something leads away already"
	}
	return ": none has anything to be joined with"
}
