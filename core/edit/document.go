package edit

import (
	"encoding/json"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/picture"
	"goldentrace/core/reading"
	"goldentrace/core/timing"
)

// drawn are the kinds of object that say something beside the circuit.
var drawn = []design.Kind{design.KindNote, design.KindCluster, design.KindTiming, design.KindShape, design.KindPicture}

// DrawItem puts a note, cluster, timing diagram or shape on its sheet, or changes the one
// (or the picture) that bears its id.
type DrawItem struct {
	Item Clipped `json:"item"`
}

// Apply the command.
func (c *DrawItem) Apply(tx *Tx) error {
	if !slices.Contains(drawn, c.Item.Kind) {
		return fmt.Errorf("a %s cannot be drawn beside the circuit", c.Item.Kind)
	}
	o := design.Blank(c.Item.Kind)
	if err := json.Unmarshal(c.Item.Object, o); err != nil {
		return fmt.Errorf("what was drawn cannot be read: %w", reading.Wrong(err))
	}
	on := o.(design.OnSheet)
	if _, err := tx.sheet(on.SheetID()); err != nil {
		return err
	}
	if id := o.ObjectID(); id == 0 {
		o = design.WithID(o, tx.Doc.NewID())
	} else if tx.Doc.GetKind(c.Item.Kind, id) == nil {
		return fmt.Errorf("there is no such %s any more (id %d)", c.Item.Kind, id)
	}
	return tx.drawn(o)
}

// drawn puts what is drawn beside the circuit, after trying whether it can be drawn.
func (tx *Tx) drawn(o design.Object) error {
	switch o := o.(type) {
	case *design.Timing:
		t, err := timing.Parse(o.Text)
		if err != nil {
			return err
		}
		if err := t.Fits(o.Slot); err != nil {
			return err
		}
	case *design.Picture:
		if tx.Doc.Assets[o.Asset] == nil {
			return fmt.Errorf("there is no such picture in the project (id %d)", o.Asset)
		}
	}
	if err := tx.Put(o); err != nil {
		return err
	}
	return tx.room(o.(design.OnSheet).SheetID())
}

// The most that stands on one sheet: more takes long to draw and to look through.
const (
	mostItems = 50_000
	mostProse = 500_000 // bytes of notes and timing diagrams
)

// room says in a sentence when more stands on a sheet than can be drawn at ease.
func (tx *Tx) room(sheet design.ID) error {
	n, prose := 0, 0
	for _, o := range tx.Doc.ItemsOf(sheet) {
		n++
		switch o := o.(type) {
		case *design.Note:
			prose += len(o.Text)
		case *design.Timing:
			prose += len(o.Text)
		}
	}
	switch name := tx.Doc.Sheets[sheet].Name; {
	case n > mostItems:
		return fmt.Errorf("with this %d things would stand on the sheet %s; %d are the most", n, name, mostItems)
	case prose > mostProse:
		return fmt.Errorf("with this the notes and timing diagrams on the sheet %s would have %d characters; %d are the most", name, prose, mostProse)
	}
	return nil
}

// AddPicture keeps a picture's file in the project and shows it on a sheet. The file's name
// is for people; what it is, is read from its content.
type AddPicture struct {
	Sheet design.ID  `json:"sheet"`
	Name  string     `json:"name"`
	Data  []byte     `json:"data"`
	At    geom.Point `json:"at"`    // lower left corner
	Width int64      `json:"width"` // on the sheet; 0: 60 mm
}

// Apply the command.
func (c *AddPicture) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
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
	if c.Width == 0 {
		c.Width = 60_000_000
	}
	return tx.Put(&design.Picture{ID: tx.Doc.NewID(), Sheet: c.Sheet, Asset: a.ID, At: c.At, Size: geom.Pt(c.Width, max(c.Width*int64(a.Height)/int64(a.Width), 1_000_000))})
}

// Drawn is the command that puts an object beside the circuit.
func Drawn(kind design.Kind, o design.Object) *DrawItem {
	data, _ := json.Marshal(o) // plain data always marshals
	return &DrawItem{Clipped{Kind: kind, Object: data}}
}
