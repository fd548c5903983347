package workbench

import (
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// copper is the board's copper by place, by object and by net, up to date with every change.
type copper struct {
	doc     *design.Doc
	index   *layout.Index
	objects derive.Feed[design.ID]      // whose copper or place changed
	nets    derive.Feed[ofNet]          // what of which net changed
	layers  derive.Feed[bool]           // all copper was made anew; true: and may join otherwise
	edge    derive.Feed[bool]           // the outline, the stack or areas that keep things out
	places  derive.Feed[*layout.Copper] // pieces that came, went or were replaced, as they were and as they are
}

// ofNet is an object whose copper of a net changed.
type ofNet struct{ net, object design.ID }

func newCopper(g *derive.Graph, d *design.Doc, x *layout.Index) *copper {
	c := &copper{doc: d, index: x}
	r := g.Result("copper", nil)
	r.Of(c.object, design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole, design.KindLegend, design.KindFigure)
	r.Of(c.footprint, design.KindFootprint)
	r.Of(func(x edit.Change) {
		if c.index.Board(d) {
			c.layers.Tell(!joinsAsBefore(x))
		}
		c.edge.Tell(true)
	}, design.KindBoard)
	r.Of(func(edit.Change) { c.index.Areas(d); c.edge.Tell(true) }, design.KindRuleArea)
	r.Of(func(x edit.Change) {
		if keeps(x.Before) || keeps(x.After) {
			c.index.Areas(d)
			c.edge.Tell(true)
		}
	}, design.KindHole)
	return c
}

// keeps tells whether a hole keeps room free around it.
func keeps(o design.Object) bool {
	h, ok := o.(*design.Hole)
	return ok && h.Keep > 0
}

// joinsAsBefore tells whether all copper joins what it joined on the stack of before: the layers that both have lie
// in the same order. On those that only one has there is no copper, or it is told of by itself.
func joinsAsBefore(x edit.Change) bool {
	was, ok := x.Before.(*design.Board)
	is, also := x.After.(*design.Board)
	if !ok || !also || was.Layers() < 2 || is.Layers() < 2 || was.Top() != is.Top() || was.Bottom() != is.Bottom() {
		return false
	}
	last := -1
	for _, l := range was.Copper() {
		if at := is.Position(l.ID); at >= 0 && at < last {
			return false
		} else if at >= 0 {
			last = at
		}
	}
	return true
}

func (c *copper) object(x edit.Change) {
	tell := func() {
		for _, piece := range c.index.Of(x.ID) {
			c.places.Tell(piece)
		}
	}
	tell()
	if x.After != nil {
		c.index.Put(c.doc, x.After)
		tell()
	} else {
		c.index.Remove(x.ID)
	}
	for _, o := range both(x) {
		switch o := o.(type) {
		case *design.Placed:
			for _, n := range o.Nets {
				c.nets.Tell(ofNet{n, x.ID})
			}
		case *design.Track:
			c.nets.Tell(ofNet{o.Net, x.ID})
		case *design.Via:
			c.nets.Tell(ofNet{o.Net, x.ID})
		}
	}
	c.objects.Tell(x.ID)
}

// footprint makes the pads of all parts anew that have the footprint.
func (c *copper) footprint(x edit.Change) {
	for _, o := range both(x) {
		name := o.(*design.Footprint).Name
		for p := range c.doc.Placed.All() {
			if p.Footprint == name {
				c.object(edit.Change{Kind: design.KindPlaced, ID: p.ID, Before: p, After: p})
			}
		}
	}
}

// ruleSet is the board's rules compiled, up to date with every change.
type ruleSet struct {
	set *rules.Set
	// retold are nets for which another rule may hold now
	retold derive.Feed[design.ID]
}

func newRuleSet(g *derive.Graph, set *rules.Set) *ruleSet {
	s := &ruleSet{set: set}
	r := g.Result("rules", nil)
	r.Of(func(c edit.Change) { s.set.Changed(c.Before, c.After) }, design.KindBoard, design.KindRule, design.KindRuleArea)
	r.Of(func(c edit.Change) {
		s.set.Changed(c.Before, c.After)
		was, _ := c.Before.(*design.Net)
		is, _ := c.After.(*design.Net)
		if was != nil && is != nil && s.set.Tells(was, is) {
			s.retold.Tell(c.ID)
		}
	}, design.KindNet)
	return s
}
