package circuit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Net is a set of pins that are joined.
type Net struct {
	Name string   `json:"name"`
	Pins []PinRef `json:"pins"`
	Uses []NetUse `json:"uses"` // where it is drawn
	// Named tells that a label, port or supply gave the name; else it is made of the first pin.
	Named bool `json:"named"`
	// Supplies are the names of supply marks on the net; more than one joins two supplies.
	Supplies []string `json:"supplies,omitempty"`
	// Names are the names of labels, ports and taps on it.
	Names   []string `json:"names,omitempty"`
	members []*groupUse
	base    string
	want    string // the name it has unless another net has it already
	called  bool   // the base is that of a member of an unnamed bundle
	feeds   bool
}

// NetUse is what a net has in one use of a sheet: wires, labels, ports, taps, supply marks.
type NetUse struct {
	Path  string      `json:"path,omitempty"`
	Sheet design.ID   `json:"sheet"`
	Items []design.ID `json:"items"`
}

// ItemRef names a wire, label or mark in one use of its sheet.
type ItemRef struct {
	Path string
	ID   design.ID
}

// groupUse is a sheet's group in one use of the sheet.
type groupUse struct {
	of    *useState // the use of the sheet
	group *group
	nth   int
	keys  []string
	net   *Net
	gone  bool // it is no more; its last net keeps it for comparison
}

// Nets is the meaning of a whole circuit, kept up to date at a cost that follows the nets
// of the sheets that changed.
type Nets struct {
	Views  map[design.ID]*SheetView
	Tree   *Tree
	ByName map[string]*Net
	OfPin  map[PinRef]string
	OfItem map[ItemRef]string

	uses     map[useKey]*useState
	holders  map[string]map[*groupUse]struct{} // by key: who is joined by it
	bearers  map[string]map[*groupUse]struct{} // by the name of a label: who may be joined by a supply's name
	supplied map[string]int                    // groups with a supply mark of the name
	bases    map[string]map[*Net]struct{}      // nets that would bear the name, if they were alone
	wants    map[string]map[*Net]struct{}      // nets that want the name, place and all
}

type useState struct {
	SheetUse
	rank    int // from the top down
	members []*groupUse
}

// Find computes the nets of a document from scratch.
func Find(d *design.Doc) *Nets {
	n := &Nets{
		Views: map[design.ID]*SheetView{}, ByName: map[string]*Net{}, OfPin: map[PinRef]string{}, OfItem: map[ItemRef]string{},
		uses: map[useKey]*useState{}, holders: map[string]map[*groupUse]struct{}{}, bearers: map[string]map[*groupUse]struct{}{},
		supplied: map[string]int{}, bases: map[string]map[*Net]struct{}{}, wants: map[string]map[*Net]struct{}{},
	}
	sheets := map[design.ID]bool{}
	for id := range d.Sheets {
		sheets[id] = true
	}
	n.Refresh(d, sheets)
	return n
}

// NetChanges tells what Refresh changed.
type NetChanges struct {
	Changed map[string]*Net // new, or other than before
	Lost    map[string]*Net // no net bears the name any more
	Was     map[string]*Net // of those changed, as they were, if they were
}

// update is one refresh in progress.
type update struct {
	n       *Nets
	d       *design.Doc
	dirty   map[*Net]struct{}      // to be taken apart
	fresh   map[*groupUse]struct{} // without a net yet
	flipped map[string]bool        // names whose supply may have come or gone, as it was before
	bases   map[string]struct{}    // names whose bearers changed
	wants   map[string]struct{}    // names that other nets want than before
	redrawn map[*groupUse]struct{} // joins what it joined, by other wires
	built   map[*Net]bool          // made anew
}

// Refresh recomputes the given sheets and what follows from them.
func (n *Nets) Refresh(d *design.Doc, sheets map[design.ID]bool) NetChanges {
	u := &update{n: n, d: d, dirty: map[*Net]struct{}{}, fresh: map[*groupUse]struct{}{}, flipped: map[string]bool{}, bases: map[string]struct{}{}, wants: map[string]struct{}{}, redrawn: map[*groupUse]struct{}{}, built: map[*Net]bool{}}
	for id := range sheets {
		if d.Sheets[id] == nil {
			delete(n.Views, id)
		} else {
			n.Views[id] = viewSheet(d, id)
		}
	}
	before := n.Tree
	n.Tree = TreeOf(d)
	if before != nil && !n.Tree.sameOrder(before) {
		for id := range d.Sheets {
			sheets[id] = true
		}
	}
	now := map[useKey]bool{}
	for i := range n.Tree.Uses {
		p := &n.Tree.Uses[i]
		now[p.key()] = true
		old := n.uses[p.key()]
		if old != nil && old.Label == p.Label && !sheets[p.Sheet] {
			old.rank = i
			continue
		}
		if old != nil && old.Label != p.Label {
			u.drop(old)
			old = nil
		}
		if n.Views[p.Sheet] == nil { // its blocks brought a sheet to light that was not looked at
			n.Views[p.Sheet] = viewSheet(d, p.Sheet)
		}
		u.enter(p, i, old)
	}
	for key, p := range n.uses {
		if !now[key] {
			u.drop(p)
			delete(n.uses, key)
		}
	}
	u.settleSupplies()
	return u.rebuild()
}

func note[K comparable, V comparable](m map[K]map[V]struct{}, k K, v V) {
	if m[k] == nil {
		m[k] = map[V]struct{}{}
	}
	m[k][v] = struct{}{}
}

func unnote[K comparable, V comparable](m map[K]map[V]struct{}, k K, v V) {
	delete(m[k], v)
	if len(m[k]) == 0 {
		delete(m, k)
	}
}

// supply counts the marks of a name and remembers how it was before the update.
func (u *update) supply(name string, by int) {
	if _, ok := u.flipped[name]; !ok {
		u.flipped[name] = u.n.supplied[name] > 0
	}
	if u.n.supplied[name] += by; u.n.supplied[name] == 0 {
		delete(u.n.supplied, name)
	}
}

func (u *update) unkey(m *groupUse) {
	for _, k := range m.keys {
		unnote(u.n.holders, k, m)
	}
	m.keys = nil
	if m.net != nil {
		u.dirty[m.net] = struct{}{}
	}
}

func (u *update) drop(p *useState) {
	for _, m := range p.members {
		u.dropMember(m)
	}
	p.members = nil
}

func (u *update) dropMember(m *groupUse) {
	u.unkey(m)
	for _, name := range m.group.names {
		unnote(u.n.bearers, name, m)
	}
	for _, s := range m.group.supplies {
		u.supply(s, -1)
	}
	delete(u.fresh, m)
	m.gone = true
}

// enter takes up the groups of a sheet in one of its uses. Groups that join what they joined
// before keep their member, so that their nets are left alone.
func (u *update) enter(at *SheetUse, rank int, old *useState) {
	p := &useState{SheetUse: *at, rank: rank}
	u.n.uses[at.key()] = p
	kept := map[string][]*groupUse{}
	if old != nil {
		for _, m := range old.members {
			kept[m.group.content] = append(kept[m.group.content], m)
		}
	}
	for i, g := range u.n.Views[at.Sheet].groups {
		if list := kept[g.content]; len(list) > 0 {
			m := list[0]
			kept[g.content] = list[1:]
			if !slices.Equal(m.group.items, g.items) {
				u.redrawn[m] = struct{}{}
			}
			m.of, m.group, m.nth = p, g, i
			p.members = append(p.members, m)
			continue
		}
		m := &groupUse{of: p, group: g, nth: i}
		p.members = append(p.members, m)
		u.fresh[m] = struct{}{}
		for _, name := range g.names {
			note(u.n.bearers, name, m)
		}
		for _, s := range g.supplies {
			u.supply(s, 1)
		}
	}
	for _, list := range kept {
		for _, m := range list {
			u.dropMember(m)
		}
	}
}

// key computes the names by which a member is joined with others: those of its sheet's
// labels and ports within the use of the sheet, those of supplies everywhere, those of the
// ports below the pins of blocks.
func (u *update) key(m *groupUse) {
	g := m.group
	m.keys = m.keys[:0]
	for _, s := range g.supplies {
		m.keys = append(m.keys, "s\x00"+s)
	}
	for _, name := range g.names {
		m.keys = append(m.keys, ownKey("n", m.of.Path, m.of.Sheet, name))
		if u.n.supplied[name] > 0 {
			m.keys = append(m.keys, "s\x00"+name)
		}
	}
	for _, l := range g.leads {
		m.keys = append(m.keys, ownKey("b", m.of.Path, m.of.Sheet, l))
	}
	for _, p := range g.ports {
		m.keys = append(m.keys, ownKey("p", m.of.Path, m.of.Sheet, fmt.Sprintf("%s#%d", p.name, p.nth)))
	}
	for _, l := range g.below {
		m.keys = append(m.keys, ownKey("p", Below(m.of.Path, l.block.ID), l.block.Of, fmt.Sprintf("%s#%d", l.name, l.nth)))
	}
	for _, k := range m.keys {
		note(u.n.holders, k, m)
	}
}

// settleSupplies gives keys to what is new, and new ones to labels that bear a name of which
// the first supply mark came or the last one went.
func (u *update) settleSupplies() {
	for name, was := range u.flipped {
		if was == (u.n.supplied[name] > 0) {
			continue
		}
		for m := range u.n.bearers[name] {
			u.unkey(m)
			u.fresh[m] = struct{}{}
		}
	}
	for m := range u.fresh {
		u.key(m)
	}
}

// rebuild takes apart the nets that changed and makes nets of what is without one.
func (u *update) rebuild() NetChanges {
	n := u.n
	var todo []*groupUse
	for m := range u.fresh {
		todo = append(todo, m)
	}
	for net := range u.dirty {
		todo = u.release(net, todo)
	}
	asked := map[string]bool{}
	for i := 0; i < len(todo); i++ { // whoever is joined with them comes along, net by net
		for _, k := range todo[i].keys {
			if asked[k] {
				continue
			}
			asked[k] = true
			for m := range n.holders[k] {
				if m.net != nil {
					if _, ok := u.dirty[m.net]; !ok {
						u.dirty[m.net] = struct{}{}
						todo = u.release(m.net, todo)
					}
				}
			}
		}
	}
	// release has cleared the nets; members may be listed twice
	sets := geom.NewForest(0)
	node := make(map[*groupUse]int, len(todo))
	byKey := map[string]int{}
	pool := todo[:0]
	for _, m := range todo {
		if _, ok := node[m]; ok || m.gone {
			continue
		}
		pool = append(pool, m)
		node[m] = sets.Add()
		for _, k := range m.keys {
			if other, ok := byKey[k]; ok {
				sets.Join(other, node[m])
			} else {
				byKey[k] = node[m]
			}
		}
	}
	byRoot := map[int]*Net{}
	for _, m := range pool {
		r := sets.Root(node[m])
		if byRoot[r] == nil {
			byRoot[r] = &Net{}
		}
		m.net = byRoot[r]
		m.net.members = append(m.net.members, m)
	}
	out := NetChanges{Changed: map[string]*Net{}, Lost: map[string]*Net{}, Was: map[string]*Net{}}
	for net := range u.dirty {
		u.unname(net, out)
	}
	for _, net := range byRoot {
		u.fill(net)
		u.built[net] = true
		if net.base != "" {
			note(n.bases, net.base, net)
			u.bases[net.base] = struct{}{}
		}
	}
	u.name(out)
	u.redraw(out)
	for name, net := range out.Changed {
		if old := out.Lost[name]; old != nil {
			delete(out.Lost, name)
			if sameNet(old, net) {
				delete(out.Changed, name)
			} else {
				out.Was[name] = old
			}
		}
	}
	return out
}

// release gives back the members of a net that are still there.
func (u *update) release(net *Net, todo []*groupUse) []*groupUse {
	for _, m := range net.members {
		if !m.gone {
			m.net = nil
			todo = append(todo, m)
		}
	}
	return todo
}

// unname takes a net's name from it and from what it joined.
func (u *update) unname(net *Net, out NetChanges) {
	n := u.n
	if net.base != "" {
		unnote(n.bases, net.base, net)
		u.bases[net.base] = struct{}{}
		u.want(net, "")
	}
	u.forget(net, out)
}

func (u *update) forget(net *Net, out NetChanges) {
	n := u.n
	if net.Name == "" || n.ByName[net.Name] != net {
		return
	}
	delete(n.ByName, net.Name)
	out.Lost[net.Name] = net
	for _, p := range net.Pins {
		if n.OfPin[p] == net.Name {
			delete(n.OfPin, p)
		}
	}
	for _, use := range net.Uses {
		for _, id := range use.Items {
			if ref := (ItemRef{use.Path, id}); n.OfItem[ref] == net.Name {
				delete(n.OfItem, ref)
			}
		}
	}
}

// fill gathers what a net joins, and the name it would bear if no other net did: a
// supply's wins, then that of the label or port nearest to the top, then that of the member of
// an unnamed bundle, then the first pin's.
func (u *update) fill(net *Net) {
	slices.SortFunc(net.members, func(a, b *groupUse) int {
		return cmp.Or(cmp.Compare(a.of.rank, b.of.rank), cmp.Compare(a.nth, b.nth))
	})
	depth, calledDepth, called := 1<<30, 1<<30, ""
	for _, m := range net.members {
		g := m.group
		for _, p := range g.pins {
			p.Path = m.of.Path
			net.Pins = append(net.Pins, p)
		}
		if len(g.items) > 0 {
			if k := len(net.Uses); k > 0 && net.Uses[k-1].Path == m.of.Path && net.Uses[k-1].Sheet == m.of.Sheet {
				net.Uses[k-1].Items = append(net.Uses[k-1].Items, g.items...)
			} else {
				net.Uses = append(net.Uses, NetUse{m.of.Path, m.of.Sheet, slices.Clone(g.items)})
			}
		}
		net.Supplies = append(net.Supplies, g.supplies...)
		net.Names = append(net.Names, g.names...)
		net.feeds = net.feeds || g.feeds
		for _, name := range g.names {
			if m.of.Depth < depth || m.of.Depth == depth && CompareNatural(name, net.base) < 0 {
				depth, net.base = m.of.Depth, name
			}
		}
		if g.called != "" && m.of.Depth < calledDepth {
			calledDepth, called = m.of.Depth, g.called
		}
	}
	for i := range net.Uses {
		slices.Sort(net.Uses[i].Items)
	}
	net.Supplies, net.Names = distinct(net.Supplies), distinct(net.Names)
	sortPins(u.d, net.Pins)
	net.Named = true
	switch {
	case len(net.Pins) == 0 && len(net.Uses) == 0: // a member of a bundle that nothing takes up
		net.base = ""
	case len(net.Supplies) > 0:
		net.base = net.Supplies[0]
	case net.base != "":
	case called != "":
		net.Named, net.called = false, true
		net.base = called
	case len(net.Pins) > 0:
		net.Named = false
		net.base = PinName(u.d, net.Pins[0])
	default:
		net.Named = false
		net.base = fmt.Sprintf("wire %d", net.Uses[0].Items[0])
	}
}
