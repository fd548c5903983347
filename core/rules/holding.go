package rules

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Holder tells for one rule what it holds for: whether a thing on a copper layer (−1: on none) at a place fits its first scope, and its second.
func (s *Set) Holder(r *design.Rule) func(w Subject, layer int, at geom.Point) (first, second bool) {
	regions := map[design.ID]*area{}
	for _, id := range []design.ID{r.A.Area, r.B.Area} {
		if a := s.doc.RuleAreas[id]; a != nil {
			regions[id] = &area{a, geom.Region{Outer: geom.Closing(a.Outline)}.Prepare()}
		}
	}
	return func(w Subject, layer int, at geom.Point) (first, second bool) {
		in := map[design.ID]bool{}
		for id, a := range regions {
			in[id] = (layer < 0 || a.On(s.doc.Board.At(layer))) && a.region.Holds(at)
		}
		return s.one(r.A, w, layer, in), r.Kind.Pairs() && s.one(r.B, w, layer, in)
	}
}

// one tells whether a thing fits a scope.
func (s *Set) one(c design.Scope, w Subject, layer int, areas map[design.ID]bool) bool {
	n := s.doc.Nets[w.Net]
	if n == nil {
		n = &design.Net{}
	}
	return FitsNet(c, n) && (c.Thing == "" || c.Thing == w.Thing) && (c.Part == 0 || c.Part == w.Part) &&
		(c.Layer == 0 || layer >= 0 && c.Layer == s.doc.Board.At(layer)) && (c.Area == 0 || areas[c.Area])
}

// Hidden is the rule that comes before another of the same kind and for the very same things, so that the other never decides; nil: there is none.
func Hidden(d *design.Doc, r *design.Rule) *design.Rule {
	var by *design.Rule
	for o := range d.Rules.All() {
		same := o.A == r.A && o.B == r.B || r.Kind.Pairs() && o.A == r.B && o.B == r.A
		before := o.Order < r.Order || o.Order == r.Order && o.ID < r.ID
		if o.ID != r.ID && o.Kind == r.Kind && same && before && (by == nil || o.Order < by.Order) {
			by = o
		}
	}
	return by
}

// Amounts are the lengths that rules of a kind give to a thing on a layer, each wherever on the board it holds; the least first.
func (s *Set) Amounts(k design.RuleKind, who Subject, layer int) []int64 {
	everywhere := map[design.ID]bool{}
	for _, a := range s.areas {
		everywhere[a.ID] = true
	}
	var out []int64
	for _, r := range s.kinds[k].rules {
		if s.one(r.A, who, layer, everywhere) {
			out = append(out, r.On(layer, s.layers).Of(0))
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}
