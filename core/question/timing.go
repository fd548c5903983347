package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/timing"
	"goldentrace/core/workbench"
)

// Timing asks what a text describes as a timing diagram.
type Timing struct {
	Text string `json:"text"`
}

// Diagram is the answer.
type Diagram = timing.Diagram

// Answer the question.
func (q *Timing) Answer(*workbench.Bench) (*Diagram, error) {
	if len(q.Text) > design.LongestNote {
		return nil, fmt.Errorf("the timing diagram has %d characters; %d are the most", len(q.Text), design.LongestNote)
	}
	return timing.Parse(q.Text)
}
