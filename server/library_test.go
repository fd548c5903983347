package server

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/question"
)

// docOf is a project as the program holds it.
func (k *desk) docOf(id int64) *design.Doc {
	k.Helper()
	p, err := k.hub.project(context.Background(), id)
	require.NoError(k, err)
	d, err := ask(p, func() (*design.Doc, error) { return p.bench.Doc.Snapshot(), nil })
	require.NoError(k, err)
	return d
}

func pathOf(id int64) string { return fmt.Sprintf("/projects/%d", id) }

// A part made in one project is kept in the workspace, taken into another, and brought up to date there when it changes.
func TestPartsGoThroughTheWorkspace(t *testing.T) {
	k := newDesk(t)
	a, b := k.created(k.ask("POST", "/projects", `{"name": "A"}`)).ID, k.created(k.ask("POST", "/projects", `{"name": "B"}`)).ID
	l := k.dial(a)
	l.opened()
	at := func(x, y int) map[string]int { return map[string]int{"x": x * 2_500_000, "y": y * 2_500_000} }
	does := func(l *line, kind string, fields map[string]any) raw {
		t.Helper()
		m := l.does(edits(kind, fields))
		require.Equal(t, "done", m.T, m.Why)
		return m
	}
	pins := []map[string]any{{"number": "1", "name": "A", "type": "passive"}, {"number": "2", "name": "B", "type": "passive"}}
	does(l, "putFootprint", map[string]any{"name": "Slide 30"})
	foot := k.docOf(a).Footprint("Slide 30")
	does(l, "footprintPieces", map[string]any{"footprint": foot.ID, "pads": []map[string]any{
		{"number": "1", "form": "rect", "at": at(0, 0), "size": map[string]int{"x": 1_000_000, "y": 1_000_000}},
		{"number": "2", "form": "rect", "at": at(2, 0), "size": map[string]int{"x": 1_000_000, "y": 1_000_000}}}})
	does(l, "layBeneath", map[string]any{"footprint": foot.ID, "name": "drawing.png", "data": onePixel, "at": at(0, 0)})
	does(l, "putLibraryPart", map[string]any{"part": map[string]any{"name": "Slide", "prefix": "R", "footprint": "Slide 30"}, "pins": pins, "layout": "order"})

	code, body := k.ask("POST", pathOf(a)+"/library", `{"part": "Slide", "who": "Alder", "note": "first"}`)
	require.Equal(t, 200, code, body)
	assert.JSONEq(t, `{"version": 1}`, body)
	code, body = k.ask("GET", "/library/rows?q=slide", "")
	require.Equal(t, 200, code)
	assert.Contains(t, body, `"library":"workspace","version":1`)
	code, body = k.ask("POST", pathOf(a)+"/library", `{"part": "Nothing"}`)
	assert.Equal(t, 404, code, body)

	m := k.dial(b)
	m.opened()
	does(m, "takeParts", map[string]any{"names": []string{"Slide"}})
	own := k.docOf(b).LibraryPart("Slide")
	assert.Equal(t, design.Origin{Library: "workspace", Version: 1}, own.Origin)
	there := k.docOf(b).Footprint("Slide 30")
	require.NotNil(t, there.Beneath)
	assert.NotNil(t, k.docOf(b).Assets[there.Beneath.Asset], "the picture beneath comes along")
	newer := func() []question.NewVersion {
		return as[[]question.NewVersion](t, m.asked(asks("newer", map[string]any{})))
	}
	assert.Empty(t, newer())

	pad := k.docOf(a).Footprint("Slide 30").Pads[1]
	does(l, "footprintPieces", map[string]any{"footprint": foot.ID, "pads": []map[string]any{{"id": pad.ID, "number": "2", "form": "rect", "at": at(3, 0), "size": map[string]int{"x": 1_000_000, "y": 1_000_000}}}})
	code, body = k.ask("POST", pathOf(a)+"/library", `{"part": "Slide", "who": "Alder"}`)
	require.Equal(t, 200, code, body)
	list := newer()
	require.Len(t, list, 1)
	assert.Equal(t, 1, list[0].Have)
	assert.Equal(t, 2, list[0].Latest)
	assert.Equal(t, []string{"Pad 2 is moved by 2.5 mm, 0 mm."}, list[0].Changes)
	assert.EqualValues(t, 5_000_000, k.docOf(b).Footprint("Slide 30").Pads[1].At.X, "the design keeps what it was drawn with")
	both := as[question.Overlaid](t, m.asked(asks("overlay", map[string]any{"name": "Slide"})))
	assert.Len(t, both.OldFoot.Pads, 2)
	assert.NotEqual(t, both.OldFoot.Pads[1], both.NewFoot.Pads[1])
	assert.NotEmpty(t, both.Old)

	does(m, "updateParts", map[string]any{"names": []string{"Slide"}})
	assert.EqualValues(t, 7_500_000, k.docOf(b).Footprint("Slide 30").Pads[1].At.X)
	assert.Equal(t, there.ID, k.docOf(b).Footprint("Slide 30").ID)
	assert.Equal(t, 2, k.docOf(b).LibraryPart("Slide").Origin.Version)
	assert.Empty(t, newer())
	require.Equal(t, "done", m.asked(map[string]any{"t": "undo"}).T)
	assert.EqualValues(t, 5_000_000, k.docOf(b).Footprint("Slide 30").Pads[1].At.X)

	code, body = k.ask("POST", "/library/withdraw", `{"name": "Slide", "version": 2}`)
	require.Equal(t, 200, code, body)
	assert.Empty(t, newer(), "what was withdrawn is not offered")
	code, _ = k.ask("POST", "/library/withdraw", `{"name": "Slide", "version": 7}`)
	assert.Equal(t, 400, code)
	code, body = k.ask("GET", "/library/versions?name=Slide", "")
	require.Equal(t, 200, code)
	assert.Contains(t, body, `"version":2`)
	assert.Contains(t, body, `"withdrawn":true`)
}

const onePixel = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="

// A pack made of a project in one program is looked at, then kept, in another; a change of it is the next version there.
func TestPacksGoBetweenPrograms(t *testing.T) {
	k, other := newDesk(t), newDesk(t)
	a := k.created(k.ask("POST", "/projects", `{"name": "A"}`)).ID
	l := k.dial(a)
	l.opened()
	does := func(kind string, fields map[string]any) {
		t.Helper()
		m := l.does(edits(kind, fields))
		require.Equal(t, "done", m.T, m.Why)
	}
	code, body := k.ask("GET", pathOf(a)+"/pack", "")
	assert.Equal(t, 400, code)
	assert.Contains(t, body, "no parts")
	pins := []map[string]any{{"number": "1", "name": "A", "type": "passive"}, {"number": "2", "name": "B", "type": "passive"}}
	does("putFootprint", map[string]any{"name": "Slide 30"})
	foot := k.docOf(a).Footprint("Slide 30")
	pad := func(number string, x int) map[string]any {
		return map[string]any{"number": number, "form": "rect", "at": map[string]int{"x": x, "y": 0}, "size": map[string]int{"x": 1_000_000, "y": 1_000_000}}
	}
	does("footprintPieces", map[string]any{"footprint": foot.ID, "pads": []map[string]any{pad("1", 0)}})
	does("layBeneath", map[string]any{"footprint": foot.ID, "name": "drawing.png", "data": onePixel, "at": map[string]int{"x": 0, "y": 0}})
	does("putLibraryPart", map[string]any{"part": map[string]any{"name": "Slide", "prefix": "R", "footprint": "Slide 30"}, "pins": pins, "layout": "order"})
	code, first := k.ask("GET", pathOf(a)+"/pack?part=Slide", "")
	require.Equal(t, 200, code, first)
	code, body = k.ask("GET", pathOf(a)+"/pack?part=Nothing", "")
	assert.Equal(t, 404, code, body)

	look := func(data, query string) PackSeen {
		t.Helper()
		code, body := other.ask("POST", "/library/pack"+query, data)
		require.Equal(t, 200, code, body)
		var out PackSeen
		require.NoError(t, json.Unmarshal([]byte(body), &out))
		return out
	}
	rows := func() int {
		_, body := other.ask("GET", "/library/rows?q=Slide", "")
		return strings.Count(body, `"library":"workspace"`)
	}
	seen := look(first, "")
	assert.Equal(t, "Parts of A", seen.Title)
	require.Len(t, seen.Parts, 1)
	assert.Equal(t, "new", seen.Parts[0].State)
	assert.NotEmpty(t, seen.Parts[0].Findings, "pin 2 has no pad")
	assert.False(t, seen.Kept)
	assert.Zero(t, rows(), "looking keeps nothing")
	assert.True(t, look(first, "?keep=1&who=Alder").Kept)
	assert.Equal(t, 1, rows())
	assert.Equal(t, "same", look(first, "").Parts[0].State)
	_, body = other.ask("GET", "/library/versions?name=Slide", "")
	assert.Contains(t, body, `"who":"Alder"`)

	does("footprintPieces", map[string]any{"footprint": foot.ID, "pads": []map[string]any{pad("2", 5_000_000)}})
	_, second := k.ask("GET", pathOf(a)+"/pack", "")
	seen = look(second, "")
	assert.Equal(t, "next", seen.Parts[0].State)
	assert.Equal(t, 2, seen.Parts[0].Version)
	assert.Equal(t, []string{"Pad 2 is new."}, seen.Parts[0].Changes)
	assert.NotContains(t, fmt.Sprint(seen.Parts[0].Findings), "no pad")
	look(second, "?keep=1&who=Alder")

	there := other.created(other.ask("POST", "/projects", `{"name": "B"}`)).ID
	m := other.dial(there)
	m.opened()
	require.Equal(t, "done", m.does(edits("takeParts", map[string]any{"names": []string{"Slide"}})).T)
	f := other.docOf(there).Footprint("Slide 30")
	assert.Len(t, f.Pads, 2)
	require.NotNil(t, f.Beneath)
	assert.NotNil(t, other.docOf(there).Assets[f.Beneath.Asset], "the picture went along")
	code, third := other.ask("GET", "/library/pack?part=Slide&part=Resistor+0603", "")
	require.Equal(t, 200, code, third)
	assert.Len(t, look(third, "").Parts, 2)

	for _, bad := range []string{"", "nonsense", first[:len(first)/2]} {
		code, body = other.ask("POST", "/library/pack?keep=1", bad)
		assert.Equal(t, 400, code, body)
		assert.Contains(t, body, "not a part pack")
	}
	code, body = other.ask("GET", "/library/pack", "")
	assert.Equal(t, 400, code, body)

	code, body = other.ask("GET", pathOf(there)+"/footprints.pdf?name=Slide+30", "")
	require.Equal(t, 200, code, body)
	assert.True(t, strings.HasPrefix(body, "%PDF-"))
	code, body = other.ask("GET", pathOf(there)+"/footprints.pdf?name=Nothing", "")
	assert.Equal(t, 404, code)
	assert.Contains(t, body, "Nothing")
}
