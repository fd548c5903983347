package parts

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// The body of a symbol, and the pins on its sides. Pitch is the grid of circuits.
const Pitch = 2_500_000

// PinLength of new pins.
const PinLength = 2_500_000

// BodyOf is the rectangle that pins stand on: the largest of the symbol's rectangles; its place in the drawing, −1: there is none.
func BodyOf(s *design.Symbol) (box geom.Box, at int) {
	at = -1
	for i, f := range s.Figures {
		if f.Form != "area" || len(f.Pts) != 4 {
			continue
		}
		b := geom.BoxOf(f.Pts...)
		square := 0
		for _, p := range f.Pts {
			if (p.X == b.Min.X || p.X == b.Max.X) && (p.Y == b.Min.Y || p.Y == b.Max.Y) {
				square++
			}
		}
		if square == 4 && (at < 0 || area(b) > area(box)) {
			box, at = b, i
		}
	}
	return box, at
}

func area(b geom.Box) float64 { return float64(b.Max.X-b.Min.X) * float64(b.Max.Y-b.Min.Y) }

func corners(b geom.Box) []geom.Point {
	return []geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y)}
}

// Foot is where a pin meets the body.
func Foot(p *design.Pin) geom.Point {
	return p.At.Add(geom.Turn(geom.Pt(p.Length, 0), int32(p.Turn)*90_000))
}

// Resize gives the body another size. Pins that stand on a side stay on it: those left and right move with their side, and those that
// would hang over an end are moved in. Pins that stand on no side stay where they are.
func Resize(s *design.Symbol, to geom.Box) (*design.Symbol, error) {
	from, at := BodyOf(s)
	if at < 0 {
		return nil, fmt.Errorf("the symbol %s has no rectangle that could be its body", s.Name)
	}
	if to.Max.X-to.Min.X < units.MM || to.Max.Y-to.Min.Y < units.MM {
		return nil, fmt.Errorf("a body of %s by %s is too small; 1 mm is the least", units.Text(to.Max.X-to.Min.X), units.Text(to.Max.Y-to.Min.Y))
	}
	out := *s
	out.Figures = slices.Clone(s.Figures)
	out.Figures[at].Pts = corners(to)
	out.Pins = slices.Clone(s.Pins)
	for i := range out.Pins {
		p := &out.Pins[i]
		foot := Foot(p)
		switch {
		case foot.X == from.Min.X && p.Turn == 0:
			p.At.X += to.Min.X - from.Min.X
		case foot.X == from.Max.X && p.Turn == 2:
			p.At.X += to.Max.X - from.Max.X
		case foot.Y == from.Min.Y && p.Turn == 1:
			p.At.Y += to.Min.Y - from.Min.Y
		case foot.Y == from.Max.Y && p.Turn == 3:
			p.At.Y += to.Max.Y - from.Max.Y
		}
	}
	// texts above and below go with the sides they stand beyond
	for _, at := range []*geom.Point{&out.DesignatorAt, &out.ValueAt} {
		switch {
		case at.Y > from.Max.Y:
			at.Y += to.Max.Y - from.Max.Y
		case at.Y < from.Min.Y:
			at.Y += to.Min.Y - from.Min.Y
		}
	}
	return &out, nil
}

// Fit makes the body large enough for the pins on its sides, with half a pitch and more beyond the outermost.
func Fit(s *design.Symbol) (*design.Symbol, error) {
	box, at := BodyOf(s)
	if at < 0 {
		return s, nil
	}
	to := box
	for i := range s.Pins {
		p := &s.Pins[i]
		foot := Foot(p)
		switch {
		case foot.X == box.Min.X && p.Turn == 0, foot.X == box.Max.X && p.Turn == 2:
			to.Min.Y, to.Max.Y = min(to.Min.Y, foot.Y-Pitch), max(to.Max.Y, foot.Y+Pitch)
		case foot.Y == box.Min.Y && p.Turn == 1, foot.Y == box.Max.Y && p.Turn == 3:
			to.Min.X, to.Max.X = min(to.Min.X, foot.X-Pitch), max(to.Max.X, foot.X+Pitch)
		}
	}
	if to == box {
		return s, nil
	}
	return Resize(s, to)
}

// Ways to lay out the pins of a list around a body.
const (
	ByType    = "type"   // supplies and inputs left, outputs right, grounds last
	InOrder   = "order"  // half of them down the left, the others down the right
	AsPackage = "around" // counter-clockwise, as on a package with two rows
	FourSides = "sides"  // counter-clockwise, as on a package with four: a quarter of them on each side
)

// Layouts lists them.
var Layouts = []string{ByType, InOrder, AsPackage, FourSides}

// Arrange lays pins out around a body that fits them; sides that the list names hold. The body's middle is the origin.
func Arrange(name string, pins []Listed, layout string) (*design.Symbol, error) {
	if layout == "" {
		layout = ByType
	}
	switch {
	case len(pins) == 0:
		return nil, fmt.Errorf("there are no pins to lay out")
	case len(pins) > MostListed:
		return nil, fmt.Errorf("%d pins are too many; %d are the most", len(pins), MostListed)
	case !slices.Contains(Layouts, layout):
		return nil, fmt.Errorf("%q is not a way to lay out pins", layout)
	}
	var sides [4][]Listed // left, right, top, bottom
	put := func(side int, p Listed) { sides[side] = append(sides[side], p) }
	for i, p := range pins {
		if p.Wrong != "" {
			return nil, fmt.Errorf("%s", strings.TrimSuffix(p.Wrong, "."))
		}
		switch {
		case p.Side != "":
			side := slices.Index([]string{"left", "right", "top", "bottom"}, p.Side)
			if side < 0 {
				return nil, fmt.Errorf("%q is not a side of a body", p.Side)
			}
			put(side, p)
		case layout == ByType:
			put(sideByType(p), p)
		case layout == FourSides:
			put(quarter(i, len(pins)), p)
		case i < (len(pins)+1)/2:
			put(0, p)
		default:
			put(1, p)
		}
	}
	if layout == ByType {
		for s := range sides {
			slices.SortStableFunc(sides[s], func(a, b Listed) int { return cmp.Compare(rank(a), rank(b)) })
		}
		even(&sides)
	}
	if layout == AsPackage || layout == FourSides { // numbers go up the right side, and from right to left along the upper one
		slices.Reverse(sides[1])
		slices.Reverse(sides[2])
	}
	s := &design.Symbol{Name: name, ShowNames: true}
	long := func(list []Listed) (n int64) {
		for _, p := range list {
			n = max(n, int64(len([]rune(p.Name))))
		}
		return n
	}
	const letter = 1_250_000 // a name's letter is about so wide
	rows, cols := int64(max(len(gapped(sides[0], layout)), len(gapped(sides[1], layout)), 1)), int64(max(len(sides[2]), len(sides[3])))
	var inset [4]int64 // how far names reach into the body; those of neighbouring sides keep out of each other's way
	for i := range sides {
		if len(sides[i]) > 0 && (cols > 0 && len(sides[0])+len(sides[1]) > 0) {
			inset[i] = up(long(sides[i])*letter, Pitch)
		}
	}
	width := up(max((long(sides[0])+long(sides[1]))*letter+2*Pitch, inset[0]+(cols+1)*Pitch+inset[1], 4*Pitch), 2*Pitch)
	height := up(max(inset[2]+(rows+1)*Pitch+inset[3], (long(sides[2])+long(sides[3]))*letter+2*Pitch), 2*Pitch)
	box := geom.Box{Min: geom.Pt(-width/2, -height/2), Max: geom.Pt(width/2, height/2)}
	s.Figures = []design.Figure{{Form: "area", Pts: corners(box)}}
	add := func(p Listed, at geom.Point, turn int) {
		s.Pins = append(s.Pins, design.Pin{Number: p.Number, Name: p.Name, Type: p.Type, At: at, Turn: turn, Length: PinLength})
	}
	for side, turn := range map[int]int{0: 0, 1: 2} {
		x := box.Min.X - PinLength
		if side == 1 {
			x = box.Max.X + PinLength
		}
		for i, p := range gapped(sides[side], layout) {
			if p != nil {
				add(*p, geom.Pt(x, box.Max.Y-inset[2]-Pitch*int64(i+1)), turn)
			}
		}
	}
	for side, turn := range map[int]int{2: 3, 3: 1} {
		y := box.Max.Y + PinLength
		if side == 3 {
			y = box.Min.Y - PinLength
		}
		first := (inset[0] - inset[1] - Pitch*int64(len(sides[side])-1)) / 2 / Pitch * Pitch
		for i, p := range sides[side] {
			add(p, geom.Pt(first+Pitch*int64(i), y), turn)
		}
	}
	slices.SortStableFunc(s.Pins, func(a, b design.Pin) int { return cmp.Compare(order(pins, a), order(pins, b)) })
	s.DesignatorAt, s.ValueAt = geom.Pt(0, box.Max.Y+2_300_000), geom.Pt(0, box.Min.Y-2_300_000)
	if len(sides[2]) > 0 {
		s.DesignatorAt.Y += PinLength
	}
	if len(sides[3]) > 0 {
		s.ValueAt.Y -= PinLength
	}
	return s, s.Valid()
}

// quarter is the side on which the pin stands of a package with four: left (downwards), bottom, right, top. What is left over, as a pad beneath the
// body, stands at the end of the bottom.
func quarter(i, n int) int {
	if side := i / max(n/4, 1); side < 4 {
		return []int{0, 3, 1, 2}[side]
	}
	return 3
}

func order(pins []Listed, p design.Pin) int {
	return slices.IndexFunc(pins, func(l Listed) bool { return l.Number == p.Number })
}

func up(v, to int64) int64 { return (v + to - 1) / to * to }

func grounds(p Listed) bool {
	n := strings.ToUpper(p.Name)
	return p.Type == "supplyIn" && (strings.Contains(n, "GND") || strings.HasPrefix(n, "VSS") || n == "EP" || n == "V-" || n == "V−")
}

func sideByType(p Listed) int {
	switch p.Type {
	case "supplyIn", "input":
		return 0
	case "passive", "notConnected":
		return 0
	}
	return 1
}

// rank orders the pins of a side: supplies, inputs, others, what is not connected, grounds.
func rank(p Listed) int {
	switch {
	case grounds(p):
		return 9
	case p.Type == "supplyIn":
		return 0
	case p.Type == "supplyOut":
		return 1
	case p.Type == "input", p.Type == "output":
		return 2
	case p.Type == "notConnected":
		return 8
	}
	return 3
}

// even moves what may stand on either side over to the shorter one, as long as one is much longer.
func even(sides *[4][]Listed) {
	for _, way := range [][2]int{{0, 1}, {1, 0}} {
		from, to := way[0], way[1]
		for i := len(sides[from]) - 1; i >= 0 && len(sides[from]) > len(sides[to])+2; i-- {
			if p := sides[from][i]; p.Side == "" && (p.Type == "passive" || p.Type == "both" || p.Type == "notConnected") {
				sides[from] = slices.Delete(sides[from], i, i+1)
				sides[to] = append(sides[to], p)
			}
		}
		slices.SortStableFunc(sides[to], func(a, b Listed) int { return cmp.Compare(rank(a), rank(b)) })
	}
}

// gapped leaves a place free between pins of different ranks, when they are laid out by type.
func gapped(list []Listed, layout string) []*Listed {
	var out []*Listed
	for i := range list {
		if layout == ByType && i > 0 && rank(list[i]) != rank(list[i-1]) {
			out = append(out, nil)
		}
		out = append(out, &list[i])
	}
	return out
}

// AddListed puts the pins of a list into a symbol. One without pins is laid out anew; else pins whose numbers are there take the list's
// names and types, and the others come in below, left and right of the body, which grows to hold them.
func AddListed(s *design.Symbol, pins []Listed, layout string) (*design.Symbol, error) {
	fresh, err := Arrange(s.Name, pins, layout)
	if err != nil {
		return nil, err
	}
	if len(s.Pins) == 0 {
		fresh.ID, fresh.Origin, fresh.ShowNames = s.ID, s.Origin, s.ShowNames
		if _, at := BodyOf(s); at >= 0 { // what else is drawn stays
			named, _, free := s.Named()
			fresh.Figures[0].ID = free
			fresh.Figures = append(fresh.Figures, slices.Delete(named.Figures, at, at+1)...)
		}
		return fresh, nil
	}
	out, free, _ := s.Named()
	box, at := BodyOf(s)
	lowest := geom.BoxOf(Foot(&s.Pins[0]))
	for i := range s.Pins {
		lowest = lowest.With(s.Pins[i].At)
	}
	left, right := lowest.Min.X, lowest.Max.X
	if at >= 0 {
		left, right = box.Min.X-PinLength, box.Max.X+PinLength
	}
	next := [2]int64{}
	for _, p := range fresh.Pins {
		if i := slices.IndexFunc(out.Pins, func(q design.Pin) bool { return q.Number == p.Number }); i >= 0 {
			out.Pins[i].Name, out.Pins[i].Type = p.Name, p.Type
			continue
		}
		side := 0
		if p.At.X > 0 {
			side = 1
		}
		next[side] += Pitch
		p.ID, free = free, free+1
		p.Turn, p.At = 2*side, geom.Pt([]int64{left, right}[side], lowest.Min.Y-next[side])
		out.Pins = append(out.Pins, p)
	}
	return Fit(out)
}
