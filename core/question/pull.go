package question

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// Pull asks how a track or a via would follow the hand.
type Pull struct {
	ID     design.ID  `json:"id"`
	From   geom.Point `json:"from"`
	To     geom.Point `json:"to"`
	Grip   int64      `json:"grip,omitempty"`   // how near to a corner of a track the corner is meant
	Corner bool       `json:"corner,omitempty"` // a new corner is pulled out
	Aside  bool       `json:"aside,omitempty"`  // others make way
}

// Pulled is the answer.
type Pulled struct {
	Moved     []MovedTrack    `json:"moved"` // the track itself first
	MovedVias []MovedVia      `json:"movedVias,omitempty"`
	Blocked   *route.Obstacle `json:"blocked,omitempty"` // why it does not go as far as the hand
}

// Answer the question.
func (q *Pull) Answer(b *workbench.Bench) (out Pulled, err error) {
	if err := within(q.From, q.To); err != nil {
		return out, err
	}
	f := b.Field()
	var aside *route.Aside
	if b.Doc.Vias[q.ID] != nil {
		if aside, out.Blocked, err = f.PullVia(q.ID, q.To, q.Aside); err != nil {
			return out, err
		}
	} else {
		p, err := f.Pull(route.Pull{Track: q.ID, From: q.From, To: q.To, Grip: q.Grip, Corner: q.Corner, Aside: q.Aside})
		if err != nil {
			return out, err
		}
		out.Moved, out.Blocked, aside = movedOf(b, p.Moved), p.Blocked, p.Aside
	}
	if aside != nil {
		out.Moved = append(out.Moved, movedOf(b, aside.Strands...)...)
		for _, m := range aside.Vias {
			out.MovedVias = append(out.MovedVias, MovedVia{m.ID, m.To})
		}
	}
	return out, nil
}

func movedOf(b *workbench.Bench, list ...route.Moved) (out []MovedTrack) {
	for _, m := range list {
		out = append(out, MovedTrack{IDs: m.IDs, Layer: b.Doc.Board.At(m.Layer), Width: m.Width, Path: route.Rounded(m.To, m.Round)})
	}
	return out
}
