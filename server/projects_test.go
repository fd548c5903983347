package server

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/store"
)

// listed gives the names of the projects that the list shows, by number.
func (k *desk) listed() map[int64]string {
	k.Helper()
	code, body := k.ask("GET", "/projects", "")
	require.Equal(k, 200, code)
	var list []store.Project
	require.NoError(k, json.Unmarshal([]byte(body), &list))
	out := map[int64]string{}
	for _, p := range list {
		out[p.ID] = p.Name
	}
	return out
}

func (k *desk) created(code int, body string) Created {
	k.Helper()
	require.Equal(k, 201, code, body)
	var c Created
	require.NoError(k, json.Unmarshal([]byte(body), &c))
	return c
}

func TestAProjectIsNamedCopiedRemovedAndBroughtBack(t *testing.T) {
	k := newDesk(t)
	id := k.created(k.ask("POST", "/projects", `{"name":"Mill"}`)).ID
	l := k.dial(id)
	l.opened()
	code, body := k.ask("PATCH", fmt.Sprintf("/projects/%d", id), `{"name":" Mill Race "}`)
	require.Equal(t, 200, code, body)
	assert.Equal(t, "Mill Race", l.next("name").Name, "those who have it open are told")
	assert.Equal(t, "Mill Race", k.listed()[id])

	first := k.created(k.ask("POST", fmt.Sprintf("/projects/%d/duplicate", id), "")).ID
	second := k.created(k.ask("POST", fmt.Sprintf("/projects/%d/duplicate", id), "")).ID
	assert.Equal(t, map[int64]string{id: "Mill Race", first: "Mill Race copy", second: "Mill Race copy (2)"}, k.listed())
	code, body = k.ask("PATCH", fmt.Sprintf("/projects/%d", second), `{"name":"mill race"}`)
	assert.Equal(t, 409, code)
	assert.Contains(t, body, "already")

	code, _ = k.ask("DELETE", fmt.Sprintf("/projects/%d", id), "")
	assert.Equal(t, 204, code)
	l.next("gone")
	assert.NotContains(t, k.listed(), id)
	code, _ = k.ask("POST", fmt.Sprintf("/projects/%d/restore", id), "")
	assert.Equal(t, 204, code)
	assert.Equal(t, "Mill Race", k.listed()[id])
	back := k.dial(id)
	back.opened()

	for _, path := range []string{"/projects/abc/export", "/projects/999/restore", "/projects/999/duplicate", "/projects/999/handoff.zip"} {
		method := "POST"
		if strings.Contains(path, "ex") || strings.Contains(path, "zip") {
			method = "GET"
		}
		code, body := k.ask(method, path, "")
		assert.Equal(t, 404, code, path)
		assert.Contains(t, body, "no such project", path)
	}
}

// A project goes out as a file and comes in again beside the one it was, equal in every line.
func TestAProjectFileGoesOutAndIn(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	code, out := k.ask("GET", fmt.Sprintf("/projects/%d/export", id), "")
	require.Equal(t, 200, code)
	in := k.created(k.ask("POST", "/import", out))
	assert.Equal(t, "Moth Lamp (2)", in.Name)
	code, again := k.ask("GET", fmt.Sprintf("/projects/%d/export", in.ID), "")
	require.Equal(t, 200, code)
	lines, copies := strings.Split(out, "\n"), strings.Split(again, "\n")
	require.Greater(t, len(lines), 100)
	assert.Contains(t, copies[0], "Moth Lamp (2)")
	assert.Equal(t, lines[1:], copies[1:])
	code, raw := k.ask("GET", fmt.Sprintf("/projects/%d/raw", id), "")
	require.Equal(t, 200, code)
	assert.Len(t, strings.Split(raw, "\n"), len(lines), "as it is kept it has as many objects")
	code, why := k.ask("POST", fmt.Sprintf("/projects/%d/stepback", id), "")
	assert.Equal(t, 409, code)
	assert.Contains(t, why, "can be opened")
}

// Every address that is no file is the entrance of the application; what the program answers
// about projects is not kept by browsers, what has a fingerprint in its name is kept for good.
func TestPagesAndWhatBrowsersKeep(t *testing.T) {
	k := newDesk(t)
	get := func(path string) (*http.Response, string) {
		t.Helper()
		res, err := http.Get(k.url + path)
		require.NoError(t, err)
		defer res.Body.Close()
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res, string(data)
	}
	res, entrance := get("/")
	if res.StatusCode == http.StatusServiceUnavailable {
		assert.Contains(t, entrance, "make build")
		t.Skip("the web application was not built")
	}
	assert.Equal(t, "no-store", res.Header.Get("Cache-Control"))
	assert.NotContains(t, entrance, "NONCE")
	one, two := res.Header.Get("Content-Security-Policy"), ""
	res, deep := get("/project/3/board")
	two = res.Header.Get("Content-Security-Policy")
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, deep, "<div id=\"app\">")
	assert.NotEqual(t, one, two, "each page has a number of its own")
	for _, lost := range []string{"/assets/none.js", "/../go.mod", "/.keep.js"} {
		res, _ := get(lost)
		assert.Equal(t, 404, res.StatusCode, lost)
	}
	at := strings.Index(entrance, "/assets/")
	require.Positive(t, at)
	name := entrance[at : at+strings.IndexAny(entrance[at:], `"'`)]
	res, _ = get(name)
	assert.Equal(t, 200, res.StatusCode, name)
	assert.Contains(t, res.Header.Get("Cache-Control"), "immutable")
	res, _ = get("/api/projects")
	assert.Equal(t, "no-store", res.Header.Get("Cache-Control"))
}

// A live connection says who one is, or is refused.
func TestWhoConnectsIsNamed(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	for _, who := range []string{"", "a/b", strings.Repeat("x", 41), "ok&name=" + strings.Repeat("n", 41)} {
		conn, res, err := websocket.Dial(t.Context(), strings.Replace(k.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=%s", id, who), nil)
		if !assert.Error(t, err, who) {
			_ = conn.CloseNow()
			continue
		}
		assert.Equal(t, 400, res.StatusCode, who)
	}
}
