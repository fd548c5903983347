package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/units"
	"goldentrace/core/vector"
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

// Logo asks what a drawing (SVG) would put on the board.
type Logo struct {
	Name  string `json:"name"`
	Data  []byte `json:"data"`
	Width int64  `json:"width"`
}

// LogoSeen is what it would put there, its middle at the origin.
type LogoSeen struct {
	Rings   [][]geom.Point `json:"rings"` // filled where an odd number surround
	Size    geom.Point     `json:"size"`
	LeftOut []string       `json:"leftOut"` // kinds of what cannot be taken
	Corners int            `json:"corners"`
}

// Answer the question.
func (q *Logo) Answer(*workbench.Bench) (*LogoSeen, error) {
	if q.Width <= 0 || q.Width > units.Limit {
		return nil, fmt.Errorf("a logo is to be some width")
	}
	d, err := vector.SVG(q.Data, q.Width)
	if err != nil {
		return nil, fmt.Errorf("the drawing %s cannot be put on the board: %w", q.Name, err)
	}
	out := &LogoSeen{Rings: overlay.Rings(d.Areas), Size: d.Size, LeftOut: append([]string{}, d.LeftAs...)}
	for _, r := range out.Rings {
		out.Corners += len(r)
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
