package workbench

import (
	"maps"

	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// counts are the packages of the circuit and its nets that have pins, counted by what changed.
type counts struct {
	doc      *design.Doc
	nets     *nets
	parts    int
	withPins map[string]bool
	recount  bool
}

func newCounts(g *derive.Graph, d *design.Doc, n *nets) *counts {
	c := &counts{doc: d, nets: n, withPins: map[string]bool{}, recount: true}
	for name, net := range n.nets.ByName {
		if len(net.Pins) > 0 {
			c.withPins[name] = true
		}
	}
	r := g.Result("counts", func() {
		if c.recount {
			c.parts, c.recount = len(circuit.Packages(d, n.now().Tree)), false
		}
	})
	r.Of(func(x edit.Change) { c.recount = c.recount || calledAnew(x) }, design.KindPart)
	derive.From(r, &n.tree, func(bool) { c.recount = true })
	derive.From(r, &n.changed, func(x circuit.NetChanges) {
		for name := range x.Lost {
			delete(c.withPins, name)
		}
		for name, net := range x.Changed {
			if delete(c.withPins, name); len(net.Pins) > 0 {
				c.withPins[name] = true
			}
		}
	})
	return c
}

// calledAnew tells whether a change is of a part that came, went or is called otherwise.
func calledAnew(c edit.Change) bool {
	was, before := c.Before.(*design.Part)
	is, after := c.After.(*design.Part)
	if !before || !after {
		return before || after
	}
	return was.Designator != is.Designator || was.Unit != is.Unit || was.Sheet != is.Sheet || !maps.Equal(was.Others, is.Others)
}
