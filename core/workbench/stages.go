package workbench

import (
	"maps"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// Stages is how far the job is.
type Stages struct {
	Circuit     string `json:"circuit"`     // none, work, done
	Board       string `json:"board"`       // none, work, done
	Differences int    `json:"differences"` // between circuit and board
	Fingerprint string `json:"fingerprint"`
	Parts       int    `json:"parts"` // packages of the circuit, in all uses of their sheets
	Nets        int    `json:"nets"`  // that have pins
}

// count counts parts and nets, where either may have changed.
func (b *Bench) count() {
	if b.dirty.tree || b.dirty.packages {
		b.parts = len(circuit.Packages(b.Doc, b.nets.Tree))
	}
	for name := range b.dirty.nets.Lost {
		delete(b.withPins, name)
	}
	for name, net := range b.dirty.nets.Changed {
		if delete(b.withPins, name); len(net.Pins) > 0 {
			b.withPins[name] = true
		}
	}
}

// calledAnew tells whether a change is of a part that came, went or is called otherwise.
func calledAnew(c edit.Change) bool {
	was, before := c.Before.(*design.Part)
	is, after := c.After.(*design.Part)
	if !before || !after {
		return before || after
	}
	return was.Designator != is.Designator || was.Unit != is.Unit || was.Sheet != is.Sheet || !maps.Equal(was.Others, is.Others)
}

// Parts of the circuit, as of the last Settle.
func (b *Bench) Parts() int { return b.parts }

// Stages tells how far the job is, from what was last settled.
func (b *Bench) Stages() Stages {
	s := Stages{Circuit: "none", Board: "none", Differences: b.cmp.Count(), Fingerprint: b.Fingerprint(), Parts: b.parts, Nets: len(b.withPins)}
	if len(b.Doc.Parts)+len(b.Doc.Wires) > 0 {
		s.Circuit = "done"
	}
	if len(b.Doc.Placed) > 0 {
		s.Board = "done"
	}
	for _, source := range []map[string]*check.Finding{b.electrical, b.drift, b.open} {
		for _, f := range source {
			switch {
			case f.Excused != "":
			case f.Stage == "circuit" && s.Circuit == "done" && f.Kind != "drift":
				s.Circuit = "work"
			case f.Stage == "board" && s.Board == "done":
				s.Board = "work"
			}
		}
	}
	rules := false
	for _, f := range b.board.Found {
		rules = rules || f.Excused == ""
	}
	if s.Board == "done" && (rules || len(b.Doc.Board.Outline) == 0) {
		s.Board = "work"
	}
	return s
}
