package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/coder/websocket"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/find"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/paper"
	"goldentrace/core/route"
	"goldentrace/core/timing"
	"goldentrace/core/workbench"
)

// Message goes from the server to a browser. T tells which fields are set: open (Rev, Name,
// Objects, Derived, History, Handoff), changes (Rev, Act, Changes, History), done (Ref,
// Rev), refused (Ref, Why), derived (Derived), preview (Ref and one of the answers), name
// (Name), handoff (Handoff), progress (Job, Share), shared (Shared), gone.
type Message struct {
	T           string              `json:"t"`
	Ref         string              `json:"ref,omitempty"`
	Rev         int64               `json:"rev,omitempty"`
	Why         string              `json:"why,omitempty"`
	Name        string              `json:"name,omitempty"`
	Act         string              `json:"act,omitempty"`
	Objects     []Boxed             `json:"objects,omitempty"`
	Changes     edit.ChangeSet      `json:"changes,omitempty"`
	Derived     *workbench.Delta    `json:"derived,omitempty"`
	History     *History            `json:"history,omitempty"`
	Handoff     *HandoffState       `json:"handoff,omitempty"`
	Moved       *MovedPreview       `json:"moved,omitempty"`
	Track       *route.Probe        `json:"track,omitempty"`
	Drag        *workbench.Dragged  `json:"drag,omitempty"`
	Differences []layout.Difference `json:"differences,omitempty"`
	Hits        []find.Hit          `json:"hits,omitempty"`
	Renamings   []circuit.Renaming  `json:"renamings,omitempty"`
	Pairs       [][2]string         `json:"pairs,omitempty"`
	Checks      *CheckTable         `json:"checks,omitempty"`
	Timing      *timing.Diagram     `json:"timing,omitempty"`
	Shared      *Shared             `json:"shared,omitempty"`
	Page        *paper.Page         `json:"page,omitempty"`
	Drawn       []paper.Drawn       `json:"drawn,omitempty"`
	Job         string              `json:"job,omitempty"`
	Share       float64             `json:"share,omitempty"`
}

// Shared is what somebody in the project picked or put in the light; everybody else there
// sees it.
type Shared struct {
	Parts []circuit.PartRef `json:"parts"`
	Net   string            `json:"net"`
}

// CheckTable is what the electrical check looks for, with the severities in force.
type CheckTable struct {
	Kinds []circuit.ErcKind `json:"kinds"`
	Types []string          `json:"types"`
	Pairs map[string]string `json:"pairs"` // by "input|output"; every pair
}

// MovedPreview is what moving things on a sheet would do.
type MovedPreview struct {
	Put    []paper.Drawn `json:"put"`
	Remove []design.ID   `json:"remove"`
	Joined [][2]string   `json:"joined"`
	Parted []string      `json:"parted"`
}

// Request comes from a browser. T: edit (Cmd), undo, redo, previewMove (IDs with Step, or
// Pivot with Quarters and Mirror), previewTrack (From, To, Style, Layer, Net, Width),
// previewDrag (IDs, Step, Pivot, Angle), differences, find (Query), previewNumbers
// (Numbering), pairs, checks, timing (Text), share (Shared), paint
// (Sheet, Path), paintItem (Item).
type Request struct {
	T        string          `json:"t"`
	Ref      string          `json:"ref"`
	Cmd      json.RawMessage `json:"cmd,omitempty"`
	IDs      []design.ID     `json:"ids,omitempty"`
	Step     geom.Point      `json:"step"`
	Pivot    geom.Point      `json:"pivot"`
	Quarters int             `json:"quarters,omitempty"`
	Mirror   bool            `json:"mirror,omitempty"`
	Angle    int32           `json:"angle,omitempty"`
	From     geom.Point      `json:"from"`
	To       geom.Point      `json:"to"`
	Style    route.Corner    `json:"style,omitempty"`
	Sheet    design.ID       `json:"sheet,omitempty"`
	Layer    int             `json:"layer,omitempty"`
	Net      string          `json:"net,omitempty"`
	Width    int64           `json:"width,omitempty"`

	Query     find.Query        `json:"query"`
	Numbering circuit.Numbering `json:"numbering"`
	Text      string            `json:"text,omitempty"`
	Path      string            `json:"path,omitempty"`
	Item      *edit.Clipped     `json:"item,omitempty"`
	Shared    *Shared           `json:"shared,omitempty"`
}

// client is one browser tab in a project.
type client struct {
	out  chan []byte
	stop context.CancelFunc
}

// send queues a message; a tab that does not take its messages is let go and comes back.
func (c *client) send(data []byte) {
	select {
	case c.out <- data:
	default:
		c.stop()
	}
}

func (c *client) say(m Message) {
	data, err := json.Marshal(m)
	if err != nil {
		data, _ = json.Marshal(Message{T: "refused", Ref: m.Ref, Why: err.Error()})
	}
	c.send(data)
}

// largestMessage from a browser, in bytes.
const largestMessage = 32 << 20

func serveLive(p *project, w http.ResponseWriter, r *http.Request) error {
	conn, err := websocket.Accept(w, r, &websocket.AcceptOptions{CompressionMode: websocket.CompressionDisabled})
	if err != nil {
		return nil // Accept has answered
	}
	defer conn.CloseNow()
	conn.SetReadLimit(largestMessage)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	c := &client{out: make(chan []byte, 1024), stop: stop}
	if err := p.do(func() {
		p.clients[c] = true
		c.say(p.opening())
	}); err != nil {
		return nil
	}
	defer func() { _ = p.do(func() { delete(p.clients, c) }) }()
	go func() {
		defer stop()
		ping := time.NewTicker(20 * time.Second)
		defer ping.Stop()
		for {
			select {
			case <-ctx.Done():
				return
			case <-p.quit:
				return
			case <-ping.C:
				if conn.Ping(ctx) != nil {
					return
				}
			case data := <-c.out:
				late, cancel := context.WithTimeout(ctx, 30*time.Second)
				err := conn.Write(late, websocket.MessageText, data)
				cancel()
				if err != nil {
					return
				}
			}
		}
	}()
	for {
		_, data, err := conn.Read(ctx)
		if err != nil {
			return nil
		}
		var req Request
		if err := json.Unmarshal(data, &req); err != nil {
			c.say(Message{T: "refused", Why: "the message cannot be read: " + err.Error()})
			continue
		}
		if p.do(func() { p.answer(c, req) }) != nil {
			return nil
		}
	}
}

// answer serves one request on the project's goroutine.
func (p *project) answer(c *client, req Request) {
	defer func() {
		if broken := recover(); broken != nil { // a fault of ours must not take the work of others down
			c.say(Message{T: "refused", Ref: req.Ref, Why: fmt.Sprintf("the program failed on this; nothing was kept (%v)", broken)})
		}
	}()
	ctx := context.Background()
	switch req.T {
	case "edit", "undo", "redo":
		var rev int64
		kind, cmd, err := "", edit.Command(nil), error(nil)
		if req.T != "edit" {
			rev, err = p.step(ctx, req.T, req.Ref)
		} else if kind, cmd, err = edit.Decode(req.Cmd); err == nil {
			rev, err = p.edit(ctx, kind, req.Ref, cmd)
		}
		if err != nil {
			c.say(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
			return
		}
		c.say(Message{T: "done", Ref: req.Ref, Rev: rev})
	case "previewMove":
		p.previewMove(c, req)
	case "previewTrack":
		field := route.Field{Doc: p.bench.Doc, Index: p.bench.Index()}
		width := req.Width
		if width == 0 {
			width = p.bench.Doc.Board.Rules.TrackWidth
		}
		probe := field.Draw(req.From, req.To, req.Style, req.Layer, req.Net, width)
		end := probe.Path[len(probe.Path)-1]
		r := p.bench.Doc.Board.Rules
		if o := field.Clear(geom.Disc(end, r.ViaDiameter/2), 1<<len(p.bench.Doc.Board.CopperNames())-1, req.Net, r.ViaHole); o != nil && !field.PlatedAt(end, req.Net, 1<<len(p.bench.Doc.Board.CopperNames())-1) {
			probe.Via = o.Error()
		}
		c.say(Message{T: "preview", Ref: req.Ref, Track: &probe})
	case "previewDrag":
		d := p.bench.Drag(req.IDs, req.Step, req.Pivot, req.Angle)
		c.say(Message{T: "preview", Ref: req.Ref, Drag: &d})
	case "differences":
		c.say(Message{T: "preview", Ref: req.Ref, Differences: p.bench.Differences()})
	case "find":
		c.say(Message{T: "preview", Ref: req.Ref, Hits: find.Find(p.bench.Doc, req.Query)})
	case "previewNumbers":
		list, err := circuit.Renumber(p.bench.Doc, p.bench.Nets().Tree, req.Numbering)
		if err != nil {
			c.say(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
			return
		}
		c.say(Message{T: "preview", Ref: req.Ref, Renamings: list})
	case "pairs":
		c.say(Message{T: "preview", Ref: req.Ref, Pairs: p.bench.Nets().PairsByName()})
	case "checks":
		c.say(Message{T: "preview", Ref: req.Ref, Checks: checkTable(p.bench.Doc.Checks)})
	case "timing":
		d, err := timing.Parse(req.Text)
		if err != nil {
			c.say(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
			return
		}
		c.say(Message{T: "preview", Ref: req.Ref, Timing: d})
	case "paint":
		p.paint(c, req)
	case "paintItem":
		p.paintItem(c, req)
	case "share":
		p.share(c, req.Shared)
		c.say(Message{T: "done", Ref: req.Ref, Rev: p.bench.Rev})
	default:
		c.say(Message{T: "refused", Ref: req.Ref, Why: fmt.Sprintf("%q is not known", req.T)})
	}
}

// paint draws one use of a sheet.
func (p *project) paint(c *client, req Request) {
	nets := p.bench.Nets()
	for _, place := range nets.Tree.Of(req.Sheet) {
		if place.Path == req.Path {
			page := paper.PageOf(p.bench.Doc, nets, place)
			c.say(Message{T: "preview", Ref: req.Ref, Page: &page})
			return
		}
	}
	c.say(Message{T: "refused", Ref: req.Ref, Why: "There is no such sheet any more."})
}

// paintItem draws something that is not there yet: what a tool holds in its hand.
func (p *project) paintItem(c *client, req Request) {
	if req.Item == nil {
		c.say(Message{T: "refused", Ref: req.Ref, Why: "Nothing was given to draw."})
		return
	}
	o := design.Blank(req.Item.Kind)
	if o == nil || json.Unmarshal(req.Item.Object, o) != nil {
		c.say(Message{T: "refused", Ref: req.Ref, Why: "What was given to draw cannot be read."})
		return
	}
	if part, ok := o.(*design.Part); ok && p.bench.Doc.SymbolOf(part) == nil { // of the shipped library
		c.say(Message{T: "preview", Ref: req.Ref, Drawn: []paper.Drawn{{Kind: req.Item.Kind, Marks: libraryMarks(part)}}})
		return
	}
	c.say(Message{T: "preview", Ref: req.Ref, Drawn: []paper.Drawn{{Kind: req.Item.Kind, Marks: paper.Marks(p.bench.Doc, o, "")}}})
}

// libraryMarks draws a part of the shipped library that the project does not have yet.
func libraryMarks(part *design.Part) []paper.Mark {
	it, ok := library.Find(part.Library)
	if !ok {
		return nil
	}
	d := design.Empty()
	d.Put(design.WithID(it.Part, d.NewID()))
	for _, s := range append([]*design.Symbol{it.Symbol}, it.Units...) {
		d.Put(design.WithID(s, d.NewID()))
	}
	return paper.Marks(d, part, "")
}

func checkTable(own *design.Checks) *CheckTable {
	t := &CheckTable{Types: design.PinTypes, Pairs: map[string]string{}}
	for _, k := range circuit.ErcKinds {
		k.Severity = circuit.SeverityOf(own, k.Kind)
		t.Kinds = append(t.Kinds, k)
	}
	for i, a := range design.PinTypes {
		for _, b := range design.PinTypes[i:] {
			t.Pairs[circuit.PairKey(a, b)] = circuit.PairSeverity(own, a, b)
		}
	}
	return t
}

// share tells everybody else in the project what somebody picked.
func (p *project) share(from *client, s *Shared) {
	if s == nil {
		return
	}
	data, err := json.Marshal(Message{T: "shared", Shared: s})
	if err != nil {
		return
	}
	for c := range p.clients {
		if c != from {
			c.send(data)
		}
	}
}

func (p *project) previewMove(c *client, req Request) {
	motion := circuit.By(req.Step)
	if req.Quarters != 0 || req.Mirror {
		motion = circuit.Turned(req.Pivot, req.Quarters, req.Mirror)
	}
	sel := map[design.ID]bool{}
	for _, id := range req.IDs {
		sel[id] = true
	}
	view := p.bench.Nets().Views[req.Sheet]
	if view == nil {
		c.say(Message{T: "refused", Ref: req.Ref, Why: "there is no such sheet"})
		return
	}
	next := p.bench.Doc.Next
	m := circuit.Move(p.bench.Doc, view, sel, motion, func() design.ID { next++; return next })
	out := MovedPreview{Joined: m.Joined, Parted: m.Parted}
	for _, o := range m.Put {
		out.Put = append(out.Put, paper.Drawn{ID: o.ObjectID(), Kind: o.ObjectKind(), Marks: paper.Marks(p.bench.Doc, o, req.Path)})
	}
	for _, o := range m.Remove {
		out.Remove = append(out.Remove, o.ObjectID())
	}
	c.say(Message{T: "preview", Ref: req.Ref, Moved: &out})
}
