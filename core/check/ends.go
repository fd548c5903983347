package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// End is one end of a track.
type End struct {
	Track design.ID
	Far   bool // its second end
}

// EndKey is the key of the finding about an end.
func (e End) Key() string {
	if e.Far {
		return fmt.Sprintf("end %d b", e.Track)
	}
	return fmt.Sprintf("end %d a", e.Track)
}

// At is where it lies.
func (e End) At(t *design.Track) geom.Point {
	if e.Far {
		return t.B
	}
	return t.A
}

// Held tells whether other copper of a track's net is at one of its ends.
func Held(d *design.Doc, x *layout.Index, e End) bool {
	t := d.Tracks[e.Track]
	if t == nil {
		return true
	}
	layer := d.Board.Position(t.Layer)
	tip := geom.Disc(e.At(t), t.Width/2)
	for c := range x.Near(tip.Box()) {
		if c.ID == t.ID || c.Net != t.Net || c.Bare || !c.Has(layer) {
			continue
		}
		if gap, _, _ := geom.Gap(c.On(layer), tip); gap <= 0 {
			return true
		}
	}
	return false
}

// Bare are the ends of tracks at which no other copper of their net is.
func Bare(d *design.Doc, x *layout.Index, tracks []design.ID) (out []End) {
	for _, id := range tracks {
		for _, end := range []End{{Track: id}, {Track: id, Far: true}} {
			if !Held(d, x, end) {
				out = append(out, end)
			}
		}
	}
	return out
}

// Loose is the finding about a track's end at which nothing is.
func Loose(d *design.Doc, e End) *Finding {
	t := d.Tracks[e.Track]
	return &Finding{Key: e.Key(), Kind: "end", Severity: Warning, Rule: "Tracks end at something", Stage: "board", At: e.At(t), Layer: t.Layer,
		Objects: []design.ID{t.ID}, Text: fmt.Sprintf("A track of %s ends in nothing.", d.NetName(t.Net))}
}
