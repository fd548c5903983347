package layout

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// Difference is one thing in which the board differs from the circuit. Kinds: add, remove,
// change (designator, value or footprint), rename (a net), nets (of one part), none (a part
// that cannot be carried, since it has no footprint).
type Difference struct {
	Key  string    `json:"key"`
	Kind string    `json:"kind"`
	Text string    `json:"text"`
	Part design.ID `json:"part,omitempty"` // in the circuit
	Path string    `json:"path,omitempty"` // of the use of its sheet
	On   design.ID `json:"on,omitempty"`   // on the board
	From string    `json:"from,omitempty"` // of a renamed net
	To   string    `json:"to,omitempty"`
}

// PadNets are the nets that the circuit gives to the pads of a package. A net of which no
// other pin knows still has its name; pins left open have none.
func PadNets(d *design.Doc, n *circuit.Nets, k circuit.Package) map[string]string {
	out := map[string]string{}
	for _, u := range k.Units {
		p := d.Parts[u.Part]
		lib, sym := d.LibraryPart(p.Library), d.SymbolOf(p)
		if lib == nil || sym == nil {
			continue
		}
		for i := range sym.Pins {
			name := n.OfPin[circuit.PinRef{Part: p.ID, Pin: sym.Pins[i].Number, Path: u.Path}]
			if net := n.ByName[name]; net != nil && (len(net.Pins) > 1 || net.Named) {
				for _, pad := range lib.Pads(sym.Pins[i].Number) {
					out[pad] = name
				}
			}
		}
	}
	return out
}

// NamesOf are the names of the nets that a part's pads bear on the board.
func NamesOf(d *design.Doc, on *design.Placed) map[string]string {
	out := make(map[string]string, len(on.Nets))
	for pad, net := range on.Nets {
		out[pad] = d.NetName(net)
	}
	return out
}

// Differences lists what carrying the circuit to the board would do, parts in the order of
// their designators. Empty: the board is up to date.
func Differences(d *design.Doc, n *circuit.Nets) []Difference {
	c := NewComparison()
	c.UpdateAll(d, n)
	return c.List()
}

// Comparison holds the board against the circuit and is kept up to date at a cost that
// follows what an edit touched and how much differs.
type Comparison struct {
	plain  map[circuit.PartRef][]Difference // all but those of nets
	wanted map[circuit.PartRef]wanted       // packages whose nets differ
	doc    *design.Doc
	bears  map[design.ID]map[design.ID]int // pads on the board by net and part
	held   map[design.ID]*design.Placed    // parts of the board as counted in bears
	list   []Difference
	stale  bool
}

type wanted struct {
	pads map[string]string
	on   *design.Placed
}

// NewComparison has compared nothing yet.
func NewComparison() *Comparison {
	return &Comparison{plain: map[circuit.PartRef][]Difference{}, wanted: map[circuit.PartRef]wanted{}, bears: map[design.ID]map[design.ID]int{}, held: map[design.ID]*design.Placed{}}
}

// UpdateAll compares everything anew.
func (c *Comparison) UpdateAll(d *design.Doc, n *circuit.Nets) {
	*c = *NewComparison()
	refs := map[circuit.PartRef]bool{}
	for _, p := range d.Parts {
		for _, place := range n.Tree.Of(p.Sheet) {
			refs[circuit.PartRef{Part: p.ID, Path: place.Path}] = true
		}
	}
	placed := map[design.ID]bool{}
	for _, on := range d.Placed {
		refs[circuit.PartRef{Part: on.Part, Path: on.Path}] = true
		placed[on.ID] = true
	}
	c.Update(d, n, refs, placed)
}

// Update compares the given parts anew; placed are the ids of parts of the board that
// changed.
func (c *Comparison) Update(d *design.Doc, n *circuit.Nets, refs map[circuit.PartRef]bool, placed map[design.ID]bool) {
	c.doc = d
	c.stale = c.stale || len(refs)+len(placed) > 0
	for id := range placed {
		c.count(c.held[id], -1)
		delete(c.held, id)
		if on := d.Placed[id]; on != nil {
			c.count(on, 1)
			c.held[id] = on
		}
	}
	done := map[circuit.PartRef]bool{}
	for ref := range refs {
		c.compare(d, n, ref, done)
	}
}

func (c *Comparison) count(on *design.Placed, by int) {
	if on == nil {
		return
	}
	for _, net := range on.Nets {
		if c.bears[net] == nil {
			c.bears[net] = map[design.ID]int{}
		}
		if c.bears[net][on.ID] += by; c.bears[net][on.ID] == 0 {
			delete(c.bears[net], on.ID)
		}
		if len(c.bears[net]) == 0 {
			delete(c.bears, net)
		}
	}
}

func (c *Comparison) compare(d *design.Doc, n *circuit.Nets, ref circuit.PartRef, done map[circuit.PartRef]bool) {
	if done[ref] {
		return
	}
	done[ref] = true
	delete(c.plain, ref)
	delete(c.wanted, ref)
	on := d.PlacedOf(ref.Part, ref.Path)
	k, ok := circuit.PackageOf(d, n.Tree, ref)
	if ok && k.Lead() != ref {
		c.compare(d, n, k.Lead(), done)
		ok = false
	}
	key := func(kind string) string { return strings.TrimSpace(fmt.Sprintf("%s %d %s", kind, ref.Part, ref.Path)) }
	if !ok {
		if on != nil {
			c.plain[ref] = []Difference{{Key: fmt.Sprintf("remove %d", on.ID), Kind: "remove", On: on.ID, Text: fmt.Sprintf("%s is no longer in the circuit.", on.Designator)}}
		}
		return
	}
	p := d.Parts[ref.Part]
	switch {
	case on == nil && p.Footprint == "":
		c.plain[ref] = []Difference{{Key: key("none"), Kind: "none", Part: p.ID, Path: ref.Path,
			Text: fmt.Sprintf("%s has no footprint and cannot be carried; give it one in the circuit.", k.Designator)}}
		return
	case on == nil:
		c.plain[ref] = []Difference{{Key: key("add"), Kind: "add", Part: p.ID, Path: ref.Path,
			Text: fmt.Sprintf("%s (%s) is new.", k.Designator, strings.Trim(p.Value+", "+p.Footprint, ", "))}}
		return
	}
	if what := changes(p, k.Designator, on); what != "" {
		c.plain[ref] = []Difference{{Key: key("change"), Kind: "change", Part: p.ID, Path: ref.Path, On: on.ID, Text: what}}
	}
	if pads := PadNets(d, n, k); !maps.Equal(pads, NamesOf(d, on)) {
		c.wanted[ref] = wanted{pads, on}
	}
}

// Count tells how many differences there are.
func (c *Comparison) Count() int {
	if len(c.wanted) == 0 {
		n := 0
		for _, list := range c.plain {
			n += len(list)
		}
		return n
	}
	return len(c.List())
}

// List the differences in the order in which they are to be read.
func (c *Comparison) List() []Difference {
	if !c.stale {
		return c.list
	}
	var out []Difference
	renames := c.netRenames()
	for old, to := range renames {
		out = append(out, Difference{Key: "rename " + old + " " + to, Kind: "rename", From: old, To: to,
			Text: fmt.Sprintf("The net %s is called %s now.", old, to)})
	}
	for _, list := range c.plain {
		out = append(out, list...)
	}
	for ref, w := range c.wanted {
		if what := netChanges(w.pads, w.on.Designator, NamesOf(c.doc, w.on), renames); what != "" {
			out = append(out, Difference{Key: strings.TrimSpace(fmt.Sprintf("nets %d %s", ref.Part, ref.Path)), Kind: "nets", Part: ref.Part, Path: ref.Path, On: w.on.ID, Text: what})
		}
	}
	rank := map[string]int{"rename": 0, "none": 1, "remove": 3}
	slices.SortFunc(out, func(a, b Difference) int {
		ra, okA := rank[a.Kind]
		rb, okB := rank[b.Kind]
		if !okA {
			ra = 2
		}
		if !okB {
			rb = 2
		}
		return cmp.Or(cmp.Compare(ra, rb), circuit.CompareNatural(a.Text, b.Text), cmp.Compare(a.Key, b.Key))
	})
	c.list, c.stale = out, false
	return out
}

func changes(p *design.Part, designator string, on *design.Placed) string {
	var what []string
	if designator != on.Designator {
		what = append(what, fmt.Sprintf("is called %s now", designator))
	}
	if p.Value != on.Value {
		what = append(what, fmt.Sprintf("has the value %q instead of %q", p.Value, on.Value))
	}
	if p.NotFitted != on.NotFitted {
		fit := "is fitted now"
		if p.NotFitted {
			fit = "is not fitted any more"
		}
		what = append(what, fit)
	}
	if p.Footprint != on.Footprint && p.Footprint != "" {
		what = append(what, fmt.Sprintf("has the footprint %s instead of %s", p.Footprint, on.Footprint))
	}
	if len(what) == 0 {
		return ""
	}
	return on.Designator + " " + strings.Join(what, ", and ") + "."
}

func netChanges(want map[string]string, designator string, has map[string]string, renames map[string]string) string {
	var what []string
	pads := maps.Clone(want)
	maps.Copy(pads, has)
	for _, pad := range slices.SortedFunc(maps.Keys(pads), circuit.CompareNatural) {
		is, should := has[pad], want[pad]
		if to, ok := renames[is]; ok {
			is = to
		}
		switch {
		case is == should:
		case is == "":
			what = append(what, fmt.Sprintf("pad %s joins %s", pad, should))
		case should == "":
			what = append(what, fmt.Sprintf("pad %s leaves %s", pad, is))
		default:
			what = append(what, fmt.Sprintf("pad %s goes from %s to %s", pad, is, should))
		}
	}
	if len(what) == 0 {
		return ""
	}
	return designator + ": " + strings.Join(what, ", ") + "."
}

// netRenames finds nets that only changed their name: every pad that bore the old name is
// to bear the new one, and no pad of another net does.
func (c *Comparison) netRenames() map[string]string {
	to := map[string]map[string]int{}        // old name → new names, in pads
	from := map[string]map[string]struct{}{} // new name → old names, of pads that differ
	for _, w := range c.wanted {
		for pad, is := range NamesOf(c.doc, w.on) {
			should := w.pads[pad]
			if to[is] == nil {
				to[is] = map[string]int{}
			}
			to[is][should]++
			if from[should] == nil {
				from[should] = map[string]struct{}{}
			}
			from[should][is] = struct{}{}
		}
	}
	out := map[string]string{}
	for old, set := range to {
		for name, pads := range set {
			if len(set) != 1 || name == "" || name == old || len(from[name]) != 1 || pads != c.pads(old) || sum(to[name]) != c.pads(name) {
				continue
			}
			out[old] = name
		}
	}
	return out
}

func sum(m map[string]int) int {
	n := 0
	for _, k := range m {
		n += k
	}
	return n
}

// Bearers lists the parts on the board that have pads on the net.
func (c *Comparison) Bearers(net design.ID) []design.ID {
	return slices.Sorted(maps.Keys(c.bears[net]))
}

// pads on the board that bear the net.
func (c *Comparison) pads(net string) int {
	n := 0
	is := c.doc.NetNamed(net)
	if is == nil {
		return 0
	}
	for _, k := range c.bears[is.ID] {
		n += k
	}
	return n
}
