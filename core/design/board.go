package design

import (
	"cmp"

	"goldentrace/core/geom"
)

// Board has id 2; there is one in a project.
type Board struct {
	ID      ID              `json:"id"`
	Outline []geom.Corner   `json:"outline"` // closed; empty: none drawn yet
	CutOuts [][]geom.Corner `json:"cutOuts,omitempty"`
	Stack   []StackLayer    `json:"stack"`             // from the top
	Wanted  int64           `json:"wanted,omitempty"`  // how thick the board is to be, in nanometres; 0: nobody said
	OneSide bool            `json:"oneSide,omitempty"` // parts stand on the upper side alone
	NoPaste bool            `json:"noPaste,omitempty"` // parts that are not fitted get no solder paste
	Rise    int32           `json:"rise,omitempty"`    // how much warmer than its surroundings currents may make a track, in kelvins; 0: UsualRise
	Holes   Holes           `json:"holes,omitzero"`
	// Teardrops are how tracks widen towards pads and vias; nil: they do not.
	Teardrops *Teardrops `json:"teardrops,omitempty"`
	// Next is the id of the next layer that will be made.
	Next LayerID `json:"nextLayer"`
}

// UsualRise is how much warmer a track may become where nothing else is said.
const UsualRise = 10

// Warms is how much warmer than its surroundings currents may make a track, in kelvins.
func (b *Board) Warms() float64 { return float64(cmp.Or(b.Rise, UsualRise)) }

// Region within the outline, less the cut-outs. Without an outline it is empty.
func (b *Board) Region() geom.Region {
	r := geom.Region{}
	if len(b.Outline) == 0 {
		return r
	}
	r.Outer = geom.Closing(b.Outline)
	for _, c := range b.CutOuts {
		r.Holes = append(r.Holes, geom.Closing(c))
	}
	return r
}

// Placed is a part on the board: what was carried over from the circuit, and its place.
type Placed struct {
	ID         ID            `json:"id"`
	Part       ID            `json:"part"`           // in the circuit; of several units the first
	Path       string        `json:"path,omitempty"` // of the use of its sheet
	Designator string        `json:"designator"`
	Value      string        `json:"value"`
	Footprint  string        `json:"footprint"`
	At         geom.Point    `json:"at"`
	Angle      int32         `json:"angle"`
	Bottom     bool          `json:"bottom,omitempty"`
	Locked     bool          `json:"locked,omitempty"`
	NotFitted  bool          `json:"notFitted,omitempty"`
	Nets       map[string]ID `json:"nets"` // pad number → net
	// Joins says of pads, by their number, how copper areas join them, where the footprint says otherwise or nothing.
	Joins   map[string]string `json:"joins,omitempty"`
	Label   *geom.Point       `json:"label,omitempty"`   // designator moved, footprint coordinates
	Letters int64             `json:"letters,omitempty"` // height of the designator's capitals; 0: UsualLetters
	Notes   []PlaceNote       `json:"notes,omitempty"`   // where it is to stand
}

// UsualLetters is how high designators are printed where nothing else is said.
const UsualLetters = 1_000_000

// LetterHeight of the designator.
func (p *Placed) LetterHeight() int64 { return cmp.Or(p.Letters, UsualLetters) }

// PlaceNote says where a part is to stand.
type PlaceNote struct {
	Kind     string `json:"kind"`               // NoteWithin, NoteEdge or NoteText
	Distance int64  `json:"distance,omitempty"` // at most, nanometres
	Of       ID     `json:"of,omitempty"`       // the other part on the board
	Pad      string `json:"pad,omitempty"`      // of the other part; empty: anywhere of it
	Text     string `json:"text,omitempty"`
}

// Kinds of notes.
const (
	NoteWithin = "within" // copper of the part within a distance of a pad of another, that of the same net where both have one
	NoteEdge   = "edge"   // the courtyard within a distance of the board's edge
	NoteText   = "text"   // what a person is to heed
)

// MostNotes of a part.
const MostNotes = 20

// Pose carries the footprint's coordinates onto the board; on the bottom side the part is
// seen from behind, so x is mirrored.
func (p *Placed) Pose() geom.Pose {
	return geom.Pose{At: p.At, Angle: p.Angle, Mirror: p.Bottom}
}

// Track is one piece of copper on a copper layer: straight, or an arc through Mid.
type Track struct {
	ID     ID          `json:"id"`
	Layer  LayerID     `json:"layer"`
	A      geom.Point  `json:"a"`
	Mid    *geom.Point `json:"mid,omitempty"`
	B      geom.Point  `json:"b"`
	Width  int64       `json:"width"`
	Net    ID          `json:"net,omitempty"`   // 0: none
	Bare   bool        `json:"bare,omitempty"`  // free of the mask, where it is an outer layer
	Group  ID          `json:"group,omitempty"` // shared by all that was made together, as what joins the holes of one hop; 0: it stands alone
	Locked bool        `json:"locked,omitempty"`
}

// Piece is the middle line of the track.
func (t *Track) Piece() geom.Piece {
	if t.Mid == nil {
		return geom.Straight(t.A, t.B)
	}
	return geom.Piece{A: t.A, M: *t.Mid, B: t.B}
}

// How a via's hole is made, and how its openings are covered.
const (
	Drilled = ""       // by a drill
	Lasered = "laser"  // by a laser: a micro via
	Tented  = ""       // the mask covers it on both sides
	Open    = "open"   // the mask leaves it free
	Filled  = "filled" // filled, and the mask covers it
)

// Via is a plated hole that joins the copper layers From (the upper one) to To.
type Via struct {
	ID       ID         `json:"id"`
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
	Hole     int64      `json:"hole"`
	From     LayerID    `json:"from"`
	To       LayerID    `json:"to"`
	Kind     string     `json:"kind,omitempty"`   // Drilled or Lasered
	Cover    string     `json:"cover,omitempty"`  // Tented, Open or Filled
	Pads     []ViaPad   `json:"pads,omitempty"`   // where the copper differs from Diameter
	Join     string     `json:"join,omitempty"`   // how copper areas join it: ByRule, Solidly, BySpokes or NotJoined
	Barrel   BarrelID   `json:"barrel,omitempty"` // the one it is made of, whose sizes it follows; 0: its sizes are its own
	Group    ID         `json:"group,omitempty"`  // shared by all that was made together, as the holes of one hop; 0: it stands alone
	Own      bool       `json:"own,omitempty"`    // somebody chose its way, so that it does not follow the order of ways
	Net      ID         `json:"net,omitempty"`    // 0: none
	Locked   bool       `json:"locked,omitempty"`
}

// ViaPad is the copper around a via on one layer; of no diameter, there is none beyond the barrel.
type ViaPad struct {
	Layer    LayerID `json:"layer"`
	Diameter int64   `json:"diameter"`
}

// On is the diameter of the via's copper on a layer; the barrel's own where it has no pad.
func (v *Via) On(layer LayerID) int64 {
	for _, p := range v.Pads {
		if p.Layer == layer {
			return max(p.Diameter, v.Hole)
		}
	}
	return v.Diameter
}

// Hole is an unplated hole, for a screw.
type Hole struct {
	ID       ID         `json:"id"`
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
	Land     int64      `json:"land,omitempty"` // diameter of the copper around a plated one; 0: it is not plated
	Keep     int64      `json:"keep,omitempty"` // so far beyond hole and copper nothing may lie, as for the head of a screw
	Locked   bool       `json:"locked,omitempty"`
}

// Room is the radius of the hole with its copper.
func (h *Hole) Room() int64 { return max(h.Diameter, h.Land) / 2 }

// RuleArea is a drawn part of the board: rules may hold within it, and it may keep kinds of things
// out.
type RuleArea struct {
	ID      ID            `json:"id"`
	Name    string        `json:"name"`
	Outline []geom.Corner `json:"outline"`
	Layers  []LayerID     `json:"layers,omitempty"`  // none: all
	KeepOut []Thing       `json:"keepOut,omitempty"` // what may not lie there
	Locked  bool          `json:"locked,omitempty"`
}

// On tells whether the area holds on a copper layer.
func (a *RuleArea) On(layer LayerID) bool {
	for _, l := range a.Layers {
		if l == layer {
			return true
		}
	}
	return len(a.Layers) == 0
}
