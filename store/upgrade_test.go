package store_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// earlier is a data directory as the program of version 1 left it: the project "Moth Lamp" with four
// edits in its journal (rules, a track, a part, a wire) and files made of it. It is never made anew.
func earlier(t *testing.T) (s *store.Store, dir string, id int64) {
	t.Helper()
	data, err := os.ReadFile("testdata/version1.db")
	require.NoError(t, err)
	dir = t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "goldentrace.db"), data, 0o644))
	s = open(t, dir)
	id, err = s.Named(ctx, "Moth Lamp")
	require.NoError(t, err)
	return s, dir, id
}

// A project of version 1 is opened, is kept as this version keeps it, and is the same the next time;
// the files that were made of it are no more stale than they were.
func TestAProjectOfVersionOneIsUpgraded(t *testing.T) {
	s, dir, id := earlier(t)
	l, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Empty(t, l.Missing)
	assert.EqualValues(t, 4, l.Revision)
	d := l.Doc
	require.NoError(t, d.Whole())
	assert.EqualValues(t, 250_000, d.Numbers()[design.Clearance], "as it was set last")
	assert.Equal(t, design.Fixed(800_000), d.Base(design.TrackWidth).Value)
	for tr := range d.Tracks.All() {
		assert.Equal(t, "Bottom", d.Board.Layer(tr.Layer).Name)
		assert.NotEmpty(t, d.NetName(tr.Net))
	}
	h, ok, err := s.LastHandoff(ctx, id)
	require.NoError(t, err)
	require.True(t, ok)
	b := workbench.Open(d, l.Revision)
	assert.Equal(t, b.Fingerprint(), h.Fingerprint, "the files are of this design still")

	// an edit is kept beside what was upgraded
	var track *design.Track
	for track = range d.Tracks.All() {
		break
	}
	require.NoError(t, s.Close())
	s = open(t, dir)
	again, err := s.Load(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, b.Fingerprint(), workbench.Open(again.Doc, 4).Fingerprint(), "it is upgraded once")
	assert.Equal(t, track, again.Doc.Tracks[track.ID])
	assert.Equal(t, d.Next, again.Doc.Next)
}

// The journal of version 1 is read: steps of the circuit whole, those of the board by what they were
// of.
func TestJournalsOfVersionOne(t *testing.T) {
	s, _, id := earlier(t)
	_, err := s.Load(ctx, id)
	require.NoError(t, err)
	list, err := s.Since(ctx, id, 0, 100)
	require.NoError(t, err)
	require.Len(t, list, 4)
	for i, want := range []struct {
		act     string
		kind    design.Kind
		earlier bool
	}{{"setRules", design.KindBoard, true}, {"setTrack", design.KindTrack, true}, {"placePart", design.KindSymbol, false}, {"drawWire", design.KindWire, false}} {
		assert.Equal(t, want.act, list[i].Act)
		assert.Equal(t, want.earlier, list[i].Earlier, want.act)
		found := false
		for _, c := range list[i].Changes {
			found = found || c.Kind == want.kind || want.act == "placePart"
		}
		assert.True(t, found, want.act)
	}
	wire := list[3].Changes[0]
	require.NotNil(t, wire.After, "it can be undone")
	assert.Nil(t, wire.Before)
	assert.Nil(t, list[0].Changes[0].After, "it cannot")

	_, err = s.StepBack(ctx, id)
	assert.ErrorContains(t, err, "going back ends here")
}

// A project of version 2 to 6 is opened with the rules that came since; its journal is of this version's acts, so that they can be undone.
func TestProjectsOfLaterVersionsAreUpgraded(t *testing.T) {
	for _, version := range []string{"version2", "version3", "version4", "version5", "version6"} {
		t.Run(version, func(t *testing.T) {
			data, err := os.ReadFile("testdata/" + version + ".db")
			require.NoError(t, err)
			dir := t.TempDir()
			require.NoError(t, os.WriteFile(filepath.Join(dir, "goldentrace.db"), data, 0o644))
			s := open(t, dir)
			id, err := s.Named(ctx, "Moth Lamp")
			require.NoError(t, err)
			l, err := s.Load(ctx, id)
			require.NoError(t, err)
			assert.Empty(t, l.Missing)
			assert.EqualValues(t, 3, l.Revision)
			require.NoError(t, l.Doc.Whole())
			assert.EqualValues(t, 350_000, l.Doc.Numbers()[design.Clearance], "as it was set last")
			assert.Zero(t, l.Doc.Base(design.Spacing).Value.Fixed)
			assert.EqualValues(t, 350_000, l.Doc.Base(design.WithinPart).Value.Fixed, "what is asked for between pads of a part is what was")
			assert.EqualValues(t, 300_000, l.Doc.Base(design.SpokeWidth).Value.Fixed)
			assert.EqualValues(t, 250_000, l.Doc.Base(design.SpokeGap).Value.Fixed)
			if version < "version6" {
				assert.Zero(t, l.Doc.Base(design.HoleCopper).Value.Fixed, "holes may be as near to copper as they might")
			}
			assert.EqualValues(t, 100_000, l.Doc.Base(design.MaskWeb).Value.Fixed)
			assert.Len(t, l.Doc.Holes, 5, "four, and the one that was drilled last")
			steps, err := s.Since(ctx, id, 0, 10)
			require.NoError(t, err)
			require.Len(t, steps, 3)
			for _, e := range steps {
				assert.False(t, e.Earlier, "%s can be undone", e.Act)
			}
			require.NoError(t, s.Close())
			again, err := open(t, dir).Load(ctx, id)
			require.NoError(t, err)
			assert.Equal(t, workbench.Open(l.Doc, 3).Fingerprint(), workbench.Open(again.Doc, 3).Fingerprint(), "it is upgraded once")
		})
	}
}
