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
	"goldentrace/core/layout"
)

// Bench is an open design.
type Bench struct {
	Doc *design.Doc
	Rev int64 // of the document; each change set taken in adds one

	nets  *circuit.Nets
	erc   *circuit.Erc
	cmp   *layout.Comparison
	index *layout.Index
	board *check.Board
	links map[string][]layout.Link
	trees map[string]*layout.NetTree
	// findings that are not the board's design rules, by where they come from
	electrical, drift, open map[string]*check.Finding
	fingerprint             uint64
	parts                   int             // packages of the circuit
	withPins                map[string]bool // names of nets that have pins

	dirty dirt
}

// dirt is what edits touched since the last Settle.
type dirt struct {
	stale       map[design.ID]bool       // sheets of which the nets are to be found anew
	sheets      map[design.ID]bool       // views to tell
	nets        circuit.NetChanges       // found since
	designators map[string]bool          // borne by parts that changed, before or after
	parts       map[circuit.PartRef]bool // to compare with the board
	placed      map[design.ID]bool       // to compare with the circuit
	objects     map[design.ID]bool       // copper to check anew
	copper      map[string]bool          // nets whose links are to be found anew
	excuses     map[string]bool          // keys of findings excused or not any more
	tree        bool                     // blocks or sheets came or went
	packages    bool                     // parts came or went or are called otherwise
	checks      bool                     // severities
	rules       bool                     // outline, rules or stack of the board
}

func clean() dirt {
	return dirt{stale: map[design.ID]bool{}, sheets: map[design.ID]bool{}, designators: map[string]bool{}, parts: map[circuit.PartRef]bool{},
		placed: map[design.ID]bool{}, objects: map[design.ID]bool{}, copper: map[string]bool{}, excuses: map[string]bool{},
		nets: circuit.NetChanges{Changed: map[string]*circuit.Net{}, Lost: map[string]*circuit.Net{}, Was: map[string]*circuit.Net{}}}
}

// Open derives everything from a document.
func Open(d *design.Doc, rev int64) *Bench {
	b := &Bench{
		Doc: d, Rev: rev, nets: circuit.Find(d), erc: circuit.NewErc(), cmp: layout.NewComparison(), index: layout.NewIndex(d),
		links: map[string][]layout.Link{}, trees: map[string]*layout.NetTree{}, dirty: clean(),
		electrical: map[string]*check.Finding{}, drift: map[string]*check.Finding{}, open: map[string]*check.Finding{}, withPins: map[string]bool{},
	}
	b.board = check.NewBoard(d, b.index)
	for o := range d.All() {
		b.fingerprint ^= fingerprintOf(o)
	}
	for _, n := range b.index.Nets() {
		b.dirty.copper[n] = true
	}
	for _, f := range b.board.Found {
		f.Hold(d.ExcuseOf(f.Key))
	}
	b.dirty.nets.Changed = maps.Clone(b.nets.ByName)
	b.dirty.checks, b.dirty.tree = true, true
	for id := range d.Sheets {
		b.dirty.sheets[id] = true
	}
	b.Settle()
	return b
}

func fingerprintOf(o design.Object) uint64 {
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
func (b *Bench) Fingerprint() string { return fmt.Sprintf("%016x", b.fingerprint) }

// Nets of the circuit, up to date.
func (b *Bench) Nets() *circuit.Nets {
	if len(b.dirty.stale) == 0 {
		return b.nets
	}
	b.learn(b.refresh(b.dirty.stale))
	clear(b.dirty.stale)
	return b.nets
}

// learn notes what changed in the nets, for those who follow from them.
func (b *Bench) learn(c circuit.NetChanges) {
	for name, net := range c.Lost {
		delete(b.dirty.nets.Was, name)
		b.dirty.nets.Lost[name] = net
		delete(b.dirty.nets.Changed, name)
	}
	for name, net := range c.Changed {
		told := b.dirty.nets.Changed[name] != nil || b.dirty.nets.Lost[name] != nil
		if !told && c.Was[name] != nil {
			b.dirty.nets.Was[name] = c.Was[name] // as everybody has it
		} else if !told {
			delete(b.dirty.nets.Was, name)
		}
		b.dirty.nets.Changed[name] = net
		delete(b.dirty.nets.Lost, name)
		b.touchPins(c.Was[name], net)
	}
}

// Tree of the uses of sheets, as of the last time the nets were asked for.
func (b *Bench) Tree() *circuit.Tree { return b.nets.Tree }

// touchPins notes the parts whose pads bear another net since the net was what it was.
func (b *Bench) touchPins(was, is *circuit.Net) {
	if circuit.Redrawn(was, is) && (len(is.Pins) > 1 || is.Named) {
		return
	}
	old := map[circuit.PinRef]bool{}
	if was != nil && was.Named == is.Named && (len(was.Pins) > 1) == (len(is.Pins) > 1) {
		for _, p := range was.Pins {
			old[p] = true
		}
	}
	for _, p := range is.Pins {
		if old[p] {
			delete(old, p)
		} else {
			b.dirty.parts[circuit.PartRef{Part: p.Part, Path: p.Path}] = true
		}
	}
	for p := range old {
		b.dirty.parts[circuit.PartRef{Part: p.Part, Path: p.Path}] = true
	}
}

// Index of the board's copper, up to date.
func (b *Bench) Index() *layout.Index { return b.index }

// Apply puts a change set into the document, as for undo and redo.
func (b *Bench) Apply(cs edit.ChangeSet) {
	cs.Apply(b.Doc)
	b.applied(cs)
}

// applied notes what a change set, which the document already holds, makes stale, and brings
// the index up to date.
func (b *Bench) applied(cs edit.ChangeSet) {
	b.Rev++
	b.Doc.Next = max(b.Doc.Next, design.FirstFree)
	for _, c := range cs {
		if was, ok := c.Before.(*design.Part); ok && c.After != nil && c.After.(*design.Part).Library != was.Library {
			b.dirty.tree = true // pins of other types on the same nets
		}
		b.dirty.packages = b.dirty.packages || calledAnew(c)
		for _, o := range []design.Object{c.Before, c.After} {
			if o != nil {
				b.fingerprint ^= fingerprintOf(o)
				b.touch(o)
			}
		}
		switch c.Kind {
		case design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole:
			if c.After != nil {
				b.index.Put(b.Doc, c.After)
			} else {
				b.index.Remove(c.ID)
			}
			b.dirty.objects[c.ID] = true
		}
	}
}

func (b *Bench) touch(o design.Object) {
	if on, ok := o.(design.OnSheet); ok {
		b.touchSheet(on)
	}
	switch o := o.(type) {
	case *design.Sheet:
		b.dirty.stale[o.ID], b.dirty.sheets[o.ID], b.dirty.tree = true, true, true
	case *design.Symbol, *design.LibraryPart:
		b.dirty.tree = true
	case *design.Checks:
		b.dirty.checks = true
	case *design.Excuse:
		b.dirty.excuses[o.Key] = true
	case *design.Placed:
		for _, n := range o.Nets {
			b.dirty.copper[n] = true
		}
		b.dirty.placed[o.ID] = true
		b.dirty.parts[circuit.PartRef{Part: o.Part, Path: o.Path}] = true
	case *design.Track:
		b.dirty.copper[o.Net] = true
	case *design.Via:
		b.dirty.copper[o.Net] = true
	case *design.Board:
		b.dirty.rules = true
	}
}

// touchSheet notes what follows from a change on a sheet; what is only drawn beside the
// circuit changes nothing else.
func (b *Bench) touchSheet(o design.OnSheet) {
	switch o := o.(type) {
	case *design.Part:
		for _, place := range b.nets.Tree.Of(o.Sheet) {
			b.dirty.parts[circuit.PartRef{Part: o.ID, Path: place.Path}] = true
			name := o.Called(place.Path)
			b.dirty.designators[name] = true
			if o.Unit > 0 {
				for _, u := range b.Doc.Bearers(name) {
					for _, other := range b.nets.Tree.Of(u.Sheet) {
						b.dirty.parts[circuit.PartRef{Part: u.ID, Path: other.Path}] = true
					}
				}
			}
		}
	case *design.SheetBlock:
		b.dirty.tree = true
	}
	touched := map[design.ID]bool{}
	circuit.Stale(b.Doc, o, touched)
	for id := range touched {
		b.dirty.stale[id], b.dirty.sheets[id] = true, true
	}
}

// Delta is what changed in the derived results.
type Delta struct {
	Rev      int64                    `json:"rev"` // the revision all of it was computed from
	Sheets   []*circuit.SheetView     `json:"sheets"`
	Places   []circuit.SheetUse       `json:"places"` // uses of sheets, all of them when any changed
	Nets     []*circuit.Net           `json:"nets"`
	LostNets []string                 `json:"lostNets"`
	Redrawn  []Redrawn                `json:"redrawn"` // nets that join what they joined
	Links    map[string][]layout.Link `json:"links"`   // per net; an empty list: complete
	Findings []*check.Finding         `json:"findings"`
	Mended   []string                 `json:"mended"` // keys of findings that are gone
	Stages   Stages                   `json:"stages"`
}

// Redrawn is a net that joins what it joined, drawn otherwise in some uses of sheets.
type Redrawn struct {
	Net  string           `json:"net"`
	Uses []circuit.NetUse `json:"uses"` // without items: not drawn there any more
}

// Settle brings everything derived up to date and tells what changed since it was last settled.
// Whoever follows the deltas calls it before anything else that settles: All, Findings,
// Differences, Links, CheckAll.
func (b *Bench) Settle() Delta {
	d := Delta{Links: map[string][]layout.Link{}}
	nets := b.Nets()
	for name, net := range b.dirty.nets.Changed {
		if was := b.dirty.nets.Was[name]; circuit.Redrawn(was, net) {
			d.Redrawn = append(d.Redrawn, Redrawn{name, circuit.Redraw(was, net)})
		} else {
			d.Nets = append(d.Nets, net)
		}
	}
	slices.SortFunc(d.Nets, func(a, c *circuit.Net) int { return circuit.CompareNatural(a.Name, c.Name) })
	for name := range b.dirty.nets.Lost {
		d.LostNets = append(d.LostNets, name)
	}
	for id := range b.dirty.sheets {
		if v := nets.Views[id]; v != nil {
			d.Sheets = append(d.Sheets, v)
		}
	}
	if b.dirty.tree {
		d.Places = nets.Tree.Uses
	}
	b.count()
	b.settleElectrical(&d)
	b.settleDrift(&d)
	if b.dirty.rules {
		b.board.All()
	} else if len(b.dirty.objects) > 0 {
		b.board.Update(b.dirty.objects)
	}
	if b.dirty.rules || len(b.dirty.objects) > 0 {
		added, dropped := b.board.Changes()
		for _, k := range added {
			b.report(b.board.Found[k], &d)
		}
		d.Mended = append(d.Mended, dropped...)
	}
	for n := range b.dirty.copper {
		if n != "" {
			b.settleLinks(n, &d)
		}
	}
	for key := range b.dirty.excuses {
		for _, source := range []map[string]*check.Finding{b.electrical, b.drift, b.open, b.board.Found} {
			if f := source[key]; f != nil {
				c := *f
				source[key] = &c
				b.report(&c, &d)
			}
		}
	}
	b.dirty = clean()
	d.Rev, d.Stages = b.Rev, b.Stages()
	return d
}

// report puts a finding into the delta, excused or not.
func (b *Bench) report(f *check.Finding, d *Delta) {
	f.Hold(b.Doc.ExcuseOf(f.Key))
	d.Findings = append(d.Findings, f)
}

func (b *Bench) settleElectrical(d *Delta) {
	looked := b.dirty.nets
	looked.Changed = maps.Clone(looked.Changed)
	maps.DeleteFunc(looked.Changed, func(name string, net *circuit.Net) bool {
		return len(net.Pins) > 1 && circuit.Redrawn(b.dirty.nets.Was[name], net)
	})
	t := circuit.Touched{Nets: looked, Sheets: b.dirty.sheets, Designators: b.dirty.designators}
	var gone []string
	var now []circuit.Finding
	switch {
	case b.dirty.checks || b.dirty.tree: // severities and uses of sheets reach everywhere
		b.erc = circuit.NewErc()
		b.erc.Fill(b.Doc, b.nets)
		now = b.erc.All()
		for k := range b.electrical {
			gone = append(gone, k)
		}
		is := map[string]bool{}
		for _, x := range now {
			is[x.Key] = true
		}
		gone = slices.DeleteFunc(gone, func(k string) bool { return is[k] })
	case len(t.Nets.Changed)+len(t.Nets.Lost)+len(t.Sheets)+len(t.Designators) > 0:
		now, gone = b.erc.Update(b.Doc, b.nets, t)
	}
	for _, k := range gone {
		delete(b.electrical, k)
		d.Mended = append(d.Mended, k)
	}
	for _, x := range now {
		b.renew(b.electrical, check.Electrical(x), d)
	}
}

// renew puts a finding among those of its source and tells it when it is new or changed.
func (b *Bench) renew(source map[string]*check.Finding, f *check.Finding, d *Delta) {
	f.Hold(b.Doc.ExcuseOf(f.Key))
	if f.Sheet != 0 {
		f.Place = b.nets.Tree.LabelOf(f.Path, f.Sheet)
	}
	if old := source[f.Key]; old == nil || !reflect.DeepEqual(old, f) {
		source[f.Key] = f
		b.report(f, d)
	}
}

func (b *Bench) settleDrift(d *Delta) {
	switch {
	case b.dirty.tree:
		b.cmp.UpdateAll(b.Doc, b.nets)
	case len(b.dirty.parts)+len(b.dirty.placed) == 0:
		return
	default:
		b.cmp.Update(b.Doc, b.nets, b.dirty.parts, b.dirty.placed)
	}
	now := map[string]bool{}
	if len(b.Doc.Placed) > 0 {
		for _, f := range check.Drift(b.Doc, b.cmp.List()) {
			now[f.Key] = true
			b.renew(b.drift, &f, d)
		}
	}
	for k := range b.drift {
		if !now[k] {
			delete(b.drift, k)
			d.Mended = append(d.Mended, k)
		}
	}
}

func (b *Bench) settleLinks(net string, d *Delta) {
	if b.trees[net] == nil {
		b.trees[net] = &layout.NetTree{}
	}
	pieces := b.index.NetPieces(net)
	links := b.trees[net].Update(net, b.index, pieces, b.dirty.objects)
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
		b.open[key] = f
		b.report(f, d)
	case b.open[key] != nil:
		delete(b.open, key)
		d.Mended = append(d.Mended, key)
	}
}

// All is everything derived, as a delta from nothing.
func (b *Bench) All() Delta {
	b.Settle()
	d := Delta{Rev: b.Rev, Links: maps.Clone(b.links), Stages: b.Stages(), Findings: b.Findings(), Places: b.nets.Tree.Uses}
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
	var out []*check.Finding
	for _, source := range []map[string]*check.Finding{b.electrical, b.drift, b.open, b.board.Found} {
		out = append(out, slices.Collect(maps.Values(source))...)
	}
	check.Sort(out)
	return out
}

// OpenFindings lists those nobody excused.
func (b *Bench) OpenFindings() []*check.Finding {
	return slices.DeleteFunc(b.Findings(), func(f *check.Finding) bool { return f.Excused != "" })
}

// Differences between circuit and board.
func (b *Bench) Differences() []layout.Difference {
	b.Settle()
	return b.cmp.List()
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
	b.dirty.rules = true
	b.Settle()
}
