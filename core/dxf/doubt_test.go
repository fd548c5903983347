package dxf_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/dxf"
)

// A longer line that does not quite close is doubted aloud when a shorter one that does would be taken for the edge.
func TestALongerOpenLineIsDoubted(t *testing.T) {
	hole := []string{line(20, 20, 30, 20), line(30, 20, 30, 30), line(30, 30, 20, 30), line(20, 30, 20, 20)}
	edge := []string{line(0, 50, 0, 0), line(0, 0, 100, 0), line(100, 0, 100, 50), line(100, 50, 0.4, 50)} // 0.4 mm are missing
	o := taken(t, drawn(4, append(edge, hole...)...), dxf.Taking{})
	assert.InDelta(t, 100, area(o.Outline), 1e-6, "the hole is all that closes")
	assert.Equal(t, "A line of 299.6 mm does not close (its ends are 0.4 mm apart); the outline that was found is only 40 mm long. "+
		"If the longer one is the edge, close wider gaps or choose its layer alone.", o.Doubt)

	o = taken(t, drawn(4, append(edge, hole...)...), dxf.Taking{Gap: 500_000})
	assert.InDelta(t, 5000, area(o.Outline), 25)
	assert.Empty(t, o.Doubt)

	o = taken(t, drawn(4, append([]string{line(5, 5, 15, 5), line(15, 5, 15, 15)}, hole...)...), dxf.Taking{})
	assert.Empty(t, o.Doubt, "a shorter one")
	o = taken(t, drawn(4, append([]string{line(0, 0, 25, 0), line(200, 0, 225, 0)}, hole...)...), dxf.Taking{})
	assert.Empty(t, o.Doubt, "two that do not hang together are not one longer line")
}
