package workbench

import (
	"maps"
	"reflect"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// ledger holds all findings, whoever makes them, and counts those that nobody excused.
type ledger struct {
	doc     *design.Doc
	nets    *nets
	by      map[string]*check.Finding
	open    map[drawer]int
	changed map[string]bool               // since it was last told
	about   map[design.ID]map[string]bool // keys of the findings of the board about an object
}

// drawer is what findings are counted by.
type drawer struct {
	stage string
	drift bool
}

func newLedger(g *derive.Graph, d *design.Doc, n *nets) *ledger {
	l := &ledger{doc: d, nets: n, by: map[string]*check.Finding{}, open: map[drawer]int{}, changed: map[string]bool{}, about: map[design.ID]map[string]bool{}}
	r := g.Result("excuses", nil)
	r.Of(func(c edit.Change) { // by which excuses lapse, whether or not the finding is found anew
		for _, key := range slices.Collect(maps.Keys(l.about[c.ID])) {
			l.put(l.by[key])
		}
	}, design.KindPlaced, design.KindTrack, design.KindVia, design.KindHole, design.KindLegend, design.KindFigure, design.KindRuleArea, design.KindPour)
	r.Of(func(c edit.Change) {
		for _, o := range both(c) {
			if f := l.by[o.(*design.Excuse).Key]; f != nil {
				l.put(f)
			}
		}
	}, design.KindExcuse)
	return l
}

// put adds a finding, or replaces the one of its key; one that is as it was is not told.
func (l *ledger) put(given *check.Finding) {
	f := *given
	f.Hold(l.doc.ExcuseOf(f.Key), f.Stands(l.doc))
	if f.Sheet != 0 {
		f.Place = l.nets.nets.Tree.LabelOf(f.Path, f.Sheet)
	}
	was := l.by[f.Key]
	if was != nil && reflect.DeepEqual(*was, f) {
		return
	}
	l.count(was, -1)
	l.count(&f, 1)
	l.note(was, false)
	l.note(&f, true)
	l.by[f.Key], l.changed[f.Key] = &f, true
}

func (l *ledger) drop(key string) {
	if f := l.by[key]; f != nil {
		l.count(f, -1)
		l.note(f, false)
		delete(l.by, key)
		l.changed[key] = true
	}
}

// note puts a finding of the board to the objects it is about, or takes it away.
func (l *ledger) note(f *check.Finding, is bool) {
	if f == nil || f.Stage != "board" {
		return
	}
	for _, id := range f.Objects {
		switch {
		case is && l.about[id] == nil:
			l.about[id] = map[string]bool{f.Key: true}
		case is:
			l.about[id][f.Key] = true
		default:
			if delete(l.about[id], f.Key); len(l.about[id]) == 0 {
				delete(l.about, id)
			}
		}
	}
}

func (l *ledger) count(f *check.Finding, by int) {
	if f != nil && f.Excused == "" && f.Severity != check.Note {
		l.open[drawer{f.Stage, f.Kind == "drift"}] += by
	}
}

// told are the findings that changed and the keys of those that went, since this was last asked.
func (l *ledger) told() (now []*check.Finding, gone []string) {
	for _, key := range slices.Sorted(maps.Keys(l.changed)) {
		if f := l.by[key]; f != nil {
			now = append(now, f)
		} else {
			gone = append(gone, key)
		}
	}
	l.changed = map[string]bool{}
	return now, gone
}
