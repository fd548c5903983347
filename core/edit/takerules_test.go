package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// A set of rules takes the place of those with a scope, in its order; what cannot be is refused whole.
func TestTakingRules(t *testing.T) {
	s := newShop(t)
	s.do(&edit.PutRule{Rule: design.Rule{Kind: design.Clearance, A: design.Scope{Class: "old"}, Value: design.Fixed(1_000_000)}})
	before := len(s.Doc.Rules)
	s.do(&edit.TakeRules{Numbers: map[design.RuleKind]int64{design.Clearance: 250_000}, Rules: []design.Rule{
		{ID: 5, Order: 99, Kind: design.LeastWidth, A: design.Scope{Class: "b"}, Value: design.Fixed(300_000)},
		{Kind: design.LeastWidth, A: design.Scope{Class: "a"}, Value: design.Fixed(200_000)},
	}})
	assert.Len(t, s.Doc.Rules, before+1)
	assert.Equal(t, int64(250_000), s.Doc.Base(design.Clearance).Value.Fixed)
	order := map[string]int{}
	for r := range s.Doc.Rules.All() {
		if !r.Everywhere() {
			order[r.A.Class] = r.Order
		}
	}
	assert.Len(t, order, 2, "the old one went")
	assert.Less(t, order["b"], order["a"])
	now := len(s.Doc.Rules)
	s.refuses(&edit.TakeRules{Rules: []design.Rule{{Kind: design.Clearance, Value: design.Fixed(1)}}}, "for everything is a number")
	s.refuses(&edit.TakeRules{Rules: []design.Rule{{Kind: design.Clearance, A: design.Scope{Part: 77}, Value: design.Fixed(1)}}}, "no such part")
	s.refuses(&edit.TakeRules{Numbers: map[design.RuleKind]int64{"smell": 1}}, "not a kind of rule")
	assert.Len(t, s.Doc.Rules, now, "nothing was lost")
}
