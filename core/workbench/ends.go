package workbench

import (
	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// ends finds tracks that end in nothing, of nets that are joined otherwise: those that are open still end where their work goes on.
type ends struct {
	doc      *design.Doc
	copper   *copper
	pours    *pours
	links    *links
	findings *ledger
	tracks   map[design.ID]bool               // to look at
	nets     map[design.ID]bool               // that may be open otherwise than before, or filled otherwise
	bare     map[design.ID]map[check.End]bool // by net: ends at which there is no copper but what areas fill
	of       map[check.End]design.ID          // the nets of those
	said     map[check.End]bool
	whole    bool
}

// newEnds begins with the bare ends of all tracks.
func newEnds(b *Bench, bare []check.End) *ends {
	e := &ends{doc: b.Doc, copper: b.copper, pours: b.pours, links: b.links, findings: b.findings,
		bare: map[design.ID]map[check.End]bool{}, of: map[check.End]design.ID{}, said: map[check.End]bool{}}
	e.forget()
	for _, end := range bare {
		e.put(end, b.Doc.Tracks[end.Track].Net)
	}
	r := b.graph.Result("ends", e.renew)
	derive.From(r, &b.copper.places, func(c *layout.Copper) {
		for o := range e.copper.index.Near(c.Box()) {
			if o.Kind == "track" {
				e.tracks[o.ID] = true
			}
		}
		if c.Kind == "track" {
			e.tracks[c.ID] = true
		}
		e.nets[c.Net] = true
	})
	derive.From(r, &b.pours.nets, func(net design.ID) { e.nets[net] = true })
	derive.From(r, &b.copper.layers, func(bool) { e.whole = true })
	return e
}

func (e *ends) forget() {
	e.tracks, e.nets = map[design.ID]bool{}, map[design.ID]bool{}
}

func (e *ends) renew() {
	if e.whole {
		for end := range e.said {
			e.findings.drop(end.Key())
		}
		e.bare, e.of, e.said, e.whole = map[design.ID]map[check.End]bool{}, map[check.End]design.ID{}, map[check.End]bool{}, false
		for t := range e.doc.Tracks.All() {
			e.tracks[t.ID] = true
		}
	}
	for id := range e.tracks {
		e.look(id)
	}
	for net := range e.nets {
		e.say(net)
	}
	e.forget()
}

// look notes which ends of a track no copper is at.
func (e *ends) look(id design.ID) {
	t := e.doc.Tracks[id]
	for _, end := range []check.End{{Track: id}, {Track: id, Far: true}} {
		if net, was := e.of[end]; was {
			delete(e.bare[net], end)
			delete(e.of, end)
			e.nets[net] = true
		}
		if t == nil {
			e.drop(end)
			continue
		}
		e.nets[t.Net] = true
		if check.Held(e.doc, e.copper.index, end) {
			continue
		}
		e.put(end, t.Net)
	}
}

// put notes a bare end.
func (e *ends) put(end check.End, net design.ID) {
	if e.bare[net] == nil {
		e.bare[net] = map[check.End]bool{}
	}
	e.bare[net][end], e.of[end], e.nets[net] = true, net, true
}

func (e *ends) drop(end check.End) {
	if e.said[end] {
		e.findings.drop(end.Key())
		delete(e.said, end)
	}
}

// say makes the findings of a net.
func (e *ends) say(net design.ID) {
	n := e.links.of[net]
	open := n != nil && len(n.Links()) > 0
	for end := range e.said { // few
		if t := e.doc.Tracks[end.Track]; t == nil || t.Net == net && (open || !e.bare[net][end]) {
			e.drop(end)
		}
	}
	if open {
		return
	}
	for end := range e.bare[net] {
		t := e.doc.Tracks[end.Track]
		layer := e.doc.Board.Position(t.Layer)
		if e.pours.beneath(net, end.At(t), 1<<layer) != nil {
			e.drop(end)
			continue
		}
		e.findings.put(check.Loose(e.doc, end))
		e.said[end] = true
	}
}
