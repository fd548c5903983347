// Package landpattern makes footprints from the dimensions of components. A recipe (design.Recipe) names a
// family, the component's dimensions with their tolerances, a density and how footprints are made; Make
// computes the lands, silk, outlines, courtyard and body. Lengths are whole nanometres; the equations
// are computed in floating point and rounded once, outwards or to the recipe's grid as each entry says.
//
// A footprint is seen from above, pin 1 at the upper left or at the left, pins counter-clockwise, origin in
// the middle of the body, as IPC-7351B's level A of zero component orientations has it.
//
// Sources: IPC-7351B (land pattern standard): equations of 3.1.5, fillet goals of tables 3-2 to 3-22,
// ball reductions of table 3-17, names of its naming convention; IPC-2222 9.2.3 (holes for leads) and IPC-2221
// 9.1.1 (lands around holes) with the fabrication allowances of the draft IPC-7251, and that draft's names.
package landpattern

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Impossible says which dimension of a body cannot be, or cannot be with the others.
type Impossible struct {
	Dim  string // its key; empty: none alone
	Text string
}

func (e *Impossible) Error() string { return e.Text }

func impossible(dim, format string, args ...any) error {
	return &Impossible{dim, fmt.Sprintf(format, args...)}
}

// Entry is a number of a footprint: what the equations say, what somebody says instead, and what holds.
type Entry struct {
	Key      string `json:"key"`
	Words    string `json:"words"`
	Computed int64  `json:"computed"`
	Override *int64 `json:"override,omitempty"`
	Used     int64  `json:"used"`
	Plain    bool   `json:"plain,omitempty"` // a number, not a length
}

// LandPattern is a footprint with how it came about.
type LandPattern struct {
	Footprint *design.Footprint `json:"footprint"`
	Name      string            `json:"name"` // the standard's, whatever the footprint is called
	Table     []Entry           `json:"table"`
	Notes     []string          `json:"notes"` // what was done otherwise than the equations say, and why
	Joints    []Joint           `json:"joints"`
	Views     []BodyView        `json:"views"`
}

// Make makes the footprint of a recipe. The error names the dimension that cannot be (Impossible).
// Cost: O(terminals).
func Make(r *design.Recipe) (*LandPattern, error) {
	m, err := made(r)
	if err != nil {
		return nil, err
	}
	m.out.Views = m.views()
	return &m.out, nil
}

// Footprint makes the footprint alone, without the drawings of its body.
func Footprint(r *design.Recipe) (*design.Footprint, error) {
	m, err := made(r)
	if err != nil {
		return nil, err
	}
	return m.f, nil
}

func made(r *design.Recipe) (*maker, error) {
	m, err := begin(r)
	if err != nil {
		return nil, err
	}
	if err := m.family.check(m); err != nil {
		return nil, err
	}
	if err := m.family.make(m); err != nil {
		return nil, err
	}
	for _, n := range r.Missing {
		if !m.left[n] {
			return nil, impossible("", "there is no terminal %s that could be missing", n)
		}
	}
	if len(m.f.Pads) == 0 {
		return nil, impossible("", "no terminal is left")
	}
	m.out.Name = m.family.name(m)
	m.f.Name = m.out.Name
	if r.Name != "" {
		m.f.Name = r.Name
	}
	m.finish()
	for k := range r.Overrides {
		if !slices.ContainsFunc(m.out.Table, func(e Entry) bool { return e.Key == k }) {
			return nil, impossible("", "the family %s has no number called %s that could be given", m.family.Words, k)
		}
	}
	m.f.Recipe = r.Clone()
	if err := m.f.Valid(); err != nil {
		return nil, err
	}
	m.out.Footprint = m.f
	return m, nil
}

// Drawing is the dimensioned body of a recipe, also of one whose footprint cannot be made.
func Drawing(r *design.Recipe) ([]BodyView, error) {
	m, err := begin(r)
	if err != nil {
		return nil, err
	}
	return m.views(), nil
}

// begin reads a recipe's dimensions.
func begin(r *design.Recipe) (*maker, error) {
	if err := r.Valid(); err != nil {
		return nil, err
	}
	f := FamilyOf(r.Family)
	if f == nil {
		return nil, impossible("", "%q is not a family of components", r.Family)
	}
	m := &maker{r: r, family: f, f: &design.Footprint{Pads: []design.Pad{}, Silk: []design.Figure{}, Body: []design.Figure{}}, left: map[string]bool{}}
	m.out.Table, m.out.Notes, m.out.Joints = []Entry{}, []string{}, []Joint{}
	return m, m.read()
}

// maker is a footprint on its way.
type maker struct {
	r      *design.Recipe
	family *Family
	f      *design.Footprint
	out    LandPattern
	left   map[string]bool // terminals that the recipe said are missing, and are

	sections []BodyView

	outline []geom.Corner // of the body, seen from above
	marked  int           // index of the pad that the mark stands beside; -1: none
	excess  int64         // of the courtyard
	polar   bool          // of two terminals: which is which matters
}

// read checks the recipe against its family: every dimension and count it needs, none it does not know.
func (m *maker) read() error {
	for k := range m.r.Dims {
		if !slices.ContainsFunc(m.family.Dims, func(d BodyDimension) bool { return d.Key == k }) {
			return impossible(k, "the family %s has no dimension called %s", m.family.Words, k)
		}
	}
	for _, d := range m.family.Dims {
		s, ok := m.r.Dims[d.Key]
		switch {
		case !ok && !d.Optional:
			return impossible(d.Key, "the %s is missing", d.Words)
		case !ok:
		case s.Min <= 0 && !d.Zero || s.Min < 0:
			return impossible(d.Key, "the %s is %s; it must be more than nothing", d.Words, units.Text(s.Min))
		case s.Max > 500*units.MM:
			return impossible(d.Key, "the %s is %s; 500 mm is the most", d.Words, units.Text(s.Max))
		}
	}
	for k := range m.r.Counts {
		if !slices.ContainsFunc(m.family.Counts, func(c Count) bool { return c.Key == k }) {
			return impossible(k, "the family %s has no count called %s", m.family.Words, k)
		}
	}
	for _, c := range m.family.Counts {
		if n := m.count(c.Key); n < c.Least || n > c.Most || c.Step > 1 && (n-c.Least)%c.Step != 0 {
			if c.Step > 1 {
				return impossible(c.Key, "%d %s cannot be; %d to %d by %ds can", n, c.Words, c.Least, c.Most, c.Step)
			}
			return impossible(c.Key, "%d %s cannot be; %d to %d can", n, c.Words, c.Least, c.Most)
		}
	}
	for k, v := range m.r.Choices {
		i := slices.IndexFunc(m.family.Choices, func(c Choice) bool { return c.Key == k })
		if i < 0 {
			return impossible(k, "the family %s has no choice called %s", m.family.Words, k)
		}
		if c := m.family.Choices[i]; !slices.ContainsFunc(c.Options, func(o Option) bool { return o.Value == v }) {
			return impossible(k, "%q is none of the choices of %s", v, c.Words)
		}
	}
	return nil
}

// dim is a dimension of the recipe; nothing where an optional one is left out.
func (m *maker) dim(key string) design.Range { return m.r.Dims[key] }

// has tells whether an optional dimension is given.
func (m *maker) has(key string) bool { return m.r.Dims[key].Max > 0 }

// count of the recipe, or the usual one.
func (m *maker) count(key string) int {
	if n, ok := m.r.Counts[key]; ok {
		return n
	}
	for _, c := range m.family.Counts {
		if c.Key == key {
			return c.Usual
		}
	}
	return 0
}

// choice of the recipe, or the first there is.
func (m *maker) choice(key string) string {
	if s, ok := m.r.Choices[key]; ok {
		return s
	}
	for _, c := range m.family.Choices {
		if c.Key == key {
			return c.Options[0].Value
		}
	}
	return ""
}

// use is the number that holds: the computed one, or what the recipe says instead.
func (m *maker) use(key, words string, computed int64) int64 {
	e := Entry{Key: key, Words: words, Computed: computed, Used: computed}
	if v, ok := m.r.Overrides[key]; ok {
		e.Override, e.Used = &v, v
	}
	m.out.Table = append(m.out.Table, e)
	return e.Used
}

// useCount is use for a plain number.
func (m *maker) useCount(key, words string, computed int64) int64 {
	v := m.use(key, words, computed)
	m.out.Table[len(m.out.Table)-1].Plain = true
	return v
}

// note says what was done otherwise than the equations say.
func (m *maker) note(format string, args ...any) {
	m.out.Notes = append(m.out.Notes, fmt.Sprintf(format, args...))
}

// pad adds a pad, unless the recipe says that the terminal is missing.
func (m *maker) pad(p design.Pad) {
	if slices.Contains(m.r.Missing, p.Number) {
		m.left[p.Number] = true
		return
	}
	m.f.Pads = append(m.f.Pads, p)
}

// round to the nearest multiple, half away from nothing.
func round(v float64, to int64) int64 {
	t := float64(to)
	if v < 0 {
		return -round(-v, to)
	}
	return int64((v+t/2)/t) * to
}

// up rounds up to a multiple.
func up(v float64, to int64) int64 {
	n := int64(v) / to * to
	if float64(n) < v-0.5 {
		n += to
	}
	return n
}
