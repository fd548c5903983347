package find_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/edit"
	"goldentrace/core/find"
	"goldentrace/demo"
)

func TestFindAndReplace(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	where := func(q find.Query) (out []string) {
		for _, h := range find.Find(d, q) {
			out = append(out, h.What+": "+h.Text)
		}
		return out
	}
	var bought []string
	for _, d := range []string{"D2", "D3", "D9"} {
		bought = append(bought, "datasheet of "+d+": https://datasheets.osierfinch.example/BV36S.pdf", "part number of "+d+": BV36S", "value of "+d+": BV36S")
	}
	assert.ElementsMatch(t, bought, where(find.Query{Text: "bv36"}))
	assert.Empty(t, where(find.Query{Text: "bv36", Case: true}))
	assert.Empty(t, where(find.Query{Text: "BV36", Whole: true}))
	assert.Empty(t, where(find.Query{Text: "BV36S", Kinds: []string{"names"}}))
	assert.Empty(t, where(find.Query{}))
	assert.NotEmpty(t, where(find.Query{Text: "(*DE*)", Kinds: []string{"texts"}}), "signs of patterns are plain letters here")

	// a net's name, in labels and ports alike, with the pins of blocks that mirror them
	before := d.Next
	cs, err := edit.Apply(d, edit.Env{}, &edit.ReplaceText{Query: find.Query{Text: "SVC_", Case: true, Kinds: []string{"names"}}, With: "USER_"})
	require.NoError(t, err)
	assert.Empty(t, where(find.Query{Text: "SVC_", Kinds: []string{"names"}}))
	pins := 0
	for b := range d.Blocks.All() {
		for _, p := range b.Pins {
			if p.Name == "USER_P" || p.Name == "USER_N" {
				pins++
			}
		}
	}
	assert.Equal(t, 4, pins)
	cs.Inverted().Apply(d)
	assert.Len(t, where(find.Query{Text: "SVC_", Kinds: []string{"names"}}), 4)
	assert.Equal(t, before, d.Next)

	// designators change together; a clash is refused whole
	_, err = edit.Apply(d, edit.Env{}, &edit.ReplaceText{Query: find.Query{Text: "D", Case: true, Kinds: []string{"designators"}}, With: "C"})
	assert.ErrorContains(t, err, "there is already a part called")
	assert.NotEmpty(t, d.Bearers("D1"))
	_, err = edit.Apply(d, edit.Env{}, &edit.ReplaceText{Query: find.Query{Text: "nowhere at all"}, With: "x"})
	assert.ErrorContains(t, err, "stands nowhere")
}
