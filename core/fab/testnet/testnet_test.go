package testnet_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/fab/reread"
	"goldentrace/core/fab/testnet"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// The records of the four-layer board, column by column after IPC-D-356A: 1–3 kind, 4–17 net,
// 21–26 part, 27 dash, 28–31 pin, 33 D, 34–37 hole, 38 P, 39–41 access, 42–49 X, 50–57 Y,
// 58–62 width, 63–67 height, 68–71 turn, 73–74 mask. In thousandths of a millimetre.
func TestRecordsByHand(t *testing.T) {
	d := synthetic.FourLayers()
	lines := strings.Split(string(testnet.Write(d, layout.NewIndex(d))), "\r\n")
	var got []string
	for _, l := range lines {
		if l != "" && l != "999" {
			assert.Len(t, l, 80)
		}
		if strings.HasPrefix(l, "3") {
			got = append(got, strings.TrimRight(l, " "))
		}
	}
	assert.Equal(t, []string{
		//  4             21    27  33     39 42      50      58   63   68   73
		"327A                R1    -1          A01X+008000Y+010000X1000Y2000R000 S0",
		"327B                R1    -2          A01X+012000Y+010000X1000Y2000R000 S0",
		"317A                U1    -1    D0800PA00X+010000Y+020000X1600Y1600R000 S0",
		"327C                U1    -2          A04X+010000Y+015000X1000Y2000R000 S0",
		"327N/C              U1    -3          A04X+007000Y+015000X1000Y2000R000 S0",
		"317A                VIA         D0400PA00X+020000Y+020000X0800Y0800R000 S3",
		"307A                VIA         D0400PA01X+025000Y+020000X0800Y0800R000 S3",
		"307C                VIA         D0400PA04X+035000Y+020000X0800Y0800R000 S3",
	}, got, "a buried via cannot be probed")
	assert.Equal(t, "P  UNITS CUST 1", strings.TrimSpace(lines[2]))
	assert.Equal(t, "999", lines[len(lines)-2])
}

// Long and foreign names get an alias that the head tells; places round half away from zero; what
// is wider than the columns is cut.
func TestAliasesAndRounding(t *testing.T) {
	d := design.New("Weir ☂")
	d.Put(&design.Footprint{ID: 20, Name: "P", Pads: []design.Pad{{Number: "ABCDEF", Form: "rect", Size: geom.Pt(20_000_000, 1_000_499)}}})
	for i, net := range []string{"EXACTLY14CHARS", "FIFTEEN_LETTERS", "水", "N/C", "B", "木"} {
		d.Put(&design.Placed{ID: design.ID(30 + i), Part: design.ID(1000 + i), Designator: "LONGNAME9", Footprint: "P", At: geom.Pt(-1_500, 1_499), Nets: map[string]design.ID{"ABCDEF": synthetic.Net(d, net)}})
	}
	out := string(testnet.Write(d, layout.NewIndex(d)))
	aliases := map[string]string{}
	var nets []string
	for _, l := range strings.Split(out, "\r\n") {
		if strings.HasPrefix(l, "P  NNAME") {
			f := strings.Fields(l[3:])
			aliases[f[0]] = f[1]
		}
		if strings.HasPrefix(l, "327") {
			nets = append(nets, strings.TrimSpace(l[3:17]))
			assert.Equal(t, "REF1  -P1  ", l[20:31])
			assert.Equal(t, "X-000002Y+000001X9999Y1000", l[41:67])
		}
	}
	require.Len(t, nets, 6)
	assert.Equal(t, "EXACTLY14CHARS", nets[0])
	assert.Equal(t, map[string]string{"NNAME1": "FIFTEEN_LETTERS", "NNAME2": "N/C", "NNAME3": `\u6728`, "NNAME4": `\u6C34`}, aliases)
	assert.Equal(t, []string{"NNAME1", "NNAME4", "NNAME2", "B", "NNAME3"}, nets[1:])
	assert.Contains(t, out, `P  JOB   Weir \u2602`)
}

// On a board of one layer everything is reached from the top.
func TestOneLayer(t *testing.T) {
	d := design.New("one")
	b := *d.Board
	b.Stack = b.Copper()[:1]
	d.Put(&b)
	d.Put(&design.Footprint{ID: 20, Name: "P", Pads: []design.Pad{{Number: "1", Form: "round", Size: geom.Pt(1_000_000, 1_000_000)}, {Number: "2", Form: "round", Size: geom.Pt(2_000_000, 2_000_000), Hole: 12_000_000}}})
	d.Put(&design.Placed{ID: 30, Part: 1000, Designator: "X1", Footprint: "P", Nets: map[string]design.ID{}})
	out := string(testnet.Write(d, layout.NewIndex(d)))
	assert.Contains(t, out, "327N/C              X1    -1          A01X+000000")
	assert.Contains(t, out, "317N/C              X1    -2    D9999PA00X+000000", "a hole wider than the columns")
}

// A via that the mask leaves free can be probed on both sides; the code for what is covered says so.
func TestCoverOfVias(t *testing.T) {
	d := synthetic.FourLayers()
	v := *d.Vias[synthetic.FourThrough]
	v.Cover = design.Open
	d.Put(&v)
	out := string(testnet.Write(d, layout.NewIndex(d)))
	assert.Contains(t, out, "317A                VIA         D0400PA00X+020000Y+020000X0800Y0800R000 S0")
	assert.Contains(t, out, "307A                VIA         D0400PA01X+025000Y+020000X0800Y0800R000 S3")
}

// Designators and pins that do not fit their columns, or their letters, are told apart by aliases, of which none is a name in use; a reader gets the names back.
func TestNamesAreToldApart(t *testing.T) {
	d := design.New("names")
	numbers := []string{"1", "GROUND", "GROUND_2", "Ä", "Ö", "P1"}
	var pads []design.Pad
	for i, n := range numbers {
		pads = append(pads, design.Pad{Number: n, Form: "rect", At: geom.Pt(int64(i)*3_000_000, 0), Size: geom.Pt(1_000_000, 2_000_000)})
	}
	d.Put(&design.Footprint{ID: 20, Name: "P", Pads: pads})
	parts := []string{"LONGPART1", "LONGPART2", "REF1", "R1", "Ω1", "Λ1"}
	for i, name := range parts {
		d.Put(&design.Placed{ID: design.ID(30 + i), Part: design.ID(1000 + i), Designator: name, Footprint: "P", At: geom.Pt(0, int64(i)*5_000_000), Nets: map[string]design.ID{"1": synthetic.Net(d, "Netz "+name)}})
	}
	probes, err := reread.TestNetlist(testnet.Write(d, layout.NewIndex(d)))
	require.NoError(t, err)
	var want, got [][3]string
	for _, part := range parts {
		for _, pin := range numbers {
			net := "N/C"
			if pin == "1" {
				net = "Netz " + part
			}
			want = append(want, [3]string{part, pin, net})
		}
	}
	for _, p := range probes {
		got = append(got, [3]string{p.Part, p.Pin, p.Net})
	}
	assert.Equal(t, want, got)
}

// A turned pad is written with its own size and its turn: what the record says covers what the pad covers, at every angle, on both sides.
func TestTurnedPadsAreWrittenAsTheyAre(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("turned")
		pad := design.Pad{Number: "1", Form: rapid.SampledFrom([]string{"rect", design.Oval, design.Rounded}).Draw(t, "form"),
			Size:   geom.Pt(rapid.Int64Range(200, 3000).Draw(t, "width")*1000, rapid.Int64Range(200, 3000).Draw(t, "height")*1000),
			Corner: 50_000, Angle: int32(rapid.IntRange(0, 359).Draw(t, "pad")) * 1000}
		d.Put(&design.Footprint{ID: 20, Name: "P", Pads: []design.Pad{pad}})
		d.Put(&design.Placed{ID: 30, Part: 1000, Designator: "U1", Footprint: "P", At: geom.Pt(10_000_000, 5_000_000), Angle: int32(rapid.IntRange(0, 359).Draw(t, "part")) * 1000,
			Bottom: rapid.Bool().Draw(t, "bottom"), Nets: map[string]design.ID{}})
		x := layout.NewIndex(d)
		probes, err := reread.TestNetlist(testnet.Write(d, x))
		require.NoError(t, err)
		require.Len(t, probes, 1)
		p := probes[0]
		if p.Size.X+p.Size.Y != pad.Size.X+pad.Size.Y || min(p.Size.X, p.Size.Y) != min(pad.Size.X, pad.Size.Y) {
			t.Fatalf("the pad is %v and said to be %v", pad.Size, p.Size)
		}
		sin, cos := math.Sincos(float64(p.Turn) * math.Pi / 180)
		c := x.Of(30)[0]
		if pad.Form != "rect" {
			return // whose corners are round
		}
		w, h := float64(p.Size.X)/2, float64(p.Size.Y)/2
		corner := c.At.Add(geom.Pt(int64(w*cos-h*sin), int64(w*sin+h*cos))) // as a reader of the standard has it
		near := math.Inf(1)
		for _, at := range c.On(map[bool]int{false: 0, true: 1}[d.Placed[30].Bottom]).Pts {
			near = min(near, at.Dist(corner))
		}
		assert.Less(t, near, 2000.0, "its corner lies where the record says")
	})
	// by hand: a pad of 2 by 1 turned by 30 degrees, below by minus 30
	d := design.New("hand")
	d.Put(&design.Footprint{ID: 20, Name: "P", Pads: []design.Pad{{Number: "1", Form: "rect", Size: geom.Pt(2_000_000, 1_000_000)}}})
	d.Put(&design.Placed{ID: 30, Part: 1000, Designator: "U1", Footprint: "P", Angle: 30_000, Nets: map[string]design.ID{}})
	d.Put(&design.Placed{ID: 31, Part: 1001, Designator: "U2", Footprint: "P", Angle: 30_000, Bottom: true, At: geom.Pt(0, 9_000_000), Nets: map[string]design.ID{}})
	out := string(testnet.Write(d, layout.NewIndex(d)))
	assert.Contains(t, out, "327N/C              U1    -1          A01X+000000Y+000000X2000Y1000R030 S0")
	assert.Contains(t, out, "327N/C              U2    -1          A02X+000000Y+009000X2000Y1000R030 S0")
}
