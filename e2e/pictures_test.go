package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// TestPictures makes the pictures of docs/screenshots when GOLDENTRACE_PICTURES names the folder.
func TestPictures(t *testing.T) {
	dir := os.Getenv("GOLDENTRACE_PICTURES")
	if dir == "" {
		t.Skip("GOLDENTRACE_PICTURES names no folder")
	}
	require.NoError(t, os.MkdirAll(dir, 0o755))
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Moth Lamp, first try")
	b.sees("Examples")
	b.until(`[...document.querySelectorAll('article img')].filter(i => i.getBoundingClientRect().top < innerHeight && i.complete).length >= 4`)
	b.until(`![...document.querySelectorAll('article img')].some(i => /behind=true/.test(i.src) || !i.complete)`)
	time.Sleep(300 * time.Millisecond)
	b.shot(filepath.Join(dir, "projects.png"))
	lamp, first := p.projectID("Moth Lamp"), p.projectID("Moth Lamp, first try")
	visit := func(id int64, stage, name string, then func()) {
		b.goTo(fmt.Sprintf("/project/%d/%s", id, stage))
		b.until(`window.goldenTrace?.state.value === 'open'`)
		time.Sleep(700 * time.Millisecond)
		if then != nil {
			then()
			time.Sleep(400 * time.Millisecond)
		}
		b.until(`[...document.querySelectorAll('[data-painting]')].every(c => c.dataset.painting === 'no')`)
		b.shot(filepath.Join(dir, name))
	}
	visit(lamp, "circuit", "circuit.png", func() { b.point(160, 137.5); b.move(160, 122.5); b.key("h"); b.move(222, 60) })
	visit(lamp, "circuit", "asks.png", func() {
		eval[bool](b, `void goldenTrace.edit('setName', { id: goldenTrace.all('label')[0].id, name: 'GND' }).catch(() => 0) || true`)
		b.until(`!!document.querySelector('[role=alertdialog]')`)
	})
	b.key(escape)
	gauge := p.projectID("Weir Gauge")
	visit(gauge, "circuit", "parts-table.png", func() { b.press("Table of parts"); b.click(b.cell("C10", "Value")) })
	visit(gauge, "parts?part=Bus+driver&own=1", "library.png", func() { b.sees("Pins to pads") })
	visit(gauge, "parts?view=assign", "assign.png", func() {
		b.fill("Filter the parts", "part:U")
		b.until("!!" + rowOf("U3"))
		b.click(b.found(rowOf("HX-48C") + `.querySelector('[data-c="0"]')`))
		b.press("In space")
		b.until(`!!document.querySelector('.space canvas')`)
		time.Sleep(900 * time.Millisecond)
	})
	visit(gauge, "parts?view=depot", "depot.png", func() {
		b.click(b.found(`[...document.querySelectorAll('[aria-label=Families] [role=option]')].find(x=>x.innerText.startsWith('Schottky'))`))
		b.fill("Voltage, at least", "40 V")
		b.fill("Current, at least", "2 A")
		b.until("!!" + rowOf("60 V, 2 A"))
		b.click(b.found(rowOf("60 V, 2 A") + `.querySelector('[data-c="0"]')`))
	})
	eval[bool](b, `(goldenTrace.edit('takeParts', { names: ['Slide potentiometer 30 mm'] }), true)`)
	b.until(`!!goldenTrace.named('footprint', 'Slide potentiometer 30 mm')`)
	visit(gauge, fmt.Sprintf("parts?view=footprint&id=%d", eval[int](b, `goldenTrace.named('footprint', 'Slide potentiometer 30 mm').id`)), "footprint.png", nil)
	b.key("z", ctrl)
	visit(gauge, fmt.Sprintf("parts?view=symbol&id=%d", eval[int](b, `goldenTrace.named('symbol', 'Bus driver').id`)), "symbol.png", nil)
	visit(gauge, "parts?view=generator", "generator.png", func() { time.Sleep(900 * time.Millisecond) })
	visit(gauge, "checks", "clashes.png", func() { b.show("Clashes") })
	visit(gauge, "board", "board.png", func() { b.key("f") })
	visit(gauge, "board", "rules.png", func() { b.key("r"); b.sees("Rules for some things") })
	visit(p.projectID("Loom Bridge"), "board", "grid-array.png", func() {
		b.until(`goldenTrace.filled.size > 100`)
		b.point(34, 36)
		b.key("f", shift)
		b.key("b")
	})
	visit(p.projectID("Loom Bridge"), "board", "finished.png", func() {
		b.until(`goldenTrace.filled.size > 100`)
		b.key("b")
		b.key("v")
		time.Sleep(1500 * time.Millisecond)
	})
	visit(gauge, "board", "space.png", func() {
		b.key("u")
		b.until(`document.querySelector('.space canvas')?.dataset.drawn`)
		time.Sleep(900 * time.Millisecond)
	})
	visit(gauge, "checks", "houses.png", func() { b.show("Houses"); b.sees("Width of copper lines") })
	visit(first, "checks", "checks.png", nil)
	visit(lamp, "handoff", "handoff.png", func() {
		b.press("Make the files")
		b.until(`document.querySelectorAll('[role=grid] [role=row]').length > 10`)
		time.Sleep(900 * time.Millisecond)
	})
}
