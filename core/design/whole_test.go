package design_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// standing is a document with one of everything that refers to something.
func standing() *design.Doc {
	d := design.New("whole") // sheet 10
	d.Put(&design.Sheet{ID: 111, Name: "Inner", Order: 2, Size: "A4"})
	d.Put(&design.Symbol{ID: 120, Name: "S", Pins: []design.Pin{{Number: "1", Type: "passive"}}})
	d.Put(&design.LibraryPart{ID: 121, Name: "P", Prefix: "R", Symbol: "S", Units: []string{"S"}})
	d.Put(&design.Footprint{ID: 122, Name: "F"})
	d.Put(&design.Net{ID: 124, Name: "A"})
	d.Put(&design.Net{ID: 125, Name: "B", Partner: 124})
	d.Put(&design.RuleArea{ID: 126, Name: "Fine", Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9)), Layers: []design.LayerID{3}})
	d.Put(&design.Rule{ID: 127, Kind: design.Clearance, A: design.Scope{Area: 126}, B: design.Scope{Layer: 3}, Value: design.Fixed(100_000)})
	d.Put(&design.Asset{ID: 123, Name: "a", Type: "png", Width: 1, Height: 1, Data: []byte("x")})
	d.Put(&design.Part{ID: 130, Sheet: 111, Library: "P", Designator: "R1", Others: map[string]string{"131/7": "R7"}})
	d.Put(&design.SheetBlock{ID: 131, Sheet: 10, Name: "B", Of: 111, Size: geom.Pt(9, 9)})
	d.Put(&design.Picture{ID: 132, Sheet: 10, Asset: 123, Size: geom.Pt(1_000_000, 1_000_000)})
	d.Put(&design.Placed{ID: 140, Part: 130, Designator: "R1", Footprint: "F", Nets: map[string]design.ID{"1": 124}})
	d.Put(&design.Track{ID: 141, Layer: 3, B: geom.Pt(9, 0), Width: 5, Net: 125})
	d.Put(&design.Via{ID: 142, Diameter: 9, Hole: 5, From: 1, To: 3})
	return d
}

// Whatever is missing is said, wherever it is looked for.
func TestWhatIsMissingIsSaid(t *testing.T) {
	require.NoError(t, standing().Whole())
	require.NoError(t, standing().Distinct())
	one := func(change func(d *design.Doc)) error {
		d := standing()
		change(d)
		return d.Whole()
	}
	remove := func(k design.Kind, id design.ID) func(d *design.Doc) {
		return func(d *design.Doc) { d.Remove(k, id) }
	}
	layers := func(n int) func(d *design.Doc) {
		return func(d *design.Doc) {
			b := *d.Board
			b.Stack = b.Copper()[:n]
			d.Put(&b)
		}
	}
	for why, change := range map[string]func(d *design.Doc){
		"has no settings":                        remove(design.KindSettings, 1),
		"has no board":                           remove(design.KindBoard, 2),
		"stands on a sheet that is not there":    remove(design.KindSheet, 10),
		`is a "P", which is not among`:           remove(design.KindLibraryPart, 121),
		`has the symbol "S", which is not`:       remove(design.KindSymbol, 120),
		"a picture (id 132) is not in":           remove(design.KindAsset, 123),
		`has the footprint "F", which is not in`: remove(design.KindFootprint, 122),
		"a rule of the clearance names a copper layer that is not there": func(d *design.Doc) {
			r := *d.Rules[127]
			r.A.Area = 0
			d.Put(&r)
			d.Remove(design.KindRuleArea, 126)
			layers(1)(d)
		},
		"the area Fine is on a copper layer that is not": layers(1),
		"names an area that is not there":                remove(design.KindRuleArea, 126),
		"the partner of the net B is not there":          remove(design.KindNet, 124),
		"a track (id 141) bears a net that is not there": remove(design.KindNet, 125),
		"pad R1.1 bears a net that is not there": func(d *design.Doc) {
			d.Remove(design.KindNet, 125)
			d.Remove(design.KindTrack, 141)
			d.Remove(design.KindNet, 124)
		},
		"a track (id 141) lies on a copper layer that is not there": func(d *design.Doc) { d.Remove(design.KindRule, 127); d.Remove(design.KindRuleArea, 126); layers(1)(d) },
		"no rule of the clearance that holds for everything":        func(d *design.Doc) { d.Remove(design.KindRule, d.Base(design.Clearance).ID) },
		"stands for a sheet that is not there":                      func(d *design.Doc) { d.Remove(design.KindPart, 130); d.Remove(design.KindSheet, 111) },
		"makes the sheet Inner stand within itself": func(d *design.Doc) {
			d.Put(&design.SheetBlock{ID: 133, Sheet: 111, Name: "C", Of: 10, Size: geom.Pt(9, 9)})
		},
		"a via (id 142) goes to a copper layer that is not there": func(d *design.Doc) {
			d.Remove(design.KindRule, 127)
			d.Remove(design.KindRuleArea, 126)
			d.Remove(design.KindTrack, 141)
			layers(1)(d)
		},
		"a via (id 142) goes from copper layer 2 to 1": func(d *design.Doc) {
			d.Put(&design.Via{ID: 142, Diameter: 9, Hole: 5, From: 3, To: 1})
		},
	} {
		if strings.HasPrefix(why, "makes the sheet") {
			err := one(change)
			require.Error(t, err)
			assert.Contains(t, err.Error(), "stand within itself")
			continue
		}
		assert.ErrorContains(t, one(change), why)
	}
	d := standing()
	d.Put(&design.Sheet{ID: 12, Name: "Inner", Order: 3, Size: "A4"})
	assert.ErrorContains(t, d.Distinct(), "two sheets are called Inner")
	for _, o := range []design.Object{&design.Symbol{ID: 160, Name: "S"}, &design.Footprint{ID: 160, Name: "F"}, &design.LibraryPart{ID: 160, Name: "P"}} {
		d := standing()
		d.Put(o)
		assert.ErrorContains(t, d.Distinct(), "are called")
	}
}

// What still is referred to, or of which there is one, does not go.
func TestWhatMayNotGo(t *testing.T) {
	d := standing()
	assert.ErrorContains(t, d.Left(d.Settings, nil), "settings cannot be removed")
	assert.ErrorContains(t, d.Left(d.Board, nil), "board cannot be removed")
	assert.ErrorContains(t, d.Left(d.Sheets[111], nil), "still stands on the sheet Inner")
	assert.NoError(t, d.Left(&design.Sheet{ID: 99, Name: "Empty"}, nil))
	assert.NoError(t, d.Left(d.Sheets[111], d.Sheets[111]))
	less := *d.Board
	less.Stack = less.Copper()[:1]
	was := d.Board
	d.Put(&less)
	assert.ErrorContains(t, d.Left(was, &less), "a copper layer that is not there")
	d = standing()
	s := d.Symbols[120]
	d.Remove(design.KindSymbol, 120)
	assert.Error(t, d.Left(s, nil))
}

// What refers to something that is not there goes too, and what refers to that.
func TestSound(t *testing.T) {
	d := standing()
	d.Remove(design.KindSymbol, 120)
	gone := d.Sound()
	assert.Len(t, gone, 2, "the library part, then the part that is one: %v", gone)
	assert.NoError(t, d.Whole())
	assert.NotNil(t, d.Placed[140], "the board's part stays: it has its footprint")
	assert.Empty(t, standing().Sound())
}

// Ids: those of the single objects are their own, all others lie between.
func TestIDs(t *testing.T) {
	for _, c := range []struct {
		o    design.Object
		fine bool
	}{
		{&design.Settings{ID: 1}, true}, {&design.Settings{ID: 10}, false}, {&design.Board{ID: 2}, true}, {&design.Board{ID: 1}, false}, {&design.Checks{ID: 3}, true}, {&design.Checks{ID: 130}, false},
		{&design.Hole{ID: 10}, true}, {&design.Hole{ID: 9}, false}, {&design.Hole{ID: 3}, false}, {&design.Hole{ID: design.MaxID}, true}, {&design.Hole{ID: design.MaxID + 1}, false},
	} {
		assert.Equal(t, c.fine, design.CheckID(c.o) == nil, "%s %d", c.o.ObjectKind(), c.o.ObjectID())
	}
	assert.EqualValues(t, 9007199254740991, design.MaxID)
}

// The lookups follow what is put and taken out.
func TestLookups(t *testing.T) {
	d := standing()
	assert.EqualValues(t, 143, d.Next)
	assert.EqualValues(t, 143, d.NewID())
	assert.EqualValues(t, 144, d.NewID())
	assert.EqualValues(t, 130, d.Bearers("R7")[0].ID)
	assert.EqualValues(t, 140, d.PlacedOf(130, "").ID)
	assert.Nil(t, d.PlacedOf(130, "131"))
	assert.Equal(t, "R2", d.FreeDesignator("R"))
	assert.Equal(t, []string{"R2", "R3", "R4"}, d.FreeDesignators("R", 3))
	assert.Equal(t, []string{"R2", "R3", "R4", "R5", "R6", "R8"}, d.FreeDesignators("R", 6), "R7 is borne in another use")
	q := *d.Parts[130]
	q.Designator, q.Others = "R2", nil
	d.Put(&q)
	assert.Equal(t, "R1", d.FreeDesignator("R"), "free again")
	assert.Empty(t, d.Bearers("R7"))
	assert.Equal(t, "C1", d.FreeDesignator("C"))
	for s, want := range map[string]string{"R12": "R", "U3A": "U3A", "R": "R", "12": "", "A1B2": "A1B"} {
		assert.Equal(t, want, design.Prefix(s), s)
	}
	assert.Len(t, d.ItemsOf(10), 2)
	d.Put(design.WithSheet(d.Blocks[131], 111))
	assert.Len(t, d.ItemsOf(10), 1)
	assert.Len(t, d.ItemsOf(111), 2)
	s := d.Snapshot()
	s.Remove(design.KindPart, 130)
	assert.NotNil(t, d.Parts[130], "a snapshot is a copy")
	assert.Equal(t, d.Next, d.Snapshot().Next)
	assert.Equal(t, "R7", standing().Parts[130].Called("131/7"))
	assert.Equal(t, "R1", standing().Parts[130].Called(""))
	for unit, letter := range map[int]string{0: "", 1: "A", 26: "Z", 27: ""} {
		assert.Equal(t, letter, (&design.Part{Unit: unit}).UnitLetter())
	}
	assert.True(t, standing().Within(111, 10))
	assert.False(t, standing().Within(10, 111))
	assert.True(t, standing().Within(10, 10))
}

// A file that is damaged says where and how.
func TestDamagedFiles(t *testing.T) {
	var b strings.Builder
	require.NoError(t, design.WriteFile(&b, "whole", standing()))
	good := b.String()
	name, d, err := design.ReadFile(strings.NewReader(good))
	require.NoError(t, err)
	assert.Equal(t, "whole", name)
	assert.EqualValues(t, 143, d.Next)
	lines := strings.Split(strings.TrimSpace(good), "\n")
	n := len(lines)
	version := func(n int) string { return fmt.Sprintf(`"version":%d`, n) }
	for why, file := range map[string]string{
		"the file is empty":          "",
		"not a Golden Trace project": `{"format":"other"}`,
		fmt.Sprintf("of version %d; this program", design.Version+1): strings.Replace(good, version(design.Version), version(design.Version+1), 1),
		"damaged in line 2":                                   lines[0] + "\nnonsense\n",
		"is cut short: it should hold":                        strings.Join(lines[:n-1], "\n"),
		fmt.Sprintf("line %d: the id 142 is used twice", n+1): good + lines[n-1],
		"line 3: a hole has the id 3":                         lines[0] + "\n" + lines[1] + "\n" + `{"kind":"hole","object":{"id":3,"diameter":5,"at":{"x":0,"y":0}}}`,
		"says that the next id is -1":                         strings.Replace(good, `"next":143`, `"next":-1`, 1),
		"has no settings":                                     strings.Replace(strings.Join(append([]string{lines[0]}, lines[2:]...), "\n"), fmt.Sprintf(`"objects":%d`, n-1), fmt.Sprintf(`"objects":%d`, n-2), 1),
		"a line of more than 16 MB":                           lines[0] + "\n" + strings.Repeat("x", design.LongestLine+1),
	} {
		_, _, err := design.ReadFile(strings.NewReader(file))
		assert.ErrorContains(t, err, why)
	}
	_, d, err = design.ReadFile(strings.NewReader(strings.Replace(good, `"next":143`, `"next":900`, 1)))
	require.NoError(t, err)
	assert.EqualValues(t, 900, d.Next, "ids are not used again")
	_, _, err = design.ReadFile(strings.NewReader(good + "\n\n"))
	assert.NoError(t, err, "empty lines are nothing")
}
