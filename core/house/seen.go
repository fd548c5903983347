package house

import (
	"context"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// HouseSeen is a house with the board held against its classes.
type HouseSeen struct {
	Key      string      `json:"key"`
	Own      design.ID   `json:"own,omitempty"` // by which the project keeps it; 0: it is built in
	Name     string      `json:"name"`
	Text     string      `json:"text"`
	Of       string      `json:"of,omitempty"`      // the name of the house that it is a variant of
	Differs  []string    `json:"differs,omitempty"` // in what, beside limits
	Cheapest int         `json:"cheapest"`          // place of the cheapest class that makes the board; −1: the house does not
	Classes  []ClassSeen `json:"classes"`           // the cheapest first
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
	Limit  Limit  `json:"limit"`
	Words  string `json:"words"`
	Most   bool   `json:"most,omitempty"` // the bound is the most that may be
	Length bool   `json:"length,omitempty"`
	Bound  int64  `json:"bound"` // 0: the class does not make the thing
	Keeps  bool   `json:"keeps"`
	Found  *Found `json:"found,omitempty"`
	Was    *int64 `json:"was,omitempty"` // what the bound is in the house that this one is a variant of, where it is another
}

// Against holds a board against all houses that its project knows. It may be stopped; progress is told as a share.
func Against(ctx context.Context, d *design.Doc, x *layout.Index, r *rules.Set, progress func(float64)) (out []HouseSeen, err error) {
	found, err := Measure(ctx, d, x, r, progress)
	if err != nil {
		return nil, err
	}
	known := Known(d)
	for _, h := range known {
		seen := HouseSeen{Key: h.Key, Own: h.Own, Name: h.Name, Text: h.Text, Cheapest: h.Cheapest(found)}
		was := map[string]int64{}
		if i := slices.IndexFunc(known, func(k House) bool { return h.Of != "" && k.Key == h.Of }); i >= 0 {
			var limits []Differing
			limits, seen.Differs = h.Differs(&known[i])
			seen.Of = known[i].Name
			for _, l := range limits {
				was[fmt.Sprint(l.Class, " ", l.Limit)] = l.Was
			}
		}
		for i := range h.Classes {
			c := ClassSeen{h.Classes[i].Name, h.Classes[i].Text, h.Classes[i].Price, nil}
			for _, l := range h.Classes[i].Hold(found) {
				s := LimitSeen{l.Limit, l.Limit.Words(), l.Limit.Most(), l.Limit.Length(), l.Bound, l.Keeps, l.Found, nil}
				if v, ok := was[fmt.Sprint(c.Name, " ", l.Limit)]; ok {
					s.Was = &v
				}
				c.Limits = append(c.Limits, s)
			}
			seen.Classes = append(seen.Classes, c)
		}
		out = append(out, seen)
	}
	return out, nil
}
