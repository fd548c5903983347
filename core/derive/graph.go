// Package derive carries what changed in a design to all that is made from it. A result says what it is
// made from, objects of some kinds or what other results tell, and how it is brought up to date; the
// graph does the rest, each result after those it is made from, at the cost of what changed.
package derive

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// Graph holds results in the order in which they are made. It belongs to one goroutine.
type Graph struct {
	results []*Result
	hear    map[design.Kind][]hearer
	rev     int64
}

type hearer struct {
	of   *Result
	note func(edit.Change)
}

// Never is the revision of a result that was not made yet.
const Never = -1

// Result is something made from the design and from results before it.
type Result struct {
	graph *Graph
	name  string
	renew func()
	stale bool
	rev   int64     // that it is of; Never: it was not made yet
	from  []*Result // results that it is made from
	// beside tells that it is being made beside the hand, from an earlier revision.
	beside bool
}

// New is a graph without results, of a design at the revision.
func New(rev int64) *Graph { return &Graph{hear: map[design.Kind][]hearer{}, rev: rev} }

// Result adds one that renew brings up to date; nil: it is up to date as soon as it was told. It is stale
// until it is first settled.
func (g *Graph) Result(name string, renew func()) *Result {
	r := &Result{graph: g, name: name, renew: renew, stale: true, rev: Never}
	g.results = append(g.results, r)
	return r
}

// Of makes the result stale when an object of the kinds changes; note, which may be nil, is told of each
// change once the document holds it.
func (r *Result) Of(note func(edit.Change), kinds ...design.Kind) {
	for _, k := range kinds {
		r.graph.hear[k] = append(r.graph.hear[k], hearer{r, note})
	}
}

// Stale marks the result as not up to date.
func (r *Result) Stale() { r.stale = true }

// Fresh brings the result up to date now, in advance of the rest.
func (r *Result) Fresh() {
	if r.stale && r.renew != nil {
		r.renew()
	}
	r.stale = false
	if !r.beside {
		r.rev = r.graph.rev
	}
}

// Beside notes that the result stays of the revision it is of while the next is being made in another
// goroutine; with false, that this is done.
func (r *Result) Beside(is bool) { r.beside = is }

// Now is the revision of the design.
func (r *Result) Now() int64 { return r.graph.rev }

// Rev is the revision that the result is of; Never: it was not made yet.
func (r *Result) Rev() int64 { return r.rev }

// Feed is what a result tells those that are made from it.
type Feed[T any] struct {
	by   *Result
	hear []func(T)
}

// By says whose feed it is: as long as that result is behind, so are those that are made from it.
func (f *Feed[T]) By(r *Result) { f.by = r }

// From makes the result stale when the feed tells something; note is told what.
func From[T any](r *Result, f *Feed[T], note func(T)) {
	if f.by != nil {
		r.from = append(r.from, f.by)
	}
	f.hear = append(f.hear, func(v T) {
		r.stale = true
		note(v)
	})
}

// Tell tells all that are made from it.
func (f *Feed[T]) Tell(v T) {
	for _, note := range f.hear {
		note(v)
	}
}

// Change tells the results of changes that the document holds, by which it has the revision.
func (g *Graph) Change(rev int64, changes edit.ChangeSet) {
	g.rev = rev
	for _, c := range changes {
		for _, h := range g.hear[c.Kind] {
			h.of.stale = true
			if h.note != nil {
				h.note(c)
			}
		}
	}
}

// Settle brings everything up to date that is not made beside.
func (g *Graph) Settle() {
	for _, r := range g.results {
		r.Fresh()
	}
}

// Behind names the results that are not of the design's revision, or are made from such, with the revision that
// each is of; Never: nothing of it is known yet. The cost is that of the number of results.
func (g *Graph) Behind() map[string]int64 {
	var out map[string]int64
	lag := map[*Result]int64{}
	for _, r := range g.results { // each after those that it is made from
		rev, behind := r.rev, r.beside || r.rev != g.rev
		for _, f := range r.from {
			if of, is := lag[f]; is {
				rev, behind = min(rev, of), true
			}
		}
		if !behind {
			continue
		}
		lag[r] = rev
		if out == nil {
			out = map[string]int64{}
		}
		out[r.name] = rev
	}
	return out
}
