package landpattern_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// What cannot be is refused from its limit on, and made a micrometre before it.
func TestLimitsOfBodies(t *testing.T) {
	set := func(key string, least, most float64) func(*design.Recipe) {
		return func(r *design.Recipe) { r.Dims[key] = mm(least, most) }
	}
	both := func(change ...func(*design.Recipe)) func(*design.Recipe) {
		return func(r *design.Recipe) {
			for _, c := range change {
				c(r)
			}
		}
	}
	counts := func(key string, n int) func(*design.Recipe) { return func(r *design.Recipe) { r.Counts[key] = n } }
	choose := func(key, v string) func(*design.Recipe) {
		return func(r *design.Recipe) { r.Choices = map[string]string{key: v} }
	}
	for _, c := range []struct {
		family, dim string
		can, cannot func(r *design.Recipe)
	}{
		// two terminals of 0.75 mm fill 1.5 mm
		{"chip", "terminal", set("terminal", 0.2, 0.749), set("terminal", 0.2, 0.75)},
		{"chip", "height", set("height", 0.000001, 0.5), set("height", 0, 0.5)},
		{"chip", "height", set("height", 499, 500), set("height", 499, 500.001)},
		{"moulded", "leadWidth", set("leadWidth", 1.8, 1.9), set("leadWidth", 1.801, 1.9)},
		{"gullTwo", "span", set("bodyWidth", 5.7, 5.799), set("bodyWidth", 5.7, 5.8)},
		{"gullTwo", "leadWidth", set("leadWidth", 1.1, 1.269), set("leadWidth", 1.1, 1.27)},
		// four leads at 1.27 mm take 3.81 mm and a lead's least width
		{"gullTwo", "pitch", both(set("leadWidth", 0.3, 0.5), set("bodyLength", 4, 4.11)), both(set("leadWidth", 0.3, 0.5), set("bodyLength", 4, 4.109))},
		{"gullTwo", "pins", counts("pins", 4), counts("pins", 3)},
		{"gullTwo", "pins", both(counts("pins", 100), set("bodyLength", 63, 64)), both(counts("pins", 101), set("bodyLength", 63, 64))},
		{"noLeadTwo", "thermalLength", set("thermalLength", 2, 3.1), set("thermalLength", 2, 3.101)},
		{"gullFour", "spanX", set("bodyX", 8, 8.799), set("bodyX", 8, 8.8)},
		{"transistor", "span", set("bodyWidth", 2, 2.099), set("bodyWidth", 2, 2.1)},
		// tab and lead together against 2.1 mm
		{"transistor", "tabLength", both(choose("leads", "3+tab"), set("tabWidth", 1, 1.2), set("tabLength", 1, 1.499)),
			both(choose("leads", "3+tab"), set("tabWidth", 1, 1.2), set("tabLength", 1, 1.5))},
		// half of 1.39 and half of 0.51 mm are 0.95 mm, the pitch
		{"transistor", "wideWidth", both(choose("leads", "2+2 wide"), set("wideWidth", 0.8, 1.388)),
			both(choose("leads", "2+2 wide"), set("wideWidth", 0.8, 1.39))},
		{"ballGrid", "ball", set("ball", 0.4, 0.799), set("ball", 0.4, 0.8)},
		// nine balls at 0.8 mm take 6.4 mm and a ball's least diameter
		{"ballGrid", "pitch", set("bodyX", 6, 6.8), set("bodyX", 6, 6.799)},
		{"ballGrid", "pitch", set("bodyY", 6, 6.8), set("bodyY", 6, 6.799)},
		{"header", "pin", both(set("pin", 0.6, 2.539), set("bodyWidth", 2.4, 2.6)), both(set("pin", 0.6, 2.54), set("bodyWidth", 2.4, 2.6))},
		// two rows 2.54 mm apart and a pin's least side
		{"header", "bodyWidth", both(counts("rows", 2), set("bodyWidth", 3, 3.16)), both(counts("rows", 2), set("bodyWidth", 3, 3.159))},
		{"axial", "lead", set("lead", 0.6, 2.499), set("lead", 0.6, 2.5)},
		{"axial", "span", set("span", 6.5, 6.5), set("span", 6.499, 6.5)},
		{"radial", "lead", set("lead", 0.4, 1.999), set("lead", 0.4, 2)},
		{"circular", "circle", set("circle", 5, 9.399), set("circle", 5, 9.4)},
		{"circular", "places", counts("places", 8), counts("places", 7)},
		// eight places on 5.08 mm: a chord of 5.08 · sin 22.5° = 1.94404 mm
		{"circular", "lead", set("lead", 0.4, 1.944), set("lead", 0.4, 1.945)},
	} {
		r := landpattern.FamilyOf(c.family).Example.Clone()
		c.can(r)
		_, err := landpattern.Make(r)
		assert.NoError(t, err, "%s: %s", c.family, c.dim)
		r = landpattern.FamilyOf(c.family).Example.Clone()
		c.cannot(r)
		_, err = landpattern.Make(r)
		var no *landpattern.Impossible
		if assert.ErrorAs(t, err, &no, "%s: %s", c.family, c.dim) {
			assert.Equal(t, c.dim, no.Dim, no.Text)
		}
	}
}

// A body that cannot be made is drawn all the same, so that its dimensions can be mended where they stand.
func TestImpossibleBodiesAreDrawn(t *testing.T) {
	r := landpattern.FamilyOf("gullTwo").Example.Clone()
	r.Dims["bodyWidth"] = mm(6, 7)
	_, err := landpattern.Make(r)
	require.Error(t, err)
	views, err := landpattern.Drawing(r)
	require.NoError(t, err)
	assert.Len(t, views, 2)
	assert.Len(t, views[0].Dims, 6)
}

// The tables change where the standard says: leads up to 0.625 mm apart have less solder at their sides (0.03 and -0.02 mm, tables 3-2 and
// 3-3), chips shorter than 1.6 mm less at their ends (0.35 and 0.20 mm), cans above 10 mm more (0.5 and 0.7 mm).
func TestWhereTheTablesChange(t *testing.T) {
	at := func(family, key string, least, most float64, change func(*design.Recipe)) *landpattern.LandPattern {
		r := landpattern.FamilyOf(family).Example.Clone()
		r.Dims[key] = mm(least, most)
		if change != nil {
			change(r)
		}
		return made(t, r)
	}
	slim := func(r *design.Recipe) { r.Dims["leadWidth"] = mm(0.2, 0.3) }
	for _, family := range []string{"gullTwo", "transistor", "gullFour"} {
		fine, coarse := at(family, "pitch", 0.625, 0.625, slim), at(family, "pitch", 0.626, 0.626, func(r *design.Recipe) {
			slim(r)
			if family == "gullFour" {
				r.Dims["bodyX"], r.Dims["bodyY"] = mm(7.4, 7.6), mm(7.4, 7.6)
			}
		})
		assert.Equal(t, units.MMf(-0.02), fine.Joints[0].Goal[2], family)
		assert.Equal(t, units.MMf(0.03), coarse.Joints[0].Goal[2], family)
	}
	assert.Equal(t, units.MMf(0.35), at("chip", "length", 1.5, 1.7, nil).Joints[0].Goal[0])
	assert.Equal(t, units.MMf(0.2), at("chip", "length", 1.5, 1.699998, nil).Joints[0].Goal[0])
	assert.Equal(t, units.MMf(0.5), at("can", "height", 9, 10, nil).Joints[0].Goal[0])
	assert.Equal(t, units.MMf(0.7), at("can", "height", 9, 10.001, nil).Joints[0].Goal[0])
}

// Vias lie in the land below in a grid about its middle, as many as fit with their own lands; where not one fits, that is said.
func TestViasInTheLandBelow(t *testing.T) {
	grid := func(wide, long float64, overrides map[string]int64) (at []geom.Point, res *landpattern.LandPattern) {
		r := landpattern.FamilyOf("noLeadFour").Example.Clone()
		r.Choices = map[string]string{"vias": "grid"}
		r.Dims["thermalWidth"], r.Dims["thermalLength"], r.Overrides = mm(wide-0.1, wide), mm(long-0.1, long), overrides
		res = made(t, r)
		for _, p := range res.Footprint.Pads {
			if p.Hole > 0 {
				at = append(at, p.At)
			}
		}
		return at, res
	}
	at, _ := grid(1.8, 2.99, nil) // 1.8 mm just holds two (1.2 + 0.6), 2.99 mm no third
	assert.ElementsMatch(t, []geom.Point{geom.Pt(-600_000, -600_000), geom.Pt(-600_000, 600_000), geom.Pt(600_000, -600_000), geom.Pt(600_000, 600_000)}, at)
	at, _ = grid(1.79, 3, nil)
	assert.ElementsMatch(t, []geom.Point{geom.Pt(0, -1_200_000), geom.Pt(0, 0), geom.Pt(0, 1_200_000)}, at)
	at, res := grid(0.6, 0.6, nil)
	assert.Equal(t, []geom.Point{geom.Pt(0, 0)}, at)
	assert.NotContains(t, res.Notes, "The land below is too small for vias of 0.6 mm.")
	for _, small := range [][2]float64{{0.59, 2}, {2, 0.59}} {
		at, res = grid(small[0], small[1], nil)
		assert.Empty(t, at)
		assert.Contains(t, res.Notes, "The land below is too small for vias of 0.6 mm.")
	}
	for _, key := range []string{"viaHole", "viaLand", "viaPitch"} {
		at, _ = grid(3, 3, map[string]int64{key: 0})
		assert.Empty(t, at, "no vias without %s", key)
	}
	// paste in windows of about 1.2 mm: 1.79 mm have one, 1.8 mm two, and ten at most
	for size, want := range map[float64]int{0.3: 1, 1.79: 1, 1.8: 4, 3.0: 9} {
		_, res = grid(size, size, nil)
		for _, p := range res.Footprint.Pads {
			if p.Number == "33" && p.Hole == 0 {
				assert.Len(t, p.Paste.Windows, want, "%g mm", size)
			}
		}
	}
}

// Missing leads do not count in a name; an exposed pad does.
func TestNamesCountTerminals(t *testing.T) {
	for _, c := range []struct {
		family  string
		missing []string
		ends    string
	}{
		{"gullTwo", []string{"3"}, "-7N"}, {"noLeadTwo", nil, "-9N"}, {"noLeadTwo", []string{"2", "5"}, "-7N"},
		{"noLeadFour", []string{"1"}, "-32N"}, {"gullFour", []string{"1", "2"}, "-46N"}, {"dualInline", []string{"4"}, "Q7B"}, {"transistor", []string{"2"}, "-2N"},
		{"circular", []string{"8"}, "-8X7B"},
	} {
		r := landpattern.FamilyOf(c.family).Example.Clone()
		r.Missing = c.missing
		assert.Regexp(t, c.ends+"$", made(t, r).Name, c.family)
	}
	r := landpattern.FamilyOf("header").Example.Clone()
	r.Missing = []string{"2"}
	assert.Contains(t, made(t, r).Name, "HDRV5W")
}

// Numbers of a header run across the rows, along each row, or along one and back along the other.
func TestOrdersOfHeaders(t *testing.T) {
	place := func(order string) map[string]geom.Point {
		r := landpattern.FamilyOf("header").Example.Clone()
		r.Counts, r.Choices = map[string]int{"positions": 3, "rows": 2}, map[string]string{"order": order}
		r.Dims["bodyWidth"] = mm(4.9, 5.1)
		out := map[string]geom.Point{}
		for _, p := range made(t, r).Footprint.Pads {
			out[p.Number] = p.At
		}
		return out
	}
	at := func(x, y int64) geom.Point { return geom.Pt(x*2_540_000, y*2_540_000/2) }
	assert.Equal(t, map[string]geom.Point{"1": at(-1, 1), "2": at(-1, -1), "3": at(0, 1), "4": at(0, -1), "5": at(1, 1), "6": at(1, -1)}, place("across"))
	assert.Equal(t, map[string]geom.Point{"1": at(-1, 1), "2": at(0, 1), "3": at(1, 1), "4": at(-1, -1), "5": at(0, -1), "6": at(1, -1)}, place("along"))
	assert.Equal(t, map[string]geom.Point{"1": at(-1, 1), "2": at(0, 1), "3": at(1, 1), "4": at(1, -1), "5": at(0, -1), "6": at(-1, -1)}, place("around"))
}

// Leads of a body on the board: one box a pad, as long and wide as a foot, its outer end where the distance over the leads says; all of the body
// is as wide over all as the drawing shows.
func TestLeadsInSpace(t *testing.T) {
	for _, c := range []struct{ family, x, y, body string }{
		{"gullTwo", "span", "bodyLength", ""}, {"jLeadTwo", "span", "bodyLength", ""}, {"noLeadTwo", "bodyWidth", "bodyLength", ""},
		{"gullFour", "spanX", "spanY", ""}, {"jLeadFour", "spanX", "spanY", ""}, {"noLeadFour", "bodyX", "bodyY", ""}, {"transistor", "span", "bodyLength", ""},
	} {
		r := landpattern.FamilyOf(c.family).Example.Clone()
		f := made(t, r).Footprint
		var all geom.Extent
		long, wide, feet := r.Dims["leadLength"].Middle(), r.Dims["leadWidth"].Middle(), map[geom.Point]bool{}
		for _, s := range f.Solids {
			b := boxOfSolid(s)
			all.AddBox(b)
			if s.Material != "lead" || s.From != 0 {
				continue
			}
			size := geom.Pt(b.Max.X-b.Min.X, b.Max.Y-b.Min.Y)
			lying := near(size.X, long) && near(size.Y, wide) && (near(b.Max.X, r.Dims[c.x].Middle()/2) || near(-b.Min.X, r.Dims[c.x].Middle()/2))
			standing := near(size.X, wide) && near(size.Y, long) && (near(b.Max.Y, r.Dims[c.y].Middle()/2) || near(-b.Min.Y, r.Dims[c.y].Middle()/2))
			if lying || standing {
				feet[b.Centre()] = true
				assert.LessOrEqual(t, s.To, int64(200_000), "%s: a foot is thin", c.family)
			}
		}
		want := len(f.Pads)
		if _, has := r.Dims["thermalLength"]; has {
			want--
		}
		assert.Len(t, feet, want, c.family)
		for at := range feet {
			on := false
			for i := range f.Pads {
				on = on || boxOf(&f.Pads[i]).Holds(at)
			}
			assert.True(t, on, "%s: the foot at %v stands on no pad", c.family, at)
		}
		assert.InDelta(t, r.Dims[c.x].Middle(), all.Box.Max.X-all.Box.Min.X, 2, c.family)
		assert.InDelta(t, r.Dims[c.y].Middle(), all.Box.Max.Y-all.Box.Min.Y, 2, c.family)
	}
}
