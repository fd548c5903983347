package edit_test

import (
	"cmp"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// plan says how the pads of an upright part are led out, one after the other, as docs/guide.md has it: each candidate is held against the
// board with all that was laid before.
type plan struct {
	*dense
	field route.Field
	ask   edit.EscapeAsk
	own   []int // layers asked for, by position
	areas map[design.ID][]area
	why   string // the first thing that stood in a pad's way
}

// area of a net on a layer, upright.
type area struct {
	layer    int
	low, far geom.Point
}

func (a area) holds(p geom.Point) bool {
	return p.X >= a.low.X && p.Y >= a.low.Y && p.X <= a.far.X && p.Y <= a.far.Y
}

// covered tells whether an area of a net on a layer holds a place.
func (p *plan) covered(net design.ID, layer int, at geom.Point) bool {
	return slices.ContainsFunc(p.areas[net], func(a area) bool { return a.layer == layer && a.holds(at) })
}

func (p *plan) free(a, b geom.Point, layer int, net design.ID, width int64) bool {
	if a == b {
		return true
	}
	o := p.field.Clear(route.Wish{Shape: geom.Stroke(a, b, width), Layers: 1 << layer, Net: net, Thing: design.ATrack})
	if o != nil {
		p.says(o)
	}
	return o == nil
}

// says notes what stood in the way, if it is the first thing.
func (p *plan) says(why error) {
	if p.why == "" {
		p.why = why.Error()
	}
}

// side of the part that pads are led out over: right, left, up or down.
type side struct{ x, y int64 }

func (s side) times(k int64) geom.Point { return geom.Pt(s.x*k, s.y*k) }

// turned is the direction a quarter to the left.
func (s side) turned() side { return side{-s.y, s.x} }

// sides are those of ball i, the nearest first, with how far the outermost balls are, and to which side it turns first: away from the middle.
func (p *plan) sides(i int) (out []side, away []int64, turns []int64) {
	x, y := int64(i%p.n), int64(i/p.n)
	last := int64(p.n - 1)
	type one struct {
		side
		away, turn int64
	}
	all := []one{{side{-1, 0}, x, 0}, {side{1, 0}, last - x, 0}, {side{0, -1}, y, 0}, {side{0, 1}, last - y, 0}}
	for k := range all {
		left := all[k].turned()
		all[k].turn = 1
		if (2*x-last)*left.x+(2*y-last)*left.y < 0 {
			all[k].turn = -1
		}
	}
	slices.SortStableFunc(all, func(a, b one) int { return cmp.Compare(a.away, b.away) })
	for _, o := range all {
		out, away, turns = append(out, o.side), append(away, o.away*p.pitch), append(turns, o.turn)
	}
	return out, away, turns
}

// outward is the way from a place so far beyond the part: straight, else by half a right angle into the gap between two rows, to its edges as
// two tracks share it, to the side and to the other, then farther.
func (p *plan) outward(at geom.Point, long int64, s side, turn int64, layer int, net design.ID, width int64) []geom.Point {
	if long <= 0 {
		return []geom.Point{at}
	}
	half, step := p.pitch/2, width+100_000
	for _, aside := range []int64{0, half - step/2, half, half + step/2, step, 2 * step, p.pitch, p.pitch + half} {
		for _, to := range []int64{turn, -turn} {
			if aside > long {
				continue
			}
			mid := at.Add(s.times(aside)).Add(s.turned().times(to * aside))
			end := mid.Add(s.times(long - aside))
			if p.free(at, mid, layer, net, width) && p.free(mid, end, layer, net, width) {
				return slices.Compact([]geom.Point{at, mid, end})
			}
		}
	}
	return nil
}

// spots are the places of hops beside a ball: between four balls, outward and away from the middle first; then beyond it along its way.
func (p *plan) spots(at geom.Point, s side, turn int64) (out []geom.Point) {
	half := p.pitch / 2
	for _, k := range [][2]int64{{1, turn}, {1, -turn}, {-1, turn}, {-1, -turn}} {
		out = append(out, at.Add(s.times(k[0]*half)).Add(s.turned().times(k[1]*half)))
	}
	for i := range int64(6) {
		out = append(out, at.Add(s.times(p.pitch/4+half*(i+1))), at.Add(s.times(-p.pitch/4-half*(i+1))))
	}
	return out
}

// hop is what comes of a hop at a place.
func (p *plan) hop(at, spot geom.Point, to int, net design.ID, width int64) *route.Hop {
	if !p.free(at, spot, 0, net, width) {
		return nil
	}
	tried := p.field.HopAt(route.HopAsk{At: spot, Net: net, From: 0, To: to, Width: width})
	if len(tried) == 0 {
		return nil
	}
	last := tried[len(tried)-1]
	if last.Hop == nil {
		p.says(last.Why)
	}
	return last.Hop
}

// into is how a ball reaches an area of its net on another layer, the nearest layer first; false: it lies in one on top, and needs no more.
func (p *plan) into(i int, at geom.Point, s side, turn, width int64) (legs []route.Leg, needed bool) {
	net, beside := p.nets[i], false
	for to := 1; to < 4; to++ {
		for _, spot := range p.spots(at, s, turn) {
			if !p.covered(net, to, spot) {
				continue
			}
			beside = true
			if hop := p.hop(at, spot, to, net, width); hop != nil && p.covered(net, to, hop.End()) {
				return []route.Leg{{Layer: 0, Width: width, Path: geom.Corners(at, spot)}, {Layer: to, Width: width,
					Path: geom.Corners(hop.End()), Hop: hop}}, true
			}
		}
	}
	if !beside {
		p.says(fmt.Errorf("no area of %s on another layer lies beside it", p.NetName(net)))
	}
	return nil, !p.covered(net, 0, at)
}

// lead is how ball i is led out: its places on top, and on the layer it hops to.
// False: it need not be.
func (p *plan) lead(i int, at geom.Point) (legs []route.Leg, needed bool) {
	net := p.nets[i]
	p.why = ""
	sides, away, turns := p.sides(i)
	for _, width := range []int64{100_000, 75_000} {
		for k, s := range sides {
			long := away[k] + p.ask.Beyond
			if p.areas[net] != nil {
				if legs, needed := p.into(i, at, s, turns[k], width); legs != nil || !needed {
					return legs, needed
				}
				continue
			}
			if slices.Contains(p.own, 0) {
				if path := p.outward(at, long, s, turns[k], 0, net, width); path != nil {
					return []route.Leg{{Layer: 0, Width: width, Path: geom.Corners(path...)}}, true
				}
			}
			others := slices.DeleteFunc(slices.Clone(p.own), func(l int) bool { return l == 0 })
			slices.Sort(others)
			for _, to := range others {
				for _, spot := range p.spots(at, s, turns[k]) {
					hop := p.hop(at, spot, to, net, width)
					if hop == nil {
						continue
					}
					end := hop.End()
					path := []geom.Point{end}
					if !p.ask.Holes {
						ahead := end.Sub(at)
						if path = p.outward(end, long-(ahead.X*s.x+ahead.Y*s.y), s, turns[k], to, net, width); path == nil {
							continue
						}
					}
					return []route.Leg{{Layer: 0, Width: width, Path: geom.Corners(at, spot)}, {Layer: to, Width: width,
						Path: geom.Corners(path...), Hop: hop}}, true
				}
			}
		}
	}
	if p.why == "" {
		p.why = "no layer that may be led out on is there for it"
	}
	return nil, true
}

// Rank by rank, and candidate by candidate in their order, the ways are those that the plan takes first.
func TestEscapesInTheirOrder(t *testing.T) {
	led, hopped, stuck, into := 0, 0, 0, 0
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 6).Draw(t, "balls")
		pitch := rapid.Int64Range(5, 12).Draw(t, "pitch") * 100_000
		s := denseBoard(t, "Four layers, 0.8 mm", n, pitch, pitch/2, 0)
		for range rapid.IntRange(0, 6).Draw(t, "obstacles") {
			a := geom.Pt(30*mm+rapid.Int64Range(-30, 30).Draw(t, "x")*100_000, 30*mm+rapid.Int64Range(-30, 30).Draw(t, "y")*100_000)
			s.Put(&design.Track{ID: s.NewID(), Layer: s.Board.At(rapid.IntRange(0, 3).Draw(t, "layer")), Width: 200_000,
				Net: synthetic.Net(s.Doc, "WALL"),
				A:   a, B: a.Add(geom.Pt(rapid.Int64Range(-20, 20).Draw(t, "dx")*100_000, 900_000))})
		}
		layers := rapid.SampledFrom([][]int{{0}, {0, 1}, {0, 3}, {0, 3, 1}, {0, 1, 2}, {1}}).Draw(t, "layers")
		ask := edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Layers: s.layers(layers...), Beyond: rapid.Int64Range(1, 9).Draw(t,
			"beyond") * 100_000,
			Holes: rapid.IntRange(0, 3).Draw(t, "holes") == 0}
		areas := map[design.ID][]area{}
		for range rapid.IntRange(0, 4).Draw(t, "areas") {
			net := s.nets[rapid.IntRange(0, n*n-1).Draw(t, "net")]
			a := area{rapid.IntRange(0, 3).Draw(t, "layer"), geom.Pt(0, 0), mmf(60, 60)}
			o := &design.Pour{ID: s.NewID(), Name: "area", Net: net, Layers: s.layers(a.layer)}
			if rapid.Bool().Draw(t, "part") {
				a.low = mmf(30, 30).Add(geom.Pt(rapid.Int64Range(-30, 10).Draw(t, "left")*99_000, rapid.Int64Range(-30, 10).Draw(t,
					"low")*99_000))
				a.far = a.low.Add(geom.Pt(rapid.Int64Range(5, 40).Draw(t, "long")*99_000, rapid.Int64Range(5, 40).Draw(t, "high")*99_000))
				o.Outline = geom.Corners(a.low, geom.Pt(a.far.X, a.low.Y), a.far, geom.Pt(a.low.X, a.far.Y))
			}
			s.Put(o)
			areas[net] = append(areas[net], a)
		}
		ask.Areas = rapid.IntRange(0, 3).Draw(t, "only areas") == 0
		f := route.Field{Doc: s.Doc, Index: layout.NewIndex(s.Doc), Rules: rules.Of(s.Doc)}
		out, err := ask.Of(&f, func(float64) error { return nil })
		require.NoError(t, err)
		got := map[string][]route.Leg{}
		var order []string
		for _, e := range out.Led {
			got[fmt.Sprint(e.Net)] = e.Legs
			order = append(order, fmt.Sprint(e.Net))
		}
		pads := slices.Clone(f.Index.Of(s.part.ID))
		ball := func(c *layout.Copper) (i int) {
			_, err := fmt.Sscan(c.Number, &i)
			require.NoError(t, err)
			return i - 1
		}
		rank := func(c *layout.Copper) int {
			i := ball(c)
			return min(i%n, n-1-i%n, i/n, n-1-i/n)
		}
		slices.SortStableFunc(pads, func(a, b *layout.Copper) int { return rank(a) - rank(b) })
		p := &plan{dense: s, field: f, ask: ask, own: layers, areas: areas}
		var wanted, left []string
		already := 0
		for _, c := range pads {
			i := ball(c)
			net := fmt.Sprint(s.nets[i])
			if ask.Areas && areas[s.nets[i]] == nil {
				require.Nil(t, got[net])
				continue
			}
			want, needed := p.lead(i, c.At)
			if !needed {
				require.NotContains(t, got, net)
				already++
				continue
			}
			require.Equal(t, want, got[net], "ball %d of %d × %d", i+1, n, n)
			if want == nil {
				stuck++
				left = append(left, c.Name+": "+p.why)
				continue
			}
			led++
			if len(want) > 1 {
				hopped++
				if areas[s.nets[i]] != nil {
					into++
				}
			}
			wanted = append(wanted, net)
			p.field = p.field.With(nil, p.field.HandOf(want, s.nets[i])...)
		}
		require.Equal(t, wanted, order)
		var names []string
		for _, k := range out.Stuck {
			names = append(names, k.Name+": "+k.Why.Error())
		}
		require.Equal(t, left, names)
		require.Equal(t, already, out.Already)
	})
	assert.Positive(t, led)
	assert.Positive(t, hopped)
	assert.Positive(t, stuck)
	assert.Positive(t, into)
}
