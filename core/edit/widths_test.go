package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/synthetic"
)

// Rules of width come from currents: for nets or their classes, outer and inner layers apart, never below what holds for everything;
// taken again they change instead of coming twice; tracks become as wide, but for locked ones and those wide enough.
func TestWidthsForCurrents(t *testing.T) {
	k := four(t)
	say := func(id design.ID, class string, microamperes int64) {
		n := *k.d.Nets[id]
		n.Class, n.Current = class, microamperes
		k.d.Put(&n)
	}
	rule := func(kind design.RuleKind, s design.Scope) *design.Rule {
		var found *design.Rule
		for r := range k.d.Rules.All() {
			if r.Kind == kind && r.A == s {
				assert.Nil(t, found, "one of a kind")
				found = r
			}
		}
		return found
	}
	say(synthetic.FourA, "supply", 1_000_000)
	say(synthetic.FourB, "supply", 2_000_000)
	k.refuse(&edit.TakeWidths{Nets: []design.ID{synthetic.FourC}}, "nothing is said of the current of C")
	k.refuse(&edit.TakeWidths{Nets: []design.ID{999}}, "no such net")
	k.board(&edit.TakeWidths{Nets: []design.ID{synthetic.FourA}})
	a := design.Scope{Net: "A"}
	// 16.30 mil² (see core/ampacity): 0.3005 mm of 35 µm outside, 2.6014 times that of 18 µm within: 1.520 mm
	assert.Equal(t, design.Fixed(400_000), rule(design.TrackWidth, a).Value, "as wide as all new tracks are at least")
	assert.Equal(t, design.Fixed(1_520_000), *rule(design.TrackWidth, a).Inner)
	assert.Equal(t, design.Fixed(310_000), rule(design.LeastWidth, a).Value, "rounded up to a hundredth of a millimetre")
	k.do(&edit.SetRise{Rise: 20})
	k.board(&edit.TakeWidths{Nets: []design.ID{synthetic.FourA}})
	assert.InDelta(t, 1_520_000/1.523, float64(rule(design.TrackWidth, a).Inner.Fixed), 10_000, "2^(0.44/0.725) times less for 20 K")
	k.refuse(&edit.SetRise{}, "at least 1 K")

	k.do(&edit.Lock{IDs: []design.ID{synthetic.FourInner2}, Locked: true})
	k.board(&edit.TakeWidths{Nets: []design.ID{synthetic.FourA, synthetic.FourB}, Classes: true, Widen: true})
	class := rule(design.TrackWidth, design.Scope{Class: "supply"})
	assert.Greater(t, class.Value.Fixed, int64(500_000), "as the net with the most current needs")
	assert.Equal(t, class.Value.Fixed, k.d.Tracks[synthetic.FourTop].Width, "A's track is as wide as its class asks")
	assert.Equal(t, class.Inner.Fixed, k.d.Tracks[synthetic.FourInner1].Width)
	assert.EqualValues(t, 300_000, k.d.Tracks[synthetic.FourInner2].Width, "locked")
	assert.EqualValues(t, 300_000, k.d.Tracks[synthetic.FourBottom].Width, "of a net that was not named")
	star := *k.d.Nets[synthetic.FourC]
	star.Name, star.Current = "C*", 1_000_000
	k.d.Put(&star)
	k.refuse(&edit.TakeWidths{Nets: []design.ID{synthetic.FourC}}, "read as a pattern")
}
