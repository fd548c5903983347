package landpattern

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/reading"
	"goldentrace/core/units"
)

// LargestFile bounds a file of a body's dimensions, in bytes.
const LargestFile = 1 << 20

// fileBody is a body's dimensions as people write them; docs/land-pattern-file.md tells all.
type fileBody struct {
	Format    string                     `json:"format"`
	Version   int                        `json:"version"`
	Family    string                     `json:"family"`
	Name      string                     `json:"name"`
	Counts    map[string]int             `json:"counts"`
	Choices   map[string]string          `json:"choices"`
	Missing   []string                   `json:"missing"`
	Dims      map[string]json.RawMessage `json:"dimensions"`
	Density   string                     `json:"density"`
	Overrides map[string]json.RawMessage `json:"overrides"`
	Making    map[string]json.RawMessage `json:"making"`
}

// The format of such a file, and the latest version of it.
const (
	FileFormat  = "golden-trace-body"
	FileVersion = 1
)

// ReadFile reads a body's dimensions from JSON. A length is a text with its unit ("2.54 mm", "100 mil") or a
// number of millimetres; a dimension is one length, or [least, most], or a text "least .. most" or "nominal ± tolerance".
func ReadFile(r io.Reader) (*design.Recipe, error) {
	data, err := io.ReadAll(io.LimitReader(r, LargestFile+1))
	if err != nil {
		return nil, fmt.Errorf("the file cannot be read: %w", err)
	}
	if len(data) > LargestFile {
		return nil, fmt.Errorf("the file is larger than %d kB", LargestFile>>10)
	}
	var f fileBody
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		return nil, fmt.Errorf("the file is not a body's dimensions: %w", reading.InFile(err))
	}
	switch {
	case f.Format != FileFormat:
		return nil, fmt.Errorf("the file is not a body's dimensions: its format is %q and should be %q", f.Format, FileFormat)
	case f.Version > FileVersion:
		return nil, fmt.Errorf("the file is of version %d; this program reads version %d", f.Version, FileVersion)
	}
	out := &design.Recipe{Family: f.Family, Name: f.Name, Counts: f.Counts, Choices: f.Choices, Missing: f.Missing, Density: f.Density,
		Dims: map[string]design.Range{}, Making: design.UsualMaking()}
	if out.Density == "" {
		out.Density = design.Nominal
	}
	for k, raw := range f.Dims {
		if out.Dims[k], err = readSpan(raw); err != nil {
			return nil, fmt.Errorf("the dimension %s: %w", k, err)
		}
	}
	for k, raw := range f.Overrides {
		v, err := readLength(raw)
		if err != nil {
			return nil, fmt.Errorf("the number %s: %w", k, err)
		}
		if out.Overrides == nil {
			out.Overrides = map[string]int64{}
		}
		out.Overrides[k] = v
	}
	return out, readMaking(f.Making, &out.Making)
}

func readMaking(fields map[string]json.RawMessage, m *design.Making) error {
	lengths := map[string]*int64{"fabrication": &m.Fabrication, "placement": &m.Placement, "round": &m.Round, "gap": &m.Gap,
		"silkWidth": &m.SilkWidth, "silkGap": &m.SilkGap, "yardRound": &m.YardRound}
	for k, raw := range fields {
		var err error
		switch at := lengths[k]; {
		case at != nil:
			*at, err = readLength(raw)
		case k == "form":
			err = json.Unmarshal(raw, &m.Form)
		case k == "leave":
			err = json.Unmarshal(raw, &m.Leave)
		default:
			err = errors.New("it is not among what can be said of the making")
		}
		if err != nil {
			return fmt.Errorf("%s: %w", k, err)
		}
	}
	return nil
}

// readLength reads a text with a unit, or a number of millimetres.
func readLength(raw json.RawMessage) (int64, error) {
	var mm float64
	if json.Unmarshal(raw, &mm) == nil {
		if mm > 1e6 || mm < -1e6 {
			return 0, errors.New("the length is out of reach")
		}
		return units.MMf(mm), nil
	}
	var s string
	if err := json.Unmarshal(raw, &s); err != nil {
		return 0, errors.New("a length is a number of millimetres or a text with its unit")
	}
	return units.Parse(s, "mm")
}

func readSpan(raw json.RawMessage) (design.Range, error) {
	var pair []json.RawMessage
	if json.Unmarshal(raw, &pair) == nil {
		if len(pair) != 2 {
			return design.Range{}, errors.New("least and most are meant, two lengths")
		}
		least, err := readLength(pair[0])
		if err != nil {
			return design.Range{}, err
		}
		most, err := readLength(pair[1])
		return design.Range{Min: least, Max: most}, err
	}
	var s string
	if json.Unmarshal(raw, &s) == nil {
		return ReadSpan(s, "mm")
	}
	v, err := readLength(raw)
	return design.Range{Min: v, Max: v}, err
}

// ReadSpan reads a dimension as people write it: "5.8 .. 6.2 mm", "6 ± 0.2 mm", "1.27". Lengths that carry no unit
// stand in the other's, or in the unit given.
func ReadSpan(s, unit string) (design.Range, error) {
	for _, sep := range []string{"...", "..", "…", "–"} {
		if a, b, ok := strings.Cut(s, sep); ok {
			least, most, err := both(a, b, unit)
			return design.Range{Min: least, Max: most}, err
		}
	}
	for _, sep := range []string{"±", "+-", "+/-"} {
		if a, b, ok := strings.Cut(s, sep); ok {
			middle, tolerance, err := both(a, b, unit)
			return design.Range{Min: middle - tolerance, Max: middle + tolerance}, err
		}
	}
	v, err := units.Parse(s, unit)
	return design.Range{Min: v, Max: v}, err
}

// both reads two lengths; the first takes the unit of the second when it has none.
func both(a, b, unit string) (int64, int64, error) {
	v, err := units.Parse(b, unit)
	if err != nil {
		return 0, 0, err
	}
	own := strings.TrimLeft(strings.TrimSpace(b), "0123456789. ")
	if units.Known(own) && strings.Trim(strings.TrimSpace(a), "0123456789. ") == "" {
		unit = own
	}
	u, err := units.Parse(a, unit)
	return u, v, err
}

// Made is a footprint as a file tells it; lengths are nanometres.
type Made struct {
	Format    string            `json:"format"`
	Version   int               `json:"version"`
	Unit      string            `json:"unit"`
	Name      string            `json:"name"`
	Footprint *design.Footprint `json:"footprint"`
	Numbers   []Entry           `json:"numbers"`
	Notes     []string          `json:"notes"`
	Joints    []Joint           `json:"joints"`
}

// FileOf is what a file tells of a footprint.
func FileOf(r *LandPattern) Made {
	return Made{"golden-trace-land-pattern", 1, "nm", r.Footprint.Name, r.Footprint, r.Table, r.Notes, r.Joints}
}
