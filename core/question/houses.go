package question

import (
	"context"

	"goldentrace/core/edit"
	"goldentrace/core/house"
	"goldentrace/core/workbench"
)

// Houses asks how the board stands against what board houses make.
type Houses struct{}

// HouseSeen is a house with the board held against its classes.
type HouseSeen struct {
	Key      string      `json:"key"`
	Name     string      `json:"name"`
	Text     string      `json:"text"`
	Cheapest int         `json:"cheapest"` // place of the cheapest class that makes the board; −1: the house does not
	Classes  []ClassSeen `json:"classes"`  // the cheapest first
}

// ClassSeen is a class with the board held against its limits.
type ClassSeen struct {
	Name   string      `json:"name"`
	Text   string      `json:"text"`
	Price  int         `json:"price"` // in hundredths of that of a plain board
	Limits []LimitSeen `json:"limits"`
}

// LimitSeen is a limit held against the board.
type LimitSeen struct {
	Limit  house.Limit  `json:"limit"`
	Words  string       `json:"words"`
	Most   bool         `json:"most,omitempty"` // the bound is the most that may be
	Length bool         `json:"length,omitempty"`
	Bound  int64        `json:"bound"` // 0: the class does not make the thing
	Keeps  bool         `json:"keeps"`
	Found  *house.Found `json:"found,omitempty"`
}

// Answer the question.
func (q *Houses) Answer(b *workbench.Bench) (out []HouseSeen, err error) {
	found, err := house.Measure(context.Background(), b.Doc, b.Index(), b.Rules())
	if err != nil {
		return nil, err
	}
	for _, h := range house.All() {
		seen := HouseSeen{h.Key, h.Name, h.Text, h.Cheapest(found), nil}
		for i := range h.Classes {
			c := ClassSeen{h.Classes[i].Name, h.Classes[i].Text, h.Classes[i].Price, nil}
			for _, l := range h.Classes[i].Hold(found) {
				c.Limits = append(c.Limits, LimitSeen{l.Limit, l.Limit.Words(), l.Limit.Most(), l.Limit.Length(), l.Bound, l.Keeps, l.Found})
			}
			seen.Classes = append(seen.Classes, c)
		}
		out = append(out, seen)
	}
	return out, nil
}

// LimitsTaken asks what taking a class of a house as the board's rules would change.
type LimitsTaken struct{ edit.TakeLimits }

// Answer the question.
func (q *LimitsTaken) Answer(b *workbench.Bench) ([]edit.LimitTaken, error) { return q.Changes(b.Doc) }
