package edit

import (
	"fmt"

	"goldentrace/core/design"
)

// PutPour draws a copper area, or changes the one that bears its id. One without a name gets that of its net with a number.
type PutPour struct {
	Pour design.Pour `json:"pour"`
}

// Apply the command.
func (c *PutPour) Apply(tx *Tx) error {
	p := c.Pour
	if p.ID != 0 {
		old, err := get(tx.Doc.Pours, p.ID, "copper area")
		if err != nil {
			return err
		}
		if old.Locked && p.Locked {
			return fmt.Errorf("the copper area %s is locked; unlock it first", old.Name)
		}
	} else {
		p.ID = tx.Doc.NewID()
	}
	if len(p.Outline) == 0 && len(tx.Doc.Board.Outline) == 0 {
		return fmt.Errorf("the board has no outline that the area could fill; draw one first, or draw the area's edge")
	}
	if p.Name == "" {
		p.Name = tx.pourName(p.Net)
	}
	return tx.Put(&p)
}

// pourName is a name for an area of a net that no other bears.
func (tx *Tx) pourName(net design.ID) string {
	taken := map[string]bool{}
	for _, p := range tx.Doc.Pours {
		taken[p.Name] = true
	}
	stem := "area"
	if n := tx.Doc.Nets[net]; n != nil {
		stem = n.Name
	}
	if !taken[stem] {
		return stem
	}
	for i := 2; ; i++ {
		if s := fmt.Sprintf("%s %d", stem, i); !taken[s] {
			return s
		}
	}
}
