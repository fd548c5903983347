package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// RenameNet gives a net another name wherever its name stands: labels, ports with the pins
// that mirror them, supply marks; on the board too. A net nobody named gets a label. Taking the name of
// another net joins the two, which is refused unless Join says that it is meant.
type RenameNet struct {
	Net  string `json:"net"`
	To   string `json:"to"`
	Join bool   `json:"join,omitempty"`
}

// Apply the command.
func (c *RenameNet) Apply(tx *Tx) error {
	nets := tx.Nets()
	net := nets.ByName[c.Net]
	to := strings.TrimSpace(c.To)
	switch {
	case net == nil:
		return fmt.Errorf("there is no net called %s any more", c.Net)
	case to == "":
		return fmt.Errorf("the net's name is empty")
	case design.IsBundle(to):
		return fmt.Errorf("%s would be a bundle; a net has one name", to)
	case to == c.Net:
		return nil
	case nets.ByName[to] != nil && !c.Join:
		return fmt.Errorf("there is already a net called %s; renaming would join %s and %s", to, c.Net, to)
	}
	by := nets.NamingOf(net)
	if by.Bundle != "" {
		return fmt.Errorf("%s is a member of the bundle %s; rename the bundle", by.Name, by.Bundle)
	}
	for _, id := range by.Items {
		if o, ok := tx.Doc.Get(id).(design.OnSheet); ok {
			if err := tx.setName(o, to); err != nil {
				return err
			}
		}
	}
	if len(by.Items) == 0 {
		if err := tx.labelWire(by.Wires, to); err != nil {
			return err
		}
	}
	if n := tx.Doc.NetNamed(c.Net); n != nil && tx.Doc.NetNamed(to) == nil {
		q := *n
		q.Name = to // its copper and what is said of it go along
		return tx.Put(&q)
	}
	return nil
}

// labelWire names the longest of the wires at its middle.
func (tx *Tx) labelWire(wires []design.ID, name string) error {
	var longest *design.Wire
	for _, id := range wires {
		if w := tx.Doc.Wires[id]; w != nil && (longest == nil || w.A.Dist(w.B) > longest.A.Dist(longest.B)) {
			longest = w
		}
	}
	if longest == nil {
		return fmt.Errorf("the net has no wire yet to bear a name; draw one from its pin, or put a label there")
	}
	at := longest.A
	turn := 0
	switch {
	case longest.A.Y == longest.B.Y:
		at, turn = geom.Pt((longest.A.X+longest.B.X)/2/grid*grid, longest.A.Y), 1
		if !geom.BoxOf(longest.A, longest.B).Holds(at) {
			at = longest.A
		}
	case longest.A.X == longest.B.X:
		at = geom.Pt(longest.A.X, (longest.A.Y+longest.B.Y)/2/grid*grid)
		if !geom.BoxOf(longest.A, longest.B).Holds(at) {
			at = longest.A
		}
	}
	return tx.Put(&design.Label{ID: tx.Doc.NewID(), Sheet: longest.Sheet, Name: name, At: at, Turn: turn})
}

// SetNets says what nets are for; nil fields stay, and a net of which nothing is said any
// more has no entry. Partners are always partners of each other.
type SetNets struct {
	Nets      []string `json:"nets"`
	Class     *string  `json:"class,omitempty"`
	Current   *int64   `json:"current,omitempty"`   // µA
	Voltage   *int64   `json:"voltage,omitempty"`   // µV
	Impedance *int64   `json:"impedance,omitempty"` // mΩ
	Partner   *string  `json:"partner,omitempty"`   // for one net
}

// Apply the command.
func (c *SetNets) Apply(tx *Tx) error {
	if c.Partner != nil && len(c.Nets) != 1 {
		return fmt.Errorf("a partner is chosen for one net at a time, not for %d", len(c.Nets))
	}
	for _, net := range c.Nets {
		if err := tx.say(net, func(n *design.Net) {
			set(&n.Class, c.Class)
			set(&n.Current, c.Current)
			set(&n.Voltage, c.Voltage)
			set(&n.Impedance, c.Impedance)
		}); err != nil {
			return err
		}
	}
	if c.Partner == nil {
		return nil
	}
	return tx.pair(c.Nets[0], *c.Partner)
}

// say changes what is said of the net with the name. A net of which nothing is said, and which nothing
// on the board bears, is kept no longer.
func (tx *Tx) say(name string, change func(*design.Net)) error {
	old := tx.Doc.NetNamed(name)
	n := design.Net{Name: name}
	if old != nil {
		n = *old
	}
	change(&n)
	switch {
	case old == nil && n.Silent():
		return nil
	case old == nil:
		n.ID = tx.Doc.NewID()
	case n == *old:
		return nil
	case n.Silent() && tx.Doc.Borne(n.ID) == 0:
		tx.Remove(old)
		return nil
	}
	return tx.Put(&n)
}

// netNamed is the net with the name; one that nothing is known of yet is made.
func (tx *Tx) netNamed(name string) (*design.Net, error) {
	if n := tx.Doc.NetNamed(name); n != nil {
		return n, nil
	}
	n := &design.Net{ID: tx.Doc.NewID(), Name: name}
	return n, tx.Put(n)
}

// pair makes two nets the halves of a differential pair; an empty partner parts them.
func (tx *Tx) pair(net, partner string) error {
	if partner != "" && tx.Nets().ByName[partner] == nil {
		return fmt.Errorf("there is no net called %s", partner)
	}
	for _, name := range []string{net, partner} {
		n := tx.Doc.NetNamed(name)
		if name == "" || n == nil || n.Partner == 0 {
			continue
		}
		other := tx.Doc.NetName(n.Partner)
		for _, alone := range []string{name, other} {
			if err := tx.say(alone, func(o *design.Net) { o.Partner = 0 }); err != nil {
				return err
			}
		}
	}
	if partner == "" {
		return nil
	}
	a, err := tx.netNamed(net)
	if err != nil {
		return err
	}
	b, err := tx.netNamed(partner)
	if err != nil {
		return err
	}
	if err := tx.say(net, func(n *design.Net) { n.Partner = b.ID }); err != nil {
		return err
	}
	return tx.say(partner, func(n *design.Net) { n.Partner = a.ID })
}

// PairNets makes differential pairs of nets, all in one step.
type PairNets struct {
	Pairs [][2]string `json:"pairs"`
}

// Apply the command.
func (c *PairNets) Apply(tx *Tx) error {
	for _, p := range c.Pairs {
		if err := tx.pair(p[0], p[1]); err != nil {
			return err
		}
	}
	return nil
}
