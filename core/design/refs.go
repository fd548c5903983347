package design

// Pins, pads and figures are told apart by refs within their symbol or footprint. A ref is kept in the thing once its
// owner is first edited; before, it is the thing's place in its list, from 1.

// Ref of the thing at a place of its list.
func Ref(own, place int) int {
	if own != 0 {
		return own
	}
	return place + 1
}

// named writes the refs of a list into its things, and gives the least free one.
func named[T any](list []T, id func(*T) *int) (out []T, free int) {
	out = make([]T, len(list))
	copy(out, list)
	free = 1
	for i := range out {
		at := id(&out[i])
		*at = Ref(*at, i)
		free = max(free, *at+1)
	}
	return out, free
}

// Named is a copy of the symbol in which every pin and figure has its ref, with the least free ref of each.
func (s *Symbol) Named() (out *Symbol, pins, figures int) {
	c := *s
	c.Pins, pins = named(s.Pins, func(p *Pin) *int { return &p.ID })
	c.Figures, figures = named(s.Figures, func(f *Figure) *int { return &f.ID })
	return &c, pins, figures
}

// Named is a copy of the footprint in which every pad and figure has its ref, with the least free ref of pads and figures. Silk and
// body share the refs of figures.
func (f *Footprint) Named() (out *Footprint, pads, figures int) {
	c := *f
	c.Pads, pads = named(f.Pads, func(p *Pad) *int { return &p.ID })
	var s, b int
	c.Silk, s = named(f.Silk, func(g *Figure) *int { return &g.ID })
	c.Body, b = named(f.Body, func(g *Figure) *int { return &g.ID })
	return &c, pads, max(s, b)
}

// PadRef is the pad with the ref, or nil.
func (f *Footprint) PadRef(ref int) *Pad {
	for i := range f.Pads {
		if Ref(f.Pads[i].ID, i) == ref {
			return &f.Pads[i]
		}
	}
	return nil
}

// distinctRefs checks that no two things of a list have one ref.
func distinctRefs[T any](what string, list []T, id func(*T) int) error {
	seen := make(map[int]bool, len(list))
	for i := range list {
		r := Ref(id(&list[i]), i)
		if err := check(id(&list[i]) >= 0 && !seen[r], "%s has two things with the ref %d", what, r); err != nil {
			return err
		}
		seen[r] = true
	}
	return nil
}
