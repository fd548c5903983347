package question

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

func bench(t *testing.T) *workbench.Bench {
	t.Helper()
	d, err := synthetic.Design(100)
	require.NoError(t, err)
	return workbench.Open(d, 0)
}

// A question is read strictly, by its name; what cannot be read is said in a sentence.
func TestQuestionsAreReadByTheirName(t *testing.T) {
	b := bench(t)
	for _, c := range []struct{ kind, body, says string }{
		{"what", `{}`, `"what" is not a question`},
		{"nextName", `{`, "the question cannot be read"},
		{"nextName", `{"text":4}`, "the question cannot be read"},
		{"nextName", `{"text":"D0"} {}`, "something follows it"},
	} {
		_, err := Answer(c.kind, []byte(c.body), b)
		assert.ErrorContains(t, err, c.says)
	}
	got, err := Answer("nextName", []byte(`{"kind":"nextName","text":"D9"}`), b)
	require.NoError(t, err)
	assert.Equal(t, "D10", got)
	for _, k := range Kinds() {
		asked, answer := Types(k)
		assert.NotNil(t, asked, k)
		assert.NotNil(t, answer, k)
	}
}

// What a question may cost is bounded, with a sentence.
func TestQuestionsAreBounded(t *testing.T) {
	b := bench(t)
	sheet := b.Doc.SheetsInOrder()[0].ID
	top := b.Doc.Board.Top()
	ids := "[1" + strings.Repeat(",1", mostPicked) + "]"
	points := `[{"x":0,"y":0}` + strings.Repeat(`,{"x":0,"y":0}`, 1000) + "]"
	far := units.Limit + 1
	for _, c := range []struct{ kind, body, says string }{
		{"drag", `{"ids":` + ids + `,"step":{"x":0,"y":0},"pivot":{"x":0,"y":0}}`, "20001 things at once are too many to drag"},
		{"drag", fmt.Sprintf(`{"ids":[1],"step":{"x":%d,"y":0}}`, far), "lies beyond what a drawing can reach"},
		{"drag", fmt.Sprintf(`{"ids":[1],"pivot":{"x":0,"y":%d}}`, -far), "lies beyond what a drawing can reach"},
		{"placeNext", `{"by":"luck"}`, "not an order of placing"},
		{"together", `{"ids":` + ids + `}`, "20001 things at once"},
		{"track", `{"layer":77}`, "the board has no such copper layer (id 77)"},
		{"track", fmt.Sprintf(`{"layer":%d,"width":-1}`, top), "a track cannot be"},
		{"track", fmt.Sprintf(`{"layer":%d,"width":%d}`, top, far), "a track cannot be"},
		{"track", fmt.Sprintf(`{"layer":%d,"to":{"x":0,"y":%d}}`, top, far), "lies beyond"},
		{"wire", `{"points":[]}`, "a wire goes through 1 to 1000 places"},
		{"wire", fmt.Sprintf(`{"sheet":%d,"points":%s,"to":{"x":0,"y":0}}`, sheet, points), "a wire goes through 1 to 1000 places"},
		{"wire", `{"sheet":999999,"points":[{"x":0,"y":0}]}`, "there is no such sheet any more"},
		{"sheet", `{"sheet":999999}`, "there is no such sheet any more"},
		{"why", `{"ids":[]}`, "one thing or two can be asked about, not 0"},
		{"why", `{"ids":[1,2,3]}`, "not 3"},
		{"timing", `{"text":"` + strings.Repeat("x", design.LongestNote+1) + `"}`, "are the most"},
		{"item", `{}`, "nothing was given to draw"},
		{"item", `{"item":{"kind":"what","object":{}}}`, "cannot be read"},
		{"item", `{"item":{"kind":"track","object":{}}}`, "a track is not drawn on a sheet"},
		{"pattern", `{"footprint":{"name":""}}`, "name"},
	} {
		_, err := Answer(c.kind, []byte(c.body), b)
		assert.ErrorContains(t, err, c.says, "%s %.80s", c.kind, c.body)
	}
	at := fmt.Sprintf(`{"ids":[1],"step":{"x":%d,"y":%d}}`, units.Limit, -units.Limit)
	_, err := Answer("drag", []byte(at), b)
	assert.NoError(t, err, "at the bound itself")
}

// The look of a footprint is that of core/layout, whoever asks.
func TestTheLookOfAFootprint(t *testing.T) {
	b := bench(t)
	for f := range b.Doc.Footprints.All() {
		q := PatternOf{*f}
		got, err := q.Answer(b)
		require.NoError(t, err)
		assert.Equal(t, layout.PatternOf(f), got)
		assert.Len(t, got.Pads, len(f.Pads))
		return
	}
}
