package question

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/house"
	"goldentrace/core/workbench"
)

// Stack asks what is to be said of the board's stack.
type Stack struct{}

// StackSeen is the answer.
type StackSeen struct {
	Thickness int64        `json:"thickness"` // of copper and what lies between
	Whole     int64        `json:"whole"`     // with the coats
	Uneven    []string     `json:"uneven,omitempty"`
	Notes     []string     `json:"notes,omitempty"` // what of the design the stack has no layer for
	Layers    []LayerSeen  `json:"layers"`          // of the stack, from the top
	Ready     []ReadyStack `json:"ready"`
	OwnHoles  int          `json:"ownHoles,omitempty"` // that somebody made, and that a ready-made stack would replace
	OwnWays   int          `json:"ownWays,omitempty"`
}

// LayerSeen is what is to be said of a copper layer; of others nothing but their id.
type LayerSeen struct {
	ID     design.LayerID `json:"id"`
	Holds  string         `json:"holds,omitempty"`  // what lies on it: "3 tracks, 1 copper area"
	Planes []design.ID    `json:"planes,omitempty"` // nets that it is a plane of
}

// ReadyStack is a ready-made stack of a board house.
type ReadyStack struct {
	House  string `json:"house"` // its key
	By     string `json:"by"`    // its name
	Name   string `json:"name"`
	Text   string `json:"text"`
	Copper int    `json:"copper"`
}

// Answer the question.
func (*Stack) Answer(b *workbench.Bench) (*StackSeen, error) {
	board := b.Doc.Board
	out := &StackSeen{Thickness: board.Thickness(), Uneven: board.Uneven(), Notes: uncoated(b.Doc)}
	holds := b.Doc.OnLayers()
	for _, l := range board.Stack {
		out.Whole += l.Thickness
		seen := LayerSeen{ID: l.ID, Holds: holds[l.ID].String()}
		for p := range b.Doc.Pours.All() {
			if len(p.Outline) == 0 && p.On(l.ID) && !slices.Contains(seen.Planes, p.Net) {
				seen.Planes = append(seen.Planes, p.Net)
			}
		}
		out.Layers = append(out.Layers, seen)
	}
	for _, h := range house.All() {
		for _, s := range h.Stacks {
			out.Ready = append(out.Ready, ReadyStack{h.Key, h.Name, s.Name, s.Text, s.Copper()})
		}
	}
	out.OwnHoles, out.OwnWays = house.Own(board)
	return out, nil
}

// uncoated says what is to be printed on sides that have no silk, or left free of a mask there is none of.
func uncoated(d *design.Doc) (out []string) {
	for _, bottom := range []bool{false, true} {
		side, n, open := "upper", 0, 0
		if bottom {
			side = "lower"
		}
		for p := range d.Placed.All() {
			if p.Bottom == bottom {
				n++
			}
		}
		count := func(on string, below bool) {
			switch {
			case below != bottom:
			case on == design.OnSilk:
				n++
			case on == design.OnMask:
				open++
			}
		}
		for t := range d.Legends.All() {
			count(t.On, t.Bottom)
		}
		for f := range d.Figures.All() {
			count(f.On, f.Bottom)
		}
		if n > 0 && !d.Board.Coated(design.SilkLayer, bottom) {
			out = append(out, fmt.Sprintf("The %s side has no silk: the marks of parts and the texts there are not printed.", side))
		}
		if open > 0 && !d.Board.Coated(design.MaskLayer, bottom) {
			out = append(out, fmt.Sprintf("The %s side has no mask: what is drawn to be free of it says nothing there.", side))
		}
	}
	return out
}
