package rules

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/reading"
	"goldentrace/core/units"
)

// The format of a file of rules, and its latest version; docs/rules-file.md tells all.
const (
	FileFormat  = "golden-trace-rules"
	FileVersion = 1
	LargestFile = 4 << 20 // bytes
	mostInFile  = 1000
)

type file struct {
	Format  string              `json:"format"`
	Version int                 `json:"version"`
	Rules   []fileRule          `json:"rules"`
	Classes map[string][]string `json:"classes,omitempty"` // names of nets by class
}

// fileRule names what it holds for by names, so that it can be taken into another project.
type fileRule struct {
	Kind  design.RuleKind `json:"kind"`
	Value fileAmount      `json:"value"`
	Inner *fileAmount     `json:"inner,omitempty"`
	Of    *fileScope      `json:"of,omitempty"` // none: everything
	And   *fileScope      `json:"and,omitempty"`
}

type fileScope struct {
	Class string       `json:"class,omitempty"`
	Net   string       `json:"net,omitempty"`
	Thing design.Thing `json:"thing,omitempty"`
	Layer string       `json:"layer,omitempty"`
	Area  string       `json:"area,omitempty"`
	Part  string       `json:"part,omitempty"`
}

// fileAmount is a length as people write it, or a share of a size between two lengths.
type fileAmount struct {
	Length string  `json:"length,omitempty"`
	Share  float64 `json:"share,omitempty"` // of the size, 1 is all of it
	Least  string  `json:"least,omitempty"`
	Most   string  `json:"most,omitempty"`
}

// Write writes a document's rules and classes, those for everything first.
func Write(d *design.Doc) ([]byte, error) {
	out := file{Format: FileFormat, Version: FileVersion, Rules: []fileRule{}, Classes: map[string][]string{}}
	list := slices.Collect(d.Rules.All())
	slices.SortFunc(list, func(a, b *design.Rule) int {
		return cmp.Or(-boolean(a.Everywhere())+boolean(b.Everywhere()), cmp.Compare(a.Order, b.Order), cmp.Compare(a.ID, b.ID))
	})
	for _, r := range list {
		x := fileRule{Kind: r.Kind, Value: written(r.Value), Of: scopeOut(d, r.A), And: scopeOut(d, r.B)}
		if r.Inner != nil {
			v := written(*r.Inner)
			x.Inner = &v
		}
		out.Rules = append(out.Rules, x)
	}
	for n := range d.Nets.All() {
		if n.Class != "" {
			out.Classes[n.Class] = append(out.Classes[n.Class], n.Name)
		}
	}
	return json.MarshalIndent(out, "", " ")
}

func boolean(b bool) int {
	if b {
		return 1
	}
	return 0
}

func written(a design.Amount) fileAmount {
	if a.Share == 0 {
		return fileAmount{Length: units.Text(a.Fixed)}
	}
	return fileAmount{Share: float64(a.Share) / 1000, Least: units.Text(a.Least), Most: units.Text(a.Most)}
}

func scopeOut(d *design.Doc, c design.Scope) *fileScope {
	if c == (design.Scope{}) {
		return nil
	}
	out := &fileScope{Class: c.Class, Net: c.Net, Thing: c.Thing}
	if l := d.Board.Layer(c.Layer); l != nil {
		out.Layer = l.Name
	}
	if a := d.RuleAreas[c.Area]; a != nil {
		out.Area = a.Name
	}
	if p := d.Placed[c.Part]; p != nil {
		out.Part = p.Designator
	}
	return out
}

// Filed is what a file of rules holds, for a document: rules for everything as numbers, others as rules, and what was left out, in sentences.
type Filed struct {
	Numbers map[design.RuleKind]int64 `json:"numbers"`
	Rules   []design.Rule             `json:"rules"`
	Classes map[string][]string       `json:"classes"` // names of nets that the project has, by class
	Left    []string                  `json:"left"`
}

// Read reads a file of rules for a document. Layers, areas and parts are found by their names; a rule whose names are not there is left out, and that is said.
func Read(d *design.Doc, data []byte) (*Filed, error) {
	if len(data) > LargestFile {
		return nil, fmt.Errorf("the file has %d MB; %d are the most", len(data)>>20, LargestFile>>20)
	}
	var f file
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		return nil, fmt.Errorf("the file is no set of rules: %w", reading.InFile(err))
	}
	switch {
	case f.Format != FileFormat:
		return nil, fmt.Errorf("the file is no set of rules: its format is %q and should be %q", f.Format, FileFormat)
	case f.Version > FileVersion:
		return nil, fmt.Errorf("the file is of version %d; this program reads version %d", f.Version, FileVersion)
	case len(f.Rules) > mostInFile:
		return nil, fmt.Errorf("the file has %d rules; %d are the most", len(f.Rules), mostInFile)
	}
	out := &Filed{Numbers: map[design.RuleKind]int64{}, Rules: []design.Rule{}, Classes: map[string][]string{}, Left: []string{}}
	for i, x := range f.Rules {
		r, lost, err := x.rule(d)
		if err != nil {
			return nil, fmt.Errorf("rule %d of the file: %w", i+1, err)
		}
		switch {
		case lost != "":
			out.Left = append(out.Left, fmt.Sprintf("Rule %d is left out: there is no %s here.", i+1, lost))
		case r.Everywhere() && r.Value.Share == 0:
			out.Numbers[r.Kind] = r.Value.Fixed
		case r.Everywhere():
			out.Left = append(out.Left, fmt.Sprintf("Rule %d is left out: a share of the size cannot hold for everything.", i+1))
		default:
			out.Rules = append(out.Rules, r)
		}
	}
	for _, class := range slices.Sorted(maps.Keys(f.Classes)) {
		for _, n := range f.Classes[class] {
			if d.NetNamed(n) != nil {
				out.Classes[class] = append(out.Classes[class], n)
			}
		}
	}
	return out, nil
}

// rule of the document; lost is what it names that is not there.
func (x fileRule) rule(d *design.Doc) (r design.Rule, lost string, err error) {
	r.Kind = x.Kind
	if r.Value, err = x.Value.amount(); err != nil {
		return r, "", err
	}
	if x.Inner != nil {
		inner, err := x.Inner.amount()
		if err != nil {
			return r, "", err
		}
		r.Inner = &inner
	}
	var also string
	r.A, lost = x.Of.scope(d)
	r.B, also = x.And.scope(d)
	return r, cmp.Or(lost, also), r.Valid()
}

func (a fileAmount) amount() (out design.Amount, err error) {
	if a.Share == 0 {
		if a.Length == "" {
			return out, errors.New("its value is missing")
		}
		out.Fixed, err = units.Parse(a.Length, "mm")
		return out, err
	}
	out.Share = int32(a.Share*1000 + 0.5)
	if out.Least, err = units.Parse(a.Least, "mm"); err != nil {
		return out, err
	}
	out.Most, err = units.Parse(a.Most, "mm")
	return out, err
}

func (s *fileScope) scope(d *design.Doc) (c design.Scope, lost string) {
	if s == nil {
		return c, ""
	}
	c = design.Scope{Class: s.Class, Net: s.Net, Thing: s.Thing}
	if s.Layer != "" {
		for _, l := range d.Board.Copper() {
			if l.Name == s.Layer {
				c.Layer = l.ID
			}
		}
		if c.Layer == 0 {
			lost = "layer " + s.Layer
		}
	}
	if s.Area != "" {
		for a := range d.RuleAreas.All() {
			if a.Name == s.Area {
				c.Area = a.ID
			}
		}
		if c.Area == 0 {
			lost = "area " + s.Area
		}
	}
	if s.Part != "" {
		for p := range d.Placed.All() {
			if p.Designator == s.Part {
				c.Part = p.ID
			}
		}
		if c.Part == 0 {
			lost = "part " + s.Part
		}
	}
	return c, lost
}
