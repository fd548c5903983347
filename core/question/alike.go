package question

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/ordering"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Alike asks what else on the board is like something: by each of its properties.
type Alike struct {
	ID design.ID `json:"id"`
}

// Likeness is a property of the thing, and what else has it; the thing itself is among them.
type Likeness struct {
	By  string      `json:"by"`  // "footprint"
	Is  string      `json:"is"`  // "0603"
	IDs []design.ID `json:"ids"` // in order
}

// property of a thing: its name, and what it is.
type property struct{ by, is string }

// Answer the question. Cost: a look at all things of the kind.
func (q *Alike) Answer(b *workbench.Bench) ([]Likeness, error) {
	d := b.Doc
	o := d.Get(q.ID)
	want := properties(d, o)
	if len(want) == 0 {
		return nil, fmt.Errorf("nothing on the board is like that")
	}
	out := make([]Likeness, len(want))
	for i, p := range want {
		out[i] = Likeness{By: p.by, Is: p.is}
	}
	for other := range d.Share().All(o.ObjectKind()) {
		for i, p := range properties(d, other) {
			if i < len(want) && p == want[i] {
				out[i].IDs = append(out[i].IDs, other.ObjectID())
			}
		}
	}
	for i := range out {
		slices.Sort(out[i].IDs)
	}
	return out, nil
}

// properties of a thing on the board by which others are like it, the same ones in the same order for all of a kind.
func properties(d *design.Doc, o design.Object) []property {
	net := func(id design.ID) []property {
		class := ""
		if n := d.Nets[id]; n != nil {
			class = n.Class
		}
		return []property{{"net", d.NetName(id)}, {"class", class}}
	}
	side := func(bottom bool) property {
		if bottom {
			return property{"side", "bottom"}
		}
		return property{"side", "top"}
	}
	locked := func(is bool) property { return property{"locked", yes(is)} }
	layer := func(id design.LayerID) property {
		if l := d.Board.Layer(id); l != nil {
			return property{"layer", l.Name}
		}
		return property{"layer", ""}
	}
	switch o := o.(type) {
	case *design.Placed:
		part := d.Parts[o.Part]
		library, sheet := "", ""
		if part != nil {
			library = part.Library
			if s := d.Sheets[part.Sheet]; s != nil {
				sheet = s.Name
			}
		}
		group := layout.GroupOf(d, circuit.PartRef{Part: o.Part, Path: o.Path})
		cluster := ""
		if c := d.Clusters[group.Cluster]; c != nil {
			cluster = c.Title
		}
		value := ordering.ValueKey(o.Value, design.Prefix(o.Designator))
		return []property{{"footprint", o.Footprint}, {"value", value}, {"value and footprint", value + ", " + o.Footprint},
			{"kind", design.Prefix(o.Designator)}, {"library part", library}, {"cluster", cluster}, {"sheet", sheet}, side(o.Bottom),
			locked(o.Locked), {"fitted", yes(!o.NotFitted)},
			{"letters", units.Text(o.LetterHeight())}}
	case *design.Track:
		return append(net(o.Net), property{"width", units.Text(o.Width)}, layer(o.Layer), property{"width and layer",
			units.Text(o.Width) + ", " + layer(o.Layer).is},
			locked(o.Locked), property{"free of the mask", yes(o.Bare)})
	case *design.Via:
		return append(net(o.Net), property{"diameter", units.Text(o.Diameter)}, property{"hole", units.Text(o.Hole)}, property{"layers",
			layer(o.From).is + " to " + layer(o.To).is}, locked(o.Locked))
	case *design.Hole:
		return []property{{"diameter", units.Text(o.Diameter)}, {"plated", yes(o.Land > 0)}, locked(o.Locked)}
	case *design.Legend:
		return []property{{"height", units.Text(o.Height)}, {"font", o.Font}, {"text", o.Text}, {"surface",
			o.On + strings.TrimSpace(" "+layer(o.Layer).is)}, side(o.Bottom)}
	case *design.BoardFigure:
		return []property{{"width", units.Text(o.Width)}, {"filled", yes(o.Filled)}, {"surface",
			o.On + strings.TrimSpace(" "+layer(o.Layer).is)}, side(o.Bottom)}
	}
	return nil
}

func yes(is bool) string {
	if is {
		return "yes"
	}
	return "no"
}
