// Package drill writes drill files in XNC, the published strict subset of Excellon: metric,
// decimal millimetres, with attributes in comments. Plated and unplated holes go into files
// of their own, and so does every span: holes that go through the same copper layers.
package drill

import (
	"bytes"
	"cmp"
	"fmt"
	"maps"
	"math/bits"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Span is what the holes of one file go through: from copper layer From to To, counted from 1
// at the top, of a board with Of copper layers.
type Span struct {
	From, To, Of int
	Plated       bool
	Laser        bool // made by a laser instead of a drill
}

// Through tells whether the holes go through the whole board.
func (s Span) Through() bool { return s.From == 1 && s.To == s.Of }

// Plating is the word of the file function: PTH, Blind (open on one side), Buried or NPTH.
func (s Span) Plating() string {
	switch {
	case !s.Plated:
		return "NPTH"
	case s.Through():
		return "PTH"
	case s.From == 1 || s.To == s.Of:
		return "Blind"
	}
	return "Buried"
}

// Hit is one hole, or the beginning of a slot.
type Hit struct {
	At       geom.Point
	Slot     geom.Point // the way its middle goes; none: a round hole
	Diameter int64
	Function string // ComponentDrill, ViaDrill, MechanicalDrill
}

// Hits lists the holes of a board with the given number of copper layers by span, in a
// settled order. The plated and the unplated holes through the whole board are always there.
func Hits(x *layout.Index, layers int) map[Span][]Hit {
	out := map[Span][]Hit{{1, layers, layers, true, false}: nil, {1, layers, layers, false, false}: nil}
	for c := range x.All() {
		if c.Hole == 0 {
			continue
		}
		function := "MechanicalDrill"
		switch c.Kind {
		case "via":
			function = "ViaDrill"
		case "pad":
			function = "ComponentDrill"
		}
		s := Span{1, layers, layers, !c.Bare, c.Laser}
		if !c.Bare {
			s.From, s.To = bits.TrailingZeros32(c.Layers)+1, bits.Len32(c.Layers)
		}
		out[s] = append(out[s], Hit{c.Drill, c.Slot, c.Hole, function})
	}
	for _, hits := range out {
		slices.SortFunc(hits, func(a, b Hit) int {
			return cmp.Or(cmp.Compare(a.At.X, b.At.X), cmp.Compare(a.At.Y, b.At.Y), cmp.Compare(a.Diameter, b.Diameter), cmp.Compare(a.Slot.X, b.Slot.X), cmp.Compare(a.Slot.Y, b.Slot.Y))
		})
	}
	return out
}

// Spans puts the spans in the order in which their files stand: through the whole board first,
// then by their layers, unplated holes last.
func Spans(hits map[Span][]Hit) []Span {
	rank := func(s Span) int {
		switch {
		case !s.Plated:
			return 2
		case s.Through() && !s.Laser:
			return 0
		}
		return 1
	}
	return slices.SortedFunc(maps.Keys(hits), func(a, b Span) int {
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), laserLast(a, b))
	})
}

func laserLast(a, b Span) int {
	switch {
	case a.Laser == b.Laser:
		return 0
	case a.Laser:
		return 1
	}
	return -1
}

// Write makes the file of one span.
func Write(hits []Hit, span Span, stamp string) []byte {
	var b bytes.Buffer
	kind := "NonPlated"
	if span.Plated {
		kind = "Plated"
	}
	fmt.Fprintf(&b, "M48\n; Written by Golden Trace\n; #@! TF.FileFunction,%s,%d,%d,%s\n; #@! TF.CreationDate,%s\n; #@! TF.SameCoordinates,GoldenTrace\nMETRIC\n",
		kind, span.From, span.To, span.Plating(), stamp)
	type tool struct {
		function string
		diameter int64
	}
	tools := map[tool][]Hit{}
	for _, h := range hits {
		t := tool{h.Function, h.Diameter}
		tools[t] = append(tools[t], h)
	}
	order := slices.SortedFunc(maps.Keys(tools), func(a, b tool) int {
		return cmp.Or(cmp.Compare(a.diameter, b.diameter), cmp.Compare(a.function, b.function))
	})
	for i, t := range order {
		fmt.Fprintf(&b, "; #@! TA.AperFunction,%s,%s,%s\nT%dC%s\n; #@! TD\n", kind, span.Plating(), t.function, i+1, units.Format(t.diameter, "mm"))
	}
	b.WriteString("%\nG05\n")
	for i, t := range order {
		fmt.Fprintf(&b, "T%d\n", i+1)
		for _, h := range tools[t] {
			if h.Slot == (geom.Point{}) {
				fmt.Fprintf(&b, "%s\n", at(h.At))
			}
		}
		routed := false
		for _, h := range tools[t] {
			if h.Slot != (geom.Point{}) { // go there, tool down, along the slot, tool up
				fmt.Fprintf(&b, "G00%s\nM15\nG01%s\nM16\n", at(h.At), at(h.At.Add(h.Slot)))
				routed = true
			}
		}
		if routed {
			b.WriteString("G05\n")
		}
	}
	b.WriteString("M30\n")
	return b.Bytes()
}

func at(p geom.Point) string { return "X" + units.Format(p.X, "mm") + "Y" + units.Format(p.Y, "mm") }
