package edit

import (
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/picture"
	"goldentrace/core/timing"
)

// Gate holds a document that comes from elsewhere, such as an imported file, against what the
// commands would have refused: pictures that cannot be shown safely, drawings that would take
// too long, more on a sheet or more uses of sheets than there can be. Pictures are cleaned as
// when they are added. It changes the document's pictures alone.
func Gate(d *design.Doc) error {
	for a := range d.Assets.All() {
		read := picture.Read
		switch a.Type {
		case "glb":
			read = picture.ReadBody
		case design.FontAsset:
			read = fontAsset
		}
		clean, err := read(a.Name, a.Data)
		if err != nil {
			return err
		}
		clean.ID = a.ID
		d.Put(clean)
	}
	for t := range d.Timings.All() {
		drawing, err := timing.Parse(t.Text)
		if err == nil {
			err = drawing.Fits(t.Slot)
		}
		if err != nil {
			return fmt.Errorf("a timing diagram (id %d) cannot be drawn: %w", t.ID, err)
		}
	}
	tx := &Tx{Doc: d}
	for id := range d.Sheets {
		if err := tx.room(id); err != nil {
			return err
		}
	}
	if n := len(circuit.TreeOf(d).Uses); n >= circuit.MostUses {
		return fmt.Errorf("sheets are used more than %d times", circuit.MostUses)
	}
	return nil
}
