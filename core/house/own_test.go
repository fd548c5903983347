package house_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/house"
)

const written = `{"format": "golden-trace-house", "version": 1, "name": "Weir side", "text": "Ours.", "variantOf": "northgate",
	"classes": [{"name": "Plain", "price": 1.1, "limits": {"track": "0.2 mm", "gap": "8 mil", "aspect": "6.5", "layers": "2", "side": "0.4 m"}}]}`

// What stands in a file is what the house makes, lengths in whatever unit; written again, it is read as the same.
func TestAHouseFromAFile(t *testing.T) {
	h, err := house.ReadFile([]byte(strings.Replace(written, `"0.4 m"`, `"400 mm"`, 1)))
	require.NoError(t, err)
	assert.Equal(t, &design.House{Name: "Weir side", Text: "Ours.", Of: "northgate", Classes: []design.HouseClass{{Name: "Plain", Price: 110,
		Limits: map[string]int64{"track": 200_000, "gap": 203_200, "aspect": 650, "layers": 2, "side": 400_000_000}}}}, h)
	d := design.New("any")
	h.ID = 40
	d.Put(h)
	known, err := house.In(d, "weir SIDE")
	require.NoError(t, err)
	assert.Equal(t, "own-40", known.Key)
	assert.Equal(t, 0, known.Cheapest(map[house.Limit]*house.Found{house.Track: {Value: 200_000}}))
	assert.Equal(t, -1, known.Cheapest(map[house.Limit]*house.Found{house.Track: {Value: 199_000}}))
	data, err := known.Write()
	require.NoError(t, err)
	again, err := house.ReadFile(data)
	require.NoError(t, err)
	again.ID = 40
	assert.Equal(t, h, again)
	for _, built := range house.All() {
		data, err := built.Write()
		require.NoError(t, err)
		back, err := house.ReadFile(data)
		require.NoError(t, err, built.Name)
		assert.Len(t, back.Classes, len(built.Classes))
		for i, c := range built.Classes {
			for l, v := range c.Limits {
				assert.Equal(t, v, back.Classes[i].Limits[string(l)], "%s %s", c.Name, l)
			}
		}
	}
}

func TestNonsenseOfAHouseIsRefused(t *testing.T) {
	fine := strings.Replace(written, `"0.4 m"`, `"400 mm"`, 1)
	for _, c := range []struct{ old, now, says string }{
		{fine, `nothing`, "cannot be read"},
		{fine, fine + "{}", "something follows"},
		{"golden-trace-house", "a recipe", "not of what a board house makes"},
		{`"version": 1`, `"version": 2`, "version 2"},
		{`"track"`, `"speed"`, `"speed" is no limit`},
		{`"0.2 mm"`, `"0.2 miles"`, "Width of copper lines"},
		{`"0.2 mm"`, `"-0.2 mm"`, "sets track to"},
		{`"6.5"`, `"deep"`, "Depth of holes"},
		{`"6.5"`, `"NaN"`, "Depth of holes"},
		{`"layers": "2"`, `"layers": "99"`, "99 copper layers"},
		{`"price": 1.1`, `"price": -4`, "costs"},
		{`"name": "Plain"`, `"name": ""`, "name of a class"},
		{`"name": "Weir side"`, `"name": ""`, "house's name"},
		{`"classes": [`, `"classes": [], "more": [`, "no class"},
	} {
		require.Contains(t, fine, c.old)
		_, err := house.ReadFile([]byte(strings.Replace(fine, c.old, c.now, 1)))
		require.ErrorContains(t, err, c.says, c.now)
	}
	_, err := house.ReadFile(make([]byte, house.LargestFile+1))
	require.ErrorContains(t, err, "bytes")
	var two map[string]any
	require.NoError(t, json.Unmarshal([]byte(fine), &two))
	two["classes"] = append(two["classes"].([]any), two["classes"].([]any)[0])
	data, err := json.Marshal(two)
	require.NoError(t, err)
	_, err = house.ReadFile(data)
	require.ErrorContains(t, err, "twice")
}

// A variant says in what it differs: limits with what they were, what is made or not made any more, prices and classes.
func TestAVariantSaysInWhatItDiffers(t *testing.T) {
	from := &house.House{Name: "A", Classes: []house.Class{{Name: "Plain", Price: 100, Limits: map[house.Limit]int64{house.Track: 200_000, house.Gap: 200_000}},
		{Name: "Fine", Price: 200, Limits: map[house.Limit]int64{house.Track: 100_000}}}}
	h := &house.House{Name: "B", Classes: []house.Class{{Name: "Plain", Price: 130, Limits: map[house.Limit]int64{house.Track: 180_000, house.Web: 90_000}},
		{Name: "Gold", Price: 500, Limits: map[house.Limit]int64{house.Track: 50_000}}}}
	limits, other := h.Differs(from)
	assert.Equal(t, []house.Differing{{Class: "Plain", Limit: house.Track, Was: 200_000, Is: 180_000}, {Class: "Plain", Limit: house.Gap, Was: 200_000},
		{Class: "Plain", Limit: house.Web, Is: 90_000}}, limits)
	assert.Equal(t, []string{"Plain costs 1.30 × instead of 1.00 ×", "Gold is new", "Fine is gone"}, other)
	limits, other = from.Differs(from)
	assert.Empty(t, limits)
	assert.Empty(t, other)
}

// The cheapest class that makes a board is found in whatever order a project keeps the classes.
func TestClassesFromTheCheapestOn(t *testing.T) {
	d := design.New("any")
	d.Put(&design.House{ID: 9, Name: "Mill", Classes: []design.HouseClass{
		{Name: "Fine", Price: 300, Limits: map[string]int64{"track": 100_000}},
		{Name: "Plain", Price: 100, Limits: map[string]int64{"track": 200_000}},
		{Name: "Middle", Price: 150, Limits: map[string]int64{"track": 150_000}}}})
	h, err := house.In(d, "Mill")
	require.NoError(t, err)
	for wide, class := range map[int64]string{250_000: "Plain", 200_000: "Plain", 199_000: "Middle", 120_000: "Fine"} {
		at := h.Cheapest(map[house.Limit]*house.Found{house.Track: {Value: wide}})
		require.GreaterOrEqual(t, at, 0)
		assert.Equal(t, class, h.Classes[at].Name, "%d", wide)
	}
}
