package check

import (
	"fmt"
	"hash/fnv"
	"io"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Stands is a fingerprint of how what a finding of the board is about stands and what it looks like: an excuse holds as long as it stays. Names,
// locks and what is printed of a part do not count, nor does anything of the circuit, where places mean nothing. Cost: the objects it names.
func (f *Finding) Stands(d *design.Doc) uint64 {
	if f.Stage != "board" {
		return 0
	}
	h := fnv.New64a()
	for _, p := range f.Ends {
		fmt.Fprintln(h, p.X, p.Y)
	}
	for _, id := range f.Objects {
		switch o := d.Get(id).(type) {
		case *design.Placed:
			fmt.Fprintln(h, o.At, o.Angle, o.Bottom, o.Footprint)
		case *design.Track:
			fmt.Fprintln(h, o.Layer, o.A, o.B, o.Width)
			if o.Mid != nil {
				fmt.Fprintln(h, *o.Mid)
			}
		case *design.Via:
			fmt.Fprintln(h, o.At, o.Diameter, o.Hole, o.From, o.To, o.Kind, o.Cover, o.Pads)
		case *design.Hole:
			fmt.Fprintln(h, o.At, o.Diameter, o.Land, o.Keep)
		case *design.Legend:
			fmt.Fprintln(h, o.At, o.Angle, o.Bottom, o.Height, o.Text, o.On, o.Layer, o.Font, o.Stroke)
		case *design.RuleArea:
			lines(h, o.Outline)
			fmt.Fprintln(h, o.Layers, o.KeepOut)
		case *design.Pour:
			lines(h, o.Outline)
			fmt.Fprintln(h, o.Layers, o.Priority)
		case *design.BoardFigure:
			lines(h, o.Lines...)
			fmt.Fprintln(h, o.On, o.Layer, o.Bottom, o.Closed, o.Filled, o.Width, o.Fiducial)
		}
	}
	return h.Sum64()
}

// lines writes closed lines, corner by corner.
func lines(to io.Writer, list ...[]geom.Corner) {
	for _, l := range list {
		for _, c := range l {
			fmt.Fprintln(to, c.Point)
			if c.Mid != nil {
				fmt.Fprintln(to, *c.Mid)
			}
		}
	}
}
