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

// mm makes a span from millimetres.
func mm(least, most float64) design.Range {
	return design.Range{Min: units.MMf(least), Max: units.MMf(most)}
}

func recipe(family string, dims map[string]design.Range) *design.Recipe {
	r := &design.Recipe{Family: family, Dims: dims, Density: design.Nominal, Making: design.UsualMaking()}
	r.Making.Gap = 150_000
	return r
}

func made(t *testing.T, r *design.Recipe) *landpattern.LandPattern {
	t.Helper()
	res, err := landpattern.Make(r)
	require.NoError(t, err)
	return res
}

func used(t *testing.T, res *landpattern.LandPattern, key string) float64 {
	t.Helper()
	for _, e := range res.Table {
		if e.Key == key {
			return float64(e.Used) / 1e6
		}
	}
	t.Fatalf("there is no %s in the table", key)
	return 0
}

// Each case was worked by hand with the standard's equations, F = P = 0.05 mm, so that F² + P² = 0.005. Tolerances are
// written CL, CT, CW; the inner distance S has the worst-case tolerance CL + 2·CT and the used one CS = √(CL² + 2·CT²), and
// Smax' = Smax − (CL + 2·CT − CS)/2. Z and G are rounded to 0.02 mm, X to 0.01 mm; a pad is (Z − G)/2 long, the middles
// of a pair (Z + G)/2 apart.
func TestLandsWorkedByHand(t *testing.T) {
	for _, c := range []struct {
		name                string
		of                  *design.Recipe
		length, width, span float64
	}{
		{
			// L 1.5–1.7, T 0.2–0.5, W 0.7–0.9; toe 0.35, heel 0, side 0 (table 3-5)
			// Z = 1.5 + 0.7 + √(0.04 + 0.005) = 2.4121 → 2.42
			// CS = √(0.04 + 0.18) = 0.4690; Smax = 1.7 − 0.4 = 1.3, less (0.8 − 0.4690)/2: 1.1345
			// G = 1.1345 − √(0.22 + 0.005) = 0.6602 → 0.66; X = 0.7 + 0.2121 = 0.9121 → 0.91
			"chip 1608", recipe("chip", map[string]design.Range{"length": mm(1.5, 1.7), "terminal": mm(0.2, 0.5), "width": mm(0.7, 0.9),
				"height": mm(0.4, 0.55)}),
			0.88, 0.91, 1.54,
		},
		{
			// L 0.95–1.05, T 0.15–0.35, W 0.45–0.55; toe 0.2 (table 3-6, below 1608)
			// Z = 0.95 + 0.4 + √(0.01 + 0.005) = 1.4725 → 1.48
			// CS = √(0.01 + 0.08) = 0.3; Smax' = 1.05 − 0.3 − (0.5 − 0.3)/2 = 0.65
			// G = 0.65 − √(0.09 + 0.005) = 0.3418 → 0.34; X = 0.45 + 0.1225 = 0.5725 → 0.57
			"chip 1005", recipe("chip", map[string]design.Range{"length": mm(0.95, 1.05), "terminal": mm(0.15, 0.35),
				"width": mm(0.45, 0.55), "height": mm(0.3, 0.4)}),
			0.57, 0.57, 0.91,
		},
		{
			// L 7.1–7.5, T 1.2–1.4, W 2.3–2.5; toe 0.15, heel 0.5, side −0.05 (table 3-13, inward L)
			// Z = 7.1 + 0.3 + √(0.16 + 0.005) = 7.8062 → 7.80
			// CS = √(0.16 + 0.08) = 0.4899; Smax' = 7.5 − 2.4 − (0.8 − 0.4899)/2 = 4.9449
			// G = 4.9449 − 1 − √(0.24 + 0.005) = 3.4500 → 3.44 or 3.46, the nearest of 3.44995 is 3.44; X = 2.3 − 0.1 + √(0.045) = 2.4121 → 2.41
			"moulded 7343", recipe("moulded", map[string]design.Range{"length": mm(7.1, 7.5), "terminal": mm(1.2, 1.4),
				"width": mm(4.1, 4.5), "leadWidth": mm(2.3, 2.5), "height": mm(2.7, 2.9)}),
			2.18, 2.41, 5.62,
		},
		{
			// L 3.3–3.7, T 0.3–0.5, ⌀ 1.3–1.5; toe 0.4, heel 0.1, side 0.05 (table 3-7)
			// Z = 3.3 + 0.8 + √(0.16 + 0.005) = 4.5062 → 4.50
			// CS = √(0.16 + 0.08) = 0.4899; Smax' = 3.7 − 0.6 − (0.8 − 0.4899)/2 = 2.9449
			// G = 2.9449 − 0.2 − 0.4950 = 2.2500 → 2.24 (2.24997); X = 1.3 + 0.1 + 0.2121 = 1.6121 → 1.61
			"cylinder", recipe("cylinder", map[string]design.Range{"length": mm(3.3, 3.7), "terminal": mm(0.3, 0.5), "diameter": mm(1.3, 1.5)}),
			1.13, 1.61, 3.37,
		},
		{
			// L 6.8–7.3, T 1.8–2.4, W 0.5–0.8, below 10 mm high; toe 0.5, heel −0.1, side 0.4 (table 3-20)
			// Z = 6.8 + 1 + √(0.25 + 0.005) = 8.3050 → 8.30
			// CS = √(0.25 + 0.72) = 0.9849; Smax' = 7.3 − 3.6 − (1.7 − 0.9849)/2 = 3.3424
			// G = 3.3424 + 0.2 − √(0.97 + 0.005) = 2.5550 → 2.56; X = 0.5 + 0.8 + √(0.095) = 1.6082 → 1.61
			"can", recipe("can", map[string]design.Range{"base": mm(6.4, 6.8), "span": mm(6.8, 7.3), "terminal": mm(1.8, 2.4),
				"leadWidth": mm(0.5, 0.8), "height": mm(5.2, 5.7)}),
			2.87, 1.61, 5.43,
		},
		{
			// the same, above 10 mm high; toe 0.7, heel −0.05, side 0.5 (table 3-21)
			// Z = 6.8 + 1.4 + 0.5050 = 8.7050 → 8.70; G = 3.3424 + 0.1 − 0.9874 = 2.4550 → 2.46; X = 0.5 + 1 + 0.3082 = 1.8082 → 1.81
			"tall can", recipe("can", map[string]design.Range{"base": mm(6.4, 6.8), "span": mm(6.8, 7.3), "terminal": mm(1.8, 2.4),
				"leadWidth": mm(0.5, 0.8), "height": mm(10.2, 10.7)}),
			3.12, 1.81, 5.58,
		},
		{
			// L 5.8–6.2, T 0.4–1.27, W 0.31–0.51, pitch 1.27; toe 0.35, heel 0.35, side 0.03 (table 3-2)
			// Z = 5.8 + 0.7 + √(0.16 + 0.005) = 6.9062 → 6.90
			// CS = √(0.16 + 1.5138) = 1.2938; Smax' = 6.2 − 0.8 − (2.14 − 1.2938)/2 = 4.9769
			// G = 4.9769 − 0.7 − √(1.6788) = 2.9812 → 2.98; X = 0.31 + 0.06 + √(0.045) = 0.5821 → 0.58
			"two gull-wing rows", recipe("gullTwo", map[string]design.Range{"span": mm(5.8, 6.2), "leadLength": mm(0.4, 1.27),
				"leadWidth": mm(0.31, 0.51), "pitch": mm(1.27, 1.27), "bodyWidth": mm(3.8, 4), "bodyLength": mm(4.8, 5), "height": mm(1.35, 1.75)}),
			1.96, 0.58, 4.94,
		},
		{
			// L 6.2–6.6, T 0.5–0.7, W 0.19–0.3, pitch 0.65, so still table 3-2: side 0.03
			// Z = 6.2 + 0.7 + 0.4062 = 7.3062 → 7.30; CS = √(0.16 + 0.08) = 0.4899; Smax' = 6.6 − 1 − (0.8 − 0.4899)/2 = 5.4449
			// G = 5.4449 − 0.7 − 0.4950 = 4.2500 → 4.24 (4.24997); X = 0.19 + 0.06 + √(0.0121 + 0.005) = 0.3808 → 0.38
			"two fine gull-wing rows", recipe("gullTwo", map[string]design.Range{"span": mm(6.2, 6.6), "leadLength": mm(0.5, 0.7),
				"leadWidth": mm(0.19, 0.3), "pitch": mm(0.65, 0.65), "bodyWidth": mm(4.3, 4.5), "bodyLength": mm(4.9, 5.1), "height": mm(1, 1.2)}),
			1.53, 0.38, 5.77,
		},
		{
			// body 2.9–3.1, T 0.3–0.5, W 0.25–0.35; toe 0.3, heel 0, side −0.04 (table 3-16)
			// Z = 2.9 + 0.6 + √(0.04 + 0.005) = 3.7121 → 3.72; CS = √(0.04 + 0.08) = 0.3464; Smax' = 3.1 − 0.6 − (0.6 − 0.3464)/2 = 2.3732
			// G = 2.3732 − √(0.125) = 2.0197 → 2.02; X = 0.25 − 0.08 + √(0.015) = 0.2925 → 0.29
			"two rows without leads", recipe("noLeadTwo", map[string]design.Range{"bodyWidth": mm(2.9, 3.1), "bodyLength": mm(2.9, 3.1),
				"leadLength": mm(0.3, 0.5), "leadWidth": mm(0.25, 0.35), "pitch": mm(0.65, 0.65), "height": mm(0.7, 0.8)}),
			0.85, 0.29, 2.87,
		},
		{
			// L 8.51–8.76, T 1.7–2.1, W 0.38–0.51; outside 0.35, inside 0, side 0.03 (table 3-4)
			// Z = 8.51 + 0.7 + √(0.0625 + 0.005) = 9.4698 → 9.46 (9.4698/0.02 = 473.49); CS = √(0.0625 + 0.32) = 0.6185
			// Smax' = 8.76 − 3.4 − (1.05 − 0.6185)/2 = 5.1442; G = 5.1442 − √(0.3875) = 4.5217 → 4.52; X = 0.38 + 0.06 + √(0.0219) = 0.5880 → 0.59
			"two rows of J leads", recipe("jLeadTwo", map[string]design.Range{"span": mm(8.51, 8.76), "leadLength": mm(1.7, 2.1),
				"leadWidth": mm(0.38, 0.51), "pitch": mm(1.27, 1.27), "bodyWidth": mm(7.5, 7.75), "bodyLength": mm(12.7, 12.95),
				"height": mm(3.25, 3.76)}),
			2.47, 0.59, 6.99,
		},
		{
			// L 8.8–9.2, T 0.45–0.75, W 0.17–0.27, pitch 0.5; toe 0.35, heel 0.35, side −0.02 (table 3-3)
			// Z = 8.8 + 0.7 + 0.4062 = 9.9062 → 9.90; CS = √(0.16 + 0.18) = 0.5831; Smax' = 9.2 − 0.9 − (1 − 0.5831)/2 = 8.0915
			// G = 8.0915 − 0.7 − √(0.345) = 6.8042 → 6.80; X = 0.17 − 0.04 + √(0.015) = 0.2525 → 0.25
			"four gull-wing sides", recipe("gullFour", map[string]design.Range{"spanX": mm(8.8, 9.2), "spanY": mm(8.8, 9.2),
				"bodyX": mm(6.9, 7.1), "bodyY": mm(6.9, 7.1), "leadLength": mm(0.45, 0.75), "leadWidth": mm(0.17, 0.27), "pitch": mm(0.5, 0.5),
				"height": mm(1.4, 1.6)}),
			1.55, 0.25, 8.35,
		},
		{
			// body 4.9–5.1, T 0.3–0.5, W 0.18–0.3; toe 0.3, side −0.04 (table 3-15)
			// Z = 4.9 + 0.6 + 0.2121 = 5.7121 → 5.72; Smax' = 5.1 − 0.6 − 0.1268 = 4.3732; G = 4.3732 − 0.3536 = 4.0197 → 4.02
			// X = 0.18 − 0.08 + √(0.0144 + 0.005) = 0.2393 → 0.24
			"four sides without leads", recipe("noLeadFour", map[string]design.Range{"bodyX": mm(4.9, 5.1), "bodyY": mm(4.9, 5.1),
				"leadLength": mm(0.3, 0.5), "leadWidth": mm(0.18, 0.3), "pitch": mm(0.5, 0.5), "height": mm(0.8, 1)}),
			0.85, 0.24, 4.87,
		},
		{
			// L 9.78–10.03, T 1.5–2, W 0.33–0.53; outside 0.35, inside 0, side 0.03
			// Z = 9.78 + 0.7 + √(0.0675) = 10.7398 → 10.74; CS = √(0.0625 + 0.5) = 0.75; Smax' = 10.03 − 3 − (1.25 − 0.75)/2 = 6.78
			// G = 6.78 − √(0.5675) = 6.0267 → 6.02 (6.0267/0.02 = 301.33); X = 0.33 + 0.06 + √(0.045) = 0.6021 → 0.60
			"four sides of J leads", recipe("jLeadFour", map[string]design.Range{"spanX": mm(9.78, 10.03), "spanY": mm(9.78, 10.03),
				"bodyX": mm(8.89, 9.04), "bodyY": mm(8.89, 9.04), "leadLength": mm(1.5, 2), "leadWidth": mm(0.33, 0.53),
				"pitch": mm(1.27, 1.27), "height": mm(4.2, 4.57)}),
			2.36, 0.6, 8.38,
		},
		{
			// L 2.1–2.64, T 0.4–0.6, W 0.3–0.51, pitch 0.95; toe 0.35, heel 0.35, side 0.03
			// Z = 2.1 + 0.7 + √(0.2916 + 0.005) = 3.3446 → 3.34; CS = √(0.2916 + 0.08) = 0.6096; Smax' = 2.64 − 0.8 − (0.94 − 0.6096)/2 = 1.6748
			// G = 1.6748 − 0.7 − √(0.3766) = 0.3611 → 0.36; X = 0.3 + 0.06 + √(0.0491) = 0.5816 → 0.58
			"transistor", recipe("transistor", map[string]design.Range{"span": mm(2.1, 2.64), "leadLength": mm(0.4, 0.6),
				"leadWidth": mm(0.3, 0.51), "pitch": mm(0.95, 0.95), "bodyWidth": mm(1.2, 1.4), "bodyLength": mm(2.8, 3.04), "height": mm(0.89, 1.12)}),
			1.49, 0.58, 1.85,
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			res := made(t, c.of)
			assert.InDelta(t, c.length, used(t, res, "padLength"), 1e-9, "length")
			assert.InDelta(t, c.width, used(t, res, "padWidth"), 1e-9, "width")
			assert.InDelta(t, c.span, used(t, res, "padSpan"), 1e-9, "distance")
			p := res.Footprint.Pads[0]
			assert.Equal(t, geom.Pt(units.MMf(c.length), units.MMf(c.width)), p.Size)
			assert.Equal(t, -units.MMf(c.span)/2, p.At.X)
		})
	}
}

// Densities: the fillets change by the standard's steps. Of the chip 1608 above, most: toe 0.55, side 0.05, so Z = 1.5 + 1.1 +
// 0.2121 = 2.8121 → 2.82, X = 1.0121 → 1.01; least: toe 0.15, side −0.05, so Z = 2.0121 → 2.02, X = 0.8121 → 0.81. G stays 0.66.
func TestDensitiesWorkedByHand(t *testing.T) {
	for density, want := range map[string][3]float64{design.Most: {1.08, 1.01, 1.74}, design.Least: {0.68, 0.81, 1.34}} {
		r := recipe("chip", map[string]design.Range{"length": mm(1.5, 1.7), "terminal": mm(0.2, 0.5), "width": mm(0.7, 0.9),
			"height": mm(0.4, 0.55)})
		r.Density = density
		res := made(t, r)
		assert.InDeltaSlice(t, want[:], []float64{used(t, res, "padLength"), used(t, res, "padWidth"), used(t, res, "padSpan")}, 1e-9, density)
	}
}

// Tolerances of board and machine widen the lands: with F = 0.1 and P = 0.2, F² + P² = 0.05, so of the chip
// 1608 Z = 2.2 + √(0.09) = 2.5, G = 1.1345 − √(0.27) = 0.6149 → 0.62 (30.7), X = 0.7 + 0.3 = 1.
func TestTolerancesWorkedByHand(t *testing.T) {
	r := recipe("chip", map[string]design.Range{"length": mm(1.5, 1.7), "terminal": mm(0.2, 0.5), "width": mm(0.7, 0.9),
		"height": mm(0.4, 0.55)})
	r.Making.Fabrication, r.Making.Placement = units.MMf(0.1), units.MMf(0.2)
	res := made(t, r)
	assert.InDelta(t, 0.94, used(t, res, "padLength"), 1e-9)
	assert.InDelta(t, 1, used(t, res, "padWidth"), 1e-9)
	assert.InDelta(t, 1.56, used(t, res, "padSpan"), 1e-9)
}

// Holes: the lead at its thickest and 0.25, 0.2 or 0.15 mm, up to 0.05 mm; lands: the hole, twice a ring of 0.05 mm and 0.6, 0.5 or 0.4 mm.
func TestHolesWorkedByHand(t *testing.T) {
	for _, c := range []struct {
		name       string
		of         *design.Recipe
		density    string
		hole, land float64
	}{
		// 0.65 + 0.2 = 0.85; 0.85 + 0.1 + 0.5 = 1.45
		{"axial", recipe("axial", map[string]design.Range{"bodyLength": mm(6, 6.5), "diameter": mm(2.2, 2.5), "lead": mm(0.55, 0.65)}),
			design.Nominal, 0.85, 1.45},
		// 0.65 + 0.25 = 0.9; 0.9 + 0.1 + 0.6 = 1.6
		{"axial", recipe("axial", map[string]design.Range{"bodyLength": mm(6, 6.5), "diameter": mm(2.2, 2.5), "lead": mm(0.55, 0.65)}),
			design.Most, 0.9, 1.6},
		// 0.65 + 0.15 = 0.8; 0.8 + 0.1 + 0.4 = 1.3
		{"axial", recipe("axial", map[string]design.Range{"bodyLength": mm(6, 6.5), "diameter": mm(2.2, 2.5), "lead": mm(0.55, 0.65)}),
			design.Least, 0.8, 1.3},
		// a flat lead turns in its hole: √(0.51² + 0.3²) = 0.5917, + 0.2 = 0.7917 → 0.8; + 0.6 = 1.4
		{"two rows", recipe("dualInline", map[string]design.Range{"span": mm(7.62, 7.62), "bodyWidth": mm(6.1, 6.6),
			"bodyLength": mm(9, 9.6), "pitch": mm(2.54, 2.54), "leadWidth": mm(0.41, 0.51), "leadThickness": mm(0.2, 0.3),
			"height": mm(4.5, 5.08)}), design.Nominal, 0.8, 1.4},
		// a square pin: 0.66·√2 = 0.9334, + 0.2 = 1.1334 → 1.15; + 0.6 = 1.75
		{"header", recipe("header", map[string]design.Range{"pitch": mm(2.54, 2.54), "pin": mm(0.62, 0.66), "bodyWidth": mm(2.4, 2.54),
			"height": mm(8.3, 8.7)}), design.Nominal, 1.15, 1.75},
		// 0.55 + 0.2 = 0.75; + 0.6 = 1.35
		{"radial", recipe("radial", map[string]design.Range{"span": mm(5, 5), "lead": mm(0.45, 0.55), "length": mm(9.8, 10.2),
			"height": mm(12, 13)}), design.Nominal, 0.75, 1.35},
		// 0.48 + 0.2 = 0.68 → 0.7; + 0.6 = 1.3
		{"circular", recipe("circular", map[string]design.Range{"circle": mm(5.08, 5.08), "lead": mm(0.41, 0.48),
			"diameter": mm(8.9, 9.4), "height": mm(4.2, 4.7)}), design.Nominal, 0.7, 1.3},
		// 0.51 + 0.2 = 0.71 → 0.75; + 0.6 = 1.35
		{"grid of pins", recipe("pinGrid", map[string]design.Range{"bodyX": mm(27, 27.4), "bodyY": mm(27, 27.4), "pitch": mm(2.54, 2.54),
			"pin": mm(0.43, 0.51), "height": mm(3.5, 4)}), design.Nominal, 0.75, 1.35},
		// at a pitch of 1.27 mm: 0.43·√2 = 0.6082 → 0.85; 1.45 would leave less than 0.15 mm: 1.12
		{"fine header", recipe("header", map[string]design.Range{"pitch": mm(1.27, 1.27), "pin": mm(0.4, 0.43), "bodyWidth": mm(2, 2.2),
			"height": mm(4, 4.4)}), design.Nominal, 0.85, 1.12},
	} {
		t.Run(c.name, func(t *testing.T) {
			c.of.Density = c.density
			res := made(t, c.of)
			assert.InDelta(t, c.hole, used(t, res, "hole"), 1e-9)
			assert.InDelta(t, c.land, used(t, res, "padDiameter"), 1e-9)
			for _, p := range res.Footprint.Pads {
				assert.Equal(t, units.MMf(c.hole), p.Hole)
				assert.Equal(t, units.MMf(c.land), p.Size.X)
			}
		})
	}
}

// Leads of axial parts are straight for 0.8 mm, then bent about their own diameter: 6.5 + 2·(0.8 + 0.65 + 0.325) = 10.05, up
// to the next multiple of 2.54 mm: 10.16.
func TestAxialSpanWorkedByHand(t *testing.T) {
	r := recipe("axial", map[string]design.Range{"bodyLength": mm(6, 6.5), "diameter": mm(2.2, 2.5), "lead": mm(0.55, 0.65)})
	assert.InDelta(t, 10.16, used(t, made(t, r), "padSpan"), 1e-9)
	r.Dims["bodyLength"] = mm(6, 6.62) // 10.17
	assert.InDelta(t, 12.7, used(t, made(t, r), "padSpan"), 1e-9)
	r.Dims["span"] = mm(15, 15)
	assert.InDelta(t, 15, used(t, made(t, r), "padSpan"), 1e-9)
}

// Lands of balls, by the table of the standard: nominal ball and nominal land.
func TestBallLands(t *testing.T) {
	for ball, land := range map[float64]float64{0.75: 0.55, 0.65: 0.5, 0.6: 0.45, 0.5: 0.4, 0.45: 0.35, 0.4: 0.3, 0.3: 0.25, 0.25: 0.2,
		0.2: 0.15} {
		r := recipe("ballGrid", map[string]design.Range{"bodyX": mm(12.9, 13.1), "bodyY": mm(12.9, 13.1), "pitch": mm(1, 1),
			"ball": mm(ball-0.05, ball+0.05), "height": mm(1, 1.2)})
		r.Counts = map[string]int{"columns": 12, "rows": 12}
		assert.InDelta(t, land, used(t, made(t, r), "padDiameter"), 1e-9, "a ball of %v", ball)
	}
}

// The tab of an outline has lands of its own: L 6.7–7.3, tab 1.5–2 long and 2.9–3.1 wide; toe 0.35, heel 0.35, side 0.03 (table 3-14).
// Z = 6.7 + 0.7 + √(0.36 + 0.005) = 8.0042 → 8.00; CS = √(0.36 + 0.5) = 0.9274; Smax' = 7.3 − 3 − (1.6 − 0.9274)/2 = 3.9637
// G = 3.9637 − 0.7 − √(0.865) = 2.3336 → 2.34 (116.7); the land is 2.83 long, its middle at (8.00 + 2.34)/4 = 2.585; X = 2.9 + 0.06 + √(0.045) = 3.1721 → 3.17.
func TestTabWorkedByHand(t *testing.T) {
	r := recipe("transistor", map[string]design.Range{"span": mm(6.7, 7.3), "leadLength": mm(0.9, 1.1), "leadWidth": mm(0.6, 0.84),
		"pitch": mm(2.3, 2.3), "bodyWidth": mm(3.3, 3.7),
		"bodyLength": mm(6.3, 6.7), "height": mm(1.5, 1.8), "tabLength": mm(1.5, 2), "tabWidth": mm(2.9, 3.1)})
	r.Choices = map[string]string{"leads": "3+tab"}
	res := made(t, r)
	require.Len(t, res.Footprint.Pads, 4)
	tab := res.Footprint.Pads[3]
	assert.Equal(t, "4", tab.Number)
	assert.Equal(t, geom.Pt(2_585_000, 0), tab.At)
	assert.Equal(t, geom.Pt(2_830_000, 3_170_000), tab.Size)
	assert.Equal(t, "SOT230P700X180-4N", res.Name)
}

// Pads stand where the numbering of the standard says.
func TestNumbering(t *testing.T) {
	at := func(res *landpattern.LandPattern, n string) geom.Point {
		for _, p := range res.Footprint.Pads {
			if p.Number == n {
				return p.At
			}
		}
		t.Fatalf("no pad %s", n)
		return geom.Point{}
	}
	sign := func(p geom.Point) [2]int { return [2]int{cmp(p.X), cmp(p.Y)} }
	example := func(id string) *landpattern.LandPattern {
		r := landpattern.FamilyOf(id).Example.Clone()
		return made(t, r)
	}
	two := example("gullTwo") // 1 upper left, 4 lower left, 5 lower right, 8 upper right
	for n, want := range map[string][2]int{"1": {-1, 1}, "4": {-1, -1}, "5": {1, -1}, "8": {1, 1}} {
		assert.Equal(t, want, sign(at(two, n)), n)
	}
	assert.Equal(t, int64(1_270_000), at(two, "1").Y-at(two, "2").Y)
	four := example("gullFour") // left side down, lower side to the right, right side up, upper side to the left
	for n, want := range map[string][2]int64{"1": {-4175, 2750}, "12": {-4175, -2750}, "13": {-2750, -4175}, "24": {2750, -4175},
		"25": {4175, -2750}, "36": {4175, 2750}, "37": {2750, 4175}, "48": {-2750, 4175}} {
		assert.Equal(t, geom.Pt(want[0]*1000, want[1]*1000), at(four, n), n)
	}
	grid := example("ballGrid")
	assert.Equal(t, geom.Pt(-3_200_000, 3_200_000), at(grid, "A1"))
	assert.Equal(t, geom.Pt(3_200_000, -3_200_000), at(grid, "J9")) // the ninth letter, I being left out
	ring := example("circular")
	assert.Equal(t, geom.Pt(-2_540_000, 0), at(ring, "1"))
	assert.Equal(t, geom.Pt(0, -2_540_000), at(ring, "3")) // counter-clockwise, seen from above
	r := landpattern.FamilyOf("header").Example.Clone()
	r.Counts, r.Dims["bodyWidth"] = map[string]int{"positions": 3, "rows": 2}, mm(4.9, 5.1)
	for order, want := range map[string][]string{"across": {"1", "3", "5", "2", "4", "6"}, "along": {"1", "2", "3", "4", "5", "6"},
		"around": {"1", "2", "3", "6", "5", "4"}} {
		r.Choices = map[string]string{"order": order}
		res := made(t, r)
		for i, n := range want { // the upper row from the left, then the lower one
			assert.Equal(t, geom.Pt(int64(i%3-1)*2_540_000, 1_270_000-int64(i/3)*2_540_000), at(res, n), "%s %s", order, n)
		}
	}
}

func cmp(v int64) int {
	switch {
	case v < 0:
		return -1
	case v > 0:
		return 1
	}
	return 0
}

// Rows of a grid have letters that are not mistaken for others: the 20 of JEDEC, then two.
func TestRowLetters(t *testing.T) {
	var got string
	for i := range 20 {
		got += landpattern.RowLetters(i)
	}
	assert.Equal(t, "ABCDEFGHJKLMNPRTUVWY", got)
	assert.Equal(t, "AA", landpattern.RowLetters(20))
	assert.Equal(t, "AY", landpattern.RowLetters(39))
	assert.Equal(t, "BA", landpattern.RowLetters(40))
}

// What the joint of the chip 1608 has: lands 2.42 over all, so toes of (2.42 − 1.7)/2 = 0.36 to 0.46; 0.91 wide, so sides of 0.005 to 0.105.
func TestJoints(t *testing.T) {
	res := made(t, recipe("chip", map[string]design.Range{"length": mm(1.5, 1.7), "terminal": mm(0.2, 0.5), "width": mm(0.7, 0.9),
		"height": mm(0.4, 0.55)}))
	require.Len(t, res.Joints, 1)
	j := res.Joints[0]
	assert.Equal(t, mm(0.36, 0.46), j.Outer)
	assert.Equal(t, mm(0.005, 0.105), j.Side)
	assert.Equal(t, [3]int64{350_000, 0, 0}, j.Goal)
	// the inner distance is 1.1345 − 0.4690 = 0.6655 to 1.1345, the lands are 0.66 apart
	assert.InDelta(t, 0.0027, float64(j.Inner.Min)/1e6, 1e-4)
	assert.InDelta(t, 0.2373, float64(j.Inner.Max)/1e6, 1e-4)
}

// Names that the trade knows by heart: of packages of 8, 48 and 3 leads, whose standards say how high they may be (MS-012 1.75 mm,
// MS-026 1.6 mm, TO-236 1.12 mm), and of chip resistors and capacitors.
func TestNamesThatEverybodyKnows(t *testing.T) {
	for want, r := range map[string]*design.Recipe{
		"SOIC127P600X175-8N": {Family: "gullTwo", Counts: map[string]int{"pins": 8},
			Dims: map[string]design.Range{"span": mm(5.8, 6.2), "leadLength": mm(0.4, 1.27), "leadWidth": mm(0.31, 0.51),
				"pitch": mm(1.27, 1.27), "bodyWidth": mm(3.8, 4), "bodyLength": mm(4.8, 5), "height": mm(1.35, 1.75)}},
		"QFP50P900X900X160-48N": {Family: "gullFour", Counts: map[string]int{"tall": 12, "wide": 12},
			Dims: map[string]design.Range{"spanX": mm(8.8, 9.2), "spanY": mm(8.8, 9.2), "bodyX": mm(6.9, 7.1), "bodyY": mm(6.9, 7.1),
				"leadLength": mm(0.45, 0.75), "leadWidth": mm(0.17, 0.27), "pitch": mm(0.5, 0.5), "height": mm(1.4, 1.6)}},
		"SOT95P237X112-3N": {Family: "transistor", Dims: map[string]design.Range{"span": mm(2.1, 2.64), "leadLength": mm(0.4, 0.6),
			"leadWidth": mm(0.3, 0.51), "pitch": mm(0.95, 0.95), "bodyWidth": mm(1.2, 1.4), "bodyLength": mm(2.8, 3.04),
			"height": mm(0.89, 1.12)}, Choices: map[string]string{"leads": "2+1"}},
		"RESC1608X55N": {Family: "chip", Dims: map[string]design.Range{"length": mm(1.5, 1.7), "terminal": mm(0.2, 0.5),
			"width": mm(0.7, 0.9), "height": mm(0.35, 0.55)}, Choices: map[string]string{"kind": "RES"}},
		"CAPC1005X55N": {Family: "chip", Dims: map[string]design.Range{"length": mm(0.95, 1.05), "terminal": mm(0.15, 0.35),
			"width": mm(0.45, 0.55), "height": mm(0.45, 0.55)}, Choices: map[string]string{"kind": "CAP"}},
	} {
		r.Density, r.Making = design.Nominal, design.UsualMaking()
		m, err := landpattern.Make(r)
		require.NoError(t, err)
		assert.Equal(t, want, m.Name)
	}
}
