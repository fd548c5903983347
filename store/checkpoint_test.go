package store

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/columns"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// crowded is a board with enough copper for a checkpoint, some of it such as columns cannot hold.
func crowded(t *testing.T) *design.Doc {
	t.Helper()
	d := synthetic.FourLayers()
	top, low := d.Board.Top(), d.Board.Bottom()
	for i := range int64(fewest) {
		track := &design.Track{ID: d.NewID(), Layer: low, A: geom.Pt(i*1000, -5_000_000), B: geom.Pt(i*1000, -4_000_000), Width: 100_000 + i%3, Locked: i%7 == 0}
		if i%5 == 0 {
			mid := geom.Pt(i*1000+300_000, -4_500_000)
			track.Mid = &mid
		}
		d.Put(track)
	}
	for i := range int64(40) {
		d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(i*1_000_000, -9_000_000), Diameter: 600_000, Hole: 300_000, From: top, To: low, Cover: []string{"", design.Open}[i%2], Locked: i%3 == 0})
	}
	require.NoError(t, d.Whole())
	return d
}

func bodies(t *testing.T, d *design.Doc) map[string]string {
	t.Helper()
	out := map[string]string{}
	for o := range d.All() {
		body, err := json.Marshal(o)
		require.NoError(t, err)
		out[fmt.Sprint(o.ObjectKind(), o.ObjectID())] = string(body)
	}
	return out
}

// What is read with a checkpoint is what is read without: after random edits, with its checkpoint of any age, and
// whoever else wrote to the rows.
func TestACheckpointIsNoOtherThanTheRows(t *testing.T) {
	ctx := context.Background()
	s, err := Open(t.TempDir())
	require.NoError(t, err)
	defer func() { _ = s.Close() }()
	d := crowded(t)
	id, err := s.Create(ctx, "Crowded", d)
	require.NoError(t, err)
	state := func() (pieces, fresh int) {
		s.beside.Wait()
		_ = s.db.QueryRow(`SELECT pieces FROM checkpoint WHERE project = ?`, id).Scan(&pieces)
		require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM fresh WHERE project = ?`, id).Scan(&fresh))
		return pieces, fresh
	}
	same := func(what string) {
		t.Helper()
		loaded, err := s.Load(ctx, id)
		require.NoError(t, err)
		require.Empty(t, loaded.Missing)
		require.Equal(t, bodies(t, d), bodies(t, loaded.Doc), what)
	}
	pieces, fresh := state()
	assert.Zero(t, pieces+fresh)
	same("the first time, from the rows")
	pieces, fresh = state()
	assert.Greater(t, pieces, fewest)
	assert.Equal(t, 20, fresh, "vias that are not covered by the mask do not stand in columns")
	same("from the checkpoint")

	var tracks []*design.Track
	for o := range d.Tracks.All() {
		tracks = append(tracks, o)
	}
	rng := rand.New(rand.NewSource(7))
	rev := int64(0)
	commit := func(cs ...edit.Change) {
		t.Helper()
		for _, c := range cs {
			if c.After == nil {
				d.Remove(c.Kind, c.ID)
			} else {
				d.Put(c.After)
			}
		}
		rev++
		require.NoError(t, s.Commit(ctx, id, Entry{Revision: rev, Made: time.Now(), Act: "test", Changes: cs}, d.Next))
	}
	for i := range 60 {
		track := tracks[rng.Intn(len(tracks))]
		is, _ := d.Get(track.ID).(*design.Track)
		switch {
		case is == nil: // removed before: it comes back, as undo does
			commit(edit.Change{Kind: design.KindTrack, ID: track.ID, After: track})
		case i%3 == 0:
			commit(edit.Change{Kind: design.KindTrack, ID: is.ID, Before: is})
		default:
			c := *is
			c.Width += 1_000
			commit(edit.Change{Kind: design.KindTrack, ID: is.ID, Before: is, After: &c})
		}
		fresh := &design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: geom.Pt(int64(i), 0), B: geom.Pt(int64(i), 5_000_000), Width: 100_000}
		commit(edit.Change{Kind: design.KindTrack, ID: fresh.ID, After: fresh})
		if i%20 == 19 {
			same("after edits")
		}
	}
	_, few := state()
	assert.Greater(t, few, 80)

	_, err = s.StepBack(ctx, id)
	require.NoError(t, err)
	d.Remove(design.KindTrack, d.Next-1)
	same("after a step back in the database")
	_, err = s.db.Exec(`UPDATE object SET body = json_set(body, '$.width', 77000) WHERE project = ? AND id = ?`, id, tracks[5].ID)
	require.NoError(t, err)
	c := *d.Get(tracks[5].ID).(*design.Track)
	c.Width = 77_000
	d.Put(&c)
	same("whoever wrote the row")

	_, err = s.db.Exec(`UPDATE checkpoint SET body = substr(body, 1, 900) WHERE project = ?`, id)
	require.NoError(t, err)
	same("with a checkpoint that cannot be read")
	_, err = s.db.Exec(`UPDATE checkpoint SET version = version + 1 WHERE project = ?`, id)
	require.NoError(t, err)
	same("with one of another version")
	s.beside.Wait()
	require.NoError(t, s.keepCheckpoint(id, rev+50, &columns.Copper{}, nil))
	pieces, _ = state()
	assert.Greater(t, pieces, fewest, "one of another revision than the project's is not kept")
	_, err = s.db.Exec(`DELETE FROM checkpoint`)
	require.NoError(t, err)
	same("without one again")
	_, fresh = state()
	assert.Less(t, fresh, 25, "a new one has all in it")

	require.NoError(t, s.Delete(ctx, id))
	_, err = s.db.Exec(`DELETE FROM project WHERE id = ?`, id)
	require.NoError(t, err)
	var left int
	require.NoError(t, s.db.QueryRow(`SELECT (SELECT count(*) FROM fresh) + (SELECT count(*) FROM checkpoint)`).Scan(&left))
	assert.Zero(t, left)
	assert.NoError(t, s.keepCheckpoint(id, rev, &columns.Copper{}, nil), "of a project that is gone nothing is kept")
}

// When much of it changed, a checkpoint is made anew; small boards have none.
func TestWhenACheckpointIsMade(t *testing.T) {
	ctx := context.Background()
	s, err := Open(t.TempDir())
	require.NoError(t, err)
	defer func() { _ = s.Close() }()
	load := func(id int64) {
		t.Helper()
		_, err := s.Load(ctx, id)
		require.NoError(t, err)
		s.beside.Wait()
	}
	count := func() (n int) {
		require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM checkpoint`).Scan(&n))
		return n
	}
	small, err := s.Create(ctx, "Small", synthetic.FourLayers())
	require.NoError(t, err)
	load(small)
	assert.Zero(t, count())
	id, err := s.Create(ctx, "Crowded", crowded(t))
	require.NoError(t, err)
	load(id)
	assert.Equal(t, 1, count())
	fresh := func() (n int) {
		require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM fresh`).Scan(&n))
		return n
	}
	var first int64
	require.NoError(t, s.db.QueryRow(`SELECT max(id) FROM object WHERE project = ? AND kind = 'track'`, id).Scan(&first))
	first -= fewest - 1 // they follow each other
	change := func(n int64) {
		_, err := s.db.Exec(`UPDATE object SET body = body || ' ' WHERE project = ? AND id >= ? AND id < ?`, id, first, first+n)
		require.NoError(t, err)
		first += n
	}
	change(fewest - 40)
	load(id)
	assert.Equal(t, fewest-20, fresh())
	change(20)
	load(id)
	assert.Equal(t, 20, fresh(), "made anew")
}
