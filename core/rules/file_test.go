package rules_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// ruled is a board of four layers with rules of all makes.
func ruled() *design.Doc {
	d := synthetic.FourLayers()
	d.Put(&design.RuleArea{ID: 900, Name: "Quiet", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9))})
	inner := design.Fixed(300_000)
	d.Put(&design.Rule{ID: 901, Kind: design.Clearance, Order: 60, A: design.Scope{Class: "supply", Area: 900}, B: design.Scope{Net: "D*", Layer: d.Board.At(1)}, Value: design.Fixed(400_000), Inner: &inner})
	d.Put(&design.Rule{ID: 902, Kind: design.MaskMargin, Order: 50, A: design.Scope{Thing: design.SurfacePad}, Value: design.Amount{Share: 100, Least: 20_000, Most: 80_000}})
	for n := range d.Nets.All() {
		m := *n
		m.Class = "supply"
		d.Put(&m)
		break
	}
	return d
}

// Rules written by one project and read by a like one are the same: kinds, numbers, scopes, classes.
func TestRulesInAFile(t *testing.T) {
	d := ruled()
	data, err := rules.Write(d)
	require.NoError(t, err)
	assert.Contains(t, string(data), `"length": "0.4 mm"`)
	assert.Contains(t, string(data), `"area": "Quiet"`)
	f, err := rules.Read(ruled(), data)
	require.NoError(t, err)
	assert.Empty(t, f.Left)
	assert.Equal(t, d.Numbers(), f.Numbers)
	require.Len(t, f.Rules, 2)
	for i, id := range []design.ID{902, 901} {
		want := *d.Rules[id]
		want.ID, want.Order = 0, 0
		assert.Equal(t, want, f.Rules[i])
	}
	assert.Len(t, f.Classes["supply"], 1)

	// in a project that lacks the area the rule that names it is left out, and that is said
	bare := synthetic.FourLayers()
	f, err = rules.Read(bare, data)
	require.NoError(t, err)
	assert.Len(t, f.Rules, 1)
	require.Len(t, f.Left, 1)
	assert.Contains(t, f.Left[0], "is left out: there is no area Quiet here.")
}

func TestRulesFilesThatCannotBe(t *testing.T) {
	head := `{"format":"golden-trace-rules","version":1,`
	for says, s := range map[string]string{
		"no set of rules":        `[]`,
		"should be":              `{"format":"other","version":1,"rules":[]}`,
		"version 2":              `{"format":"golden-trace-rules","version":2,"rules":[]}`,
		"colour":                 head + `"colour":1,"rules":[]}`,
		"rule 1 of the file: \"": head + `"rules":[{"kind":"smell","value":{"length":"1 mm"}}]}`,
		"value is missing":       head + `"rules":[{"kind":"clearance","value":{}}]}`,
		"rule 1 of the file":     head + `"rules":[{"kind":"clearance","value":{"length":"wide"}}]}`,
		"holds for single":       head + `"rules":[{"kind":"leastWidth","value":{"length":"1 mm"},"and":{"class":"x"}}]}`,
		"1000 are the most":      head + `"rules":[` + strings.TrimSuffix(strings.Repeat(`{"kind":"clearance","value":{"length":"1 mm"}},`, 1001), ",") + `]}`,
		"4 are the most":         strings.Repeat(" ", rules.LargestFile+1<<20),
	} {
		_, err := rules.Read(design.New("x"), []byte(s))
		assert.ErrorContains(t, err, says, says)
	}
	f, err := rules.Read(design.New("x"), []byte(head+`"rules":[{"kind":"leastRing","value":{"share":0.1,"least":"0.1 mm","most":"0.3 mm"}}]}`))
	require.NoError(t, err)
	assert.Contains(t, f.Left[0], "cannot hold for everything")
}
