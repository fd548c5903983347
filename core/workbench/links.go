package workbench

import (
	"maps"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
)

// links are the open links of the board's nets and their findings.
type links struct {
	doc      *design.Doc
	copper   *copper
	pours    *pours
	findings *ledger
	of       map[design.ID]*layout.NetLinks
	said     map[design.ID]string             // key of a net's finding
	nets     map[design.ID]map[design.ID]bool // whose copper changed, with the objects it changed of
	named    map[design.ID]bool               // that are called otherwise
	before   map[design.ID][]layout.Link      // of nets that changed since it was last told
}

func newLinks(g *derive.Graph, d *design.Doc, x *copper, p *pours, done map[design.ID]*layout.NetLinks, l *ledger) *links {
	k := &links{doc: d, copper: x, pours: p, findings: l, of: done, said: map[design.ID]string{}, before: map[design.ID][]layout.Link{}}
	r := g.Result("links", k.renew)
	r.Of(func(c edit.Change) { k.named[c.ID] = true }, design.KindNet)
	derive.From(r, &x.nets, func(c ofNet) {
		if k.nets[c.net] == nil {
			k.nets[c.net] = map[design.ID]bool{}
		}
		k.nets[c.net][c.object] = true
	})
	derive.From(r, &p.nets, func(net design.ID) {
		if k.nets[net] == nil {
			k.nets[net] = map[design.ID]bool{}
		}
		if n := k.of[net]; n != nil {
			n.Bonded(p.fills.Bonds(net))
		}
	})
	derive.From(r, &x.layers, func(otherwise bool) {
		if otherwise {
			k.anew()
			return
		}
		for _, n := range k.of {
			n.Relayered(x.index)
		}
	})
	k.forget()
	for net := range done {
		k.named[net] = true
		k.before[net] = nil
	}
	return k
}

func (k *links) forget() {
	k.nets, k.named = map[design.ID]map[design.ID]bool{}, map[design.ID]bool{}
}

// anew makes the links of all nets from scratch.
func (k *links) anew() {
	for net := range k.of {
		k.note(net)
	}
	was := k.of
	k.of = map[design.ID]*layout.NetLinks{}
	k.forget()
	for _, net := range k.copper.index.Nets() {
		k.nets[net] = nil
	}
	for net := range was { // which may have lost all
		k.nets[net] = nil
	}
}

// unknown tells whether nobody can know yet what of a net is open: areas of it were not filled yet.
func (k *links) unknown(net design.ID) bool {
	return k.pours.Rev() == derive.Never && k.pours.of(net)
}

// note keeps a net's links as they were last told.
func (k *links) note(net design.ID) {
	if _, noted := k.before[net]; noted {
		return
	}
	k.before[net] = nil
	if n := k.of[net]; n != nil {
		k.before[net] = n.Links()
	}
}

func (k *links) renew() {
	delete(k.nets, 0)
	for net, objects := range k.nets {
		k.note(net)
		n := k.of[net]
		if n == nil {
			n = layout.NewNetLinks(net)
			n.Bonded(k.pours.fills.Bonds(net))
			k.of[net] = n
			n.Update(k.copper.index, maps.Keys(k.copper.index.ObjectsOf(net)))
		} else {
			n.Update(k.copper.index, maps.Keys(objects))
		}
		if n.Len() == 0 {
			delete(k.of, net)
		}
		k.named[net] = true
	}
	k.say(k.named)
	k.forget()
}

// say makes the findings of nets' open links. Nets may have exchanged their names, so that what was said
// goes before anything is said.
func (k *links) say(nets map[design.ID]bool) {
	now := map[design.ID]*check.Finding{}
	for net := range nets {
		if n := k.of[net]; n != nil && !k.unknown(net) {
			now[net] = check.OpenLinks(k.doc.NetName(net), n.Links())
		}
		if old := k.said[net]; old != "" && (now[net] == nil || now[net].Key != old) {
			k.findings.drop(old)
			delete(k.said, net)
		}
	}
	for net, f := range now {
		if f != nil {
			k.said[net] = f.Key
			k.findings.put(f)
		}
	}
}

// told is what changed since this was last asked.
func (k *links) told() map[design.ID]layout.LinkChange {
	out := map[design.ID]layout.LinkChange{}
	for net, was := range k.before {
		if k.unknown(net) {
			continue // it is told once it is known
		}
		var is []layout.Link
		if n := k.of[net]; n != nil {
			is = n.Links()
		}
		if c, any := layout.Changed(was, is); any {
			out[net] = c
		}
		delete(k.before, net)
	}
	return out
}
