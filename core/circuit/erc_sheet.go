package circuit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
)

// sheetFindings looks at what shows on one sheet's drawing alone: open pins, marks on pins
// that are connected, loose ends, bundles, ports and blocks.
func (n *Nets) sheetFindings(d *design.Doc, v *SheetView) []Finding {
	out := slices.Clone(v.troubles)
	for _, g := range v.groups {
		for _, ref := range g.pins {
			if x, ok := pinFinding(d, v, g, ref); ok {
				out = append(out, x)
			}
		}
	}
	path := n.firstPath(v.Sheet)
	for _, drawing := range []*drawing{v.single, v.bundled} {
		for _, l := range drawing.looseEnds() {
			what := "A bundle"
			if !drawing.bundle {
				what = "A wire"
			}
			out = append(out, Finding{Key: fmt.Sprintf("looseEnd %d %d,%d", l.wire.ID, l.at.X, l.at.Y), Kind: "looseEnd",
				Text: what + " ends in nothing.", Sheet: v.Sheet, At: l.at, Objects: []design.ID{l.wire.ID}})
		}
	}
	for _, u := range v.Unmatched {
		block := d.Blocks[u.Block]
		if block == nil {
			continue
		}
		text := fmt.Sprintf("The pin %s of the block %s has no port on its sheet.", u.Pin, block.Name)
		switch {
		case u.Why == "way":
			text = fmt.Sprintf("The pin %s of the block %s has another direction than its port.", u.Pin, block.Name)
		case u.Why == "noPin" && u.Object == u.Block:
			text = fmt.Sprintf("The block %s lacks a pin for the port %s.", block.Name, u.Pin)
		case u.Why == "noPin":
			text = fmt.Sprintf("The port %s has no pin on the block %s.", u.Pin, block.Name)
		}
		out = append(out, Finding{Key: fmt.Sprintf("portAlone %d %d %s", u.Object, u.Block, u.Pin), Kind: "portAlone", Text: text,
			Sheet: v.Sheet, At: u.At, Objects: []design.ID{u.Object}})
	}
	if len(d.Uses(v.Sheet)) == 0 {
		for _, p := range portsOf(d, v.Sheet) {
			out = append(out, Finding{Key: fmt.Sprintf("portUnused %d", p.ID), Kind: "portUnused", Sheet: v.Sheet, At: p.At, Objects: []design.ID{p.ID},
				Text: fmt.Sprintf("The port %s leads nowhere: no block stands for the sheet %s.", p.Name, d.Sheets[v.Sheet].Name)})
		}
	}
	for i := range out {
		out[i].Path = path
	}
	return out
}

func (n *Nets) firstPath(sheet design.ID) string {
	if places := n.Tree.Of(sheet); len(places) > 0 {
		return places[0].Path
	}
	return ""
}

// pinFinding looks at one pin: open without a mark, or marked and yet connected.
func pinFinding(d *design.Doc, v *SheetView, g *group, ref PinRef) (Finding, bool) {
	part := d.Parts[ref.Part]
	sym := d.SymbolOf(part)
	pin := sym.Pin(ref.Pin)
	if pin == nil {
		return Finding{}, false
	}
	at := PinPlace(part, pin)
	bare := len(g.pins) == 1 && len(g.items) == 0 && len(g.below) == 0
	marked := slices.ContainsFunc(v.single.attached[at], func(o design.OnSheet) bool { return !connecting(o) })
	x := Finding{Sheet: v.Sheet, At: at, Objects: []design.ID{part.ID}}
	switch name := pinText(d, ref, pin); {
	case marked && !bare:
		x.Kind, x.Text = "markOnNet", fmt.Sprintf("Pin %s is marked as left open, yet it is connected.", name)
	case bare && !marked && pin.Type != "notConnected":
		x.Kind, x.Text = "openPin", fmt.Sprintf("Pin %s is open and not marked as left open on purpose.", name)
	default:
		return Finding{}, false
	}
	x.Key = fmt.Sprintf("%s %d.%s", x.Kind, part.ID, ref.Pin)
	return x, true
}

func pinText(d *design.Doc, ref PinRef, pin *design.Pin) string {
	name := PinName(d, ref)
	if pin.Name != "" {
		name += " (" + pin.Name + ")"
	}
	return name
}
