package house

import (
	"slices"
)

// Limit is what a house sets a bound to.
type Limit string

// The limits, in the order in which they are read.
const (
	Track     Limit = "track"     // least width of copper lines
	Gap       Limit = "gap"       // least distance of copper of two nets
	Edge      Limit = "edge"      // least distance of copper from the board's edge
	HoleSize  Limit = "hole"      // least drilled hole
	Ring      Limit = "ring"      // least copper around a plated drilled hole
	HoleGap   Limit = "holeGap"   // least distance of two holes
	Wall      Limit = "wall"      // least distance of a plated hole's wall from copper of another net
	Web       Limit = "web"       // least mask between two openings
	Silk      Limit = "silk"      // least width of what is printed
	Letters   Limit = "letters"   // least height of letters
	MicroHole Limit = "microHole" // least lasered hole
	MicroRing Limit = "microRing" // least copper around it
	Aspect    Limit = "aspect"    // greatest depth of a drilled hole, in hundredths of its diameter
	Copper    Limit = "layers"    // greatest number of copper layers
	Side      Limit = "side"      // greatest length of the board's longer side
)

// Limits lists them.
var Limits = []Limit{Track, Gap, Edge, HoleSize, Ring, HoleGap, Wall, Web, Silk, Letters, MicroHole, MicroRing, Aspect, Copper, Side}

var limitWords = map[Limit]string{
	Track: "Width of copper lines", Gap: "Copper of two nets apart", Edge: "Copper from the edge", HoleSize: "Drilled holes", Ring: "Rings",
	HoleGap: "Holes apart", Wall: "Hole walls from copper", Web: "Webs of mask", Silk: "Width of silk", Letters: "Height of letters",
	MicroHole: "Lasered holes", MicroRing: "Rings of lasered holes", Aspect: "Depth of holes to diameter", Copper: "Copper layers", Side: "Longer side of the board",
}

// Words of the limit.
func (l Limit) Words() string { return limitWords[l] }

// Most tells whether the limit is the most that may be; else it is the least.
func (l Limit) Most() bool { return l == Aspect || l == Copper || l == Side }

// Length tells whether what is bounded is a length.
func (l Limit) Length() bool { return l != Aspect && l != Copper }

// Class is what a house makes at a price.
type Class struct {
	Name   string          `json:"name"`
	Text   string          `json:"text"`
	Price  int             `json:"price"` // in hundredths of the price of a plain board
	Limits map[Limit]int64 `json:"limits"`
}

// Held is a limit of a class held against a board.
type Held struct {
	Limit
	Bound int64  // what the class asks for
	Found *Found // nil: the board has nothing of the kind
	Keeps bool
}

// Hold holds a class against what was found on a board. What a class says nothing of it does not make: where the board has it, that is not kept.
func (c *Class) Hold(found map[Limit]*Found) (out []Held) {
	for _, l := range Limits {
		bound, set := c.Limits[l]
		f := found[l]
		switch {
		case !set && f == nil:
		case f == nil:
			out = append(out, Held{l, bound, nil, true})
		case !set:
			out = append(out, Held{l, 0, f, false})
		case l.Most():
			out = append(out, Held{l, bound, f, f.Value <= bound})
		default:
			out = append(out, Held{l, bound, f, f.Value >= bound-slack})
		}
	}
	return out
}

// slack is how much a measure may fall short of a limit and still keep it: the rounding of the house.
const slack = 3

// Fits tells whether a class makes the board.
func (c *Class) Fits(found map[Limit]*Found) bool {
	return !slices.ContainsFunc(c.Hold(found), func(h Held) bool { return !h.Keeps })
}

// Cheapest is the cheapest class that makes a board, by its place; −1: the house does not make it.
func (h *House) Cheapest(found map[Limit]*Found) int {
	return slices.IndexFunc(h.Classes, func(c Class) bool { return c.Fits(found) })
}
