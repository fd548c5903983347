package design

import (
	"cmp"
	"iter"
	"maps"
	"slices"
)

// Ids of the objects of which there is one.
const (
	SettingsID ID = 1
	BoardID    ID = 2
	ChecksID   ID = 3
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

// table is what all tables can do, whatever they hold.
type table interface {
	get(ID) Object
	put(Object)
	drop(ID)
	each(yield func(Object) bool) bool
}

func (t Table[T]) get(id ID) Object {
	if o, ok := t[id]; ok {
		return o
	}
	return nil
}

func (t Table[T]) put(o Object) { t[o.ObjectID()] = o.(T) }
func (t Table[T]) drop(id ID)   { delete(t, id) }

func (t Table[T]) each(yield func(Object) bool) bool {
	for o := range t.All() {
		if !yield(o) {
			return false
		}
	}
	return true
}

// Doc is one project's document.
type Doc struct {
	Next         ID // the next free id
	Settings     *Settings
	Checks       *Checks // nil: the usual severities
	Board        *Board
	Sheets       Table[*Sheet]
	Symbols      Table[*Symbol]
	Footprints   Table[*Footprint]
	LibraryParts Table[*LibraryPart]
	Assets       Table[*Asset]
	Parts        Table[*Part]
	Wires        Table[*Wire]
	Labels       Table[*Label]
	Ports        Table[*Port]
	Taps         Table[*Tap]
	Supplies     Table[*Supply]
	OpenMarks    Table[*OpenMark]
	Blocks       Table[*SheetBlock]
	Clusters     Table[*Cluster]
	Notes        Table[*Note]
	Pictures     Table[*Picture]
	Timings      Table[*Timing]
	Graphics     Table[*Graphic]
	NetSpecs     Table[*NetSpec]
	Excuses      Table[*Excuse]
	Placed       Table[*Placed]
	Tracks       Table[*Track]
	Vias         Table[*Via]
	Holes        Table[*Hole]
	Legends      Table[*Legend]

	tables  map[Kind]table
	kindOf  map[ID]Kind
	lookups lookups
}

// Empty is a document without any object.
func Empty() *Doc {
	d := &Doc{
		Next: FirstFree, kindOf: map[ID]Kind{}, lookups: newLookups(),
		Sheets:       Table[*Sheet]{},
		Symbols:      Table[*Symbol]{},
		Footprints:   Table[*Footprint]{},
		LibraryParts: Table[*LibraryPart]{},
		Assets:       Table[*Asset]{},
		Parts:        Table[*Part]{},
		Wires:        Table[*Wire]{},
		Labels:       Table[*Label]{},
		Ports:        Table[*Port]{},
		Taps:         Table[*Tap]{},
		Supplies:     Table[*Supply]{},
		OpenMarks:    Table[*OpenMark]{},
		Blocks:       Table[*SheetBlock]{},
		Clusters:     Table[*Cluster]{},
		Notes:        Table[*Note]{},
		Pictures:     Table[*Picture]{},
		Timings:      Table[*Timing]{},
		Graphics:     Table[*Graphic]{},
		NetSpecs:     Table[*NetSpec]{},
		Excuses:      Table[*Excuse]{},
		Placed:       Table[*Placed]{},
		Tracks:       Table[*Track]{},
		Vias:         Table[*Via]{},
		Holes:        Table[*Hole]{},
		Legends:      Table[*Legend]{},
	}
	d.tables = map[Kind]table{
		KindSheet:       d.Sheets,
		KindSymbol:      d.Symbols,
		KindFootprint:   d.Footprints,
		KindLibraryPart: d.LibraryParts,
		KindAsset:       d.Assets,
		KindPart:        d.Parts,
		KindWire:        d.Wires,
		KindLabel:       d.Labels,
		KindPort:        d.Ports,
		KindTap:         d.Taps,
		KindSupply:      d.Supplies,
		KindOpenMark:    d.OpenMarks,
		KindBlock:       d.Blocks,
		KindCluster:     d.Clusters,
		KindNote:        d.Notes,
		KindPicture:     d.Pictures,
		KindTiming:      d.Timings,
		KindShape:       d.Graphics,
		KindNetSpec:     d.NetSpecs,
		KindExcuse:      d.Excuses,
		KindPlaced:      d.Placed,
		KindTrack:       d.Tracks,
		KindVia:         d.Vias,
		KindHole:        d.Holes,
		KindLegend:      d.Legends,
	}
	return d
}

// New is the document a project starts with: one A4 sheet and a board of two copper layers
// with rules that every fabricator can keep, no outline drawn.
func New(title string) *Doc {
	d := Empty()
	d.Put(&Settings{ID: SettingsID, Title: title, Revision: "A", Unit: "mm"})
	d.Put(&Board{ID: BoardID, Stack: TwoLayers(), Rules: UsualRules()})
	d.Put(&Sheet{ID: d.NewID(), Name: "Sheet 1", Order: 1, Size: "A4"})
	return d
}

// TwoLayers is the usual stack of a two-sided board of 1.6 mm with 35 µm copper.
func TwoLayers() []StackLayer {
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

// NewID gives out the next free id.
func (d *Doc) NewID() ID {
	id := d.Next
	d.Next++
	return id
}

// Get is the object with the id, or nil.
func (d *Doc) Get(id ID) Object {
	if k, ok := d.kindOf[id]; ok {
		return d.GetKind(k, id)
	}
	return nil
}

// GetKind is the object with the kind and id, or nil.
func (d *Doc) GetKind(kind Kind, id ID) Object {
	switch {
	case kind == KindSettings && d.Settings != nil && d.Settings.ID == id:
		return d.Settings
	case kind == KindChecks && d.Checks != nil && d.Checks.ID == id:
		return d.Checks
	case kind == KindBoard && d.Board != nil && d.Board.ID == id:
		return d.Board
	}
	if t, ok := d.tables[kind]; ok {
		return t.get(id)
	}
	return nil
}

// Put stores the object under its id, in place of the one that was there. Only core/edit
// and the readers of files call it.
func (d *Doc) Put(o Object) {
	id := o.ObjectID()
	if old := d.GetKind(o.ObjectKind(), id); old != nil {
		d.lookups.drop(old)
	}
	d.Next = max(d.Next, id+1)
	d.kindOf[id] = o.ObjectKind()
	switch o := o.(type) {
	case *Settings:
		d.Settings = o
	case *Checks:
		d.Checks = o
	case *Board:
		d.Board = o
	default:
		d.tables[o.ObjectKind()].put(o)
	}
	d.lookups.put(o)
}

// Remove takes the object out.
func (d *Doc) Remove(kind Kind, id ID) {
	old := d.GetKind(kind, id)
	if old == nil {
		return
	}
	d.lookups.drop(old)
	delete(d.kindOf, id)
	switch kind {
	case KindSettings:
		d.Settings = nil
	case KindChecks:
		d.Checks = nil
	case KindBoard:
		d.Board = nil
	default:
		d.tables[kind].drop(id)
	}
}

// All gives every object, kind by kind in the order of a file, each kind in the order of ids.
func (d *Doc) All() iter.Seq[Object] {
	return func(yield func(Object) bool) {
		for _, k := range catalog {
			var single Object
			switch {
			case k.kind == KindSettings && d.Settings != nil:
				single = d.Settings
			case k.kind == KindChecks && d.Checks != nil:
				single = d.Checks
			case k.kind == KindBoard && d.Board != nil:
				single = d.Board
			}
			if single != nil && !yield(single) {
				return
			}
			if t, ok := d.tables[k.kind]; ok && !t.each(yield) {
				return
			}
		}
	}
}

// SheetsInOrder lists the sheets as the reader turns them.
func (d *Doc) SheetsInOrder() []*Sheet {
	return slices.SortedFunc(maps.Values(d.Sheets), func(a, b *Sheet) int {
		return cmp.Or(cmp.Compare(a.Order, b.Order), cmp.Compare(a.ID, b.ID))
	})
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
