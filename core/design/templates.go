package design

import (
	"fmt"
	"slices"

	"goldentrace/core/geom"
)

// Template is what a project can start from: stack, rules and outline already set.
type Template struct {
	Key  string `json:"key"`
	Name string `json:"name"`
	Text string `json:"text"`
	make func(d *Doc)
}

// Templates lists them, the plainest first.
func Templates() []Template {
	return []Template{
		{"empty", "Empty", "One sheet, a board of two copper layers, no outline yet.", func(*Doc) {}},
		{"oneSided", "One-sided", "Copper below, parts above; wide tracks for simple etching, 80 × 50 mm.", func(d *Doc) {
			d.shape(80_000_000, 50_000_000, oneBelow())
			d.SetBase(map[RuleKind]int64{TrackWidth: 800_000, LeastWidth: 400_000, Clearance: 400_000, WithinPart: 400_000, LeastRing: 400_000, LeastHole: 600_000, ViaDiameter: 1_800_000, ViaHole: 800_000})
		}},
		{"twoSided", "Two-sided", "Two copper layers, 1.6 mm thick, rules every fabricator keeps, 100 × 80 mm.", func(d *Doc) {
			d.shape(100_000_000, 80_000_000, TwoLayers())
		}},
		{"fourLayer", "Four-layer", "Two inner copper layers between prepregs, 0.15 mm tracks and gaps, 100 × 80 mm.", func(d *Doc) {
			d.shape(100_000_000, 80_000_000, FourLayers())
			d.SetBase(map[RuleKind]int64{TrackWidth: 200_000, LeastWidth: 150_000, Clearance: 150_000, ViaDiameter: 600_000, ViaHole: 300_000})
		}},
	}
}

// FromTemplate is a new document of a template.
func FromTemplate(key, title string) (*Doc, error) {
	list := Templates()
	at := slices.IndexFunc(list, func(t Template) bool { return t.Key == key })
	if at < 0 {
		return nil, fmt.Errorf("there is no template called %q", key)
	}
	d := New(title)
	list[at].make(d)
	return d, nil
}

// shape gives the board an outline and a stack.
func (d *Doc) shape(w, h int64, stack []StackLayer) {
	b := Board{ID: BoardID}.Stacked(stack)
	b.Outline = geom.Corners(geom.Point{}, geom.Pt(w, 0), geom.Pt(w, h), geom.Pt(0, h))
	d.Put(b)
}
