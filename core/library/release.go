package library

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/parts"
)

// Release is one version of a part as a library keeps it, with all that it is drawn with. Refs to pictures are their ids among
// the release's own.
type Release struct {
	Part       *design.LibraryPart `json:"part"`
	Symbols    []*design.Symbol    `json:"symbols"`
	Footprints []*design.Footprint `json:"footprints"`
	Assets     []*design.Asset     `json:"assets,omitempty"`
}

// Bounds of a release.
const (
	mostReleased  = 40
	LargestPieces = 24 << 20 // bytes of all its pictures
)

// ReleaseOf a part of a project, as it is now.
func ReleaseOf(d *design.Doc, p *design.LibraryPart) (*Release, error) {
	r := &Release{Part: bare(p), Symbols: []*design.Symbol{}, Footprints: []*design.Footprint{}}
	for _, s := range parts.Symbols(p, d) {
		r.addSymbol(s)
	}
	if s := d.Symbol(p.Symbol); s != nil {
		r.addSymbol(s)
	}
	for _, name := range append([]string{p.Footprint}, densities(p)...) {
		f := d.Footprint(name)
		if f == nil || slices.ContainsFunc(r.Footprints, func(g *design.Footprint) bool { return g.Name == name }) {
			continue
		}
		c := *f
		c.ID, c.Origin = 0, design.Origin{}
		r.Footprints = append(r.Footprints, &c)
		for _, id := range pictures(f) {
			if a := d.Assets[id]; a != nil && !slices.ContainsFunc(r.Assets, func(x *design.Asset) bool { return x.ID == id }) {
				r.Assets = append(r.Assets, a)
			}
		}
	}
	// densities that were never chosen are not in the project; the release is of what is
	r.Part.Densities = maps.Clone(r.Part.Densities)
	maps.DeleteFunc(r.Part.Densities, func(_, name string) bool { return r.Footprint(name) == nil })
	return r, r.Valid()
}

func (r *Release) addSymbol(s *design.Symbol) {
	if slices.ContainsFunc(r.Symbols, func(x *design.Symbol) bool { return x.Name == s.Name }) {
		return
	}
	c := *s
	c.ID, c.Origin = 0, design.Origin{}
	r.Symbols = append(r.Symbols, &c)
}

func bare(p *design.LibraryPart) *design.LibraryPart {
	c := *p
	c.ID, c.Origin = 0, design.Origin{}
	return &c
}

func densities(p *design.LibraryPart) []string {
	var out []string
	for _, d := range design.Densities {
		if n := p.Densities[d]; n != "" {
			out = append(out, n)
		}
	}
	return out
}

// pictures are the assets a footprint refers to.
func pictures(f *design.Footprint) []design.ID {
	var out []design.ID
	if f.Beneath != nil {
		out = append(out, f.Beneath.Asset)
	}
	if f.Model != 0 {
		out = append(out, f.Model)
	}
	return out
}

// Valid checks that the release is whole: all that its part names is in it, and each thing by itself can be.
func (r *Release) Valid() error {
	if r.Part == nil {
		return fmt.Errorf("it holds no part")
	}
	if n := len(r.Symbols) + len(r.Footprints) + len(r.Assets); n > mostReleased {
		return fmt.Errorf("%s is drawn with %d things; %d are the most", r.Part.Name, n, mostReleased)
	}
	if err := r.Part.Valid(); err != nil {
		return err
	}
	for _, s := range r.Symbols {
		if err := s.Valid(); err != nil {
			return err
		}
	}
	size := 0
	has := map[design.ID]bool{}
	for _, a := range r.Assets {
		if err := a.Valid(); err != nil {
			return err
		}
		size += len(a.Data)
		has[a.ID] = true
	}
	if size > LargestPieces {
		return fmt.Errorf("the pictures of %s have %d MB together; %d are the most", r.Part.Name, size>>20, LargestPieces>>20)
	}
	for _, f := range r.Footprints {
		if err := f.Valid(); err != nil {
			return err
		}
		for _, id := range pictures(f) {
			if !has[id] {
				return fmt.Errorf("a picture of the footprint %s is missing", f.Name)
			}
		}
	}
	for _, name := range append(slices.Clone(r.Part.Units), r.Part.Symbol) {
		if r.Symbol(name) == nil {
			return fmt.Errorf("the symbol %s of %s is missing", name, r.Part.Name)
		}
	}
	for _, name := range append(densities(r.Part), r.Part.Footprint) {
		if name != "" && r.Footprint(name) == nil {
			return fmt.Errorf("the footprint %s of %s is missing", name, r.Part.Name)
		}
	}
	return nil
}

// Symbol of the release by its name, or nil.
func (r *Release) Symbol(name string) *design.Symbol {
	for _, s := range r.Symbols {
		if s.Name == name {
			return s
		}
	}
	return nil
}

// Footprint of the release by its name, or nil.
func (r *Release) Footprint(name string) *design.Footprint {
	for _, f := range r.Footprints {
		if f.Name == name {
			return f
		}
	}
	return nil
}

// Item is the release as an item of a library.
func (r *Release) Item(origin design.Origin) Item {
	it := Item{Part: bare(r.Part), Others: map[string]*design.Footprint{}, Assets: map[design.ID]*design.Asset{}}
	it.Part.Origin = origin
	as := func(s *design.Symbol) *design.Symbol {
		if s == nil {
			return nil
		}
		c := *s
		c.Origin = origin
		return &c
	}
	foot := func(name string) *design.Footprint {
		f := r.Footprint(name)
		if f == nil {
			return nil
		}
		c := *f
		c.Origin = origin
		return &c
	}
	it.Symbol = as(r.Symbol(r.Part.Symbol))
	for _, u := range r.Part.Units {
		it.Units = append(it.Units, as(r.Symbol(u)))
	}
	it.Footprint = foot(r.Part.Footprint)
	for density, name := range r.Part.Densities {
		it.Others[density] = foot(name)
	}
	for _, a := range r.Assets {
		it.Assets[a.ID] = a
	}
	return it
}

// ReleaseFrom makes a release of an item.
func ReleaseFrom(it Item) *Release {
	r := &Release{Part: bare(it.Part), Symbols: []*design.Symbol{}, Footprints: []*design.Footprint{}}
	for _, s := range append(slices.Clone(it.Units), it.Symbol) {
		if s != nil {
			r.addSymbol(s)
		}
	}
	add := func(f *design.Footprint) {
		if f != nil && r.Footprint(f.Name) == nil {
			c := *f
			c.ID, c.Origin = 0, design.Origin{}
			r.Footprints = append(r.Footprints, &c)
		}
	}
	add(it.Footprint)
	for _, d := range design.Densities {
		add(it.Others[d])
	}
	for _, a := range it.Assets {
		r.Assets = append(r.Assets, a)
	}
	slices.SortFunc(r.Assets, func(a, b *design.Asset) int { return int(a.ID - b.ID) })
	return r
}

// Same tells whether two releases are the same but for who checked them.
func (r *Release) Same(o *Release) bool {
	print := func(r *Release) string {
		c := Release{Part: bare(r.Part), Symbols: r.Symbols, Footprints: slices.Clone(r.Footprints)}
		c.Part.Checked = nil
		for i, f := range c.Footprints {
			g := *f
			g.Checked = nil
			if g.Beneath != nil { // its id is another in each project
				b := *g.Beneath
				b.Asset = 0
				g.Beneath = &b
			}
			g.Model = 0
			c.Footprints[i] = &g
		}
		data, _ := json.Marshal(c) // plain data always marshals
		return string(data)
	}
	return print(r) == print(o)
}

// Equal tells whether two releases are the same, who checked them included.
func (r *Release) Equal(o *Release) bool {
	a, b := r.Part.Checked, o.Part.Checked
	return (a == nil) == (b == nil) && (a == nil || *a == *b) && r.Same(o)
}

// Changes are in sentences what is otherwise in the second release.
func Changes(a, b *Release) []string {
	return parts.Differences(parts.Version{Part: a.Part, From: a}, parts.Version{Part: b.Part, From: b})
}

// Flaws are what is wrong with the part: pins and pads that do not fit, for each of its footprints, and the footprints by themselves.
func (r *Release) Flaws(l parts.Limits) []parts.Flaw {
	out := []parts.Flaw{}
	for _, f := range r.Footprints {
		_, found := parts.Mapping(r.Part, f.Name, r)
		out = append(append(out, found...), parts.CheckFootprint(f, l)...)
	}
	return out
}
