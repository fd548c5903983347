// Package edit holds every change that can be made to a design, as commands. A command is
// checked and applied as a whole: it yields a change set, or it is refused with a sentence
// and nothing has changed. The same commands serve the browser, the demo builder, tests and
// the command line. Lengths are nanometres, angles millidegrees.
package edit

import (
	"encoding/json"
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Change is one object before and after; Before is nil when it was added, After when it was
// removed.
type Change struct {
	Kind   design.Kind   `json:"kind"`
	ID     design.ID     `json:"id"`
	Before design.Object `json:"before"`
	After  design.Object `json:"after"`
}

// ChangeSet is what one command did, each object once.
type ChangeSet []Change

// Inverted is the change set that undoes this one.
func (c ChangeSet) Inverted() ChangeSet {
	out := make(ChangeSet, len(c))
	for i, x := range c {
		out[i] = Change{x.Kind, x.ID, x.After, x.Before}
	}
	return out
}

// Apply puts a change set into the document; it is how undo, redo and catching up work.
func (c ChangeSet) Apply(d *design.Doc) {
	for _, x := range c {
		if x.After != nil {
			d.Put(x.After)
		} else {
			d.Remove(x.Kind, x.ID)
		}
	}
}

// UnmarshalJSON reads a change with its objects.
func (c *Change) UnmarshalJSON(data []byte) error {
	var raw struct {
		Kind          design.Kind
		ID            design.ID
		Before, After json.RawMessage
	}
	if err := json.Unmarshal(data, &raw); err != nil {
		return err
	}
	c.Kind, c.ID = raw.Kind, raw.ID
	read := func(r json.RawMessage) (design.Object, error) {
		if len(r) == 0 || string(r) == "null" {
			return nil, nil
		}
		return design.Decode(raw.Kind, r)
	}
	var err error
	if c.Before, err = read(raw.Before); err != nil {
		return err
	}
	c.After, err = read(raw.After)
	return err
}

// Env gives commands what is derived from the document. A nil function makes the command
// derive it itself, from scratch.
type Env struct {
	Nets  func() *circuit.Nets
	Index func() *layout.Index
}

// Command is one change a person can make.
type Command interface {
	Apply(tx *Tx) error
}

// Tx collects what a command does to a document.
type Tx struct {
	Doc     *design.Doc
	env     Env
	order   []design.ID
	changes map[design.ID]*Change
}

// Apply runs a command. On an error the document is as it was.
func Apply(d *design.Doc, env Env, c Command) (ChangeSet, error) {
	next := d.Next
	tx := &Tx{Doc: d, env: env, changes: map[design.ID]*Change{}}
	err := c.Apply(tx)
	out := make(ChangeSet, 0, len(tx.order))
	for _, id := range tx.order {
		if x := *tx.changes[id]; x.Before != nil || x.After != nil {
			out = append(out, x)
		}
	}
	if err == nil {
		err = out.Sound(d)
	}
	if err == nil && len(out) == 0 {
		err = fmt.Errorf("this would change nothing")
	}
	if err != nil {
		out.Inverted().Apply(d)
		d.Next = next
		return nil, err
	}
	return out, nil
}

// Sound checks what a change set leaves in the document that holds it: everything that changed
// refers to what is there, nothing refers to what went, and the ids do not run over.
func (c ChangeSet) Sound(d *design.Doc) error {
	if d.Next > design.MaxID {
		return fmt.Errorf("the project has used up all its ids; import it from its file to begin anew")
	}
	for _, x := range c {
		if x.After != nil {
			if err := d.Refers(x.After); err != nil {
				return err
			}
		}
		if x.Before != nil {
			if err := d.Left(x.Before, x.After); err != nil {
				return err
			}
		}
	}
	return nil
}

// Put stores the object after checking it.
func (tx *Tx) Put(o design.Object) error {
	if err := o.Valid(); err != nil {
		return err
	}
	tx.record(o.ObjectKind(), o.ObjectID(), o)
	tx.Doc.Put(o)
	return nil
}

// Remove takes the object out.
func (tx *Tx) Remove(o design.Object) {
	tx.record(o.ObjectKind(), o.ObjectID(), nil)
	tx.Doc.Remove(o.ObjectKind(), o.ObjectID())
}

func (tx *Tx) record(kind design.Kind, id design.ID, after design.Object) {
	if c, ok := tx.changes[id]; ok {
		c.After = after
		return
	}
	tx.order = append(tx.order, id)
	tx.changes[id] = &Change{kind, id, tx.Doc.GetKind(kind, id), after}
}

// Nets of the circuit as it was before the command.
func (tx *Tx) Nets() *circuit.Nets {
	if tx.env.Nets != nil {
		return tx.env.Nets()
	}
	return circuit.Find(tx.Doc)
}

// Index of the board's copper as it was before the command.
func (tx *Tx) Index() *layout.Index {
	if tx.env.Index != nil {
		return tx.env.Index()
	}
	return layout.NewIndex(tx.Doc)
}

// sheet is the sheet with the id, or a refusal.
func (tx *Tx) sheet(id design.ID) (*design.Sheet, error) {
	if s := tx.Doc.Sheets[id]; s != nil {
		return s, nil
	}
	return nil, fmt.Errorf("there is no such sheet (id %d)", id)
}

// get is the object with the id among the kinds of T, or a refusal.
func get[T design.Object](t design.Table[T], id design.ID, what string) (T, error) {
	if o, ok := t[id]; ok {
		return o, nil
	}
	var none T
	return none, fmt.Errorf("there is no such %s any more (id %d)", what, id)
}
