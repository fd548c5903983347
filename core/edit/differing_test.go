package edit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// What was changed is told in words and units, never as it is stored.
func TestDifferencesInWords(t *testing.T) {
	d := design.New("Words")
	d.Put(&design.Net{ID: 500, Name: "GND"})
	d.Put(&design.Net{ID: 501, Name: "+3V"})
	b := d.Board
	track := design.Track{ID: 600, Layer: b.Top(), A: at(1, 2), B: at(3, 2), Width: 250_000, Net: 500}
	wide := track
	wide.Width, wide.Net, wide.Layer, wide.B, wide.Locked = 400_000, 501, b.Bottom(), at(3.5, 2), true
	assert.Equal(t, []string{"its end was 3 mm, 2 mm and is 3.5 mm, 2 mm now", "its layer was Top and is Bottom now", "it is locked now",
		"its net was GND and is +3V now", "its width was 0.25 mm and is 0.4 mm now"}, edit.Differing(d, &track, &wide))

	p := design.Placed{ID: 601, Designator: "R4", At: at(1, 1), Angle: 90_000}
	q := p
	q.Angle, q.Bottom, q.Value = 45_500, true, "10k"
	assert.Equal(t, []string{"its angle was 90° and is 45.5° now", "its side was the upper one and is the lower one now",
		"its value was nothing and is 10k now"}, edit.Differing(d, &p, &q))
	long := p
	long.Value = strings.Repeat("8", 200)
	assert.Equal(t, []string{"its value was nothing and is a longer text now"}, edit.Differing(d, &p, &long))
	assert.Empty(t, edit.Differing(d, &p, &p))

	n := design.Net{ID: 500, Name: "GND"}
	loaded := n
	loaded.Current, loaded.Impedance = 250_000, 90_000
	assert.Equal(t, []string{"its current was nothing and is 250 mA now", "its impedance was nothing and is 90 Ω now"},
		edit.Differing(d, &n, &loaded), "in the unit that it is of")
	r := design.Rule{ID: 700, Kind: design.Clearance, Order: 3, A: design.Scope{Class: "bus"}, Value: design.Fixed(200_000)}
	other := r
	other.Order, other.A, other.Value = 4, design.Scope{Class: "supply"}, design.Fixed(300_000)
	assert.Equal(t, []string{"its scope was another", "its order was another", "its value was another"}, edit.Differing(d, &r, &other))
	shaped := *b
	shaped.Outline = append(shaped.Outline, shaped.Outline...)
	for _, says := range edit.Differing(d, b, &shaped) {
		assert.NotContains(t, says, "{")
	}
}
