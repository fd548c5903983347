package edit

import (
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Meaner is a command whose purpose is to join or to part certain nets. All others join and
// part nothing unless the person who gives them has said so (workbench.Bench.Try).
type Meaner interface {
	// Means says which, given the document and what is derived from it as they are before the command.
	Means(d *design.Doc, e Env) circuit.Means
}

// Means of a command.
func Means(c Command, d *design.Doc, e Env) circuit.Means {
	if m, ok := c.(Meaner); ok {
		return m.Means(d, e)
	}
	return circuit.Means{}
}

// Means to join what its two ends stand on.
func (c *DrawWire) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	if len(c.Path) == 0 {
		return circuit.Means{}
	}
	return circuit.Means{Joins: append(n.At(c.Sheet, c.Path[0], c.Bundle), n.At(c.Sheet, c.Path[len(c.Path)-1], c.Bundle)...)}
}

// Means to join what stands there with what bears the name.
func (c *PlaceLabel) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	return named(n, c.Sheet, c.Name, c.At)
}

// Means to join what stands there with what bears the name.
func (c *PlacePort) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	return named(n, c.Sheet, c.Name, c.At)
}

// Means to join what stands there with the supply.
func (c *PlaceSupply) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	return named(n, c.Sheet, c.Name, c.At)
}

func named(n *circuit.Nets, sheet design.ID, name string, at geom.Point) circuit.Means {
	name = strings.TrimSpace(name)
	m := circuit.Means{Joins: n.At(sheet, at, design.IsBundle(name))}
	members, _ := design.Members(name) // a name that cannot be is refused by the command
	m.Called = members
	for _, s := range members {
		m.Joins = append(m.Joins, n.Bearing(sheet, s)...)
	}
	return m
}

// Means to join the bundle's members with what stands at the ends of the taps and wires.
func (c *PlaceTaps) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	m := circuit.Means{}
	t := design.Tap{At: c.At, Turn: c.Turn}
	for range c.Members {
		m.Joins = append(m.Joins, n.At(c.Sheet, t.At, true)...)
		m.Joins = append(m.Joins, n.At(c.Sheet, t.End(), false)...)
		m.Joins = append(m.Joins, n.At(c.Sheet, t.End().Add(c.Wire), false)...)
		t.At = t.At.Add(c.Step)
	}
	return m
}

// Means to part the wire the part is put into.
func (c *PlacePart) Means(d *design.Doc, e Env) circuit.Means {
	n := e.nets(d)
	m := circuit.Means{}
	sym := symbolFor(d, e.library(), c.Library, c.Unit)
	v := n.Views[c.Sheet]
	if sym == nil || v == nil || len(sym.Pins) != 2 {
		return m
	}
	p := &design.Part{At: c.At, Turn: c.Turn, Mirror: c.Mirror}
	a, b := circuit.PinPlace(p, &sym.Pins[0]), circuit.PinPlace(p, &sym.Pins[1])
	if len(circuit.Under(v, a, b)) > 0 {
		m.Parts = n.At(c.Sheet, a, false)
	}
	return m
}

// Means to take away, and to part what that held together.
func (c *Remove) Means(*design.Doc, Env) circuit.Means { return circuit.Means{Any: true} }

// Means to take away all that stands on the sheet.
func (c *RemoveSheet) Means(*design.Doc, Env) circuit.Means {
	return circuit.Means{Any: true}
}

// Means to join two nets when it says so; else it is refused where it would.
func (c *RenameNet) Means(*design.Doc, Env) circuit.Means {
	return circuit.Means{Any: c.Join}
}
