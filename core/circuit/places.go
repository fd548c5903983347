package circuit

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Stale notes the sheets whose nets are to be found anew when the object comes, goes or
// changes; what is only drawn beside the circuit changes none.
func Stale(d *design.Doc, o design.Object, sheets map[design.ID]bool) {
	switch o := o.(type) {
	case *design.Sheet:
		sheets[o.ID] = true
	case *design.Port:
		sheets[o.Sheet] = true
		for _, block := range d.Uses(o.Sheet) {
			sheets[block.Sheet] = true
		}
	case *design.SheetBlock:
		sheets[o.Sheet], sheets[o.Of] = true, true
	case *design.Part:
		sheets[o.Sheet] = true
	case *design.Wire, *design.Label, *design.Tap, *design.Supply, *design.OpenMark:
		sheets[o.(design.OnSheet).SheetID()] = true
	case *design.Symbol:
		for _, p := range d.Parts {
			if l := d.LibraryPart(p.Library); l != nil && (l.Symbol == o.Name || slices.Contains(l.Units, o.Name)) {
				sheets[p.Sheet] = true
			}
		}
	case *design.LibraryPart:
		for _, p := range d.Parts {
			if p.Library == o.Name {
				sheets[p.Sheet] = true
			}
		}
	}
}

// At lists the nets at a place of a sheet, in all uses of the sheet: of what ends, passes or is
// attached there; with bundle the nets of the members of the bundle there. Cost: O(what stands
// on the sheet) for bundles, else O(wires through the place's row and column).
func (n *Nets) At(sheet design.ID, p geom.Point, bundle bool) []string {
	v := n.Views[sheet]
	if v == nil {
		return nil
	}
	names := map[string]bool{}
	add := func(name string) {
		if name != "" {
			names[name] = true
		}
	}
	for _, use := range n.Tree.Of(sheet) {
		if bundle {
			n.membersAt(v, use, p, add)
			continue
		}
		for _, ref := range v.single.pins[p] {
			ref.Path = use.Path
			add(n.OfPin[ref])
			add(n.OfItem[ItemRef{use.Path, ref.Part}]) // a tap
			for _, m := range n.uses[use.key()].members {
				if m.net != nil && slices.ContainsFunc(m.group.below, func(l lower) bool { return l.block.ID == ref.Part && l.name == ref.Pin }) {
					add(m.net.Name)
				}
			}
		}
		v.single.through(p, func(w *design.Wire) { add(n.OfItem[ItemRef{use.Path, w.ID}]) })
		for _, o := range v.single.attached[p] {
			add(n.OfItem[ItemRef{use.Path, o.ObjectID()}])
		}
	}
	return slices.Sorted(maps.Keys(names))
}

// membersAt gives the nets of the members of the bundle at a place.
func (n *Nets) membersAt(v *SheetView, use SheetUse, p geom.Point, add func(string)) {
	var items []design.ID
	v.bundled.through(p, func(w *design.Wire) { items = append(items, w.ID) })
	for _, o := range v.bundled.attached[p] {
		items = append(items, o.ObjectID())
	}
	var heads []string
	for _, b := range v.Bundles {
		if slices.ContainsFunc(b.Items, func(id design.ID) bool { return slices.Contains(items, id) }) {
			heads = append(heads, fmt.Sprint(b.Items[0]))
		}
	}
	for _, ref := range v.bundled.pins[p] {
		heads = append(heads, fmt.Sprintf("%d.%s", ref.Part, ref.Pin))
	}
	for _, m := range n.uses[use.key()].members {
		if m.net != nil && slices.ContainsFunc(m.group.leads, func(l string) bool {
			return slices.ContainsFunc(heads, func(h string) bool { return strings.HasPrefix(l, h+"#") || strings.HasPrefix(l, h+"=") })
		}) {
			add(m.net.Name)
		}
	}
}

// FreePins lists the places of a part's pins that nothing touches and that are not marked as
// left open.
func (n *Nets) FreePins(d *design.Doc, p *design.Part) []geom.Point {
	v := n.Views[p.Sheet]
	if v == nil {
		return nil
	}
	var out []geom.Point
	for _, g := range v.groups {
		for _, ref := range g.pins {
			if ref.Part != p.ID {
				continue
			}
			if f, ok := pinFinding(d, v, g, ref); ok && f.Kind == "openPin" {
				out = append(out, f.At)
			}
		}
	}
	return out
}

// Bearing lists the nets that a label of the name on the sheet would belong to, in all uses of
// the sheet; the supply of the name among them.
func (n *Nets) Bearing(sheet design.ID, name string) []string {
	names := map[string]bool{}
	take := func(key string) {
		for m := range n.holders[key] {
			if m.net != nil && m.net.Name != "" {
				names[m.net.Name] = true
			}
		}
	}
	take("s\x00" + name)
	for _, use := range n.Tree.Of(sheet) {
		take(ownKey("n", use.Path, use.Sheet, name))
	}
	return slices.Sorted(maps.Keys(names))
}

// ownKey is a key that holds within one use of a sheet.
func ownKey(kind, path string, sheet design.ID, name string) string {
	return fmt.Sprintf("%s%s#%d\x00%s", kind, path, sheet, name)
}
