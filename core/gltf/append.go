package gltf

import "maps"

// textured are the places of a material that may name a texture.
var textured = []string{"normalTexture", "occlusionTexture", "emissiveTexture"}

// Append takes all that a file shows in and gives its roots. What moves or bends in it stands as it is drawn.
func (s *Scene) Append(f *File) (roots []int) {
	at := struct{ nodes, meshes, materials, accessors, views, textures, images, samplers int }{len(s.doc.Nodes), len(s.doc.Meshes),
		len(s.doc.Materials), len(s.doc.Accessors), len(s.doc.BufferViews), len(s.doc.Textures), len(s.doc.Images), len(s.doc.Samplers)}
	s.data = padded(s.data, 0)
	base := len(s.data)
	s.data = append(s.data, f.data...)
	shifted := func(o object, key string, by int) {
		if i := index(o, key); i >= 0 {
			o[key] = i + by
		}
	}
	for _, v := range f.doc.BufferViews {
		v = maps.Clone(v)
		v["buffer"], v["byteOffset"] = 0, base+max(index(v, "byteOffset"), 0)
		s.doc.BufferViews = append(s.doc.BufferViews, v)
	}
	for _, a := range f.doc.Accessors {
		a = maps.Clone(a)
		shifted(a, "bufferView", at.views)
		if sparse, ok := a["sparse"].(object); ok {
			sparse = maps.Clone(sparse)
			for _, key := range []string{"indices", "values"} {
				if o, ok := sparse[key].(object); ok {
					o = maps.Clone(o)
					shifted(o, "bufferView", at.views)
					sparse[key] = o
				}
			}
			a["sparse"] = sparse
		}
		s.doc.Accessors = append(s.doc.Accessors, a)
	}
	for _, i := range f.doc.Images {
		i = maps.Clone(i)
		shifted(i, "bufferView", at.views)
		s.doc.Images = append(s.doc.Images, i)
	}
	s.doc.Samplers = append(s.doc.Samplers, f.doc.Samplers...)
	for _, t := range f.doc.Textures {
		t = maps.Clone(t)
		shifted(t, "source", at.images)
		shifted(t, "sampler", at.samplers)
		delete(t, "extensions")
		s.doc.Textures = append(s.doc.Textures, t)
	}
	for _, m := range f.doc.Materials {
		s.doc.Materials = append(s.doc.Materials, material(m, at.textures))
	}
	for _, m := range f.doc.Meshes {
		var list []object
		for _, p := range parts(m, "primitives") {
			p = maps.Clone(p)
			attributes, _ := p["attributes"].(object)
			attributes = maps.Clone(attributes)
			for key := range attributes {
				shifted(attributes, key, at.accessors)
			}
			p["attributes"] = attributes
			shifted(p, "indices", at.accessors)
			shifted(p, "material", at.materials)
			delete(p, "targets")
			delete(p, "extensions")
			list = append(list, p)
		}
		s.doc.Meshes = append(s.doc.Meshes, object{"name": m["name"], "primitives": list})
		if m["name"] == nil {
			delete(s.doc.Meshes[len(s.doc.Meshes)-1], "name")
		}
	}
	for _, n := range f.doc.Nodes {
		n = maps.Clone(n)
		shifted(n, "mesh", at.meshes)
		if list := numbers(n, "children"); list != nil {
			for i := range list {
				list[i] += at.nodes
			}
			n["children"] = list
		}
		for _, key := range []string{"skin", "camera", "weights", "extensions"} {
			delete(n, key)
		}
		s.doc.Nodes = append(s.doc.Nodes, n)
	}
	for _, r := range f.roots() {
		roots = append(roots, r+at.nodes)
	}
	return roots
}

// material is a material whose textures lie further on; what needs extensions goes by what it says without them.
func material(m object, by int) object {
	m = maps.Clone(m)
	delete(m, "extensions")
	shift := func(o object, key string) {
		t, ok := o[key].(object)
		if !ok {
			return
		}
		t = maps.Clone(t)
		delete(t, "extensions")
		if i := index(t, "index"); i >= 0 {
			t["index"] = i + by
		}
		o[key] = t
	}
	for _, key := range textured {
		shift(m, key)
	}
	if p, ok := m["pbrMetallicRoughness"].(object); ok {
		p = maps.Clone(p)
		shift(p, "baseColorTexture")
		shift(p, "metallicRoughnessTexture")
		m["pbrMetallicRoughness"] = p
	}
	return m
}
