package edit

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"goldentrace/core/design"
	"goldentrace/core/ordering"
	"goldentrace/core/units"
)

// What the entries of objects are called in a sentence, where that is not how they are written; those that are places only where they are.
var entryWords = map[string]string{"at": "place", "notFitted": "left out", "mid": "curve", "bottom": "side"}

var placeWords = map[string]string{"a": "beginning", "b": "end"}

// What the numbers of entries are; of others no number is told, since nobody would know of what.
var (
	lengthEntries = map[string]bool{"width": true, "height": true, "diameter": true, "hole": true, "clearance": true, "pitch": true,
		"apart": true, "thickness": true, "distance": true, "stroke": true, "r": true}
	quantityEntries = map[string]struct {
		of   float64
		unit string
	}{"current": {1e-6, "A"}, "voltage": {1e-6, "V"}, "impedance": {1e-3, "Ω"}}
)

// longestWorded is how long a text may be that is repeated in a sentence.
const longestWorded = 80

// Differing tells in words how an object differs from what it was, an entry each: "its width was 0.25 mm and is 0.4 mm now". Of what has no
// few words it tells that it was another.
func Differing(d *design.Doc, before, after design.Object) (out []string) {
	was, err := entriesOf(before)
	is, err2 := entriesOf(after)
	if err != nil || err2 != nil {
		return nil
	}
	keys := map[string]bool{}
	for k := range was {
		keys[k] = true
	}
	for k := range is {
		keys[k] = true
	}
	for _, k := range slices.Sorted(maps.Keys(keys)) {
		if bytes.Equal(was[k], is[k]) {
			continue
		}
		a, b := worded(d, k, was[k], is[k]), worded(d, k, is[k], was[k])
		name := cmp.Or(entryWords[k], spaced(k))
		if word, ok := placeWords[k]; ok {
			name = "scope" // of a rule
			if a != "" && b != "" {
				name = word
			}
		}
		if on := string(is[k]) == "true"; on || string(was[k]) == "true" {
			if k != "bottom" {
				out = append(out, map[bool]string{true: "it is " + name + " now", false: "it is not " + name + " any more"}[on])
				continue
			}
		}
		if a == "" || b == "" || a == b {
			out = append(out, fmt.Sprintf("its %s was another", name))
		} else {
			out = append(out, fmt.Sprintf("its %s was %s and is %s now", name, a, b))
		}
	}
	return out
}

func entriesOf(o design.Object) (out map[string]json.RawMessage, err error) {
	data, err := json.Marshal(o)
	if err != nil {
		return nil, err
	}
	return out, json.Unmarshal(data, &out)
}

// spaced writes a name of two words as two: notFitted as not fitted.
func spaced(key string) string {
	var b strings.Builder
	for _, r := range key {
		if unicode.IsUpper(r) {
			b.WriteByte(' ')
		}
		b.WriteRune(unicode.ToLower(r))
	}
	return b.String()
}

// worded writes an entry; where it is left out, as the nothing of what stands there otherwise. Empty: it has no few words.
func worded(d *design.Doc, key string, raw, other json.RawMessage) string {
	like := raw
	if len(like) == 0 {
		like = other
	}
	switch like[0] {
	case '"':
		var s string
		if len(raw) > 0 && json.Unmarshal(raw, &s) != nil {
			return ""
		}
		switch {
		case s == "":
			return "nothing"
		case len(s) > longestWorded:
			return "a longer text"
		}
		return s
	case 't', 'f':
		on := string(raw) == "true"
		return map[bool]string{true: "the lower one", false: "the upper one"}[on]
	case '{':
		var p struct{ X, Y *int64 }
		if json.Unmarshal(raw, &p) != nil || p.X == nil || p.Y == nil {
			return ""
		}
		return fmt.Sprintf("%s, %s", units.Text(*p.X), units.Text(*p.Y))
	case '[', 'n':
		return ""
	}
	n := int64(0)
	if len(raw) > 0 {
		var err error
		if n, err = strconv.ParseInt(string(raw), 10, 64); err != nil {
			return ""
		}
	}
	switch {
	case lengthEntries[key]:
		return units.Text(n)
	case key == "angle":
		return strconv.FormatFloat(float64(n)/1000, 'f', -1, 64) + "°"
	case key == "turn":
		return fmt.Sprintf("%d°", n*90)
	case key == "net":
		if n == 0 {
			return "none"
		}
		return d.NetName(design.ID(n))
	case key == "layer":
		if l := d.Board.Layer(design.LayerID(n)); l != nil {
			return l.Name
		}
		return ""
	}
	if q, ok := quantityEntries[key]; ok {
		if n == 0 {
			return "nothing"
		}
		return ordering.Quantity(float64(n)*q.of, q.unit)
	}
	return ""
}
