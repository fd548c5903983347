package workbench

import (
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// advice is what is to be said of tracks beside the board's rules: nets that are too thin for their currents, and sharp corners.
type advice struct {
	doc      *design.Doc
	copper   *copper
	findings *ledger
	nets     map[design.ID]bool // whose currents or tracks changed
	joints   map[check.Joint]bool
	corners  map[check.Joint]check.Corner
	of       map[design.ID]map[check.Joint]bool // the corners of a net
	whole    bool
}

// newAdvice begins with the sharp corners of the board.
func newAdvice(g *derive.Graph, d *design.Doc, c *copper, corners map[check.Joint]check.Corner, l *ledger) *advice {
	a := &advice{doc: d, copper: c, findings: l, nets: map[design.ID]bool{}, joints: map[check.Joint]bool{}, corners: map[check.Joint]check.Corner{}, of: map[design.ID]map[check.Joint]bool{}}
	for j, corner := range corners {
		a.put(j, corner)
	}
	a.carrying()
	r := g.Result("advice", a.renew)
	r.Of(func(x edit.Change) {
		for _, o := range both(x) {
			if t, ok := o.(*design.Track); ok {
				a.nets[t.Net] = true
			}
			a.touch(o)
		}
	}, design.KindTrack, design.KindVia, design.KindPlaced, design.KindHole, design.KindLegend, design.KindFigure)
	r.Of(func(x edit.Change) {
		was, _ := x.Before.(*design.Net)
		is, _ := x.After.(*design.Net)
		if was == nil || is == nil || was.Current != is.Current || was.Name != is.Name {
			a.nets[x.ID] = true
		}
	}, design.KindNet)
	r.Of(func(x edit.Change) {
		was, _ := x.Before.(*design.Board)
		is, _ := x.After.(*design.Board)
		if was == nil || is == nil || was.Rise != is.Rise || !slices.Equal(was.Stack, is.Stack) {
			a.carrying()
		}
	}, design.KindBoard)
	r.Of(func(x edit.Change) {
		for _, o := range both(x) {
			a.footprint(o.(*design.Footprint))
		}
	}, design.KindFootprint)
	derive.From(r, &c.layers, func(bool) { a.whole = true })
	return a
}

// touch notes the places where corners may come or go with an object.
func (a *advice) touch(o design.Object) {
	if a.whole {
		return
	}
	for _, j := range check.JointsOf(a.copper.index, layout.PiecesOf(a.doc, o)) {
		a.joints[j] = true
	}
}

// carrying notes all nets of which a current is known.
func (a *advice) carrying() {
	for n := range a.doc.Nets.All() {
		if n.Current > 0 {
			a.nets[n.ID] = true
		}
	}
}

// footprint notes the places around the pads of all parts that have it.
func (a *advice) footprint(f *design.Footprint) {
	if a.whole {
		return
	}
	var e geom.Extent
	for i := range f.Pads {
		e.AddBox(layout.PadShape(&f.Pads[i]).Box())
	}
	b := e.Box
	for p := range a.doc.Placed.All() {
		if p.Footprint != f.Name {
			continue
		}
		room := geom.BoxOf(p.Pose().ApplyAll([]geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y)})...)
		for _, j := range check.JointsIn(a.copper.index, room) {
			a.joints[j] = true
		}
	}
}

func (a *advice) renew() {
	if a.whole {
		for j := range a.corners {
			a.joints[j] = true
		}
		for _, j := range check.Joints(a.doc) {
			a.joints[j] = true
		}
		a.carrying()
		a.whole = false
	}
	for j := range a.joints {
		if c, ok := a.corners[j]; ok {
			delete(a.corners, j)
			delete(a.of[c.Net], j)
			a.nets[c.Net] = true
		}
		if c, is := check.Sharp(a.copper.index, j); is {
			a.put(j, c)
		}
	}
	for net := range a.nets {
		a.say(check.ThinKey(net), check.Thin(a.doc, a.copper.index, net))
		var corners []check.Corner
		for j := range a.of[net] {
			corners = append(corners, a.corners[j])
		}
		a.say(check.SharpKey(net), check.Corners(a.doc, net, corners))
	}
	clear(a.nets)
	clear(a.joints)
}

// put notes a corner.
func (a *advice) put(j check.Joint, c check.Corner) {
	a.corners[j] = c
	if a.of[c.Net] == nil {
		a.of[c.Net] = map[check.Joint]bool{}
	}
	a.of[c.Net][j] = true
	a.nets[c.Net] = true
}

// say puts a finding in place of the one of its key; nil: there is none any more.
func (a *advice) say(key string, f *check.Finding) {
	if f == nil {
		a.findings.drop(key)
	} else {
		a.findings.put(f)
	}
}
