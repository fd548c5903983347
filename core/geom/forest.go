package geom

// Forest is a union–find forest with path halving: elements, numbered from 0, and which of them
// are in one set. Source: Tarjan and van Leeuwen, Worst-case analysis of set union algorithms,
// 1984. An operation costs O(log n), in practice a few steps.
type Forest struct {
	up []int
	// Sets is how many sets there are.
	Sets int
}

// NewForest has n elements, each in a set of its own.
func NewForest(n int) *Forest {
	f := &Forest{make([]int, n), n}
	for i := range f.up {
		f.up[i] = i
	}
	return f
}

// Add makes a further element in a set of its own and tells its number.
func (f *Forest) Add() int {
	f.up = append(f.up, len(f.up))
	f.Sets++
	return len(f.up) - 1
}

// Root names the set of an element: two elements are in one set when their roots are the same.
func (f *Forest) Root(n int) int {
	for f.up[n] != n {
		f.up[n] = f.up[f.up[n]]
		n = f.up[n]
	}
	return n
}

// Join makes one set of the sets of two elements; false when they are in one already.
func (f *Forest) Join(a, b int) bool {
	ra, rb := f.Root(a), f.Root(b)
	if ra == rb {
		return false
	}
	f.up[max(ra, rb)] = min(ra, rb)
	f.Sets--
	return true
}
