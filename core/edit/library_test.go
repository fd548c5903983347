package edit_test

import (
	"encoding/base64"
	"encoding/binary"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// shop is a design in which library items are made.
type shop struct {
	t *testing.T
	*workbench.Bench
}

func newShop(t *testing.T) *shop { return &shop{t, workbench.Open(design.New("shop"), 0)} }

func (s *shop) do(c edit.Command) {
	s.t.Helper()
	_, err := s.Edit(c)
	require.NoError(s.t, err)
}

func (s *shop) refuses(c edit.Command, says string) {
	s.t.Helper()
	before := file(s.t, s.Doc)
	_, err := s.Edit(c)
	require.ErrorContains(s.t, err, says)
	require.Equal(s.t, before, file(s.t, s.Doc), "a refused command changes nothing")
}

func at(x, y float64) geom.Point { return geom.Pt(units.MMf(x), units.MMf(y)) }

func listed(spec ...string) (out []parts.Listed) {
	for i := 0; i < len(spec); i += 3 {
		out = append(out, parts.Listed{Number: spec[i], Name: spec[i+1], Type: spec[i+2]})
	}
	return out
}

func TestSymbolsPieceByPiece(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutSymbol{Name: "Sensor"})
	sym := s.Doc.Symbol("Sensor")
	id := sym.ID
	box, _ := parts.BodyOf(sym)
	pin := func(n string, x, y float64, turn int) design.Pin {
		return design.Pin{Number: n, Type: "input", At: at(x, y), Turn: turn, Length: units.MMf(2.5)}
	}
	s.do(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{pin("1", -7.5, 5, 0), pin("2", 7.5, 5, 2)}})
	s.do(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{pin("3", -7.5, -10, 0)}, Fit: true})
	sym = s.Doc.Symbol("Sensor")
	assert.Equal(t, []int{1, 2, 3}, []int{sym.Pins[0].ID, sym.Pins[1].ID, sym.Pins[2].ID})
	grown, _ := parts.BodyOf(sym)
	assert.Equal(t, units.MMf(-12.5), grown.Min.Y)
	assert.Equal(t, box.Max, grown.Max)

	s.refuses(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{pin("2", 0, 0, 0)}}, "has two pins 2")
	s.refuses(&edit.SymbolPieces{Symbol: id, RemovePins: []int{9}}, "no such pin any more")
	changed := sym.Pins[1]
	changed.Name = "OUT"
	s.do(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{changed}, RemovePins: []int{1}})
	sym = s.Doc.Symbol("Sensor")
	assert.Equal(t, []string{"2", "3"}, []string{sym.Pins[0].Number, sym.Pins[1].Number})
	assert.Equal(t, "OUT", sym.Pins[0].Name)
	s.refuses(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{{ID: 1, Number: "9", Type: "input"}}}, "no such pin any more") // taken out meanwhile
	s.do(&edit.SymbolPieces{Symbol: id, Pins: []design.Pin{pin("4", -7.5, 0, 0)}})
	assert.Equal(t, 4, s.Doc.Symbol("Sensor").Pins[2].ID, "a ref is not used again")

	s.do(&edit.ResizeBody{Symbol: id, Box: geom.Box{Min: at(-10, -12.5), Max: at(10, 10)}})
	assert.Equal(t, at(12.5, 5), s.Doc.Symbol("Sensor").Pin("2").At)
	s.refuses(&edit.ResizeBody{Symbol: id, Box: geom.Box{Min: at(0, 0), Max: at(0, 0)}}, "too small")
	s.do(&edit.SetOrigin{ID: id, At: at(-10, 0)})
	assert.Equal(t, at(22.5, 5), s.Doc.Symbol("Sensor").Pin("2").At)

	s.refuses(&edit.PutSymbol{Name: "Sensor"}, "already")
	s.do(&edit.PutSymbol{Name: "Other", Pins: listed("1", "A", "input", "2", "B", "output"), Layout: parts.ByType})
	s.refuses(&edit.SetSymbol{Symbol: id, Name: ptr("Other")}, "already")
	s.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "P", Prefix: "U", Symbol: "Sensor", Units: []string{"Sensor", "Other"}}})
	s.do(&edit.SetSymbol{Symbol: id, Name: ptr("Gauge")})
	assert.Equal(t, []string{"Gauge", "Other"}, s.Doc.LibraryPart("P").Units, "who names it follows")
	assert.Equal(t, "Gauge", s.Doc.LibraryPart("P").Symbol)
}

func TestPinsOfAList(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutSymbol{Name: "S"})
	id := s.Doc.Symbol("S").ID
	s.do(&edit.AddPins{Symbol: id, Pins: listed("1", "VDD", "supplyIn", "2", "OUT", "output"), Layout: parts.ByType})
	assert.Len(t, s.Doc.Symbol("S").Pins, 2)
	was := s.Doc.Symbol("S").Pin("1").At
	s.do(&edit.AddPins{Symbol: id, Pins: listed("1", "VCC", "supplyIn", "3", "IN", "input", "4", "Q", "output"), Layout: parts.ByType})
	sym := s.Doc.Symbol("S")
	assert.Equal(t, "VCC", sym.Pin("1").Name)
	assert.Equal(t, was, sym.Pin("1").At, "what is there stays where it is")
	assert.Less(t, sym.Pin("3").At.Y, was.Y)
	assert.Less(t, sym.Pin("3").At.X, int64(0))
	assert.Greater(t, sym.Pin("4").At.X, int64(0))
	box, _ := parts.BodyOf(sym)
	assert.Less(t, box.Min.Y, sym.Pin("3").At.Y)
	bad := listed("5", "A", "input")
	bad[0].Wrong = "Pin 5 stands twice."
	s.refuses(&edit.AddPins{Symbol: id, Pins: bad}, "Pin 5 stands twice")
}

func TestFootprintsPieceByPiece(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutFootprint{Name: "Slide"})
	id := s.Doc.Footprint("Slide").ID
	pad := func(n string, x, y float64) design.Pad {
		return design.Pad{Number: n, Form: design.Rect, At: at(x, y), Size: at(1, 1)}
	}
	s.do(&edit.FootprintPieces{Footprint: id, Pads: []design.Pad{pad("1", 0, 0), pad("2", 3.25, 17.5)}, Silk: []design.Figure{{Form: "line", Pts: []geom.Point{at(0, 5), at(3, 5)}}}})
	s.do(&edit.FootprintPieces{Footprint: id, Body: []design.Figure{{Form: "circle", Pts: []geom.Point{at(0, 0)}, R: 1000}}, Courtyard: ptr([]geom.Point{at(-1, -1), at(5, -1), at(5, 19)})})
	f := s.Doc.Footprint("Slide")
	assert.Equal(t, []int{1, 2}, []int{f.Pads[0].ID, f.Pads[1].ID})
	assert.Equal(t, []int{1, 2}, []int{f.Silk[0].ID, f.Body[0].ID}, "silk and outline share their refs")
	assert.Len(t, f.Courtyard, 3)

	s.refuses(&edit.FootprintPieces{Footprint: id, Pads: []design.Pad{{Number: "3", Form: design.Rect, Size: at(0, 1)}}}, "pad 3 would be 0 mm by 1 mm; a pad has a size")
	plated := design.Pad{Number: "3", Form: design.Round, Size: at(1, 1), Hole: units.MM}
	s.refuses(&edit.FootprintPieces{Footprint: id, Pads: []design.Pad{plated}}, "the hole of pad 3 (1 mm) is not smaller than its copper (1 mm)")
	plated.Hole--
	s.do(&edit.FootprintPieces{Footprint: id, Pads: []design.Pad{plated}})
	bare := design.Pad{Form: design.Round, Size: at(2, 2), Hole: 2 * units.MM, Bare: true}
	s.do(&edit.FootprintPieces{Footprint: id, Pads: []design.Pad{bare}})
	s.do(&edit.FootprintPieces{Footprint: id, RemovePads: []int{4}, RemoveFigures: []int{1, 2}})
	f = s.Doc.Footprint("Slide")
	assert.Len(t, f.Pads, 3)
	assert.Empty(t, f.Silk)
	assert.Empty(t, f.Body)
	s.refuses(&edit.FootprintPieces{Footprint: id, RemoveFigures: []int{1}}, "any more")

	dim := design.Dimension{A: design.Feature{Of: design.OfPad, Pad: 1, Spot: design.Centre}, B: design.Feature{Of: design.OfPad, Pad: 2, Spot: design.Centre}, Way: design.AlongY, Says: &design.Range{Min: units.MMf(17.5), Max: units.MMf(17.5)}}
	s.do(&edit.FootprintPieces{Footprint: id, Dimensions: []design.Dimension{dim}})
	s.do(&edit.FootprintPieces{Footprint: id, Dimensions: []design.Dimension{dim}})
	f = s.Doc.Footprint("Slide")
	assert.Equal(t, []int{1, 2}, []int{f.Dimensions[0].ID, f.Dimensions[1].ID})
	assert.True(t, parts.Measure(f, f.Dimensions[0]).Agrees)
	dim.A.Spot = "corner"
	s.refuses(&edit.FootprintPieces{Footprint: id, Dimensions: []design.Dimension{dim}}, "is not a spot")

	s.do(&edit.SetOrigin{ID: id, At: at(3.25, 17.5)})
	f = s.Doc.Footprint("Slide")
	assert.Equal(t, at(-3.25, -17.5), f.Pads[0].At)
	assert.Equal(t, at(0, 0), f.Pads[1].At)
	assert.Equal(t, at(-4.25, -18.5), f.Courtyard[0])
	assert.True(t, parts.Measure(f, f.Dimensions[0]).Agrees)
	s.refuses(&edit.SetOrigin{ID: 1, At: at(1, 1)}, "no such symbol or footprint")
}

// picture is a PNG of one dot.
var picture, _ = base64.StdEncoding.DecodeString("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==")

func TestPictureBeneath(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutFootprint{Name: "F"})
	id := s.Doc.Footprint("F").ID
	s.do(&edit.LayBeneath{Footprint: id, Name: "drawing.png", Data: picture})
	f := s.Doc.Footprint("F")
	require.NotNil(t, f.Beneath)
	assert.Equal(t, 20*units.MM, f.Beneath.Width)
	assert.Equal(t, at(-10, -10), f.Beneath.At, "about the origin")
	asset := f.Beneath.Asset
	s.refuses(&edit.SetFootprint{Footprint: id, Beneath: &design.Beneath{Asset: asset, Width: units.MM, Opacity: 101}}, "0 to 100")
	s.refuses(&edit.SetFootprint{Footprint: id, Beneath: &design.Beneath{Asset: 999, Width: units.MM}}, "not in the project")
	s.refuses(&edit.LayBeneath{Footprint: id, Name: "x.png", Data: []byte("no picture")}, "")
	s.do(&edit.DropItems{IDs: []design.ID{id}})
	assert.Nil(t, s.Doc.Assets[asset], "the picture goes with its footprint")
}

// block is a binary glTF (2.0, section 4.4) that says of its places that they lie between the corners, in metres with y up.
func block(lo, hi [3]float64) []byte {
	scene := fmt.Sprintf(`{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0}],"meshes":[{"primitives":[{"attributes":{"POSITION":0}}]}],`+
		`"accessors":[{"componentType":5126,"count":3,"type":"VEC3","min":[%g,%g,%g],"max":[%g,%g,%g]}]}`, lo[0], lo[1], lo[2], hi[0], hi[1], hi[2])
	for len(scene)%4 != 0 {
		scene += " "
	}
	u32 := binary.LittleEndian.AppendUint32
	out := u32(u32(u32([]byte("glTF"), 2), uint32(20+len(scene))), uint32(len(scene)))
	return append(append(out, "JSON"...), scene...)
}

// aBlock is 4 mm wide, 2 mm deep and 3 mm high.
var aBlock = block([3]float64{-0.002, 0, -0.0015}, [3]float64{0.002, 0.003, 0.0005})

func TestBodyFromAFile(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutFootprint{Name: "F"})
	id := s.Doc.Footprint("F").ID
	s.do(&edit.GiveModel{Footprint: id, Name: "case.glb", Data: aBlock})
	first := s.Doc.Footprint("F").Model
	require.NotNil(t, s.Doc.Assets[first])
	assert.Equal(t, aBlock, s.Doc.Assets[first].Data)
	assert.Equal(t, &design.Reach{Min: geom.Pt(-2_000_000, -500_000), Max: geom.Pt(2_000_000, 1_500_000), From: 0, To: 3_000_000}, s.Doc.Assets[first].Reach,
		"what is behind in the file lies at the top")
	s.refuses(&edit.GiveModel{Footprint: id, Name: "case.step", Data: []byte("ISO-10303-21; and so on, long enough")}, "case.step cannot be the body: it is not a binary glTF file")
	for what, body := range map[string][]byte{"flat": block([3]float64{0, 0, 0}, [3]float64{1e-3, 0, 1e-3}),
		"in millimetres": block([3]float64{0, 0, 0}, [3]float64{4, 3, 2}), "without places": []byte("glTF\x02\x00\x00\x00\x54\x00\x00\x00\x40\x00\x00\x00JSON" +
			`{"asset":{"version":"2.0"},"meshes":[{"primitives":[]}]}        `)} {
		s.refuses(&edit.GiveModel{Footprint: id, Name: what, Data: body}, what+" cannot be the body: it has no size, or one of more than a metre")
	}
	s.refuses(&edit.GiveModel{Footprint: 999, Name: "case.glb", Data: aBlock}, "no such footprint")
	s.do(&edit.GiveModel{Footprint: id, Name: "other.glb", Data: aBlock})
	assert.Nil(t, s.Doc.Assets[first], "nothing shows it any more")
	assert.Equal(t, "other.glb", s.Doc.Assets[s.Doc.Footprint("F").Model].Name)
	s.do(&edit.SetFootprint{Footprint: id, NoModel: true})
	assert.Zero(t, s.Doc.Footprint("F").Model)
	assert.Empty(t, s.Doc.Assets)
}

func TestGeneratedFootprints(t *testing.T) {
	s := newShop(t)
	r := landpattern.FamilyOf("gullTwo").Example.Clone()
	s.do(&edit.PutFootprint{Recipe: r})
	f := s.Doc.Footprint("SOIC127P600X175-8N")
	require.NotNil(t, f)
	assert.True(t, parts.AsGenerated(f))
	s.refuses(&edit.PutFootprint{Recipe: r}, "already")
	moved := f.Pads[0]
	moved.ID, moved.At = 1, moved.At.Add(at(0.1, 0))
	s.do(&edit.FootprintPieces{Footprint: f.ID, Pads: []design.Pad{moved}, Dimensions: []design.Dimension{{A: design.Feature{Of: "origin"}, B: design.Feature{Of: "pad", Pad: 1, Spot: "left"}}}})
	assert.False(t, parts.AsGenerated(s.Doc.Footprints[f.ID]))
	r.Overrides = map[string]int64{"padWidth": units.MMf(0.7)}
	s.do(&edit.PutFootprint{Footprint: f.ID, Recipe: r})
	again := s.Doc.Footprints[f.ID]
	assert.Equal(t, units.MMf(0.7), again.Pads[0].Size.Y)
	assert.Len(t, again.Dimensions, 1, "dimensions stay")
	assert.Equal(t, r.Overrides, again.Recipe.Overrides)
	r.Dims["span"] = design.Range{Min: units.MM, Max: units.MM}
	s.refuses(&edit.PutFootprint{Footprint: f.ID, Recipe: r}, "too long")
	s.do(&edit.PutFootprint{Name: "Bare"})
	s.refuses(&edit.PutFootprint{Footprint: s.Doc.Footprint("Bare").ID}, "nothing to be generated from")
}

func TestRenamedFootprintsAreFollowed(t *testing.T) {
	b := pair(t)
	s := &shop{t, b}
	id := b.Doc.Footprint("0805").ID
	part := *b.Doc.LibraryPart("Resistor 0805")
	part.Densities = map[string]string{design.Most: "0805"}
	s.do(&edit.PutLibraryPart{Part: part})
	s.do(&edit.SetFootprint{Footprint: id, Name: ptr("Chip 0805")})
	assert.Equal(t, "Chip 0805", placed(b.Doc, "R1").Footprint)
	assert.Equal(t, "Chip 0805", b.Doc.LibraryPart("Resistor 0805").Footprint)
	assert.Equal(t, "Chip 0805", b.Doc.LibraryPart("Resistor 0805").Densities[design.Most])
	for p := range b.Doc.Parts.All() {
		assert.NotEqual(t, "0805", p.Footprint)
	}
	assert.Equal(t, design.Origin{}, b.Doc.Footprints[id].Origin, "it is none of the library any more")
}

func TestLibraryParts(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Barometer", Prefix: "U"}, Pins: listed("1", "VDD", "supplyIn", "2", "GND", "supplyIn"), Layout: parts.ByType})
	p := s.Doc.LibraryPart("Barometer")
	assert.Equal(t, "Barometer", p.Symbol)
	assert.Len(t, s.Doc.Symbol("Barometer").Pins, 2)
	s.refuses(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Barometer", Prefix: "U"}}, "already")
	s.refuses(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "X", Prefix: "U", Symbol: "none"}}, "not in the project")
	s.refuses(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "X", Prefix: "U", Footprint: "none"}}, "no footprint called")
	q := *p
	q.Footprint = "SOIC-8"
	s.do(&edit.PutLibraryPart{Part: q})
	assert.NotNil(t, s.Doc.Footprint("SOIC-8"), "it comes from the library")

	sheet := s.Doc.SheetsInOrder()[0].ID
	s.do(&edit.PlacePart{Sheet: sheet, Library: "Barometer", At: geom.Pt(0, 0)})
	q.Name = "Pressure sensor"
	s.do(&edit.PutLibraryPart{Part: q})
	for part := range s.Doc.Parts.All() {
		assert.Equal(t, "Pressure sensor", part.Library)
	}
	s.refuses(&edit.DropItems{IDs: []design.ID{p.ID}}, "stands in the circuit as U1")
	s.refuses(&edit.DropItems{IDs: []design.ID{s.Doc.Symbol("Barometer").ID}}, "is that of Pressure sensor")
	s.refuses(&edit.DropItems{IDs: []design.ID{s.Doc.Footprint("SOIC-8").ID}}, "is that of Pressure sensor, U1")
	s.refuses(&edit.DropItems{IDs: []design.ID{sheet}}, "is not part of a library")

	s.do(&edit.TakeParts{Names: []string{"Memory", "Clock"}})
	clock := s.Doc.LibraryPart("Clock")
	require.NotNil(t, clock)
	s.refuses(&edit.TakeParts{Names: []string{"Nothing"}}, "no part called")
	s.do(&edit.DropItems{IDs: []design.ID{s.Doc.Symbol("Clock").ID, clock.ID}})
	assert.Nil(t, s.Doc.LibraryPart("Clock"))
	assert.Nil(t, s.Doc.Symbol("Clock"))
}

func TestChecksLapse(t *testing.T) {
	s := newShop(t)
	s.do(&edit.TakeParts{Names: []string{"Memory"}})
	p := s.Doc.LibraryPart("Memory")
	state := func() string { return parts.CheckState(s.Doc.LibraryPart("Memory"), s.Doc) }
	assert.Equal(t, parts.Unchecked, state())
	s.refuses(&edit.SetChecked{Parts: []design.ID{p.ID}, On: "2026-11-26"}, "is not said")
	s.do(&edit.SetChecked{Parts: []design.ID{p.ID}, By: "Alder", On: "2026-11-26"})
	assert.Equal(t, parts.IsChecked, state())
	sym, f := s.Doc.Symbol(p.Symbol), s.Doc.Footprint(p.Footprint)
	s.do(&edit.SetSymbol{Symbol: sym.ID, ValueAt: ptr(at(0, -20))})
	s.do(&edit.FootprintPieces{Footprint: f.ID, Dimensions: []design.Dimension{{A: design.Feature{Of: "origin"}, B: design.Feature{Of: "pad", Pad: 1, Spot: "left"}}}})
	assert.Equal(t, parts.IsChecked, state(), "places of texts and dimensions are none of it")
	pad := s.Doc.Footprint(p.Footprint).Pads[0]
	pad.Size.X++
	s.do(&edit.FootprintPieces{Footprint: f.ID, Pads: []design.Pad{pad}})
	assert.Equal(t, parts.Lapsed, state())
	s.do(&edit.SetChecked{Parts: []design.ID{p.ID}, By: "Alder", On: "2026-11-27"})
	pin := sym.Pins[0]
	pin.ID, pin.Name = 1, "RENAMED"
	s.do(&edit.SymbolPieces{Symbol: sym.ID, Pins: []design.Pin{pin}})
	assert.Equal(t, parts.Lapsed, state())
	s.do(&edit.SetChecked{Parts: []design.ID{p.ID}, By: "Alder", On: "2026-11-27"})
	q := *s.Doc.LibraryPart("Memory")
	q.PadOf = map[string]string{"1": "2", "2": "1"}
	s.do(&edit.PutLibraryPart{Part: q})
	assert.Equal(t, parts.Lapsed, state())
	s.do(&edit.SetChecked{Parts: []design.ID{p.ID}, Off: true})
	assert.Equal(t, parts.Unchecked, state())
}

// A symbol whose pins move away from the wires would part nets: it is asked about, as any act.
func TestMovedPinsAsk(t *testing.T) {
	b := pair(t)
	sym := b.Doc.Symbol("Resistor")
	pin := sym.Pins[1]
	pin.ID, pin.At = 2, pin.At.Add(geom.Pt(0, g))
	var asks *workbench.Asks
	_, _, err := b.Try(&edit.SymbolPieces{Symbol: sym.ID, Pins: []design.Pin{pin}}, nil)
	assert.ErrorAs(t, err, &asks)
}
