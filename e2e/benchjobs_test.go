package e2e

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/require"

	"goldentrace/core/synthetic"
)

// BenchmarkTwoPeople measures the edits of one person on a board of 10,000 parts: alone, while another one draws too,
// and while the files of the board are made.
func BenchmarkTwoPeople(b *testing.B) {
	d, err := synthetic.Design(10_000)
	require.NoError(b, err)
	p, id := serveDesign(b, "Many", d)
	ada, ben := p.live(id), p.liveAs(id, "ben-browser")
	var ids []int64
	for pl := range d.Placed.All() {
		ids = append(ids, int64(pl.ID))
	}
	n := 0
	move := func(w *wire) float64 {
		n++
		start := time.Now()
		m, err := w.ask(fmt.Sprint("m", n), map[string]any{"t": "edit", "cmd": map[string]any{"kind": "movePlaced", "ids": ids[n*37%len(ids) : n*37%len(ids)+1], "step": map[string]int{"x": 635_000, "y": 0}}})
		require.NoError(b, err)
		require.Contains(b, []string{"done", "asks"}, m.T, m.Why)
		return float64(time.Since(start).Microseconds()) / 1000
	}
	go func() { // what ben is told is read by nobody else
		for {
			if _, err := ben.read(); err != nil && websocket.CloseStatus(err) != -1 {
				return
			}
		}
	}()
	measure := func(name string, during func(done <-chan bool) <-chan bool) {
		b.Run(name, func(b *testing.B) {
			stop := make(chan bool)
			ended := during(stop)
			var took []float64
			for over := false; len(took) < 60 && !over; {
				took = append(took, move(ada))
				time.Sleep(30 * time.Millisecond)
				select {
				case <-ended:
					over = true
				default:
				}
			}
			close(stop)
			if ended != nil {
				<-ended
			}
			slices.Sort(took)
			b.ReportMetric(float64(len(took)), "edits")
			b.ReportMetric(took[len(took)/2], "ms/median")
			b.ReportMetric(took[len(took)*95/100], "ms/p95")
			b.ReportMetric(took[len(took)-1], "ms/most")
			b.ReportMetric(0, "ns/op")
		})
	}
	measure("alone", func(<-chan bool) <-chan bool { return nil })
	measure("files", func(<-chan bool) <-chan bool {
		ended := make(chan bool)
		go func() {
			defer close(ended)
			res, err := http.Post(fmt.Sprintf("%s/api/projects/%d/handoff?despite=1", p.url, id), "application/json", &bytes.Buffer{})
			if err == nil {
				_, _ = io.Copy(io.Discard, res.Body)
				_ = res.Body.Close()
			}
		}()
		return ended
	})
	measure("another", func(stop <-chan bool) <-chan bool {
		go func() {
			for i := 0; ; i++ {
				select {
				case <-stop:
					return
				case <-time.After(30 * time.Millisecond):
				}
				_ = ben.send(map[string]any{"t": "edit", "ref": fmt.Sprint("b", time.Now().UnixNano()), "cmd": map[string]any{"kind": "movePlaced", "ids": ids[5:6], "step": map[string]int{"x": 635_000 * (1 - 2*(i%2)), "y": 0}}})
			}
		}()
		return nil
	})
}

// BenchmarkReconnect measures how long a tab that lost its connection waits until it has what it missed, and how much
// that is, beside one that has nothing yet.
func BenchmarkReconnect(b *testing.B) {
	for _, n := range []int{1000, 10_000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d, err := synthetic.Design(n)
			require.NoError(b, err)
			p, id := serveDesign(b, "Many", d)
			w := p.live(id)
			require.NotEmpty(b, w.open.Run)
			for i := range 50 {
				m, err := w.ask(fmt.Sprint("h", i), map[string]any{"t": "edit", "cmd": map[string]any{"kind": "addHole", "at": map[string]int{"x": 1_000_000, "y": 1_000_000}, "diameter": 1_000_000 + i}})
				require.NoError(b, err)
				require.Equal(b, "done", m.T, m.Why)
			}
			read := func(query, last string, many int) (ms, kB float64) {
				start := time.Now()
				conn, size := p.dial(id, "late-browser"+query), 0
				for {
					data := conn()
					size += len(data)
					if bytes.HasPrefix(data, []byte(`{"t":"`+last)) {
						if many--; many == 0 {
							return float64(time.Since(start).Microseconds()) / 1000, float64(size) / 1000
						}
					}
				}
			}
			ms, kB := read(fmt.Sprintf("&run=%s&seq=%d", w.open.Run, w.open.Seq), "derived", 50)
			b.ReportMetric(ms, "ms/missed")
			b.ReportMetric(kB, "kB/missed")
			ms, kB = read("&stage=board", "ready", 1)
			b.ReportMetric(ms, "ms/everything")
			b.ReportMetric(kB, "kB/everything")
			b.ReportMetric(0, "ns/op")
		})
	}
}
