package e2e

import (
	"context"
	"encoding/base64"
	little "encoding/binary"
	"encoding/json"
	"fmt"
	"math/rand"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wire is a live connection without a browser.
type wire struct {
	t    *testing.T
	conn *websocket.Conn
	open message
}

type message struct {
	T, Ref, Why, Act string
	Run              string
	Seq              int64
	Rev              int64
	Objects          []object
	Copper           *columns
	History          struct{ Undo, Redo string }
}

// object is one as it travels.
type object struct {
	Kind   string
	Object json.RawMessage
}

func (p *program) live(id int64) *wire { return p.liveAs(id, "tester") }

// dial connects somebody and gives the messages as they came.
func (p *program) dial(id int64, who string) (next func() []byte) {
	p.t.Helper()
	ctx := context.Background()
	conn, _, err := websocket.Dial(ctx, strings.Replace(p.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=%s", id, who), nil)
	require.NoError(p.t, err)
	conn.SetReadLimit(64 << 20)
	return func() []byte {
		_, data, err := conn.Read(ctx)
		require.NoError(p.t, err)
		return data
	}
}

// liveAs is a live connection of somebody.
func (p *program) liveAs(id int64, who string) *wire {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	conn, _, err := websocket.Dial(ctx, strings.Replace(p.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=%s", id, who), nil)
	require.NoError(p.t, err)
	conn.SetReadLimit(64 << 20)
	w := &wire{t: p.t, conn: conn}
	w.open, err = w.read()
	require.NoError(p.t, err)
	require.Equal(p.t, "open", w.open.T)
	for copper := w.open.Copper; ; {
		w.open.Objects = append(w.open.Objects, copper.objects(p.t)...)
		m, err := w.read()
		require.NoError(p.t, err)
		w.open.Objects, copper = append(w.open.Objects, m.Objects...), m.Copper
		if m.T == "ready" {
			w.open.History, w.open.Run, w.open.Seq = m.History, m.Run, m.Seq
			return w
		}
	}
}

// columns of copper as they travel, of which these tests want the ids.
type columns struct{ Tracks, Vias struct{ ID string } }

func (c *columns) objects(t testing.TB) (out []object) {
	if c == nil {
		return nil
	}
	for kind, ids := range map[string]string{"track": c.Tracks.ID, "via": c.Vias.ID} {
		raw, err := base64.StdEncoding.DecodeString(ids)
		require.NoError(t, err)
		for i := 0; i+4 <= len(raw); i += 4 {
			out = append(out, object{kind, fmt.Appendf(nil, `{"id":%d}`, little.LittleEndian.Uint32(raw[i:]))})
		}
	}
	return out
}

func (w *wire) read() (message, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	var m message
	_, data, err := w.conn.Read(ctx)
	if err == nil {
		err = json.Unmarshal(data, &m)
	}
	return m, err
}

func (w *wire) send(v any) error {
	data, err := json.Marshal(v)
	require.NoError(w.t, err)
	return w.conn.Write(context.Background(), websocket.MessageText, data)
}

// ask sends a request and waits for its answer.
func (w *wire) ask(ref string, fields map[string]any) (message, error) {
	fields["ref"] = ref
	if err := w.send(fields); err != nil {
		return message{}, err
	}
	for {
		m, err := w.read()
		if err != nil || m.Ref == ref {
			return m, err
		}
	}
}

func supply(sheet int64, name string, i int) map[string]any {
	return map[string]any{"t": "edit", "cmd": map[string]any{"kind": "placeSupply", "v": 1, "sheet": sheet, "name": name, "shape": "bar", "at": map[string]int{"x": i * 2_500_000, "y": 0}}}
}

func (m message) sheet() int64 {
	for _, o := range m.Objects {
		if o.Kind == "sheet" {
			var s struct{ ID int64 }
			_ = json.Unmarshal(o.Object, &s)
			return s.ID
		}
	}
	return 0
}

// supplies names the supply marks in an opening.
func (m message) supplies() map[string]int {
	out := map[string]int{}
	for _, o := range m.Objects {
		if o.Kind == "supply" {
			var s struct{ Name string }
			_ = json.Unmarshal(o.Object, &s)
			out[s.Name]++
		}
	}
	return out
}

// Fifty times the program is killed in a storm of edits. Whatever was acknowledged is there
// afterwards, once; an edit sent again after the crash is done only once; undo works.
func TestKilledInAStormOfEdits(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	code, body := p.api("POST", "/projects", strings.NewReader(`{"name":"Storm"}`))
	require.Equal(t, 201, code, string(body))
	id := p.projectID("Storm")
	rng := rand.New(rand.NewSource(1))
	acknowledged := map[string]bool{}
	n := 0
	for round := range 50 {
		w := p.live(id)
		sheet := w.open.sheet()
		have := w.open.supplies()
		for name := range acknowledged {
			require.Equal(t, 1, have[name], "round %d: %s was acknowledged", round, name)
		}
		stop := time.AfterFunc(time.Duration(5+rng.Intn(60))*time.Millisecond, func() { _ = p.cmd.Process.Kill() })
		var unsure string
		for {
			n++
			name := fmt.Sprintf("V%d", n)
			unsure = name
			m, err := w.ask(name, supply(sheet, name, n%700))
			if err != nil {
				break
			}
			require.Equal(t, "done", m.T, m.Why)
			acknowledged[name] = true
		}
		stop.Stop()
		_ = w.conn.CloseNow()
		p.kill()
		p.run("serve", "127.0.0.1:0")
		// the edit whose answer never came is sent again under its name
		w = p.live(id)
		m, err := w.ask(unsure, supply(w.open.sheet(), unsure, n%700))
		require.NoError(t, err)
		require.Equal(t, "done", m.T, m.Why)
		acknowledged[unsure] = true
		_ = w.conn.CloseNow()
	}
	w := p.live(id)
	require.Len(t, w.open.supplies(), len(acknowledged))
	for range 10 {
		m, err := w.ask(fmt.Sprint("u", n), map[string]any{"t": "undo"})
		n++
		require.NoError(t, err)
		require.Equal(t, "done", m.T, m.Why)
	}
	_ = w.conn.CloseNow()
	w = p.live(id)
	assert.Len(t, w.open.supplies(), len(acknowledged)-10, "undone, and undone still after opening again")
	assert.Equal(t, "placeSupply", w.open.History.Redo)
}

// Two programs on one data directory: the second says so and changes nothing.
func TestSecondProgramOnTheSameData(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	out, code := command(t, "serve", "--data", p.data, "--addr", "127.0.0.1:0")
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "another Golden Trace is at work on this data")
	out, code = command(t, "project", "list", "--data", p.data)
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "another Golden Trace")
}
