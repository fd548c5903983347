package design_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// A shared document stays as it was, whatever becomes of the one it was of, and the other way round; what
// is found by name and sheet follows each.
func TestSharedDocumentsPart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("shared")
		texts := map[design.ID]string{}
		sheet := d.SheetsInOrder()[0].ID
		edit := func(d *design.Doc, texts map[design.ID]string) {
			for range rapid.IntRange(0, 6).Draw(t, "edits") {
				id := design.ID(rapid.Int64Range(100, 105).Draw(t, "id"))
				if rapid.Bool().Draw(t, "put") {
					texts[id] = rapid.SampledFrom([]string{"A", "B", "C"}).Draw(t, "text")
					d.Put(&design.Label{ID: id, Sheet: sheet, Name: texts[id], At: geom.Pt(0, 0)})
				} else {
					delete(texts, id)
					d.Remove(design.KindLabel, id)
				}
			}
			if rapid.Bool().Draw(t, "title") {
				s := *d.Settings
				s.Title = rapid.SampledFrom([]string{"one", "two"}).Draw(t, "to")
				texts[design.SettingsID] = s.Title
				d.Put(&s)
			}
		}
		same := func(texts map[design.ID]string, d *design.Doc) {
			got := map[design.ID]string{}
			for l := range d.Labels.All() {
				got[l.ID] = l.Name
			}
			if title, said := texts[design.SettingsID]; said {
				assert.Equal(t, title, d.Settings.Title)
			}
			on := map[design.ID]bool{}
			for _, o := range d.ItemsOf(sheet) {
				on[o.ObjectID()] = true
			}
			delete(texts, design.SettingsID)
			assert.Equal(t, texts, got)
			assert.Equal(t, slices.Sorted(maps.Keys(texts)), slices.Sorted(maps.Keys(on)))
			for id := range texts {
				assert.NotNil(t, d.Get(id))
			}
		}
		edit(d, texts)
		then := maps.Clone(texts)
		shared := d.Share()
		edit(d, texts)
		was := shared.Doc()
		again := maps.Clone(then)
		third := was.Snapshot()
		edit(was, then)
		edit(d, texts)
		same(texts, d)
		same(then, was)
		same(again, third)
	})
}
