// Package rules tells what a board's rules ask for: one resolver gives the value for any thing or any
// two things at a place on a layer, the rule that decided it and the rules that it beat. Everybody who
// needs a clearance, a width, a hole or a margin asks here. Lengths are nanometres; copper layers count
// from 0 at the top.
//
// Of the rules that fit, the most specific holds; of those alike the one with the lesser order. A part
// named is more specific than an area, that than a net's name, then class, kind of thing and layer;
// what both sides of a rule name counts together.
package rules

import (
	"cmp"
	"math/bits"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Subject is a thing that rules may hold for.
type Subject struct {
	Net   design.ID
	Thing design.Thing
	Part  design.ID // on the board, of a pad
}

// Ruling is what the rules say in one case.
type Ruling struct {
	design.Amount
	Rule   *design.Rule
	Beaten []*design.Rule // fit as well, the next best first
}

// Set are a document's rules, compiled. It belongs to one goroutine.
type Set struct {
	doc    *design.Doc
	layers int
	kinds  map[design.RuleKind]*table
	reach  []int64 // by copper layer: the greatest distance that may be asked for between two things
	nets   map[design.ID]int32
	groups map[string]int32
	named  []design.Scope // what rules say of nets: class or pattern alone
	parts  map[design.ID]bool
	areas  []*area
}

// table are the rules of a kind, the most specific first, and the cases that were asked for.
type table struct {
	rules   []*design.Rule
	known   map[question]*Ruling
	layered bool // the answer may differ from layer to layer
	areas   bool // the answer may differ from place to place
}

// question is a case as far as the rules can tell it from others.
type question struct {
	nets   [2]int32
	parts  [2]design.ID
	things [2]design.Thing
	layer  int8
	areas  uint64
}

type area struct {
	*design.RuleArea
	region *geom.Prepared
}

// Of compiles the rules of a document.
func Of(d *design.Doc) *Set {
	s := &Set{doc: d}
	s.Compile()
	return s
}

// Compile reads all rules anew, as after the stack or an area changed.
func (s *Set) Compile() {
	s.layers = s.doc.Board.Layers()
	s.kinds = map[design.RuleKind]*table{}
	by := map[design.RuleKind][]*design.Rule{}
	for _, r := range s.doc.Rules {
		by[r.Kind] = append(by[r.Kind], r)
	}
	s.scopes()
	for _, k := range design.RuleKinds {
		s.compile(k, by[k])
	}
	s.reaches()
}

// Changed follows a change of an object; before is nil when it came, after when it went. Cost: that of
// the rules of one kind for a rule's numbers, of one net for a net, of all rules for a scope, an area or
// the stack.
func (s *Set) Changed(before, after design.Object) {
	o := after
	if o == nil {
		o = before
	}
	switch o := o.(type) {
	case *design.Net:
		delete(s.nets, o.ID)
	case *design.Board, *design.RuleArea:
		s.Compile()
	case *design.Rule:
		was, _ := before.(*design.Rule)
		is, _ := after.(*design.Rule)
		if was == nil || is == nil || was.A != is.A || was.B != is.B || was.Kind != is.Kind {
			s.Compile()
			return
		}
		var list []*design.Rule
		for _, r := range s.kinds[o.Kind].rules {
			if r.ID != o.ID {
				list = append(list, r)
			}
		}
		s.compile(o.Kind, append(list, is))
		s.reaches()
	}
}

// scopes notes what rules tell apart: nets, parts and areas.
func (s *Set) scopes() {
	s.nets, s.groups, s.parts, s.named, s.areas = map[design.ID]int32{}, map[string]int32{}, map[design.ID]bool{}, nil, nil
	seen := map[design.Scope]bool{}
	areas := map[design.ID]bool{}
	for r := range s.doc.Rules.All() {
		for _, c := range []design.Scope{r.A, r.B} {
			net := design.Scope{Class: c.Class, Net: c.Net}
			if net != (design.Scope{}) && !seen[net] {
				seen[net] = true
				s.named = append(s.named, net)
			}
			if c.Part != 0 {
				s.parts[c.Part] = true
			}
			if a := s.doc.RuleAreas[c.Area]; a != nil && !areas[a.ID] {
				areas[a.ID] = true
				s.areas = append(s.areas, &area{a, geom.Region{Outer: geom.Closing(a.Outline)}.Prepare()})
			}
		}
	}
}

func (s *Set) compile(k design.RuleKind, list []*design.Rule) {
	t := &table{rules: list, known: map[question]*Ruling{}}
	slices.SortFunc(t.rules, func(a, b *design.Rule) int {
		return cmp.Or(cmp.Compare(Specific(b), Specific(a)), cmp.Compare(a.Order, b.Order), cmp.Compare(a.ID, b.ID))
	})
	for _, r := range t.rules {
		t.layered = t.layered || r.Inner != nil || r.A.Layer != 0 || r.B.Layer != 0
		for _, id := range []design.ID{r.A.Area, r.B.Area} {
			if a := s.doc.RuleAreas[id]; a != nil {
				t.areas, t.layered = true, t.layered || len(a.Layers) > 0
			}
		}
	}
	s.kinds[k] = t
}

// Specific tells how specific a rule is: the more, the greater.
func Specific(r *design.Rule) int {
	n := 0
	for _, c := range []design.Scope{r.A, r.B} {
		for i, names := range []bool{c.Layer != 0, c.Thing != "", c.Class != "", c.Net != "", c.Area != 0, c.Part != 0} {
			if names {
				n += 1 << (2 * i)
			}
		}
	}
	return n
}

func (s *Set) reaches() {
	s.reach = make([]int64, s.layers)
	for _, k := range []design.RuleKind{design.Clearance, design.EdgeClearance, design.HoleClearance, design.HoleCopper, design.WithinPart} {
		for _, r := range s.kinds[k].rules {
			for i := range s.reach {
				at := s.doc.Board.At(i)
				if (r.A.Layer == 0 || r.A.Layer == at) && (r.B.Layer == 0 || r.B.Layer == at) {
					s.reach[i] = max(s.reach[i], r.On(i, s.layers).Greatest())
				}
			}
		}
	}
}

// Reach is the greatest distance that rules may ask for between two things on one of the layers of the
// mask.
func (s *Set) Reach(layers uint32) (reach int64) {
	for ; layers != 0; layers &= layers - 1 {
		if i := bits.TrailingZeros32(layers); i < len(s.reach) {
			reach = max(reach, s.reach[i])
		}
	}
	return reach
}

// Greatest is the most that a kind of rule may ask for anywhere.
func (s *Set) Greatest(k design.RuleKind) (most int64) {
	for _, r := range s.kinds[k].rules {
		most = max(most, r.Value.Greatest())
		if r.Inner != nil {
			most = max(most, r.Inner.Greatest())
		}
	}
	return most
}

// Layered tells whether what the kind asks for may differ from layer to layer.
func (s *Set) Layered(k design.RuleKind) bool { return s.kinds[k].layered }

// ByPlace tells whether what the kind asks for may differ from place to place.
func (s *Set) ByPlace(k design.RuleKind) bool { return s.kinds[k].areas }

// group is a number that nets have in common which no rule tells apart.
func (s *Set) group(net design.ID) int32 {
	if g, ok := s.nets[net]; ok {
		return g
	}
	n := s.doc.Nets[net]
	if n == nil {
		n = &design.Net{}
	}
	key := make([]byte, len(s.named))
	for i, c := range s.named {
		if FitsNet(c, n) {
			key[i] = 1
		}
	}
	g, ok := s.groups[string(key)]
	if !ok {
		g = int32(len(s.groups))
		s.groups[string(key)] = g
	}
	s.nets[net] = g
	return g
}

// FitsNet tells whether a net fits what a scope says of nets.
func FitsNet(c design.Scope, n *design.Net) bool {
	return (c.Class == "" || c.Class == n.Class) && (c.Net == "" || n.Name != "" && Like(c.Net, n.Name))
}

// Tells tells whether any rule makes a difference between two nets.
func (s *Set) Tells(a, b *design.Net) bool {
	for _, c := range s.named {
		if FitsNet(c, a) != FitsNet(c, b) {
			return true
		}
	}
	return false
}

// Like tells whether a name fits a pattern, in which * stands for any letters and ? for one, or any of several with commas between.
func Like(patterns, name string) bool {
	for pattern := range strings.SplitSeq(patterns, ",") {
		if fits(strings.TrimSpace(pattern), name) {
			return true
		}
	}
	return false
}

func fits(pattern, name string) bool {
	p, n := []rune(pattern), []rune(name)
	star, mark := -1, 0
	i, j := 0, 0
	for j < len(n) {
		switch {
		case i < len(p) && p[i] == '*':
			star, mark = i, j
			i++
		case i < len(p) && (p[i] == '?' || p[i] == n[j]):
			i++
			j++
		case star >= 0:
			mark++
			i, j = star+1, mark
		default:
			return false
		}
	}
	return strings.Trim(string(p[i:]), "*") == ""
}

// mostAreas is how many areas a case is remembered with; beyond them it is worked out each time.
const mostAreas = 64

// within tells in which of the areas that rules name the place lies.
func (s *Set) within(layer int, at geom.Point) (mask uint64, all map[design.ID]bool) {
	id := s.doc.Board.At(layer)
	for i, a := range s.areas {
		if (layer < 0 || a.On(id)) && a.region.Holds(at) {
			if i < mostAreas {
				mask |= 1 << i
			}
			if all == nil {
				all = map[design.ID]bool{}
			}
			all[a.ID] = true
		}
	}
	return mask, all
}

// Between is what a kind of rule asks for between two things on a copper layer (−1: on none) at a
// place.
func (s *Set) Between(k design.RuleKind, a, b Subject, layer int, at geom.Point) *Ruling {
	return s.resolve(k, [2]Subject{a, b}, layer, at)
}

// For is what a kind of rule asks for of one thing on a copper layer (−1: on none) at a place.
func (s *Set) For(k design.RuleKind, a Subject, layer int, at geom.Point) *Ruling {
	return s.resolve(k, [2]Subject{a, {}}, layer, at)
}

func (s *Set) resolve(k design.RuleKind, who [2]Subject, layer int, at geom.Point) *Ruling {
	t := s.kinds[k]
	if len(t.rules) == 1 && !t.layered { // one for everything
		if r, ok := t.known[question{}]; ok {
			return r
		}
		r := &Ruling{Amount: t.rules[0].Value, Rule: t.rules[0]}
		t.known[question{}] = r
		return r
	}
	q := question{layer: int8(layer)}
	if !t.layered {
		q.layer = 0
	}
	for i, w := range who {
		q.nets[i], q.things[i] = s.group(w.Net), w.Thing
		if s.parts[w.Part] {
			q.parts[i] = w.Part
		}
	}
	var areas map[design.ID]bool
	if t.areas {
		q.areas, areas = s.within(layer, at)
	}
	if r, ok := t.known[q]; ok && len(s.areas) <= mostAreas {
		return r
	}
	out := &Ruling{}
	for _, r := range t.rules {
		if !s.fits(r, who, layer, areas) {
			continue
		}
		if out.Rule == nil {
			out.Rule, out.Amount = r, r.On(layer, s.layers)
		} else {
			out.Beaten = append(out.Beaten, r)
		}
	}
	t.known[q] = out
	return out
}

// fits tells whether a rule holds in a case; the two things may stand either way round.
func (s *Set) fits(r *design.Rule, who [2]Subject, layer int, areas map[design.ID]bool) bool {
	one := func(c design.Scope, w Subject) bool { return s.one(c, w, layer, areas) }
	if !r.Kind.Pairs() {
		return one(r.A, who[0])
	}
	return one(r.A, who[0]) && one(r.B, who[1]) || one(r.A, who[1]) && one(r.B, who[0])
}
