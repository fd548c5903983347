package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Track asks how far a track may be drawn towards the hand, and whether it may change layers there. Width
// 0 takes the rules'.
type Track struct {
	From   geom.Point     `json:"from"`
	To     geom.Point     `json:"to"`
	Style  route.Corner   `json:"style,omitempty"`
	Round  int64          `json:"round,omitempty"` // radius of its corners; 0: they are sharp
	Manner route.Manner   `json:"manner,omitempty"`
	Other  bool           `json:"other,omitempty"` // it goes round obstacles by the other side
	Neck   bool           `json:"neck,omitempty"`
	Done   []edit.Run     `json:"done,omitempty"` // drawn so far
	Layer  design.LayerID `json:"layer"`
	Net    design.ID      `json:"net,omitempty"`
	Width  int64          `json:"width,omitempty"`
	Hop    bool           `json:"hop,omitempty"`    // it goes to a place where a hop fits
	HopTo  design.LayerID `json:"hopTo,omitempty"`  // the layer that a hop leads to; 0: the other outer one
	HopBy  int            `json:"hopBy,omitempty"`  // the one way that is meant, from 1 on; 0: the best that fits
	Turned *int32         `json:"turned,omitempty"` // towards where its holes stand apart, in millidegrees; not said: where there is most room
}

// TrackWay is the answer.
type TrackWay struct {
	Width     int64           `json:"width"`     // of the track where it begins
	Clearance int64           `json:"clearance"` // that its net keeps to others at the way's end
	ViaSize   int64           `json:"viaSize"`   // diameter of the via that a hop would make
	ViaHole   int64           `json:"viaHole"`
	Runs      []edit.Run      `json:"runs"`              // what may be laid, from where the track stands
	Whole     []edit.Run      `json:"whole,omitempty"`   // the whole track with round corners, where they are asked for
	Blocked   *route.Obstacle `json:"blocked,omitempty"` // why it ends before the hand
	Rest      []geom.Point    `json:"rest,omitempty"`    // from there to the hand, not allowed
	Length    int64           `json:"length"`            // of the way
	Open      int64           `json:"open,omitempty"`    // from the way's end straight to the nearest copper that the net has yet to reach; 0: none, or it has too much to be measured in a hand's motion
	Via       string          `json:"via,omitempty"`     // why a hop at the way's end is not possible; empty when it is
	Hop       *HopSeen        `json:"hop,omitempty"`     // the hop at the way's end, to the layer that is thought of
	Ways      []HopTried      `json:"ways,omitempty"`    // what was tried for it, the best first
	Moved     []MovedTrack    `json:"moved,omitempty"`   // what makes way
	MovedVias []MovedVia      `json:"movedVias,omitempty"`
}

// MovedTrack is a stretch of track that makes way.
type MovedTrack struct {
	IDs   []design.ID    `json:"ids"`
	Layer design.LayerID `json:"layer"`
	Width int64          `json:"width"`
	Path  []geom.Corner  `json:"path"` // as it will lie
}

// MovedVia is a via that makes way.
type MovedVia struct {
	ID design.ID  `json:"id"`
	To geom.Point `json:"to"`
}

// Answer the question.
func (q *Track) Answer(b *workbench.Bench) (out TrackWay, err error) {
	layer := b.Doc.Board.Position(q.Layer)
	if layer < 0 {
		return out, fmt.Errorf("the board has no such copper layer (id %d)", q.Layer)
	}
	for _, v := range []int64{q.Width, q.Round} {
		if v < 0 || v > units.Limit {
			return out, fmt.Errorf("a track cannot be %s wide or round", units.Text(v))
		}
	}
	if err := within(q.From, q.To); err != nil {
		return out, err
	}
	f := b.Field()
	d := route.Drawing{Net: q.Net, Width: q.Width, Style: q.Style, Radius: q.Round, Manner: q.Manner, Other: q.Other, Neck: q.Neck, From: q.From, Layer: layer, To: q.To}
	if d.Done, err = legsOf(b, q.Done); err != nil {
		return out, err
	}
	out.ViaSize, out.ViaHole = f.ViaSize(q.To, q.Net)
	to := q.hopTo(b, layer)
	if q.Hop && to >= 0 {
		if _, at, no := f.HopNear(q.hopAsk(q.To, layer, to)); no == nil {
			d.To = at
		}
	}
	h := f.Head(d)
	out.Blocked, out.Rest = h.Blocked, h.Rest
	out.Runs = runsOf(b, h.Legs)
	for _, l := range h.Legs {
		out.Length += route.Length(geom.Places(l.Path))
	}
	if q.Round > 0 {
		out.Whole = runsOf(b, f.RoundLegs(append(d.Done, h.Legs...), q.Net, q.Round))
	}
	end := h.End()
	out.Width, out.Clearance = h.Legs[0].Width, b.ClearanceAt(q.Net, layer, end)
	if h.Aside != nil {
		f = h.Aside.In(f)
		out.Moved = movedOf(b, h.Aside.Strands...)
		for _, m := range h.Aside.Vias {
			out.MovedVias = append(out.MovedVias, MovedVia{m.ID, m.To})
		}
	}
	if to >= 0 {
		out.hop(b, f, q.hopAsk(end, layer, to))
	}
	out.Open = b.OpenFrom(q.Net, q.From, end, 1<<layer)
	return out, nil
}

func runsOf(b *workbench.Bench, legs []route.Leg) (out []edit.Run) {
	for _, l := range legs {
		out = append(out, edit.Run{Layer: b.Doc.Board.At(l.Layer), Width: l.Width, Path: l.Path, Hop: l.Hop})
	}
	return out
}

// mostDone is how many stretches and places a track may have that is being drawn.
const mostDone = 2_000

// legsOf are the stretches drawn so far as the router has them.
func legsOf(b *workbench.Bench, runs []edit.Run) (out []route.Leg, err error) {
	n := 0
	for _, r := range runs {
		layer := b.Doc.Board.Position(r.Layer)
		if n += 1 + len(r.Path); layer < 0 || n > mostDone {
			return nil, fmt.Errorf("the track that is being drawn has more than %d places, or is on a layer that the board has not", mostDone)
		}
		if err := within(geom.Named(r.Path)...); err != nil {
			return nil, err
		}
		if r.Width < 0 || r.Width > units.Limit {
			return nil, fmt.Errorf("a track cannot be %s wide", units.Text(r.Width))
		}
		out = append(out, route.Leg{Layer: layer, Width: r.Width, Path: r.Path, Hop: r.Hop})
	}
	return out, nil
}
