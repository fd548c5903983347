package gerber

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/geom"
)

// A plot letter by letter, after the published format.
func TestPlotByHand(t *testing.T) {
	p := NewPlot("Copper,L1,Top", "Positive", "TF.Part,Single")
	p.Object(map[string]string{"N": "GND", "P": "R1,2", "C": "R1"})
	p.Flash("SMDPad,CuDef", geom.Disc(geom.Pt(1, -2), 500_000), geom.Pt(1, -2))
	p.Object(map[string]string{"N": "GND", "P": "R1,1", "C": "R1"})
	p.Flash("SMDPad,CuDef", geom.Disc(geom.Pt(3, 4), 500_000), geom.Pt(3, 4))
	p.Object(map[string]string{"N": "A"})
	p.Line("Conductor", 250_000, geom.Pt(0, 0), geom.Pt(5, 0), geom.Pt(5, 7))
	p.Object(nil)
	p.Polarity(true)
	p.Polarity(false)
	p.Polarity(false)
	p.Region(geom.Polygon(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9)))
	p.Polarity(true)
	assert.Equal(t, `G04 Written by Golden Trace*
%TF.FileFunction,Copper,L1,Top*%
%TF.Part,Single*%
%TF.FilePolarity,Positive*%
%FSLAX46Y46*%
%MOMM*%
%TA.AperFunction,SMDPad,CuDef*%
%ADD10C,1.000000*%
%TD.AperFunction*%
%TA.AperFunction,Conductor*%
%ADD11C,0.250000*%
%TD.AperFunction*%
G01*
%LPD*%
%TO.P,R1,2*%
%TO.N,GND*%
%TO.C,R1*%
D10*
X1Y-2D03*
%TO.P,R1,1*%
X3Y4D03*
%TD*%
%TO.N,A*%
D11*
X0Y0D02*
X5Y0D01*
X5Y7D01*
%TD*%
%LPC*%
G36*
X0Y0D02*
X9Y0D01*
X0Y9D01*
X0Y0D01*
G37*
%LPD*%
M02*
`, string(p.Bytes()))
}

// The standard aperture is taken where the shape is one, else a macro, each once.
func TestAperturesByHand(t *testing.T) {
	rect := func(x0, y0, x1, y1 int64) []geom.Point {
		return []geom.Point{geom.Pt(x0, y0), geom.Pt(x1, y0), geom.Pt(x1, y1), geom.Pt(x0, y1)}
	}
	at := geom.Pt(100, 200)
	for name, c := range map[string]struct {
		s    geom.Shape
		want string
	}{
		"a disc":                     {geom.Disc(at, 1_000_000), "C,2.000000"},
		"a disc off its middle":      {geom.Disc(geom.Pt(101, 200), 1_000_000), "SHAPE1"},
		"a level oval":               {geom.Shape{Pts: []geom.Point{{X: 0, Y: 200}, {X: 200, Y: 200}}, R: 50}, "O,0.000300X0.000100"},
		"an upright oval":            {geom.Shape{Pts: []geom.Point{{X: 100, Y: 100}, {X: 100, Y: 300}}, R: 50}, "O,0.000100X0.000300"},
		"a slanted oval":             {geom.Shape{Pts: []geom.Point{{X: 0, Y: 100}, {X: 200, Y: 300}}, R: 50}, "SHAPE1"},
		"a rectangle":                {geom.Shape{Pts: rect(0, 150, 200, 250), Area: true}, "R,0.000200X0.000100"},
		"a rectangle off its middle": {geom.Shape{Pts: rect(0, 150, 202, 250), Area: true}, "SHAPE1"},
		"a rounded rectangle":        {geom.Shape{Pts: rect(0, 150, 200, 250), Area: true, R: 10}, "SHAPE1"},
		"a turned rectangle":         {geom.Shape{Pts: []geom.Point{{X: 0, Y: 200}, {X: 100, Y: 100}, {X: 200, Y: 200}, {X: 100, Y: 300}}, Area: true}, "SHAPE1"},
	} {
		p := NewPlot("x", "")
		assert.Equal(t, c.want, p.aperture(c.s, at), name)
		assert.Equal(t, c.want, p.aperture(c.s, at), name)
		assert.Len(t, p.macros, strings.Count(c.want, "SHAPE"), name)
	}
	p := NewPlot("x", "")
	p.aperture(geom.Shape{Pts: rect(0, 150, 200, 250), Area: true, R: 10}, at)
	assert.Equal(t, `%AMSHAPE1*
4,1,4,-0.000100,-0.000050,0.000100,-0.000050,0.000100,0.000050,-0.000100,0.000050,-0.000100,-0.000050,0*
1,1,0.000020,-0.000100,-0.000050*
20,1,0.000020,-0.000100,-0.000050,0.000100,-0.000050,0*
1,1,0.000020,0.000100,-0.000050*
20,1,0.000020,0.000100,-0.000050,0.000100,0.000050,0*
1,1,0.000020,0.000100,0.000050*
20,1,0.000020,0.000100,0.000050,-0.000100,0.000050,0*
1,1,0.000020,-0.000100,0.000050*
20,1,0.000020,-0.000100,0.000050,-0.000100,-0.000050,0*
%
`, p.macros[0])
	line := NewPlot("x", "")
	line.aperture(geom.Shape{Pts: []geom.Point{{X: 0, Y: 100}, {X: 200, Y: 300}}, R: 50}, at)
	assert.Equal(t, "%AMSHAPE1*\n1,1,0.000100,-0.000100,-0.000100*\n20,1,0.000100,-0.000100,-0.000100,0.000100,0.000100,0*\n1,1,0.000100,0.000100,0.000100*\n%\n", line.macros[0])
}

func TestEscape(t *testing.T) {
	for in, want := range map[string]string{"GND": "GND", "A,B": `A\u002CB`, "50%*": `50\u0025\u002A`, `C:\`: `C:\u005C`, "水": `\u6C34`, "⚡\t": `\u26A1\u0009`, "🜁": `\U0001F701`, "~ ": "~ ", "\x7f": `\u007F`} {
		assert.Equal(t, want, Escape(in))
	}
	for nm, want := range map[int64]string{0: "0.000000", 1: "0.000001", -1: "-0.000001", 12_345_678: "12.345678", -2_000_000: "-2.000000"} {
		assert.Equal(t, want, mm(nm))
	}
}
