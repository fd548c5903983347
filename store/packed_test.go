package store_test

import (
	"database/sql"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/store"
)

// act is one that leaves a long note on the first sheet.
func act(t *testing.T, d *design.Doc, text string) edit.ChangeSet {
	t.Helper()
	cs, err := edit.Apply(d, edit.Env{}, &edit.AddLegend{At: geom.Pt(0, 0), Height: 1_000_000, Text: "X"})
	require.NoError(t, err)
	note := &design.Note{ID: d.NewID(), Sheet: d.SheetsInOrder()[0].ID, At: geom.Pt(0, 0), Width: 60_000_000, Size: 2_500_000, Tint: "none", Text: text}
	d.Put(note)
	return append(cs, edit.Change{Kind: design.KindNote, ID: note.ID, After: note})
}

// Long rows of the journal are compressed and read as they were; short ones stay as text; a row that is
// damaged is a sentence.
func TestLongRowsOfTheJournalAreCompressed(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	d := design.New("Long")
	id, err := s.Create(ctx, "Long", d)
	require.NoError(t, err)
	long := act(t, d, strings.Repeat("all work and no play ", 200))
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 1, Made: time.Now(), Act: "drawItem", Changes: long}, d.Next))
	short := act(t, d, "brief")[:1]
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 2, Made: time.Now(), Act: "addLegend", Changes: short}, d.Next))
	for rev, want := range map[int64]edit.ChangeSet{1: long, 2: short} {
		e, err := s.At(ctx, id, rev)
		require.NoError(t, err)
		assert.Equal(t, want, e.Changes)
	}
	list, err := s.Since(ctx, id, 0, 10)
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, long, list[0].Changes)

	db, err := sql.Open("sqlite3", filepath.Join(dir, "goldentrace.db"))
	require.NoError(t, err)
	defer db.Close()
	for rev, want := range map[int]string{1: "blob", 2: "text"} {
		var kind string
		var size int
		require.NoError(t, db.QueryRow(`SELECT typeof(changes), length(changes) FROM journal WHERE revision = ?`, rev).Scan(&kind, &size))
		assert.Equal(t, want, kind)
		assert.Less(t, size, 600)
	}
	_, err = db.Exec(`UPDATE journal SET changes = substr(changes, 1, 40) WHERE revision = 1`)
	require.NoError(t, err)
	_, err = s.At(ctx, id, 1)
	assert.ErrorContains(t, err, "cannot be unpacked")
}

// What is kept last can be gone back to without reading its objects, compressed or not.
func TestStepBackOverACompressedRow(t *testing.T) {
	s := open(t, t.TempDir())
	d := design.New("Back")
	id, err := s.Create(ctx, "Back", d)
	require.NoError(t, err)
	before := len(d.Notes)
	cs := act(t, d, strings.Repeat("long ", 1000))
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 1, Made: time.Now(), Act: "drawItem", Changes: cs}, d.Next))
	what, err := s.StepBack(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "drawItem", what)
	loaded, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Len(t, loaded.Doc.Notes, before)
	e, err := s.At(ctx, id, 2)
	require.NoError(t, err)
	assert.Equal(t, cs.Inverted(), e.Changes)
}
