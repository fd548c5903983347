package parts

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// What a column of a table of pads holds, beside its number.
const (
	XColumn      = "x"
	YColumn      = "y"
	WidthColumn  = "width"
	HeightColumn = "height"
	FormColumn   = "form"
	HoleColumn   = "hole"
	TurnColumn   = "turn"
)

var padHeadings = []heading{
	{NumberColumn, []string{"pad", "no", "no.", "nr", "number", "#", "pin", "terminal", "pad number"}},
	{XColumn, []string{"x", "pos x", "x pos", "centre x", "center x"}},
	{YColumn, []string{"y", "pos y", "y pos", "centre y", "center y"}},
	{WidthColumn, []string{"width", "w", "size x", "x size", "dx"}},
	{HeightColumn, []string{"height", "h", "length", "l", "size y", "y size", "dy"}},
	{FormColumn, []string{"form", "shape", "type"}},
	{HoleColumn, []string{"hole", "drill", "hole diameter", "⌀"}},
	{TurnColumn, []string{"turn", "angle", "rotation", "rot"}},
}

// words people write for the forms of pads, in lower case.
var formWords = map[string]string{
	"round": design.Round, "circle": design.Round, "circular": design.Round, "rect": design.Rect, "rectangle": design.Rect, "rectangular": design.Rect, "square": design.Rect,
	"rounded": design.Rounded, "rounded rectangle": design.Rounded, "roundrect": design.Rounded, "oval": design.Oval, "oblong": design.Oval,
}

// PadList is a table of pads as it was understood.
type PadList struct {
	Table
	Pads  []design.Pad `json:"pads"`
	Wrong []string     `json:"wrong"` // rows that no pad can be made of
}

// MostPadRows bounds a table of pads.
const MostPadRows = 2000

// ReadPadList reads a table of pads: number, place and size, and form, hole and turn where they are given. Lengths are in the unit unless
// their column's heading or they themselves say another; they may be calculated (17.5/2). Cost: O(length).
func ReadPadList(text string, columns []string, unit string) (*PadList, error) {
	t, told, err := readTable(text, columns, padHeadings, "pads", MostPadRows, func(told []string) bool {
		return slices.Contains(told, XColumn) || slices.Contains(told, WidthColumn)
	})
	if err != nil {
		return nil, err
	}
	if len(columns) == 0 && told == nil { // as most tables have them
		for i, kind := range []string{NumberColumn, XColumn, YColumn, WidthColumn, HeightColumn, HoleColumn} {
			if i < len(t.Columns) {
				t.Columns[i] = kind
			}
		}
		t.Notes = append(t.Notes, "The table has no headings; say what its columns hold where that is not so.")
	}
	out := &PadList{Table: *t, Pads: []design.Pad{}, Wrong: []string{}}
	for _, need := range []string{XColumn, YColumn, WidthColumn} {
		if !slices.Contains(out.Columns, need) {
			out.Wrong = append(out.Wrong, fmt.Sprintf("No column holds the pads' %s.", map[string]string{XColumn: "x", YColumn: "y", WidthColumn: "width"}[need]))
		}
	}
	if len(out.Wrong) > 0 {
		return out, nil
	}
	for i, row := range out.Cells {
		p, err := out.pad(row, unit)
		if err != nil {
			out.Wrong = append(out.Wrong, fmt.Sprintf("Row %d: %v.", i+1, err))
			continue
		}
		out.Pads = append(out.Pads, p)
	}
	return out, nil
}

func (l *PadList) pad(row []string, unit string) (design.Pad, error) {
	p := design.Pad{Number: l.cell(row, NumberColumn)}
	var failed error
	length := func(kind string) int64 {
		text := strings.Replace(l.cell(row, kind), ",", ".", 1)
		if text == "" {
			return 0
		}
		in := unit
		if at := slices.Index(l.Columns, kind); units.Known(l.units[at]) {
			in = l.units[at]
		}
		v, err := units.Parse(text, in)
		if err != nil && failed == nil {
			failed = err
		}
		return v
	}
	p.At.X, p.At.Y, p.Size.X, p.Size.Y, p.Hole = length(XColumn), length(YColumn), length(WidthColumn), length(HeightColumn), length(HoleColumn)
	if failed != nil {
		return p, failed
	}
	if p.Size.Y == 0 {
		p.Size.Y = p.Size.X
	}
	if text := l.cell(row, TurnColumn); text != "" {
		degrees, err := strconv.ParseFloat(strings.Trim(strings.Replace(text, ",", ".", 1), " °"), 64)
		if err != nil || degrees < -360 || degrees > 360 {
			return p, fmt.Errorf("“%s” is no angle in degrees", text)
		}
		p.Angle = (int32(degrees*1000) + 360_000) % 360_000
	}
	p.Form = design.Rect
	if p.Hole > 0 {
		p.Form = design.Oval
		if p.Size.X == p.Size.Y {
			p.Form = design.Round
		}
	}
	if text := strings.ToLower(l.cell(row, FormColumn)); text != "" {
		form, ok := formWords[text]
		if !ok {
			return p, fmt.Errorf("“%s” is no form of pads; write round, rect, rounded or oval", text)
		}
		p.Form = form
	}
	if p.Form == design.Rounded {
		p.Corner = min(p.Size.X, p.Size.Y) / 4
	}
	return p, PadCanBe(&p)
}

// PadCanBe refuses a pad that nobody means.
func PadCanBe(p *design.Pad) error {
	what := "pad " + p.Number
	if p.Number == "" {
		what = "a pad"
	}
	if p.Size.X <= 0 || p.Size.Y <= 0 {
		return fmt.Errorf("%s would be %s by %s; a pad has a size", what, units.Text(p.Size.X), units.Text(p.Size.Y))
	}
	if p.Hole > 0 && !p.Bare && p.Form != design.Free && p.Hole >= min(p.Size.X, p.Size.Y) {
		return fmt.Errorf("the hole of %s (%s) is not smaller than its copper (%s); make the pad larger, or the hole without plating",
			what, units.Text(p.Hole), units.Text(min(p.Size.X, p.Size.Y)))
	}
	return nil
}
