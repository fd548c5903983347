package design

import (
	"fmt"
	"strconv"
)

// MostLayers bounds the copper layers of a board.
const MostLayers = 32

const copperThick = 35_000

func copper(name string) StackLayer {
	return StackLayer{Name: name, Copper: true, Thickness: copperThick, Material: "Copper"}
}

// TwoLayers is the usual stack of a two-sided board of 1.6 mm with 35 µm copper.
func TwoLayers() []StackLayer {
	return []StackLayer{copper("Top"), {Name: "Core", Thickness: 1_530_000, Material: "FR-4"}, copper("Bottom")}
}

// FourLayers is a usual stack of four copper layers, 1.6 mm thick: 35 µm outside and inside, a
// thick core between two prepregs.
func FourLayers() []StackLayer {
	return []StackLayer{
		copper("Top"),
		{Name: "Prepreg 1", Thickness: 210_000, Material: "FR-4"},
		copper("Inner 1"),
		{Name: "Core", Thickness: 1_040_000, Material: "FR-4"},
		copper("Inner 2"),
		{Name: "Prepreg 2", Thickness: 210_000, Material: "FR-4"},
		copper("Bottom"),
	}
}

// WithLayers is the stack with so many copper layers: new ones come in above the lowest, each below a
// prepreg; those that go are the lowest inner ones. The thickness of the whole stays what it was as
// far as the dielectrics can give or take it. drop are the copper layers that go.
func (b *Board) WithLayers(n int) (is *Board, drop []StackLayer, err error) {
	if n < 1 || n > MostLayers {
		return nil, nil, fmt.Errorf("a board has 1 to %d copper layers, not %d", MostLayers, n)
	}
	stack := append([]StackLayer{}, b.Stack...)
	total := thickness(stack)
	for have := b.Layers(); have > n; have-- {
		at := lowestButOne(stack, have)
		drop = append(drop, stack[at])
		end := at + 1
		if end < len(stack) && !stack[end].Copper {
			end++ // with the dielectric below it
		}
		stack = append(stack[:at:at], stack[end:]...)
	}
	for have := b.Layers(); have < n; have++ {
		stack = oneMore(stack, have)
	}
	evened(stack, total)
	return b.Stacked(stack), drop, nil
}

// oneMore is the stack with one more copper layer: above the lowest, with a prepreg below it; a lone one
// gets another on its free side.
func oneMore(stack []StackLayer, have int) []StackLayer {
	if have == 1 {
		first, last := stack[0].Copper, stack[len(stack)-1].Copper
		switch {
		case !first:
			return append([]StackLayer{copper(freeName(stack, "Top"))}, stack...)
		case last: // nothing but copper
			stack = append(stack, StackLayer{Name: freeName(stack, "Core"), Thickness: 200_000, Material: "FR-4"})
		}
		return append(stack, copper(freeName(stack, "Bottom")))
	}
	lowest := 0
	for i := range stack {
		if stack[i].Copper {
			lowest = i
		}
	}
	put := []StackLayer{copper(freeName(stack, "Inner ")), {Name: freeName(stack, "Prepreg "), Thickness: 200_000, Material: "FR-4"}}
	return append(stack[:lowest:lowest], append(put, stack[lowest:]...)...)
}

// lowestButOne is the place of the copper layer above the lowest, of the lowest when it is alone.
func lowestButOne(stack []StackLayer, have int) int {
	last, before := -1, -1
	for i, l := range stack {
		if l.Copper {
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

func thickness(stack []StackLayer) (sum int64) {
	for _, l := range stack {
		sum += l.Thickness
	}
	return sum
}

// Thickness of the whole board.
func (b *Board) Thickness() int64 { return thickness(b.Stack) }

// evened gives or takes the thickness that lacks to the thickest dielectric, then to the next, none
// thinner than 0.1 mm.
func evened(stack []StackLayer, total int64) {
	const thin = 100_000
	for range stack {
		lack := total - thickness(stack)
		at := -1
		for i, l := range stack {
			if !l.Copper && (at < 0 || l.Thickness > stack[at].Thickness) {
				at = i
			}
		}
		if lack == 0 || at < 0 || stack[at].Thickness+lack < thin && stack[at].Thickness <= thin {
			return
		}
		stack[at].Thickness = max(stack[at].Thickness+lack, thin)
	}
}
