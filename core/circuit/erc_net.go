package circuit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// netFindings looks at one net: a single pin, supplies joined, pins that do not suit one
// another, inputs nobody drives, a supply nobody feeds.
func (n *Nets) netFindings(d *design.Doc, net *Net) []Finding {
	if len(net.Pins) == 0 {
		return n.suppliesJoined(net)
	}
	types := map[string][]PinRef{}
	for _, ref := range net.Pins {
		if pin := pinOf(d, ref); pin != nil {
			types[pin.Type] = append(types[pin.Type], ref)
		}
	}
	out := n.suppliesJoined(net)
	if len(net.Pins) == 1 {
		if len(net.Uses) > 0 {
			out = append(out, n.atPin(d, net.Pins[0], "singlePin", "", fmt.Sprintf("The net %s has a single pin, %s.", net.Name, pinText(d, net.Pins[0], pinOf(d, net.Pins[0])))))
		}
		return out
	}
	out = append(out, n.pairs(d, net, types)...)
	has := func(kinds ...string) bool {
		return slices.ContainsFunc(kinds, func(k string) bool { return len(types[k]) > 0 })
	}
	if in := types["input"]; len(in) > 0 && len(net.Supplies) == 0 && !has("output", "both", "triState", "passive", "supplyOut", "openCollector", "openEmitter") {
		out = append(out, n.atPin(d, in[0], "noDriver", fmt.Sprint(len(in)), fmt.Sprintf("Nothing drives %s; %s is an input.", net.Name, pinText(d, in[0], pinOf(d, in[0])))))
	}
	if in := types["supplyIn"]; len(in) > 0 && !net.feeds && !has("supplyOut") {
		more := ""
		if len(in) > 1 {
			more = fmt.Sprintf(" and %d more", len(in)-1)
		}
		out = append(out, n.atPin(d, in[0], "noFeed", "", fmt.Sprintf("%s supplies %s%s, but nothing feeds it.", net.Name, pinText(d, in[0], pinOf(d, in[0])), more)))
	}
	return out
}

func pinOf(d *design.Doc, ref PinRef) *design.Pin {
	if p := d.Parts[ref.Part]; p != nil {
		if s := d.SymbolOf(p); s != nil {
			return s.Pin(ref.Pin)
		}
	}
	return nil
}

// atPin makes a finding that points at a pin.
func (n *Nets) atPin(d *design.Doc, ref PinRef, kind, about, text string) Finding {
	p := d.Parts[ref.Part]
	return Finding{Key: strings.TrimSpace(fmt.Sprintf("%s %d.%s %s", kind, ref.Part, ref.Pin, ref.Path)), Kind: kind, Text: text, About: about,
		Sheet: p.Sheet, Path: ref.Path, At: PinPlace(p, pinOf(d, ref)), Objects: []design.ID{p.ID}}
}

func (n *Nets) suppliesJoined(net *Net) []Finding {
	if len(net.Supplies) < 2 {
		return nil
	}
	x := Finding{Key: "twoSupplies " + strings.Join(net.Supplies, ","), Kind: "twoSupplies", Text: fmt.Sprintf("The supplies %s are joined.", strings.Join(net.Supplies, " and "))}
	x.Sheet, x.Path, x.At, x.Objects = n.placeOf(net, net.Supplies[1])
	return []Finding{x}
}

// pairs holds the types of the net's pins against the matrix.
func (n *Nets) pairs(d *design.Doc, net *Net, types map[string][]PinRef) []Finding {
	var out []Finding
	for i, a := range design.PinTypes {
		for _, b := range design.PinTypes[i:] {
			s := PairSeverity(d.Checks, a, b)
			if s == "off" || len(types[a]) == 0 || len(types[b]) == 0 || a == b && len(types[a]) < 2 {
				continue
			}
			first, second := types[a][0], types[b][0]
			if a == b {
				second = types[a][1]
			}
			x := n.atPin(d, second, "pinPair", strings.Join([]string{a, b, fmt.Sprint(len(types[a])), fmt.Sprint(len(types[b]))}, " "),
				fmt.Sprintf("%s, %s, and %s, %s, are joined on %s.", pinText(d, first, pinOf(d, first)), PinWords[a], pinText(d, second, pinOf(d, second)), PinWords[b], net.Name))
			x.Key = fmt.Sprintf("pinPair %s %s %s", a, b, x.Key)
			x.Severity = s
			x.Objects = []design.ID{first.Part, second.Part}
			out = append(out, x)
		}
	}
	return out
}

// PinWords are the types of pins in a sentence.
var PinWords = map[string]string{
	"input": "an input", "output": "an output", "both": "an input and output", "triState": "a tri-state output", "passive": "a passive pin",
	"supplyIn": "a supply input", "supplyOut": "a supply output", "openCollector": "an open collector", "openEmitter": "an open emitter",
	"notConnected": "a pin that may not be connected",
}
