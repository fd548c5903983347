package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/library"
)

// WorkspaceName is what the library of all projects is called where something was taken from it.
const WorkspaceName = "workspace"

// KeptPart is a version of a part in the workspace's library.
type KeptPart struct {
	Name      string `json:"name"`
	Version   int    `json:"version"`
	Made      string `json:"made"`
	Who       string `json:"who"`
	Note      string `json:"note"`
	Withdrawn bool   `json:"withdrawn,omitempty"`
}

// ErrNoPart says that the workspace's library has no such part or version.
var ErrNoPart = errors.New("the library of the workspace has no such part")

// KeepPart keeps a part as a new version of its name, and tells which. One that is as the latest version is not kept again.
func (s *Store) KeepPart(ctx context.Context, r *library.Release, who, note string) (version int, err error) {
	versions, err := s.KeepParts(ctx, []*library.Release{r}, who, note)
	if err != nil {
		return 0, err
	}
	return versions[0], nil
}

// KeepParts keeps several parts, all of them or none.
func (s *Store) KeepParts(ctx context.Context, list []*library.Release, who, note string) (versions []int, err error) {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return nil, err
	}
	defer func() { _ = tx.Rollback() }() // after a commit it does nothing
	for _, r := range list {
		v, err := keepPart(ctx, tx, r, who, note)
		if err != nil {
			return nil, err
		}
		versions = append(versions, v)
	}
	return versions, tx.Commit()
}

func keepPart(ctx context.Context, tx *sql.Tx, r *library.Release, who, note string) (version int, err error) {
	if err := r.Valid(); err != nil {
		return 0, err
	}
	body, err := json.Marshal(r)
	if err != nil {
		return 0, err
	}
	if len(body) > design.LargestFile {
		return 0, fmt.Errorf("the part %s has %d MB; %d are the most", r.Part.Name, len(body)>>20, design.LargestFile>>20)
	}
	if err := tx.QueryRowContext(ctx, `SELECT coalesce(max(version), 0) FROM library_part WHERE name = ?`, r.Part.Name).Scan(&version); err != nil {
		return 0, err
	}
	if version > 0 {
		last, withdrawn, err := readRelease(tx.QueryRowContext(ctx, `SELECT format, body, withdrawn IS NOT NULL FROM library_part WHERE name = ? AND version = ?`, r.Part.Name, version))
		if err == nil && !withdrawn && last.Equal(r) {
			return version, nil
		}
	}
	version++
	_, err = tx.ExecContext(ctx, `INSERT INTO library_part (name, version, format, body, made, who, note) VALUES (?, ?, ?, ?, ?, ?, ?)`,
		r.Part.Name, version, design.Version, body, now(), who, note)
	return version, err
}

type row interface{ Scan(...any) error }

func readRelease(r row) (*library.Release, bool, error) {
	var format int
	var body []byte
	var withdrawn bool
	if err := r.Scan(&format, &body, &withdrawn); errors.Is(err, sql.ErrNoRows) {
		return nil, false, ErrNoPart
	} else if err != nil {
		return nil, false, err
	}
	if format > design.Version {
		return nil, false, ErrLater
	}
	out := &library.Release{}
	if err := json.Unmarshal(body, out); err != nil {
		return nil, false, fmt.Errorf("the part cannot be read: %w", err)
	}
	return out, withdrawn, out.Valid()
}

// PartVersions lists all versions of a part, the latest first.
func (s *Store) PartVersions(ctx context.Context, name string) ([]KeptPart, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT name, version, made, who, note, withdrawn IS NOT NULL FROM library_part WHERE name = ? ORDER BY version DESC`, name)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := []KeptPart{}
	for rows.Next() {
		var k KeptPart
		if err := rows.Scan(&k.Name, &k.Version, &k.Made, &k.Who, &k.Note, &k.Withdrawn); err != nil {
			return nil, err
		}
		out = append(out, k)
	}
	return out, rows.Err()
}

// PartVersion is a version of a part.
func (s *Store) PartVersion(ctx context.Context, name string, version int) (*library.Release, error) {
	r, _, err := readRelease(s.read.QueryRowContext(ctx, `SELECT format, body, withdrawn IS NOT NULL FROM library_part WHERE name = ? AND version = ?`, name, version))
	return r, err
}

// Withdraw takes a version of a part out of what is offered, or brings it back; who drew with it keeps it.
func (s *Store) Withdraw(ctx context.Context, name string, version int, back bool) error {
	set := sql.NullString{String: now(), Valid: !back}
	res, err := s.db.ExecContext(ctx, `UPDATE library_part SET withdrawn = ? WHERE name = ? AND version = ?`, set, name, version)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNoPart)
	}
	return nil
}

// Workspace is the library of the workspace: of each part the latest version that is not withdrawn. Parts that cannot be read are left
// out and told.
func (s *Store) Workspace(ctx context.Context) (items []library.Item, missing []string, err error) {
	rows, err := s.read.QueryContext(ctx, `SELECT name, version, format, body FROM library_part p WHERE withdrawn IS NULL
		AND version = (SELECT max(version) FROM library_part q WHERE q.name = p.name AND q.withdrawn IS NULL) ORDER BY name`)
	if err != nil {
		return nil, nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var name string
		var version int
		r, _, err := readRelease(scanner(func(dest ...any) error { return rows.Scan(&name, &version, dest[0], dest[1]) }))
		if err != nil {
			missing = append(missing, fmt.Sprintf("%s, version %d: %v", name, version, err))
			continue
		}
		items = append(items, r.Item(design.Origin{Library: WorkspaceName, Version: version}))
	}
	return items, missing, rows.Err()
}

// scanner reads a row of which some columns are read by itself.
type scanner func(dest ...any) error

func (f scanner) Scan(dest ...any) error { return f(dest...) }

// Making is how footprints are generated, by a name.
type Making struct {
	Name   string        `json:"name"`
	Making design.Making `json:"making"`
}

// MostMakings bounds them.
const MostMakings = 200

// Makings lists what was named, by name.
func (s *Store) Makings(ctx context.Context) ([]Making, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT name, body FROM making ORDER BY name`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := []Making{}
	for rows.Next() {
		var m Making
		var body []byte
		if err := rows.Scan(&m.Name, &body); err != nil {
			return nil, err
		}
		if json.Unmarshal(body, &m.Making) == nil && m.Making.Valid() == nil {
			out = append(out, m)
		}
	}
	return out, rows.Err()
}

// PutMaking keeps how footprints are generated under a name, in the place of what bore it.
func (s *Store) PutMaking(ctx context.Context, m Making) error {
	if err := m.Making.Valid(); err != nil {
		return err
	}
	if m.Name == "" || len(m.Name) > design.LongestText {
		return errors.New("a name is needed, of up to 200 characters")
	}
	var n int
	if err := s.db.QueryRowContext(ctx, `SELECT count(*) FROM making WHERE name <> ?`, m.Name).Scan(&n); err != nil {
		return err
	}
	if n >= MostMakings {
		return fmt.Errorf("there are %d names already; drop one first", n)
	}
	body, err := json.Marshal(m.Making)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `INSERT INTO making (name, body, made) VALUES (?, ?, ?) ON CONFLICT (name) DO UPDATE SET body = excluded.body, made = excluded.made`, m.Name, body, now())
	return err
}

// DropMaking takes a name away.
func (s *Store) DropMaking(ctx context.Context, name string) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM making WHERE name = ?`, name)
	return err
}
