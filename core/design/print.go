package design

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
)

// Print is a number that tells the content of an object from any other, from its kind, its id and how
// it is written.
func Print(kind Kind, id ID, body []byte) uint64 {
	h := fnv.New64a()
	fmt.Fprintf(h, "%s %d ", kind, id)
	h.Write(body)
	return h.Sum64()
}

// PrintOf an object; nothing for one from which no file follows.
func PrintOf(o Object) uint64 {
	if of[o.ObjectKind()].apart {
		return 0
	}
	body, err := json.Marshal(o)
	if err != nil {
		return 0
	}
	return Print(o.ObjectKind(), o.ObjectID(), body)
}
