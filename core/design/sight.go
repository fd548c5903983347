package design

import (
	"regexp"
)

// LayerSet is a way to see the board's layers, kept under a name. Layers that are no more are passed over.
type LayerSet struct {
	ID      ID        `json:"id"`
	Name    string    `json:"name"`
	Layers  []LayerID `json:"layers"`            // the copper layers that are seen
	Work    LayerID   `json:"work,omitempty"`    // the one in work; 0: whichever it is
	Others  string    `json:"others,omitempty"`  // how the others are seen
	Hidden  []string  `json:"hidden,omitempty"`  // surfaces that are not seen, as of figures on the board
	Flipped bool      `json:"flipped,omitempty"` // it is seen from below
}

// How copper layers beside the one in work are seen.
const (
	OthersDimmed = ""      // all of them, dimmed
	OthersNext   = "next"  // those next to it alone, dimmed
	OthersPlain  = "plain" // all of them as it is
)

// Valid checks the layer set.
func (s *LayerSet) Valid() error {
	if err := firstOf(name("layer set's name", s.Name), most("the layers of the layer set "+s.Name, len(s.Layers), 64),
		oneOf("a way to see other layers", s.Others, []string{OthersDimmed, OthersNext, OthersPlain}),
		check(len(s.Layers) > 0, "the layer set %s shows no layer", s.Name), most("the hidden surfaces of "+s.Name, len(s.Hidden), 10)); err != nil {
		return err
	}
	for _, h := range s.Hidden {
		if err := oneOf("a surface", h, []string{OnSilk, OnMask, OnPaste}); err != nil {
			return err
		}
	}
	return nil
}

// Tint is the colour that a net, or all nets of a class, are drawn in on the board. That of a net goes before that of its class.
type Tint struct {
	ID     ID     `json:"id"`
	Class  bool   `json:"class,omitempty"` // it is of a class
	Name   string `json:"name"`
	Colour string `json:"colour"` // as #rrggbb
}

var colour = regexp.MustCompile(`^#[0-9a-f]{6}$`)

// Valid checks the tint.
func (t *Tint) Valid() error {
	return firstOf(name("name of a net or a class", t.Name),
		check(colour.MatchString(t.Colour), "%q is not a colour; it is written as # and six digits from 0 to f", t.Colour))
}

// called is what no other tint may be of.
func (t *Tint) called() string {
	if t.Class {
		return "class " + t.Name
	}
	return "net " + t.Name
}
