package server

import (
	"context"
	"encoding/json"
	"fmt"
	"goldentrace/core/question"
	"goldentrace/core/workbench"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/units"
)

type at = map[string]int64

func xy(x, y int64) at { return at{"x": x, "y": y} }

var questions int // an edit that bears a known number is one that comes again

// asked sends a question and gives its answer.
func (l *line) asked(v map[string]any) raw {
	l.Helper()
	questions++
	ref := fmt.Sprint("q", questions)
	v["ref"] = ref
	l.say(v)
	return l.answerTo(ref, fmt.Sprint(v["t"]))
}

// four is the board of four layers, 40 × 30 mm, open.
func (k *desk) four() (int64, *line) {
	k.Helper()
	id, err := k.store.Create(context.Background(), "Four", synthetic.FourLayers())
	require.NoError(k, err)
	l := k.dial(id)
	l.opened()
	return id, l
}

// A track's preview says its way, its length, and whether a via would fit at its end: one that
// goes through all layers must keep clear of copper on each of them.
func TestPreviewOfATrack(t *testing.T) {
	_, l := newDesk(t).four()
	four := synthetic.FourLayers()
	width := four.Numbers()[design.TrackWidth]
	layer := func(i int) design.LayerID { return four.Board.At(i) }
	m := l.asked(map[string]any{"t": "edit", "cmd": map[string]any{"kind": "drawTrack", "net": synthetic.FourB, "width": width,
		"runs": []any{map[string]any{"layer": layer(1), "path": []at{xy(5_000_000, 25_000_000), xy(9_000_000, 25_000_000)}}}}})
	require.Equal(t, "done", m.T, m.Why)
	asked := func(to at, more map[string]any) raw {
		q := map[string]any{"from": xy(5_000_000, 22_000_000), "to": to, "style": "free", "net": synthetic.FourA, "layer": layer(0)}
		for k, v := range more {
			q[k] = v
		}
		return l.asked(asks("track", q))
	}
	track := func(to at, more map[string]any) question.TrackWay { return as[question.TrackWay](t, asked(to, more)) }
	free := track(xy(9_000_000, 22_000_000), nil)
	assert.InDelta(t, 4_000_000, free.Length, 1)
	require.Len(t, free.Runs, 1)
	assert.Equal(t, geom.Corners(geom.Pt(5_000_000, 22_000_000), geom.Pt(9_000_000, 22_000_000)), free.Runs[0].Path)
	assert.Empty(t, free.Via, "there is room for one")
	above := track(xy(7_000_000, 24_700_000), nil)
	assert.Nil(t, above.Blocked, "the wall is on another layer")
	assert.Contains(t, above.Via, "of B", "a via would go through it")
	beside := track(xy(7_000_000, 24_700_000), map[string]any{"layer": layer(1)})
	require.NotNil(t, beside.Blocked)
	assert.Equal(t, "B", beside.Blocked.Net)
	usual := track(xy(7_000_000, 24_700_000), map[string]any{"layer": layer(1), "width": width})
	assert.Equal(t, usual, beside, "a width that is not given is that of the rules")
	assert.NotEqual(t, usual.Length, track(xy(7_000_000, 24_700_000), map[string]any{"layer": layer(1), "width": 2_000_000}).Length)
	for _, c := range []struct {
		more map[string]any
		to   at
		why  string
	}{
		{map[string]any{"layer": 2}, xy(0, 0), "The board has no such copper layer (id 2)."},
		{map[string]any{"layer": -1}, xy(0, 0), "The board has no such copper layer (id -1)."},
		{map[string]any{"width": -1}, xy(0, 0), "cannot be"},
		{map[string]any{"width": units.Limit + 1}, xy(0, 0), "cannot be"},
		{nil, xy(units.Limit+1, 0), "lies beyond what a drawing can reach"},
		{nil, xy(0, -units.Limit-1), "lies beyond"},
	} {
		m := asked(c.to, c.more)
		assert.Equal(t, "refused", m.T)
		assert.Contains(t, m.Why, c.why)
	}
	assert.NotEmpty(t, track(xy(units.Limit, -units.Limit), map[string]any{"layer": layer(3), "width": 200_000}).Runs, "at the limits it is answered")
}

// Dragging answers within its limits and is refused beyond them, in a sentence.
func TestPreviewOfADrag(t *testing.T) {
	_, l := newDesk(t).four()
	drag := func(ids []int64, step, pivot at) raw {
		return l.asked(asks("drag", map[string]any{"ids": ids, "step": step, "pivot": pivot}))
	}
	assert.NotEmpty(t, as[workbench.Dragged](t, drag([]int64{int64(synthetic.FourR1)}, xy(1_000_000, 0), xy(0, 0))).Links)
	assert.Empty(t, as[workbench.Dragged](t, drag([]int64{999}, xy(units.Limit, units.Limit), xy(-units.Limit, -units.Limit))).Links)
	for _, far := range []at{xy(units.Limit+1, 0), xy(-units.Limit-1, 0), xy(0, units.Limit+1), xy(0, -units.Limit-1)} {
		assert.Contains(t, drag(nil, far, xy(0, 0)).Why, "lies beyond")
		assert.Contains(t, drag(nil, xy(0, 0), far).Why, "lies beyond")
	}
	assert.Equal(t, "answer", drag(make([]int64, 20_000), xy(0, 0), xy(0, 0)).T)
	assert.Equal(t, "20001 things at once are too many to drag.", drag(make([]int64, 20_001), xy(0, 0), xy(0, 0)).Why)
}

// A wire's preview finds its way from the last corner; it has bounds too.
func TestPreviewOfAWire(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Wires", design.New("Wires"))
	require.NoError(t, err)
	l := k.dial(id)
	l.opened()
	wire := func(n int, to at, sheet int64) raw {
		pts := []at{}
		for i := range n {
			pts = append(pts, xy(int64(i%2)*2_500_000, 0))
		}
		return l.asked(asks("wire", map[string]any{"sheet": sheet, "points": pts, "to": to}))
	}
	m := as[struct{ Way []geom.Point }](t, wire(1, xy(10_000_000, 5_000_000), 10))
	require.GreaterOrEqual(t, len(m.Way), 3)
	assert.Equal(t, geom.Pt(0, 0), m.Way[0])
	assert.Equal(t, geom.Pt(10_000_000, 5_000_000), m.Way[len(m.Way)-1])
	for i := 1; i < len(m.Way); i++ {
		assert.True(t, m.Way[i].X == m.Way[i-1].X || m.Way[i].Y == m.Way[i-1].Y, "by right angles")
	}
	assert.Equal(t, "answer", wire(1000, xy(10_000_000, 0), 10).T)
	assert.Equal(t, "A wire goes through 1 to 1000 places.", wire(0, xy(0, 0), 10).Why)
	assert.Equal(t, "A wire goes through 1 to 1000 places.", wire(1001, xy(0, 0), 10).Why)
	assert.Contains(t, wire(1, xy(0, units.Limit+1), 10).Why, "lies beyond")
	assert.Equal(t, "There is no such sheet any more.", wire(1, xy(5, 5), 99).Why)
}

// An edit that comes again, since nobody heard its answer, is done once.
func TestAnEditThatComesAgainIsDoneOnce(t *testing.T) {
	k := newDesk(t)
	id, l := k.four()
	put := map[string]any{"t": "edit", "ref": "same", "cmd": map[string]any{"kind": "addHole", "at": xy(20_000_000, 28_000_000), "diameter": 1_000_000}}
	l.say(put)
	first := l.until("done", func(m raw) bool { return m.Ref == "same" })
	require.Equal(t, "done", first.T, first.Why)
	other := k.dial(id)
	other.opened()
	other.say(put)
	again := other.until("done", func(m raw) bool { return m.Ref == "same" })
	assert.Equal(t, []any{"done", first.Rev}, []any{again.T, again.Rev})
	holes := 0
	for _, o := range k.dial(id).opened().Objects {
		if o.Kind == "hole" {
			holes++
		}
	}
	assert.Equal(t, 1+len(synthetic.FourLayers().Holes), holes)
	undo := map[string]any{"t": "undo", "ref": "back"}
	l.say(undo)
	one := l.until("done", func(m raw) bool { return m.Ref == "back" })
	l.say(undo)
	two := l.until("done", func(m raw) bool { return m.Ref == "back" })
	assert.Equal(t, one.Rev, two.Rev, "one step back, not two")
}

// Windows that are closed make room for others.
func TestClosedWindowsMakeRoom(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Full", design.New("Full"))
	require.NoError(t, err)
	var lines []*line
	for range mostInOne {
		l := k.dial(id)
		l.opened()
		lines = append(lines, l)
	}
	for _, l := range lines[:3] {
		_ = l.conn.Close(websocket.StatusNormalClosure, "")
	}
	deadline := time.Now().Add(10 * time.Second)
	for opened := 0; opened < 3; {
		conn, _, err := websocket.Dial(t.Context(), strings.Replace(k.url, "http", "ws", 1)+fmt.Sprintf("/api/projects/%d/live?who=late&name=", id), nil)
		if err == nil {
			t.Cleanup(func() { _ = conn.CloseNow() })
			opened++
			continue
		}
		require.True(t, time.Now().Before(deadline), "three were closed, %d could be opened", opened)
		time.Sleep(20 * time.Millisecond)
	}
	assert.Eventually(t, func() bool { return k.hub.sockets.Load() == mostInOne }, 5*time.Second, 10*time.Millisecond)
	assert.Eventually(t, func() bool {
		code, _ := k.ask("GET", fmt.Sprintf("/projects/%d/live?who=later", id), "")
		return code == 503
	}, 5*time.Second, 10*time.Millisecond, "then it is full again")
	assert.EqualValues(t, mostInOne, k.hub.sockets.Load(), "who was refused does not count")
}

// What is drawn of one edit has a bound, said in points, and nothing of the edit stays.
func TestTooMuchAtOnceIsRefusedWhole(t *testing.T) {
	k := newDesk(t)
	id, err := k.store.Create(context.Background(), "Much", design.New("Much"))
	require.NoError(t, err)
	l := k.dial(id)
	before := len(l.opened().Objects)
	pts := make([]at, 0, 1_000)
	for i := range int64(1_000) {
		pts = append(pts, xy(i*1000, (i%2)*1000))
	}
	items := []any{}
	for i := range 260 {
		data, err := json.Marshal(map[string]any{"id": i + 1, "sheet": 10, "form": "line", "pts": pts, "tint": "none"})
		require.NoError(t, err)
		items = append(items, map[string]any{"kind": "shape", "object": json.RawMessage(data)})
	}
	m := l.asked(map[string]any{"t": "edit", "cmd": map[string]any{"kind": "paste", "sheet": 10, "items": items, "step": xy(0, 0)}})
	require.Equal(t, "refused", m.T)
	assert.Equal(t, "This would draw 260000 points on the sheets at once; 250000 are the most.", m.Why)
	assert.Len(t, k.dial(id).opened().Objects, before, "nothing of it stayed")
}

// The one who writes over what another has just changed is told what was there, long texts left out.
func TestWhatWasThereIsTold(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	ada, ben := k.dialAs(id, "ada", "Ada"), k.dialAs(id, "ben", "Ben")
	ada.opened()
	open := ben.opened()
	part := int64(0)
	for _, o := range open.Objects {
		if o.Kind == "part" {
			var p struct{ ID int64 }
			require.NoError(t, json.Unmarshal(o.Object, &p))
			part = p.ID
			break
		}
	}
	set := func(l *line, value string, rev int64) raw {
		return l.asked(map[string]any{"t": "edit", "rev": rev, "cmd": map[string]any{"kind": "setPart", "id": part, "value": value}})
	}
	first := set(ada, strings.Repeat("9", 77), 0)
	require.Equal(t, "done", first.T, first.Why)
	assert.Empty(t, first.Over, "nobody else had changed it")
	over := set(ben, "5k", 0)
	require.Equal(t, "done", over.T)
	assert.Contains(t, over.Over, "Ada had just changed the part ")
	assert.Contains(t, over.Over, ": its value was "+strings.Repeat("9", 77)+" and is 5k now.")
	assert.Empty(t, set(ben, "6k", 0).Over, "one's own is no news")
	seen := set(ada, "7k", over.Rev+1)
	assert.Empty(t, seen.Over, "nor is what one has seen")
	long := set(ben, strings.Repeat("8", 81), seen.Rev)
	require.Equal(t, "done", long.T)
	told := set(ada, "8k", seen.Rev)
	assert.NotContains(t, told.Over, "88888", "more than 80 letters are not repeated")
}
