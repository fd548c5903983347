package circuit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/workbench"
)

// A net is only drawn otherwise when it joins the same pins under the same names; then it is
// told by the uses of sheets in which its drawing changed.
func TestNetsDrawnOtherwise(t *testing.T) {
	net := func(change func(n *circuit.Net)) *circuit.Net {
		n := &circuit.Net{Name: "A", Named: true, Pins: []circuit.PinRef{{Part: 4, Pin: "1"}, {Part: 5, Pin: "2"}}, Supplies: []string{"GND"}, Names: []string{"A"},
			Uses: []circuit.NetUse{{Sheet: 1, Items: []design.ID{7, 8}}, {Path: "/9", Sheet: 2, Items: []design.ID{11}}}}
		if change != nil {
			change(n)
		}
		return n
	}
	was := net(nil)
	for name, change := range map[string]func(n *circuit.Net){
		"a pin more":      func(n *circuit.Net) { n.Pins = append(n.Pins, circuit.PinRef{Part: 6, Pin: "1"}) },
		"another pin":     func(n *circuit.Net) { n.Pins = []circuit.PinRef{{Part: 4, Pin: "1"}, {Part: 5, Pin: "3"}} },
		"no pin":          func(n *circuit.Net) { n.Pins = nil },
		"another supply":  func(n *circuit.Net) { n.Supplies = []string{"+5V"} },
		"another name":    func(n *circuit.Net) { n.Names = []string{"B"} },
		"named no longer": func(n *circuit.Net) { n.Named = false },
	} {
		assert.False(t, circuit.Redrawn(was, net(change)), name)
	}
	assert.False(t, circuit.Redrawn(nil, was), "there was none")
	assert.True(t, circuit.Redrawn(was, net(func(n *circuit.Net) { n.Uses = nil })))
	none := &circuit.Net{}
	assert.True(t, circuit.Redrawn(none, &circuit.Net{}), "neither has a pin")

	assert.Empty(t, circuit.Redraw(was, net(nil)))
	assert.Equal(t, []circuit.NetUse{{Sheet: 1, Items: []design.ID{7}}}, circuit.Redraw(was, net(func(n *circuit.Net) { n.Uses[0].Items = []design.ID{7} })))
	assert.Equal(t, []circuit.NetUse{{Path: "/9", Sheet: 2, Items: []design.ID{}}}, circuit.Redraw(was, net(func(n *circuit.Net) { n.Uses = n.Uses[:1] })), "left")
	assert.Equal(t, []circuit.NetUse{{Path: "/8", Sheet: 2, Items: []design.ID{12}}},
		circuit.Redraw(was, net(func(n *circuit.Net) {
			n.Uses = append(n.Uses, circuit.NetUse{Path: "/8", Sheet: 2, Items: []design.ID{12}})
		})), "came")
}

// Kept up to date, a net that joins what it joined is drawn with what it is drawn with now: a
// wire that comes, one that goes while another stays, and the last one that goes.
func TestUsesFollowTheDrawing(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	s.resistor(4, 0) // pin on pin
	b := workbench.Open(s.d, 0)
	drawn := func() []circuit.NetUse {
		assert.Equal(t, circuit.Find(s.d).ByName["R1.2"].Uses, b.Nets().ByName["R1.2"].Uses)
		return b.Nets().ByName["R1.2"].Uses
	}
	wire := func(xy ...int64) design.ID {
		cs, err := b.Edit(&edit.DrawWire{Sheet: s.sheet, Path: steps(xy...)})
		require.NoError(t, err)
		b.Settle()
		return cs[0].ID
	}
	remove := func(id design.ID) {
		_, err := b.Edit(&edit.Remove{IDs: []design.ID{id}})
		require.NoError(t, err)
		b.Settle()
	}
	assert.Empty(t, drawn())
	first := wire(2, 0, 2, 5)
	assert.Equal(t, []circuit.NetUse{{Sheet: s.sheet, Items: []design.ID{first}}}, drawn())
	second := wire(2, 0, 2, -5)
	assert.Equal(t, []circuit.NetUse{{Sheet: s.sheet, Items: []design.ID{first, second}}}, drawn())
	remove(first)
	assert.Equal(t, []circuit.NetUse{{Sheet: s.sheet, Items: []design.ID{second}}}, drawn())
	assert.NotContains(t, b.Nets().OfItem, circuit.ItemRef{ID: first})
	remove(second)
	assert.Empty(t, drawn())
	assert.NotNil(t, b.Nets().ByName["R1.2"], "its pins still touch")
}
