package design

import (
	"fmt"
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
	for _, k := range RuleKinds {
		if d.Base(k) == nil {
			return fmt.Errorf("the project has no rule of the %s that holds for everything", k.Words())
		}
	}
	return nil
}

// Refers checks that all an object refers to is in the document. Cost: O(1), but O(blocks) for
// a block.
func (d *Doc) Refers(o Object) error {
	if on, ok := o.(OnSheet); ok && d.Sheets[on.SheetID()] == nil {
		return fmt.Errorf("a %s (id %d) stands on a sheet that is not there", o.ObjectKind(), o.ObjectID())
	}
	if k := of[o.ObjectKind()]; k.refers != nil {
		return k.refers(d, o)
	}
	return nil
}

func (l *LibraryPart) refers(d *Doc) error {
	for _, name := range append(slices.Clone(l.Units), l.Symbol) {
		if d.Symbol(name) == nil {
			return fmt.Errorf("the library part %s has the symbol %q, which is not in the project", l.Name, name)
		}
	}
	return nil
}

func (f *Footprint) refers(d *Doc) error {
	if f.Beneath != nil && d.Assets[f.Beneath.Asset] == nil {
		return fmt.Errorf("the picture beneath the footprint %s is not in the project", f.Name)
	}
	return check(f.Model == 0 || d.Assets[f.Model] != nil, "the body in space of the footprint %s is not in the project", f.Name)
}

func (b *SheetBlock) refers(d *Doc) error {
	if d.Sheets[b.Of] == nil {
		return fmt.Errorf("the block %s stands for a sheet that is not there", b.Name)
	}
	if d.Within(b.Sheet, b.Of) {
		return fmt.Errorf("the block %s makes the sheet %s stand within itself", b.Name, d.Sheets[b.Of].Name)
	}
	return nil
}

func (p *Placed) refers(d *Doc) error {
	if d.Footprint(p.Footprint) == nil {
		return fmt.Errorf("the part %s on the board has the footprint %q, which is not in the project", p.Designator, p.Footprint)
	}
	for pad, net := range p.Nets {
		if d.Nets[net] == nil {
			return fmt.Errorf("pad %s.%s bears a net that is not there", p.Designator, pad)
		}
	}
	return nil
}

func (t *Track) refers(d *Doc) error {
	return firstOf(check(t.Net == 0 || d.Nets[t.Net] != nil, "a track (id %d) bears a net that is not there", t.ID),
		check(d.position(t.Layer) >= 0, "a track (id %d) lies on a copper layer that is not there", t.ID))
}

func (v *Via) refers(d *Doc) error {
	from, to := d.position(v.From), d.position(v.To)
	return firstOf(check(v.Net == 0 || d.Nets[v.Net] != nil, "a via (id %d) bears a net that is not there", v.ID),
		check(from >= 0 && to >= 0, "a via (id %d) goes to a copper layer that is not there", v.ID),
		check(from < to, "a via (id %d) goes from copper layer %d to %d", v.ID, from+1, to+1))
}

func (a *RuleArea) refers(d *Doc) error {
	for _, l := range a.Layers {
		if d.position(l) < 0 {
			return fmt.Errorf("the area %s is on a copper layer that is not there", a.Name)
		}
	}
	return nil
}

func (d *Doc) position(l LayerID) int {
	if d.Board == nil {
		return -1
	}
	return d.Board.Position(l)
}

// layersLeft checks that no copper layer went, or changed places with another, that something still
// needs.
func (d *Doc) layersLeft(was, is *Board) error {
	if slices.EqualFunc(was.Copper(), is.Copper(), func(a, b StackLayer) bool { return a.ID == b.ID }) {
		return nil
	}
	return d.Whole()
}

// Left checks that nothing refers to an object that was taken out, or to what a changed one no
// longer gives.
func (d *Doc) Left(was, is Object) error {
	if k := of[was.ObjectKind()]; k.left != nil {
		return k.left(d, was, is)
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
	for _, k := range catalog {
		if k.name == nil {
			continue
		}
		seen := map[string]bool{}
		var err error
		d.tables[k.kind].each(func(o Object) bool {
			if n := k.name(o); seen[n] {
				err = fmt.Errorf("two %s are called %s", k.plural, n)
			} else {
				seen[n] = true
			}
			return err == nil
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// CheckID says what is wrong with an object's id: the objects there is one of have their own,
// all others lie between FirstFree and MaxID.
func CheckID(o Object) error {
	id, kind := o.ObjectID(), o.ObjectKind()
	if own := of[kind].single; own != 0 {
		return check(id == own, "the %s has the id %d instead of %d", kind, id, own)
	}
	return check(id >= FirstFree && id <= MaxID, "a %s has the id %d; ids lie between %d and %d", kind, id, FirstFree, MaxID)
}
