package landpattern_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// bodies draws a body of any family near to its example: every dimension up to 15 % larger or smaller, its tolerance up to half or twice
// as wide. Some cannot be; those are left to the tests of refusals.
func bodies(t *rapid.T) *design.Recipe {
	var ids []string
	for _, f := range landpattern.Families() {
		ids = append(ids, f.ID)
	}
	f := landpattern.FamilyOf(rapid.SampledFrom(ids).Draw(t, "family"))
	r := f.Example.Clone()
	for _, d := range f.Dims {
		s, ok := r.Dims[d.Key]
		if !ok {
			continue
		}
		scale := float64(rapid.IntRange(85, 115).Draw(t, d.Key)) / 100
		wide := float64(rapid.IntRange(50, 200).Draw(t, d.Key+" tolerance")) / 200
		middle, tolerance := float64(s.Middle())*scale, float64(s.Max-s.Min)*wide
		r.Dims[d.Key] = design.Range{Min: int64(middle-tolerance) / 1000 * 1000, Max: int64(middle+tolerance) / 1000 * 1000}
	}
	for _, c := range f.Choices {
		o := rapid.SampledFrom(c.Options).Draw(t, c.Key)
		if r.Choices == nil {
			r.Choices = map[string]string{}
		}
		r.Choices[c.Key] = o.Value
	}
	r.Density = rapid.SampledFrom(design.Densities).Draw(t, "density")
	return r
}

// possible is a body that can be made, with its footprint.
func possible(t *rapid.T) (*design.Recipe, *landpattern.LandPattern) {
	r := bodies(t)
	res, err := landpattern.Make(r)
	if err != nil {
		var no *landpattern.Impossible
		if !assert.ErrorAs(t, err, &no) {
			t.Fatalf("%s: %v", r.Family, err)
		}
		t.Skip("it cannot be")
	}
	return r, res
}

func boxOf(p *design.Pad) geom.Box {
	half := geom.Pt(p.Size.X/2, p.Size.Y/2)
	return geom.BoxOf(p.At.Sub(half), p.At.Add(half))
}

// No two pads of different terminals come nearer than the gap asked for, unless a hole needs its ring.
func TestPadsKeepTheirGap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		gap := r.Making.Gap
		if res.Footprint.Pads[0].Hole > 0 {
			gap = 0
		}
		pads := res.Footprint.Pads
		for i := range pads {
			for k := range i {
				if pads[i].Number == pads[k].Number {
					continue
				}
				a, b := boxOf(&pads[i]), boxOf(&pads[k])
				dx, dy := max(a.Min.X-b.Max.X, b.Min.X-a.Max.X, 0), max(a.Min.Y-b.Max.Y, b.Min.Y-a.Max.Y, 0)
				if float64(dx)*float64(dx)+float64(dy)*float64(dy) < (float64(gap)-1000)*(float64(gap)-1000) {
					t.Fatalf("%s: pads %s and %s are %s, %s apart", res.Name, pads[i].Number, pads[k].Number, units.Text(dx), units.Text(dy))
				}
			}
		}
	})
}

// The courtyard holds pads with the density's excess, body and silk.
func TestCourtyardHoldsAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		_, res := possible(t)
		f := res.Footprint
		yard := geom.BoxOf(f.Courtyard...)
		for i := range f.Pads {
			b := boxOf(&f.Pads[i])
			if !yard.Holds(b.Min) || !yard.Holds(b.Max) {
				t.Fatalf("%s: pad %s lies outside", res.Name, f.Pads[i].Number)
			}
		}
		for _, list := range [][]design.Figure{f.Silk, f.Body} {
			for _, fig := range list {
				for _, p := range fig.Pts {
					for _, q := range []geom.Point{geom.Pt(fig.R, fig.R), geom.Pt(-fig.R, -fig.R)} {
						if !yard.Holds(p.Add(q)) {
							t.Fatalf("%s: what is drawn at %v lies outside", res.Name, p)
						}
					}
				}
			}
		}
		for _, s := range f.Solids {
			for _, c := range s.Edge {
				if !yard.Holds(c.Point) {
					t.Fatalf("%s: the body at %v lies outside", res.Name, c.Point)
				}
			}
		}
	})
}

// Silk keeps off the copper, by the gap asked for.
func TestSilkKeepsOffPads(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		for _, fig := range res.Footprint.Silk {
			for i := range res.Footprint.Pads {
				p := &res.Footprint.Pads[i]
				pad := geom.Within(geom.Corners(boxOf(p).Min, geom.Pt(boxOf(p).Max.X, boxOf(p).Min.Y), boxOf(p).Max, geom.Pt(boxOf(p).Min.X, boxOf(p).Max.Y)))
				var ink geom.Shape
				switch fig.Form {
				case "circle":
					ink = geom.Disc(fig.Pts[0], fig.R+fig.Width/2)
					if fig.R > units.MM/4 { // the body's own circle: only its line is printed
						continue
					}
				case "arc":
					ink = geom.Bow(geom.Piece{A: fig.Pts[0], M: fig.Pts[1], B: fig.Pts[2]}, fig.Width)
				default:
					ink = geom.Stroke(fig.Pts[0], fig.Pts[1], fig.Width)
				}
				if gap, _, _ := geom.Gap(ink, pad); gap < float64(r.Making.SilkGap)-2000 {
					t.Fatalf("%s: silk is %s from pad %s", res.Name, units.Text(int64(gap)), p.Number)
				}
			}
		}
	})
}

// Bodies that look the same when turned half around have lands that do; the first pad of a through-hole part is square.
func TestSymmetry(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		if r.Family == "transistor" {
			return
		}
		at := map[geom.Point]geom.Point{}
		for _, p := range res.Footprint.Pads {
			at[p.At] = p.Size
		}
		for p, size := range at {
			if other, ok := at[geom.Pt(-p.X, -p.Y)]; !ok || other != size {
				t.Fatalf("%s: the pad at %v has no fellow", res.Name, p)
			}
		}
	})
}

// More solder at more density: no land is smaller, and no courtyard.
func TestMonotoneInDensity(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, _ := possible(t)
		r.Making.Leave = []string{design.MakeMark} // its dot stands wherever there is room
		var last *landpattern.LandPattern
		for _, density := range []string{design.Least, design.Nominal, design.Most} {
			r.Density = density
			res, err := landpattern.Make(r)
			if err != nil {
				t.Fatal(err)
			}
			if last != nil {
				for i := range res.Footprint.Pads {
					a, b := last.Footprint.Pads[i], res.Footprint.Pads[i]
					if geom.BoxOf(geom.Point{}, geom.Pt(b.At.X*2, b.At.Y*2)).Union(boxOf(&b)) != geom.BoxOf(geom.Point{}, geom.Pt(b.At.X*2, b.At.Y*2)).Union(boxOf(&b)).Union(boxOf(&a)) && a.Hole == 0 {
						t.Fatalf("%s: pad %s reached further out at less density", res.Name, a.Number)
					}
					if b.Hole < a.Hole || b.Size.X < a.Size.X && b.Hole > 0 {
						t.Fatalf("%s: the hole or land of %s was larger at less density", res.Name, a.Number)
					}
				}
				small, large := geom.BoxOf(last.Footprint.Courtyard...), geom.BoxOf(res.Footprint.Courtyard...)
				if small.Union(large) != large {
					t.Fatalf("%s: the courtyard was larger at less density", res.Name)
				}
			}
			last = res
		}
	})
}

// A name says the dimensions it was made of, to its own precision, and which density.
func TestNamesSayTheDimensions(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		n, err := landpattern.ReadName(res.Name)
		if err != nil {
			t.Fatal(err)
		}
		if n.Family != r.Family || n.Density != r.Density {
			t.Fatalf("%s is read as %s, %s", res.Name, n.Family, n.Density)
		}
		for k, v := range n.Dims {
			if _, given := r.Dims[k]; !given { // a length that follows from others
				continue
			}
			precision := int64(5_001)
			if strings.Contains("chip moulded cylinder", r.Family) && k != "height" {
				precision = 50_001
			}
			want := r.Dims[k].Middle()
			if k == "height" {
				want = r.Dims[k].Max
			}
			if d := v - want; d > precision || d < -precision {
				t.Fatalf("%s: %s is %s and reads %s", res.Name, k, units.Text(want), units.Text(v))
			}
		}
		for k, v := range n.Counts {
			if want, given := r.Counts[k]; given && want != v {
				t.Fatalf("%s: %s is %d and reads %d", res.Name, k, want, v)
			}
		}
		numbers := map[string]bool{}
		for _, p := range res.Footprint.Pads {
			numbers[p.Number] = true
		}
		if n.Pins > 0 && n.Pins != len(numbers) {
			t.Fatalf("%s: there are %d terminals", res.Name, len(numbers))
		}
	})
}

// Every number of the table can be given, and is then what holds; without it the computed one is back.
func TestOverrides(t *testing.T) {
	for _, f := range landpattern.Families() {
		r := f.Example.Clone()
		plain := made(t, r)
		for _, e := range plain.Table {
			r.Overrides = map[string]int64{e.Key: e.Computed + 20_000}
			if e.Plain {
				r.Overrides[e.Key] = e.Computed + 1
			}
			res, err := landpattern.Make(r)
			require.NoError(t, err, "%s %s", f.ID, e.Key)
			for _, got := range res.Table {
				if got.Key == e.Key {
					assert.Equal(t, r.Overrides[e.Key], got.Used)
					assert.Equal(t, e.Computed, got.Computed)
				}
			}
			assert.NotEqual(t, shape(plain.Footprint), shape(res.Footprint), "%s: %s changes nothing", f.ID, e.Key)
			assert.Equal(t, r.Overrides, res.Footprint.Recipe.Overrides)
		}
	}
}

func shape(f *design.Footprint) any { return []any{f.Pads, f.Courtyard} }

// What a recipe leaves out is not there; all else is.
func TestWhatIsMade(t *testing.T) {
	for _, f := range landpattern.Families() {
		r := f.Example.Clone()
		whole := made(t, r).Footprint
		assert.NotEmpty(t, whole.Silk, f.ID)
		assert.NotEmpty(t, whole.Body, f.ID)
		assert.Len(t, whole.Courtyard, 4, f.ID)
		assert.NotEmpty(t, whole.Solids, f.ID)
		r.Making.Leave = []string{design.MakeSilk, design.MakeMark}
		assert.Empty(t, made(t, r).Footprint.Silk, f.ID)
		r.Making.Leave = []string{design.MakeOutline}
		assert.Empty(t, made(t, r).Footprint.Body, f.ID)
		r.Making.Leave = []string{design.MakeCourtyard}
		assert.Empty(t, made(t, r).Footprint.Courtyard, f.ID)
		r.Making.Leave = []string{design.MakeBody}
		assert.Empty(t, made(t, r).Footprint.Solids, f.ID)
	}
}

// The mark of pin 1 is nearer to it than to any other pad, and is seen when the part is on the board.
func TestMarkTellsPinOne(t *testing.T) {
	for _, id := range []string{"gullTwo", "noLeadTwo", "gullFour", "noLeadFour", "jLeadFour", "dualInline", "ballGrid", "pinGrid", "header", "circular", "transistor"} {
		r := landpattern.FamilyOf(id).Example.Clone()
		f := made(t, r).Footprint
		r.Making.Leave = []string{design.MakeMark}
		require.Len(t, f.Silk, len(made(t, r).Footprint.Silk)+1, id)
		dot := f.Silk[len(f.Silk)-1]
		require.Equal(t, "circle", dot.Form, id)
		near, least := "", 1e18
		for _, p := range f.Pads {
			if d := p.At.Dist(dot.Pts[0]); d < least {
				near, least = p.Number, d
			}
		}
		assert.Contains(t, []string{"1", "A1"}, near, id)
		for _, s := range f.Solids {
			if s.Material == "body" || s.Material == "socket" || s.Material == "ceramic" {
				assert.False(t, geom.BoxOf(geom.Named(s.Edge)...).Holds(dot.Pts[0]), "%s: the mark lies under the body", id)
			}
		}
	}
}
