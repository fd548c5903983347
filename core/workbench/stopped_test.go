package workbench_test

import (
	"cmp"
	"errors"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/question"
	"goldentrace/core/workbench"
)

// What is told to stop says why, asks no more and leaves everything as it was; how far it is never goes back.
func TestLongActsAreStopped(t *testing.T) {
	d := unpoured(t, "Weir Gauge")
	b := workbench.Open(d, 0)
	enough := errors.New("that is enough")
	var parts, tracks []design.ID
	for p := range d.Placed.All() {
		parts = append(parts, p.ID)
	}
	for tr := range d.Tracks.All() {
		tracks = append(tracks, tr.ID)
	}
	slices.Sort(parts)
	act := func(c edit.Command) func() error {
		return func() error { _, _, err := b.Try(c, nil); return err }
	}
	one := d.Tracks[slices.MaxFunc(tracks, func(a, b design.ID) int {
		return cmp.Compare(d.Tracks[a].Piece().Length(), d.Tracks[b].Piece().Length())
	})]
	far := &question.Finish{From: one.A, Begun: one.A, Layer: one.Layer, Net: one.Net, Hops: true}
	for name, long := range map[string]func() error{
		"parts with their tracks": act(&edit.MovePlaced{IDs: parts[:20], Step: geom.Pt(1_270_000, 0), Following: edit.Following{Tracks: edit.TracksAlong}}),
		"tidying":                 act(&edit.TidyTracks{IDs: tracks}),
		"finishing": func() error {
			if _, _, err := b.Try(&edit.RemoveNetTracks{Net: one.Net}, nil); err != nil {
				return err
			}
			b.Settle()
			_, err := far.Answer(b)
			return err
		},
	} {
		t.Run(name, func(t *testing.T) {
			asked, last := 0, 0.0
			b.Going = func(share float64) error {
				require.GreaterOrEqual(t, share, last)
				require.LessOrEqual(t, share, 1.0)
				last = share
				if asked++; asked > 3 {
					return enough
				}
				return nil
			}
			defer func() { b.Going = nil }()
			print := b.Fingerprint()
			require.ErrorIs(t, long(), enough)
			assert.Equal(t, 4, asked)
			if name != "finishing" {
				assert.Equal(t, print, b.Fingerprint())
			}
		})
	}
}
