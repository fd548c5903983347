package gltf_test

import (
	"encoding/binary"
	"encoding/json"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/gltf"
)

// glb lays a scene out as section 4.4 of the specification says.
func glb(scene string, data []byte) []byte {
	for len(scene)%4 != 0 {
		scene += " "
	}
	for len(data)%4 != 0 {
		data = append(data, 0)
	}
	u32 := binary.LittleEndian.AppendUint32
	out := u32(u32([]byte("glTF"), 2), uint32(12+8+len(scene)+8+len(data)))
	out = append(append(u32(out, uint32(len(scene))), "JSON"...), scene...)
	return append(append(u32(out, uint32(len(data))), "BIN\x00"...), data...)
}

// corner is a triangle at the places (0,0,0), (2,0,0) and (0,1,0), in a node that is turned by 90° about z, doubled and moved by (10,0,0).
func corner() []byte {
	var data []byte
	for _, v := range []float32{0, 0, 0, 2, 0, 0, 0, 1, 0} {
		data = binary.LittleEndian.AppendUint32(data, math.Float32bits(v))
	}
	return glb(`{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],
		"nodes":[{"translation":[10,0,0],"rotation":[0,0,0.7071067811865476,0.7071067811865476],"scale":[2,2,2],"children":[1]},{"mesh":0}],
		"meshes":[{"primitives":[{"attributes":{"POSITION":0},"material":0}]}],
		"materials":[{"pbrMetallicRoughness":{"baseColorTexture":{"index":0}}}],"textures":[{"source":0}],"images":[{"bufferView":0,"mimeType":"image/png"}],
		"accessors":[{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3","min":[0,0,0],"max":[2,1,0]}],
		"bufferViews":[{"buffer":0,"byteLength":36}],"buffers":[{"byteLength":36}]}`, data)
}

// parts of a GLB file.
func parts(t *testing.T, file []byte) (scene map[string]any, data []byte) {
	word := func(at int) int { return int(binary.LittleEndian.Uint32(file[at:])) }
	require.Equal(t, "glTF", string(file[:4]))
	require.Equal(t, 2, word(4))
	require.Equal(t, len(file), word(8))
	long := word(12)
	require.Equal(t, "JSON", string(file[16:20]))
	require.NoError(t, json.Unmarshal(file[20:20+long], &scene))
	require.Zero(t, long%4)
	if at := 20 + long; at < len(file) {
		require.Equal(t, "BIN\x00", string(file[at+4:at+8]))
		require.Equal(t, len(file), at+8+word(at))
		data = file[at+8:]
	}
	return scene, data
}

func TestBoxOfTurnedNodes(t *testing.T) {
	f, err := gltf.Read(corner())
	require.NoError(t, err)
	lo, hi, ok := f.Box()
	require.True(t, ok)
	// doubled to 4 by 2, turned to x from −2 to 0 and y from 0 to 4, moved by 10
	assert.InDeltaSlice(t, []float64{8, 0, 0}, lo[:], 1e-9)
	assert.InDeltaSlice(t, []float64{10, 4, 0}, hi[:], 1e-9)
}

// A node's turn is a unit quaternion; where it leads a box of 2 by 1 by 3 is worked out by hand.
func TestBoxOfNodesTurnedInSpace(t *testing.T) {
	for name, c := range map[string]struct {
		place  string
		lo, hi []float64
	}{
		"as it is":                  {`"name":"plain"`, []float64{0, 0, 0}, []float64{2, 1, 3}},
		"90° about x":               {`"rotation":[0.7071067811865476,0,0,0.7071067811865476]`, []float64{0, -3, 0}, []float64{2, 0, 1}},
		"90° about y":               {`"rotation":[0,0.7071067811865476,0,0.7071067811865476]`, []float64{0, 0, -2}, []float64{3, 1, 0}},
		"180° about z":              {`"rotation":[0,0,1,0]`, []float64{-2, -1, 0}, []float64{0, 0, 3}},
		"120° about (1,1,1)":        {`"rotation":[0.5,0.5,0.5,0.5]`, []float64{0, 0, 0}, []float64{3, 2, 1}},
		"240° about (1,1,1)":        {`"rotation":[-0.5,-0.5,-0.5,0.5]`, []float64{0, 0, 0}, []float64{1, 3, 2}},
		"3, 4, 5 about x":           {`"rotation":[0.4472135954999579,0,0,0.8944271909999159]`, []float64{0, -2.4, 0}, []float64{2, 0.6, 2.6}},
		"3, 4, 5 about y":           {`"rotation":[0,0.4472135954999579,0,0.8944271909999159]`, []float64{0, 0, -1.6}, []float64{3.6, 1, 1.8}},
		"3, 4, 5 about z":           {`"rotation":[0,0,0.4472135954999579,0.8944271909999159]`, []float64{-0.8, 0, 0}, []float64{1.2, 2.2, 3}},
		"a matrix of columns":       {`"matrix":[0,0,3,0, 0,2,0,0, 1,0,0,0, 5,6,7,1]`, []float64{5, 6, 7}, []float64{8, 8, 13}},
		"stretched, turned, moved":  {`"scale":[1,3,1],"rotation":[0.7071067811865476,0,0,0.7071067811865476],"translation":[0,0,1]`, []float64{0, -3, 1}, []float64{2, 0, 4}},
		"a turn of three numbers":   {`"rotation":[0,0,1]`, []float64{0, 0, 0}, []float64{2, 1, 3}},
		"moved and scaled by words": {`"scale":"two","translation":[1,0]`, []float64{0, 0, 0}, []float64{2, 1, 3}},
	} {
		plain := string(corner())
		scene := plain[20 : 20+binary.LittleEndian.Uint32([]byte(plain[12:]))]
		scene = strings.Replace(scene, `"max":[2,1,0]`, `"max":[2,1,3]`, 1)
		from, to := strings.Index(scene, `{"translation"`), strings.Index(scene, `,"children":[1]`)
		f, err := gltf.Read(glb(scene[:from]+"{"+c.place+scene[to:], []byte(plain[len(plain)-36:])))
		require.NoError(t, err, name)
		lo, hi, ok := f.Box()
		require.True(t, ok, name)
		assert.InDeltaSlice(t, c.lo, lo[:], 1e-9, name)
		assert.InDeltaSlice(t, c.hi, hi[:], 1e-9, name)
	}
}

func TestAFileIsTakenInWithAllItNames(t *testing.T) {
	f, err := gltf.Read(corner())
	require.NoError(t, err)
	s := gltf.New("test")
	red := s.Material(gltf.Material{Name: "red", R: 255, A: 128, Rough: 1})
	mesh := s.Mesh("own", gltf.Primitive{Material: red, Places: [][3]float32{{1, 2, 3}, {4, 5, 6}, {7, 8, 10}}, Corners: []uint32{0, 1, 2}})
	own := s.Node(gltf.Node{Name: "own", Mesh: mesh, Extras: map[string]any{"part": 7}})
	roots := append(s.Append(f), s.Append(f)...)
	file, err := s.Binary(append(roots, own)...)
	require.NoError(t, err)
	scene, data := parts(t, file)
	list := func(key string) []any { return scene[key].([]any) }
	require.Len(t, list("nodes"), 5)
	require.Len(t, list("meshes"), 3)
	for _, v := range list("bufferViews") {
		assert.EqualValues(t, 0, v.(map[string]any)["buffer"], "there is one buffer")
	}
	places := func(mesh int) (out []float32) {
		p := list("meshes")[mesh].(map[string]any)["primitives"].([]any)[0].(map[string]any)
		a := list("accessors")[int(p["attributes"].(map[string]any)["POSITION"].(float64))].(map[string]any)
		v := list("bufferViews")[int(a["bufferView"].(float64))].(map[string]any)
		from, _ := v["byteOffset"].(float64)
		for i := range 9 {
			out = append(out, math.Float32frombits(binary.LittleEndian.Uint32(data[int(from)+4*i:])))
		}
		return out
	}
	assert.Equal(t, []float32{1, 2, 3, 4, 5, 6, 7, 8, 10}, places(0))
	for _, m := range []int{1, 2} {
		assert.Equal(t, []float32{0, 0, 0, 2, 0, 0, 0, 1, 0}, places(m))
		p := list("meshes")[m].(map[string]any)["primitives"].([]any)[0].(map[string]any)
		material := list("materials")[int(p["material"].(float64))].(map[string]any)
		texture := int(material["pbrMetallicRoughness"].(map[string]any)["baseColorTexture"].(map[string]any)["index"].(float64))
		image := int(list("textures")[texture].(map[string]any)["source"].(float64))
		view := int(list("images")[image].(map[string]any)["bufferView"].(float64))
		assert.Equal(t, float64(m-1), float64(image))
		assert.Equal(t, 36.0, list("bufferViews")[view].(map[string]any)["byteLength"])
	}
	child := list("nodes")[roots[1]].(map[string]any)["children"].([]any)[0].(float64)
	assert.Equal(t, 2.0, list("nodes")[int(child)].(map[string]any)["mesh"])
	first := list("materials")[red].(map[string]any)
	assert.Equal(t, "BLEND", first["alphaMode"])
	assert.InDelta(t, 1, first["pbrMetallicRoughness"].(map[string]any)["baseColorFactor"].([]any)[0], 1e-9)
	bounds := list("accessors")[0].(map[string]any)
	assert.Equal(t, []any{1.0, 2.0, 3.0}, bounds["min"])
	assert.Equal(t, []any{7.0, 8.0, 10.0}, bounds["max"])
	again, err := gltf.Read(file)
	require.NoError(t, err)
	lo, hi, ok := again.Box()
	require.True(t, ok)
	assert.InDeltaSlice(t, []float64{1, 0, 0}, lo[:], 1e-6)
	assert.InDeltaSlice(t, []float64{10, 8, 10}, hi[:], 1e-6)
}

// A value of the screen of 188 is about half of the light (IEC 61966-2-1).
func TestColoursAreLinear(t *testing.T) {
	s := gltf.New("test")
	s.Material(gltf.Material{R: 188, G: 0, B: 10, A: 255})
	file, err := s.Binary()
	require.NoError(t, err)
	scene, _ := parts(t, file)
	m := scene["materials"].([]any)[0].(map[string]any)
	assert.NotContains(t, m, "alphaMode")
	c := m["pbrMetallicRoughness"].(map[string]any)["baseColorFactor"].([]any)
	assert.InDelta(t, 0.503, c[0], 0.001)
	assert.InDelta(t, 0, c[1], 1e-9)
	assert.InDelta(t, 10.0/255/12.92, c[2], 1e-9)
}

func TestFilesThatAreNoneAreRefused(t *testing.T) {
	whole := `{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0}],"meshes":[{"primitives":[{"attributes":{"POSITION":0}}]}],
		"accessors":[{"bufferView":0,"min":[0,0,0],"max":[1,1,1]}],"bufferViews":[{"byteLength":12}],"buffers":[{"byteLength":12}]}`
	for _, c := range []struct{ what, old, now, says string }{
		{"a mesh that is not there", `"mesh":0`, `"mesh":5`, "a mesh that it does not have"},
		{"a node that holds itself", `{"mesh":0}`, `{"mesh":0,"children":[0]}`, "held twice"},
		{"a node that is not there", `"nodes":[0]`, `"nodes":[3]`, "a node that it does not have"},
		{"places that are not there", `"POSITION":0`, `"POSITION":1`, "places that it does not have"},
		{"data beyond the file", `"bufferViews":[{"byteLength":12}]`, `"bufferViews":[{"byteLength":99}]`, "longer than the file"},
		{"data from beyond the file", `"bufferViews":[{"byteLength":12}]`, `"bufferViews":[{"byteOffset":8,"byteLength":12}]`, "longer than the file"},
		{"no scene", `"scenes":[{"nodes":[0]}],`, ``, "no scene"},
		{"what is not read", `"asset"`, `"extensionsRequired":["EXT_packed"],"asset"`, `"EXT_packed"`},
		{"several buffers", `"buffers":[`, `"buffers":[{},`, "several pieces"},
		{"no description", whole, `{{`, "cannot be read"},
	} {
		now := strings.Replace(whole, c.old, c.now, 1)
		require.NotEqual(t, whole, now)
		_, err := gltf.Read(glb(now, make([]byte, 12)))
		require.ErrorContains(t, err, c.says, c.what)
	}
	_, err := gltf.Read([]byte("glTF"))
	require.ErrorContains(t, err, "not a binary glTF")
	cut := glb(whole, make([]byte, 12))
	_, err = gltf.Read(cut[:len(cut)-9])
	require.ErrorContains(t, err, "cut off")
	f, err := gltf.Read(glb(strings.Replace(whole, `"min":[0,0,0],`, ``, 1), make([]byte, 12)))
	require.NoError(t, err)
	_, _, ok := f.Box()
	assert.False(t, ok, "it does not say where its places are")
}
