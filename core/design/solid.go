package design

import (
	"goldentrace/core/geom"
)

// Forms of solids.
const (
	Prism = "prism" // an outline from one height to another
	Rod   = "rod"   // a cylinder along a line that lies
	Ball  = "ball"
)

// Materials of solids; what they look like is the picture's.
var Materials = []string{"body", "lead", "ceramic", "metal", "glass", "band", "socket", "film"}

// MostSolids bounds the solids of a footprint's body.
const MostSolids = 3000

// Solid is a piece of a component's body over its footprint, heights above the board's surface.
type Solid struct {
	Form     string        `json:"form"`
	Material string        `json:"material"`
	Edge     []geom.Corner `json:"edge,omitempty"` // of a prism
	From     int64         `json:"from"`           // lowest and highest; of a rod its lower and upper side
	To       int64         `json:"to"`
	A        geom.Point    `json:"a,omitzero"` // ends of a rod; the middle of a ball
	B        geom.Point    `json:"b,omitzero"`
}

func solids(what string, list []Solid) error {
	if err := most("the body of "+what, len(list), MostSolids); err != nil {
		return err
	}
	for _, s := range list {
		if err := firstOf(
			oneOf("a material", s.Material, Materials),
			oneOf("a form of body", s.Form, []string{Prism, Rod, Ball}),
			check(s.From < s.To, "the body of %s has a piece without height", what),
			length("the height of "+what, s.To, -1_000_000_000),
			place("the body of "+what, s.A, s.B),
		); err != nil {
			return err
		}
		if s.Form == Prism {
			if err := closed("the body of "+what, s.Edge); err != nil {
				return err
			}
		}
	}
	return nil
}
