// Package workbench is one open design with everything derived from it: nets, open links,
// findings, what the board lacks of the circuit. Each result is in a file of its own, which says
// what it is made from (core/derive carries changes to it); Settle brings all up to date at a cost
// that follows what was touched and says what changed. A Bench belongs to one goroutine.
package workbench

import (
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/rules"
)

// Bench is an open design.
type Bench struct {
	Doc     *design.Doc
	Library library.Source // nil: the shipped one
	Rev     int64          // of the document; each change set taken in adds one
	// Going is told by what takes long how much of it is done, 0 to 1; an error: it is to be given up. nil: nobody asks.
	Going func(share float64) error

	beside      func(Beside) // nil: all is done at once
	graph       *derive.Graph
	fingerprint uint64

	copper     *copper
	rules      *ruleSet
	circuit    *nets
	counts     *counts
	findings   *ledger
	electrical *electrical
	drift      *drift
	board      *boardRules
	pours      *pours
	links      *links
	parts      *partSheet
	dimensions *dimensions
	advice     *advice
	ends       *ends
	loops      *loops
	starved    *starved
	assembly   *assembly
}

// Open derives everything from a document.
func Open(d *design.Doc, rev int64) *Bench { return OpenWith(d, rev, nil) }

// OpenWith derives everything from a document, but for what takes long: that the one who does work beside the hand is given.
func OpenWith(d *design.Doc, rev int64, besides func(*Bench) func(Beside)) *Bench {
	b := &Bench{Doc: d, Rev: rev, graph: derive.New(rev)}
	if besides != nil {
		b.beside = besides(b)
	}
	f := found(d, &b.fingerprint, besides != nil)
	b.copper = newCopper(b.graph, d, f.index)
	b.rules = newRuleSet(b.graph, f.rules)
	b.circuit = newNets(b.graph, d, f.nets)
	b.counts = newCounts(b.graph, d, b.circuit)
	b.findings = newLedger(b.graph, d, b.circuit)
	b.electrical = newElectrical(b.graph, d, b.circuit, f.electrical, b.findings)
	b.drift = newDrift(b.graph, d, b.circuit, b.findings)
	b.board = newBoardRules(b.graph, d, b.copper, f.check, b.rules, b.findings, b.beside)
	b.pours = newPours(b)
	b.links = newLinks(b.graph, d, b.copper, b.pours, f.links, b.findings)
	b.parts = newPartSheet(b.graph, d, b.findings)
	b.dimensions = newDimensions(b.graph, d)
	b.advice = newAdvice(b.graph, d, b.copper, f.corners, b.findings)
	b.ends = newEnds(b, f.bare)
	b.loops = newLoops(b, f.loops)
	b.starved = newStarved(b)
	b.assembly = newAssembly(b.graph, d, b.findings)
	newFiducials(b.graph, d, b.findings)
	b.Settle()
	return b
}

// Fingerprint names the content of the document: equal content, equal fingerprint.
func (b *Bench) Fingerprint() string { return fmt.Sprintf("%016x", b.fingerprint) }

// Nets of the circuit, up to date.
func (b *Bench) Nets() *circuit.Nets { return b.circuit.now() }

// Tree of the uses of sheets, as of the last time the nets were asked for.
func (b *Bench) Tree() *circuit.Tree { return b.circuit.nets.Tree }

// Far tells how much of something long is done; an error says to give it up.
func (b *Bench) Far(share float64) error {
	if b.Going == nil {
		return nil
	}
	return b.Going(share)
}

// Index of the board's copper, up to date.
func (b *Bench) Index() *layout.Index { return b.copper.index }

// Rules of the board, up to date.
func (b *Bench) Rules() *rules.Set { return b.rules.set }

// Env is what commands are given.
func (b *Bench) Env() edit.Env {
	return edit.Env{Nets: b.Nets, Index: b.Index, Rules: b.Rules, Library: b.Library, Going: b.Going,
		Filled: func(net design.ID, at geom.Point, layer int) bool { return b.pours.beneath(net, at, 1<<layer) != nil }}
}

// Apply puts a change set into the document, as for undo and redo.
func (b *Bench) Apply(cs edit.ChangeSet) {
	cs.Apply(b.Doc)
	b.applied(cs)
}

// applied notes a change set, which the document already holds.
func (b *Bench) applied(cs edit.ChangeSet) {
	b.Rev++
	b.Doc.Next = max(b.Doc.Next, design.FirstFree)
	for _, c := range cs {
		for _, o := range []design.Object{c.Before, c.After} {
			if o != nil {
				b.fingerprint ^= design.PrintOf(o)
			}
		}
	}
	b.graph.Change(b.Rev, cs)
}

// both are the objects of a change, before and after.
func both(c edit.Change) []design.Object {
	switch {
	case c.Before == nil:
		return []design.Object{c.After}
	case c.After == nil:
		return []design.Object{c.Before}
	}
	return []design.Object{c.Before, c.After}
}
