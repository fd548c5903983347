package edit

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
)

// TakeRules takes a set of rules in, as from a file: numbers of the rules for everything, those with a scope in place of all there are, nets by class.
type TakeRules struct {
	Numbers map[design.RuleKind]int64 `json:"numbers,omitempty"`
	Rules   []design.Rule             `json:"rules"`
	Classes map[string][]string       `json:"classes,omitempty"`
}

// Apply the command.
func (c *TakeRules) Apply(tx *Tx) error {
	if len(c.Rules) > mostRules {
		return fmt.Errorf("%d rules are too many; %d are the most", len(c.Rules), mostRules)
	}
	for r := range tx.Doc.Rules.All() {
		if !r.Everywhere() {
			tx.Remove(r)
		}
	}
	order := len(design.RuleKinds)
	for _, r := range c.Rules {
		if r.Everywhere() {
			return fmt.Errorf("a rule of the %s for everything is a number, not one with a scope", r.Kind.Words())
		}
		r.ID, r.Order = 0, order
		order++
		if err := (&PutRule{r}).Apply(tx); err != nil {
			return err
		}
	}
	for _, class := range slices.Sorted(maps.Keys(c.Classes)) {
		if err := (&SetNets{Nets: c.Classes[class], Class: &class}).Apply(tx); err != nil {
			return err
		}
	}
	return (&SetRules{c.Numbers}).Apply(tx)
}
