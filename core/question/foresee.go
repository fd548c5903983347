package question

import (
	"encoding/json"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/paper"
	"goldentrace/core/workbench"
)

// Foresee asks what a command would change and do to the nets; in which use of its sheet it is seen.
type Foresee struct {
	Cmd  json.RawMessage `json:"cmd"`
	Path string          `json:"path,omitempty"`
}

// Foreseen is what a command would do, told before it is done.
type Foreseen struct {
	Outcome circuit.Outcome `json:"outcome"`
	Say     string          `json:"say"`             // what it would join and part that it is not for; empty: nothing
	Said    string          `json:"said,omitempty"`  // what it would say that it did
	Names   []string        `json:"names,omitempty"` // of things to be pasted that are borne already
	Put     []paper.Drawn   `json:"put,omitempty"`
	Remove  []design.ID     `json:"remove,omitempty"`
}

// Answer the question.
func (q *Foresee) Answer(b *workbench.Bench) (*Foreseen, error) {
	_, cmd, err := edit.Decode(q.Cmd)
	if err != nil {
		return nil, err
	}
	return foresee(b, cmd, q.Path)
}

func foresee(b *workbench.Bench, cmd edit.Command, path string) (*Foreseen, error) {
	cs, outcome, err := b.Foresee(cmd)
	if err != nil {
		return nil, err
	}
	out := &Foreseen{Outcome: outcome, Say: workbench.Sentence(outcome)}
	if sayer, ok := cmd.(edit.Sayer); ok {
		out.Said = sayer.Said()
	}
	if n, ok := cmd.(interface {
		Bears(d *design.Doc, n *circuit.Nets) []string
	}); ok {
		out.Names = n.Bears(b.Doc, b.Nets())
	}
	const most = 2000 // of what is shown at the hand
	for _, c := range cs {
		on, ok := c.After.(design.OnSheet)
		switch {
		case ok && len(out.Put) < most:
			out.Put = append(out.Put, paper.Drawn{ID: c.ID, Kind: c.Kind, Marks: marksOf(b, cs, on, path)})
		case c.After == nil:
			out.Remove = append(out.Remove, c.ID)
		}
	}
	return out, nil
}

// marksOf draws an object of a change set that the document does not hold; a part may be of a
// library part that only the change set brings.
func marksOf(b *workbench.Bench, cs edit.ChangeSet, on design.OnSheet, path string) []paper.Mark {
	if part, ok := on.(*design.Part); ok && b.Doc.SymbolOf(part) == nil {
		d := design.Empty()
		cs.Apply(d)
		return paper.Marks(d, on, path)
	}
	return paper.Marks(b.Doc, on, path)
}
