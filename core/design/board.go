package design

import (
	"encoding/json"
	"slices"

	"goldentrace/core/geom"
)

// Pad of a footprint. Hole is the drill's diameter, 0 for a surface pad, which lies on the
// side the part is on; a pad with a hole is on every copper layer.
type Pad struct {
	Number string     `json:"number"`
	Form   string     `json:"form"` // round, rect, rounded, oval
	At     geom.Point `json:"at"`
	Size   geom.Point `json:"size"`
	Corner int64      `json:"corner,omitempty"` // radius of a rounded pad's corners
	Hole   int64      `json:"hole,omitempty"`
	Bare   bool       `json:"bare,omitempty"` // the hole is not plated
}

// Footprint is the land pattern of a part.
type Footprint struct {
	ID           ID           `json:"id"`
	Name         string       `json:"name"`
	Description  string       `json:"description,omitempty"`
	Pads         []Pad        `json:"pads"`
	Silk         []Figure     `json:"silk"`
	Body         []Figure     `json:"body"` // assembly outline
	Courtyard    []geom.Point `json:"courtyard"`
	DesignatorAt geom.Point   `json:"designatorAt"`
	// Together lists groups of pad numbers that belong together: their copper may meet although
	// they bear different nets, as in a part that joins two nets in one place on purpose.
	Together [][]string `json:"together,omitempty"`
}

// BelongTogether tells whether the footprint says that two of its pads may meet: they bear
// the same number, or are named in one group.
func (f *Footprint) BelongTogether(a, b string) bool {
	return a == b || slices.ContainsFunc(f.Together, func(group []string) bool { return slices.Contains(group, a) && slices.Contains(group, b) })
}

// StackLayer is one layer of the board's stack, from the top.
type StackLayer struct {
	Name      string `json:"name"`
	Copper    bool   `json:"copper"`
	Thickness int64  `json:"thickness"`
	Material  string `json:"material"`
}

// Rules of the board, in nanometres.
type Rules struct {
	Clearance     int64 `json:"clearance"`     // copper to copper of another net
	EdgeClearance int64 `json:"edgeClearance"` // copper to the board's edge
	HoleClearance int64 `json:"holeClearance"` // between the walls of two holes
	TrackWidth    int64 `json:"trackWidth"`    // of new tracks
	LeastWidth    int64 `json:"leastWidth"`
	LeastHole     int64 `json:"leastHole"`
	LeastRing     int64 `json:"leastRing"`
	ViaDiameter   int64 `json:"viaDiameter"`
	ViaHole       int64 `json:"viaHole"`
	MaskMargin    int64 `json:"maskMargin"`  // opening beyond the pad, each side
	PasteMargin   int64 `json:"pasteMargin"` // paste within the pad, each side
	SilkWidth     int64 `json:"silkWidth"`
}

// Board has id 2; there is one in a project.
type Board struct {
	ID      ID           `json:"id"`
	Outline []geom.Point `json:"outline"` // closed polygon; empty: none drawn yet
	Stack   []StackLayer `json:"stack"`
	Rules   Rules        `json:"rules"`
}

// CopperNames lists the copper layers from the top.
func (b *Board) CopperNames() []string {
	var out []string
	for _, l := range b.Stack {
		if l.Copper {
			out = append(out, l.Name)
		}
	}
	return out
}

// Placed is a part on the board: what was carried over from the circuit, and its place.
type Placed struct {
	ID         ID                `json:"id"`
	Part       ID                `json:"part"`           // in the circuit; of several units the first
	Path       string            `json:"path,omitempty"` // of the use of its sheet
	Designator string            `json:"designator"`
	Value      string            `json:"value"`
	Footprint  string            `json:"footprint"`
	At         geom.Point        `json:"at"`
	Angle      int32             `json:"angle"`
	Bottom     bool              `json:"bottom,omitempty"`
	Locked     bool              `json:"locked,omitempty"`
	NotFitted  bool              `json:"notFitted,omitempty"`
	Nets       map[string]string `json:"nets"`            // pad number → net
	Label      *geom.Point       `json:"label,omitempty"` // designator moved, footprint coordinates
}

// Pose carries the footprint's coordinates onto the board; on the bottom side the part is
// seen from behind, so x is mirrored.
func (p *Placed) Pose() geom.Pose {
	return geom.Pose{At: p.At, Angle: p.Angle, Mirror: p.Bottom}
}

// Track is one straight piece of copper on a copper layer (0 is the top).
type Track struct {
	ID     ID         `json:"id"`
	Layer  int        `json:"layer"`
	A      geom.Point `json:"a"`
	B      geom.Point `json:"b"`
	Width  int64      `json:"width"`
	Net    string     `json:"net"`
	Locked bool       `json:"locked,omitempty"`
}

// UnmarshalJSON reads a track; before layers were called so, the field was "sheet".
func (t *Track) UnmarshalJSON(data []byte) error {
	type plain Track
	var old struct {
		Sheet int `json:"sheet"`
	}
	if err := json.Unmarshal(data, &old); err != nil {
		return err
	}
	p := plain{Layer: old.Sheet}
	if err := json.Unmarshal(data, &p); err != nil {
		return err
	}
	*t = Track(p)
	return nil
}

// Via is a plated hole that joins the copper layers From to To.
type Via struct {
	ID       ID         `json:"id"`
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
	Hole     int64      `json:"hole"`
	From     int        `json:"from"`
	To       int        `json:"to"`
	Net      string     `json:"net"`
	Locked   bool       `json:"locked,omitempty"`
}

// Hole is an unplated hole, for a screw.
type Hole struct {
	ID       ID         `json:"id"`
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
	Locked   bool       `json:"locked,omitempty"`
}

// Legend is a text printed on the board.
type Legend struct {
	ID     ID         `json:"id"`
	At     geom.Point `json:"at"` // middle of the text
	Angle  int32      `json:"angle"`
	Bottom bool       `json:"bottom,omitempty"`
	Height int64      `json:"height"`
	Text   string     `json:"text"`
}
