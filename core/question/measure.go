package question

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// Measure asks for the distances between two places of the board, or two things that were met there.
type Measure struct {
	A Met `json:"a"`
	B Met `json:"b"`
}

// Met is what the hand met: a place, and what lies there.
type Met struct {
	At  geom.Point `json:"at"`
	Of  design.ID  `json:"of,omitempty"`
	Pad string     `json:"pad,omitempty"` // of a part; none: its courtyard
}

// Gauged is what was measured.
type Gauged struct {
	Straight int64       `json:"straight"` // between the places
	Edges    *EdgeGap    `json:"edges,omitempty"`
	Along    *layout.Way `json:"along,omitempty"` // when both are of one net that tracks join
	Apart    bool        `json:"apart,omitempty"` // both are of one net, and no copper joins them
}

// EdgeGap is where two things come nearest; 0: they touch or lie over each other.
type EdgeGap struct {
	Gap int64      `json:"gap"`
	A   geom.Point `json:"a"`
	B   geom.Point `json:"b"`
}

// Answer the question.
func (q *Measure) Answer(b *workbench.Bench) (*Gauged, error) {
	if err := within(q.A.At, q.B.At); err != nil {
		return nil, err
	}
	out := &Gauged{Straight: int64(math.Round(q.A.At.Dist(q.B.At)))}
	one, other := q.A.shapes(b), q.B.shapes(b)
	best := math.Inf(1)
	if len(one)*len(other) > 1_000_000 {
		return nil, fmt.Errorf("these drawings have too many pieces to be measured from edge to edge")
	}
	for _, s := range one {
		for _, t := range other {
			if gap, p, r := geom.Gap(s, t); gap < best {
				best = gap
				out.Edges = &EdgeGap{max(geom.Measured(gap), 0), p, r}
			}
		}
	}
	net := q.A.net(b)
	if net == 0 || net != q.B.net(b) {
		return out, nil
	}
	if w, ok := layout.Along(b.Doc, b.Index(), net, q.A.At, q.B.At); ok {
		out.Along = &w
	} else {
		out.Apart = true
	}
	return out, nil
}

// pieces of copper that were met.
func (m Met) pieces(b *workbench.Bench) (out []*layout.Copper) {
	for _, c := range b.Index().Of(m.Of) {
		if m.Pad == "" || c.Number == m.Pad {
			out = append(out, c)
		}
	}
	return out
}

func (m Met) net(b *workbench.Bench) design.ID {
	if _, part := b.Doc.Get(m.Of).(*design.Placed); part && m.Pad == "" {
		return 0
	}
	for _, c := range m.pieces(b) {
		return c.Net
	}
	return 0
}

// shapes of what was met: a part's courtyard, the board's edge, else its copper or what it prints.
func (m Met) shapes(b *workbench.Bench) (out []geom.Shape) {
	switch o := b.Doc.Get(m.Of).(type) {
	case *design.Board:
		r := o.Region()
		least := math.Inf(1)
		for _, ring := range append([]geom.Ring{r.Outer}, r.Holes...) {
			for _, p := range ring { // the side that was met
				if d, _, _ := geom.PieceDistance(p, geom.Straight(m.At, m.At)); d < least {
					least, out = d, []geom.Shape{geom.Bow(p, 0)}
				}
			}
		}
		return out
	case *design.Placed:
		if f := b.Doc.Footprint(o.Footprint); m.Pad == "" && f != nil {
			return []geom.Shape{{Pts: layout.Courtyard(f, o.Pose()), Area: true}}
		}
	case *design.Legend, *design.BoardFigure:
		return layout.PrintOf(b.Doc, o, 0).Shapes()
	}
	for _, c := range m.pieces(b) {
		out = append(out, c.Shape)
	}
	return out
}
