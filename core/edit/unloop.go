package edit

import (
	"cmp"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// mostUnlooped bounds how often ways are taken out of the copper that hangs together with one track.
const mostUnlooped = 200

// unloop takes ways out of loops that any of the tracks is part of, and out of what lies over each other, until none is left; nothing is
// parted. Of each loop goes the thinnest way, of those of one width the longest; locked tracks stay, and so do loops that a copper area
// fills, or of which a track is meant. It tells which tracks went, and which came of those that were cut in pieces. share is how much of the
// command is done meanwhile.
func (tx *Tx) unloop(ids []design.ID, meant map[design.ID]bool, share float64) (gone, came []design.ID, err error) {
	picked := map[design.ID]bool{}
	for _, id := range ids {
		picked[id] = true
	}
	u := unlooping{tx: tx, field: tx.current(), picked: picked, meant: meant, done: map[design.ID]bool{}}
	for _, id := range ids {
		for range mostUnlooped {
			t := tx.Doc.Tracks[id]
			if t == nil || u.done[id] {
				break
			}
			if err := tx.going(share); err != nil {
				return nil, nil, err
			}
			went, cut, err := u.once(t)
			if err != nil {
				return nil, nil, err
			}
			if len(went)+len(cut) == 0 {
				break
			}
			u.field = tx.current()
			for _, id := range cut {
				picked[id] = true
			}
			gone, came = append(gone, went...), append(came, cut...)
		}
	}
	came = slices.DeleteFunc(came, func(id design.ID) bool { return tx.Doc.Tracks[id] == nil })
	return gone, came, nil
}

// unlooping is the work of it: what is picked, what is meant, and which tracks have nothing to be taken from any more.
type unlooping struct {
	tx                  *Tx
	field               *route.Field // as it is by now
	picked, meant, done map[design.ID]bool
}

// once takes one way out of what hangs together with a track, or cuts tracks so that one can be; when there is none, all that was looked at is done.
func (u *unlooping) once(t *design.Track) (gone, came []design.ID, err error) {
	tx := u.tx
	pieces := layout.PiecesOf(tx.Doc, t)
	if t.Net == 0 || len(pieces) == 0 {
		u.done[t.ID] = true
		return nil, nil, nil
	}
	m, whole := layout.ClumpOf(u.field.Near, pieces[0], tx.Doc.Board.Position(t.Layer))
	var all []layout.Loop
	if whole {
		all = m.Loops()
	}
	for _, l := range all {
		if !slices.ContainsFunc(l.Tracks, func(id design.ID) bool { return u.picked[id] }) ||
			slices.ContainsFunc(l.Tracks, func(id design.ID) bool { return u.meant[id] }) ||
			l.Around > 0 && tx.env.Filled != nil && tx.env.Filled(l.Net, l.At, l.Layer) {
			continue
		}
		if came, err = tx.cutAtJoints(&l); err != nil || len(came) > 0 {
			return nil, came, err
		}
		ways := slices.DeleteFunc(l.Ways, func(way []design.ID) bool {
			return slices.ContainsFunc(way, func(id design.ID) bool { return tx.Doc.Tracks[id].Locked }) ||
				!slices.ContainsFunc(way, func(id design.ID) bool { return u.picked[id] })
		})
		slices.SortStableFunc(ways, func(a, b []design.ID) int {
			return cmp.Or(cmp.Compare(tx.Doc.Tracks[a[0]].Width, tx.Doc.Tracks[b[0]].Width), cmp.Compare(tx.long(b), tx.long(a)))
		})
		for _, way := range ways {
			left := slices.DeleteFunc(slices.Clone(m.Pieces), func(c *layout.Copper) bool {
				return c.Kind == "track" && slices.Contains(way, c.ID)
			})
			if len(layout.Islands(left)) > 1 {
				continue
			}
			for _, id := range way {
				tx.Remove(tx.Doc.Tracks[id])
			}
			return way, nil, nil
		}
	}
	for _, c := range m.Pieces {
		u.done[c.ID] = true
	}
	return nil, nil, nil
}

// looped are the tracks of loops that tracks of the board as it was are part of, or lie on.
func (tx *Tx) looped(ids []design.ID) map[design.ID]bool {
	out, seen := map[design.ID]bool{}, map[design.ID]bool{}
	for _, id := range ids {
		for _, c := range tx.Index().Of(id) {
			if seen[id] || c.Kind != "track" || c.Net == 0 {
				continue
			}
			m, whole := layout.ClumpOf(tx.Index().Near, c, bits.TrailingZeros32(c.Layers))
			for _, p := range m.Pieces {
				seen[p.ID] = true
			}
			if !whole {
				continue
			}
			for _, l := range m.Loops() {
				for _, id := range l.Tracks {
					out[id] = true
				}
			}
		}
	}
	return out
}

// whole puts pieces of tracks together that go straight on from each other.
func (tx *Tx) whole(ids []design.ID) error {
	for _, id := range ids {
		if tx.Doc.Tracks[id] == nil {
			continue
		}
		s, err := tx.current().Strand(id)
		if err != nil {
			continue // something hangs on it
		}
		if pieces := s.Pieces(s.Path); len(pieces) < len(s.IDs) {
			if err := tx.relay(s, pieces); err != nil {
				return err
			}
		}
	}
	return nil
}

// long is how long tracks are together.
func (tx *Tx) long(ids []design.ID) (sum float64) {
	for _, id := range ids {
		sum += tx.Doc.Tracks[id].Piece().Length()
	}
	return sum
}

// cutAtJoints parts the straight tracks of a loop where others meet their sides, so that a part of them can go; the new tracks are told.
func (tx *Tx) cutAtJoints(l *layout.Loop) (came []design.ID, err error) {
	for _, id := range l.Tracks {
		t := tx.Doc.Tracks[id]
		p := t.Piece()
		if t.Locked || p.Round() {
			continue
		}
		at := p.InOrder(slices.Clone(l.Joints[id]))
		line := []geom.Point{p.A}
		for _, joint := range append(at, p.B) {
			if joint.Dist(line[len(line)-1]) > float64(t.Width)/2 && (joint == p.B || joint.Dist(p.B) > float64(t.Width)/2) {
				line = append(line, joint)
			}
		}
		if line[len(line)-1] != p.B || len(line) < 3 {
			continue
		}
		for i := range len(line) - 1 {
			piece := *t
			piece.A, piece.B = line[i], line[i+1]
			if i > 0 {
				piece.ID = tx.Doc.NewID()
				came = append(came, piece.ID)
			}
			if err := tx.Put(&piece); err != nil {
				return nil, err
			}
		}
	}
	return came, nil
}
