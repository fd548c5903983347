package workbench

import (
	"cmp"
	"fmt"
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
	bare     roll // without ordering data
	left     roll // not fitted
}

// roll is parts by their designators, in order. A part that comes or goes costs a search.
type roll struct {
	list    []called
	of      map[design.ID]string // the designator under which each stands
	changed bool
}

type called struct {
	designator string
	id         design.ID
}

func (c called) compare(o called) int {
	return cmp.Or(circuit.CompareNatural(c.designator, o.designator), cmp.Compare(c.id, o.id))
}

// set puts a part in under a designator, or takes it out.
func (r *roll) set(id design.ID, designator string, in bool) {
	was, stood := r.of[id]
	if stood == in && was == designator || !stood && !in {
		return
	}
	r.changed = true
	if stood {
		at, _ := slices.BinarySearchFunc(r.list, called{was, id}, called.compare)
		r.list = slices.Delete(r.list, at, at+1)
		delete(r.of, id)
	}
	if in {
		at, _ := slices.BinarySearchFunc(r.list, called{designator, id}, called.compare)
		r.list = slices.Insert(r.list, at, called{designator, id})
		r.of[id] = designator
	}
}

func newAssembly(g *derive.Graph, d *design.Doc, l *ledger) *assembly {
	a := &assembly{doc: d, findings: l}
	for _, r := range []*roll{&a.bare, &a.left} {
		r.of, r.changed = map[design.ID]string{}, true
	}
	for id, p := range d.Parts {
		bare, left := a.look(p)
		for r, in := range map[*roll]bool{&a.bare: bare, &a.left: left} {
			if in {
				r.list, r.of[id] = append(r.list, called{p.Designator, id}), p.Designator
			}
		}
	}
	for _, r := range []*roll{&a.bare, &a.left} {
		slices.SortFunc(r.list, called.compare)
	}
	r := g.Result("assembly", a.say)
	r.Of(func(c edit.Change) { a.note(c.ID) }, design.KindPart)
	r.Of(func(edit.Change) { a.left.changed = true }, design.KindBoard)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			for id, p := range a.doc.Parts {
				if p.Library == o.(*design.LibraryPart).Name {
					a.note(id)
				}
			}
		}
	}, design.KindLibraryPart)
	return a
}

// note looks at a part anew.
func (a *assembly) note(id design.ID) {
	p := a.doc.Parts[id]
	bare, left := a.look(p)
	name := ""
	if p != nil {
		name = p.Designator
	}
	a.bare.set(id, name, bare)
	a.left.set(id, name, left)
}

// look tells whether a part has no ordering data, and whether it is not fitted.
func (a *assembly) look(p *design.Part) (bare, left bool) {
	if p == nil || p.Unit > 1 { // a package is told of once
		return false, false
	}
	return !p.NotFitted && ordering.OrderNumber(p, a.doc.LibraryPart(p.Library)) == "", p.NotFitted
}

// mostNamed is how many parts a sentence names.
const mostNamed = 8

func (a *assembly) say() {
	for _, about := range []struct {
		key, rule, one, many string
		roll                 *roll
	}{
		{"unordered", "Parts have ordering data", "One part has no ordering data: ", "%d parts have no ordering data: ", &a.bare},
		{"notFitted", "Parts are fitted", "One part is not fitted: ", "%d parts are not fitted: ", &a.left},
	} {
		list := about.roll.list
		if !about.roll.changed {
			continue
		}
		if about.roll.changed = false; len(list) == 0 {
			a.findings.drop(about.key)
			continue
		}
		text := about.one
		if len(list) > 1 {
			text = fmt.Sprintf(about.many, len(list))
		}
		var ids []design.ID
		for i, c := range list[:min(len(list), mostNamed)] {
			if i > 0 {
				text += ", "
			}
			text += c.designator
			ids = append(ids, c.id)
		}
		if len(list) > mostNamed {
			text += " …"
		}
		if text += "."; about.roll == &a.left {
			text += map[bool]string{true: " Their pads get no solder paste.", false: " Their pads get solder paste all the same."}[a.doc.Board.NoPaste]
		}
		a.findings.put(&check.Finding{Key: about.key, Kind: about.key, Severity: check.Note, Stage: "parts",
			Place: "Table of parts", Rule: about.rule,
			Text: text, Objects: ids})
	}
}
