package columns

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

func TestNumbersAreLittleEndianBase64(t *testing.T) {
	body, err := json.Marshal(Numbers{1, -1, math.MinInt32})
	require.NoError(t, err)
	assert.Equal(t, `"AQAAAP////8AAACA"`, string(body)) // 01 00 00 00  ff ff ff ff  00 00 00 80
	var back Numbers
	require.NoError(t, json.Unmarshal(body, &back))
	assert.Equal(t, Numbers{1, -1, math.MinInt32}, back)
	assert.Error(t, json.Unmarshal([]byte(`"AQAA"`), &back), "three bytes are no number")
	assert.Error(t, json.Unmarshal([]byte(`"*"`), &back))
}

func TestObjectsComeBackAsTheyWere(t *testing.T) {
	mid := geom.Pt(math.MaxInt32, 7)
	all := []design.Object{
		&design.Track{ID: 11, Layer: 1, Net: 5, Width: 200_000, A: geom.Pt(-1, 2), B: geom.Pt(math.MinInt32, -4)},
		&design.Track{ID: 12, Layer: 2, Width: 1, A: geom.Pt(1, 2), Mid: &mid, B: geom.Pt(3, 4), Locked: true},
		&design.Track{ID: 13, Layer: 2, Width: 1, A: geom.Pt(1, 2), Mid: &geom.Point{X: 9, Y: 8}, B: geom.Pt(3, 4)},
		&design.Via{ID: 14, At: geom.Pt(5, 6), Diameter: 60, Hole: 30, From: 1, To: 4, Net: 9},
		&design.Via{ID: 15, At: geom.Pt(7, 8), Diameter: 61, Hole: 31, From: 1, To: 2, Locked: true},
	}
	var c Copper
	for _, o := range all {
		require.True(t, c.Add(o), "%v", o)
	}
	assert.Equal(t, 5, c.Len())
	assert.Equal(t, Numbers{1, 2}, c.Tracks.Bent)
	back, err := c.Objects()
	require.NoError(t, err)
	assert.Equal(t, all, back)
}

func TestWhatColumnsCannotHoldIsLeftAlone(t *testing.T) {
	const far = math.MaxInt32 + 1
	mid := geom.Pt(0, -far-1)
	var c Copper
	for _, o := range []design.Object{
		&design.Track{ID: far, Width: 1},
		&design.Track{ID: 1, Group: 7},
		&design.Via{ID: 1, Group: 7},
		&design.Via{ID: 1, Barrel: 7},
		&design.Via{ID: 1, Own: true},
		&design.Track{ID: 1, Net: far},
		&design.Track{ID: 1, Width: far},
		&design.Track{ID: 1, A: geom.Pt(far, 0)},
		&design.Track{ID: 1, A: geom.Pt(0, -far-1)},
		&design.Track{ID: 1, B: geom.Pt(far, 0)},
		&design.Track{ID: 1, B: geom.Pt(0, far)},
		&design.Track{ID: 1, Mid: &mid},
		&design.Via{ID: far},
		&design.Via{ID: 1, At: geom.Pt(far, 0)},
		&design.Via{ID: 1, At: geom.Pt(0, far)},
		&design.Via{ID: 1, Diameter: far},
		&design.Via{ID: 1, Kind: design.Lasered},
		&design.Via{ID: 1, Cover: design.Open},
		&design.Via{ID: 1, Join: design.Solidly},
		&design.Via{ID: 1, Pads: []design.ViaPad{{Layer: 1}}},
		&design.Hole{ID: 1},
	} {
		assert.False(t, c.Add(o), "%v", o)
	}
	assert.Zero(t, c.Len())
}

func TestColumnsThatDoNotFitTogetherAreRefused(t *testing.T) {
	sound := func() Copper {
		var c Copper
		c.Add(&design.Track{ID: 1, Mid: &geom.Point{X: 1}, Locked: true})
		c.Add(&design.Via{ID: 2, Locked: true})
		return c
	}
	for name, spoil := range map[string]func(c *Copper){
		"a column too short":        func(c *Copper) { c.Tracks.BY = nil },
		"a column too long":         func(c *Copper) { c.Tracks.Layer = append(c.Tracks.Layer, 1) },
		"a via's column too short":  func(c *Copper) { c.Vias.Hole = nil },
		"a bend without a place":    func(c *Copper) { c.Tracks.MX = nil },
		"a bend with half a place":  func(c *Copper) { c.Tracks.MY = nil },
		"a bend of a row beyond":    func(c *Copper) { c.Tracks.Bent[0] = 1 },
		"a bend before all rows":    func(c *Copper) { c.Tracks.Bent[0] = -1 },
		"a lock of a row beyond":    func(c *Copper) { c.Tracks.Locked[0] = 1 },
		"a via's lock beyond":       func(c *Copper) { c.Vias.Locked[0] = 1 },
		"ids of vias without vias":  func(c *Copper) { c.Vias.ID = append(c.Vias.ID, 3) },
		"ids of tracks without one": func(c *Copper) { c.Tracks.ID = append(c.Tracks.ID, 3) },
	} {
		c := sound()
		_, err := c.Objects()
		require.NoError(t, err)
		spoil(&c)
		_, err = c.Objects()
		assert.Error(t, err, name)
	}
}
