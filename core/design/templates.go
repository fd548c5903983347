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
	make func(b *Board)
}

// Templates lists them, the plainest first.
func Templates() []Template {
	return []Template{
		{"empty", "Empty", "One sheet, a board of two copper layers, no outline yet.", func(*Board) {}},
		{"oneSided", "One-sided", "Copper below, parts above; wide tracks for simple etching, 80 × 50 mm.", func(b *Board) {
			b.Stack = []StackLayer{{Name: "Core", Thickness: 1_565_000, Material: "FR-4"}, {Name: "Bottom", Copper: true, Thickness: 35_000, Material: "Copper"}}
			b.Rules.TrackWidth, b.Rules.LeastWidth, b.Rules.Clearance = 800_000, 400_000, 400_000
			b.Rules.LeastRing, b.Rules.LeastHole, b.Rules.ViaDiameter, b.Rules.ViaHole = 400_000, 600_000, 1_800_000, 800_000
			b.Outline = rectangle(80_000_000, 50_000_000)
		}},
		{"twoSided", "Two-sided", "Two copper layers, 1.6 mm thick, rules every fabricator keeps, 100 × 80 mm.", func(b *Board) {
			b.Outline = rectangle(100_000_000, 80_000_000)
		}},
		{"fourLayer", "Four-layer", "Two inner copper layers between prepregs, 0.15 mm tracks and gaps, 100 × 80 mm.", func(b *Board) {
			b.Stack = FourLayers()
			b.Rules.TrackWidth, b.Rules.LeastWidth, b.Rules.Clearance = 200_000, 150_000, 150_000
			b.Rules.ViaDiameter, b.Rules.ViaHole = 600_000, 300_000
			b.Outline = rectangle(100_000_000, 80_000_000)
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
	list[at].make(d.Board)
	return d, nil
}

func rectangle(w, h int64) []geom.Point {
	return []geom.Point{{}, {X: w}, {X: w, Y: h}, {Y: h}}
}

// FourLayers is a usual stack of four copper layers, 1.6 mm thick: 35 µm outside and inside, a
// thick core between two prepregs.
func FourLayers() []StackLayer {
	return []StackLayer{
		{Name: "Top", Copper: true, Thickness: 35_000, Material: "Copper"},
		{Name: "Prepreg 1", Thickness: 210_000, Material: "FR-4"},
		{Name: "Inner 1", Copper: true, Thickness: 35_000, Material: "Copper"},
		{Name: "Core", Thickness: 1_040_000, Material: "FR-4"},
		{Name: "Inner 2", Copper: true, Thickness: 35_000, Material: "Copper"},
		{Name: "Prepreg 2", Thickness: 210_000, Material: "FR-4"},
		{Name: "Bottom", Copper: true, Thickness: 35_000, Material: "Copper"},
	}
}
