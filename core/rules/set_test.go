package rules_test

import (
	"cmp"
	"fmt"
	"path"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

const mm = 1_000_000

// field is a board of four layers with nets of two classes, two parts' worth of pads and two areas that
// overlap; the second is on the inner layers alone.
func field() *design.Doc {
	d := design.New("rules")
	synthetic.Layers(d, 4)
	for i, n := range []design.Net{{Name: "GND", Class: "supply"}, {Name: "+5V", Class: "supply"}, {Name: "D0", Class: "bus"}, {Name: "D1", Class: "bus"}, {Name: "CLK"}} {
		n.ID = design.ID(100 + i)
		d.Put(&n)
	}
	square := func(x, y, size int64) []geom.Corner {
		return geom.Corners(geom.Pt(x*mm, y*mm), geom.Pt((x+size)*mm, y*mm), geom.Pt((x+size)*mm, (y+size)*mm), geom.Pt(x*mm, (y+size)*mm))
	}
	d.Put(&design.RuleArea{ID: 200, Name: "Fine", Outline: square(0, 0, 10)})
	d.Put(&design.RuleArea{ID: 201, Name: "Inside", Outline: square(5, 5, 10), Layers: []design.LayerID{d.Board.At(1), d.Board.At(2)}})
	return d
}

// scope draws a scope of any parts.
func scope(t *rapid.T, d *design.Doc, name string) design.Scope {
	pick := func(what string, n int) bool { return rapid.IntRange(0, n).Draw(t, name+what) == 0 }
	var s design.Scope
	if pick("class", 2) {
		s.Class = rapid.SampledFrom([]string{"supply", "bus"}).Draw(t, "class")
	}
	if pick("net", 3) {
		s.Net = rapid.SampledFrom([]string{"D*", "?5V", "CLK", "*"}).Draw(t, "net")
	}
	if pick("thing", 3) {
		s.Thing = rapid.SampledFrom(design.Things).Draw(t, "thing")
	}
	if pick("layer", 4) {
		s.Layer = d.Board.At(rapid.IntRange(0, 3).Draw(t, "layer"))
	}
	if pick("area", 4) {
		s.Area = rapid.SampledFrom([]design.ID{200, 201}).Draw(t, "area")
	}
	if pick("part", 5) {
		s.Part = rapid.SampledFrom([]design.ID{300, 301}).Draw(t, "part")
	}
	return s
}

// read is the rules as a person reads them: of those that fit, what names a part before what names an
// area, a net, a class, a kind of thing, a layer; two of a sort before one; then the order.
func read(d *design.Doc, k design.RuleKind, a, b rules.Subject, layer int, at geom.Point) []*design.Rule {
	fits := func(c design.Scope, s rules.Subject) bool {
		name, class := "", ""
		if n := d.Nets[s.Net]; n != nil {
			name, class = n.Name, n.Class
		}
		like, _ := path.Match(c.Net, name)
		in := true
		if c.Area != 0 {
			area := d.RuleAreas[c.Area]
			box := geom.BoxOf(geom.Places(area.Outline)...)
			in = box.Holds(at) && (len(area.Layers) == 0 || slices.Contains(area.Layers, d.Board.At(layer)))
		}
		return in && (c.Class == "" || c.Class == class) && (c.Net == "" || name != "" && like) && (c.Thing == "" || c.Thing == s.Thing) &&
			(c.Layer == 0 || c.Layer == d.Board.At(layer)) && (c.Part == 0 || c.Part == s.Part)
	}
	count := func(r *design.Rule, names func(design.Scope) bool) (n int) {
		for _, c := range []design.Scope{r.A, r.B} {
			if names(c) {
				n++
			}
		}
		return n
	}
	var out []*design.Rule
	for r := range d.Rules.All() {
		if r.Kind != k {
			continue
		}
		one := fits(r.A, a)
		if k.Pairs() {
			one = one && fits(r.B, b) || fits(r.A, b) && fits(r.B, a)
		}
		if one {
			out = append(out, r)
		}
	}
	slices.SortFunc(out, func(x, y *design.Rule) int {
		for _, names := range []func(design.Scope) bool{
			func(c design.Scope) bool { return c.Part != 0 }, func(c design.Scope) bool { return c.Area != 0 }, func(c design.Scope) bool { return c.Net != "" },
			func(c design.Scope) bool { return c.Class != "" }, func(c design.Scope) bool { return c.Thing != "" }, func(c design.Scope) bool { return c.Layer != 0 },
		} {
			if c := cmp.Compare(count(y, names), count(x, names)); c != 0 {
				return c
			}
		}
		return cmp.Or(cmp.Compare(x.Order, y.Order), cmp.Compare(x.ID, y.ID))
	})
	return out
}

// With any rules the resolver says what reading them all says: the value, the rule and those it beat;
// after rules and nets change too.
func TestResolverAgainstReading(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := field()
		kinds := []design.RuleKind{design.Clearance, design.HoleClearance, design.EdgeClearance, design.LeastRing}
		draw := func(id design.ID) *design.Rule {
			r := &design.Rule{ID: id, Kind: rapid.SampledFrom(kinds).Draw(t, "kind"), Order: rapid.IntRange(0, 3).Draw(t, "order"), A: scope(t, d, "a"), Value: design.Fixed(rapid.Int64Range(1, 99).Draw(t, "value"))}
			if r.Kind.Pairs() {
				r.B = scope(t, d, "b")
			}
			if rapid.Bool().Draw(t, "inner") {
				in := design.Amount{Share: 250, Least: 50, Most: 80}
				r.Inner = &in
			}
			if r.Everywhere() {
				r.A.Class = "bus"
			}
			return r
		}
		n := rapid.IntRange(0, 8).Draw(t, "rules")
		for i := range n {
			d.Put(draw(design.ID(400 + i)))
		}
		set := rules.Of(d)
		ask := func() {
			subject := func(name string) rules.Subject {
				return rules.Subject{Net: rapid.SampledFrom([]design.ID{0, 100, 101, 102, 103, 104}).Draw(t, name), Thing: rapid.SampledFrom(design.Things).Draw(t, name), Part: rapid.SampledFrom([]design.ID{0, 300, 301, 302}).Draw(t, name)}
			}
			for range 12 {
				k := rapid.SampledFrom(kinds).Draw(t, "asked")
				a, b := subject("one"), subject("other")
				layer, at := rapid.IntRange(0, 3).Draw(t, "on"), geom.Pt(rapid.Int64Range(-1, 17).Draw(t, "x")*mm, rapid.Int64Range(-1, 17).Draw(t, "y")*mm)
				want := read(d, k, a, b, layer, at)
				var got *rules.Ruling
				if k.Pairs() {
					got = set.Between(k, a, b, layer, at)
					assert.Equal(t, got.Rule, set.Between(k, b, a, layer, at).Rule, "either way round")
				} else {
					got = set.For(k, a, layer, at)
				}
				require.Equal(t, want[0], got.Rule)
				assert.Equal(t, want[1:], append([]*design.Rule{}, got.Beaten...))
				value := want[0].Value
				if in := want[0].Inner; in != nil && (layer == 1 || layer == 2) {
					value = *in
				}
				assert.Equal(t, value, got.Amount)
				if k.Pairs() || k == design.EdgeClearance {
					assert.GreaterOrEqual(t, set.Reach(1<<layer), got.Of(1000), "nothing is asked for beyond the reach")
				}
			}
		}
		ask()
		put := func(o design.Object) {
			before := d.GetKind(o.ObjectKind(), o.ObjectID())
			d.Put(o)
			set.Changed(before, o)
		}
		if n > 0 {
			was := d.Rules[400]
			r := *was
			r.Value = design.Fixed(1234)
			put(&r)
			ask()
			if n > 1 {
				was := d.Rules[401]
				d.Remove(design.KindRule, 401)
				set.Changed(was, nil)
				ask()
			}
		}
		put(draw(499))
		ask()
		put(&design.Net{ID: 102, Name: "CLK2", Class: "supply"})
		ask()
	})
}

// What is searched around a thing on a layer is the greatest distance that a rule of that layer asks for.
func TestReachOfALayer(t *testing.T) {
	d := field()
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 200_000, design.EdgeClearance: 150_000, design.HoleClearance: 100_000})
	d.Put(&design.Rule{ID: 900, Kind: design.Clearance, A: design.Scope{Layer: d.Board.At(1)}, Value: design.Fixed(700_000)})
	d.Put(&design.Rule{ID: 901, Kind: design.EdgeClearance, B: design.Scope{Layer: d.Board.At(0)}, Value: design.Amount{Share: 500, Least: 1, Most: 500_000}})
	set := rules.Of(d)
	assert.EqualValues(t, 500_000, set.Reach(1<<0))
	assert.EqualValues(t, 700_000, set.Reach(1<<1))
	assert.EqualValues(t, 200_000, set.Reach(1<<2))
	assert.EqualValues(t, 700_000, set.Reach(1<<1|1<<2))
	assert.EqualValues(t, 0, set.Reach(0))
}

// Shares are held between their least and their greatest.
func TestAmounts(t *testing.T) {
	ring := design.Amount{Share: 250, Least: 100_000, Most: 200_000}
	for size, want := range map[int64]int64{0: 100_000, 400_000: 100_000, 400_004: 100_001, 600_000: 150_000, 800_000: 200_000, 2_000_000: 200_000} {
		assert.Equal(t, want, ring.Of(size), "%d", size)
	}
	assert.EqualValues(t, 200_000, ring.Greatest())
	assert.EqualValues(t, 7, design.Fixed(7).Of(1_000_000))
	mask := design.Amount{Share: 100, Least: -50_000, Most: 75_000}
	assert.EqualValues(t, 60_000, mask.Of(600_000))
}

// Names and patterns, as the shell's patterns without brackets.
func TestLike(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		letters := rapid.StringOfN(rapid.SampledFrom([]rune("ab*?")), 0, 6, -1)
		pattern, name := letters.Draw(t, "pattern"), rapid.StringOfN(rapid.SampledFrom([]rune("ab")), 0, 7, -1).Draw(t, "name")
		want, err := path.Match(pattern, name)
		require.NoError(t, err)
		assert.Equal(t, want, rules.Like(pattern, name), "%q %q", pattern, name)
	})
	assert.True(t, rules.Like("/RESET*", "/RESET/A"))
	var like []string
	for _, name := range []string{"+3V3", "+3V", "DATA7", "DATA", "DATA10", "GND", "GNDA", ""} {
		if rules.Like("+3V*, DATA?,GND", name) {
			like = append(like, name)
		}
	}
	assert.Equal(t, []string{"+3V3", "+3V", "DATA7", "GND"}, like)
}

// Rules are read as sentences.
func TestSentences(t *testing.T) {
	d := field()
	d.Put(&design.Placed{ID: 300, Designator: "U7", Footprint: "F"})
	for want, r := range map[string]*design.Rule{
		"Everywhere: clearance 0.2 mm.":                                                           d.Base(design.Clearance),
		"Between anything of the class supply and anything: clearance 0.4 mm.":                    {Kind: design.Clearance, A: design.Scope{Class: "supply"}, Value: design.Fixed(400_000)},
		"Between tracks of nets D* on L2 and vias in Fine: clearance 0.1 mm.":                     {Kind: design.Clearance, A: design.Scope{Thing: design.ATrack, Net: "D*", Layer: d.Board.At(1)}, B: design.Scope{Thing: design.AVia, Area: 200}, Value: design.Fixed(100_000)},
		"For surface pads of U7: mask margin 10 % of the size, at least 0 mm and at most 0.1 mm.": {Kind: design.MaskMargin, A: design.Scope{Thing: design.SurfacePad, Part: 300}, Value: design.Amount{Share: 100, Most: 100_000}},
		"For anything of the class bus: least width 0.2 mm, on inner layers 0.1 mm.":              {Kind: design.LeastWidth, A: design.Scope{Class: "bus"}, Value: design.Fixed(200_000), Inner: &design.Amount{Fixed: 100_000}},
	} {
		assert.Equal(t, want, rules.Sentence(d, r))
	}
	assert.Contains(t, rules.Sentence(d, &design.Rule{Kind: design.LeastHole, A: design.Scope{Part: 77, Layer: 99, Area: 88}}), "of a part that is gone on a layer that is gone in an area that is gone")
}

// Changing one rule's number keeps the answers to other kinds.
func TestManyRulesStayQuick(t *testing.T) {
	d := field()
	for i := range 300 {
		d.Put(&design.Rule{ID: design.ID(1000 + i), Kind: design.Clearance, Order: i, A: design.Scope{Net: fmt.Sprintf("N%d*", i)}, Value: design.Fixed(int64(i + 1))})
	}
	for i := range 300 {
		d.Put(&design.Net{ID: design.ID(2000 + i), Name: fmt.Sprintf("N%dx", i)})
	}
	set := rules.Of(d)
	for i := range 300 {
		got := set.Between(design.Clearance, rules.Subject{Net: design.ID(2000 + i)}, rules.Subject{}, 0, geom.Point{})
		want := i
		for j := range i { // "N1*" fits N12x as well, and comes before
			if rules.Like(fmt.Sprintf("N%d*", j), fmt.Sprintf("N%dx", i)) {
				want = j
				break
			}
		}
		assert.EqualValues(t, want+1, got.Of(0), "N%dx", i)
	}
}

// Every kind of thing has a word in a rule's sentence.
func TestSentencesNameEveryThing(t *testing.T) {
	d := design.New("Words")
	seen := map[string]bool{}
	for _, thing := range design.Things {
		says := rules.Sentence(d, &design.Rule{Kind: design.LeastWidth, A: design.Scope{Thing: thing}, Value: design.Fixed(200_000)})
		assert.Regexp(t, `^For [a-z ]{3,}: least width 0.2 mm\.$`, says)
		assert.False(t, seen[says], says)
		seen[says] = true
	}
}
