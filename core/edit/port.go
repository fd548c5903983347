package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// PlacePort puts a port on a sheet, which carries a net to the blocks that stand for it.
type PlacePort struct {
	Sheet design.ID  `json:"sheet"`
	Name  string     `json:"name"`
	Way   string     `json:"way"` // in, out or both
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn,omitempty"`
}

// Apply the command.
func (c *PlacePort) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	return tx.Put(&design.Port{ID: tx.Doc.NewID(), Sheet: c.Sheet, Name: strings.TrimSpace(c.Name), Way: c.Way, At: c.At, Turn: c.Turn})
}

// PlaceTaps leads members out of a bundle, one by one: the first tap stands at At, each
// further one Step away; a wire of the given length goes on from each, with the name of its
// member on it.
type PlaceTaps struct {
	Sheet   design.ID  `json:"sheet"`
	Members []string   `json:"members"`
	At      geom.Point `json:"at"`
	Step    geom.Point `json:"step"`
	Turn    int        `json:"turn,omitempty"`
	Wire    geom.Point `json:"wire"` // from each tap's end; zero: none
}

// Apply the command.
func (c *PlaceTaps) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Members) == 0 {
		return fmt.Errorf("no member was named to be led out of the bundle")
	}
	if len(c.Members) > design.MostMembers {
		return fmt.Errorf("%d taps at once are too many; %d is the most", len(c.Members), design.MostMembers)
	}
	if len(c.Members) > 1 && (c.Step == geom.Point{}) {
		return fmt.Errorf("%d taps cannot stand in one place", len(c.Members))
	}
	at := c.At
	for _, m := range c.Members {
		t := &design.Tap{ID: tx.Doc.NewID(), Sheet: c.Sheet, Member: strings.TrimSpace(m), At: at, Turn: c.Turn}
		if err := tx.Put(t); err != nil {
			return err
		}
		if (c.Wire != geom.Point{}) {
			if err := tx.Put(&design.Wire{ID: tx.Doc.NewID(), Sheet: c.Sheet, A: t.End(), B: t.End().Add(c.Wire)}); err != nil {
				return err
			}
		}
		at = at.Add(c.Step)
	}
	return nil
}

// SetName gives one label, port, tap or supply mark another name. A port's pins on the
// blocks of its sheet go by the port's name and take it too.
type SetName struct {
	ID   design.ID `json:"id"`
	Name string    `json:"name"`
}

// Apply the command.
func (c *SetName) Apply(tx *Tx) error {
	o, ok := tx.Doc.Get(c.ID).(design.OnSheet)
	if !ok {
		return fmt.Errorf("there is no such label any more (id %d)", c.ID)
	}
	return tx.setName(o, strings.TrimSpace(c.Name))
}

func (tx *Tx) setName(o design.OnSheet, name string) error {
	if old := bundleName(o); old != "" && design.IsBundle(name) && old != name {
		return tx.renameBundle(o.SheetID(), old, name)
	}
	switch o := o.(type) {
	case *design.Label:
		l := *o
		l.Name = name
		return tx.Put(&l)
	case *design.Supply:
		s := *o
		s.Name = name
		return tx.Put(&s)
	case *design.Tap:
		t := *o
		t.Member = name
		return tx.Put(&t)
	case *design.Port:
		return tx.renamePort(o, name)
	case *design.Cluster:
		k := *o
		k.Title = name
		return tx.Put(&k)
	case *design.SheetBlock:
		return (&SetBlock{ID: o.ID, Name: &name}).Apply(tx)
	}
	return fmt.Errorf("a %s bears no name", o.ObjectKind())
}

// bundleName is the name of a label or port of a bundle, else empty.
func bundleName(o design.OnSheet) string {
	name := ""
	switch o := o.(type) {
	case *design.Label:
		name = o.Name
	case *design.Port:
		name = o.Name
	}
	if design.IsBundle(name) {
		return name
	}
	return ""
}

// renamePins gives the pins that mirror a port its new name.
func (tx *Tx) renamePins(sheet design.ID, old, name string) error {
	for _, b := range tx.Doc.Uses(sheet) {
		for i, p := range b.Pins {
			if p.Name != old {
				continue
			}
			q := *b
			q.Pins = append([]design.BlockPin{}, b.Pins...)
			q.Pins[i].Name = name
			if err := tx.Put(&q); err != nil {
				return err
			}
			break
		}
	}
	return nil
}

// SetPort changes a port's direction.
type SetPort struct {
	ID  design.ID `json:"id"`
	Way string    `json:"way"`
}

// Apply the command: the pins that mirror the port take its direction too.
func (c *SetPort) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Ports, c.ID, "port")
	if err != nil {
		return err
	}
	p := *old
	p.Way = c.Way
	if err := tx.Put(&p); err != nil {
		return err
	}
	for _, b := range tx.Doc.Uses(p.Sheet) {
		for i, pin := range b.Pins {
			if pin.Name == p.Name && pin.Way != p.Way {
				q := *b
				q.Pins = append([]design.BlockPin{}, b.Pins...)
				q.Pins[i].Way = p.Way
				if err := tx.Put(&q); err != nil {
					return err
				}
				break
			}
		}
	}
	return nil
}

// SetSupply changes the shape of a supply mark, or whether the supply comes in there; nil
// fields stay.
type SetSupply struct {
	ID    design.ID `json:"id"`
	Shape *string   `json:"shape,omitempty"`
	Feeds *bool     `json:"feeds,omitempty"`
}

// Apply the command.
func (c *SetSupply) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Supplies, c.ID, "supply mark")
	if err != nil {
		return err
	}
	s := *old
	set(&s.Shape, c.Shape)
	set(&s.Feeds, c.Feeds)
	if s == *old {
		return nil
	}
	return tx.Put(&s)
}
