package question

import (
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// RepeatPads asks where repeated pads would lie and what they would be called.
type RepeatPads struct {
	Pad design.Pad   `json:"pad"`
	How parts.Repeat `json:"how"`
}

// Repeated is the answer.
type Repeated struct {
	Pads    []design.Pad   `json:"pads"`
	Pattern layout.Pattern `json:"pattern"`
}

// Answer the question.
func (q *RepeatPads) Answer(*workbench.Bench) (*Repeated, error) {
	if err := q.Pad.Valid("the footprint"); err != nil {
		return nil, err
	}
	pads, err := q.How.Pads(q.Pad)
	if err != nil {
		return nil, err
	}
	pattern := layout.PatternOf(&design.Footprint{Pads: pads})
	return &Repeated{Pads: pads, Pattern: pattern}, nil
}
