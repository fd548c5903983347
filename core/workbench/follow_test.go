package workbench_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// window is all that a browser makes of the deltas it is sent.
type window struct {
	*mirror
	views  map[design.ID]string
	places string
	stages workbench.Stages
	filled map[string]string
}

func (w *window) apply(d workbench.Delta) {
	w.mirror.apply(d)
	for _, v := range d.Sheets {
		w.views[v.Sheet] = text(v)
	}
	if len(d.Places) > 0 {
		w.places = text(d.Places)
	}
	w.stages = d.Stages
	for _, f := range d.Filled {
		key := fmt.Sprint(f.Pour, " ", f.Layer, " ", f.X, " ", f.Y)
		if w.filled[key] = text(f.Lines); len(f.Lines) == 0 {
			delete(w.filled, key)
		}
	}
}

func opened(b *workbench.Bench) *window {
	w := &window{newMirror(), map[design.ID]string{}, "", workbench.Stages{}, map[string]string{}}
	w.apply(b.All())
	return w
}

// unordered puts the pins and uses of nets in an order of their numbers: theirs is that of names
// that parts had when the net was made.
func unordered(nets map[string]string) map[string]string {
	out := map[string]string{}
	for name, s := range nets {
		var n circuit.Net
		if err := json.Unmarshal([]byte(s), &n); err != nil {
			panic(err)
		}
		slices.SortFunc(n.Pins, func(a, b circuit.PinRef) int { return strings.Compare(text(a), text(b)) })
		slices.SortFunc(n.Uses, func(a, b circuit.NetUse) int { return strings.Compare(text(a), text(b)) })
		out[name] = text(n)
	}
	return out
}

// acts are things somebody does to a circuit of nine sheets with a board, one of each kind.
func acts(r *rand.Rand, b *workbench.Bench, seen *window) []edit.Command {
	d := b.Doc
	pick := func(ids []design.ID) design.ID { return ids[r.IntN(len(ids))] }
	part := func() *design.Part { return d.Parts[pick(slices.Sorted(maps.Keys(d.Parts)))] }
	sheet := func() design.ID { return pick(slices.Sorted(maps.Keys(d.Sheets))) }
	at := func() geom.Point { return geom.Pt(int64(r.IntN(100))*2_500_000, int64(r.IntN(60))*2_500_000) }
	names := slices.Sorted(maps.Keys(b.Nets().ByName))
	p, q := part(), part()
	block := d.Blocks[pick(slices.Sorted(maps.Keys(d.Blocks)))]
	label := d.Labels[pick(slices.Sorted(maps.Keys(d.Labels)))]
	list := []edit.Command{
		&edit.MoveItems{IDs: []design.ID{p.ID}, Step: geom.Pt(int64(r.IntN(7)-3)*2_500_000, int64(r.IntN(7)-3)*2_500_000)},
		&edit.TurnItems{IDs: []design.ID{p.ID}, Pivot: p.At, Quarters: 1 + r.IntN(3), Mirror: r.IntN(2) == 0},
		&edit.Remove{IDs: []design.ID{part().ID}},
		&edit.Remove{IDs: []design.ID{pick(slices.Sorted(maps.Keys(d.Wires)))}},
		&edit.Remove{IDs: []design.ID{label.ID}},
		&edit.SetName{ID: label.ID, Name: names[r.IntN(len(names))]},
		&edit.SetPart{ID: p.ID, Value: ptr(fmt.Sprint(r.IntN(5), "k"))},
		&edit.SetPart{ID: p.ID, Designator: ptr(q.Designator)},
		&edit.SetPart{ID: p.ID, Footprint: ptr(q.Footprint)},
		&edit.ReplacePart{IDs: []design.ID{p.ID}, Library: q.Library},
		&edit.PlacePart{Sheet: sheet(), Library: []string{"Resistor", "Dual amplifier, units", "NPN transistor"}[r.IntN(3)], At: at()},
		&edit.PlaceLabel{Sheet: sheet(), Name: fmt.Sprint("N", r.IntN(4)), At: p.At},
		&edit.PlaceSupply{Sheet: sheet(), Name: "GND", Shape: "ground", At: at()},
		&edit.DrawWire{Sheet: p.Sheet, Path: []geom.Point{p.At.Add(geom.Pt(5_000_000, 0)), at()}},
		&edit.RenameNet{Net: names[r.IntN(len(names))], To: fmt.Sprint("NEW", r.IntN(9)), Join: true},
		&edit.SetChecks{Kinds: map[string]string{"noDriver": []string{"fault", "warning", "off"}[r.IntN(3)]}},
		&edit.AddSheet{},
		&edit.PlaceBlock{Sheet: sheet(), Of: sheet(), At: at()},
		&edit.Remove{IDs: []design.ID{block.ID}},
		&edit.SetBlock{ID: block.ID, Name: ptr(fmt.Sprint("Block ", r.IntN(9)))},
		&edit.Renumber{Numbering: circuit.Numbering{Way: "rows", From: 1}},
		&edit.Carry{All: true},
		&edit.AddHole{At: at(), Diameter: 3_000_000},
	}
	if keys := slices.Sorted(maps.Keys(seen.findings)); len(keys) > 0 {
		var x check.Finding
		if err := json.Unmarshal([]byte(seen.findings[keys[r.IntN(len(keys))]]), &x); err != nil {
			panic(err)
		}
		list = append(list, &edit.Excuse{Key: x.Key, Fingerprint: x.Fingerprint, Text: x.Text, Reason: "so wanted"})
	}
	if len(d.Placed) > 0 {
		on := d.Placed[pick(slices.Sorted(maps.Keys(d.Placed)))]
		list = append(list, &edit.MovePlaced{IDs: []design.ID{on.ID}, Step: at()}, &edit.FlipPlaced{IDs: []design.ID{on.ID}}, &edit.Remove{IDs: []design.ID{on.ID}})
	}
	return list
}

// Whatever is done in whatever order, and undone, a browser that was told step by step has what
// one has that opens the project now: nets, views of the sheets, findings, links, counts, stages.
func TestFollowersOfALargeProject(t *testing.T) {
	for seed := range uint64(3) {
		r := rand.New(rand.NewPCG(seed, 7))
		d := unpoured(t, "Weir Gauge")
		b := workbench.Open(d, 0)
		follower := opened(b)
		var done []edit.ChangeSet
		for step := range 120 {
			what := "undo"
			if n := len(done); n > 0 && r.IntN(5) == 0 {
				b.Apply(done[n-1].Inverted())
				done = done[:n-1]
			} else {
				list := acts(r, b, follower)
				c := list[r.IntN(len(list))]
				what = fmt.Sprintf("%T", c)
				cs, err := b.Edit(c)
				if err != nil {
					continue
				}
				done = append(done, cs)
			}
			if r.IntN(3) > 0 {
				follower.apply(b.Settle()) // else two acts are settled together
			}
			if step%6 != 5 {
				continue
			}
			follower.apply(b.Settle())
			fresh := opened(workbench.Open(d.Snapshot(), b.Rev))
			where := fmt.Sprintf("seed %d, step %d, %s", seed, step, what)
			require.Equal(t, unordered(fresh.nets), unordered(follower.nets), where)
			require.Equal(t, fresh.links, follower.links, where)
			require.Equal(t, fresh.findings, follower.findings, where)
			require.JSONEq(t, fresh.places, follower.places, where)
			require.Equal(t, fresh.stages, follower.stages, where)
			for id, v := range fresh.views {
				require.Equal(t, v, follower.views[id], "%s, sheet %d", where, id)
			}
		}
		assert.NotEmpty(t, d.Placed, "the board was reached")
	}
}
