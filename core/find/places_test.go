package find_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/find"
	"goldentrace/core/geom"
)

const mm = 1_000_000

// drawn has one of everything that has a text, each with the word Weir in it.
func drawn() *design.Doc {
	d := design.New("Words")
	s := d.SheetsInOrder()[0].ID
	second := &design.Sheet{ID: d.NewID(), Name: "Second", Order: 2, Size: "A4"}
	d.Put(second)
	at := func(x int64) geom.Point { return geom.Pt(x*mm, 10*mm) }
	d.Put(&design.Label{ID: 51, Sheet: second.ID, Name: "WEIR_A", At: at(1)})
	d.Put(&design.Part{ID: 31, Sheet: s, Designator: "R10", Value: "Weir", At: at(2), Fields: map[string]string{"Maker": "Weirworks", "Note": "none"}})
	d.Put(&design.Part{ID: 32, Sheet: s, Designator: "R9", Value: "weir", At: at(3)})
	d.Put(&design.Port{ID: 33, Sheet: s, Name: "WEIR_P", At: at(4)})
	d.Put(&design.Tap{ID: 34, Sheet: s, Member: "WEIR_T", At: at(5)})
	d.Put(&design.Supply{ID: 35, Sheet: s, Name: "WEIR_5V", At: at(6)})
	d.Put(&design.SheetBlock{ID: 36, Sheet: s, Name: "Weir block", At: at(7), Size: geom.Pt(20*mm, 8*mm)})
	d.Put(&design.Cluster{ID: 37, Sheet: s, Title: "The weir's supply", A: at(30), B: geom.Pt(10*mm, 25*mm)})
	d.Put(&design.Note{ID: 38, Sheet: s, Text: "See weir (upper)", At: at(9)})
	d.Put(&design.Timing{ID: 39, Sheet: s, Text: "WEIR: high 2", At: at(11)})
	return d
}

// Sheet by sheet in their order, in each by what the thing is, numbers by their value.
func TestEveryTextIsFoundAtItsPlace(t *testing.T) {
	d := drawn()
	type hit struct {
		id          design.ID
		field, what string
		x, y        int64
	}
	var got []hit
	for _, h := range find.Find(d, find.Query{Text: "weir"}) {
		got = append(got, hit{h.ID, h.Field, h.What, h.At.X / mm, h.At.Y / mm})
		assert.Equal(t, h.ID == 51, h.Sheet != d.SheetsInOrder()[0].ID)
	}
	assert.Equal(t, []hit{
		{31, "Maker", "Maker of R10", 2, 10}, {36, "name", "block", 17, 14}, {37, "name", "cluster", 10, 25}, {38, "text", "note", 9, 10}, {33, "name", "port", 4, 10}, {35, "name", "supply", 6, 10},
		{34, "name", "tap", 5, 10}, {39, "text", "timing diagram", 11, 10}, {32, "value", "value of R9", 3, 10}, {31, "value", "value of R10", 2, 10},
		{51, "name", "net label", 1, 10},
	}, got)
}

func TestWhatIsLookedForIsNoPattern(t *testing.T) {
	d := drawn()
	ids := func(q find.Query) (out []design.ID) {
		for _, h := range find.Find(d, q) {
			out = append(out, h.ID)
		}
		return out
	}
	assert.Equal(t, []design.ID{38}, ids(find.Query{Text: "(upper)"}))
	assert.Empty(t, ids(find.Query{Text: "w.ir"}))
	assert.Equal(t, []design.ID{32, 31}, ids(find.Query{Text: "weir", Whole: true}))
	assert.Equal(t, []design.ID{32}, ids(find.Query{Text: "weir", Whole: true, Case: true}))
	assert.Equal(t, []design.ID{37, 38}, ids(find.Query{Text: "weir", Kinds: []string{"texts"}, Case: true}))
	assert.Equal(t, []design.ID{32, 31}, ids(find.Query{Text: "R", Kinds: []string{"designators"}}))
}

func TestReplacingWords(t *testing.T) {
	for _, c := range []struct {
		q          find.Query
		text, want string
		found      bool
	}{
		{find.Query{Text: "a"}, "A banana", "$1 b$1n$1n$1", true},
		{find.Query{Text: "a", Case: true}, "A", "A", false},
		{find.Query{Text: "ana", Whole: true}, "banana", "banana", false},
		{find.Query{Text: ""}, "x", "x", false},
	} {
		got, found := c.q.Replace(c.text, "$1")
		assert.Equal(t, c.want, got)
		assert.Equal(t, c.found, found)
	}
	got, _ := find.Query{Text: "end"}.Replace("the end", "")
	assert.Equal(t, "the", got, "no blank is left at the end")
}

func TestTextOfAField(t *testing.T) {
	d := drawn()
	text, ok := find.TextOf(d.Parts[31], "Maker")
	assert.True(t, ok)
	assert.Equal(t, "Weirworks", text)
	_, ok = find.TextOf(d.Parts[32], "Maker")
	assert.False(t, ok)
	_, ok = find.TextOf(&design.Wire{}, "name")
	assert.False(t, ok)
}
