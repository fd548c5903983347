package overlay

import (
	"math"
	"slices"

	"goldentrace/core/geom"
)

// fewHoles is how many holes are cut to by going along the whole line for each; of more, the pieces of the line are looked up by their height.
const fewHoles = 64

// rope is a closed line that holes are put into, its pieces found by height.
type rope struct {
	pts  []geom.Point
	next []int32
	low  int64
	row  int64             // height of a row
	rows map[int64][]int32 // pieces by row: each is named by its first place
}

// oneOfMany is One for areas of many holes.
func (a Area) oneOfMany(holes [][]geom.Point) []geom.Point {
	n := len(a.Outer)
	for _, h := range holes {
		n += len(h)
	}
	box := geom.BoxOf(a.Outer...)
	r := &rope{low: box.Min.Y, row: max(1, 16*(box.Max.Y-box.Min.Y)/int64(n)), rows: map[int64][]int32{}}
	for i, p := range a.Outer {
		r.pts, r.next = append(r.pts, p), append(r.next, int32((i+1)%len(a.Outer)))
	}
	for i := range a.Outer {
		r.index(int32(i))
	}
	for _, h := range holes {
		r.take(h)
	}
	out := make([]geom.Point, 0, len(r.pts))
	for i := int32(0); ; {
		out = append(out, r.pts[i])
		if i = r.next[i]; i == 0 {
			return slices.Compact(out)
		}
	}
}

func (r *rope) index(i int32) {
	a, b := r.pts[i], r.pts[r.next[i]]
	for k := (min(a.Y, b.Y) - r.low) / r.row; k <= (max(a.Y, b.Y)-r.low)/r.row; k++ {
		r.rows[k] = append(r.rows[k], i)
	}
}

// take puts a hole in, which begins at its rightmost place, where the line is met first to the right of that.
func (r *rope) take(hole []geom.Point) {
	from := hole[0]
	best, at := math.Inf(1), int32(-1)
	for _, i := range r.rows[(from.Y-r.low)/r.row] {
		a, b := r.pts[i], r.pts[r.next[i]]
		if x, meets := rightOf(from, a, b); meets && x < best {
			best, at = x, i
		}
	}
	if at < 0 {
		return // it does not lie within
	}
	to := geom.Pt(int64(math.Round(best)), from.Y)
	first := int32(len(r.pts))
	r.pts = append(append(append(r.pts, to), hole...), from, to)
	last := int32(len(r.pts)) - 1
	for i := first; i < last; i++ {
		r.next = append(r.next, i+1)
	}
	r.next = append(r.next, r.next[at])
	r.next[at] = first
	for i := first; i <= last; i++ {
		r.index(i)
	}
}

// rightOf is where a line from a place straight to the right meets a piece.
func rightOf(from, a, b geom.Point) (x float64, meets bool) {
	if a.Y == b.Y {
		return float64(min(a.X, b.X)), a.Y == from.Y && min(a.X, b.X) >= from.X
	}
	if min(a.Y, b.Y) > from.Y || max(a.Y, b.Y) < from.Y {
		return 0, false
	}
	x = float64(a.X) + float64(b.X-a.X)*float64(from.Y-a.Y)/float64(b.Y-a.Y)
	return x, x >= float64(from.X)
}
