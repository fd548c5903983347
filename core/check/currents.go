package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"goldentrace/core/ampacity"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Amperes writes a current in microamperes.
func Amperes(microamperes int64) string {
	a := float64(microamperes) / 1e6
	if a < 1 {
		return fmt.Sprintf("%.4g mA", a*1e3)
	}
	return fmt.Sprintf("%.4g A", a)
}

// Needs is how wide a track is to be for a current on a copper layer, counted from 0 at the top, nanometres.
func Needs(b *design.Board, microamperes int64, layer int) int64 {
	l := b.Layer(b.At(layer))
	if l == nil {
		return 0
	}
	inner := layer > 0 && layer < b.Layers()-1
	return ampacity.Width(float64(microamperes)/1e6, b.Warms(), l.Thickness, inner)
}

// ThinKey is the key of the finding about a net that is too thin.
func ThinKey(net design.ID) string { return fmt.Sprintf("current %d", net) }

// Thin is the finding about a net whose tracks are too thin for what it carries, at the place where it is worst; nil:
// there is none, or nothing is said of its current. Cost: that of its tracks.
func Thin(d *design.Doc, x *layout.Index, net design.ID) *Finding {
	n := d.Nets[net]
	if n == nil || n.Current <= 0 {
		return nil
	}
	needs := map[int]int64{}
	var worst *layout.Copper
	short, need, places := math.Inf(1), int64(0), 0
	for _, c := range x.NetPieces(net) {
		if c.Kind != "track" {
			continue
		}
		layer := 0
		for !c.Has(layer) {
			layer++
		}
		want, ok := needs[layer]
		if !ok {
			want = Needs(d.Board, n.Current, layer)
			needs[layer] = want
		}
		width := 2 * c.Shape.R
		if width+1 >= want { // widths are even
			continue
		}
		places++
		if share := float64(width) / float64(want); share < short {
			worst, short, need = c, share, want
		}
	}
	if worst == nil {
		return nil
	}
	more := ""
	if places > 1 {
		more = fmt.Sprintf(", and %d more pieces of the net are too thin", places-1)
	}
	if places == 2 {
		more = ", and one more piece of the net is too thin"
	}
	return &Finding{Key: ThinKey(net), Kind: "current", Severity: Warning, Rule: "Tracks carry their currents", Stage: "board",
		Text: fmt.Sprintf("A track of %s is %s wide; %s would make it more than %g K warmer%s.", n.Name, units.Text(2*worst.Shape.R),
			Amperes(n.Current), d.Board.Warms(), more),
		Measured: 2 * worst.Shape.R, Required: need, At: worst.Shape.Side(0).Middle(), Layer: d.Board.At(firstOf(worst)),
		Objects: []design.ID{worst.ID}}
}

func firstOf(c *layout.Copper) int {
	i := 0
	for !c.Has(i) {
		i++
	}
	return i
}

// Joint is a place on a copper layer where tracks may end.
type Joint struct {
	Layer int // counted from 0 at the top
	At    geom.Point
}

// Corner is a place where a track turns by 90° or more, so that its copper makes a corner of 90° or less.
type Corner struct {
	Joint
	Net   design.ID
	Track design.ID // one of both
	Angle int64     // thousandths of a degree
}

// Sharp tells whether a place is such a corner. Forks and what lies in a pad or via are none.
func Sharp(x *layout.Index, j Joint) (c Corner, is bool) {
	var ends []*layout.Copper
	var ways [][2]float64
	for c := range x.Near(geom.BoxOf(j.At)) {
		if !c.Has(j.Layer) {
			continue
		}
		if c.Kind != "track" {
			if c.On(j.Layer).Holds(j.At) {
				return Corner{}, false
			}
			continue
		}
		p := c.Shape.Side(0)
		switch j.At {
		case p.A:
		case p.B:
			p = p.Back()
		default:
			if gap, _, _ := geom.PieceDistance(p, geom.Straight(j.At, j.At)); gap <= float64(c.Shape.R) {
				return Corner{}, false // a fork
			}
			continue
		}
		wx, wy := p.Leaves()
		ends, ways = append(ends, c), append(ways, [2]float64{wx, wy})
	}
	if len(ends) != 2 || ends[0].Net != ends[1].Net {
		return Corner{}, false
	}
	angle := between(ways[0], ways[1])
	return Corner{j, ends[0].Net, min(ends[0].ID, ends[1].ID), int64(math.Round(angle * 1000))}, angle <= sharp
}

// sharp is the greatest angle in degrees that makes a corner.
const sharp = 90 + 1e-3

// between is the angle of two directions in degrees.
func between(a, b [2]float64) float64 {
	return math.Abs(math.Atan2(a[0]*b[1]-a[1]*b[0], a[0]*b[0]+a[1]*b[1])) * 180 / math.Pi
}

// Joints are the places of a board that Sharp is to be asked about: where the ends of two tracks make an angle of 90° or less. Cost: a
// look at each
// track.
func Joints(d *design.Doc) (out []Joint) {
	type end struct {
		n   int
		way [2]float64
		bad bool
	}
	layers := map[design.LayerID]int{}
	for i, l := range d.Board.Copper() {
		layers[l.ID] = i
	}
	ends := map[Joint]end{}
	note := func(j Joint, p geom.Piece) {
		x, y := p.Leaves()
		e := ends[j]
		if e.n++; e.n == 2 {
			e.bad = between(e.way, [2]float64{x, y}) <= sharp
		}
		e.way = [2]float64{x, y}
		ends[j] = e
	}
	for t := range d.Tracks.All() {
		p := t.Piece()
		note(Joint{layers[t.Layer], t.A}, p)
		note(Joint{layers[t.Layer], t.B}, p.Back())
	}
	for j, e := range ends {
		if e.n == 2 && e.bad {
			out = append(out, j)
		}
	}
	return out
}

// SharpKey is the key of the finding about a net's corners.
func SharpKey(net design.ID) string { return fmt.Sprintf("corner %d", net) }

// Corners is the finding about a net's corners, at the sharpest of them; nil: there are none.
func Corners(d *design.Doc, net design.ID, all []Corner) *Finding {
	if len(all) == 0 {
		return nil
	}
	worst := slices.MinFunc(all, func(a, b Corner) int {
		return cmp.Or(cmp.Compare(a.Angle, b.Angle), cmp.Compare(a.Layer, b.Layer), cmp.Compare(a.At.X, b.At.X), cmp.Compare(a.At.Y, b.At.Y))
	})
	text := fmt.Sprintf("A track of %s makes a corner of %.3g°", d.NetName(net), float64(worst.Angle)/1000)
	if n := len(all) - 1; n == 1 {
		text += "; there is one more of 90° or less"
	} else if n > 1 {
		text += fmt.Sprintf("; there are %d more of 90° or less", n)
	}
	severity := Warning
	if worst.Angle >= 90_000 { // square ones are worth knowing; acid stays in sharper ones
		severity = Note
	}
	return &Finding{Key: SharpKey(net), Kind: "corner", Severity: severity, Rule: "Tracks turn gently", Stage: "board", Text: text + ".",
		At: worst.At, Layer: d.Board.At(worst.Layer), Objects: []design.ID{worst.Track}}
}

// JointsOf are the places where corners may come or go when copper changes: the ends of tracks, and of those near.
func JointsOf(x *layout.Index, pieces []*layout.Copper) (out []Joint) {
	for _, c := range pieces {
		if c.Kind == "track" {
			p := c.Shape.Side(0)
			out = append(out, Joint{firstOf(c), p.A}, Joint{firstOf(c), p.B})
		}
		out = append(out, JointsIn(x, c.Box())...) // it may cover their ends now, or no longer
	}
	return out
}

// JointsIn are the places within a box where tracks end.
func JointsIn(x *layout.Index, b geom.Box) (out []Joint) {
	for o := range x.Near(b) {
		if o.Kind != "track" {
			continue
		}
		p := o.Shape.Side(0)
		for _, at := range []geom.Point{p.A, p.B} {
			if b.Holds(at) {
				out = append(out, Joint{firstOf(o), at})
			}
		}
	}
	return out
}
