package geom

import (
	"cmp"
	"math/bits"
)

// wide is a signed 128-bit product, so that the side of a line is exact.
type wide struct {
	neg    bool
	hi, lo uint64
}

func mul(a, b int64) wide {
	hi, lo := bits.Mul64(magnitude(a), magnitude(b))
	return wide{(a < 0) != (b < 0) && hi|lo != 0, hi, lo}
}

func magnitude(a int64) uint64 {
	if a < 0 {
		return uint64(-a)
	}
	return uint64(a)
}

func (w wide) cmp(v wide) int {
	if w.neg != v.neg {
		if w.neg {
			return -1
		}
		return 1
	}
	c := cmp.Or(cmp.Compare(w.hi, v.hi), cmp.Compare(w.lo, v.lo))
	if w.neg {
		return -c
	}
	return c
}
