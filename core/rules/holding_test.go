package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// What a rule is said to hold for is what the resolver uses it for: it decides or is beaten there, and nowhere else.
func TestHoldersAgreeWithTheResolver(t *testing.T) {
	d := synthetic.FourLayers()
	d.Put(&design.RuleArea{ID: 900, Name: "Quiet", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(20_000_000, 0), geom.Pt(20_000_000, 20_000_000), geom.Pt(0, 20_000_000)), Layers: []design.LayerID{d.Board.Top()}})
	var nets []design.ID
	for n := range d.Nets.All() {
		nets = append(nets, n.ID)
	}
	named := *d.Nets[nets[0]]
	named.Class = "fine"
	d.Put(&named)
	scopes := []design.Scope{{Class: "fine"}, {Net: d.NetName(nets[1])}, {Net: "*"}, {Thing: design.AVia}, {Layer: d.Board.At(1)}, {Area: 900}, {Class: "fine", Thing: design.ATrack}, {Area: 900, Net: d.NetName(nets[0])}}
	for i, a := range scopes {
		d.Put(&design.Rule{ID: design.ID(1000 + i), Kind: design.LeastWidth, Order: 50 + i, A: a, Value: design.Fixed(int64(100_000 + i))})
		for k, b := range scopes {
			d.Put(&design.Rule{ID: design.ID(2000 + 10*i + k), Kind: design.Clearance, Order: 100 + 10*i + k, A: a, B: b, Value: design.Fixed(int64(100_000 + i))})
		}
	}
	set := rules.Of(d)
	subjects := []rules.Subject{{}}
	for _, n := range nets {
		for _, th := range []design.Thing{design.ATrack, design.AVia, design.SurfacePad} {
			subjects = append(subjects, rules.Subject{Net: n, Thing: th})
		}
	}
	used := func(r *rules.Ruling) map[design.ID]bool {
		out := map[design.ID]bool{r.Rule.ID: true}
		for _, b := range r.Beaten {
			out[b.ID] = true
		}
		return out
	}
	for _, at := range []geom.Point{geom.Pt(10_000_000, 10_000_000), geom.Pt(30_000_000, 10_000_000)} {
		for layer := range 4 {
			for _, w := range subjects {
				by := used(set.For(design.LeastWidth, w, layer, at))
				for r := range d.Rules.All() {
					if r.Kind == design.LeastWidth {
						first, second := set.Holder(r)(w, layer, at)
						assert.Equal(t, by[r.ID], first)
						assert.False(t, second, "it is about single things")
					}
				}
				for _, v := range subjects {
					by := used(set.Between(design.Clearance, w, v, layer, at))
					for r := range d.Rules.All() {
						if r.Kind == design.Clearance {
							holds := set.Holder(r)
							a1, b1 := holds(w, layer, at)
							a2, b2 := holds(v, layer, at)
							assert.Equal(t, by[r.ID], a1 && b2 || a2 && b1)
						}
					}
				}
			}
		}
	}
}

// A rule that another one of the same kind and scopes precedes never decides; which way round the scopes stand does not matter.
func TestHiddenRules(t *testing.T) {
	d := design.New("hidden")
	put := func(id design.ID, kind design.RuleKind, order int, a, b design.Scope) *design.Rule {
		r := &design.Rule{ID: id, Kind: kind, Order: order, A: a, B: b, Value: design.Fixed(1)}
		d.Put(r)
		return r
	}
	fine, all := design.Scope{Class: "fine"}, design.Scope{}
	first := put(100, design.Clearance, 5, fine, all)
	same := put(101, design.Clearance, 6, fine, all)
	turned := put(102, design.Clearance, 7, all, fine)
	other := put(103, design.Clearance, 8, fine, fine)
	width := put(104, design.LeastWidth, 9, fine, all)
	tie := put(99, design.LeastWidth, 9, fine, all)
	assert.Nil(t, rules.Hidden(d, first))
	assert.Equal(t, first, rules.Hidden(d, same))
	assert.Equal(t, first, rules.Hidden(d, turned))
	assert.Nil(t, rules.Hidden(d, other))
	assert.Equal(t, tie, rules.Hidden(d, width), "of one order the one with the lesser id")
	assert.Nil(t, rules.Hidden(d, tie))
}
