package e2e

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// all that a tab holds of a project, in an order that does not depend on how it came to it.
const held = `(() => {
	const p = goldenTrace, sorted = (l) => l.map((x) => JSON.stringify(x)).sort()
	const nets = [...p.nets.values()].map((n) => ({ ...n, pins: sorted(n.pins), uses: sorted(n.uses ?? []) }))
	return JSON.stringify({
		objects: [...p.tables].map(([k, t]) => [k, sorted([...t.values()])]),
		sheets: [...p.sheets].map(([s, m]) => [s, [...m.keys()].sort()]).filter(([, m]) => m.length).sort(),
		names: [...p.names.keys()].sort(), nets: sorted(nets), links: sorted([...p.links]), findings: sorted([...p.findings.values()]),
		views: sorted([...p.views.values()]), pins: sorted([...p.netOfPin]), items: sorted([...p.netOfItem]), places: p.places.value, stages: p.stages.value,
		name: p.name.value, history: p.history.value.steps,
	})
})()`

// Whatever others do, and however often the connection breaks meanwhile, a tab holds what one holds that
// opens the project now. Of what it missed it is told no more than that.
func TestTheMirrorStaysTrue(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	eval[bool](b, `(() => { window.opened = 0; const r = goldenTrace.emptied.bind(goldenTrace); goldenTrace.emptied = (m) => { window.opened++; r(m) }; return true })()`)
	id := p.projectID("Moth Lamp")
	w := p.liveAs(id, "other-browser")
	objects := map[string][]int64{}
	for _, o := range w.open.Objects {
		var x struct{ ID int64 }
		require.NoError(t, json.Unmarshal(o.Object, &x))
		objects[o.Kind] = append(objects[o.Kind], x.ID)
	}
	r := rand.New(rand.NewPCG(5, 8))
	pick := func(kind string) int64 { return objects[kind][r.IntN(len(objects[kind]))] }
	step := func() map[string]int {
		return map[string]int{"x": (r.IntN(9) - 4) * 2_540_000, "y": (r.IntN(9) - 4) * 2_540_000}
	}
	kept := 0
	for i := range 60 {
		cmd := map[string]any{"kind": "movePlaced", "ids": []int64{pick("placed")}, "step": step()}
		switch r.IntN(7) {
		case 0:
			cmd = map[string]any{"kind": "moveItems", "ids": []int64{pick("part")}, "step": step()}
		case 1:
			cmd = map[string]any{"kind": "setPart", "id": pick("part"), "value": fmt.Sprint(i, "k")}
		case 2:
			cmd = map[string]any{"kind": "removeTrack", "id": pick("track")}
		case 3:
			cmd = map[string]any{"kind": "setRules", "rules": map[string]int{"clearance": 100_000 * (1 + r.IntN(5))}}
		case 4:
			cmd = map[string]any{"kind": "renameNet", "net": "GND", "to": "GND"}
			if i%2 == 0 {
				cmd = map[string]any{"kind": "setLayers", "copper": 2 + 2*r.IntN(2)}
			}
		}
		ask := map[string]any{"t": "edit", "cmd": cmd}
		if r.IntN(4) == 0 {
			ask = map[string]any{"t": "undo"}
		}
		m, err := w.ask(fmt.Sprint("m", i), ask)
		require.NoError(t, err)
		if m.T == "done" {
			kept++
		}
		if i%6 == 3 {
			eval[bool](b, `(goldenTrace.socket.close(), true)`)
		}
	}
	assert.Greater(t, kept, 25)
	last, err := w.ask("last", map[string]any{"t": "edit", "cmd": map[string]any{"kind": "addHole", "at": map[string]int{"x": 1_000_000, "y": 1_000_000}, "diameter": 1_000_000}})
	require.NoError(t, err)
	require.Equal(t, "done", last.T, last.Why)
	now := fmt.Sprintf(`goldenTrace.state.value === 'open' && goldenTrace.derivedRev.value === %d`, last.Rev)
	b.until(now)
	assert.Zero(t, eval[int](b, `window.opened`), "it was told only what it missed")
	fresh := p.open(t, browser(t), "/")
	p.openStage(t, fresh, "Moth Lamp", "board")
	fresh.until(now)
	assert.JSONEq(t, eval[string](fresh, held), eval[string](b, held))
}
