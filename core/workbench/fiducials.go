package workbench

import (
	"fmt"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// wantedFiducials is how many a side with surface parts should have: by three an assembler's machine knows where the board lies, how it is turned
// and how it shrank.
const wantedFiducials = 3

// fiducials tells of sides that surface parts stand on without enough fiducials.
type fiducials struct {
	doc      *design.Doc
	findings *ledger
	parts    sides // surface parts
	dots     sides // fiducials
}

// sides counts what is above and below.
type sides struct {
	below map[design.ID]bool // by what is there
	n     map[bool]int       // how many are below, and are not
}

func newSides() sides { return sides{map[design.ID]bool{}, map[bool]int{}} }

func (s sides) drop(id design.ID) {
	if below, there := s.below[id]; there {
		s.n[below]--
		delete(s.below, id)
	}
}

func (s sides) put(id design.ID, below bool) {
	s.drop(id)
	s.below[id] = below
	s.n[below]++
}

func newFiducials(g *derive.Graph, d *design.Doc, l *ledger) *fiducials {
	f := &fiducials{d, l, newSides(), newSides()}
	f.all()
	r := g.Result("fiducials", f.say)
	r.Of(func(c edit.Change) { f.look(c.ID) }, design.KindPlaced, design.KindFigure)
	r.Of(func(edit.Change) { f.all() }, design.KindBoard)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			for id, p := range f.doc.Placed {
				if p.Footprint == o.(*design.Footprint).Name {
					f.look(id)
				}
			}
		}
	}, design.KindFootprint)
	return f
}

func (f *fiducials) all() {
	for id := range f.doc.Placed {
		f.look(id)
	}
	for id := range f.doc.Figures {
		f.look(id)
	}
}

func (f *fiducials) look(id design.ID) {
	f.parts.drop(id)
	f.dots.drop(id)
	if p := f.doc.Placed[id]; p != nil && !p.NotFitted {
		if foot := f.doc.Footprint(p.Footprint); foot != nil {
			for i := range foot.Pads {
				if foot.Pads[i].Hole == 0 {
					f.parts.put(id, p.Bottom)
					break
				}
			}
		}
	}
	if o := f.doc.Figures[id]; o != nil && o.Fiducial > 0 {
		f.dots.put(id, o.Layer == f.doc.Board.Bottom() && (f.doc.Board.Layers() > 1 || f.doc.Board.OnlyBelow()))
	}
}

func (f *fiducials) say() {
	for _, side := range []struct {
		name   string
		bottom bool
	}{{"upper", false}, {"lower", true}} {
		key := "fiducials " + side.name
		parts, dots := f.parts.n[side.bottom], f.dots.n[side.bottom]
		if parts == 0 || dots >= wantedFiducials || len(f.doc.Board.Outline) == 0 {
			f.findings.drop(key)
			continue
		}
		has := []string{"no fiducial", "one fiducial", "two fiducials"}[dots]
		text := fmt.Sprintf("On the %s side are %d surface parts and %s; an assembler’s machine finds the board by three.", side.name, parts, has)
		if parts == 1 {
			text = fmt.Sprintf("On the %s side are one surface part and %s; an assembler’s machine finds the board by three.", side.name, has)
		}
		f.findings.put(&check.Finding{Key: key, Kind: "fiducials", Severity: check.Note, Stage: "board", Rule: "Sides with surface parts have fiducials",
			Text: text, At: f.doc.Board.Outline[0].Point})
	}
}
