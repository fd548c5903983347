package gltf

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
)

// File is a GLB file of somebody else.
type File struct {
	doc  document
	data []byte
}

// understood are the extensions that a file may need: those that need nothing of who hands it on.
var understood = []string{"KHR_materials_unlit", "KHR_texture_transform"}

// Read reads a GLB file as far as it is needed to hand it on, and refuses what is not whole.
func Read(file []byte) (*File, error) {
	text, data, err := chunks(file)
	if err != nil {
		return nil, err
	}
	f := &File{data: data}
	if err := json.Unmarshal(text, &f.doc); err != nil {
		return nil, errors.New("the description of its scene cannot be read")
	}
	for _, e := range f.doc.Required {
		if !slices.Contains(understood, e) {
			return nil, fmt.Errorf("it needs %q, which is not read", e)
		}
	}
	if len(f.doc.Buffers) > 1 {
		return nil, errors.New("its data lie in several pieces; one is meant")
	}
	return f, f.whole()
}

// chunks are the description and the data of a GLB file.
func chunks(file []byte) (text, data []byte, err error) {
	word := func(at int) int { return int(binary.LittleEndian.Uint32(file[at:])) }
	if len(file) < headerSize+chunkHeader || word(0) != magic {
		return nil, nil, errors.New("it is not a binary glTF file")
	}
	for at := headerSize; at+chunkHeader <= len(file); {
		long, kind := word(at), word(at+4)
		at += chunkHeader
		if long > len(file)-at {
			return nil, nil, errors.New("a part of it is cut off")
		}
		switch kind {
		case textChunk:
			text = file[at : at+long]
		case dataChunk:
			data = file[at : at+long]
		}
		at += long
	}
	if text == nil {
		return nil, nil, errors.New("its first part is not the description of its scene")
	}
	return text, data, nil
}

// index is a number that names a place of a list; −1: there is none.
func index(o object, key string) int {
	v, ok := o[key].(float64)
	if !ok || v < 0 || v != math.Trunc(v) || v > math.MaxInt32 {
		return -1
	}
	return int(v)
}

func parts(o object, key string) (out []object) {
	list, _ := o[key].([]any)
	for _, e := range list {
		if p, ok := e.(object); ok {
			out = append(out, p)
		}
	}
	return out
}

// roots of the scene that is shown first.
func (f *File) roots() (out []int) {
	if f.doc.Scene < 0 || f.doc.Scene >= len(f.doc.Scenes) {
		return nil
	}
	return numbers(f.doc.Scenes[f.doc.Scene], "nodes")
}

func numbers(o object, key string) (out []int) {
	list, _ := o[key].([]any)
	for _, e := range list {
		if v, ok := e.(float64); ok {
			out = append(out, int(v))
		}
	}
	return out
}

// whole tells what of the file points nowhere: every place that is named has to be there, and no node may hold itself.
func (f *File) whole() error {
	in := func(what string, i, n int) error {
		if i < 0 || i >= n {
			return fmt.Errorf("it speaks of %s that it does not have", what)
		}
		return nil
	}
	for _, v := range f.doc.BufferViews {
		from, long := max(index(v, "byteOffset"), 0), index(v, "byteLength")
		if long < 0 || from > len(f.data) || long > len(f.data)-from {
			return errors.New("its data are said to be longer than the file")
		}
	}
	for _, m := range f.doc.Meshes {
		for _, p := range parts(m, "primitives") {
			attributes, _ := p["attributes"].(object)
			if err := in("places", index(attributes, "POSITION"), len(f.doc.Accessors)); err != nil {
				return err
			}
		}
	}
	state := make([]int, len(f.doc.Nodes)) // 1: on the way, 2: gone through
	var walk func(i, deep int) error
	walk = func(i, deep int) error {
		if err := in("a node", i, len(f.doc.Nodes)); err != nil {
			return err
		}
		if state[i] != 0 || deep > mostDeep {
			return errors.New("a node of it is held twice, by itself, or too deep")
		}
		state[i] = 1
		n := f.doc.Nodes[i]
		if m := index(n, "mesh"); m >= 0 {
			if err := in("a mesh", m, len(f.doc.Meshes)); err != nil {
				return err
			}
		}
		for _, c := range numbers(n, "children") {
			if err := walk(c, deep+1); err != nil {
				return err
			}
		}
		return nil
	}
	roots := f.roots()
	if len(roots) == 0 {
		return errors.New("it has no scene that is shown")
	}
	for _, r := range roots {
		if err := walk(r, 0); err != nil {
			return err
		}
	}
	return nil
}

// mostDeep bounds how deep nodes may hold nodes.
const mostDeep = 200

// Box is the box around the places of all triangles, as the scene's own lengths: metres, y up. False: it has none.
func (f *File) Box() (lo, hi [3]float64, ok bool) {
	lo, hi = [3]float64{math.Inf(1), math.Inf(1), math.Inf(1)}, [3]float64{math.Inf(-1), math.Inf(-1), math.Inf(-1)}
	var walk func(i int, m matrix)
	walk = func(i int, m matrix) {
		n := f.doc.Nodes[i]
		m = m.times(placeOf(n))
		if k := index(n, "mesh"); k >= 0 {
			for _, p := range parts(f.doc.Meshes[k], "primitives") {
				attributes, _ := p["attributes"].(object)
				a := f.doc.Accessors[index(attributes, "POSITION")]
				from, to, has := bounds(a)
				for corner := range 8 {
					if !has {
						break
					}
					var at [3]float64
					for k := range 3 {
						at[k] = from[k]
						if corner>>k&1 == 1 {
							at[k] = to[k]
						}
					}
					at = m.apply(at)
					for k := range 3 {
						lo[k], hi[k] = min(lo[k], at[k]), max(hi[k], at[k])
					}
					ok = true
				}
			}
		}
		for _, c := range numbers(n, "children") {
			walk(c, m)
		}
	}
	for _, r := range f.roots() {
		walk(r, unmoved)
	}
	return lo, hi, ok
}

// bounds are the least and greatest places that an accessor says it has; whoever writes places has to say them.
func bounds(a object) (lo, hi [3]float64, ok bool) {
	for k, to := range map[string]*[3]float64{"min": &lo, "max": &hi} {
		list, _ := a[k].([]any)
		if len(list) != 3 {
			return lo, hi, false
		}
		for i, v := range list {
			c, is := v.(float64)
			if !is {
				return lo, hi, false
			}
			to[i] = c
		}
	}
	return lo, hi, true
}
