package e2e

import (
	"bytes"
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/synthetic"
)

// BenchmarkLive measures round trips over the live connection of the real program, from the
// message sent to its answer read, on a generated board of 1,000 parts.
func BenchmarkLive(b *testing.B) {
	t := &testing.T{}
	d, err := synthetic.Design(1000)
	require.NoError(b, err)
	var file bytes.Buffer
	require.NoError(b, design.WriteFile(&file, "Thousand", d))
	p := &program{t: t, data: b.TempDir()}
	p.run("serve", "127.0.0.1:0")
	defer p.kill()
	code, _ := p.api("POST", "/import", &file)
	require.Equal(b, 201, code)
	w := p.live(p.projectID("Thousand"))
	var ids []int64
	for pl := range d.Placed.All() {
		ids = append(ids, int64(pl.ID))
	}
	pt := func(x, y int) map[string]int { return map[string]int{"x": x, "y": y} }
	for name, ask := range map[string]func(i int) map[string]any{
		"edit": func(i int) map[string]any {
			return map[string]any{"t": "edit", "cmd": map[string]any{"kind": "movePlaced", "ids": ids[i*37%len(ids) : i*37%len(ids)+1], "step": pt(635_000, 0)}}
		},
		"rule": func(i int) map[string]any {
			return map[string]any{"t": "edit", "cmd": map[string]any{"kind": "setRules", "rules": map[string]int{"clearance": 200_000 + i%2*10_000}}}
		},
		"previewDrag": func(i int) map[string]any {
			return asks("drag", map[string]any{"ids": ids[i*37%len(ids) : i*37%len(ids)+1], "step": pt(i*100_000, 0)})
		},
		"previewTrack": func(i int) map[string]any {
			at := d.Placed[design.ID(ids[i*37%len(ids)])].At
			return asks("track", map[string]any{"from": pt(int(at.X), int(at.Y)), "to": pt(int(at.X)+10_000_000, int(at.Y)+4_000_000), "style": "straightFirst", "net": d.NetNamed("GND").ID, "layer": d.Board.Top(), "width": 200_000})
		},
	} {
		b.Run(name, func(b *testing.B) {
			var took []float64
			for i := range 300 {
				start := time.Now()
				if _, err := w.ask(fmt.Sprint(name, i), ask(i)); err != nil {
					b.Fatal(err)
				}
				took = append(took, float64(time.Since(start).Microseconds())/1000)
			}
			slices.Sort(took)
			b.ReportMetric(took[150], "ms/median")
			b.ReportMetric(took[284], "ms/p95")
			b.ReportMetric(0, "ns/op")
		})
	}
}

// asks is the request that asks a question.
func asks(kind string, fields map[string]any) map[string]any {
	fields["kind"] = kind
	return map[string]any{"t": "ask", "question": fields}
}

// serveDesign runs the real program on a generated design.
func serveDesign(b *testing.B, name string, d *design.Doc) (*program, int64) {
	var file bytes.Buffer
	require.NoError(b, design.WriteFile(&file, name, d))
	p := &program{t: &testing.T{}, data: b.TempDir()}
	p.run("serve", "127.0.0.1:0")
	b.Cleanup(p.kill)
	code, _ := p.api("POST", "/import", &file)
	require.Equal(b, 201, code)
	return p, p.projectID(name)
}

// BenchmarkLiveCircuit measures round trips of the circuit on 5,000 parts on 100 sheets:
// moving a part with its wires, the preview of that, and the drawing of a sheet.
func BenchmarkLiveCircuit(b *testing.B) {
	d, err := synthetic.Circuit(5000, 50)
	require.NoError(b, err)
	p, id := serveDesign(b, "Five thousand", d)
	w := p.live(id)
	var parts []*design.Part
	for x := range d.Parts.All() {
		parts = append(parts, x)
	}
	blocks := map[design.ID]design.ID{}
	for x := range d.Blocks.All() {
		blocks[x.Of] = x.ID
	}
	part := func(i int) *design.Part { return parts[i/2*977%len(parts)] }
	for name, ask := range map[string]func(i int) map[string]any{
		"edit": func(i int) map[string]any {
			return map[string]any{"t": "edit", "cmd": map[string]any{"kind": "moveItems", "ids": []design.ID{part(i).ID}, "step": map[string]int{"x": 0, "y": (1 - 2*(i%2)) * 2_500_000}}}
		},
		"foresee": func(i int) map[string]any {
			return asks("foresee", map[string]any{"cmd": map[string]any{"kind": "moveItems", "ids": []design.ID{part(i).ID}, "step": map[string]int{"x": 2_500_000, "y": 0}}})
		},
		"openSheet": func(i int) map[string]any {
			s := part(i * 31).Sheet
			return asks("sheet", map[string]any{"sheet": s, "path": fmt.Sprint(blocks[s])})
		},
	} {
		b.Run(name, func(b *testing.B) {
			var took []float64
			for i := range 300 {
				time.Sleep(30 * time.Millisecond) // no hand is quicker
				start := time.Now()
				if _, err := w.ask(fmt.Sprint(name, i), ask(i)); err != nil {
					b.Fatal(err)
				}
				took = append(took, float64(time.Since(start).Microseconds())/1000)
			}
			slices.Sort(took)
			b.ReportMetric(took[150], "ms/median")
			b.ReportMetric(took[284], "ms/p95")
			b.ReportMetric(0, "ns/op")
		})
	}
}

// circuitTab is a browser, drawing in software, on the circuit of a project.
func circuitTab(b *testing.B, p *program, id int64) *tab {
	b.Helper()
	alloc, stop := chromedp.NewExecAllocator(context.Background(),
		append(chromedp.DefaultExecAllocatorOptions[:], chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(1280, 800))...)
	b.Cleanup(stop)
	ctx, leave := chromedp.NewContext(alloc)
	b.Cleanup(leave)
	t := &tab{t: b, ctx: ctx, p: p}
	t.learn()
	t.do(chromedp.EmulateViewport(1280, 800), chromedp.Navigate(fmt.Sprintf("%s/project/%d/circuit", p.url, id)))
	t.until(`window.goldenTrace?.state.value === 'open' && document.querySelector('[role=application]')?.dataset.painted > 0`)
	return t
}

// BenchmarkDragFrames counts the frames a browser draws, in software, while the 200 parts of
// a sheet are dragged by hand with all that hangs on them, and how long opening that sheet takes there.
func BenchmarkDragFrames(b *testing.B) {
	d, err := synthetic.Circuit(200, 200)
	require.NoError(b, err)
	p, id := serveDesign(b, "Two hundred", d)
	t := circuitTab(b, p, id)
	time.Sleep(time.Second)
	eval[bool](t, `(()=>{ const t0 = performance.now(); const c = document.querySelector('[role=application]'); const n = c.dataset.painted; document.querySelectorAll('[aria-label="Sheets in their order"] [role=listitem]')[1].click(); const look = () => c.dataset.painted !== n ? requestAnimationFrame(() => requestAnimationFrame(() => (window.__took = performance.now() - t0))) : setTimeout(look, 1); look(); return true })()`)
	t.until(`window.__took`)
	took := eval[float64](t, `window.__took`)
	b.ReportMetric(took, "ms/openSheet")
	time.Sleep(time.Second)
	press := func(x, y float64) {
		t.do(chromedp.MouseEvent("mousePressed", x, y, chromedp.Button("left"), chromedp.ClickCount(1)))
	}
	release := func(x, y float64) {
		t.do(chromedp.MouseEvent("mouseReleased", x, y, chromedp.Button("left"), chromedp.ClickCount(1)))
	}
	t.move(200, 250)
	t.key("a", ctrl)
	time.Sleep(300 * time.Millisecond)
	picked := eval[float64](t, `goldenTrace.picked.value.length`)
	on := eval[[]float64](t, `(()=>{const r=goldenTrace.picked.value.find(r=>{const p=goldenTrace.get('part',r.part);return p.at.x>150e6&&p.at.y>60e6&&p.at.y<250e6});const p=goldenTrace.get('part',r.part);return [p.at.x/1e6,p.at.y/1e6]})()`)
	x, y := t.at(on[0], on[1])
	press(x, y)
	eval[bool](t, `(()=>{window.__frames=[];const f=t=>{window.__frames.push(t);window.__run&&requestAnimationFrame(f)};window.__run=true;requestAnimationFrame(f);return true})()`)
	for i := range 90 {
		t.do(chromedp.MouseEvent("mouseMoved", x+float64(i%30)*2, y+float64(i%17)*2, chromedp.Button("left")))
		time.Sleep(12 * time.Millisecond)
	}
	frames := eval[[]float64](t, `(window.__run=false, window.__frames)`)
	release(x, y)
	var gaps []float64
	for i := 1; i < len(frames); i++ {
		gaps = append(gaps, frames[i]-frames[i-1])
	}
	slices.Sort(gaps)
	b.ReportMetric(picked, "parts")
	b.ReportMetric(float64(len(frames)-1)/(frames[len(frames)-1]-frames[0])*1000, "frames/s")
	b.ReportMetric(gaps[len(gaps)*95/100], "ms/frame-p95")
	b.ReportMetric(0, "ns/op")
}

// BenchmarkLiveTable opens the table of 10,000 parts, from the press of its button until it is on the
// screen, and scrolls through it, drawn in software: nine rows a frame, as a wheel turns, and a window a frame.
func BenchmarkLiveTable(b *testing.B) {
	d, err := synthetic.Circuit(10_000, 200)
	require.NoError(b, err)
	p, id := serveDesign(b, "Ten thousand", d)
	t := circuitTab(b, p, id)
	time.Sleep(2 * time.Second)
	eval[bool](t, `(() => { const t0 = performance.now(); seen('radio', 'Table of parts').click()
		const done = () => (window.__took = performance.now() - t0)
		const there = () => document.querySelectorAll('[role=grid] [role=row]').length > 15
		const look = () => (there() ? requestAnimationFrame(() => requestAnimationFrame(done)) : setTimeout(look, 1))
		look(); return true })()`)
	t.until(`window.__took`)
	b.ReportMetric(eval[float64](t, `window.__took`), "ms/open")
	time.Sleep(500 * time.Millisecond)
	for name, step := range map[string]int{"wheel": 243, "window": 640} {
		eval[bool](t, fmt.Sprintf(`(() => { const el = document.querySelector('[role=grid] > div'), times = []
			let y = 0; window.__frames = null
			const f = t => { times.push(t); y += %d; el.scrollTop = y; t - times[0] < 4000 ? requestAnimationFrame(f) : (window.__frames = times) }
			requestAnimationFrame(f); return true })()`, step))
		t.until(`window.__frames`)
		b.ReportMetric(eval[float64](t, `(window.__frames.length - 1) / (window.__frames.at(-1) - window.__frames[0]) * 1000`), "frames/s-"+name)
	}
	b.ReportMetric(0, "ns/op")
}
