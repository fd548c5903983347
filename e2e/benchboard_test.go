package e2e

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"goldentrace/core/synthetic"
)

// memory of a process in MB: what of it is resident.
func memory(b *testing.B, pid int) float64 {
	b.Helper()
	status, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	require.NoError(b, err)
	for line := range strings.Lines(string(status)) {
		if kb, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			n, err := strconv.ParseFloat(strings.Fields(kb)[0], 64)
			require.NoError(b, err)
			return n / 1024
		}
	}
	return 0
}

// BenchmarkBoard opens boards in a browser that draws in software, from the click until the board is painted
// and until all that follows from it is there, with the program just started; then pans, zooms and
// changes layers, and counts frames.
func BenchmarkBoard(b *testing.B) {
	for _, n := range []int{1000, 10_000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d, err := synthetic.Design(n)
			require.NoError(b, err)
			p, id := serveDesign(b, "Many", d)
			alloc, stop := chromedp.NewExecAllocator(context.Background(),
				append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath("chromium-headless-shell"), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(1280, 800))...)
			b.Cleanup(stop)
			ctx, leave := chromedp.NewContext(alloc)
			b.Cleanup(leave)
			t := &tab{t: b, ctx: ctx, p: p}
			t.learn()
			list := func() {
				t.do(chromedp.EmulateViewport(1280, 800), chromedp.Navigate(p.url+"/"))
				t.until(`document.readyState === 'complete' && document.body.innerText.includes('Many') && !document.querySelector('[aria-busy=true]')`)
				time.Sleep(2 * time.Second)
			}
			list()
			time.Sleep(time.Duration(n) * time.Millisecond / 2) // its picture is drawn and kept
			p.kill()
			p.run("serve", "127.0.0.1:0")
			list()
			start := time.Now()
			eval[bool](t, fmt.Sprintf(`(() => { window.__begun = performance.now(); history.pushState({}, '', '/project/%d/board'); window.dispatchEvent(new PopStateEvent('popstate', { state: {} })); return true })()`, id))
			eval[bool](t, `(() => { const look = () => document.querySelector('[role=application]')?.dataset.painting ? (window.__there = performance.now()) : requestAnimationFrame(look); look(); return true })()`)
			t.until(`window.__there`)
			b.ReportMetric(eval[float64](t, `Math.round(window.__there - window.__begun)`), "ms/board") // by the page's own clock
			t.until(`goldenTrace.state.value === 'open' && goldenTrace.tracks.size > 0`)
			b.ReportMetric(float64(time.Since(start).Milliseconds()), "ms/whole")
			b.ReportMetric(memory(b, p.cmd.Process.Pid), "MB/server")
			time.Sleep(2 * time.Second)
			b.ReportMetric(eval[float64](t, `performance.memory.usedJSHeapSize / 1e6`), "MB/tab")
			frames := func(name string, act func(i int)) {
				eval[bool](t, `(()=>{const mine=window.__frames=[];const f=t=>{if(window.__frames!==mine)return;mine.push(t);requestAnimationFrame(f)};requestAnimationFrame(f);return true})()`)
				for i := range 60 {
					act(i)
					time.Sleep(12 * time.Millisecond)
				}
				times := eval[[]float64](t, `(()=>{const all=window.__frames;window.__frames=null;return all})()`)
				var gaps []float64
				for i := 1; i < len(times); i++ {
					gaps = append(gaps, times[i]-times[i-1])
				}
				b.ReportMetric(1000*float64(len(gaps))/(times[len(times)-1]-times[0]), "fps/"+name)
				slices.Sort(gaps)
				b.ReportMetric(gaps[len(gaps)/2], "ms/"+name)
				b.ReportMetric(gaps[len(gaps)*95/100], "ms/"+name+"-p95")
				b.ReportMetric(gaps[len(gaps)-1], "ms/"+name+"-most")
			}
			t.move(600, 400)
			frames("zoom", func(i int) {
				way := 100.0
				if i%20 >= 10 {
					way = -100
				}
				t.do(chromedp.MouseEvent("mouseWheel", 600, 400, func(m *input.DispatchMouseEventParams) { m.DeltaX, m.DeltaY = 0.01, way }))
			})
			t.do(chromedp.MouseEvent("mousePressed", 600, 400, chromedp.Button("middle"), chromedp.ClickCount(1)))
			frames("pan", func(i int) {
				t.do(chromedp.MouseEvent("mouseMoved", 600+float64(i%30)*6, 400+float64(i%17)*6, chromedp.Button("middle")))
			})
			t.do(chromedp.MouseEvent("mouseReleased", 600, 400, chromedp.Button("middle"), chromedp.ClickCount(1)))
			frames("layer", func(i int) {
				if i%10 == 0 {
					t.key([]string{"1", "2"}[i/10%2])
				}
			})
			at := eval[[]float64](t, `(()=>{const [cx,cy]=document.querySelector('[role=application]').dataset.view.split(' ').map(Number);
				const away=p=>Math.hypot(p.at.x-cx,p.at.y-cy);
				const p=goldenTrace.all('placed').filter(p=>p.designator.startsWith('U')).sort((a,b)=>away(a)-away(b))[0];return [p.at.x/1e6,p.at.y/1e6]})()`)
			x, y := t.at(at[0], at[1])
			isPart := `!!document.querySelector('input[aria-label="x, mm"]')`
			for try := 0; try < 200 && !eval[bool](t, isPart); try++ { // beside the tracks that lie over it
				if try%50 == 49 {
					for range 4 {
						t.do(chromedp.MouseEvent("mouseWheel", x, y, func(m *input.DispatchMouseEventParams) { m.DeltaX, m.DeltaY = 0.01, -300 }))
					}
					time.Sleep(time.Second)
				}
				x, y = t.at(at[0]+float64(try%7-3)*0.5, at[1]+float64(try/7%7-3)*0.5)
				t.do(chromedp.MouseClickXY(x, y))
				time.Sleep(100 * time.Millisecond)
			}
			require.True(b, eval[bool](t, isPart), "no part could be picked")
			t.do(chromedp.MouseEvent("mousePressed", x, y, chromedp.Button("left"), chromedp.ClickCount(1)))
			frames("drag", func(i int) {
				t.do(chromedp.MouseEvent("mouseMoved", x+float64(i%40)*3, y+float64(i%23)*3, chromedp.Button("left")))
			})
			t.key(escape)
			t.do(chromedp.MouseEvent("mouseReleased", x, y, chromedp.Button("left"), chromedp.ClickCount(1)))
			b.ReportMetric(0, "ns/op")
		})
	}
}
