package parts_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func TestPadTables(t *testing.T) {
	mm := units.MMf
	for name, x := range map[string]struct {
		text, unit string
		want       []design.Pad
	}{
		"headed, with units in the headings": {"Pad,X (mm),Y [mil],W,H,Drill,Shape,Angle\n1,0,0,1.6,1.6,0.8,round,\n2,17.5/2,100,2,1,,rounded,90\n", "mm", []design.Pad{
			{Number: "1", Form: "round", Size: geom.Pt(mm(1.6), mm(1.6)), Hole: mm(0.8)},
			{Number: "2", Form: "rounded", At: geom.Pt(mm(8.75), mm(2.54)), Size: geom.Pt(mm(2), mm(1)), Corner: mm(0.25), Angle: 90_000}}},
		"without headings, apart by tabs": {"A\t-3,25\t1\t2\nB\t3.25\t1 in\t2\n", "mm", []design.Pad{
			{Number: "A", Form: "rect", At: geom.Pt(mm(-3.25), mm(1)), Size: geom.Pt(mm(2), mm(2))}, {Number: "B", Form: "rect", At: geom.Pt(mm(3.25), mm(25.4)), Size: geom.Pt(mm(2), mm(2))}}},
		"in mils, a slot's pad oval": {"number;x;y;width;height;hole;rot\n1;100;0;80;60;40;-90\n", "mil", []design.Pad{
			{Number: "1", Form: "oval", At: geom.Pt(mm(2.54), 0), Size: geom.Pt(mm(2.032), mm(1.524)), Hole: mm(1.016), Angle: 270_000}}},
	} {
		l, err := parts.ReadPadList(x.text, nil, x.unit)
		require.NoError(t, err, name)
		assert.Empty(t, l.Wrong, name)
		assert.Equal(t, x.want, l.Pads, name)
	}
	l, err := parts.ReadPadList("x,y\n1,2\n", nil, "mm")
	require.NoError(t, err)
	assert.Equal(t, []string{"No column holds the pads' width."}, l.Wrong)
	l, err = parts.ReadPadList("number,x,y,width,form,hole,turn\n1,0,0,0,,,\n2,a,0,1,,,\n3,0,0,1,star,,\n4,0,0,1,,1,\n5,0,0,1,,,400\n6,0,0,1,,,\n", nil, "mm")
	require.NoError(t, err)
	assert.Len(t, l.Pads, 1, "what is right is shown beside what is wrong")
	for i, say := range []string{"Row 1: pad 1 would be 0 mm by 0 mm", "Row 2: ", "Row 3: “star” is no form", "Row 4: the hole of pad 4 (1 mm) is not smaller", "Row 5: “400” is no angle"} {
		assert.Contains(t, l.Wrong[i], say)
	}
	l, err = parts.ReadPadList("0,0,1,1\n", []string{"x", "y", "width", "skip"}, "mm")
	require.NoError(t, err)
	assert.Equal(t, []design.Pad{{Form: "rect", Size: geom.Pt(mm(1), mm(1))}}, l.Pads, "as the columns were named")
	for say, text := range map[string]string{"is empty": " \n", "has 3000 rows; 2000 pads": strings.Repeat("1,0,0,1\n", 3000), "proper text": "\xff\xfe", "60 columns": strings.Repeat("1,", 59) + "1"} {
		_, err := parts.ReadPadList(text, nil, "mm")
		assert.ErrorContains(t, err, say)
	}
	_, err = parts.ReadPadList("1,2\n", []string{"x", "smell"}, "mm")
	assert.ErrorContains(t, err, `"smell" is not something a column of pads holds`)
	_, err = parts.ReadPadList("1,2\n", []string{"x"}, "mm")
	assert.ErrorContains(t, err, "has 2 columns, 1 were named")
}

// shelves of a project with one part of its own, and libraries with another.
type shelves struct {
	own, any map[string]*design.LibraryPart
}

func (s shelves) Own(n string) *design.LibraryPart { return s.own[n] }
func (s shelves) Any(n string) *design.LibraryPart {
	if p := s.own[n]; p != nil {
		return p
	}
	return s.any[n]
}
func (s shelves) Has(f string) bool { return f == "0603" || f == "0805" }

func TestPartTables(t *testing.T) {
	resistor := &design.LibraryPart{Name: "Resistor", Symbol: "R", Prefix: "R", Footprint: "0603", Description: "A resistor", Densities: map[string]string{"nominal": "0603"}, Origin: design.Origin{Library: "shipped", Version: 3}}
	mine := &design.LibraryPart{ID: 7, Name: "Mine", Symbol: "R", Prefix: "R", Footprint: "0603", Value: "1k", Checked: &design.Checked{By: "Alder"}, Order: map[string]string{"maker": "Sennick"}}
	from := shelves{map[string]*design.LibraryPart{"Mine": mine}, map[string]*design.LibraryPart{"Resistor": resistor}}
	read := func(text string) *parts.PartTable {
		t.Helper()
		l, err := parts.ReadPartTable(text, nil, from)
		require.NoError(t, err)
		return l
	}
	l := read("Name,Like,Value,Package,Manufacturer,Manufacturer part number\nTen k,Resistor,10k,0805,Quillfeather,QF-10\nMine,,2k,,,\n")
	require.Len(t, l.Parts, 2)
	assert.Equal(t, design.LibraryPart{Name: "Ten k", Symbol: "R", Prefix: "R", Footprint: "0805", Value: "10k", Description: "A resistor", Order: map[string]string{"maker": "Quillfeather", "part number": "QF-10"}}, l.Parts[0].Part,
		"as the other one but for what the row says; its densities are of another footprint, and nobody checked it")
	assert.Equal(t, "new", l.Parts[0].State)
	assert.Equal(t, "changed", l.Parts[1].State)
	assert.Equal(t, []string{"value “2k” instead of “1k”"}, l.Parts[1].Changes)
	assert.Equal(t, design.ID(7), l.Parts[1].Part.ID)
	assert.Nil(t, l.Parts[1].Part.Checked, "it is not what was checked")
	assert.Equal(t, "Sennick", l.Parts[1].Part.Order["maker"], "what is not said stays")

	l = read("name;value\nMine;1k\nResistor;3k\n;1\nOther;1\nMine;2k\n")
	assert.Equal(t, "same", l.Parts[0].State)
	assert.NotNil(t, l.Parts[0].Part.Checked)
	assert.Equal(t, "new", l.Parts[1].State, "one of the libraries is new to the project")
	for i, say := range []string{"", "", "The row has no name.", "Other is new; name a part that it is like", "Rows 1 and 5 both name Mine."} {
		assert.Contains(t, l.Parts[i].Wrong, say)
		assert.Equal(t, say == "", l.Parts[i].Wrong == "")
	}
	l = read("name,like,footprint\nA,Nothing,\nB,Resistor,9999\n")
	assert.Equal(t, "There is no part called “Nothing” that it could be like.", l.Parts[0].Wrong)
	assert.Equal(t, "There is no footprint called “9999”.", l.Parts[1].Wrong)
	l = read("smell,taste\n1,2\n")
	assert.Empty(t, l.Parts)
	assert.Equal(t, []string{"No column holds the parts' names; say which one does."}, l.Notes)
	_, err := parts.ReadPartTable(strings.Repeat("a,b\n", 1500), nil, from)
	assert.ErrorContains(t, err, "1000 parts are the most")
}
