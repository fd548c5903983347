package check

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// When the numbers of a rule change, only what that kind of rule is about is checked anew.

// Rule notes a rule that changed; before is nil when it came, after when it went.
func (b *Board) Rule(before, after design.Object) {
	if b.changed == nil {
		b.changed = kinds{}
	}
	for _, o := range []design.Object{before, after} {
		if r, ok := o.(*design.Rule); ok {
			b.changed[r.Kind] = true
		}
	}
}

// RulesChanged tells whether rules changed since the findings were brought up to date.
func (b *Board) RulesChanged() bool { return len(b.changed) > 0 }

// Crowded tells whether there are more findings than are listed, so that every change has all looked
// through for what is listed now.
func (b *Board) Crowded() bool { return b.further > 0 }

// Forget leaves the findings as they are although rules changed: somebody checks all anew.
func (b *Board) Forget() { b.changed = nil }

// about are the kinds of findings that follow from a kind of rule.
var about = map[design.RuleKind][]string{
	design.Clearance: {"clearance", "wall"}, design.EdgeClearance: {"edge", "holeEdge"}, design.HoleClearance: {"holes"},
	design.LeastWidth: {"width", "sliver"}, design.LeastHole: {"hole"}, design.LeastRing: {"ring"}, design.Spacing: {"spacing"},
	design.MaskWeb: {"maskWeb"}, design.MaskMargin: {"maskWeb", "silkOn", "maskOn"}, design.SilkApart: {"silkOn"}, design.SilkWidth: {"silkOn", "silkOff", "silkThin", "silkOver"},
	design.LeastSilk: {"silkThin"}, design.LetterHeight: {"letters"}, design.PasteMargin: {"paste"}, design.HoleCopper: {"wall"},
	design.WithinPart: {"clearance"}, design.HeightAbove: {"height"}, design.HeightBelow: {"height"},
}

// again checks anew what the rules that changed are about, but for the objects, which are checked anew
// whole.
func (b *Board) again(ids map[design.ID]bool) {
	by := b.changed
	b.changed = nil
	stale := map[string]bool{}
	for k := range by {
		for _, f := range about[k] {
			stale[f] = true
		}
	}
	if len(stale) == 0 {
		return
	}
	for key, f := range b.Found {
		if stale[f.Kind] {
			b.drop(key)
		}
	}
	if by[design.Spacing] {
		b.spacing(nil)
	}
	b.facesAgain(by, stale)
	pairs := by[design.Clearance] || by[design.WithinPart] || by[design.EdgeClearance] || by[design.HoleClearance] || by[design.HoleCopper]
	for _, c := range slices.SortedFunc(b.index.All(), compare) {
		if ids[c.ID] {
			continue
		}
		b.single(c, by)
		if pairs {
			b.pairs(c, by, func(other *layout.Copper) bool { return !ids[other.ID] && less(c, other) })
		}
	}
}

// facesAgain checks anew what lies on the faces, as far as findings of it are stale.
func (b *Board) facesAgain(by kinds, stale map[string]bool) {
	faces := kinds{}
	for kind, rule := range map[string]design.RuleKind{"maskWeb": design.MaskWeb, "silkOn": design.SilkApart, "silkThin": design.LeastSilk,
		"silkOff": design.SilkWidth, "letters": design.LetterHeight, "maskOn": design.MaskMargin, "paste": design.PasteMargin} {
		if stale[kind] {
			faces[rule] = true
		}
	}
	if by[design.MaskMargin] || by[design.SilkWidth] {
		b.faces.Anew()
	}
	if len(faces) > 0 {
		b.ofFaces(nil, faces)
	}
	if stale["height"] {
		b.bodies(nil, kinds{design.HeightAbove: true, design.HeightBelow: true})
	}
}

// Naming are the objects of findings that name a net.
func (b *Board) Naming(net design.ID) map[design.ID]bool {
	out := map[design.ID]bool{}
	for _, f := range b.Found {
		for _, id := range f.Objects {
			for _, c := range b.index.Of(id) {
				if c.Net == net {
					out[id] = true
				}
			}
		}
	}
	return out
}
