// Package tabular writes tables for others and reads those of others, as text with separators (CSV, RFC 4180). What is written never
// holds a cell that a spreadsheet would run; what is read is bounded and can be stopped.
package tabular

import (
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"regexp"
	"strings"
)

// number matches what a spreadsheet reads as a number however it begins, and runs nothing of.
var number = regexp.MustCompile(`^[+-]?[0-9]+([.,][0-9]+)?$`)

// runs are the characters with which a cell begins that a spreadsheet takes for a formula.
const runs = "=+-@\t\r"

// Shown is a text as a cell: one that a spreadsheet would run gets an apostrophe before it, which spreadsheets hide. Numbers stay.
func Shown(text string) string {
	if text != "" && strings.ContainsRune(runs, rune(text[0])) && !number.MatchString(text) {
		return "'" + text
	}
	return text
}

// Meant is the text that a cell shows: Shown taken back.
func Meant(cell string) string {
	if rest, ok := strings.CutPrefix(cell, "'"); ok && Shown(rest) == cell {
		return rest
	}
	return cell
}

// CSV writes rows, each cell as Shown, with commas and the line ends of the standard.
func CSV(rows [][]string) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.UseCRLF = true
	for _, row := range rows {
		cells := make([]string, len(row))
		for i, text := range row {
			cells[i] = Shown(text)
		}
		_ = w.Write(cells) // a buffer does not fail
	}
	w.Flush()
	return b.Bytes()
}

// Bounds of a table that is read.
type Bounds struct {
	Bytes, Rows int
}

// Read gives the rows of a table to take, the first one its head; line is where a row begins, counted from 1. Separators may be commas,
// semicolons or tabs. An error of take ends it. Cost: O(length).
func Read(ctx context.Context, data []byte, most Bounds, take func(line int, row []string) error) error {
	if len(data) > most.Bytes {
		return fmt.Errorf("the table is larger than %d MB", most.Bytes>>20)
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma = separator(data)
	r.FieldsPerRecord = -1
	r.LazyQuotes = true
	r.ReuseRecord = true
	for n := 0; ; n++ {
		if n%1024 == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			if n == 0 {
				return errors.New("the table is empty")
			}
			return nil
		}
		if err != nil {
			var at *csv.ParseError
			if errors.As(err, &at) {
				return fmt.Errorf("the table cannot be read in line %d: its quotes do not pair", at.Line)
			}
			return fmt.Errorf("the table cannot be read: %w", err)
		}
		if n > most.Rows {
			return fmt.Errorf("the table has more than %d rows", most.Rows)
		}
		for i, cell := range row {
			row[i] = Meant(cell)
		}
		line, _ := r.FieldPos(0)
		if err := take(line, row); err != nil {
			return err
		}
	}
}

// separator guesses from the first line.
func separator(data []byte) rune {
	head, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', bytes.Count(head, []byte(","))
	for _, r := range []rune{';', '\t'} {
		if n := bytes.Count(head, []byte(string(r))); n > most {
			best, most = r, n
		}
	}
	return best
}

// mostProblems bounds the problems of a table that are told one by one.
const mostProblems = 50

// Problems are what of a table cannot be taken, in sentences: the first ones, and how many more there are.
type Problems struct {
	list []string
	more int
}

// Add adds one.
func (p *Problems) Add(format string, args ...any) {
	if len(p.list) == mostProblems {
		p.more++
		return
	}
	p.list = append(p.list, fmt.Sprintf(format, args...))
}

// List is what is told of them.
func (p *Problems) List() []string {
	out := append([]string{}, p.list...)
	if p.more > 0 {
		out = append(out, fmt.Sprintf("And %d more of the kind.", p.more))
	}
	return out
}
