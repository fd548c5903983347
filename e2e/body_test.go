package e2e

import (
	"archive/zip"
	"bytes"
	bits "encoding/binary"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// redBox is a box of 6 × 6 × 5 mm as binary glTF 2.0: metres, y up, its red from a picture within the file.
func redBox() []byte {
	corner := func(i int) [3]float32 {
		c := [3]float32{-0.003, 0, -0.003}
		for k, by := range []float32{0.006, 0.005, 0.006} {
			if i>>k&1 == 1 {
				c[k] += by
			}
		}
		return c
	}
	var data bytes.Buffer
	n := 0
	for _, f := range [][4]int{{0, 1, 3, 2}, {4, 6, 7, 5}, {0, 4, 5, 1}, {2, 3, 7, 6}, {0, 2, 6, 4}, {1, 5, 7, 3}} {
		for _, k := range []int{0, 1, 2, 0, 2, 3} {
			for _, v := range corner(f[k]) {
				_ = bits.Write(&data, bits.LittleEndian, math.Float32bits(v)) // a buffer does not fail
			}
			n++
		}
	}
	shape := data.Len()
	data.Write(make([]byte, n*8)) // where each corner lies in the picture: all in its one corner
	dot := image.NewRGBA(image.Rect(0, 0, 2, 2))
	draw.Draw(dot, dot.Bounds(), image.NewUniform(color.RGBA{R: 255, A: 255}), image.Point{}, draw.Src)
	at := data.Len()
	_ = png.Encode(&data, dot)
	long := data.Len() - at
	data.Write(make([]byte, (4-data.Len()%4)%4))
	scene := fmt.Sprintf(`{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0}],"meshes":[{"primitives":[{"attributes":{"POSITION":0,"TEXCOORD_0":1},"material":0}]}],
		"materials":[{"doubleSided":true,"pbrMetallicRoughness":{"baseColorTexture":{"index":0},"metallicFactor":0}}],"textures":[{"source":0}],"images":[{"bufferView":2,"mimeType":"image/png"}],"accessors":[{"bufferView":0,"componentType":5126,"count":%d,"type":"VEC3","min":[-0.003,0,-0.003],"max":[0.003,0.005,0.003]},
		{"bufferView":1,"componentType":5126,"count":%d,"type":"VEC2"}],"bufferViews":[{"buffer":0,"byteLength":%d},{"buffer":0,"byteOffset":%d,"byteLength":%d},{"buffer":0,"byteOffset":%d,"byteLength":%d}],
		"buffers":[{"byteLength":%d}]}`, n, n, shape, shape, n*8, at, long, data.Len())
	for len(scene)%4 != 0 {
		scene += " "
	}
	var out bytes.Buffer
	word := func(v int) { _ = bits.Write(&out, bits.LittleEndian, uint32(v)) }
	out.WriteString("glTF")
	word(2)
	word(12 + 8 + len(scene) + 8 + data.Len())
	word(len(scene))
	out.WriteString("JSON" + scene)
	word(data.Len())
	out.WriteString("BIN\x00")
	out.Write(data.Bytes())
	return out.Bytes()
}

const switchPack = `{"format":"golden-trace-part-pack","version":1,"title":"Switches","parts":[{
	"part":{"name":"Push switch","prefix":"S","description":"Push switch, 6 × 6 mm","symbol":"Push switch","footprint":"Push 6 mm"},
	"symbols":[{"name":"Push switch","pins":[{"number":"1","type":"passive","at":{"x":-7500000,"y":0},"turn":0,"length":5000000},{"number":"2","type":"passive","at":{"x":7500000,"y":0},"turn":2,"length":5000000}],
		"figures":[{"form":"line","pts":[{"x":-2500000,"y":0},{"x":2500000,"y":1500000}]}],"designatorAt":{"x":0,"y":4000000},"valueAt":{"x":0,"y":-4000000}}],
	"footprints":[{"name":"Push 6 mm","pads":[{"number":"1","form":"round","at":{"x":-3250000,"y":0},"size":{"x":2000000,"y":2000000},"hole":1000000},{"number":"2","form":"round","at":{"x":3250000,"y":0},"size":{"x":2000000,"y":2000000},"hole":1000000}],
		"silk":[],"body":[],"courtyard":[{"x":-4500000,"y":-3500000},{"x":4500000,"y":-3500000},{"x":4500000,"y":3500000},{"x":-4500000,"y":3500000}],"designatorAt":{"x":0,"y":4500000},"model":7}],
	"files":[{"id":7,"name":"the body","path":"files/push.glb"}]}]}`

// A part comes in a pack with its body as glTF; the body stands on its pads, to scale and upright.
func TestABodyFromAPack(t *testing.T) {
	var file bytes.Buffer
	z := zip.NewWriter(&file)
	for name, data := range map[string][]byte{"pack.json": []byte(switchPack), "files/push.glb": redBox()} {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write(data)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	path := filepath.Join(t.TempDir(), "switches.zip")
	require.NoError(t, os.WriteFile(path, file.Bytes(), 0o644))

	b := partsOf(t, "Bodies")
	b.upload("File of a pack", path)
	b.press("Keep 1 part in the workspace")
	b.until("!!" + rowOf("Push switch"))
	b.stage("Circuit")
	b.until(`!!document.querySelector('[role=application][aria-label^=Circuit]')?.dataset.view`)
	b.putPart("Push switch", 100, 100)
	b.stage("Parts")
	b.view("Assign")
	b.until("!!" + rowOf("S1"))
	b.click(b.found(rowOf("S1") + `.querySelector('[data-c="0"]')`))
	b.press("In space")
	b.until(`!!document.querySelector('.space canvas')`)
	reds := strings.Replace(drawnInSpace, "d[i+3]>200", "d[i]>90&&d[i]>3*d[i+1]&&d[i]>3*d[i+2]", 1)
	b.until(reds + ` > 60`)
	b.glimpse("body-gltf")

	// in the footprint's own editor it is taken away, brought back, and another file given; what is no body is refused
	b.goTo(fmt.Sprintf("/project/%d/parts?view=footprint&id=%d", eval[int](b, `goldenTrace.id`), eval[int](b, `goldenTrace.named('footprint', 'Push 6 mm').id`)))
	b.sees("Body in space")
	b.press("Take it away")
	b.until(`!goldenTrace.all('footprint')[0].model && goldenTrace.all('asset').length === 0`)
	b.sees("none yet")
	none, box := filepath.Join(t.TempDir(), "lid.glb"), filepath.Join(t.TempDir(), "box.glb")
	require.NoError(t, os.WriteFile(none, []byte("this is no body at all, it is a text"), 0o644))
	require.NoError(t, os.WriteFile(box, redBox(), 0o644))
	b.upload("Body as binary glTF", none)
	b.sees("The file lid.glb cannot be the body: it is not a binary glTF file")
	b.upload("Body as binary glTF", box)
	b.until(reds + ` > 60`)
	b.sees("box.glb")
	b.glimpse("footprint-space")
	b.press("Undo")
	b.until(`!goldenTrace.all('footprint')[0].model`)
}
