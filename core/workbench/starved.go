package workbench

import (
	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
)

// starved finds pads that copper areas join by one spoke alone.
type starved struct {
	doc      *design.Doc
	copper   *copper
	pours    *pours
	findings *ledger
	tiles    map[pour.Tile]uint32              // filled anew, and on which copper layers
	pads     map[layout.Ref]bool               // near what changed
	said     map[design.ID]map[layout.Ref]bool // by the object of the pad
}

func newStarved(b *Bench) *starved {
	s := &starved{doc: b.Doc, copper: b.copper, pours: b.pours, findings: b.findings, said: map[design.ID]map[layout.Ref]bool{}}
	r := b.graph.Result("spokes", s.renew)
	derive.From(r, &b.pours.tiles, func(c filledTile) {
		if i := s.doc.Board.Position(c.key.Layer); i >= 0 && !c.key.AreTeardrops() {
			s.tiles[c.tile] |= 1 << i
		}
	})
	derive.From(r, &b.copper.places, func(c *layout.Copper) {
		s.drop(c.ID)
		for o := range s.copper.index.Near(c.Box()) {
			s.note(o)
		}
	})
	derive.From(r, &b.copper.layers, func(bool) {
		for id := range s.said {
			s.drop(id)
		}
		for c := range s.copper.index.All() {
			s.note(c)
		}
	})
	s.forget()
	return s
}

func (s *starved) forget() {
	s.tiles, s.pads = map[pour.Tile]uint32{}, map[layout.Ref]bool{}
}

func (s *starved) note(c *layout.Copper) {
	if c.Net != 0 && !c.Bare && (c.Kind == "pad" || c.Kind == "via") {
		s.pads[c.Ref()] = true
	}
}

func (s *starved) drop(id design.ID) {
	for ref := range s.said[id] {
		s.findings.drop(check.StarvedKey(ref))
	}
	delete(s.said, id)
}

func (s *starved) renew() {
	for t, layers := range s.tiles {
		for c := range s.copper.index.Near(t.Box().Grow(pour.FarSpoke)) {
			if c.Layers&layers != 0 {
				s.note(c)
			}
		}
	}
	for ref := range s.pads {
		for _, c := range s.copper.index.Of(ref.ID) {
			if c.Ref() == ref {
				s.say(c)
			}
		}
	}
	s.forget()
}

func (s *starved) say(c *layout.Copper) {
	ref, f := c.Ref(), check.Starved(s.doc, s.copper.index, s.pours.fills, c)
	switch {
	case f != nil:
		if s.said[c.ID] == nil {
			s.said[c.ID] = map[layout.Ref]bool{}
		}
		s.said[c.ID][ref] = true
		s.findings.put(f)
	case s.said[c.ID][ref]:
		s.findings.drop(check.StarvedKey(ref))
		delete(s.said[c.ID], ref)
	}
}
