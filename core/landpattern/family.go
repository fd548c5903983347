package landpattern

import "goldentrace/core/design"

// BodyDimension is a dimension of a family's bodies.
type BodyDimension struct {
	Key      string `json:"key"`
	Words    string `json:"words"`
	Optional bool   `json:"optional,omitempty"`
	Zero     bool   `json:"zero,omitempty"` // it may be nothing
}

// Count is something of which a body has so many.
type Count struct {
	Key   string `json:"key"`
	Words string `json:"words"`
	Least int    `json:"least"`
	Most  int    `json:"most"`
	Step  int    `json:"step,omitempty"`
	Usual int    `json:"usual"`
}

// Choice is what is not a number.
type Choice struct {
	Key     string   `json:"key"`
	Words   string   `json:"words"`
	Options []Option `json:"options"`
}

// Option of a choice; the first is the usual one.
type Option struct {
	Value string `json:"value"`
	Words string `json:"words"`
}

// Family of components whose footprints are computed alike.
type Family struct {
	ID      string          `json:"id"`
	Words   string          `json:"words"`
	Group   string          `json:"group"`   // under which families are listed
	Example design.Recipe   `json:"example"` // a body to begin with
	Dims    []BodyDimension `json:"dims"`
	Counts  []Count         `json:"counts"`
	Choices []Choice        `json:"choices"`

	check func(*maker) error
	make  func(*maker) error
	name  func(*maker) string
	views func(*maker) []BodyView
}

// Groups of families.
const (
	twoTerminals = "Two terminals"
	twoRows      = "Two rows"
	fourSides    = "Four sides"
	grids        = "Grids"
	leaded       = "Leads through the board"
)

var families []*Family

func init() { // families make footprints, which ask for families
	families = []*Family{
		chipFamily(), mouldedFamily(), cylinderFamily(), canFamily(),
		gullTwoFamily(), noLeadTwoFamily(), jLeadTwoFamily(), dualInlineFamily(), transistorFamily(),
		gullFourFamily(), noLeadFourFamily(), jLeadFourFamily(),
		ballGridFamily(), pinGridFamily(),
		headerFamily(), axialFamily(), radialFamily(), circularFamily(),
	}
	for _, f := range families {
		f.Example.Family, f.Example.Density, f.Example.Making = f.ID, design.Nominal, design.UsualMaking()
	}
}

// Families lists them in the order in which they are offered.
func Families() []*Family { return families }

// FamilyOf is the family with the id, or nil.
func FamilyOf(id string) *Family {
	for _, f := range families {
		if f.ID == id {
			return f
		}
	}
	return nil
}

func dims(words ...string) []BodyDimension {
	var out []BodyDimension
	for i := 0; i+1 < len(words); i += 2 {
		out = append(out, BodyDimension{Key: words[i], Words: words[i+1]})
	}
	return out
}

func (f *Family) optional(words ...string) *Family {
	for _, d := range dims(words...) {
		d.Optional = true
		f.Dims = append(f.Dims, d)
	}
	return f
}

func options(words ...string) []Option {
	var out []Option
	for i := 0; i+1 < len(words); i += 2 {
		out = append(out, Option{words[i], words[i+1]})
	}
	return out
}

// The exposed pad beneath a body is the same in all families that have one.
func (f *Family) withThermal() *Family {
	f.optional("thermalLength", "length of the exposed pad", "thermalWidth", "width of the exposed pad")
	f.Choices = append(f.Choices, Choice{"vias", "vias in the exposed pad", options("none", "none", "grid", "a grid of them")})
	return f
}

// example makes a recipe from millimetres: a name, then least and most.
func example(counts map[string]int, dims map[string][2]float64) design.Recipe {
	r := design.Recipe{Counts: counts, Dims: map[string]design.Range{}}
	for k, v := range dims {
		r.Dims[k] = design.Range{Min: mm(v[0]), Max: mm(v[1])}
	}
	return r
}
