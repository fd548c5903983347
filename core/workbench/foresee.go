package workbench

import (
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// Whatever joins or parts nets is said before it is done, by one mechanism for all acts: the
// command is tried, what it does to the nets is compared with what it is for, and the rest is
// either what the person agreed to or is asked about.

// Asks is the refusal of a command that would join or part nets without anybody having agreed.
type Asks struct {
	Outcome circuit.Outcome
}

func (a *Asks) Error() string { return Sentence(a.Outcome) }

// Sentence says what an act would join and part that it is not for; empty when that is nothing.
func Sentence(o circuit.Outcome) string {
	var out []string
	for _, j := range o.Joined {
		if !j.Meant {
			out = append(out, "join "+list(j.Nets))
		}
	}
	var parted []string
	for _, p := range o.Parted {
		if !p.Meant {
			parted = append(parted, p.Net)
		}
	}
	if len(parted) > 0 {
		out = append(out, "part "+list(parted))
	}
	if len(out) == 0 {
		return ""
	}
	return "This would " + strings.Join(out, ", and ") + "."
}

func list(names []string) string { return edit.Listed(names, 6) }

// stale are the sheets whose nets a change set touches.
func (b *Bench) stale(cs edit.ChangeSet) map[design.ID]bool {
	out := map[design.ID]bool{}
	for _, c := range cs {
		for _, o := range []design.Object{c.Before, c.After} {
			if o != nil {
				circuit.Stale(b.Doc, o, out)
			}
		}
	}
	return out
}

// Foresee tells what a command would change and what it would do to the nets, and does nothing.
// Cost: that of the command and twice that of finding the nets of the sheets it touches.
func (b *Bench) Foresee(c edit.Command) (edit.ChangeSet, circuit.Outcome, error) {
	means := edit.Means(c, b.Doc, b.Env())
	next := b.Doc.Next
	cs, err := edit.Apply(b.Doc, b.Env(), c)
	if err != nil {
		return nil, circuit.Outcome{}, err
	}
	sheets := b.stale(cs)
	out := b.circuit.refresh(sheets).Outcome(means)
	cs.Inverted().Apply(b.Doc)
	b.Doc.Next = next
	b.circuit.refresh(sheets)
	return cs, out, nil
}

// Try applies a command unless it would join or part nets that it is not for and that agreed,
// what the person was told, does not name: then it returns *Asks and nothing has changed.
func (b *Bench) Try(c edit.Command, agreed *circuit.Outcome) (edit.ChangeSet, circuit.Outcome, error) {
	means := edit.Means(c, b.Doc, b.Env())
	next := b.Doc.Next
	cs, err := edit.Apply(b.Doc, b.Env(), c)
	if err != nil {
		return nil, circuit.Outcome{}, err
	}
	sheets := b.stale(cs)
	changes := b.circuit.refresh(sheets)
	out := changes.Outcome(means)
	if !out.Meant() && (agreed == nil || !out.Same(*agreed)) {
		cs.Inverted().Apply(b.Doc)
		b.Doc.Next = next
		b.circuit.refresh(sheets)
		return nil, out, &Asks{out}
	}
	b.applied(cs)
	b.circuit.found(changes)
	return cs, out, nil
}

// Step applies a change set of the journal, as undo and redo do, unless what it leaves would not
// be whole.
func (b *Bench) Step(cs edit.ChangeSet) error {
	cs.Apply(b.Doc)
	if err := cs.Sound(b.Doc); err != nil {
		cs.Inverted().Apply(b.Doc)
		return err
	}
	b.applied(cs)
	return nil
}

// Edit applies a command, agreeing to all that it joins and parts; a refused command changes
// nothing.
func (b *Bench) Edit(c edit.Command) (edit.ChangeSet, error) {
	cs, err := edit.Apply(b.Doc, b.Env(), c)
	if err != nil {
		return nil, err
	}
	b.applied(cs)
	return cs, nil
}
