package store_test

import (
	"context"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/store"
)

var ctx = context.Background()

func open(t *testing.T, dir string) *store.Store {
	t.Helper()
	s, err := store.Open(dir)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func names(t *testing.T, s *store.Store) []string {
	t.Helper()
	list, err := s.Projects(ctx)
	require.NoError(t, err)
	var out []string
	for _, p := range list {
		out = append(out, p.Name)
	}
	return out
}

func TestProjectsComeAndGo(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.Create(ctx, " Weir ", design.New("Weir"))
	require.NoError(t, err)
	assert.Equal(t, []string{"Weir"}, names(t, s), "spaces around a name are not part of it")
	_, err = s.Create(ctx, "WEIR", design.New("x"))
	assert.ErrorIs(t, err, store.ErrNameTaken)
	other, err := s.Create(ctx, "Sluice", design.New("x"))
	require.NoError(t, err)
	assert.ErrorIs(t, s.Rename(ctx, other, "weir"), store.ErrNameTaken)
	require.NoError(t, s.Rename(ctx, other, "Lock"))
	require.NoError(t, s.Delete(ctx, id))
	assert.Equal(t, []string{"Lock"}, names(t, s))
	assert.ErrorIs(t, s.Delete(ctx, id), store.ErrNoProject)
	_, err = s.Load(ctx, id)
	assert.ErrorIs(t, err, store.ErrNoProject)
	// its name is free meanwhile; it comes back only when it is free still
	again, err := s.Create(ctx, "Weir", design.New("x"))
	require.NoError(t, err)
	assert.ErrorIs(t, s.Restore(ctx, id), store.ErrNameTaken)
	require.NoError(t, s.Rename(ctx, again, "Weir 2"))
	require.NoError(t, s.Restore(ctx, id))
	assert.ElementsMatch(t, []string{"Lock", "Weir 2", "Weir"}, names(t, s))
	for _, bad := range []string{"", "   ", "a\nb", string(make([]byte, 200))} {
		_, err := s.Create(ctx, bad, design.New("x"))
		assert.Error(t, err, "%q", bad)
	}
}

func TestWhatWasCommittedIsThere(t *testing.T) {
	dir := t.TempDir()
	s, err := store.Open(dir)
	require.NoError(t, err)
	d := design.New("Weir")
	id, err := s.Create(ctx, "Weir", d)
	require.NoError(t, err)
	cs, err := edit.Apply(d, edit.Env{}, &edit.AddHole{At: geom.Pt(1, 2), Diameter: 3_000_000})
	require.NoError(t, err)
	made := time.Date(2026, 5, 6, 7, 8, 9, 10, time.UTC)
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 1, Made: made, Act: "addHole", Ref: "tab-1", Changes: cs}, d.Next))
	assert.Error(t, s.Commit(ctx, id, store.Entry{Revision: 1, Made: made, Act: "again", Changes: cs}, d.Next), "a revision is made once")
	assert.Error(t, s.Commit(ctx, id, store.Entry{Revision: 2, Made: made, Act: "again", Ref: "tab-1", Changes: cs}, d.Next), "an edit's own name is used once")
	require.NoError(t, s.Close())

	s = open(t, dir)
	loaded, err := s.Load(ctx, id)
	require.NoError(t, err)
	read := loaded.Doc
	assert.Equal(t, "Weir", loaded.Name)
	assert.EqualValues(t, 1, loaded.Revision)
	assert.Equal(t, d.Next, read.Next, "ids are not used again")
	assert.Equal(t, d.Holes, read.Holes)
	e, ok, err := s.ByRef(ctx, id, "tab-1")
	require.NoError(t, err)
	require.True(t, ok)
	assert.Equal(t, cs, e.Changes)
	assert.True(t, made.Equal(e.Made))
	_, ok, err = s.ByRef(ctx, id, "tab-2")
	require.NoError(t, err)
	assert.False(t, ok)

	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 2, Made: made, Act: "undo", Reverses: 1, Changes: cs.Inverted()}, d.Next))
	loaded, err = s.Load(ctx, id)
	require.NoError(t, err)
	assert.Empty(t, loaded.Doc.Holes)
	steps, err := s.Steps(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, []store.Step{{Revision: 1, Act: "addHole"}, {Revision: 2, Act: "undo", Reverses: 1}}, steps)
	since, err := s.Since(ctx, id, 1, 10)
	require.NoError(t, err)
	require.Len(t, since, 1)
	assert.Equal(t, "undo", since[0].Act)
}

func TestHandoffIsKept(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.Create(ctx, "Weir", design.New("Weir"))
	require.NoError(t, err)
	_, ok, err := s.LastHandoff(ctx, id)
	require.NoError(t, err)
	assert.False(t, ok)
	for _, h := range []store.Handoff{{Revision: 3, Fingerprint: "a", Archive: []byte{1}}, {Revision: 5, Fingerprint: "b", Findings: 2, Archive: []byte{2, 3}}} {
		require.NoError(t, s.KeepHandoff(ctx, id, h))
	}
	h, ok, err := s.LastHandoff(ctx, id)
	require.NoError(t, err)
	require.True(t, ok)
	assert.EqualValues(t, 5, h.Revision)
	assert.Equal(t, []byte{2, 3}, h.Archive)
}

func TestOneProgramAtATime(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	_, err := store.Open(dir)
	assert.ErrorIs(t, err, store.ErrInUse)
	require.NoError(t, s.Close())
	again, err := store.Open(dir)
	require.NoError(t, err)
	require.NoError(t, again.Close())
}

func TestADamagedDatabaseSaysSo(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "goldentrace.db"), []byte("this is no database, and it is long enough to be read as one"), 0o644))
	_, err := store.Open(dir)
	assert.ErrorContains(t, err, "goldentrace.db cannot be read")
}
