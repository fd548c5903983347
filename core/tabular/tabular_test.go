package tabular_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/tabular"
)

// No cell of what is written begins with what a spreadsheet runs, but for numbers, and each means what was written.
func TestNoCellIsRun(t *testing.T) {
	for text, cell := range map[string]string{
		"=1+1": "'=1+1", "@SUM(A1)": "'@SUM(A1)", "+3V3": "'+3V3", "-VE": "'-VE", "\tx": "'\tx", "-12.7": "-12.7", "+5": "+5", "-1,5": "-1,5", "--1": "'--1",
		"-1+cmd": "'-1+cmd", "-": "'-", "10k": "10k", "": "", "'quoted'": "'quoted'", "a=b": "a=b",
	} {
		rows, err := csv.NewReader(strings.NewReader(string(tabular.CSV([][]string{{text, "end"}})))).ReadAll()
		require.NoError(t, err)
		assert.Equal(t, [][]string{{cell, "end"}}, rows, "%q", text)
		assert.Equal(t, text, tabular.Meant(cell))
	}
	rapid.Check(t, func(t *rapid.T) {
		text := rapid.StringMatching(`['=+@\-]{0,2}[0-9a-zA-Z;,"' ]{0,6}`).Draw(t, "text")
		cell := tabular.Shown(text)
		if cell != "" && strings.ContainsAny(cell[:1], "=+-@\t\r") {
			for _, r := range cell[1:] {
				if !strings.ContainsRune("0123456789.,", r) {
					t.Fatalf("%q would be run", cell)
				}
			}
		}
		if !strings.HasPrefix(text, "'") && tabular.Meant(cell) != text {
			t.Fatalf("%q is read as %q", text, tabular.Meant(cell))
		}
	})
	assert.Equal(t, "a,b\r\n\"c,d\",\"e\"\"f\"\r\n", string(tabular.CSV([][]string{{"a", "b"}, {"c,d", `e"f`}})))
}

// Whatever separates the cells, rows come with the line they begin in; bounds and the end of whoever waits are kept.
func TestTablesAreRead(t *testing.T) {
	most := tabular.Bounds{Bytes: 1 << 20, Rows: 3}
	for _, text := range []string{"a,b\n\"x\ny\",'=2\n\n3,\n", "\xef\xbb\xbfa;b\r\n\"x\ny\";'=2\r\n\r\n3;\r\n", "a\tb\n\"x\ny\"\t'=2\n\n3\t\n"} {
		var lines []int
		var rows [][]string
		require.NoError(t, tabular.Read(t.Context(), []byte(text), most, func(line int, row []string) error {
			lines, rows = append(lines, line), append(rows, append([]string{}, row...))
			return nil
		}))
		assert.Equal(t, []int{1, 2, 5}, lines)
		assert.Equal(t, [][]string{{"a", "b"}, {"x\ny", "=2"}, {"3", ""}}, rows)
	}
	none := func(int, []string) error { return nil }
	assert.ErrorContains(t, tabular.Read(t.Context(), nil, most, none), "empty")
	assert.NoError(t, tabular.Read(t.Context(), []byte("h\n1\n2\n3\n"), most, none))
	assert.ErrorContains(t, tabular.Read(t.Context(), []byte("h\n1\n2\n3\n4\n"), most, none), "more than 3 rows")
	assert.ErrorContains(t, tabular.Read(t.Context(), make([]byte, 1<<20+1), most, none), "larger than 1 MB")
	assert.NoError(t, tabular.Read(t.Context(), append([]byte("h\n"), bytes.Repeat([]byte("x"), 1<<20-2)...), most, none), "as large as it may be")
	assert.NoError(t, tabular.Read(t.Context(), []byte("a,b;c\n"), most, func(_ int, row []string) error {
		assert.Equal(t, []string{"a", "b;c"}, row, "as many of one as of the other: the comma parts cells")
		return nil
	}))
	assert.ErrorContains(t, tabular.Read(t.Context(), []byte("h\n"), most, func(int, []string) error { return fmt.Errorf("no") }), "no")
	over, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, tabular.Read(over, []byte("h\n1\n"), most, none), context.Canceled)
}

// Of many problems the first are told, and how many more there are.
func TestProblemsAreBounded(t *testing.T) {
	var p tabular.Problems
	assert.Equal(t, []string{}, p.List())
	for i := range 50 {
		p.Add("Line %d names no part.", i+1)
	}
	assert.Len(t, p.List(), 50)
	p.Add("x")
	p.Add("y")
	assert.Len(t, p.List(), 51)
	assert.Equal(t, "Line 50 names no part.", p.List()[49])
	assert.Equal(t, "And 2 more of the kind.", p.List()[50])
}
