// Package escape leads the pads of dense parts out: rank by rank from the outer one on, each pad by a short track on its own layer beyond
// the part, else by a hop beside it and a track on another layer; pads of nets that have an area on a layer only to that area.
// Lengths are nanometres; copper layers count from 0 at the top.
package escape

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// Ask says what is to escape.
type Ask struct {
	Parts  []design.ID // on the board
	Layers []int       // on which tracks may lead beyond the part
	Beyond int64       // how far beyond the outermost pads they end
	Areas  bool        // only pads of nets that have an area
	Holes  bool        // a hop beside each pad is enough: nothing is led beyond the part on other layers
}

// Escaped is a pad that is led out.
type Escaped struct {
	Pad  layout.Ref
	Net  design.ID
	Legs []route.Leg // the last one ends beyond the part, or where its hop does
}

// Stuck is a pad that could not be led out.
type Stuck struct {
	Pad  layout.Ref
	Name string // "pad U1.B7"
	Net  design.ID
	At   geom.Point
	Why  error // what stands in the way of the first way that was tried
}

// Outcome is what became of all pads that have something to be joined with.
type Outcome struct {
	Led     []Escaped
	Stuck   []Stuck
	Already int // pads that a track or via leads away from, that lie in an area of their net or beyond the others
}

// Of leads pads out, without laying anything. It asks going, told the share done, whether to go on.
func Of(f route.Field, a Ask, going func(float64) error) (out Outcome, err error) {
	w := worker{field: f.Boxed(), ask: a, sheets: sheetsOf(f.Doc)}
	var all []*pad
	for _, id := range a.Parts {
		all = append(all, w.padsOf(id)...)
	}
	slices.SortStableFunc(all, func(x, y *pad) int { return cmp.Compare(x.rank, y.rank) })
	for i, p := range all {
		if err := going(float64(i) / float64(len(all))); err != nil {
			return Outcome{}, err
		}
		if w.leads(p) {
			out.Already++
			continue
		}
		legs, why := w.lead(p)
		if legs == nil {
			out.Stuck = append(out.Stuck, Stuck{p.copper.Ref(), p.copper.Name, p.copper.Net, p.copper.At, why})
			continue
		}
		if len(legs) == 0 { // it lies in an area of its net, or beyond the part
			out.Already++
			continue
		}
		out.Led = append(out.Led, Escaped{p.copper.Ref(), p.copper.Net, legs})
		w.field.Lay(w.field.HandOf(legs, p.copper.Net)...) // so that those that follow leave it room
	}
	return out, nil
}

// worker leads pads out one after the other.
type worker struct {
	field  route.Field
	ask    Ask
	sheets map[design.ID]map[int][]*geom.Prepared // by net and layer: areas it has there; nil is the whole board
}

// sheetsOf are the areas of nets by layer.
func sheetsOf(d *design.Doc) map[design.ID]map[int][]*geom.Prepared {
	out := map[design.ID]map[int][]*geom.Prepared{}
	for p := range d.Pours.All() {
		var edge *geom.Prepared
		if len(p.Outline) > 0 {
			edge = geom.Region{Outer: geom.Closing(p.Outline)}.Prepare()
		}
		for _, l := range p.Layers {
			if out[p.Net] == nil {
				out[p.Net] = map[int][]*geom.Prepared{}
			}
			at := d.Board.Position(l)
			out[p.Net][at] = append(out[p.Net][at], edge)
		}
	}
	return out
}

// padsOf are the pads of a part that have others of their net to be joined with.
func (w *worker) padsOf(id design.ID) (out []*pad) {
	o := w.field.Doc.Placed[id]
	if o == nil {
		return nil
	}
	g := gridOf(w.field.Index.Of(id), o.Angle)
	for _, c := range w.field.Index.Of(id) {
		if c.Kind != "pad" || c.Bare || c.Net == 0 || w.sheets[c.Net] == nil && (w.ask.Areas || len(w.field.Index.NetPieces(c.Net)) < 2) {
			continue
		}
		out = append(out, g.pad(c))
	}
	return out
}

// leads tells whether a track or via leads away from a pad already.
func (w *worker) leads(p *pad) bool {
	for c := range w.field.Index.Near(p.copper.Box()) {
		if c.Net == p.copper.Net && (c.Kind == "track" || c.Kind == "via") {
			if gap, _, _, layer := layout.Gap(c, p.copper); layer >= 0 && gap <= 0 {
				return true
			}
		}
	}
	return false
}

// lead finds how a pad is led out: over the nearest side that there is room to; as wide as the rules' tracks are, else as narrow as they
// may be.
func (w *worker) lead(p *pad) (legs []route.Leg, why error) {
	wish := route.Wish{Shape: geom.Disc(p.copper.At, 0), Layers: p.copper.Layers, Net: p.copper.Net, Thing: design.ATrack}
	usual, least := w.field.Usual(design.TrackWidth, wish), w.field.Usual(design.LeastWidth, wish)
	widths := []int64{usual}
	if least < usual {
		widths = append(widths, least)
	}
	for _, width := range widths {
		for _, out := range p.ways {
			p.way = out
			t := try{worker: w, pad: p, width: width}
			if areas := w.sheets[p.copper.Net]; areas != nil {
				legs = t.toArea(areas)
			} else if legs = t.beyond(); legs == nil {
				legs = t.hopped()
			}
			if legs != nil {
				return legs, nil
			}
			if why == nil {
				why = t.why
			}
		}
	}
	if why == nil {
		why = fmt.Errorf("no layer that may be led out on is there for it")
	}
	return nil, why
}

// apart is how many layers lie between two.
func apart(a, b int) int { return max(a-b, b-a) }
