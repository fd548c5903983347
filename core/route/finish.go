package route

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Leg is a stretch of a track of one width on one copper layer; where a corner says so it goes on in an arc.
type Leg struct {
	Layer int
	Width int64
	Path  []geom.Corner
	Hop   *Hop // how it is come to from the leg before, on another layer; nil: by the best hop that ends where it begins
}

// Length of legs in nanometres.
func legsLength(legs []Leg) (sum int64) {
	for _, l := range legs {
		sum += Length(geom.Places(l.Path))
	}
	return sum
}

// Errand says from where to where a track is to be finished.
type Errand struct {
	Net    design.ID
	Width  int64 // 0: as the rules say
	From   geom.Point
	Layers uint32 // layers that it may begin on
	// Goals is the copper that it may end at.
	Goals []*layout.Copper
	Hops  bool
	// Within are the layers that it may lead on; 0: all.
	Within uint32
	Most   int                   // places that are looked at altogether; 0: as many as it takes
	Stop   func(looked int) bool // asked now and then whether to give up, after so many places; nil: never
}

// The searches of Finish: how far apart the places of the grid are in nanometres, how much the way that is left counts, and how many
// places are looked at. The first are quick; the later ones look more closely, as long as what was found is not short already.
var searches = []struct {
	pitch int64
	eager float32
	most  int
}{
	{400_000, 1.8, 300_000}, // of far ways alone
	{200_000, 1.8, 300_000},
	{100_000, 1.8, 1_000_000},
	{100_000, 1.04, 120_000},
	{50_000, 1.8, 1_500_000},
}

// far is how far a way leads that is sought on the coarsest grid first, in nanometres.
const far = 100_000_000

// closely is how far a way may lead so that one that was found is sought to be bettered, in nanometres.
const closely = 40_000_000

// enough is how much longer than the straight way in eight directions a way may be that is not sought to be bettered.
const enough = 1.06

// Finish finds a way from a place to copper of the net; nil: there is none on the finest grid, or it gave up. The way keeps
// all rules.
func (f Field) Finish(e Errand) []Leg {
	legs, _ := f.finish(e)
	return legs
}

// finish also tells at how many places it looked. Of what may hop, a way without hops is sought as well that is no dearer.
func (f Field) finish(e Errand) (best []Leg, looked int) {
	if len(e.Goals) == 0 {
		return nil, 0
	}
	best, looked = f.search(e, nil)
	if !e.Hops || best == nil {
		return best, looked
	}
	for layers := e.Layers; layers != 0 && (e.Most == 0 || looked < e.Most); layers &= layers - 1 {
		flat := e
		flat.Hops, flat.Layers, flat.Most = false, layers&-layers, max(e.Most-looked, 0)
		if e.Stop != nil {
			before := looked
			flat.Stop = func(n int) bool { return e.Stop(before + n) }
		}
		more := 0
		best, more = f.search(flat, best)
		looked += more
	}
	return best, looked
}

// search finds a way that is cheaper than the one there is; that one, where it finds none.
func (f Field) search(e Errand, known []Leg) (best []Leg, looked int) {
	best = known
	least := math.Inf(1)
	for _, g := range e.Goals {
		least = min(least, octile(e.From, nearestOf(g, e.From)))
	}
	for i, s := range searches {
		if i == 0 && least < far {
			continue
		}
		if best != nil && (least > closely || float64(price(best)) < enough*least) {
			break
		}
		if best != nil && i == len(searches)-1 {
			s.eager, s.most = 1.2, 300_000 // for a gap that only the finest grid finds
			if e.Hops {
				break // without hops it is sought as well
			}
		}
		for _, box := range f.windows(e) {
			q := f.questOf(e, box)
			q.pitch, q.eager, q.most = s.pitch, s.eager, s.most
			if e.Most > 0 {
				q.most = min(q.most, e.Most-looked)
			}
			if e.Stop != nil {
				before := looked
				q.stop = func(n int) bool { return e.Stop(before + n) }
			}
			if best != nil {
				q.limit = float32(price(best)) / float32(s.pitch)
			}
			m := f.newMaze(q)
			way, ok := m.run()
			looked += m.looked
			if !ok {
				continue
			}
			if legs := f.legsOf(e, way); best == nil || price(legs) < price(best) {
				best = legs
			}
			break
		}
		if e.Stop != nil && e.Stop(looked) || e.Most > 0 && looked >= e.Most {
			break
		}
	}
	return best, looked
}

// price of legs: their length and hops.
func price(legs []Leg) int64 { return legsLength(legs) + hopCost*int64(len(legs)-1) }

// octile is the length of the shortest way in eight directions.
func octile(a, b geom.Point) float64 {
	dx, dy := float64(abs(a.X-b.X)), float64(abs(a.Y-b.Y))
	return max(dx, dy) + (math.Sqrt2-1)*min(dx, dy)
}

// windows are the boxes that are searched, the least first.
func (f Field) windows(e Errand) []geom.Box {
	near := geom.BoxOf(e.From)
	nearest := slices.MinFunc(e.Goals, func(a, b *layout.Copper) int {
		return cmp.Compare(octile(nearestOf(a, e.From), e.From), octile(nearestOf(b, e.From), e.From))
	})
	near = near.With(nearestOf(nearest, e.From))
	all := near
	for _, g := range e.Goals {
		all = all.Union(g.Box())
	}
	if outline := f.Doc.Board.Outline; len(outline) > 0 {
		all = all.Union(geom.BoxOf(geom.Places(outline)...))
	}
	side := max(near.Max.X-near.Min.X, near.Max.Y-near.Min.Y)
	return []geom.Box{near.Grow(max(side/3, 5_000_000)), all.Grow(5_000_000)}
}

// nearestOf is the place of a piece that is nearest to another place, for tracks along their middle.
func nearestOf(c *layout.Copper, to geom.Point) geom.Point {
	if c.Kind != "track" {
		return c.At
	}
	core := c.Shape
	core.R = 0
	_, at, _ := geom.Gap(core, geom.Disc(to, 0))
	return at
}

func (f Field) questOf(e Errand, box geom.Box) quest {
	q := quest{net: e.Net, from: e.From, layers: e.Layers, within: e.Within, hops: e.Hops, box: box}
	q.width = func(layer int) int64 { return f.widthAt(e, layer, e.From) }
	for _, c := range e.Goals {
		for _, l := range c.Levels(c.Layers) {
			q.goals = append(q.goals, goal{at: c.At, shape: l.Shape, layers: l.Layers, line: c.Kind == "track"})
		}
	}
	return q
}

// widthAt is the width of a track on a layer at a place.
func (f Field) widthAt(e Errand, layer int, at geom.Point) int64 {
	if e.Width > 0 {
		return e.Width
	}
	return f.Usual(design.TrackWidth, Wish{Shape: geom.Disc(at, 0), Layers: 1 << layer, Net: e.Net, Thing: design.ATrack})
}

// legsOf makes legs of a way that a search found, each tightened.
func (f Field) legsOf(e Errand, way []stand) (out []Leg) {
	for i := 0; i < len(way); {
		j := i
		var path []geom.Point
		for ; j < len(way) && way[j].layer == way[i].layer; j++ {
			path = append(path, way[j].at)
		}
		layer := way[i].layer
		width := f.widthAt(e, layer, e.From)
		path = lane{f, width, layer, e.Net}.tightened(path)
		out = append(out, Leg{Layer: layer, Width: width, Path: geom.Corners(path...)})
		i = j
	}
	return out
}
