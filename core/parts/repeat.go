package parts

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// Kinds of repeats.
const (
	InRow    = "row"
	InGrid   = "grid"
	InCircle = "circle"
)

// Orders in which repeated pads are numbered.
const (
	Along        = "along"     // row by row, each from its beginning
	BackAndForth = "backForth" // every other row from its end
	Around       = "around"    // counter-clockwise, from outside inwards
	Letters      = "letters"   // rows by letters, columns by numbers
	Same         = "same"      // all as the first
)

// Orders lists them.
var Orders = []string{Along, BackAndForth, Around, Letters, Same}

// Repeat says how pads are repeated. Lengths are nanometres, angles millidegrees.
type Repeat struct {
	Kind   string     `json:"kind"`
	Count  int        `json:"count"` // in a row (columns of a grid), or around a circle
	Rows   int        `json:"rows,omitempty"`
	Step   geom.Point `json:"step,omitzero"`   // in a row; of a grid x is from column to column, y from row to row
	Centre geom.Point `json:"centre,omitzero"` // of a circle
	Sweep  int32      `json:"sweep,omitempty"` // from the first to the last around a circle; 0: all around
	Turned bool       `json:"turned,omitempty"`
	First  string     `json:"first"` // number of the first
	By     int        `json:"by"`    // numbers go on by so much; 0: by 1
	Order  string     `json:"order"`
}

// Pads repeats one pad; the first of the result is the pad itself with its number. Cost: O(count·rows).
func (r Repeat) Pads(of design.Pad) ([]design.Pad, error) {
	places, angles, err := r.places(of.At)
	if err != nil {
		return nil, err
	}
	numbers, err := r.numbers(len(places))
	if err != nil {
		return nil, err
	}
	out := make([]design.Pad, len(places))
	for i, at := range places {
		out[i] = of
		out[i].ID, out[i].At, out[i].Number = 0, at, numbers[i]
		if r.Turned {
			out[i].Angle = ((of.Angle+angles[i])%360_000 + 360_000) % 360_000
		}
	}
	out[0].ID = of.ID
	return out, nil
}

func (r Repeat) places(from geom.Point) (places []geom.Point, angles []int32, err error) {
	rows := max(r.Rows, 1)
	if r.Kind != InGrid {
		rows = 1
	}
	switch {
	case r.Count < 1 || r.Count > design.MostPins || rows > design.MostPins || r.Count*rows > design.MostPins:
		return nil, nil, fmt.Errorf("%d pads are too many or too few; 1 to %d are meant", r.Count*rows, design.MostPins)
	case !slices.Contains(Orders, r.Order):
		return nil, nil, fmt.Errorf("%q is not an order of numbers", r.Order)
	}
	switch r.Kind {
	case InRow:
		if r.Step == (geom.Point{}) && r.Count > 1 {
			return nil, nil, fmt.Errorf("the pads of a row would lie over each other; give a step")
		}
		for i := range r.Count {
			places = append(places, from.Add(geom.Pt(r.Step.X*int64(i), r.Step.Y*int64(i))))
		}
	case InGrid:
		if r.Step.X == 0 && r.Count > 1 || r.Step.Y == 0 && rows > 1 {
			return nil, nil, fmt.Errorf("the pads of a grid would lie over each other; give both steps")
		}
		for k := range rows {
			for i := range r.Count {
				places = append(places, from.Add(geom.Pt(r.Step.X*int64(i), r.Step.Y*int64(k))))
			}
		}
	case InCircle:
		return r.circle(from)
	default:
		return nil, nil, fmt.Errorf("%q is not a kind of repeat", r.Kind)
	}
	for _, p := range []geom.Point{places[0], places[len(places)-1]} {
		if max(p.X, -p.X, p.Y, -p.Y) > units.Limit {
			return nil, nil, fmt.Errorf("the last pads would lie beyond what a drawing can reach")
		}
	}
	return places, make([]int32, len(places)), nil
}

func (r Repeat) circle(from geom.Point) (places []geom.Point, angles []int32, err error) {
	if from == r.Centre {
		return nil, nil, fmt.Errorf("the pad lies in the middle of the circle; move it out first")
	}
	sweep, parts := float64(r.Sweep), r.Count-1
	if r.Sweep == 0 {
		sweep, parts = 360_000, r.Count
	}
	if r.Sweep < -360_000 || r.Sweep > 360_000 {
		return nil, nil, fmt.Errorf("a circle has 360°, not %g°", float64(r.Sweep)/1000)
	}
	v := from.Sub(r.Centre)
	for i := range r.Count {
		a := sweep * float64(i) / float64(max(parts, 1))
		sin, cos := math.Sincos(a * math.Pi / 180_000)
		x, y := float64(v.X), float64(v.Y)
		places = append(places, r.Centre.Add(geom.Pt(int64(math.Round(x*cos-y*sin)), int64(math.Round(x*sin+y*cos)))))
		angles = append(angles, int32(math.Round(a)))
	}
	return places, angles, nil
}

var numbered = regexp.MustCompile(`^(.*?)([0-9]+)$`)

// numbers of so many pads, in the order of their places: row by row.
func (r Repeat) numbers(n int) ([]string, error) {
	out := make([]string, n)
	cols := r.Count
	rows := n / cols
	if r.Order == Same {
		for i := range out {
			out[i] = r.First
		}
		return out, nil
	}
	if r.Order == Letters {
		for i := range out {
			out[i] = fmt.Sprintf("%s%d", landpattern.RowLetters(i/cols), i%cols+1)
		}
		return out, nil
	}
	m := numbered.FindStringSubmatch(r.First)
	if m == nil {
		if n == 1 {
			return []string{r.First}, nil
		}
		return nil, fmt.Errorf("%q does not end in a number that could go on", r.First)
	}
	first, err := strconv.Atoi(m[2])
	if err != nil || first > 1_000_000 {
		return nil, fmt.Errorf("%s is too large a number to go on from", m[2])
	}
	by := r.By
	if by == 0 {
		by = 1
	}
	for i, at := range r.order(cols, rows) {
		v := first + by*i
		if v < 0 {
			return nil, fmt.Errorf("the numbers would fall below nothing")
		}
		out[at] = fmt.Sprintf("%s%d", m[1], v)
	}
	return out, nil
}

// order lists the places in the order of their numbers.
func (r Repeat) order(cols, rows int) []int {
	out := make([]int, 0, cols*rows)
	switch r.Order {
	case BackAndForth:
		for k := range rows {
			for i := range cols {
				if k%2 == 1 {
					i = cols - 1 - i
				}
				out = append(out, k*cols+i)
			}
		}
	case Around:
		return r.around(cols, rows)
	default:
		for i := range cols * rows {
			out = append(out, i)
		}
	}
	return out
}

// around goes counter-clockwise from the first place along the outermost ring, then along the next one within.
func (r Repeat) around(cols, rows int) []int {
	out := make([]int, 0, cols*rows)
	if cols == 1 || rows == 1 {
		for i := range cols * rows {
			out = append(out, i)
		}
		return out
	}
	// the first column comes first when the rows go down as the columns go right, or up as they go left
	columnFirst := (r.Step.X > 0) != (r.Step.Y > 0)
	for d := 0; 2*d < cols && 2*d < rows; d++ {
		left, right, top, low := d, cols-1-d, d, rows-1-d
		at := func(c, k int) { out = append(out, k*cols+c) }
		if columnFirst {
			for k := top; k <= low; k++ {
				at(left, k)
			}
			for c := left + 1; c <= right; c++ {
				at(c, low)
			}
			for k := low - 1; k >= top && right > left; k-- {
				at(right, k)
			}
			for c := right - 1; c > left && low > top; c-- {
				at(c, top)
			}
			continue
		}
		for c := left; c <= right; c++ {
			at(c, top)
		}
		for k := top + 1; k <= low; k++ {
			at(right, k)
		}
		for c := right - 1; c >= left && low > top; c-- {
			at(c, low)
		}
		for k := low - 1; k > top && right > left; k-- {
			at(left, k)
		}
	}
	return out
}
