package report_test

import (
	"encoding/csv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/report"
)

func told() *report.Report {
	d := design.New("Weir <1>")
	d.Settings.Number = "HRT-021"
	return &report.Report{Doc: d, Revision: 42, Made: time.Date(2026, 11, 27, 9, 5, 0, 0, time.UTC), Findings: []*check.Finding{
		{Key: "a", Kind: "clearance", Severity: check.Fault, Stage: "board", Text: "Track (A) and track (B) are 0.1 mm apart.",
			Rule: "Clearance",
			Says: "Between supplies and anything: 0.4 mm", Measured: 100_000, Required: 400_000, At: geom.Pt(1_500_000, 2_000_000),
			Layer: d.Board.Top()},
		{Key: "b", Kind: "singlePin", Severity: check.Warning, Stage: "circuit", Text: "=The net has a single pin.",
			Rule: "Nets join pins", Place: "Sheet 1",
			Excused: "It is led out."},
		{Key: "c", Kind: "unchecked", Severity: check.Note, Stage: "parts", Text: "The part <b>Memory</b> has not been checked.",
			Rule: "Parts are checked", Place: "Memory"},
	}}
}

func TestTheTable(t *testing.T) {
	rows, err := csv.NewReader(strings.NewReader(string(told().CSV()))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, []string{"Fault", "Track (A) and track (B) are 0.1 mm apart.", "Board", "1.5 mm, 2 mm", "Top", "0.1 mm",
		"0.4 mm", "Clearance",
		"Between supplies and anything: 0.4 mm", ""}, rows[1])
	assert.Equal(t, []string{"Excused", "'=The net has a single pin.", "Circuit", "Sheet 1", "", "", "", "Nets join pins", "",
		"It is led out."}, rows[2], "no formula")
}

// texts are the texts of all elements of a name.
func texts(n *html.Node, name string) (out []string) {
	var all func(n *html.Node) string
	all = func(n *html.Node) (s string) {
		if n.Type == html.TextNode {
			return n.Data
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			s += all(c)
		}
		return s
	}
	for c := range n.Descendants() {
		if c.Type == html.ElementNode && c.Data == name {
			out = append(out, strings.TrimSpace(all(c)))
		}
	}
	return out
}

func TestThePage(t *testing.T) {
	data, err := told().HTML()
	require.NoError(t, err)
	doc, err := html.Parse(strings.NewReader(string(data)))
	require.NoError(t, err)
	assert.Equal(t, []string{"Findings of Weir <1>"}, texts(doc, "h1"))
	assert.Equal(t, []string{"Fault (1)", "Note (1)", "Excused (1)", "What was checked"}, texts(doc, "h2"))
	assert.Contains(t, texts(doc, "p")[0], "HRT-021, revision A, computed from edit 42, written 27 November 2026, 09:05")
	assert.Contains(t, texts(doc, "td"), "The part <b>Memory</b> has not been checked.Parts are checked", "names are no markup")
	assert.Empty(t, texts(doc, "b"))
	assert.NotContains(t, string(data), "http", "it stands alone")
	clean := told()
	clean.Findings = clean.Findings[1:]
	data, err = clean.HTML()
	require.NoError(t, err)
	assert.Contains(t, string(data), "<p>No findings. All rules are kept.</p>")
	clean.Behind = true
	data, err = clean.HTML()
	require.NoError(t, err)
	doc, err = html.Parse(strings.NewReader(string(data)))
	require.NoError(t, err)
	assert.Contains(t, texts(doc, "p")[1], "Not all is known yet")
	assert.NotContains(t, string(data), "All rules are kept", "nobody knows")
	for _, about := range report.Checked {
		assert.Contains(t, texts(doc, "dt"), about.About)
	}
}
