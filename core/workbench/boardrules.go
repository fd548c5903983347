package workbench

import (
	"context"
	"fmt"
	"maps"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// boardRules are the findings of the board's own rules.
type boardRules struct {
	*derive.Result
	doc      *design.Doc
	copper   *copper
	findings *ledger
	check    *check.Board
	objects  map[design.ID]bool // to check anew
	whole    bool
	first    bool // nothing was checked yet

	beside func(Beside)       // nil: nothing is done beside
	since  map[design.ID]bool // what changed since the copy that is being checked beside; nil: none is
	again  bool               // rules or the board changed meanwhile, so that the copy is out of date
}

// mostAtOnce is how many pieces are checked while everybody waits: more are checked beside.
const mostAtOnce = 20_000

// newBoardRules begins with what was found, or without anything, which is then checked beside.
func newBoardRules(g *derive.Graph, d *design.Doc, x *copper, done *check.Board, s *ruleSet, l *ledger, beside func(Beside)) *boardRules {
	b := &boardRules{doc: d, copper: x, findings: l, check: done, objects: map[design.ID]bool{}, beside: beside}
	if done == nil {
		b.check, b.first = check.Unchecked(d, x.index, s.set), true
	}
	for _, f := range b.check.Found {
		l.put(f)
	}
	b.Result = g.Result("board rules", b.renew)
	b.Of(func(c edit.Change) { b.check.Rule(c.Before, c.After) }, design.KindRule)
	b.Of(b.net, design.KindNet)
	derive.From(b.Result, &x.objects, func(id design.ID) { b.objects[id] = true })
	derive.From(b.Result, &x.edge, func(bool) { b.whole = true })
	derive.From(b.Result, &s.retold, func(net design.ID) {
		for id := range x.index.ObjectsOf(net) {
			b.objects[id] = true
		}
	})
	return b
}

// net notes what findings name a net that is called otherwise now.
func (b *boardRules) net(c edit.Change) {
	was, _ := c.Before.(*design.Net)
	is, _ := c.After.(*design.Net)
	if was == nil || is == nil || was.Name != is.Name {
		for id := range b.check.Naming(c.ID) {
			b.objects[id] = true
		}
	}
}

// wholly has all checked anew.
func (b *boardRules) wholly() {
	b.whole = true
	b.Stale()
}

func (b *boardRules) renew() {
	crowded := b.check.Crowded() || b.first
	if b.beside != nil && b.takesLong(crowded) {
		b.whole = false
		b.check.Forget()
		if b.since != nil {
			b.again = true
		} else {
			b.begin()
		}
	} else if b.since != nil {
		maps.Copy(b.since, b.objects)
	}
	if b.since != nil && crowded {
		b.objects = map[design.ID]bool{}
		return
	}
	if b.whole {
		b.check.All()
	} else if !b.check.Update(b.objects) {
		return
	}
	b.objects, b.whole = map[design.ID]bool{}, false
	b.tell()
}

// takesLong tells whether what is to be checked takes too long for a hand to wait: a large board that is opened, or all of one whose rules changed or of
// which not everything is listed.
func (b *boardRules) takesLong(crowded bool) bool {
	if b.first {
		return b.since == nil
	}
	all := b.whole || b.check.RulesChanged() || crowded && len(b.objects) > 0
	return all && b.copper.index.Len() > mostAtOnce
}

// tell puts what changed into the ledger.
func (b *boardRules) tell() {
	added, dropped := b.check.Changes()
	for _, k := range dropped {
		b.findings.drop(k)
	}
	for _, k := range added {
		b.findings.put(b.check.Found[k])
	}
}

// begin has a copy of the board checked beside. Until that is done the findings are those of before, but
// for what is touched.
func (b *boardRules) begin() {
	b.since, b.again = map[design.ID]bool{}, false
	b.Beside(true)
	shared := b.doc.Share()
	b.beside(Beside{Kind: "check", Rev: b.Now(), Run: func(ctx context.Context, progress func(float64)) func() {
		found, err := survey(ctx, shared, progress)
		return func() { b.take(found, err == nil) }
	}})
}

// survey checks a copy of a board. A fault of ours is an error: the findings stay those of before.
func survey(ctx context.Context, shared design.Shared, progress func(float64)) (found *check.Board, err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("the check failed: %v", fault)
		}
	}()
	d := shared.Doc()
	return check.Survey(ctx, d, layout.NewIndex(d), rules.Of(d), progress)
}

// take takes the outcome of a check beside in.
func (b *boardRules) take(found *check.Board, whole bool) {
	since := b.since
	b.since = nil
	switch {
	case !whole: // it was stopped, and is of the revision it was
	case b.again:
		b.begin()
	default:
		b.first = false
		b.check.Adopt(found)
		b.tell()
		maps.Copy(b.objects, since)
		b.Beside(false)
		b.Stale()
	}
}
