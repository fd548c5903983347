package route

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// WholeTrack lists the tracks and vias that make one track with the given one: from place
// to place where exactly two of them meet and no pad stands.
func WholeTrack(d *design.Doc, x *layout.Index, id design.ID) []design.ID {
	out := []design.ID{id}
	seen := map[design.ID]bool{id: true}
	for i := 0; i < len(out); i++ {
		for _, end := range endsOf(d, out[i]) {
			next, ok := continues(d, x, out[i], end, seen)
			if ok {
				for _, n := range next {
					seen[n] = true
				}
				out = append(out, next...)
			}
		}
	}
	slices.Sort(out)
	return out
}

func endsOf(d *design.Doc, id design.ID) []geom.Point {
	switch o := d.Get(id).(type) {
	case *design.Track:
		return []geom.Point{o.A, o.B}
	case *design.Via:
		return []geom.Point{o.At}
	}
	return nil
}

// continues lists what goes on at one end: a single further track, or a via and the single
// track beyond it.
func continues(d *design.Doc, x *layout.Index, from design.ID, at geom.Point, seen map[design.ID]bool) ([]design.ID, bool) {
	net, tracks, vias := design.ID(0), []design.ID{}, []design.ID{}
	if t, ok := d.Get(from).(*design.Track); ok {
		net = t.Net
	} else if v, ok := d.Get(from).(*design.Via); ok {
		net = v.Net
	}
	for c := range x.Near(geom.BoxOf(at)) {
		if c.Net != net || !c.Shape.Holds(at) {
			continue
		}
		switch {
		case c.Kind == "pad":
			return nil, false
		case c.Kind == "via":
			vias = append(vias, c.ID)
		case c.Kind == "track":
			t := d.Tracks[c.ID]
			if t.A != at && t.B != at {
				return nil, false // parts from the middle of another
			}
			tracks = append(tracks, c.ID)
		}
	}
	if len(tracks) > 2 || len(vias) > 1 {
		return nil, false
	}
	var next []design.ID
	for _, id := range append(tracks, vias...) {
		if !seen[id] {
			next = append(next, id)
		}
	}
	return next, true
}
