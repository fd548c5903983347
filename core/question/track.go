package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Track asks how far a track may be drawn towards the hand, and whether it may change layers there. Width
// 0 takes the rules'.
type Track struct {
	From  geom.Point     `json:"from"`
	To    geom.Point     `json:"to"`
	Style route.Corner   `json:"style,omitempty"`
	Layer design.LayerID `json:"layer"`
	Net   design.ID      `json:"net,omitempty"`
	Width int64          `json:"width,omitempty"`
}

// TrackWay is the answer.
type TrackWay = route.Probe

// Answer the question.
func (q *Track) Answer(b *workbench.Bench) (TrackWay, error) {
	if b.Doc.Board.Position(q.Layer) < 0 {
		return TrackWay{}, fmt.Errorf("the board has no such copper layer (id %d)", q.Layer)
	}
	if q.Width < 0 || q.Width > units.Limit {
		return TrackWay{}, fmt.Errorf("a track cannot be %s wide", units.Text(q.Width))
	}
	if err := within(q.From, q.To); err != nil {
		return TrackWay{}, err
	}
	return b.Track(q.From, q.To, q.Style, q.Layer, q.Net, q.Width), nil
}
