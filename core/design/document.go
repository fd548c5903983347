package design

import "goldentrace/core/geom"

// What is drawn beside the circuit to say what it is meant to do.

// Tints of clusters, notes and shapes.
var Tints = []string{"sky", "moss", "rose", "sand", "lilac", "none"}

// Cluster frames a part of the circuit that belongs together: whatever lies inside is of it.
type Cluster struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Title string     `json:"title"`
	A     geom.Point `json:"a"` // opposite corners
	B     geom.Point `json:"b"`
	Tint  string     `json:"tint"`
}

// Box of the cluster.
func (c *Cluster) Box() geom.Box { return geom.BoxOf(c.A, c.B) }

// Note is a text on a sheet. Lines that begin with "# " are headings and with "- " items
// of a list; *words* between stars are strong (a subset of CommonMark).
type Note struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	At    geom.Point `json:"at"` // upper left corner
	Width int64      `json:"width"`
	Size  int64      `json:"size"` // height of its letters
	Text  string     `json:"text"`
	Tint  string     `json:"tint"` // of the paper beneath; none: no frame
}

// LongestNote bounds notes and timing diagrams, in bytes.
const LongestNote = 10_000

// Asset is a file kept in the project: a picture, or a body in space.
type Asset struct {
	ID     ID     `json:"id"`
	Name   string `json:"name"`
	Type   string `json:"type"`  // png, jpeg, svg; glb: a body in space (binary glTF 2.0); font: an outline font (TrueType, OpenType)
	Width  int    `json:"width"` // in pixels, or in the drawing's own units
	Height int    `json:"height"`
	Data   []byte `json:"data"`
	Reach  *Reach `json:"reach,omitempty"` // of a body in space
}

// Reach is the room that a body in space takes over its footprint, heights above the board's surface. Lengths are nanometres.
type Reach struct {
	Min  geom.Point `json:"min"`
	Max  geom.Point `json:"max"`
	From int64      `json:"from"`
	To   int64      `json:"to"`
}

// LargestAsset is the most bytes of a picture.
const LargestAsset = 8 << 20

// Picture shows an asset on a sheet.
type Picture struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Asset ID         `json:"asset"`
	At    geom.Point `json:"at"` // lower left corner
	Size  geom.Point `json:"size"`
}

// Timing is a timing diagram drawn from a short text; package core/timing reads it.
type Timing struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	At    geom.Point `json:"at"`   // upper left corner
	Slot  int64      `json:"slot"` // width of one slot of time
	Text  string     `json:"text"`
}

// Graphic is a line or figure without electrical meaning.
type Graphic struct {
	ID    ID           `json:"id"`
	Sheet ID           `json:"sheet"`
	Form  string       `json:"form"` // line, arrow, rectangle or ellipse (by opposite corners)
	Pts   []geom.Point `json:"pts"`
	Dash  bool         `json:"dash,omitempty"`
	Tint  string       `json:"tint"`
}

// GraphicForms are the forms of shapes.
var GraphicForms = []string{"line", "arrow", "rectangle", "ellipse"}
