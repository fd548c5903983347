package question

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// Escape asks how the pads of parts would be led out.
type Escape struct {
	edit.EscapeAsk
}

// EscapeSeen is the answer.
type EscapeSeen struct {
	Led     int            `json:"led"`
	Already int            `json:"already"` // that something leads away from, or that lie in an area of their net
	Tracks  []design.Track `json:"tracks"`
	Vias    []*design.Via  `json:"vias"`
	Stuck   []PadStuck     `json:"stuck"`
}

// PadStuck is a pad that could not be led out.
type PadStuck struct {
	Name string     `json:"name"`
	ID   design.ID  `json:"id"` // of its part
	At   geom.Point `json:"at"`
	Why  string     `json:"why"`
}

// Answer the question.
func (q *Escape) Answer(b *workbench.Bench) (*EscapeSeen, error) {
	f := b.Field()
	got, err := q.Of(&f, b.Far)
	if err != nil {
		return nil, err
	}
	out := &EscapeSeen{Led: len(got.Led), Already: got.Already, Tracks: []design.Track{}, Vias: []*design.Via{}, Stuck: []PadStuck{}}
	for _, e := range got.Led {
		for _, l := range e.Legs {
			if l.Hop != nil {
				vias, joints := f.HopThings(l.Hop, e.Net, l.Width)
				out.Vias = append(out.Vias, vias...)
				for _, t := range joints {
					out.Tracks = append(out.Tracks, *t)
				}
			}
			for i := 1; i < len(l.Path); i++ {
				out.Tracks = append(out.Tracks, design.Track{Layer: b.Doc.Board.At(l.Layer), A: l.Path[i-1].Point, B: l.Path[i].Point, Width: l.Width, Net: e.Net})
			}
		}
	}
	for _, s := range got.Stuck {
		out.Stuck = append(out.Stuck, PadStuck{s.Name, s.Pad.ID, s.At, s.Why.Error()})
	}
	return out, nil
}
