package edit_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// order of the stack's layers by their names' beginnings.
func order(d *design.Doc) string {
	var out []string
	for _, l := range d.Board.Stack {
		if !l.Coat() {
			out = append(out, l.Name)
		}
	}
	return strings.Join(out, ", ")
}

// putting applies a stack made of the one there is; what it says, and undo brings back what was.
func putting(t *testing.T, d *design.Doc, change func(list []design.StackLayer) []design.StackLayer) error {
	t.Helper()
	was := d.Board
	cs, err := edit.Apply(d, edit.Env{}, &edit.PutStack{Layers: change(slices.Clone(was.Stack))})
	if err != nil {
		assert.Same(t, was, d.Board, "what is refused changes nothing")
		return err
	}
	back := d.Snapshot()
	cs.Inverted().Apply(back)
	assert.Equal(t, was, back.Board)
	require.NoError(t, d.Whole())
	return nil
}

func swapped(a, b string) func(list []design.StackLayer) []design.StackLayer {
	return func(list []design.StackLayer) []design.StackLayer {
		at := func(name string) int {
			return slices.IndexFunc(list, func(l design.StackLayer) bool { return l.Name == name })
		}
		list[at(a)], list[at(b)] = list[at(b)], list[at(a)]
		return list
	}
}

func without(name string) func(list []design.StackLayer) []design.StackLayer {
	return func(list []design.StackLayer) []design.StackLayer {
		return slices.DeleteFunc(list, func(l design.StackLayer) bool { return l.Name == name })
	}
}

// The board of FourLayers has tracks and vias on its layers, one of them buried.
func TestLayersMoveWithWhatLiesOnThem(t *testing.T) {
	d := synthetic.FourLayers()
	inner := d.Board.At(1)
	var on []design.ID
	for tr := range d.Tracks.All() {
		if tr.Layer == inner {
			on = append(on, tr.ID)
		}
	}
	require.NotEmpty(t, on)
	buried := 0
	for v := range d.Vias.All() {
		switch from, to := d.Board.Position(v.From), d.Board.Position(v.To); {
		case from == 1 && to == 2:
			buried++
		case from != 0 || to != 3:
			d.Remove(design.KindVia, v.ID) // blind ones, of which below
		}
	}
	require.Positive(t, buried)
	err := putting(t, d, swapped("Inner 1", "Inner 2"))
	require.NoError(t, err, "a via between both joins the same layers")
	assert.Equal(t, "Top, Prepreg 1, Inner 2, Core, Inner 1, Prepreg 2, Bottom", order(d))
	assert.Equal(t, 2, d.Board.Position(inner))
	for _, id := range on {
		assert.Equal(t, inner, d.Tracks[id].Layer, "tracks go along")
	}
	for v := range d.Vias.All() {
		assert.Less(t, d.Board.Position(v.From), d.Board.Position(v.To), "the upper end is named first")
	}
	assert.ErrorContains(t, putting(t, d, swapped("Top", "Inner 1")), "the outer copper layers, Top and Bottom, stay outside")
	assert.ErrorContains(t, putting(t, d, without("Inner 1")), "the layer Inner 1 holds ")
	assert.ErrorContains(t, putting(t, d, func(list []design.StackLayer) []design.StackLayer {
		return slices.DeleteFunc(list, func(l design.StackLayer) bool { return l.Copper() })
	}), "a board has 1 to 32 copper layers, not 0")

	// a blind via down to a layer that moves below another would pass that
	d = synthetic.FourLayers()
	d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(3_000_000, 3_000_000), Diameter: 600_000, Hole: 300_000, From: d.Board.At(0),
		To: d.Board.At(1)})
	assert.ErrorContains(t, putting(t, d, swapped("Inner 1", "Inner 2")), "via")
	assert.ErrorContains(t, putting(t, d, swapped("Inner 1", "Inner 2")), "would pass other layers than now")
	for v := range d.Vias.All() {
		if v.At != geom.Pt(3_000_000, 3_000_000) {
			d.Remove(design.KindVia, v.ID)
		}
	}
	assert.ErrorContains(t, putting(t, d, swapped("Inner 1", "Inner 2")), "1 via would pass other layers than now")
	// one between them that nothing ends on may come in
	require.NoError(t, putting(t, d, func(list []design.StackLayer) []design.StackLayer {
		at := slices.IndexFunc(list, func(l design.StackLayer) bool { return l.Name == "Core" })
		return slices.Insert(list, at+1, design.StackLayer{Name: "New", Kind: design.CopperLayer, Thickness: 18_000, Material: "Copper"},
			design.StackLayer{Name: "Core 2", Kind: design.CoreLayer, Thickness: 300_000, Material: "FR-4"})
	}))
	assert.Equal(t, "Top, Prepreg 1, Inner 1, Core, New, Core 2, Inner 2, Prepreg 2, Bottom", order(d))
	require.NoError(t, putting(t, d, without("New")), "nothing lies on it")
}

func TestStacksThatCannotBe(t *testing.T) {
	d := synthetic.FourLayers()
	change := func(name string, with func(l *design.StackLayer)) func(list []design.StackLayer) []design.StackLayer {
		return func(list []design.StackLayer) []design.StackLayer {
			for i := range list {
				if list[i].Name == name {
					with(&list[i])
				}
			}
			return list
		}
	}
	for why, c := range map[string]func(list []design.StackLayer) []design.StackLayer{
		"the stack has no layer with the id 77":    change("Core", func(l *design.StackLayer) { l.ID = 77 }),
		"Core cannot become what it is not":        change("Core", func(l *design.StackLayer) { l.Kind = design.CopperLayer }),
		"Core lies between copper; it has to be":   change("Core", func(l *design.StackLayer) { l.Thickness = 999 }),
		"the copper of Top is 1.001 mm thick":      change("Top", func(l *design.StackLayer) { l.Thickness = 1_001_000 }),
		"the copper of Top is 0 mm thick; 0.001":   change("Top", func(l *design.StackLayer) { l.Thickness = 0 }),
		"two layers are called Core; how would":    change("Prepreg 1", func(l *design.StackLayer) { l.Name = "Core" }),
		"the layer's name is empty":                change("Core", func(l *design.StackLayer) { l.Name = "" }),
		"Top mask is mask; that lies outside":      swapped("Top mask", "Core"),
		"Top mask cannot lie on Top silk; outward": swapped("Top mask", "Top silk"),
	} {
		assert.ErrorContains(t, putting(t, d, c), why)
	}
	require.NoError(t, putting(t, d, change("Core", func(l *design.StackLayer) {
		l.Thickness, l.Permittivity, l.Kind = 900_000, 3_900, design.PrepregLayer
	})))
	require.NoError(t, putting(t, d, without("Top silk")))
	assert.False(t, d.Board.Coated(design.SilkLayer, false))
	wanted := int64(1_600_000)
	cs, err := edit.Apply(d, edit.Env{}, &edit.PutStack{Layers: d.Board.Stack, Wanted: &wanted})
	require.NoError(t, err)
	assert.Len(t, cs, 1)
	assert.EqualValues(t, wanted, d.Board.Wanted)
	_, err = edit.Apply(d, edit.Env{}, &edit.PutStack{Layers: d.Board.Stack})
	assert.ErrorContains(t, err, "this would change nothing")
}

// A ready-made stack takes the place of the board's: its own names and what lies on them stay.
func TestReadyMadeStackIsTaken(t *testing.T) {
	d := synthetic.FourLayers()
	copper := d.Board.Copper()
	_, err := edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "northgate", Name: "Four layers, 1.0 mm"})
	require.NoError(t, err)
	assert.EqualValues(t, 1_000_000, d.Board.Thickness())
	assert.EqualValues(t, 1_000_000, d.Board.Wanted)
	for i, l := range d.Board.Copper() {
		assert.Equal(t, []any{copper[i].ID, copper[i].Name}, []any{l.ID, l.Name})
	}
	assert.EqualValues(t, 17_500, d.Board.Layer(copper[1].ID).Thickness)
	assert.True(t, d.Board.Coated(design.FinishLayer, true))
	_, err = edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"})
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	assert.Equal(t, 6, d.Board.Layers())
	assert.Equal(t, []design.LayerID{copper[0].ID, copper[3].ID}, []design.LayerID{d.Board.Top(), d.Board.Bottom()})
	names := map[string]bool{}
	for _, l := range d.Board.Stack {
		assert.False(t, names[l.Name], l.Name)
		names[l.Name] = true
	}
	_, err = edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "northgate", Name: "Two layers, 1.6 mm"})
	assert.ErrorContains(t, err, "the layer Inner ")
	_, err = edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "northgate", Name: "Nine layers"})
	assert.ErrorContains(t, err, "no board house offers")
}

// Holes and ways that somebody made are not replaced in silence by those of a ready-made stack: they stay, or go, as it is said.
func TestAReadyMadeStackAsksForOnesOwnHoles(t *testing.T) {
	fresh := func() *design.Doc {
		d := design.New("own")
		_, err := edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"})
		require.NoError(t, err)
		_, err = edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "tallow", Name: "Four layers, 0.8 mm"})
		require.NoError(t, err, "holes of a house may be replaced by those of another stack")
		return d
	}
	d := fresh()
	b := *d.Board
	b.Holes.Barrels = append(slices.Clone(b.Holes.Barrels), design.Barrel{ID: b.Holes.Next, Name: "Mine", From: b.At(0), To: b.At(2), Hole: 250_000, Diameter: 500_000})
	b.Holes.Next++
	d.Put(&b)
	require.NoError(t, b.Valid())
	take := edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"}
	_, err := edit.Apply(d, edit.Env{}, &take)
	assert.ErrorContains(t, err, "holes of its own (5 holes, 0 ways between layers)")
	assert.Equal(t, &b, d.Board, "nothing has changed")
	take.Holes = edit.KeepHoles
	_, err = edit.Apply(d, edit.Env{}, &take)
	require.NoError(t, err)
	assert.Equal(t, 6, d.Board.Layers())
	assert.Equal(t, b.Holes.Barrels, d.Board.Holes.Barrels, "on the layers they were on")
	take.Name, take.Holes = "Eight layers, 1.6 mm", edit.TakeHoles
	_, err = edit.Apply(d, edit.Env{}, &take)
	require.NoError(t, err)
	assert.Len(t, d.Board.Holes.Barrels, 7)
	for _, l := range d.Board.Holes.Barrels {
		assert.NotEqual(t, "Mine", l.Name)
	}
	take.Name, take.Holes = "Four layers, 0.8 mm", ""
	_, err = edit.Apply(d, edit.Env{}, &take)
	require.NoError(t, err, "these are the house's")
	b = *d.Board
	top, _ := b.WaysOf(b.Top(), b.Bottom())
	b.Holes.Ways = top[:1]
	d.Put(&b)
	take.Name = "Six layers, 1.2 mm"
	_, err = edit.Apply(d, edit.Env{}, &take)
	assert.ErrorContains(t, err, "0 holes, 1 ways")
}

func TestLayerBecomesAPlane(t *testing.T) {
	d := synthetic.FourLayers()
	in1, in2 := d.Board.At(1), d.Board.At(2)
	do := func(c edit.Command) error {
		_, err := edit.Apply(d, edit.Env{}, c)
		return err
	}
	planes := func() (out []string) {
		for p := range d.Pours.All() {
			s := d.NetName(p.Net)
			for _, l := range p.Layers {
				s += " " + d.Board.Layer(l).Name
			}
			out = append(out, s)
		}
		slices.Sort(out)
		return out
	}
	require.NoError(t, do(&edit.SetPlane{Layer: in1, Net: synthetic.FourA}))
	assert.Equal(t, []string{"A Inner 1"}, planes())
	require.NoError(t, do(&edit.SetPlane{Layer: in1, Net: synthetic.FourB}))
	assert.Equal(t, []string{"B Inner 1"}, planes(), "of one net")
	var p *design.Pour
	for p = range d.Pours.All() {
		both := *p
		both.Layers = []design.LayerID{in1, in2}
		require.NoError(t, do(&edit.PutPour{Pour: both}))
	}
	require.NoError(t, do(&edit.PutPour{Pour: design.Pour{Net: synthetic.FourC, Layers: []design.LayerID{in2},
		Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(9, 9))}}))
	require.NoError(t, do(&edit.SetPlane{Layer: in2, Net: synthetic.FourA}))
	assert.Equal(t, []string{"A Inner 2", "B Inner 1", "C Inner 2"}, planes(), "one with an edge of its own is no plane")
	assert.ErrorContains(t, do(&edit.SetPlane{Layer: in2, Net: synthetic.FourA}), "this would change nothing", "it is one already")
	assert.Len(t, d.Pours, 3)
	require.NoError(t, do(&edit.SetPlane{Layer: in2}))
	assert.Equal(t, []string{"B Inner 1", "C Inner 2"}, planes())
	locked := *d.Pours[p.ID]
	locked.Locked = true
	d.Put(&locked)
	assert.ErrorContains(t, do(&edit.SetPlane{Layer: in1}), "is locked")
	assert.ErrorContains(t, do(&edit.SetPlane{Layer: 99}), "no such copper layer")
	assert.ErrorContains(t, do(&edit.SetPlane{Layer: in1, Net: 99}), "no such net")
}

// Layers of the stack one by one: what comes lies where it belongs, and what is changed is that alone.
func TestLayersOfTheStackOneByOne(t *testing.T) {
	s := newShop(t)
	all := func() string {
		var out []string
		for _, l := range s.Doc.Board.Stack {
			out = append(out, l.Name)
		}
		return strings.Join(out, ", ")
	}
	id := func(name string) design.LayerID {
		for _, l := range s.Doc.Board.Stack {
			if l.Name == name {
				return l.ID
			}
		}
		return 99
	}
	require.Equal(t, "Top silk, Top mask, Top, Core, Bottom, Bottom mask, Bottom silk", all())
	s.do(&edit.AddLayer{Kind: design.CopperLayer, At: id("Core"), Below: true})
	assert.Equal(t, "Top silk, Top mask, Top, Core, Inner 1, Prepreg 1, Bottom, Bottom mask, Bottom silk", all(),
		"with a prepreg to the copper below")
	s.do(&edit.AddLayer{Kind: design.CopperLayer, At: id("Core")})
	assert.Equal(t, "Top silk, Top mask, Top, Prepreg 2, Inner 2, Core, Inner 1, Prepreg 1, Bottom, Bottom mask, Bottom silk", all())
	s.do(&edit.AddLayer{Kind: design.PrepregLayer, At: id("Bottom mask")})
	assert.Equal(t, "Top silk, Top mask, Top, Prepreg 2, Inner 2, Core, Inner 1, Prepreg 1, Bottom, Prepreg 3, Bottom mask, Bottom silk", all())
	s.do(&edit.DropLayer{ID: id("Prepreg 3")})
	s.do(&edit.AddLayer{Kind: design.FinishLayer, At: id("Top silk")})
	s.do(&edit.AddLayer{Kind: design.FinishLayer, At: id("Bottom"), Below: true})
	assert.Equal(t, "Top silk, Top mask, Top finish, Top, Prepreg 2, Inner 2, Core, Inner 1, Prepreg 1, Bottom, Bottom finish, Bottom mask, Bottom silk", all())
	s.refuses(&edit.AddLayer{Kind: design.MaskLayer, At: id("Top")}, "that side has mask already")
	s.do(&edit.DropLayer{ID: id("Top mask")})
	s.do(&edit.DropLayer{ID: id("Bottom silk")})
	s.do(&edit.AddLayer{Kind: design.MaskLayer, At: id("Top silk"), Below: true})
	s.do(&edit.AddLayer{Kind: design.SilkLayer, At: id("Bottom mask")})
	assert.Equal(t, "Top silk, Top mask, Top finish, Top, Prepreg 2, Inner 2, Core, Inner 1, Prepreg 1, Bottom, Bottom finish, Bottom mask, Bottom silk", all())
	s.do(&edit.DropLayer{ID: id("Top finish")})
	s.refuses(&edit.AddLayer{Kind: design.FinishLayer, At: id("Core"), Below: true}, "that side has finish already")
	s.do(&edit.AddLayer{Kind: design.FinishLayer, At: id("Core")})
	assert.Equal(t, "Top silk, Top mask, Top finish, Top", all()[:len("Top silk, Top mask, Top finish, Top")],
		"what lies above a layer within is the upper side")
	s.refuses(&edit.AddLayer{Kind: "gold", At: id("Top")}, `"gold" is not a kind of layer`)
	s.refuses(&edit.AddLayer{Kind: design.CoreLayer, At: 99}, "no layer with the id 99")

	s.do(&edit.MoveLayer{ID: id("Inner 1")})
	s.do(&edit.MoveLayer{ID: id("Core"), Down: true})
	assert.Equal(t, "Top silk, Top mask, Top finish, Top, Prepreg 2, Inner 1, Prepreg 1, Inner 2, Core, Bottom, Bottom finish, Bottom mask, Bottom silk", all())
	s.refuses(&edit.MoveLayer{ID: id("Prepreg 2")}, "Prepreg 2 has no place further that way")
	s.refuses(&edit.MoveLayer{ID: id("Top mask"), Down: true}, "Top mask has no place further that way")

	was := s.Doc.Board.Layer(id("Core"))
	name, thick, material, permittivity, loss, kind := "Middle", int64(710_000), "Ceramic", int32(9_800), int32(200), design.PrepregLayer
	s.do(&edit.SetLayer{ID: was.ID, Name: &name, Thickness: &thick, Material: &material, Permittivity: &permittivity, Loss: &loss,
		Kind: &kind})
	assert.Equal(t, design.StackLayer{ID: was.ID, Name: "Middle", Kind: design.PrepregLayer, Thickness: 710_000, Material: "Ceramic",
		Permittivity: 9_800, Loss: 200}, *s.Doc.Board.Layer(was.ID))
	rough := int64(700)
	s.do(&edit.SetLayer{ID: id("Top"), Roughness: &rough})
	assert.EqualValues(t, 700, s.Doc.Board.Layer(id("Top")).Roughness)
	core := design.CopperLayer
	s.refuses(&edit.SetLayer{ID: id("Middle"), Kind: &core}, "Middle cannot become what it is not")
	s.refuses(&edit.SetLayer{ID: id("Top"), Kind: &kind}, "Top cannot become what it is not")
	s.refuses(&edit.SetLayer{ID: 99, Name: &name}, "no layer with the id 99")
	s.do(&edit.SetThickness{Wanted: 1_000_000})
	assert.EqualValues(t, 1_000_000, s.Doc.Board.Wanted)
	s.refuses(&edit.SetThickness{Wanted: -1}, "a board cannot be")
	require.NoError(t, s.Doc.Whole())
}

// A plane is cut by a line into areas of two nets, and one of these again; what leads nowhere is refused.
func TestPlaneIsCut(t *testing.T) {
	s, gnd := filledBoard(t)
	a := s.net("A")
	var plane design.ID
	for p := range s.Doc.Pours.All() {
		plane = p.ID
	}
	line := func(c ...geom.Point) []geom.Point { return c }
	s.refuses(&edit.CutPour{ID: plane, Net: a, Line: line(at(10, 5), at(10, 30))}, "does not lead across")
	s.refuses(&edit.CutPour{ID: plane, Net: 77, Line: line(at(10, -5), at(10, 30))}, "no such net")
	s.refuses(&edit.CutPour{ID: 77, Net: a, Line: line(at(10, -5), at(10, 30))}, "no such copper area")
	s.refuses(&edit.CutPour{ID: plane, Net: a, Line: line(at(10, -5))}, "2 to 1000 places")
	s.do(&edit.CutPour{ID: plane, Net: a, Line: line(at(10, -5), at(10, 30))})
	areas := func() map[string]float64 {
		out := map[string]float64{}
		for p := range s.Doc.Pours.All() {
			assert.Len(t, p.Layers, 2, "on the layers of the plane")
			out[s.Doc.NetName(p.Net)+" "+p.Name] = geom.Closing(p.Outline).Area() / 1e12
		}
		return out
	}
	assert.InDeltaMapValues(t, map[string]float64{"GND GND": 600, "A A": 200}, areas(), 1e-6)
	s.do(&edit.CutPour{ID: plane, Net: gnd, Line: line(at(45, 10), at(30, 10), at(30, 25))})
	assert.InDeltaMapValues(t, map[string]float64{"GND GND": 500, "A A": 200, "GND GND 2": 100}, areas(), 1e-6)
	require.NoError(t, s.Doc.Whole())
	locked := *s.Doc.Pours[plane]
	locked.Locked = true
	s.Doc.Put(&locked)
	s.refuses(&edit.CutPour{ID: plane, Net: a, Line: line(at(20, -5), at(20, 30))}, "is locked")
}

// Layers that lie on another of their sort change places with it, up and down; the outermost copper may be a plane too.
func TestLayersBesideTheirLike(t *testing.T) {
	d := synthetic.FourLayers()
	do := func(c edit.Command) error {
		_, err := edit.Apply(d, edit.Env{}, c)
		return err
	}
	require.NoError(t, putting(t, d, func(list []design.StackLayer) []design.StackLayer {
		at := slices.IndexFunc(list, func(l design.StackLayer) bool { return l.Name == "Core" })
		return slices.Insert(list, at+1, design.StackLayer{Name: "Core 2", Kind: design.CoreLayer, Thickness: 100_000, Material: "FR-4"})
	}))
	id := func(name string) design.LayerID {
		return d.Board.Stack[slices.IndexFunc(d.Board.Stack, func(l design.StackLayer) bool { return l.Name == name })].ID
	}
	was := order(d)
	require.NoError(t, do(&edit.MoveLayer{ID: id("Core 2")}))
	assert.Equal(t, strings.Replace(was, "Core, Core 2", "Core 2, Core", 1), order(d))
	require.NoError(t, do(&edit.MoveLayer{ID: id("Core 2"), Down: true}))
	assert.Equal(t, was, order(d))
	require.NoError(t, do(&edit.SetPlane{Layer: d.Board.Top(), Net: synthetic.FourA}))
	require.Len(t, d.Pours, 1)
}
