package store

import (
	"context"
	"database/sql"
	"fmt"

	"goldentrace/core/design"
)

// upgrade brings the objects of a project that an earlier version kept to the present one; the rows of
// one of the present version it gives back as they are.
func upgrade(rows []raw, next design.ID) (out []raw, at design.ID, changed bool, err error) {
	version := design.Version
	for _, r := range rows {
		version = min(version, r.version)
	}
	if version == design.Version {
		return rows, next, false, nil
	}
	list := make([]design.Raw, len(rows))
	for i, r := range rows {
		list[i] = design.Raw{Kind: r.kind, ID: r.id, Body: r.body}
	}
	list, at, err = design.Upgrade(version, list, next)
	if err != nil {
		return nil, 0, false, err
	}
	for _, r := range list {
		out = append(out, raw{r.ID, r.Kind, r.Body, design.Version})
	}
	return out, at, true, nil
}

// keepUpgraded keeps the objects of a project as upgraded in place of the earlier ones, all in one
// transaction. The journal stays as it was written. The files that were made last are of the same
// design, so that they are no more stale than before.
func (s *Store) keepUpgraded(ctx context.Context, id int64, was, is []raw, next design.ID) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM object WHERE project = ?`, id); err != nil {
			return err
		}
		put, err := tx.PrepareContext(ctx, `INSERT INTO object (project, id, kind, body, version) VALUES (?, ?, ?, ?, ?)`)
		if err != nil {
			return err
		}
		defer put.Close()
		for _, r := range is {
			if _, err := put.ExecContext(ctx, id, r.id, r.kind, string(r.body), r.version); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `UPDATE project SET next_id = ? WHERE id = ?`, next, id); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE handoff SET fingerprint = ? WHERE project = ? AND fingerprint = ?`, fingerprint(is), id, fingerprint(was))
		return err
	})
}

// fingerprint of the objects as an open design reckons it.
func fingerprint(rows []raw) string {
	sum := uint64(0)
	for _, r := range rows {
		body := r.body
		if o, err := design.DecodeOf(r.version, r.kind, r.body); err == nil && r.version == design.Version {
			sum ^= design.PrintOf(o)
			continue
		}
		sum ^= design.Print(r.kind, r.id, body)
	}
	return fmt.Sprintf("%016x", sum)
}
