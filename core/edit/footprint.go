package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
	"goldentrace/core/picture"
	"goldentrace/core/units"
)

// PutFootprint makes an empty footprint, or with a recipe one that is generated; with an id, the footprint that bears it is generated
// anew. What was not generated stays: dimensions, the picture beneath, groups of pads.
type PutFootprint struct {
	Footprint design.ID      `json:"footprint,omitempty"`
	Name      string         `json:"name,omitempty"`
	Recipe    *design.Recipe `json:"recipe,omitempty"`
}

// Apply the command.
func (c *PutFootprint) Apply(tx *Tx) error {
	f := &design.Footprint{Name: c.Name, Pads: []design.Pad{}, Silk: []design.Figure{}, Body: []design.Figure{}, DesignatorAt: geom.Pt(0, 3*units.MM)}
	if c.Recipe != nil {
		made, err := landpattern.Make(c.Recipe)
		if err != nil {
			return err
		}
		f = made.Footprint
		if c.Name != "" {
			f.Name = c.Name
		}
	}
	if c.Footprint == 0 {
		if tx.Doc.Footprint(f.Name) != nil {
			return fmt.Errorf("the project has a footprint called %s already", f.Name)
		}
		f.ID = tx.Doc.NewID()
		return tx.Put(f)
	}
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	if c.Recipe == nil {
		return fmt.Errorf("the footprint %s has nothing to be generated from", old.Name)
	}
	f.ID, f.Dimensions, f.Beneath, f.Together, f.Model, f.Checked = old.ID, old.Dimensions, old.Beneath, old.Together, old.Model, old.Checked
	return tx.putFootprint(old, f)
}

// putFootprint stores a changed footprint; when it is called otherwise, all that name it follow.
func (tx *Tx) putFootprint(old, f *design.Footprint) error {
	if f.Name == old.Name {
		return tx.Put(f)
	}
	if tx.Doc.Footprint(f.Name) != nil {
		return fmt.Errorf("the project has a footprint called %s already", f.Name)
	}
	f.Origin = design.Origin{}
	if err := tx.Put(f); err != nil {
		return err
	}
	for p := range tx.Doc.Parts.All() {
		if p.Footprint == old.Name {
			q := *p
			q.Footprint = f.Name
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for p := range tx.Doc.Placed.All() {
		if p.Footprint == old.Name {
			q := *p
			q.Footprint = f.Name
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return tx.renameInParts(old.Name, f.Name)
}

func (tx *Tx) renameInParts(from, to string) error {
	for l := range tx.Doc.LibraryParts.All() {
		q := *l
		if q.Footprint == from {
			q.Footprint = to
		}
		changed := q.Footprint != l.Footprint
		for density, name := range l.Densities {
			if name == from {
				q.Densities, changed = cloneWith(q.Densities, density, to), true
			}
		}
		if changed {
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return nil
}

func cloneWith(m map[string]string, k, v string) map[string]string {
	out := make(map[string]string, len(m)+1)
	for a, b := range m {
		out[a] = b
	}
	out[k] = v
	return out
}

// FootprintPieces puts pads, figures and dimensions into a footprint, each in the place of the one with its ref or as a new one,
// and takes others out. What is nil stays.
type FootprintPieces struct {
	Footprint        design.ID          `json:"footprint"`
	Pads             []design.Pad       `json:"pads,omitempty"`
	Silk             []design.Figure    `json:"silk,omitempty"`
	Body             []design.Figure    `json:"body,omitempty"`
	Dimensions       []design.Dimension `json:"dimensions,omitempty"`
	RemovePads       []int              `json:"removePads,omitempty"`
	RemoveFigures    []int              `json:"removeFigures,omitempty"` // of silk or body
	RemoveDimensions []int              `json:"removeDimensions,omitempty"`
	Courtyard        *[]geom.Point      `json:"courtyard,omitempty"`
	DesignatorAt     *geom.Point        `json:"designatorAt,omitempty"`
	ValueAt          *geom.Point        `json:"valueAt,omitempty"`
}

// Apply the command.
func (c *FootprintPieces) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	f, pads, figures := old.Named()
	for i := range c.Pads {
		if err := parts.PadCanBe(&c.Pads[i]); err != nil {
			return err
		}
	}
	if f.Pads, err = pieces(f.Pads, c.Pads, c.RemovePads, pads, func(p *design.Pad) *int { return &p.ID }, "pad"); err != nil {
		return err
	}
	ref := func(g *design.Figure) *int { return &g.ID }
	inBody := func(at int) bool {
		return slices.ContainsFunc(f.Body, func(g design.Figure) bool { return g.ID == at })
	}
	var ofSilk, ofBody []int
	for _, at := range c.RemoveFigures {
		if inBody(at) {
			ofBody = append(ofBody, at)
		} else {
			ofSilk = append(ofSilk, at)
		}
	}
	if f.Silk, err = pieces(f.Silk, c.Silk, ofSilk, figures, ref, "line of silk"); err != nil {
		return err
	}
	if f.Body, err = pieces(f.Body, c.Body, ofBody, figures+len(c.Silk), ref, "line of the outline"); err != nil {
		return err
	}
	free := 1
	for _, d := range f.Dimensions {
		free = max(free, d.ID+1)
	}
	if f.Dimensions, err = pieces(slices.Clone(f.Dimensions), c.Dimensions, c.RemoveDimensions, free, func(d *design.Dimension) *int { return &d.ID }, "dimension"); err != nil {
		return err
	}
	set(&f.Courtyard, c.Courtyard)
	set(&f.DesignatorAt, c.DesignatorAt)
	if c.ValueAt != nil {
		f.ValueAt = c.ValueAt
	}
	return tx.Put(f)
}

// SetFootprint changes what a footprint is called and what is said of it.
type SetFootprint struct {
	Footprint   design.ID       `json:"footprint"`
	Name        *string         `json:"name,omitempty"`
	Description *string         `json:"description,omitempty"`
	Together    *[][]string     `json:"together,omitempty"`
	Beneath     *design.Beneath `json:"beneath,omitempty"`
	NoBeneath   bool            `json:"noBeneath,omitempty"` // take the picture away
	Solids      *[]design.Solid `json:"solids,omitempty"`
	NoModel     bool            `json:"noModel,omitempty"` // take the file of its body away
}

// Apply the command.
func (c *SetFootprint) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	f := *old
	set(&f.Name, c.Name)
	set(&f.Description, c.Description)
	set(&f.Together, c.Together)
	set(&f.Solids, c.Solids)
	if c.Beneath != nil {
		f.Beneath = c.Beneath
	}
	if c.NoBeneath {
		f.Beneath = nil
	}
	if c.NoModel {
		f.Model = 0
	}
	if err := tx.putFootprint(old, &f); err != nil {
		return err
	}
	tx.sweep(old)
	return nil
}

// GiveModel gives a footprint a body in space from a file (binary glTF), which is shown instead of what is made of dimensions.
type GiveModel struct {
	Footprint design.ID `json:"footprint"`
	Name      string    `json:"name"`
	Data      []byte    `json:"data"`
}

// Apply the command.
func (c *GiveModel) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	a, err := picture.ReadBody(c.Name, c.Data)
	if err != nil {
		return fmt.Errorf("the file %s cannot be the body: %w", c.Name, err)
	}
	if a.Reach == nil {
		return fmt.Errorf("the file %s cannot be the body: it has no size, or one of more than a metre; glTF counts in metres", c.Name)
	}
	a.ID = tx.Doc.NewID()
	if err := tx.Put(a); err != nil {
		return err
	}
	f := *old
	f.Model = a.ID
	return tx.putShowing(old, &f)
}

// putShowing stores a footprint that shows something else than before.
func (tx *Tx) putShowing(old, f *design.Footprint) error {
	if err := tx.Put(f); err != nil {
		return err
	}
	tx.sweep(old)
	return nil
}

// LayBeneath lays a picture of the datasheet's drawing beneath a footprint.
type LayBeneath struct {
	Footprint design.ID  `json:"footprint"`
	Name      string     `json:"name"`
	Data      []byte     `json:"data"`
	At        geom.Point `json:"at"`    // its lower left corner
	Width     int64      `json:"width"` // 0: 20 mm, until it is calibrated
}

// Apply the command.
func (c *LayBeneath) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	a, err := picture.Read(c.Name, c.Data)
	if err != nil {
		return err
	}
	a.ID = tx.Doc.NewID()
	if err := tx.Put(a); err != nil {
		return err
	}
	f := *old
	width := c.Width
	if width == 0 {
		width = 20 * units.MM
	}
	f.Beneath = &design.Beneath{Asset: a.ID, At: c.At, Width: width, Opacity: 50}
	if c.Width == 0 { // about the origin
		f.Beneath.At = geom.Pt(-width/2, -width*int64(a.Height)/int64(a.Width)/2)
	}
	return tx.putShowing(old, &f)
}
