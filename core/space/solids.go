package space

import (
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/gltf"
	"goldentrace/core/overlay"
)

// body is what stands on a footprint: a mesh made of its dimensions, or a file.
type body struct {
	mesh int // −1: none
	file *gltf.File
}

// body of a footprint. Its material tells the browser and others how it looks.
func (m *maker) body(f *design.Footprint) (*body, error) {
	if a := m.Doc.Assets[f.Model]; a != nil {
		file, err := gltf.Read(a.Data)
		return &body{-1, file}, err
	}
	byMaterial := map[string]*gltf.Primitive{}
	var order []string
	for i := range f.Solids {
		s := &f.Solids[i]
		p := solid(s)
		all, ok := byMaterial[s.Material]
		if !ok {
			metal, rough := 0.0, 0.7
			if s.Material == "lead" || s.Material == "metal" {
				metal, rough = 0.6, 0.4
			}
			all = &gltf.Primitive{Material: m.material("body "+s.Material, finished.Body(s.Material), metal, rough)}
			byMaterial[s.Material] = all
			order = append(order, s.Material)
		}
		all.Corners = append(all.Corners, moved(p.Corners, len(all.Places))...)
		all.Places = append(all.Places, p.Places...)
	}
	var list []gltf.Primitive
	for _, name := range order {
		list = append(list, *byMaterial[name])
	}
	return &body{m.scene.Mesh(f.Name, list...), nil}, nil
}

// file puts a body's file in, turned from metres with y up to millimetres with z up.
func (m *maker) file(f *gltf.File) int {
	half := math.Sqrt(0.5)
	return m.scene.Node(gltf.Node{Name: "body", Mesh: -1, Children: m.scene.Append(f), Turn: [4]float64{half, 0, 0, half}, Scale: 1e3})
}

// solid is one piece of a body.
func solid(s *design.Solid) gltf.Primitive {
	switch s.Form {
	case design.Prism:
		edge := geom.Closing(s.Edge).Flat(chord, false)
		if geom.Area(edge) < 0 {
			slices.Reverse(edge)
		}
		e := extruded([]overlay.Area{{Outer: edge}}, s.From, s.To)
		return gltf.Primitive{Places: e.places, Corners: slices.Concat(e.upper, e.lower, e.side)}
	case design.Ball:
		return ball(s.A, s.From, s.To)
	default:
		return rod(s.A, s.B, s.From, s.To)
	}
}

// moved are corners whose places lie further on.
func moved(list []uint32, by int) []uint32 {
	out := make([]uint32, len(list))
	for i, c := range list {
		out[i] = c + uint32(by)
	}
	return out
}

func at(p geom.Point, z float64) [3]float32 {
	return millimetres(float64(p.X), float64(p.Y), z)
}

// millimetres of a place in nanometres.
func millimetres(x, y, z float64) [3]float32 {
	return [3]float32{float32(x / 1e6), float32(y / 1e6), float32(z / 1e6)}
}

// shell is what bounds a body of a layer.
type shell struct {
	places             [][3]float32
	upper, lower, side []uint32
}

// join puts another shell beside.
func (s *shell) join(o shell) {
	by := len(s.places)
	s.places = append(s.places, o.places...)
	s.upper, s.lower, s.side = append(s.upper, moved(o.upper, by)...), append(s.lower, moved(o.lower, by)...), append(s.side, moved(o.side, by)...)
}

// primitives of a material: its upper side, its lower one and what lies between them, each by itself.
func (s *shell) primitives(material int) []gltf.Primitive {
	return []gltf.Primitive{{Name: "upper", Material: material, Places: s.places, Corners: s.upper},
		{Name: "lower", Material: material, Places: s.places, Corners: s.lower}, {Name: "side", Material: material, Places: s.places, Corners: s.side}}
}

// sides are what lies between the upper and the lower side alone.
func (s *shell) sides(material int) []gltf.Primitive {
	return s.primitives(material)[2:]
}

// extruded are areas from one height to another.
func extruded(list []overlay.Area, from, to int64) (out shell) {
	known := map[geom.Point]uint32{}
	put := func(p geom.Point) uint32 {
		i, ok := known[p]
		if !ok {
			i = uint32(len(out.places))
			known[p] = i
			out.places = append(out.places, at(p, float64(to)), at(p, float64(from)))
		}
		return i
	}
	triangles, lines := overlay.Mesh(list)
	for _, t := range triangles {
		a, b, c := put(t[0]), put(t[1]), put(t[2])
		out.upper, out.lower = append(out.upper, a, b, c), append(out.lower, a+1, c+1, b+1)
	}
	for _, line := range lines { // outer ones go anticlockwise, holes clockwise: the inside lies to the left
		for i, p := range line {
			a, b := put(p), put(line[(i+1)%len(line)])
			out.side = append(out.side, a, a+1, b+1, a, b+1, b)
		}
	}
	return out
}

// around is how many sides stand for a circle; by fours, so that it reaches as far as it should each way.
const around = 16

// rod is a lying cylinder: what its ends are, and its lowest and highest.
func rod(a, b geom.Point, from, to int64) (out gltf.Primitive) {
	r, middle := float64(to-from)/2, float64(from+to)/2
	far := math.Max(a.Dist(b), 1)
	sx, sy := -float64(b.Y-a.Y)/far, float64(b.X-a.X)/far // to the left
	for _, end := range []geom.Point{a, b} {
		for i := range around {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / around)
			out.Places = append(out.Places, millimetres(float64(end.X)+sx*r*cos, float64(end.Y)+sy*r*cos, middle+r*sin))
		}
	}
	for i := range uint32(around) {
		j := (i + 1) % around
		out.Corners = append(out.Corners, i, j+around, i+around, i, j, j+around)
		if i > 0 && j > 0 {
			out.Corners = append(out.Corners, 0, j, i, around, i+around, j+around)
		}
	}
	return out
}

// ball is a sphere.
func ball(middle geom.Point, from, to int64) (out gltf.Primitive) {
	const rows = around / 2
	r, z := float64(to-from)/2, float64(from+to)/2
	for k := range rows + 1 {
		up, flat := math.Sincos(math.Pi * (float64(k)/rows - 0.5))
		for i := range around {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / around)
			out.Places = append(out.Places, millimetres(float64(middle.X)+r*flat*cos, float64(middle.Y)+r*flat*sin, z+r*up))
		}
	}
	for k := range uint32(rows) {
		for i := range uint32(around) {
			a, b := k*around+i, k*around+(i+1)%around
			if k > 0 {
				out.Corners = append(out.Corners, a, b, b+around)
			}
			if k < rows-1 {
				out.Corners = append(out.Corners, a, b+around, a+around)
			}
		}
	}
	return out
}
