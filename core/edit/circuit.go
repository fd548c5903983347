package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/library"
)

// SetSettings changes what the title block and the project say; nil fields stay.
type SetSettings struct {
	Title    *string `json:"title,omitempty"`
	Number   *string `json:"number,omitempty"`
	Revision *string `json:"revision,omitempty"`
	Author   *string `json:"author,omitempty"`
	Date     *string `json:"date,omitempty"`
	Unit     *string `json:"unit,omitempty"`
}

func set[T any](to *T, from *T) {
	if from != nil {
		*to = *from
	}
}

// Apply the command.
func (c *SetSettings) Apply(tx *Tx) error {
	s := *tx.Doc.Settings
	set(&s.Title, c.Title)
	set(&s.Number, c.Number)
	set(&s.Revision, c.Revision)
	set(&s.Author, c.Author)
	set(&s.Date, c.Date)
	set(&s.Unit, c.Unit)
	if s == *tx.Doc.Settings {
		return nil
	}
	return tx.Put(&s)
}

// SetSheet changes a sheet's name or size.
type SetSheet struct {
	Sheet design.ID `json:"sheet"`
	Name  *string   `json:"name,omitempty"`
	Size  *string   `json:"size,omitempty"`
}

// Apply the command.
func (c *SetSheet) Apply(tx *Tx) error {
	old, err := tx.sheet(c.Sheet)
	if err != nil {
		return err
	}
	s := *old
	set(&s.Name, c.Name)
	set(&s.Size, c.Size)
	return tx.Put(&s)
}

// ensurePart takes a part of the shipped library into the project, with its symbol and
// footprint, unless it is there.
func (tx *Tx) ensurePart(name string) (*design.LibraryPart, error) {
	if l := tx.Doc.LibraryPart(name); l != nil {
		return l, nil
	}
	it, ok := library.Find(name)
	if !ok {
		return nil, fmt.Errorf("the library has no part called %q", name)
	}
	if tx.Doc.Symbol(it.Symbol.Name) == nil {
		if err := tx.Put(design.WithID(it.Symbol, tx.Doc.Take())); err != nil {
			return nil, err
		}
	}
	if err := tx.ensureFootprint(it.Part.Footprint); err != nil {
		return nil, err
	}
	l := design.WithID(it.Part, tx.Doc.Take()).(*design.LibraryPart)
	return l, tx.Put(l)
}

func (tx *Tx) ensureFootprint(name string) error {
	if name == "" || tx.Doc.Footprint(name) != nil {
		return nil
	}
	f := library.Footprint(name)
	if f == nil {
		return fmt.Errorf("the library has no footprint called %q", name)
	}
	return tx.Put(design.WithID(f, tx.Doc.Take()))
}

// PlacePart puts a part of the library on a sheet. Without a designator it takes the next
// free one of its prefix; without a value the library's.
type PlacePart struct {
	Sheet      design.ID  `json:"sheet"`
	Library    string     `json:"library"`
	At         geom.Point `json:"at"`
	Turn       int        `json:"turn,omitempty"`
	Mirror     bool       `json:"mirror,omitempty"`
	Designator string     `json:"designator,omitempty"`
	Value      *string    `json:"value,omitempty"`
}

// Apply the command.
func (c *PlacePart) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	l, err := tx.ensurePart(c.Library)
	if err != nil {
		return err
	}
	p := &design.Part{ID: tx.Doc.Take(), Sheet: c.Sheet, Library: l.Name, Designator: c.Designator, Value: l.Value,
		Footprint: l.Footprint, At: c.At, Turn: c.Turn, Mirror: c.Mirror}
	set(&p.Value, c.Value)
	if p.Designator == "" {
		p.Designator = tx.Doc.FreeDesignator(l.Prefix)
	} else if tx.Doc.DesignatorTaken(p.Designator) {
		return fmt.Errorf("there is already a part called %s", p.Designator)
	}
	return tx.Put(p)
}

// PlaceSupply puts a supply or ground mark on a sheet.
type PlaceSupply struct {
	Sheet design.ID  `json:"sheet"`
	Name  string     `json:"name"`
	Shape string     `json:"shape"`
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn,omitempty"`
}

// Apply the command.
func (c *PlaceSupply) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	return tx.Put(&design.Supply{ID: tx.Doc.Take(), Sheet: c.Sheet, Name: strings.TrimSpace(c.Name), Shape: c.Shape, At: c.At, Turn: c.Turn})
}

// PlaceLabel names the net at a place.
type PlaceLabel struct {
	Sheet design.ID  `json:"sheet"`
	Name  string     `json:"name"`
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn,omitempty"`
}

// Apply the command.
func (c *PlaceLabel) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	return tx.Put(&design.Label{ID: tx.Doc.Take(), Sheet: c.Sheet, Name: strings.TrimSpace(c.Name), At: c.At, Turn: c.Turn})
}

// PlaceOpenMark says that the pin at a place is left open on purpose.
type PlaceOpenMark struct {
	Sheet design.ID  `json:"sheet"`
	At    geom.Point `json:"at"`
}

// Apply the command.
func (c *PlaceOpenMark) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	for m := range tx.Doc.OpenMarks.All() {
		if m.Sheet == c.Sheet && m.At == c.At {
			return fmt.Errorf("there is a no-connect mark here already")
		}
	}
	return tx.Put(&design.OpenMark{ID: tx.Doc.Take(), Sheet: c.Sheet, At: c.At})
}

// DrawWire lays wires through the given places, in straight pieces.
type DrawWire struct {
	Sheet design.ID    `json:"sheet"`
	Path  []geom.Point `json:"path"`
}

// Apply the command.
func (c *DrawWire) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Path) < 2 || len(c.Path) > 1000 {
		return fmt.Errorf("a wire goes through 2 to 1000 places, not %d", len(c.Path))
	}
	put, remove := circuit.Line(tx.Nets().Views[c.Sheet], c.Path, tx.Doc.Take)
	for _, w := range remove {
		tx.Remove(w)
	}
	for _, w := range put {
		if err := tx.Put(w); err != nil {
			return err
		}
	}
	return nil
}

// selection sorts ids of circuit objects by what they are; all must be on one sheet.
func (tx *Tx) selection(ids []design.ID) (sheet design.ID, sel map[design.ID]bool, err error) {
	sel = map[design.ID]bool{}
	for _, id := range ids {
		var s design.ID
		switch o := tx.Doc.Get(id).(type) {
		case *design.Part:
			s = o.Sheet
		case *design.Wire:
			s = o.Sheet
		case *design.Label:
			s = o.Sheet
		case *design.Supply:
			s = o.Sheet
		case *design.OpenMark:
			s = o.Sheet
		default:
			return 0, nil, fmt.Errorf("something that was picked is not in the circuit any more (id %d)", id)
		}
		if sheet != 0 && s != sheet {
			return 0, nil, fmt.Errorf("what was picked lies on several sheets")
		}
		sheet, sel[id] = s, true
	}
	if len(sel) == 0 {
		return 0, nil, fmt.Errorf("nothing was picked")
	}
	return sheet, sel, nil
}

func (tx *Tx) move(ids []design.ID, motion circuit.Motion) error {
	sheet, sel, err := tx.selection(ids)
	if err != nil {
		return err
	}
	m := circuit.Move(tx.Doc, tx.Nets().Views[sheet], sel, motion, tx.Doc.Take)
	for _, o := range m.Remove {
		tx.Remove(o)
	}
	for _, o := range m.Put {
		if err := tx.Put(o); err != nil {
			return err
		}
	}
	return nil
}

// MoveItems moves things on a sheet; wires follow at right angles.
type MoveItems struct {
	IDs  []design.ID `json:"ids"`
	Step geom.Point  `json:"step"`
}

// Apply the command.
func (c *MoveItems) Apply(tx *Tx) error {
	if (c.Step == geom.Point{}) {
		return nil
	}
	return tx.move(c.IDs, circuit.By(c.Step))
}

// TurnItems turns things on a sheet by quarter turns anticlockwise about the pivot, after
// flipping them left to right when Mirror.
type TurnItems struct {
	IDs      []design.ID `json:"ids"`
	Pivot    geom.Point  `json:"pivot"`
	Quarters int         `json:"quarters,omitempty"`
	Mirror   bool        `json:"mirror,omitempty"`
}

// Apply the command.
func (c *TurnItems) Apply(tx *Tx) error {
	if c.Quarters < -3 || c.Quarters > 3 {
		return fmt.Errorf("%d quarter turns are more than a whole one", c.Quarters)
	}
	return tx.move(c.IDs, circuit.Turned(c.Pivot, c.Quarters, c.Mirror))
}

// SetPart changes a part's designator, value or footprint; nil fields stay.
type SetPart struct {
	ID         design.ID `json:"id"`
	Designator *string   `json:"designator,omitempty"`
	Value      *string   `json:"value,omitempty"`
	Footprint  *string   `json:"footprint,omitempty"`
}

// Apply the command.
func (c *SetPart) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Parts, c.ID, "part")
	if err != nil {
		return err
	}
	p := *old
	if c.Designator != nil && *c.Designator != p.Designator {
		p.Designator = strings.TrimSpace(*c.Designator)
		if tx.Doc.DesignatorTaken(p.Designator) {
			return fmt.Errorf("there is already a part called %s", p.Designator)
		}
	}
	set(&p.Value, c.Value)
	if c.Footprint != nil {
		p.Footprint = strings.TrimSpace(*c.Footprint)
		if err := tx.ensureFootprint(p.Footprint); err != nil {
			return err
		}
	}
	if p == *old {
		return nil
	}
	return tx.Put(&p)
}

// RenameLabel gives a label or supply mark another name.
type RenameLabel struct {
	ID   design.ID `json:"id"`
	Name string    `json:"name"`
}

// Apply the command.
func (c *RenameLabel) Apply(tx *Tx) error {
	name := strings.TrimSpace(c.Name)
	switch o := tx.Doc.Get(c.ID).(type) {
	case *design.Label:
		l := *o
		l.Name = name
		return tx.Put(&l)
	case *design.Supply:
		s := *o
		s.Name = name
		return tx.Put(&s)
	}
	return fmt.Errorf("there is no such label any more (id %d)", c.ID)
}

// MoveText moves the designator or value of a part in the circuit, in the sheet's
// directions, relative to the part's origin; without a place it goes back to its usual one.
type MoveText struct {
	ID   design.ID   `json:"id"`
	Text string      `json:"text"` // designator or value
	At   *geom.Point `json:"at,omitempty"`
}

// Apply the command.
func (c *MoveText) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Parts, c.ID, "part")
	if err != nil {
		return err
	}
	p := *old
	switch c.Text {
	case "designator":
		p.DesignatorAt = c.At
	case "value":
		p.ValueAt = c.At
	default:
		return fmt.Errorf("a part has no text called %q", c.Text)
	}
	return tx.Put(&p)
}
