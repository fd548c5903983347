package space_test

import (
	"context"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/space"
	"goldentrace/core/synthetic"
)

const um, mm = 1_000, 1_000_000

// file is a GLB file, read as the specification of glTF 2.0 says.
type file struct {
	Nodes []struct {
		Name        string
		Mesh        *int
		Children    []int
		Translation []float64
		Rotation    []float64
		Scale       []float64
		Extras      map[string]any
	}
	Meshes []struct {
		Primitives []struct {
			Attributes map[string]int
			Indices    int
			Extras     map[string]any
		}
	}
	Accessors   []struct{ BufferView, Count int }
	BufferViews []struct{ ByteOffset, ByteLength int }
	data        []byte
}

type vector [3]float64

func read(t require.TestingT, glb []byte) *file {
	f := &file{}
	n := binary.LittleEndian.Uint32(glb[12:])
	require.NoError(t, json.Unmarshal(glb[20:20+n], f))
	f.data = glb[28+n:]
	return f
}

// triangles of a node and of what it holds, as it is put, by the name of the primitive.
func (f *file) triangles(node int, put func(vector) vector, take func(name string, t [3]vector)) {
	n := f.Nodes[node]
	at := func(v vector) vector {
		if s := n.Scale; s != nil {
			v = vector{v[0] * s[0], v[1] * s[1], v[2] * s[2]}
		}
		if q := n.Rotation; q != nil { // v + 2 q × (q × v + w v)
			u, w := vector{q[0], q[1], q[2]}, q[3]
			c := cross(u, v)
			c = cross(u, vector{c[0] + w*v[0], c[1] + w*v[1], c[2] + w*v[2]})
			v = vector{v[0] + 2*c[0], v[1] + 2*c[1], v[2] + 2*c[2]}
		}
		if m := n.Translation; m != nil {
			v = vector{v[0] + m[0], v[1] + m[1], v[2] + m[2]}
		}
		return put(v)
	}
	if n.Mesh != nil {
		for _, p := range f.Meshes[*n.Mesh].Primitives {
			places := f.BufferViews[f.Accessors[p.Attributes["POSITION"]].BufferView].ByteOffset
			corners := f.BufferViews[f.Accessors[p.Indices].BufferView].ByteOffset
			name, _ := p.Extras["name"].(string)
			for i := 0; i < f.Accessors[p.Indices].Count; i += 3 {
				var t [3]vector
				for k := range 3 {
					c := int(binary.LittleEndian.Uint32(f.data[corners+4*(i+k):]))
					for j := range 3 {
						t[k][j] = float64(math.Float32frombits(binary.LittleEndian.Uint32(f.data[places+12*c+4*j:])))
					}
					t[k] = at(t[k])
				}
				take(name, t)
			}
		}
	}
	for _, c := range n.Children {
		f.triangles(c, at, take)
	}
}

func cross(a, b vector) vector {
	return vector{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}

// board turns what the file's viewer sees, metres with y up, into places of the board in millimetres with z up.
func board(v vector) vector { return vector{1000 * v[0], -1000 * v[2], 1000 * v[1]} }

// each goes through the triangles of everything by the names of the nodes below the root, in places of the board.
func (f *file) each(take func(node string, extras map[string]any, name string, t [3]vector)) {
	root := len(f.Nodes) - 1 // it is put in last
	r := f.Nodes[root]
	for _, c := range r.Children {
		own := *f
		own.Nodes = append(own.Nodes[:len(own.Nodes):len(own.Nodes)], r)
		own.Nodes[len(own.Nodes)-1].Children = []int{c}
		own.triangles(len(own.Nodes)-1, board, func(name string, t [3]vector) { take(f.Nodes[c].Name, f.Nodes[c].Extras, name, t) })
	}
}

// boxes are the boxes around the nodes below the root.
func (f *file) boxes() map[string][2]vector {
	out := map[string][2]vector{}
	f.each(func(node string, _ map[string]any, _ string, t [3]vector) {
		b, ok := out[node]
		if !ok {
			b = [2]vector{t[0], t[0]}
		}
		for _, v := range t {
			for i := range 3 {
				b[0][i], b[1][i] = min(b[0][i], v[i]), max(b[1][i], v[i])
			}
		}
		out[node] = b
	})
	return out
}

func near(t *testing.T, want, got vector, what string) {
	t.Helper()
	assert.InDeltaSlice(t, want[:], got[:], 1e-3, what)
}

// standing is a board of 40 by 30 mm, 1.6 mm thick with 35 µm of copper on two layers, that two parts stand on: a block of 4 by 2 by 3 mm on top,
// turned by 90°, and a ball with a rod below.
func standing() *design.Doc {
	d := design.New("Standing")
	d.Next = 500
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40*mm, 0), geom.Pt(40*mm, 30*mm), geom.Pt(0, 30*mm))
	d.Put(&b)
	d.Put(&design.Footprint{ID: 90, Name: "BLOCK", Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Rect, Size: geom.Pt(mm, mm)}},
		Solids: []design.Solid{{Form: design.Prism, Material: "body", From: 100 * um, To: 3 * mm,
			Edge: geom.Corners(geom.Pt(-mm, -mm), geom.Pt(-mm, mm), geom.Pt(3*mm, mm), geom.Pt(3*mm, -mm))}}}) // clockwise
	d.Put(&design.Footprint{ID: 91, Name: "BALL", Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Round, Size: geom.Pt(mm, mm), Hole: 500 * um}},
		Solids: []design.Solid{{Form: design.Ball, Material: "lead", A: geom.Pt(2*mm, 0), From: 0, To: mm},
			{Form: design.Rod, Material: "metal", A: geom.Pt(-3*mm, 0), B: geom.Pt(0, 0), From: 500 * um, To: 2500 * um}}})
	d.Put(&design.Placed{ID: 100, Part: 200, Designator: "U1", Footprint: "BLOCK", At: geom.Pt(10*mm, 20*mm), Angle: 90_000})
	d.Put(&design.Placed{ID: 101, Part: 201, Designator: "L1", Footprint: "BALL", At: geom.Pt(30*mm, 10*mm), Bottom: true})
	d.Put(&design.Placed{ID: 102, Part: 202, Designator: "L2", Footprint: "BALL", At: geom.Pt(30*mm, 20*mm), NotFitted: true})
	return d
}

func modelOf(t require.TestingT, d *design.Doc) *file {
	data, err := space.Model(context.Background(), "standing", finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}, nil)
	require.NoError(t, err)
	return read(t, data)
}

func TestBoxesAreThoseOfBoardAndParts(t *testing.T) {
	d := standing()
	got := modelOf(t, d).boxes()
	thick := float64(d.Board.Thickness()) / mm
	require.Positive(t, thick)
	u := got["U1"] // x from −1 to 3 becomes y from 19 to 23, y from −1 to 1 x from 9 to 11
	near(t, vector{9, 19, 0.1}, u[0], "U1")
	near(t, vector{11, 23, 3}, u[1], "U1")
	l := got["L1"] // x is mirrored, heights go down
	near(t, vector{27.5, 9, -thick - 2.5}, l[0], "L1: the ball to the left, the rod hangs lowest")
	near(t, vector{33, 11, -thick}, l[1], "L1: the rod's end to the right")
	assert.NotContains(t, got, "L2", "it is not fitted")
	var low, high float64
	z := 0.0
	for _, layer := range d.Board.Stack {
		b, ok := got[layer.Name]
		switch {
		case layer.Coat():
			continue
		case !ok:
			require.Fail(t, "no node", layer.Name)
		}
		assert.InDelta(t, z, b[1][2], 1e-6, layer.Name)
		z -= float64(layer.Thickness) / mm
		assert.InDelta(t, z, b[0][2], 1e-6, layer.Name)
		low, high = min(low, b[0][2]), max(high, b[1][2])
		if layer.Dielectric() {
			near(t, vector{0, 0, b[0][2]}, b[0], layer.Name)
			near(t, vector{40, 30, b[1][2]}, b[1], layer.Name)
		}
	}
	assert.InDelta(t, thick, high-low, 1e-6)
	mask := got["Top mask"]
	near(t, vector{0, 0, -0.035}, mask[0], "the mask reaches down to the laminate")
	assert.InDelta(t, 0.02, mask[1][2], 1e-6)
	assert.InDelta(t, -thick-0.02, got["Bottom mask"][0][2], 1e-6)
	walls := got["Walls of holes"]
	near(t, vector{29.75, 9.75, -thick}, walls[0], "the wall of the hole")
	near(t, vector{30.25, 20.25, 0}, walls[1], "the other hole is drilled too")
}

// Triangles of a closed body seen from outside go anticlockwise, so that those of all its sides bound its volume (divergence theorem).
func TestBodiesAreClosed(t *testing.T) {
	volume := map[string]float64{}
	type edge struct {
		node string
		a, b vector
	}
	edges := map[edge]int{}
	modelOf(t, standing()).each(func(node string, _ map[string]any, _ string, c [3]vector) {
		for i := range c {
			edges[edge{node, c[i], c[(i+1)%3]}]++
		}
		n := cross(c[1], c[2])
		volume[node] += (c[0][0]*n[0] + c[0][1]*n[1] + c[0][2]*n[2]) / 6
	})
	for e, n := range edges { // edge to edge: each side of a triangle is that of another one, the other way
		if back := edges[edge{e.node, e.b, e.a}]; back != n {
			assert.Equal(t, n, back, "%s from %v to %v", e.node, e.a, e.b)
		}
	}
	assert.Greater(t, len(edges), 1000)
	assert.InDelta(t, 4*2*2.9, volume["U1"], 1e-3)
	polygon := func(r float64) float64 { return 8 * math.Sin(math.Pi/8) * r * r } // of 16 sides
	sphere := 0.0                                                                 // frustums between its 8 rows
	for k := range 8 {
		at := func(k int) (z, a float64) {
			up, flat := math.Sincos(math.Pi * (float64(k)/8 - 0.5))
			return 0.5 * up, polygon(0.5 * flat)
		}
		low, a := at(k)
		high, b := at(k + 1)
		sphere += (high - low) / 3 * (a + b + math.Sqrt(a*b))
	}
	assert.InDelta(t, sphere+3*polygon(1), volume["L1"], 1e-3)
	assert.InDelta(t, 4.0/3*math.Pi*0.125, sphere, 0.04, "near enough to a ball")
	thick := float64(standing().Board.Thickness()) / mm
	ring := math.Pi * (0.25*0.25 - 0.225*0.225)
	assert.InDelta(t, 2*ring*thick, volume["Walls of holes"], 0.2*ring*thick, "25 µm of copper around both holes")
	for _, l := range standing().Board.Stack {
		if l.Dielectric() {
			holes := 2 * math.Pi * 0.25 * 0.25
			assert.InDelta(t, (40*30-holes)*float64(l.Thickness)/mm, volume[l.Name], 0.1, l.Name)
		}
	}
}

func TestTheClosedBoard(t *testing.T) {
	d := standing()
	data, err := space.Closed(context.Background(), "standing", finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)})
	require.NoError(t, err)
	got := read(t, data).boxes()
	thick := float64(d.Board.Thickness()) / mm
	near(t, vector{0, 0, -thick}, got["Edge"][0], "edge")
	near(t, vector{40, 30, 0}, got["Edge"][1], "edge")
	near(t, vector{11, 23, 3}, got["U1"][1], "U1")
	bare := design.New("bare")
	_, err = space.Closed(context.Background(), "bare", finished.Board{Doc: bare, Index: layout.NewIndex(bare), Rules: rules.Of(bare)})
	require.ErrorIs(t, err, finished.ErrNoOutline)
	_, err = space.Model(context.Background(), "bare", finished.Board{Doc: bare, Index: layout.NewIndex(bare), Rules: rules.Of(bare)}, nil)
	require.ErrorIs(t, err, finished.ErrNoOutline)
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = space.Model(ctx, "stopped", finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}, nil)
	require.ErrorIs(t, err, context.Canceled)
}

// layered is a board of four layers with tracks, pads, vias and holes at random.
func layered(t *rapid.T) *design.Doc {
	d := design.New("Layered")
	d.Next = 500
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(12*mm, 0), geom.Pt(12*mm, 9*mm), geom.Pt(0, 9*mm))
	d.Put(b.Stacked([]design.StackLayer{{Name: "Top mask", Kind: design.MaskLayer, Thickness: 20 * um, Material: "green"},
		{Name: "L1", Kind: design.CopperLayer, Thickness: 35 * um}, {Name: "P1", Kind: design.PrepregLayer, Thickness: 200 * um},
		{Name: "L2", Kind: design.CopperLayer, Thickness: 18 * um}, {Name: "C", Kind: design.CoreLayer, Thickness: 1000 * um},
		{Name: "L3", Kind: design.CopperLayer, Thickness: 18 * um}, {Name: "P2", Kind: design.PrepregLayer, Thickness: 200 * um},
		{Name: "L4", Kind: design.CopperLayer, Thickness: 35 * um}, {Name: "Bottom mask", Kind: design.MaskLayer, Thickness: 20 * um, Material: "green"}}))
	nets := []design.ID{synthetic.Net(d, "GND"), synthetic.Net(d, "SIG")}
	at := func() geom.Point {
		return geom.Pt(rapid.Int64Range(-3, 123).Draw(t, "x")*100*um, rapid.Int64Range(-3, 93).Draw(t, "y")*100*um)
	}
	d.Put(&design.Footprint{ID: 90, Name: "F", Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Rect, Size: geom.Pt(900*um, 600*um)},
		{ID: 2, Number: "2", Form: design.Round, Size: geom.Pt(1200*um, 1200*um), Hole: 600 * um, At: geom.Pt(1400*um, 0)}}})
	for i := range rapid.IntRange(1, 10).Draw(t, "things") {
		id, net := design.ID(100+i), rapid.SampledFrom(nets).Draw(t, "net")
		layer := func() design.LayerID { return d.Board.At(rapid.IntRange(0, 3).Draw(t, "layer")) }
		switch rapid.IntRange(0, 3).Draw(t, "what") {
		case 0:
			d.Put(&design.Placed{ID: id, Part: 2000 + id, Designator: fmt.Sprint("U", i), Footprint: "F", At: at(), Bottom: rapid.Bool().Draw(t, "bottom"),
				Angle: rapid.Int32Range(0, 7).Draw(t, "turn") * 45_000, Nets: map[string]design.ID{"1": net, "2": nets[0]}})
		case 1:
			a := at()
			d.Put(&design.Track{ID: id, Layer: layer(), A: a, B: a.Add(geom.Pt(1500*um, 700*um)), Width: 300 * um, Net: net})
		case 2:
			d.Put(&design.Via{ID: id, At: at(), Diameter: 800 * um, Hole: 400 * um, From: d.Board.Top(), To: d.Board.Bottom(), Net: net,
				Cover: rapid.SampledFrom([]string{design.Open, design.Tented}).Draw(t, "cover")})
		case 3:
			d.Put(&design.Hole{ID: id, At: at(), Diameter: 900 * um})
		}
	}
	return d
}

// At places at random the copper of each layer is what the re-read artwork says, but for the holes that the drill file says.
func TestCopperIsWhatTheFilesSay(t *testing.T) {
	seen := map[bool]int{}
	rapid.Check(t, func(t *rapid.T) {
		d := layered(t)
		upper := map[string][][]geom.Point{}
		modelOf(t, d).each(func(node string, _ map[string]any, name string, c [3]vector) {
			if name == "upper" {
				var l []geom.Point
				for _, v := range c {
					l = append(l, geom.Pt(int64(math.Round(v[0]*mm)), int64(math.Round(v[1]*mm))))
				}
				upper[node] = append(upper[node], l)
			}
		})
		files, err := handoff.Make(context.Background(), d, layout.NewIndex(d), "layered", time.Date(2026, 11, 1, 12, 0, 0, 0, time.UTC), nil)
		require.NoError(t, err)
		var holes []reread.Hole
		copper := map[int]*reread.Artwork{}
		for _, f := range files {
			if strings.HasSuffix(f.Name, ".xnc") {
				dr, err := reread.Drill(f.Data)
				require.NoError(t, err)
				holes = append(holes, dr.Holes...)
			}
			for i := range 4 {
				if strings.Contains(f.Name, fmt.Sprintf("copper-%d", i+1)) {
					copper[i], err = reread.Gerber(f.Data)
					require.NoError(t, err)
				}
			}
		}
		require.Len(t, copper, 4)
		for range 40 {
			p := geom.Pt(rapid.Int64Range(0, 12*mm).Draw(t, "px"), rapid.Int64Range(0, 9*mm).Draw(t, "py"))
			if m := copper[0].Marks; len(m) > 0 && rapid.Bool().Draw(t, "near") {
				s := m[rapid.IntRange(0, len(m)-1).Draw(t, "mark")].Shapes[0]
				p = s.Pts[0].Add(geom.Pt(rapid.Int64Range(-500*um, 500*um).Draw(t, "dx"), rapid.Int64Range(-500*um, 500*um).Draw(t, "dy")))
			}
			for i, a := range copper {
				dark, edge := false, false
				for _, m := range a.Marks {
					for _, s := range m.Shapes {
						gap, _, _ := geom.Gap(geom.Disc(p, 0), s)
						if s.Holds(p) {
							dark = m.Dark
							in := s
							in.R -= 15 * um
							edge = edge || !in.Holds(p) && in.R > 0
						} else if gap < 15*um {
							edge = true
						}
					}
				}
				for _, h := range holes {
					far := h.At.Dist(p) - float64(h.Diameter)/2
					if far < 0 {
						dark = false
					}
					edge = edge || math.Abs(far) < 15*um
				}
				if edge || p.X < 20*um || p.Y < 20*um || p.X > 11_980*um || p.Y > 8_980*um {
					continue
				}
				is := false
				for _, l := range upper[fmt.Sprint("L", i+1)] {
					is = is || geom.InPolygon(p, l)
				}
				require.Equal(t, dark, is, "L%d at %v", i+1, p)
				seen[is]++
			}
		}
	})
	assert.Greater(t, seen[true], 50)
	assert.Greater(t, seen[false], 300)
}

// What stands on the board may come from a file: it stands as high and as far as the file says, on whichever face.
func TestABodyFromAFile(t *testing.T) {
	d := standing()
	scene := `{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0,"scale":[0.001,0.001,0.001]}],` +
		`"meshes":[{"primitives":[{"attributes":{"POSITION":0},"indices":1}]}],"accessors":[{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3","min":[0,0,-2],"max":[4,3,0]},` +
		`{"bufferView":1,"componentType":5125,"count":3,"type":"SCALAR"}],"bufferViews":[{"buffer":0,"byteLength":36},{"buffer":0,"byteOffset":36,"byteLength":12}],"buffers":[{"byteLength":48}]}`
	for len(scene)%4 != 0 {
		scene += " "
	}
	u32 := binary.LittleEndian.AppendUint32
	glb := u32(u32(u32([]byte("glTF"), 2), uint32(28+len(scene)+48)), uint32(len(scene)))
	glb = append(append(glb, "JSON"...), scene...)
	glb = append(u32(glb, 48), "BIN\x00"...)
	for _, v := range []float32{0, 0, 0, 4, 3, 0, 0, 0, -2} {
		glb = u32(glb, math.Float32bits(v))
	}
	glb = u32(u32(u32(glb, 0), 1), 2)
	d.Put(&design.Asset{ID: 300, Name: "body.glb", Type: "glb", Data: glb})
	f := *d.Footprint("BLOCK")
	f.Model, f.Solids = 300, nil
	d.Put(&f)
	got := modelOf(t, d).boxes()["U1"] // 4 mm along, 2 mm away from the lower edge, 3 mm high, turned by 90°
	near(t, vector{8, 20, 0}, got[0], "U1")
	near(t, vector{10, 24, 3}, got[1], "U1")
}
