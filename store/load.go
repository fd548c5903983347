package store

import (
	"bufio"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"runtime"
	"sync"
	"sync/atomic"

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
	guid    string
}

// raw is an object as the database keeps it.
type raw struct {
	id   design.ID
	kind design.Kind
	body []byte
	// version of what the body means.
	version int
}

// kept is a project as the database holds it.
type kept struct {
	Loaded
	next design.ID
	rows []raw
	// copper are objects of the checkpoint, which need no row.
	copper []design.Object
	// checkpoint tells that there is one; fresh, how many objects are read from their rows in its place.
	checkpoint bool
	fresh      int
}

// rows reads a project's objects as they are kept, those of its checkpoint from there if quick. It holds up
// nobody who writes meanwhile.
func (s *Store) rows(ctx context.Context, id int64, quick bool) (k kept, err error) {
	tx, err := s.read.BeginTx(ctx, &sql.TxOptions{ReadOnly: true}) // one state of it
	if err != nil {
		return k, err
	}
	defer func() { _ = tx.Rollback() }()
	err = tx.QueryRowContext(ctx, `SELECT name, revision, next_id, example, guid FROM project WHERE id = ? AND deleted IS NULL`, id).
		Scan(&k.Name, &k.Revision, &k.next, &k.Example, &k.guid)
	if errors.Is(err, sql.ErrNoRows) {
		return k, ErrNoProject
	}
	if err != nil {
		return k, err
	}
	query := `SELECT id, kind, body, version FROM object WHERE project = ?`
	if quick {
		if err := k.readCheckpoint(ctx, tx, id); err != nil {
			return k, err
		}
		if k.checkpoint {
			query += ` AND (kind NOT IN ('track', 'via') OR EXISTS (SELECT 1 FROM fresh WHERE fresh.project = object.project AND fresh.id = object.id))`
		}
	}
	rows, err := tx.QueryContext(ctx, query, id)
	if err != nil {
		return k, err
	}
	defer rows.Close()
	for rows.Next() {
		var r raw
		if err := rows.Scan(&r.id, &r.kind, &r.body, &r.version); err != nil {
			return k, err
		}
		k.rows = append(k.rows, r)
	}
	return k, rows.Err()
}

// Load reads a project; one that an earlier version kept is upgraded and kept so. What of it cannot be read is left out and said; without its settings,
// its board or any sheet a project cannot be opened.
func (s *Store) Load(ctx context.Context, id int64) (Loaded, error) {
	k, err := s.rows(ctx, id, true)
	out := k.Loaded
	if err != nil {
		return out, err
	}
	rows, next, changed, err := upgrade(k.rows, k.next)
	if err != nil {
		return out, fmt.Errorf("the project %s cannot be read: %w", out.Name, err)
	}
	d := design.Empty()
	for i, o := range decoded(rows) {
		if o.err != nil {
			out.Missing = append(out.Missing, fmt.Sprintf("the object %d: %v", rows[i].id, o.err))
			continue
		}
		d.Put(o.object)
	}
	for _, o := range k.copper {
		d.Put(o)
	}
	d.Next, d.GUID = max(d.Next, next), out.guid
	if d.Settings == nil || d.Board == nil || len(d.Sheets) == 0 {
		return out, fmt.Errorf("the project %s is damaged: %w", out.Name, errors.Join(append([]error{d.Whole()}, sentences(out.Missing)...)...))
	}
	if len(out.Missing) > 0 || d.Whole() != nil {
		out.Missing = append(out.Missing, d.Sound()...)
	}
	if changed {
		if err := s.keepUpgraded(ctx, id, k.rows, rows, d.Next); err != nil {
			return out, fmt.Errorf("the project %s is of an earlier version and could not be kept as this one keeps it: %w", out.Name, err)
		}
	}
	out.Doc = d
	if len(out.Missing) == 0 {
		s.renewCheckpoint(id, k, d)
	}
	return out, nil
}

// read is an object as it was read, or why it could not be.
type read struct {
	object design.Object
	err    error
}

// decoded reads all objects, on as many processors as there are.
func decoded(rows []raw) []read {
	out := make([]read, len(rows))
	const some = 1_000
	var next atomic.Int64
	var all sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			for from := int(next.Add(some)) - some; from < len(rows); from = int(next.Add(some)) - some {
				for i := from; i < min(from+some, len(rows)); i++ {
					out[i].object, out[i].err = rows[i].decode()
				}
			}
		})
	}
	all.Wait()
	return out
}

// decode reads the object. One that brings the program to a fault cannot be read.
func (r raw) decode() (o design.Object, err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("the program fails on it (%v)", fault)
		}
	}()
	o, err = design.Decode(r.kind, r.body)
	if err == nil && o.ObjectID() != r.id {
		err = fmt.Errorf("a %s says that its id is %d", r.kind, o.ObjectID())
	}
	return o, err
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
	k, err := s.rows(ctx, id, false)
	if err != nil {
		return "", err
	}
	head, rows := k.Loaded, k.rows
	buf := bufio.NewWriter(w)
	enc := json.NewEncoder(buf)
	enc.SetEscapeHTML(false)
	version := design.Version
	for _, r := range rows {
		version = min(version, r.version)
	}
	line := map[string]any{"format": design.FileFormat, "version": version, "name": head.Name, "guid": head.guid, "next": k.next, "objects": len(rows)}
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
	var revision, version int64
	var changes []byte
	err = s.db.QueryRowContext(ctx, `SELECT revision, act, changes, version FROM journal WHERE project = ? AND revision =
		(SELECT min(revision) FROM (SELECT coalesce((SELECT reverses FROM journal j WHERE j.project = p.id AND j.revision = p.revision AND j.act = 'stepBack'), p.revision + 1) - 1 AS revision FROM project p WHERE p.id = ?))`,
		id, id).Scan(&revision, &act, &changes, &version)
	if errors.Is(err, sql.ErrNoRows) {
		return "", errors.New("there is no earlier step that could be gone back to")
	}
	if err != nil {
		return "", err
	}
	var later bool
	if err := s.db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM object WHERE project = ? AND version > ?)`, id, version).Scan(&later); err != nil {
		return "", err
	}
	if later {
		return "", errors.New("the step before was made by an earlier version of Golden Trace; going back ends here")
	}
	type change struct {
		Kind   design.Kind     `json:"kind"`
		ID     design.ID       `json:"id"`
		Before json.RawMessage `json:"before"`
		After  json.RawMessage `json:"after"`
	}
	if changes, err = unpacked(changes); err != nil {
		return "", fmt.Errorf("the last step cannot be read: %w", err)
	}
	var list []change
	if err := json.Unmarshal(changes, &list); err != nil {
		return "", fmt.Errorf("the last step cannot be read: %w", err)
	}
	inverse := make([]change, len(list))
	for i, c := range list {
		inverse[i] = change{c.Kind, c.ID, c.After, c.Before}
	}
	body, err := packed(inverse)
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
			if _, err := tx.ExecContext(ctx, putObject, id, c.ID, c.Kind, string(c.After), version); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO journal (project, revision, made, act, reverses, changes, version)
			SELECT id, revision + 1, ?, 'stepBack', ?, ?, ? FROM project WHERE id = ?`, now(), revision, body, version, id); err != nil {
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
