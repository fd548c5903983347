package reread_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
)

func TestADrillFileByHand(t *testing.T) {
	d, err := reread.Drill([]byte("M48\r\n; #@! TF.FileFunction,Plated,2,3,Buried\n; a comment\nMETRIC,TZ\nFMAT,2\n; #@! TA.AperFunction,ViaDrill\nT1C0.4\n; #@! TD\nT02C1.2\n%\nG05\nG90\nT1\nX1.5Y-2.0\nX3.0\nT02\nY4.25\nT0\nM30\nX9.0\n"))
	require.NoError(t, err)
	assert.True(t, d.Plated)
	assert.Equal(t, [2]int{2, 3}, [2]int{d.From, d.To})
	assert.Equal(t, "Plated,2,3,Buried", d.Attributes[".FileFunction"])
	assert.Equal(t, []reread.Hole{{At: mm(1.5, -2), Diameter: 400_000, Function: "ViaDrill"}, {At: mm(3, -2), Diameter: 400_000, Function: "ViaDrill"}, {At: mm(3, 4.25), Diameter: 1_200_000}}, d.Holes)
	d, err = reread.Drill([]byte("M48\n; #@! TF.FileFunction,NonPlated,1,4,NPTH\nINCH\nT1C0.1\n%\nT1\nX1.0Y0.5\nM30\n"))
	require.NoError(t, err)
	assert.False(t, d.Plated)
	assert.Equal(t, []reread.Hole{{At: geom.Pt(25_400_000, 12_700_000), Diameter: 2_540_000}}, d.Holes)
}

func TestDrillFilesThatCannotBeRead(t *testing.T) {
	for text, why := range map[string]string{
		"":                                   "does not begin with M48",
		"M48\nMETRIC\n":                      "cut short",
		"M48\nT1C0.4\nM30":                   "line 2, \"T1C0.4\": the tool's size cannot be read",
		"M48\nMETRIC\nT1C0\nM30":             "the tool's size cannot be read",
		"M48\nMETRIC\nT1Cx\nM30":             "the tool's size cannot be read",
		"M48\nMETRIC\nT2\nM30":               "this tool is not defined",
		"M48\nMETRIC\nX1.0Y1.0\nM30":         "a hole before its tool",
		"M48\nMETRIC\nT1C1\nT1\nX1.0Yq\nM30": "the place cannot be read",
		"M48\nMETRIC\nT1C1\nT1\nX1A2X2\nM30": "this is not known",
		"M48\nMETRIC\nR5\nM30":               "this is not known",
	} {
		_, err := reread.Drill([]byte(text))
		assert.ErrorContains(t, err, why, "%q", text)
	}
}

// Columns after IPC-D-356A: net 4–17, reference 21–26, pin 28–31, hole 33–38, place 42–57.
func TestANetlistByHand(t *testing.T) {
	line := func(code, net, part, pin, hole, access, x, y string) string {
		return fmt.Sprintf("%s%-14s   %-6s-%-4s %-6s%sX%7sY%7s", code, net, part, pin, hole, access, x, y)
	}
	p, err := reread.TestNetlist([]byte("P  UNITS CUST 1\r\nP  NNAME1  A very long net\nC  comment\n" +
		line("317", "NNAME1", "R1", "1", "D0800P", "A00", "+001500", "-002000") + "\n" +
		line("327", "GND", "U12", "A3", "", "A01", "+000000", "+010250") + "\n999\n"))
	require.NoError(t, err)
	require.Len(t, p, 2)
	assert.Equal(t, reread.Probe{Net: "A very long net", Part: "R1", Pin: "1", At: mm(1.5, -2), Hole: 800_000}, p[0])
	assert.Equal(t, reread.Probe{Net: "GND", Part: "U12", Pin: "A3", At: mm(0, 10.25)}, p[1])
	for text, why := range map[string]string{
		"P  UNITS CUST 0\n999": "line 1: only metric",
		"317GND\n999":          "line 1 is cut short",
		line("327", "GND", "U1", "1", "", "A01", "+00x000", "+010250") + "\n999":       "line 1: the place cannot be read",
		line("317", "GND", "U1", "1", "D08x0P", "A01", "+000000", "+010250") + "\n999": "line 1: the hole cannot be read",
		line("327", "GND", "U1", "1", "", "A01", "+000000", "+010250"):                 "its end mark is missing",
	} {
		_, err := reread.TestNetlist([]byte(text))
		assert.ErrorContains(t, err, why)
	}
}

// Two layers, two pads on each, at x = 0 and 10 mm; a plated hole joins those at 0.
func TestCopperIsFollowedThroughHolesOfItsLayers(t *testing.T) {
	layer := func(part string, extra string) *reread.Artwork {
		a, err := reread.Gerber([]byte(head + "%ADD10C,1*%%ADD11C,0.2*%%TO.N,N" + part + "*%%TO.P," + part + ",1*%D10*X0Y0D03*%TO.P," + part + ",2*%X100000Y0D03*%TD.P*%" + extra + "M02*"))
		require.NoError(t, err)
		return a
	}
	drill := func(kind string) *reread.Drilling {
		d, err := reread.Drill([]byte("M48\n; #@! TF.FileFunction," + kind + "\nMETRIC\nT1C0.4\n%\nT1\nX0.0Y0.0\nM30\n"))
		require.NoError(t, err)
		return d
	}
	trace := func(extra string, kinds ...string) (out [][]string) {
		var drills []*reread.Drilling
		for _, k := range kinds {
			drills = append(drills, drill(k))
		}
		islands, err := reread.Trace([]*reread.Artwork{layer("A", extra), layer("B", ""), layer("C", "")}, drills)
		require.NoError(t, err)
		for _, i := range islands {
			out = append(out, i.Pins)
		}
		return out
	}
	assert.Equal(t, [][]string{{"A.1"}, {"A.2"}, {"B.1"}, {"B.2"}, {"C.1"}, {"C.2"}}, trace(""))
	assert.Equal(t, [][]string{{"A.1", "B.1", "C.1"}, {"A.2"}, {"B.2"}, {"C.2"}}, trace("", "Plated,1,3,PTH"))
	assert.Equal(t, [][]string{{"A.1", "B.1"}, {"A.2"}, {"B.2"}, {"C.1"}, {"C.2"}}, trace("", "Plated,1,2,Blind"))
	assert.Equal(t, [][]string{{"A.1"}, {"A.2"}, {"B.1", "C.1"}, {"B.2"}, {"C.2"}}, trace("", "Plated,2,3,Blind"))
	assert.Len(t, trace("", "NonPlated,1,3,NPTH"), 6)
	assert.Equal(t, [][]string{{"A.1", "A.2", "B.1"}, {"B.2"}, {"C.1"}, {"C.2"}}, trace("D11*X0Y0D02*X100000D01*", "Plated,1,2,Blind"), "a track on the first layer")
	// Pads of 1 mm: a flash whose edge comes to just 10 mm − 0.5 mm touches, one that ends before does not.
	assert.Len(t, trace("D11*X20000Y0D02*X94000D01*"), 6, "both ends touch: 0.1 mm and 0.5 mm are 0.6 mm")
	islands, err := reread.Trace([]*reread.Artwork{layer("A", "D11*X0Y0D02*X94000D01*")}, nil)
	require.NoError(t, err)
	assert.Equal(t, []reread.Island{{Pins: []string{"A.1", "A.2"}, Nets: []string{"NA"}, Marks: 3}}, islands)
	islands, err = reread.Trace([]*reread.Artwork{layer("A", "D11*X0Y0D02*X93999D01*")}, nil)
	require.NoError(t, err)
	assert.Len(t, islands, 2)
	_, err = reread.Trace([]*reread.Artwork{layer("A", ""), layer("B", "%LPC*%D10*X0Y0D03*")}, nil)
	require.ErrorContains(t, err, "copper layer 2 clears copper")
}
