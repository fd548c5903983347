package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"iter"
	"time"

	"github.com/google/uuid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// putObject keeps an object in place of the one with its id.
const putObject = `INSERT INTO object (project, id, kind, body, version) VALUES (?, ?, ?, ?, ?)
	ON CONFLICT (project, id) DO UPDATE SET kind = excluded.kind, body = excluded.body, version = excluded.version`

// unfinished marks a project whose objects are still being kept.
const unfinished = "unfinished"

// Create keeps a new project with its document and tells its id. A large document is kept a
// stretch at a time, so that others' edits need not wait for all of it; until it is whole
// nobody sees it.
func (s *Store) Create(ctx context.Context, name string, d *design.Doc) (id int64, err error) {
	name, err = CheckName(name)
	if err != nil {
		return 0, err
	}
	if err := s.free(ctx, name); err != nil {
		return 0, err
	}
	return s.create(ctx, name, d, false)
}

// freeGUID is the one a project brings along, unless another has it: a copy gets one of its own.
func (s *Store) freeGUID(ctx context.Context, guid string) (string, error) {
	taken := guid == ""
	if !taken {
		if err := s.read.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM project WHERE guid = ?)`, guid).Scan(&taken); err != nil {
			return "", err
		}
	}
	if !taken {
		return guid, nil
	}
	id, err := uuid.NewRandom()
	return id.String(), err
}

func (s *Store) create(ctx context.Context, name string, d *design.Doc, example bool) (id int64, err error) {
	guid, err := s.freeGUID(ctx, d.GUID)
	if err != nil {
		return 0, err
	}
	res, err := s.db.ExecContext(ctx, `INSERT INTO project (name, created, changed, next_id, parts, deleted, example, guid) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		name, now(), now(), d.Next, len(circuit.Packages(d, circuit.TreeOf(d))), unfinished, example, guid)
	if err != nil {
		return 0, err
	}
	if id, err = res.LastInsertId(); err != nil {
		return 0, err
	}
	const stretch = 500
	next, stop := iter.Pull(d.All())
	defer stop()
	for more := true; more && err == nil; {
		err = s.inTx(ctx, func(tx *sql.Tx) error {
			put, err := tx.PrepareContext(ctx, `INSERT INTO object (project, id, kind, body, version) VALUES (?, ?, ?, ?, ?)`)
			if err != nil {
				return err
			}
			defer put.Close()
			for range stretch {
				o, ok := next()
				if !ok {
					more = false
					return nil
				}
				body, err := written(o)
				if err != nil {
					return err
				}
				if _, err := put.ExecContext(ctx, id, o.ObjectID(), o.ObjectKind(), body, design.Version); err != nil {
					return err
				}
			}
			return nil
		})
	}
	if err == nil {
		_, err = s.db.ExecContext(ctx, `UPDATE project SET deleted = NULL WHERE id = ?`, id)
	}
	if err != nil {
		_, drop := s.db.ExecContext(context.WithoutCancel(ctx), `DELETE FROM project WHERE id = ?`, id)
		return 0, errors.Join(nameTaken(err, name), drop)
	}
	return id, nil
}

// free refuses a name that is taken.
func (s *Store) free(ctx context.Context, name string) error {
	switch _, err := s.Named(ctx, name); {
	case err == nil:
		return fmt.Errorf("%w: %q", ErrNameTaken, name)
	case errors.Is(err, ErrNoProject):
		return nil
	default:
		return err
	}
}

// written is an object as the database keeps it; one that could not be read back is refused.
func written(o design.Object) (string, error) {
	body, err := json.Marshal(o)
	if err != nil {
		return "", err
	}
	return string(body), fits(o.ObjectKind(), o.ObjectID(), body)
}

func fits(kind design.Kind, id design.ID, body []byte) error {
	if len(body) > design.LongestLine/2 {
		return fmt.Errorf("a %s (id %d) would take %d MB; %d MB is the most", kind, id, len(body)>>20, design.LongestLine>>21)
	}
	return nil
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

// Entry is one step of a project's journal.
type Entry struct {
	Revision int64
	Made     time.Time
	Act      string
	Reverses int64 // of undo and redo
	Ref      string
	Author   Author
	Parts    int // of the circuit after it, for the list of projects
	Changes  edit.ChangeSet
	Bodies   []edit.Body // the changes as they are written; none: Commit writes them itself
	// Earlier says that the changes name what they are of without the objects: an earlier version wrote
	// them, which said them otherwise.
	Earlier bool
}

// Author is who made an edit: a name of the browser's choosing, and what others see. Both are
// empty for edits of before there were authors, and for those of the program itself.
type Author struct {
	ID   string
	Name string
}

// Commit keeps a change set: the objects and the journal in one transaction.
func (s *Store) Commit(ctx context.Context, project int64, e Entry, next design.ID) error {
	if e.Bodies == nil {
		var err error
		if e.Bodies, err = e.Changes.Bodies(); err != nil {
			return err
		}
	}
	for _, b := range e.Bodies {
		if err := fits(b.Kind, b.ID, b.After); err != nil {
			return err
		}
	}
	changes, err := packed(e.Bodies)
	if err != nil {
		return err
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, b := range e.Bodies {
			if b.After == nil {
				if _, err := tx.ExecContext(ctx, `DELETE FROM object WHERE project = ? AND id = ?`, project, b.ID); err != nil {
					return err
				}
				continue
			}
			if _, err := tx.ExecContext(ctx, putObject, project, b.ID, b.Kind, string(b.After), design.Version); err != nil {
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
		if _, err := tx.ExecContext(ctx, `INSERT INTO journal (project, revision, made, act, reverses, ref, author, author_name, changes, version)
			VALUES (?, ?, ?, ?, ?, ?, nullif(?, ''), nullif(?, ''), ?, ?)`,
			project, e.Revision, e.Made.UTC().Format(stamp), e.Act, reverses, ref, e.Author.ID, e.Author.Name, changes, design.Version); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE project SET revision = ?, next_id = ?, changed = ?, parts = ? WHERE id = ?`, e.Revision, next, e.Made.UTC().Format(stamp), e.Parts, project)
		return err
	})
}

const entryColumns = `revision, made, act, coalesce(reverses, 0), coalesce(ref, ''), coalesce(author, ''), coalesce(author_name, ''), changes, version`

func scanEntry(scan func(...any) error) (Entry, error) {
	var e Entry
	var made string
	var changes []byte
	var version int
	if err := scan(&e.Revision, &made, &e.Act, &e.Reverses, &e.Ref, &e.Author.ID, &e.Author.Name, &changes, &version); err != nil {
		return e, err
	}
	e.Made = parseTime(made)
	changes, err := unpacked(changes)
	if err != nil {
		return e, err
	}
	e.Changes, err = edit.ReadChanges(version, changes)
	if errors.Is(err, design.ErrEarlier) {
		e.Earlier, err = true, nil
	}
	return e, err
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
	rows, err := s.read.QueryContext(ctx, `SELECT `+entryColumns+` FROM journal WHERE project = ? AND revision > ? ORDER BY revision LIMIT ?`, project, revision, limit)
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
	Author   Author
}

// Steps lists the whole journal without the changes, from which the undo history is made.
func (s *Store) Steps(ctx context.Context, project int64) ([]Step, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT revision, act, coalesce(reverses, 0), coalesce(author, ''), coalesce(author_name, '') FROM journal WHERE project = ? ORDER BY revision`, project)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Step
	for rows.Next() {
		var e Step
		if err := rows.Scan(&e.Revision, &e.Act, &e.Reverses, &e.Author.ID, &e.Author.Name); err != nil {
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
	Findings    int  // that were open then
	Unjoined    int  // nets that were not joined then, which are among the findings
	Unchecked   bool // nobody knew these two yet
	Archive     []byte
}

// KeepHandoff stores the files in place of the earlier ones.
func (s *Store) KeepHandoff(ctx context.Context, project int64, h Handoff) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO handoff (project, made, revision, fingerprint, findings, unjoined, unchecked, archive) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT (project) DO UPDATE SET made = excluded.made, revision = excluded.revision, fingerprint = excluded.fingerprint,
		findings = excluded.findings, unjoined = excluded.unjoined, unchecked = excluded.unchecked, archive = excluded.archive`,
		project, h.Made.UTC().Format(stamp), h.Revision, h.Fingerprint, h.Findings, h.Unjoined, h.Unchecked, h.Archive)
	return err
}

// LastHandoff reads them; false when none were made.
func (s *Store) LastHandoff(ctx context.Context, project int64) (Handoff, bool, error) {
	var h Handoff
	var made string
	err := s.read.QueryRowContext(ctx, `SELECT made, revision, fingerprint, findings, unjoined, unchecked, archive FROM handoff WHERE project = ?`, project).
		Scan(&made, &h.Revision, &h.Fingerprint, &h.Findings, &h.Unjoined, &h.Unchecked, &h.Archive)
	if errors.Is(err, sql.ErrNoRows) {
		return h, false, nil
	}
	h.Made = parseTime(made)
	return h, err == nil, err
}
