// Package store keeps projects in one SQLite file: every object's present state, and the
// journal of all change sets from which undo, redo and catching up are served. A change set
// is on the disk (WAL, synchronous=FULL) before Commit returns.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"github.com/gofrs/flock"
	_ "github.com/mattn/go-sqlite3" // the driver
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Refusals that callers tell apart.
var (
	ErrNoProject = errors.New("there is no such project")
	ErrNameTaken = errors.New("there is already a project with this name")
	ErrInUse     = errors.New("another Golden Trace is at work on this data")
	ErrLater     = errors.New("a later version of Golden Trace wrote it")
)

// Store is an open data directory. It is held by one program at a time.
type Store struct {
	db *sql.DB // the one connection that writes
	// read has connections of its own, so that long reads hold nobody up; each sees what was kept when it
	// began
	read *sql.DB
	lock *flock.Flock
	// beside is what is still being kept that nobody waits for.
	beside sync.WaitGroup
}

// Open opens or makes the data directory.
func Open(dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, fmt.Errorf("the data directory %s cannot be made: %w", dir, err)
	}
	lock := flock.New(filepath.Join(dir, "goldentrace.lock"))
	held, err := lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("the data directory %s cannot be locked: %w", dir, err)
	}
	if !held {
		return nil, fmt.Errorf("%w: %s. Close the other one, or give this one another --data", ErrInUse, dir)
	}
	file := filepath.Join(dir, "goldentrace.db")
	db, err := sql.Open("sqlite3", "file:"+file+"?_journal_mode=WAL&_synchronous=FULL&_foreign_keys=on&_busy_timeout=5000&_txlock=immediate")
	if err != nil {
		_ = lock.Unlock()
		return nil, fmt.Errorf("the database %s cannot be opened: %w", file, err)
	}
	db.SetMaxOpenConns(1)
	s := &Store{db: db, lock: lock}
	if err := s.migrate(); err != nil {
		_ = s.Close()
		return nil, fmt.Errorf("the database %s cannot be read: %w", file, err)
	}
	if s.read, err = sql.Open("sqlite3", "file:"+file+"?_busy_timeout=5000&_query_only=true"); err != nil {
		_ = s.Close()
		return nil, fmt.Errorf("the database %s cannot be opened for reading: %w", file, err)
	}
	s.read.SetMaxOpenConns(4)
	return s, nil
}

func (s *Store) migrate() error {
	sub, err := goose.NewProvider(goose.DialectSQLite3, s.db, subFS{})
	if err != nil {
		return err
	}
	ctx := context.Background()
	at, err := sub.GetDBVersion(ctx)
	if err != nil {
		return err
	}
	sources := sub.ListSources()
	if last := sources[len(sources)-1].Version; at > last {
		return fmt.Errorf("%w: it is of version %d, this program knows version %d", ErrLater, at, last)
	}
	if _, err = sub.Up(ctx); err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `DELETE FROM project WHERE deleted = ?`, unfinished) // the program ended while it was being kept
	return err
}

// Close lets go of the data directory.
func (s *Store) Close() error {
	s.beside.Wait()
	var err error
	if s.read != nil {
		err = s.read.Close()
	}
	return errors.Join(err, s.db.Close(), s.lock.Unlock())
}

// Project as it is listed.
type Project struct {
	ID       int64     `json:"id"`
	Name     string    `json:"name"`
	Created  time.Time `json:"created"`
	Changed  time.Time `json:"changed"`
	Revision int64     `json:"revision"`
	Parts    int       `json:"parts"`
	Trouble  string    `json:"trouble,omitempty"` // why it could not be opened when that was last tried
}

const stamp = time.RFC3339Nano

func parseTime(s string) time.Time {
	t, _ := time.Parse(stamp, s)
	return t
}

func now() string { return time.Now().UTC().Format(stamp) }

// Projects lists what is not deleted, the last changed first.
func (s *Store) Projects(ctx context.Context) ([]Project, error) { return s.list(ctx, 0) }

func (s *Store) list(ctx context.Context, example int) ([]Project, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT id, name, created, changed, revision,
		coalesce(parts, (SELECT count(*) FROM object WHERE project = p.id AND kind = 'part')), coalesce(trouble, '') FROM project p WHERE deleted IS NULL AND example = ? ORDER BY changed DESC, id DESC`, example)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := []Project{}
	for rows.Next() {
		var p Project
		var created, changed string
		if err := rows.Scan(&p.ID, &p.Name, &created, &changed, &p.Revision, &p.Parts, &p.Trouble); err != nil {
			return nil, err
		}
		p.Created, p.Changed = parseTime(created), parseTime(changed)
		out = append(out, p)
	}
	return out, rows.Err()
}

// Named finds a project by its name.
func (s *Store) Named(ctx context.Context, name string) (int64, error) {
	var id int64
	err := s.db.QueryRowContext(ctx, `SELECT id FROM project WHERE name = ? COLLATE NOCASE AND deleted IS NULL AND example = 0`, name).Scan(&id)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, fmt.Errorf("%w called %q", ErrNoProject, name)
	}
	return id, err
}

// CheckName says whether a project may bear the name.
func CheckName(name string) (string, error) {
	name = strings.TrimSpace(name)
	switch {
	case name == "":
		return "", errors.New("a project needs a name")
	case utf8.RuneCountInString(name) > 100:
		return "", errors.New("a project's name has at most 100 characters")
	case strings.ContainsFunc(name, func(r rune) bool { return r < ' ' || r == 0x7f }):
		return "", errors.New("a project's name holds no line breaks or control characters")
	}
	return name, nil
}

// Rename gives a project another name.
func (s *Store) Rename(ctx context.Context, id int64, name string) error {
	name, err := CheckName(name)
	if err != nil {
		return err
	}
	return s.one(ctx, name, `UPDATE project SET name = ? WHERE id = ? AND deleted IS NULL AND example = 0`, name, id)
}

// Delete puts a project away; Restore brings it back.
func (s *Store) Delete(ctx context.Context, id int64) error {
	return s.one(ctx, "", `UPDATE project SET deleted = ? WHERE id = ? AND deleted IS NULL AND example = 0`, now(), id)
}

// Restore brings a deleted project back.
func (s *Store) Restore(ctx context.Context, id int64) error {
	return s.one(ctx, "", `UPDATE project SET deleted = NULL WHERE id = ? AND deleted IS NOT NULL`, id)
}

func (s *Store) one(ctx context.Context, name, query string, args ...any) error {
	res, err := s.db.ExecContext(ctx, query, args...)
	if err != nil {
		return nameTaken(err, name)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(ErrNoProject, err)
	}
	return nil
}

func nameTaken(err error, name string) error {
	if strings.Contains(err.Error(), "UNIQUE constraint failed: index '") || strings.Contains(err.Error(), "UNIQUE constraint failed: project.") {
		if name == "" {
			return ErrNameTaken
		}
		return fmt.Errorf("%w: %q", ErrNameTaken, name)
	}
	return err
}
