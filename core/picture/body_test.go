package picture_test

import (
	"encoding/binary"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/picture"
)

// glb lays a scene out as section 4.4 of the glTF 2.0 specification says: twelve bytes of header, then a chunk of JSON, then one of data.
func glb(scene string, data []byte) []byte {
	for len(scene)%4 != 0 {
		scene += " "
	}
	u32 := binary.LittleEndian.AppendUint32
	long := 12 + 8 + len(scene)
	if data != nil {
		long += 8 + len(data)
	}
	out := u32(u32([]byte("glTF"), 2), uint32(long))
	out = append(append(u32(out, uint32(len(scene))), "JSON"...), scene...)
	if data != nil {
		out = append(append(u32(out, uint32(len(data))), "BIN\x00"...), data...)
	}
	return out
}

const oneTriangle = `{"asset":{"version":"2.0"},"buffers":[{"byteLength":36}],"meshes":[{"primitives":[]}],"nodes":[{"mesh":0}]}`

func TestReadingABody(t *testing.T) {
	whole := glb(oneTriangle, make([]byte, 36))
	a, err := picture.ReadBody("a triangle", whole)
	require.NoError(t, err)
	assert.Equal(t, "glb", a.Type)
	assert.Equal(t, whole, a.Data)

	version1 := append([]byte{}, whole...)
	version1[4] = 1
	other := append([]byte{}, whole...)
	copy(other[16:], "BIN\x00")
	long := append([]byte{}, whole...)
	binary.LittleEndian.PutUint32(long[12:], uint32(len(whole)))
	scene := func(old, now string) []byte {
		require.Contains(t, oneTriangle, old)
		return glb(strings.Replace(oneTriangle, old, now, 1), make([]byte, 36))
	}
	for _, c := range []struct {
		what string
		data []byte
		says string
	}{
		{"nothing", nil, "not a binary glTF"},
		{"something else", []byte("solid triangle, as other formats begin"), "not a binary glTF"},
		{"cut in its header", whole[:19], "not a binary glTF"},
		{"version 1", version1, "version 1; version 2 is read"},
		{"cut short", whole[:len(whole)-1], "says that it has"},
		{"with more behind it", append(append([]byte{}, whole...), 0), "says that it has"},
		{"without its scene first", other, "first part"},
		{"a scene longer than the file", long, "first part"},
		{"a scene that is no JSON", glb("{,}", nil), "cannot be read"},
		{"a scene of another version", scene(`"2.0"`, `"1.0"`), "not of glTF version 2"},
		{"no meshes", scene(`[{"primitives":[]}]`, `[]`), "0 meshes"},
		{"too many meshes", scene(`[{"primitives":[]}]`, `[{}`+strings.Repeat(`,{}`, 5000)+`]`), "5001 meshes"},
		{"too many nodes", scene(`[{"mesh":0}]`, `[{}`+strings.Repeat(`,{}`, 20_000)+`]`), "20001 nodes"},
		{"data fetched from elsewhere", scene(`{"byteLength":36}`, `{"byteLength":36,"uri":"data.bin"}`), "another file"},
		{"data longer than the file", scene(`36`, `36000`), "longer than the file"},
		{"data of less than nothing", scene(`36`, `-1`), "longer than the file"},
		{"a picture from elsewhere", scene(`"nodes"`, `"images":[{"uri":"skin.png"}],"nodes"`), "a picture of it lies elsewhere"},
	} {
		_, err := picture.ReadBody("x", c.data)
		if assert.Error(t, err, c.what) {
			assert.Contains(t, err.Error(), c.says, c.what)
		}
	}
	many, err := picture.ReadBody("many", scene(`[{"primitives":[]}]`, `[{}`+strings.Repeat(`,{}`, 4999)+`]`))
	require.NoError(t, err)
	assert.NotEmpty(t, many.Data)
}
