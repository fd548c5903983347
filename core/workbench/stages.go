package workbench

// Stages is how far the job is.
type Stages struct {
	Circuit     string `json:"circuit"`     // none, work, done
	Library     string `json:"library"`     // how far the circuit's parts have footprints that fit: none, work, done
	Board       string `json:"board"`       // none, work, done, pending: not known yet
	Differences int    `json:"differences"` // between circuit and board
	Fingerprint string `json:"fingerprint"`
	Parts       int    `json:"parts"` // packages of the circuit, in all uses of their sheets
	Nets        int    `json:"nets"`  // that have pins
}

// Parts of the circuit, as of the last Settle.
func (b *Bench) Parts() int { return b.counts.parts }

// Stages tells how far the job is, from what was last settled.
func (b *Bench) Stages() Stages {
	s := Stages{Circuit: "none", Library: "none", Board: "none", Differences: b.drift.cmp.Count(), Fingerprint: b.Fingerprint(), Parts: b.counts.parts, Nets: len(b.counts.withPins)}
	if len(b.Doc.Parts)+len(b.Doc.Wires) > 0 {
		s.Circuit = "done"
		if b.findings.open[drawer{stage: "circuit"}] > 0 {
			s.Circuit = "work"
		}
	}
	if len(b.Doc.Parts) > 0 {
		s.Library = "done"
		if b.findings.open[drawer{stage: "parts"}] > 0 || b.parts.bare > 0 {
			s.Library = "work"
		}
	}
	if len(b.Doc.Placed) > 0 {
		s.Board = "done"
		if b.graph.Behind() != nil {
			s.Board = "pending"
		}
		if b.findings.open[drawer{stage: "board"}]+b.findings.open[drawer{"board", true}] > 0 || len(b.Doc.Board.Outline) == 0 {
			s.Board = "work"
		}
	}
	return s
}
