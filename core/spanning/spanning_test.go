package spanning_test

import (
	"cmp"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
	"goldentrace/core/spanning"
)

// tree is the length of the shortest tree among the lines, by Kruskal's method, and whether it joins all.
func tree(s *spanning.Points) (length float64, whole bool) {
	most := int32(0)
	for _, l := range s.Lines() {
		most = max(most, l.A, l.B)
	}
	f := geom.NewForest(int(most) + 1)
	joined := 0
	for _, l := range s.Lines() {
		if f.Join(int(l.A), int(l.B)) {
			length += s.At(l.A).Dist(s.At(l.B))
			joined++
		}
	}
	return length, joined == max(0, s.Len()-1)
}

// prim is the same over the full table of distances.
func prim(pts []geom.Point) (total float64) {
	far := make([]float64, len(pts))
	for i := range far {
		far[i] = math.Inf(1)
	}
	left := make([]int, len(pts))
	for i := range left {
		left[i] = i
	}
	for len(left) > 0 {
		best := slices.MinFunc(left, func(a, b int) int { return cmp.Compare(far[a], far[b]) })
		if !math.IsInf(far[best], 1) {
			total += far[best]
		}
		left = slices.DeleteFunc(left, func(i int) bool { return i == best })
		for _, i := range left {
			far[i] = min(far[i], pts[best].Dist(pts[i]))
		}
	}
	return total
}

// fields are ways in which points can lie.
var fields = map[string]func(t *rapid.T) geom.Point{
	"anywhere": func(t *rapid.T) geom.Point {
		return geom.Pt(rapid.Int64Range(-2e9, 2e9).Draw(t, "x"), rapid.Int64Range(-2e9, 2e9).Draw(t, "y"))
	},
	"on a grid": func(t *rapid.T) geom.Point {
		return geom.Pt(rapid.Int64Range(0, 12).Draw(t, "x"), rapid.Int64Range(0, 12).Draw(t, "y"))
	},
	"in a row":   func(t *rapid.T) geom.Point { return geom.Pt(rapid.Int64Range(0, 400).Draw(t, "x"), 0) },
	"in a pile":  func(t *rapid.T) geom.Point { return geom.Pt(7, rapid.Int64Range(-200, 200).Draw(t, "y")) },
	"on a slope": func(t *rapid.T) geom.Point { x := rapid.Int64Range(0, 300).Draw(t, "x"); return geom.Pt(x, -2*x) },
}

// The shortest tree among the lines is as short as Prim's, whatever came and went before, and the lines are
// those of the same points taken in at once.
func TestLinesHoldAShortestTree(t *testing.T) {
	for name, field := range fields {
		t.Run(name, func(t *testing.T) {
			rapid.Check(t, func(t *rapid.T) {
				var s spanning.Points
				number := map[geom.Point]int32{}
				for range rapid.IntRange(1, 12).Draw(t, "rounds") {
					var come []geom.Point
					for range rapid.SampledFrom([]int{1, 2, 60}).Draw(t, "come") {
						if p := field(t); number[p] == 0 && !slices.Contains(come, p) {
							come = append(come, p)
						}
					}
					var gone []int32
					for _, p := range sorted(number) {
						if rapid.IntRange(0, 5).Draw(t, "goes") == 0 {
							gone = append(gone, number[p]-1)
							delete(number, p)
						}
					}
					for i, n := range s.Change(gone, come) {
						number[come[i]] = n + 1
					}
					assert.Equal(t, len(number), s.Len())
					pts := sorted(number)
					want := prim(pts)
					got, whole := tree(&s)
					assert.True(t, whole)
					assert.InEpsilon(t, want+1, got+1, 1e-9)
					var fresh spanning.Points
					fresh.Change(nil, pts)
					assert.Equal(t, places(&fresh), places(&s))
				}
			})
		})
	}
}

func sorted(m map[geom.Point]int32) []geom.Point {
	var out []geom.Point
	for p := range m {
		out = append(out, p)
	}
	slices.SortFunc(out, func(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	return out
}

func places(s *spanning.Points) (out [][2]geom.Point) {
	for _, l := range s.Lines() {
		out = append(out, [2]geom.Point{s.At(l.A), s.At(l.B)})
	}
	return out
}

// Three points a hand can reckon with: the two short sides of a triangle.
func TestATriangle(t *testing.T) {
	var s spanning.Points
	assert.Empty(t, s.Lines())
	s.Change(nil, []geom.Point{{X: 0, Y: 0}, {X: 30, Y: 0}, {X: 30, Y: 40}})
	length, whole := tree(&s)
	assert.True(t, whole)
	assert.InDelta(t, 70, length, 1e-9)
	s.Change([]int32{1}, nil)
	length, whole = tree(&s)
	assert.True(t, whole)
	assert.InDelta(t, 50, length, 1e-9)
}
