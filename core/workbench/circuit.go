package workbench

import (
	"maps"

	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// nets are the circuit's nets with the sheets as they are drawn. They are found when they are asked for.
type nets struct {
	*derive.Result
	doc     *design.Doc
	nets    *circuit.Nets
	stale   map[design.ID]bool // sheets of which the nets are to be found anew
	changed derive.Feed[circuit.NetChanges]
	sheets  derive.Feed[design.ID] // whose drawing changed
	tree    derive.Feed[bool]      // blocks, sheets or symbols came, went or changed

	// since it was last told
	told   circuit.NetChanges
	views  map[design.ID]bool
	places bool
}

func none() circuit.NetChanges {
	return circuit.NetChanges{Changed: map[string]*circuit.Net{}, Lost: map[string]*circuit.Net{}, Was: map[string]*circuit.Net{}}
}

func newNets(g *derive.Graph, d *design.Doc, all *circuit.Nets) *nets {
	n := &nets{doc: d, nets: all, stale: map[design.ID]bool{}, told: none(), views: map[design.ID]bool{}, places: true}
	n.told.Changed = maps.Clone(n.nets.ByName)
	for id := range d.Sheets {
		n.views[id] = true
	}
	n.Result = g.Result("nets", n.renew)
	n.Of(n.object, design.KindSheet, design.KindSymbol, design.KindLibraryPart, design.KindPart, design.KindWire, design.KindLabel, design.KindPort,
		design.KindTap, design.KindSupply, design.KindOpenMark, design.KindBlock)
	return n
}

func (n *nets) object(c edit.Change) {
	for _, o := range both(c) {
		switch o.(type) {
		case *design.Sheet, *design.SheetBlock, *design.Symbol, *design.LibraryPart:
			n.places = true
			n.tree.Tell(true)
		}
		touched := map[design.ID]bool{}
		circuit.Stale(n.doc, o, touched)
		for id := range touched {
			n.stale[id], n.views[id] = true, true
			n.sheets.Tell(id)
		}
	}
	if was, ok := c.Before.(*design.Part); ok && c.After != nil && c.After.(*design.Part).Library != was.Library {
		n.tree.Tell(true) // pins of other types on the same nets
	}
}

// now are the nets, up to date.
func (n *nets) now() *circuit.Nets {
	n.Fresh()
	return n.nets
}

func (n *nets) renew() {
	if len(n.stale) > 0 {
		changes := n.refresh(n.stale)
		n.stale = map[design.ID]bool{}
		n.learn(changes)
	}
}

// found says that the nets of the sheets that changed were found already, as by trying a command.
func (n *nets) found(c circuit.NetChanges) {
	n.learn(c)
	clear(n.stale)
}

// refresh finds the nets of sheets anew. It tells nobody.
func (n *nets) refresh(sheets map[design.ID]bool) circuit.NetChanges {
	if len(sheets) == 0 {
		return circuit.NetChanges{}
	}
	return n.nets.Refresh(n.doc, maps.Clone(sheets))
}

// learn notes what changed in the nets and tells those that are made from them.
func (n *nets) learn(c circuit.NetChanges) {
	merge(&n.told, c)
	n.changed.Tell(c)
}

// merge adds later changes to those since something was last told: of each net how it was then.
func merge(all *circuit.NetChanges, c circuit.NetChanges) {
	for name, net := range c.Lost {
		delete(all.Was, name)
		all.Lost[name] = net
		delete(all.Changed, name)
	}
	for name, net := range c.Changed {
		told := all.Changed[name] != nil || all.Lost[name] != nil
		if !told && c.Was[name] != nil {
			all.Was[name] = c.Was[name]
		} else if !told {
			delete(all.Was, name)
		}
		all.Changed[name] = net
		delete(all.Lost, name)
	}
}

// tell puts into the delta what changed since it was last told.
func (n *nets) tell(d *Delta) {
	for name, net := range n.told.Changed {
		if was := n.told.Was[name]; circuit.Redrawn(was, net) {
			d.Redrawn = append(d.Redrawn, Redrawn{name, circuit.Redraw(was, net)})
		} else {
			d.Nets = append(d.Nets, net)
		}
	}
	inOrder(d.Nets)
	for name := range n.told.Lost {
		d.LostNets = append(d.LostNets, name)
	}
	for id := range n.views {
		if v := n.nets.Views[id]; v != nil {
			d.Sheets = append(d.Sheets, v)
		}
	}
	if n.places {
		d.Places = n.nets.Tree.Uses
	}
	n.told, n.views, n.places = none(), map[design.ID]bool{}, false
}
