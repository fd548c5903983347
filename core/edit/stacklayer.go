package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
)

// AddLayer puts a new layer of a kind into the stack, above or below one there is; of copper, a prepreg comes with it where it would
// else lie on other copper. A coat goes where it belongs on the side of that layer.
type AddLayer struct {
	Kind  design.LayerKind `json:"of"`
	At    design.LayerID   `json:"at"`
	Below bool             `json:"below,omitempty"`
}

// Apply the command.
func (c *AddLayer) Apply(tx *Tx) error {
	stack, err := tx.Doc.Board.WithLayer(c.Kind, c.At, c.Below)
	if err != nil {
		return err
	}
	return (&PutStack{Layers: stack}).Apply(tx)
}

// SetLayer changes what a layer of the stack is; what is not said stays.
type SetLayer struct {
	ID           design.LayerID    `json:"id"`
	Name         *string           `json:"name,omitempty"`
	Kind         *design.LayerKind `json:"of,omitempty"`        // core or prepreg, of what lies between copper
	Thickness    *int64            `json:"thickness,omitempty"` // nanometres
	Material     *string           `json:"material,omitempty"`
	Permittivity *int32            `json:"permittivity,omitempty"` // thousandths
	Loss         *int32            `json:"loss,omitempty"`         // millionths
	Roughness    *int64            `json:"roughness,omitempty"`    // nanometres
}

// Apply the command.
func (c *SetLayer) Apply(tx *Tx) error {
	stack, at, err := tx.layerAt(c.ID)
	if err != nil {
		return err
	}
	l := &stack[at]
	set(&l.Name, c.Name)
	set(&l.Thickness, c.Thickness)
	set(&l.Material, c.Material)
	set(&l.Permittivity, c.Permittivity)
	set(&l.Loss, c.Loss)
	set(&l.Roughness, c.Roughness)
	if c.Kind != nil {
		is := *l
		if is.Kind = *c.Kind; !is.Dielectric() || !l.Dielectric() {
			return notSo(l)
		}
		*l = is
	}
	return (&PutStack{Layers: stack}).Apply(tx)
}

// MoveLayer lets a layer of the stack change places with the next of its sort, copper with copper, what lies between with what lies
// between; its tracks go along.
type MoveLayer struct {
	ID   design.LayerID `json:"id"`
	Down bool           `json:"down,omitempty"`
}

// Apply the command.
func (c *MoveLayer) Apply(tx *Tx) error {
	stack, at, err := tx.layerAt(c.ID)
	if err != nil {
		return err
	}
	l, step := stack[at], -1
	if c.Down {
		step = 1
	}
	for to := at + step; to >= 0 && to < len(stack) && !l.Coat(); to += step {
		if other := stack[to]; other.Copper() == l.Copper() && !other.Coat() {
			stack[at], stack[to] = other, l
			return (&PutStack{Layers: stack}).Apply(tx)
		}
	}
	return fmt.Errorf("%s has no place further that way", l.Name)
}

// DropLayer takes a layer out of the stack; copper on which something lies stays.
type DropLayer struct {
	ID design.LayerID `json:"id"`
}

// Apply the command.
func (c *DropLayer) Apply(tx *Tx) error {
	stack, at, err := tx.layerAt(c.ID)
	if err != nil {
		return err
	}
	return (&PutStack{Layers: slices.Delete(stack, at, at+1)}).Apply(tx)
}

// SetThickness says how thick the board is to be; 0: nobody says.
type SetThickness struct {
	Wanted int64 `json:"wanted"`
}

// Apply the command.
func (c *SetThickness) Apply(tx *Tx) error {
	return (&PutStack{Layers: tx.Doc.Board.Stack, Wanted: &c.Wanted}).Apply(tx)
}

// layerAt is a copy of the stack, and the place of a layer in it.
func (tx *Tx) layerAt(id design.LayerID) ([]design.StackLayer, int, error) {
	stack := slices.Clone(tx.Doc.Board.Stack)
	at := slices.IndexFunc(stack, func(l design.StackLayer) bool { return l.ID == id })
	if at < 0 {
		return nil, 0, fmt.Errorf("the stack has no layer with the id %d", id)
	}
	return stack, at, nil
}
