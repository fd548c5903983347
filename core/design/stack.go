package design

import (
	"fmt"
	"slices"

	"goldentrace/core/units"
)

// LayerID names a layer of the stack within its board. It survives that layers come, go and change
// places, and is never given twice; none is 0.
type LayerID int32

// LayerKind is what a layer of the stack is of.
type LayerKind string

// What layers of the stack are of. Mask, silk and finish are coats: they lie outside, on either side at most one of each, the silk on
// the mask, the mask on the finish.
const (
	CopperLayer  LayerKind = "copper"
	CoreLayer    LayerKind = "core"    // hard laminate
	PrepregLayer LayerKind = "prepreg" // what glues it together
	MaskLayer    LayerKind = "mask"
	SilkLayer    LayerKind = "silk"
	FinishLayer  LayerKind = "finish" // what protects copper that the mask leaves free
)

// LayerKinds lists them.
var LayerKinds = []LayerKind{CopperLayer, CoreLayer, PrepregLayer, MaskLayer, SilkLayer, FinishLayer}

// StackLayer is one layer of the board's stack.
type StackLayer struct {
	ID        LayerID   `json:"id"`
	Name      string    `json:"name"`
	Kind      LayerKind `json:"kind"`
	Thickness int64     `json:"thickness"` // nanometres
	Material  string    `json:"material"`
	// What signals meet in it; 0: nobody said.
	Permittivity int32 `json:"permittivity,omitempty"` // relative to the vacuum's, in thousandths
	Loss         int32 `json:"loss,omitempty"`         // tangent of the angle of loss, in millionths
	Roughness    int64 `json:"roughness,omitempty"`    // of copper: root mean square, nanometres
}

// Copper tells whether the layer is one of copper.
func (l *StackLayer) Copper() bool { return l.Kind == CopperLayer }

// Coat tells whether the layer lies on the board rather than in it: mask, silk, finish.
func (l *StackLayer) Coat() bool { return l.outward() > 0 }

// Dielectric tells whether the layer lies between copper.
func (l *StackLayer) Dielectric() bool { return l.Kind == CoreLayer || l.Kind == PrepregLayer }

// outward is how far outside a coat lies; 0: it is none.
func (l *StackLayer) outward() int {
	return slices.Index([]LayerKind{FinishLayer, MaskLayer, SilkLayer}, l.Kind) + 1
}

// Ounce is the thickness of copper that the trade calls one ounce (of it on a square foot), in nanometres.
const Ounce = 35_000

// Stacked is the board with the layers, from the top, each with an id of its own: those that have none get the next ones, the
// coats after the rest.
func (b Board) Stacked(layers []StackLayer) *Board {
	b.Stack = slices.Clone(layers)
	b.Next = max(b.Next, 1)
	for _, l := range layers {
		b.Next = max(b.Next, l.ID+1)
	}
	for _, coats := range []bool{false, true} {
		for i := range b.Stack {
			if l := &b.Stack[i]; l.ID == 0 && l.Coat() == coats {
				l.ID = b.Next
				b.Next++
			}
		}
	}
	return &b
}

// Copper lists the copper layers from the top.
func (b *Board) Copper() []StackLayer {
	var out []StackLayer
	for _, l := range b.Stack {
		if l.Copper() {
			out = append(out, l)
		}
	}
	return out
}

// Layers is how many copper layers the board has.
func (b *Board) Layers() int {
	n := 0
	for _, l := range b.Stack {
		if l.Copper() {
			n++
		}
	}
	return n
}

// CopperNames lists the names of the copper layers from the top.
func (b *Board) CopperNames() []string {
	var out []string
	for _, l := range b.Copper() {
		out = append(out, l.Name)
	}
	return out
}

// At is the copper layer at a position, 0 at the top; none: 0.
func (b *Board) At(position int) LayerID {
	for _, l := range b.Stack {
		if !l.Copper() {
			continue
		}
		if position == 0 {
			return l.ID
		}
		position--
	}
	return 0
}

// Top is the uppermost copper layer.
func (b *Board) Top() LayerID { return b.At(0) }

// Bottom is the lowest copper layer.
func (b *Board) Bottom() LayerID { return b.At(b.Layers() - 1) }

// Position of a copper layer, 0 at the top; −1 when there is no such copper layer.
func (b *Board) Position(id LayerID) int {
	at := 0
	for _, l := range b.Stack {
		if !l.Copper() {
			continue
		}
		if l.ID == id {
			return at
		}
		at++
	}
	return -1
}

// Layer of the stack with the id, or nil.
func (b *Board) Layer(id LayerID) *StackLayer {
	for i := range b.Stack {
		if b.Stack[i].ID == id {
			return &b.Stack[i]
		}
	}
	return nil
}

// Laminate is the stack without its coats: how many of these lie above it and below it.
func Laminate(stack []StackLayer) (above, below int) {
	for above < len(stack) && stack[above].Coat() {
		above++
	}
	for below < len(stack)-above && stack[len(stack)-1-below].Coat() {
		below++
	}
	return above, below
}

// OnlyBelow tells whether the board's only copper lies on its lower side.
func (b *Board) OnlyBelow() bool {
	above, _ := Laminate(b.Stack)
	return b.Layers() == 1 && !b.Stack[above].Copper()
}

// Coated tells whether the board has a coat of a kind on a side.
func (b *Board) Coated(kind LayerKind, bottom bool) bool {
	above, below := Laminate(b.Stack)
	list := b.Stack[:above]
	if bottom {
		list = b.Stack[len(b.Stack)-below:]
	}
	return slices.ContainsFunc(list, func(l StackLayer) bool { return l.Kind == kind })
}

// thickness of the laminate.
func thickness(stack []StackLayer) (sum int64) {
	for i := range stack {
		if !stack[i].Coat() {
			sum += stack[i].Thickness
		}
	}
	return sum
}

// Thickness of the board, copper and what lies between, without the coats, in nanometres.
func (b *Board) Thickness() int64 { return thickness(b.Stack) }

// Uneven says in sentences where the build is not symmetric about its middle, so that the board may warp. Boards with copper on one
// layer are never symmetric, and are not spoken of.
func (b *Board) Uneven() (out []string) {
	above, below := Laminate(b.Stack)
	list := b.Stack[above : len(b.Stack)-below]
	if b.Layers() < 2 {
		return nil
	}
	for i := range len(list) / 2 {
		up, low := &list[i], &list[len(list)-1-i]
		switch {
		case up.Copper() != low.Copper():
			return append(out, fmt.Sprintf("%s lies where %s lies on the other side", up.Name, low.Name))
		case up.Thickness != low.Thickness:
			out = append(out, fmt.Sprintf("%s is %s thick, %s on the other side %s", up.Name, units.Text(up.Thickness), low.Name,
				units.Text(low.Thickness)))
		case up.Kind != low.Kind || up.Material != low.Material:
			out = append(out, fmt.Sprintf("%s is of %s (%s), %s on the other side of %s (%s)", up.Name, up.Material, up.Kind, low.Name,
				low.Material, low.Kind))
		}
	}
	return out
}

// validStack checks the layers and their order.
func (b *Board) validStack() error {
	if err := most("the stack", len(b.Stack), 200); err != nil {
		return err
	}
	if n := b.Layers(); n < 1 || n > MostLayers {
		return fmt.Errorf("a board has 1 to %d copper layers, not %d", MostLayers, n)
	}
	seen := map[LayerID]bool{}
	for i := range b.Stack {
		l := &b.Stack[i]
		if err := firstOf(
			name("layer's name", l.Name),
			check(slices.Contains(LayerKinds, l.Kind), "%s is of the unknown kind %q", l.Name, l.Kind),
			length("the thickness of "+l.Name, l.Thickness, 0),
			text("material", l.Material),
			check(l.Permittivity == 0 || l.Dielectric() || l.Coat(), "%s is of copper, which has no dielectric constant", l.Name),
			check(l.Permittivity == 0 || l.Permittivity >= 1000 && l.Permittivity <= 100_000,
				"the dielectric constant of %s is %g; 1 to 100 are meant", l.Name, float64(l.Permittivity)/1000),
			check(l.Loss >= 0 && l.Loss <= 1_000_000, "the loss tangent of %s is %g; 0 to 1 are meant", l.Name, float64(l.Loss)/1e6),
			check(l.Roughness >= 0 && l.Roughness <= 50*units.Micrometre, "the roughness of %s is %s; 0 to 0.05 mm are meant", l.Name,
				units.Text(l.Roughness)),
			check(l.ID > 0 && l.ID < b.Next, "the layer %s has the id %d; ids lie between 1 and %d", l.Name, l.ID, b.Next-1),
			check(!seen[l.ID], "two layers have the id %d", l.ID),
		); err != nil {
			return err
		}
		seen[l.ID] = true
	}
	above, below := Laminate(b.Stack)
	for _, l := range b.Stack[above : len(b.Stack)-below] {
		if l.Coat() {
			return fmt.Errorf("%s is %s; that lies outside, on the board's copper", l.Name, l.Kind)
		}
	}
	upper, lower := slices.Clone(b.Stack[:above]), b.Stack[len(b.Stack)-below:]
	slices.Reverse(upper)
	for _, coats := range [][]StackLayer{upper, lower} {
		for i := 1; i < len(coats); i++ {
			if coats[i].outward() <= coats[i-1].outward() {
				return fmt.Errorf("%s cannot lie on %s; outwards from the copper come finish, mask and silk, each once", coats[i].Name, coats[i-1].Name)
			}
		}
	}
	return firstOf(check(b.Wanted >= 0 && b.Wanted <= units.Limit, "a board cannot be %s thick", units.Text(b.Wanted)), b.validHoles())
}
