package workbench

import (
	"maps"
	"slices"

	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
)

// dimensions are the board's dimensions as they are drawn now, following what they measure.
type dimensions struct {
	doc     *design.Doc
	drawn   map[design.ID]layout.DimensionDrawn
	of      map[design.ID]map[design.ID]bool // what is followed → by which dimensions
	stale   map[design.ID]bool
	changed map[design.ID]bool // since it was last told
}

func newDimensions(g *derive.Graph, d *design.Doc) *dimensions {
	m := &dimensions{doc: d, drawn: map[design.ID]layout.DimensionDrawn{}, of: map[design.ID]map[design.ID]bool{}, stale: map[design.ID]bool{}, changed: map[design.ID]bool{}}
	for o := range d.Dimensions.All() {
		m.follow(o, true)
		m.stale[o.ID] = true
	}
	r := g.Result("dimensions", m.renew)
	r.Of(func(c edit.Change) {
		if o, ok := c.Before.(*design.BoardDimension); ok {
			m.follow(o, false)
		}
		if o, ok := c.After.(*design.BoardDimension); ok {
			m.follow(o, true)
		}
		m.stale[c.ID] = true
	}, design.KindDimension)
	r.Of(func(c edit.Change) { maps.Copy(m.stale, m.of[c.ID]) },
		design.KindBoard, design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole, design.KindLegend, design.KindFigure)
	r.Of(func(edit.Change) { // a pad may lie elsewhere in it
		for _, by := range m.of {
			maps.Copy(m.stale, by)
		}
	}, design.KindFootprint)
	return m
}

func (m *dimensions) follow(o *design.BoardDimension, in bool) {
	for _, a := range []design.Anchor{o.From, o.To} {
		switch {
		case a.Of == 0:
		case in && m.of[a.Of] == nil:
			m.of[a.Of] = map[design.ID]bool{o.ID: true}
		case in:
			m.of[a.Of][o.ID] = true
		default:
			if delete(m.of[a.Of], o.ID); len(m.of[a.Of]) == 0 {
				delete(m.of, a.Of)
			}
		}
	}
}

func (m *dimensions) renew() {
	for id := range m.stale {
		was, had := m.drawn[id]
		o := m.doc.Dimensions[id]
		if o == nil {
			delete(m.drawn, id)
			m.changed[id] = had || m.changed[id]
			continue
		}
		if is := layout.DimensionOf(m.doc, o); !had || is != was {
			m.drawn[id] = is
			m.changed[id] = true
		}
	}
	clear(m.stale)
}

// told are the dimensions that changed since this was last asked, and those that went.
func (m *dimensions) told() (out []layout.DimensionDrawn, lost []design.ID) {
	for _, id := range slices.Sorted(maps.Keys(m.changed)) {
		if is, ok := m.drawn[id]; ok {
			out = append(out, is)
		} else {
			lost = append(lost, id)
		}
	}
	clear(m.changed)
	return out, lost
}

// all of them, in the order of their ids.
func (m *dimensions) all() (out []layout.DimensionDrawn) {
	for _, id := range slices.Sorted(maps.Keys(m.drawn)) {
		out = append(out, m.drawn[id])
	}
	return out
}
