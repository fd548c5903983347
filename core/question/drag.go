package question

import (
	"encoding/json"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// Drag asks which open links there would be with parts moved by a step and turned about a place.
type Drag struct {
	IDs   []design.ID `json:"ids"`
	Step  geom.Point  `json:"step"`
	Pivot geom.Point  `json:"pivot"`
	Angle int32       `json:"angle,omitempty"`
	// Tracks says what becomes of those that lead to the parts.
	Tracks edit.Tracks `json:"tracks,omitempty"`
}

// Dragged is the answer.
type Dragged struct {
	workbench.Dragged
	Moved     []MovedTrack     `json:"moved,omitempty"` // tracks that follow
	MovedVias []MovedVia       `json:"movedVias,omitempty"`
	Going     []design.ID      `json:"going,omitempty"`   // tracks that go, so that links are open
	Sought    bool             `json:"sought,omitempty"`  // a longer search may find ways for some of them
	Touches   []route.Obstacle `json:"touches,omitempty"` // foreign copper that the parts would touch
	Near      []route.Obstacle `json:"near,omitempty"`    // that they would come too near
}

// mostPicked bounds what a preview moves at once.
const mostPicked = 20_000

// Answer the question.
func (q *Drag) Answer(b *workbench.Bench) (out Dragged, err error) {
	if err := within(q.Step, q.Pivot); err != nil {
		return out, err
	}
	if len(q.IDs) > mostPicked {
		return out, fmt.Errorf("%d things at once are too many to drag", len(q.IDs))
	}
	return dragged(b, b.Drag(q.IDs, q.Step, q.Pivot, q.Angle, q.Tracks)), nil
}

// dragged is what is told of something that is carried.
func dragged(b *workbench.Bench, d workbench.Dragged) Dragged {
	out := Dragged{Dragged: d}
	w := out.Followed
	if w == nil {
		return out
	}
	out.Moved, out.Sought, out.Touches, out.Near = movedOf(b, w.Strands...), w.Sought || w.Many, w.Touches, w.Near
	for _, m := range w.Vias {
		out.MovedVias = append(out.MovedVias, MovedVia{m.ID, m.To})
	}
	for _, s := range w.Open {
		out.Going = append(out.Going, s.IDs...)
	}
	return out
}

// Weigh asks what a command would do that carries things elsewhere on the board: turns them, swaps them, lines them up.
type Weigh struct {
	Cmd    json.RawMessage `json:"cmd"` // which says nothing of tracks
	Tracks edit.Tracks     `json:"tracks,omitempty"`
}

// Weighed is the answer.
type Weighed struct {
	Dragged
	Parts []*design.Placed `json:"parts"` // as they would be
}

// Answer the question.
func (q *Weigh) Answer(b *workbench.Bench) (*Weighed, error) {
	_, cmd, err := edit.Decode(q.Cmd)
	if err != nil {
		return nil, err
	}
	d, parts, err := b.Weigh(cmd, q.Tracks)
	if err != nil {
		return nil, err
	}
	return &Weighed{dragged(b, d), parts}, nil
}
