package design_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
)

// layers are a stack as words say it: kind, and thickness in micrometres.
func layers(list ...any) (out []design.StackLayer) {
	for i := 0; i < len(list); i += 2 {
		kind := design.LayerKind(list[i].(string))
		out = append(out, design.StackLayer{Name: fmt.Sprint(kind, i/2), Kind: kind, Thickness: int64(list[i+1].(int)) * 1000, Material: "M"})
	}
	return out
}

func TestStackOfLayers(t *testing.T) {
	b := (design.Board{ID: 2}).Stacked(layers("silk", 10, "mask", 20, "finish", 3, "copper", 35, "prepreg", 200, "copper", 18, "core",
		1000, "copper", 18, "prepreg", 200, "copper", 35, "mask", 20))
	require.NoError(t, b.Valid())
	assert.EqualValues(t, 35+200+18+1000+18+200+35, b.Thickness()/1000, "coats are not counted")
	assert.Equal(t, []string{"copper3", "copper5", "copper7", "copper9"}, b.CopperNames())
	assert.EqualValues(t, 1, b.Top(), "coats get their ids last")
	assert.Empty(t, b.Uneven())
	for _, c := range []struct {
		kind        design.LayerKind
		top, bottom bool
	}{{design.SilkLayer, true, false}, {design.MaskLayer, true, true}, {design.FinishLayer, true, false}, {design.CopperLayer, false, false}} {
		assert.Equal(t, []bool{c.top, c.bottom}, []bool{b.Coated(c.kind, false), b.Coated(c.kind, true)}, c.kind)
	}
	assert.False(t, b.OnlyBelow())
	assert.True(t, (design.Board{ID: 2}).Stacked(layers("silk", 1, "core", 1500, "copper", 35)).OnlyBelow())
	assert.False(t, (design.Board{ID: 2}).Stacked(layers("mask", 1, "copper", 35, "core", 1500)).OnlyBelow())

	for why, bad := range map[string][]design.StackLayer{
		"1 to 32 copper layers, not 0":             layers("core", 1500),
		"mask1 is mask; that lies outside":         layers("copper", 35, "mask", 20, "copper", 35),
		"silk1 is silk; that lies outside":         layers("copper", 35, "silk", 20, "core", 20, "copper", 35),
		"mask0 cannot lie on silk1; outwards from": layers("mask", 20, "silk", 10, "copper", 35),
		"finish2 cannot lie on mask1; outwards":    layers("copper", 35, "mask", 20, "finish", 3),
		"mask2 cannot lie on mask1; outwards":      layers("copper", 35, "mask", 20, "mask", 3),
		`gold0 is of the unknown kind "gold"`:      layers("gold", 1, "copper", 35),
		"the thickness of core1 is":                layers("copper", 35, "core", -1),
		"the dielectric constant of x is 0.5; 1 to": {{Name: "x", Kind: design.CoreLayer, Permittivity: 500},
			{Name: "c", Kind: design.CopperLayer}},
		"x is of copper, which has no dielectric": {{Name: "x", Kind: design.CopperLayer, Permittivity: 4000}},
		"the loss tangent of x is 1.1; 0 to 1": {{Name: "x", Kind: design.CoreLayer, Loss: 1_100_000},
			{Name: "c", Kind: design.CopperLayer}},
		"the roughness of x is 0.051 mm; 0 to": {{Name: "x", Kind: design.CopperLayer, Roughness: 51_000}},
	} {
		assert.ErrorContains(t, (design.Board{ID: 2}).Stacked(bad).Valid(), why)
	}
	b.Wanted = -1_000_000
	assert.ErrorContains(t, b.Valid(), "cannot be -")
}

// Where a build is not symmetric is said layer by layer.
func TestUnevenBuilds(t *testing.T) {
	of := func(list ...any) []string { return (design.Board{ID: 2}).Stacked(layers(list...)).Uneven() }
	assert.Equal(t, []string{"prepreg1 is 0.2 mm thick, prepreg5 on the other side 0.3 mm"},
		of("copper", 35, "prepreg", 200, "copper", 18, "core", 1000, "copper", 18, "prepreg", 300, "copper", 35))
	assert.Equal(t, []string{"copper0 is 0.07 mm thick, copper2 on the other side 0.035 mm"}, of("copper", 70, "core", 1500, "copper", 35))
	assert.Equal(t, []string{"prepreg1 is of M (prepreg), core3 on the other side of M (core)"},
		of("copper", 35, "prepreg", 200, "copper", 18, "core", 200, "copper", 35))
	assert.Empty(t, of("copper", 35, "core", 1500), "one layer is never symmetric")
	assert.Equal(t, []string{"copper1 lies where core2 lies on the other side"}, of("copper", 35, "copper", 18, "core", 200, "copper", 35))
	stack := layers("copper", 35, "core", 200, "copper", 18, "core", 200, "copper", 35)
	stack[3].Material = "N"
	assert.Equal(t, []string{"core1 is of M (core), core3 on the other side of N (core)"}, (design.Board{ID: 2}).Stacked(stack).Uneven())
}

// Four layers of two are a symmetric build.
func TestTwoLayersComeInTheMiddle(t *testing.T) {
	two := (design.Board{ID: 2}).Stacked(design.TwoLayers())
	four, _, err := two.WithLayers(4)
	require.NoError(t, err)
	assert.Empty(t, four.Uneven())
	var kinds []design.LayerKind
	for _, l := range four.Stack {
		if l.Dielectric() {
			kinds = append(kinds, l.Kind)
		}
	}
	assert.Equal(t, []design.LayerKind{design.PrepregLayer, design.CoreLayer, design.PrepregLayer}, kinds)
	more, _, err := four.WithLayers(7)
	require.NoError(t, err)
	back, _, err := more.WithLayers(4)
	require.NoError(t, err)
	assert.Equal(t, four.CopperNames(), back.CopperNames(), "those that came last go first")
}

// A board that version 4 wrote, as in a journal, is read by itself.
func TestBoardsOfVersionFour(t *testing.T) {
	old := `{"id":2,"outline":[],"stack":[{"id":1,"name":"Top","copper":true,"thickness":35000,"material":"Copper"},` +
		`{"id":4,"name":"Prepreg","copper":false,"thickness":200000,"material":"FR-4"},{"id":2,"name":"Middle","copper":true,"thickness":18000,"material":"Copper"},` +
		`{"id":7,"name":"Core","copper":false,"thickness":900000,"material":"Ceramic"},{"id":3,"name":"Bottom","copper":true,"thickness":35000,"material":"Copper"}],"rise":20,"nextLayer":8}`
	o, err := design.DecodeOf(4, design.KindBoard, []byte(old))
	require.NoError(t, err)
	b := o.(*design.Board)
	assert.EqualValues(t, 20, b.Rise)
	var kinds, names []string
	for _, l := range b.Stack {
		kinds, names = append(kinds, string(l.Kind)), append(names, fmt.Sprint(l.Name, " ", l.ID, " ", l.Thickness/1000))
	}
	assert.Equal(t, []string{"silk", "mask", "copper", "prepreg", "copper", "core", "copper", "mask", "silk"}, kinds)
	assert.Equal(t, []string{"Top silk 8 10", "Top mask 9 20", "Top 1 35", "Prepreg 4 200", "Middle 2 18", "Core 7 900", "Bottom 3 35",
		"Bottom mask 10 20", "Bottom silk 11 10"}, names)
	assert.EqualValues(t, 4300, b.Layer(4).Permittivity)
	assert.Zero(t, b.Layer(7).Permittivity, "of a ceramic nothing is known")
	_, err = design.DecodeOf(1, design.KindBoard, []byte(old))
	assert.ErrorIs(t, err, design.ErrEarlier)
	_, err = design.DecodeOf(4, design.KindBoard, []byte(`{"id":2,"stack":7}`))
	assert.ErrorContains(t, err, "cannot be read")
	now, err := json.Marshal(b)
	require.NoError(t, err)
	again, err := design.DecodeOf(5, design.KindBoard, now)
	require.NoError(t, err)
	assert.Equal(t, b, again)
}
