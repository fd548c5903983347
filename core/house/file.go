package house

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"slices"
	"strconv"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// The format of a file of what a house makes, and its latest version; docs/house-file.md tells all.
const (
	FileFormat  = "golden-trace-house"
	FileVersion = 1
	LargestFile = 1 << 20 // bytes
)

type file struct {
	Format  string      `json:"format"`
	Version int         `json:"version"`
	Name    string      `json:"name"`
	Text    string      `json:"text,omitempty"`
	Of      string      `json:"variantOf,omitempty"`
	Classes []fileClass `json:"classes"`
}

// fileClass has lengths with their units, and plain numbers for what is none.
type fileClass struct {
	Name   string            `json:"name"`
	Text   string            `json:"text,omitempty"`
	Price  float64           `json:"price"` // as a multiple of that of a plain board
	Limits map[string]string `json:"limits"`
}

// Write writes what a house makes.
func (h *House) Write() ([]byte, error) {
	out := file{FileFormat, FileVersion, h.Name, h.Text, h.Of, []fileClass{}}
	for _, c := range h.Classes {
		f := fileClass{c.Name, c.Text, float64(c.Price) / 100, map[string]string{}}
		for l, v := range c.Limits {
			switch {
			case l.Length():
				f.Limits[string(l)] = units.Format(v, "mm") + " mm"
			case l == Aspect:
				f.Limits[string(l)] = strconv.FormatFloat(float64(v)/100, 'f', -1, 64)
			default:
				f.Limits[string(l)] = strconv.FormatInt(v, 10)
			}
		}
		out.Classes = append(out.Classes, f)
	}
	return json.MarshalIndent(out, "", " ")
}

// ReadFile reads what a house makes from a file. What cannot be meant is refused with a sentence.
func ReadFile(data []byte) (*design.House, error) {
	if len(data) > LargestFile {
		return nil, fmt.Errorf("the file has %d bytes; what a house makes takes at most %d", len(data), LargestFile)
	}
	var f file
	dec := json.NewDecoder(bytes.NewReader(data))
	if err := dec.Decode(&f); err != nil {
		return nil, errors.New("the file cannot be read: it is not the JSON of what a house makes")
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return nil, errors.New("the file cannot be read: something follows what the house makes")
	}
	switch {
	case f.Format != FileFormat:
		return nil, errors.New("the file is not of what a board house makes")
	case f.Version < 1 || f.Version > FileVersion:
		return nil, fmt.Errorf("the file is of version %d; up to %d can be read", f.Version, FileVersion)
	}
	h := &design.House{Name: f.Name, Text: f.Text, Of: f.Of}
	for _, c := range f.Classes {
		class := design.HouseClass{Name: c.Name, Text: c.Text, Price: int(math.Round(min(max(c.Price, -1), 1e6) * 100)), Limits: map[string]int64{}}
		for _, l := range slices.Sorted(maps.Keys(c.Limits)) {
			v, err := value(Limit(l), c.Limits[l])
			if err != nil {
				return nil, fmt.Errorf("the class %s: %w", c.Name, err)
			}
			class.Limits[l] = v
		}
		h.Classes = append(h.Classes, class)
	}
	return h, Knows(h)
}

// value of a limit as it is written.
func value(l Limit, s string) (int64, error) {
	words := limitWords[l]
	switch {
	case words == "":
		return 0, fmt.Errorf("%q is no limit that is known", l)
	case l.Length():
		v, err := units.Parse(s, "mm")
		if err != nil {
			return 0, fmt.Errorf("%s: %w", words, err)
		}
		return v, nil
	}
	v, err := strconv.ParseFloat(s, 64)
	if err != nil || !(v > 0 && v < 1e6) {
		return 0, fmt.Errorf("%s: %q is not a number that can be meant", words, s)
	}
	if l == Aspect {
		v *= 100
	}
	return int64(math.Round(v)), nil
}
