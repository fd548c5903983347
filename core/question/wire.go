package question

import (
	"errors"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// Wire asks for the way of a wire from its last corner to the hand, and what the whole would join.
type Wire struct {
	Sheet  design.ID    `json:"sheet"`
	Path   string       `json:"path,omitempty"` // of the use of the sheet
	Points []geom.Point `json:"points"`
	To     geom.Point   `json:"to"`
	Lead   string       `json:"lead,omitempty"`
	Bundle bool         `json:"bundle,omitempty"`
}

// WireWay is how a wire would go on.
type WireWay struct {
	Way      []geom.Point `json:"way"`
	Foreseen *Foreseen    `json:"foreseen,omitempty"`
}

var errNoSheet = errors.New("there is no such sheet any more")

// Answer the question.
func (q *Wire) Answer(b *workbench.Bench) (*WireWay, error) {
	n := len(q.Points)
	if n == 0 || n > 1000 {
		return nil, errors.New("a wire goes through 1 to 1000 places")
	}
	if err := within(append(slices.Clone(q.Points), q.To)...); err != nil {
		return nil, err
	}
	view := b.Nets().Views[q.Sheet]
	if view == nil {
		return nil, errNoSheet
	}
	out := &WireWay{Way: circuit.Bend(b.Doc, view, q.Points[n-1], q.To, circuit.Lead(q.Lead), q.Bundle)}
	if path := append(slices.Clone(q.Points[:n-1]), out.Way...); len(path) > 1 {
		if f, err := foresee(b, &edit.DrawWire{Sheet: q.Sheet, Path: path, Bundle: q.Bundle}, q.Path); err == nil {
			f.Put, f.Remove = nil, nil
			out.Foreseen = f
		}
	}
	return out, nil
}
