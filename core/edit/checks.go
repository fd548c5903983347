package edit

import (
	"fmt"
	"maps"
	"strings"
	"time"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// SetChecks chooses severities of the electrical check: of kinds of findings, and of pairs
// of pin types written "input|output". An empty severity goes back to the usual one.
type SetChecks struct {
	Kinds map[string]string `json:"kinds,omitempty"`
	Pairs map[string]string `json:"pairs,omitempty"`
}

// Apply the command.
func (c *SetChecks) Apply(tx *Tx) error {
	s := design.Checks{ID: design.ChecksID}
	if old := tx.Doc.Checks; old != nil {
		s.Kinds, s.Pairs = maps.Clone(old.Kinds), maps.Clone(old.Pairs)
	}
	if s.Kinds == nil {
		s.Kinds = map[string]string{}
	}
	if s.Pairs == nil {
		s.Pairs = map[string]string{}
	}
	for k, v := range c.Kinds {
		if v == "" || v == circuit.SeverityOf(nil, k) {
			delete(s.Kinds, k)
		} else {
			s.Kinds[k] = v
		}
	}
	for k, v := range c.Pairs {
		a, b, ok := strings.Cut(k, "|")
		if !ok {
			return fmt.Errorf("%q is not a pair of pin types", k)
		}
		if k = circuit.PairKey(a, b); v == "" || v == circuit.PairSeverity(nil, a, b) {
			delete(s.Pairs, k)
		} else {
			s.Pairs[k] = v
		}
	}
	return tx.Put(&s)
}

// Excuse accepts a finding for a reason; it comes back when what it was about changes. An
// empty reason takes the excuse back.
type Excuse struct {
	Key         string `json:"key"`
	Fingerprint string `json:"print"`
	Text        string `json:"text"`
	Reason      string `json:"reason"`
}

// Apply the command.
func (c *Excuse) Apply(tx *Tx) error {
	old := tx.Doc.ExcuseOf(c.Key)
	reason := strings.TrimSpace(c.Reason)
	switch {
	case reason == "" && old == nil:
		return fmt.Errorf("say why the finding is to be excused")
	case reason == "":
		tx.Remove(old)
		return nil
	}
	e := design.Excuse{Key: c.Key, Fingerprint: c.Fingerprint, Text: c.Text, Reason: reason, Made: time.Now().Format(time.DateOnly)}
	if old != nil {
		e.ID = old.ID
	} else {
		e.ID = tx.Doc.NewID()
	}
	return tx.Put(&e)
}

// mostExcused bounds the findings that are excused in one step.
const mostExcused = 10_000

// ExcuseAlike accepts many findings in one step; those whose reason is empty are found again.
type ExcuseAlike struct {
	Excuses []Excuse `json:"excuses"`
}

// Apply the command.
func (c *ExcuseAlike) Apply(tx *Tx) error {
	if n := len(c.Excuses); n == 0 || n > mostExcused {
		return fmt.Errorf("1 to %d findings are excused in one step, not %d", mostExcused, n)
	}
	for i := range c.Excuses {
		if err := c.Excuses[i].Apply(tx); err != nil {
			return err
		}
	}
	return nil
}
