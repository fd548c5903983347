package question

import (
	"goldentrace/core/landpattern"
	"goldentrace/core/workbench"
)

// Families asks which families of components footprints can be generated for.
type Families struct{}

// Answer the question.
func (q *Families) Answer(*workbench.Bench) ([]*landpattern.Family, error) {
	return landpattern.Families(), nil
}
