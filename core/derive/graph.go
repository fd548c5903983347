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

// Result is something made from the design and from results before it.
type Result struct {
	graph *Graph
	name  string
	renew func()
	stale bool
	rev   int64
	// beside tells that it is being made beside the hand, from an earlier revision.
	beside bool
}

// New is a graph without results, of a design at the revision.
func New(rev int64) *Graph { return &Graph{hear: map[design.Kind][]hearer{}, rev: rev} }

// Result adds one that renew brings up to date; nil: it is up to date as soon as it was told. It is stale
// until it is first settled.
func (g *Graph) Result(name string, renew func()) *Result {
	r := &Result{graph: g, name: name, renew: renew, stale: true, rev: g.rev}
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

// Rev is the revision that the result is of.
func (r *Result) Rev() int64 { return r.rev }

// Feed is what a result tells those that are made from it.
type Feed[T any] struct {
	hear []func(T)
}

// From makes the result stale when the feed tells something; note is told what.
func From[T any](r *Result, f *Feed[T], note func(T)) {
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

// Behind names the results that are of an earlier revision than the design, with the revision each is of.
func (g *Graph) Behind() map[string]int64 {
	var out map[string]int64
	for _, r := range g.results {
		if r.rev != g.rev {
			if out == nil {
				out = map[string]int64{}
			}
			out[r.name] = r.rev
		}
	}
	return out
}
