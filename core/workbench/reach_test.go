package workbench_test

import (
	"cmp"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// altered are changes of an object of each kind, whether a command makes them today or not.
var altered = map[design.Kind]func(r *rand.Rand, d *design.Doc, o design.Object) design.Object{
	design.KindSettings: change(func(r *rand.Rand, d *design.Doc, o *design.Settings) { o.Title = fmt.Sprint("T", r.IntN(9)) }),
	design.KindChecks: change(func(r *rand.Rand, d *design.Doc, o *design.Checks) {
		o.Kinds = map[string]string{"openPin": severity(r), "looseEnd": severity(r)}
	}),
	design.KindSheet: change(func(r *rand.Rand, d *design.Doc, o *design.Sheet) { o.Name = fmt.Sprint("S", r.IntN(99)) }),
	design.KindSymbol: change(func(r *rand.Rand, d *design.Doc, o *design.Symbol) {
		o.Pins = moved(r, o.Pins, func(p *design.Pin) *geom.Point { return &p.At }, 2_500_000)
	}),
	design.KindFootprint: change(func(r *rand.Rand, d *design.Doc, o *design.Footprint) {
		o.Pads = moved(r, o.Pads, func(p *design.Pad) *geom.Point { return &p.At }, 700_000)
	}),
	design.KindLibraryPart: change(func(r *rand.Rand, d *design.Doc, o *design.LibraryPart) { o.Value = fmt.Sprint(r.IntN(9)) }),
	design.KindAsset:       nil, // a picture is drawn, nothing follows from it
	design.KindPart:        change(func(r *rand.Rand, d *design.Doc, o *design.Part) { o.At.X += step(r); o.Value = fmt.Sprint(r.IntN(3)) }),
	design.KindWire:        change(func(r *rand.Rand, d *design.Doc, o *design.Wire) { o.B.X += step(r) }),
	design.KindLabel:       change(func(r *rand.Rand, d *design.Doc, o *design.Label) { o.Name = fmt.Sprint("L", r.IntN(3)) }),
	design.KindPort:        change(func(r *rand.Rand, d *design.Doc, o *design.Port) { o.Name = fmt.Sprint("P", r.IntN(3)) }),
	design.KindTap:         change(func(r *rand.Rand, d *design.Doc, o *design.Tap) { o.At.X += step(r) }),
	design.KindSupply:      change(func(r *rand.Rand, d *design.Doc, o *design.Supply) { o.Name = []string{"GND", "VCC", "VIN"}[r.IntN(3)] }),
	design.KindOpenMark:    change(func(r *rand.Rand, d *design.Doc, o *design.OpenMark) { o.At.Y += step(r) }),
	design.KindBlock: change(func(r *rand.Rand, d *design.Doc, o *design.SheetBlock) {
		o.At.Y += step(r)
		o.Name = fmt.Sprint("B", r.IntN(99))
	}),
	design.KindCluster: nil,
	design.KindNote:    nil,
	design.KindPicture: nil,
	design.KindTiming:  nil,
	design.KindShape:   nil,
	design.KindNet: change(func(r *rand.Rand, d *design.Doc, o *design.Net) {
		o.Class = []string{"", "fine", "supply"}[r.IntN(3)]
		o.Name = fmt.Sprint("NET", r.IntN(99))
	}),
	design.KindExcuse: change(func(r *rand.Rand, d *design.Doc, o *design.Excuse) { o.Reason = fmt.Sprint("because ", r.IntN(9)) }),
	design.KindBoard: change(func(r *rand.Rand, d *design.Doc, o *design.Board) {
		if r.IntN(2) == 0 {
			o.Outline = slices.Clone(o.Outline)
			for i := range o.Outline {
				o.Outline[i].X += step(r) / 5
			}
			return
		}
		stack := slices.Clone(o.Stack)
		var copper []int
		for i := range stack {
			if stack[i].Copper() {
				copper = append(copper, i)
			}
		}
		a, b := &stack[copper[0]], &stack[copper[1]]
		*a, *b = *b, *a // layers change places
		a.Name, b.Name = b.Name, a.Name
		o.Stack = stack
	}),
	design.KindBasket: change(func(r *rand.Rand, d *design.Doc, o *design.Basket) { o.Boards = 1 + r.IntN(50) }),
	design.KindRuleArea: change(func(r *rand.Rand, d *design.Doc, o *design.RuleArea) {
		o.Outline = slices.Clone(o.Outline)
		o.Outline[0].X += step(r)
		o.KeepOut = [][]design.Thing{{design.AVia}, {design.ATrack, design.APart}, nil}[r.IntN(3)]
	}),
	design.KindPour: change(func(r *rand.Rand, d *design.Doc, o *design.Pour) {
		o.Clearance = int64(r.IntN(5)) * 100_000
		o.Priority = r.IntN(3)
		if r.IntN(3) == 0 && len(o.Outline) > 0 {
			o.Outline = slices.Clone(o.Outline)
			o.Outline[0].X += step(r)
		}
	}),
	design.KindStitching: change(func(r *rand.Rand, d *design.Doc, o *design.Stitching) { o.Pitch = int64(1+r.IntN(9)) * 1_000_000 }),
	design.KindLayerSet:  change(func(r *rand.Rand, d *design.Doc, o *design.LayerSet) { o.Flipped = !o.Flipped }),
	design.KindTint:      change(func(r *rand.Rand, d *design.Doc, o *design.Tint) { o.Colour = fmt.Sprintf("#%06x", r.IntN(1<<24)) }),
	design.KindHouse: change(func(r *rand.Rand, d *design.Doc, o *design.House) {
		o.Classes = []design.HouseClass{{Name: "Own", Price: 1 + r.IntN(900), Limits: map[string]int64{"track": 100_000}}}
	}),
	design.KindRule: change(func(r *rand.Rand, d *design.Doc, o *design.Rule) {
		o.Value = design.Fixed(int64(1+r.IntN(9)) * 100_000)
	}),
	design.KindPlaced: change(func(r *rand.Rand, d *design.Doc, o *design.Placed) {
		o.At.X += step(r)
		o.Bottom = r.IntN(2) == 0
		ids := slices.Sorted(maps.Keys(d.Placed))
		o.Notes = [][]design.PlaceNote{nil, {{Kind: design.NoteEdge, Distance: 5_000_000}}, {{Kind: design.NoteWithin, Of: ids[r.IntN(len(ids))], Distance: 9_000_000}}}[r.IntN(3)]
	}),
	design.KindTrack: change(func(r *rand.Rand, d *design.Doc, o *design.Track) {
		o.B.Y += step(r)
		o.Mid = nil
		o.Layer = d.Board.At(r.IntN(d.Board.Layers()))
	}),
	design.KindVia: change(func(r *rand.Rand, d *design.Doc, o *design.Via) { o.At.X += step(r) }),
	design.KindHole: change(func(r *rand.Rand, d *design.Doc, o *design.Hole) {
		switch r.IntN(3) {
		case 0:
			o.At.X += step(r)
		case 1:
			o.Land = o.Diameter + 1_000_000
		default:
			o.Keep = int64(r.IntN(3)) * 1_000_000
		}
	}),
	design.KindLegend: change(func(r *rand.Rand, d *design.Doc, o *design.Legend) {
		o.Text = fmt.Sprint("TEXT", r.IntN(9))
		o.At.X += step(r)
		o.Font = []string{design.Strokes, design.Bold, design.Mono}[r.IntN(3)]
		o.On, o.Layer = drawnOn(r, d)
	}),
	design.KindFigure: change(func(r *rand.Rand, d *design.Doc, o *design.BoardFigure) {
		o.On, o.Layer = drawnOn(r, d)
		o.Lines = slices.Clone(o.Lines)
		o.Lines[0] = slices.Clone(o.Lines[0])
		o.Lines[0][0].X += step(r)
	}),
	design.KindDimension: change(func(r *rand.Rand, d *design.Doc, o *design.BoardDimension) {
		parts := slices.Sorted(maps.Keys(d.Placed))
		o.From = []design.Anchor{{Of: parts[r.IntN(len(parts))]}, {Of: design.BoardID, Corner: r.IntN(4)}, {At: geom.Pt(step(r), step(r))}}[r.IntN(3)]
		o.Off = step(r)
	}),
}

// drawnOn is a surface, copper more often than others.
func drawnOn(r *rand.Rand, d *design.Doc) (string, design.LayerID) {
	if r.IntN(2) == 0 {
		return design.OnCopper, d.Board.At(r.IntN(d.Board.Layers()))
	}
	return []string{design.OnSilk, design.OnMask, design.OnDrawing}[r.IntN(3)], 0
}

func change[T any, P interface {
	*T
	design.Object
}](how func(*rand.Rand, *design.Doc, P)) func(*rand.Rand, *design.Doc, design.Object) design.Object {
	return func(r *rand.Rand, d *design.Doc, o design.Object) design.Object {
		c := *o.(P)
		how(r, d, &c)
		return P(&c)
	}
}

func step(r *rand.Rand) int64      { return int64(r.IntN(5)-2) * 2_500_000 }
func severity(r *rand.Rand) string { return []string{"fault", "warning", "off"}[r.IntN(3)] }

// moved moves one of a list.
func moved[T any](r *rand.Rand, list []T, at func(*T) *geom.Point, by int64) []T {
	list = slices.Clone(list)
	if len(list) > 0 {
		at(&list[r.IntN(len(list))]).X += by * int64(r.IntN(3)-1)
	}
	return list
}

// everything is what a bench says, in an order that does not depend on what was done before.
func everything(b *workbench.Bench) map[string]string {
	w := opened(b)
	out := map[string]string{"places": w.places, "stages": text(w.stages), "differences": text(b.Differences())}
	for name, n := range unordered(w.nets) {
		out["net "+name] = n
	}
	maps.Insert(out, maps.All(w.findings))
	for id, l := range w.links {
		out[fmt.Sprint("links ", id)] = text(l)
	}
	for id, v := range w.views {
		out[fmt.Sprint("view ", id)] = v
	}
	for _, m := range b.All().Dimensions {
		out[fmt.Sprint("dimension ", m.ID)] = text(m)
	}
	for _, f := range b.All().Filled {
		out[fmt.Sprint("filled ", f.Pour, f.Layer, f.X, f.Y)] = text(f)
	}
	for c := range b.Index().All() {
		out[fmt.Sprint("copper ", c.ID, " ", c.Pad)] = text(c)
	}
	return out
}

// Whatever object of whatever kind changes, comes or goes, what is settled after it is what one has that
// opens the project now, field by field, and so is what one has that followed.
func TestEveryKindReachesEverything(t *testing.T) {
	for _, k := range design.Kinds() {
		_, told := altered[k]
		require.True(t, told, "how is a %s changed?", k)
	}
	reached := map[design.Kind]int{}
	for seed := range uint64(6) {
		r := rand.New(rand.NewPCG(seed, 3))
		d, err := synthetic.Shaped()
		require.NoError(t, err)
		addOneOfEach(t, d)
		b := workbench.Open(d, 0)
		follower := opened(b)
		for range 150 {
			var all []design.Object
			kind := design.Kinds()[r.IntN(len(design.Kinds()))]
			for o := range d.All() {
				if o.ObjectKind() == kind {
					all = append(all, o)
				}
			}
			if altered[kind] == nil || len(all) == 0 {
				continue
			}
			var cs edit.ChangeSet
			for range 1 + r.IntN(2) {
				o := all[r.IntN(len(all))]
				if slices.ContainsFunc(cs, func(c edit.Change) bool { return c.ID == o.ObjectID() }) {
					continue
				}
				c := edit.Change{Kind: kind, ID: o.ObjectID(), Before: o, After: altered[kind](r, d, o)}
				if r.IntN(6) == 0 {
					c.After = nil
				}
				cs = append(cs, c)
			}
			if !fits(d, cs) {
				continue
			}
			b.Apply(cs)
			reached[kind]++
			if r.IntN(3) == 0 {
				cs = cs.Inverted()
				b.Apply(cs)
			}
			follower.apply(b.Settle())
			fresh := workbench.Open(d.Snapshot(), b.Rev)
			if !assert.Equal(t, everything(fresh), everything(b), "seed %d, %s", seed, text(cs)) {
				return
			}
			want := opened(fresh)
			require.Equal(t, want.links, follower.links, text(cs))
			require.Equal(t, want.findings, follower.findings, text(cs))
			require.Equal(t, want.filled, follower.filled, text(cs))
			require.Equal(t, unordered(want.nets), unordered(follower.nets), text(cs))
		}
	}
	for _, k := range design.Kinds() {
		if altered[k] != nil {
			assert.Positive(t, reached[k], "a %s was changed", k)
		}
	}
}

// fits tells whether the document may hold what a change set leaves.
func fits(d *design.Doc, cs edit.ChangeSet) bool {
	for _, c := range cs {
		if c.After != nil && c.After.Valid() != nil {
			return false
		}
	}
	tried := d.Snapshot()
	cs.Apply(tried)
	err := cs.Sound(tried)
	if err == nil {
		err = cmp.Or(tried.Whole(), tried.Distinct())
	}
	return err == nil
}

// addOneOfEach gives the document an object of the kinds that it lacks.
func addOneOfEach(t *testing.T, d *design.Doc) {
	t.Helper()
	top := d.SheetsInOrder()[0].ID
	d.Put(&design.Checks{ID: design.ChecksID})
	d.Put(design.UsualBasket())
	below := &design.Sheet{ID: d.NewID(), Name: "Below", Order: 2, Size: "A4"}
	d.Put(below)
	at := func(x, y int64) geom.Point { return geom.Pt(x*2_500_000, y*2_500_000) }
	d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: top, Name: "B", Of: below.ID, At: at(20, 70), Size: at(10, 8), Pins: []design.BlockPin{{Name: "P1", Way: "in", Side: 2, Pos: 5_000_000}}})
	d.Put(&design.Port{ID: d.NewID(), Sheet: below.ID, Name: "P1", Way: "in", At: at(10, 10), Turn: 2})
	d.Put(&design.Label{ID: d.NewID(), Sheet: below.ID, Name: "D[3:0]", At: at(20, 20)})
	d.Put(&design.Wire{ID: d.NewID(), Sheet: below.ID, A: at(20, 20), B: at(20, 30), Bundle: true})
	d.Put(&design.Tap{ID: d.NewID(), Sheet: below.ID, At: at(20, 25), Member: "D0"})
	d.Put(&design.Wire{ID: d.NewID(), Sheet: below.ID, A: at(10, 10), B: at(14, 10)})
	d.Put(&design.Excuse{ID: d.NewID(), Key: "links VIN", Reason: "later", Fingerprint: "x"})
	corner := geom.Pt(12_000_000, 12_000_000)
	d.Put(&design.BoardFigure{ID: d.NewID(), Filled: true, Closed: true, Lines: [][]geom.Corner{geom.Rectangle(geom.BoxOf(corner, corner.Add(geom.Pt(4_000_000, 3_000_000))), 1_000_000)}})
	d.Put(&design.BoardDimension{ID: d.NewID(), From: design.Anchor{At: corner}, To: design.Anchor{At: geom.Pt(0, 0)}})
	gnd, vin := d.NetNamed("GND").ID, d.NetNamed("VIN").ID
	top2 := []design.LayerID{d.Board.Top(), d.Board.At(1)}
	d.Put(&design.Pour{ID: d.NewID(), Name: "GND 2", Net: gnd, Layers: top2[:1], Outline: geom.Corners(at(6, 4), at(9, 4), at(9, 6), at(6, 6))}) // over the first
	d.Put(&design.LayerSet{ID: d.NewID(), Name: "Outer", Layers: []design.LayerID{d.Board.Top()}})
	d.Put(&design.Tint{ID: d.NewID(), Name: "GND", Colour: "#3db8a3"})
	d.Put(&design.House{ID: d.NewID(), Name: "Ours", Classes: []design.HouseClass{{Name: "Own", Price: 100, Limits: map[string]int64{"track": 150_000}}}})
	d.Put(&design.Stitching{ID: d.NewID(), Name: "GND", Net: gnd, Pitch: 2_000_000})
	d.Put(&design.Pour{ID: d.NewID(), Name: "GND", Net: gnd, Layers: top2, Outline: geom.Corners(at(4, 3), at(7, 3), at(7, 6), at(5, 7))})
	d.Put(&design.Pour{ID: d.NewID(), Name: "VIN", Net: vin, Layers: top2[:1], Priority: 1, Outline: geom.Corners(at(3, 4), at(6, 4), at(5, 6), at(3, 5))})
	require.NoError(t, d.Whole())
}
