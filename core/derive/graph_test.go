package derive

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

func change(k design.Kind, id design.ID) edit.ChangeSet { return edit.ChangeSet{{Kind: k, ID: id}} }

// What changed is carried to what is made from it, in the order of the results, and to nothing else.
func TestWhatIsMadeFromWhatChangedIsMadeAnew(t *testing.T) {
	g := New(5)
	var made []string
	var heard []design.ID
	var feed Feed[string]
	nets := g.Result("nets", func() { made = append(made, "nets"); feed.Tell("GND") })
	nets.Of(func(c edit.Change) { heard = append(heard, c.ID) }, design.KindWire, design.KindPart)
	checks := g.Result("checks", func() { made = append(made, "checks") })
	told := ""
	From(checks, &feed, func(net string) { told += net })
	copper := g.Result("copper", func() { made = append(made, "copper") })
	copper.Of(nil, design.KindTrack)

	g.Settle()
	assert.Equal(t, []string{"nets", "checks", "copper"}, made, "everything at first")
	assert.Nil(t, g.Behind())
	made, told = nil, ""
	g.Settle()
	assert.Empty(t, made, "nothing changed")

	g.Change(6, change(design.KindTrack, 9))
	assert.Equal(t, map[string]int64{"nets": 5, "checks": 5, "copper": 5}, g.Behind(), "until it is settled")
	g.Settle()
	assert.Equal(t, []string{"copper"}, made)
	assert.Empty(t, heard)
	assert.Nil(t, g.Behind())

	made = nil
	g.Change(7, change(design.KindWire, 11))
	assert.Equal(t, []design.ID{11}, heard, "told once the document holds it")
	g.Settle()
	assert.Equal(t, []string{"nets", "checks"}, made)
	assert.Equal(t, "GND", told)

	made = nil
	g.Change(8, change(design.KindLegend, 12))
	g.Settle()
	assert.Empty(t, made, "nobody is made of it")
	assert.Equal(t, int64(8), nets.Rev())
}

func TestOneCanBeMadeInAdvanceOrOnPurpose(t *testing.T) {
	g := New(1)
	n := 0
	r := g.Result("nets", func() { n++ })
	r.Of(nil, design.KindWire)
	idle := g.Result("told alone", nil)
	g.Settle()
	g.Change(2, change(design.KindWire, 3))
	r.Fresh()
	assert.Equal(t, 2, n)
	assert.Equal(t, map[string]int64{"told alone": 1}, g.Behind())
	g.Settle()
	assert.Equal(t, 2, n, "it was up to date")
	r.Stale()
	g.Settle()
	assert.Equal(t, 3, n)
	assert.Equal(t, int64(2), idle.Rev())
}

// What is made beside the hand keeps the revision it is of until that is done.
func TestWhatIsMadeBesideSaysOfWhichRevisionItIs(t *testing.T) {
	g := New(1)
	r := g.Result("board rules", func() {})
	r.Of(nil, design.KindRule)
	g.Settle()
	r.Beside(true)
	g.Change(2, change(design.KindRule, 4))
	g.Settle()
	assert.Equal(t, map[string]int64{"board rules": 1}, g.Behind())
	assert.Equal(t, int64(2), r.Now())
	r.Beside(false)
	g.Settle()
	assert.Nil(t, g.Behind())
	assert.Equal(t, int64(2), r.Rev())
}
