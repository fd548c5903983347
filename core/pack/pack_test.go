package pack_test

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/core/pack"
)

// member is a file of a zip made by the standard library alone.
type member struct{ path, body string }

func zipped(t *testing.T, members ...member) []byte {
	t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, m := range members {
		w, err := z.Create(m.path)
		require.NoError(t, err)
		_, err = io.WriteString(w, m.body)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

// body is a glTF binary of one triangle's description, as the Khronos specification lays it out: header, then one chunk of JSON padded with spaces.
func body(scene string) string {
	for len(scene)%4 != 0 {
		scene += " "
	}
	out := []byte("glTF")
	out = binary.LittleEndian.AppendUint32(out, 2)
	out = binary.LittleEndian.AppendUint32(out, uint32(12+8+len(scene)))
	out = binary.LittleEndian.AppendUint32(out, uint32(len(scene)))
	return string(out) + "JSON" + scene
}

const triangle = `{"asset":{"version":"2.0"},"meshes":[{"primitives":[]}],"nodes":[{"mesh":0}]}`

// square is a picture of 4 by 4 pixels.
func square(t *testing.T) string {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 4, 4))))
	return b.String()
}

// written is a pack as a stranger would write it by hand after docs/part-pack.md: a switch of two pins.
const written = `{"format":"golden-trace-part-pack","version":1,"title":"Switches","parts":[{
 "part":{"id":0,"name":"TP-100","prefix":"S","description":"Push switch","symbol":"Push switch","footprint":"Push 6 mm","padOf":{"A":"1 2","B":"3"}},
 "symbols":[{"id":0,"name":"Push switch","designatorAt":{"x":0,"y":2540000},"valueAt":{"x":0,"y":-2540000},"figures":[{"form":"circle","pts":[{"x":0,"y":0}],"r":1270000}],"pins":[
  {"number":"A","type":"passive","at":{"x":-5080000,"y":0},"turn":0,"length":2540000},
  {"number":"B","type":"passive","at":{"x":5080000,"y":0},"turn":2,"length":2540000}]}],
 "footprints":[{"id":0,"name":"Push 6 mm","silk":[],"body":[],"designatorAt":{"x":0,"y":3000000},
  "courtyard":[{"x":-4000000,"y":-4000000},{"x":4000000,"y":-4000000},{"x":4000000,"y":4000000},{"x":-4000000,"y":4000000}],
  "pads":[{"number":"1","form":"rect","at":{"x":-3000000,"y":2000000},"size":{"x":1200000,"y":1200000}},
   {"number":"2","form":"rect","at":{"x":-3000000,"y":-2000000},"size":{"x":1200000,"y":1200000}},
   {"number":"3","form":"round","at":{"x":3000000,"y":0},"size":{"x":1800000,"y":1800000},"hole":900000}],
  "model":7,"beneath":{"asset":3,"at":{"x":-4000000,"y":-4000000},"width":8000000,"opacity":50}}],
 "files":[{"id":3,"name":"page 4","path":"files/page4.png"},{"id":7,"name":"the body","path":"files/bodies/push.glb"}]
}]}`

func TestReadingAPackWrittenByHand(t *testing.T) {
	p, err := pack.Read(zipped(t, member{"pack.json", written}, member{"files/page4.png", square(t)}, member{"files/bodies/push.glb", body(triangle)}))
	require.NoError(t, err)
	assert.Equal(t, "Switches", p.Title)
	require.Len(t, p.Releases, 1)
	r := p.Releases[0]
	assert.Equal(t, "TP-100", r.Part.Name)
	assert.Equal(t, design.ID(7), r.Footprints[0].Model)
	require.Len(t, r.Assets, 2)
	assert.Equal(t, []string{"png", "glb"}, []string{r.Assets[0].Type, r.Assets[1].Type})
	assert.Equal(t, 4, r.Assets[0].Width, "the picture was read, not believed")
}

// Parts of the shipped library, with footprints of several densities, come back as they were, and a pack written twice is the same but for nothing.
func TestWhatIsWrittenComesBack(t *testing.T) {
	var out pack.Pack
	out.Title = "A dozen of the shipped parts"
	for i, it := range library.All() {
		if i%40 == 0 {
			out.Releases = append(out.Releases, library.ReleaseFrom(it))
		}
	}
	require.Greater(t, len(out.Releases), 8)
	var b bytes.Buffer
	require.NoError(t, pack.Write(&b, &out))
	back, err := pack.Read(b.Bytes())
	require.NoError(t, err)
	assert.Equal(t, out.Title, back.Title)
	require.Len(t, back.Releases, len(out.Releases))
	for i, r := range out.Releases {
		want, _ := json.Marshal(r)
		got, _ := json.Marshal(back.Releases[i])
		assert.JSONEq(t, string(want), string(got), r.Part.Name)
	}
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	require.NoError(t, err)
	f, err := z.Open("pack.json")
	require.NoError(t, err, "the table of contents lies where docs/part-pack.md says")
	var c struct {
		Format  string
		Version int
		Parts   []json.RawMessage
	}
	require.NoError(t, json.NewDecoder(f).Decode(&c))
	assert.Equal(t, "golden-trace-part-pack", c.Format)
	assert.Equal(t, 1, c.Version)
	assert.Len(t, c.Parts, len(out.Releases))
}

func TestWhatIsRefused(t *testing.T) {
	whole := []member{{"pack.json", written}, {"files/page4.png", square(t)}, {"files/bodies/push.glb", body(triangle)}}
	with := func(more ...member) []byte { return zipped(t, append(slices.Clone(whole), more...)...) }
	index := func(old, now string) []byte {
		require.Contains(t, written, old)
		return zipped(t, append([]member{{"pack.json", strings.Replace(written, old, now, 1)}}, whole[1:]...)...)
	}
	other := func(i int, now string) []byte {
		m := slices.Clone(whole)
		m[i].body = now
		return zipped(t, m...)
	}
	good := with()
	cases := []struct {
		what string
		data []byte
		says string
	}{
		{"no zip", []byte("not a pack at all"), "no zip file"},
		{"a zip cut short", good[:len(good)/2], "cut short"},
		{"a zip of something else", zipped(t, member{"readme.txt", "hello"}), "there is no pack.json"},
		{"another format", index("golden-trace-part-pack", "some-other"), "not a part pack"},
		{"a later version", index(`"version":1`, `"version":2`), "version 2; this program reads version 1"},
		{"a field that is not known", index(`"title"`, `"tilte"`), "tilte"},
		{"no parts", zipped(t, member{"pack.json", `{"format":"golden-trace-part-pack","version":1,"parts":[]}`}), "no parts"},
		{"an empty part", zipped(t, member{"pack.json", `{"format":"golden-trace-part-pack","version":1,"parts":[{}]}`}), "no part"},
		{"an empty symbol", index(`"symbols":[{`, `"symbols":[null,{`), "empty symbol"},
		{"an empty footprint", index(`"footprints":[{`, `"footprints":[null,{`), "empty footprint"},
		{"a name that climbs", with(member{"../outside.png", "x"}), "../outside.png"},
		{"a name that climbs within", with(member{"files/../../outside.png", "x"}), "cannot be"},
		{"a name from the root", with(member{"/etc/outside.png", "x"}), "cannot be"},
		{"a name with a backslash", with(member{`files\outside.png`, "x"}), "cannot be"},
		{"a name with a drive", with(member{"c:/outside.png", "x"}), "cannot be"},
		{"a hidden name", with(member{"files/.profile", "x"}), "cannot be"},
		{"a name too deep", with(member{"a/b/c/d/e.png", "x"}), "cannot be"},
		{"a name too long", with(member{"files/" + strings.Repeat("x", 101), "x"}), "cannot be"},
		{"two files of one name", with(member{"files/page4.png", square(t)}), "two files called files/page4.png"},
		{"a file that is missing", zipped(t, whole[0], whole[1]), "files/bodies/push.glb"},
		{"two ids that are one", index(`{"id":7,"name":"the body"`, `{"id":3,"name":"the body"`), "the id 3"},
		{"a picture missing from the list", index(`"model":7`, `"model":8`), "a picture of the footprint Push 6 mm is missing"},
		{"a symbol that is missing", index(`"symbol":"Push switch"`, `"symbol":"Pull switch"`), "Pull switch"},
		{"a picture that is none", other(1, "MZ this is a program"), "files/page4.png"},
		{"a body that is none", other(2, "glTF but no more"), "files/bodies/push.glb"},
		{"a file that unpacks beyond bounds", other(1, strings.Repeat("\x00", design.LargestAsset+1)), "unpacks to more than"},
		{"two parts of one name", zipped(t, append([]member{{"pack.json", twice(written)}}, whole[1:]...)...), "two parts called"},
	}
	_, err := pack.Read(good)
	require.NoError(t, err, "what the faults are put into is good")
	for _, c := range cases {
		_, err := pack.Read(c.data)
		if assert.Error(t, err, c.what) {
			assert.Contains(t, err.Error(), c.says, c.what)
		}
	}
}

// What is read is bounded: as much as docs/part-pack.md allows is taken, more is refused.
func TestBounds(t *testing.T) {
	whole := []member{{"files/", ""}, {"pack.json", written}, {"files/page4.png", square(t)}, {"files/bodies/push.glb", body(triangle)}}
	says := func(data []byte) string {
		_, err := pack.Read(data)
		if err != nil {
			return err.Error()
		}
		return ""
	}
	assert.Contains(t, says(make([]byte, pack.LargestPack)), "no zip file", "as large as it may be, it is looked into")
	assert.Contains(t, says(make([]byte, pack.LargestPack+1)), "64 are the most")
	many := slices.Clone(whole)
	for len(many) < pack.MostEntries {
		many = append(many, member{fmt.Sprintf("files/more/%d.txt", len(many)), ""})
	}
	assert.Empty(t, says(zipped(t, many...)), "folders among the files are no fault")
	assert.Contains(t, says(zipped(t, append(many, member{"files/last.txt", ""})...)), "4001 files; 4000 are the most")
	title := func(n int) []byte {
		m := slices.Clone(whole)
		m[1].body = strings.Replace(written, "Switches", strings.Repeat("s", n), 1)
		return zipped(t, m...)
	}
	assert.Empty(t, says(title(design.LongestText)))
	assert.Contains(t, says(title(design.LongestText+1)), "title is too long")
	parts := func(n int) []byte {
		var b strings.Builder
		b.WriteString(`{"format":"golden-trace-part-pack","version":1,"parts":[`)
		for i := range n {
			if i > 0 {
				b.WriteByte(',')
			}
			fmt.Fprintf(&b, `{"part":{"name":"P%d","prefix":"S","symbol":"S"},"symbols":[{"name":"S","pins":[],"figures":[]}]}`, i)
		}
		b.WriteString("]}")
		return zipped(t, member{"pack.json", b.String()})
	}
	assert.Empty(t, says(parts(pack.MostParts)))
	assert.Contains(t, says(parts(pack.MostParts+1)), "holds 2001 parts; 2000 are the most")
}

// A small file that unpacks to very much, spread over many bodies each of which could be, is refused before all of it was unpacked.
func TestManyBodiesThatUnpackToMuch(t *testing.T) {
	scene := `{"asset":{"version":"2.0"},"meshes":[{}]}` + strings.Repeat(" ", 3)
	large := []byte("glTF")
	for _, v := range []uint32{2, uint32(7 << 20), uint32(len(scene))} {
		large = binary.LittleEndian.AppendUint32(large, v)
	}
	large = append(append(large, "JSON"...), scene...)
	large = append(large, make([]byte, 7<<20-len(large))...)
	with := func(n int) error { // parts with three bodies of 7 MB each
		var files []member
		var index strings.Builder
		index.WriteString(`{"format":"golden-trace-part-pack","version":1,"parts":[`)
		for i := range n {
			if i > 0 {
				index.WriteByte(',')
			}
			fmt.Fprintf(&index, `{"part":{"name":"P%d","prefix":"S","symbol":"S"},"symbols":[{"name":"S","pins":[],"figures":[]}],"files":[`, i)
			for k := range 3 {
				files = append(files, member{fmt.Sprintf("files/%d-%d.glb", i, k), string(large)})
				fmt.Fprintf(&index, `{"id":%d,"name":"b","path":"files/%d-%d.glb"}%s`, k+1, i, k, []string{",", ",", ""}[k])
			}
			index.WriteString(`]}`)
		}
		index.WriteString("]}")
		data := zipped(t, append(files, member{"pack.json", index.String()})...)
		require.Less(t, len(data), 1<<20)
		_, err := pack.Read(data)
		return err
	}
	require.NoError(t, with(7)) // 147 MB
	assert.ErrorContains(t, with(8), "unpacks to more than")
}

// twice lists the one part of a pack twice, the second time in capitals.
func twice(s string) string {
	from := strings.Index(s, `"parts":[`) + len(`"parts":[`)
	to := strings.LastIndex(s, "]}")
	one := s[from:to]
	return s[:from] + one + "," + strings.Replace(one, `"name":"TP-100"`, `"name":"tp-100"`, 1) + s[to:]
}

// A link in the zip, which would lead elsewhere when unpacked, is refused.
func TestLinksAreRefused(t *testing.T) {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	h := &zip.FileHeader{Name: "files/page4.png"}
	h.SetMode(0o777 | 1<<27) // fs.ModeSymlink
	w, err := z.CreateHeader(h)
	require.NoError(t, err)
	_, err = io.WriteString(w, "/etc/passwd")
	require.NoError(t, err)
	require.NoError(t, z.Close())
	_, err = pack.Read(b.Bytes())
	require.Error(t, err)
	assert.Contains(t, err.Error(), "files/page4.png")
}

// Whatever byte is damaged, the answer is an error or a pack that is whole; nothing falls over.
func FuzzRead(f *testing.F) {
	f.Add([]byte(written))
	f.Add([]byte(`{"format":"golden-trace-part-pack","version":1,"parts":[{"part":{"name":"x","symbol":"y"},"symbols":[{"name":"y","pins":[null]}]}]}`))
	f.Fuzz(func(t *testing.T, index []byte) {
		var b bytes.Buffer
		z := zip.NewWriter(&b)
		w, _ := z.Create("pack.json")
		_, _ = w.Write(index)
		_ = z.Close()
		p, err := pack.Read(b.Bytes())
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		for _, r := range p.Releases {
			require.NoError(t, r.Valid())
		}
	})
}
