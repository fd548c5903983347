package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// Lettering asks for the outlines of a text in an outline font, around its middle.
type Lettering struct {
	Text   string    `json:"text"`
	Height int64     `json:"height"`
	Font   string    `json:"font"`
	Face   design.ID `json:"face,omitempty"`
}

// Answer the question.
func (q *Lettering) Answer(b *workbench.Bench) ([][]geom.Point, error) {
	l := &design.Legend{Text: q.Text, Height: q.Height, Font: q.Font, Face: q.Face}
	if err := l.Valid(); err != nil {
		return nil, err
	}
	if err := b.Doc.Refers(l); err != nil {
		return nil, err
	}
	out := layout.TextRings(b.Doc.Asset, l)
	if out == nil {
		out = [][]geom.Point{}
	}
	return out, nil
}

// TracksOf asks for the tracks and vias that join nothing but pads of the parts, so that they can go along.
type TracksOf struct {
	IDs []design.ID `json:"ids"`
}

// Answer the question.
func (q *TracksOf) Answer(b *workbench.Bench) ([]design.ID, error) {
	if len(q.IDs) > mostPicked {
		return nil, fmt.Errorf("%d things at once are too many", len(q.IDs))
	}
	return layout.Between(b.Doc, b.Index(), q.IDs), nil
}
