package edit

import (
	"fmt"
	"maps"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// AddSheet adds a sheet at the end. Without a name it is called by its number; without a
// size it is as large as the last one.
type AddSheet struct {
	Name string `json:"name,omitempty"`
	Size string `json:"size,omitempty"`
}

// Apply the command.
func (c *AddSheet) Apply(tx *Tx) error {
	_, err := tx.addSheet(c.Name, c.Size)
	return err
}

func (tx *Tx) addSheet(name, size string) (*design.Sheet, error) {
	all := tx.Doc.SheetsInOrder()
	last := all[len(all)-1]
	s := &design.Sheet{ID: tx.Doc.NewID(), Name: strings.TrimSpace(name), Size: size, Order: last.Order + 1}
	if s.Size == "" {
		s.Size = last.Size
	}
	for n := len(all) + 1; s.Name == ""; n++ {
		if free := fmt.Sprintf("Sheet %d", n); tx.sheetNamed(free) == nil {
			s.Name = free
		}
	}
	if tx.sheetNamed(s.Name) != nil {
		return nil, fmt.Errorf("there is already a sheet called %s", s.Name)
	}
	return s, tx.Put(s)
}

func (tx *Tx) sheetNamed(name string) *design.Sheet {
	for s := range tx.Doc.Sheets.All() {
		if s.Name == name {
			return s
		}
	}
	return nil
}

// SetSheet changes a sheet's name, size or entries of its title block; nil fields stay. An
// entry with an empty text goes back to the project's.
type SetSheet struct {
	Sheet  design.ID         `json:"sheet"`
	Name   *string           `json:"name,omitempty"`
	Size   *string           `json:"size,omitempty"`
	Fields map[string]string `json:"fields,omitempty"`
}

// Apply the command.
func (c *SetSheet) Apply(tx *Tx) error {
	old, err := tx.sheet(c.Sheet)
	if err != nil {
		return err
	}
	s := *old
	set(&s.Size, c.Size)
	if c.Name != nil && strings.TrimSpace(*c.Name) != s.Name {
		s.Name = strings.TrimSpace(*c.Name)
		if tx.sheetNamed(s.Name) != nil {
			return fmt.Errorf("there is already a sheet called %s", s.Name)
		}
	}
	s.Fields = maps.Clone(old.Fields)
	for k, v := range c.Fields {
		switch {
		case strings.TrimSpace(v) == "":
			delete(s.Fields, k)
		case s.Fields == nil:
			s.Fields = map[string]string{k: v}
		default:
			s.Fields[k] = v
		}
	}
	if len(s.Fields) == 0 {
		s.Fields = nil
	}
	if s.Name == old.Name && s.Size == old.Size && maps.Equal(s.Fields, old.Fields) {
		return nil
	}
	return tx.Put(&s)
}

// OrderSheets puts the sheets in the order given; all must be named once.
type OrderSheets struct {
	Sheets []design.ID `json:"sheets"`
}

// Apply the command.
func (c *OrderSheets) Apply(tx *Tx) error {
	seen := map[design.ID]bool{}
	for i, id := range c.Sheets {
		old, err := tx.sheet(id)
		if err != nil {
			return err
		}
		if seen[id] {
			return fmt.Errorf("the sheet %s is named twice in the order", old.Name)
		}
		seen[id] = true
		if old.Order != i+1 {
			s := *old
			s.Order = i + 1
			if err := tx.Put(&s); err != nil {
				return err
			}
		}
	}
	if len(seen) != len(tx.Doc.Sheets) {
		return fmt.Errorf("the order names %d of %d sheets", len(seen), len(tx.Doc.Sheets))
	}
	return nil
}

// RemoveSheet takes a sheet away with all that stands on it.
type RemoveSheet struct {
	Sheet design.ID `json:"sheet"`
}

// Apply the command.
func (c *RemoveSheet) Apply(tx *Tx) error {
	s, err := tx.sheet(c.Sheet)
	if err != nil {
		return err
	}
	if len(tx.Doc.Sheets) == 1 {
		return fmt.Errorf("a project keeps at least one sheet; this is the last")
	}
	for _, b := range tx.Doc.Uses(c.Sheet) {
		return fmt.Errorf("the block %s on %s stands for this sheet; remove the block first", b.Name, tx.Doc.Sheets[b.Sheet].Name)
	}
	below := map[design.ID]bool{}
	for _, o := range tx.Doc.ItemsOf(c.Sheet) {
		tx.Remove(o)
		if b, ok := o.(*design.SheetBlock); ok {
			below[b.Of] = true
		}
	}
	tx.Remove(s)
	for of := range below {
		if err := tx.prune(of); err != nil {
			return err
		}
	}
	return nil
}

// PlaceBlock puts a block on a sheet that stands for another sheet. Without a sheet to stand
// for it makes a new one, called like the block. Its pins mirror that sheet's ports: what
// comes in stands on the left, all else on the right.
type PlaceBlock struct {
	Sheet design.ID   `json:"sheet"`
	Of    design.ID   `json:"of,omitempty"`
	Name  string      `json:"name,omitempty"`
	At    geom.Point  `json:"at"`
	Size  *geom.Point `json:"size,omitempty"`
}

const grid = 2_500_000

// Apply the command.
func (c *PlaceBlock) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	name := strings.TrimSpace(c.Name)
	if c.Of == 0 {
		s, err := tx.addSheet(name, "")
		if err != nil {
			return err
		}
		c.Of = s.ID
	}
	of, err := tx.sheet(c.Of)
	if err != nil {
		return err
	}
	if name == "" {
		name = tx.freeBlockName(c.Sheet, of.Name)
	}
	b := &design.SheetBlock{ID: tx.Doc.NewID(), Sheet: c.Sheet, Name: name, Of: c.Of, At: c.At}
	var left, right []design.BlockPin
	for _, p := range circuit.Ports(tx.Doc, c.Of) {
		pin := design.BlockPin{Name: p.Name, Way: p.Way}
		if p.Way == "in" {
			pin.Side = 2
			left = append(left, pin)
		} else {
			right = append(right, pin)
		}
	}
	rows := int64(max(len(left), len(right), 2) + 1)
	b.Size = geom.Pt(16*grid, rows*2*grid)
	if c.Size != nil {
		b.Size = geom.Pt(max(c.Size.X, 4*grid), max(c.Size.Y, rows*2*grid))
	}
	for _, side := range [][]design.BlockPin{left, right} {
		for i := range side {
			side[i].Pos = b.Size.Y - int64(i+1)*2*grid
		}
		b.Pins = append(b.Pins, side...)
	}
	return tx.putBlock(b)
}

func (tx *Tx) freeBlockName(sheet design.ID, base string) string {
	base = strings.ReplaceAll(base, "/", "-")
	taken := map[string]bool{}
	for _, o := range tx.Doc.ItemsOf(sheet) {
		if b, ok := o.(*design.SheetBlock); ok {
			taken[b.Name] = true
		}
	}
	name := base
	for n := 2; taken[name]; n++ {
		name = fmt.Sprintf("%s %d", base, n)
	}
	return name
}

// putBlock checks that a block is called by a name of its own on its sheet and does not
// make a sheet stand within itself, and gives the parts below it designators.
func (tx *Tx) putBlock(b *design.SheetBlock) error {
	for _, o := range tx.Doc.ItemsOf(b.Sheet) {
		if other, ok := o.(*design.SheetBlock); ok && other.ID != b.ID && other.Name == b.Name {
			c := *b
			c.Name = tx.freeBlockName(b.Sheet, b.Name)
			b = &c
		}
	}
	of := tx.Doc.Sheets[b.Of]
	if of == nil {
		return fmt.Errorf("the block %s stands for a sheet that is not in this project", b.Name)
	}
	if tx.Doc.Within(b.Sheet, b.Of) {
		return fmt.Errorf("%s cannot stand here: this sheet lies within it, and a sheet cannot stand within itself", of.Name)
	}
	if err := tx.Put(b); err != nil {
		return err
	}
	if n := len(circuit.TreeOf(tx.Doc).Uses); n >= circuit.MostUses {
		return fmt.Errorf("with this block sheets would be used more than %d times", circuit.MostUses)
	}
	return tx.below(b.Of, tx.callOthers)
}

// below calls f for every part on the sheet and on the sheets within it.
func (tx *Tx) below(sheet design.ID, f func(p *design.Part) error) error {
	seen := map[design.ID]bool{}
	todo := []design.ID{sheet}
	for len(todo) > 0 {
		s := todo[0]
		todo = todo[1:]
		if seen[s] {
			continue
		}
		seen[s] = true
		for _, o := range tx.Doc.ItemsOf(s) {
			switch o := o.(type) {
			case *design.SheetBlock:
				todo = append(todo, o.Of)
			case *design.Part:
				if err := f(o); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// prune forgets the designators of uses that are no more.
func (tx *Tx) prune(sheet design.ID) error {
	tree := circuit.TreeOf(tx.Doc)
	return tx.below(sheet, func(p *design.Part) error {
		q := *p
		q.Others = nil
		for path, name := range p.Others {
			if tree.Has(path, p.Sheet) {
				if q.Others == nil {
					q.Others = map[string]string{}
				}
				q.Others[path] = name
			}
		}
		if len(q.Others) == len(p.Others) {
			return nil
		}
		return tx.Put(&q)
	})
}

// SetBlock changes a block's name, size or pins; nil fields stay.
type SetBlock struct {
	ID   design.ID         `json:"id"`
	Name *string           `json:"name,omitempty"`
	At   *geom.Point       `json:"at,omitempty"`
	Size *geom.Point       `json:"size,omitempty"`
	Pins []design.BlockPin `json:"pins,omitempty"`
}

// Apply the command.
func (c *SetBlock) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Blocks, c.ID, "block")
	if err != nil {
		return err
	}
	b := *old
	set(&b.At, c.At)
	set(&b.Size, c.Size)
	if c.Name != nil {
		b.Name = strings.TrimSpace(*c.Name)
		for _, o := range tx.Doc.ItemsOf(b.Sheet) {
			if other, ok := o.(*design.SheetBlock); ok && other.ID != b.ID && other.Name == b.Name {
				return fmt.Errorf("there is already a block called %s on this sheet", b.Name)
			}
		}
	}
	if c.Pins != nil {
		b.Pins = c.Pins
	}
	if c.Size != nil { // pins on the far sides stay there; those that no longer fit come along
		for i, p := range b.Pins {
			along := b.Size.Y
			if p.Side&1 == 1 {
				along = b.Size.X
			}
			if p.Pos > along {
				pins := append([]design.BlockPin{}, b.Pins...)
				pins[i].Pos = along
				b.Pins = pins
			}
		}
	}
	return tx.Put(&b)
}

// MatchPort mends a pair of a block's pin and a port that lacks one half or differs. How:
// "add" makes the missing half, "drop" removes the one that is there, "way" takes the
// port's direction over to the pin.
type MatchPort struct {
	Block design.ID `json:"block"`
	Pin   string    `json:"pin"`
	How   string    `json:"how"`
}

// Apply the command.
func (c *MatchPort) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	if c.How == "addAll" {
		return c.addAll(tx, b)
	}
	var port *design.Port
	for _, p := range circuit.Ports(tx.Doc, b.Of) {
		if p.Name == c.Pin {
			port = p
		}
	}
	nth := -1
	for i, p := range b.Pins {
		if p.Name == c.Pin {
			nth = i
		}
	}
	switch {
	case port == nil && nth < 0:
		return fmt.Errorf("neither the block %s nor its sheet has %s any more", b.Name, c.Pin)
	case c.How == "add" && nth < 0:
		return tx.addPin(b, port)
	case c.How == "add" && port == nil:
		return tx.addPort(b, b.Pins[nth])
	case c.How == "drop" && nth < 0:
		for _, o := range tx.Doc.ItemsOf(b.Of) {
			if p, ok := o.(*design.Port); ok && p.Name == c.Pin {
				tx.Remove(p)
			}
		}
		return nil
	case c.How == "drop" && port == nil:
		q := *b
		q.Pins = append(append([]design.BlockPin{}, b.Pins[:nth]...), b.Pins[nth+1:]...)
		return tx.Put(&q)
	case c.How == "way" && port != nil && nth >= 0:
		q := *b
		q.Pins = append([]design.BlockPin{}, b.Pins...)
		q.Pins[nth].Way = port.Way
		return tx.Put(&q)
	}
	return fmt.Errorf("there is nothing to mend between %s and %s", b.Name, c.Pin)
}

// addAll adds what lacks on either side: a pin for each port, a port for each pin.
func (c *MatchPort) addAll(tx *Tx, b *design.SheetBlock) error {
	ports, pins := map[string]bool{}, map[string]bool{}
	for _, p := range b.Pins {
		pins[p.Name] = true
	}
	added := 0
	for _, p := range circuit.Ports(tx.Doc, b.Of) {
		ports[p.Name] = true
		if !pins[p.Name] {
			added++
			if err := tx.addPin(tx.Doc.Blocks[b.ID], p); err != nil {
				return err
			}
		}
	}
	for _, p := range b.Pins {
		if !ports[p.Name] {
			added++
			if err := tx.addPort(tx.Doc.Blocks[b.ID], p); err != nil {
				return err
			}
		}
	}
	if added == 0 {
		return fmt.Errorf("there is nothing to mend between %s and its sheet", b.Name)
	}
	return nil
}

// addPin mirrors a port on the block, in the first free place of its side; the block grows
// downwards when there is none.
func (tx *Tx) addPin(b *design.SheetBlock, port *design.Port) error {
	q := *b
	pin := design.BlockPin{Name: port.Name, Way: port.Way}
	if port.Way == "in" {
		pin.Side = 2
	}
	taken := map[int64]bool{}
	for _, p := range b.Pins {
		if p.Side == pin.Side {
			taken[p.Pos] = true
		}
	}
	for pin.Pos = q.Size.Y - 2*grid; pin.Pos > 0 && taken[pin.Pos]; pin.Pos -= 2 * grid {
	}
	q.Pins = append([]design.BlockPin{}, b.Pins...)
	if pin.Pos <= 0 {
		grow := int64(2 * grid)
		q.Size.Y += grow
		q.At.Y -= grow
		for i := range q.Pins {
			if q.Pins[i].Side&1 == 0 {
				q.Pins[i].Pos += grow
			}
		}
		pin.Pos += grow
		if pin.Pos <= 0 {
			pin.Pos = grid
		}
	}
	q.Pins = append(q.Pins, pin)
	return tx.Put(&q)
}

// addPort mirrors a pin of a block as a port on its sheet, below the ports that are there.
func (tx *Tx) addPort(b *design.SheetBlock, pin design.BlockPin) error {
	at := geom.Pt(10*grid, 60*grid)
	for _, p := range circuit.Ports(tx.Doc, b.Of) {
		if (p.Way == "in") == (pin.Way == "in") {
			at = geom.Pt(p.At.X, p.At.Y-2*grid)
		}
	}
	turn := 0
	if pin.Way == "in" {
		turn = 2
	}
	return tx.Put(&design.Port{ID: tx.Doc.NewID(), Sheet: b.Of, Name: pin.Name, Way: pin.Way, At: at, Turn: turn})
}
