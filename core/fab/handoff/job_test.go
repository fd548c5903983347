package handoff_test

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

func fourLayers(t *testing.T, progress func(float64)) []handoff.File {
	t.Helper()
	d := synthetic.FourLayers()
	list, err := handoff.Make(context.Background(), d, layout.NewIndex(d), " The Four-Layer board! ", time.Date(2026, 3, 4, 5, 6, 7, 0, time.UTC), progress)
	require.NoError(t, err)
	return list
}

// One file for each copper layer and for each span of holes, in the order the shop reads them.
func TestFourLayersMakeTheseFiles(t *testing.T) {
	var shares []float64
	var got [][3]string
	for _, f := range fourLayers(t, func(share float64) { shares = append(shares, share) }) {
		got = append(got, [3]string{f.Name, f.Kind, f.Role})
		assert.Len(t, f.Data, f.Size)
	}
	const s = "the-four-layer-board-"
	assert.Equal(t, [][3]string{
		{s + "copper-1.gbr", "artwork", "copper-1"}, {s + "copper-2.gbr", "artwork", "copper-2"},
		{s + "copper-3.gbr", "artwork", "copper-3"}, {s + "copper-4.gbr", "artwork", "copper-4"},
		{s + "mask-top.gbr", "artwork", "mask-top"}, {s + "paste-top.gbr", "artwork", "paste-top"}, {s + "silk-top.gbr", "artwork", "silk-top"},
		{s + "mask-bottom.gbr", "artwork", "mask-bottom"}, {s + "paste-bottom.gbr", "artwork", "paste-bottom"}, {s + "silk-bottom.gbr", "artwork", "silk-bottom"},
		{s + "outline.gbr", "artwork", "outline"},
		{s + "plated.xnc", "drill", "plated"}, {s + "plated-1-2.xnc", "drill", "plated-1-2"}, {s + "plated-2-3.xnc", "drill", "plated-2-3"},
		{s + "plated-3-4.xnc", "drill", "plated-3-4"}, {s + "unplated.xnc", "drill", "unplated"},
		{s + "placement.csv", "table", "placement"}, {s + "parts.csv", "table", "parts"}, {s + "netlist.ipc", "netlist", "netlist"},
		{s + "job.gbrjob", "note", "job"},
	}, got)
	require.Len(t, shares, 19)
	assert.InDelta(t, 1.0/20, shares[0], 1e-9)
	assert.InDelta(t, 19.0/20, shares[18], 1e-9)
}

// The keys are those of the published Gerber job format; lengths are millimetres.
func TestTheJobFileSaysWhatTheBoardIs(t *testing.T) {
	list := fourLayers(t, nil)
	var job struct {
		Header       struct{ CreationDate string }
		GeneralSpecs struct {
			ProjectID      struct{ Name, GUID, Revision string } `json:"ProjectId"`
			Size           struct{ X, Y float64 }
			LayerNumber    int
			BoardThickness float64
		}
		FilesAttributes []struct{ Path, FileFunction, FilePolarity string }
	}
	require.NoError(t, json.Unmarshal(list[len(list)-1].Data, &job))
	assert.Equal(t, "2026-03-04T05:06:07Z", job.Header.CreationDate)
	project := job.GeneralSpecs.ProjectID
	assert.Equal(t, " The Four-Layer board! ", project.Name)
	for _, f := range list { // all say the same project
		if f.Kind == "artwork" {
			art, err := reread.Gerber(f.Data)
			require.NoError(t, err)
			assert.Equal(t, fmt.Sprintf("%s,%s,%s", project.Name, project.GUID, project.Revision), art.Attributes[".ProjectId"], f.Name)
		}
	}
	assert.Equal(t, [2]float64{40, 30}, [2]float64{job.GeneralSpecs.Size.X, job.GeneralSpecs.Size.Y})
	assert.Equal(t, 4, job.GeneralSpecs.LayerNumber)
	assert.InDelta(t, 1.6, job.GeneralSpecs.BoardThickness, 1e-9, "0.035 + 0.2 + 0.018 + 1.094 + 0.018 + 0.2 + 0.035")
	functions := map[string][2]string{}
	for _, f := range job.FilesAttributes {
		functions[f.Path[len("the-four-layer-board-"):]] = [2]string{f.FileFunction, f.FilePolarity}
	}
	assert.Equal(t, map[string][2]string{
		"copper-1.gbr": {"Copper,L1,Top", "Positive"}, "copper-2.gbr": {"Copper,L2,Inr", "Positive"},
		"copper-3.gbr": {"Copper,L3,Inr", "Positive"}, "copper-4.gbr": {"Copper,L4,Bot", "Positive"},
		"mask-top.gbr": {"Soldermask,Top", "Negative"}, "mask-bottom.gbr": {"Soldermask,Bot", "Negative"},
		"paste-top.gbr": {"Paste,Top", "Positive"}, "paste-bottom.gbr": {"Paste,Bot", "Positive"},
		"silk-top.gbr": {"Legend,Top", "Positive"}, "silk-bottom.gbr": {"Legend,Bot", "Positive"},
		"outline.gbr": {"Profile,NP", ""}, "plated.xnc": {"Plated,1,4,PTH", ""}, "plated-1-2.xnc": {"Plated,1,2,Blind", ""},
		"plated-2-3.xnc": {"Plated,2,3,Buried", ""}, "plated-3-4.xnc": {"Plated,3,4,Blind", ""}, "unplated.xnc": {"NonPlated,1,4,NPTH", ""},
	}, functions)
}

func TestFilesAreSaidInWords(t *testing.T) {
	words := map[string]string{}
	for _, f := range fourLayers(t, nil) {
		words[f.Role] = f.Text
	}
	assert.Equal(t, "Copper layer 3", words["copper-3"])
	assert.Equal(t, "Plated holes from copper layer 2 to 3", words["plated-2-3"])
	assert.Equal(t, "Unplated holes", words["unplated"])
}

func TestAnArchiveHoldsEveryFile(t *testing.T) {
	list := fourLayers(t, nil)
	at := time.Date(2026, 3, 4, 5, 6, 8, 0, time.UTC)
	archive, err := handoff.Zip(list, at)
	require.NoError(t, err)
	back, err := handoff.Unzip(archive)
	require.NoError(t, err)
	assert.Equal(t, list, back)
	_, err = handoff.Unzip(archive[:len(archive)/2])
	require.ErrorContains(t, err, "cannot be read")
	// An archive from elsewhere may hold anything.
	other, err := handoff.Zip([]handoff.File{{Name: "notes.txt", Data: []byte("hello")}}, at)
	require.NoError(t, err)
	back, err = handoff.Unzip(other)
	require.NoError(t, err)
	assert.Equal(t, []handoff.File{{Name: "notes.txt", Kind: "note", Role: "other", Text: "notes.txt", Size: 5, Data: []byte("hello")}}, back)
}

func TestMakingCanBeStoppedAndNeedsAnOutline(t *testing.T) {
	d := synthetic.FourLayers()
	ctx, stop := context.WithCancel(context.Background())
	made := 0
	_, err := handoff.Make(ctx, d, layout.NewIndex(d), "x", time.Now(), func(float64) {
		if made++; made == 3 {
			stop()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	assert.Equal(t, 3, made, "nothing is made after it was stopped")
	b := *d.Board
	b.Outline = nil
	d.Put(&b)
	_, err = handoff.Make(context.Background(), d, layout.NewIndex(d), "x", time.Now(), nil)
	require.ErrorContains(t, err, "no outline")
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(10_000_000, 0), geom.Pt(10_000_000, 10_000_000))
	d.Put(&b)
	_, err = handoff.Make(context.Background(), d, layout.NewIndex(d), "x", time.Now(), nil)
	require.NoError(t, err, "a triangle is a board")
	assert.Equal(t, "board", handoff.Stem(" — "))
}

// A board is as large wherever it lies.
func TestTheJobFileMeasuresTheBoardNotItsPlace(t *testing.T) {
	for _, off := range []geom.Point{{X: 7_000_000, Y: -3_000_000}, {X: -100_000_000, Y: 50_000_000}} {
		d := synthetic.FourLayers()
		b := *d.Board
		b.Outline = nil
		for _, p := range d.Board.Outline {
			b.Outline = append(b.Outline, geom.Corner{Point: p.Add(off)})
		}
		d.Put(&b)
		list, err := handoff.Make(context.Background(), d, layout.NewIndex(d), "moved", time.Now(), nil)
		require.NoError(t, err)
		var job struct {
			GeneralSpecs struct{ Size struct{ X, Y float64 } }
		}
		require.NoError(t, json.Unmarshal(list[len(list)-1].Data, &job))
		assert.Equal(t, [2]float64{40, 30}, [2]float64{job.GeneralSpecs.Size.X, job.GeneralSpecs.Size.Y})
	}
}

// A side without mask or silk in the stack has no file of it; all others are there.
func TestSidesWithoutCoats(t *testing.T) {
	d := synthetic.FourLayers()
	whole := files(t, d, "Four")
	b := *d.Board
	b.Stack = slices.DeleteFunc(slices.Clone(b.Stack), func(l design.StackLayer) bool { return l.Name == "Top mask" || l.Name == "Bottom silk" })
	d.Put(&b)
	bare := files(t, d, "Four")
	for name := range whole {
		assert.Equal(t, name != "mask-top.gbr" && name != "silk-bottom.gbr", bare[name] != nil, name)
	}
	assert.NotContains(t, string(bare["job.gbrjob"]), "mask-top")
	assert.Contains(t, string(bare["job.gbrjob"]), "mask-bottom")
}
