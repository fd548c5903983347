package server

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// dialAt connects a tab with a stage in view.
func (k *desk) dialAt(id int64, stage string) *line {
	k.Helper()
	conn, _, err := websocket.Dial(context.Background(), strings.Replace(k.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=viewer&name=&stage=%s", id, stage), nil)
	require.NoError(k, err)
	conn.SetReadLimit(64 << 20)
	k.Cleanup(func() { _ = conn.CloseNow() })
	return &line{desk: k, conn: conn}
}

// odds is the board of four layers with what columns cannot hold: arcs, locks, covered and blind vias, an id and a net
// of none.
func odds() *design.Doc {
	d := synthetic.FourLayers()
	mid := geom.Pt(-7, -999_000_000)
	top, low := d.Board.Top(), d.Board.Bottom()
	for _, o := range []design.Object{
		&design.Track{ID: d.NewID(), Layer: low, A: geom.Pt(-1_000_000_000, 3), Mid: &mid, B: geom.Pt(1_000_000_000, -3), Width: 250_001, Locked: true},
		&design.Track{ID: math.MaxInt32 + 5, Layer: top, A: geom.Pt(1, 1), B: geom.Pt(2, 2), Width: 100_000},
		&design.Track{ID: 900_001, Layer: top, A: geom.Pt(1, 1), B: geom.Pt(2, 2), Width: 100_000},
		&design.Via{ID: 900_002, At: geom.Pt(5, -5), Diameter: 600_000, Hole: 300_000, From: top, To: low, Cover: design.Filled},
		&design.Via{ID: 900_003, At: geom.Pt(6, -5), Diameter: 600_000, Hole: 300_000, From: top, To: low, Pads: []design.ViaPad{{Layer: low, Diameter: 0}}},
		&design.Via{ID: 900_004, At: geom.Pt(7, -5), Diameter: 600_000, Hole: 300_000, From: top, To: d.Board.At(1), Locked: true},
	} {
		d.Put(o)
	}
	return d
}

// A tab is handed every object once and as it is, whatever is in view, whether the project is open already or
// not; what the board is drawn from comes first where the board is in view.
func TestAProjectIsHandedOverWhole(t *testing.T) {
	k := newDesk(t)
	d := odds()
	want := map[string]string{}
	for o := range d.All() {
		body, err := json.Marshal(o)
		require.NoError(t, err)
		want[fmt.Sprint(o.ObjectKind(), o.ObjectID())] = string(body)
	}
	require.NoError(t, d.Whole())
	for _, stage := range []string{"board", "circuit", ""} {
		id, err := k.store.Create(context.Background(), "Four at "+stage, d)
		require.NoError(t, err)
		for _, when := range []string{"being opened", "open"} {
			m := k.dialAt(id, stage).opened()
			got := map[string]string{}
			for _, o := range m.Objects {
				var head struct{ ID design.ID }
				require.NoError(t, json.Unmarshal(o.Object, &head))
				key := fmt.Sprint(o.Kind, head.ID)
				require.NotContains(t, got, key, "%s %s: twice", stage, when)
				got[key] = string(o.Object)
			}
			assert.Len(t, got, len(want))
			for key, body := range want {
				require.JSONEq(t, body, got[key], "%s %s %s", stage, when, key)
			}
			assert.Len(t, m.Patterns, len(d.Footprints))
			assert.NotEmpty(t, m.Run)
		}
		l := k.dialAt(id, stage)
		first := l.next("open")
		kinds := []string{}
		for _, o := range first.Objects {
			if !slices.Contains(kinds, o.Kind) {
				kinds = append(kinds, o.Kind)
			}
		}
		assert.Equal(t, stage == "board", slices.Contains(kinds, "placed"), "%v", kinds)
		assert.Equal(t, stage == "board", first.Copper != nil)
		assert.Equal(t, stage != "board", slices.Contains(kinds, "sheet"))
	}
}

// Who comes while a project is being opened is told what others changed before all was there.
func TestWhatChangesWhileAProjectIsHandedOver(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	var had *early
	require.NoError(t, p.do(func() { had = p.now() }))
	told := func(had *early) (kinds []string) {
		c := &client{out: make(chan letter, 8), stop: func() {}, stage: "board"}
		require.NoError(t, p.do(func() { p.handOver(c, had) }))
		require.NoError(t, (<-c.out)(func(data []byte) error {
			var head struct{ T string }
			require.NoError(t, json.Unmarshal(data, &head))
			kinds = append(kinds, head.T)
			return nil
		}))
		return kinds
	}
	assert.Equal(t, []string{"more", "ready"}, told(had), "the first parcel is there already")
	assert.Equal(t, []string{"open", "more", "ready"}, told(nil))
	k.dial(id).hole("h", 30_000_000, 20_000_000)
	require.Eventually(t, func() bool {
		var rev int64
		require.NoError(t, p.do(func() { rev = p.bench.Rev }))
		return rev > had.rev
	}, 5*time.Second, 5*time.Millisecond)
	assert.Equal(t, []string{"open", "more", "ready"}, told(had), "what it has is of an earlier revision")
	require.NoError(t, p.do(func() { had = p.now() }))
	had.run = "another"
	assert.Equal(t, "open", told(had)[0], "what it has is of an earlier opening")
}
