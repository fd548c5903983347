package workbench

import (
	"fmt"
	"strings"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/parts"
)

// fitting is a library part with a footprint that parts of the circuit have.
type fitting struct{ part, footprint string }

// partSheet is what is to be said of the library parts that stand in the circuit: whether their pins find their pads, whether their
// footprints can be, and whether somebody held them against their datasheets.
type partSheet struct {
	doc      *design.Doc
	findings *ledger
	used     map[fitting]int // by how many parts of the circuit
	bare     int             // parts without a footprint
	keys     map[fitting][]string
	stale    map[fitting]bool
}

func newPartSheet(g *derive.Graph, d *design.Doc, l *ledger) *partSheet {
	s := &partSheet{doc: d, findings: l, used: map[fitting]int{}, keys: map[fitting][]string{}, stale: map[fitting]bool{}}
	for _, p := range d.Parts {
		s.count(p, 1)
	}
	r := g.Result("parts", s.renew)
	r.Of(func(c edit.Change) {
		if p, ok := c.Before.(*design.Part); ok {
			s.count(p, -1)
		}
		if p, ok := c.After.(*design.Part); ok {
			s.count(p, 1)
		}
	}, design.KindPart)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			s.touch(o)
		}
	}, design.KindLibraryPart, design.KindSymbol, design.KindFootprint)
	r.Of(func(edit.Change) { s.all() }, design.KindRule) // rings are held against the rules
	return s
}

func (s *partSheet) count(p *design.Part, by int) {
	if p.Footprint == "" {
		s.bare += by
	}
	k := fitting{p.Library, p.Footprint}
	s.used[k] += by
	if n := s.used[k]; n <= 0 || n == 1 && by > 0 {
		s.stale[k] = true
	}
	if s.used[k] <= 0 {
		delete(s.used, k)
	}
}

// touch marks what has to do with a library part, a symbol or a footprint. Cost: O(kinds of parts in the circuit).
func (s *partSheet) touch(o design.Object) {
	for k := range s.used {
		switch o := o.(type) {
		case *design.LibraryPart:
			if o.Name == k.part {
				s.stale[k] = true
			}
		case *design.Footprint:
			l := s.doc.LibraryPart(k.part)
			if o.Name == k.footprint || l != nil && o.Name == l.Footprint {
				s.stale[k] = true
			}
		case *design.Symbol:
			if l := s.doc.LibraryPart(k.part); l != nil && (l.Symbol == o.Name || contains(l.Units, o.Name)) {
				s.stale[k] = true
			}
		}
	}
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

func (s *partSheet) all() {
	for k := range s.used {
		s.stale[k] = true
	}
}

func (s *partSheet) renew() {
	for k := range s.stale {
		for _, key := range s.keys[k] {
			s.findings.drop(key)
		}
		delete(s.keys, k)
	}
	for k := range s.stale {
		if s.used[k] > 0 {
			s.look(k)
		}
	}
	clear(s.stale)
}

// look finds what is to be said of one of them.
func (s *partSheet) look(k fitting) {
	l := s.doc.LibraryPart(k.part)
	if l == nil {
		return
	}
	say := func(key, kind string, severity check.Severity, rule, text string, objects ...design.ID) {
		key = fmt.Sprintf("part %s %s %s", k.part, k.footprint, key)
		s.findings.put(&check.Finding{Key: key, Kind: kind, Severity: severity, Text: text, Rule: rule, Stage: "parts", Place: k.part, Objects: append([]design.ID{l.ID}, objects...)})
		s.keys[k] = append(s.keys[k], key)
	}
	f := s.doc.Footprint(k.footprint)
	if f != nil {
		_, found := parts.Mapping(l, k.footprint, s.doc)
		for _, x := range found {
			if x.Severity == parts.Fault {
				say("pin "+x.Pin, "mapping", check.Fault, "pins go to pads", k.part+": "+x.Text, f.ID)
			}
		}
		for i, x := range parts.CheckFootprint(f, parts.LimitsOf(s.doc)) {
			if x.Severity == parts.Fault {
				say(fmt.Sprintf("%s %d", x.Kind, i), "footprint", check.Fault, "footprints by themselves", fmt.Sprintf("The footprint %s: %s", f.Name, x.Text), f.ID)
			} else if x.Kind == "mark" {
				say("mark", "mark", check.Warning, "Pin 1 is marked", fmt.Sprintf("The footprint %s: %s", f.Name, x.Text), f.ID)
			}
		}
	}
	if f != nil && parts.Polar(l, s.doc) && parts.Undirected(f) {
		say("polarity", "polarity", check.Warning, "Polarity is marked",
			fmt.Sprintf("The footprint %s: nothing of its silk tells which pin is which, and %s has a polarity.", f.Name, l.Name), f.ID)
	}
	switch parts.CheckState(l, s.doc) {
	case parts.Unchecked:
		say("unchecked", "unchecked", check.Note, "parts are checked against their datasheets", fmt.Sprintf("The part %s has not been checked against a datasheet.", l.Name))
	case parts.Lapsed:
		say("unchecked", "unchecked", check.Note, "parts are checked against their datasheets",
			fmt.Sprintf("The part %s was checked by %s on %s, and has changed since.", l.Name, l.Checked.By, strings.TrimSpace(l.Checked.On)))
	}
}
