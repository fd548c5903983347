package layout

import (
	"cmp"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Waiting is a part that stands beside the board still.
type Waiting struct {
	ID          design.ID `json:"id"`
	Designator  string    `json:"designator"`
	Connections int       `json:"connections"` // nets it has in common with parts that stand on the board
	Pads        int       `json:"pads"`
	Area        float64   `json:"area"` // of its courtyard, mm²
}

// Orders in which parts are placed one after the other.
const (
	ByConnections = "connections" // to what stands on the board already, then by the number of pads
	BySize        = "size"
)

// Unplaced lists the parts that stand beside the board, the one to be placed next first. Locked ones stay. Cost: O(pads of the board + n log n).
func Unplaced(d *design.Doc, edge *Edge, by string) []Waiting {
	out := []Waiting{}
	on := map[design.ID]bool{} // nets of parts on the board
	var beside []*design.Placed
	for p := range d.Placed.All() {
		f := d.Footprint(p.Footprint)
		switch {
		case f == nil:
		case edge.Drawn() && !edge.Holds(geom.BoxOf(Courtyard(f, p.Pose())...).Centre()):
			if !p.Locked {
				beside = append(beside, p)
			}
		default:
			for _, n := range p.Nets {
				on[n] = true
			}
		}
	}
	for _, p := range beside {
		f := d.Footprint(p.Footprint)
		b := geom.BoxOf(Courtyard(f, geom.Pose{})...)
		w := Waiting{ID: p.ID, Designator: p.Designator, Pads: len(p.Nets), Area: float64(b.Max.X-b.Min.X) / 1e6 * float64(b.Max.Y-b.Min.Y) / 1e6}
		seen := map[design.ID]bool{}
		for _, n := range p.Nets {
			if on[n] && !seen[n] {
				seen[n] = true
				w.Connections++
			}
		}
		out = append(out, w)
	}
	slices.SortFunc(out, func(a, b Waiting) int {
		last := cmp.Or(circuit.CompareNatural(a.Designator, b.Designator), cmp.Compare(a.ID, b.ID))
		if by == BySize {
			return cmp.Or(cmp.Compare(b.Area, a.Area), last)
		}
		return cmp.Or(cmp.Compare(b.Connections, a.Connections), cmp.Compare(b.Pads, a.Pads), cmp.Compare(b.Area, a.Area), last)
	})
	return out
}
