package circuit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Finding is one electrically suspicious thing.
type Finding struct {
	Key      string // the same finding has the same key after every edit
	Kind     string // one of ErcKinds
	Text     string
	About    string // more of what it depends on, so that an excuse can tell when that changes
	Severity string // fault, warning or todo
	Sheet    design.ID
	Path     string
	At       geom.Point
	Objects  []design.ID
}

// ErcKind is a kind of finding with its usual severity.
type ErcKind struct {
	Kind     string `json:"kind"`
	Rule     string `json:"rule"`
	Severity string `json:"severity"`
}

// ErcKinds lists everything the electrical rules check looks for.
var ErcKinds = []ErcKind{
	{"openPin", "No pin is open by accident", "todo"},
	{"singlePin", "A net joins at least two pins", "warning"},
	{"looseEnd", "Wires end on something", "warning"},
	{"markOnNet", "No-connect marks stand on open pins", "warning"},
	{"twoSupplies", "Supplies stay apart", "fault"},
	{"sameDesignator", "A designator names one part", "fault"},
	{"pinPair", "Pins that are joined suit one another", "fault"},
	{"noDriver", "Inputs are driven", "warning"},
	{"noFeed", "Supplies are fed", "warning"},
	{"caseNames", "Names differ by more than case", "warning"},
	{"caseDesignators", "Designators differ by more than case", "warning"},
	{"portUnused", "A sheet with ports stands in a block", "warning"},
	{"portAlone", "Ports and the pins of blocks match", "fault"},
	{"bundleWidth", "What a bundle joins has as many members", "fault"},
	{"tapMember", "Taps take what their bundle holds", "fault"},
	{"wireOnBundle", "Wires join bundles by taps", "fault"},
	{"labelOnBundle", "Names suit what they stand on", "warning"},
	{"unitLeft", "All units of a package are placed", "warning"},
}

// SeverityOf a kind of finding, with the project's own choice.
func SeverityOf(c *design.Checks, kind string) string {
	if c != nil {
		if s, ok := c.Kinds[kind]; ok {
			return s
		}
	}
	for _, k := range ErcKinds {
		if k.Kind == kind {
			return k.Severity
		}
	}
	return "warning"
}

// Erc is the electrical rules check, kept up to date at a cost that follows what changed.
type Erc struct {
	of    map[string][]Finding       // by what was looked at: a net, a sheet, a name, a designator
	names map[string][]string        // of labels and supplies, by net
	fold  map[string]map[string]int  // how often a name is borne, by the name in lower case
	cases map[string]map[string]bool // designators, by the designator in lower case
}

// NewErc has looked at nothing yet.
func NewErc() *Erc {
	return &Erc{of: map[string][]Finding{}, names: map[string][]string{}, fold: map[string]map[string]int{}, cases: map[string]map[string]bool{}}
}

// Findings is the electrical rules check of the whole circuit, from scratch.
func (n *Nets) Findings(d *design.Doc) []Finding {
	e := NewErc()
	e.Fill(d, n)
	return e.All()
}

// Fill looks at the whole circuit.
func (e *Erc) Fill(d *design.Doc, n *Nets) {
	all := Touched{Nets: NetChanges{Changed: n.ByName}, Sheets: map[design.ID]bool{}, Designators: map[string]bool{}}
	for id := range d.Sheets {
		all.Sheets[id] = true
	}
	for p := range d.Parts.All() {
		for _, place := range n.Tree.Of(p.Sheet) {
			all.Designators[p.Called(place.Path)] = true
		}
	}
	e.Update(d, n, all)
}

// Touched says what an edit touched.
type Touched struct {
	Nets        NetChanges
	Sheets      map[design.ID]bool
	Designators map[string]bool
	Severities  bool // everything is to be looked at anew
}

// All findings, by key.
func (e *Erc) All() []Finding {
	var out []Finding
	for _, list := range e.of {
		out = append(out, list...)
	}
	slices.SortFunc(out, func(a, b Finding) int { return strings.Compare(a.Key, b.Key) })
	return out
}

// Update looks again at what was touched; it returns the findings there are now of it and the
// keys of those that are gone.
func (e *Erc) Update(d *design.Doc, n *Nets, t Touched) (now []Finding, gone []string) {
	was, is := map[string]bool{}, map[string]bool{}
	look := func(source string, found []Finding) {
		for _, x := range e.of[source] {
			was[x.Key] = true
		}
		kept := found[:0]
		for _, x := range found {
			if x.Severity == "" {
				x.Severity = SeverityOf(d.Checks, x.Kind)
			}
			if x.Severity != "off" {
				kept = append(kept, x)
				is[x.Key] = true
			}
		}
		if len(kept) == 0 {
			delete(e.of, source)
		} else {
			e.of[source] = kept
			now = append(now, kept...)
		}
	}
	for name := range t.Nets.Lost {
		look("net "+name, nil)
	}
	nets := maps.Clone(t.Nets.Changed)
	if nets == nil {
		nets = map[string]*Net{}
	}
	again := e.saidOf(d, t.Sheets)
	for _, source := range again {
		if name, ok := strings.CutPrefix(source, "net "); ok && n.ByName[name] != nil {
			nets[name] = n.ByName[name]
		}
	}
	for name, net := range nets {
		look("net "+name, n.netFindings(d, net))
	}
	for id := range t.Sheets {
		if v := n.Views[id]; v != nil && d.Sheets[id] != nil {
			look(fmt.Sprint("sheet ", id), n.sheetFindings(d, v))
		} else {
			look(fmt.Sprint("sheet ", id), nil)
		}
	}
	folded := map[string]bool{}
	for name := range t.Designators {
		look("part "+name, n.bearerFindings(d, name))
		f := strings.ToLower(name)
		folded[f] = true
		if e.cases[f] == nil {
			e.cases[f] = map[string]bool{}
		}
		if e.cases[f][name] = d.DesignatorTaken(name); !e.cases[f][name] {
			delete(e.cases[f], name)
		}
	}
	for _, source := range again {
		if f, ok := strings.CutPrefix(source, "case "); ok {
			folded[f] = true
		}
	}
	for f := range folded {
		look("case "+f, n.designatorFindings(d, slices.Sorted(maps.Keys(e.cases[f]))))
	}
	folds := e.foldNames(t.Nets.Lost, t.Nets.Changed)
	for _, source := range again {
		if name, ok := strings.CutPrefix(source, "name "); ok && !slices.Contains(folds, name) {
			folds = append(folds, name)
		}
	}
	for _, folded := range folds {
		if len(e.fold[folded]) < 2 && e.of["name "+folded] == nil {
			continue
		}
		look("name "+folded, n.caseFindings(e.fold[folded]))
	}
	for k := range was {
		if !is[k] {
			gone = append(gone, k)
		}
	}
	slices.Sort(gone)
	return now, gone
}

// saidOf lists what was looked at of which something is said that names places or parts of
// the sheets: it may read differently now, even if the nets are as they were.
func (e *Erc) saidOf(d *design.Doc, sheets map[design.ID]bool) []string {
	var out []string
	for source, list := range e.of {
		if slices.ContainsFunc(list, func(x Finding) bool {
			return sheets[x.Sheet] || slices.ContainsFunc(x.Objects, func(id design.ID) bool {
				p := d.Parts[id]
				return p != nil && sheets[p.Sheet]
			})
		}) {
			out = append(out, source)
		}
	}
	return out
}

// foldNames keeps count of the names nets bear and tells which, with their case left out,
// changed.
func (e *Erc) foldNames(lost, changed map[string]*Net) []string {
	touched := map[string]bool{}
	set := func(net string, names []string) {
		for _, old := range e.names[net] {
			f := strings.ToLower(old)
			if e.fold[f][old]--; e.fold[f][old] == 0 {
				delete(e.fold[f], old)
			}
			touched[f] = true
		}
		delete(e.names, net)
		for _, s := range names {
			f := strings.ToLower(s)
			if e.fold[f] == nil {
				e.fold[f] = map[string]int{}
			}
			e.fold[f][s]++
			touched[f] = true
		}
		if len(names) > 0 {
			e.names[net] = names
		}
	}
	for name := range lost {
		set(name, nil)
	}
	for name, net := range changed {
		set(name, append(slices.Clone(net.Names), net.Supplies...))
	}
	var out []string
	for f := range touched {
		out = append(out, f)
	}
	slices.Sort(out)
	return out
}

func (n *Nets) bearerFindings(d *design.Doc, name string) []Finding {
	type use struct {
		part *design.Part
		path string
	}
	var uses []use
	units := map[int]bool{}
	clash := false
	for _, p := range d.Bearers(name) {
		for _, place := range n.Tree.Of(p.Sheet) {
			if p.Called(place.Path) != name {
				continue
			}
			if len(uses) > 0 && (p.Unit == 0 || units[p.Unit] || uses[0].part.Library != p.Library) {
				clash = true
			}
			units[p.Unit] = true
			uses = append(uses, use{p, place.Path})
		}
	}
	if len(uses) == 0 {
		return nil
	}
	first := uses[0]
	out := Finding{Key: "sameDesignator " + name, Kind: "sameDesignator", Sheet: first.part.Sheet, Path: first.path, At: first.part.At,
		Text: fmt.Sprintf("%d parts are called %s.", len(uses), name)}
	for _, u := range uses {
		if !slices.Contains(out.Objects, u.part.ID) {
			out.Objects = append(out.Objects, u.part.ID)
		}
	}
	if clash {
		return []Finding{out}
	}
	if l := d.LibraryPart(first.part.Library); l != nil && len(l.Units) > len(uses) && first.part.Unit > 0 {
		var left []string
		for u := 1; u <= len(l.Units); u++ {
			if !units[u] {
				left = append(left, (&design.Part{Unit: u}).UnitLetter())
			}
		}
		out.Key, out.Kind = "unitLeft "+name, "unitLeft"
		out.Text = fmt.Sprintf("Of the package %s the unit %s is not placed.", name, strings.Join(left, ", "))
		return []Finding{out}
	}
	return nil
}

// designatorFindings warns of designators that are one but for their case.
func (n *Nets) designatorFindings(d *design.Doc, names []string) []Finding {
	if len(names) < 2 {
		return nil
	}
	x := Finding{Key: "caseDesignators " + strings.ToLower(names[0]), Kind: "caseDesignators",
		Text: fmt.Sprintf("The designators %s differ by case alone.", strings.Join(names, " and "))}
	for i, name := range names {
		for _, p := range d.Bearers(name) {
			if x.Objects = append(x.Objects, p.ID); i == 1 && x.Sheet == 0 {
				x.Sheet, x.At, x.Path = p.Sheet, p.At, n.firstPath(p.Sheet)
			}
		}
	}
	return []Finding{x}
}

// caseFindings warns of names that are one but for their case.
func (n *Nets) caseFindings(names map[string]int) []Finding {
	if len(names) < 2 {
		return nil
	}
	var list []string
	for s := range names {
		list = append(list, s)
	}
	slices.Sort(list)
	out := Finding{Key: "caseNames " + strings.ToLower(list[0]), Kind: "caseNames", Text: fmt.Sprintf("The names %s differ by case alone and mean different nets.", strings.Join(list, " and "))}
	for _, net := range sortedNets(n.ByName) {
		if slices.Contains(net.Names, list[0]) || slices.Contains(net.Supplies, list[0]) {
			out.Sheet, out.Path, out.At, out.Objects = n.placeOf(net, list[0])
			break
		}
	}
	return []Finding{out}
}

func sortedNets(m map[string]*Net) []*Net {
	out := make([]*Net, 0, len(m))
	for _, net := range m {
		out = append(out, net)
	}
	slices.SortFunc(out, func(a, b *Net) int { return cmp.Compare(a.Name, b.Name) })
	return out
}

// placeOf finds a label or mark that gives the net the name, to point at.
func (n *Nets) placeOf(net *Net, name string) (sheet design.ID, path string, at geom.Point, objects []design.ID) {
	for _, use := range net.Uses {
		v := n.Views[use.Sheet]
		if v == nil {
			continue
		}
		for _, o := range v.items {
			if s := nameOf(o); s == name && slices.Contains(use.Items, o.ObjectID()) {
				p, _, _ := attachment(o)
				return use.Sheet, use.Path, p, []design.ID{o.ObjectID()}
			}
		}
	}
	if len(net.Uses) > 0 {
		return net.Uses[0].Sheet, net.Uses[0].Path, geom.Point{}, net.Uses[0].Items[:1]
	}
	return 0, "", geom.Point{}, nil
}

// nameOf is the net's name that an object gives.
func nameOf(o design.Object) string {
	switch o := o.(type) {
	case *design.Label:
		return o.Name
	case *design.Port:
		return o.Name
	case *design.Supply:
		return o.Name
	case *design.Tap:
		return o.Member
	}
	return ""
}
