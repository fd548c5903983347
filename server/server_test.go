package server

import (
	"bytes"
	"context"
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
	"goldentrace/demo"
	"goldentrace/store"
)

// desk is a running server with its store.
type desk struct {
	*testing.T
	url   string
	dir   string
	store *store.Store
	hub   *hub
}

func newDesk(t *testing.T) *desk { return newDeskIn(t, t.TempDir()) }

// newDeskIn is one over a data directory.
func newDeskIn(t *testing.T, dir string) *desk {
	t.Helper()
	s, err := store.Open(dir)
	require.NoError(t, err)
	h := newHub(s)
	web := httptest.NewUnstartedServer(nil)
	web.Config.Handler = Handler(h, web.Listener.Addr().String())
	web.Start()
	t.Cleanup(func() { web.Close(); h.close(); _ = s.Close() })
	return &desk{t, web.URL, dir, s, h}
}

func (k *desk) ask(method, path, body string, change ...func(*http.Request)) (int, string) {
	k.Helper()
	req, err := http.NewRequest(method, k.url+"/api"+path, strings.NewReader(body))
	require.NoError(k, err)
	for _, f := range change {
		f(req)
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(k, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(k, err)
	return res.StatusCode, string(data)
}

func (k *desk) demo(name string) int64 {
	k.Helper()
	d, err := demo.Build(name)
	require.NoError(k, err)
	id, err := k.store.Create(context.Background(), name, d)
	require.NoError(k, err)
	return id
}

// line is one browser's connection.
type line struct {
	*desk
	conn *websocket.Conn
}

// raw is a message whose objects are left as they came.
type raw struct {
	T, Ref, Why string
	Over        string
	Missing     []string
	Looks       bool
	Outcome     circuit.Outcome
	Rev         int64
	Answer      json.RawMessage
	Shared      *Shared
	People      []Person
	Who         string
	Name        string
	Changes     []struct{ Kind string }
	History     *History
	Job         JobState
	Derived     struct {
		Behind   map[string]int64
		Stages   workbench.Stages
		Links    map[string]json.RawMessage
		Findings []*check.Finding
	}
	Objects  []sent
	Copper   map[string]map[string]string
	Patterns []struct{ Footprint design.ID }
	Run      string
	Seq      int64
}

// sent is an object as it came.
type sent struct {
	Kind   string
	Object json.RawMessage
}

// as reads what a question was answered.
func as[T any](t testing.TB, m raw) (out T) {
	t.Helper()
	require.Equal(t, "answer", m.T, m.Why)
	require.NoError(t, json.Unmarshal(m.Answer, &out))
	return out
}

// asks is the request that asks one.
func asks(kind string, fields map[string]any) map[string]any {
	q := map[string]any{"kind": kind}
	for k, v := range fields {
		q[k] = v
	}
	return map[string]any{"t": "ask", "question": q}
}

func (k *desk) dial(id int64) *line { return k.dialAs(id, "tester", "Ada") }

// dialAs is somebody's connection.
func (k *desk) dialAs(id int64, who, name string) *line {
	k.Helper()
	conn, _, err := websocket.Dial(context.Background(), strings.Replace(k.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=%s&name=%s", id, who, name), nil)
	require.NoError(k, err)
	conn.SetReadLimit(64 << 20)
	k.Cleanup(func() { _ = conn.CloseNow() })
	return &line{desk: k, conn: conn}
}

// next reads until a message of the kind comes.
func (l *line) next(t string) raw {
	l.Helper()
	return l.until(t, func(m raw) bool { return m.T == t })
}

// opened reads until the project is handed over, and puts together what came of it.
func (l *line) opened() raw {
	l.Helper()
	open := l.next("open")
	open.Objects = append(open.Objects, l.unpacked(open.Copper)...)
	for {
		m := l.until("more, or the end", func(m raw) bool { return m.T == "more" || m.T == "ready" })
		open.Objects = append(append(open.Objects, m.Objects...), l.unpacked(m.Copper)...)
		open.Patterns = append(open.Patterns, m.Patterns...)
		if m.T == "ready" {
			open.Derived, open.History, open.People, open.Run, open.Seq = m.Derived, m.History, m.People, m.Run, m.Seq
			return open
		}
	}
}

// unpacked are the objects of columns.
func (l *line) unpacked(copper map[string]map[string]string) (out []sent) {
	column := func(of map[string]string, name string) []int32 {
		raw, err := base64.StdEncoding.DecodeString(of[name])
		require.NoError(l, err)
		out := make([]int32, len(raw)/4)
		require.NoError(l, binary.Read(bytes.NewReader(raw), binary.LittleEndian, out))
		return out
	}
	give := func(kind string, of map[string]string, names []string, make func(row map[string]int32) any) {
		columns := map[string][]int32{}
		for _, n := range names {
			columns[n] = column(of, n)
		}
		locked := column(of, "locked")
		for i := range columns["id"] {
			row := map[string]int32{}
			for _, n := range names {
				row[n] = columns[n][i]
			}
			if slices.Contains(locked, int32(i)) {
				row["locked"] = 1
			}
			if at := slices.Index(column(of, "bent"), int32(i)); at >= 0 {
				row["bent"], row["mx"], row["my"] = 1, column(of, "mx")[at], column(of, "my")[at]
			}
			body, err := json.Marshal(make(row))
			require.NoError(l, err)
			out = append(out, sent{kind, body})
		}
	}
	give("track", copper["tracks"], []string{"id", "layer", "net", "width", "ax", "ay", "bx", "by"}, func(r map[string]int32) any {
		t := design.Track{ID: design.ID(r["id"]), Layer: design.LayerID(r["layer"]), Net: design.ID(r["net"]), Width: int64(r["width"]),
			A: geom.Pt(int64(r["ax"]), int64(r["ay"])), B: geom.Pt(int64(r["bx"]), int64(r["by"])), Locked: r["locked"] == 1}
		if r["bent"] == 1 {
			t.Mid = ptr(geom.Pt(int64(r["mx"]), int64(r["my"])))
		}
		return t
	})
	give("via", copper["vias"], []string{"id", "net", "x", "y", "diameter", "hole", "from", "to"}, func(r map[string]int32) any {
		return design.Via{ID: design.ID(r["id"]), Net: design.ID(r["net"]), At: geom.Pt(int64(r["x"]), int64(r["y"])), Diameter: int64(r["diameter"]), Hole: int64(r["hole"]),
			From: design.LayerID(r["from"]), To: design.LayerID(r["to"]), Locked: r["locked"] == 1}
	})
	return out
}

// until reads until the message that is wanted comes.
func (l *line) until(what string, wanted func(m raw) bool) raw {
	l.Helper()
	ctx, stop := context.WithTimeout(context.Background(), 20*time.Second)
	defer stop()
	for {
		_, data, err := l.conn.Read(ctx)
		require.NoError(l, err, "waiting for %.300s", what)
		var m raw
		require.NoError(l, json.Unmarshal(data, &m))
		if wanted(m) {
			return m
		}
	}
}

func (l *line) say(v map[string]any) {
	l.Helper()
	data, err := json.Marshal(v)
	require.NoError(l, err)
	require.NoError(l, l.conn.Write(context.Background(), websocket.MessageText, data))
}

// Only this machine's own pages may speak to the program.
func TestStrangersAreRefused(t *testing.T) {
	k := newDesk(t)
	code, _ := k.ask("GET", "/projects", "")
	assert.Equal(t, 200, code)
	code, _ = k.ask("GET", "/projects", "", func(r *http.Request) { r.Host = "far.example" })
	assert.Equal(t, 403, code)
	code, _ = k.ask("POST", "/projects", `{"name":"x"}`, func(r *http.Request) { r.Header.Set("Origin", "http://far.example") })
	assert.Equal(t, 403, code)
	res, err := http.Get(k.url + "/")
	require.NoError(t, err)
	defer res.Body.Close()
	policy := res.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'none'")
	assert.NotContains(t, policy, "unsafe")
}

func TestProjectsBySentences(t *testing.T) {
	k := newDesk(t)
	code, body := k.ask("POST", "/projects", `{"name":"  Mill  "}`)
	require.Equal(t, 201, code, body)
	for _, c := range []struct{ method, path, body, why string }{
		{"POST", "/projects", `{"name":"mill"}`, "already"},
		{"POST", "/projects", `{"name":" "}`, "name"},
		{"POST", "/projects", `nonsense`, "The name cannot be read"},
		{"PATCH", "/projects/999", `{"name":"x"}`, "no such project"},
		{"DELETE", "/projects/999", ``, "no such project"},
		{"GET", "/projects/999/export", ``, "no such project"},
		{"GET", "/projects/999/parts.csv", ``, "no such project"},
		{"GET", "/projects/999/circuit.pdf", ``, "no such project"},
		{"POST", "/import", `{"format":"something else"}`, "not a Golden Trace project"},
		{"GET", "/nowhere", ``, "nothing at this address"},
	} {
		code, body := k.ask(c.method, c.path, c.body)
		assert.GreaterOrEqual(t, code, 400, c.path)
		assert.Contains(t, strings.ToLower(body), strings.ToLower(c.why), c.path)
		var f Failure
		require.NoError(t, json.Unmarshal([]byte(body), &f), c.path)
		assert.True(t, strings.HasSuffix(f.Error, "."), "a sentence: %s", f.Error)
	}
}

func TestFilesOfACircuit(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Weir Gauge")
	at := func(format string, a ...any) string {
		return fmt.Sprintf("/projects/%d", id) + fmt.Sprintf(format, a...)
	}
	code, table := k.ask("GET", at("/parts.csv"), "")
	require.Equal(t, 200, code)
	assert.True(t, strings.HasPrefix(table, "Designator,Value,"))
	code, preview := k.ask("POST", at("/parts.csv"), strings.Replace(table, "R13,120", "R13,150", 1))
	require.Equal(t, 200, code)
	assert.Contains(t, preview, `"old":"120"`)
	code, why := k.ask("POST", at("/parts.csv"), "A,B\n1,2")
	assert.Equal(t, 400, code)
	assert.Contains(t, why, "no column called Designator")
	_, again := k.ask("GET", at("/parts.csv"), "")
	assert.Equal(t, table, again, "a look changes nothing")
	code, svg := k.ask("GET", at("/sheet.svg?sheet=10&path="), "")
	require.Equal(t, 200, code)
	assert.Contains(t, svg, "<svg")
	code, _ = k.ask("GET", at("/sheet.svg?sheet=10&path=7/7"), "")
	assert.Equal(t, 404, code)
	code, _ = k.ask("GET", at("/assets/123456"), "")
	assert.Equal(t, 404, code)
	code, found := k.ask("GET", "/library?q=resistor", "")
	require.Equal(t, 200, code)
	assert.Contains(t, found, `"Resistor 0805"`)
	code, none := k.ask("GET", "/library?q=zzzz", "")
	require.Equal(t, 200, code)
	assert.JSONEq(t, `{"items":[],"found":0,"query":"zzzz"}`, none)
	_, valued := k.ask("GET", "/library?q=resistor+4k7+0805", "")
	assert.Contains(t, valued, `"query":"resistor 0805","value":"4k7"`, "no part is called so: one that is given the value is meant")
	assert.Contains(t, valued, `"Resistor 0805"`)
}

// Pictures go to browsers without their bytes, which they fetch by themselves, made harmless.
func TestPicturesAreServedApart(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Pictures", design.New("Pictures"))
	require.NoError(t, err)
	l := k.dial(id)
	l.opened()
	svg := []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>`)
	l.say(map[string]any{"t": "edit", "ref": "p", "cmd": map[string]any{"kind": "addPicture", "sheet": 10, "name": "a.svg", "data": svg, "at": map[string]int{"x": 0, "y": 0}}})
	m := l.next("changes")
	require.Len(t, m.Changes, 2)
	other := k.dial(id).opened()
	for _, o := range other.Objects {
		if o.Kind == "asset" {
			var a struct {
				ID   int64
				Data *string
			}
			require.NoError(t, json.Unmarshal(o.Object, &a))
			assert.Nil(t, a.Data)
			code, body := k.ask("GET", fmt.Sprintf("/projects/%d/assets/%d", id, a.ID), "")
			assert.Equal(t, 200, code)
			assert.Contains(t, body, "<rect")
			return
		}
	}
	assert.Fail(t, "no asset came")
}

func TestQuestionsOverTheLine(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Weir Gauge")
	l := k.dial(id)
	l.opened()
	ask := func(kind string, fields map[string]any) raw {
		t.Helper()
		return l.asked(asks(kind, fields))
	}
	page := as[struct {
		Items []struct {
			Kind  string
			Marks []json.RawMessage
		}
	}](t, ask("sheet", map[string]any{"sheet": 10, "path": ""}))
	blocks := 0
	for _, it := range page.Items {
		if it.Kind == "block" {
			blocks++
			assert.NotEmpty(t, it.Marks)
		}
	}
	assert.Equal(t, 9, blocks)
	drawn := as[struct{ Marks []json.RawMessage }](t, ask("item", map[string]any{"item": map[string]any{"kind": "part", "object": map[string]any{"library": "Header 6", "at": map[string]int{"x": 0, "y": 0}}}}))
	assert.NotEmpty(t, drawn.Marks, "also of a part the project does not have yet")
	assert.Len(t, as[[]any](t, ask("find", map[string]any{"query": map[string]any{"text": "bv36s"}})), 9, "value, part number and datasheet of three diodes")
	assert.NotEmpty(t, as[[]any](t, ask("numbers", map[string]any{"numbering": map[string]any{"way": "rows"}})))
	assert.Len(t, as[[][2]string](t, ask("pairs", nil)), 2)

	for _, c := range []struct {
		ask map[string]any
		why string
	}{
		{asks("sheet", map[string]any{"sheet": 99999}), "no such sheet"},
		{asks("item", nil), "Nothing was given to draw"},
		{asks("timing", map[string]any{"text": "A: hihg"}), "is not a state of a signal"},
		{asks("numbers", map[string]any{"numbering": map[string]any{"way": "spiral"}}), "by rows or by columns"},
		{map[string]any{"t": "sing"}, "is not known"},
		{asks("sing", nil), "is not a question"},
		{map[string]any{"t": "ask", "question": "what"}, "cannot be read"},
		{map[string]any{"t": "edit", "cmd": map[string]any{"kind": "sing"}}, "no edit called"},
		{map[string]any{"t": "edit", "cmd": map[string]any{"kind": "addSheet", "colour": "blue"}}, "cannot be read"},
		{map[string]any{"t": "redo"}, "nothing of yours to redo"},
	} {
		c.ask["ref"] = "no"
		l.say(c.ask)
		assert.Contains(t, l.next("refused").Why, c.why)
	}
	require.NoError(t, l.conn.Write(context.Background(), websocket.MessageText, []byte("not JSON")))
	assert.Contains(t, l.next("refused").Why, "cannot be read")
}

// What one window picks, the others are told, and nobody else's undo is touched by it.
func TestPickingIsShared(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	a, b := k.dial(id), k.dial(id)
	a.opened()
	b.opened()
	a.say(map[string]any{"t": "share", "ref": "s", "shared": map[string]any{"parts": []map[string]any{{"part": 12}}, "net": "GND"}})
	m := b.next("shared")
	assert.Equal(t, "GND", m.Shared.Net)
	require.Len(t, m.Shared.Parts, 1)
	assert.EqualValues(t, 12, m.Shared.Parts[0].Part)
	assert.EqualValues(t, 0, a.next("done").Rev, "nothing was edited")
}

// Somebody who comes later sees what those who are here picked, until the last window of theirs has gone.
func TestWhoComesSeesWhatIsPicked(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	ada, again := k.dialAs(id, "ada-browser", "Ada"), k.dialAs(id, "ada-browser", "Ada")
	ada.say(map[string]any{"t": "share", "ref": "s", "shared": map[string]any{"parts": []map[string]any{{"part": 12}}, "net": "VIN"}})
	assert.Equal(t, "VIN", again.next("shared").Shared.Net)

	ben := k.dialAs(id, "ben-browser", "Ben")
	people := ben.peopleUntil(func(p []Person) bool { return len(p) == 2 })
	seen := ben.next("shared")
	assert.Equal(t, []string{"VIN", "ada-brow"}, []string{seen.Shared.Net, seen.Who})
	assert.Equal(t, []Person{{Who: "ben-brow", Name: "Ben", You: true, Tabs: 1}, {Who: seen.Who, Name: "Ada", Tabs: 2}}, people)
	third := k.dialAs(id, "ada-browser", "Ada")
	assert.Equal(t, "VIN", third.next("shared").Shared.Net, "a further window of one's own takes it over")

	_ = again.conn.Close(websocket.StatusNormalClosure, "")
	_ = third.conn.Close(websocket.StatusNormalClosure, "")
	ben.peopleUntil(func(p []Person) bool { return len(p) == 2 && p[1].Tabs == 1 })
	assert.Equal(t, "VIN", k.dialAs(id, "cyn-browser", "").next("shared").Shared.Net, "one window of hers is left")
	_ = ada.conn.Close(websocket.StatusNormalClosure, "")
	ben.peopleUntil(func(p []Person) bool { return !slices.ContainsFunc(p, func(x Person) bool { return x.Name == "Ada" }) })
	dan := k.dialAs(id, "dan-browser", "Dan")
	dan.say(map[string]any{"t": "history", "ref": "h"})
	dan.until("nothing of hers", func(m raw) bool {
		assert.NotEqual(t, "others", m.T)
		return m.Ref == "h"
	})

	ben.say(map[string]any{"t": "person", "ref": "n", "text": "  Benedikt "})
	dan.peopleUntil(func(p []Person) bool {
		return slices.ContainsFunc(p, func(x Person) bool { return x.Name == "Benedikt" })
	})
	for _, bad := range []string{strings.Repeat("n", 41), "a\nb"} {
		ben.say(map[string]any{"t": "person", "ref": "n", "text": bad})
		assert.Contains(t, ben.next("refused").Why, "at most 40 letters")
	}
}

// peopleUntil reads until those who are here are as wanted.
func (l *line) peopleUntil(wanted func([]Person) bool) []Person {
	l.Helper()
	return l.until("people", func(m raw) bool { return m.T == "people" && wanted(m.People) }).People
}
