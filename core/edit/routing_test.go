package edit_test

import (
	"bytes"
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// crossing is the board of four layers with two tracks of nets B and C on top across the way from (20, 20) up to (20, 28), where a via of A
// stands; two further nets' tracks lie beside them.
func crossing(t *testing.T) *desk {
	k := four(t)
	line := func(id, net design.ID, y float64) {
		k.d.Put(&design.Track{ID: id, Layer: k.d.Board.Top(), A: pt(14, y), B: pt(26, y), Width: 300_000, Net: net})
	}
	line(500, synthetic.FourB, 23)
	line(501, synthetic.FourC, 24)
	k.d.Put(&design.Via{ID: 502, At: pt(20, 28), Diameter: 800_000, Hole: 400_000,
		From: k.d.Board.Top(), To: k.d.Board.Bottom(), Net: synthetic.FourA})
	return k
}

func run(k *desk, pts ...geom.Point) []edit.Run {
	return []edit.Run{{Layer: k.d.Board.Top(), Path: geom.Corners(pts...)}}
}

// What lies in the way moves aside when that is asked for, keeps its ends, and comes back with undo; else the track is refused.
func TestOthersMakeWayForATrack(t *testing.T) {
	k := crossing(t)
	to := pt(20, 23.4)
	k.refuse(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 20), to)}, "touch track of B")
	cs := k.do(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 20), to), Aside: true})
	x := layout.NewIndex(k.d)
	f := route.Field{Doc: k.d, Index: x, Rules: rules.Of(k.d)}
	for c := range x.All() {
		if c.Kind == "track" {
			assert.Nil(t, f.ClearOf(c))
		}
	}
	assert.Equal(t, pt(14, 23), k.d.Tracks[500].A, "it keeps its ends, and its first piece its track")
	ends := map[geom.Point]int{}
	for tr := range k.d.Tracks.All() {
		if tr.Net == synthetic.FourB && tr.Layer == k.d.Board.Top() {
			ends[tr.A]++
			ends[tr.B]++
		}
	}
	once := []geom.Point{}
	for p, n := range ends {
		if n == 1 {
			once = append(once, p)
		}
	}
	assert.ElementsMatch(t, []geom.Point{pt(14, 23), pt(26, 23)}, once)
	assert.Greater(t, len(ends), 5, "it goes round")
	cs.Inverted().Apply(k.d)
	assert.Equal(t, []geom.Point{pt(14, 23), pt(26, 23)}, []geom.Point{k.d.Tracks[500].A, k.d.Tracks[500].B})
	l := *k.d.Tracks[500]
	l.Locked = true
	k.d.Put(&l)
	k.refuse(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 20), to), Aside: true}, "track of B")
}

// A new way between two places takes the place of the old one, with the vias that led to it; what else hangs on the old one stays joined.
func TestANewWayTakesTheOldOnesPlace(t *testing.T) {
	k := four(t)
	top, bottom := k.d.Board.Top(), k.d.Board.Bottom()
	put := func(id design.ID, layer design.LayerID, a, b geom.Point) {
		k.d.Put(&design.Track{ID: id, Layer: layer, A: a, B: b, Width: 300_000, Net: synthetic.FourA})
	}
	// the old way: up, through a via, below, through another, to (20, 27)
	k.d.Put(&design.Via{ID: 502, At: pt(20, 27), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	put(510, top, pt(20, 20), pt(16, 24))
	k.d.Put(&design.Via{ID: 511, At: pt(16, 24), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	put(512, bottom, pt(16, 24), pt(18, 27))
	put(513, bottom, pt(18, 27), pt(20, 27))
	new := run(k, pt(20, 20), pt(20, 27))
	before := maps.Clone(k.d.Tracks)
	k.do(&edit.DrawTrack{Net: synthetic.FourA, Runs: new, Renew: true})
	for _, id := range []design.ID{510, 511, 512, 513} {
		assert.Nil(t, k.d.Get(id), "%d", id)
	}
	assert.NotNil(t, k.d.Get(502))
	assert.Len(t, k.d.Tracks, len(before)-2)

	// with a branch half way on the old one, the longer side of it goes alone
	k = four(t)
	k.d.Put(&design.Via{ID: 502, At: pt(20, 27), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	put(510, top, pt(20, 20), pt(24, 24))
	put(511, top, pt(24, 24), pt(24, 26))
	put(512, top, pt(24, 26), pt(23, 27))
	put(513, top, pt(23, 27), pt(20, 27))
	put(514, top, pt(24, 24), pt(28, 24))
	k.d.Put(&design.Via{ID: 515, At: pt(28, 24), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	k.do(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 20), pt(20, 27)), Renew: true})
	assert.NotNil(t, k.d.Get(510), "it joins the branch")
	assert.NotNil(t, k.d.Get(514))
	for _, id := range []design.ID{511, 512, 513} {
		assert.Nil(t, k.d.Get(id), "%d", id)
	}

	// from the middle of one track to the middle of another: what lies between goes, the rest of both stays
	k = four(t)
	put(510, top, pt(20, 20), pt(20, 27))
	put(511, top, pt(20, 27), pt(28, 27))
	k.d.Put(&design.Via{ID: 515, At: pt(28, 27), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	k.do(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 23), pt(24, 27)), Renew: true})
	left := map[[2]geom.Point]bool{}
	for tr := range k.d.Tracks.All() {
		if tr.Net == synthetic.FourA && tr.A.Y >= pt(0, 20).Y {
			left[[2]geom.Point{tr.A, tr.B}] = true
		}
	}
	assert.Equal(t, map[[2]geom.Point]bool{{pt(20, 20), pt(20, 23)}: true, {pt(20, 23), pt(24, 27)}: true, {pt(24, 27), pt(28, 27)}: true}, left)

	// a locked old way stays
	k = four(t)
	k.d.Put(&design.Via{ID: 502, At: pt(20, 27), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
	k.d.Put(&design.Track{ID: 510, Layer: top, A: pt(20, 20), B: pt(20, 27), Width: 300_000, Net: synthetic.FourA, Locked: true})
	k.do(&edit.DrawTrack{Net: synthetic.FourA, Runs: run(k, pt(20, 20), pt(17, 23), pt(17, 24), pt(20, 27)), Renew: true})
	assert.NotNil(t, k.d.Get(510))
}

// Corners of a track of 10 mm up, 10 to the right and 4 up are rounded with 2 mm: two quarters of a circle, begun and ended 2 mm from the
// corners; with 8 mm the second has half of the middle piece at most and no more than its last one; with none they are sharp again.
func TestCornersAreRoundedAfterwards(t *testing.T) {
	k := four(t)
	path := []geom.Point{pt(18, 8), pt(18, 18), pt(28, 18), pt(28, 22)}
	for i := range 3 {
		k.d.Put(&design.Track{ID: design.ID(510 + i), Layer: k.d.Board.Top(), A: path[i], B: path[i+1], Width: 300_000, Net: synthetic.FourC})
	}
	shape := func() (straight, arcs []float64) {
		for tr := range k.d.Tracks.All() {
			if p := tr.Piece(); tr.Net == synthetic.FourC && tr.Layer == k.d.Board.Top() && p.Round() {
				arcs = append(arcs, p.Radius()/1e6)
			} else if tr.Net == synthetic.FourC && tr.Layer == k.d.Board.Top() {
				straight = append(straight, p.Length()/1e6)
			}
		}
		slices.Sort(straight)
		slices.Sort(arcs)
		return straight, arcs
	}
	k.do(&edit.RoundTracks{IDs: []design.ID{511}, Radius: 2_000_000})
	straight, arcs := shape()
	assert.InDeltaSlice(t, []float64{2, 6, 8}, straight, 1e-5)
	assert.InDeltaSlice(t, []float64{2, 2}, arcs, 1e-5)
	k.refuse(&edit.RoundTracks{IDs: []design.ID{511}, Radius: 2_000_000}, "would change nothing")
	any := design.ID(0)
	for tr := range k.d.Tracks.All() {
		if tr.Mid != nil {
			any = tr.ID
		}
	}
	k.do(&edit.RoundTracks{IDs: []design.ID{any}, Radius: 8_000_000})
	_, arcs = shape()
	assert.InDeltaSlice(t, []float64{4, 5}, arcs, 1e-5)
	k.do(&edit.RoundTracks{IDs: []design.ID{510}})
	straight, arcs = shape()
	assert.InDeltaSlice(t, []float64{4, 10, 10}, straight, 1e-5)
	assert.Empty(t, arcs)
	k.refuse(&edit.RoundTracks{IDs: []design.ID{510}, Radius: -1}, "radius")
	k.refuse(&edit.RoundTracks{IDs: []design.ID{synthetic.FourR1}, Radius: 1}, "track")
	l := *k.d.Tracks[510]
	l.Locked = true
	k.d.Put(&l)
	k.refuse(&edit.RoundTracks{IDs: []design.ID{510}, Radius: 1_000_000}, "locked")
}

// groups are the pads and vias of each net that hang together, by their names, in an order of their own.
func groups(d *design.Doc) map[design.ID][]string {
	x := layout.NewIndex(d)
	out := map[design.ID][]string{}
	for _, net := range x.Nets() {
		for _, island := range layout.Islands(x.NetPieces(net)) {
			var names []string
			for _, c := range island {
				if c.Kind == "pad" {
					names = append(names, fmt.Sprint(c.ID, ".", c.Pad))
				}
			}
			if len(names) > 0 {
				slices.Sort(names)
				out[net] = append(out[net], fmt.Sprint(names))
			}
		}
		slices.Sort(out[net])
	}
	return out
}

// routed is a board of 24 × 24 mm with parts of two pads on a lattice, their nets in a random order.
func routed(t *rapid.T) *design.Doc {
	d := design.New("routed")
	b := *d.Board
	b.Outline = geom.Corners(pt(0, 0), pt(24, 0), pt(24, 24), pt(0, 24))
	d.Put(&b)
	d.Put(&design.Footprint{ID: 10, Name: "F", Pads: []design.Pad{
		{Number: "1", Form: design.Rect, At: pt(-1, 0), Size: pt(1, 1)}, {Number: "2", Form: design.Rect, At: pt(1, 0), Size: pt(1, 1)}},
		Courtyard: []geom.Point{pt(-1.6, -0.6), pt(1.6, -0.6), pt(1.6, 0.6), pt(-1.6, 0.6)}})
	for i := range 5 {
		d.Put(&design.Net{ID: design.ID(100 + i), Name: fmt.Sprint("N", i)})
	}
	for i := range 9 {
		net := func() design.ID { return design.ID(100 + rapid.IntRange(0, 4).Draw(t, "net")) }
		d.Put(&design.Placed{ID: design.ID(200 + i), Part: design.ID(300 + i), Designator: fmt.Sprint("R", i), Footprint: "F",
			At: pt(float64(4+8*(i%3)), float64(4+8*(i/3))), Angle: int32(rapid.IntRange(0, 3).Draw(t, "angle")) * 90_000,
			Bottom: rapid.IntRange(0, 3).Draw(t, "side") == 0, Nets: map[string]design.ID{"1": net(), "2": net()}})
	}
	return d
}

func faults(d *design.Doc) map[string]bool {
	out := map[string]bool{}
	for key := range faultsOf(d) {
		out[key] = true
	}
	return out
}

func faultsOf(d *design.Doc) map[string]*check.Finding {
	out := map[string]*check.Finding{}
	for key, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		if f.Severity == check.Fault {
			out[key] = f
		}
	}
	return out
}

// carries is an act that carries parts of the board of routed elsewhere, which are noted.
func carries(t *rapid.T, parts map[design.ID]bool) edit.Command {
	follow := edit.Following{Tracks: rapid.SampledFrom([]edit.Tracks{edit.TracksAlong, edit.TracksAlong, edit.TracksOpen}).Draw(t, "tracks")}
	part := func() design.ID {
		id := design.ID(200 + rapid.IntRange(0, 8).Draw(t, "part"))
		parts[id] = true
		return id
	}
	one := part()
	step := pt(float64(rapid.IntRange(-8, 8).Draw(t, "px"))/4, float64(rapid.IntRange(-8, 8).Draw(t, "py"))/4)
	switch rapid.IntRange(0, 5).Draw(t, "how") {
	case 0:
		return &edit.TurnPlaced{IDs: []design.ID{one}, Pivot: pt(12, 12), Angle: 90_000, Following: follow}
	case 1:
		return &edit.FlipPlaced{IDs: []design.ID{one}, Following: follow}
	case 2:
		return &edit.SwapPlaced{A: one, B: part(), Following: follow}
	case 3:
		return &edit.MovePlaced{IDs: slices.Compact([]design.ID{one, part()}), Step: step, Following: follow}
	}
	return &edit.MovePlaced{IDs: []design.ID{one}, Step: step, Following: follow}
}

// whole is how long all tracks are, and how many pieces they have.
func whole(d *design.Doc) (long float64, pieces int) {
	for tr := range d.Tracks.All() {
		long += tr.Piece().Length()
		pieces++
	}
	return long, pieces
}

// padsTouch tells whether pads of two parts lie on each other.
func padsTouch(d *design.Doc) bool {
	x := layout.NewIndex(d)
	for c := range x.All() {
		for o := range x.Near(c.Box()) {
			if c.Kind == "pad" && o.Kind == "pad" && c.ID != o.ID && layout.Touching(c, o) {
				return true
			}
		}
	}
	return false
}

// followed checks a board whose parts were carried elsewhere: whatever breaks a rule now is of those parts themselves, and pads that were joined
// are joined still, unless something else was said. It tells whether a rule is broken.
func followed(t *rapid.T, d *design.Doc, said string, carried map[design.ID]bool, was map[string]bool, joined map[design.ID][]string) (broken bool) {
	for key, f := range faultsOf(d) {
		if f.Kind != "links" && !was[key] {
			own := slices.ContainsFunc(f.Objects, func(id design.ID) bool { return carried[id] || d.Vias[id] != nil })
			require.True(t, own, "%s: %s", key, f.Text)
			broken = true
		}
	}
	if said != "" {
		return broken
	}
	now := groups(d)
	for net, list := range joined {
		require.LessOrEqual(t, len(now[net]), len(list), "%v became %v", list, now[net])
	}
	return broken
}

// fingerprint is the project file of a document.
func fingerprint(d *design.Doc) string {
	var b bytes.Buffer
	next := d.Next
	d.Next = 10_000 // undo gives no id back
	err := design.WriteFile(&b, "routed", d)
	d.Next = next
	if err != nil {
		panic(err)
	}
	return b.String()
}

// Random hands on random boards: whatever is drawn, finished, moved aside or renewed, the board's check finds nothing that breaks a rule, pads that
// were joined stay joined, nothing of two nets touches, locked tracks lie where they lay, and undo gives back what was.
func TestRandomRouting(t *testing.T) {
	made := 0
	defer func() { assert.True(t, testing.Short() || made > 100, "%d acts were made", made) }()
	rapid.Check(t, func(t *rapid.T) {
		d := routed(t)
		for range rapid.IntRange(3, 14).Draw(t, "acts") {
			x := layout.NewIndex(d)
			f := route.Field{Doc: d, Index: x, Rules: rules.Of(d)}
			net := design.ID(100 + rapid.IntRange(0, 4).Draw(t, "of"))
			pieces := x.NetPieces(net)
			if len(pieces) == 0 {
				continue
			}
			from := rapid.SampledFrom(pieces).Draw(t, "from")
			layer := 0
			if !from.Has(0) {
				layer = 1
			}
			var c edit.Command
			carried := map[design.ID]bool{}
			switch rapid.IntRange(0, 13).Draw(t, "act") {
			case 13:
				var ids []design.ID
				for tr := range d.Tracks.All() {
					ids = append(ids, tr.ID)
				}
				c = &edit.TidyTracks{IDs: ids}
			case 0, 1, 2:
				styles := []route.Corner{route.StraightFirst, route.DiagonalFirst, route.Square, route.Free}
				manners := []route.Manner{route.Stop, route.GoAround, route.MoveThem}
				h := f.Head(route.Drawing{Net: net, Style: rapid.SampledFrom(styles).Draw(t, "style"),
					Manner: rapid.SampledFrom(manners).Draw(t, "manner"), Other: rapid.Bool().Draw(t, "other"),
					Radius: rapid.SampledFrom([]int64{0, 0, 500_000}).Draw(t, "round"),
					From:   from.At, Layer: layer, To: pt(float64(rapid.IntRange(2, 46).Draw(t, "x"))/2, float64(rapid.IntRange(2, 46).Draw(t, "y"))/2)})
				var runs []edit.Run
				for _, l := range h.Legs {
					runs = append(runs, edit.Run{Layer: d.Board.At(l.Layer), Width: l.Width, Path: l.Path})
				}
				c = &edit.DrawTrack{Net: net, Runs: runs, Aside: !h.Aside.Empty(), Renew: rapid.Bool().Draw(t, "renew")}
			case 3, 4:
				var goals []*layout.Copper
				for _, island := range layout.Islands(pieces) {
					if !slices.Contains(island, from) {
						goals = append(goals, island...)
					}
				}
				legs := f.Finish(route.Errand{Net: net, From: from.At, Layers: 1 << layer, Goals: goals, Hops: true, Most: 30_000})
				if legs == nil {
					continue
				}
				var runs []edit.Run
				for _, l := range legs {
					runs = append(runs, edit.Run{Layer: d.Board.At(l.Layer), Width: l.Width, Path: l.Path})
				}
				c = &edit.DrawTrack{Net: net, Runs: runs}
			case 6, 7, 8:
				to := from.At.Add(pt(float64(rapid.IntRange(-12, 12).Draw(t, "px"))/4, float64(rapid.IntRange(-12, 12).Draw(t, "py"))/4))
				aside := rapid.Bool().Draw(t, "pushes")
				if d.Vias[from.ID] != nil {
					c = &edit.PullVia{ID: from.ID, To: to, Aside: aside}
				} else if tr := d.Tracks[from.ID]; tr != nil {
					at := tr.A.Towards(tr.B, rapid.Float64Range(0, 1).Draw(t, "along"))
					c = &edit.PullTrack{ID: from.ID, From: at, To: at.Add(to.Sub(from.At)), Grip: 200_000,
						Corner: rapid.Bool().Draw(t, "corner"), Aside: aside}
				} else {
					continue
				}
			case 5, 9:
				if rapid.Bool().Draw(t, "spared") || from.Kind != "track" {
					continue
				}
				c = &edit.Lock{IDs: []design.ID{from.ID}, Locked: true}
			default:
				c = carries(t, carried)
			}
			long, many := whole(d)
			before, was, joined := fingerprint(d), faults(d), groups(d)
			locks := map[design.ID]design.Track{}
			for tr := range d.Tracks.All() {
				if tr.Locked {
					locks[tr.ID] = *tr
				}
			}
			cs, err := edit.Apply(d, edit.Env{}, c)
			if err != nil {
				require.Equal(t, before, fingerprint(d), "what is refused changes nothing: %v", err)
				continue
			}
			made++
			if _, tidied := c.(*edit.TidyTracks); tidied {
				now, left := whole(d)
				require.True(t, now < long-0.5 || now < long+0.5 && left < many, "%v mm in %d pieces became %v in %d", long/1e6, many, now/1e6, left)
			}
			if padsTouch(d) {
				cs.Inverted().Apply(d) // pads upon pads would be joined without tracks
				continue
			}
			now := groups(d)
			if len(carried) > 0 {
				if followed(t, d, c.(edit.Sayer).Said(), carried, was, joined) {
					cs.Inverted().Apply(d) // what comes next is to begin on a clean board
					continue
				}
				joined = now
			} else {
				for key := range faults(d) {
					require.True(t, was[key], "%s after %T", key, c)
				}
			}
			for n, list := range joined {
				if n != net {
					require.Equal(t, list, now[n], "net %d", n)
				}
			}
			require.LessOrEqual(t, len(now[net]), len(joined[net]), "nothing was parted")
			for id, l := range locks {
				require.Equal(t, l, *d.Tracks[id])
			}
			cs.Inverted().Apply(d)
			require.Equal(t, before, fingerprint(d))
			cs.Apply(d)
		}
	})
}
