package vector_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
	"goldentrace/core/vector"
)

func svg(body string) []byte {
	return []byte(`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">` + body + `</svg>`)
}

func sum(list []overlay.Area) (s float64) {
	for _, a := range list {
		s += math.Abs(geom.Area(a.Outer))
		for _, h := range a.Holes {
			s -= math.Abs(geom.Area(h))
		}
	}
	return s / 1e12
}

// Figures of known area: what is drawn is made 10 mm wide, so that a unit of one 10 units wide is a millimetre.
func TestAreas(t *testing.T) {
	for name, c := range map[string]struct {
		body string
		area float64 // square millimetres
		size [2]float64
	}{
		"rectangle":              {`<rect x="5" y="5" width="10" height="4"/>`, 40, [2]float64{10, 4}},
		"rounded":                {`<rect width="10" height="4" rx="1"/>`, 40 - (4 - math.Pi), [2]float64{10, 4}},
		"circle":                 {`<circle cx="3" cy="3" r="5"/>`, 25 * math.Pi, [2]float64{10, 10}},
		"ellipse":                {`<ellipse rx="5" ry="2"/>`, 10 * math.Pi, [2]float64{10, 4}},
		"polygon":                {`<polygon points="0,0 10,0 10,10"/>`, 50, [2]float64{10, 10}},
		"small letters":          {`<path d="m1 1h10v4h-10z"/>`, 40, [2]float64{10, 4}},
		"capitals":               {`<path d="M1,1L11,1V5H1Z"/>`, 40, [2]float64{10, 4}},
		"numbers run together":   {`<path d="M0-0L10-.0L10 4.0.0 4Z"/>`, 40, [2]float64{10, 4}},
		"on after closing":       {`<path d="M2 2h10v4h-10zh10v-2h-10zz"/>`, 60, [2]float64{10, 6}},
		"nothing is not drawn":   {`<rect width="10" height="4"/><rect x="30" y="30" width="0" height="9" stroke="black"/><rect x="50" y="30" width="9" height="0" stroke="black"/>`, 40, [2]float64{10, 4}},
		"turned, then moved":     {`<rect width="4" height="4"/><rect transform="rotate(90) translate(2 -10)" width="4" height="4"/>`, 32, [2]float64{10, 6}}, // the second comes to lie at 6 to 10, 2 to 6
		"leaned, then moved":     {`<rect width="2" height="2"/><rect transform="skewX(45) translate(3 3)" width="2" height="2"/>`, 8, [2]float64{10, 5}},     // x + y: at 6 to 10
		"moved twice":            {`<rect width="2" height="2"/><g transform="translate(3 1)"><rect transform="translate(3 2)" width="4" height="2"/></g>`, 12, [2]float64{10, 5}},
		"round one way alone":    {`<rect width="10" height="4" rx="2" ry="0"/>`, 40, [2]float64{10, 4}},
		"round no way":           {`<rect width="10" height="4" rx="0" ry="2"/>`, 40, [2]float64{10, 4}},
		"an open line":           {`<path d="M1 1H9V5" fill="none" stroke="black" stroke-width="2"/>`, 23 + 5*math.Pi/4, [2]float64{10, 6}},
		"smooth after nothing":   {`<path d="M0 0H5T10 0V4H0Z"/>`, 40, [2]float64{10, 4}},
		"smooth after a line":    {`<path d="M0 0H4S10 0 10 0V4H0Z"/>`, 40, [2]float64{10, 4}},
		"an ellipse of nothing":  {`<rect width="10" height="4"/><ellipse cx="50" cy="50" rx="0" ry="9" stroke="black"/><ellipse cx="50" cy="50" rx="9" ry="0" stroke="black"/>`, 40, [2]float64{10, 4}},
		"half a disc":            {`<path d="M0 0A5 5 0 0 1 10 0Z"/>`, 12.5 * math.Pi, [2]float64{10, 5}},
		"flags run together":     {`<path d="M0 0a5 5 0 0110 0z"/>`, 12.5 * math.Pi, [2]float64{10, 5}},
		"the large arc":          {`<path d="M5 0A5 5 0 1 1 0 5L5 5Z"/>`, 25 * math.Pi * 3 / 4, [2]float64{10, 10}},
		"an arc too small":       {`<path d="M0 0A1 1 0 0 1 10 0Z"/>`, 12.5 * math.Pi, [2]float64{10, 5}},
		"a parabola":             {`<path d="M0 0Q5 10 10 0Z"/>`, 100.0 / 3, [2]float64{10, 5}},                  // two thirds of the box of its chord and top
		"an arc that leans":      {`<path d="M0 0A5 2 90 0 1 4 0Z"/>`, 5 * math.Pi * 6.25, [2]float64{10, 12.5}}, // half an ellipse that stands upright
		"a leaning parabola":     {`<path d="M0 0Q0 10 10 10L10 0Z"/>`, 50 + 100.0/3, [2]float64{10, 10}},
		"smooth parabolas":       {`<path d="M0 0Q2.5 5 5 0T10 0L10 -10 0 -10Z"/>`, 100, [2]float64{10, 12.5}},
		"a cubic that is a line": {`<path d="M0 0C3 0 7 0 10 0L10 4 0 4Z"/>`, 40, [2]float64{10, 4}},
		"smooth cubics":          {`<path d="M0 0C0 4 5 4 5 0S10 -4 10 0L10 -10 0 -10Z"/>`, 100, [2]float64{10, 13}},
		"a hole":                 {`<path fill-rule="evenodd" d="M0 0H10V10H0ZM2 2H8V8H2Z"/>`, 64, [2]float64{10, 10}},
		"no hole":                {`<path d="M0 0H10V10H0ZM2 2H8V8H2Z"/>`, 100, [2]float64{10, 10}},
		"white takes away":       {`<rect width="10" height="10"/><rect x="2" y="2" width="6" height="6" fill="#FFF"/>`, 64, [2]float64{10, 10}},
		"a line":                 {`<line x1="1" y1="1" x2="9" y2="1" stroke="black" stroke-width="2"/>`, 16 + math.Pi, [2]float64{10, 2}},
		"a frame":                {`<rect x="1" y="1" width="8" height="8" fill="none" style="stroke:red;stroke-width:2"/>`, 100 - (4 - math.Pi) - 36, [2]float64{10, 10}},
		"moved, turned, grown":   {`<g transform="translate(7 3) rotate(90)"><rect transform="scale(2,.5)" width="4" height="20"/></g>`, 80, [2]float64{10, 8}},
		"about a place":          {`<rect transform="rotate(90, 3, 4)" width="4" height="10"/>`, 40, [2]float64{10, 4}},
		"leaning":                {`<rect transform="skewX(45)" width="6" height="4"/>`, 24, [2]float64{10, 4}},
		"a matrix":               {`<rect transform="matrix(0 1 -1 0 0 0)" width="4" height="10"/>`, 40, [2]float64{10, 4}},
		"hidden":                 {`<rect width="10" height="4"/><g display="none"><rect width="90" height="90"/></g>`, 40, [2]float64{10, 4}},
		"style above attribute":  {`<rect width="10" height="4" fill="none" style="fill: #000"/>`, 40, [2]float64{10, 4}},
		"inherited":              {`<g fill="none" stroke="black"><rect x=".5" y=".5" width="9" height="3"/></g>`, 40 - (4-math.Pi)/4 - 16, [2]float64{10, 4}},
	} {
		got, err := vector.SVG(t.Context(), svg(c.body), 10_000_000)
		require.NoError(t, err, name)
		assert.InDelta(t, c.area, sum(got.Areas), 0.02, name)
		assert.InDelta(t, c.size[0], float64(got.Size.X)/1e6, 0.002, name)
		assert.InDelta(t, c.size[1], float64(got.Size.Y)/1e6, 0.01, name)
		var e geom.Extent
		for _, a := range got.Areas {
			e.Add(a.Outer...)
		}
		assert.InDelta(t, 0, float64(e.Box.Centre().X), 3_000, "%s: its middle is at the origin", name)
		assert.InDelta(t, 0, float64(e.Box.Centre().Y), 3_000, "%s: its middle is at the origin", name)
	}
}

// A drawing of a unit's size is as fine as a large one, and y goes up.
func TestSmallAndUpright(t *testing.T) {
	got, err := vector.SVG(t.Context(), svg(`<circle cx=".5" cy=".5" r=".5"/>`), 10_000_000)
	require.NoError(t, err)
	assert.InEpsilon(t, 25*math.Pi, sum(got.Areas), 1e-4)
	got, err = vector.SVG(t.Context(), svg(`<path d="M0 0H10L5 10Z"/>`), 10_000_000) // the point is below
	require.NoError(t, err)
	low := got.Areas[0].Outer[0]
	for _, p := range got.Areas[0].Outer {
		if p.Y < low.Y {
			low = p
		}
	}
	assert.Equal(t, int64(0), low.X)
}

// What cannot be taken is said; what is no drawing is refused with a sentence.
func TestBad(t *testing.T) {
	got, err := vector.SVG(t.Context(), svg(`<rect width="10" height="4"/><text>hello</text><image/>`), 10_000_000)
	require.NoError(t, err)
	assert.Equal(t, []string{"pictures", "text that was not made into outlines"}, got.LeftOut)
	for body, want := range map[string]string{
		``:                                            "draws nothing",
		`<text>hello</text>`:                          "text that was not made into outlines cannot",
		`<rect width="0" height="4"/>`:                "draws nothing",
		`<path d="L 1 2"/>`:                           "not with M",
		`<path d="M 0 0 L 1 x"/>`:                     "no number",
		`<path d="M 0 0 L 1 1e400"/>`:                 "no number",
		`<path d="M 0 0 L 1 2e9"/>`:                   "no number",
		`<path d="M 0 0 K 1"/>`:                       "which there is not",
		`<path d="M0 0A5 5 0 2 1 10 0"/>`:             "neither 0 nor 1",
		`<rect`:                                       "not well-formed",
		`<rect width="1" height="1e8"/>`:              "a metre high",
		strings.Repeat("<g>", 200):                    "nested more than",
		`<rect width="10" height="10" fill="white"/>`: "draws nothing",
	} {
		_, err := vector.SVG(t.Context(), svg(body), 10_000_000)
		require.Error(t, err, body)
		assert.Contains(t, err.Error(), want)
	}
	for _, data := range []string{"", "hello", "<html/>", "<svg", "\x00\x01"} {
		_, err := vector.SVG(t.Context(), []byte(data), 10_000_000)
		assert.Error(t, err, data)
	}
	_, err = vector.SVG(t.Context(), make([]byte, vector.Largest+1), 1)
	assert.ErrorContains(t, err, "MB")
	_, err = vector.SVG(t.Context(), svg(`<path d="M0 0`+strings.Repeat(" 1 1", 40_001)+`"/>`), 10_000_000)
	assert.ErrorContains(t, err, "places")
}

// Many shapes are put together by pairs, so that thousands take seconds; who waits no longer stops it; turns of white and dark are bounded.
func TestManyShapes(t *testing.T) {
	var b strings.Builder
	b.WriteString(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 300">`)
	for i := range 8_000 {
		fmt.Fprintf(&b, `<rect x="%d" y="%d" width="2" height="2"/>`, 3*(i%90), 3*(i/90))
	}
	drawing := b.String() + "</svg>"
	d, err := vector.SVG(t.Context(), []byte(drawing), 300_000_000)
	require.NoError(t, err)
	assert.Len(t, d.Areas, 8_000)
	over, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = vector.SVG(over, []byte(drawing), 300_000_000)
	assert.ErrorIs(t, err, context.Canceled)

	turns := func(n int) string {
		return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 30 30"><rect width="30" height="30"/>` +
			strings.Repeat(`<rect x="9" width="2" height="2" fill="white"/><rect x="9" width="1" height="1"/>`, n) + "</svg>"
	}
	_, err = vector.SVG(t.Context(), []byte(turns(500)), 3_000_000)
	assert.NoError(t, err)
	_, err = vector.SVG(t.Context(), []byte(turns(501)), 3_000_000)
	assert.ErrorContains(t, err, "more than 1000 times")
}
