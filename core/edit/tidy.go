package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// TidyTracks makes tracks shorter and straighter within the rules, up to pads, vias and forks. Others stay where they lie, and so do locked
// pieces and those on whose middle something hangs.
type TidyTracks struct {
	IDs  []design.ID `json:"ids"`
	said string
}

// mostTidied is how many pieces of track are tidied at once, and tidyRounds how often: what was tidied makes room for others.
const (
	mostTidied = 2_000
	tidyRounds = 4
)

// Said tells what became shorter, and what stayed.
func (c *TidyTracks) Said() string { return c.said }

// Apply the command.
func (c *TidyTracks) Apply(tx *Tx) error {
	if len(c.IDs) > mostTidied {
		return fmt.Errorf("%d pieces of track are too many to tidy at once; %d are the most", len(c.IDs), mostTidied)
	}
	var was, is int64
	stay, tidied := 0, map[design.ID]bool{}
	for round := range tidyRounds {
		done, changed := map[design.ID]bool{}, false
		for i, id := range c.IDs {
			if done[id] || tx.Doc.Tracks[id] == nil {
				continue
			}
			if err := tx.going(float64(round*len(c.IDs)+i) / float64(tidyRounds*len(c.IDs))); err != nil {
				return err
			}
			field := tx.current()
			s, err := field.Strand(id)
			if err != nil {
				if round == 0 {
					stay++
				}
				continue
			}
			for _, id := range s.IDs {
				done[id] = true
			}
			path := field.Tidied(s)
			if slices.Equal(path, s.Path) {
				continue
			}
			was, is, changed = was+route.Length(s.Path), is+route.Length(path), true
			tidied[s.IDs[0]] = true
			if err := tx.relay(s, s.Pieces(path)); err != nil {
				return err
			}
		}
		if !changed {
			break
		}
	}
	if len(tidied) == 0 {
		if stay > 0 && stay == len(c.IDs) {
			return fmt.Errorf("what was picked is locked, or something hangs on its middle")
		}
		return fmt.Errorf("they lie as short and straight as the rules let them")
	}
	c.said = fmt.Sprintf("%s %.2f mm shorter", counted(len(tidied), "track is", "tracks are"), float64(was-is)/1e6)
	if stay > 0 {
		c.said += "; " + counted(stay, "piece stayed", "pieces stayed") + ", locked or holding others"
	}
	c.said += "."
	return nil
}

// current is what copper has to respect with what the command has done so far.
func (tx *Tx) current() *route.Field {
	f := *tx.field()
	var laid []*layout.Copper
	for _, id := range tx.order {
		if o := tx.changes[id].After; o != nil {
			laid = append(laid, layout.PiecesOf(tx.Doc, o)...)
		}
	}
	f = f.With(tx.order, laid...)
	return &f
}
