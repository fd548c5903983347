// Package gltf writes scenes as binary glTF 2.0 and takes scenes of others in. Lengths are those of the file: metres, unless a node
// scales them.
//
// Source: Khronos Group, glTF 2.0 specification (ISO/IEC 12113:2022).
package gltf

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"math"
)

// Scene is what is put together of meshes and nodes, and written as one file.
type Scene struct {
	doc  document
	data []byte // all buffers, as one
}

// object is a part of the description that is handed on with all it says.
type object = map[string]any

// document is the description of a scene (section 5.17 of the specification).
type document struct {
	Asset       object   `json:"asset"`
	Used        []string `json:"extensionsUsed,omitempty"`
	Required    []string `json:"extensionsRequired,omitempty"`
	Scene       int      `json:"scene"`
	Scenes      []object `json:"scenes"`
	Nodes       []object `json:"nodes,omitempty"`
	Meshes      []object `json:"meshes,omitempty"`
	Materials   []object `json:"materials,omitempty"`
	Accessors   []object `json:"accessors,omitempty"`
	BufferViews []object `json:"bufferViews,omitempty"`
	Buffers     []object `json:"buffers,omitempty"`
	Textures    []object `json:"textures,omitempty"`
	Images      []object `json:"images,omitempty"`
	Samplers    []object `json:"samplers,omitempty"`
}

// New is an empty scene.
func New(generator string) *Scene {
	return &Scene{doc: document{Asset: object{"version": "2.0", "generator": generator}}}
}

// Material is how a surface looks.
type Material struct {
	Name         string
	R, G, B, A   uint8 // sRGB, as on screens
	Metal, Rough float64
}

// linear is a share of light that a value of the screen stands for.
//
// Source: IEC 61966-2-1 (sRGB).
func linear(v uint8) float64 {
	c := float64(v) / 255
	if c <= 0.04045 {
		return c / 12.92
	}
	return math.Pow((c+0.055)/1.055, 2.4)
}

// Material adds a material and gives its place.
func (s *Scene) Material(m Material) int {
	o := object{"name": m.Name, "pbrMetallicRoughness": object{
		"baseColorFactor": []float64{linear(m.R), linear(m.G), linear(m.B), float64(m.A) / 255},
		"metallicFactor":  m.Metal, "roughnessFactor": m.Rough,
	}}
	if m.A < 255 {
		o["alphaMode"] = "BLEND"
	}
	s.doc.Materials = append(s.doc.Materials, o)
	return len(s.doc.Materials) - 1
}

// Primitive are triangles of one material: places, and by three of them, seen anticlockwise from outside, what they span.
type Primitive struct {
	Name     string // told in its extras; "": nothing is
	Material int
	Places   [][3]float32 // primitives of a mesh may share them
	Corners  []uint32
}

// Mesh adds a mesh and gives its place. Primitives without triangles are left out; −1: none has any.
func (s *Scene) Mesh(name string, list ...Primitive) int {
	var out []object
	shared := map[*[3]float32]int{}
	for _, p := range list {
		if len(p.Corners) == 0 {
			continue
		}
		places, ok := shared[&p.Places[0]]
		if !ok {
			places = s.places(p.Places)
			shared[&p.Places[0]] = places
		}
		corners := s.accessor(p.Corners, object{"componentType": asWord, "count": len(p.Corners), "type": "SCALAR"}, forIndices)
		o := object{"attributes": object{"POSITION": places}, "indices": corners, "material": p.Material}
		if p.Name != "" {
			o["extras"] = object{"name": p.Name}
		}
		out = append(out, o)
	}
	if len(out) == 0 {
		return -1
	}
	s.doc.Meshes = append(s.doc.Meshes, object{"name": name, "primitives": out})
	return len(s.doc.Meshes) - 1
}

// places puts places in, with their bounds, as is asked for.
func (s *Scene) places(list [][3]float32) int {
	lo, hi := list[0], list[0]
	for _, at := range list {
		for i := range 3 {
			lo[i], hi[i] = min(lo[i], at[i]), max(hi[i], at[i])
		}
	}
	return s.accessor(list, object{"componentType": asFloat, "count": len(list), "type": "VEC3", "min": lo, "max": hi}, forCorners)
}

// Numbers that the specification gives component types and uses of data.
const (
	asFloat    = 5126
	asWord     = 5125
	forCorners = 34962
	forIndices = 34963
)

// accessor puts data at the end of the buffer and describes them.
func (s *Scene) accessor(data any, o object, target int) int {
	from := len(s.data)
	s.data, _ = binary.Append(s.data, binary.LittleEndian, data) // fixed sizes, which cannot fail
	s.doc.BufferViews = append(s.doc.BufferViews, object{"buffer": 0, "byteOffset": from, "byteLength": len(s.data) - from, "target": target})
	o["bufferView"] = len(s.doc.BufferViews) - 1
	s.doc.Accessors = append(s.doc.Accessors, o)
	return len(s.doc.Accessors) - 1
}

// Node is a thing of the scene, or several, put somewhere.
type Node struct {
	Name     string
	Mesh     int // −1: none
	Children []int
	Move     [3]float64
	Turn     [4]float64 // a unit quaternion x, y, z, w; all zero: not turned
	Scale    float64    // 0: as it is
	Extras   map[string]any
}

// Node adds a node and gives its place.
func (s *Scene) Node(n Node) int {
	o := object{"name": n.Name}
	if n.Mesh >= 0 {
		o["mesh"] = n.Mesh
	}
	if len(n.Children) > 0 {
		o["children"] = n.Children
	}
	if n.Move != [3]float64{} {
		o["translation"] = n.Move
	}
	if n.Turn != [4]float64{} {
		o["rotation"] = n.Turn
	}
	if n.Scale != 0 {
		o["scale"] = [3]float64{n.Scale, n.Scale, n.Scale}
	}
	if n.Extras != nil {
		o["extras"] = n.Extras
	}
	s.doc.Nodes = append(s.doc.Nodes, o)
	return len(s.doc.Nodes) - 1
}

// padded fills up to a multiple of four bytes (section 4.4 of the specification).
func padded(data []byte, with byte) []byte {
	for len(data)%4 != 0 {
		data = append(data, with)
	}
	return data
}

// Binary writes the scene that the nodes are the roots of as a GLB file.
func (s *Scene) Binary(roots ...int) ([]byte, error) {
	d := s.doc
	d.Scenes = []object{{"nodes": roots}}
	data := padded(s.data, 0)
	if len(data) > 0 {
		d.Buffers = []object{{"byteLength": len(data)}}
	}
	text, err := json.Marshal(d)
	if err != nil {
		return nil, err
	}
	text = padded(text, ' ')
	total := headerSize + chunkHeader + len(text)
	if len(data) > 0 {
		total += chunkHeader + len(data)
	}
	var out bytes.Buffer
	out.Grow(total)
	words := func(list ...uint32) {
		for _, w := range list {
			out.Write(binary.LittleEndian.AppendUint32(nil, w))
		}
	}
	words(magic, 2, uint32(total), uint32(len(text)), textChunk)
	out.Write(text)
	if len(data) > 0 {
		words(uint32(len(data)), dataChunk)
		out.Write(data)
	}
	return out.Bytes(), nil
}

// Of a GLB file (section 4.4): its first word, the sizes of headers in bytes, and the kinds of chunks.
const (
	magic       = 0x46546C67
	headerSize  = 12
	chunkHeader = 8
	textChunk   = 0x4E4F534A
	dataChunk   = 0x004E4942
)
