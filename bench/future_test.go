package bench

import (
	"context"
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/house"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/space"
)

// The board as it will be: held against houses, as paths for the browser, and in space.
func BenchmarkFinished(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		x, set := layout.NewIndex(d), rules.Of(d)
		board := finished.Board{Doc: d, Index: x, Rules: set}
		for _, work := range []struct {
			name string
			do   func() error
		}{
			{"houses", func() error { _, err := house.Against(context.Background(), d, x, set, nil); return err }},
			{"paths", func() error {
				v, err := board.View(context.Background(), false, true)
				if err == nil {
					v.Paths(context.Background())
				}
				return err
			}},
			{"closed", func() error { _, err := space.Closed(context.Background(), "bench", board); return err }},
			{"layers", func() error { _, err := space.Model(context.Background(), "bench", board, nil); return err }},
		} {
			b.Run(work.name, func(b *testing.B) {
				report(b, 3, func(int) {
					if err := work.do(); err != nil {
						b.Fatal(err)
					}
				})
			})
		}
	})
}
