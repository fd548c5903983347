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
	BasketID   ID = 4
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
	// share makes other hold the same objects, until one of both changes
	share(other table)
}

// cell is the place of a table in a document. A table that is shared with another document is copied
// before it is written to.
type cell[T Object] struct {
	at     *Table[T]
	shared bool
}

func (c *cell[T]) own() Table[T] {
	if c.shared {
		*c.at, c.shared = maps.Clone(*c.at), false
	}
	return *c.at
}

func (c *cell[T]) get(id ID) Object {
	if o, ok := (*c.at)[id]; ok {
		return o
	}
	return nil
}

func (c *cell[T]) put(o Object) { c.own()[o.ObjectID()] = o.(T) }
func (c *cell[T]) drop(id ID)   { delete(c.own(), id) }

func (c *cell[T]) share(other table) {
	o := other.(*cell[T])
	*o.at, o.shared, c.shared = *c.at, true, true
}

func (c *cell[T]) each(yield func(Object) bool) bool {
	for o := range c.at.All() {
		if !yield(o) {
			return false
		}
	}
	return true
}

// Doc is one project's document.
type Doc struct {
	Next ID // the next free id
	// GUID names the project among all projects, wherever its files go (RFC 9562); empty: it was not kept yet. It is no object: it stays
	// for good, and a copy of the project has another.
	GUID         string
	Settings     *Settings
	Checks       *Checks // nil: the usual severities
	Board        *Board
	Basket       *Basket // nil: the usual one
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
	Nets         Table[*Net]
	Excuses      Table[*Excuse]
	RuleAreas    Table[*RuleArea]
	Rules        Table[*Rule]
	Placed       Table[*Placed]
	Tracks       Table[*Track]
	Vias         Table[*Via]
	Holes        Table[*Hole]
	Legends      Table[*Legend]
	Figures      Table[*BoardFigure]
	Dimensions   Table[*BoardDimension]
	Pours        Table[*Pour]
	Stitchings   Table[*Stitching]
	LayerSets    Table[*LayerSet]
	Tints        Table[*Tint]
	Houses       Table[*House]

	tables  map[Kind]table
	kindOf  map[ID]Kind
	lookups lookups
}

// alone is the place of the one object there is of a kind.
type alone[T Object] struct{ at *T }

func (a *alone[T]) get(id ID) Object {
	if o := *a.at; any(o) != any(*new(T)) && o.ObjectID() == id {
		return o
	}
	return nil
}

func (a *alone[T]) put(o Object) { *a.at = o.(T) }
func (a *alone[T]) drop(ID)      { *a.at = *new(T) }

func (a *alone[T]) share(other table) { *other.(*alone[T]).at = *a.at }

func (a *alone[T]) each(yield func(Object) bool) bool {
	if o := *a.at; any(o) != any(*new(T)) {
		return yield(o)
	}
	return true
}

// Empty is a document without any object.
func Empty() *Doc {
	d := &Doc{Next: FirstFree, kindOf: map[ID]Kind{}, lookups: newLookups(), tables: make(map[Kind]table, len(catalog))}
	for _, k := range catalog {
		d.tables[k.kind] = k.open(d)
	}
	return d
}

// New is the document a project starts with: one A4 sheet and a board of two copper layers
// with rules that every fabricator can keep, no outline drawn.
func New(title string) *Doc {
	d := Empty()
	d.Put(&Settings{ID: SettingsID, Title: title, Revision: "A", Unit: "mm"})
	d.Put(Board{ID: BoardID}.Stacked(TwoLayers()))
	d.Put(&Sheet{ID: d.NewID(), Name: "Sheet 1", Order: 1, Size: "A4"})
	d.SetBase(Usual())
	return d
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
	if t, ok := d.tables[kind]; ok {
		return t.get(id)
	}
	return nil
}

// Put stores the object under its id, in place of the one that was there. Only core/edit
// and the readers of files call it.
func (d *Doc) Put(o Object) {
	id, kind := o.ObjectID(), o.ObjectKind()
	if old := d.GetKind(kind, id); old != nil {
		d.lookups.change(old, false)
	}
	d.Next = max(d.Next, id+1)
	d.kindOf[id] = kind
	d.tables[kind].put(o)
	d.lookups.change(o, true)
}

// Remove takes the object out.
func (d *Doc) Remove(kind Kind, id ID) {
	old := d.GetKind(kind, id)
	if old == nil {
		return
	}
	d.lookups.change(old, false)
	delete(d.kindOf, id)
	d.tables[kind].drop(id)
}

// All gives every object, kind by kind in the order of a file, each kind in the order of ids.
func (d *Doc) All() iter.Seq[Object] {
	return func(yield func(Object) bool) {
		for _, k := range catalog {
			if !d.tables[k.kind].each(yield) {
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

// Asset with the id, or nil.
func (d *Doc) Asset(id ID) *Asset { return d.Assets[id] }

// Asset with the id, or nil.
func (s Shared) Asset(id ID) *Asset { return s.doc.Assets[id] }

// Shared is a document as it was at a moment. Its objects and tables are the document's own: a table is
// copied when the document next changes it.
type Shared struct{ doc *Doc }

// Share keeps the document as it is now, at a cost that does not follow its size.
func (d *Doc) Share() Shared {
	c := Empty()
	for kind, t := range d.tables {
		t.share(c.tables[kind])
	}
	c.Next, c.GUID = d.Next, d.GUID
	return Shared{c}
}

// All gives its objects of some kinds, kind by kind as named, each in the order of ids. Another goroutine may go
// through them while the document changes.
func (s Shared) All(kinds ...Kind) iter.Seq[Object] {
	return func(yield func(Object) bool) {
		for _, k := range kinds {
			if !s.doc.tables[k].each(yield) {
				return
			}
		}
	}
}

// Doc makes a document of it that can be asked and changed by itself; another goroutine may do so. Cost:
// the size of the document. It is to be called once.
func (s Shared) Doc() *Doc {
	for o := range s.doc.All() {
		s.doc.kindOf[o.ObjectID()] = o.ObjectKind()
		s.doc.lookups.change(o, true)
	}
	return s.doc
}

// Snapshot is a copy that later changes do not reach; the objects themselves are shared,
// since they never change.
func (d *Doc) Snapshot() *Doc { return d.Share().Doc() }
