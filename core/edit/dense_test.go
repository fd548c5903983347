package edit_test

import (
	"fmt"
	"math"

	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// dense is a board with a part of n × n balls in the middle, each of a net that a pin far away has too; tracks are 0.1 mm wide and apart.
type dense struct {
	*design.Doc
	part  *design.Placed
	n     int
	pitch int64
	nets  []design.ID // row by row from below
	x     *layout.Index
}

func denseBoard(t require.TestingT, stack string, n int, pitch, ball int64, angle int32) *dense {
	d := design.New("Dense")
	d.Next = 100
	b := *d.Board
	b.Outline = geom.Corners(mmf(0, 0), mmf(60, 0), mmf(60, 60), mmf(0, 60))
	d.Put(&b)
	_, err := edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "tallow", Name: stack})
	require.NoError(t, err)
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.TrackWidth: 100_000, design.LeastWidth: 75_000, design.LeastRing: 75_000,
		design.LeastHole: 100_000, design.HoleClearance: 200_000, design.ViaDiameter: 450_000, design.ViaHole: 200_000})
	s := &dense{Doc: d, n: n, pitch: pitch}
	balls := &design.Footprint{ID: 90, Name: "Balls"}
	pins := &design.Footprint{ID: 91, Name: "Pins"}
	nets := map[string]design.ID{}
	for i := range n * n {
		number := fmt.Sprint(i + 1)
		at := geom.Pt((int64(i%n)*2-int64(n-1))*pitch/2, (int64(i/n)*2-int64(n-1))*pitch/2)
		balls.Pads = append(balls.Pads, design.Pad{ID: i + 1, Number: number, Form: design.Round, Size: geom.Pt(ball, ball), At: at})
		pins.Pads = append(pins.Pads, design.Pad{ID: i + 1, Number: number, Form: design.Round, Size: geom.Pt(300_000, 300_000),
			At: geom.Pt(int64(i%50)*mm, int64(i/50)*mm)})
		net := synthetic.Net(d, "N"+number)
		nets[number] = net
		s.nets = append(s.nets, net)
	}
	d.Put(balls)
	d.Put(pins)
	s.part = &design.Placed{ID: d.NewID(), Part: 5001, Designator: "U1", Footprint: "Balls", At: mmf(30, 30), Angle: angle, Nets: nets}
	d.Put(s.part)
	d.Put(&design.Placed{ID: d.NewID(), Part: 5002, Designator: "J1", Footprint: "Pins", At: mmf(5, 2), Nets: nets})
	require.NoError(t, d.Whole())
	return s
}

const mm = 1_000_000

func mmf(x, y float64) geom.Point { return geom.Pt(int64(math.Round(x*mm)), int64(math.Round(y*mm))) }

func (s *dense) layers(at ...int) (out []design.LayerID) {
	for _, l := range at {
		out = append(out, s.Board.At(l))
	}
	return out
}

// keepsRules holds what was laid against the whole check, and looks at the copper as it is now.
func (s *dense) keepsRules(t require.TestingT, laid edit.ChangeSet) {
	mine := map[design.ID]bool{}
	for _, ch := range laid {
		mine[ch.ID] = true
	}
	s.x = layout.NewIndex(s.Doc)
	board := check.NewBoard(s.Doc, s.x, rules.Of(s.Doc))
	board.All()
	for _, f := range board.Found {
		for _, id := range f.Objects {
			require.False(t, f.Severity == check.Fault && mine[id], f.Text)
		}
	}
}

// escapes runs the command and checks all that is laid against the whole check.
func (s *dense) escapes(t require.TestingT, c edit.EscapeAsk) (string, error) {
	c.Parts = []design.ID{s.part.ID}
	act := &edit.Escape{EscapeAsk: c}
	cs, err := edit.Apply(s.Doc, edit.Env{}, act)
	if err != nil {
		return "", err
	}
	require.NoError(t, s.Whole())
	s.keepsRules(t, cs)
	back := s.Snapshot()
	cs.Inverted().Apply(back)
	require.Empty(t, back.Tracks)
	require.Empty(t, back.Vias)
	return act.Said(), nil
}

// reached is what hangs together with a ball by copper.
func (s *dense) reached(i int) []*layout.Copper {
	for _, is := range layout.Islands(s.x.NetPieces(s.nets[i])) {
		for _, c := range is {
			if c.ID == s.part.ID {
				return is
			}
		}
	}
	return nil
}

// outside tells whether copper of a ball ends so far beyond the outermost balls, and on which layers.
func (s *dense) outside(i int, beyond float64) (out []int) {
	sin, cos := math.Sincos(float64(s.part.Angle) * math.Pi / 180_000)
	edge := float64(s.n-1) * float64(s.pitch) / 2
	for _, c := range s.reached(i) {
		if c.Kind != "track" {
			continue
		}
		for _, p := range []geom.Point{s.Tracks[c.ID].A, s.Tracks[c.ID].B} {
			v := p.Sub(s.part.At)
			x, y := float64(v.X)*cos+float64(v.Y)*sin, float64(v.Y)*cos-float64(v.X)*sin
			if max(math.Abs(x), math.Abs(y)) > edge+beyond-2000 {
				out = append(out, s.Board.Position(s.Tracks[c.ID].Layer))
			}
		}
	}
	return out
}

// farthest is how far from the part's middle, along its rows or columns, copper of a ball ends.
func (s *dense) farthest(i int) (most float64) {
	sin, cos := math.Sincos(float64(s.part.Angle) * math.Pi / 180_000)
	for _, c := range s.reached(i) {
		if tr := s.Tracks[c.ID]; tr != nil {
			for _, p := range []geom.Point{tr.A, tr.B} {
				v := p.Sub(s.part.At)
				x, y := float64(v.X)*cos+float64(v.Y)*sin, float64(v.Y)*cos-float64(v.X)*sin
				most = max(most, math.Abs(x), math.Abs(y))
			}
		}
	}
	return most
}

// straight tells whether a straight track of the least width from a ball over its nearest side keeps all rules; false where two sides are
// equally near.
func (s *dense) straight(i int, beyond int64) bool {
	sin, cos := math.Sincos(float64(s.part.Angle) * math.Pi / 180_000)
	x, y := i%s.n, i/s.n
	away := map[[2]float64]int{{-1, 0}: x, {1, 0}: s.n - 1 - x, {0, -1}: y, {0, 1}: s.n - 1 - y}
	nearest := min(x, y, s.n-1-x, s.n-1-y)
	var at geom.Point
	for _, c := range s.x.Of(s.part.ID) {
		if c.Number == fmt.Sprint(i+1) {
			at = c.At
		}
	}
	var ways [][2]float64
	for d, k := range away {
		if k == nearest {
			ways = append(ways, d)
		}
	}
	if len(ways) > 1 { // it chose one
		return false
	}
	for _, d := range ways {
		long := float64(int64(nearest)*s.pitch + beyond)
		to := geom.Pt(at.X+int64((d[0]*cos-d[1]*sin)*long), at.Y+int64((d[0]*sin+d[1]*cos)*long))
		if to == at {
			continue
		}
		with := s.Snapshot()
		tr := &design.Track{ID: with.NewID(), Layer: with.Board.Top(), A: at, B: to, Width: 75_000, Net: s.nets[i]}
		with.Put(tr)
		board := check.NewBoard(with, layout.NewIndex(with), rules.Of(with))
		board.All()
		ok := true
		for _, f := range board.Found {
			for _, id := range f.Objects {
				ok = ok && !(id == tr.ID && f.Severity == check.Fault)
			}
		}
		if ok {
			return true
		}
	}
	return false
}

func (s *dense) viasOf(i int) (out []*design.Via) {
	for _, c := range s.reached(i) {
		if v := s.Vias[c.ID]; v != nil {
			out = append(out, v)
		}
	}
	return out
}
