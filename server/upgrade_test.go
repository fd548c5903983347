package server

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A project with a journal of version 1 (rules, a track, a part, a wire): its acts on the circuit are
// undone as ever, at its acts on the board undo says that it ends there; new acts are undone as well.
func TestUndoAcrossAnUpgrade(t *testing.T) {
	data, err := os.ReadFile("../store/testdata/version1.db")
	require.NoError(t, err)
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "goldentrace.db"), data, 0o644))
	k := newDeskIn(t, dir)
	id, err := k.store.Named(t.Context(), "Moth Lamp")
	require.NoError(t, err)
	l := k.dialAs(id, "aaaaaaaaaaaaaaaa", "Ada")
	open := l.opened()
	assert.Equal(t, "drawWire", open.History.Undo)
	count := func(kind string) (n int) {
		again := k.dial(id)
		for _, o := range again.opened().Objects {
			if o.Kind == kind {
				n++
			}
		}
		return n
	}
	parts, wires := count("part"), count("wire")
	undo := func(ref string) raw { return l.does(map[string]any{"t": "undo", "ref": ref}) }
	require.Equal(t, "done", l.does(edits("addHole", map[string]any{"at": xy(5_000_000, 20_000_000), "diameter": 1_000_000})).T)
	require.Equal(t, "done", undo("the hole").T)
	require.Equal(t, "done", undo("the wire").T)
	require.Equal(t, "done", undo("the part").T)
	assert.Equal(t, []int{parts - 1, wires - 1}, []int{count("part"), count("wire")})
	for _, ref := range []string{"the track", "again"} {
		m := undo(ref)
		assert.Equal(t, "refused", m.T)
		assert.Contains(t, m.Why, "Undo ends here: that step was made by an earlier version of Golden Trace")
	}
	require.Equal(t, "done", l.does(map[string]any{"t": "redo", "ref": "the part again"}).T)
	assert.Equal(t, parts, count("part"))
}
