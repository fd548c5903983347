package demo

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// The copper layers of the gauge, from the top.
const (
	top, ground, power, bottom = 0, 1, 2, 3
)

const outer = uint32(1<<top | 1<<bottom)

// weirTrunks are the wide tracks of the supplies on the inner layers, along places in millimetres; what of the net lies near hangs on them.
var weirTrunks = []struct {
	net   string
	layer int
	width float64
	lines [][]float64
}{
	{"GND", ground, 1.5, [][]float64{{34.2, 7, 34.2, 62}, {34.2, 47.8, 72, 47.8}, {34.2, 25, 88, 25}, {34.2, 57.4, 70, 57.4}, {34.2, 8.4, 88, 8.4},
		{9.5, 19.3, 34.2, 19.3}, {9.5, 31.8, 34.2, 31.8}, {9.5, 44.3, 34.2, 44.3}, {9.5, 57, 34.2, 57}}},
	{"+3V3A", power, 1, [][]float64{{32.2, 12, 32.2, 57.4, 33.2, 58.4, 70.6, 58.4}}},
	{"+3V3", power, 1, [][]float64{{60, 9, 60, 49.5, 61.5, 51, 69, 51}}},
	{"+24V", power, 1.2, [][]float64{{9.6, 14, 9.6, 58.4, 11.6, 60.4, 36, 60.4}}},
	{"+5V", power, 1.2, nil},
}

// RouteWeirGauge builds the gauge with the router at work on a bare board, and gives its tracks as text. It takes most of a minute.
func RouteWeirGauge() (d *design.Doc, tracks string, err error) {
	d, err = weirGauge(func(b *builder) {
		weirRoute(b)
		tracks = tracksText(b)
	})
	return d, tracks, err
}

// weirRoute lays all tracks of the gauge: trunks of the supplies, what stands close together, what has an order of its own, branches to the
// trunks, and all the rest, the shortest first.
func weirRoute(b *builder) {
	supply := map[string]bool{}
	for _, s := range weirTrunks {
		supply[s.net] = true
		for _, l := range s.lines {
			b.trunk(s.net, s.layer, s.width, l)
		}
	}
	b.joinAll(outer, func(name string, long float64) bool { return supply[name] && long < 4e6 })
	b.testBus()
	b.servicePair()
	for _, name := range []string{"OSC_IN", "OSC_OUT", "AIN0", "AIN1", "AIN2", "AIN3", "TX", "RX", "DE", "SVC_P", "SVC_N", "BUS_P", "BUS_N"} {
		b.joinAll(outer, func(n string, _ float64) bool { return n == name })
	}
	for _, s := range weirTrunks {
		b.branches(s.net, s.layer)
	}
	b.joinAll(outer, func(name string, _ float64) bool { return !supply[name] })
	b.joinAll(outer|1<<ground|1<<power, func(string, float64) bool { return true })
	b.tidy()
}

// testBus leads the eight test lines side by side from the lower pins of the controller down to their header, each over two corners.
func (b *builder) testBus() {
	for i := range 8 {
		if b.err != nil {
			return
		}
		net := b.net(fmt.Sprint("T", i))
		ends := b.padsOf(net)
		from, to := ends[0], ends[1]
		if from.Y < to.Y {
			from, to = to, from
		}
		turn := from.Y - units.MMf(7.6) - int64(i)*units.MMf(0.4)
		if to.X > from.X {
			turn = units.MMf(14.6) - int64(7-i)*units.MMf(0.8) // below the cell's holder
		}
		low := turn - max(from.X-to.X, to.X-from.X)
		path := []geom.Point{from, geom.Pt(from.X, turn), geom.Pt(to.X, low), to}
		b.do(&edit.DrawTrack{Net: net, Runs: []edit.Run{{Layer: b.bench.Doc.Board.At(top), Path: geom.Corners(path...)}}})
	}
}

// servicePair leads the two lines of the service port side by side: from the controller to the bottom, below the memory and the clock, and
// up again before their resistors.
func (b *builder) servicePair() {
	line := func(net string, upper, lower, end []float64) {
		if b.err != nil {
			return
		}
		run := func(layer int, mm []float64) edit.Run {
			return edit.Run{Layer: b.bench.Doc.Board.At(layer), Path: geom.Corners(places(mm)...)}
		}
		b.do(&edit.DrawTrack{Net: b.net(net), Runs: []edit.Run{run(top, upper), run(bottom, lower), run(top, end)}})
		if b.err != nil {
			b.err = fmt.Errorf("%s: %w", net, b.err)
		}
	}
	line("SVC_N", []float64{56.2, 37.25, 58.8, 37.25}, []float64{58.8, 37.25, 78.8, 17.25, 78.8, 12.4}, []float64{78.8, 12.4, 78.8, 10.6})
	line("SVC_P", []float64{56.2, 37.75, 58.05, 37.75, 58.6, 38.3}, []float64{58.6, 38.3, 79.4, 17.5, 79.4, 13.6, 80.6, 12.4},
		[]float64{80.6, 12.4, 80.6, 10.6})
}

// padsOf are the places of a net's pads.
func (b *builder) padsOf(net design.ID) (out []geom.Point) {
	for _, c := range b.bench.Index().NetPieces(net) {
		if c.Kind == "pad" {
			out = append(out, c.At)
		}
	}
	return out
}

func (b *builder) net(name string) design.ID {
	if n := b.bench.Doc.NetNamed(name); n != nil {
		return n.ID
	}
	if b.err == nil {
		b.err = fmt.Errorf("there is no net %s on the board", name)
	}
	return 0
}

// trunk lays a wide track along places in millimetres.
func (b *builder) trunk(net string, layer int, width float64, mm []float64) {
	if b.err != nil {
		return
	}
	run := edit.Run{Layer: b.bench.Doc.Board.At(layer), Width: units.MMf(width), Path: geom.Corners(places(mm)...)}
	b.do(&edit.DrawTrack{Net: b.net(net), Runs: []edit.Run{run}})
	if b.err != nil {
		b.err = fmt.Errorf("trunk of %s along %v: %w", net, mm, b.err)
	}
}

// branches hangs what of a net is not joined with its trunk on it, what is nearest first: by a via beside a pad and a track on the trunk's
// layer. What finds no way is left open.
func (b *builder) branches(net string, layer int) {
	id := b.net(net)
	for b.err == nil {
		islands := layout.Islands(b.bench.Index().NetPieces(id))
		trunk := slices.MaxFunc(islands, func(x, y []*layout.Copper) int { return cmp.Compare(extent(x, layer), extent(y, layer)) })
		var goals []*layout.Copper
		for _, c := range trunk {
			if c.Has(layer) && c.Kind != "via" {
				goals = append(goals, c)
			}
		}
		if !slices.ContainsFunc(nearestFirst(islands, trunk, goals), func(c *layout.Copper) bool { return b.branch(id, c, layer, goals) }) {
			return
		}
	}
}

// extent is how much of an island lies on a layer, in nanometres of the sides of its pieces.
func extent(island []*layout.Copper, layer int) (sum int64) {
	for _, c := range island {
		if box := c.Box(); c.Has(layer) {
			sum += 1 + box.Max.X - box.Min.X + box.Max.Y - box.Min.Y
		}
	}
	return sum
}

// nearestFirst are the pads and vias of all islands but the trunk, the nearest to it first.
func nearestFirst(islands [][]*layout.Copper, trunk, goals []*layout.Copper) (out []*layout.Copper) {
	far := map[*layout.Copper]float64{}
	for _, island := range islands {
		for _, c := range island {
			if &island[0] == &trunk[0] || c.Kind == "track" {
				continue
			}
			far[c] = math.Inf(1)
			for _, g := range goals {
				gap, _, _ := geom.Gap(g.Shape, geom.Disc(c.At, 0))
				far[c] = min(far[c], gap)
			}
			out = append(out, c)
		}
	}
	slices.SortFunc(out, func(x, y *layout.Copper) int {
		return cmp.Or(cmp.Compare(far[x], far[y]), cmp.Compare(x.ID, y.ID), cmp.Compare(x.Pad, y.Pad))
	})
	return out
}

// branch leads from a piece to the trunk.
func (b *builder) branch(net design.ID, c *layout.Copper, layer int, goals []*layout.Copper) bool {
	f := b.bench.Field()
	from := c.At
	var runs []edit.Run
	if !c.Has(layer) {
		own := top
		if !c.Has(top) {
			own = bottom
		}
		path := beside(f, net, from, own)
		if path == nil {
			return false
		}
		runs = append(runs, edit.Run{Layer: b.bench.Doc.Board.At(own), Path: geom.Corners(path...)})
		from = path[len(path)-1]
	}
	if len(goals) == 0 {
		runs = append(runs, edit.Run{Layer: b.bench.Doc.Board.At(layer), Path: geom.Corners(from)})
	} else {
		legs := f.Finish(route.Errand{Net: net, From: from, Layers: 1 << layer, Within: 1 << layer, Goals: goals, Most: 400_000})
		if legs == nil {
			return false
		}
		runs = append(runs, b.runsOf(legs)...)
	}
	_, err := b.bench.Edit(&edit.DrawTrack{Net: net, Runs: runs})
	return err == nil
}

// beside is the shortest way from a pad to a place where a via fits.
func beside(f route.Field, net design.ID, from geom.Point, layer int) (best []geom.Point) {
	for r := int64(500_000); r <= 3_000_000; r += 100_000 {
		for k := range 16 {
			sin, cos := math.Sincos(2 * math.Pi * float64(k) / 16)
			p := from.Add(geom.Pt(int64(math.Round(cos*float64(r)/10_000))*10_000, int64(math.Round(sin*float64(r)/10_000))*10_000))
			if v := f.Via(p, net); !f.Free(v) || inPad(f, v) {
				continue
			}
			width := f.Usual(design.TrackWidth, route.Wish{Shape: geom.Disc(from, 0), Layers: 1 << layer, Net: net, Thing: design.ATrack})
			for _, style := range []route.Corner{route.StraightFirst, route.DiagonalFirst} {
				if w := f.Draw(from, p, style, layer, net, width); w.Blocked == nil && (best == nil || len(w.Path) < len(best)) {
					best = w.Path
				}
			}
		}
		if best != nil {
			return best
		}
	}
	return nil
}

// inPad tells whether a via would lie in a surface pad of its own net, or too near to one for solder to stay there.
func inPad(f route.Field, via route.Wish) bool {
	apart := units.MMf(0.1)
	for c := range f.Index.Near(via.Box().Grow(apart)) {
		if gap, _, _ := geom.Gap(c.Shape, via.Shape); c.Thing == design.SurfacePad && c.Net == via.Net && gap < float64(apart) {
			return true
		}
	}
	return false
}

// openLink is an open link of a net.
type openLink struct {
	net  design.ID
	link layout.Link
}

// joinAll joins what is wanted, the shortest first; what finds no way yet is left open.
func (b *builder) joinAll(within uint32, wanted func(name string, long float64) bool) {
	failed := map[layout.Link]bool{}
	for b.err == nil {
		var list []openLink
		for _, n := range b.bench.Index().Nets() {
			for _, l := range layout.Links(b.bench.Index().NetPieces(n)) {
				if !failed[l] && wanted(b.bench.Doc.NetName(n), l.A.Dist(l.B)) {
					list = append(list, openLink{n, l})
				}
			}
		}
		if len(list) == 0 {
			return
		}
		l := slices.MinFunc(list, func(x, y openLink) int {
			return cmp.Or(cmp.Compare(x.link.A.Dist(x.link.B), y.link.A.Dist(y.link.B)), cmp.Compare(x.net, y.net),
				cmp.Compare(x.link.A.X, y.link.A.X), cmp.Compare(x.link.A.Y, y.link.A.Y))
		})
		failed[l.link] = !b.join(l, within)
	}
}

// join lays a track from where a link begins to what its net has yet to reach, on some of the layers.
func (b *builder) join(l openLink, within uint32) bool {
	f := b.bench.Field()
	all := uint32(1)<<b.bench.Doc.Board.Layers() - 1
	from := uint32(0)
	for c := range f.Index.Near(geom.BoxOf(l.link.A)) {
		if c.Net == l.net && c.Shape.Holds(l.link.A) {
			from |= c.Layers
		}
	}
	goals := b.bench.Unjoined(l.net, l.link.A, all)
	legs := f.Finish(route.Errand{Net: l.net, From: l.link.A, Layers: from & within, Within: within, Goals: goals, Hops: true, Most: 400_000})
	if legs == nil {
		return false
	}
	_, err := b.bench.Edit(&edit.DrawTrack{Net: l.net, Runs: b.runsOf(legs)})
	return err == nil
}

func (b *builder) runsOf(legs []route.Leg) (runs []edit.Run) {
	for _, l := range legs {
		runs = append(runs, edit.Run{Layer: b.bench.Doc.Board.At(l.Layer), Width: l.Width, Path: l.Path})
	}
	return runs
}

// tidy makes all tracks as short as the rules let them be; where they are already, it changes nothing.
func (b *builder) tidy() {
	if b.err != nil {
		return
	}
	var ids []design.ID
	for t := range b.bench.Doc.Tracks.All() {
		ids = append(ids, t.ID)
	}
	_, _ = b.bench.Edit(&edit.TidyTracks{IDs: ids}) // a refusal says that there was nothing to do
}
