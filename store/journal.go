package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// Create keeps a new project with its document and tells its id.
func (s *Store) Create(ctx context.Context, name string, d *design.Doc) (id int64, err error) {
	name, err = CheckName(name)
	if err != nil {
		return 0, err
	}
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `INSERT INTO project (name, created, changed, next_id) VALUES (?, ?, ?, ?)`, name, now(), now(), d.Next)
		if err != nil {
			return nameTaken(err, name)
		}
		if id, err = res.LastInsertId(); err != nil {
			return err
		}
		put, err := tx.PrepareContext(ctx, `INSERT INTO object (project, id, kind, body) VALUES (?, ?, ?, ?)`)
		if err != nil {
			return err
		}
		defer put.Close()
		for o := range d.All() {
			body, err := json.Marshal(o)
			if err != nil {
				return err
			}
			if _, err := put.ExecContext(ctx, id, o.ObjectID(), o.ObjectKind(), string(body)); err != nil {
				return err
			}
		}
		return nil
	})
	return id, err
}

func (s *Store) inTx(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// Load reads a project's document, its name and revision.
func (s *Store) Load(ctx context.Context, id int64) (d *design.Doc, name string, revision int64, err error) {
	var next design.ID
	err = s.db.QueryRowContext(ctx, `SELECT name, revision, next_id FROM project WHERE id = ? AND deleted IS NULL`, id).Scan(&name, &revision, &next)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, "", 0, ErrNoProject
	}
	if err != nil {
		return nil, "", 0, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT kind, body FROM object WHERE project = ?`, id)
	if err != nil {
		return nil, "", 0, err
	}
	defer rows.Close()
	d = design.Empty()
	for rows.Next() {
		var kind design.Kind
		var body []byte
		if err := rows.Scan(&kind, &body); err != nil {
			return nil, "", 0, err
		}
		o, err := design.Decode(kind, body)
		if err != nil {
			return nil, "", 0, fmt.Errorf("the project %s is damaged: %w", name, err)
		}
		d.Put(o)
	}
	d.Next = max(d.Next, next)
	return d, name, revision, rows.Err()
}

// Entry is one step of a project's journal.
type Entry struct {
	Revision int64
	Made     time.Time
	Act      string
	Reverses int64 // of undo and redo
	Ref      string
	Changes  edit.ChangeSet
}

// Commit keeps a change set: the objects and the journal in one transaction.
func (s *Store) Commit(ctx context.Context, project int64, e Entry, next design.ID) error {
	changes, err := json.Marshal(e.Changes)
	if err != nil {
		return err
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, c := range e.Changes {
			if c.After == nil {
				if _, err := tx.ExecContext(ctx, `DELETE FROM object WHERE project = ? AND id = ?`, project, c.ID); err != nil {
					return err
				}
				continue
			}
			body, err := json.Marshal(c.After)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO object (project, id, kind, body) VALUES (?, ?, ?, ?)
				ON CONFLICT (project, id) DO UPDATE SET kind = excluded.kind, body = excluded.body`, project, c.ID, c.Kind, string(body)); err != nil {
				return err
			}
		}
		var reverses, ref any
		if e.Reverses != 0 {
			reverses = e.Reverses
		}
		if e.Ref != "" {
			ref = e.Ref
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO journal (project, revision, made, act, reverses, ref, changes) VALUES (?, ?, ?, ?, ?, ?, ?)`,
			project, e.Revision, e.Made.UTC().Format(stamp), e.Act, reverses, ref, string(changes)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE project SET revision = ?, next_id = ?, changed = ? WHERE id = ?`, e.Revision, next, e.Made.UTC().Format(stamp), project)
		return err
	})
}

const entryColumns = `revision, made, act, coalesce(reverses, 0), coalesce(ref, ''), changes`

func scanEntry(scan func(...any) error) (Entry, error) {
	var e Entry
	var made, changes string
	if err := scan(&e.Revision, &made, &e.Act, &e.Reverses, &e.Ref, &changes); err != nil {
		return e, err
	}
	e.Made = parseTime(made)
	return e, json.Unmarshal([]byte(changes), &e.Changes)
}

// At reads the journal's entry that made a revision.
func (s *Store) At(ctx context.Context, project, revision int64) (Entry, error) {
	return scanEntry(s.db.QueryRowContext(ctx, `SELECT `+entryColumns+` FROM journal WHERE project = ? AND revision = ?`, project, revision).Scan)
}

// ByRef finds the entry that an edit with the sender's ref made, if there is one.
func (s *Store) ByRef(ctx context.Context, project int64, ref string) (Entry, bool, error) {
	e, err := scanEntry(s.db.QueryRowContext(ctx, `SELECT `+entryColumns+` FROM journal WHERE project = ? AND ref = ?`, project, ref).Scan)
	if errors.Is(err, sql.ErrNoRows) {
		return e, false, nil
	}
	return e, err == nil, err
}

// Since reads the entries after a revision, at most limit of them.
func (s *Store) Since(ctx context.Context, project, revision int64, limit int) ([]Entry, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+entryColumns+` FROM journal WHERE project = ? AND revision > ? ORDER BY revision LIMIT ?`, project, revision, limit)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Entry
	for rows.Next() {
		e, err := scanEntry(rows.Scan)
		if err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, rows.Err()
}

// Step is a journal entry without its changes.
type Step struct {
	Revision int64
	Act      string
	Reverses int64
}

// Steps lists the whole journal without the changes, from which the undo history is made.
func (s *Store) Steps(ctx context.Context, project int64) ([]Step, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT revision, act, coalesce(reverses, 0) FROM journal WHERE project = ? ORDER BY revision`, project)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Step
	for rows.Next() {
		var e Step
		if err := rows.Scan(&e.Revision, &e.Act, &e.Reverses); err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, rows.Err()
}

// Handoff is the last set of files made of a project.
type Handoff struct {
	Made        time.Time
	Revision    int64
	Fingerprint string
	Findings    int
	Archive     []byte
}

// KeepHandoff stores the files in place of the earlier ones.
func (s *Store) KeepHandoff(ctx context.Context, project int64, h Handoff) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO handoff (project, made, revision, fingerprint, findings, archive) VALUES (?, ?, ?, ?, ?, ?)
		ON CONFLICT (project) DO UPDATE SET made = excluded.made, revision = excluded.revision, fingerprint = excluded.fingerprint,
		findings = excluded.findings, archive = excluded.archive`, project, h.Made.UTC().Format(stamp), h.Revision, h.Fingerprint, h.Findings, h.Archive)
	return err
}

// LastHandoff reads them; false when none were made.
func (s *Store) LastHandoff(ctx context.Context, project int64) (Handoff, bool, error) {
	var h Handoff
	var made string
	err := s.db.QueryRowContext(ctx, `SELECT made, revision, fingerprint, findings, archive FROM handoff WHERE project = ?`, project).
		Scan(&made, &h.Revision, &h.Fingerprint, &h.Findings, &h.Archive)
	if errors.Is(err, sql.ErrNoRows) {
		return h, false, nil
	}
	h.Made = parseTime(made)
	return h, err == nil, err
}
