package edit

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// SetOutline draws the board's outline, a closed line, or none; cut-outs stay when they are nil.
type SetOutline struct {
	Outline []geom.Corner    `json:"outline"`
	CutOuts *[][]geom.Corner `json:"cutOuts,omitempty"`
}

// Apply the command.
func (c *SetOutline) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	cuts := b.CutOuts
	if c.CutOuts != nil {
		cuts = *c.CutOuts
	}
	if geom.SameCorners(b.Outline, c.Outline) && slices.EqualFunc(b.CutOuts, cuts, geom.SameCorners) {
		return nil
	}
	b.Outline, b.CutOuts = c.Outline, cuts
	if len(c.Outline) == 0 {
		b.CutOuts = nil
	}
	return tx.Put(&b)
}

// SetRules changes the numbers of the rules that hold for everything; kinds not named stay.
type SetRules struct {
	Rules map[design.RuleKind]int64 `json:"rules"`
}

// Apply the command.
func (c *SetRules) Apply(tx *Tx) error {
	for _, k := range slices.Sorted(maps.Keys(c.Rules)) {
		old := tx.Doc.Base(k)
		if old == nil {
			return fmt.Errorf("%q is not a kind of rule", k)
		}
		if old.Value == design.Fixed(c.Rules[k]) && old.Inner == nil {
			continue
		}
		r := *old
		r.Value, r.Inner = design.Fixed(c.Rules[k]), nil
		if err := tx.Put(&r); err != nil {
			return err
		}
	}
	return tx.viasCanBe()
}

// viasCanBe checks that the rules for everything make vias that can be.
func (tx *Tx) viasCanBe() error {
	n := tx.Doc.Numbers()
	if n[design.ViaHole] >= n[design.ViaDiameter] {
		return (&design.Via{ID: 1, From: 1, To: 2, Hole: n[design.ViaHole], Diameter: n[design.ViaDiameter]}).Valid()
	}
	return nil
}

// PutRule makes a rule, or changes the one that bears its id. The rules for everything keep their
// scope and their kind.
type PutRule struct {
	Rule design.Rule `json:"rule"`
}

// Apply the command.
func (c *PutRule) Apply(tx *Tx) error {
	r := c.Rule
	if r.ID == 0 {
		if r.Everywhere() {
			return fmt.Errorf("there is a rule of the %s for everything already; change its number", r.Kind.Words())
		}
		if len(tx.Doc.Rules) >= mostRules {
			return fmt.Errorf("there are %d rules; more would be read by nobody", mostRules)
		}
		r.ID = tx.Doc.NewID()
		if r.Order == 0 {
			for _, other := range tx.Doc.Rules {
				r.Order = max(r.Order, other.Order+1)
			}
		}
	} else {
		old, err := get(tx.Doc.Rules, r.ID, "rule")
		if err != nil {
			return err
		}
		if old.Everywhere() != r.Everywhere() || old.Everywhere() && old.Kind != r.Kind {
			return fmt.Errorf("the rule of the %s for everything stays one; make another with a scope", old.Kind.Words())
		}
	}
	if s := r.A.Part; s != 0 && tx.Doc.Placed[s] == nil {
		return fmt.Errorf("there is no such part on the board (id %d)", s)
	}
	if s := r.B.Part; s != 0 && tx.Doc.Placed[s] == nil {
		return fmt.Errorf("there is no such part on the board (id %d)", s)
	}
	if err := tx.Put(&r); err != nil {
		return err
	}
	return tx.viasCanBe()
}

// mostRules bounds the rules of a board.
const mostRules = 1000

// OrderRules puts rules into the order of their ids as given; those not named come after.
type OrderRules struct {
	IDs []design.ID `json:"ids"`
}

// Apply the command.
func (c *OrderRules) Apply(tx *Tx) error {
	place := map[design.ID]int{}
	for i, id := range c.IDs {
		if _, err := get(tx.Doc.Rules, id, "rule"); err != nil {
			return err
		}
		place[id] = i
	}
	rest := slices.Collect(maps.Values(tx.Doc.Rules))
	slices.SortFunc(rest, func(a, b *design.Rule) int { return a.Order - b.Order })
	next := len(c.IDs)
	for _, r := range rest {
		at, named := place[r.ID]
		if !named {
			at = next
			next++
		}
		if r.Order == at {
			continue
		}
		q := *r
		q.Order = at
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}

// PutArea draws a rule area, or changes the one that bears its id.
type PutArea struct {
	Area design.RuleArea `json:"area"`
}

// Apply the command.
func (c *PutArea) Apply(tx *Tx) error {
	a := c.Area
	if a.ID == 0 {
		a.ID = tx.Doc.NewID()
	} else if _, err := get(tx.Doc.RuleAreas, a.ID, "area"); err != nil {
		return err
	}
	return tx.Put(&a)
}
