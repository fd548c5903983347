package design

import "encoding/json"

// From version 6 to 7. What is asked for between pads of one part has a rule of its own: what was asked for between any copper, without what
// rules of nets and of areas asked for beyond.
func toSeven(objects []Raw, next ID) ([]Raw, ID, error) {
	within := Rule{Kind: WithinPart, Order: 22, Value: Fixed(Usual()[Clearance])}
	for _, o := range objects {
		next = max(next, o.ID+1, FirstFree)
		var r Rule
		if o.Kind == KindRule && json.Unmarshal(o.Body, &r) == nil && r.Kind == Clearance && r.Everywhere() {
			within.Value, within.Inner = r.Value, r.Inner
		}
	}
	within.ID = next
	return append(objects, raw(&within)), next + 1, nil
}
