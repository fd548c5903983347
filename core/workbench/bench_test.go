package workbench_test

import (
	"encoding/json"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// mirror is what a browser makes of the deltas it is sent.
type mirror struct {
	nets, findings map[string]string
	links          map[design.ID][]layout.Link
}

func newMirror() *mirror {
	return &mirror{map[string]string{}, map[string]string{}, map[design.ID][]layout.Link{}}
}

func text(v any) string {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err)
	}
	return string(b)
}

func (m *mirror) apply(d workbench.Delta) {
	for _, n := range d.LostNets {
		delete(m.nets, n)
	}
	for _, n := range d.Nets {
		m.nets[n.Name] = text(n)
	}
	for _, r := range d.Redrawn { // the uses named are replaced, those without items fall away
		var n circuit.Net
		if err := json.Unmarshal([]byte(m.nets[r.Net]), &n); err != nil {
			panic(err)
		}
		for _, u := range r.Uses {
			n.Uses = slices.DeleteFunc(n.Uses, func(x circuit.NetUse) bool { return x.Sheet == u.Sheet && x.Path == u.Path })
			if len(u.Items) > 0 {
				n.Uses = append(n.Uses, u)
			}
		}
		if len(n.Uses) == 0 {
			n.Uses = nil
		}
		m.nets[r.Net] = text(n)
	}
	for net, c := range d.Links {
		now := c.Come
		if c.Gone != nil || c.At != nil {
			now = slices.Clone(m.links[net])
			for _, i := range slices.Backward(c.Gone) {
				now = slices.Delete(now, i, i+1)
			}
			for i, at := range c.At {
				now = slices.Insert(now, at, c.Come[i])
			}
		}
		if m.links[net] = now; len(now) == 0 {
			delete(m.links, net)
		}
	}
	for _, k := range d.Mended {
		delete(m.findings, k)
	}
	for _, f := range d.Findings {
		c := *f
		m.findings[c.Key] = text(c)
	}
}

// unpoured is a demo's document without its copper areas, which take long to fill from scratch each time.
func unpoured(t require.TestingT, name string) *design.Doc {
	d, err := demo.Build(name)
	require.NoError(t, err)
	for p := range d.Pours.All() {
		d.Remove(design.KindPour, p.ID)
	}
	return d
}

// A browser that follows the deltas has what one has that opens the project now.
func TestDeltasAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := unpoured(t, "Moth Lamp")
		b := workbench.Open(d, 0)
		follower := newMirror()
		follower.apply(b.All())
		var done []edit.ChangeSet
		for range rapid.IntRange(1, 6).Draw(t, "edits") {
			pick := func(ids []design.ID, n string) design.ID {
				return ids[rapid.IntRange(0, len(ids)-1).Draw(t, n)]
			}
			step := geom.Pt(rapid.Int64Range(-3, 3).Draw(t, "dx")*2_500_000, rapid.Int64Range(-3, 3).Draw(t, "dy")*2_500_000)
			var c edit.Command
			switch rapid.IntRange(0, 6).Draw(t, "what") {
			case 0:
				c = &edit.MovePlaced{IDs: []design.ID{pick(slices.Sorted(maps.Keys(d.Placed)), "placed")}, Step: step}
			case 1:
				c = &edit.MoveItems{IDs: []design.ID{pick(slices.Sorted(maps.Keys(d.Parts)), "part")}, Step: step}
			case 2:
				if len(d.Tracks) == 0 {
					continue
				}
				c = &edit.RemoveTrack{ID: pick(slices.Sorted(maps.Keys(d.Tracks)), "track")}
			case 3:
				kind := rapid.SampledFrom(design.RuleKinds[:3]).Draw(t, "rule")
				c = &edit.SetRules{Rules: map[design.RuleKind]int64{kind: rapid.Int64Range(1, 9).Draw(t, "number") * 100_000}}
			case 4:
				c = &edit.Carry{All: true}
			case 5:
				if len(d.Wires) == 0 {
					continue
				}
				c = &edit.Remove{IDs: []design.ID{pick(slices.Sorted(maps.Keys(d.Wires)), "wire")}}
			case 6:
				if n := len(done); n > 0 {
					b.Apply(done[n-1].Inverted())
					done = done[:n-1]
					follower.apply(b.Settle())
				}
				continue
			}
			if cs, err := b.Edit(c); err == nil {
				done = append(done, cs)
			}
			follower.apply(b.Settle())
		}
		fresh := newMirror()
		fresh.apply(workbench.Open(d.Snapshot(), b.Rev).All())
		assert.Equal(t, fresh.nets, follower.nets)
		assert.Equal(t, fresh.links, follower.links)
		assert.Equal(t, fresh.findings, follower.findings)
	})
}

// The fingerprint is the content's: undone, it is as before.
func TestFingerprint(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	before := b.Fingerprint()
	cs, err := b.Edit(&edit.AddHole{At: geom.Pt(1, 1), Diameter: 1_000_000})
	require.NoError(t, err)
	assert.NotEqual(t, before, b.Fingerprint())
	b.Apply(cs.Inverted())
	assert.Equal(t, before, b.Fingerprint())
	again, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	assert.Equal(t, before, workbench.Open(again, 7).Fingerprint())
}

// While a part is dragged its links are those it would have there.
func TestDraggedLinksAreTheRealOnes(t *testing.T) {
	d, err := demo.Build("Moth Lamp, first try")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	for p := range d.Placed.All() {
		step := geom.Pt(-30_000_000, 5_000_000)
		said := b.Drag([]design.ID{p.ID}, step, geom.Point{}, 0, edit.TracksStay)
		cs, err := b.Edit(&edit.MovePlaced{IDs: []design.ID{p.ID}, Step: step})
		require.NoError(t, err)
		b.Settle()
		got := b.All()
		for net, links := range said.Links {
			sum := func(l []float64) (s float64) {
				for _, v := range l {
					s += v
				}
				return s
			}
			var a, c []float64
			for _, l := range links {
				a = append(a, l.A.Dist(l.B))
			}
			for _, l := range got.Links[net].Come {
				c = append(c, l.A.Dist(l.B))
			}
			assert.InDelta(t, sum(c), sum(a), 1, "%s of %s", net, p.Designator)
		}
		b.Apply(cs.Inverted())
		b.Settle()
	}
}
