package server

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/demo"
)

func (l *line) hole(ref string, x, y int) {
	l.say(map[string]any{"t": "edit", "ref": ref, "cmd": map[string]any{"kind": "addHole", "at": map[string]int{"x": x, "y": y}, "diameter": 3_000_000}})
}

// A project in the list: how far it is, what is found in it and its picture, as of now.
func TestAProjectAtAGlance(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp, first try")
	look := func() (g Glance) {
		code, body := k.ask("GET", fmt.Sprintf("/projects/%d/glance", id), "")
		require.Equal(t, 200, code, body)
		require.NoError(t, json.Unmarshal([]byte(body), &g))
		return g
	}
	g := look()
	assert.Equal(t, Glance{Revision: 0, Circuit: "work", Board: "work", Handoff: "none", Nets: 9, Faults: 1, Differences: 0, Picture: "circuit"}, g, "its parts still wait beside the board")
	assert.Equal(t, g, look(), "the one that was kept says the same")
	require.NoError(t, k.store.KeepGlance(t.Context(), id, 0, `{"glance":{"nets":99}}`, []byte("<old/>")))
	assert.Equal(t, g, look(), "one of another form is drawn anew")
	code, svg := k.ask("GET", fmt.Sprintf("/projects/%d/picture.svg", id), "")
	assert.Equal(t, 200, code)
	assert.Contains(t, svg, "<svg")

	l := k.dial(id)
	l.opened()
	l.hole("a", 30000000, 20000000)
	l.next("done")
	g = look()
	assert.EqualValues(t, 1, g.Revision, "it follows the project")
	assert.Equal(t, []string{"Ada"}, g.People)
	code, _ = k.ask("POST", fmt.Sprintf("/projects/%d/handoff?despite=1", id), "")
	require.Equal(t, 201, code)
	assert.Equal(t, "done", look().Handoff)
	l.hole("b", 33000000, 28000000)
	l.next("done")
	assert.Equal(t, "work", look().Handoff, "made, and out of date since")
	code, _ = k.ask("GET", "/projects/999/glance", "")
	assert.Equal(t, 404, code)
}

// Examples are looked at and copied, and changed by nobody; a template gives a board its stack.
func TestStartsOfProjects(t *testing.T) {
	k := newDesk(t)
	k.hub.examples = []Example{{"Moth Lamp", func() (*design.Doc, error) { return demo.Build("Moth Lamp") }}}
	code, body := k.ask("GET", "/starts", "")
	require.Equal(t, 200, code, body)
	var s Starts
	require.NoError(t, json.Unmarshal([]byte(body), &s))
	require.Len(t, s.Examples, 1)
	assert.Equal(t, 12, s.Examples[0].Parts)
	assert.Len(t, s.Templates, len(design.Templates()))
	assert.Empty(t, k.listed(), "an example is no project")

	id := s.Examples[0].ID
	l := k.dial(id)
	assert.True(t, l.opened().Looks)
	l.hole("a", 0, 0)
	assert.Equal(t, "This project is open to be looked at; take a copy of it to change it.", l.next("refused").Why)

	copied := k.created(k.ask("POST", "/projects", fmt.Sprintf(`{"name":"My Lamp","copy":%d}`, id))).ID
	m := k.dial(copied)
	assert.False(t, m.opened().Looks)
	m.hole("b", 30000000, 20000000)
	m.next("done")

	four := k.created(k.ask("POST", "/projects", `{"name":"Four","template":"fourLayer"}`)).ID
	loaded, err := k.store.Load(t.Context(), four)
	require.NoError(t, err)
	assert.Equal(t, []string{"Top", "Inner 1", "Inner 2", "Bottom"}, loaded.Doc.Board.CopperNames())
	code, body = k.ask("POST", "/projects", `{"name":"Six","template":"six"}`)
	assert.NotEqual(t, 201, code)
	assert.Contains(t, body, "There is no template called")
	code, _ = k.ask("POST", "/projects", `{"name":"None","copy":999}`)
	assert.Equal(t, 404, code)
}

// Anybody may open a project to look at it only.
func TestLookingOnly(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	looker, hand := k.dialAs(id, "looker", "Lu&look=1"), k.dial(id)
	assert.True(t, looker.opened().Looks)
	assert.False(t, hand.opened().Looks)
	for _, kind := range []string{"undo", "redo"} {
		looker.say(map[string]any{"t": kind, "ref": "x" + kind})
		assert.Contains(t, looker.next("refused").Why, "take a copy")
	}
	hand.hole("a", 30000000, 20000000)
	hand.next("done")
	assert.NotEmpty(t, looker.next("changes").Changes, "but sees what others do")
}
