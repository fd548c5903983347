package design

import (
	"maps"
	"slices"

	"goldentrace/core/units"
)

// Range is a dimension with its tolerance: what it is at least and at most, in nanometres.
type Range struct {
	Min int64 `json:"min"`
	Max int64 `json:"max"`
}

// Middle of the span, its nominal value.
func (s Range) Middle() int64 { return (s.Min + s.Max) / 2 }

// Density levels of IPC-7351: how much solder a land leaves room for.
const (
	Most    = "most"    // level A, M in names: for boards that are handled roughly, or soldered by hand
	Nominal = "nominal" // level B, N
	Least   = "least"   // level C, L: as dense as can be
)

// Densities lists them.
var Densities = []string{Most, Nominal, Least}

// What a generated footprint can have beside its pads.
const (
	MakeSilk      = "silk"
	MakeOutline   = "outline" // of the body, for the assembly drawing
	MakeCourtyard = "courtyard"
	MakeMark      = "mark" // where pin 1 is
	MakeBody      = "body" // in space
)

// Makes lists them.
var Makes = []string{MakeSilk, MakeOutline, MakeCourtyard, MakeMark, MakeBody}

// Making is how footprints are generated, whatever the component: tolerances, roundings, line widths. All
// lengths are nanometres.
type Making struct {
	Fabrication int64    `json:"fabrication"` // of the board: F of the equations
	Placement   int64    `json:"placement"`   // of the machine: P of the equations
	Round       int64    `json:"round"`       // pads lie on multiples of it
	Gap         int64    `json:"gap"`         // least distance between two pads
	Form        string   `json:"form"`        // of surface pads: Rounded, Rect or Oval
	SilkWidth   int64    `json:"silkWidth"`   // of lines
	SilkGap     int64    `json:"silkGap"`     // between silk and copper
	YardRound   int64    `json:"yardRound"`   // the courtyard lies on multiples of it
	Leave       []string `json:"leave,omitempty"`
}

// UsualMaking is how footprints are generated unless somebody says otherwise.
func UsualMaking() Making {
	return Making{
		Fabrication: 50_000, Placement: 50_000, Round: 10_000, Gap: 200_000, Form: Rounded,
		SilkWidth: 120_000, SilkGap: 150_000, YardRound: 50_000,
	}
}

// Makes tells whether something is made beside the pads.
func (m *Making) Makes(what string) bool { return !slices.Contains(m.Leave, what) }

// Valid checks the numbers.
func (m *Making) Valid() error {
	for _, x := range []struct {
		what string
		v    int64
	}{
		{"the fabrication tolerance", m.Fabrication},
		{"the placement tolerance", m.Placement},
		{"the least gap between pads", m.Gap},
		{"the gap between silk and pads", m.SilkGap},
	} {
		if err := check(x.v >= 0 && x.v <= 5*units.MM, "%s is %s; 0 to 5 mm are meant", x.what, units.Text(x.v)); err != nil {
			return err
		}
	}
	for _, x := range []struct {
		what string
		v    int64
	}{
		{"the rounding of pads", m.Round},
		{"the rounding of the courtyard", m.YardRound},
		{"the width of silk lines", m.SilkWidth},
	} {
		if err := check(x.v >= units.Micrometre && x.v <= units.MM, "%s is %s; 0.001 to 1 mm are meant", x.what, units.Text(x.v)); err != nil {
			return err
		}
	}
	for _, s := range m.Leave {
		if err := oneOf("something a footprint is made of", s, Makes); err != nil {
			return err
		}
	}
	return oneOf("a form of surface pads", m.Form, []string{Rounded, Rect, Oval})
}

// Recipe is what a footprint was generated from: a component's dimensions. Package core/landpattern
// reads it.
type Recipe struct {
	Family    string            `json:"family"`
	Counts    map[string]int    `json:"counts,omitempty"`  // pins, columns, rows …
	Dims      map[string]Range  `json:"dims"`              // body, leads, pitch …
	Choices   map[string]string `json:"choices,omitempty"` // what is not a number
	Missing   []string          `json:"missing,omitempty"` // numbers of terminals that are not there
	Density   string            `json:"density"`
	Overrides map[string]int64  `json:"overrides,omitempty"` // numbers of the datasheet's own instead of computed ones
	Making    Making            `json:"making"`
	Name      string            `json:"name,omitempty"` // instead of the standard's
}

// Clone copies the recipe with all it holds.
func (r Recipe) Clone() *Recipe {
	r.Counts, r.Dims, r.Choices = maps.Clone(r.Counts), maps.Clone(r.Dims), maps.Clone(r.Choices)
	r.Overrides, r.Missing, r.Making.Leave = maps.Clone(r.Overrides), slices.Clone(r.Missing), slices.Clone(r.Making.Leave)
	return &r
}

// Valid checks what can be said without knowing the family.
func (r *Recipe) Valid() error {
	if err := firstOf(
		name("family", r.Family),
		text("footprint's name", r.Name),
		most("the list of dimensions", len(r.Dims), 100),
		most("the list of counts", len(r.Counts), 100),
		most("the list of choices", len(r.Choices), 100),
		most("the list of missing terminals", len(r.Missing), MostPins),
		most("the list of overridden numbers", len(r.Overrides), 100),
		oneOf("a density", r.Density, Densities),
		r.Making.Valid(),
	); err != nil {
		return err
	}
	for k, s := range r.Dims {
		if err := firstOf(
			name("dimension's name", k),
			check(s.Min <= s.Max, "the dimension %s is at least %s and at most %s", k, units.Text(s.Min), units.Text(s.Max)),
			check(s.Min >= -units.Limit && s.Max <= units.Limit, "the dimension %s is out of reach", k),
		); err != nil {
			return err
		}
	}
	for k, v := range r.Overrides {
		if err := firstOf(name("number's name", k), check(v > -units.Limit && v < units.Limit, "the number %s is out of reach", k)); err != nil {
			return err
		}
	}
	for k, v := range r.Choices {
		if err := firstOf(name("choice's name", k), text(k, v)); err != nil {
			return err
		}
	}
	for _, s := range r.Missing {
		if err := name("terminal's number", s); err != nil {
			return err
		}
	}
	return nil
}
