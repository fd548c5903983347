package vector

import (
	"math"
	"strings"
)

// matrix carries places: x' = a·x + c·y + e, y' = b·x + d·y + f.
type matrix [6]float64

func (m matrix) at(p spot) spot {
	return spot{m[0]*p[0] + m[2]*p[1] + m[4], m[1]*p[0] + m[3]*p[1] + m[5]}
}

// times is n first, then m.
func (m matrix) times(n matrix) matrix {
	return matrix{
		m[0]*n[0] + m[2]*n[1], m[1]*n[0] + m[3]*n[1],
		m[0]*n[2] + m[2]*n[3], m[1]*n[2] + m[3]*n[3],
		m[0]*n[4] + m[2]*n[5] + m[4], m[1]*n[4] + m[3]*n[5] + m[5],
	}
}

// scale is by how much lengths grow on the whole.
func (m matrix) scale() float64 { return math.Sqrt(math.Abs(m[0]*m[3] - m[1]*m[2])) }

// transform reads a list of transforms (SVG 1.1, 7.6). One that cannot be read changes nothing.
func transform(s string) matrix {
	out := matrix{1, 0, 0, 1, 0, 0}
	for {
		name, rest, ok := strings.Cut(s, "(")
		if !ok {
			return out
		}
		args, after, ok := strings.Cut(rest, ")")
		if !ok {
			return out
		}
		s = after
		var v []float64
		for _, f := range strings.FieldsFunc(args, func(r rune) bool { return strings.ContainsRune(" ,\t\r\n", r) }) {
			v = append(v, number(f))
		}
		out = out.times(one(strings.Trim(name, " ,\t\r\n"), v))
	}
}

func one(name string, v []float64) matrix {
	arg := func(i int, otherwise float64) float64 {
		if i < len(v) {
			return v[i]
		}
		return otherwise
	}
	switch {
	case name == "matrix" && len(v) == 6:
		return matrix(v)
	case name == "translate" && len(v) > 0:
		return matrix{1, 0, 0, 1, v[0], arg(1, 0)}
	case name == "scale" && len(v) > 0:
		return matrix{v[0], 0, 0, arg(1, v[0]), 0, 0}
	case name == "rotate" && len(v) > 0:
		sin, cos := math.Sincos(v[0] * math.Pi / 180)
		x, y := arg(1, 0), arg(2, 0)
		return matrix{1, 0, 0, 1, x, y}.times(matrix{cos, sin, -sin, cos, 0, 0}).times(matrix{1, 0, 0, 1, -x, -y})
	case name == "skewX" && len(v) > 0:
		return matrix{1, 0, math.Tan(v[0] * math.Pi / 180), 1, 0, 0}
	case name == "skewY" && len(v) > 0:
		return matrix{1, math.Tan(v[0] * math.Pi / 180), 0, 1, 0, 0}
	}
	return matrix{1, 0, 0, 1, 0, 0}
}
