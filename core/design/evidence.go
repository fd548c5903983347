package design

import (
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Checked says that somebody held a part against its datasheet, and what the part was like then.
type Checked struct {
	By    string `json:"by"`
	On    string `json:"on"`    // the day, as 2026-11-26
	Print string `json:"print"` // the fingerprint of what was checked; another one: it changed since
	Note  string `json:"note,omitempty"`
}

func (c *Checked) valid() error {
	if c == nil {
		return nil
	}
	return firstOf(name("name of who checked", c.By), text("day", c.On), text("fingerprint", c.Print), text("note", c.Note))
}

// Spots of a feature.
const (
	Centre = "centre"
	Left   = "left"
	Right  = "right"
	Top    = "top"
	Bottom = "bottom"
	Bore   = "hole" // the middle of the hole
)

// Spots lists them.
var Spots = []string{Centre, Left, Right, Top, Bottom, Bore}

// What a feature is of.
const (
	OfOrigin    = "origin"
	OfPad       = "pad"
	OfBody      = "body" // the assembly outline
	OfCourtyard = "courtyard"
)

// Feature is a place of a footprint that a dimension is given to: the origin, or a spot of a pad, of the body or of the
// courtyard.
type Feature struct {
	Of   string `json:"of"`
	Pad  int    `json:"pad,omitempty"`  // its ref
	Spot string `json:"spot,omitempty"` // one of Spots
}

func (f Feature) valid() error {
	return firstOf(oneOf("something a dimension is given to", f.Of, []string{OfOrigin, OfPad, OfBody, OfCourtyard}),
		check(f.Spot == "" || f.Of != OfOrigin, "the origin has no sides"),
		check(f.Of == OfOrigin || f.Spot != "", "a dimension is given to a side or the middle"),
		check(f.Spot == "" || oneOf("a spot", f.Spot, Spots) == nil, "%q is not a spot of a pad", f.Spot))
}

// Ways a dimension is measured.
const (
	AlongX   = "x"
	AlongY   = "y"
	Straight = "" // the shortest way
)

// Dimension is a dimension line between two features, kept while one edits. With Says it is what the datasheet says.
type Dimension struct {
	ID   int     `json:"id"`
	A    Feature `json:"a"`
	B    Feature `json:"b"`
	Way  string  `json:"way,omitempty"`
	Says *Range  `json:"says,omitempty"`
	Note string  `json:"note,omitempty"` // what the drawing calls it
}

// MostDimensions of a footprint.
const MostDimensions = 500

// Beneath is a picture of the datasheet's drawing that lies beneath a footprint.
type Beneath struct {
	Asset   ID         `json:"asset"`
	At      geom.Point `json:"at"`    // of its lower left corner
	Width   int64      `json:"width"` // the height follows
	Angle   int32      `json:"angle,omitempty"`
	Opacity int        `json:"opacity"` // per cent
	Hidden  bool       `json:"hidden,omitempty"`
}

func (b *Beneath) valid() error {
	if b == nil {
		return nil
	}
	return firstOf(place("the picture beneath", b.At), length("the width of the picture beneath", b.Width, units.MM/10),
		angle("the picture beneath", b.Angle), check(b.Opacity >= 0 && b.Opacity <= 100, "the picture beneath has an opacity of %d; 0 to 100 are meant", b.Opacity))
}

func dimensions(list []Dimension) error {
	if err := most("the list of dimensions", len(list), MostDimensions); err != nil {
		return err
	}
	for _, d := range list {
		if err := firstOf(d.A.valid(), d.B.valid(), text("name of a dimension", d.Note), oneOf("a way to measure", d.Way, []string{AlongX, AlongY, Straight})); err != nil {
			return err
		}
		if d.Says != nil {
			if err := check(d.Says.Min <= d.Says.Max && d.Says.Min >= -units.Limit && d.Says.Max <= units.Limit, "what the datasheet says cannot be: %s to %s", units.Text(d.Says.Min), units.Text(d.Says.Max)); err != nil {
				return err
			}
		}
	}
	return nil
}
