// Package workbench is one open design with everything derived from it: nets, open links,
// findings, what the board lacks of the circuit. Edits mark what they touched; Settle
// brings the derived results up to date at a cost that follows what was touched and says
// what changed. A Bench belongs to one goroutine.
package workbench

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"maps"
	"reflect"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Bench is an open design.
type Bench struct {
	Doc *design.Doc
	Rev int64 // of the document; each change set taken in adds one

	nets  *circuit.Nets
	index *layout.Index
	board *check.Board
	links map[string][]layout.Link
	trees map[string]*layout.NetTree
	other map[string]*check.Finding // findings that are not the board's design rules
	diffs []layout.Difference
	known map[string]*circuit.Net // nets as last told
	print uint64

	staleSheets  map[design.ID]bool // nets to recompute
	dirtySheets  map[design.ID]bool // views to tell
	dirtyObjects map[design.ID]bool // copper to check anew
	dirtyNets    map[string]bool    // links to compute anew
	dirtyCircuit bool
	dirtyDrift   bool
	dirtyBoard   bool // outline, rules or stack
}

// Open derives everything from a document.
func Open(d *design.Doc, rev int64) *Bench {
	b := &Bench{
		Doc: d, Rev: rev, nets: circuit.Find(d), index: layout.NewIndex(d), links: map[string][]layout.Link{}, trees: map[string]*layout.NetTree{},
		other: map[string]*check.Finding{}, known: map[string]*circuit.Net{},
	}
	b.board = check.NewBoard(d, b.index)
	for o := range d.All() {
		b.print ^= fingerprint(o)
	}
	b.clean()
	for _, n := range b.index.Nets() {
		b.dirtyNets[n] = true
	}
	for id := range d.Sheets {
		b.dirtySheets[id] = true
	}
	b.dirtyCircuit, b.dirtyDrift = true, true
	b.Settle()
	return b
}

func (b *Bench) clean() {
	b.staleSheets, b.dirtySheets = map[design.ID]bool{}, map[design.ID]bool{}
	b.dirtyObjects, b.dirtyNets = map[design.ID]bool{}, map[string]bool{}
	b.dirtyCircuit, b.dirtyDrift, b.dirtyBoard = false, false, false
}

func fingerprint(o design.Object) uint64 {
	data, err := json.Marshal(o)
	if err != nil {
		return 0
	}
	h := fnv.New64a()
	fmt.Fprintf(h, "%s %d ", o.ObjectKind(), o.ObjectID())
	h.Write(data)
	return h.Sum64()
}

// Fingerprint names the content of the document: equal content, equal fingerprint.
func (b *Bench) Fingerprint() string { return fmt.Sprintf("%016x", b.print) }

// Nets of the circuit, up to date.
func (b *Bench) Nets() *circuit.Nets {
	if len(b.staleSheets) > 0 {
		b.nets.Refresh(b.Doc, b.staleSheets)
		b.staleSheets = map[design.ID]bool{}
	}
	return b.nets
}

// Index of the board's copper, up to date.
func (b *Bench) Index() *layout.Index { return b.index }

// Edit applies a command and takes its change set in; a refused command changes nothing.
func (b *Bench) Edit(c edit.Command) (edit.ChangeSet, error) {
	cs, err := edit.Apply(b.Doc, edit.Env{Nets: b.Nets, Index: b.Index}, c)
	if err != nil {
		return nil, err
	}
	b.took(cs)
	return cs, nil
}

// Take puts a change set into the document, as for undo and redo.
func (b *Bench) Take(cs edit.ChangeSet) {
	cs.Apply(b.Doc)
	b.took(cs)
}

// took notes what a change set, which the document already holds, makes stale, and brings
// the index up to date.
func (b *Bench) took(cs edit.ChangeSet) {
	b.Rev++
	b.Doc.Next = max(b.Doc.Next, design.FirstFree)
	for _, c := range cs {
		for _, o := range []design.Object{c.Before, c.After} {
			if o != nil {
				b.print ^= fingerprint(o)
				b.mark(o)
			}
		}
		switch c.Kind {
		case design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole:
			if c.After != nil {
				b.index.Put(b.Doc, c.After)
			} else {
				b.index.Remove(c.ID)
			}
			b.dirtyObjects[c.ID] = true
		}
	}
}

func (b *Bench) sheetDirty(id design.ID) {
	b.staleSheets[id], b.dirtySheets[id] = true, true
	b.dirtyCircuit, b.dirtyDrift = true, true
}

func (b *Bench) mark(o design.Object) {
	switch o := o.(type) {
	case *design.Part:
		b.sheetDirty(o.Sheet)
	case *design.Wire:
		b.sheetDirty(o.Sheet)
	case *design.Label:
		b.sheetDirty(o.Sheet)
	case *design.Supply:
		b.sheetDirty(o.Sheet)
	case *design.OpenMark:
		b.sheetDirty(o.Sheet)
	case *design.Sheet:
		b.sheetDirty(o.ID)
	case *design.Placed:
		for _, n := range o.Nets {
			b.dirtyNets[n] = true
		}
		b.dirtyDrift = true
	case *design.Track:
		b.dirtyNets[o.Net] = true
	case *design.Via:
		b.dirtyNets[o.Net] = true
	case *design.Board:
		b.dirtyBoard = true
	}
}

// Delta is what changed in the derived results.
type Delta struct {
	Rev      int64                    `json:"rev"` // the revision all of it was computed from
	Sheets   []*circuit.SheetView     `json:"sheets"`
	Nets     []*circuit.Net           `json:"nets"`
	LostNets []string                 `json:"lostNets"`
	Links    map[string][]layout.Link `json:"links"` // per net; an empty list: complete
	Findings []*check.Finding         `json:"findings"`
	Mended   []string                 `json:"mended"` // keys of findings that are gone
	Stages   Stages                   `json:"stages"`
}

// Stages is how far the job is.
type Stages struct {
	Circuit     string `json:"circuit"`     // none, work, done
	Board       string `json:"board"`       // none, work, done
	Differences int    `json:"differences"` // between circuit and board
	Fingerprint string `json:"fingerprint"`
}

// Settle brings everything derived up to date and tells what changed since the last call.
func (b *Bench) Settle() Delta {
	d := Delta{Links: map[string][]layout.Link{}}
	nets := b.Nets()
	if b.dirtyCircuit {
		b.tellNets(nets, &d)
		b.findOther("circuit", check.Electrical(nets.Doubts(b.Doc)), &d)
	}
	for id := range b.dirtySheets {
		if v := nets.Views[id]; v != nil {
			d.Sheets = append(d.Sheets, v)
		}
	}
	if b.dirtyDrift {
		b.diffs = layout.Differences(b.Doc, nets)
		b.findOther("drift", check.Drift(b.Doc, b.diffs), &d)
	}
	if b.dirtyBoard {
		b.board.All()
	} else if len(b.dirtyObjects) > 0 {
		b.board.Update(b.dirtyObjects)
	}
	if b.dirtyBoard || len(b.dirtyObjects) > 0 {
		added, dropped := b.board.Changes()
		for _, k := range added {
			d.Findings = append(d.Findings, b.board.Found[k])
		}
		d.Mended = append(d.Mended, dropped...)
	}
	for n := range b.dirtyNets {
		if n == "" {
			continue
		}
		b.settleLinks(n, &d)
	}
	b.clean()
	d.Rev, d.Stages = b.Rev, b.Stages()
	return d
}

func (b *Bench) settleLinks(net string, d *Delta) {
	if b.trees[net] == nil {
		b.trees[net] = &layout.NetTree{}
	}
	pieces := b.index.NetPieces(net)
	links := b.trees[net].Update(net, b.index, pieces, b.dirtyObjects)
	if len(pieces) == 0 {
		delete(b.trees, net)
	}
	if len(links) == 0 {
		delete(b.links, net)
	} else {
		b.links[net] = links
	}
	d.Links[net] = links
	key := "links " + net
	f := check.OpenLinks(b.Doc, net, links)
	switch {
	case f != nil:
		b.other[key] = f
		d.Findings = append(d.Findings, f)
	case b.other[key] != nil:
		delete(b.other, key)
		d.Mended = append(d.Mended, key)
	}
}

func (b *Bench) tellNets(nets *circuit.Nets, d *Delta) {
	for name, n := range nets.ByName {
		if old := b.known[name]; old == nil || !sameNet(old, n) {
			d.Nets = append(d.Nets, n)
		}
	}
	for name := range b.known {
		if nets.ByName[name] == nil {
			d.LostNets = append(d.LostNets, name)
		}
	}
	b.known = nets.ByName
	slices.SortFunc(d.Nets, func(a, c *circuit.Net) int { return circuit.CompareNatural(a.Name, c.Name) })
}

func sameNet(a, b *circuit.Net) bool {
	return a.Named == b.Named && slices.Equal(a.Pins, b.Pins) && slices.Equal(a.Items, b.Items) && slices.Equal(a.Sheets, b.Sheets) && slices.Equal(a.Supplies, b.Supplies)
}

// findOther replaces the findings of one source.
func (b *Bench) findOther(source string, found []check.Finding, d *Delta) {
	now := map[string]*check.Finding{}
	for i := range found {
		now[found[i].Key] = &found[i]
	}
	is := func(f *check.Finding) bool {
		switch f.Kind {
		case "drift":
			return source == "drift"
		case "links":
			return false
		}
		return source == "circuit"
	}
	for k, f := range b.other {
		if is(f) && now[k] == nil {
			delete(b.other, k)
			d.Mended = append(d.Mended, k)
		}
	}
	for k, f := range now {
		if old := b.other[k]; old == nil || !reflect.DeepEqual(old, f) {
			b.other[k] = f
			d.Findings = append(d.Findings, f)
		}
	}
}

// Stages tells how far the job is, from what was last settled.
func (b *Bench) Stages() Stages {
	s := Stages{Circuit: "none", Board: "none", Differences: len(b.diffs), Fingerprint: b.Fingerprint()}
	if len(b.Doc.Parts)+len(b.Doc.Wires) > 0 {
		s.Circuit = "done"
	}
	if len(b.Doc.Placed) > 0 {
		s.Board = "done"
	}
	for _, f := range b.other {
		if f.Stage == "circuit" && s.Circuit == "done" && f.Kind != "drift" {
			s.Circuit = "work"
		} else if f.Stage == "board" && s.Board == "done" {
			s.Board = "work"
		}
	}
	if s.Board == "done" && (len(b.board.Found) > 0 || len(b.Doc.Board.Outline) == 0) {
		s.Board = "work"
	}
	return s
}

// All is everything derived, as a delta from nothing.
func (b *Bench) All() Delta {
	b.Settle()
	d := Delta{Rev: b.Rev, Links: maps.Clone(b.links), Stages: b.Stages(), Findings: b.Findings()}
	for _, s := range b.Doc.SheetsInOrder() {
		d.Sheets = append(d.Sheets, b.nets.Views[s.ID])
	}
	for _, n := range b.nets.ByName {
		d.Nets = append(d.Nets, n)
	}
	slices.SortFunc(d.Nets, func(a, c *circuit.Net) int { return circuit.CompareNatural(a.Name, c.Name) })
	return d
}

// Findings lists all of them: faults first, then by kind and key.
func (b *Bench) Findings() []*check.Finding {
	b.Settle()
	out := slices.Collect(maps.Values(b.other))
	out = append(out, slices.Collect(maps.Values(b.board.Found))...)
	check.Sort(out)
	return out
}

// Differences between circuit and board.
func (b *Bench) Differences() []layout.Difference {
	b.Settle()
	return b.diffs
}

// Links lists all open links.
func (b *Bench) Links() []layout.Link {
	b.Settle()
	var out []layout.Link
	for _, n := range slices.Sorted(maps.Keys(b.links)) {
		out = append(out, b.links[n]...)
	}
	return out
}

// CheckAll checks the board's design rules from scratch.
func (b *Bench) CheckAll() {
	b.dirtyBoard = true
	b.Settle()
}

// Dragged is what moving things on the board would do to the open links, for a preview.
type Dragged struct {
	Links map[string][]layout.Link `json:"links"`
}

// Drag answers for parts moved by step and turned by angle about the pivot.
func (b *Bench) Drag(ids []design.ID, step, pivot geom.Point, angle int32) Dragged {
	out := Dragged{Links: map[string][]layout.Link{}}
	moved := map[design.ID][]*layout.Copper{}
	nets := map[string]bool{}
	for _, id := range ids {
		p := b.Doc.Placed[id]
		if p == nil {
			continue
		}
		q := *p
		q.At = geom.Turn(q.At.Sub(pivot), angle).Add(pivot).Add(step)
		q.Angle = ((q.Angle+angle)%360_000 + 360_000) % 360_000
		moved[id] = layout.PiecesOf(b.Doc, &q)
		for _, n := range p.Nets {
			nets[n] = true
		}
	}
	for n := range nets {
		if n != "" {
			out.Links[n] = b.index.LinksWith(n, moved)
		}
	}
	return out
}
