package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Many things changed at once.

// SetLetters sets how high the designators of parts are printed; 0: as usual.
type SetLetters struct {
	IDs    []design.ID `json:"ids"`
	Height int64       `json:"height"`
}

// Apply the command.
func (c *SetLetters) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		p, err := get(tx.Doc.Placed, id, "part")
		if err != nil {
			return err
		}
		q := *p
		q.Letters = c.Height
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}

// VaryFootprint makes a variant of the footprint of parts on the board with other pads, as for soldering by hand, and gives it to them
// and to
// the circuit's parts. The parts have one footprint; the variant is the project's own and stands beside it. Lengths are nanometres.
type VaryFootprint struct {
	IDs     []design.ID `json:"ids"`
	Name    string      `json:"name"`              // of the variant
	Outward int64       `json:"outward,omitempty"` // by so much pads reach farther from the footprint's middle; their inner ends stay
	Around  int64       `json:"around,omitempty"`  // by so much they are larger on every side
}

// Apply the command.
func (c *VaryFootprint) Apply(tx *Tx) error {
	if len(c.IDs) == 0 {
		return fmt.Errorf("no part is named that is to have other pads")
	}
	if c.Outward == 0 && c.Around == 0 {
		return fmt.Errorf("the pads would be what they are")
	}
	if max(c.Outward, -c.Outward, c.Around, -c.Around) > 20*units.MM {
		return fmt.Errorf("pads can be made larger or smaller by 20 mm at most")
	}
	var parts []*design.Placed
	for _, id := range c.IDs {
		p, err := get(tx.Doc.Placed, id, "part")
		if err != nil {
			return err
		}
		if len(parts) > 0 && p.Footprint != parts[0].Footprint {
			return fmt.Errorf("%s has the footprint %s and %s has %s: parts of one footprint can have their pads changed together",
				parts[0].Designator, parts[0].Footprint, p.Designator, p.Footprint)
		}
		parts = append(parts, p)
	}
	old := tx.Doc.Footprint(parts[0].Footprint)
	if tx.Doc.Footprint(c.Name) != nil {
		return fmt.Errorf("there is a footprint %s already; give the variant another name", c.Name)
	}
	f, err := c.varied(old)
	if err != nil {
		return err
	}
	f.ID = tx.Doc.NewID()
	if err := tx.Put(f); err != nil {
		return err
	}
	for _, p := range parts {
		q := *p
		q.Footprint = f.Name
		if err := tx.Put(&q); err != nil {
			return err
		}
		part := tx.Doc.Parts[p.Part]
		if part == nil || part.Footprint != old.Name {
			continue
		}
		for _, u := range tx.units(part) {
			v := *u
			v.Footprint = f.Name
			if err := tx.Put(&v); err != nil {
				return err
			}
		}
	}
	return nil
}

// varied is the footprint with its pads changed; its courtyard reaches as far beyond them as before.
func (c *VaryFootprint) varied(old *design.Footprint) (*design.Footprint, error) {
	f := *old
	f.Name, f.Origin, f.Recipe, f.Checked = c.Name, design.Origin{}, nil, nil
	f.Pads = slices.Clone(old.Pads)
	middle := roomOfPads(old.Pads).Centre()
	for i := range f.Pads {
		if err := c.vary(&f.Pads[i], middle); err != nil {
			return nil, err
		}
	}
	was, is := roomOfPads(old.Pads), roomOfPads(f.Pads)
	if len(old.Courtyard) == 0 {
		return &f, nil
	}
	yard := geom.BoxOf(old.Courtyard...)
	if b := is.Grow(yardBeyond(old.Courtyard, was)).Union(yard); b != yard {
		f.Courtyard = []geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y)}
	}
	return &f, nil
}

// vary changes a pad; drilled ones change around their hole alone.
func (c *VaryFootprint) vary(p *design.Pad, middle geom.Point) error {
	what := func() error { return fmt.Errorf("pad %s would have nothing left", p.Number) }
	if p.Form == design.Free {
		return fmt.Errorf("pad %s has a form of its own, which does not grow by numbers", p.Number)
	}
	if c.Around != 0 {
		p.Size = p.Size.Add(geom.Pt(2*c.Around, 2*c.Around))
		if p.Form == design.Rounded {
			p.Corner = max(0, p.Corner+c.Around)
		}
	}
	if c.Outward != 0 && p.Hole == 0 && p.Form != design.Round {
		d := p.At.Sub(middle)
		if d == (geom.Point{}) {
			return nil // it lies in the middle: there is no outward
		}
		own := geom.Turn(d, -p.Angle) // as the pad lies
		along := geom.Pt(sign(own.X), 0)
		if max(own.X, -own.X) < max(own.Y, -own.Y) {
			along = geom.Pt(0, sign(own.Y))
		}
		p.Size = p.Size.Add(geom.Pt(max(along.X, -along.X)*c.Outward, max(along.Y, -along.Y)*c.Outward))
		p.At = p.At.Add(geom.Turn(geom.Pt(along.X*c.Outward/2, along.Y*c.Outward/2), p.Angle))
	}
	if p.Size.X <= 0 || p.Size.Y <= 0 || p.Hole > 0 && !p.Bare && min(p.Size.X, p.Size.Y) <= p.Hole {
		return what()
	}
	p.Corner = min(p.Corner, min(p.Size.X, p.Size.Y)/2)
	return nil
}

func sign(v int64) int64 {
	if v < 0 {
		return -1
	}
	return 1
}

func roomOfPads(pads []design.Pad) geom.Box {
	var e geom.Extent
	for i := range pads {
		e.AddBox(layout.PadShape(&pads[i]).Box())
	}
	return e.Box
}

// yardBeyond is how far a courtyard reaches beyond the pads at least, not less than nothing.
func yardBeyond(yard []geom.Point, pads geom.Box) int64 {
	b := geom.BoxOf(yard...)
	return max(0, min(pads.Min.X-b.Min.X, pads.Min.Y-b.Min.Y, b.Max.X-pads.Max.X, b.Max.Y-pads.Max.Y))
}
