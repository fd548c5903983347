package edit

import (
	"cmp"
	"fmt"
	"maps"

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
		taken := map[string]bool{}
		for _, o := range tx.Doc.Pours {
			taken[o.Name] = true
		}
		p.Name = freeName(cmp.Or(tx.Doc.NetName(p.Net), "area"), taken)
	}
	return tx.Put(&p)
}

// freeName is a name that is not taken: the stem, else with a number.
func freeName(stem string, taken map[string]bool) string {
	name := stem
	for i := 2; taken[name]; i++ {
		name = fmt.Sprintf("%s %d", stem, i)
	}
	return name
}

// SetJoins says how copper areas join vias and the pads of parts: design.ByRule, Solidly, BySpokes or NotJoined. Pad names the pads of
// parts; empty: all of them.
type SetJoins struct {
	IDs  []design.ID `json:"ids"`
	Pad  string      `json:"pad,omitempty"`
	Join string      `json:"join"`
}

// Apply the command.
func (c *SetJoins) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		var put design.Object
		switch o := tx.Doc.Get(id).(type) {
		case *design.Via:
			put = with(o, func(q *design.Via) { q.Join = c.Join })
		case *design.Placed:
			if _, there := o.Nets[c.Pad]; c.Pad != "" && !there {
				return fmt.Errorf("%s has no pad %s of a net", o.Designator, c.Pad)
			}
			joins := maps.Clone(o.Joins)
			if joins == nil {
				joins = map[string]string{}
			}
			for pad := range o.Nets {
				if c.Pad != "" && pad != c.Pad {
					continue
				}
				if joins[pad] = c.Join; c.Join == design.ByRule {
					delete(joins, pad)
				}
			}
			if len(joins) == 0 {
				joins = nil
			}
			put = with(o, func(q *design.Placed) { q.Joins = joins })
		default:
			return fmt.Errorf("copper areas join pads and vias; something else was picked (id %d)", id)
		}
		if err := tx.Put(put); err != nil {
			return err
		}
	}
	return nil
}
