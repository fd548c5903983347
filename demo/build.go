// Package demo builds the demo projects by running the same edit commands that a person's
// hand runs, so that building them tests the commands. All of it is made up.
package demo

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Names lists the demo projects.
func Names() []string {
	return []string{"Moth Lamp", "Moth Lamp, first try", "Weir Gauge", "Loom Bridge"}
}

// Build makes a demo project.
func Build(name string) (*design.Doc, error) {
	switch name {
	case "Moth Lamp":
		return mothLamp(false)
	case "Moth Lamp, first try":
		return mothLamp(true)
	case "Loom Bridge":
		return loomBridge()
	case "Weir Gauge":
		return weirGauge(func(b *builder) { b.layTracks(weirTracks) })
	}
	return nil, fmt.Errorf("there is no demo project called %q; there are %q", name, Names())
}

// builder runs commands one after the other until one is refused.
type builder struct {
	bench *workbench.Bench
	sheet design.ID
	err   error
}

func newBuilder(title string) *builder {
	d := design.New(title)
	unfilled := func(*workbench.Bench) func(workbench.Beside) { return func(workbench.Beside) {} } // nobody looks at what areas fill meanwhile
	return &builder{bench: workbench.OpenWith(d, 0, unfilled), sheet: d.SheetsInOrder()[0].ID}
}

func (b *builder) do(c edit.Command) {
	if b.err == nil {
		if _, err := b.bench.Edit(c); err != nil {
			b.err = fmt.Errorf("%T: %w", c, err)
		}
	}
}

func at(x, y float64) geom.Point { return geom.Pt(units.MMf(x), units.MMf(y)) }

// part places a part with a designator and value; turn in quarters.
func (b *builder) part(library, designator, value string, x, y float64, turn int, mirror bool) {
	b.do(&edit.PlacePart{Sheet: b.sheet, Library: library, Designator: designator, Value: &value, At: at(x, y), Turn: turn, Mirror: mirror})
}

// wire draws through places given in millimetres, pair by pair.
func (b *builder) wire(mm ...float64) {
	b.do(&edit.DrawWire{Sheet: b.sheet, Path: places(mm)})
}

func (b *builder) ground(x, y float64) {
	b.do(&edit.PlaceSupply{Sheet: b.sheet, Name: "GND", Shape: "ground", At: at(x, y)})
}

// onBoard gives a part its place.
func (b *builder) onBoard(designator string, x, y float64, degrees int) {
	if b.err != nil {
		return
	}
	for p := range b.bench.Doc.Placed.All() {
		if p.Designator == designator {
			px, py, a := units.MMf(x), units.MMf(y), int32(degrees)*1000
			b.do(&edit.SetPlaced{ID: p.ID, X: &px, Y: &py, Angle: &a})
			return
		}
	}
	b.err = fmt.Errorf("%s did not arrive on the board", designator)
}

// places are places in millimetres, pair by pair.
func places(mm []float64) (path []geom.Point) {
	for i := 0; i+1 < len(mm); i += 2 {
		path = append(path, at(mm[i], mm[i+1]))
	}
	return path
}

// track lays a track of the net that a pad bears ("R1.2") on a copper layer.
func (b *builder) track(pad string, layer int, mm ...float64) {
	if b.err != nil {
		return
	}
	net := design.ID(0)
	for c := range b.bench.Index().All() {
		if c.Name == "pad "+pad {
			net = c.Net
		}
	}
	path := places(mm)
	b.do(&edit.DrawTrack{Net: net, Runs: []edit.Run{{Layer: b.bench.Doc.Board.At(layer), Path: geom.Corners(path...)}}})
	if b.err != nil {
		b.err = fmt.Errorf("track from %s at %v: %w", pad, slices.Clone(path), b.err)
	}
}

// checked says of all parts but those named that somebody held them against their datasheets.
func (b *builder) checked(but ...string) {
	c := &edit.SetChecked{By: "M. Alder", On: "2026-11-20"}
	for p := range b.bench.Doc.LibraryParts.All() {
		if !slices.Contains(but, p.Name) {
			c.Parts = append(c.Parts, p.ID)
		}
	}
	b.do(c)
}

func text(s string) *string { return &s }

// excuse excuses all findings of a kind for a reason.
func (b *builder) excuse(kind, reason string) {
	if b.err != nil {
		return
	}
	var list []edit.Excuse
	for _, f := range b.bench.Findings() {
		if f.Kind == kind {
			list = append(list, edit.Excuse{Key: f.Key, Fingerprint: f.Fingerprint, Text: f.Text, Reason: reason})
		}
	}
	b.do(&edit.ExcuseAlike{Excuses: list})
}
