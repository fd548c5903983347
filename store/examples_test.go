package store_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/store"
)

// Examples stand beside the projects: not in their list, with names of their own, as this
// program has them, and not to be renamed or deleted.
func TestExamples(t *testing.T) {
	s := open(t, t.TempDir())
	build := func() (*design.Doc, error) { return design.New("Moth Lamp"), nil }
	require.NoError(t, s.PutExample(ctx, "Moth Lamp", build))
	list, err := s.Examples(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1)
	first := list[0].ID
	require.NoError(t, s.PutExample(ctx, "moth lamp", build))
	list, err = s.Examples(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, first, list[0].ID, "as it was")
	require.NoError(t, s.PutExample(ctx, "Moth Lamp", func() (*design.Doc, error) {
		d := design.New("Moth Lamp")
		d.Put(&design.Wire{ID: d.NewID(), Sheet: d.SheetsInOrder()[0].ID, B: geom.Pt(5_000_000, 0)})
		return d, nil
	}))
	list, err = s.Examples(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1, "a later program's takes the place of an earlier one's")
	id := list[0].ID
	assert.NotEqual(t, first, id)
	newer, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Len(t, newer.Doc.Wires, 1)
	assert.Empty(t, names(t, s))
	_, err = s.Create(ctx, "Moth Lamp", design.New("Moth Lamp"))
	require.NoError(t, err, "a project may bear the same name")
	assert.Equal(t, []string{"Moth Lamp"}, names(t, s))
	assert.ErrorIs(t, s.Rename(ctx, id, "Mine"), store.ErrNoProject)
	assert.ErrorIs(t, s.Delete(ctx, id), store.ErrNoProject)
	loaded, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.True(t, loaded.Example)
	assert.ErrorContains(t, s.PutExample(ctx, "Other", func() (*design.Doc, error) { return nil, errors.New("it cannot be built") }), "cannot be built")
}

// A glance holds at the revision it was kept at, and no longer.
func TestGlances(t *testing.T) {
	s := open(t, t.TempDir())
	id, err := s.Create(ctx, "Mill", design.New("Mill"))
	require.NoError(t, err)
	_, _, ok, err := s.GlanceAt(ctx, id)
	require.NoError(t, err)
	assert.False(t, ok)
	require.NoError(t, s.KeepGlance(ctx, id, 0, "told", []byte("<svg/>")))
	body, picture, ok, err := s.GlanceAt(ctx, id)
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Equal(t, []string{"told", "<svg/>"}, []string{body, string(picture)})
	require.NoError(t, s.Commit(ctx, id, store.Entry{Revision: 1, Act: "setSettings"}, 20))
	_, _, ok, err = s.GlanceAt(ctx, id)
	require.NoError(t, err)
	assert.False(t, ok, "the project changed")
	require.NoError(t, s.KeepGlance(ctx, id, 1, "anew", []byte{}))
	body, _, ok, _ = s.GlanceAt(ctx, id)
	assert.True(t, ok)
	assert.Equal(t, "anew", body)
}
