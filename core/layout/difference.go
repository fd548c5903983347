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
	On   design.ID `json:"on,omitempty"`   // on the board
	From string    `json:"from,omitempty"` // of a renamed net
	To   string    `json:"to,omitempty"`
}

// PadNets are the nets that the circuit gives to the pads of a part. A net of which no
// other pin knows still has its name; pins left open have none.
func PadNets(d *design.Doc, n *circuit.Nets, p *design.Part) map[string]string {
	out := map[string]string{}
	lib, sym := d.LibraryPart(p.Library), d.SymbolOf(p)
	if lib == nil || sym == nil {
		return out
	}
	for i := range sym.Pins {
		name := n.OfPin[circuit.PinRef{Part: p.ID, Pin: sym.Pins[i].Number}]
		if net := n.ByName[name]; net != nil && (len(net.Pins) > 1 || net.Named) {
			out[lib.Pad(sym.Pins[i].Number)] = name
		}
	}
	return out
}

// Differences lists what carrying the circuit to the board would do, parts in the order of
// their designators. Empty: the board is up to date.
func Differences(d *design.Doc, n *circuit.Nets) []Difference {
	var out []Difference
	wanted := map[design.ID]map[string]string{} // of the parts whose nets differ
	for _, p := range d.Parts {
		if on := d.PlacedOf(p.ID); on != nil && !sameNets(d, n, p, on) {
			wanted[p.ID] = PadNets(d, n, p)
		}
	}
	renames := netRenames(d, wanted)
	for old, to := range renames {
		out = append(out, Difference{Key: "rename " + old + " " + to, Kind: "rename", From: old, To: to,
			Text: fmt.Sprintf("The net %s is called %s now.", old, to)})
	}
	for _, p := range d.Parts {
		on := d.PlacedOf(p.ID)
		switch {
		case on == nil && p.Footprint == "":
			out = append(out, Difference{Key: fmt.Sprintf("none %d", p.ID), Kind: "none", Part: p.ID,
				Text: fmt.Sprintf("%s has no footprint and cannot be carried; give it one in the circuit.", p.Designator)})
			continue
		case on == nil:
			out = append(out, Difference{Key: fmt.Sprintf("add %d", p.ID), Kind: "add", Part: p.ID,
				Text: fmt.Sprintf("%s (%s) is new.", p.Designator, strings.Trim(p.Value+", "+p.Footprint, ", "))})
			continue
		}
		if what := changes(p, on); what != "" {
			out = append(out, Difference{Key: fmt.Sprintf("change %d", p.ID), Kind: "change", Part: p.ID, On: on.ID, Text: what})
		}
		if want, differs := wanted[p.ID]; differs {
			if what := netChanges(want, on, renames); what != "" {
				out = append(out, Difference{Key: fmt.Sprintf("nets %d", p.ID), Kind: "nets", Part: p.ID, On: on.ID, Text: what})
			}
		}
	}
	for _, on := range d.Placed {
		if d.Parts[on.Part] == nil {
			out = append(out, Difference{Key: fmt.Sprintf("remove %d", on.ID), Kind: "remove", On: on.ID,
				Text: fmt.Sprintf("%s is no longer in the circuit.", on.Designator)})
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
		return cmp.Or(cmp.Compare(ra, rb), circuit.CompareNatural(a.Text, b.Text))
	})
	return out
}

// sameNets tells whether the board's part has just the nets that the circuit gives it.
func sameNets(d *design.Doc, n *circuit.Nets, p *design.Part, on *design.Placed) bool {
	lib, sym := d.LibraryPart(p.Library), d.SymbolOf(p)
	if lib == nil || sym == nil {
		return len(on.Nets) == 0
	}
	same := 0
	for i := range sym.Pins {
		name := n.OfPin[circuit.PinRef{Part: p.ID, Pin: sym.Pins[i].Number}]
		if net := n.ByName[name]; net != nil && (len(net.Pins) > 1 || net.Named) {
			if on.Nets[lib.Pad(sym.Pins[i].Number)] != name {
				return false
			}
			same++
		}
	}
	return same == len(on.Nets)
}

func changes(p *design.Part, on *design.Placed) string {
	var what []string
	if p.Designator != on.Designator {
		what = append(what, fmt.Sprintf("is called %s now", p.Designator))
	}
	if p.Value != on.Value {
		what = append(what, fmt.Sprintf("has the value %q instead of %q", p.Value, on.Value))
	}
	if p.Footprint != on.Footprint && p.Footprint != "" {
		what = append(what, fmt.Sprintf("has the footprint %s instead of %s", p.Footprint, on.Footprint))
	}
	if len(what) == 0 {
		return ""
	}
	return on.Designator + " " + strings.Join(what, ", and ") + "."
}

func netChanges(want map[string]string, on *design.Placed, renames map[string]string) string {
	var what []string
	pads := maps.Clone(want)
	maps.Copy(pads, on.Nets)
	for _, pad := range slices.SortedFunc(maps.Keys(pads), circuit.CompareNatural) {
		is, should := on.Nets[pad], want[pad]
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
	return on.Designator + ": " + strings.Join(what, ", ") + "."
}

// netRenames finds nets that only changed their name: every pad that bore the old name is
// to bear the new one, and no pad of another net does.
func netRenames(d *design.Doc, wanted map[design.ID]map[string]string) map[string]string {
	if len(wanted) == 0 {
		return nil
	}
	to := map[string]map[string]bool{}
	from := map[string]map[string]bool{}
	note := func(m map[string]map[string]bool, k, v string) {
		if m[k] == nil {
			m[k] = map[string]bool{}
		}
		m[k][v] = true
	}
	for _, on := range d.Placed {
		want, differs := wanted[on.Part]
		if !differs {
			want = on.Nets // they stay as they are
		}
		for pad, is := range on.Nets {
			note(to, is, want[pad])
			note(from, want[pad], is)
		}
	}
	out := map[string]string{}
	for old, set := range to {
		if len(set) != 1 {
			continue
		}
		for name := range set {
			if name != "" && name != old && len(from[name]) == 1 {
				out[old] = name
			}
		}
	}
	return out
}
