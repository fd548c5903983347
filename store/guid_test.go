package store_test

import (
	"bytes"
	"context"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/store"
)

// A project keeps its GUID through reopening and files; a copy, and a file of a project that is here already, get one of their own.
func TestProjectsKeepTheirGUID(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	s, err := store.Open(dir)
	require.NoError(t, err)
	id, err := s.Create(ctx, "Weir", design.New("Weir"))
	require.NoError(t, err)
	first, err := s.Load(ctx, id)
	require.NoError(t, err)
	require.NoError(t, uuid.Validate(first.Doc.GUID))
	copied, err := s.Create(ctx, "Weir copy", first.Doc)
	require.NoError(t, err)
	second, err := s.Load(ctx, copied)
	require.NoError(t, err)
	assert.NoError(t, uuid.Validate(second.Doc.GUID))
	assert.NotEqual(t, first.Doc.GUID, second.Doc.GUID)
	require.NoError(t, s.Close())

	s, err = store.Open(dir)
	require.NoError(t, err)
	again, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, first.Doc.GUID, again.Doc.GUID)
	var file bytes.Buffer
	require.NoError(t, design.WriteFile(&file, "Weir", again.Doc.Snapshot()))
	require.NoError(t, s.Close())

	other, err := store.Open(t.TempDir())
	require.NoError(t, err)
	defer other.Close()
	name, d, err := design.ReadFile(bytes.NewReader(file.Bytes()))
	require.NoError(t, err)
	there, err := other.Create(ctx, name, d)
	require.NoError(t, err)
	moved, err := other.Load(ctx, there)
	require.NoError(t, err)
	assert.Equal(t, first.Doc.GUID, moved.Doc.GUID, "it is the same project elsewhere")

	_, _, err = design.ReadFile(strings.NewReader(strings.Replace(file.String(), first.Doc.GUID, "not-one", 1)))
	assert.ErrorContains(t, err, "no GUID")
}
