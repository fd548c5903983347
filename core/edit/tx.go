// Package edit holds every change that can be made to a design, as commands. A command is
// checked and applied as a whole: it yields a change set, or it is refused with a sentence
// and nothing has changed. The same commands serve the browser, the demo builder, tests and
// the command line. Lengths are nanometres, angles millidegrees.
package edit

import (
	"encoding/json"
	"errors"
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/rules"
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

// Body is a change written as JSON, each object once.
type Body struct {
	Kind   design.Kind     `json:"kind"`
	ID     design.ID       `json:"id"`
	Before json.RawMessage `json:"before"`
	After  json.RawMessage `json:"after"`
}

// Bodies writes the objects of a change set.
func (c ChangeSet) Bodies() ([]Body, error) {
	out := make([]Body, len(c))
	for i, x := range c {
		out[i] = Body{Kind: x.Kind, ID: x.ID}
		for _, w := range []struct {
			o  design.Object
			to *json.RawMessage
		}{{x.Before, &out[i].Before}, {x.After, &out[i].After}} {
			if w.o == nil {
				continue
			}
			body, err := json.Marshal(w.o)
			if err != nil {
				return nil, err
			}
			*w.to = body
		}
	}
	return out, nil
}

// UnmarshalJSON reads a change with its objects, written by the present version.
func (c *Change) UnmarshalJSON(data []byte) error { return c.read(data, design.Version) }

// ReadChanges reads a change set as a version wrote it. When some of its objects cannot be read without
// the document they were in, the error is design.ErrEarlier and the changes name what they are of
// without the objects.
func ReadChanges(version int, data []byte) (ChangeSet, error) {
	var list []json.RawMessage
	if err := json.Unmarshal(data, &list); err != nil {
		return nil, err
	}
	out := make(ChangeSet, len(list))
	earlier := false
	for i, raw := range list {
		err := out[i].read(raw, version)
		if errors.Is(err, design.ErrEarlier) {
			earlier = true
		} else if err != nil {
			return nil, err
		}
	}
	if earlier {
		return out, design.ErrEarlier
	}
	return out, nil
}

func (c *Change) read(data []byte, version int) error {
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
		return design.DecodeOf(version, raw.Kind, r)
	}
	before, err := read(raw.Before)
	if err != nil {
		return err
	}
	after, err := read(raw.After)
	if err != nil {
		return err
	}
	c.Before, c.After = before, after
	return nil
}

// Env gives commands what is derived from the document. A nil function makes the command
// derive it itself, from scratch.
type Env struct {
	Nets  func() *circuit.Nets
	Index func() *layout.Index
	Rules func() *rules.Set
	// Library is where parts are taken from; nil: the shipped one.
	Library library.Source
	// Filled tells whether a copper area of a net is filled at a place of a copper layer; nil: none is.
	Filled func(net design.ID, at geom.Point, layer int) bool
	// Going is told by a long command how much of it is done, 0 to 1; an error: it is to be given up. nil: nobody asks.
	Going func(share float64) error
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
	raised  string // of the vias of hops that were put: how they depart from what the rules say of new ones
}

// going says how much of a long command is done; an error says to give it up.
func (tx *Tx) going(share float64) error {
	if tx.env.Going == nil {
		return nil
	}
	return tx.env.Going(share)
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
	if b, ok := o.(*design.Board); ok && tx.Doc.Board != nil {
		tx.reanchor(tx.Doc.Board, b)
	}
	tx.record(o.ObjectKind(), o.ObjectID(), o)
	tx.Doc.Put(o)
	return nil
}

// Remove takes the object out.
func (tx *Tx) Remove(o design.Object) {
	tx.unanchor(o.ObjectID())
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
func (tx *Tx) Nets() *circuit.Nets { return tx.env.nets(tx.Doc) }

func (e Env) nets(d *design.Doc) *circuit.Nets {
	if e.Nets != nil {
		return e.Nets()
	}
	return circuit.Find(d)
}

// Index of the board's copper as it was before the command.
func (tx *Tx) Index() *layout.Index {
	if tx.env.Index != nil {
		return tx.env.Index()
	}
	x := layout.NewIndex(tx.Doc)
	for _, id := range tx.order {
		if c := tx.changes[id]; c.Before != nil {
			x.Put(tx.Doc, c.Before)
		} else {
			x.Remove(id)
		}
	}
	return x
}

// Rules of the board as they were before the command.
func (tx *Tx) Rules() *rules.Set {
	if tx.env.Rules != nil {
		return tx.env.Rules()
	}
	return rules.Of(tx.Doc)
}

// library is where parts are taken from.
func (e Env) library() library.Source {
	if e.Library != nil {
		return e.Library
	}
	return library.Shipped()
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
