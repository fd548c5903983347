package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"path/filepath"
	"strings"
	"testing"
	"time"

	_ "github.com/mattn/go-sqlite3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/store"
)

var made = time.Date(2026, 5, 6, 7, 8, 9, 10, time.UTC)

// keep runs commands on a project and keeps each as a revision of its own.
func keep(t *testing.T, s *store.Store, id int64, d *design.Doc, from int64, by store.Author, commands ...edit.Command) {
	t.Helper()
	for i, c := range commands {
		cs, err := edit.Apply(d, edit.Env{}, c)
		require.NoError(t, err)
		require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: from + int64(i), Made: made, Act: "act", Author: by, Parts: 7, Changes: cs}, d.Next))
	}
}

func hole(x int64) edit.Command { return &edit.AddHole{At: geom.Pt(x, 0), Diameter: 1_000_000} }

func holes(t *testing.T, s *store.Store, id int64) (out []int64) {
	t.Helper()
	l, err := s.Load(ctx, id)
	require.NoError(t, err)
	for h := range l.Doc.Holes.All() {
		out = append(out, h.At.X)
	}
	return out
}

// tamper runs statements on the database while no program has it.
func tamper(t *testing.T, dir string, statements ...string) {
	t.Helper()
	db, err := sql.Open("sqlite3", filepath.Join(dir, "goldentrace.db"))
	require.NoError(t, err)
	for _, q := range statements {
		_, err := db.Exec(q)
		require.NoError(t, err, q)
	}
	require.NoError(t, db.Close())
}

// Two projects use the same ids; neither sees the other's.
func TestProjectsAreApart(t *testing.T) {
	s := open(t, t.TempDir())
	a, b := design.New("A"), design.New("B")
	ida, err := s.Create(ctx, "A", a)
	require.NoError(t, err)
	idb, err := s.Create(ctx, "B", b)
	require.NoError(t, err)
	keep(t, s, ida, a, 1, store.Author{}, hole(1), hole(2))
	keep(t, s, idb, b, 1, store.Author{}, hole(9))
	assert.Equal(t, []int64{1, 2}, holes(t, s, ida))
	assert.Equal(t, []int64{9}, holes(t, s, idb))
	var first design.ID
	for h := range b.Holes.All() {
		first = h.ID
	}
	keep(t, s, idb, b, 2, store.Author{}, &edit.Remove{IDs: []design.ID{first}})
	assert.Equal(t, []int64{1, 2}, holes(t, s, ida), "what B removes stays in A")
	assert.Empty(t, holes(t, s, idb))
	steps, err := s.Steps(ctx, ida)
	require.NoError(t, err)
	assert.Len(t, steps, 2)
	_, ok, err := s.ByRef(ctx, idb, "x")
	require.NoError(t, err)
	assert.False(t, ok)
}

func TestTheJournalSaysWhoAndWhen(t *testing.T) {
	s := open(t, t.TempDir())
	d := design.New("A")
	id, err := s.Create(ctx, "A", d)
	require.NoError(t, err)
	ash := store.Author{ID: "tab-1", Name: "R. Ash"}
	keep(t, s, id, d, 1, ash, hole(1))
	keep(t, s, id, d, 2, store.Author{}, hole(2), hole(3))
	e, err := s.At(ctx, id, 1)
	require.NoError(t, err)
	assert.Equal(t, ash, e.Author)
	assert.True(t, made.Equal(e.Made))
	assert.Len(t, e.Changes, 1)
	_, err = s.At(ctx, id, 4)
	require.ErrorIs(t, err, sql.ErrNoRows)
	steps, err := s.Steps(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, []store.Step{{Revision: 1, Act: "act", Author: ash}, {Revision: 2, Act: "act"}, {Revision: 3, Act: "act"}}, steps)
	since, err := s.Since(ctx, id, 0, 2)
	require.NoError(t, err)
	require.Len(t, since, 2, "no more than were asked for")
	assert.EqualValues(t, 1, since[0].Revision)
	list, err := s.Projects(ctx)
	require.NoError(t, err)
	assert.EqualValues(t, 3, list[0].Revision)
	assert.Equal(t, 7, list[0].Parts)
	assert.True(t, made.Equal(list[0].Changed))
}

// Nothing of an act is kept when any of it cannot be.
func TestAnActIsKeptWholeOrNotAtAll(t *testing.T) {
	s := open(t, t.TempDir())
	d := design.New("A")
	id, err := s.Create(ctx, "A", d)
	require.NoError(t, err)
	big := &design.Asset{ID: 900, Name: "big", Type: "png", Data: make([]byte, design.LongestLine/2)}
	cs := edit.ChangeSet{
		{Kind: design.KindHole, ID: 800, After: &design.Hole{ID: 800, Diameter: 1_000_000}},
		{Kind: design.KindAsset, ID: 900, After: big},
	}
	err = s.Commit(ctx, id, store.Entry{Revision: 1, Made: made, Act: "add", Changes: cs}, 901)
	require.ErrorContains(t, err, "would take 10 MB; 8 MB is the most")
	assert.Empty(t, holes(t, s, id))
	stopped, stop := context.WithCancel(ctx)
	stop()
	require.Error(t, s.Commit(stopped, id, store.Entry{Revision: 1, Made: made, Act: "add", Changes: cs[:1]}, 901))
	assert.Empty(t, holes(t, s, id))
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 1, Made: made, Act: "add", Changes: cs[:1]}, 901))
	l, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.EqualValues(t, 901, l.Doc.Next)
}

// Each step back takes the act before the last one that was taken back.
func TestStepsBackGoOn(t *testing.T) {
	s := open(t, t.TempDir())
	d := design.New("A")
	id, err := s.Create(ctx, "A", d)
	require.NoError(t, err)
	keep(t, s, id, d, 1, store.Author{}, hole(1), hole(2), &edit.SetSettings{Title: ptr("Other")}, hole(3))
	for _, want := range [][]int64{{1, 2}, {1, 2}, {1}, nil} {
		act, err := s.StepBack(ctx, id)
		require.NoError(t, err)
		assert.Equal(t, "act", act)
		assert.Equal(t, want, holes(t, s, id))
	}
	_, err = s.StepBack(ctx, id)
	require.ErrorContains(t, err, "no earlier step")
	l, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "A", l.Doc.Settings.Title)
	assert.EqualValues(t, 8, l.Revision, "they are acts themselves")
	steps, err := s.Steps(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, store.Step{Revision: 8, Act: "stepBack", Reverses: 1}, steps[7])
	e, err := s.At(ctx, id, 8)
	require.NoError(t, err)
	assert.Nil(t, e.Changes[0].After)
	assert.NotNil(t, e.Changes[0].Before)
}

func ptr[T any](v T) *T { return &v }

func TestWhatCannotBeReadIsLeftOutAndSaid(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	d := design.New("A")
	id, err := s.Create(ctx, "A", d)
	require.NoError(t, err)
	keep(t, s, id, d, 1, store.Author{}, hole(1), hole(2), hole(3))
	var ids []design.ID
	for h := range d.Holes.All() {
		ids = append(ids, h.ID)
	}
	require.NoError(t, s.Close())
	tamper(t, dir, `UPDATE object SET body = '{"id":' WHERE id = 34`, `UPDATE object SET body = replace(body, '"id":35', '"id":99') WHERE id = 35`)
	require.Equal(t, []design.ID{34, 35, 36}, ids)
	s = open(t, dir)
	l, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Len(t, l.Doc.Holes, 1)
	require.Len(t, l.Missing, 2)
	assert.Contains(t, l.Missing[0], "the object 34: ")
	assert.Contains(t, l.Missing[1], "the object 35: a hole says that its id is 99")
	var raw bytes.Buffer
	name, err := s.WriteRaw(ctx, &raw, id)
	require.NoError(t, err)
	assert.Equal(t, "A", name)
	lines := strings.Split(strings.TrimSpace(raw.String()), "\n")
	require.Len(t, lines, 30, "the header, three objects of a new project, twenty-three rules, three holes")
	assert.JSONEq(t, `{"format":"golden-trace-project","version":7,"name":"A","guid":"`+l.Doc.GUID+`","next":37,"objects":29}`, lines[0])
	assert.Contains(t, raw.String(), `{"kind":"hole","object":"{\"id\":"}`, "what is no JSON goes as a text")
	_, err = s.WriteRaw(ctx, &raw, 77)
	require.ErrorIs(t, err, store.ErrNoProject)
}

func TestAProjectWithoutItsBoardIsDamaged(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	id, err := s.Create(ctx, "A", design.New("A"))
	require.NoError(t, err)
	require.NoError(t, s.SetTrouble(ctx, id, "it was damaged"))
	list, err := s.Projects(ctx)
	require.NoError(t, err)
	assert.Equal(t, "it was damaged", list[0].Trouble)
	require.NoError(t, s.SetTrouble(ctx, id, ""))
	list, err = s.Projects(ctx)
	require.NoError(t, err)
	assert.Empty(t, list[0].Trouble)
	require.NoError(t, s.Close())
	for _, lost := range []string{"board", "settings", "sheet"} {
		tamper(t, dir, `UPDATE object SET body = 'x' WHERE kind = '`+lost+`'`)
		s = open(t, dir)
		_, err = s.Load(ctx, id)
		require.ErrorContains(t, err, "the project A is damaged", lost)
		require.NoError(t, s.Close())
	}
}

// Many objects are kept in stretches; a refusal in one of them leaves no project behind.
func TestALargeProjectIsCreatedWholeOrNotAtAll(t *testing.T) {
	s := open(t, t.TempDir())
	d := design.New("Large")
	for i := range 5000 {
		d.Put(&design.Hole{ID: design.ID(100 + i), At: geom.Pt(int64(i), 0), Diameter: 1_000_000})
	}
	id, err := s.Create(ctx, "Large", d)
	require.NoError(t, err)
	assert.Len(t, holes(t, s, id), 5000)
	d.Put(&design.Asset{ID: 9000, Name: "big", Type: "png", Data: make([]byte, design.LongestLine/2)})
	_, err = s.Create(ctx, "Larger", d)
	require.Error(t, err)
	assert.Equal(t, []string{"Large"}, names(t, s))
	_, err = s.Create(ctx, "larger", design.New("x"))
	require.NoError(t, err, "its name is free")
}

func TestALaterDatabaseIsLeftAlone(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, open(t, dir).Close())
	tamper(t, dir, `INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	_, err := store.Open(dir)
	require.ErrorIs(t, err, store.ErrLater)
}

func TestNamesOfProjects(t *testing.T) {
	for _, name := range []string{strings.Repeat("ä", 100), "Weir", " a "} {
		got, err := store.CheckName(name)
		require.NoError(t, err)
		assert.Equal(t, strings.TrimSpace(name), got)
	}
	for name, why := range map[string]string{
		strings.Repeat("ä", 101): "at most 100 characters", " ": "needs a name", "a\x00b": "control characters", "a\x7fb": "control characters", "a\x1fb": "line breaks",
	} {
		_, err := store.CheckName(name)
		assert.ErrorContains(t, err, why)
	}
}
