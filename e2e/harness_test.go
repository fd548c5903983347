// Package e2e drives the real program through its real interface: the built binary, a
// headless Chromium, pointer and keys. Every page fails its test on a console error, an
// unhandled rejection or a request to another host.
package e2e

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

var binary string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "goldentrace-e2e-")
	if err != nil {
		panic(err)
	}
	binary = filepath.Join(dir, "goldentrace")
	if out, err := exec.Command("go", "build", "-o", binary, "../cmd/goldentrace").CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "the program cannot be built: %s\n", out)
		os.Exit(1)
	}
	code := m.Run()
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

// program is a running goldentrace.
type program struct {
	t    *testing.T
	url  string
	data string
	cmd  *exec.Cmd
}

func start(t *testing.T, verb, data string) *program {
	t.Helper()
	p := &program{t: t, data: data}
	p.run(verb, "127.0.0.1:0")
	t.Cleanup(func() { p.kill() })
	return p
}

func (p *program) run(verb, addr string) {
	p.cmd = exec.Command(binary, verb, "--data", p.data, "--addr", addr)
	p.cmd.Stderr = os.Stderr
	out, err := p.cmd.StdoutPipe()
	require.NoError(p.t, err)
	require.NoError(p.t, p.cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(p.t, err)
	var ok bool
	p.url, ok = strings.CutPrefix(strings.TrimSpace(line), "listening on ")
	require.True(p.t, ok, "first line: %s", line)
	go func() { _, _ = io.Copy(io.Discard, out) }()
}

func (p *program) kill() {
	if p.cmd.ProcessState == nil {
		_ = p.cmd.Process.Kill()
		_ = p.cmd.Wait()
	}
}

// tab is a browser tab.
type tab struct {
	t      testing.TB
	ctx    context.Context
	p      *program
	mu     sync.Mutex
	faults []string
	// calm lets connection failures pass, for tests that break the connection on purpose.
	calm bool
}

// browser is a browser of which tabs are children. One that crashes as it starts, as it does once in some hundred times, is started anew.
func browser(t *testing.T) context.Context {
	t.Helper()
	for try := 1; ; try++ {
		opts := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath("chromium-headless-shell"), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(1280, 800),
			chromedp.Flag("disable-quic", true), chromedp.Flag("disable-dev-shm-usage", true), chromedp.UserDataDir(t.TempDir()))
		alloc, stopAlloc := chromedp.NewExecAllocator(context.Background(), opts...)
		ctx, stop := chromedp.NewContext(alloc)
		err := chromedp.Do(ctx)
		if err != nil && try < 3 && strings.Contains(err.Error(), "failed to start") {
			stop()
			stopAlloc()
			continue
		}
		t.Cleanup(func() { stop(); stopAlloc() })
		require.NoError(t, err)
		return ctx
	}
}

func (p *program) open(t *testing.T, parent context.Context, path string) *tab {
	t.Helper()
	ctx, stop := chromedp.NewContext(parent)
	t.Cleanup(stop)
	ctx, cancel := context.WithTimeout(ctx, 300*time.Second)
	t.Cleanup(cancel)
	b := &tab{t: t, ctx: ctx, p: p}
	note := func(s string) { b.mu.Lock(); b.faults = append(b.faults, s); b.mu.Unlock() }
	require.NoError(t, chromedp.Listen(ctx, func(ev any) {
		switch ev := ev.(type) {
		case *runtime.EventExceptionThrown:
			note(fmt.Sprintf("exception: %s %s", ev.ExceptionDetails.Text, ev.ExceptionDetails.Exception.Description))
		case *runtime.EventConsoleAPICalled:
			if ev.Type == "error" {
				said := "console error:"
				for _, a := range ev.Args {
					said += fmt.Sprintf(" %s %s", a.Value, a.Description)
				}
				note(said)
			}
		case *network.EventRequestWillBeSent:
			if u := ev.Request.URL; !strings.HasPrefix(u, p.url) && !strings.HasPrefix(u, "data:") && !strings.HasPrefix(u, "blob:") && !strings.HasPrefix(u, strings.Replace(p.url, "http", "ws", 1)) {
				note("request to another host: " + u)
			}
		}
	}))
	b.learn()
	b.do(chromedp.EmulateViewport(1280, 800), chromedp.Navigate(p.url+path))
	t.Cleanup(func() {
		b.mu.Lock()
		defer b.mu.Unlock()
		if !b.calm {
			require.Empty(t, b.faults, "the page's console")
		}
		if t.Failed() && ctx.Err() == nil {
			if shot, err := chromedp.Run(ctx, chromedp.CaptureScreenshot()); err == nil {
				name := filepath.Join(os.TempDir(), strings.ReplaceAll(t.Name(), "/", "-")+".png")
				_ = os.WriteFile(name, shot, 0o644)
				t.Logf("last sight: %s", name)
			}
		}
	})
	return b
}

// learn puts into every page what finds things by role and name.
func (b *tab) learn() {
	b.t.Helper()
	_, err := chromedp.Call(b.ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: sight})
	require.NoError(b.t, err)
}

func (b *tab) do(steps ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	require.NoError(b.t, chromedp.Do(b.ctx, steps...))
}

// eval asks the page something; it never changes anything there.
func eval[T any](b *tab, js string) T {
	b.t.Helper()
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](js))
	require.NoError(b.t, err, js)
	return v
}

// until waits until an expression of the page is true.
func (b *tab) until(js string) {
	b.t.Helper()
	deadline := time.Now().Add(15 * time.Second)
	for pause := 10 * time.Millisecond; ; pause = min(pause*3/2, 100*time.Millisecond) { // asking costs the page time, too
		v, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool]("!!("+js+")"))
		if err == nil && v {
			return
		}
		if time.Now().After(deadline) {
			require.Fail(b.t, "never became true", "%s (%v)\npage says: %s", js, err, b.text("body"))
		}
		time.Sleep(pause)
	}
}

func (b *tab) text(selector string) string {
	return eval[string](b, fmt.Sprintf(`document.querySelector(%q)?.innerText ?? ''`, selector))
}

func (b *tab) sees(text string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.body.innerText.includes(%q)`, text))
}

func (b *tab) click(selector string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector(%q)`, selector))
	b.do(chromedp.Click(selector, chromedp.NodeVisible))
}

// at gives the screen's place of a place of the drawing in millimetres.
func (b *tab) at(x, y float64) (float64, float64) {
	b.t.Helper()
	b.until(`document.querySelector('[role=application]')?.dataset.view`)
	p := eval[[]float64](b, fmt.Sprintf(`(()=>{const c=document.querySelector('[role=application]');const r=c.getBoundingClientRect();
		const [cx,cy,s]=c.dataset.view.split(' ').map(Number);return [r.left+(%f*1e6-cx)*s+r.width/2, r.top+r.height/2-(%f*1e6-cy)*s]})()`, x, y))
	return p[0], p[1]
}

const none = input.MouseButtonNone

func (b *tab) moveXY(x, y float64) {
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y, chromedp.ButtonType(none)))
}

// move brings the pointer to a place of the drawing.
func (b *tab) move(x, y float64) {
	b.t.Helper()
	sx, sy := b.at(x, y)
	b.moveXY(sx-3, sy+2)
	b.moveXY(sx, sy)
	time.Sleep(40 * time.Millisecond) // a frame or two, as a hand would take
}

// point clicks at a place of the drawing.
func (b *tab) point(x, y float64, opts ...chromedp.MouseOption) {
	b.t.Helper()
	b.move(x, y)
	sx, sy := b.at(x, y)
	press := append([]chromedp.MouseOption{chromedp.Button("left"), chromedp.ClickCount(1)}, opts...)
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, sx, sy, press...), chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, sx, sy, press...))
	time.Sleep(40 * time.Millisecond)
}

// drag moves the pointer with its button held.
func (b *tab) drag(x0, y0, x1, y1 float64, held ...func()) {
	b.t.Helper()
	b.move(x0, y0)
	ax, ay := b.at(x0, y0)
	bx, by := b.at(x1, y1)
	left := []chromedp.MouseOption{chromedp.Button("left"), chromedp.ClickCount(1)}
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, ax, ay, left...))
	for i := 1; i <= 8; i++ {
		f := float64(i) / 8
		b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, ax+(bx-ax)*f, ay+(by-ay)*f, chromedp.Button("left")))
		time.Sleep(15 * time.Millisecond)
	}
	time.Sleep(80 * time.Millisecond)
	for _, f := range held {
		f()
	}
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, bx, by, left...))
	time.Sleep(40 * time.Millisecond)
}

// key presses a key as a keyboard does: what its press brings about may take the character.
func (b *tab) key(keys string, mods ...chromedp.Modifier) {
	b.t.Helper()
	r := []rune(keys)
	if len(r) == 1 && r[0] >= ' ' && r[0] < 0x7f && len(mods) == 0 {
		for _, p := range kb.Encode(r[0]) {
			if p.Type == input.DispatchKeyEventTypeChar {
				continue
			}
			if p.Type != input.DispatchKeyEventTypeKeyUp {
				p.Type, p.Text = input.DispatchKeyEventTypeKeyDown, keys
			}
			_, err := chromedp.Call(b.ctx, input.DispatchKeyEvent, *p)
			require.NoError(b.t, err)
		}
	} else {
		b.do(chromedp.KeyEvent(keys, chromedp.KeyModifiers(mods...)))
	}
	time.Sleep(30 * time.Millisecond)
}

// draws clicks along a track, in millimetres, until it ends on copper of its net, and waits until it is kept.
func (b *tab) draws(mm ...float64) {
	b.t.Helper()
	for i := 0; i+1 < len(mm); i += 2 {
		b.point(mm[i], mm[i+1])
	}
	b.gone("status", "Net: *")
	b.kept()
}

// typing types without a pause, as a keyboard does: what a press brings about may take its character.
func (b *tab) typing(s string) {
	b.t.Helper()
	for _, r := range s {
		events := kb.Encode(r)
		if !slices.ContainsFunc(events, func(p *input.DispatchKeyEventParams) bool { return p.Type == input.DispatchKeyEventTypeKeyUp }) || r < ' ' && r != '\r' || r > '~' {
			b.do(chromedp.KeyEvent(string(r))) // what no single key of a keyboard types
			continue
		}
		for _, p := range events {
			if p.Type == input.DispatchKeyEventTypeChar {
				continue
			}
			if p.Type != input.DispatchKeyEventTypeKeyUp {
				p.Type, p.Text = input.DispatchKeyEventTypeKeyDown, string(r)
			}
			_, err := chromedp.Call(b.ctx, input.DispatchKeyEvent, *p)
			require.NoError(b.t, err)
		}
	}
}

// goTo leaves the page; what is on its way is kept first, since a page asks before it lets go of that.
func (b *tab) goTo(path string) {
	b.t.Helper()
	for range 100 {
		if eval[bool](b, `!(window.goldenTrace?.waiting?.size > 0)`) {
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	b.do(chromedp.Navigate(b.p.url + path))
}

// atRest waits until nothing moves any more but what moves for ever.
func (b *tab) atRest() {
	b.t.Helper()
	time.Sleep(60 * time.Millisecond)
	b.until(`document.getAnimations().every(a => a.playState !== 'running' || a.effect?.getTiming().iterations === Infinity)`)
}

// kept waits until every edit is acknowledged and what follows from it has come.
func (b *tab) kept() {
	b.t.Helper()
	time.Sleep(30 * time.Millisecond)
	b.until(`goldenTrace.waiting.size === 0 && goldenTrace.rev.value === goldenTrace.derivedRev.value`)
}

// revision the page has.
func (b *tab) revision() int { return eval[int](b, `goldenTrace.rev.value`) }

func (b *tab) shot(file string) {
	b.t.Helper()
	data, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
	require.NoError(b.t, err)
	require.NoError(b.t, os.WriteFile(file, data, 0o644))
}

// look keeps a picture of the page, when somebody asked for pictures to look at.
func (b *tab) look(what string) {
	b.t.Helper()
	if dir := os.Getenv("GOLDENTRACE_LOOKS"); dir != "" {
		b.shot(filepath.Join(dir, strings.ReplaceAll(b.t.Name()+" "+what, "/", "-")+".png"))
	}
}

const (
	kbDelete = kb.Delete
	keyRight = kb.ArrowRight
	keyLeft  = kb.ArrowLeft
	keyUp    = kb.ArrowUp
	keyDown  = kb.ArrowDown
	escape   = kb.Escape
	enter    = kb.Enter
	ctrl     = kb.ModifierCtrl
	alt      = kb.ModifierAlt
	shift    = kb.ModifierShift
)

// api calls the program's HTTP routes.
func (p *program) api(method, path string, body io.Reader) (int, []byte) {
	p.t.Helper()
	req, err := http.NewRequest(method, p.url+"/api"+path, body)
	require.NoError(p.t, err)
	res, err := http.DefaultClient.Do(req)
	require.NoError(p.t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(p.t, err)
	return res.StatusCode, data
}

// projectID finds a project by its name.
func (p *program) projectID(name string) int64 {
	p.t.Helper()
	_, data := p.api("GET", "/projects", nil)
	var list []struct {
		ID   int64
		Name string
	}
	require.NoError(p.t, json.Unmarshal(data, &list))
	for _, x := range list {
		if x.Name == name {
			return x.ID
		}
	}
	require.Fail(p.t, "no project "+name)
	return 0
}
