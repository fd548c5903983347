package design

import (
	"cmp"
	"fmt"
	"iter"
	"maps"
	"slices"
)

// Ids of the objects of which there is one.
const (
	SettingsID ID = 1
	BoardID    ID = 2
	FirstFree  ID = 10
)

// Table holds the objects of one kind by id.
type Table[T Object] map[ID]T

// All gives the objects in the order of their ids.
func (t Table[T]) All() iter.Seq[T] {
	return func(yield func(T) bool) {
		for _, id := range slices.Sorted(maps.Keys(t)) {
			if !yield(t[id]) {
				return
			}
		}
	}
}

// Doc is one project's document.
type Doc struct {
	Next         ID // the next free id
	Settings     *Settings
	Board        *Board
	Sheets       Table[*Sheet]
	Symbols      Table[*Symbol]
	Footprints   Table[*Footprint]
	LibraryParts Table[*LibraryPart]
	Parts        Table[*Part]
	Wires        Table[*Wire]
	Labels       Table[*Label]
	Supplies     Table[*Supply]
	OpenMarks    Table[*OpenMark]
	Placed       Table[*Placed]
	Tracks       Table[*Track]
	Vias         Table[*Via]
	Holes        Table[*Hole]
	Legends      Table[*Legend]

	symbolNamed    map[string]*Symbol
	footprintNamed map[string]*Footprint
	partNamed      map[string]*LibraryPart
	placedOf       map[ID]*Placed
	designators    map[string]int
}

// Empty is a document without any object.
func Empty() *Doc {
	return &Doc{
		Next: FirstFree, Sheets: Table[*Sheet]{}, Symbols: Table[*Symbol]{}, Footprints: Table[*Footprint]{},
		LibraryParts: Table[*LibraryPart]{}, Parts: Table[*Part]{}, Wires: Table[*Wire]{}, Labels: Table[*Label]{},
		Supplies: Table[*Supply]{}, OpenMarks: Table[*OpenMark]{}, Placed: Table[*Placed]{}, Tracks: Table[*Track]{},
		Vias: Table[*Via]{}, Holes: Table[*Hole]{}, Legends: Table[*Legend]{},
		symbolNamed: map[string]*Symbol{}, footprintNamed: map[string]*Footprint{}, partNamed: map[string]*LibraryPart{},
		placedOf: map[ID]*Placed{}, designators: map[string]int{},
	}
}

// New is the document a project starts with: one A4 sheet and a board of two copper sheets
// with rules that every fabricator can keep, no outline drawn.
func New(title string) *Doc {
	d := Empty()
	d.Put(&Settings{ID: SettingsID, Title: title, Revision: "A", Unit: "mm"})
	d.Put(&Board{ID: BoardID, Stack: TwoSheets(), Rules: UsualRules()})
	d.Put(&Sheet{ID: d.Take(), Name: "Sheet 1", Order: 1, Size: "A4"})
	return d
}

// TwoSheets is the usual stack of a two-sided board of 1.6 mm with 35 µm copper.
func TwoSheets() []StackLayer {
	return []StackLayer{
		{Name: "Top", Copper: true, Thickness: 35_000, Material: "Copper"},
		{Name: "Core", Thickness: 1_530_000, Material: "FR-4"},
		{Name: "Bottom", Copper: true, Thickness: 35_000, Material: "Copper"},
	}
}

// UsualRules are easy for any fabricator of two-sided boards.
func UsualRules() Rules {
	return Rules{
		Clearance: 200_000, EdgeClearance: 300_000, HoleClearance: 250_000, TrackWidth: 400_000, LeastWidth: 150_000,
		LeastHole: 300_000, LeastRing: 150_000, ViaDiameter: 800_000, ViaHole: 400_000, MaskMargin: 50_000,
		PasteMargin: 0, SilkWidth: 150_000,
	}
}

// Take gives out the next free id.
func (d *Doc) Take() ID {
	id := d.Next
	d.Next++
	return id
}

// Get is the object with the id, or nil.
func (d *Doc) Get(id ID) Object {
	for _, k := range order {
		if o := d.GetKind(k, id); o != nil {
			return o
		}
	}
	return nil
}

// order lists the kinds as they stand in a file: what others refer to comes first.
var order = []Kind{
	KindSettings, KindSheet, KindSymbol, KindFootprint, KindLibraryPart, KindPart, KindWire, KindLabel, KindSupply,
	KindOpenMark, KindBoard, KindPlaced, KindTrack, KindVia, KindHole, KindLegend,
}

func find[T Object](t Table[T], id ID) Object {
	if o, ok := t[id]; ok {
		return o
	}
	return nil
}

// GetKind is the object with the kind and id, or nil.
func (d *Doc) GetKind(kind Kind, id ID) Object {
	switch kind {
	case KindSettings:
		if d.Settings != nil && d.Settings.ID == id {
			return d.Settings
		}
	case KindBoard:
		if d.Board != nil && d.Board.ID == id {
			return d.Board
		}
	case KindSheet:
		return find(d.Sheets, id)
	case KindSymbol:
		return find(d.Symbols, id)
	case KindFootprint:
		return find(d.Footprints, id)
	case KindLibraryPart:
		return find(d.LibraryParts, id)
	case KindPart:
		return find(d.Parts, id)
	case KindWire:
		return find(d.Wires, id)
	case KindLabel:
		return find(d.Labels, id)
	case KindSupply:
		return find(d.Supplies, id)
	case KindOpenMark:
		return find(d.OpenMarks, id)
	case KindPlaced:
		return find(d.Placed, id)
	case KindTrack:
		return find(d.Tracks, id)
	case KindVia:
		return find(d.Vias, id)
	case KindHole:
		return find(d.Holes, id)
	case KindLegend:
		return find(d.Legends, id)
	}
	return nil
}

// Put stores the object under its id, in place of the one that was there. Only core/edit
// and the readers of files call it.
func (d *Doc) Put(o Object) {
	d.forget(o.ObjectKind(), o.ObjectID())
	if o.ObjectID() >= d.Next {
		d.Next = o.ObjectID() + 1
	}
	switch o := o.(type) {
	case *Settings:
		d.Settings = o
	case *Board:
		d.Board = o
	case *Sheet:
		d.Sheets[o.ID] = o
	case *Symbol:
		d.Symbols[o.ID] = o
		d.symbolNamed[o.Name] = o
	case *Footprint:
		d.Footprints[o.ID] = o
		d.footprintNamed[o.Name] = o
	case *LibraryPart:
		d.LibraryParts[o.ID] = o
		d.partNamed[o.Name] = o
	case *Part:
		d.Parts[o.ID] = o
		d.designators[o.Designator]++
	case *Wire:
		d.Wires[o.ID] = o
	case *Label:
		d.Labels[o.ID] = o
	case *Supply:
		d.Supplies[o.ID] = o
	case *OpenMark:
		d.OpenMarks[o.ID] = o
	case *Placed:
		d.Placed[o.ID] = o
		d.placedOf[o.Part] = o
	case *Track:
		d.Tracks[o.ID] = o
	case *Via:
		d.Vias[o.ID] = o
	case *Hole:
		d.Holes[o.ID] = o
	case *Legend:
		d.Legends[o.ID] = o
	}
}

// forget takes the old object's entries out of the lookups.
func (d *Doc) forget(kind Kind, id ID) {
	switch kind {
	case KindSymbol:
		if o, ok := d.Symbols[id]; ok {
			delete(d.symbolNamed, o.Name)
		}
	case KindFootprint:
		if o, ok := d.Footprints[id]; ok {
			delete(d.footprintNamed, o.Name)
		}
	case KindLibraryPart:
		if o, ok := d.LibraryParts[id]; ok {
			delete(d.partNamed, o.Name)
		}
	case KindPart:
		if o, ok := d.Parts[id]; ok {
			if d.designators[o.Designator]--; d.designators[o.Designator] == 0 {
				delete(d.designators, o.Designator)
			}
		}
	case KindPlaced:
		if o, ok := d.Placed[id]; ok && d.placedOf[o.Part] == o {
			delete(d.placedOf, o.Part)
		}
	}
}

// Remove takes the object out.
func (d *Doc) Remove(kind Kind, id ID) {
	d.forget(kind, id)
	switch kind {
	case KindSettings:
		d.Settings = nil
	case KindBoard:
		d.Board = nil
	case KindSheet:
		delete(d.Sheets, id)
	case KindSymbol:
		delete(d.Symbols, id)
	case KindFootprint:
		delete(d.Footprints, id)
	case KindLibraryPart:
		delete(d.LibraryParts, id)
	case KindPart:
		delete(d.Parts, id)
	case KindWire:
		delete(d.Wires, id)
	case KindLabel:
		delete(d.Labels, id)
	case KindSupply:
		delete(d.Supplies, id)
	case KindOpenMark:
		delete(d.OpenMarks, id)
	case KindPlaced:
		delete(d.Placed, id)
	case KindTrack:
		delete(d.Tracks, id)
	case KindVia:
		delete(d.Vias, id)
	case KindHole:
		delete(d.Holes, id)
	case KindLegend:
		delete(d.Legends, id)
	}
}

func each[T Object](t Table[T], yield func(Object) bool) bool {
	for o := range t.All() {
		if !yield(o) {
			return false
		}
	}
	return true
}

// All gives every object, kind by kind, each kind in the order of ids.
func (d *Doc) All() iter.Seq[Object] {
	return func(yield func(Object) bool) {
		if d.Settings != nil && !yield(d.Settings) {
			return
		}
		if d.Board != nil && !yield(d.Board) {
			return
		}
		_ = each(d.Sheets, yield) && each(d.Symbols, yield) && each(d.Footprints, yield) && each(d.LibraryParts, yield) &&
			each(d.Parts, yield) && each(d.Wires, yield) && each(d.Labels, yield) && each(d.Supplies, yield) &&
			each(d.OpenMarks, yield) && each(d.Placed, yield) && each(d.Tracks, yield) && each(d.Vias, yield) &&
			each(d.Holes, yield) && each(d.Legends, yield)
	}
}

// Symbol by name, or nil.
func (d *Doc) Symbol(name string) *Symbol { return d.symbolNamed[name] }

// Footprint by name, or nil.
func (d *Doc) Footprint(name string) *Footprint { return d.footprintNamed[name] }

// LibraryPart by name, or nil.
func (d *Doc) LibraryPart(name string) *LibraryPart { return d.partNamed[name] }

// PlacedOf is the board's side of a part of the circuit, or nil.
func (d *Doc) PlacedOf(part ID) *Placed { return d.placedOf[part] }

// SymbolOf the part; nil when its library item is missing.
func (d *Doc) SymbolOf(p *Part) *Symbol {
	if l := d.LibraryPart(p.Library); l != nil {
		return d.Symbol(l.Symbol)
	}
	return nil
}

// DesignatorTaken tells whether a part of the circuit bears the designator.
func (d *Doc) DesignatorTaken(s string) bool { return d.designators[s] > 0 }

// FreeDesignator is the prefix with the least number no part bears.
func (d *Doc) FreeDesignator(prefix string) string {
	for n := 1; ; n++ {
		if s := fmt.Sprintf("%s%d", prefix, n); !d.DesignatorTaken(s) {
			return s
		}
	}
}

// SheetsInOrder lists the sheets as the reader turns them.
func (d *Doc) SheetsInOrder() []*Sheet {
	return slices.SortedFunc(maps.Values(d.Sheets), func(a, b *Sheet) int {
		return cmp.Or(cmp.Compare(a.Order, b.Order), cmp.Compare(a.ID, b.ID))
	})
}

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
	for p := range d.Parts.All() {
		if d.Sheets[p.Sheet] == nil {
			return fmt.Errorf("the part %s stands on a sheet that is not there", p.Designator)
		}
		if d.SymbolOf(p) == nil {
			return fmt.Errorf("the part %s is a %q, which is not among the project's library parts", p.Designator, p.Library)
		}
	}
	for w := range d.Wires.All() {
		if d.Sheets[w.Sheet] == nil {
			return fmt.Errorf("a wire (id %d) lies on a sheet that is not there", w.ID)
		}
	}
	for l := range d.Labels.All() {
		if d.Sheets[l.Sheet] == nil {
			return fmt.Errorf("the label %s stands on a sheet that is not there", l.Name)
		}
	}
	for s := range d.Supplies.All() {
		if d.Sheets[s.Sheet] == nil {
			return fmt.Errorf("the supply %s stands on a sheet that is not there", s.Name)
		}
	}
	for o := range d.OpenMarks.All() {
		if d.Sheets[o.Sheet] == nil {
			return fmt.Errorf("a no-connect mark (id %d) stands on a sheet that is not there", o.ID)
		}
	}
	copper := len(d.Board.CopperNames())
	for p := range d.Placed.All() {
		if d.Footprint(p.Footprint) == nil {
			return fmt.Errorf("the part %s on the board has the footprint %q, which is not in the project", p.Designator, p.Footprint)
		}
	}
	for t := range d.Tracks.All() {
		if t.Sheet >= copper {
			return fmt.Errorf("a track (id %d) lies on copper sheet %d of %d", t.ID, t.Sheet+1, copper)
		}
	}
	for v := range d.Vias.All() {
		if v.To >= copper {
			return fmt.Errorf("a via (id %d) goes to copper sheet %d of %d", v.ID, v.To+1, copper)
		}
	}
	return nil
}

// Snapshot is a copy that later changes do not reach; the objects themselves are shared,
// since they never change.
func (d *Doc) Snapshot() *Doc {
	c := Empty()
	for o := range d.All() {
		c.Put(o)
	}
	c.Next = d.Next
	return c
}
