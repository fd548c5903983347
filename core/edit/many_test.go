package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// Pads of 1 × 2 mm at x = ∓2 mm, made half a millimetre longer outwards, reach from 1.5 to 3 mm; the courtyard, which reached half
// a millimetre beyond them, goes along. The part gets the variant, the other footprint stays.
func TestOtherPadsForSoldering(t *testing.T) {
	k := four(t)
	ids := []design.ID{synthetic.FourR1}
	k.do(&edit.VaryFootprint{IDs: ids, Name: "Two pads, by hand", Outward: 500_000})
	f := k.d.Footprint("Two pads, by hand")
	assert.Equal(t, []geom.Point{geom.Pt(-2_250_000, 0), pt(1.5, 2), geom.Pt(2_250_000, 0), pt(1.5, 2)}, []geom.Point{f.Pads[0].At, f.Pads[0].Size, f.Pads[1].At, f.Pads[1].Size})
	assert.Equal(t, geom.BoxOf(pt(-3.5, -2), pt(3.5, 2)), geom.BoxOf(f.Courtyard...))
	assert.Equal(t, "Two pads, by hand", k.d.Placed[synthetic.FourR1].Footprint)
	assert.Equal(t, pt(1, 2), k.d.Footprint("Two pads").Pads[0].Size)

	k.do(&edit.VaryFootprint{IDs: ids, Name: "Two pads, wide", Around: 100_000})
	f = k.d.Footprint("Two pads, wide")
	assert.Equal(t, []geom.Point{pt(1.7, 2.2), geom.Pt(-2_250_000, 0)}, []geom.Point{f.Pads[0].Size, f.Pads[0].At})

	k.refuse(&edit.VaryFootprint{IDs: ids, Name: "Two pads", Around: 1}, "a footprint Two pads already")
	k.refuse(&edit.VaryFootprint{IDs: ids, Name: "x"}, "would be what they are")
	k.refuse(&edit.VaryFootprint{Name: "x", Around: 1}, "no part is named")
	k.refuse(&edit.VaryFootprint{IDs: ids, Name: "x", Around: -900_000}, "nothing left")
	k.refuse(&edit.VaryFootprint{IDs: ids, Name: "x", Around: 21_000_000}, "20 mm at most")
	k.refuse(&edit.VaryFootprint{IDs: append(ids, synthetic.FourU1), Name: "x", Around: 1}, "parts of one footprint")
}

// A pad that is turned grows along the way that leads outward; one drilled grows on every side alone, and keeps a ring.
func TestOtherPadsTurnedAndDrilled(t *testing.T) {
	k := four(t)
	f := *k.d.Footprint("One of each")
	f.Pads = append([]design.Pad{}, f.Pads...)
	f.Pads[1].At, f.Pads[1].Angle = pt(0, -9), 90_000 // an oval of 2 × 1, upright, below the middle of all
	k.d.Put(&f)
	k.do(&edit.VaryFootprint{IDs: []design.ID{synthetic.FourU1}, Name: "Longer", Outward: 1_000_000})
	p := k.d.Footprint("Longer").Pads
	assert.Equal(t, []geom.Point{pt(3, 1), pt(0, -9.5)}, []geom.Point{p[1].Size, p[1].At})
	assert.Equal(t, f.Pads[0], p[0], "the drilled one")
	k.refuse(&edit.VaryFootprint{IDs: []design.ID{synthetic.FourU1}, Name: "Thinner", Around: -400_000}, "nothing left")
	k.do(&edit.VaryFootprint{IDs: []design.ID{synthetic.FourU1}, Name: "Short", Outward: -1_700_000})
	short := k.d.Footprint("Short").Pads[2]
	assert.Equal(t, []any{pt(2, 0.3), int64(150_000)}, []any{short.Size, short.Corner}, "corners are as round as what is left lets them be")
	k.do(&edit.SetLetters{IDs: []design.ID{synthetic.FourU1, synthetic.FourR1}, Height: 700_000})
	assert.EqualValues(t, 700_000, k.d.Placed[synthetic.FourU1].LetterHeight())
	k.do(&edit.SetLetters{IDs: []design.ID{synthetic.FourU1}})
	assert.EqualValues(t, 1_000_000, k.d.Placed[synthetic.FourU1].LetterHeight())
	k.refuse(&edit.SetLetters{IDs: []design.ID{synthetic.FourU1}, Height: 51_000_000}, "50 mm is the most")
	k.refuse(&edit.SetLetters{IDs: []design.ID{synthetic.FourU1}, Height: 5}, "height of the designator U1")
}
