package route

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Strand is a stretch of track of one width and layer whose pieces go on from each other, up to pads, vias, forks and locked
// pieces. Its arcs are held as the corners that they round.
type Strand struct {
	IDs   []design.ID // of the tracks, in the order of the path
	Path  []geom.Point
	Round int64        // radius of its corners; 0: they are sharp
	Vias  [2]design.ID // at the path's beginning and end; 0: none

	Layer int
	Width int64
	Net   design.ID
	Bare  bool
}

// strandOf is the stretch that a track belongs to; nil: the track is locked, gone, or has an arc that rounds no corner.
func (f Field) strandOf(id design.ID) *Strand {
	t := f.Doc.Tracks[id]
	if t == nil || t.Locked || f.held(t) {
		return nil
	}
	s := &Strand{IDs: []design.ID{id}, Layer: f.Doc.Board.Position(t.Layer), Width: t.Width, Net: t.Net, Bare: t.Bare}
	pieces := []geom.Piece{t.Piece()}
	taken := map[design.ID]bool{id: true}
	for _, back := range []bool{false, true} {
		for {
			end := pieces[len(pieces)-1].B
			if back {
				end = pieces[0].A
			}
			next, via := f.goesOn(s, end, taken)
			if next == nil {
				if back {
					s.Vias[0] = via
				} else {
					s.Vias[1] = via
				}
				break
			}
			taken[next.ID] = true
			p := next.Piece()
			if (p.A != end) != back {
				p = p.Back()
			}
			if back {
				pieces, s.IDs = slices.Insert(pieces, 0, p), slices.Insert(s.IDs, 0, next.ID)
			} else {
				pieces, s.IDs = append(pieces, p), append(s.IDs, next.ID)
			}
			if len(pieces) > 5000 || pieces[0].A == pieces[len(pieces)-1].B {
				return nil // it goes round in a ring
			}
		}
	}
	return s.cornered(pieces)
}

// goesOn is the track that alone goes on from an end of a stretch, or the via that stands there.
func (f Field) goesOn(s *Strand, at geom.Point, taken map[design.ID]bool) (next *design.Track, via design.ID) {
	for c := range f.near(geom.BoxOf(at)) {
		if c.Net != s.Net || c.Bare || !c.Has(s.Layer) || !c.On(s.Layer).Holds(at) {
			continue
		}
		switch {
		case c.Kind == "via" && c.At == at && via == 0:
			via = c.ID
			continue
		case c.Kind != "track":
			return nil, 0
		case taken[c.ID]:
			continue
		}
		t := f.Doc.Tracks[c.ID]
		if t == nil || t.A != at && t.B != at || next != nil {
			return nil, via // a fork, or it ends on another's side
		}
		next = t
	}
	if via != 0 || next != nil && (next.Locked || next.Width != s.Width || next.Bare != s.Bare || f.held(next)) {
		return nil, via
	}
	return next, 0
}

// endsAt tells whether a piece is no track, or is one that ends in another piece: it keeps hold of it wherever it is laid.
func (f Field) endsAt(c, other *layout.Copper) bool {
	t := f.Doc.Tracks[c.ID]
	if t == nil || c.Kind != "track" {
		return true
	}
	on := other.On(f.Doc.Board.Position(t.Layer))
	return on.Holds(t.A) || on.Holds(t.B)
}

// held tells whether copper of its net hangs on a track between its ends, which moving it would part. What hangs on a piece at one of
// its ends as well, as beside a short piece, is joined there.
func (f Field) held(t *design.Track) bool {
	layer := f.Doc.Board.Position(t.Layer)
	shape := geom.Bow(t.Piece(), t.Width)
	var beside, hanging []*layout.Copper
	for c := range f.near(shape.Box()) {
		if c.ID == t.ID || c.Net != t.Net || c.Bare || !c.Has(layer) {
			continue
		}
		own := c.On(layer)
		if own.Holds(t.A) || own.Holds(t.B) {
			beside = append(beside, c) // it hangs together with one of the ends, or goes on from there
		} else if gap, _, _ := geom.Gap(shape, own); gap <= 0 {
			hanging = append(hanging, c)
		}
	}
	for _, c := range hanging {
		if !slices.ContainsFunc(beside, func(b *layout.Copper) bool { return layout.Touching(b, c) && f.endsAt(b, c) }) {
			return true
		}
	}
	return false
}

// cornered takes pieces as the strand's path, arcs as the corners that they round.
func (s *Strand) cornered(pieces []geom.Piece) *Strand {
	s.Path = []geom.Point{pieces[0].A}
	for _, p := range pieces {
		if !p.Round() {
			s.Path = append(s.Path, p.B)
			continue
		}
		lx, ly := p.Leaves()
		bx, by := p.Back().Leaves()
		k := 1e6 / max(p.Length(), 1)
		at, ok := meet(p.A, geom.Pt(int64(lx*k), int64(ly*k)), p.B, geom.Pt(int64(bx*k), int64(by*k)))
		if !ok || turn(p.A, p.B, at)*turn(p.A, p.B, p.M) <= 0 {
			return nil
		}
		if r := int64(p.Radius() + 0.5); s.Round == 0 || r < s.Round {
			s.Round = r
		}
		s.Path = append(s.Path, at, p.B)
	}
	s.Path = plain(s.Path)
	if len(s.Path) < 2 {
		return nil
	}
	return s
}

// Pieces of the strand along a path, corners rounded where it has round ones and they fit.
func (s *Strand) Pieces(path []geom.Point) []geom.Piece {
	return PiecesOf(Rounded(path, s.Round))
}

// PiecesOf are the pieces of an open line of corners.
func PiecesOf(line []geom.Corner) (out []geom.Piece) {
	for i := 0; i+1 < len(line); i++ {
		if p := line[i].PieceTo(line[i+1]); p.A != p.B {
			out = append(out, p)
		}
	}
	return out
}

// copper is the strand's copper along a path; all of it bears the id of its first track, and numbers of its own.
func (s *Strand) copper(path []geom.Point) (out []*layout.Copper) {
	for i, p := range s.Pieces(path) {
		out = append(out, &layout.Copper{ID: s.IDs[0], Pad: -1 - i, Kind: "track", Thing: design.ATrack, Net: s.Net,
			Layers: 1 << s.Layer, Shape: geom.Bow(p, s.Width), At: p.A, Name: "track"})
	}
	return out
}
