// Package design is the document: the sheets, parts, wires, library items, board, tracks
// and vias of one project, as plain data with their invariants. Lengths are nanometres,
// angles millidegrees, x right and y up. Objects are never changed in place once they are
// in a document: a changed object is a new value put under the same id.
package design

import (
	"encoding/json"
	"fmt"
)

// ID names an object within its project; ids are never used twice.
type ID int64

// Kind tells what an object is.
type Kind string

// The kinds of object, as they stand in files and on the wire.
const (
	KindSettings    Kind = "settings"
	KindChecks      Kind = "checks"
	KindSheet       Kind = "sheet"
	KindSymbol      Kind = "symbol"
	KindFootprint   Kind = "footprint"
	KindLibraryPart Kind = "libraryPart"
	KindAsset       Kind = "asset"
	KindPart        Kind = "part"
	KindWire        Kind = "wire"
	KindLabel       Kind = "label"
	KindPort        Kind = "port"
	KindTap         Kind = "tap"
	KindSupply      Kind = "supply"
	KindOpenMark    Kind = "openMark"
	KindBlock       Kind = "block"
	KindCluster     Kind = "cluster"
	KindNote        Kind = "note"
	KindPicture     Kind = "picture"
	KindTiming      Kind = "timing"
	KindShape       Kind = "shape"
	KindNetSpec     Kind = "netSpec"
	KindExcuse      Kind = "excuse"
	KindBoard       Kind = "board"
	KindPlaced      Kind = "placed"
	KindTrack       Kind = "track"
	KindVia         Kind = "via"
	KindHole        Kind = "hole"
	KindLegend      Kind = "legend"
)

// Object is anything a document holds.
type Object interface {
	ObjectID() ID
	ObjectKind() Kind
	// Valid says in a sentence what is wrong with the object taken by itself.
	Valid() error
	withID(ID) Object
}

// catalog lists the kinds as they stand in a file: what others refer to comes first.
var catalog = []struct {
	kind  Kind
	blank func() Object
}{
	{KindSettings, func() Object { return &Settings{} }},
	{KindChecks, func() Object { return &Checks{} }},
	{KindSheet, func() Object { return &Sheet{} }},
	{KindSymbol, func() Object { return &Symbol{} }},
	{KindFootprint, func() Object { return &Footprint{} }},
	{KindLibraryPart, func() Object { return &LibraryPart{} }},
	{KindAsset, func() Object { return &Asset{} }},
	{KindPart, func() Object { return &Part{} }},
	{KindWire, func() Object { return &Wire{} }},
	{KindLabel, func() Object { return &Label{} }},
	{KindPort, func() Object { return &Port{} }},
	{KindTap, func() Object { return &Tap{} }},
	{KindSupply, func() Object { return &Supply{} }},
	{KindOpenMark, func() Object { return &OpenMark{} }},
	{KindBlock, func() Object { return &SheetBlock{} }},
	{KindCluster, func() Object { return &Cluster{} }},
	{KindNote, func() Object { return &Note{} }},
	{KindPicture, func() Object { return &Picture{} }},
	{KindTiming, func() Object { return &Timing{} }},
	{KindShape, func() Object { return &Graphic{} }},
	{KindNetSpec, func() Object { return &NetSpec{} }},
	{KindExcuse, func() Object { return &Excuse{} }},
	{KindBoard, func() Object { return &Board{} }},
	{KindPlaced, func() Object { return &Placed{} }},
	{KindTrack, func() Object { return &Track{} }},
	{KindVia, func() Object { return &Via{} }},
	{KindHole, func() Object { return &Hole{} }},
	{KindLegend, func() Object { return &Legend{} }},
}

var blank = func() map[Kind]func() Object {
	out := map[Kind]func() Object{}
	for _, k := range catalog {
		out[k.kind] = k.blank
	}
	return out
}()

// Kinds lists all kinds, in the order in which they stand in a file.
func Kinds() []Kind {
	out := make([]Kind, len(catalog))
	for i, k := range catalog {
		out[i] = k.kind
	}
	return out
}

// Blank is an empty object of the kind, or nil.
func Blank(kind Kind) Object {
	if f, ok := blank[kind]; ok {
		return f()
	}
	return nil
}

// Decode reads one object of the given kind from JSON and checks it.
func Decode(kind Kind, data []byte) (Object, error) {
	empty, ok := blank[kind]
	if !ok {
		return nil, fmt.Errorf("%q is not a kind of object this version knows", kind)
	}
	o := empty()
	if err := json.Unmarshal(data, o); err != nil {
		return nil, fmt.Errorf("a %s cannot be read: %w", kind, err)
	}
	if o.ObjectID() <= 0 {
		return nil, fmt.Errorf("a %s has no id", kind)
	}
	if err := o.Valid(); err != nil {
		return nil, err
	}
	return o, nil
}

// WithID is the object under another id; the original stays as it was.
func WithID(o Object, id ID) Object { return o.withID(id) }
