package picture

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/gltf"
)

// ReadBody reads a body in space from a binary glTF 2.0 file, and refuses what is not whole, or would fetch anything from elsewhere.
//
// Source: Khronos glTF 2.0 specification, section 4 (GLB): a header of magic, version and length, then chunks of length, type and data.
func ReadBody(name string, data []byte) (*design.Asset, error) {
	const headers = 20 // of the file, and of its first chunk
	if len(data) < headers || string(data[:4]) != "glTF" {
		return nil, errors.New("it is not a binary glTF file")
	}
	word := func(at int) uint32 { return binary.LittleEndian.Uint32(data[at:]) }
	if v := word(4); v != 2 {
		return nil, fmt.Errorf("it is glTF of version %d; version 2 is read", v)
	}
	if int64(word(8)) != int64(len(data)) {
		return nil, fmt.Errorf("it says that it has %d bytes, and has %d", word(8), len(data))
	}
	long := int64(word(12))
	if string(data[16:20]) != "JSON" || headers+long > int64(len(data)) {
		return nil, errors.New("its first part is not the description of its scene")
	}
	var scene struct {
		Asset   struct{ Version string } `json:"asset"`
		Buffers []struct {
			URI        string `json:"uri"`
			ByteLength int64  `json:"byteLength"`
		} `json:"buffers"`
		Images []struct {
			URI string `json:"uri"`
		} `json:"images"`
		Meshes []json.RawMessage `json:"meshes"`
		Nodes  []json.RawMessage `json:"nodes"`
	}
	if err := json.Unmarshal(data[headers:headers+long], &scene); err != nil {
		return nil, errors.New("the description of its scene cannot be read")
	}
	switch {
	case !strings.HasPrefix(scene.Asset.Version, "2"):
		return nil, errors.New("its scene is not of glTF version 2")
	case len(scene.Meshes) == 0 || len(scene.Meshes) > 5000 || len(scene.Nodes) > 20_000:
		return nil, fmt.Errorf("its scene has %d meshes and %d nodes; 1 to 5000 and up to 20000 are meant", len(scene.Meshes), len(scene.Nodes))
	}
	for _, b := range scene.Buffers {
		if b.URI != "" {
			return nil, errors.New("its data lie in another file; one that holds all is needed")
		}
		if b.ByteLength < 0 || b.ByteLength > int64(len(data)) {
			return nil, errors.New("its data are said to be longer than the file")
		}
	}
	for _, i := range scene.Images {
		if i.URI != "" {
			return nil, errors.New("a picture of it lies elsewhere; a file that holds all is needed")
		}
	}
	a := &design.Asset{Name: name, Type: "glb", Data: data, Reach: reach(data)}
	check := *a
	check.ID = 1
	return a, check.Valid()
}

// largestBody is how far a body may reach each way, in metres: what reaches further is not told of.
const largestBody = 1

// reach is the room that a body takes; nil: its file does not tell, or it has no size, or is far too large. The file's lengths are metres and
// its y goes up from the board, its z towards the lower edge.
func reach(data []byte) *design.Reach {
	f, err := gltf.Read(data)
	if err != nil {
		return nil
	}
	lo, hi, ok := f.Box()
	if !ok {
		return nil
	}
	nm := func(m float64) int64 { return int64(math.Round(m * 1e9)) }
	for i := range 3 {
		if !(lo[i] >= -largestBody && hi[i] <= largestBody) { // nor is what is no number
			return nil
		}
	}
	r := &design.Reach{Min: geom.Pt(nm(lo[0]), nm(-hi[2])), Max: geom.Pt(nm(hi[0]), nm(-lo[2])), From: nm(lo[1]), To: nm(hi[1])}
	if r.From == r.To || r.Min.X == r.Max.X || r.Min.Y == r.Max.Y {
		return nil
	}
	return r
}
