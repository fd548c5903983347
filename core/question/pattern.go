package question

import (
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// PatternOf asks what a footprint looks like on the board that is not in the project.
type PatternOf struct {
	Footprint design.Footprint `json:"footprint"`
}

// Answer the question.
func (q *PatternOf) Answer(*workbench.Bench) (layout.Pattern, error) {
	if err := q.Footprint.Valid(); err != nil {
		return layout.Pattern{}, err
	}
	return layout.PatternOf(&q.Footprint), nil
}
