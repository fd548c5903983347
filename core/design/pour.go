package design

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Pour is a copper area: a part of the board that copper of a net fills on some layers, as far as everything that is not of the net
// leaves it room. One without an outline fills the whole board.
type Pour struct {
	ID         ID            `json:"id"`
	Name       string        `json:"name"`
	Net        ID            `json:"net"`
	Layers     []LayerID     `json:"layers"`
	Outline    []geom.Corner `json:"outline,omitempty"`
	Priority   int           `json:"priority,omitempty"`   // it gives way to areas of other nets with a higher one
	Clearance  int64         `json:"clearance,omitempty"`  // at least, where the rules ask for less
	LeastWidth int64         `json:"leastWidth,omitempty"` // no copper of it is thinner; 0: as the rules say, but at least LeastFill
	Islands    string        `json:"islands,omitempty"`    // IslandsGo or IslandsStay
	Smallest   int64         `json:"smallest,omitempty"`   // islands that stay have at least so many thousandths of a square millimetre
	Join       string        `json:"join,omitempty"`       // how its pads are joined: ByRule, Solidly, BySpokes or NotJoined
	Spokes     Spokes        `json:"spokes,omitzero"`
	Locked     bool          `json:"locked,omitempty"`
}

// What becomes of islands: copper of an area that nothing of its net reaches.
const (
	IslandsGo   = ""
	IslandsStay = "stay"
)

// Spokes lead from a pad through a gap to the area around it, so that it can be soldered.
type Spokes struct {
	Number int   `json:"number,omitempty"` // 0: UsualSpokes
	Width  int64 `json:"width,omitempty"`  // 0: as the rules say
	Gap    int64 `json:"gap,omitempty"`    // 0: as the rules say
	Angle  int32 `json:"angle,omitempty"`  // of the first, from the pad's own right
}

// UsualSpokes is how many spokes a pad has where nothing else is said; MostSpokes how many it may have.
const (
	UsualSpokes = 4
	MostSpokes  = 8
)

// Count of the spokes.
func (s Spokes) Count() int { return cmp.Or(s.Number, UsualSpokes) }

// LeastFill is the least width of an area where neither it nor a rule asks for more, in nanometres.
const LeastFill = 100_000

// On tells whether the area lies on a copper layer.
func (p *Pour) On(layer LayerID) bool { return slices.Contains(p.Layers, layer) }

// Before tells whether the other area gives way to this one, where both are of different nets.
func (p *Pour) Before(other *Pour) bool {
	return cmp.Or(-cmp.Compare(p.Priority, other.Priority), cmp.Compare(p.ID, other.ID)) < 0
}

// Valid checks the area.
func (p *Pour) Valid() error {
	what := "the copper area " + p.Name
	if err := firstOf(name("copper area's name", p.Name),
		most("the layers of "+what, len(p.Layers), MostLayers),
		check(len(p.Layers) > 0, "%s lies on no layer", what),
		check(p.Net > 0, "%s is of no net; say which net is to fill it", what),
		check(p.Priority >= -1000 && p.Priority <= 1000, "the priority of %s is %d; -1000 to 1000 are meant", what, p.Priority),
		length("the clearance of "+what, p.Clearance, 0), length("the least width of "+what, p.LeastWidth, 0),
		check(p.LeastWidth == 0 || p.LeastWidth >= 10*units.Micrometre,
			"the least width of %s is %s; 0.01 mm is the least", what, units.Text(p.LeastWidth)),
		oneOf("what becomes of islands", p.Islands, []string{IslandsGo, IslandsStay}),
		check(p.Smallest >= 0 && p.Smallest <= MaxIslands, "the smallest islands of %s are out of reach", what),
		oneOf("a way to join areas", p.Join, Joins), p.Spokes.valid("the spokes of "+what)); err != nil {
		return err
	}
	seen := map[LayerID]bool{}
	for _, l := range p.Layers {
		if seen[l] || l <= 0 {
			return fmt.Errorf("%s names a layer twice, or one that is none", what)
		}
		seen[l] = true
	}
	if len(p.Outline) == 0 {
		return nil
	}
	return closed("the edge of "+what, p.Outline)
}

// MaxIslands is the most that can be asked of islands that stay, in thousandths of a square millimetre.
const MaxIslands = 1_000_000_000

func (s Spokes) valid(what string) error {
	return firstOf(check(s.Number >= 0 && s.Number <= MostSpokes, "%s are %d; 1 to %d are meant", what, s.Number, MostSpokes),
		length("the width of "+what, s.Width, 0), length("the gap of "+what, s.Gap, 0), angle(what, s.Angle))
}

func (p *Pour) refers(d *Doc) error {
	if d.Nets[p.Net] == nil {
		return fmt.Errorf("the copper area %s is of a net that is not there", p.Name)
	}
	for _, l := range p.Layers {
		if d.Board.Position(l) < 0 {
			return fmt.Errorf("the copper area %s lies on a copper layer that is not there", p.Name)
		}
	}
	return nil
}
