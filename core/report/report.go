// Package report writes what the checks of a project found as files that stand alone: a table (CSV, RFC 4180) and a page (HTML).
package report

import (
	"bytes"
	"html/template"
	"slices"
	"time"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/tabular"
	"goldentrace/core/units"
)

// Report is what is told.
type Report struct {
	Doc      *design.Doc
	Revision int64 // that the findings were computed from
	Behind   bool  // the board was still being filled and checked, so that not all is known
	Made     time.Time
	Findings []*check.Finding
}

// row is a finding in words.
type row struct {
	State, Text, Rule, Says, Stage, Place, Layer, Measured, Required, Excused string
}

var states = map[check.Severity]string{check.Fault: "Fault", check.Warning: "Warning", check.ToDo: "Still to do", check.Note: "Note"}

var stages = map[string]string{"circuit": "Circuit", "board": "Board", "parts": "Parts"}

// row says a finding in words.
func (r *Report) row(f *check.Finding) row {
	out := row{State: states[f.Severity], Text: f.Text, Rule: f.Rule, Says: f.Says, Stage: stages[f.Stage], Place: f.Place, Excused: f.Excused}
	if f.Excused != "" {
		out.State = "Excused"
	}
	if f.Place == "" && f.Stage == "board" {
		out.Place = units.Text(f.At.X) + ", " + units.Text(f.At.Y)
	}
	if l := r.Doc.Board.Layer(f.Layer); l != nil {
		out.Layer = l.Name
	}
	if f.Required != 0 {
		out.Measured, out.Required = units.Text(f.Measured), units.Text(f.Required)
	}
	return out
}

func (r *Report) rows() (out []row) {
	for _, f := range r.Findings {
		out = append(out, r.row(f))
	}
	return out
}

// CSV is a line for each finding.
func (r *Report) CSV() []byte {
	rows := [][]string{{"State", "What", "Stage", "Where", "Layer", "Is", "Needs", "Rule", "Decided by", "Excused because"}}
	for _, w := range r.rows() {
		line := []string{w.State, w.Text, w.Stage, w.Place, w.Layer, w.Measured, w.Required, w.Rule, w.Says, w.Excused}
		rows = append(rows, line)
	}
	return tabular.CSV(rows)
}

// group are the rows of one state.
type group struct {
	Name string
	Rows []row
}

// HTML is a page with all findings by their state, and what was checked.
func (r *Report) HTML() ([]byte, error) {
	by := map[string]*group{}
	var groups []*group
	for _, name := range []string{"Fault", "Still to do", "Warning", "Note", "Excused"} {
		by[name] = &group{Name: name}
		groups = append(groups, by[name])
	}
	for _, w := range r.rows() {
		by[w.State].Rows = append(by[w.State].Rows, w)
	}
	clean := len(by["Fault"].Rows)+len(by["Warning"].Rows)+len(by["Still to do"].Rows) == 0
	groups = slices.DeleteFunc(groups, func(g *group) bool { return len(g.Rows) == 0 })
	s := r.Doc.Settings
	var b bytes.Buffer
	err := page.Execute(&b, map[string]any{"Title": s.Title, "Number": s.Number, "Issue": s.Revision, "Revision": r.Revision, "Behind": r.Behind,
		"Made": r.Made.Format("2 January 2006, 15:04"), "Groups": groups, "Clean": clean, "Checked": Checked})
	return b.Bytes(), err
}

// About is what is looked for of something.
type About struct {
	About string `json:"about"`
	What  string `json:"what"`
}

// Checked says what is looked for, by what it is about.
var Checked = []About{
	{"Circuit", "open and single pins, pins that do not suit one another, inputs nobody drives, supplies nobody feeds or that are joined, loose ends, bundles and taps, ports and blocks, names that differ by case, designators borne twice"},
	{"Copper", "clearances, clearance to the edge and to holes, between holes, from a hole’s wall to copper inside, least widths, holes, rings, depth and kinds of holes, areas that keep things out"},
	{"Areas", "what could not be filled, what nothing reaches, planes in pieces, pads on one spoke alone"},
	{"Tracks", "open links, tracks that end in nothing, corners of 90° or less, widths for currents"},
	{"Mask, paste, silk", "webs of mask between openings, mask on pads, paste beyond its pad, silk on openings or beyond the edge, thin silk, low letters, vias that open into pads, texts on other silk, letters that a font lacks"},
	{"Parts", "parts beside the board, their spacing, bodies that meet, greatest heights, notes of where they stand, pins and pads, footprints by themselves, marks of pin 1 and of polarity, what was checked against datasheets, ordering data, what is not fitted"},
	{"Stack", "symmetry, thickness"},
	{"Both", "board and circuit agree"},
}

var page = template.Must(template.New("report").Parse(`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>Findings of {{.Title}}</title>
<style>
body { font: 14px/1.45 "Barlow", "Segoe UI", sans-serif; color: #24304a; margin: 32px auto; max-width: 1080px; padding: 0 16px; }
h1 { font-size: 22px; margin: 0 0 4px; }
h2 { font-size: 16px; margin: 26px 0 8px; border-bottom: 2px solid #e7b549; padding-bottom: 3px; }
p.quiet { color: #5a6577; margin: 0 0 6px; }
table { border-collapse: collapse; width: 100%; }
th, td { text-align: left; vertical-align: top; padding: 5px 10px 5px 0; border-bottom: 1px solid #dde4ec; }
th { font-weight: 600; white-space: nowrap; }
td.n { font-family: "JetBrains Mono", monospace; font-size: 12px; white-space: nowrap; }
small { color: #5a6577; }
dt { font-weight: 600; float: left; clear: left; width: 150px; }
dd { margin: 0 0 5px 150px; }
</style>
</head>
<body>
<h1>Findings of {{.Title}}</h1>
<p class="quiet">{{if .Number}}{{.Number}}, {{end}}{{if .Issue}}revision {{.Issue}}, {{end}}computed from edit {{.Revision}}{{if .Behind}}, while the board was still being filled and checked{{end}}, written {{.Made}}</p>
{{if .Behind}}<p><strong>Not all is known yet: the board was still being filled and checked.</strong></p>{{end}}
{{if and .Clean (not .Behind)}}<p>No findings. All rules are kept.</p>{{end}}
{{range .Groups}}<h2>{{.Name}} ({{len .Rows}})</h2>
<table>
<tr><th>What</th><th>Where</th><th>Layer</th><th>Is</th><th>Needs</th></tr>
{{range .Rows}}<tr><td>{{.Text}}{{if .Says}}<br><small>{{.Says}}</small>{{else if .Rule}}<br><small>{{.Rule}}</small>{{end}}{{if .Excused}}<br><small>Excused because: {{.Excused}}</small>{{end}}</td><td>{{.Stage}}<br><small>{{.Place}}</small></td><td>{{.Layer}}</td><td class="n">{{.Measured}}</td><td class="n">{{.Required}}</td></tr>
{{end}}</table>
{{end}}<h2>What was checked</h2>
<dl>{{range .Checked}}<dt>{{.About}}</dt><dd>{{.What}}.</dd>{{end}}</dl>
</body>
</html>
`))
