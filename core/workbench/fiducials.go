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
	parts    map[design.ID]bool // surface parts, by whether they stand below
	dots     map[design.ID]bool // fiducials, by whether they lie below
}

func newFiducials(g *derive.Graph, d *design.Doc, l *ledger) *fiducials {
	f := &fiducials{d, l, map[design.ID]bool{}, map[design.ID]bool{}}
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
	delete(f.parts, id)
	delete(f.dots, id)
	if p := f.doc.Placed[id]; p != nil && !p.NotFitted {
		if foot := f.doc.Footprint(p.Footprint); foot != nil {
			for i := range foot.Pads {
				if foot.Pads[i].Hole == 0 {
					f.parts[id] = p.Bottom
					break
				}
			}
		}
	}
	if o := f.doc.Figures[id]; o != nil && o.Fiducial > 0 {
		f.dots[id] = o.Layer == f.doc.Board.Bottom() && (f.doc.Board.Layers() > 1 || f.doc.Board.OnlyBelow())
	}
}

func (f *fiducials) say() {
	for _, side := range []struct {
		name   string
		bottom bool
	}{{"upper", false}, {"lower", true}} {
		count := func(of map[design.ID]bool) (n int) {
			for _, below := range of {
				if below == side.bottom {
					n++
				}
			}
			return n
		}
		key := "fiducials " + side.name
		parts, dots := count(f.parts), count(f.dots)
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
