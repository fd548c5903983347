package design

import "goldentrace/core/geom"

// Anchor is a place on the board that follows a thing as long as that is there.
type Anchor struct {
	Of     ID         `json:"of,omitempty"` // what it follows; 0: nothing
	Pad    string     `json:"pad,omitempty"`
	Spot   string     `json:"spot,omitempty"`   // which place of it, one of AnchorSpots
	Line   int        `json:"line,omitempty"`   // of the board's edge: 0 the outline, from 1 a cut-out
	Corner int        `json:"corner,omitempty"` // of that line
	At     geom.Point `json:"at"`               // where it is when it follows nothing
}

// Ends of a track, which can be followed beside the spots that a part has.
const (
	Begin = "begin"
	End   = "end"
)

// AnchorSpots lists what can be followed of a thing; none: its middle or origin.
var AnchorSpots = []string{"", Left, Right, Top, Bottom, Begin, End}

// BoardDimension measures between two places of the board and stays on the drawing.
type BoardDimension struct {
	ID   ID     `json:"id"`
	From Anchor `json:"from"`
	To   Anchor `json:"to"`
	Way  string `json:"way,omitempty"` // Straight, AlongX or AlongY
	// Off is how far its line lies from the first place: to the left as one looks to the second, or up, or to the right.
	Off  int64  `json:"off"`
	Text string `json:"text,omitempty"` // what is said beside the length
}

// Valid checks the dimension.
func (m *BoardDimension) Valid() error {
	for _, a := range []Anchor{m.From, m.To} {
		if err := firstOf(place("a dimension", a.At), oneOf("a place of a thing", a.Spot, AnchorSpots), text("pad's number", a.Pad),
			check(a.Of >= 0 && a.Line >= 0 && a.Corner >= 0, "a dimension names something by a number below zero")); err != nil {
			return err
		}
	}
	return firstOf(oneOf("a way to measure", m.Way, []string{Straight, AlongX, AlongY}), length("what a dimension lies off", max(m.Off, -m.Off), 0), text("words of a dimension", m.Text))
}
