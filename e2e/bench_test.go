package e2e

import (
	"bytes"
	"fmt"
	"slices"
	"testing"
	"time"

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
		"previewDrag": func(i int) map[string]any {
			return map[string]any{"t": "previewDrag", "ids": ids[i*37%len(ids) : i*37%len(ids)+1], "step": pt(i*100_000, 0)}
		},
		"previewTrack": func(i int) map[string]any {
			at := d.Placed[design.ID(ids[i*37%len(ids)])].At
			return map[string]any{"t": "previewTrack", "from": pt(int(at.X), int(at.Y)), "to": pt(int(at.X)+10_000_000, int(at.Y)+4_000_000), "style": "straightFirst", "net": "GND", "width": 200_000}
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
