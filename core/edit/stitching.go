package edit

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// PutStitching ties the copper areas of a net together by vias, or makes those of the stitching anew that bears its id: where they
// stand follows from what it says now and from what is in the way now. Locked ones stay.
type PutStitching struct {
	Stitching design.Stitching `json:"stitching"`

	put, left int
	raised    string
}

// Said tells how many vias there are.
func (c *PutStitching) Said() string {
	said := counted(c.put, "via ties", "vias tie") + " the net together"
	if c.left > 0 {
		said += fmt.Sprintf("; at %s none fits", counted(c.left, "place", "places"))
	}
	return strings.TrimSpace(said + ". " + c.raised)
}

// mostStitched bounds the vias of a stitching.
const mostStitched = 20_000

// Apply the command.
func (c *PutStitching) Apply(tx *Tx) error {
	c.put, c.left = 0, 0
	s := c.Stitching
	if s.ID == 0 {
		s.ID = tx.Doc.NewID()
	} else if old, err := get(tx.Doc.Stitchings, s.ID, "stitching"); err != nil {
		return err
	} else if old.Locked && s.Locked {
		return fmt.Errorf("the stitching %s is locked; unlock it first", old.Name)
	}
	n := tx.Doc.Nets[s.Net]
	if n == nil {
		return fmt.Errorf("a stitching is of a net; say which it ties together")
	}
	if s.Name == "" {
		taken := map[string]bool{}
		for _, o := range tx.Doc.Stitchings {
			taken[o.Name] = true
		}
		s.Name = freeName(n.Name, taken)
	}
	if tx.Doc.Board.Layers() < 2 {
		return fmt.Errorf("the board has one copper layer: vias would tie nothing together")
	}
	if len(tx.Doc.Board.Outline) == 0 {
		return fmt.Errorf("the board has no outline within which vias could stand; draw one first")
	}
	if err := tx.Put(&s); err != nil {
		return err
	}
	places, err := tx.stitches(&s)
	if err != nil {
		return err
	}
	field := tx.unstitched(&s)
	c.raised = ""
	for i, at := range places {
		if i%256 == 0 {
			if err := tx.going(float64(i) / float64(len(places))); err != nil {
				return err
			}
		}
		if s.LeavesFree(at) {
			continue
		}
		v := tx.stitch(&s, at, field)
		if v == nil {
			c.left++
			continue
		}
		c.put++
		c.raised = cmp.Or(c.raised, field.Raised([]route.HopHole{{Barrel: s.Barrel, At: at}}, s.Net))
		if err := tx.Put(v); err != nil {
			return err
		}
	}
	for _, v := range tx.Doc.Vias {
		if v.Group == s.ID && v.Locked {
			c.put++
		}
	}
	if c.put == 0 {
		return fmt.Errorf("nowhere does a via of %s fit that would tie its copper together", n.Name)
	}
	return nil
}

// unstitched takes the vias of a stitching away that are not locked, and gives the field without them.
func (tx *Tx) unstitched(s *design.Stitching) *route.Field {
	field := tx.field()
	var gone []design.ID
	for _, id := range slices.Sorted(maps.Keys(tx.Doc.Vias)) {
		if v := tx.Doc.Vias[id]; v.Group == s.ID && !v.Locked {
			gone = append(gone, id)
			tx.Remove(v)
		}
	}
	*field = field.With(gone)
	return field
}

// stitch is a via of a stitching at a place; nil: none fits there, or it would tie nothing together.
func (tx *Tx) stitch(s *design.Stitching, at geom.Point, field *route.Field) *design.Via {
	b := tx.Doc.Board
	v := field.ViaOf(route.HopHole{Barrel: s.Barrel, At: at}, s.Net)
	if s.Barrel == 0 {
		v.From, v.To = b.Top(), b.Bottom()
	}
	if b.Position(v.From) < 0 || !tx.ties(v) {
		return nil
	}
	v.ID, v.Group = tx.Doc.NewID(), s.ID
	piece := layout.PiecesOf(tx.Doc, v)[0]
	if field.ClearOf(piece) != nil || field.OnPad(piece) {
		return nil
	}
	field.Laid = append(field.Laid, piece)
	return v
}

// ties tells whether a via passes copper areas of its net on two layers, where the net has any.
func (tx *Tx) ties(v *design.Via) bool {
	b := tx.Doc.Board
	from, to, on, any := b.Position(v.From), b.Position(v.To), map[design.LayerID]bool{}, false
	for _, p := range tx.Doc.Pours {
		if p.Net != v.Net {
			continue
		}
		any = true
		if len(p.Outline) > 0 && !geom.Closing(p.Outline).Holds(v.At) {
			continue
		}
		for _, l := range p.Layers {
			if i := b.Position(l); i >= from && i <= to {
				on[l] = true
			}
		}
	}
	return !any || len(on) > 1
}

// stitches are the places at which the vias of a stitching would stand.
func (tx *Tx) stitches(s *design.Stitching) (out []geom.Point, err error) {
	switch s.Pattern {
	case design.AtEdge:
		out = tx.alongEdge(s)
	case design.AlongTracks:
		out = tx.alongTracks(s)
	default:
		ring := geom.Closing(tx.Doc.Board.Outline)
		if len(s.Outline) > 0 {
			ring = geom.Closing(s.Outline)
		}
		box := ring.Box()
		w, h := box.Max.X-box.Min.X, box.Max.Y-box.Min.Y
		if (w/s.Pitch+1)*(h/s.Pitch+1) > mostStitched {
			return nil, tooFine(s)
		}
		// as many as have room, the same margin on both sides
		nx, ny := w/s.Pitch, h/s.Pitch
		first := box.Min.Add(geom.Pt((w-nx*s.Pitch)/2, (h-ny*s.Pitch)/2))
		for j := range ny + 1 {
			for i := range nx + 1 {
				if p := first.Add(geom.Pt(i*s.Pitch, j*s.Pitch)); ring.Holds(p) {
					out = append(out, p)
				}
			}
		}
	}
	if len(out) > mostStitched {
		return nil, tooFine(s)
	}
	return out, nil
}

func tooFine(s *design.Stitching) error {
	return fmt.Errorf("a pitch of %s would make more than %d vias; choose a wider one", units.Text(s.Pitch), mostStitched)
}

// alongEdge are places along the board's edge and its cut-outs, at the distance from them.
func (tx *Tx) alongEdge(s *design.Stitching) (out []geom.Point) {
	region, edge := tx.Doc.Board.Region(), tx.Index().Edge()
	within := region.Prepare()
	for _, ring := range append([]geom.Ring{region.Outer}, region.Holes...) {
		out = append(out, beside(ring, s, func(p geom.Point) bool {
			gap, _, near := edge.Gap(geom.Disc(p, 0), s.Apart)
			return within.Holds(p) && (!near || gap >= float64(s.Apart-units.Micrometre))
		})...)
	}
	return out
}

// alongTracks are places on both sides of the tracks of a net.
func (tx *Tx) alongTracks(s *design.Stitching) (out []geom.Point) {
	for _, id := range slices.Sorted(maps.Keys(tx.Doc.Tracks)) {
		if t := tx.Doc.Tracks[id]; t.Net == s.Along {
			out = append(out, beside(geom.Ring{t.Piece()}, s, func(geom.Point) bool { return true })...)
		}
	}
	var kept []geom.Point // where tracks meet, both would have theirs
	near := map[geom.Point][]geom.Point{}
	cell := func(p geom.Point) geom.Point { return geom.Pt(floorDiv(p.X, s.Pitch), floorDiv(p.Y, s.Pitch)) }
	for _, p := range out {
		c, free := cell(p), true
		for dx := int64(-1); dx <= 1; dx++ {
			for dy := int64(-1); dy <= 1; dy++ {
				for _, q := range near[c.Add(geom.Pt(dx, dy))] {
					free = free && p.Dist(q) >= 0.7*float64(min(s.Pitch, 2*s.Apart))
				}
			}
		}
		if free {
			kept = append(kept, p)
			near[c] = append(near[c], p)
		}
	}
	return kept
}

func floorDiv(a, b int64) int64 { return int64(math.Floor(float64(a) / float64(b))) }

// beside are places on both sides of lines, at a distance from them, a pitch apart, that may be.
func beside(lines geom.Ring, s *design.Stitching, may func(geom.Point) bool) (out []geom.Point) {
	total := 0.0
	for _, p := range lines {
		total += p.Length()
	}
	n := max(int(math.Round(total/float64(s.Pitch))), 1)
	if n > mostStitched {
		n = mostStitched + 1
	}
	step := total / float64(n)
	last := map[int]geom.Point{}
	at, next := 0.0, step/2
	for _, p := range lines {
		long := p.Length()
		for ; next <= at+long && len(out) <= mostStitched; next += step {
			share := (next - at) / long
			m, ahead, behind := p.At(share), p.At(min(share+1e-3, 1)), p.At(max(share-1e-3, 0))
			dir := ahead.Sub(behind)
			far := math.Hypot(float64(dir.X), float64(dir.Y))
			if far == 0 {
				continue
			}
			for _, side := range []int{1, -1} {
				q := m.Add(geom.Pt(int64(math.Round(-float64(dir.Y)/far*float64(s.Apart)))*int64(side), int64(math.Round(float64(dir.X)/far*float64(s.Apart)))*int64(side)))
				if before, ok := last[side]; may(q) && (!ok || before.Dist(q) >= 0.7*float64(s.Pitch)) {
					out, last[side] = append(out, q), q
				}
			}
		}
		at += long
	}
	return out
}

// leaveFree notes at a stitching that a person takes one of its vias away, so that it does not come back.
func (tx *Tx) leaveFree(o design.Object) error {
	v, ok := o.(*design.Via)
	if !ok || v.Group == 0 || v.Locked {
		return nil
	}
	if s := tx.Doc.Stitchings[v.Group]; s != nil && !s.LeavesFree(v.At) {
		return tx.Put(with(s, func(q *design.Stitching) { q.Out = append(slices.Clip(q.Out), v.At) }))
	}
	return nil
}
