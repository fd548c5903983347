package question

import (
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/report"
	"goldentrace/core/workbench"
)

// Checks asks what the electrical check looks for.
type Checks struct{}

// CheckTable is what the electrical check looks for, with the severities in force.
type CheckTable struct {
	Kinds []circuit.ErcKind `json:"kinds"`
	Types []string          `json:"types"`
	Words map[string]string `json:"words"` // the types in a sentence
	Pairs map[string]string `json:"pairs"` // by "input|output"; every pair
}

// Answer the question.
func (q *Checks) Answer(b *workbench.Bench) (*CheckTable, error) {
	own := b.Doc.Checks
	t := &CheckTable{Types: design.PinTypes, Words: circuit.PinWords, Pairs: map[string]string{}}
	for _, k := range circuit.ErcKinds {
		k.Severity = circuit.SeverityOf(own, k.Kind)
		t.Kinds = append(t.Kinds, k)
	}
	for i, a := range design.PinTypes {
		for _, b := range design.PinTypes[i:] {
			t.Pairs[circuit.PairKey(a, b)] = circuit.PairSeverity(own, a, b)
		}
	}
	return t, nil
}

// Checked asks what all checks look for.
type Checked struct{}

// Answer the question.
func (q *Checked) Answer(*workbench.Bench) ([]report.About, error) { return report.Checked, nil }
