package workbench

import (
	"maps"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// electrical is the electrical check of the circuit.
type electrical struct {
	doc         *design.Doc
	nets        *nets
	findings    *ledger
	erc         *circuit.Erc
	keys        map[string]bool
	changed     circuit.NetChanges
	sheets      map[design.ID]bool
	designators map[string]bool // borne by parts that changed, before or after
	whole       bool            // severities and uses of sheets reach everywhere
}

func newElectrical(g *derive.Graph, d *design.Doc, n *nets, done *circuit.Erc, l *ledger) *electrical {
	e := &electrical{doc: d, nets: n, findings: l, keys: map[string]bool{}, erc: done}
	e.forget()
	for _, x := range done.All() {
		e.keys[x.Key] = true
		l.put(check.Electrical(x))
	}
	r := g.Result("electrical", e.renew)
	r.Of(func(edit.Change) { e.whole = true }, design.KindChecks)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			p := o.(*design.Part)
			for _, place := range n.nets.Tree.Of(p.Sheet) {
				e.designators[p.Called(place.Path)] = true
			}
		}
	}, design.KindPart)
	derive.From(r, &n.tree, func(bool) { e.whole = true })
	derive.From(r, &n.sheets, func(id design.ID) { e.sheets[id] = true })
	derive.From(r, &n.changed, func(c circuit.NetChanges) { merge(&e.changed, c) })
	return e
}

func (e *electrical) forget() {
	e.changed, e.sheets, e.designators, e.whole = none(), map[design.ID]bool{}, map[string]bool{}, false
}

func (e *electrical) renew() {
	nets := e.nets.now()
	looked := e.changed
	looked.Changed = maps.Clone(looked.Changed)
	maps.DeleteFunc(looked.Changed, func(name string, net *circuit.Net) bool {
		return len(net.Pins) > 1 && circuit.Redrawn(e.changed.Was[name], net)
	})
	var gone []string
	var now []circuit.Finding
	if e.whole {
		e.erc = circuit.NewErc()
		e.erc.Fill(e.doc, nets)
		now = e.erc.All()
		is := map[string]bool{}
		for _, x := range now {
			is[x.Key] = true
		}
		for k := range e.keys {
			if !is[k] {
				gone = append(gone, k)
			}
		}
	} else {
		now, gone = e.erc.Update(e.doc, nets, circuit.Touched{Nets: looked, Sheets: e.sheets, Designators: e.designators})
	}
	for _, k := range gone {
		delete(e.keys, k)
		e.findings.drop(k)
	}
	for _, x := range now {
		e.keys[x.Key] = true
		e.findings.put(check.Electrical(x))
	}
	e.forget()
}
