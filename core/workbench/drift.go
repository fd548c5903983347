package workbench

import (
	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
)

// drift is the board held against its circuit.
type drift struct {
	doc      *design.Doc
	nets     *nets
	findings *ledger
	cmp      *layout.Comparison
	keys     map[string]bool
	parts    map[circuit.PartRef]bool // of the circuit, to compare anew
	placed   map[design.ID]bool       // of the board
	whole    bool
}

func newDrift(g *derive.Graph, d *design.Doc, n *nets, l *ledger) *drift {
	f := &drift{doc: d, nets: n, findings: l, cmp: layout.NewComparison(), keys: map[string]bool{}}
	f.forget()
	f.whole = true
	r := g.Result("differences", f.renew)
	r.Of(f.part, design.KindPart)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			f.bearer(o.(*design.Placed))
		}
	}, design.KindPlaced)
	r.Of(func(c edit.Change) { // its name is what the two are compared by
		for _, id := range f.cmp.Bearers(c.ID) {
			f.placed[id] = true
			if p := d.Placed[id]; p != nil {
				f.bearer(p)
			}
		}
	}, design.KindNet)
	r.Of(func(edit.Change) { f.whole = true }, design.KindFootprint)
	derive.From(r, &n.tree, func(bool) { f.whole = true })
	derive.From(r, &n.changed, func(c circuit.NetChanges) {
		for name, net := range c.Changed {
			f.pins(c.Was[name], net)
		}
	})
	return f
}

func (f *drift) forget() {
	f.parts, f.placed, f.whole = map[circuit.PartRef]bool{}, map[design.ID]bool{}, false
}

func (f *drift) bearer(p *design.Placed) {
	f.placed[p.ID] = true
	f.parts[circuit.PartRef{Part: p.Part, Path: p.Path}] = true
}

// part notes a part of the circuit, and what other units its package has.
func (f *drift) part(c edit.Change) {
	tree := f.nets.nets.Tree
	for _, o := range both(c) {
		p := o.(*design.Part)
		for _, place := range tree.Of(p.Sheet) {
			f.parts[circuit.PartRef{Part: p.ID, Path: place.Path}] = true
			if p.Unit == 0 {
				continue
			}
			for _, u := range f.doc.Bearers(p.Called(place.Path)) {
				for _, other := range tree.Of(u.Sheet) {
					f.parts[circuit.PartRef{Part: u.ID, Path: other.Path}] = true
				}
			}
		}
	}
}

// pins notes the parts whose pads bear another net since the net was what it was.
func (f *drift) pins(was, is *circuit.Net) {
	if circuit.Redrawn(was, is) && (len(is.Pins) > 1 || is.Named) {
		return
	}
	old := map[circuit.PinRef]bool{}
	if was != nil && was.Named == is.Named && (len(was.Pins) > 1) == (len(is.Pins) > 1) {
		for _, p := range was.Pins {
			old[p] = true
		}
	}
	for _, p := range is.Pins {
		if old[p] {
			delete(old, p)
		} else {
			f.parts[circuit.PartRef{Part: p.Part, Path: p.Path}] = true
		}
	}
	for p := range old {
		f.parts[circuit.PartRef{Part: p.Part, Path: p.Path}] = true
	}
}

func (f *drift) renew() {
	nets := f.nets.now()
	if f.whole {
		f.cmp.UpdateAll(f.doc, nets)
	} else {
		f.cmp.Update(f.doc, nets, f.parts, f.placed)
	}
	f.forget()
	now := map[string]bool{}
	if len(f.doc.Placed) > 0 {
		for _, x := range check.Drift(f.doc, f.cmp.List()) {
			now[x.Key] = true
			f.findings.put(&x)
		}
	}
	for k := range f.keys {
		if !now[k] {
			f.findings.drop(k)
		}
	}
	f.keys = now
}
