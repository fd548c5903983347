package reread_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
)

// Files are written by hand after the published format, in millimetres with four decimals.
const head = "%FSLAX34Y34*%\n%MOMM*%\n"

func read(t *testing.T, body string) []reread.Mark {
	t.Helper()
	a, err := reread.Gerber([]byte(head + body + "M02*\n"))
	require.NoError(t, err)
	return a.Marks
}

func mm(x, y float64) geom.Point {
	return geom.Pt(int64(math.Round(x*1e6)), int64(math.Round(y*1e6)))
}

func TestFlashesOfTheStandardApertures(t *testing.T) {
	m := read(t, "%ADD10C,1.5*%%ADD11R,2X1*%%ADD12O,3X1*%%ADD13O,1X3*%%ADD14P,2X4*%%ADD15P,2X4X45*%D10*X10000Y-20000D03*D11*D03*D12*X0Y0D03*D13*D03*D14*D03*D15*D03*")
	require.Len(t, m, 6)
	assert.Equal(t, "flash", m[0].Kind)
	assert.True(t, m[0].Dark)
	assert.Equal(t, []geom.Shape{geom.Disc(mm(1, -2), 750_000)}, m[0].Shapes)
	assert.Equal(t, mm(1, -2), m[1].At, "the place stays when it is not said")
	assert.Equal(t, []geom.Point{mm(0, -2.5), mm(2, -2.5), mm(2, -1.5), mm(0, -1.5)}, m[1].Shapes[0].Pts)
	assert.Equal(t, geom.Shape{Pts: []geom.Point{mm(-1, 0), mm(1, 0)}, R: 500_000}, m[2].Shapes[0])
	assert.Equal(t, geom.Shape{Pts: []geom.Point{mm(0, -1), mm(0, 1)}, R: 500_000}, m[3].Shapes[0])
	assert.Equal(t, []geom.Point{mm(1, 0), mm(0, 1), mm(-1, 0), mm(0, -1)}, m[4].Shapes[0].Pts)
	assert.Equal(t, mm(math.Sqrt2/2, math.Sqrt2/2), m[5].Shapes[0].Pts[0])
}

func TestLinesArcsAndRegions(t *testing.T) {
	m := read(t, "%ADD10C,0.2*%D10*X0Y0D02*G01*X10000D01*Y5000D01*G75*G03*X0Y5000I-5000J0D01*G02*X10000I5000D01*")
	require.Len(t, m, 4)
	assert.Equal(t, geom.Shape{Pts: []geom.Point{mm(0, 0), mm(1, 0)}, R: 100_000}, m[0].Shapes[0])
	assert.Equal(t, []geom.Point{mm(1, 0), mm(1, 0.5)}, m[1].Shapes[0].Pts)
	over := m[2].Shapes[0].Pts
	assert.Equal(t, []geom.Point{mm(1, 0.5), mm(0, 0.5)}, []geom.Point{over[0], over[len(over)-1]})
	assert.Equal(t, mm(0.5, 1), over[len(over)/2], "anticlockwise from right to left goes over the top")
	for _, p := range over {
		assert.InDelta(t, 500_000, math.Hypot(float64(p.X-500_000), float64(p.Y-500_000)), 1, "on the circle")
	}
	back := m[3].Shapes[0].Pts
	assert.Equal(t, mm(0.5, 1), back[len(back)/2], "clockwise from left to right too")
	assert.GreaterOrEqual(t, len(over)-1, 60, "in steps of three degrees")

	m = read(t, "%ADD10C,0.2*%D10*X0Y0D02*G03*X0Y0I5000J0D01*")
	full := m[0].Shapes[0].Pts
	assert.Equal(t, mm(1, 0), full[len(full)/2], "from a place to itself it is a whole circle")
	m = read(t, "%ADD10C,0.2*%D10*X0Y0D02*G02*X0Y0I5000J0D01*")
	assert.Equal(t, mm(1, 0), m[0].Shapes[0].Pts[len(m[0].Shapes[0].Pts)/2])

	m = read(t, "%TA.AperFunction,Conductor*%G36*X0Y0D02*G01*X10000D01*Y10000D01*X0Y0D01*X20000D02*X30000D01*Y10000D01*X20000Y0D01*X40000D02*X50000D01*X40000D01*G37*")
	require.Len(t, m, 2, "three contours, of which one has no area")
	assert.Equal(t, "region", m[0].Kind)
	assert.Equal(t, "Conductor", m[0].Function)
	assert.Equal(t, geom.Shape{Pts: []geom.Point{mm(0, 0), mm(1, 0), mm(1, 1)}, Area: true}, m[0].Shapes[0])
	assert.Equal(t, mm(2, 0), m[1].At)
}

func TestPolarityAndAttributes(t *testing.T) {
	a, err := reread.Gerber([]byte("G04 a comment*\r\n%TF.FileFunction,Copper,L1,Top*%%FSLAX26Y26*%\r\n%MOIN*%%TF.Part,A\\u0020b*%" +
		"%TA.AperFunction,ComponentPad*%%ADD10C,0.1*%%TD.AperFunction*%%ADD11C,0.1*%" +
		"%TO.N,Net\\u00C4*%%TO.P,R1,2,Anode*%%TO.C,R1*%D10*X1000000Y0D03*%TD.P*%D11*D03*%LPC*%%TD*%D03*%LPD*%D03*M02*ignored"))
	require.NoError(t, err)
	assert.Equal(t, map[string]string{".FileFunction": "Copper,L1,Top", ".Part": "A b"}, a.Attributes)
	require.Len(t, a.Marks, 4)
	first := a.Marks[0]
	assert.Equal(t, geom.Pt(25_400_000, 0), first.At, "an inch")
	assert.Equal(t, geom.Disc(geom.Pt(25_400_000, 0), 1_270_000), first.Shapes[0])
	assert.Equal(t, []string{"NetÄ", "R1", "2", "ComponentPad"}, []string{first.Net, first.Part, first.Pin, first.Function})
	second := a.Marks[1]
	assert.Equal(t, []string{"NetÄ", "R1", "", ""}, []string{second.Net, second.Part, second.Pin, second.Function})
	third := a.Marks[2]
	assert.False(t, third.Dark)
	assert.Empty(t, third.Net)
	assert.True(t, a.Marks[3].Dark)
}

// The examples follow the chapter on macros of the published format.
func TestMacros(t *testing.T) {
	for body, want := range map[string]geom.Shape{
		"1,1,1.5,1,2":                          geom.Disc(mm(1, 2), 750_000),
		"1,1,1.5,1,0,90":                       geom.Disc(mm(0, 1), 750_000),
		"20,1,1,0,0,4,0,0":                     {Area: true, Pts: []geom.Point{mm(0, -0.5), mm(4, -0.5), mm(4, 0.5), mm(0, 0.5)}},
		"20,1,1,0,0,4,0,90":                    {Area: true, Pts: []geom.Point{mm(0.5, 0), mm(0.5, 4), mm(-0.5, 4), mm(-0.5, 0)}},
		"20,1,1,0,0,0,2":                       {Area: true, Pts: []geom.Point{mm(0.5, 0), mm(0.5, 2), mm(-0.5, 2), mm(-0.5, 0)}},
		"20,1,1,3,3,3,3,0":                     geom.Disc(mm(3, 3), 0),
		"21,1,4,2,1,1,0":                       {Area: true, Pts: []geom.Point{mm(-1, 0), mm(3, 0), mm(3, 2), mm(-1, 2)}},
		"21,1,4,2,0,0,90":                      {Area: true, Pts: []geom.Point{mm(1, -2), mm(1, 2), mm(-1, 2), mm(-1, -2)}},
		"4,1,3,0,0,2,0,2,2,0,0,90":             {Area: true, Pts: []geom.Point{mm(0, 0), mm(0, 2), mm(-2, 2)}},
		"5,1,4,1,1,2,0":                        {Area: true, Pts: []geom.Point{mm(2, 1), mm(1, 2), mm(0, 1), mm(1, 0)}},
		"$3=$1x2-1*$4=($1+$2)/2*1,1,$3,$4,-$2": geom.Disc(mm(2, -1), 2_500_000),
		"0 a comment*1,1,$1-(1+1),+$2,0":       geom.Disc(mm(1, 0), 500_000),
	} {
		m := read(t, "%AMTHING*"+body+"*%%ADD10THING,3X1*%D10*X0Y0D03*")
		require.Len(t, m[0].Shapes, 1, body)
		assert.Equal(t, want, m[0].Shapes[0], body)
	}
}

func TestArtworkThatCannotBeRead(t *testing.T) {
	for body, why := range map[string]string{
		"D10*":                                  "D10 is not defined",
		"X0Y0D03*":                              "a flash without an aperture",
		"X0Y0D02*X1D01*":                        "a line without an aperture",
		"%ADD10R,1X1*%D10*X0Y0D02*X1D01*":       "not round",
		"%ADD10C*%":                             "lacks sizes",
		"%ADD10R,1*%":                           "lacks sizes",
		"%ADD9C,1*%":                            "number",
		"%ADDC,1*%":                             "number",
		"%ADC,1*%":                              "number",
		"%ADD10C,one*%":                         "\"one\" is not a number",
		"%ADD10FOO,1*%":                         "FOO is not defined",
		"%AMM*7,1,1,0,0,0*%%ADD10M,1*%":         "primitive 7 is not read yet",
		"%AMM*1,0,1,0,0*%%ADD10M,1*%":           "clears",
		"%AMM*1,1,1,0*%%ADD10M,1*%":             "lacks numbers",
		"%AMM*4,1,3,0,0,1,1,2,2,0*%%ADD10M,1*%": "lacks corners",
		"%AMM*4,1,2,0,0,1,1,2,2,0,0*%%ADD10M,1*%": "lacks corners",
		"%AMM*1,1,(1,0,0*%%ADD10M,1*%":            "bracket",
		"%AMM*1,1,1y,0,0*%%ADD10M,1*%":            "cannot be read",
		"%AMM*$x=1*%%ADD10M,1*%":                  "cannot be read",
		"X0Y0*":                                   "without an operation",
		"X0Z0D01*":                                "not",
		"X1.5D02*":                                "not",
		"G99*":                                    "G99 is not known",
		"G36*X0Y0D01*G37*":                        "a region begins without a place",
		"%LR90*%":                                 "not read yet",
		"%LMX*%":                                  "not read yet",
		"%SRX2Y1I5J0*%":                           "not read yet",
		"%LPD":                                    "not closed",
	} {
		_, err := reread.Gerber([]byte(head + body + "M02*"))
		assert.ErrorContains(t, err, why, body)
	}
	for _, fine := range []string{"%LR0*%", "%LMN*%", "%LS1*%", "%LS1.0*%", "%SRX1Y1I0J0*%", "%SR*%", "G54*", "G90G71*", "%IN*%"} {
		_, err := reread.Gerber([]byte(head + fine + "M02*"))
		assert.NoError(t, err, fine)
	}
	_, err := reread.Gerber([]byte(head))
	require.ErrorContains(t, err, "its end mark is missing")
	_, err = reread.Gerber([]byte("hello"))
	require.ErrorContains(t, err, "states no format")
	_, err = reread.Gerber([]byte("X0Y0D02*M02*"))
	require.ErrorContains(t, err, "before their format")
	_, err = reread.Gerber([]byte("%FSTAX34Y34*%M02*"))
	require.ErrorContains(t, err, "only absolute")
	_, err = reread.Gerber(make([]byte, reread.LargestFile+1))
	require.ErrorContains(t, err, "larger than 128 MiB")
	assert.NotPanics(t, func() { _, _ = reread.Gerber([]byte(strings.Repeat("%", 1001))) })
}
