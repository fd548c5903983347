package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	dir := os.Getenv("LOOK")
	if dir == "" {
		t.Skip()
	}
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Weir Gauge")
	gauge := p.projectID("Weir Gauge")
	b.goTo(fmt.Sprintf("/project/%d/parts", gauge))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	time.Sleep(900 * time.Millisecond)
	b.shot(filepath.Join(dir, "library.png"))
	b.goTo(fmt.Sprintf("/project/%d/parts?view=assign", gauge))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	time.Sleep(900 * time.Millisecond)
	b.shot(filepath.Join(dir, "card.png"))
	fid := eval[int](b, `goldenTrace.named('footprint', 'SOIC-8').id`)
	sid := eval[int](b, `goldenTrace.named('symbol', 'Bus driver').id`)
	b.goTo(fmt.Sprintf("/project/%d/parts?view=footprint&id=%d", gauge, fid))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	time.Sleep(1200 * time.Millisecond)
	b.shot(filepath.Join(dir, "footprint.png"))
	b.goTo(fmt.Sprintf("/project/%d/parts?view=symbol&id=%d", gauge, sid))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	time.Sleep(1200 * time.Millisecond)
	b.shot(filepath.Join(dir, "symbol.png"))
	b.goTo(fmt.Sprintf("/project/%d/parts?view=generator", gauge))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	time.Sleep(1500 * time.Millisecond)
	b.shot(filepath.Join(dir, "generator.png"))
}
