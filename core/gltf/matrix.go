package gltf

// matrix carries places over: columns one after the other, as the specification writes them.
type matrix [16]float64

var unmoved = matrix{1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1}

// times carries over by b, then by a.
func (a matrix) times(b matrix) (out matrix) {
	for c := range 4 {
		for r := range 4 {
			for k := range 4 {
				out[4*c+r] += a[4*k+r] * b[4*c+k]
			}
		}
	}
	return out
}

func (a matrix) apply(p [3]float64) (out [3]float64) {
	for r := range 3 {
		out[r] = a[r]*p[0] + a[4+r]*p[1] + a[8+r]*p[2] + a[12+r]
	}
	return out
}

func floats(o object, key string, usual ...float64) []float64 {
	list, _ := o[key].([]any)
	if len(list) != len(usual) {
		return usual
	}
	out := make([]float64, len(list))
	for i, v := range list {
		out[i], _ = v.(float64)
	}
	return out
}

// placeOf is how a node is put: by its matrix, or scaled, turned and moved (section 3.5.3 of the specification).
func placeOf(n object) (m matrix) {
	if _, ok := n["matrix"]; ok {
		return matrix(floats(n, "matrix", unmoved[:]...))
	}
	t, q, s := floats(n, "translation", 0, 0, 0), floats(n, "rotation", 0, 0, 0, 1), floats(n, "scale", 1, 1, 1)
	x, y, z, w := q[0], q[1], q[2], q[3]
	turned := [3][3]float64{ // columns
		{1 - 2*(y*y+z*z), 2 * (x*y + z*w), 2 * (x*z - y*w)},
		{2 * (x*y - z*w), 1 - 2*(x*x+z*z), 2 * (y*z + x*w)},
		{2 * (x*z + y*w), 2 * (y*z - x*w), 1 - 2*(x*x+y*y)},
	}
	for c := range 3 {
		for r := range 3 {
			m[4*c+r] = turned[c][r] * s[c]
		}
		m[12+c] = t[c]
	}
	m[15] = 1
	return m
}
