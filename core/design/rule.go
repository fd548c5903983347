package design

import (
	"fmt"
	"maps"
	"slices"
)

// RuleKind is what a rule is about.
type RuleKind string

// The kinds of rules.
const (
	Clearance     RuleKind = "clearance"     // copper to copper of another net
	EdgeClearance RuleKind = "edgeClearance" // copper to the board's edge and to unplated holes
	HoleClearance RuleKind = "holeClearance" // between the walls of two holes
	TrackWidth    RuleKind = "trackWidth"    // of new tracks
	LeastWidth    RuleKind = "leastWidth"
	LeastHole     RuleKind = "leastHole"
	LeastRing     RuleKind = "leastRing" // of copper around a plated hole; a share of the hole
	ViaDiameter   RuleKind = "viaDiameter"
	ViaHole       RuleKind = "viaHole"
	MaskMargin    RuleKind = "maskMargin"  // opening beyond the pad, each side; a share of the pad's lesser side
	PasteMargin   RuleKind = "pasteMargin" // paste within the pad, each side; a share of the pad's lesser side
	SilkWidth     RuleKind = "silkWidth"
	Spacing       RuleKind = "spacing"    // between the courtyards of parts of one side
	SpokeWidth    RuleKind = "spokeWidth" // of what leads from a pad to a copper area of its net; 0: nothing does
	SpokeGap      RuleKind = "spokeGap"   // between a pad and the area around it; 0: it is joined solidly
	HoleCopper    RuleKind = "holeCopper" // from a plated hole's wall to copper of another net, inside too
	MaskWeb       RuleKind = "maskWeb"    // of mask between two openings
	SilkApart     RuleKind = "silkApart"  // of what is printed from openings of the mask
	LeastSilk     RuleKind = "leastSilk"  // width of what is printed
	LetterHeight  RuleKind = "letterHeight"
	HeightAbove   RuleKind = "heightAbove" // that parts may have above the board; 0: any
	HeightBelow   RuleKind = "heightBelow"
	WithinPart    RuleKind = "withinPart" // clearance between pads of one part, instead of the other
)

// RuleKinds lists the kinds in the order in which they are read. Of each there is one rule for
// everything, which cannot be removed.
var RuleKinds = []RuleKind{Clearance, EdgeClearance, HoleClearance, TrackWidth, LeastWidth, LeastHole, LeastRing, ViaDiameter, ViaHole, MaskMargin, PasteMargin, SilkWidth, Spacing, SpokeWidth, SpokeGap,
	HoleCopper, MaskWeb, SilkApart, LeastSilk, LetterHeight, HeightAbove, HeightBelow, WithinPart}

// words of the kinds, and the least a rule of the kind may ask for in nanometres.
var ruleKinds = map[RuleKind]struct {
	words string
	least int64
	pair  bool // it holds between two things
}{
	Clearance: {"clearance", 0, true}, EdgeClearance: {"clearance to the edge", 0, false}, HoleClearance: {"clearance between holes", 0, true},
	TrackWidth: {"track width", 1000, false}, LeastWidth: {"least width", 0, false}, LeastHole: {"least hole", 0, false},
	LeastRing: {"least ring", 0, false}, ViaDiameter: {"via's diameter", 1000, false}, ViaHole: {"via's hole", 1000, false},
	MaskMargin: {"mask margin", -1_000_000, false}, PasteMargin: {"paste margin", -1_000_000, false}, SilkWidth: {"silk width", 1000, false},
	Spacing: {"spacing of parts", 0, true}, SpokeWidth: {"width of spokes", 0, false}, SpokeGap: {"gap of spokes", 0, false},
	HoleCopper: {"clearance of holes to copper", 0, true}, MaskWeb: {"web of mask", 0, false}, SilkApart: {"clearance of silk to openings", 0, false},
	LeastSilk: {"least width of silk", 0, false}, LetterHeight: {"least height of letters", 0, false},
	HeightAbove: {"greatest height above", 0, false}, HeightBelow: {"greatest height below", 0, false},
	WithinPart: {"clearance within one part", 0, false},
}

// Words of the kind, as they stand in a sentence.
func (k RuleKind) Words() string { return ruleKinds[k].words }

// Pairs tells whether rules of the kind hold between two things.
func (k RuleKind) Pairs() bool { return ruleKinds[k].pair }

// Thing is a kind of thing on the board that rules tell apart.
type Thing string

// The kinds of things.
const (
	ATrack      Thing = "track"
	SurfacePad  Thing = "surfacePad"
	ThroughPad  Thing = "throughPad"
	AVia        Thing = "via"
	UnplatedOne Thing = "unplatedHole"
	APart       Thing = "part"
	AFigure     Thing = "figure" // text or figure of copper
	AFiducial   Thing = "fiducial"
	APour       Thing = "pour" // a copper area
)

// Things lists them.
var Things = []Thing{ATrack, SurfacePad, ThroughPad, AVia, UnplatedOne, APart, AFigure, AFiducial, APour}

// Scope says for what a rule holds: for things that fit all that it names. One that names nothing
// holds for everything.
type Scope struct {
	Class string  `json:"class,omitempty"` // of the net
	Net   string  `json:"net,omitempty"`   // the net's name; * stands for any letters, ? for one
	Thing Thing   `json:"thing,omitempty"`
	Layer LayerID `json:"layer,omitempty"`
	Area  ID      `json:"area,omitempty"` // a rule area that the place lies in
	Part  ID      `json:"part,omitempty"` // on the board: its pads
}

// Amount is a length, or a share of a size that is held between a least and a greatest length.
type Amount struct {
	Fixed int64 `json:"fixed,omitempty"` // nanometres
	Share int32 `json:"share,omitempty"` // of the size, in thousandths; 0: the fixed length
	Least int64 `json:"least,omitempty"`
	Most  int64 `json:"most,omitempty"`
}

// Of is the length for a thing of the size, in nanometres.
func (a Amount) Of(size int64) int64 {
	if a.Share == 0 {
		return a.Fixed
	}
	return min(max(size*int64(a.Share)/1000, a.Least), a.Most)
}

// Greatest is the greatest length it can come to.
func (a Amount) Greatest() int64 {
	if a.Share == 0 {
		return a.Fixed
	}
	return a.Most
}

// Fixed is a length that does not follow any size.
func Fixed(length int64) Amount { return Amount{Fixed: length} }

// Rule asks for something on the board. Where several rules of a kind fit, the most specific holds;
// of those alike the one with the lesser order.
type Rule struct {
	ID    ID       `json:"id"`
	Kind  RuleKind `json:"kind"`
	Order int      `json:"order"`
	A     Scope    `json:"a,omitzero"`
	B     Scope    `json:"b,omitzero"` // of kinds that hold between two things: the other one, in either order
	Value Amount   `json:"value"`
	Inner *Amount  `json:"inner,omitempty"` // on inner copper layers; nil: as on the outer ones
}

// Everywhere tells whether the rule holds for everything.
func (r *Rule) Everywhere() bool { return r.A == Scope{} && r.B == Scope{} }

// On is what the rule asks for on a copper layer of so many, counted from 0 at the top.
func (r *Rule) On(layer, of int) Amount {
	if r.Inner != nil && layer > 0 && layer < of-1 {
		return *r.Inner
	}
	return r.Value
}

// Usual are the numbers that every fabricator of two-sided boards keeps, by kind.
func Usual() map[RuleKind]int64 {
	return map[RuleKind]int64{
		Clearance: 200_000, EdgeClearance: 300_000, HoleClearance: 250_000, TrackWidth: 400_000, LeastWidth: 150_000,
		LeastHole: 300_000, LeastRing: 150_000, ViaDiameter: 800_000, ViaHole: 400_000, MaskMargin: 50_000,
		PasteMargin: 0, SilkWidth: 150_000, Spacing: 0, SpokeWidth: 300_000, SpokeGap: 250_000,
		HoleCopper: 200_000, MaskWeb: 100_000, SilkApart: 0, LeastSilk: 100_000, LetterHeight: 800_000, HeightAbove: 0, HeightBelow: 0,
		WithinPart: 150_000,
	}
}

// Base is the rule of the kind that holds for everything.
func (d *Doc) Base(kind RuleKind) *Rule { return d.lookups.base[kind] }

// Numbers are what the rules for everything ask for.
func (d *Doc) Numbers() map[RuleKind]int64 {
	out := map[RuleKind]int64{}
	for _, k := range RuleKinds {
		if r := d.Base(k); r != nil {
			out[k] = r.Value.Fixed
		}
	}
	return out
}

// SetBase makes the rules for everything ask for the numbers, as in a new document or in tests.
func (d *Doc) SetBase(numbers map[RuleKind]int64) {
	for _, k := range slices.Sorted(maps.Keys(numbers)) {
		r := Rule{Kind: k, Order: slices.Index(RuleKinds, k)}
		if old := d.Base(k); old != nil {
			r = *old
		} else {
			r.ID = d.NewID()
		}
		r.Value = Fixed(numbers[k])
		d.Put(&r)
	}
}

// distinct is what no other rule may be: of one kind there is one rule for everything.
func (r *Rule) distinct() string {
	if r.Everywhere() {
		return "the " + r.Kind.Words()
	}
	return fmt.Sprint(r.ID)
}

func (r *Rule) refers(d *Doc) error {
	for _, s := range []Scope{r.A, r.B} {
		switch {
		case s.Layer != 0 && d.Board != nil && d.Board.Position(s.Layer) < 0:
			return fmt.Errorf("a rule of the %s names a copper layer that is not there", r.Kind.Words())
		case s.Area != 0 && d.RuleAreas[s.Area] == nil:
			return fmt.Errorf("a rule of the %s names an area that is not there", r.Kind.Words())
		}
	}
	return nil
}
