package edit

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// SetOutline draws the board's outline: a closed polygon, or none.
type SetOutline struct {
	Outline []geom.Point `json:"outline"`
}

// Apply the command.
func (c *SetOutline) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if slices.Equal(b.Outline, c.Outline) {
		return nil
	}
	b.Outline = c.Outline
	return tx.Put(&b)
}

// SetRules replaces the board's rules.
type SetRules struct {
	Rules design.Rules `json:"rules"`
}

// Apply the command.
func (c *SetRules) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if b.Rules == c.Rules {
		return nil
	}
	b.Rules = c.Rules
	return tx.Put(&b)
}
