package question

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/workbench"
)

// NextName asks for the name that follows one: D1 after D0.
type NextName struct {
	Text string `json:"text"`
}

// Answer the question.
func (q *NextName) Answer(*workbench.Bench) (string, error) {
	return edit.NextName(q.Text[:min(len(q.Text), design.LongestText)]), nil
}
