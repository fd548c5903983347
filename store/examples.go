package store

import (
	"bytes"
	"cmp"
	"context"
	"database/sql"
	"errors"

	"goldentrace/core/design"
)

// Examples lists the projects that everybody may look at and take a copy of, by name.
func (s *Store) Examples(ctx context.Context) ([]Project, error) { return s.list(ctx, 1) }

// PutExample keeps an example as it is built now: one of that name that is otherwise, kept by an
// earlier version of the program, goes and makes room.
func (s *Store) PutExample(ctx context.Context, name string, build func() (*design.Doc, error)) error {
	d, err := build()
	if err != nil {
		return err
	}
	var id int64
	err = s.db.QueryRowContext(ctx, `SELECT id FROM project WHERE name = ? COLLATE NOCASE AND deleted IS NULL AND example = 1`, name).Scan(&id)
	switch {
	case err == nil:
		if same, err := s.standsAs(ctx, id, d); err != nil || same {
			return err
		}
		if _, err := s.db.ExecContext(ctx, `UPDATE project SET deleted = ? WHERE id = ?`, now(), id); err != nil {
			return err
		}
	case !errors.Is(err, sql.ErrNoRows):
		return err
	}
	_, err = s.create(ctx, name, d, true)
	return err
}

// standsAs tells whether a project is kept as a document stands; one that cannot be read is not.
func (s *Store) standsAs(ctx context.Context, id int64, d *design.Doc) (bool, error) {
	kept, err := s.Load(ctx, id)
	if err != nil {
		return false, ctx.Err()
	}
	kept.Doc.GUID = d.GUID // which is the store's
	var a, b bytes.Buffer
	err = cmp.Or(design.WriteFile(&a, "", kept.Doc), design.WriteFile(&b, "", d))
	return bytes.Equal(a.Bytes(), b.Bytes()), err
}

// KeepGlance keeps how a project looked at a revision: what is told of it, and its picture.
func (s *Store) KeepGlance(ctx context.Context, project, revision int64, body string, picture []byte) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO glance (project, revision, body, picture) VALUES (?, ?, ?, ?)
		ON CONFLICT (project) DO UPDATE SET revision = excluded.revision, body = excluded.body, picture = excluded.picture`, project, revision, body, picture)
	return err
}

// GlanceAt is how the project looks now, if that is kept; ok tells whether it is.
func (s *Store) GlanceAt(ctx context.Context, project int64) (body string, picture []byte, ok bool, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT g.body, g.picture FROM glance g JOIN project p ON p.id = g.project AND p.revision = g.revision
		WHERE p.id = ? AND p.deleted IS NULL`, project).Scan(&body, &picture)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil, false, nil
	}
	return body, picture, err == nil, err
}
