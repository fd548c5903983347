package question

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/workbench"
)

// HopOf asks of which hop a via is, and how else that could be made.
type HopOf struct {
	ID design.ID `json:"id"`
}

// HopMade is the answer.
type HopMade struct {
	Vias   []design.ID    `json:"vias"` // from above
	From   design.LayerID `json:"from"` // layers that are come to
	To     design.LayerID `json:"to"`
	Ways   []string       `json:"ways,omitempty"`  // between these, the best first
	Way    int            `json:"way,omitempty"`   // the one it is of, from 1 on; 0: none of them
	Own    bool           `json:"own,omitempty"`   // somebody chose it
	Apart  int64          `json:"apart,omitempty"` // how far its first two holes that stand apart do
	Turned int32          `json:"turned"`          // towards where the later one stands, in millidegrees
}

// Answer the question.
func (q *HopOf) Answer(b *workbench.Bench) (*HopMade, error) {
	v := b.Doc.Vias[q.ID]
	if v == nil {
		return nil, fmt.Errorf("there is no such via (id %d)", q.ID)
	}
	board := b.Doc.Board
	m := b.Field().MadeOf(v)
	out := &HopMade{From: board.At(m.From), To: board.At(m.To), Own: v.Own}
	for i, v := range m.Vias {
		out.Vias = append(out.Vias, v.ID)
		if i > 0 && out.Apart == 0 && v.At != m.Vias[i-1].At {
			d := v.At.Sub(m.Vias[i-1].At)
			out.Apart = int64(math.Round(math.Hypot(float64(d.X), float64(d.Y))))
			out.Turned = (int32(math.Round(math.Atan2(float64(d.Y), float64(d.X))*180_000/math.Pi)) + 360_000) % 360_000
		}
	}
	now, _ := m.Way(board)
	ways, _ := board.WaysOf(out.From, out.To)
	for i, w := range ways {
		out.Ways = append(out.Ways, wayInWords(board, w))
		if now.Same(w) && out.Way == 0 {
			out.Way = i + 1
		}
	}
	return out, nil
}
