package design

import (
	"encoding/json"
	"errors"
	"fmt"
)

// Version of what a document's objects mean. Every stored object, every row of a journal and every
// project file says the version it was written in; all earlier ones are read for ever.
//
//	1: a track names its copper layer by its position and its net by name; rules are numbers of the board
//	2: layers and nets have ids, rules are objects
//	3: there is a rule of the spacing of parts
//	4: there are copper areas, and rules of how they join pads
//	5: layers of the stack say what they are of; mask and silk are layers of it
//	6: there are rules of the mask, of what is printed, of holes to copper and of the height of parts
//	7: there is a rule of the clearance between pads of one part
const Version = 7

// ErrEarlier says that an object of an earlier version cannot be read without its document.
var ErrEarlier = errors.New("it was written by an earlier version of Golden Trace, which said it otherwise")

// renamed are kinds of earlier versions that are called otherwise now, with the version since when.
var renamed = map[Kind]int{"netSpec": 2}

// Raw is an object as it was written, before it is read.
type Raw struct {
	Kind Kind
	ID   ID
	Body json.RawMessage
	Line int // of a file; 0: it comes from elsewhere
}

// upgrades are the steps from each version to the next: the first from 1 to 2.
var upgrades = []func(objects []Raw, next ID) ([]Raw, ID, error){toTwo, toThree, toFour, toFive, toSix, toSeven}

// Upgrade brings the objects of a whole document from the version they were written in to the present
// one, step by step, and tells the next free id. What it cannot make sense of it leaves as it is, to be
// refused or said by who reads it.
func Upgrade(version int, objects []Raw, next ID) ([]Raw, ID, error) {
	if version < 1 || version > Version {
		return nil, 0, fmt.Errorf("it is of version %d; this program reads versions 1 to %d", version, Version)
	}
	for v := version; v < Version; v++ {
		var err error
		if objects, next, err = upgrades[v-1](objects, next); err != nil {
			return nil, 0, fmt.Errorf("it cannot be brought from version %d to %d: %w", v, v+1, err)
		}
	}
	return objects, next, nil
}
