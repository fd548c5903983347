package design

import (
	"fmt"
	"maps"
	"slices"
)

// MaxID is the greatest id: browsers hold whole numbers exactly up to it.
const MaxID ID = 1<<53 - 1

// Whole checks that everything the objects refer to is there.
func (d *Doc) Whole() error {
	if err := d.single(); err != nil {
		return err
	}
	for o := range d.All() {
		if err := d.Refers(o); err != nil {
			return err
		}
	}
	return nil
}

// single checks that the objects there is one of are there, and a sheet.
func (d *Doc) single() error {
	switch {
	case d.Settings == nil || d.Settings.ID != SettingsID:
		return fmt.Errorf("the project has no settings")
	case d.Board == nil || d.Board.ID != BoardID:
		return fmt.Errorf("the project has no board")
	case len(d.Sheets) == 0:
		return fmt.Errorf("the project has no sheet")
	}
	return nil
}

// Refers checks that all an object refers to is in the document. Cost: O(1), but O(blocks) for
// a block.
func (d *Doc) Refers(o Object) error {
	if on, ok := o.(OnSheet); ok && d.Sheets[on.SheetID()] == nil {
		return fmt.Errorf("a %s (id %d) stands on a sheet that is not there", o.ObjectKind(), o.ObjectID())
	}
	switch o := o.(type) {
	case *Part:
		if d.SymbolOf(o) == nil {
			return fmt.Errorf("the part %s is a %q, which is not among the project's library parts", o.Designator, o.Library)
		}
	case *LibraryPart:
		for _, name := range append(slices.Clone(o.Units), o.Symbol) {
			if d.Symbol(name) == nil {
				return fmt.Errorf("the library part %s has the symbol %q, which is not in the project", o.Name, name)
			}
		}
	case *SheetBlock:
		if d.Sheets[o.Of] == nil {
			return fmt.Errorf("the block %s stands for a sheet that is not there", o.Name)
		}
		if d.Within(o.Sheet, o.Of) {
			return fmt.Errorf("the block %s makes the sheet %s stand within itself", o.Name, d.Sheets[o.Of].Name)
		}
	case *Picture:
		if d.Assets[o.Asset] == nil {
			return fmt.Errorf("a picture (id %d) is not in the project", o.ID)
		}
	case *Placed:
		if d.Footprint(o.Footprint) == nil {
			return fmt.Errorf("the part %s on the board has the footprint %q, which is not in the project", o.Designator, o.Footprint)
		}
	case *Track:
		if n := d.copper(); o.Layer >= n {
			return fmt.Errorf("a track (id %d) lies on copper layer %d of %d", o.ID, o.Layer+1, n)
		}
	case *Via:
		if n := d.copper(); o.To >= n {
			return fmt.Errorf("a via (id %d) goes to copper layer %d of %d", o.ID, o.To+1, n)
		}
	}
	return nil
}

func (d *Doc) copper() int {
	if d.Board == nil {
		return 0
	}
	return len(d.Board.CopperNames())
}

// Left checks that nothing refers to an object that was taken out, or to what a changed one no
// longer gives.
func (d *Doc) Left(was, is Object) error {
	switch was := was.(type) {
	case *Settings:
		if is == nil {
			return fmt.Errorf("the project's settings cannot be removed")
		}
	case *Board:
		if is == nil {
			return fmt.Errorf("the board cannot be removed")
		}
		if len(is.(*Board).CopperNames()) < len(was.CopperNames()) {
			return d.Whole()
		}
	case *Sheet:
		if is == nil && len(d.ItemsOf(was.ID))+len(d.Uses(was.ID)) > 0 {
			return fmt.Errorf("something still stands on the sheet %s, or for it", was.Name)
		}
	case *Asset, *Symbol, *Footprint, *LibraryPart:
		if is == nil { // rare: by undoing what brought them
			return d.Whole()
		}
	}
	return nil
}

// Sound takes out whatever refers to something that is not there, until all is whole, and tells
// what it took out. It serves projects of which something could not be read.
func (d *Doc) Sound() (gone []string) {
	for changed := true; changed; {
		changed = false
		for _, o := range slices.Collect(d.All()) {
			if err := d.Refers(o); err != nil {
				d.Remove(o.ObjectKind(), o.ObjectID())
				gone = append(gone, err.Error())
				changed = true
			}
		}
	}
	return gone
}

// MostObjects bounds a project.
const MostObjects = 1_000_000

// Distinct checks that what goes by its name has a name of its own.
func (d *Doc) Distinct() error {
	seen := map[Kind]map[string]bool{}
	for o := range d.All() {
		what, name := "", ""
		switch o := o.(type) {
		case *Sheet:
			what, name = "sheets", o.Name
		case *Symbol:
			what, name = "symbols", o.Name
		case *Footprint:
			what, name = "footprints", o.Name
		case *LibraryPart:
			what, name = "library parts", o.Name
		default:
			continue
		}
		k := o.ObjectKind()
		if seen[k] == nil {
			seen[k] = map[string]bool{}
		}
		if seen[k][name] {
			return fmt.Errorf("two %s are called %s", what, name)
		}
		seen[k][name] = true
	}
	return nil
}

// singles are the ids of the objects there is one of.
var singles = map[Kind]ID{KindSettings: SettingsID, KindBoard: BoardID, KindChecks: ChecksID}

// CheckID says what is wrong with an object's id: the objects there is one of have their own,
// all others lie between FirstFree and MaxID.
func CheckID(o Object) error {
	id, kind := o.ObjectID(), o.ObjectKind()
	if own, ok := singles[kind]; ok {
		if id != own {
			return fmt.Errorf("the %s has the id %d instead of %d", kind, id, own)
		}
		return nil
	}
	if slices.Contains(slices.Collect(maps.Values(singles)), id) || id < FirstFree || id > MaxID {
		return fmt.Errorf("a %s has the id %d; ids lie between %d and %d", kind, id, FirstFree, MaxID)
	}
	return nil
}
