package parts

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"
)

// Table is one that was pasted or read from a file, as it was understood.
type Table struct {
	Columns []string   `json:"columns"` // what each holds
	Head    []string   `json:"head"`    // its heading, where there is one
	Cells   [][]string `json:"cells"`   // as pasted, the heading left out
	Notes   []string   `json:"notes"`
	units   []string   // of the columns, where their headings name them: x (mm)
}

// SkipColumn is a column that is not taken.
const SkipColumn = "skip"

// LargestList bounds a pasted table, in bytes.
const LargestList = 1 << 20

// heading is what a column holds and how people head it, in lower case.
type heading struct {
	kind  string
	words []string
}

// cell of a row in the column that holds something; empty: no column does.
func (t *Table) cell(row []string, kind string) string {
	for i, c := range t.Columns {
		if c == kind {
			return row[i]
		}
	}
	return ""
}

// readTable splits a text into cells and finds what its columns hold by their headings, or takes it as given. told is what the headings say,
// nil where there are none; enough tells whether what was found among words makes them headings. Cost: O(length).
func readTable(text string, columns []string, known []heading, what string, most int, enough func(told []string) bool) (t *Table, told []string, err error) {
	if len(text) > LargestList {
		return nil, nil, fmt.Errorf("the list is %d kB long; %d kB are the most", len(text)>>10, LargestList>>10)
	}
	if !utf8.ValidString(text) {
		return nil, nil, fmt.Errorf("the list is not proper text (UTF-8)")
	}
	cells := split(strings.TrimPrefix(text, "\ufeff"))
	if len(cells) > most+1 {
		return nil, nil, fmt.Errorf("the list has %d rows; %d %s are the most", len(cells), most, what)
	}
	if len(cells) == 0 {
		return nil, nil, fmt.Errorf("the list is empty; paste a table of %s, one in a row", what)
	}
	width := 0
	for _, row := range cells {
		width = max(width, len(row))
	}
	if width > 50 {
		return nil, nil, fmt.Errorf("the list has %d columns; 50 are the most", width)
	}
	for i := range cells {
		for len(cells[i]) < width {
			cells[i] = append(cells[i], "")
		}
	}
	t = &Table{Head: make([]string, width), Notes: []string{}}
	told = headed(cells[0], known)
	if told != nil && !enough(told) {
		told = nil
	}
	if told != nil {
		t.Head, cells = cells[0], cells[1:]
	}
	for _, h := range t.Head {
		t.units = append(t.units, strings.ToLower(strings.Trim(strings.TrimSpace(inBrackets.FindString(h)), "()[]")))
	}
	t.Cells, t.Columns = cells, told
	if told == nil {
		t.Columns = slices.Repeat([]string{SkipColumn}, width)
	}
	if len(columns) > 0 {
		if len(columns) != width {
			return nil, nil, fmt.Errorf("the list has %d columns, %d were named", width, len(columns))
		}
		for _, c := range columns {
			if c != SkipColumn && !slices.ContainsFunc(known, func(h heading) bool { return h.kind == c }) {
				return nil, nil, fmt.Errorf("%q is not something a column of %s holds", c, what)
			}
		}
		t.Columns = columns
	}
	return t, told, nil
}

// inBrackets is what a heading says of its unit.
var inBrackets = regexp.MustCompile(`\s*[(\[][^)\]]*[)\]]\s*$`)

// headed reads a row as headings; nil: it is none.
func headed(row []string, known []heading) []string {
	out := make([]string, len(row))
	n := 0
	for i, c := range row {
		out[i] = SkipColumn
		for _, h := range known {
			if slices.Contains(h.words, strings.ToLower(inBrackets.ReplaceAllString(c, ""))) && !slices.Contains(out[:i], h.kind) {
				out[i] = h.kind
				n++
				break
			}
		}
	}
	if n == 0 || n == 1 && len(row) > 1 && out[0] == SkipColumn {
		return nil
	}
	return out
}

// split finds the cells: by the character that parts most rows into equally many.
func split(text string) [][]string {
	var lines []string
	for _, l := range strings.Split(strings.ReplaceAll(text, "\r", "\n"), "\n") {
		if strings.TrimSpace(l) != "" && strings.Trim(l, "-=+| \t") != "" { // rules of drawn tables say nothing
			lines = append(lines, l)
		}
	}
	best, at := "", 0
	for _, sep := range []string{"\t", ";", "|", ","} {
		n := 0
		for _, l := range lines {
			if strings.Contains(l, sep) {
				n++
			}
		}
		if n > at {
			best, at = sep, n
		}
	}
	var out [][]string
	for _, l := range lines {
		var row []string
		switch {
		case at*2 < len(lines) || at == 0:
			row = aligned.Split(strings.TrimSpace(l), -1)
			if len(row) == 1 {
				row = strings.Fields(l)
			}
		case best == "|":
			row = strings.Split(strings.Trim(strings.TrimSpace(l), "|"), "|")
		default:
			row = quoted(l, rune(best[0]))
		}
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
		}
		out = append(out, row)
	}
	return out
}

var aligned = regexp.MustCompile(`\s{2,}|\t`)

// quoted splits a line at a separator outside double quotes.
func quoted(l string, sep rune) []string {
	var out []string
	var cell strings.Builder
	in := false
	for _, r := range l {
		switch {
		case r == '"':
			in = !in
		case r == sep && !in:
			out = append(out, cell.String())
			cell.Reset()
		default:
			cell.WriteRune(r)
		}
	}
	return append(out, cell.String())
}
