package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/workbench"
)

// HolesOf asks for the ways between two copper layers, and for what is to be said of the board's holes.
type HolesOf struct {
	From design.LayerID `json:"from"`
	To   design.LayerID `json:"to"`
}

// HolesSeen is the answer.
type HolesSeen struct {
	Ways    []WaySeen    `json:"ways"` // the best first
	Said    bool         `json:"said"` // somebody put them into that order
	Barrels []BarrelSeen `json:"barrels"`
}

// WaySeen is a way.
type WaySeen struct {
	Way  design.Way `json:"way"`
	Says string     `json:"says"`
}

// BarrelSeen is what is to be said of a barrel.
type BarrelSeen struct {
	ID    design.BarrelID `json:"id"`
	Depth int64           `json:"depth"`
	Vias  int             `json:"vias"` // that are made of it
}

// Answer the question.
func (q *HolesOf) Answer(b *workbench.Bench) (*HolesSeen, error) {
	board := b.Doc.Board
	if board.Position(q.From) < 0 || board.Position(q.To) < 0 {
		return nil, fmt.Errorf("the board has no such copper layers (ids %d and %d)", q.From, q.To)
	}
	out := &HolesSeen{Ways: []WaySeen{}, Barrels: []BarrelSeen{}}
	ways, said := board.WaysOf(q.From, q.To)
	for _, w := range ways {
		out.Ways = append(out.Ways, WaySeen{w, wayInWords(board, w)})
	}
	out.Said = said
	of := map[design.BarrelID]int{}
	for _, v := range b.Doc.Vias {
		of[barrelOf(board, v)]++
	}
	for _, l := range board.Holes.Barrels {
		out.Barrels = append(out.Barrels, BarrelSeen{l.ID, board.Depth(l.Kind, l.From, l.To), of[l.ID]})
	}
	return out, nil
}

// barrelOf is the barrel a via is made of: the one that it says, else the first of its kind between its layers; 0: none.
func barrelOf(b *design.Board, v *design.Via) design.BarrelID {
	of := design.BarrelID(0)
	for _, l := range b.Holes.Barrels {
		if l.ID == v.Barrel {
			return l.ID
		}
		if of == 0 && l.Kind == v.Kind && l.From == v.From && l.To == v.To {
			of = l.ID
		}
	}
	return of
}
