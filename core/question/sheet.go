package question

import (
	"goldentrace/core/design"
	"goldentrace/core/paper"
	"goldentrace/core/workbench"
)

// Sheet asks what one use of a sheet looks like.
type Sheet struct {
	Sheet design.ID `json:"sheet"`
	Path  string    `json:"path,omitempty"`
}

// Page is the answer.
type Page = paper.Page

// Answer the question.
func (q *Sheet) Answer(b *workbench.Bench) (*Page, error) {
	nets := b.Nets()
	for _, place := range nets.Tree.Of(q.Sheet) {
		if place.Path == q.Path {
			page := paper.PageOf(b.Doc, nets, place)
			return &page, nil
		}
	}
	return nil, errNoSheet
}
