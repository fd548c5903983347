// Package find searches the texts of a circuit: designators, values, fields, names of nets,
// ports, blocks and clusters, notes and timing diagrams.
package find

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Query says what to look for. Kinds limits it to values, names, designators or texts;
// empty: all of them.
type Query struct {
	Text  string   `json:"text"`
	Case  bool     `json:"case,omitempty"`  // capitals count
	Whole bool     `json:"whole,omitempty"` // the whole text, not a part of it
	Kinds []string `json:"kinds,omitempty"`
}

// Hit is one text in which it was found.
type Hit struct {
	ID    design.ID  `json:"id"`
	Field string     `json:"field"`
	Text  string     `json:"text"`
	What  string     `json:"what"` // of which thing: "value of R3"
	Sheet design.ID  `json:"sheet"`
	At    geom.Point `json:"at"`
}

// Kinds of texts.
var Kinds = []string{"values", "names", "designators", "texts"}

type entry struct{ field, kind, text, what string }

// entries lists the texts of an object.
func entries(o design.OnSheet) []entry {
	switch o := o.(type) {
	case *design.Part:
		out := []entry{{"designator", "designators", o.Designator, "designator"}, {"value", "values", o.Value, "value of " + o.Designator}}
		for _, f := range slices.Sorted(maps.Keys(o.Fields)) {
			out = append(out, entry{f, "values", o.Fields[f], fmt.Sprintf("%s of %s", f, o.Designator)})
		}
		return out
	case *design.Label:
		return []entry{{"name", "names", o.Name, "net label"}}
	case *design.Port:
		return []entry{{"name", "names", o.Name, "port"}}
	case *design.Tap:
		return []entry{{"name", "names", o.Member, "tap"}}
	case *design.Supply:
		return []entry{{"name", "names", o.Name, "supply"}}
	case *design.SheetBlock:
		return []entry{{"name", "names", o.Name, "block"}}
	case *design.Cluster:
		return []entry{{"name", "texts", o.Title, "cluster"}}
	case *design.Note:
		return []entry{{"text", "texts", o.Text, "note"}}
	case *design.Timing:
		return []entry{{"text", "texts", o.Text, "timing diagram"}}
	}
	return nil
}

// TextOf is the text of an object's field.
func TextOf(o design.OnSheet, field string) (string, bool) {
	for _, e := range entries(o) {
		if e.field == field {
			return e.text, true
		}
	}
	return "", false
}

func (q Query) pattern() *regexp.Regexp {
	p := regexp.QuoteMeta(q.Text)
	if q.Whole {
		p = `\A` + p + `\z`
	}
	if !q.Case {
		p = "(?i)" + p
	}
	return regexp.MustCompile(p)
}

// Find lists what the query finds, sheet by sheet.
func Find(d *design.Doc, q Query) []Hit {
	if q.Text == "" {
		return nil
	}
	p := q.pattern()
	var out []Hit
	for _, s := range d.SheetsInOrder() {
		var here []Hit
		for _, o := range d.ItemsOf(s.ID) {
			for _, e := range entries(o) {
				if (len(q.Kinds) == 0 || slices.Contains(q.Kinds, e.kind)) && p.MatchString(e.text) {
					here = append(here, Hit{o.ObjectID(), e.field, e.text, e.what, s.ID, placeOf(o)})
				}
			}
		}
		slices.SortStableFunc(here, func(a, b Hit) int { return circuit.CompareNatural(a.What+a.Text, b.What+b.Text) })
		out = append(out, here...)
	}
	return out
}

// Replace puts the new words in the place of those looked for; it tells whether it found any.
func (q Query) Replace(text, with string) (string, bool) {
	if q.Text == "" {
		return text, false
	}
	next := q.pattern().ReplaceAllLiteralString(text, with)
	return strings.TrimSpace(next), next != text
}

func placeOf(o design.OnSheet) geom.Point {
	switch o := o.(type) {
	case *design.Part:
		return o.At
	case *design.Label:
		return o.At
	case *design.Port:
		return o.At
	case *design.Tap:
		return o.At
	case *design.Supply:
		return o.At
	case *design.SheetBlock:
		return o.At.Add(geom.Pt(o.Size.X/2, o.Size.Y/2))
	case *design.Cluster:
		return geom.Pt(o.Box().Min.X, o.Box().Max.Y)
	case *design.Note:
		return o.At
	case *design.Timing:
		return o.At
	}
	return geom.Point{}
}
