package check_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// crowd is a board of four layers crowded with things of every kind: straight and bent tracks, vias of
// all spans with pads by layer, pads of all forms with slots, holes; nets of two classes.
func crowd(t *rapid.T) *design.Doc {
	d := bare()
	for i, class := range []string{"power", "signal"} {
		d.Put(&design.Net{ID: design.ID(900 + i), Name: string(rune('A' + i)), Class: class})
	}
	at := func(n string) geom.Point {
		return geom.Pt(rapid.Int64Range(10, 60).Draw(t, n+"x")*250_000, rapid.Int64Range(10, 60).Draw(t, n+"y")*250_000)
	}
	net := func() design.ID { return rapid.SampledFrom([]design.ID{900, 901, 0}).Draw(t, "net") }
	form := func(n string) design.PadShape {
		s := design.PadShape{Form: rapid.SampledFrom(design.PadForms).Draw(t, n), Size: geom.Pt(1_000_000, 800_000), Corner: 150_000,
			Cut: rapid.IntRange(0, 15).Draw(t, "cut")}
		if s.Form == design.Free {
			s.Edge = []geom.Corner{geom.Pt(-500_000, -300_000).Through(geom.Pt(0, -450_000)), {Point: geom.Pt(500_000, -300_000)},
				{Point: geom.Pt(0, 500_000)}}
		}
		return s
	}
	f := &design.Footprint{ID: 800, Name: "F"}
	for i := range 3 {
		s := form("form")
		p := design.Pad{Number: fmt.Sprint(i), At: geom.Pt(int64(i)*1_300_000-1_300_000, 0), Form: s.Form, Size: s.Size, Corner: s.Corner,
			Cut: s.Cut, Edge: s.Edge, Angle: rapid.Int32Range(0, 359_999).Draw(t, "angle")}
		switch rapid.IntRange(0, 3).Draw(t, "hole") {
		case 0:
			p.Hole = 400_000
			p.Slot = geom.Pt(0, rapid.Int64Range(0, 1).Draw(t, "slot")*200_000)
		case 1:
			p.Hole, p.Bare = 500_000, true
		case 2:
			p.Far = rapid.Bool().Draw(t, "far")
		}
		if p.Hole > 0 && rapid.Bool().Draw(t, "by layer") {
			p.On = map[string]design.PadShape{rapid.SampledFrom(design.LayerGroups).Draw(t, "group"): form("other")}
		}
		f.Pads = append(f.Pads, p)
	}
	d.Put(f)
	for i := range rapid.IntRange(2, 12).Draw(t, "things") {
		id := design.ID(50 + i)
		switch rapid.IntRange(0, 4).Draw(t, "what") {
		case 0, 1:
			p := at("a")
			tr := &design.Track{ID: id, Layer: d.Board.At(rapid.IntRange(0, 3).Draw(t, "layer")), A: p,
				B: p.Add(geom.Pt(750_000, rapid.Int64Range(0, 8).Draw(t, "up")*250_000)), Width: 300_000, Net: net()}
			if rapid.Bool().Draw(t, "bent") {
				m := p.Add(geom.Pt(rapid.Int64Range(-4, 4).Draw(t, "mx")*250_000, rapid.Int64Range(-4, 4).Draw(t, "my")*250_000+1))
				if m != tr.B {
					tr.Mid = &m
				}
			}
			d.Put(tr)
		case 2:
			from := rapid.IntRange(0, 2).Draw(t, "from")
			v := &design.Via{ID: id, At: at("v"), Diameter: 800_000, Hole: 400_000, From: d.Board.At(from),
				To: d.Board.At(rapid.IntRange(from+1, 3).Draw(t, "to")), Net: net()}
			if rapid.Bool().Draw(t, "pads") {
				v.Pads = []design.ViaPad{{Layer: v.From, Diameter: rapid.SampledFrom([]int64{0, 1_200_000}).Draw(t, "pad")}}
			}
			d.Put(v)
		case 3:
			d.Put(&design.Hole{ID: id, At: at("h"), Diameter: 1_000_000})
		case 4:
			nets := map[string]design.ID{}
			for _, p := range f.Pads {
				if n := net(); n != 0 {
					nets[p.Number] = n
				}
			}
			d.Put(&design.Placed{ID: id, Part: 1000 + id, Designator: fmt.Sprint("U", i), Footprint: "F", At: at("p"),
				Angle: rapid.Int32Range(0, 359_999).Draw(t, "turn"), Bottom: rapid.Bool().Draw(t, "bottom"), Nets: nets})
		}
	}
	return d
}

// dress puts on a crowd what faces and space are checked for: texts, figures, openings, bodies.
func dress(t *rapid.T, d *design.Doc) {
	f := *d.Footprint("F")
	square := []geom.Point{geom.Pt(-mm, -mm), geom.Pt(mm, -mm), geom.Pt(mm, mm), geom.Pt(-mm, mm)}
	f.Solids = []design.Solid{{Form: design.Prism, Edge: geom.Corners(square...), To: rapid.Int64Range(1, 20).Draw(t, "height") * 100_000, Material: "body"}}
	f.Courtyard = square
	d.Put(&f)
	for i := range rapid.IntRange(0, 4).Draw(t, "drawn") {
		id := design.ID(700 + i)
		at := geom.Pt(rapid.Int64Range(10, 60).Draw(t, "dx")*250_000, rapid.Int64Range(10, 60).Draw(t, "dy")*250_000)
		on, bottom := rapid.SampledFrom(design.Surfaces).Draw(t, "on"), rapid.Bool().Draw(t, "below")
		var layer design.LayerID
		if on == design.OnCopper {
			layer = d.Board.Top()
		}
		if rapid.Bool().Draw(t, "text") {
			d.Put(&design.Legend{ID: id, At: at, On: on, Layer: layer, Bottom: bottom && on != design.OnCopper, Text: "Weir",
				Height: rapid.SampledFrom([]int64{500_000, 1_000_000}).Draw(t, "high"), Stroke: rapid.SampledFrom([]int64{0, 100_000}).Draw(t, "stroke")})
			continue
		}
		wide := rapid.SampledFrom([]int64{100_000, 300_000, 1_000_000}).Draw(t, "wide")
		d.Put(&design.BoardFigure{ID: id, On: on, Layer: layer, Bottom: bottom && on != design.OnCopper, Closed: true, Filled: true, Lines: [][]geom.Corner{
			geom.Corners(at, at.Add(geom.Pt(2_000_000, 0)), at.Add(geom.Pt(2_000_000, wide)), at.Add(geom.Pt(0, wide)))}})
	}
}

// near are all pairs that are to be held apart on a layer, found by comparing each with each.
type nearPair struct {
	key     string
	kind    design.RuleKind
	a, b    *layout.Copper
	gap     float64
	at      geom.Point
	layer   int
	subject rules.Subject // of kinds for single things
}

func everyPair(d *design.Doc, x *layout.Index) (out []nearPair) {
	all := slices.SortedFunc(x.All(), func(a, b *layout.Copper) int {
		if a.ID != b.ID {
			return int(a.ID - b.ID)
		}
		return a.Pad - b.Pad
	})
	ref := func(c *layout.Copper) string {
		if c.Pad >= 0 {
			return fmt.Sprintf("%d.%d", c.ID, c.Pad)
		}
		return fmt.Sprint(c.ID)
	}
	for i, p := range all {
		for _, q := range all[i+1:] {
			name := ref(p) + " " + ref(q)
			together := p.ID == q.ID && p.Number == q.Number
			if p.Layers&q.Layers == 0 {
				continue
			}
			common := 0 // layers that both are on: those of holes that stand on each other have one
			for i := range d.Board.Layers() {
				if p.Layers&q.Layers&(1<<i) != 0 {
					common++
				}
			}
			on := common == 1 && p.Drill == q.Drill && p.Kind == "via" && q.Kind == "via"
			if p.Hole > 0 && q.Hole > 0 && !on && (!together || p.Hole > 0) {
				first := 0
				for (p.Layers&q.Layers)&(1<<first) == 0 {
					first++
				}
				gap, a, b := geom.Gap(p.Bore(), q.Bore())
				out = append(out, nearPair{"holes " + name, design.HoleClearance, p, q, gap, a.Towards(b, 0.5), first, rules.Subject{}})
			}
			if p.Bare && q.Bare || p.Net == q.Net && p.Net != 0 || together {
				continue
			}
			for layer := range 4 {
				if !p.Has(layer) || !q.Has(layer) {
					continue
				}
				gap, a, b := geom.Gap(p.On(layer), q.On(layer))
				n := nearPair{"clearance " + name, design.Clearance, p, q, gap, a.Towards(b, 0.5), layer, rules.Subject{}}
				if p.Bare || q.Bare {
					n.key, n.kind, n.subject = "holeEdge "+name, design.EdgeClearance, p.Subject()
					if p.Bare {
						n.subject = q.Subject()
					}
				} else if p.ID == q.ID {
					n.kind = design.WithinPart
				}
				out = append(out, n)
			}
		}
	}
	return out
}

// With rules of all kinds and sizes the check finds exactly the pairs that comparing each with each
// finds; at, just below and just above what is asked for too.
func TestCheckAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := crowd(t)
		x := layout.NewIndex(d)
		pairs := everyPair(d, x)
		sizes := []int64{0, 100_000, 300_000, 700_000, 3_000_000}
		for _, p := range pairs { // and what some of them just keep, or do not
			if p.gap > 0 && p.gap < 4_000_000 && rapid.IntRange(0, 4).Draw(t, "limit") == 0 {
				sizes = append(sizes, int64(math.Floor(p.gap))+rapid.SampledFrom([]int64{-1, 0, 1, 2, 3, 4, 5}).Draw(t, "beyond"))
			}
		}
		size := func() int64 { return rapid.SampledFrom(sizes).Draw(t, "size") }
		d.SetBase(map[design.RuleKind]int64{design.Clearance: size(), design.HoleClearance: size(), design.EdgeClearance: size(),
			design.WithinPart: size()})
		d.Put(&design.RuleArea{ID: 700, Name: "Area", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9_000_000, 0), geom.Pt(0, 9_000_000))})
		for i := range rapid.IntRange(0, 5).Draw(t, "rules") {
			scope := func() design.Scope {
				return rapid.SampledFrom([]design.Scope{{}, {Class: "power"}, {Net: "B"}, {Thing: design.AVia},
					{Thing: design.ATrack, Class: "signal"}, {Layer: d.Board.At(1)}, {Area: 700}, {Part: 52}, {Thing: design.ThroughPad}}).Draw(t, "scope")
			}
			r := &design.Rule{ID: design.ID(600 + i), Kind: rapid.SampledFrom([]design.RuleKind{design.Clearance, design.HoleClearance,
				design.EdgeClearance, design.WithinPart}).Draw(t, "kind"), Order: i, A: scope(), Value: design.Fixed(size())}
			if r.Kind.Pairs() {
				r.B = scope()
			}
			if rapid.Bool().Draw(t, "inner") {
				in := design.Fixed(size())
				r.Inner = &in
			}
			if !r.Everywhere() {
				d.Put(r)
			}
		}
		set := rules.Of(d)
		want, may := map[string]bool{}, map[string]bool{}
		for _, p := range pairs {
			short := func(at geom.Point) bool {
				ruling := set.Between(p.kind, p.a.Subject(), p.b.Subject(), p.layer, at)
				switch {
				case p.kind == design.WithinPart:
					one, other := set.For(p.kind, p.a.Subject(), p.layer, at), set.For(p.kind, p.b.Subject(), p.layer, at)
					return p.gap < float64(max(one.Of(0), other.Of(0))-3)
				case !p.kind.Pairs():
					ruling = set.For(p.kind, p.subject, p.layer, at)
				}
				return p.gap < float64(ruling.Of(0)-3)
			}
			switch {
			case short(p.at):
				want[p.key] = true
			case short(geom.Pt(1_000_000, 1_000_000)) || short(geom.Pt(90_000_000, 90_000_000)):
				// elsewhere, within the area or without, as near would be too near
				may[p.key] = true
			}
		}
		got := map[string]bool{}
		for k, f := range check.NewBoard(d, x, set).Found {
			if (f.Kind == "clearance" || f.Kind == "holeEdge" || f.Kind == "holes") && (want[k] || !may[k]) {
				got[k] = true
			}
		}
		assert.Equal(t, want, got)
	})
}

// When rules change, or nets, what is kept up to date is what a check from scratch finds.
func TestRulesThatChange(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := crowd(t)
		dress(t, d)
		x := layout.NewIndex(d)
		set := rules.Of(d)
		b := check.NewBoard(d, x, set)
		for range rapid.IntRange(1, 6).Draw(t, "edits") {
			kind := rapid.SampledFrom([]design.RuleKind{design.Clearance, design.HoleClearance, design.EdgeClearance, design.LeastWidth,
				design.LeastHole, design.LeastRing, design.SilkWidth, design.HoleCopper, design.MaskMargin, design.MaskWeb, design.PasteMargin,
				design.SilkApart, design.LeastSilk, design.LetterHeight, design.Spacing, design.HeightAbove, design.HeightBelow,
				design.WithinPart}).Draw(t, "kind")
			r := *d.Base(kind)
			if rapid.Bool().Draw(t, "scoped") {
				r.ID, r.A = 600, design.Scope{Class: rapid.SampledFrom([]string{"power", "signal"}).Draw(t, "class")}
			}
			values := []int64{0, 200_000, 350_000, 900_000}
			switch kind {
			case design.MaskMargin, design.PasteMargin:
				values = append(values, -50_000)
			case design.Spacing, design.HeightAbove, design.HeightBelow:
				values = append(values, 3*mm)
			}
			r.Value = design.Fixed(rapid.SampledFrom(values).Draw(t, "value"))
			before := d.GetKind(design.KindRule, r.ID)
			d.Put(&r)
			set.Changed(before, &r)
			b.Rule(before, &r)
			moved := map[design.ID]bool{}
			if rapid.Bool().Draw(t, "and moved") {
				step := geom.Pt(250_000, 0)
				var all []design.Object
				for h := range d.Holes.All() {
					q := *h
					q.At = q.At.Add(step)
					all = append(all, &q)
				}
				for p := range d.Placed.All() {
					q := *p
					q.At = q.At.Add(step)
					all = append(all, &q)
				}
				for l := range d.Legends.All() {
					q := *l
					q.At = q.At.Sub(step)
					all = append(all, &q)
				}
				for _, o := range all {
					if rapid.Bool().Draw(t, "this one") {
						d.Put(o)
						x.Put(d, o)
						moved[o.ObjectID()] = true
					}
				}
			}
			b.Update(moved)
			for _, f := range b.Found {
				if len(f.Ends) == 2 && len(f.Objects) == 2 { // drawn as a dimension, with the finding in its middle
					assert.InDelta(t, 0, f.At.Dist(f.Ends[0].Towards(f.Ends[1], 0.5)), 2, f.Text)
				}
			}
			assert.Equal(t, texts(check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found), texts(b.Found))
		}
	})
}

// Why? Each answer is the rule that holds, in words, with those it beats.
func TestWhy(t *testing.T) {
	d := bare()
	x := func() *layout.Index { return layout.NewIndex(d) }
	net := func(name string) design.ID { return synthetic.Net(d, name) }
	d.Put(&design.Net{ID: 9_000_000, Name: "PWR", Class: "power"})
	d.Put(&design.Track{ID: 50, Layer: d.Board.Top(), A: geom.Pt(5_000_000, 5_000_000), B: geom.Pt(9_000_000, 5_000_000),
		Width: 300_000, Net: net("PWR")})
	d.Put(&design.Via{ID: 51, At: geom.Pt(7_000_000, 6_000_000), Diameter: 800_000, Hole: 400_000, From: d.Board.Top(),
		To: d.Board.Bottom(), Net: net("X")})
	d.Put(&design.Rule{ID: 60, Kind: design.Clearance, A: design.Scope{Class: "power"}, Value: design.Fixed(500_000)})
	asked := check.Why(d, x(), rules.Of(d), []design.ID{50, 51})
	assert.Equal(t, []check.Asked{{Kind: design.Clearance, Of: "track and via", Value: "0.5 mm", Measured: "0.45 mm", Rule: 60,
		Says: "Between anything of the class power and anything: clearance 0.5 mm.", Beaten: []string{"Everywhere: clearance 0.2 mm."}}}, asked)
	kinds := func(id design.ID) (out []design.RuleKind) {
		for _, a := range check.Why(d, x(), rules.Of(d), []design.ID{id}) {
			out = append(out, a.Kind)
		}
		return out
	}
	assert.Equal(t, []design.RuleKind{design.Clearance, design.EdgeClearance, design.LeastWidth}, kinds(50))
	assert.Equal(t, []design.RuleKind{design.Clearance, design.EdgeClearance, design.HoleClearance, design.LeastHole,
		design.LeastRing}, kinds(51))
	assert.Empty(t, check.Why(d, x(), rules.Of(d), []design.ID{50, 77}))
}

// What an area keeps out is found in it, on its layers; what only touches its edge is not, nor other
// kinds of things.
func TestKeepOuts(t *testing.T) {
	d := bare()
	at := func(x, y int64) geom.Point { return geom.Pt(um3(x), um3(y)) }
	d.Put(&design.RuleArea{ID: 700, Name: "Quiet", Outline: geom.Corners(at(10_000, 10_000), at(20_000, 10_000), at(20_000, 20_000),
		at(10_000, 20_000)),
		Layers: []design.LayerID{d.Board.At(0), d.Board.At(1)}, KeepOut: []design.Thing{design.AVia, design.ATrack}})
	d.Put(&design.RuleArea{ID: 701, Name: "Bare", Outline: geom.Corners(at(25_000, 25_000), at(30_000, 25_000), at(25_000, 30_000)),
		KeepOut: []design.Thing{design.APart, design.UnplatedOne}})
	d.Put(footprint("1", "2"))
	track := func(id design.ID, layer int, a, b geom.Point) {
		d.Put(&design.Track{ID: id, Layer: d.Board.At(layer), A: a, B: b, Width: 300_000, Net: synthetic.Net(d, fmt.Sprint("N", id))})
	}
	track(50, 0, at(5_000, 15_000), at(12_000, 15_000)) // ends in it
	track(51, 2, at(5_000, 16_000), at(25_000, 16_000)) // on another layer
	track(52, 1, at(5_000, 9_850), at(25_000, 9_850))   // along its edge
	track(53, 1, at(5_000, 20_146), at(25_000, 20_146)) // 4 nm into it
	d.Put(&design.Via{ID: 54, At: at(15_000, 12_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(0), To: d.Board.At(3)})
	d.Put(&design.Via{ID: 55, At: at(15_000, 18_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(2), To: d.Board.At(3)})
	d.Put(&design.Hole{ID: 56, At: at(12_000, 12_000), Diameter: 1_000_000})
	d.Put(&design.Hole{ID: 57, At: at(26_000, 26_000), Diameter: 1_000_000})
	d.Put(&design.Placed{ID: 58, Part: 1, Designator: "U1", Footprint: "F", At: at(22_500, 27_500), Nets: map[string]design.ID{}})
	d.Put(&design.Placed{ID: 59, Part: 2, Designator: "U2", Footprint: "F", At: at(35_000, 35_000), Nets: map[string]design.ID{}})
	x := layout.NewIndex(d)
	b := check.NewBoard(d, x, rules.Of(d))
	var got []string
	for _, f := range b.Found {
		if f.Kind == "keepOut" {
			got = append(got, f.Text)
		}
	}
	assert.ElementsMatch(t, []string{
		"Track (N50) reaches into the area Quiet, which keeps such things out.", "Track (N53) reaches into the area Quiet, which keeps such things out.",
		"Via reaches into the area Quiet, which keeps such things out.", "Hole reaches into the area Bare, which keeps such things out.", "U1 reaches into the area Bare, which keeps such things out.",
	}, got)
	p := *d.Placed[58]
	p.At = at(21_900, 27_500)
	d.Put(&p)
	x.Put(d, &p)
	b.Update(map[design.ID]bool{58: true})
	assert.Nil(t, b.Found["keepOut part 58 701"], "moved out of it")

	field := route.Field{Doc: d, Index: x, Rules: rules.Of(d)}
	no := field.Clear(route.Wish{Shape: geom.Stroke(at(14_000, 11_000), at(14_500, 11_000), 300_000), Layers: 1,
		Net: synthetic.Net(d, "N50"), Thing: design.ATrack})
	require.NotNil(t, no)
	assert.Equal(t, "this would touch the area Quiet", no.Error())
	assert.Nil(t, field.Clear(route.Wish{Shape: geom.Stroke(at(14_000, 14_000), at(14_500, 14_000), 300_000), Layers: 4,
		Net: synthetic.Net(d, "N50"), Thing: design.ATrack}))
}
