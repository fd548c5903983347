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
	d.Put(&design.Sheet{ID: 11, Name: "Inner", Order: 2, Size: "A4"})
	d.Put(&design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{{Number: "1", Type: "passive"}}})
	d.Put(&design.LibraryPart{ID: 21, Name: "P", Prefix: "R", Symbol: "S", Units: []string{"S"}})
	d.Put(&design.Footprint{ID: 22, Name: "F"})
	d.Put(&design.Asset{ID: 23, Name: "a", Type: "png", Width: 1, Height: 1, Data: []byte("x")})
	d.Put(&design.Part{ID: 30, Sheet: 11, Library: "P", Designator: "R1", Others: map[string]string{"31/7": "R7"}})
	d.Put(&design.SheetBlock{ID: 31, Sheet: 10, Name: "B", Of: 11, Size: geom.Pt(9, 9)})
	d.Put(&design.Picture{ID: 32, Sheet: 10, Asset: 23, Size: geom.Pt(1_000_000, 1_000_000)})
	d.Put(&design.Placed{ID: 40, Part: 30, Designator: "R1", Footprint: "F", Nets: map[string]string{}})
	d.Put(&design.Track{ID: 41, Layer: 1, B: geom.Pt(9, 0), Width: 5})
	d.Put(&design.Via{ID: 42, Diameter: 9, Hole: 5, To: 1})
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
			b.Stack = b.Stack[:n]
			d.Put(&b)
		}
	}
	for why, change := range map[string]func(d *design.Doc){
		"has no settings":                             remove(design.KindSettings, 1),
		"has no board":                                remove(design.KindBoard, 2),
		"stands on a sheet that is not there":         remove(design.KindSheet, 10),
		`is a "P", which is not among`:                remove(design.KindLibraryPart, 21),
		`has the symbol "S", which is not`:            remove(design.KindSymbol, 20),
		"a picture (id 32) is not in":                 remove(design.KindAsset, 23),
		`has the footprint "F", which is not in`:      remove(design.KindFootprint, 22),
		"a track (id 41) lies on copper layer 2 of 1": layers(1),
		"stands for a sheet that is not there":        func(d *design.Doc) { d.Remove(design.KindPart, 30); d.Remove(design.KindSheet, 11) },
		"makes the sheet Inner stand within itself": func(d *design.Doc) {
			d.Put(&design.SheetBlock{ID: 33, Sheet: 11, Name: "C", Of: 10, Size: geom.Pt(9, 9)})
		},
		"a via (id 42) goes to copper layer 2 of 1": func(d *design.Doc) { d.Remove(design.KindTrack, 41); layers(1)(d) },
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
	for _, o := range []design.Object{&design.Symbol{ID: 60, Name: "S"}, &design.Footprint{ID: 60, Name: "F"}, &design.LibraryPart{ID: 60, Name: "P"}} {
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
	assert.ErrorContains(t, d.Left(d.Sheets[11], nil), "still stands on the sheet Inner")
	assert.NoError(t, d.Left(&design.Sheet{ID: 99, Name: "Empty"}, nil))
	assert.NoError(t, d.Left(d.Sheets[11], d.Sheets[11]))
	less := *d.Board
	less.Stack = less.Stack[:1]
	was := d.Board
	d.Put(&less)
	assert.ErrorContains(t, d.Left(was, &less), "copper layer 2 of 1")
	d = standing()
	s := d.Symbols[20]
	d.Remove(design.KindSymbol, 20)
	assert.Error(t, d.Left(s, nil))
}

// What refers to something that is not there goes too, and what refers to that.
func TestSound(t *testing.T) {
	d := standing()
	d.Remove(design.KindSymbol, 20)
	gone := d.Sound()
	assert.Len(t, gone, 2, "the library part, then the part that is one: %v", gone)
	assert.NoError(t, d.Whole())
	assert.NotNil(t, d.Placed[40], "the board's part stays: it has its footprint")
	assert.Empty(t, standing().Sound())
}

// Ids: those of the single objects are their own, all others lie between.
func TestIDs(t *testing.T) {
	for _, c := range []struct {
		o    design.Object
		fine bool
	}{
		{&design.Settings{ID: 1}, true}, {&design.Settings{ID: 10}, false}, {&design.Board{ID: 2}, true}, {&design.Board{ID: 1}, false}, {&design.Checks{ID: 3}, true}, {&design.Checks{ID: 30}, false},
		{&design.Hole{ID: 10}, true}, {&design.Hole{ID: 9}, false}, {&design.Hole{ID: 3}, false}, {&design.Hole{ID: design.MaxID}, true}, {&design.Hole{ID: design.MaxID + 1}, false},
	} {
		assert.Equal(t, c.fine, design.CheckID(c.o) == nil, "%s %d", c.o.ObjectKind(), c.o.ObjectID())
	}
	assert.EqualValues(t, 9007199254740991, design.MaxID)
}

// The lookups follow what is put and taken out.
func TestLookups(t *testing.T) {
	d := standing()
	assert.EqualValues(t, 43, d.Next)
	assert.EqualValues(t, 43, d.NewID())
	assert.EqualValues(t, 44, d.NewID())
	assert.EqualValues(t, 30, d.Bearers("R7")[0].ID)
	assert.EqualValues(t, 40, d.PlacedOf(30, "").ID)
	assert.Nil(t, d.PlacedOf(30, "31"))
	assert.Equal(t, "R2", d.FreeDesignator("R"))
	assert.Equal(t, []string{"R2", "R3", "R4"}, d.FreeDesignators("R", 3))
	assert.Equal(t, []string{"R2", "R3", "R4", "R5", "R6", "R8"}, d.FreeDesignators("R", 6), "R7 is borne in another use")
	q := *d.Parts[30]
	q.Designator, q.Others = "R2", nil
	d.Put(&q)
	assert.Equal(t, "R1", d.FreeDesignator("R"), "free again")
	assert.Empty(t, d.Bearers("R7"))
	assert.Equal(t, "C1", d.FreeDesignator("C"))
	for s, want := range map[string]string{"R12": "R", "U3A": "U3A", "R": "R", "12": "", "A1B2": "A1B"} {
		assert.Equal(t, want, design.Prefix(s), s)
	}
	assert.Len(t, d.ItemsOf(10), 2)
	d.Put(design.WithSheet(d.Blocks[31], 11))
	assert.Len(t, d.ItemsOf(10), 1)
	assert.Len(t, d.ItemsOf(11), 2)
	s := d.Snapshot()
	s.Remove(design.KindPart, 30)
	assert.NotNil(t, d.Parts[30], "a snapshot is a copy")
	assert.Equal(t, d.Next, d.Snapshot().Next)
	assert.Equal(t, "R7", standing().Parts[30].Called("31/7"))
	assert.Equal(t, "R1", standing().Parts[30].Called(""))
	for unit, letter := range map[int]string{0: "", 1: "A", 26: "Z", 27: ""} {
		assert.Equal(t, letter, (&design.Part{Unit: unit}).UnitLetter())
	}
	assert.True(t, standing().Within(11, 10))
	assert.False(t, standing().Within(10, 11))
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
	assert.EqualValues(t, 43, d.Next)
	lines := strings.Split(strings.TrimSpace(good), "\n")
	n := len(lines)
	for why, file := range map[string]string{
		"the file is empty":                                  "",
		"not a Golden Trace project":                         `{"format":"other"}`,
		"of version 2; this program":                         strings.Replace(good, `"version":1`, `"version":2`, 1),
		"damaged in line 2":                                  lines[0] + "\nnonsense\n",
		"is cut short: it should hold":                       strings.Join(lines[:n-1], "\n"),
		fmt.Sprintf("line %d: the id 42 is used twice", n+1): good + lines[n-1],
		"line 3: a hole has the id 3":                        lines[0] + "\n" + lines[1] + "\n" + `{"kind":"hole","object":{"id":3,"diameter":5,"at":{"x":0,"y":0}}}`,
		"says that the next id is -1":                        strings.Replace(good, `"next":43`, `"next":-1`, 1),
		"has no settings":                                    strings.Replace(strings.Join(append([]string{lines[0]}, lines[2:]...), "\n"), fmt.Sprintf(`"objects":%d`, n-1), fmt.Sprintf(`"objects":%d`, n-2), 1),
		"a line of more than 16 MB":                          lines[0] + "\n" + strings.Repeat("x", design.LongestLine+1),
	} {
		_, _, err := design.ReadFile(strings.NewReader(file))
		assert.ErrorContains(t, err, why)
	}
	_, d, err = design.ReadFile(strings.NewReader(strings.Replace(good, `"next":43`, `"next":900`, 1)))
	require.NoError(t, err)
	assert.EqualValues(t, 900, d.Next, "ids are not used again")
	_, _, err = design.ReadFile(strings.NewReader(good + "\n\n"))
	assert.NoError(t, err, "empty lines are nothing")
}
