package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// heard reads what is numbered until the message of a number has come, as the texts that came, with the
// kinds of all that came.
func (l *line) heard(until int64) (numbered []string, kinds []string) {
	l.Helper()
	ctx, stop := context.WithTimeout(context.Background(), 20*time.Second)
	defer stop()
	for {
		_, data, err := l.conn.Read(ctx)
		require.NoError(l, err)
		var m struct {
			T   string
			Seq int64
		}
		require.NoError(l, json.Unmarshal(data, &m))
		kinds = append(kinds, m.T)
		if m.Seq > 0 && m.T != "open" {
			numbered = append(numbered, string(data))
		}
		if m.Seq >= until {
			return numbered, kinds
		}
	}
}

// dialFrom connects a tab that had the project up to a number.
func (k *desk) dialFrom(id int64, run string, seq int64) *line {
	k.Helper()
	url := strings.Replace(k.url, "http", "ws", 1) + fmt.Sprintf("/api/projects/%d/live?who=late-browser&name=&run=%s&seq=%d", id, run, seq)
	conn, _, err := websocket.Dial(context.Background(), url, nil)
	require.NoError(k, err)
	conn.SetReadLimit(64 << 20)
	k.Cleanup(func() { _ = conn.CloseNow() })
	return &line{desk: k, conn: conn}
}

// A tab that comes back hears what it missed, word for word what one heard that was there all the time;
// one of another opening, or that missed more than is kept, gets everything.
func TestATabThatComesBackHearsWhatItMissed(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	there := k.dial(id)
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	where := func() (run string, seq int64) {
		require.NoError(t, p.do(func() { run, seq = p.tale.run, p.tale.last }))
		return run, seq
	}
	hole := func(x int64) {
		m := k.dial(id).asked(map[string]any{"t": "edit", "cmd": map[string]any{"kind": "addHole", "at": xy(x, 9_000_000), "diameter": 1_000_000}})
		require.Equal(t, "done", m.T, m.Why)
	}
	hole(5_000_000)
	run, from := where()
	hole(6_000_000)
	code, body := k.ask(http.MethodPatch, fmt.Sprintf("/projects/%d", id), `{"name":"Moth Lantern"}`)
	require.Less(t, code, 300, body)
	m := k.dial(id).asked(map[string]any{"t": "undo"})
	require.Equal(t, "done", m.T, m.Why)
	_, last := where()
	all, _ := there.heard(last)
	missed, kinds := k.dialFrom(id, run, from).heard(last)
	assert.Equal(t, all[len(all)-len(missed):], missed)
	assert.Len(t, missed, 5, "two acts with what follows from each, and a name")
	assert.Equal(t, "again", kinds[0])
	assert.NotContains(t, kinds, "open")

	l := k.dialFrom(id, run, last)
	assert.Equal(t, "again", l.until("anything", func(raw) bool { return true }).T)
	for _, c := range []struct {
		run string
		seq int64
	}{{"another", last}, {"", 0}, {run, last + 1}, {run, -5}} {
		assert.Equal(t, "open", k.dialFrom(id, c.run, c.seq).until("anything", func(raw) bool { return true }).T, "%v", c)
	}
	require.NoError(t, p.do(func() { p.tale.size, p.tale.told = 0, nil }))
	assert.Equal(t, "open", k.dialFrom(id, run, from).until("anything", func(raw) bool { return true }).T, "what it missed is not kept any more")
}

// What is kept of the tale is bounded.
func TestTheTaleIsBounded(t *testing.T) {
	tale := newTale()
	for range 40 {
		tale.add(make([]byte, 1<<20))
	}
	assert.LessOrEqual(t, tale.size, mostTold)
	assert.Len(t, tale.told, mostTold>>20)
	_, ok := tale.since(tale.run, 10)
	assert.False(t, ok)
	list, ok := tale.since(tale.run, 38)
	assert.True(t, ok)
	assert.Len(t, list, 2)
}
