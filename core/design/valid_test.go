package design_test

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// change gives an object's JSON other entries and reads it again.
func change(o design.Object, fields map[string]any) error {
	data, err := json.Marshal(o)
	if err != nil {
		return err
	}
	m := map[string]any{}
	if err := json.Unmarshal(data, &m); err != nil {
		return err
	}
	for k, v := range fields {
		m[k] = v
	}
	data, err = json.Marshal(m)
	if err != nil {
		return err
	}
	_, err = design.Decode(o.ObjectKind(), data)
	return err
}

func at(x, y int64) map[string]int64 { return map[string]int64{"x": x, "y": y} }

// bow is a corner from which an arc goes on through another place.
func bow(x, y, mx, my int64) map[string]any { return map[string]any{"x": x, "y": y, "mid": at(mx, my)} }

// pad is a list of one square pad of 10 nm with other entries.
func pad(fields ...any) map[string]any {
	p := map[string]any{"number": "1", "form": "rect", "size": at(10, 10)}
	for i := 0; i+1 < len(fields); i += 2 {
		p[fields[i].(string)] = fields[i+1]
	}
	return map[string]any{"pads": []any{p}}
}

// Every kind of object with each of its limits: what is just allowed, and what is refused in
// which words.
func TestLimitsOfEveryKind(t *testing.T) {
	far, long := units.Limit, strings.Repeat("x", design.LongestText)
	sq := []map[string]int64{at(0, 0), at(10, 0), at(10, 10), at(0, 10)}
	stack := func(n int) (out []map[string]any) {
		for i := range n {
			out = append(out, map[string]any{"id": i + 1, "name": fmt.Sprint("L", i), "kind": "copper", "thickness": 35_000})
		}
		return out
	}
	many := func(n int) (out map[string]string) {
		out = map[string]string{}
		for i := range n {
			out[fmt.Sprint("f", i)] = "x"
		}
		return out
	}
	round := func(n int) (out []map[string]int64) {
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			out = append(out, at(int64(1e8*math.Cos(a)), int64(1e8*math.Sin(a))))
		}
		return out
	}
	pins := func(n int) (out []map[string]any) {
		for i := range n {
			out = append(out, map[string]any{"name": fmt.Sprint("P", i), "way": "in", "side": 2, "pos": 5})
		}
		return out
	}
	for _, c := range []struct {
		o    design.Object
		fine []map[string]any
		bad  map[string][2]any // sentence → field and value
	}{
		{
			&design.Settings{ID: 1, Unit: "mm"},
			[]map[string]any{{"title": long}, {"unit": "in"}, {"unit": "mil"}},
			map[string][2]any{
				"the title is 201 characters long; 200 is the most": {"title", long + "x"},
				`"cm" is not one of the units`:                      {"unit", "cm"},
				"holds a control character":                         {"author", "a\nb"},
			},
		},
		{
			&design.Sheet{ID: 10, Name: "S", Size: "A4"},
			[]map[string]any{{"size": "D"}, {"fields": map[string]string{"author": "x"}}},
			map[string][2]any{
				"the sheet's name is empty":   {"name", " "},
				"begins or ends with a space": {"name", "S "},
				`"A9" is not a size`:          {"size", "A9"},
				`"colour" is not an entry`:    {"fields", map[string]string{"colour": "x"}},
			},
		},
		{
			&design.Wire{ID: 20, Sheet: 10, B: geom.Pt(1, 0)},
			[]map[string]any{{"b": at(far, -far)}},
			map[string][2]any{
				"a wire has no length": {"b", at(0, 0)},
				"beyond the":           {"b", at(far+1, 0)},
			},
		},
		{
			&design.Label{ID: 20, Sheet: 10, Name: "A"},
			[]map[string]any{{"turn": 3}, {"name": "D[7:0]"}},
			map[string][2]any{
				"turned by 4 quarters":   {"turn", 4},
				"turned by -1":           {"turn", -1},
				"the net label is empty": {"name", ""},
				"more than 1024 members": {"name", "D[0:2000]"},
				"beyond the":             {"at", at(0, -far-1)},
			},
		},
		{
			&design.Port{ID: 20, Sheet: 10, Name: "A", Way: "in"},
			[]map[string]any{{"way": "out"}, {"way": "both"}},
			map[string][2]any{
				`"up" is not a direction`:  {"way", "up"},
				"turned by 4":              {"turn", 4},
				"the port's name is empty": {"name", ""},
			},
		},
		{
			&design.Tap{ID: 20, Sheet: 10, Member: "D3"},
			nil,
			map[string][2]any{
				"a tap leads out one net":    {"member", "A, B"},
				"turned by 4":                {"turn", 4},
				"the member's name is empty": {"member", ""},
			},
		},
		{
			&design.Supply{ID: 20, Sheet: 10, Name: "GND", Shape: "ground"},
			[]map[string]any{{"shape": "ring"}},
			map[string][2]any{
				`"star" is not a shape`: {"shape", "star"},
				"a supply has one name": {"name", "A, B"},
				"turned by 4":           {"turn", 4},
			},
		},
		{
			&design.OpenMark{ID: 20, Sheet: 10},
			nil,
			map[string][2]any{
				"beyond the": {"at", at(far+1, 0)},
			},
		},
		{
			&design.Part{ID: 20, Sheet: 10, Library: "R", Designator: "R1"},
			[]map[string]any{{"unit": 26}, {"fields": many(design.MostFields)}},
			map[string][2]any{
				"R1 is unit 27":                     {"unit", 27},
				"R1 is unit -1":                     {"unit", -1},
				"has 101 entries; 100 are the most": {"fields", many(design.MostFields + 1)},
				"the designator is empty":           {"designator", ""},
				"turned by 4":                       {"turn", 4},
				"the value is 201":                  {"value", long + "x"},
				"the field's name is empty":         {"fields", map[string]string{"": "x"}},
				"the designator begins":             {"others", map[string]string{"7": " R2"}},
			},
		},
		{
			&design.SheetBlock{ID: 20, Sheet: 10, Name: "B", Of: 11, Size: geom.Pt(10, 10)},
			[]map[string]any{{"pins": []any{map[string]any{"name": "A", "way": "in", "side": 3, "pos": 10}}}, {"size": at(1, 1)}},
			map[string][2]any{
				"may not hold a slash":              {"name", "a/b"},
				"the width of the block B is 0 mm":  {"size", at(0, 5)},
				"the height of the block B":         {"size", at(5, 0)},
				"has 501 entries; 500 are the most": {"pins", pins(501)},
				"pin A does not lie on the side":    {"pins", []any{map[string]any{"name": "A", "way": "in", "pos": 11}}},
				"has two pins A":                    {"pins", []any{map[string]any{"name": "A", "way": "in", "pos": 1}, map[string]any{"name": "A", "way": "in", "pos": 2}}},
				`"x" is not a direction of a pin`:   {"pins", []any{map[string]any{"name": "A", "way": "x", "pos": 1}}},
			},
		},
		{
			&design.Cluster{ID: 20, Sheet: 10, Title: "C", B: geom.Pt(9, 9), Tint: "sky"},
			nil,
			map[string][2]any{
				"has no area":         {"b", at(9, 0)},
				`"red" is not a tint`: {"tint", "red"},
			},
		},
		{
			&design.Note{ID: 20, Sheet: 10, Width: units.MM, Size: units.MM / 2, Text: "x", Tint: "none"},
			[]map[string]any{{"text": strings.Repeat("y", design.LongestNote)}, {"text": "a\nb\tc"}},
			map[string][2]any{
				"the note is empty":              {"text", " \n"},
				"10001 characters long; 10000":   {"text", strings.Repeat("y", design.LongestNote+1)},
				"the width of a note":            {"width", units.MM - 1},
				"the height of a note's letters": {"size", units.MM/2 - 1},
				"a control character":            {"text", "a\x07"},
			},
		},
		{
			&design.Timing{ID: 20, Sheet: 10, Slot: units.MM / 2, Text: "x"},
			nil,
			map[string][2]any{
				"the width of a slot": {"slot", units.MM/2 - 1},
			},
		},
		{
			&design.Picture{ID: 20, Sheet: 10, Asset: 9, Size: geom.Pt(units.MM, units.MM)},
			[]map[string]any{{"size": at(units.MM/10, units.MM/10)}},
			map[string][2]any{
				"the width of a picture":  {"size", at(units.MM/10-1, units.MM)},
				"the height of a picture": {"size", at(units.MM, 0)},
			},
		},
		{
			&design.Asset{ID: 20, Name: "a", Type: "png", Width: 1, Height: 1, Data: []byte("x")},
			[]map[string]any{{"data": make([]byte, design.LargestAsset)}},
			map[string][2]any{
				"the picture a has no size":      {"height", 0},
				"has no size":                    {"width", 0},
				`"gif" is not a kind of picture`: {"type", "gif"},
				"has 0 bytes":                    {"data", ""},
				"has 8388609 bytes":              {"data", make([]byte, design.LargestAsset+1)},
			},
		},
		{
			&design.Graphic{ID: 20, Sheet: 10, Form: "line", Pts: []geom.Point{{}, {X: 1}}, Tint: "none"},
			[]map[string]any{{"pts": sq}},
			map[string][2]any{
				"a line of 1 points":   {"pts", sq[:1]},
				`"star" is not a form`: {"form", "star"},
			},
		},
		{
			&design.Graphic{ID: 20, Sheet: 10, Form: "ellipse", Pts: []geom.Point{{}, {X: 1}}, Tint: "none"},
			nil,
			map[string][2]any{
				"an ellipse":            {"pts", nil},
				"a ellipse of 4 points": {"pts", sq},
			},
		},
		{
			&design.Net{ID: 20, Name: "A"},
			[]map[string]any{{"voltage": -5}},
			map[string][2]any{
				"the current of A is below zero": {"current", -1},
				"the impedance of A is below":    {"impedance", -1},
				"the net's name is empty":        {"name", " "},
				"cannot be its own partner":      {"partner", 20},
			},
		},
		{
			&design.Excuse{ID: 20, Key: "k", Reason: "r"},
			nil,
			map[string][2]any{
				"names no finding":       {"key", ""},
				"the reason is empty":    {"reason", ""},
				"the excuse is too long": {"key", strings.Repeat("k", 4*design.LongestNote)},
			},
		},
		{
			&design.Checks{ID: 3},
			[]map[string]any{{"kinds": map[string]string{"openPin": "off"}}, {"pairs": map[string]string{"input|output": "fault"}}},
			map[string][2]any{
				`"loud" is not a severity`: {"kinds", map[string]string{"openPin": "loud"}},
				`"x" is not a type of pin`: {"pairs", map[string]string{"input|x": "off"}},
			},
		},
		{
			&design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{{Number: "1", Type: "input"}}, Figures: []design.Figure{{Form: "circle", Pts: []geom.Point{{}}, R: 1}}},
			[]map[string]any{{"figures": []any{
				map[string]any{"form": "line", "pts": sq[:2]}, map[string]any{"form": "area", "pts": sq[:3]}, map[string]any{"form": "solid", "pts": sq[:3]}}}},
			map[string][2]any{
				"two pins 1":             {"pins", []any{map[string]any{"number": "1", "type": "input"}, map[string]any{"number": "1", "type": "input"}}},
				`unknown type "x"`:       {"pins", []any{map[string]any{"number": "1", "type": "x"}}},
				"a line with 1 points":   {"figures", []any{map[string]any{"form": "line", "pts": sq[:1]}}},
				"a area with 2 points":   {"figures", []any{map[string]any{"form": "area", "pts": sq[:2]}}},
				"symbol S lies at":       {"figures", []any{map[string]any{"form": "line", "pts": []any{at(0, 0), at(far+1, 0)}}}},
				"a solid with 2 points":  {"figures", []any{map[string]any{"form": "solid", "pts": sq[:2]}}},
				"a circle with 2 points": {"figures", []any{map[string]any{"form": "circle", "pts": sq[:2], "r": 1}}},
				"a circle with 1 points": {"figures", []any{map[string]any{"form": "circle", "pts": sq[:1]}}},
				`unknown form "x"`:       {"figures", []any{map[string]any{"form": "x", "pts": sq}}},
			},
		},
		{
			&design.LibraryPart{ID: 20, Name: "P", Prefix: "R", Symbol: "S"},
			nil,
			map[string][2]any{
				"the prefix is empty":       {"prefix", ""},
				"the symbol is empty":       {"symbol", ""},
				"symbol of a unit is empty": {"units", []string{""}},
			},
		},
		{
			&design.Footprint{ID: 20, Name: "F", Pads: []design.Pad{{Number: "1", Form: "rounded", Size: geom.Pt(10, 10), Corner: 5}}},
			[]map[string]any{
				pad("form", "chamfered", "corner", 4, "cut", 15), pad("form", "free", "edge", sq), pad("hole", 5, "slot", at(0, 3), "holeAt", at(1, 0)), pad("far", true),
				pad("on", map[string]any{"inner": map[string]any{"form": "round", "size": at(8, 8)}}), pad("join", "spokes"), pad("mask", map[string]any{"margin": -5, "windows": []any{sq}}),
			},
			map[string][2]any{
				"corners rounder than itself":            {"pads", []any{map[string]any{"number": "1", "form": "rounded", "size": at(10, 10), "corner": 6}}},
				`unknown form "x"`:                       {"pads", []any{map[string]any{"number": "1", "form": "x", "size": at(10, 10)}}},
				"more cut off its corners than it has":   {"pads", pad("form", "chamfered", "corner", 5)["pads"]},
				"has no corners 16 to cut off":           {"pads", pad("form", "chamfered", "corner", 4, "cut", 16)["pads"]},
				"the edge of pad 1 of F needs":           {"pads", pad("form", "free", "edge", sq[:2])["pads"]},
				"has a slot but no hole":                 {"pads", pad("slot", at(0, 3))["pads"]},
				"has no hole that could be without":      {"pads", pad("bare", true)["pads"]},
				"so that it is on both sides":            {"pads", pad("hole", 5, "far", true)["pads"]},
				`"top" is not a group of layers`:         {"pads", pad("on", map[string]any{"top": map[string]any{"form": "round", "size": at(8, 8)}})["pads"]},
				`on the far layers has the unknown form`: {"pads", pad("on", map[string]any{"far": map[string]any{"form": "x", "size": at(8, 8)}})["pads"]},
				`"x" is not a way to join areas`:         {"pads", pad("join", "x")["pads"]},
				"the margin of the mask of pad 1":        {"pads", pad("mask", map[string]any{"margin": -units.MM - 1})["pads"]},
				"a window of the paste of pad 1":         {"pads", pad("paste", map[string]any{"windows": []any{sq[:2]}})["pads"]},
				"an angle from 0":                        {"pads", pad("angle", 360_000)["pads"]},
				"a library's version is below":           {"origin", map[string]any{"version": -1}},
				"the width of pad 1":                     {"pads", []any{map[string]any{"number": "1", "form": "rect", "size": at(0, 10)}}},
				"the hole of pad 1":                      {"pads", []any{map[string]any{"number": "1", "form": "rect", "size": at(9, 10), "hole": -1}}},
			},
		},
		{
			design.Board{ID: 2, Next: 100}.Stacked(design.TwoLayers()),
			[]map[string]any{{"outline": sq}, {"outline": sq[:3]}, {"outline": round(1000)}, {"stack": stack(32)}, {"stack": stack(1)}, {"outline": []any{}}},
			map[string][2]any{
				"needs 3 to 1000 corners, not 2":                        {"outline", sq[:2]},
				"3 to 1000 corners, not 1001":                           {"outline", round(1001)},
				"crosses itself":                                        {"outline", []any{at(0, 0), at(10, 10), at(10, 0), at(0, 10)}},
				"1 to 32 copper layers, not 33":                         {"stack", stack(33)},
				"1 to 32 copper layers, not 0":                          {"stack", []any{}},
				"two layers have the id 1":                              {"stack", append(stack(2), stack(1)...)},
				"the layer x has the id 107; ids lie between 1 and 106": {"stack", append(stack(1), map[string]any{"id": 107, "kind": "core", "name": "x", "material": "y"})},
				"has nothing to cut out of":                             {"cutOuts", []any{sq}},
				"two corners in one place":                              {"outline", []any{at(0, 0), at(10, 0), at(10, 0), at(0, 10)}},
			},
		},
		{
			func() design.Object {
				b := design.Board{ID: 2}.Stacked(design.TwoLayers())
				b.Outline = geom.Corners(geom.Pt(-50, -50), geom.Pt(50, -50), geom.Pt(50, 50), geom.Pt(-50, 50))
				return b
			}(),
			[]map[string]any{{"cutOuts": []any{sq}}, {"cutOuts": []any{[]any{bow(0, 0, 10, 10), bow(20, 0, 10, -10)}}}, {"outline": []any{bow(-50, 0, 0, 50), bow(50, 0, 0, -50)}}},
			map[string][2]any{
				"does not lie within the board":                  {"cutOuts", []any{[]any{at(60, 0), at(70, 0), at(70, 10)}}},
				"a cut-out meets the outline or another":         {"cutOuts", []any{[]any{at(40, 0), at(70, 0), at(70, 10)}}},
				"a cut-out meets the outline or another cut-out": {"cutOuts", []any{sq, []any{at(10, 2), at(20, 2), at(20, 8)}}},
				"lies within another":                            {"cutOuts", []any{sq, []any{at(3, 3), at(6, 3), at(6, 6)}}},
				"a cut-out crosses itself":                       {"cutOuts", []any{[]any{at(0, 0), at(10, 10), at(10, 0), at(0, 10)}}},
				"a cut-out needs 3 to 1000 corners, not 2":       {"cutOuts", []any{sq[:2]}},
				"too flat to be told from a straight line":       {"outline", []any{bow(-2_000_000_000, 0, 0, 1), at(2_000_000_000, 0), at(0, -2_000_000_000)}},
			},
		},
		{
			&design.Rule{ID: 20, Kind: design.LeastRing, A: design.Scope{Class: "x"}, Value: design.Amount{Share: 250, Least: 100_000, Most: 200_000}},
			[]map[string]any{{"value": map[string]any{"fixed": 0}}, {"kind": "maskMargin", "value": map[string]any{"fixed": -units.MM}}, {"kind": "clearance", "b": map[string]any{"thing": "via"}}},
			map[string][2]any{
				"the least ring is 0 mm;":             {"value", map[string]any{"fixed": -1}},
				"is both a length and a share":        {"value", map[string]any{"fixed": 5, "share": 5, "most": 9}},
				"which is the wrong way round":        {"value", map[string]any{"share": 5, "least": 10, "most": 9}},
				"is 1000.1 % of the size":             {"value", map[string]any{"share": 10_001, "most": 9}},
				`"x" is not a kind of rule`:           {"kind", "x"},
				"holds for single things":             {"b", map[string]any{"thing": "via"}},
				`the unknown kind of thing "x"`:       {"a", map[string]any{"thing": "x"}},
				"the least ring is 0 mm; it must lie": {"inner", map[string]any{"fixed": -1}},
				"the net class is 201":                {"a", map[string]any{"class": long + "x"}},
				"names something by an id below":      {"a", map[string]any{"area": -1}},
			},
		},
		{
			&design.Rule{ID: 20, Kind: design.TrackWidth, Value: design.Fixed(1000)},
			nil,
			map[string][2]any{"the track width": {"value", map[string]any{"fixed": 999}}},
		},
		{
			&design.Rule{ID: 20, Kind: design.MaskMargin, Value: design.Fixed(0)},
			nil,
			map[string][2]any{"the mask margin": {"value", map[string]any{"fixed": -units.MM - 1}}},
		},
		{
			&design.RuleArea{ID: 20, Name: "Fine", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9)), KeepOut: []design.Thing{design.AVia}},
			[]map[string]any{{"outline": []any{bow(0, 0, 10, 10), bow(20, 0, 10, -10)}}},
			map[string][2]any{
				"the area's name is empty":                {"name", ""},
				`keeps out the unknown kind of thing "x"`: {"keepOut", []string{"x"}},
				"needs 3 to 1000 corners, not 2":          {"outline", sq[:2]},
			},
		},
		{
			&design.Placed{ID: 20, Designator: "R1", Footprint: "F", Nets: map[string]design.ID{}},
			[]map[string]any{{"angle": 359_999}},
			map[string][2]any{
				"an angle from 0° to below 360°":    {"angle", 360_000},
				"turned by -0.001°":                 {"angle", -1},
				"footprint of R1 is empty":          {"footprint", ""},
				"pad R1.1 bears a net that is none": {"nets", map[string]int{"1": 0}},
			},
		},
		{
			&design.Track{ID: 20, Layer: 1, B: geom.Pt(1, 0), Width: 1},
			[]map[string]any{{"layer": 31}, {"mid": at(0, 5)}},
			map[string][2]any{
				"a track lies on no layer": {"layer", 0},
				"a track lies at":          {"mid", at(0, far+1)},
				"a track has no length":    {"b", at(0, 0)},
				"the width of a track":     {"width", 0},
			},
		},
		{
			&design.Via{ID: 20, Diameter: 2, Hole: 1, From: 1, To: 3},
			[]map[string]any{{"to": 31}, {"kind": "laser"}, {"cover": "filled"}, {"cover": "open"}, {"pads": []any{map[string]any{"layer": 1, "diameter": 0}}}},
			map[string][2]any{
				"is not smaller than its diameter": {"hole", 2},
				"a via joins no two layers":        {"from", 3},
				`"x" is not a kind of via`:         {"kind", "x"},
				`"x" is not a cover of a via`:      {"cover", "x"},
				"two pads on one layer":            {"pads", []any{map[string]any{"layer": 1, "diameter": 5}, map[string]any{"layer": 1, "diameter": 6}}},
				"a pad of a via is":                {"pads", []any{map[string]any{"layer": 1, "diameter": -1}}},
				"the hole of a via":                {"hole", 0},
			},
		},
		{
			&design.Hole{ID: 20, Diameter: 1},
			nil,
			map[string][2]any{
				"a hole is 0 mm": {"diameter", 0},
				"a hole lies at": {"at", at(far+1, 0)},
			},
		},
		{
			&design.Legend{ID: 20, Height: 100_000, Text: "x"},
			nil,
			map[string][2]any{
				"the height of a text": {"height", 99_999},
				"the text is empty":    {"text", ""},
				"an angle from":        {"angle", 360_000},
			},
		},
	} {
		require.NoError(t, c.o.Valid(), "%s", c.o.ObjectKind())
		for _, f := range c.fine {
			assert.NoError(t, change(c.o, f), "%s %.80v", c.o.ObjectKind(), f)
		}
		for why, b := range c.bad {
			if b[1] == nil {
				continue
			}
			assert.ErrorContains(t, change(c.o, map[string]any{b[0].(string): b[1]}), why, "%s %s %.60v", c.o.ObjectKind(), b[0], b[1])
		}
	}
	_, err := design.Decode("cloud", []byte("{}"))
	assert.ErrorContains(t, err, `"cloud" is not a kind`)
	_, err = design.Decode(design.KindHole, []byte(`{"id":0,"diameter":1}`))
	assert.ErrorContains(t, err, "has no id")
	_, err = design.Decode(design.KindHole, []byte(`{"id":`))
	assert.ErrorContains(t, err, "cannot be read")
}

// A track of version 1 names its net by name and its layer by position: alone it cannot be read.
func TestObjectsOfEarlierVersions(t *testing.T) {
	old := []byte(`{"id":20,"layer":1,"a":{"x":0,"y":0},"b":{"x":5,"y":0},"width":7,"net":"A"}`)
	for _, k := range []design.Kind{design.KindTrack, design.KindVia, design.KindPlaced, design.KindBoard, "netSpec"} {
		_, err := design.DecodeOf(1, k, old)
		assert.ErrorIs(t, err, design.ErrEarlier, "%s", k)
	}
	o, err := design.DecodeOf(1, design.KindHole, []byte(`{"id":20,"diameter":5}`))
	require.NoError(t, err)
	assert.Equal(t, &design.Hole{ID: 20, Diameter: 5}, o, "what means what it meant is read")
	_, err = design.Decode("netSpec", old)
	assert.ErrorContains(t, err, "is not a kind of object")
}
