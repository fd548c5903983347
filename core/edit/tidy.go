package edit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// TidyTracks takes what is laid twice, or leads round in a loop, and makes tracks shorter and straighter within the rules, up to pads, vias and
// forks. Others stay where they lie, and so do locked pieces and those on whose middle something hangs.
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
	ids, gone := slices.Clone(c.IDs), 0
	var was, is int64
	stay, tidied := map[design.ID]bool{}, map[design.ID]bool{}
	for round := range tidyRounds {
		went, came, err := tx.unloop(ids, nil, float64(round)/tidyRounds) // also what came to lie over each other in the round before
		if err != nil {
			return err
		}
		ids, gone = append(ids, came...), gone+len(went)
		done, changed := map[design.ID]bool{}, len(went) > 0
		for i, id := range ids {
			if done[id] || tx.Doc.Tracks[id] == nil {
				continue
			}
			if err := tx.going(float64(round*len(ids)+i) / float64(tidyRounds*len(ids))); err != nil {
				return err
			}
			field := tx.current()
			s, err := field.Strand(id)
			if err != nil {
				if round == 0 {
					stay[id] = true
				}
				continue
			}
			for _, id := range s.IDs {
				done[id] = true
			}
			path := field.Tidied(s)
			pieces := s.Pieces(path)
			if !slices.Equal(path, s.Path) {
				was, is, changed = was+route.Length(s.Path), is+route.Length(path), true
				tidied[s.IDs[0]] = true
			} else if len(pieces) >= len(s.IDs) { // else it is of pieces that were cut
				continue
			}
			if err := tx.relay(s, pieces); err != nil {
				return err
			}
		}
		if !changed {
			break
		}
	}
	went, _, err := tx.unloop(ids, nil, 1)
	if err != nil {
		return err
	}
	gone += len(went)
	if len(tidied)+gone == 0 {
		if len(stay) > 0 && len(stay) == len(ids) {
			return fmt.Errorf("what was picked is locked, or something hangs on its middle")
		}
		return fmt.Errorf("they lie as short and straight as the rules let them")
	}
	var said []string
	if gone > 0 {
		said = append(said, counted(gone, "piece is gone that lay twice or led round", "pieces are gone that lay twice or led round"))
	}
	if len(tidied) > 0 {
		said = append(said, fmt.Sprintf("%s %.2f mm shorter", counted(len(tidied), "track is", "tracks are"), float64(was-is)/1e6))
	}
	if len(stay) > 0 {
		said = append(said, counted(len(stay), "piece stayed", "pieces stayed")+", locked or holding others")
	}
	c.said = strings.Join(said, "; ") + "."
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
