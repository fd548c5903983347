package design

import (
	"slices"

	"goldentrace/core/geom"
)

// Forms of pads.
const (
	Round     = "round"     // a circle
	Rect      = "rect"      // a rectangle
	Rounded   = "rounded"   // a rectangle with round corners
	Oval      = "oval"      // as long as its size, its ends half circles
	Chamfered = "chamfered" // a rectangle with corners cut off at 45°
	Free      = "free"      // any closed line
)

// PadForms lists them.
var PadForms = []string{Round, Rect, Rounded, Oval, Chamfered, Free}

// PadShape is the copper of a pad as seen from its own middle.
type PadShape struct {
	Form   string     `json:"form"`
	Size   geom.Point `json:"size"`
	Corner int64      `json:"corner,omitempty"` // radius of rounded corners, or what is cut off of chamfered ones
	// Cut are the corners that are cut off: 1 right above, 2 left above, 4 left below, 8 right below, added
	// up; 0: all four.
	Cut  int           `json:"cut,omitempty"`
	Edge []geom.Corner `json:"edge,omitempty"` // of a free form
}

// Groups of layers that a pad can have a shape of its own on, as seen from the side the part is on.
const (
	Near  = "near"  // the side the part is on
	Inner = "inner" // all layers between
	Far   = "far"   // the other side
)

// LayerGroups lists them.
var LayerGroups = []string{Near, Inner, Far}

// How a pad joins copper areas of its net.
const (
	ByRule    = ""
	Solidly   = "solid"
	BySpokes  = "spokes"
	NotJoined = "none"
)

// Joins lists them.
var Joins = []string{ByRule, Solidly, BySpokes, NotJoined}

// Opening is how a pad is left free of mask, or gets paste.
type Opening struct {
	// Margin by which the opening is larger than the copper on each side, less than nothing: smaller.
	// Nil: by rule. Windows, closed lines as seen from the pad's middle, take the place of it all.
	Margin  *int64          `json:"margin,omitempty"`
	Windows [][]geom.Corner `json:"windows,omitempty"`
	None    bool            `json:"none,omitempty"` // there is no opening
}

// Pad of a footprint. Hole is the drill's diameter, 0 for a surface pad, which lies on the
// side the part is on; a pad with a hole is on every copper layer.
type Pad struct {
	ID     int           `json:"id,omitempty"` // its ref; see refs.go
	Number string        `json:"number"`
	Form   string        `json:"form"` // with Size, Corner, Cut and Edge: see PadShape
	At     geom.Point    `json:"at"`
	Size   geom.Point    `json:"size"`
	Corner int64         `json:"corner,omitempty"`
	Cut    int           `json:"cut,omitempty"`
	Edge   []geom.Corner `json:"edge,omitempty"`

	Angle int32               `json:"angle,omitempty"` // of the shape about its middle, in millidegrees
	On    map[string]PadShape `json:"on,omitempty"`    // other shapes, by group of layers
	Far   bool                `json:"far,omitempty"`   // a surface pad on the other side
	Hole  int64               `json:"hole,omitempty"`
	// HoleAt is where the hole's middle lies as seen from the pad's. Slot is the way its middle goes from
	// there: a slot is that much longer than wide.
	HoleAt geom.Point `json:"holeAt,omitzero"`
	Slot   geom.Point `json:"slot,omitzero"`
	Bare   bool       `json:"bare,omitempty"` // the hole is not plated
	Mask   *Opening   `json:"mask,omitempty"`
	Paste  *Opening   `json:"paste,omitempty"`
	Join   string     `json:"join,omitempty"` // ByRule, Solidly, BySpokes or NotJoined
}

// ShapeOn is the pad's shape on a group of layers.
func (p *Pad) ShapeOn(group string) PadShape {
	if s, ok := p.On[group]; ok {
		return s
	}
	return p.Shape()
}

// Shape is the pad's shape on the groups of layers that have none of their own.
func (p *Pad) Shape() PadShape { return PadShape{p.Form, p.Size, p.Corner, p.Cut, p.Edge} }

// Footprint is the land pattern of a part.
type Footprint struct {
	ID           ID           `json:"id"`
	Name         string       `json:"name"`
	Description  string       `json:"description,omitempty"`
	Origin       Origin       `json:"origin,omitzero"`
	Pads         []Pad        `json:"pads"`
	Silk         []Figure     `json:"silk"`
	Body         []Figure     `json:"body"` // assembly outline
	Courtyard    []geom.Point `json:"courtyard"`
	DesignatorAt geom.Point   `json:"designatorAt"`
	ValueAt      *geom.Point  `json:"valueAt,omitempty"` // nil: below the designator
	Solids       []Solid      `json:"solids,omitempty"`  // its part in space
	Recipe       *Recipe      `json:"recipe,omitempty"`  // what it was generated from
	Model        ID           `json:"model,omitempty"`   // an asset that shows its part in space instead of Solids
	Dimensions   []Dimension  `json:"dimensions,omitempty"`
	Beneath      *Beneath     `json:"beneath,omitempty"`
	Checked      *Checked     `json:"checked,omitempty"`
	// Together lists groups of pad numbers that belong together: their copper may meet although
	// they bear different nets, as in a part that joins two nets in one place on purpose.
	Together [][]string `json:"together,omitempty"`
}

// BelongTogether tells whether the footprint says that two of its pads may meet: they bear
// the same number, or are named in one group.
func (f *Footprint) BelongTogether(a, b string) bool {
	return a == b || slices.ContainsFunc(f.Together, func(group []string) bool { return slices.Contains(group, a) && slices.Contains(group, b) })
}

// Origin is the library something was taken from, and which version of it there. A drawing of the
// project's own has none.
type Origin struct {
	Library string `json:"library,omitempty"`
	Version int    `json:"version,omitempty"`
}

// Pose carries places as seen from the pad's middle into the footprint's coordinates.
func (p *Pad) Pose() geom.Pose { return geom.Pose{At: p.At, Angle: p.Angle} }

// Density that the footprint was generated for; empty: it was drawn.
func (f *Footprint) Density() string {
	if f.Recipe == nil {
		return ""
	}
	return f.Recipe.Density
}
