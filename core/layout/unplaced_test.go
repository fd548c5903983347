package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

func TestWhatIsPlacedNext(t *testing.T) {
	// R0 stands on the board with nets 100 and 101; R1 shares both, R2 one, R3 none; R4 is locked, R5 large
	d := crowd([2]design.ID{100, 101}, [2]design.ID{101, 100}, [2]design.ID{101, 102}, [2]design.ID{103, 104}, [2]design.ID{100, 101}, [2]design.ID{105, 106})
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(60, 0), mm(60, 40), mm(0, 40))
	d.Put(&b)
	edge := layout.EdgeOf(d.Board)
	d.Placed[1000].At = mm(30, 20)
	d.Placed[1004].Locked = true
	large := *d.Footprint("F")
	large.ID, large.Name, large.Courtyard = 11, "L", []geom.Point{mm(-9, -9), mm(9, -9), mm(9, 9), mm(-9, 9)}
	d.Put(&large)
	d.Placed[1005].Footprint = "L"
	names := func(by string) (out []string) {
		for _, w := range layout.Unplaced(d, &edge, by) {
			out = append(out, w.Designator)
		}
		return out
	}
	assert.Equal(t, []string{"R1", "R2", "R5", "R3"}, names(layout.ByConnections))
	assert.Equal(t, []string{"R5", "R1", "R2", "R3"}, names(layout.BySize))
	assert.Equal(t, layout.Waiting{ID: 1001, Designator: "R1", Connections: 2, Pads: 2, Area: 8}, layout.Unplaced(d, &edge, layout.ByConnections)[0])
	d.Placed[1002].At = mm(10, 10)
	assert.Equal(t, []string{"R1", "R5", "R3"}, names(layout.ByConnections))
	none := layout.Edge{}
	assert.Empty(t, layout.Unplaced(d, &none, layout.BySize), "where there is no board nothing stands beside it")
}
