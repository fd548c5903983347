package parts

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Shape is what footprints are compared by. Lengths are nanometres, 0: not known.
type Shape struct {
	Pins    int   `json:"pins"`  // pads of different numbers
	Pitch   int64 `json:"pitch"` // least distance of the middles of two neighbours
	Length  int64 `json:"length"`
	Width   int64 `json:"width"`   // of the body, the shorter side
	Through bool  `json:"through"` // its leads go through the board
}

// ShapeOf a footprint: its pins and pitch from the pads, its body from the assembly outline. Cost: O(pads²) at most for small ones; of
// large ones only neighbours in the order of their numbers are compared.
func ShapeOf(f *design.Footprint) Shape {
	s := Shape{}
	seen := map[string]geom.Point{}
	var order []geom.Point
	for i := range f.Pads {
		p := &f.Pads[i]
		if p.Number == "" || !copper(p) {
			continue
		}
		s.Through = s.Through || p.Hole > 0
		if _, ok := seen[p.Number]; !ok {
			seen[p.Number] = p.At
			order = append(order, p.At)
		}
	}
	s.Pins = len(seen)
	least := math.Inf(1)
	for i := range order {
		for k := i + 1; k < len(order) && (len(order) <= 64 || k <= i+1); k++ {
			least = min(least, order[i].Dist(order[k]))
		}
	}
	if !math.IsInf(least, 1) {
		s.Pitch = int64(math.Round(least))
	}
	var e geom.Extent
	for _, g := range f.Body {
		e.AddBox(geom.BoxOf(g.Pts...).Grow(g.R))
	}
	w, h := e.Box.Max.X-e.Box.Min.X, e.Box.Max.Y-e.Box.Min.Y
	s.Length, s.Width = max(w, h), min(w, h)
	return s
}

// Match is a footprint that may suit, with what is otherwise than wanted.
type Match struct {
	Name    string   `json:"name"`
	Library string   `json:"library,omitempty"` // empty: it is in the project
	Shape   Shape    `json:"shape"`
	Words   []string `json:"words"`
	Density string   `json:"density,omitempty"` // of a generated one
	score   float64
}

// Rank orders footprints by how near they come to what is wanted: the number of pins first, then pitch, then the body. Those whose
// number of pins is another are left out unless the number wanted is not known. Cost: O(n log n).
func Rank(want Shape, list []Match, most int) []Match {
	out := make([]Match, 0, len(list))
	for _, m := range list {
		if want.Pins > 0 && m.Shape.Pins != want.Pins {
			continue
		}
		m.Words, m.score = compare(want, m.Shape)
		out = append(out, m)
	}
	slices.SortStableFunc(out, func(a, b Match) int {
		return cmp.Or(cmp.Compare(a.score, b.score), cmp.Compare(usual(a), usual(b)), cmp.Compare(a.Name, b.Name))
	})
	if most > 0 && len(out) > most {
		out = out[:most]
	}
	return out
}

// usual puts the density that most boards have first.
func usual(m Match) int {
	if m.Density == "" || m.Density == design.Nominal {
		return 0
	}
	return 1
}

// Near is what counts as equal in pitch and body: what is lost by rounding to hundredths of a millimetre, and by a body's tolerance.
const (
	nearPitch = 20 * units.Micrometre
	nearBody  = 100 * units.Micrometre
)

func compare(want, is Shape) (words []string, score float64) {
	words = []string{}
	mm := func(v int64) float64 { return math.Abs(float64(v)) / float64(units.MM) }
	if want.Pins > 0 {
		words = append(words, fmt.Sprintf("%s equal", count(is.Pins, "pin", "pins")))
	}
	if want.Pitch > 0 && is.Pitch > 0 {
		switch d := is.Pitch - want.Pitch; {
		case d > nearPitch:
			words = append(words, fmt.Sprintf("pitch %s more", units.Text(d)))
			score += 20 * mm(d)
		case -d > nearPitch:
			words = append(words, fmt.Sprintf("pitch %s less", units.Text(-d)))
			score += 20 * mm(d)
		default:
			words = append(words, "pitch equal")
		}
	}
	side := func(what, more, less string, want, is int64) {
		if want == 0 || is == 0 {
			return
		}
		switch d := is - want; {
		case d > nearBody:
			words = append(words, fmt.Sprintf("%s %s %s", what, hundredths(d), more))
			score += mm(d)
		case -d > nearBody:
			words = append(words, fmt.Sprintf("%s %s %s", what, hundredths(-d), less))
			score += 1.2 * mm(d) // a body too large for its footprint is worse than one too small
		}
	}
	before := len(words)
	side("body", "longer", "shorter", want.Length, is.Length)
	side("body", "wider", "narrower", want.Width, is.Width)
	if want.Length > 0 && is.Length > 0 && len(words) == before {
		words = append(words, "body equal")
	}
	if want.Pins > 0 && want.Pitch+want.Length > 0 && want.Through != is.Through {
		if is.Through {
			words = append(words, "through the board")
		} else {
			words = append(words, "on the surface")
		}
		score += 50
	}
	return words, score
}

func hundredths(v int64) string { return units.Text(v / 10_000 * 10_000) }

// Fits tells whether a name has all the words of a query; * stands for any letters, ? for one.
func Fits(name, query string) bool {
	name = strings.ToLower(name)
	for _, w := range strings.Fields(strings.ToLower(query)) {
		if strings.ContainsAny(w, "*?") {
			if !wild(name, w) {
				return false
			}
		} else if !strings.Contains(name, w) {
			return false
		}
	}
	return true
}

// wild matches a whole name with a pattern, in time O(name · pattern).
func wild(name, pattern string) bool {
	n, p := []rune(name), []rune(pattern)
	star, mark := -1, 0
	i, k := 0, 0
	for i < len(n) {
		switch {
		case k < len(p) && (p[k] == '?' || p[k] == n[i]):
			i, k = i+1, k+1
		case k < len(p) && p[k] == '*':
			star, mark = k, i
			k++
		case star >= 0:
			mark++
			i, k = mark, star+1
		default:
			return false
		}
	}
	for k < len(p) && p[k] == '*' {
		k++
	}
	return k == len(p)
}
