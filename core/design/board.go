package design

import (
	"cmp"

	"goldentrace/core/geom"
)

// LayerID names a layer of the stack within its board. It survives that layers come, go and change
// places, and is never given twice; none is 0.
type LayerID int32

// StackLayer is one layer of the board's stack, from the top.
type StackLayer struct {
	ID        LayerID `json:"id"`
	Name      string  `json:"name"`
	Copper    bool    `json:"copper"`
	Thickness int64   `json:"thickness"`
	Material  string  `json:"material"`
}

// Board has id 2; there is one in a project.
type Board struct {
	ID      ID              `json:"id"`
	Outline []geom.Corner   `json:"outline"` // closed; empty: none drawn yet
	CutOuts [][]geom.Corner `json:"cutOuts,omitempty"`
	Stack   []StackLayer    `json:"stack"`
	OneSide bool            `json:"oneSide,omitempty"` // parts stand on the upper side alone
	Rise    int32           `json:"rise,omitempty"`    // how much warmer than its surroundings currents may make a track, in kelvins; 0: UsualRise
	// Next is the id of the next layer that will be made.
	Next LayerID `json:"nextLayer"`
}

// UsualRise is how much warmer a track may become where nothing else is said.
const UsualRise = 10

// Warms is how much warmer than its surroundings currents may make a track, in kelvins.
func (b *Board) Warms() float64 { return float64(cmp.Or(b.Rise, UsualRise)) }

// Stacked is the board with the layers, from the top, each with an id of its own.
func (b Board) Stacked(layers []StackLayer) *Board {
	b.Stack = nil
	b.Next = max(b.Next, 1)
	for _, l := range layers {
		if l.ID == 0 {
			l.ID = b.Next
		}
		b.Next = max(b.Next, l.ID+1)
		b.Stack = append(b.Stack, l)
	}
	return &b
}

// Copper lists the copper layers from the top.
func (b *Board) Copper() []StackLayer {
	var out []StackLayer
	for _, l := range b.Stack {
		if l.Copper {
			out = append(out, l)
		}
	}
	return out
}

// Layers is how many copper layers the board has.
func (b *Board) Layers() int {
	n := 0
	for _, l := range b.Stack {
		if l.Copper {
			n++
		}
	}
	return n
}

// CopperNames lists the names of the copper layers from the top.
func (b *Board) CopperNames() []string {
	var out []string
	for _, l := range b.Copper() {
		out = append(out, l.Name)
	}
	return out
}

// At is the copper layer at a position, 0 at the top; none: 0.
func (b *Board) At(position int) LayerID {
	for _, l := range b.Stack {
		if !l.Copper {
			continue
		}
		if position == 0 {
			return l.ID
		}
		position--
	}
	return 0
}

// Top is the uppermost copper layer.
func (b *Board) Top() LayerID { return b.At(0) }

// Bottom is the lowest copper layer.
func (b *Board) Bottom() LayerID { return b.At(b.Layers() - 1) }

// Position of a copper layer, 0 at the top; −1 when there is no such copper layer.
func (b *Board) Position(id LayerID) int {
	at := 0
	for _, l := range b.Stack {
		if !l.Copper {
			continue
		}
		if l.ID == id {
			return at
		}
		at++
	}
	return -1
}

// Layer of the stack with the id, or nil.
func (b *Board) Layer(id LayerID) *StackLayer {
	for i := range b.Stack {
		if b.Stack[i].ID == id {
			return &b.Stack[i]
		}
	}
	return nil
}

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
	Net    ID          `json:"net,omitempty"`  // 0: none
	Bare   bool        `json:"bare,omitempty"` // free of the mask, where it is an outer layer
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
	Kind     string     `json:"kind,omitempty"`  // Drilled or Lasered
	Cover    string     `json:"cover,omitempty"` // Tented, Open or Filled
	Pads     []ViaPad   `json:"pads,omitempty"`  // where the copper differs from Diameter
	Join     string     `json:"join,omitempty"`  // how copper areas join it: ByRule, Solidly, BySpokes or NotJoined
	Net      ID         `json:"net,omitempty"`   // 0: none
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
