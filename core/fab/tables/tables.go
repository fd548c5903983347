// Package tables writes the placement and parts lists as CSV (RFC 4180). Lengths are
// millimetres, angles degrees anticlockwise seen from the part's own side.
package tables

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/ordering"
	"goldentrace/core/tabular"
	"goldentrace/core/units"
)

// Placement lists where every part stands: its origin, seen from the top, from the board's
// origin.
func Placement(d *design.Doc) []byte {
	rows := [][]string{{"Designator", "Value", "Footprint", "X (mm)", "Y (mm)", "Rotation (deg)", "Side"}}
	for _, p := range byDesignator(d) {
		side := "top"
		if p.Bottom {
			side = "bottom"
		}
		rows = append(rows, []string{p.Designator, p.Value, p.Footprint, units.Format(p.At.X, "mm"), units.Format(p.At.Y, "mm"),
			strconv.FormatFloat(float64(p.Angle)/1000, 'f', -1, 64), side})
	}
	return tabular.CSV(rows)
}

// byDesignator lists the parts that are fitted.
func byDesignator(d *design.Doc) []*design.Placed {
	fitted := maps.Clone(d.Placed)
	maps.DeleteFunc(fitted, func(_ design.ID, p *design.Placed) bool { return p.NotFitted })
	return slices.SortedFunc(maps.Values(fitted), func(a, b *design.Placed) int { return circuit.CompareNatural(a.Designator, b.Designator) })
}

// Parts lists what to buy for one board, alike parts that are ordered alike in one line.
func Parts(d *design.Doc) []byte {
	type line struct{ value, footprint, text, maker, makerNumber, number string }
	groups := map[line][]string{}
	first := map[line]string{} // the value of each as its first part writes it
	var order []line
	for _, p := range byDesignator(d) {
		l := line{value: ordering.ValueKey(p.Value, design.Prefix(p.Designator)), footprint: p.Footprint}
		if part := d.Parts[p.Part]; part != nil {
			l.maker, l.makerNumber, l.number = part.Fields[ordering.FieldMaker], part.Fields[ordering.FieldMakerNumber], part.Fields[ordering.FieldNumber]
			if lib := d.LibraryPart(part.Library); lib != nil {
				l.text = lib.Description
			}
		}
		if groups[l] == nil {
			order, first[l] = append(order, l), p.Value
		}
		groups[l] = append(groups[l], p.Designator)
	}
	rows := [][]string{{"Quantity", "Designators", "Value", "Footprint", "Description", "Maker", "Part number", "Order number"}}
	for _, l := range order {
		rows = append(rows, []string{strconv.Itoa(len(groups[l])), strings.Join(groups[l], " "), first[l], l.footprint, l.text, l.maker, l.makerNumber, l.number})
	}
	return tabular.CSV(rows)
}
