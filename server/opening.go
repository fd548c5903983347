package server

import (
	"iter"
	"slices"

	"goldentrace/core/columns"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Boxed is an object with its kind.
type Boxed struct {
	Kind   design.Kind   `json:"kind"`
	Object design.Object `json:"object"`
}

// Parcel is a part of a project's objects.
type Parcel struct {
	Objects  []Boxed           `json:"objects,omitempty"`
	Copper   *columns.Copper   `json:"copper,omitempty"`
	Patterns []layout.Pattern  `json:"patterns,omitempty"` // of the footprints among the objects
	Texts    []layout.Lettered `json:"texts,omitempty"`    // of the texts in outline fonts among them
}

// onBoard are the kinds that the board is drawn from.
var onBoard = []design.Kind{design.KindSettings, design.KindFootprint, design.KindNet, design.KindBoard, design.KindRuleArea, design.KindRule, design.KindPlaced,
	design.KindTrack, design.KindVia, design.KindHole, design.KindLegend, design.KindFigure, design.KindDimension, design.KindPour, design.KindStitching,
	design.KindLayerSet, design.KindTint}

// offBoard are all others.
var offBoard = slices.DeleteFunc(design.Kinds(), func(k design.Kind) bool { return slices.Contains(onBoard, k) })

// mostInParcel bounds the objects of a parcel but the first, so that a browser takes each in between two
// pictures.
const mostInParcel = 4_000

// split are the kinds that the stage in view is drawn from, and the others.
func split(stage string) (first, rest []design.Kind) {
	if stage == "board" {
		return onBoard, offBoard
	}
	return offBoard, onBoard
}

// first is all that the stage in view is drawn from.
func first(d design.Shared, stage string) Parcel {
	kinds, _ := split(stage)
	return parcelOf(d, d.All(kinds...))
}

// rest is everything else, some at a time.
func rest(d design.Shared, stage string) iter.Seq[Parcel] {
	_, kinds := split(stage)
	return func(yield func(Parcel) bool) {
		for some := range chunks(d.All(kinds...), mostInParcel) {
			if !yield(parcelOf(d, slices.Values(some))) {
				return
			}
		}
	}
}

func chunks(all iter.Seq[design.Object], n int) iter.Seq[[]design.Object] {
	return func(yield func([]design.Object) bool) {
		var some []design.Object
		for o := range all {
			if some = append(some, o); len(some) == n {
				if !yield(some) {
					return
				}
				some = nil
			}
		}
		if len(some) > 0 {
			yield(some)
		}
	}
}

func parcelOf(d design.Shared, objects iter.Seq[design.Object]) Parcel {
	var p Parcel
	copper := &columns.Copper{}
	for o := range objects {
		if copper.Add(o) {
			p.Copper = copper
			continue
		}
		if f, ok := o.(*design.Footprint); ok {
			p.Patterns = append(p.Patterns, layout.PatternOf(f))
		}
		p.Texts = lettered(p.Texts, d.Asset, o)
		p.Objects = append(p.Objects, Boxed{o.ObjectKind(), lightObject(o)})
	}
	return p
}

// lettered adds what a text in an outline font looks like.
func lettered(to []layout.Lettered, asset func(design.ID) *design.Asset, o design.Object) []layout.Lettered {
	if l, ok := o.(*design.Legend); ok && l.Font != design.Strokes {
		return append(to, layout.Lettered{ID: l.ID, Rings: layout.TextRings(asset, l)})
	}
	return to
}

// early is what of a project can be shown while what follows from it is still being found.
type early struct {
	run     string
	rev     int64
	name    string
	missing []string
	example bool
	doc     design.Shared
}

// begin writes the first message of a project to a tab.
func (e *early) begin(c *client, write func([]byte) error) error {
	return written(write, Opened{Looks: c.looks || e.example, Rev: e.rev, Name: e.name, Missing: e.missing, Parcel: first(e.doc, c.stage)})
}

// goOn writes what follows it.
func (e *early) goOn(c *client, write func([]byte) error) error {
	for parcel := range rest(e.doc, c.stage) {
		if err := written(write, More{parcel}); err != nil {
			return err
		}
	}
	return nil
}

func written(write func([]byte) error, m any) error {
	data, err := encode(m)
	if err != nil {
		return err
	}
	return write(data)
}

// now is what can be shown of an open project.
func (p *project) now() *early {
	return &early{p.tale.run, p.bench.Rev, p.name, p.missing, p.example, p.bench.Doc.Share()}
}

// handOver sends a tab everything; had is what it was sent of it already, or nil. The project's
// goroutine makes what follows from the objects; the objects are written beside it.
func (p *project) handOver(c *client, had *early) {
	ready, err := encode(Ready{Run: p.tale.run, Seq: p.tale.last, Derived: ptr(p.bench.All()), History: ptr(p.historyOf(c)), Handoff: p.handoff, People: p.peopleSeenBy(c), Jobs: p.jobs.list()})
	if err != nil {
		c.fail(err)
		return
	}
	e := p.now()
	begun := had != nil && had.run == e.run && had.rev == e.rev
	c.post(func(write func([]byte) error) error {
		if !begun {
			if err := e.begin(c, write); err != nil {
				return err
			}
		}
		if err := e.goOn(c, write); err != nil {
			return err
		}
		return write(ready)
	})
}
