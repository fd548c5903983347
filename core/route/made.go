package route

import (
	"cmp"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Made is a hop as it is on the board: its vias from above, what joins them, and where it is come to.
type Made struct {
	Vias   []*design.Via
	Tracks []*design.Track
	Net    design.ID
	From   int        // position of the upper layer it is come to on
	To     int        // and of the lower one; the outer ones of its vias, where nothing comes to it
	Sure   bool       // it is come to on just these two
	A, Z   geom.Point // where it is come to on those
	Width  int64      // of the track that comes to it on the lower one; 0: none does
}

// IDs of all that it is made of.
func (m *Made) IDs() (out []design.ID) {
	for _, v := range m.Vias {
		out = append(out, v.ID)
	}
	for _, t := range m.Tracks {
		out = append(out, t.ID)
	}
	return out
}

// mostHop is how far the holes of one hop reach at most, in nanometres.
const mostHop = 10_000_000 * design.MostSteps

// MadeOf is the hop that a via is of.
func (f Field) MadeOf(v *design.Via) *Made {
	b := f.Doc.Board
	m := &Made{Net: v.Net, Vias: []*design.Via{v}}
	if v.Group != 0 && f.Doc.Stitchings[v.Group] == nil {
		m.Vias = nil
		for c := range f.Index.Near(geom.BoxOf(v.At).Grow(mostHop)) {
			switch o := f.Doc.Get(c.ID).(type) {
			case *design.Via:
				if o.Group == v.Group {
					m.Vias = append(m.Vias, o)
				}
			case *design.Track:
				if o.Group == v.Group {
					m.Tracks = append(m.Tracks, o)
				}
			}
		}
		slices.SortFunc(m.Vias, func(x, y *design.Via) int {
			return cmp.Or(cmp.Compare(b.Position(x.From), b.Position(y.From)), cmp.Compare(b.Position(x.To), b.Position(y.To)), cmp.Compare(x.ID, y.ID))
		})
		slices.SortFunc(m.Tracks, func(x, y *design.Track) int { return cmp.Compare(x.ID, y.ID) })
	}
	first, last := m.Vias[0], m.Vias[len(m.Vias)-1]
	m.From, m.To, m.A, m.Z = b.Position(first.From), b.Position(last.To), first.At, last.At
	f.comes(m)
	return m
}

// comes finds on which layers, and where, a hop is come to.
func (f Field) comes(m *Made) {
	b := f.Doc.Board
	mine := map[design.ID]bool{}
	for _, id := range m.IDs() {
		mine[id] = true
	}
	var used uint32
	at, width := map[int]geom.Point{}, map[int]int64{}
	for _, id := range m.IDs() {
		for _, own := range f.Index.Of(id) {
			for c := range f.Index.Near(own.Box()) {
				if mine[c.ID] || c.Net != m.Net || !layout.Touching(own, c) {
					continue
				}
				t := f.Doc.Tracks[c.ID]
				if t == nil || c.Kind != "track" {
					if on := own.Layers & c.Layers; bits.OnesCount32(c.Layers) == 1 {
						used |= on
					}
					continue
				}
				layer := b.Position(t.Layer)
				used |= 1 << layer
				for _, end := range []geom.Point{t.A, t.B} {
					if own.On(layer).Holds(end) {
						at[layer], width[layer] = end, t.Width
					}
				}
			}
		}
	}
	for p := range f.Doc.Pours.All() {
		for _, v := range m.Vias {
			for _, l := range p.Layers {
				if i := b.Position(l); p.Net == m.Net && i >= b.Position(v.From) && i <= b.Position(v.To) && (len(p.Outline) == 0 || geom.Closing(p.Outline).Holds(v.At)) {
					used |= 1 << i
				}
			}
		}
	}
	if bits.OnesCount32(used) < 2 {
		return
	}
	m.From, m.To, m.Sure = bits.TrailingZeros32(used), bits.Len32(used)-1, bits.OnesCount32(used) == 2
	if p, ok := at[m.From]; ok {
		m.A = p
	}
	if p, ok := at[m.To]; ok {
		m.Z, m.Width = p, width[m.To]
	}
}

// Way that the hop is of; false: its vias are not of barrels, or it is no way that the board has now.
func (m *Made) Way(b *design.Board) (w design.Way, ok bool) {
	hop := &Hop{}
	for _, v := range m.Vias {
		hop.Holes = append(hop.Holes, HopHole{v.Barrel, v.At})
	}
	w = hop.Way(b.At(m.From), b.At(m.To))
	return w, b.Cannot(w) == nil
}

// Way that a hop is of which leads from a layer down to another.
func (h *Hop) Way(from, to design.LayerID) design.Way {
	w := design.Way{From: from, To: to}
	for i, x := range h.Holes {
		w.Steps = append(w.Steps, design.Step{Barrel: x.Barrel, Stepped: i > 0 && x.At != h.Holes[i-1].At})
	}
	return w
}
