package circuit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Doubt is one electrically suspicious thing.
type Doubt struct {
	Key     string // the same doubt has the same key after every edit
	Kind    string // openPin, singlePin, looseEnd, markOnNet, twoSupplies, sameDesignator
	Text    string
	Fault   bool // else a warning
	Sheet   design.ID
	At      geom.Point
	Objects []design.ID
}

// Doubts is the electrical rules check of the whole circuit: pins left open without a mark,
// nets with one pin, wire ends that touch nothing, marks on pins that are connected,
// supplies joined with one another, designators borne twice.
func (n *Nets) Doubts(d *design.Doc) []Doubt {
	var out []Doubt
	bearers := map[string][]*design.Part{}
	for _, s := range d.SheetsInOrder() {
		v := n.Views[s.ID]
		for _, p := range v.content.parts {
			bearers[p.Designator] = append(bearers[p.Designator], p)
			out = append(out, n.pinDoubts(d, v, p)...)
		}
		for _, l := range v.drawing.looseEnds() {
			out = append(out, Doubt{Key: fmt.Sprintf("looseEnd %d %d,%d", l.wire.ID, l.at.X, l.at.Y), Kind: "looseEnd",
				Text: fmt.Sprintf("A wire of %s ends in nothing.", n.OfItem[l.wire.ID]), Sheet: s.ID, At: l.at, Objects: []design.ID{l.wire.ID}})
		}
	}
	for name, net := range n.ByName {
		if len(net.Supplies) > 1 {
			at, sheet, id := n.placeOf(net)
			out = append(out, Doubt{Key: "twoSupplies " + name, Kind: "twoSupplies", Fault: true, Sheet: sheet, At: at, Objects: []design.ID{id},
				Text: fmt.Sprintf("The supplies %s are joined.", strings.Join(net.Supplies, " and "))})
		}
	}
	for name, list := range bearers {
		if len(list) > 1 {
			d := Doubt{Key: "sameDesignator " + name, Kind: "sameDesignator", Fault: true, Sheet: list[0].Sheet, At: list[0].At,
				Text: fmt.Sprintf("%d parts are called %s.", len(list), name)}
			for _, p := range list {
				d.Objects = append(d.Objects, p.ID)
			}
			out = append(out, d)
		}
	}
	slices.SortFunc(out, func(a, b Doubt) int { return strings.Compare(a.Key, b.Key) })
	return out
}

func (n *Nets) pinDoubts(d *design.Doc, v *SheetView, p *design.Part) []Doubt {
	sym := d.SymbolOf(p)
	if sym == nil {
		return nil
	}
	var out []Doubt
	for i := range sym.Pins {
		ref := PinRef{p.ID, sym.Pins[i].Number}
		at := PinPlace(p, &sym.Pins[i])
		net := n.ByName[n.OfPin[ref]]
		if net == nil {
			continue
		}
		bare := len(net.Pins) == 1 && len(net.Items) == 0
		marked := len(v.drawing.marks[at]) > 0
		name := PinName(d, ref)
		if sym.Pins[i].Name != "" {
			name += " (" + sym.Pins[i].Name + ")"
		}
		doubt := Doubt{Sheet: v.Sheet, At: at, Objects: []design.ID{p.ID}}
		switch {
		case marked && !bare:
			doubt.Kind, doubt.Text = "markOnNet", fmt.Sprintf("Pin %s is marked as left open, yet it is connected to %s.", name, net.Name)
		case marked:
			continue
		case bare:
			doubt.Kind, doubt.Fault, doubt.Text = "openPin", true, fmt.Sprintf("Pin %s is open and not marked as left open on purpose.", name)
		case len(net.Pins) == 1:
			doubt.Kind, doubt.Text = "singlePin", fmt.Sprintf("The net %s has a single pin, %s.", net.Name, name)
		default:
			continue
		}
		doubt.Key = fmt.Sprintf("%s %d.%s", doubt.Kind, p.ID, ref.Pin)
		out = append(out, doubt)
	}
	return out
}

// placeOf finds a supply mark of the net to point at.
func (n *Nets) placeOf(net *Net) (geom.Point, design.ID, design.ID) {
	for _, sheet := range net.Sheets {
		for _, s := range n.Views[sheet].content.supplies {
			if n.OfItem[s.ID] == net.Name {
				return s.At, sheet, s.ID
			}
		}
	}
	return geom.Point{}, net.Sheets[0], 0
}
