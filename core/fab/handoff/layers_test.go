package handoff_test

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// storeys is a board of so many copper layers: U1 on top and U2 below, each with a surface pad, a pad on
// the far side and a plated one with a wider shape inside; a via of each span of neighbours, one through.
func storeys(n int) *design.Doc {
	const mm = 1_000_000
	d := design.New("Storeys")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(60*mm, 0), geom.Pt(60*mm, 30*mm), geom.Pt(0, 30*mm))
	d.Put(&b)
	synthetic.Layers(d, n)
	net := synthetic.Net(d, "A")
	d.Put(&design.Footprint{ID: 100, Name: "F", DesignatorAt: geom.Pt(0, 3*mm), Pads: []design.Pad{
		{Number: "1", Form: "rect", At: geom.Pt(-3*mm, 0), Size: geom.Pt(mm, mm)},
		{Number: "2", Form: "rect", Size: geom.Pt(mm, mm), Far: true},
		{Number: "3", Form: "round", At: geom.Pt(3*mm, 0), Size: geom.Pt(mm, mm), Hole: 500_000, On: map[string]design.PadShape{
			design.Inner: {Form: "round", Size: geom.Pt(2*mm, 2*mm)}, design.Far: {Form: "rect", Size: geom.Pt(mm, mm)}}},
	}})
	pads := map[string]design.ID{"1": net, "2": net, "3": net}
	d.Put(&design.Placed{ID: 101, Part: 1, Designator: "U1", Footprint: "F", At: geom.Pt(10*mm, 10*mm), Nets: pads})
	d.Put(&design.Placed{ID: 102, Part: 2, Designator: "U2", Footprint: "F", At: geom.Pt(10*mm, 20*mm), Bottom: true, Nets: pads})
	for i := range n - 1 {
		d.Put(&design.Via{ID: design.ID(200 + i), At: geom.Pt(int64(20+4*i)*mm, 10*mm), Diameter: 800_000, Hole: 400_000, From: d.Board.At(i), To: d.Board.At(i + 1), Net: net})
	}
	if n > 2 {
		d.Put(&design.Via{ID: 300, At: geom.Pt(55*mm, 10*mm), Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: net})
		d.Put(&design.Via{ID: 301, At: geom.Pt(55*mm, 20*mm), Diameter: 300_000, Hole: 100_000, From: d.Board.At(n - 2), To: d.Board.Bottom(), Net: net, Kind: design.Lasered})
	}
	return d
}

// On boards of one, two, four and eight copper layers everything lies on the layers where it belongs,
// in the copper, in the files and in the netlist; reckoned by hand.
func TestOneToEightLayers(t *testing.T) {
	for n, want := range map[int]struct {
		marks     []string // of each layer from the top: what is flashed there
		functions []string
		files     []string // of drills
		access    string   // of the vias in the netlist
	}{
		1: {[]string{"U1.1 U1.2 U1.3rect U2.1 U2.2 U2.3rect"}, []string{"L1,Top"}, []string{"plated", "unplated"}, ""},
		2: {[]string{"U1.1 U1.3round U2.2 U2.3rect via20", "U1.2 U1.3rect U2.1 U2.3round via20"}, []string{"L1,Top", "L2,Bot"}, []string{"plated", "unplated"}, "317A00"},
		4: {
			[]string{"U1.1 U1.3round U2.2 U2.3rect via20 via55", "U1.3wide U2.3wide via20 via24 via55", "U1.3wide U2.3wide via24 via28 via55 via55small", "U1.2 U1.3rect U2.1 U2.3round via28 via55 via55small"},
			[]string{"L1,Top", "L2,Inr", "L3,Inr", "L4,Bot"}, []string{"laser-3-4", "plated", "plated-1-2", "plated-2-3", "plated-3-4", "unplated"}, "307A01 307A04 307A04 317A00",
		},
		8: {
			[]string{"U1.1 U1.3round U2.2 U2.3rect via20 via55", "U1.3wide U2.3wide via20 via24 via55", "U1.3wide U2.3wide via24 via28 via55", "U1.3wide U2.3wide via28 via32 via55",
				"U1.3wide U2.3wide via32 via36 via55", "U1.3wide U2.3wide via36 via40 via55", "U1.3wide U2.3wide via40 via44 via55 via55small", "U1.2 U1.3rect U2.1 U2.3round via44 via55 via55small"},
			[]string{"L1,Top", "L2,Inr", "L3,Inr", "L4,Inr", "L5,Inr", "L6,Inr", "L7,Inr", "L8,Bot"},
			[]string{"laser-7-8", "plated", "plated-1-2", "plated-2-3", "plated-3-4", "plated-4-5", "plated-5-6", "plated-6-7", "plated-7-8", "unplated"}, "307A01 307A08 307A08 317A00",
		},
	} {
		t.Run(fmt.Sprint(n), func(t *testing.T) {
			d := storeys(n)
			require.NoError(t, d.Whole())
			x := layout.NewIndex(d)
			f := files(t, d, "s")
			for layer := range n {
				var inCopper []string
				for c := range x.All() {
					if c.Has(layer) {
						inCopper = append(inCopper, told(c.Name, c.At, c.On(layer)))
					}
				}
				slices.Sort(inCopper)
				assert.Equal(t, want.marks[layer], strings.Join(inCopper, " "), "copper of layer %d", layer+1)
				art, err := reread.Gerber(f[fmt.Sprintf("copper-%d.gbr", layer+1)])
				require.NoError(t, err)
				assert.Equal(t, "Copper,"+want.functions[layer], art.Attributes[".FileFunction"])
				var inFile []string
				for _, m := range art.Marks {
					name := "via"
					if m.Part != "" {
						name = "pad " + m.Part + "." + m.Pin
					}
					inFile = append(inFile, told(name, m.At, m.Shapes[0]))
				}
				slices.Sort(inFile)
				assert.Equal(t, want.marks[layer], strings.Join(inFile, " "), "file of layer %d", layer+1)
			}
			var drills []string
			for name := range maps.Keys(f) {
				if stem, ok := strings.CutSuffix(name, ".xnc"); ok {
					drills = append(drills, stem)
				}
			}
			assert.ElementsMatch(t, want.files, drills)
			var access []string
			for _, l := range strings.Split(string(f["netlist.ipc"]), "\r\n") {
				if len(l) > 41 && strings.Contains(l, "VIA") {
					access = append(access, l[:3]+l[38:41])
				}
			}
			slices.Sort(access)
			assert.Equal(t, want.access, strings.Join(access, " "), "buried ones cannot be reached")
			sides := map[string]string{"mask-top": "U1.1 U1.3 U2.2 U2.3", "mask-bottom": "U1.2 U1.3 U2.1 U2.3", "paste-top": "U1.1 U2.2", "paste-bottom": "U1.2 U2.1"}
			for name, pads := range sides {
				art, err := reread.Gerber(f[name+".gbr"])
				require.NoError(t, err)
				var got []string
				for _, m := range art.Marks {
					for c := range x.All() {
						if c.Pad >= 0 && c.At == m.At {
							got = append(got, strings.TrimPrefix(c.Name, "pad "))
						}
					}
				}
				slices.Sort(got)
				assert.Equal(t, pads, strings.Join(got, " "), name)
			}
		})
	}
}

// told names what lies somewhere: pads by their number and, where it differs, their form, vias by their x in
// millimetres.
func told(name string, at geom.Point, s geom.Shape) string {
	box := s.Box()
	width := box.Max.X - box.Min.X
	if name == "via" {
		out := fmt.Sprint("via", at.X/1_000_000)
		if width < 500_000 {
			out += "small"
		}
		return out
	}
	name = strings.TrimPrefix(name, "pad ")
	if !strings.HasSuffix(name, ".3") {
		return name
	}
	switch {
	case width > 1_500_000:
		return name + "wide"
	case s.Area:
		return name + "rect"
	}
	return name + "round"
}
