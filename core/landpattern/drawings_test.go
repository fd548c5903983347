package landpattern_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// roomOf is what a stroke covers.
func roomOf(s landpattern.Stroke) geom.Box {
	b := geom.BoxOf(s.Pts...)
	if s.Form == "circle" {
		return b.Grow(s.R)
	}
	return b
}

// roomOfAll is what a drawing covers: all of it, or what is of one style.
func roomOfAll(v landpattern.BodyView, styles ...string) geom.Box {
	var e geom.Extent
	for _, s := range v.Strokes {
		if len(styles) == 0 || slices.Contains(styles, s.Style) {
			e.AddBox(roomOf(s))
		}
	}
	return e.Box
}

// stands tells whether something drawn ends, or has its middle, at a place along an axis: there a dimension line can point to it.
func stands(v landpattern.BodyView, at int64, axis func(geom.Point) int64) bool {
	for _, s := range v.Strokes {
		b := roomOf(s)
		for _, x := range []int64{axis(b.Min), axis(b.Max), axis(b.Centre())} {
			if d := x - at; d >= -2 && d <= 2 {
				return true
			}
		}
		for _, p := range s.Pts {
			if axis(p) == at {
				return true
			}
		}
	}
	return false
}

func across(p geom.Point) int64  { return p.X }
func upwards(p geom.Point) int64 { return p.Y }

// Every dimension of a body is measured by a dimension line that is as long as it says, between things that are drawn; it stands clear of the
// drawing, and of other lines that run beside it.
func TestDimensionLinesMeasureWhatTheySay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		drawn := map[string]bool{}
		for _, v := range res.Views {
			if v.Section {
				continue
			}
			whole := roomOfAll(v, "body", "lead")
			size := max(whole.Max.X-whole.Min.X, whole.Max.Y-whole.Min.Y)
			for i, d := range v.Dims {
				drawn[d.Key] = true
				axis, other := across, upwards
				if d.A.X == d.B.X {
					axis, other = upwards, across
				}
				if given, ok := r.Dims[d.Key]; ok {
					if long := axis(d.B) - axis(d.A); long-given.Middle() > 2 || given.Middle()-long > 2 {
						t.Fatalf("%s: %s is %s and drawn %s", res.Name, d.Key, units.Text(given.Middle()), units.Text(long))
					}
				}
				if !stands(v, axis(d.A), axis) || !stands(v, axis(d.B), axis) {
					t.Fatalf("%s: in %q the line of %s (%v to %v) ends where nothing is", res.Name, v.Name, d.Key, d.A, d.B)
				}
				if axis(d.Off) != 0 || other(d.Off) == 0 {
					t.Fatalf("%s: the line of %s is not beside what it measures", res.Name, d.Key)
				}
				if strings.HasPrefix(d.Key, "thermal") {
					continue // beneath the body, in the middle of the drawing
				}
				line := other(d.A.Add(d.Off))
				if beyond := max(line-other(whole.Max), other(whole.Min)-line); beyond < size/60 || beyond > size/2 {
					t.Fatalf("%s: in %q the line of %s is %s from a drawing of %s", res.Name, v.Name, d.Key, units.Text(beyond), units.Text(size))
				}
				for _, e := range v.Dims[:i] {
					beside := (e.A.X == e.B.X) == (d.A.X == d.B.X) && axis(e.A) < axis(d.B) && axis(d.A) < axis(e.B)
					if apart := other(e.A.Add(e.Off)) - line; beside && apart < size/40 && apart > -size/40 {
						t.Fatalf("%s: the lines of %s and %s lie on each other", res.Name, d.Key, e.Key)
					}
				}
			}
		}
		for k := range r.Dims {
			if !drawn[k] {
				t.Fatalf("%s: %s is nowhere in its drawings", res.Name, k)
			}
		}
	})
}

// What the drawings show is as large as the body, and shows as many leads as it has.
func TestDrawingsShowTheBody(t *testing.T) {
	for _, c := range []struct {
		family        string
		wide, tall    string // the dimensions that the first drawing spans
		leads         int
		least, larger string // of a lead: its width on the drawing, and what it is long
	}{
		{"chip", "length", "width", 2, "", "terminal"},
		{"moulded", "length", "width", 2, "leadWidth", "terminal"},
		{"cylinder", "length", "diameter", 2, "", "terminal"},
		{"can", "span", "base", 2, "leadWidth", "terminal"},
		{"gullTwo", "span", "bodyLength", 8, "leadWidth", ""},
		{"jLeadTwo", "span", "bodyLength", 20, "leadWidth", ""},
		{"gullFour", "spanX", "spanY", 48, "leadWidth", ""},
		{"jLeadFour", "spanX", "spanY", 20, "leadWidth", ""},
		{"transistor", "span", "bodyLength", 3, "leadWidth", ""},
		{"ballGrid", "bodyX", "bodyY", 81, "ball", "ball"},
		{"pinGrid", "bodyX", "bodyY", 64, "pin", "pin"},
		{"circular", "diameter", "diameter", 8, "lead", "lead"},
		{"header", "", "bodyWidth", 6, "pin", "pin"},
	} {
		r := landpattern.FamilyOf(c.family).Example.Clone()
		v := made(t, r).Views[0]
		room := roomOfAll(v)
		if c.wide != "" {
			assert.InDelta(t, r.Dims[c.wide].Middle(), room.Max.X-room.Min.X, 2, "%s: %s", c.family, c.wide)
		}
		assert.InDelta(t, r.Dims[c.tall].Middle(), room.Max.Y-room.Min.Y, 2, "%s: %s", c.family, c.tall)
		assert.Equal(t, geom.Pt(0, 0), geom.Pt(room.Centre().X/2, room.Centre().Y/2), "%s lies about the origin", c.family)
		leads := 0
		for _, s := range v.Strokes {
			if s.Style != "lead" {
				continue
			}
			leads++
			b := roomOf(s)
			sides := []int64{b.Max.X - b.Min.X, b.Max.Y - b.Min.Y}
			for _, key := range []string{c.least, c.larger} {
				if key != "" {
					assert.True(t, near(sides[0], r.Dims[key].Middle()) || near(sides[1], r.Dims[key].Middle()), "%s: a lead of %v should measure its %s", c.family, sides, key)
				}
			}
		}
		assert.Equal(t, c.leads, leads, c.family)
	}
}

func near(a, b int64) bool { return a-b >= -2 && a-b <= 2 }

// From above and from the side a body is equally wide, and as high as it says.
func TestDrawingsFromTheSide(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, res := possible(t)
		height, ok := r.Dims["height"]
		if !ok {
			return // round, and lying: it is as high as it is wide
		}
		above, side := roomOfAll(res.Views[0], "body", "lead"), roomOfAll(res.Views[1], "body", "lead")
		if !near(side.Max.Y, height.Middle()) {
			t.Fatalf("%s: from the side it is %s high", res.Name, units.Text(side.Max.Y))
		}
		if above.Min.X-side.Min.X > 2 || side.Max.X-above.Max.X > 2 || !near(side.Min.X, -side.Max.X) && r.Family != "transistor" {
			t.Fatalf("%s: from above it reaches from %d to %d, from the side from %d to %d", res.Name, above.Min.X, above.Max.X, side.Min.X, side.Max.X)
		}
	})
}

// A section shows the joint's own numbers: copper from heel to toe, solder from the lead's ends to the copper's, and texts that are the middle of what
// the body's tolerances give.
func TestSectionsShowTheJoint(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		_, res := possible(t)
		at := 0
		for i, v := range res.Views {
			if !v.Section || strings.HasSuffix(v.Name, "across") {
				continue
			}
			wide := res.Views[i+1]
			if at >= len(res.Joints) || !wide.Section || !strings.HasSuffix(wide.Name, "across") {
				t.Fatalf("%s: a section along without one across, or without its joint", res.Name)
			}
			j := res.Joints[at]
			at++
			copper := roomOfAll(v, "copper")
			toe, side := copper.Max.X, roomOfAll(wide, "copper").Max.X-roomOfAll(wide, "lead").Max.X
			if d := toe - j.Outer.Middle(); d > 2 || d < -2 {
				t.Fatalf("%s: the section has a toe of %s, the joint of %s", res.Name, units.Text(toe), units.Text(j.Outer.Middle()))
			}
			if d := side - j.Side.Middle(); d > 2 || d < -2 {
				t.Fatalf("%s: the section has a side of %s, the joint of %s", res.Name, units.Text(side), units.Text(j.Side.Middle()))
			}
			for _, d := range append(slices.Clone(v.Dims), wide.Dims...) {
				if d.Text != units.Text(d.B.X-d.A.X) || d.Key != "" {
					t.Fatalf("%s: %s says %s over %s", res.Name, d.Words, d.Text, units.Text(d.B.X-d.A.X))
				}
			}
			if v.Dims[0].B.X != copper.Max.X || v.Dims[1].A.X != copper.Min.X || v.Dims[0].A.X != 0 {
				t.Fatalf("%s: toe and heel are not measured to the copper's ends", res.Name)
			}
			for _, s := range append(slices.Clone(v.Strokes), wide.Strokes...) {
				b := roomOf(s)
				switch s.Style {
				case "solder":
					if b.Min.Y != 0 || b.Max.Y <= 0 || b.Min.X == b.Max.X {
						t.Fatalf("%s: solder that does not stand on copper: %v", res.Name, b)
					}
				case "board":
					if b.Max.Y != copper.Min.Y {
						t.Fatalf("%s: the board does not carry the copper", res.Name)
					}
				case "lead":
					if b.Min.Y != 0 {
						t.Fatalf("%s: the lead does not stand on the copper", res.Name)
					}
				}
			}
		}
		if at != len(res.Joints) {
			t.Fatalf("%s: %d joints, %d sections", res.Name, len(res.Joints), at)
		}
	})
}

// Solder falls from the wall to the land's end hollow: always below the straight line between them.
func TestSolderIsHollow(t *testing.T) {
	res := made(t, landpattern.FamilyOf("chip").Example.Clone())
	seen := 0
	for _, v := range res.Views {
		for _, s := range v.Strokes {
			if s.Style != "solder" {
				continue
			}
			seen++
			top, end := s.Pts[1], s.Pts[len(s.Pts)-1]
			require.Equal(t, int64(0), end.Y)
			require.Positive(t, top.Y)
			for _, p := range s.Pts[2 : len(s.Pts)-1] {
				straight := float64(top.Y) * (1 - math.Abs(float64(p.X-top.X))/math.Abs(float64(end.X-top.X)))
				assert.Less(t, float64(p.Y), straight)
				assert.Positive(t, p.Y)
			}
		}
	}
	assert.Equal(t, 4, seen, "toe, heel, and both sides")
}
