// Package check finds where a project breaks its rules: the board's design rules, the board
// against its circuit, and the electrical check of the circuit beside them. The board's
// findings are kept up to date object by object, so that their cost follows the size of an
// edit. Lengths are nanometres; distances are exact but for rounding to the nanometre.
package check

import (
	"cmp"
	"fmt"
	"hash/fnv"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Severity of a finding.
type Severity string

// Severities: what must be mended, what is yet to be done, what should be looked at, and what is worth knowing.
const (
	Fault   Severity = "fault"
	Warning Severity = "warning"
	ToDo    Severity = "todo"
	Note    Severity = "note" // worth knowing; it is not counted and stands in nobody's way
)

// Finding is one place where a rule is not kept.
type Finding struct {
	Key         string         `json:"key"` // the same trouble keeps its key
	Kind        string         `json:"kind"`
	Severity    Severity       `json:"severity"`
	Text        string         `json:"text"` // what and where, in a sentence
	Rule        string         `json:"rule"` // the rule that says so
	Measured    int64          `json:"measured,omitempty"`
	Required    int64          `json:"required,omitempty"`
	Stage       string         `json:"stage"` // circuit or board
	At          geom.Point     `json:"at"`
	Sheet       design.ID      `json:"sheet,omitempty"` // of the circuit
	Path        string         `json:"path,omitempty"`  // of the use of the sheet
	Place       string         `json:"place,omitempty"` // what the use of the sheet is called
	Layer       design.LayerID `json:"layer,omitempty"` // copper layer of the board
	Objects     []design.ID    `json:"objects,omitempty"`
	Ends        []geom.Point   `json:"ends,omitempty"`    // the two places between which it was measured
	Says        string         `json:"says,omitempty"`    // the rule of the board that decided what is required, as a sentence
	Fingerprint string         `json:"print"`             // what it is about; an excuse holds as long as it stays
	Excused     string         `json:"excused,omitempty"` // the reason it was excused for
	about       string
	Lapsed      string `json:"lapsed,omitempty"` // the reason it had been excused for, before it changed
}

// Open tells whether a finding wants attention: it is neither excused nor merely to be done or to be known.
func (f *Finding) Open() bool { return f.Excused == "" && f.Severity != ToDo && f.Severity != Note }

// Hold sets what the excuse of the finding, if there is one, says about it. stands is how what it is about stands (Stands). Excuses of
// earlier versions know nothing of that, and hold as they did.
func (f *Finding) Hold(e *design.Excuse, stands uint64) {
	h := fnv.New64a()
	fmt.Fprintf(h, "%s\n%s\n%d\n%s", f.Kind, f.Text, f.Measured, f.about)
	said := fmt.Sprintf("%x", h.Sum64())
	f.Fingerprint, f.Excused, f.Lapsed = fmt.Sprintf("%s-%x", said, stands), "", ""
	switch {
	case e == nil:
	case e.Fingerprint == f.Fingerprint, e.Fingerprint == said:
		f.Excused = e.Reason
	default:
		f.Lapsed = e.Reason
	}
}

// Sort puts faults first, then what is to be done, warnings, and what is to be known; each by key.
func Sort(list []*Finding) {
	rank := map[Severity]int{Fault: 0, ToDo: 1, Warning: 2, Note: 3}
	slices.SortFunc(list, func(a, b *Finding) int {
		return cmp.Or(cmp.Compare(rank[a.Severity], rank[b.Severity]), circuit.CompareNatural(a.Key, b.Key))
	})
}
