package server

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	_ "github.com/mattn/go-sqlite3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/store"
)

func edits(kind string, fields map[string]any) map[string]any {
	fields["kind"], fields["v"] = kind, 1
	return map[string]any{"t": "edit", "ref": fmt.Sprintf("%s %v", kind, fields), "cmd": fields}
}

func (l *line) does(v map[string]any) raw {
	l.Helper()
	l.say(v)
	return l.answerTo(v["ref"].(string), fmt.Sprint(v))
}

// A fault of ours costs one refusal: what is open is thrown away and read again, everybody gets
// it anew, and the work goes on.
func TestAFaultCostsOneRefusal(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	a, b := k.dial(id), k.dial(id)
	a.opened()
	b.opened()
	require.Equal(t, "done", a.does(edits("setSettings", map[string]any{"author": "before"})).T)
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	require.NoError(t, p.do(func() { p.bench.Doc.Settings = nil })) // the next command stumbles over it
	m := a.does(edits("setSettings", map[string]any{"title": "x"}))
	assert.Equal(t, "refused", m.T)
	assert.Contains(t, m.Why, "nothing of it was kept, and the project was read again")
	b.opened() // everybody gets it anew
	m = a.does(edits("setSettings", map[string]any{"title": "after"}))
	require.Equal(t, "done", m.T, m.Why)
	require.ErrorIs(t, p.do(func() { panic("in the middle") }), errFault)
	loaded, err := k.store.Load(context.Background(), id)
	require.NoError(t, err)
	assert.Equal(t, []string{"before", "after"}, []string{loaded.Doc.Settings.Author, loaded.Doc.Settings.Title})
	require.NoError(t, p.do(func() { assert.Equal(t, "after", p.bench.Doc.Settings.Title) }), "and it still answers")
}

// tamper changes a project's rows behind the program's back.
func tamper(t *testing.T, dir, query string, args ...any) {
	t.Helper()
	db, err := sql.Open("sqlite3", "file:"+filepath.Join(dir, "goldentrace.db")+"?_busy_timeout=5000")
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec(query, args...)
	require.NoError(t, err)
}

// A project of which an object cannot be read opens without it and says so; it is saved as it is
// kept. One that cannot be opened says so in the list and is stepped back.
func TestDamagedProjects(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	d, err := k.store.Load(context.Background(), id)
	require.NoError(t, err)
	var label design.ID
	for l := range d.Doc.Labels.All() {
		label = l.ID
	}
	tamper(t, k.dir, `UPDATE object SET body = '{"id":"no number"}' WHERE project = ? AND id = ?`, id, label)
	l := k.dial(id)
	open := l.opened()
	require.Len(t, open.Missing, 1)
	assert.Contains(t, open.Missing[0], fmt.Sprint(label))
	assert.Len(t, open.Objects, count(d.Doc)-1)
	require.Equal(t, "done", l.does(edits("setSettings", map[string]any{"author": "goes on"})).T)
	code, body := k.ask("GET", fmt.Sprintf("/projects/%d/export", id), "")
	assert.Equal(t, 400, code)
	assert.Contains(t, body, "export it as it is kept")
	code, body = k.ask("GET", fmt.Sprintf("/projects/%d/raw", id), "")
	require.Equal(t, 200, code)
	assert.Equal(t, count(d.Doc)+1, strings.Count(body, "\n"), "its head and every object, readable or not")
	assert.Contains(t, body, "no number")
	code, list := k.ask("GET", "/projects", "")
	require.Equal(t, 200, code)
	assert.Contains(t, list, "opened without 1 of its objects")

	// the settings gone altogether, by an act of the journal
	whole := k.demo("Moth Lamp, first try")
	m := k.dial(whole)
	m.opened()
	require.Equal(t, "done", m.does(edits("setSettings", map[string]any{"title": "good"})).T)
	require.Equal(t, "done", m.does(edits("setSettings", map[string]any{"title": "bad"})).T)
	k.hub.forget(whole)
	tamper(t, k.dir, `UPDATE object SET body = 'nonsense' WHERE project = ? AND kind = 'settings'`, whole)
	code, body = k.ask("GET", fmt.Sprintf("/projects/%d/parts.csv", whole), "")
	assert.Equal(t, 400, code)
	assert.Contains(t, body, "damaged")
	_, list = k.ask("GET", "/projects", "")
	assert.Contains(t, list, "is damaged")
	code, body = k.ask("POST", fmt.Sprintf("/projects/%d/stepback", whole), "")
	require.Equal(t, 200, code, body)
	assert.JSONEq(t, `{"act":"setSettings"}`, body)
	got, err := k.store.Load(context.Background(), whole)
	require.NoError(t, err)
	assert.Equal(t, "good", got.Doc.Settings.Title)
	_, list = k.ask("GET", "/projects", "")
	assert.NotContains(t, list, "is damaged")
	code, body = k.ask("POST", fmt.Sprintf("/projects/%d/stepback", whole), "")
	assert.Equal(t, 409, code)
	assert.Contains(t, body, "undo its last step there")
}

func count(d *design.Doc) int {
	n := 0
	for range d.All() {
		n++
	}
	return n
}

// A disk that refuses takes the edit back, and says so; the next one is kept.
func TestDiskRefuses(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	l := k.dial(id)
	l.opened()
	tamper(t, k.dir, `CREATE TRIGGER full BEFORE INSERT ON journal BEGIN SELECT raise(ABORT, 'disk full'); END`)
	m := l.does(edits("setSettings", map[string]any{"author": "lost"}))
	require.Equal(t, "refused", m.T)
	assert.Contains(t, m.Why, "taken back")
	assert.Contains(t, m.Why, "disk full")
	tamper(t, k.dir, `DROP TRIGGER full`)
	require.Equal(t, "done", l.does(edits("setSettings", map[string]any{"number": "7"})).T)
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	require.NoError(t, p.do(func() {
		assert.NotEqual(t, "lost", p.bench.Doc.Settings.Author)
		assert.Equal(t, "7", p.bench.Doc.Settings.Number)
	}))
}

// Somebody who does not take an answer holds nobody up: neither with a picture nor with an
// opening.
func TestSlowReadersHoldNobody(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Weir Gauge")
	l := k.dial(id)
	l.opened()
	var idle []net.Conn
	for range 20 {
		c, err := net.Dial("tcp", strings.TrimPrefix(k.url, "http://"))
		require.NoError(t, err)
		idle = append(idle, c)
		_, err = fmt.Fprintf(c, "GET /api/projects/%d/sheet.svg?sheet=10 HTTP/1.1\r\nHost: %s\r\n\r\n", id, strings.TrimPrefix(k.url, "http://"))
		require.NoError(t, err)
	}
	for i := range 5 { // whoever never reads his opening
		c := k.dial(id)
		_ = c
		require.Equal(t, "done", l.does(edits("setSettings", map[string]any{"author": fmt.Sprint("a", i)})).T)
	}
	for _, c := range idle {
		_ = c.Close()
	}
}

// Undo is a person's own; an edit of the same value at once tells the second what was there.
func TestUndoIsOnesOwn(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	ada, ben := k.dialAs(id, "ada", "Ada"), k.dialAs(id, "ben", "Ben")
	rev := ada.opened().Rev
	ben.opened()
	require.Equal(t, "done", ada.does(edits("setSettings", map[string]any{"author": "A"})).T)
	require.Equal(t, "done", ben.does(edits("addHole", map[string]any{"at": map[string]int{"x": 1, "y": 2}, "diameter": 1_000_000})).T)
	m := ben.does(map[string]any{"t": "undo", "ref": "u1"})
	require.Equal(t, "done", m.T, m.Why)
	m = ben.does(map[string]any{"t": "undo", "ref": "u2"})
	assert.Equal(t, "refused", m.T)
	assert.Contains(t, m.Why, "nothing of yours to undo")
	// both change the author; the second had not seen the first
	v := edits("setSettings", map[string]any{"author": "B"})
	v["rev"] = rev
	m = ben.does(v)
	require.Equal(t, "done", m.T)
	assert.Contains(t, m.Over, "Ada had just changed the project's settings: its author was A and is B now.")
	m = ada.does(map[string]any{"t": "undo", "ref": "u3"})
	assert.Equal(t, "refused", m.T)
	assert.Contains(t, m.Why, "Ben has changed the project's settings since")
	require.Equal(t, "done", ben.does(map[string]any{"t": "undo", "ref": "u4"}).T)
	require.Equal(t, "done", ada.does(map[string]any{"t": "undo", "ref": "u5"}).T, "now nothing stands in her way")
	require.Equal(t, "done", ada.does(map[string]any{"t": "redo", "ref": "u6"}).T)
	loaded, err := k.store.Load(context.Background(), id)
	require.NoError(t, err)
	assert.Equal(t, "A", loaded.Doc.Settings.Author)
	// after a restart the histories are as they were
	k.hub.forget(id)
	again := k.dialAs(id, "ada", "Ada")
	again.opened()
	require.Equal(t, "done", again.does(map[string]any{"t": "undo", "ref": "u7"}).T)
}

// What joins nets is asked about first and done when it is agreed to.
func TestAsksBeforeItJoins(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Joins", design.New("Joins"))
	require.NoError(t, err)
	l := k.dial(id)
	l.opened()
	at := func(x, y int) map[string]int { return map[string]int{"x": x * 2_500_000, "y": y * 2_500_000} }
	require.Equal(t, "done", l.does(edits("placePart", map[string]any{"sheet": 10, "library": "Resistor", "at": at(0, 0)})).T)
	require.Equal(t, "done", l.does(edits("placePart", map[string]any{"sheet": 10, "library": "Resistor", "at": at(0, 4)})).T)
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	var first int64
	require.NoError(t, p.do(func() {
		for q := range p.bench.Doc.Parts.All() {
			if q.Designator == "R1" {
				first = int64(q.ID)
			}
		}
	}))
	move := edits("moveItems", map[string]any{"ids": []int64{first}, "step": at(0, 4)})
	m := l.does(move)
	require.Equal(t, "asks", m.T)
	assert.Equal(t, "This would join R1.1 and R2.1, and join R1.2 and R2.2.", m.Why)
	move["ref"], move["agreed"] = "agreed", m.Outcome
	require.Equal(t, "done", l.does(move).T)
}

// A refusal of a large upload reaches the sender as its sentence, though he is still sending.
func TestLargeUploadIsRefusedInWords(t *testing.T) {
	k := newDesk(t)
	body := io.MultiReader(strings.NewReader("no project at all\n"), bytes.NewReader(make([]byte, 20<<20)))
	res, err := http.Post(k.url+"/api/import", "application/x-ndjson", body)
	require.NoError(t, err)
	defer res.Body.Close()
	var f Failure
	require.NoError(t, json.NewDecoder(res.Body).Decode(&f))
	assert.Equal(t, "This is not a Golden Trace project file.", f.Error)
}

// What comes in as a file passes the gates that uploads pass.
func TestImportedFilesPassTheGates(t *testing.T) {
	k := newDesk(t)
	file := func(change func(d *design.Doc)) string {
		d := design.New("Gate")
		change(d)
		var b bytes.Buffer
		require.NoError(t, design.WriteFile(&b, "Gate", d))
		return b.String()
	}
	put := func(o design.Object) func(d *design.Doc) { return func(d *design.Doc) { d.Put(o) } }
	loop := `<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><g id="a"><use href="#a"/></g></svg>`
	for name, c := range map[string]struct{ file, why string }{
		"a picture that uses itself": {file(put(&design.Asset{ID: 2000, Name: "loop", Type: "svg", Width: 9, Height: 9, Data: []byte(loop)})), "use one another"},
		"a picture that is none":     {file(put(&design.Asset{ID: 2000, Name: "none", Type: "png", Width: 9, Height: 9, Data: []byte("x")})), "not a picture"},
		"a timing diagram of 100 m":  {file(put(&design.Timing{ID: 2000, Sheet: 10, Slot: 1_000_000_000, Text: "A: any 100"})), "mm is the most"},
		"two sheets of one name":     {file(put(&design.Sheet{ID: 2000, Name: "Sheet 1", Order: 2, Size: "A4"})), "two sheets are called Sheet 1"},
		"an id beyond 2^53":          {file(put(&design.Hole{ID: 1 << 53, Diameter: 1_000_000})), "ids lie between"},
		"a hole under a single's id": {file(put(&design.Hole{ID: 3, Diameter: 1_000_000})), "ids lie between"},
		"ids that would run over":    {strings.Replace(file(func(*design.Doc) {}), `"next":34`, `"next":9223372036854775807`, 1), "ids end at"},
	} {
		code, body := k.ask("POST", "/import", c.file)
		assert.Equal(t, 400, code, name)
		assert.Contains(t, body, c.why, name)
	}
}

// Projects that nobody has open are closed after a while; those that somebody is in are not.
func TestIdleProjectsAreClosed(t *testing.T) {
	k := newDesk(t)
	empty, used := k.demo("Moth Lamp"), k.demo("Moth Lamp, first try")
	l := k.dial(used)
	l.opened()
	code, _ := k.ask("GET", fmt.Sprintf("/projects/%d/parts.csv", empty), "")
	require.Equal(t, 200, code)
	require.NotNil(t, k.hub.opened(empty))
	k.hub.closeIdle(time.Now().Add(-time.Hour))
	require.NotNil(t, k.hub.opened(empty), "it was used a moment ago")
	k.hub.closeIdle(time.Now().Add(time.Hour))
	assert.Nil(t, k.hub.opened(empty))
	assert.NotNil(t, k.hub.opened(used))
	code, _ = k.ask("GET", fmt.Sprintf("/projects/%d/parts.csv", empty), "")
	assert.Equal(t, 200, code, "and opened again when it is asked for")
}

// There is a bound on the windows of one project.
func TestMostWindows(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Full", design.New("Full"))
	require.NoError(t, err)
	for range mostInOne {
		k.dial(id).opened()
	}
	code, body := k.ask("GET", fmt.Sprintf("/projects/%d/live?who=late", id), "")
	assert.Equal(t, 503, code)
	assert.Contains(t, body, "Too many windows")
}

// A database that a later version wrote is not touched.
func TestLaterDatabase(t *testing.T) {
	dir := t.TempDir()
	s, err := store.Open(dir)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	tamper(t, dir, `INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	_, err = store.Open(dir)
	require.ErrorIs(t, err, store.ErrLater)
	assert.Contains(t, err.Error(), "version 99")
}
