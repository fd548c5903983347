package store

import (
	"bufio"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"goldentrace/core/design"
)

// Loaded is a project as it was read.
type Loaded struct {
	Doc      *design.Doc
	Name     string
	Revision int64
	// Missing says in sentences what could not be read or refers to what could not; the
	// database keeps it as it is.
	Missing []string
	Example bool // nobody changes it
}

// raw is an object as the database keeps it.
type raw struct {
	id   design.ID
	kind design.Kind
	body []byte
}

// rows reads a project's objects as they are kept. The database is free for others as soon as
// it returns.
func (s *Store) rows(ctx context.Context, id int64) (head Loaded, next design.ID, out []raw, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT name, revision, next_id, example FROM project WHERE id = ? AND deleted IS NULL`, id).Scan(&head.Name, &head.Revision, &next, &head.Example)
	if errors.Is(err, sql.ErrNoRows) {
		return head, 0, nil, ErrNoProject
	}
	if err != nil {
		return head, 0, nil, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT id, kind, body FROM object WHERE project = ?`, id)
	if err != nil {
		return head, 0, nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var r raw
		if err := rows.Scan(&r.id, &r.kind, &r.body); err != nil {
			return head, 0, nil, err
		}
		out = append(out, r)
	}
	return head, next, out, rows.Err()
}

// Load reads a project. What of it cannot be read is left out and said; without its settings,
// its board or any sheet a project cannot be opened.
func (s *Store) Load(ctx context.Context, id int64) (Loaded, error) {
	out, next, rows, err := s.rows(ctx, id)
	if err != nil {
		return out, err
	}
	d := design.Empty()
	for _, r := range rows {
		o, err := design.Decode(r.kind, r.body)
		if err == nil && o.ObjectID() != r.id {
			err = fmt.Errorf("a %s says that its id is %d", r.kind, o.ObjectID())
		}
		if err != nil {
			out.Missing = append(out.Missing, fmt.Sprintf("the object %d: %v", r.id, err))
			continue
		}
		d.Put(o)
	}
	d.Next = max(d.Next, next)
	if d.Settings == nil || d.Board == nil || len(d.Sheets) == 0 {
		return out, fmt.Errorf("the project %s is damaged: %w", out.Name, errors.Join(append([]error{d.Whole()}, sentences(out.Missing)...)...))
	}
	if len(out.Missing) > 0 || d.Whole() != nil {
		out.Missing = append(out.Missing, d.Sound()...)
	}
	out.Doc = d
	return out, nil
}

func sentences(list []string) []error {
	const most = 3
	var out []error
	for _, s := range list[:min(len(list), most)] {
		out = append(out, errors.New(s))
	}
	return out
}

// WriteRaw writes a project as a project file, its objects as the database keeps them, be they
// readable or not.
func (s *Store) WriteRaw(ctx context.Context, w io.Writer, id int64) (name string, err error) {
	head, next, rows, err := s.rows(ctx, id)
	if err != nil {
		return "", err
	}
	buf := bufio.NewWriter(w)
	enc := json.NewEncoder(buf)
	enc.SetEscapeHTML(false)
	line := map[string]any{"format": design.FileFormat, "version": design.FileVersion, "name": head.Name, "next": next, "objects": len(rows)}
	if err := enc.Encode(line); err != nil {
		return "", err
	}
	for _, r := range rows {
		var body any = json.RawMessage(r.body)
		if !json.Valid(r.body) {
			body = string(r.body)
		}
		if err := enc.Encode(map[string]any{"kind": r.kind, "object": body}); err != nil {
			return "", err
		}
	}
	return head.Name, buf.Flush()
}

// StepBack takes the last act of a project back in the database, without reading its objects:
// for a project that cannot be opened. It is a step of the journal itself. It tells which act
// was taken back.
func (s *Store) StepBack(ctx context.Context, id int64) (act string, err error) {
	var revision int64
	var changes string
	err = s.db.QueryRowContext(ctx, `SELECT revision, act, changes FROM journal WHERE project = ? AND revision =
		(SELECT min(revision) FROM (SELECT coalesce((SELECT reverses FROM journal j WHERE j.project = p.id AND j.revision = p.revision AND j.act = 'stepBack'), p.revision + 1) - 1 AS revision FROM project p WHERE p.id = ?))`,
		id, id).Scan(&revision, &act, &changes)
	if errors.Is(err, sql.ErrNoRows) {
		return "", errors.New("there is no earlier step that could be gone back to")
	}
	if err != nil {
		return "", err
	}
	type change struct {
		Kind   design.Kind     `json:"kind"`
		ID     design.ID       `json:"id"`
		Before json.RawMessage `json:"before"`
		After  json.RawMessage `json:"after"`
	}
	var list []change
	if err := json.Unmarshal([]byte(changes), &list); err != nil {
		return "", fmt.Errorf("the last step cannot be read: %w", err)
	}
	inverse := make([]change, len(list))
	for i, c := range list {
		inverse[i] = change{c.Kind, c.ID, c.After, c.Before}
	}
	body, err := json.Marshal(inverse)
	if err != nil {
		return "", err
	}
	return act, s.inTx(ctx, func(tx *sql.Tx) error {
		for _, c := range inverse {
			if len(c.After) == 0 || string(c.After) == "null" {
				if _, err := tx.ExecContext(ctx, `DELETE FROM object WHERE project = ? AND id = ?`, id, c.ID); err != nil {
					return err
				}
				continue
			}
			if _, err := tx.ExecContext(ctx, putObject, id, c.ID, c.Kind, string(c.After)); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO journal (project, revision, made, act, reverses, changes)
			SELECT id, revision + 1, ?, 'stepBack', ?, ? FROM project WHERE id = ?`, now(), revision, string(body), id); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE project SET revision = revision + 1, changed = ? WHERE id = ?`, now(), id)
		return err
	})
}

// SetTrouble notes why a project could not be opened; empty: it could.
func (s *Store) SetTrouble(ctx context.Context, id int64, why string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE project SET trouble = nullif(?, '') WHERE id = ? AND coalesce(trouble, '') <> ?`, why, id, why)
	return err
}
