package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/fab/drill"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

func mm(x, y int64) geom.Point { return geom.Pt(x*1_000_000, y*1_000_000) }

// The holes of the four-layer board, span by span, as its drawing gives them.
func TestHolesBySpan(t *testing.T) {
	hits := drill.Hits(layout.NewIndex(synthetic.FourLayers()), 4)
	assert.Equal(t, map[drill.Span][]drill.Hit{
		{From: 1, To: 4, Of: 4, Plated: true}: {{At: mm(10, 20), Diameter: 800_000, Function: "ComponentDrill"}, {At: mm(20, 20), Diameter: 400_000, Function: "ViaDrill"}},
		{From: 1, To: 2, Of: 4, Plated: true}: {{At: mm(25, 20), Diameter: 400_000, Function: "ViaDrill"}},
		{From: 2, To: 3, Of: 4, Plated: true}: {{At: mm(30, 20), Diameter: 400_000, Function: "ViaDrill"}},
		{From: 3, To: 4, Of: 4, Plated: true}: {{At: mm(35, 20), Diameter: 400_000, Function: "ViaDrill"}},
		// U1 lies on the bottom, turned by 90°: its hole at (−5, 0) is mirrored to (5, 0) and turned to (0, 5)
		{From: 1, To: 4, Of: 4}: {{At: mm(10, 25), Diameter: 1_000_000, Function: "MechanicalDrill"}, {At: mm(37, 3), Diameter: 3_200_000, Function: "MechanicalDrill"}},
	}, hits)
	var words []string
	for _, s := range drill.Spans(hits) {
		words = append(words, s.Plating())
	}
	assert.Equal(t, []string{"PTH", "Blind", "Buried", "Blind", "NPTH"}, words, "through first, unplated last")
}

// A board without holes still has both files; holes are ordered by x, then y, then size.
func TestOrderAndEmptyFiles(t *testing.T) {
	d := design.New("order")
	assert.Equal(t, map[drill.Span][]drill.Hit{{From: 1, To: 2, Of: 2, Plated: true}: nil, {From: 1, To: 2, Of: 2}: nil}, drill.Hits(layout.NewIndex(d), 2))
	for i, h := range []struct{ x, y, d int64 }{{3, 1, 2}, {1, 5, 1}, {1, 2, 3}, {1, 2, 1}, {0, 9, 1}} {
		d.Put(&design.Hole{ID: design.ID(50 + i), At: mm(h.x, h.y), Diameter: h.d * 1_000_000})
	}
	var got [][3]int64
	for _, h := range drill.Hits(layout.NewIndex(d), 2)[drill.Span{From: 1, To: 2, Of: 2}] {
		got = append(got, [3]int64{h.At.X / 1_000_000, h.At.Y / 1_000_000, h.Diameter / 1_000_000})
	}
	assert.Equal(t, [][3]int64{{0, 9, 1}, {1, 2, 1}, {1, 2, 3}, {1, 5, 1}, {3, 1, 2}}, got)
}

// One file, letter by letter, as the published format asks for it.
func TestFileByHand(t *testing.T) {
	hits := []drill.Hit{{At: mm(1, 2), Diameter: 800_000, Function: "ComponentDrill"}, {At: geom.Pt(-2_540_001, 0), Diameter: 400_000, Function: "ViaDrill"}, {At: mm(3, 4), Diameter: 800_000, Function: "ComponentDrill"}}
	assert.Equal(t, `M48
; Written by Golden Trace
; #@! TF.FileFunction,Plated,1,2,Blind
; #@! TF.CreationDate,2026-03-04T05:06:07Z
; #@! TF.SameCoordinates,GoldenTrace
METRIC
; #@! TA.AperFunction,Plated,Blind,ViaDrill
T1C0.4
; #@! TD
; #@! TA.AperFunction,Plated,Blind,ComponentDrill
T2C0.8
; #@! TD
%
G05
T1
X-2.540001Y0
T2
X1Y2
X3Y4
M30
`, string(drill.Write(hits, drill.Span{From: 1, To: 2, Of: 4, Plated: true}, "2026-03-04T05:06:07Z")))
	assert.Contains(t, string(drill.Write(nil, drill.Span{From: 1, To: 4, Of: 4}, "x")), "TF.FileFunction,NonPlated,1,4,NPTH\n")
	assert.Contains(t, string(drill.Write(nil, drill.Span{From: 1, To: 4, Of: 4, Plated: true}, "x")), "TF.FileFunction,Plated,1,4,PTH\n")
	assert.Contains(t, string(drill.Write(nil, drill.Span{From: 3, To: 4, Of: 4, Plated: true}, "x")), "Plated,3,4,Blind\n")
	assert.Contains(t, string(drill.Write(nil, drill.Span{From: 2, To: 3, Of: 4, Plated: true}, "x")), "Plated,2,3,Buried\n")
}
