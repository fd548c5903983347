package question

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/rules"
	"goldentrace/core/workbench"
)

// TrackWidths asks which widths a track of a net may be given while it is drawn on a layer.
type TrackWidths struct {
	Net   design.ID      `json:"net"`
	Layer design.LayerID `json:"layer"`
}

// Answer the question: what rules of the net on that layer give to new tracks and ask for at least, wherever on the board they hold, and
// the widths that tracks of the net have; the least first, none narrower than the least that holds anywhere.
func (q *TrackWidths) Answer(b *workbench.Bench) ([]int64, error) {
	n, layer := b.Doc.Nets[q.Net], b.Doc.Board.Position(q.Layer)
	if n == nil {
		return nil, fmt.Errorf("there is no such net (id %d)", q.Net)
	}
	if layer < 0 {
		return nil, fmt.Errorf("the board has no such copper layer (id %d)", q.Layer)
	}
	out := []int64{}
	f := b.Field()
	who := rules.Subject{Net: n.ID, Thing: design.ATrack}
	for _, k := range []design.RuleKind{design.TrackWidth, design.LeastWidth} {
		out = append(out, f.Rules.Amounts(k, who, layer)...)
	}
	const most = 2_000 // pieces that are looked at
	pieces := f.Index.NetPieces(n.ID)
	for _, c := range pieces[:min(most, len(pieces))] {
		if t := b.Doc.Tracks[c.ID]; t != nil && c.Kind == "track" {
			out = append(out, t.Width)
		}
	}
	slices.Sort(out)
	return slices.Compact(out), nil
}
