package server

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is too large is read to its end and refused with a sentence, wherever it is sent.
func TestLargeBodiesAreAnsweredWithASentence(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	large := bytes.Repeat([]byte("x,y\n"), 40<<20/4)
	for _, path := range []string{"/drawing", "/logo?width=1000", fmt.Sprintf("/projects/%d/parts.csv", id), fmt.Sprintf("/projects/%d/houses/read", id), "/projects",
		fmt.Sprintf("/projects/%d/library", id), "/nowhere", "/import"} {
		res, err := http.Post(k.url+"/api"+path, "text/plain", bytes.NewReader(large))
		require.NoError(t, err, path)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err, path)
		res.Body.Close()
		assert.GreaterOrEqual(t, res.StatusCode, 400, path)
		assert.Regexp(t, `"error":"[A-Z][^{}]*\."`, string(data), path)
		if path != "/nowhere" && path != "/import" {
			assert.Equal(t, http.StatusRequestEntityTooLarge, res.StatusCode, "%s: %s", path, data)
			assert.Contains(t, string(data), "is larger than", path)
		}
	}
}

// A table of millions of lines costs its sender a refusal, and nobody else's edits.
func TestALongTableKeepsNobodyWaiting(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	l := k.dial(id)
	l.opened()
	table := "Designator,Value\n" + strings.Repeat("X1,5\n", 3_000_000)
	answered := make(chan string, 1)
	go func() {
		_, body := k.ask("POST", fmt.Sprintf("/projects/%d/parts.csv", id), table)
		answered <- body
	}()
	begun := time.Now()
	for len(answered) == 0 {
		m := l.asked(asks("find", map[string]any{"query": map[string]any{"text": "R"}}))
		require.Equal(t, "answer", m.T, m.Why)
		require.Less(t, time.Since(begun), time.Minute)
	}
	assert.Contains(t, <-answered, "more than 200000 rows")
	_, body := k.ask("POST", fmt.Sprintf("/projects/%d/parts.csv", id), "Designator,Value\n"+strings.Repeat("X1,5\n", 150_000))
	assert.Less(t, len(body), 20_000, "problems are bounded")
	assert.Contains(t, body, "And 149950 more of the kind.")
}

// Messages of a window are bounded by what they are.
func TestMessagesAreBoundedByKind(t *testing.T) {
	for kind, most := range map[string]int{"person": 4 << 10, "giveUp": 4 << 10, "share": 1 << 20, "ask": 4 << 20, "edit": 8 << 20} {
		r := Request{T: kind, Cmd: []byte(`{"kind":"moveParts"}`)}
		assert.NoError(t, r.sized(most), kind)
		assert.Error(t, r.sized(most+1), kind)
	}
	r := Request{T: "edit", Cmd: []byte(`{"kind":"addPicture"}`)}
	assert.NoError(t, r.sized(32<<20), "a picture is brought along")
	assert.Error(t, r.sized(32<<20+1))
	k := newDesk(t)
	l := k.dial(k.demo("Moth Lamp"))
	l.opened()
	m := l.asked(map[string]any{"t": "person", "text": strings.Repeat("x", 5000)})
	assert.Equal(t, "refused", m.T)
	assert.Contains(t, m.Why, "larger than messages of its kind")
	assert.Equal(t, "done", l.asked(map[string]any{"t": "person", "text": "Ada"}).T, "the window goes on")
}

// Sentences are for people: no word of a programmer's is in them.
func TestSentencesShowNoPrograms(t *testing.T) {
	k := newDesk(t)
	l := k.dial(k.demo("Moth Lamp"))
	l.opened()
	inner := regexp.MustCompile(`json|int64|Go |unmarshal|\bnm\b|setOutline|addHole`)
	for _, cmd := range []map[string]any{
		{"kind": "setOutline", "edge": map[string]any{"width": 12.5}},
		{"kind": "addHole", "at": xy(1, 2), "diameter": "wide"},
		{"kind": "addHole", "at": 5},
		{"kind": "addHole", "nothing": 5},
	} {
		m := l.asked(map[string]any{"t": "edit", "cmd": cmd})
		require.Equal(t, "refused", m.T)
		assert.NotRegexp(t, inner, m.Why)
	}
	m := l.asked(map[string]any{"t": "ask", "question": map[string]any{"kind": "find", "query": 3}})
	assert.NotRegexp(t, inner, m.Why)
}

// A browser says from whose page a request comes: only our own may ask, and links to pages lead in.
func TestFetchSiteIsLookedAt(t *testing.T) {
	k := newDesk(t)
	of := func(site, mode, dest string) func(*http.Request) {
		return func(r *http.Request) {
			r.Header.Set("Sec-Fetch-Site", site)
			r.Header.Set("Sec-Fetch-Mode", mode)
			r.Header.Set("Sec-Fetch-Dest", dest)
		}
	}
	code, _ := k.ask("GET", "/projects", "", of("same-origin", "cors", "empty"))
	assert.Equal(t, 200, code)
	code, _ = k.ask("GET", "/projects", "", of("none", "navigate", "document"))
	assert.Equal(t, 200, code, "typed by hand")
	for _, site := range []string{"cross-site", "same-site"} {
		code, body := k.ask("GET", "/projects", "", of(site, "no-cors", "image"))
		assert.Equal(t, 403, code, site)
		assert.Contains(t, body, "other sites")
		code, _ = k.ask("GET", "/projects", "", of(site, "navigate", "document"))
		assert.Equal(t, 403, code, "what a program answers is no page")
		req, err := http.NewRequest("GET", k.url+"/", nil)
		require.NoError(t, err)
		of(site, "navigate", "document")(req)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		res.Body.Close()
		assert.NotEqual(t, 403, res.StatusCode, "a link to us may stand anywhere")
	}
}
