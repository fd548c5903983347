package edit

import (
	"fmt"
	"reflect"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/house"
	"goldentrace/core/units"
)

// SetLayers gives the board another number of copper layers: new ones come in above the lowest, the
// lowest inner ones go. A layer on which something lies is not taken away.
type SetLayers struct {
	Copper int `json:"copper"`
}

// Apply the command.
func (c *SetLayers) Apply(tx *Tx) error {
	if c.Copper == tx.Doc.Board.Layers() {
		return nil
	}
	b, drop, err := tx.Doc.Board.WithLayers(c.Copper)
	if err != nil {
		return err
	}
	if err := tx.spare(drop); err != nil {
		return err
	}
	return tx.Put(b)
}

// spare checks that nothing lies on layers that are to go.
func (tx *Tx) spare(drop []design.StackLayer) error {
	if len(drop) == 0 {
		return nil
	}
	on := tx.Doc.OnLayers()
	for _, l := range drop {
		if what := on[l.ID].String(); what != "" {
			return fmt.Errorf("the layer %s holds %s; remove that first, or keep the layer", l.Name, what)
		}
	}
	return nil
}

// PutStack gives the board the layers, from the top: those with the id of one there is are that one, those without are new, those
// that are not named go, which copper on which something lies does not. What lies on copper goes along with it to another place in
// the stack, unless that would join or part something.
type PutStack struct {
	Layers []design.StackLayer `json:"layers"`
	Wanted *int64              `json:"wanted,omitempty"` // how thick the board is to be; not said: as before
}

// Apply the command.
func (c *PutStack) Apply(tx *Tx) error {
	return tx.putStack(c.Layers, func(is *design.Board) { set(&is.Wanted, c.Wanted) })
}

// putStack gives the board the layers, and what else change says of it then.
func (tx *Tx) putStack(layers []design.StackLayer, change func(is *design.Board)) error {
	was := tx.Doc.Board
	for _, l := range layers {
		switch {
		case l.ID != 0 && was.Layer(l.ID) == nil:
			return fmt.Errorf("the stack has no layer with the id %d", l.ID)
		case l.ID != 0 && was.Layer(l.ID).Copper() != l.Copper():
			return notSo(&l)
		case l.Dielectric() && l.Thickness < units.Micrometre:
			return fmt.Errorf("%s lies between copper; it has to be 0.001 mm thick at least", l.Name)
		case l.Copper() && (l.Thickness < units.Micrometre || l.Thickness > units.MM):
			return fmt.Errorf("the copper of %s is %s thick; 0.001 to 1 mm are meant", l.Name, units.Text(l.Thickness))
		}
	}
	names := map[string]bool{}
	for _, l := range layers {
		if names[l.Name] {
			return fmt.Errorf("two layers are called %s; how would they be told apart", l.Name)
		}
		names[l.Name] = true
	}
	is := was.Stacked(layers)
	change(is)
	if err := is.Valid(); err != nil {
		return err
	}
	var drop []design.StackLayer
	for _, l := range was.Copper() {
		if is.Position(l.ID) < 0 {
			drop = append(drop, l)
		}
	}
	if err := tx.spare(drop); err != nil {
		return err
	}
	if err := tx.partsNothing(was, is); err != nil {
		return err
	}
	if reflect.DeepEqual(was, is) {
		return nil
	}
	if err := tx.Put(is); err != nil {
		return err
	}
	return tx.turned()
}

// notSo refuses a layer that is to be of something else.
func notSo(l *design.StackLayer) error {
	return fmt.Errorf("%s cannot become what it is not; remove the layer, and put another in its place", l.Name)
}

// partsNothing refuses a stack on which vias would pass layers of copper that they did not pass, or parts would stand on others.
func (tx *Tx) partsNothing(was, is *design.Board) error {
	if len(tx.Doc.Tracks)+len(tx.Doc.Vias)+len(tx.Doc.Pours) > 0 && (was.Top() != is.Top() || was.Bottom() != is.Bottom()) {
		return fmt.Errorf("the outer copper layers, %s and %s, stay outside while there is copper on the board, since the parts stand on them",
			was.Layer(was.Top()).Name, was.Layer(was.Bottom()).Name)
	}
	others := 0
	for _, v := range tx.Doc.Vias {
		for _, l := range was.Copper() {
			if at := is.Position(l.ID); at >= 0 && passes(was, v, was.Position(l.ID)) != passes(is, v, at) {
				others++
				break
			}
		}
	}
	if others > 0 {
		return fmt.Errorf("%s would pass other layers than now, and join what is on them; leave the layers they join in their order, or remove them first",
			counted(others, "via", "vias"))
	}
	return nil
}

// passes tells whether a via passes the copper layer at a position.
func passes(b *design.Board, v *design.Via, at int) bool {
	from, to := b.Position(v.From), b.Position(v.To)
	return at >= min(from, to) && at <= max(from, to)
}

// turned puts the ends of vias into the order that the layers have now.
func (tx *Tx) turned() error {
	for _, v := range tx.Doc.Vias {
		if b := tx.Doc.Board; b.Position(v.From) > b.Position(v.To) {
			if err := tx.Put(with(v, func(q *design.Via) { q.From, q.To = q.To, q.From })); err != nil {
				return err
			}
		}
	}
	return nil
}

// TakeStack gives the board a ready-made stack of a board house, and the holes that the house makes in it. Its copper layers are the board's from the outside to the middle, so
// that they keep their names and what lies on them; those that the ready-made one has not go.
type TakeStack struct {
	House string `json:"house"` // the house's key
	Name  string `json:"name"`
	Holes string `json:"holes,omitempty"` // what becomes of holes and ways of the board's own: KeepHoles, TakeHoles; empty: there are none, or it is refused
}

// What becomes of a board's own holes and ways when it takes a ready-made stack.
const (
	KeepHoles = "keep"
	TakeHoles = "take" // those of the house take their place
)

// Apply the command.
func (c *TakeStack) Apply(tx *Tx) error {
	ready, err := house.StackOf(c.House, c.Name)
	if err != nil {
		return err
	}
	holes, ways := house.Own(tx.Doc.Board)
	if holes+ways > 0 && c.Holes != KeepHoles && c.Holes != TakeHoles {
		return fmt.Errorf("the board has holes of its own (%d holes, %d ways between layers), which those of the ready-made stack would replace; say whether they stay", holes, ways)
	}
	have, _, err := tx.Doc.Board.WithLayers(ready.Copper())
	if err != nil {
		return err
	}
	mine := have.Copper()
	layers, taken := slices.Clone(ready.Layers), map[string]bool{}
	for i := range layers {
		if l := &layers[i]; l.Copper() {
			if own := mine[0]; tx.Doc.Board.Layer(own.ID) != nil {
				l.ID, l.Name = own.ID, own.Name
				taken[l.Name] = true
			}
			mine = mine[1:]
		}
	}
	for i := range layers {
		if l := &layers[i]; l.ID == 0 {
			l.Name = freeName(l.Name, taken)
			taken[l.Name] = true
		}
	}
	return tx.putStack(layers, func(is *design.Board) {
		is.Wanted = ready.Wanted
		if c.Holes == KeepHoles {
			is.Holes = left(is.Holes, is)
		} else {
			is.Holes = ready.Holes.On(is)
		}
	})
}

// left are the holes and ways all of whose layers the board still has.
func left(h design.Holes, b *design.Board) design.Holes {
	gone := map[design.BarrelID]bool{}
	h.Barrels = slices.DeleteFunc(slices.Clone(h.Barrels), func(l design.Barrel) bool {
		gone[l.ID] = b.Position(l.From) < 0 || b.Position(l.To) < 0
		return gone[l.ID]
	})
	h.Ways = slices.DeleteFunc(slices.Clone(h.Ways), func(w design.Way) bool {
		return b.Position(w.From) < 0 || b.Position(w.To) < 0 || slices.ContainsFunc(w.Steps, func(s design.Step) bool { return gone[s.Barrel] })
	})
	return h
}
