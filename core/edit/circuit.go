package edit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/library"
)

// symbolFor is the symbol of a part of the project or of the library, or of a unit of it; nil when
// there is none.
func symbolFor(d *design.Doc, from library.Source, name string, unit int) *design.Symbol {
	if d.LibraryPart(name) != nil {
		return d.SymbolOf(&design.Part{Library: name, Unit: unit})
	}
	it, ok := from.Find(name)
	switch {
	case !ok:
		return nil
	case unit >= 1 && unit <= len(it.Units):
		return it.Units[unit-1]
	}
	return it.Symbol
}

// PlacePart puts a part of the library on a sheet. Without a designator it takes the next
// free one of its prefix; without a value the library's. A part with two pins that are both
// dropped on one wire is put into the wire.
type PlacePart struct {
	Sheet      design.ID  `json:"sheet"`
	Library    string     `json:"library"`
	At         geom.Point `json:"at"`
	Turn       int        `json:"turn,omitempty"`
	Mirror     bool       `json:"mirror,omitempty"`
	Designator string     `json:"designator,omitempty"`
	Unit       int        `json:"unit,omitempty"` // of a package with several; 0: the next free one
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
	p := &design.Part{ID: tx.Doc.NewID(), Sheet: c.Sheet, Library: l.Name, Designator: c.Designator, Unit: c.Unit, Value: l.Value,
		Footprint: l.Footprint, At: c.At, Turn: c.Turn, Mirror: c.Mirror}
	set(&p.Value, c.Value)
	if p.Unit > len(l.Units) {
		return fmt.Errorf("%s has %d units; there is no unit %d", l.Name, len(l.Units), p.Unit)
	}
	if len(l.Units) > 0 {
		tx.nextUnit(l, p)
	}
	if p.Designator == "" {
		p.Designator = tx.Doc.FreeDesignator(l.Prefix)
	} else if err := cmp.Or(designatorForm(p.Designator), tx.mayBeCalled(p, p.Designator)); err != nil {
		return err
	}
	if err := tx.Put(p); err != nil {
		return err
	}
	if err := tx.callOthers(p); err != nil {
		return err
	}
	return tx.putIntoWire(p)
}

// nextUnit chooses designator and unit of a part of a package with several: the first unit
// that a package of the kind still lacks, else the first of a new package.
func (tx *Tx) nextUnit(l *design.LibraryPart, p *design.Part) {
	has := map[string]map[int]bool{}
	for q := range tx.Doc.Parts.All() {
		if q.Library == l.Name && q.Unit > 0 {
			if has[q.Designator] == nil {
				has[q.Designator] = map[int]bool{}
			}
			has[q.Designator][q.Unit] = true
		}
	}
	fits := func(name string) int {
		for u := 1; u <= len(l.Units); u++ {
			if !has[name][u] && (p.Unit == 0 || p.Unit == u) {
				return u
			}
		}
		return 0
	}
	if p.Designator == "" {
		for _, name := range slices.SortedFunc(maps.Keys(has), circuit.CompareNatural) {
			if u := fits(name); u > 0 {
				p.Designator, p.Unit = name, u
				return
			}
		}
	}
	if u := fits(p.Designator); u > 0 {
		p.Unit = u
	}
	p.Unit = max(p.Unit, 1)
}

// mayBeCalled refuses a designator that another part bears, unless both are units of one
// package.
func (tx *Tx) mayBeCalled(p *design.Part, name string) error {
	for _, q := range tx.Doc.Bearers(name) {
		if q.ID == p.ID {
			continue
		}
		if p.Unit == 0 || q.Library != p.Library || q.Unit == p.Unit {
			return fmt.Errorf("there is already a part called %s", name)
		}
	}
	return nil
}

// callOthers gives a part on a sheet that is used more than once a designator for every
// further use.
func (tx *Tx) callOthers(p *design.Part) error {
	places := circuit.TreeOf(tx.Doc).Of(p.Sheet)
	if len(places) < 2 {
		return nil
	}
	var lacking []string // paths of uses without a designator
	first := true
	for _, place := range places {
		if _, ok := p.Others[place.Path]; ok {
			continue
		}
		if first {
			first = false
			continue
		}
		lacking = append(lacking, place.Path)
	}
	if len(lacking) == 0 {
		return nil
	}
	q := *p
	q.Others = maps.Clone(p.Others)
	if q.Others == nil {
		q.Others = map[string]string{}
	}
	free := tx.Doc.FreeDesignators(design.Prefix(p.Designator), len(lacking))
	for i, path := range lacking {
		q.Others[path] = free[i]
		if name, ok := tx.sharedName(p, path); ok {
			q.Others[path] = name
		}
	}
	return tx.Put(&q)
}

// sharedName is the designator that another unit of the part's package bears in a further use;
// units that share one in the first use share one in the others.
func (tx *Tx) sharedName(p *design.Part, path string) (string, bool) {
	if p.Unit > 0 {
		for _, q := range tx.Doc.Bearers(p.Designator) {
			if name, ok := q.Others[path]; ok && q.ID != p.ID && q.Unit > 0 {
				return name, true
			}
		}
	}
	return "", false
}

// putIntoWire cuts the wire on which both pins of a part stand, so that the part is in it.
func (tx *Tx) putIntoWire(p *design.Part) error {
	sym := tx.Doc.SymbolOf(p)
	if len(sym.Pins) != 2 {
		return nil
	}
	a, b := circuit.PinPlace(p, &sym.Pins[0]), circuit.PinPlace(p, &sym.Pins[1])
	for _, w := range circuit.Under(tx.Nets().Views[p.Sheet], a, b) {
		if geom.BoxOf(w.A, a).Holds(b) { // b comes first on the way from A
			a, b = b, a
		}
		tx.Remove(w)
		for _, piece := range [][2]geom.Point{{w.A, a}, {b, w.B}} {
			if piece[0] != piece[1] {
				if err := tx.Put(&design.Wire{ID: tx.Doc.NewID(), Sheet: w.Sheet, A: piece[0], B: piece[1]}); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// PlaceSupply puts a supply or ground mark on a sheet.
type PlaceSupply struct {
	Sheet design.ID  `json:"sheet"`
	Name  string     `json:"name"`
	Shape string     `json:"shape"`
	Feeds bool       `json:"feeds,omitempty"`
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn,omitempty"`
}

// Apply the command.
func (c *PlaceSupply) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	return tx.Put(&design.Supply{ID: tx.Doc.NewID(), Sheet: c.Sheet, Name: strings.TrimSpace(c.Name), Shape: c.Shape, Feeds: c.Feeds, At: c.At, Turn: c.Turn})
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
	return tx.Put(&design.Label{ID: tx.Doc.NewID(), Sheet: c.Sheet, Name: strings.TrimSpace(c.Name), At: c.At, Turn: c.Turn})
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
	for _, o := range tx.Doc.ItemsOf(c.Sheet) {
		if m, ok := o.(*design.OpenMark); ok && m.At == c.At {
			return fmt.Errorf("there is a no-connect mark here already")
		}
	}
	return tx.Put(&design.OpenMark{ID: tx.Doc.NewID(), Sheet: c.Sheet, At: c.At})
}

// DrawWire lays wires, or a bundle, through the given places, in straight pieces.
type DrawWire struct {
	Sheet  design.ID    `json:"sheet"`
	Path   []geom.Point `json:"path"`
	Bundle bool         `json:"bundle,omitempty"`
}

// Apply the command.
func (c *DrawWire) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Path) < 2 || len(c.Path) > 1000 {
		return fmt.Errorf("a wire goes through 2 to 1000 places, not %d", len(c.Path))
	}
	put, remove := circuit.Line(tx.Nets().Views[c.Sheet], c.Path, c.Bundle, tx.Doc.NewID)
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
		o, ok := tx.Doc.Get(id).(design.OnSheet)
		if !ok {
			return 0, nil, fmt.Errorf("something that was picked is not in the circuit any more (id %d)", id)
		}
		s := o.SheetID()
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
	m := circuit.Move(tx.Doc, tx.Nets().Views[sheet], sel, motion, tx.Doc.NewID)
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
