package design

import "fmt"

// Whole checks that everything the objects refer to is there.
func (d *Doc) Whole() error {
	if d.Settings == nil || d.Settings.ID != SettingsID {
		return fmt.Errorf("the project has no settings")
	}
	if d.Board == nil || d.Board.ID != BoardID {
		return fmt.Errorf("the project has no board")
	}
	if len(d.Sheets) == 0 {
		return fmt.Errorf("the project has no sheet")
	}
	for o := range d.All() {
		if o, ok := o.(OnSheet); ok && d.Sheets[o.SheetID()] == nil {
			return fmt.Errorf("a %s (id %d) stands on a sheet that is not there", o.ObjectKind(), o.ObjectID())
		}
	}
	for p := range d.Parts.All() {
		if d.SymbolOf(p) == nil {
			return fmt.Errorf("the part %s is a %q, which is not among the project's library parts", p.Designator, p.Library)
		}
	}
	for b := range d.Blocks.All() {
		if d.Sheets[b.Of] == nil {
			return fmt.Errorf("the block %s stands for a sheet that is not there", b.Name)
		}
		if d.Within(b.Sheet, b.Of) {
			return fmt.Errorf("the block %s makes the sheet %s stand within itself", b.Name, d.Sheets[b.Of].Name)
		}
	}
	for p := range d.Pictures.All() {
		if d.Assets[p.Asset] == nil {
			return fmt.Errorf("a picture (id %d) is not in the project", p.ID)
		}
	}
	return d.boardWhole()
}

func (d *Doc) boardWhole() error {
	copper := len(d.Board.CopperNames())
	for p := range d.Placed.All() {
		if d.Footprint(p.Footprint) == nil {
			return fmt.Errorf("the part %s on the board has the footprint %q, which is not in the project", p.Designator, p.Footprint)
		}
	}
	for t := range d.Tracks.All() {
		if t.Layer >= copper {
			return fmt.Errorf("a track (id %d) lies on copper layer %d of %d", t.ID, t.Layer+1, copper)
		}
	}
	for v := range d.Vias.All() {
		if v.To >= copper {
			return fmt.Errorf("a via (id %d) goes to copper layer %d of %d", v.ID, v.To+1, copper)
		}
	}
	return nil
}
