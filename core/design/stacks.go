package design

import (
	"fmt"
	"slices"
	"strconv"
)

// MostLayers bounds the copper layers of a board.
const MostLayers = 32

// What is taken where nobody says otherwise: copper of one ounce, laminate of woven glass and epoxy at 1 GHz.
const (
	usualRoughness    = 2_000
	usualPermittivity = 4_300
	usualLoss         = 20_000
)

func copper(name string) StackLayer {
	return StackLayer{Name: name, Kind: CopperLayer, Thickness: Ounce, Material: "Copper", Roughness: usualRoughness}
}

func laminate(name string, kind LayerKind, thick int64) StackLayer {
	return StackLayer{Name: name, Kind: kind, Thickness: thick, Material: "FR-4", Permittivity: usualPermittivity, Loss: usualLoss}
}

// coats are the usual ones of a side.
func coats(bottom bool) map[LayerKind]StackLayer {
	side := "Top "
	if bottom {
		side = "Bottom "
	}
	return map[LayerKind]StackLayer{
		SilkLayer:   {Name: side + "silk", Kind: SilkLayer, Thickness: 10_000, Material: "Epoxy ink"},
		MaskLayer:   {Name: side + "mask", Kind: MaskLayer, Thickness: 20_000, Material: "Epoxy", Permittivity: 3_800, Loss: 25_000},
		FinishLayer: {Name: side + "finish", Kind: FinishLayer, Thickness: 1_000, Material: "Tin"},
	}
}

// WithCoats is a stack with mask and silk on both sides.
func WithCoats(stack []StackLayer) []StackLayer {
	top, bottom := coats(false), coats(true)
	return slices.Concat([]StackLayer{top[SilkLayer], top[MaskLayer]}, stack, []StackLayer{bottom[MaskLayer], bottom[SilkLayer]})
}

// oneBelow is a board with copper on its lower side alone, which the mask covers; what is printed lies above, where the parts stand.
func oneBelow() []StackLayer {
	return []StackLayer{coats(false)[SilkLayer], laminate("Core", CoreLayer, 1_565_000), copper("Bottom"), coats(true)[MaskLayer]}
}

// TwoLayers is the usual stack of a two-sided board of 1.6 mm with 35 µm copper.
func TwoLayers() []StackLayer {
	return WithCoats([]StackLayer{copper("Top"), laminate("Core", CoreLayer, 1_530_000), copper("Bottom")})
}

// FourLayers is a usual stack of four copper layers, 1.6 mm thick: 35 µm outside and inside, a
// thick core between two prepregs.
func FourLayers() []StackLayer {
	return WithCoats([]StackLayer{
		copper("Top"),
		laminate("Prepreg 1", PrepregLayer, 210_000),
		copper("Inner 1"),
		laminate("Core", CoreLayer, 1_040_000),
		copper("Inner 2"),
		laminate("Prepreg 2", PrepregLayer, 210_000),
		copper("Bottom"),
	})
}

// WithLayers is the stack with so many copper layers. Those that go are the lowest inner ones, with the dielectric below each; of two
// layers four come by two around the middle, so that the build is symmetric, all others above the lowest: so those that came last go
// first. The thickness stays what it was as far as the dielectrics can give or take it. drop are the copper layers that go.
func (b *Board) WithLayers(n int) (is *Board, drop []StackLayer, err error) {
	if n < 1 || n > MostLayers {
		return nil, nil, fmt.Errorf("a board has 1 to %d copper layers, not %d", MostLayers, n)
	}
	above, below := Laminate(b.Stack)
	stack := slices.Clone(b.Stack[above : len(b.Stack)-below])
	total := thickness(stack)
	for have := b.Layers(); have > n; have-- {
		at := lowestButOne(stack, have)
		drop = append(drop, stack[at])
		end := at + 1
		if end < len(stack) && !stack[end].Copper() {
			end++ // with the dielectric below it
		}
		stack = append(stack[:at:at], stack[end:]...)
	}
	have := b.Layers()
	if have == 2 && n >= 4 {
		stack = fourOf(stack)
		have = 4
	}
	for ; have < n; have++ {
		stack = oneMore(stack, have)
	}
	if n != b.Layers() {
		evened(stack, total)
	}
	return b.Stacked(slices.Concat(b.Stack[:above], stack, b.Stack[len(b.Stack)-below:])), drop, nil
}

// oneMore is the stack with one more copper layer: above the lowest, with a prepreg below it; a lone one
// gets another on its free side.
func oneMore(stack []StackLayer, have int) []StackLayer {
	if have == 1 {
		first, last := stack[0].Copper(), stack[len(stack)-1].Copper()
		switch {
		case !first:
			return append([]StackLayer{copper(freeName(stack, "Top"))}, stack...)
		case last: // nothing but copper
			stack = append(stack, laminate(freeName(stack, "Core"), CoreLayer, between))
		}
		return append(stack, copper(freeName(stack, "Bottom")))
	}
	return slices.Insert(stack, lowest(stack), copper(freeName(stack, "Inner ")), laminate(freeName(stack, "Prepreg "), PrepregLayer, between))
}

// between is the thickness of a dielectric that comes with a new copper layer.
const between = 200_000

// fourOf is a stack of two copper layers with two more between them, each behind a prepreg.
func fourOf(stack []StackLayer) []StackLayer {
	put := func(at int, add func() StackLayer) { stack = slices.Insert(stack, at, add()) }
	inner := func() StackLayer { return copper(freeName(stack, "Inner ")) }
	prepreg := func() StackLayer { return laminate(freeName(stack, "Prepreg "), PrepregLayer, between) }
	first := slices.IndexFunc(stack, func(l StackLayer) bool { return l.Copper() })
	put(first+1, inner)
	put(first+1, prepreg)
	put(lowest(stack), inner)
	put(lowest(stack), prepreg)
	return stack
}

// lowest is the place of the lowest copper layer.
func lowest(stack []StackLayer) (at int) {
	for i := range stack {
		if stack[i].Copper() {
			at = i
		}
	}
	return at
}

// lowestButOne is the place of the copper layer above the lowest, of the lowest when it is alone.
func lowestButOne(stack []StackLayer, have int) int {
	last, before := -1, -1
	for i, l := range stack {
		if l.Copper() {
			last, before = i, last
		}
	}
	if have > 2 {
		return before
	}
	return last
}

func freeName(stack []StackLayer, stem string) string {
	taken := map[string]bool{}
	for _, l := range stack {
		taken[l.Name] = true
	}
	if !taken[stem] && stem[len(stem)-1] != ' ' {
		return stem
	}
	for i := 1; ; i++ {
		if s := stem + strconv.Itoa(i); !taken[s] {
			return s
		}
	}
}

// evened gives or takes the thickness that lacks to the thickest dielectric, then to the next, none thinner than 0.1 mm; where as
// much lies on the other side of the middle, both have half of it.
func evened(stack []StackLayer, total int64) {
	const thin = 100_000
	for range stack {
		lack := total - thickness(stack)
		at := -1
		for i, l := range stack {
			if !l.Copper() && (at < 0 || l.Thickness > stack[at].Thickness) {
				at = i
			}
		}
		if lack == 0 || at < 0 || stack[at].Thickness+lack < thin && stack[at].Thickness <= thin {
			return
		}
		if other := &stack[len(stack)-1-at]; other != &stack[at] && !other.Copper() && other.Thickness == stack[at].Thickness {
			other.Thickness = max(other.Thickness+lack/2, thin)
			lack -= lack / 2
		}
		stack[at].Thickness = max(stack[at].Thickness+lack, thin)
	}
}

// WithLayer is the stack with a new layer of a kind above or below one there is; new copper that would lie on other copper has a
// prepreg on that side. A coat goes where it belongs on the side of the board on which that layer is.
func (b *Board) WithLayer(kind LayerKind, at LayerID, under bool) ([]StackLayer, error) {
	stack := slices.Clone(b.Stack)
	i := slices.IndexFunc(stack, func(l StackLayer) bool { return l.ID == at })
	if i < 0 {
		return nil, fmt.Errorf("the stack has no layer with the id %d", at)
	}
	above, below := Laminate(stack)
	beneath := i >= len(stack)-below || i >= above && under
	if under {
		i++
	}
	switch kind {
	case CopperLayer:
		i = min(max(i, above), len(stack)-below)
		put := []StackLayer{copper(freeName(stack, "Inner "))}
		if i > above && stack[i-1].Copper() {
			put = append([]StackLayer{laminate(freeName(stack, "Prepreg "), PrepregLayer, between)}, put...)
		}
		if i < len(stack)-below && stack[i].Copper() {
			put = append(put, laminate(freeName(append(stack, put...), "Prepreg "), PrepregLayer, between))
		}
		return slices.Insert(stack, i, put...), nil
	case CoreLayer, PrepregLayer:
		stem := map[LayerKind]string{CoreLayer: "Core ", PrepregLayer: "Prepreg "}[kind]
		return slices.Insert(stack, min(max(i, above), len(stack)-below), laminate(freeName(stack, stem), kind, between)), nil
	}
	coat, ok := coats(beneath)[kind]
	if !ok {
		return nil, fmt.Errorf("%q is not a kind of layer", kind)
	}
	if b.Coated(kind, beneath) {
		return nil, fmt.Errorf("that side has %s already", kind)
	}
	coat.Name = freeName(stack, coat.Name)
	if beneath {
		i = len(stack) - below
		for i < len(stack) && stack[i].outward() < coat.outward() {
			i++
		}
	} else {
		for i = 0; i < above && stack[i].outward() > coat.outward(); i++ {
		}
	}
	return slices.Insert(stack, i, coat), nil
}
