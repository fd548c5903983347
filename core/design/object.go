// Package design is the document: the sheets, parts, wires, library items, board, tracks
// and vias of one project, as plain data with their invariants. Lengths are nanometres,
// angles millidegrees, x right and y up. Objects are never changed in place once they are
// in a document: a changed object is a new value put under the same id.
package design

import (
	"encoding/json"
	"fmt"

	quick "github.com/go-json-experiment/json"

	"goldentrace/core/reading"
)

// ID names an object within its project; ids are never used twice.
type ID int64

// Kind tells what an object is.
type Kind string

// The kinds of object, as they stand in files and on the wire.
const (
	KindSettings    Kind = "settings"
	KindChecks      Kind = "checks"
	KindBasket      Kind = "basket"
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
	KindNet         Kind = "net"
	KindExcuse      Kind = "excuse"
	KindBoard       Kind = "board"
	KindRuleArea    Kind = "ruleArea"
	KindRule        Kind = "rule"
	KindPlaced      Kind = "placed"
	KindTrack       Kind = "track"
	KindVia         Kind = "via"
	KindHole        Kind = "hole"
	KindLegend      Kind = "legend"
	KindFigure      Kind = "figure"
	KindDimension   Kind = "dimension"
	KindPour        Kind = "pour"
	KindStitching   Kind = "stitching"
	KindLayerSet    Kind = "layerSet"
	KindTint        Kind = "tint"
	KindHouse       Kind = "house"
)

// Object is anything a document holds.
type Object interface {
	ObjectID() ID
	ObjectKind() Kind
	// Valid says in a sentence what is wrong with the object taken by itself.
	Valid() error
	withID(ID) Object
}

// Decode reads one object of the present version from JSON and checks it.
func Decode(kind Kind, data []byte) (Object, error) { return DecodeOf(Version, kind, data) }

// DecodeOf reads one object as a version wrote it. One that changed its meaning since, together with
// others around it, cannot be read alone: the error is ErrEarlier; Upgrade reads it with its document.
func DecodeOf(version int, kind Kind, data []byte) (Object, error) {
	k, ok := of[kind]
	if was, ok := renamed[kind]; ok && version < was {
		return nil, ErrEarlier
	}
	switch {
	case !ok:
		return nil, fmt.Errorf("%q is not a kind of object this version knows", kind)
	case version < k.since:
		return nil, ErrEarlier
	}
	if k.mend != nil && version < Version {
		data = k.mend(version, data)
	}
	o := k.blank()
	if quick.Unmarshal(data, o, quick.RejectUnknownMembers(true)) != nil {
		o = k.blank() // what the strict reader does not take, the usual one may
		if err := json.Unmarshal(data, o); err != nil {
			return nil, fmt.Errorf("a %s cannot be read: %w", kind, reading.Wrong(err))
		}
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
