package server

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/store"
)

// Undo is a person's own: each has the steps they made, the last on top. Steps of before there
// were authors, and those of the program itself, belong to everybody.

// steps are the revisions that somebody can undo and redo, the last on top.
type steps struct {
	undo, redo []int64
}

type history struct {
	of    map[string]*steps
	owner map[int64]string
	acts  map[int64]string
}

func newHistory() history {
	return history{map[string]*steps{}, map[int64]string{}, map[int64]string{}}
}

func (h history) stepsOf(author string) *steps {
	if h.of[author] == nil {
		h.of[author] = &steps{}
	}
	return h.of[author]
}

// record follows the journal: what can be undone and redone after a step.
func (h history) record(st store.Step) {
	author := st.Author.ID
	switch st.Act {
	case "undo":
		of := h.stepsOf(h.owner[st.Reverses])
		of.undo = without(of.undo, st.Reverses)
		own := h.stepsOf(author)
		own.redo = append(own.redo, st.Reverses)
	case "redo":
		own := h.stepsOf(author)
		own.redo = without(own.redo, st.Reverses)
		of := h.stepsOf(h.owner[st.Reverses])
		of.undo = append(of.undo, st.Reverses)
	default:
		own := h.stepsOf(author)
		own.undo, own.redo = append(own.undo, st.Revision), nil
		h.owner[st.Revision], h.acts[st.Revision] = author, st.Act
	}
}

func without(stack []int64, rev int64) []int64 {
	return slices.DeleteFunc(stack, func(r int64) bool { return r == rev })
}

// next is the revision that the author's undo (or redo) would take.
func (h history) next(act, author string) (int64, bool) {
	best := int64(0)
	for _, of := range []*steps{h.stepsOf(author), h.stepsOf("")} {
		stack := of.undo
		if act == "redo" {
			stack = of.redo
		}
		if n := len(stack); n > 0 {
			best = max(best, stack[n-1])
		}
	}
	return best, best > 0
}

// History is what somebody can undo and redo.
type History struct {
	Undo  string    `json:"undo"` // the act that would be undone; empty: none
	Redo  string    `json:"redo"`
	Steps int       `json:"steps"`
	Kept  time.Time `json:"kept"` // when the last edit was kept; zero: none this session
}

func (p *project) historyOf(c *client) History {
	h := History{Kept: p.last}
	if rev, ok := p.history.next("undo", c.author.ID); ok {
		h.Undo = p.history.acts[rev]
	}
	if rev, ok := p.history.next("redo", c.author.ID); ok {
		h.Redo = p.history.acts[rev]
	}
	h.Steps = len(p.history.stepsOf(c.author.ID).undo)
	if c.author.ID != "" {
		h.Steps += len(p.history.stepsOf("").undo)
	}
	return h
}

// inTheWay refuses a step where something it would put back was changed since by others.
func (p *project) inTheWay(ctx context.Context, cs edit.ChangeSet, target int64, act string) error {
	for _, x := range cs {
		if sameObject(p.bench.Doc.GetKind(x.Kind, x.ID), x.Before) {
			continue
		}
		who, what := "somebody", "changed"
		for from := target; ; {
			list, err := p.store.Since(ctx, p.id, from, 500)
			if err != nil {
				return err
			}
			for _, e := range list {
				from = e.Revision
				for _, y := range e.Changes {
					if y.ID == x.ID && y.Kind == x.Kind {
						who, what = called(e.Author), "changed"
						if y.After == nil {
							what = "removed"
						}
					}
				}
			}
			if len(list) < 500 {
				break
			}
		}
		return fmt.Errorf("your last step cannot be taken back by %s alone: %s has %s %s since. Undo what stands in the way first", act, who, what, p.bench.Doc.Called(cmp.Or(x.Before, x.After)))
	}
	return nil
}

func called(a store.Author) string {
	if a.Name != "" {
		return a.Name
	}
	return "somebody else"
}

func sameObject(a, b design.Object) bool {
	if a == nil || b == nil {
		return a == nil && b == nil
	}
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && bytes.Equal(x, y)
}

// overwritten tells the author of an edit what of another's it replaced, that they had not seen
// yet when they made it.
func (p *project) overwritten(cs edit.ChangeSet, c *client, seen int64) string {
	var out []string
	for _, x := range cs {
		last, ok := p.changed[x.ID]
		if !ok || last.rev <= seen || last.author.ID == c.author.ID || x.Before == nil {
			continue
		}
		what := "it is gone now"
		if x.After != nil {
			what = strings.Join(edit.Differing(p.bench.Doc, x.Before, x.After), "; ")
		}
		if what != "" {
			out = append(out, fmt.Sprintf("%s had just changed %s: %s.", called(last.author), p.bench.Doc.Called(x.Before), what))
		}
	}
	const most = 3
	if len(out) > most {
		out = append(out[:most], fmt.Sprintf("%d more of such.", len(out)-most))
	}
	return strings.Join(out, " ")
}
