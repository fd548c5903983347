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

// HopTried is a way between two layers, and what came of it at a place.
type HopTried struct {
	Says string `json:"says"` // the way in words
	Fits bool   `json:"fits,omitempty"`
	Why  string `json:"why,omitempty"` // why it does not fit; empty: it does, or it was not tried since a better one does
}

// hopTo is the position of the layer that a hop leads to, the other outer one where nobody says; −1: there is none.
func (q *Track) hopTo(b *workbench.Bench, layer int) int {
	if last := b.Doc.Board.Layers() - 1; q.HopTo == 0 && last > 0 {
		if layer == last {
			return 0
		}
		return last
	}
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
	best := a
	best.Only = 0
	tried := f.HopAt(best)
	if len(tried) == 0 {
		return
	}
	ways, _ := b.Doc.Board.WaysOf(b.Doc.Board.At(a.From), b.Doc.Board.At(a.To))
	for i, way := range ways {
		seen := HopTried{Says: wayInWords(b.Doc.Board, way)}
		if i < len(tried) {
			if seen.Fits = tried[i].Hop != nil; !seen.Fits {
				seen.Why = tried[i].Why.Error()
			}
		}
		w.Ways = append(w.Ways, seen)
	}
	if a.Only > 0 && a.Only <= len(ways) {
		tried = f.HopAt(a)
		t := tried[0]
		w.Ways[a.Only-1].Fits, w.Ways[a.Only-1].Why = t.Hop != nil, ""
		if t.Hop == nil {
			w.Ways[a.Only-1].Why = t.Why.Error()
		}
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
