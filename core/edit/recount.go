package edit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// Recount is what a change set is about, in words.
type Recount struct {
	What  string    `json:"what"`            // "R4", "R4, R5, R6 and 2 more"
	Where string    `json:"where,omitempty"` // "sheet Power", "3 sheets", "the board"
	Stage string    `json:"stage,omitempty"` // where it is seen; empty: nowhere
	ID    design.ID `json:"id,omitempty"`    // of one that is there
}

// onBoard are the kinds of things that lie on the board.
var onBoard = []design.Kind{design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole, design.KindLegend, design.KindFigure,
	design.KindRuleArea, design.KindPour, design.KindStitching, design.KindDimension, design.KindBoard}

// RecountOf tells what a change set is about that the document holds.
func RecountOf(d *design.Doc, cs ChangeSet) (r Recount) {
	var names []string
	sheets := map[design.ID]bool{}
	board := false
	for _, c := range cs {
		o := c.After
		if o == nil {
			o = c.Before
		}
		if o == nil {
			continue
		}
		if name := shortly(d, o); !slices.Contains(names, name) {
			names = append(names, name)
		}
		on, drawn := o.(design.OnSheet)
		switch {
		case drawn:
			sheets[on.SheetID()] = true
		case slices.Contains(onBoard, c.Kind):
			board = true
		default:
			continue
		}
		if r.ID == 0 && c.After != nil && c.Kind != design.KindBoard {
			r.ID = c.ID
			r.Stage = "board"
			if drawn {
				r.Stage = "circuit"
			}
		}
	}
	var where []string
	if len(sheets) == 1 {
		for id := range sheets {
			if s := d.Sheets[id]; s != nil {
				where = append(where, "sheet "+s.Name)
			}
		}
	} else if len(sheets) > 1 {
		where = append(where, fmt.Sprintf("%d sheets", len(sheets)))
	}
	if board {
		where = append(where, "the board")
	}
	r.Where = strings.Join(where, " and ")
	r.What = Listed(names, 4)
	return r
}

// Listed is names as a list in a sentence: at most so many, where the last stands for the rest when there are more.
func Listed(names []string, most int) string {
	switch n := len(names); {
	case n > most:
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most-1], ", "), n-most+1)
	case n > 1:
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}

// shortly is what a thing is called where it is said elsewhere what and where it is.
func shortly(d *design.Doc, o design.Object) string {
	switch o := o.(type) {
	case *design.Placed:
		return o.Designator
	case *design.Part:
		return o.Designator
	}
	return strings.TrimSuffix(d.Called(o), " on the board")
}
