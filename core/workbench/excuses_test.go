package workbench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// An excuse lapses when what it excuses moves or changes, even where the finding reads the same, and holds again once all is as it was.
func TestExcusesLapseWhenThingsMove(t *testing.T) {
	d := synthetic.FourLayers()
	area := &design.RuleArea{ID: d.NewID(), Name: "no vias", KeepOut: []design.Thing{design.AVia}, Outline: geom.Corners(geom.Pt(15_000_000, 15_000_000), geom.Pt(28_000_000, 15_000_000), geom.Pt(28_000_000, 25_000_000), geom.Pt(15_000_000, 25_000_000))}
	d.Put(area)
	b := workbench.Open(d, 0)
	of := func() *check.Finding {
		for _, f := range b.Findings() {
			if f.Kind == "keepOut" {
				return f
			}
		}
		require.Fail(t, "the via is kept out")
		return nil
	}
	was := of()
	_, err := b.Edit(&edit.Excuse{Key: was.Key, Fingerprint: was.Fingerprint, Text: was.Text, Reason: "as drawn"})
	require.NoError(t, err)
	require.Equal(t, "as drawn", of().Excused)

	moved := *area
	moved.Outline = geom.Corners(geom.Pt(17_000_000, 15_000_000), geom.Pt(30_000_000, 15_000_000), geom.Pt(30_000_000, 25_000_000), geom.Pt(17_000_000, 25_000_000))
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: area, After: &moved}})
	b.Settle()
	assert.Equal(t, was.Text, of().Text, "it reads the same")
	assert.Equal(t, "as drawn", of().Lapsed, "the area moved by two millimetres")
	assert.Empty(t, of().Excused)
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: &moved, After: area}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Excused, "it is back")

	named := *area
	named.Locked = true
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: area, After: &named}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Excused, "a lock changes nothing of it")
	v := d.Vias[synthetic.FourThrough]
	wide := *v
	wide.Diameter += 1000
	b.Apply(edit.ChangeSet{{Kind: design.KindVia, ID: v.ID, Before: v, After: &wide}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Lapsed, "the via is larger")
}
