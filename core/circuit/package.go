package circuit

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
)

// PartRef is a part in one use of its sheet.
type PartRef struct {
	Part design.ID `json:"part"`
	Path string    `json:"path,omitempty"`
}

// Package is what becomes one component: a part, or the units that share a designator. The
// first stands for all.
type Package struct {
	Designator string
	Units      []PartRef
}

// Lead stands for the package.
func (p Package) Lead() PartRef { return p.Units[0] }

// PackageOf is the package a part belongs to in the use of its sheet; false when there is
// no such use.
func PackageOf(d *design.Doc, t *Tree, ref PartRef) (Package, bool) {
	p := d.Parts[ref.Part]
	if p == nil || !t.Has(ref.Path, p.Sheet) {
		return Package{}, false
	}
	out := Package{Designator: p.Called(ref.Path), Units: []PartRef{ref}}
	if p.Unit == 0 {
		return out, true
	}
	out.Units = nil
	for _, q := range d.Bearers(out.Designator) {
		if q.Library != p.Library || q.Unit == 0 {
			continue
		}
		for _, place := range t.Of(q.Sheet) {
			if q.Called(place.Path) == out.Designator {
				out.Units = append(out.Units, PartRef{q.ID, place.Path})
			}
		}
	}
	slices.SortFunc(out.Units, func(a, b PartRef) int { return cmp.Or(cmp.Compare(a.Part, b.Part), cmp.Compare(a.Path, b.Path)) })
	return out, true
}

// Packages lists all packages of the circuit, by designator.
func Packages(d *design.Doc, t *Tree) []Package {
	var out []Package
	for _, p := range d.Parts {
		for _, place := range t.Of(p.Sheet) {
			ref := PartRef{p.ID, place.Path}
			if k, ok := PackageOf(d, t, ref); ok && k.Lead() == ref {
				out = append(out, k)
			}
		}
	}
	slices.SortFunc(out, func(a, b Package) int {
		return cmp.Or(CompareNatural(a.Designator, b.Designator), cmp.Compare(a.Units[0].Part, b.Units[0].Part), cmp.Compare(a.Units[0].Path, b.Units[0].Path))
	})
	return out
}
