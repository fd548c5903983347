// Package drill writes drill files in XNC, the published strict subset of Excellon: metric,
// decimal millimetres, with attributes in comments. Plated and unplated holes go into files
// of their own.
package drill

import (
	"bytes"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Hit is one hole.
type Hit struct {
	At       geom.Point
	Diameter int64
	Function string // ComponentDrill, ViaDrill, MechanicalDrill
}

// Hits lists the holes of a board, plated or not, in a settled order.
func Hits(x *layout.Index, plated bool) []Hit {
	var out []Hit
	for c := range x.All() {
		if c.Hole == 0 || c.Bare == plated {
			continue
		}
		function := "MechanicalDrill"
		switch c.Kind {
		case "via":
			function = "ViaDrill"
		case "pad":
			function = "ComponentDrill"
		}
		out = append(out, Hit{c.At, c.Hole, function})
	}
	slices.SortFunc(out, func(a, b Hit) int {
		if c := int(a.At.X - b.At.X); c != 0 {
			return c
		}
		return int(a.At.Y - b.At.Y)
	})
	return out
}

// Write makes the file of the hits through the given number of copper sheets.
func Write(hits []Hit, plated bool, sheets int, stamp string) []byte {
	var b bytes.Buffer
	kind := "NonPlated,1,%d,NPTH"
	if plated {
		kind = "Plated,1,%d,PTH"
	}
	fmt.Fprintf(&b, "M48\n; Written by Golden Trace\n; #@! TF.FileFunction,"+kind+"\n; #@! TF.CreationDate,%s\n; #@! TF.SameCoordinates,GoldenTrace\nMETRIC\n", sheets, stamp)
	type tool struct {
		function string
		diameter int64
	}
	tools := map[tool][]geom.Point{}
	for _, h := range hits {
		t := tool{h.Function, h.Diameter}
		tools[t] = append(tools[t], h.At)
	}
	order := slices.SortedFunc(maps.Keys(tools), func(a, b tool) int {
		if a.diameter != b.diameter {
			return int(a.diameter - b.diameter)
		}
		return strings.Compare(a.function, b.function)
	})
	for i, t := range order {
		plating := "NonPlated,NPTH,"
		if plated {
			plating = "Plated,PTH,"
		}
		fmt.Fprintf(&b, "; #@! TA.AperFunction,%s%s\nT%dC%s\n; #@! TD\n", plating, t.function, i+1, units.Format(t.diameter, "mm"))
	}
	b.WriteString("%\nG05\n")
	for i, t := range order {
		fmt.Fprintf(&b, "T%d\n", i+1)
		for _, p := range tools[t] {
			fmt.Fprintf(&b, "X%sY%s\n", units.Format(p.X, "mm"), units.Format(p.Y, "mm"))
		}
	}
	b.WriteString("M30\n")
	return b.Bytes()
}
