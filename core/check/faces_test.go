package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/synthetic"
)

// faced is a board with the rules of the faces set: openings 0.05 mm larger than pads, webs of 0.1 mm, silk of 0.1 mm at least and 0.15 mm off
// openings, letters of 0.8 mm, holes 0.2 mm from copper.
func faced() *design.Doc {
	d := bare()
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.MaskMargin: 50_000, design.MaskWeb: 100_000,
		design.SilkApart: 150_000, design.LeastSilk: 100_000,
		design.LetterHeight: 800_000, design.HoleCopper: 200_000, design.SilkWidth: 150_000})
	return d
}

// dot is a part with one pad, and no letters on the board: its label is far outside.
func dot(d *design.Doc, id design.ID, pad design.Pad, at geom.Point, angle int32, bottom bool, net string, solids ...design.Solid) {
	f := &design.Footprint{ID: 2000 + id, Name: fmt.Sprint("F", id), Pads: []design.Pad{pad}, Solids: solids,
		DesignatorAt: geom.Pt(0, 3*mm),
		Courtyard: []geom.Point{geom.Pt(-300_000, -300_000), geom.Pt(300_000, -300_000), geom.Pt(300_000, 300_000),
			geom.Pt(-300_000, 300_000)}}
	d.Put(f)
	p := &design.Placed{ID: id, Part: 3000 + id, Designator: fmt.Sprint("U", id), Footprint: f.Name, At: at, Angle: angle,
		Bottom: bottom, Letters: 900_000}
	if net != "" {
		p.Nets = map[string]design.ID{"1": synthetic.Net(d, net)}
	}
	d.Put(p)
}

func round(size int64) design.Pad {
	return design.Pad{Number: "1", Form: design.Round, Size: geom.Pt(size, size)}
}

func square(w, h int64) design.Pad {
	return design.Pad{Number: "1", Form: design.Rect, Size: geom.Pt(w, h)}
}

// away is a place so far from the middle of the board at an angle in degrees.
func away(by float64, angle int32) geom.Point {
	return geom.Pt(20*mm, 20*mm).Add(geom.Turn(geom.Pt(int64(by), 0), angle*1000))
}

func silkLine(id design.ID, width int64, bottom bool, at ...geom.Point) *design.BoardFigure {
	return &design.BoardFigure{ID: id, On: design.OnSilk, Bottom: bottom, Lines: [][]geom.Corner{geom.Corners(at...)}, Width: width}
}

func prism(w, h, from, to int64) design.Solid {
	return design.Solid{Form: design.Prism, Material: "body", From: from, To: to,
		Edge: geom.Corners(geom.Pt(-w/2, -h/2), geom.Pt(w/2, -h/2), geom.Pt(w/2, h/2), geom.Pt(-w/2, h/2))}
}

// Each kind of fault is seeded at its limit, and a micrometre to either side of it; by is how far what is measured lies beyond the limit.
func TestFacesAtTheLimits(t *testing.T) {
	mid := geom.Pt(20*mm, 20*mm)
	for name, c := range map[string]struct {
		kind     string
		required int64
		put      func(d *design.Doc, by int64, angle int32, bottom bool)
		measured func(by int64) int64
		flat     bool // no angle, as it lies on the axes
		fault    bool
	}{
		"a web of mask between discs": {"maskWeb", 100_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			dot(d, 50, round(1*mm), mid, 0, bottom, "A")
			dot(d, 51, round(600_000), away(float64(500_000+50_000+100_000+50_000+300_000+by), angle), 0, bottom, "B")
		}, nil, false, false},
		"a web of mask between rectangles": {"maskWeb", 100_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			dot(d, 50, square(1*mm, 2*mm), mid, angle*1000, bottom, "A")
			dot(d, 51, square(600_000, 2*mm), away(float64(500_000+50_000+100_000+50_000+300_000+by), angle), angle*1000, bottom, "A")
		}, nil, false, false},
		"no mask left": {"maskWeb", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.SetBase(map[design.RuleKind]int64{design.MaskWeb: 0, design.MaskMargin: 200_000})
			dot(d, 50, round(1*mm), mid, 0, bottom, "A")
			dot(d, 51, round(1*mm), away(float64(1*mm+400_000+by), angle), 0, bottom, "B")
		}, func(int64) int64 { return 0 }, false, false},
		"silk near an opening": {"silkOn", 150_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			dot(d, 50, round(1*mm), mid, 0, bottom, "A")
			at := away(float64(500_000+50_000+150_000+100_000+by), angle)
			d.Put(silkLine(60, 200_000, bottom, at, at.Add(geom.Turn(geom.Pt(1*mm, 0), angle*1000))))
		}, nil, false, false},
		"silk on a window of the mask": {"silkOn", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.SetBase(map[design.RuleKind]int64{design.SilkApart: 0})
			d.Put(&design.BoardFigure{ID: 61, On: design.OnMask, Bottom: bottom, Closed: true, Filled: true,
				Lines: [][]geom.Corner{geom.Corners(mid, mid.Add(geom.Pt(1*mm, 0)), mid.Add(geom.Pt(1*mm, 1*mm)), mid.Add(geom.Pt(0,
					1*mm)))}})
			q := mid.Add(geom.Pt(1*mm+by, 0))
			d.Put(&design.BoardFigure{ID: 60, On: design.OnSilk, Bottom: bottom, Closed: true, Filled: true,
				Lines: [][]geom.Corner{geom.Corners(q, q.Add(geom.Pt(2*mm, 0)), q.Add(geom.Pt(2*mm, 2*mm)), q.Add(geom.Pt(0, 2*mm)))}})
		}, func(int64) int64 { return 0 }, true, false},
		"thin silk": {"silkThin", 100_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.Put(silkLine(60, 100_000+by, bottom, mid, away(2*mm, angle)))
		}, nil, false, false},
		"low letters": {"letters", 800_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.Put(&design.Legend{ID: 60, At: mid, Angle: angle * 1000, Bottom: bottom, Height: 800_000 + by, Text: "WEIR",
				On: design.OnSilk})
		}, nil, false, false},
		"silk beyond the edge": {"silkOff", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.Put(silkLine(60, 200_000, bottom, geom.Pt(100_000+by, 10*mm), geom.Pt(5*mm, 12*mm)))
		}, func(int64) int64 { return 0 }, true, false},
		"mask over a pad": {"maskOn", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			p := square(1*mm, 1*mm)
			p.Mask = &design.Opening{Margin: &by}
			dot(d, 50, p, mid, angle*1000, bottom, "A")
		}, nil, false, false},
		"paste beyond its pad": {"paste", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			p, beyond := square(1*mm, 1*mm), -by
			p.Paste = &design.Opening{Margin: &beyond}
			dot(d, 50, p, mid, angle*1000, bottom, "A")
		}, nil, false, false},
		"a window of paste beyond its pad": {"paste", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			p := square(1*mm, 1*mm)
			p.Paste = &design.Opening{Windows: [][]geom.Corner{geom.Corners(geom.Pt(0, 0), geom.Pt(500_000-by, 0),
				geom.Pt(500_000-by, 300_000), geom.Pt(0, 300_000))}}
			dot(d, 50, p, mid, angle*1000, bottom, "A")
		}, nil, false, false},
		"a hole's wall near copper": {"wall", 200_000, func(d *design.Doc, by int64, angle int32, bottom bool) {
			// a via of a bare barrel inside: its pads there are as wide as its hole
			in := []design.ViaPad{{Layer: d.Board.At(1)}, {Layer: d.Board.At(2)}}
			d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000})
			d.Put(&design.Via{ID: 70, At: mid, Diameter: 800_000, Hole: 400_000, From: d.Board.At(0), To: d.Board.At(3),
				Net: synthetic.Net(d, "A"), Pads: in})
			at := away(float64(200_000+200_000+150_000+by), angle)
			layer := 1
			if bottom {
				layer = 2
			}
			d.Put(&design.Track{ID: 71, Layer: d.Board.At(layer), A: at, B: at.Add(geom.Turn(geom.Pt(1*mm, 0), angle*1000)),
				Width: 300_000, Net: synthetic.Net(d, "B")})
		}, nil, false, true},
		"a part that is too high": {"height", 5 * mm, func(d *design.Doc, by int64, angle int32, bottom bool) {
			kind := design.HeightAbove
			if bottom {
				kind = design.HeightBelow
			}
			d.SetBase(map[design.RuleKind]int64{kind: 5 * mm})
			dot(d, 50, round(1*mm), mid, angle*1000, bottom, "A", prism(2*mm, 2*mm, 0, 5*mm-by))
		}, nil, false, true},
		"pins that reach too far": {"height", 2 * mm, func(d *design.Doc, by int64, angle int32, bottom bool) {
			kind := design.HeightBelow
			if bottom {
				kind = design.HeightAbove
			}
			d.SetBase(map[design.RuleKind]int64{kind: 2 * mm})
			dot(d, 50, round(1*mm), mid, angle*1000, bottom, "A", prism(2*mm, 2*mm, -d.Board.Thickness()-2*mm+by, 1*mm))
		}, nil, false, true},
		"a part too high in an area": {"height", 3 * mm, func(d *design.Doc, by int64, angle int32, bottom bool) {
			d.Put(&design.RuleArea{ID: 80, Name: "lid", Outline: geom.Corners(geom.Pt(21*mm-1, 0), geom.Pt(30*mm, 0), geom.Pt(30*mm,
				40*mm), geom.Pt(21*mm-1, 40*mm))})
			kind := design.HeightAbove
			if bottom {
				kind = design.HeightBelow
			}
			d.Put(&design.Rule{ID: 81, Kind: kind, Order: 90, A: design.Scope{Area: 80}, Value: design.Fixed(3 * mm)})
			dot(d, 50, round(1*mm), mid, 0, bottom, "A", prism(2*mm, 2*mm, 0, 3*mm-by)) // its edge just lies in the area
		}, nil, true, true},
		"bodies that meet": {"bodies", 0, func(d *design.Doc, by int64, angle int32, bottom bool) {
			dot(d, 50, round(1*mm), mid, angle*1000, bottom, "A", prism(3*mm, 2*mm, 0, 2*mm))
			dot(d, 51, round(1*mm), away(float64(4*mm+2*by), angle), angle*1000, bottom, "A", prism(5*mm, 2*mm, 1*mm, 3*mm))
		}, func(int64) int64 { return -1 * mm }, false, true},
	} {
		t.Run(name, func(t *testing.T) {
			angles := []int32{0, 30, 45, 90, 137}
			if c.flat {
				angles = angles[:1]
			}
			for _, angle := range angles {
				for _, bottom := range []bool{false, true} {
					for _, by := range []int64{-1000, 0, 1000} {
						d := faced()
						c.put(d, by, angle, bottom)
						var got []*check.Finding
						for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
							if f.Kind != "silkOver" { // designators of parts that are put as near as the limit wants
								got = append(got, f)
							}
						}
						if by >= 0 {
							require.Empty(t, got, "%d beyond the limit, at %d°, below: %v", by, angle, bottom)
							continue
						}
						require.Len(t, got, 1, "at %d°, below: %v", angle, bottom)
						f := got[0]
						require.Equal(t, c.kind, f.Kind, f.Text)
						require.Equal(t, c.required, f.Required, f.Text)
						want := c.required + by
						if c.kind == "height" {
							want = c.required - by
						}
						if c.measured != nil {
							want = c.measured(by)
						}
						require.InDelta(t, want, f.Measured, 2, f.Text)
						require.Equal(t, c.fault, f.Severity == check.Fault)
						require.NotEmpty(t, f.Rule)
						if len(f.Ends) == 2 && f.Measured > 0 {
							require.InDelta(t, f.Measured, f.Ends[0].Dist(f.Ends[1]), 3, "measured between its ends")
							require.NotEmpty(t, f.Says)
						}
						if c.kind != "silkOff" {
							require.Less(t, f.At.Dist(mid), 3.2*mm, "it points at the place")
						}
					}
				}
			}
		})
	}
}

// What is no fault: openings of one net that meet, windows of one pad, webs on another face, silk over tracks under the mask and on the other
// face; a via in a pad that is filled; bodies over one another with air between.
func TestFacesWithoutFault(t *testing.T) {
	mid := geom.Pt(20*mm, 20*mm)
	d := faced()
	dot(d, 50, round(1*mm), mid, 0, false, "A")
	dot(d, 51, round(1*mm), mid.Add(geom.Pt(900_000, 0)), 0, false, "A")
	windowed := square(2*mm, 2*mm)
	windowed.Mask = &design.Opening{Windows: [][]geom.Corner{
		geom.Corners(geom.Pt(-900_000, -900_000), geom.Pt(-20_000, -900_000), geom.Pt(-20_000, 900_000), geom.Pt(-900_000, 900_000)),
		geom.Corners(geom.Pt(20_000, -900_000), geom.Pt(900_000, -900_000), geom.Pt(900_000, 900_000), geom.Pt(20_000, 900_000))}}
	dot(d, 52, windowed, geom.Pt(10*mm, 10*mm), 0, false, "B")
	dot(d, 53, round(1*mm), geom.Pt(10*mm, 30*mm), 0, true, "C")
	d.Put(silkLine(60, 200_000, false, geom.Pt(9*mm, 30*mm), geom.Pt(11*mm, 30*mm))) // over the pad below
	d.Put(&design.Track{ID: 61, Layer: d.Board.Top(), A: geom.Pt(30*mm, 10*mm), B: geom.Pt(30*mm, 20*mm), Width: 300_000,
		Net: synthetic.Net(d, "D")})
	d.Put(silkLine(62, 200_000, false, geom.Pt(30*mm, 12*mm), geom.Pt(30*mm, 14*mm)))
	d.Put(&design.Via{ID: 63, At: geom.Pt(10*mm, 30*mm), Diameter: 600_000, Hole: 300_000, From: d.Board.At(0), To: d.Board.At(3),
		Net:   synthetic.Net(d, "C"),
		Cover: design.Filled})
	dot(d, 54, round(1*mm), geom.Pt(30*mm, 30*mm), 0, false, "E", prism(2*mm, 2*mm, 0, 2*mm))
	dot(d, 55, round(1*mm), geom.Pt(32*mm, 30*mm), 0, false, "F", prism(4*mm, 1*mm, 2*mm, 4*mm))
	for i, id := range []design.ID{50, 51, 54, 55} { // designators each in a row of its own
		p := *d.Placed[id]
		p.Label = &geom.Point{Y: int64(2+2*(i%2)) * mm}
		d.Put(&p)
	}
	assert.Empty(t, texts(check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found))

	// the same with what is wrong
	v := *d.Vias[63]
	v.Cover = design.Tented
	d.Put(&v)
	d.Put(silkLine(62, 200_000, true, geom.Pt(9*mm, 30*mm), geom.Pt(11*mm, 30*mm)))
	covered := round(1 * mm)
	covered.Mask = &design.Opening{None: true}
	dot(d, 50, covered, mid, 0, false, "A")
	p := *d.Placed[50]
	p.Label = &geom.Point{Y: 6 * mm}
	d.Put(&p)
	assert.Equal(t, []string{
		"maskOn 50.0 above: The mask covers pad U50.1 (A) above. 0",
		"silkOn 62 53.0 below: A printed figure lies on the opening of pad U53.1 (C); there it is not printed. 0",
		"viaInPad 63 53.0: Via (C) opens into pad U53.1 and is not filled: solder would run into it. 0",
	}, texts(check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found))
}

// covered is a random board with parts, texts, figures of silk and windows of the mask on both faces.
func covered(t *rapid.T) *design.Doc {
	d := faced()
	at := func(n string) geom.Point {
		return geom.Pt(rapid.Int64Range(-4, 40).Draw(t, n+"x")*200_000, rapid.Int64Range(-4, 40).Draw(t, n+"y")*200_000)
	}
	for i := range rapid.IntRange(2, 14).Draw(t, "things") {
		putOne(t, d, design.ID(50+i), at)
	}
	return d
}

func putOne(t *rapid.T, d *design.Doc, id design.ID, at func(string) geom.Point) {
	bottom := rapid.Bool().Draw(t, "bottom")
	net := rapid.SampledFrom([]string{"A", "B", ""}).Draw(t, "net")
	switch rapid.IntRange(0, 5).Draw(t, "what") {
	case 0, 1:
		p := rapid.SampledFrom([]design.Pad{round(1 * mm), square(1*mm, 600_000), {Number: "1", Form: design.Round,
			Size: geom.Pt(1*mm, 1*mm), Hole: 500_000}}).Draw(t, "pad")
		dot(d, id, p, at("part"), rapid.Int32Range(0, 11).Draw(t, "turn")*30_000, bottom, net,
			prism(rapid.Int64Range(1, 4).Draw(t, "wide")*mm, 1*mm, rapid.Int64Range(0, 2).Draw(t, "from")*mm, 3*mm))
	case 2:
		p := at("text")
		d.Put(&design.Legend{ID: id, At: p, Height: rapid.SampledFrom([]int64{700_000, 1 * mm}).Draw(t, "high"), Text: "T",
			On: design.OnSilk, Bottom: bottom})
	case 3:
		p := at("line")
		d.Put(silkLine(id, rapid.SampledFrom([]int64{90_000, 200_000}).Draw(t, "width"), bottom, p, p.Add(geom.Pt(1*mm, 400_000))))
	case 4:
		p := at("window")
		d.Put(&design.BoardFigure{ID: id, On: design.OnMask, Bottom: bottom, Closed: true, Filled: true,
			Lines: [][]geom.Corner{geom.Corners(p, p.Add(geom.Pt(1*mm, 0)), p.Add(geom.Pt(1*mm, 1*mm)))}})
	case 5:
		v := &design.Via{ID: id, At: at("via"), Diameter: 600_000, Hole: 300_000, From: d.Board.At(0), To: d.Board.At(3),
			Cover: rapid.SampledFrom([]string{design.Open, design.Tented, design.Filled}).Draw(t, "cover")}
		if net != "" {
			v.Net = synthetic.Net(d, net)
		}
		d.Put(v)
	}
}

// overlap tells whether two areas that meet still do where one is a thousandth smaller about its middle.
func overlap(a, b geom.Shape) bool {
	box := a.Box()
	mid := geom.Pt((box.Min.X+box.Max.X)/2, (box.Min.Y+box.Max.Y)/2)
	small := a
	small.Pts = nil
	for _, p := range a.Pts {
		small.Pts = append(small.Pts, mid.Towards(p, 0.999))
	}
	gap, _, _ := geom.Gap(small, b)
	return gap <= 0
}

// faceKinds are the findings of what lies on the faces.
var faceKinds = []string{"maskWeb", "silkOn", "silkThin", "letters"}

// On random boards what is found between two things of a face is what comparing each with each finds.
func TestFacesAgainstEachWithEach(t *testing.T) {
	seen := map[string]int{}
	rapid.Check(t, func(t *rapid.T) {
		d := covered(t)
		x, r := layout.NewIndex(d), rules.Of(d)
		want := map[string]int64{}
		note := func(key string, measured int64) {
			if old, ok := want[key]; !ok || measured < old {
				want[key] = measured
			}
		}
		f := surface.Board{Doc: d, Index: x, Rules: r}
		ref := func(o surface.Opening) string {
			if o.Pad >= 0 {
				return fmt.Sprintf("%d.%d", o.Owner, o.Pad)
			}
			return fmt.Sprint(o.Owner)
		}
		net := func(o surface.Opening) (id design.ID, copper bool) {
			for _, c := range x.Of(o.Owner) {
				return c.Net, !c.Bare
			}
			return 0, false
		}
		for _, bottom := range []bool{false, true} {
			where := map[bool]string{false: "above", true: "below"}[bottom]
			var open []surface.Opening
			for o := range surface.Objects(d) {
				open = append(open, f.Openings(o, bottom)...)
			}
			for _, a := range open {
				for _, b := range open {
					if a.Owner >= b.Owner {
						continue
					}
					gap, _, _ := geom.Gap(a.Shape, b.Shape)
					x, copper := net(a)
					y, also := net(b)
					key := fmt.Sprintf("maskWeb %s %s %s", ref(a), ref(b), where)
					if gap > 0 && gap < 100_000-3 {
						note(key, geom.Measured(gap))
					} else if (gap < -3 || gap == 0 && overlap(a.Shape, b.Shape)) && copper && also && x != y {
						note(key, 0)
					}
				}
			}
			for o := range surface.Objects(d) {
				for _, s := range f.Silk(o, bottom) {
					for _, a := range open {
						if gap, _, _ := geom.Gap(s.Shape, a.Shape); gap < 150_000-3 { // they need not meet
							note(fmt.Sprintf("silkOn %d %s %s", o.ObjectID(), ref(a), where), max(geom.Measured(gap), 0))
						}
					}
					if s.Width > 0 && s.Width < 100_000-3 {
						note(fmt.Sprintf("silkThin %d", o.ObjectID()), s.Width)
					}
				}
				if l, ok := o.(*design.Legend); ok && l.Height < 800_000-3 {
					note(fmt.Sprintf("letters %d", l.ID), l.Height)
				}
			}
		}
		got := map[string]int64{}
		for key, f := range check.NewBoard(d, x, r).Found {
			if slices.Contains(faceKinds, f.Kind) {
				seen[f.Kind]++
				got[key] = f.Measured
			}
		}
		require.Equal(t, want, got)
	})
	for _, k := range faceKinds {
		assert.Positive(t, seen[k], k)
	}
}

// After random edits, and changes of rules, what is kept up to date is what a check from scratch finds.
func TestFacesKeptUpToDate(t *testing.T) {
	kinds := []design.RuleKind{design.MaskMargin, design.MaskWeb, design.SilkApart, design.LeastSilk, design.LetterHeight,
		design.SilkWidth, design.PasteMargin,
		design.HoleCopper, design.HeightAbove, design.HeightBelow, design.Clearance}
	seen := map[string]bool{}
	rapid.Check(t, func(t *rapid.T) {
		d := covered(t)
		x, set := layout.NewIndex(d), rules.Of(d)
		b := check.NewBoard(d, x, set)
		for range rapid.IntRange(1, 8).Draw(t, "edits") {
			changed := map[design.ID]bool{}
			switch rapid.IntRange(0, 3).Draw(t, "edit") {
			case 0:
				r := *d.Base(rapid.SampledFrom(kinds).Draw(t, "kind"))
				values := []int64{0, 50_000, 200_000, 950_000, 2 * mm}
				if r.Kind == design.MaskMargin || r.Kind == design.PasteMargin {
					values = []int64{-20_000, 0, 50_000, 200_000}
				}
				r.Value = design.Fixed(rapid.SampledFrom(values).Draw(t, "value"))
				before := d.GetKind(design.KindRule, r.ID)
				d.Put(&r)
				set.Changed(before, &r)
				b.Rule(before, &r)
			case 1:
				for o := range surface.Objects(d) {
					if rapid.IntRange(0, 3).Draw(t, "take") == 0 {
						changed[o.ObjectID()] = true
						d.Remove(o.ObjectKind(), o.ObjectID())
						x.Remove(o.ObjectID())
						break
					}
				}
			default:
				id := design.ID(50 + rapid.IntRange(0, 15).Draw(t, "id"))
				if o := d.Get(id); o != nil {
					d.Remove(o.ObjectKind(), id)
					x.Remove(id)
				}
				putOne(t, d, id, func(n string) geom.Point {
					return geom.Pt(rapid.Int64Range(-4, 40).Draw(t, n+"x")*200_000, rapid.Int64Range(-4, 40).Draw(t, n+"y")*200_000)
				})
				if o := d.Get(id); o != nil {
					x.Put(d, o)
				}
				changed[id] = true
			}
			b.Update(changed)
			fresh := check.NewBoard(d, layout.NewIndex(d), rules.Of(d))
			require.Equal(t, texts(fresh.Found), texts(b.Found))
			for _, f := range b.Found {
				seen[f.Kind] = true
			}
		}
	})
	for _, k := range strings.Fields("maskWeb silkOn silkThin silkOff letters bodies") {
		assert.True(t, seen[k], k)
	}
}

// A finding names a text by its first line, and by no more of it than a sentence bears.
func TestTextsAreNamedByTheirFirstWords(t *testing.T) {
	for text, named := range map[string]string{"WEIR": "WEIR", "Sluice gate number four!": "Sluice gate number four!",
		"Sluice gate number four!!": "Sluice gate number four!…", "Weir\nGauge": "Weir…", "äöü ÄÖÜ äöü ÄÖÜ äöü ÄÖÜ äöü": "äöü ÄÖÜ äöü ÄÖÜ äöü ÄÖÜ …"} {
		d := bare()
		d.SetBase(map[design.RuleKind]int64{design.LeastSilk: 200_000})
		d.Put(&design.Legend{ID: 60, At: geom.Pt(20*mm, 15*mm), Height: 2 * mm, Text: text, Stroke: 160_000})
		said := ""
		for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
			if f.Kind == "silkThin" {
				said = f.Text
			}
		}
		assert.Equal(t, "The text “"+named+"” is drawn 0.16 mm wide.", said)
	}
}
