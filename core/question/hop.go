package question

import (
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// HopSeen is a hop as it would be made.
type HopSeen struct {
	Holes  []route.HopHole `json:"holes"`
	Own    bool            `json:"own,omitempty"`
	Vias   []*design.Via   `json:"vias"`
	Tracks []*design.Track `json:"tracks,omitempty"` // what joins holes that stand apart
}

// HopTried is what came of a way.
type HopTried struct {
	Says string `json:"says"`          // the way in words
	Why  string `json:"why,omitempty"` // why it does not fit; empty: it does
}

// hopTo is the position of the layer that a hop leads to; −1: nobody thinks of one, or there is none.
func (q *Track) hopTo(b *workbench.Bench, layer int) int {
	if to := b.Doc.Board.Position(q.HopTo); to != layer {
		return to
	}
	return -1
}

func (q *Track) hopAsk(at geom.Point, from, to int) route.HopAsk {
	return route.HopAsk{At: at, Net: q.Net, From: from, To: to, Width: q.Width, Only: q.HopBy, Angle: q.Turned}
}

// hop tells what a hop would take, and why not something better.
func (w *TrackWay) hop(b *workbench.Bench, f route.Field, a route.HopAsk) {
	tried := f.HopAt(a)
	for _, t := range tried {
		seen := HopTried{Says: wayInWords(b.Doc.Board, t.Way)}
		if t.Hop == nil {
			seen.Why = t.Why.Error()
		}
		w.Ways = append(w.Ways, seen)
	}
	if len(tried) == 0 {
		return
	}
	last := tried[len(tried)-1]
	if last.Hop == nil {
		w.Via = tried[0].Why.Error()
		return
	}
	w.Hop = &HopSeen{Holes: last.Hop.Holes, Own: last.Hop.Own}
	w.Hop.Vias, w.Hop.Tracks = f.HopThings(last.Hop, a.Net, a.Width)
	w.ViaSize, w.ViaHole = w.Hop.Vias[0].Diameter, w.Hop.Vias[0].Hole
}

// wayInWords says a way by its holes.
func wayInWords(b *design.Board, w design.Way) string {
	var out strings.Builder
	for i, s := range w.Steps {
		if l := b.Barrel(s.Barrel); l != nil {
			if i > 0 {
				out.WriteString(map[bool]string{true: ", beside it ", false: ", on it "}[s.Stepped])
			}
			out.WriteString(l.Name)
		}
	}
	return out.String()
}
