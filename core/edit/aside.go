package edit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
)

// moveAside puts what moved for something, and lets the field know of it.
func (tx *Tx) moveAside(field *route.Field, a *route.Aside) error {
	for _, m := range a.Strands {
		if err := tx.relay(m.Strand, m.Pieces(m.To)); err != nil {
			return err
		}
	}
	for _, m := range a.Vias {
		v := *tx.Doc.Vias[m.ID]
		v.At = m.To
		if err := tx.Put(&v); err != nil {
			return err
		}
	}
	*field = a.In(*field)
	return nil
}

// relay lays a strand along other pieces: those that are as they were keep their tracks, the others take what tracks are left, in order.
func (tx *Tx) relay(s *route.Strand, pieces []geom.Piece) error {
	like := *tx.Doc.Tracks[s.IDs[0]]
	left := append([]design.ID{}, s.IDs...)
	ids := make([]design.ID, len(pieces))
	for i, p := range pieces {
		for k, id := range left {
			if id != 0 && same(tx.Doc.Tracks[id].Piece(), p) {
				ids[i], left[k] = id, 0
				break
			}
		}
	}
	next := 0
	for i, p := range pieces {
		if ids[i] != 0 {
			continue
		}
		for next < len(left) && left[next] == 0 {
			next++
		}
		t := like
		t.A, t.B, t.Mid = p.A, p.B, nil
		if p.Round() {
			t.Mid = &pieces[i].M
		}
		if next < len(left) {
			t.ID, left[next] = left[next], 0
		} else {
			t.ID = tx.Doc.NewID()
		}
		if err := tx.Put(&t); err != nil {
			return err
		}
	}
	for _, id := range left {
		if id != 0 {
			tx.Remove(tx.Doc.Tracks[id])
		}
	}
	return nil
}

// same tells whether two pieces lie alike, whichever way they go.
func same(a, b geom.Piece) bool {
	if a.Round() != b.Round() || a.Round() && a.M != b.M {
		return false
	}
	return a.A == b.A && a.B == b.B || a.A == b.B && a.B == b.A
}
