package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// NoteLine is what a note about a part's place measures: from A, on the part, to B.
type NoteLine struct {
	Part  design.ID  `json:"part"`
	Note  int        `json:"note"` // its place among the part's notes
	A     geom.Point `json:"a"`
	B     geom.Point `json:"b"`
	Has   int64      `json:"has"`
	Asked int64      `json:"asked"`
	Holds bool       `json:"holds"`
	Lost  bool       `json:"lost,omitempty"` // what it is to be near is not on the board
}

// NoteLines measures the notes of a part; those that are words alone measure nothing. at finds parts where they are, or where they are
// being moved to. Cost: that of
// its pads and the other part's.
func NoteLines(d *design.Doc, edge *Edge, p *design.Placed, at func(design.ID) *design.Placed) []NoteLine {
	var out []NoteLine
	for i, n := range p.Notes {
		l := NoteLine{Part: p.ID, Note: i, Asked: n.Distance}
		switch n.Kind {
		case design.NoteWithin:
			l.near(d, p, n, at(n.Of))
		case design.NoteEdge:
			l.toEdge(d, edge, p)
		default:
			continue
		}
		l.Holds = !l.Lost && !(l.Has > l.Asked+geom.Slack)
		out = append(out, l)
	}
	return out
}

// near measures from the part's copper to a pad of another: from the pad of the same net where there is one.
func (l *NoteLine) near(d *design.Doc, p *design.Placed, n design.PlaceNote, other *design.Placed) {
	l.A, l.B = p.At, p.At
	if other == nil {
		l.Lost = true
		return
	}
	var targets []*Copper
	for _, c := range PiecesOf(d, other) {
		if n.Pad == "" || c.Number == n.Pad {
			targets = append(targets, c)
		}
	}
	if len(targets) == 0 {
		l.Lost = true
		return
	}
	own := PiecesOf(d, p)
	if same := ofNets(own, targets); len(same) > 0 {
		own = same
	}
	least := math.Inf(1)
	for _, a := range own {
		for _, b := range targets {
			if gap, from, to := geom.Gap(a.Shape, b.Shape); gap < least {
				least, l.A, l.B = gap, from, to
			}
		}
	}
	l.Has = max(geom.Measured(least), 0)
	l.Lost = math.IsInf(least, 1)
}

// ofNets are the pieces whose net one of the others bears.
func ofNets(own, others []*Copper) (out []*Copper) {
	for _, a := range own {
		for _, b := range others {
			if a.Net != 0 && a.Net == b.Net {
				out = append(out, a)
				break
			}
		}
	}
	return out
}

// toEdge measures from the part's courtyard to the board's edge; one that reaches over it is at the edge.
func (l *NoteLine) toEdge(d *design.Doc, edge *Edge, p *design.Placed) {
	l.A, l.B = p.At, p.At
	f := d.Footprint(p.Footprint)
	if f == nil || !edge.Drawn() {
		l.Lost = true
		return
	}
	yard := geom.Shape{Pts: Courtyard(f, p.Pose()), Area: true}
	least := math.Inf(1)
	for _, piece := range edge.pieces {
		if gap, a, b := geom.Gap(yard, geom.Bow(piece, 0)); gap < least {
			least, l.A, l.B = gap, a, b
		}
	}
	l.Has = max(geom.Measured(least), 0)
}
