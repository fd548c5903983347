package depot

import (
	"context"
	"database/sql"
	"fmt"
	"github.com/go-json-experiment/json"
	"slices"
	"strings"

	_ "github.com/mattn/go-sqlite3" // the driver, built with FTS5

	"goldentrace/core/ordering"
)

// Stock is the depot's database: every part as JSON under its number, and the words by which it is found. What is filtered, counted and
// sorted by is held in memory, as columns.
type Stock struct {
	db *sql.DB
	*columns
}

const schema = `
DROP TABLE IF EXISTS part;
DROP TABLE IF EXISTS words;
CREATE TABLE part (id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, body TEXT NOT NULL);
CREATE VIRTUAL TABLE words USING fts5(text, content='', prefix='2 3', tokenize='unicode61');`

// Open opens the database in the file, and makes it from the parts when it is not there or of another version. Everything of it
// can be made again, so it is not kept from a failure of the machine.
func Open(ctx context.Context, file string, version int, of func() []ordering.Part) (*Stock, error) {
	db, err := sql.Open("sqlite3", "file:"+file+"?_journal_mode=WAL&_synchronous=OFF&_busy_timeout=5000")
	if err != nil {
		return nil, fmt.Errorf("the depot's books cannot be opened: %w", err)
	}
	s := &Stock{db: db}
	if err := s.fill(ctx, version, of); err != nil {
		_ = db.Close()
		return nil, fmt.Errorf("the depot's books cannot be read: %w", err)
	}
	return s, nil
}

func (s *Stock) fill(ctx context.Context, version int, of func() []ordering.Part) error {
	var at int
	if err := s.db.QueryRowContext(ctx, `PRAGMA user_version`).Scan(&at); err != nil {
		return err
	}
	if at != version {
		if err := s.make(ctx, version, of()); err != nil {
			return err
		}
	}
	rows, err := s.db.QueryContext(ctx, `SELECT body FROM part ORDER BY id`)
	if err != nil {
		return err
	}
	defer rows.Close()
	s.columns = newColumns()
	for rows.Next() {
		var body []byte
		var p ordering.Part
		if err := rows.Scan(&body); err != nil {
			return err
		}
		if err := json.Unmarshal(body, &p); err != nil {
			return err
		}
		s.columns.add(&p)
	}
	s.columns.close()
	return rows.Err()
}

func (s *Stock) make(ctx context.Context, version int, parts []ordering.Part) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer func() { _ = tx.Rollback() }()
	if _, err := tx.ExecContext(ctx, schema); err != nil {
		if strings.Contains(err.Error(), "fts5") {
			return fmt.Errorf("this program was built without FTS5; `make build` builds it with the tag sqlite_fts5")
		}
		return err
	}
	part, err := tx.PrepareContext(ctx, `INSERT INTO part (id, number, body) VALUES (?, ?, ?)`)
	if err != nil {
		return err
	}
	words, err := tx.PrepareContext(ctx, `INSERT INTO words (rowid, text) VALUES (?, ?)`)
	if err != nil {
		return err
	}
	for i := range parts {
		body, err := json.Marshal(&parts[i])
		if err != nil {
			return err
		}
		if _, err := part.ExecContext(ctx, i+1, parts[i].Number, string(body)); err != nil {
			return err
		}
		if _, err := words.ExecContext(ctx, i+1, wordsOf(&parts[i])); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, fmt.Sprintf(`PRAGMA user_version = %d`, version)); err != nil {
		return err
	}
	return tx.Commit()
}

// Close the database.
func (s *Stock) Close() error { return s.db.Close() }

// wordsOf a part: all that it says, numbers as people write them: 4.7 kΩ, 4.7k, 4k7.
func wordsOf(p *ordering.Part) string {
	out := []string{p.Number, p.Maker, p.MakerNumber, strings.ReplaceAll(p.MakerNumber, "-", ""), p.Family, p.Text, p.Package}
	for _, x := range p.Properties {
		out = append(out, x.Text)
		number, unit, ok := strings.Cut(x.Text, " ")
		if !x.Number || !ok || x.Unit == "%" {
			continue
		}
		letter := strings.TrimSuffix(unit, x.Unit)
		out = append(out, number+unit, number+letter)
		whole, rest, infix := strings.Cut(number, ".")
		if infix && letter != "" {
			out = append(out, whole+letter+rest)
		}
		if letter == "µ" { // u, where a keyboard has no µ
			out = append(out, number+"u"+x.Unit, number+"u", whole+"u"+rest)
		}
	}
	return strings.Join(out, " ")
}

// match is what FTS5 is asked: all the words, each as the beginning of one. Empty: nothing to look for.
func match(query string) string {
	var out []string
	for _, w := range strings.Fields(query) {
		if strings.ContainsFunc(w, func(r rune) bool {
			return r >= '0' && r <= '9' || r >= 'A' && r <= 'Z' || r >= 'a' && r <= 'z' || r > 127
		}) {
			out = append(out, `"`+strings.ReplaceAll(w, `"`, `""`)+`"*`)
		}
	}
	return strings.Join(out, " ")
}

// found are the parts that have all the words, as a set; nil: all.
func (s *Stock) found(ctx context.Context, query string) ([]bool, error) {
	m := match(query)
	if m == "" {
		return nil, nil
	}
	var list sql.NullString // in one piece, since a row each would take ten times as long
	if err := s.db.QueryRowContext(ctx, `SELECT group_concat(rowid) FROM words WHERE words MATCH ?`, m).Scan(&list); err != nil {
		return nil, err
	}
	out := make([]bool, s.n)
	id := 0
	for i := 0; i <= len(list.String); i++ {
		if i < len(list.String) && list.String[i] != ',' {
			id = id*10 + int(list.String[i]-'0')
			continue
		}
		if id >= 1 && id <= s.n {
			out[id-1] = true
		}
		id = 0
	}
	return out, nil
}

// parts at their places, in the order in which they are named.
func (s *Stock) parts(ctx context.Context, places []int) ([]ordering.Part, error) {
	ids := make([]int, len(places))
	order := make(map[int]int, len(places))
	for k, i := range places {
		ids[k], order[i+1] = i+1, k
	}
	list, err := json.Marshal(ids)
	if err != nil {
		return nil, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT id, body FROM part WHERE id IN (SELECT value FROM json_each(?))`, string(list))
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := make([]ordering.Part, len(places))
	for rows.Next() {
		var id int
		var body sql.RawBytes
		if err := rows.Scan(&id, &body); err != nil {
			return nil, err
		}
		if err := json.Unmarshal(body, &out[order[id]]); err != nil {
			return nil, err
		}
	}
	return out, rows.Err()
}

// Parts by their numbers; those that are not known are left out.
func (s *Stock) Parts(ctx context.Context, numbers []string) ([]ordering.Part, error) {
	if len(numbers) > ordering.MostNumbers {
		return nil, fmt.Errorf("up to %d numbers can be asked for at once", ordering.MostNumbers)
	}
	places := []int{}
	for _, n := range numbers {
		if i, ok := s.byNumber[n]; ok && !slices.Contains(places, i) {
			places = append(places, i)
		}
	}
	return s.parts(ctx, places)
}
