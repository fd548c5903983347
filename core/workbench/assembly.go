package workbench

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/ordering"
)

// assembly is what is worth knowing of the parts to be bought and fitted: which have no ordering data, and which are not fitted.
type assembly struct {
	doc      *design.Doc
	findings *ledger
	bare     map[design.ID]bool // without ordering data
	left     map[design.ID]bool // not fitted
}

func newAssembly(g *derive.Graph, d *design.Doc, l *ledger) *assembly {
	a := &assembly{doc: d, findings: l, bare: map[design.ID]bool{}, left: map[design.ID]bool{}}
	for id := range d.Parts {
		a.look(id)
	}
	r := g.Result("assembly", a.say)
	r.Of(func(c edit.Change) { a.look(c.ID) }, design.KindPart)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			for id, p := range a.doc.Parts {
				if p.Library == o.(*design.LibraryPart).Name {
					a.look(id)
				}
			}
		}
	}, design.KindLibraryPart)
	return a
}

func (a *assembly) look(id design.ID) {
	delete(a.bare, id)
	delete(a.left, id)
	p := a.doc.Parts[id]
	if p == nil || p.Unit > 1 { // a package is told of once
		return
	}
	if p.NotFitted {
		a.left[id] = true
	} else if ordering.OrderNumber(p, a.doc.LibraryPart(p.Library)) == "" {
		a.bare[id] = true
	}
}

// mostNamed is how many parts a sentence names.
const mostNamed = 8

func (a *assembly) say() {
	for _, about := range []struct {
		key, rule, one, many string
		list                 map[design.ID]bool
	}{
		{"unordered", "Parts have ordering data", "One part has no ordering data: ", "%d parts have no ordering data: ", a.bare},
		{"notFitted", "Parts are fitted", "One part is not fitted: ", "%d parts are not fitted: ", a.left},
	} {
		if len(about.list) == 0 {
			a.findings.drop(about.key)
			continue
		}
		ids := slices.SortedFunc(maps.Keys(about.list), func(x, y design.ID) int {
			return cmp.Or(circuit.CompareNatural(a.doc.Parts[x].Designator, a.doc.Parts[y].Designator), cmp.Compare(x, y))
		})
		text := about.one
		if len(ids) > 1 {
			text = fmt.Sprintf(about.many, len(ids))
		}
		for i, id := range ids[:min(len(ids), mostNamed)] {
			if i > 0 {
				text += ", "
			}
			text += a.doc.Parts[id].Designator
		}
		if len(ids) > mostNamed {
			text += " …"
		}
		a.findings.put(&check.Finding{Key: about.key, Kind: about.key, Severity: check.Note, Stage: "parts",
			Place: "Table of parts", Rule: about.rule,
			Text: text + ".", Objects: ids[:min(len(ids), mostNamed)]})
	}
}
