package server

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand"
	"os"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	asking "goldentrace/core/question"
)

// odd makes values nobody would type: ids of anything, far places, long and empty texts.
type odd struct {
	rng  *rand.Rand
	ids  []int64
	text []string
	// likely are values that a field of the name usually has: half of the time one is taken, so
	// that what is asked gets beyond the first refusal.
	likely map[string][]any
}

func (o *odd) value(t reflect.Type, depth int) any {
	switch t.Kind() {
	case reflect.Pointer:
		if o.rng.Intn(3) == 0 {
			return nil
		}
		return o.value(t.Elem(), depth)
	case reflect.Bool:
		return o.rng.Intn(2) == 0
	case reflect.String:
		return o.text[o.rng.Intn(len(o.text))]
	case reflect.Int, reflect.Int32, reflect.Int64:
		if t == reflect.TypeOf(design.ID(0)) {
			return o.ids[o.rng.Intn(len(o.ids))]
		}
		list := []int64{0, 1, 2, 3, -1, 7, 2_500_000, -2_500_000, 50_000_000, 1 << 30, -(1 << 30)}
		if t.Kind() != reflect.Int32 {
			list = append(list, 1<<52, -(1 << 62), 5_000_000_000)
		}
		return list[o.rng.Intn(len(list))]
	case reflect.Float64:
		return []float64{0, -1, 0.5, 1e300}[o.rng.Intn(4)]
	case reflect.Slice:
		if t == reflect.TypeOf(json.RawMessage{}) {
			return o.object()
		}
		if t.Elem().Kind() == reflect.Uint8 {
			return []byte(o.text[o.rng.Intn(len(o.text))])
		}
		out := []any{}
		for range o.rng.Intn(4) {
			out = append(out, o.value(t.Elem(), depth+1))
		}
		return out
	case reflect.Array:
		out := []any{}
		for range t.Len() {
			out = append(out, o.value(t.Elem(), depth+1))
		}
		return out
	case reflect.Map:
		out := map[string]any{}
		for range o.rng.Intn(3) {
			out[o.text[o.rng.Intn(len(o.text))]] = o.value(t.Elem(), depth+1)
		}
		return out
	case reflect.Struct:
		out := map[string]any{}
		o.fields(t, out, depth)
		return out
	}
	return nil
}

func (o *odd) fields(t reflect.Type, out map[string]any, depth int) {
	if depth > 6 {
		return
	}
	for i := range t.NumField() {
		f := t.Field(i)
		if f.Anonymous {
			o.fields(f.Type, out, depth)
			continue
		}
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if name == "" || name == "-" || o.rng.Intn(8) == 0 {
			continue
		}
		out[name] = o.value(f.Type, depth+1)
		if list := o.likely[name]; len(list) > 0 && o.rng.Intn(3) > 0 {
			out[name] = list[o.rng.Intn(len(list))]
		}
	}
}

// seed is the same each time unless GOLDENTRACE_SEED says another.
func seed() int64 {
	n, err := strconv.ParseInt(os.Getenv("GOLDENTRACE_SEED"), 10, 64)
	if err != nil {
		return 7
	}
	return n
}

// object is one of any kind, for what is pasted or drawn.
func (o *odd) object() any {
	kinds := design.Kinds()
	k := kinds[o.rng.Intn(len(kinds))]
	return o.value(reflect.TypeOf(design.Blank(k)).Elem(), 1)
}

// Every command and every question, with odd ids, kinds and values, against a running server:
// each gets an answer, none brings a fault to light, the document stays whole, and somebody in
// another project is answered at once meanwhile.
func TestOddCommandsAndQuestions(t *testing.T) {
	k := newDesk(t)
	id, other := k.demo("Weir Gauge"), k.demo("Moth Lamp")
	l, quiet := k.dial(id), k.dial(other)
	opening := l.opened()
	quiet.opened()
	o := &odd{rng: rand.New(rand.NewSource(seed())), ids: []int64{0, -1, 1, 2, 3, 4, 9, 10, 11, 1 << 53, 1 << 62}}
	o.likely = map[string][]any{
		"how": {"add", "drop", "way", "row", "column"}, "way": {"in", "out", "both"}, "shape": {"ground", "bar"}, "side": {0, 1, 2, 3}, "turn": {0, 1, 2, 3}, "quarters": {0, 1, 2},
		"tint": {"sky", "none"}, "form": {"line", "rectangle"}, "library": {"Resistor", "Header 4"}, "unit": {0, 1}, "pos": {2_500_000, 5_000_000}, "layer": {0, 1, 3},
		"kind": {"label", "note", "wire", "part", "timing", "shape", "cluster"}, "net": {0, 24, 9_000_000, "GND"}, "step": {map[string]int{"x": 2_500_000, "y": 0}}, "width": {200_000, 0},
	}
	for i, b := range opening.Objects {
		var x struct{ ID, Sheet int64 }
		require.NoError(t, json.Unmarshal(b.Object, &x))
		if i%9 == 0 {
			o.ids = append(o.ids, x.ID)
		}
		for field, kinds := range map[string]string{"sheet": "sheet", "of": "sheet", "block": "block", "id": "part label port supply block track placed", "asset": "asset"} {
			if strings.Contains(kinds, b.Kind) {
				o.likely[field] = append(o.likely[field], x.ID)
			}
		}
		if b.Kind == "part" || b.Kind == "placed" {
			o.likely["ids"] = append(o.likely["ids"], []int64{x.ID})
		}
	}
	o.text = []string{"", " ", "R1", "GND", "D[7:0]", "A, B", "[1:", "D[0:99999]", "\x00", "水", strings.Repeat("x", 300), "input|output", "part", "wire", "rows", "column", "add",
		"Resistor", "Header 4", "in", "both", "ground", "fault", "designator", "line", "CLK: clock 8", "A: any 900", "A4", "12/10", `<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><g id="a"><use href="#a"/></g></svg>`}
	late := 0
	looks := 0
	look := func() { // somebody else, in another project
		began := time.Now()
		find := asks("find", map[string]any{"query": map[string]any{"text": "R"}})
		find["ref"] = fmt.Sprint("q", looks)
		quiet.say(find)
		quiet.next("answer")
		if looks++; time.Since(began) > 100*time.Millisecond {
			late++
		}
	}
	ask := func(n int, v map[string]any) raw {
		t.Helper()
		ref := fmt.Sprint("odd", n)
		v["ref"] = ref
		data, err := json.Marshal(v)
		require.NoError(t, err)
		require.NoError(t, l.conn.Write(context.Background(), websocket.MessageText, data))
		if n%4 == 0 {
			look()
		}
		return l.answerTo(ref, string(data))
	}
	n := 0
	answers := map[string]int{}
	for _, kind := range edit.Kinds() {
		for range 50 {
			n++
			c := map[string]any{"kind": kind, "v": 1}
			o.fields(reflect.TypeOf(edit.Blank(kind)).Elem(), c, 0)
			v := map[string]any{"t": "edit", "cmd": c}
			if o.rng.Intn(2) == 0 {
				v = asks("foresee", map[string]any{"cmd": c})
			}
			m := ask(n, v)
			require.NotContains(t, m.Why, "The program failed", "%v", c)
			require.Contains(t, []string{"done", "refused", "asks", "answer"}, m.T)
			answers[m.T]++
		}
	}
	requests := []string{"undo", "redo", "share", "person", "check", "giveUp", "what"}
	for _, q := range append(requests, asking.Kinds()...) {
		for range 25 {
			n++
			v := map[string]any{}
			o.fields(reflect.TypeOf(Request{}), v, 0)
			v["t"] = q
			if q == "undo" && n%3 > 0 {
				continue
			}
			if !slices.Contains(requests, q) {
				asked, _ := asking.Types(q)
				fields := map[string]any{}
				o.fields(asked, fields, 0)
				v = asks(q, fields)
			}
			m := ask(n, v)
			require.NotContains(t, m.Why, "The program failed", "%v", v)
		}
	}
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	require.NoError(t, p.do(func() { assert.NoError(t, p.bench.Doc.Whole()) }))
	loaded, err := k.store.Load(context.Background(), id)
	require.NoError(t, err)
	assert.Empty(t, loaded.Missing, "what was kept can be read")
	assert.NoError(t, loaded.Doc.Whole())
	assert.LessOrEqual(t, late*20, looks, "%d of %d looks at the other project took longer than 100 ms", late, looks)
	assert.Greater(t, answers["done"], 90, "some of the odd is possible: %v", answers)
	assert.Greater(t, answers["answer"], 90, "%v", answers)
}

// answerTo reads until the answer to a request comes.
func (l *line) answerTo(ref, asked string) raw {
	l.Helper()
	return l.until("the answer to "+asked, func(m raw) bool { return m.Ref == ref })
}
