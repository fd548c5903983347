package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"log/slog"

	"goldentrace/core/columns"
	"goldentrace/core/design"
)

// A checkpoint holds the copper of a large board as columns (core/columns), which are read sooner than its rows. The rows of the table object stay the truth. Triggers note which of them
// changed since, and those are read in its place. A checkpoint that cannot be read is as good as none.

// fewest pieces of copper that a checkpoint is worth while for.
const fewest = 5_000

// readCheckpoint reads the objects of the project's checkpoint that did not change since.
func (k *kept) readCheckpoint(ctx context.Context, tx *sql.Tx, id int64) error {
	var version int
	var body []byte
	err := tx.QueryRowContext(ctx, `SELECT version, body FROM checkpoint WHERE project = ?`, id).Scan(&version, &body)
	if errors.Is(err, sql.ErrNoRows) || err == nil && version != design.Version {
		return nil
	}
	if err != nil {
		return err
	}
	objects, err := copperOf(body)
	if err != nil {
		slog.Warn("a checkpoint cannot be read", "project", id, "error", err)
		return nil
	}
	fresh := map[design.ID]bool{}
	rows, err := tx.QueryContext(ctx, `SELECT id FROM fresh WHERE project = ?`, id)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var id design.ID
		if err := rows.Scan(&id); err != nil {
			return err
		}
		fresh[id] = true
	}
	k.checkpoint, k.fresh = true, len(fresh)
	for _, o := range objects {
		if !fresh[o.ObjectID()] {
			k.copper = append(k.copper, o)
		}
	}
	return rows.Err()
}

func copperOf(body []byte) ([]design.Object, error) {
	text, err := unpacked(body)
	if err != nil {
		return nil, err
	}
	var c columns.Copper
	if err := json.Unmarshal(text, &c); err != nil {
		return nil, err
	}
	return c.Objects()
}

// renewCheckpoint keeps a checkpoint of what was read, where it is worth while, beside whoever waits.
func (s *Store) renewCheckpoint(id int64, k kept, d *design.Doc) {
	pieces := len(d.Tracks) + len(d.Vias)
	if pieces < fewest || k.Example || k.checkpoint && k.fresh < max(fewest, pieces/4) {
		return
	}
	c := &columns.Copper{}
	var others []design.ID
	shared := d.Share()
	s.beside.Go(func() {
		for o := range shared.All(design.KindTrack, design.KindVia) {
			if !c.Add(o) {
				others = append(others, o.ObjectID())
			}
		}
		if err := s.keepCheckpoint(id, k.Revision, c, others); err != nil {
			slog.Warn("a checkpoint cannot be kept", "project", id, "error", err)
		}
	})
}

// keepCheckpoint keeps one, if the project is still of the revision.
func (s *Store) keepCheckpoint(id, revision int64, c *columns.Copper, others []design.ID) error {
	body, err := packed(c)
	if err != nil {
		return err
	}
	return s.inTx(context.Background(), func(tx *sql.Tx) error {
		var now int64
		if err := tx.QueryRow(`SELECT revision FROM project WHERE id = ? AND deleted IS NULL`, id).Scan(&now); err != nil || now != revision {
			return nil //nolint:nilerr // the project is gone or has gone on: the next opening makes one
		}
		for _, q := range []string{`DELETE FROM fresh WHERE project = ?`, `DELETE FROM checkpoint WHERE project = ?`} {
			if _, err := tx.Exec(q, id); err != nil {
				return err
			}
		}
		if _, err := tx.Exec(`INSERT INTO checkpoint (project, version, pieces, body) VALUES (?, ?, ?, ?)`, id, design.Version, c.Len(), body); err != nil {
			return err
		}
		for _, other := range others {
			if _, err := tx.Exec(`INSERT OR IGNORE INTO fresh VALUES (?, ?)`, id, other); err != nil {
				return err
			}
		}
		return nil
	})
}
