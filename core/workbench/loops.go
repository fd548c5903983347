package workbench

import (
	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
)

// loops finds tracks that make loops or lie over each other, where no copper area of their net fills what they go around.
type loops struct {
	doc      *design.Doc
	copper   *copper
	links    *links
	pours    *pours
	findings *ledger
	tracks   map[design.ID]bool // to look at
	nets     map[design.ID]bool // that are filled otherwise
	of       map[design.ID]*layout.Loop
	by       map[design.ID]map[*layout.Loop]bool // of a net
	whole    bool
}

// newLoops begins with the loops of the board.
func newLoops(b *Bench, list []layout.Loop) *loops {
	l := &loops{doc: b.Doc, copper: b.copper, links: b.links, pours: b.pours, findings: b.findings, of: map[design.ID]*layout.Loop{}, by: map[design.ID]map[*layout.Loop]bool{}}
	l.forget()
	for i := range list {
		l.put(&list[i])
	}
	r := b.graph.Result("loops", l.renew)
	derive.From(r, &b.copper.places, func(c *layout.Copper) {
		for o := range l.copper.index.Near(c.Box()) {
			if o.Kind == "track" && o.Net == c.Net {
				l.tracks[o.ID] = true
			}
		}
		if c.Kind == "track" {
			l.tracks[c.ID] = true
		}
	})
	r.Of(func(c edit.Change) { l.nets[c.ID] = true }, design.KindNet) // it may be called otherwise
	derive.From(r, &b.pours.nets, func(net design.ID) { l.nets[net] = true })
	derive.From(r, &b.copper.layers, func(bool) { l.whole = true })
	return l
}

func (l *loops) forget() {
	l.tracks, l.nets = map[design.ID]bool{}, map[design.ID]bool{}
}

func (l *loops) renew() {
	if l.whole {
		for id := range l.of {
			l.tracks[id] = true
		}
		for t := range l.doc.Tracks.All() {
			l.tracks[t.ID] = true
		}
		l.whole = false
	}
	for id := range l.tracks { // with a loop go all its tracks
		if loop := l.of[id]; loop != nil {
			for _, id := range loop.Tracks {
				l.tracks[id] = true
			}
		}
	}
	of := map[design.ID][]design.ID{}
	for id := range l.tracks {
		l.drop(id)
		if t := l.doc.Tracks[id]; t != nil {
			of[t.Net] = append(of[t.Net], id)
		}
	}
	for net, list := range of {
		links := l.links.of[net]
		if links == nil {
			continue
		}
		found, looked := links.Loops(list)
		for id := range looked {
			l.drop(id)
		}
		for i := range found {
			l.put(&found[i])
		}
	}
	for net := range l.nets {
		for loop := range l.by[net] {
			l.say(loop)
		}
	}
	l.forget()
}

func (l *loops) put(loop *layout.Loop) {
	for _, id := range loop.Tracks {
		l.of[id] = loop
	}
	if l.by[loop.Net] == nil {
		l.by[loop.Net] = map[*layout.Loop]bool{}
	}
	l.by[loop.Net][loop] = true
	l.nets[loop.Net] = true
}

// drop forgets the loop that a track belonged to.
func (l *loops) drop(id design.ID) {
	loop := l.of[id]
	if loop == nil {
		return
	}
	l.findings.drop(check.LoopKey(loop))
	for _, id := range loop.Tracks {
		delete(l.of, id)
	}
	delete(l.by[loop.Net], loop)
	if len(l.by[loop.Net]) == 0 {
		delete(l.by, loop.Net)
	}
}

// say tells of a loop, unless an area fills what it goes around or nobody knows that yet.
func (l *loops) say(loop *layout.Loop) {
	if loop.Around > 0 && (l.links.unknown(loop.Net) || l.pours.beneath(loop.Net, loop.At, 1<<loop.Layer) != nil) {
		l.findings.drop(check.LoopKey(loop))
		return
	}
	l.findings.put(check.Looped(l.doc, loop))
}
