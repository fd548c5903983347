package server

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"slices"
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
	"goldentrace/core/units"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// Message goes from the server to a browser. T tells which fields are set: open (Rev, Name,
// Objects, Derived, History, Handoff, People, Missing), changes (Rev, Act, Changes, Drawn),
// history (History), done (Ref, Rev, Over), refused (Ref, Why), asks (Ref, Why, Foreseen),
// derived (Derived), preview (Ref and one of the answers), name (Name), handoff (Handoff),
// progress (Job, Share), shared (Shared), others (Shared, Who), people (People), broken
// (Why), gone.
type Message struct {
	T           string              `json:"t"`
	Ref         string              `json:"ref,omitempty"`
	Rev         int64               `json:"rev,omitempty"`
	Why         string              `json:"why,omitempty"`
	Over        string              `json:"over,omitempty"` // what of another's the edit replaced
	Name        string              `json:"name,omitempty"`
	Who         string              `json:"who,omitempty"`
	Act         string              `json:"act,omitempty"`
	Objects     []Boxed             `json:"objects,omitempty"`
	Changes     edit.ChangeSet      `json:"changes,omitempty"`
	Derived     *workbench.Delta    `json:"derived,omitempty"`
	History     *History            `json:"history,omitempty"`
	Handoff     *HandoffState       `json:"handoff,omitempty"`
	Foreseen    *Foreseen           `json:"foreseen,omitempty"`
	Way         []geom.Point        `json:"way,omitempty"`
	Track       *route.Probe        `json:"track,omitempty"`
	Drag        *workbench.Dragged  `json:"drag,omitempty"`
	Differences []layout.Difference `json:"differences,omitempty"`
	Hits        []find.Hit          `json:"hits,omitempty"`
	Renamings   []circuit.Renaming  `json:"renamings,omitempty"`
	Pairs       [][2]string         `json:"pairs,omitempty"`
	Checks      *CheckTable         `json:"checks,omitempty"`
	Timing      *timing.Diagram     `json:"timing,omitempty"`
	Shared      *Shared             `json:"shared,omitempty"`
	People      []Person            `json:"people,omitempty"`
	Missing     []string            `json:"missing,omitempty"`
	Page        *paper.Page         `json:"page,omitempty"`
	Drawn       []paper.Drawn       `json:"drawn,omitempty"`
	Job         string              `json:"job,omitempty"`
	Share       float64             `json:"share,omitempty"`
	Looks       bool                `json:"looks,omitempty"` // the project is shown and not changed
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
	Words map[string]string `json:"words"` // the types in a sentence
	Pairs map[string]string `json:"pairs"` // by "input|output"; every pair
}

// Foreseen is what a command would do, told before it is done.
type Foreseen struct {
	Outcome circuit.Outcome `json:"outcome"`
	Say     string          `json:"say"`             // what it would join and part that it is not for; empty: nothing
	Names   []string        `json:"names,omitempty"` // of things to be pasted that are borne already
	Put     []paper.Drawn   `json:"put,omitempty"`
	Remove  []design.ID     `json:"remove,omitempty"`
}

// Request comes from a browser. T: edit (Cmd, Agreed, Rev), undo, redo, foresee (Cmd, Path), wire
// (Sheet, Points, To, Lead, Bundle), previewTrack (From, To, Style, Layer, Net, Width),
// previewDrag (IDs, Step, Pivot, Angle), differences, find (Query), previewNumbers
// (Numbering), nextName (Text), pairs, checks, timing (Text), share (Shared), person (Text), paint
// (Sheet, Path), paintItem (Item).
type Request struct {
	T      string           `json:"t"`
	Ref    string           `json:"ref"`
	Rev    int64            `json:"rev,omitempty"` // the revision the browser had when it asked
	Cmd    json.RawMessage  `json:"cmd,omitempty"`
	Agreed *circuit.Outcome `json:"agreed,omitempty"`
	IDs    []design.ID      `json:"ids,omitempty"`
	Step   geom.Point       `json:"step"`
	Pivot  geom.Point       `json:"pivot"`
	Angle  int32            `json:"angle,omitempty"`
	From   geom.Point       `json:"from"`
	To     geom.Point       `json:"to"`
	Points []geom.Point     `json:"points,omitempty"`
	Lead   string           `json:"lead,omitempty"`
	Bundle bool             `json:"bundle,omitempty"`
	Style  route.Corner     `json:"style,omitempty"`
	Sheet  design.ID        `json:"sheet,omitempty"`
	Layer  int              `json:"layer,omitempty"`
	Net    string           `json:"net,omitempty"`
	Width  int64            `json:"width,omitempty"`

	Query     find.Query        `json:"query"`
	Numbering circuit.Numbering `json:"numbering"`
	Text      string            `json:"text,omitempty"`
	Path      string            `json:"path,omitempty"`
	Item      *edit.Clipped     `json:"item,omitempty"`
	Shared    *Shared           `json:"shared,omitempty"`
}

// client is one browser tab in a project.
type client struct {
	out    chan []byte
	stop   context.CancelFunc
	author store.Author
	looks  bool // shown the project, and does not change it
}

// send queues a message; a tab that does not take its messages is let go and comes back.
func (c *client) send(data []byte) {
	select {
	case c.out <- data:
	default:
		c.stop()
	}
}

func (c *client) answer(m Message) {
	data, err := json.Marshal(m)
	if err != nil {
		data, _ = json.Marshal(Message{T: "refused", Ref: m.Ref, Why: err.Error()})
	}
	c.send(data)
}

// largestMessage from a browser, in bytes.
const largestMessage = 32 << 20

func serveLive(h *hub, p *project, w http.ResponseWriter, r *http.Request) error {
	who, err := author(r.URL.Query().Get("who"), r.URL.Query().Get("name"))
	if err != nil {
		return err
	}
	defer h.sockets.Add(-1)
	if h.sockets.Add(1) > mostSocket || p.people.Load() >= mostInOne {
		return fmt.Errorf("too many windows are open in this project or in all; close one first")
	}
	conn, err := websocket.Accept(w, r, &websocket.AcceptOptions{CompressionMode: websocket.CompressionDisabled})
	if err != nil {
		return nil // Accept has answered
	}
	defer conn.CloseNow()
	conn.SetReadLimit(largestMessage)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	c := &client{out: make(chan []byte, 1024), stop: stop, author: who, looks: r.URL.Query().Get("look") == "1" || p.example}
	if err := p.do(func() {
		p.clients[c] = true
		p.people.Add(1)
		c.answer(p.opening(c))
		p.greet()
		p.showShares(c)
	}); err != nil {
		return nil
	}
	defer func() {
		_ = p.do(func() {
			delete(p.clients, c)
			p.people.Add(-1)
			p.forgetShare(c.author.ID)
			p.greet()
		})
	}()
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
			c.answer(Message{T: "refused", Why: "the message cannot be read: " + err.Error()})
			continue
		}
		if p.do(func() { p.answer(c, req) }) != nil {
			return nil
		}
	}
}

// answer serves one request on the project's goroutine. A fault of ours costs this refusal:
// what is open is read again from the store, and the answer tells whether the edit was kept.
func (p *project) answer(c *client, req Request) {
	ctx := context.Background()
	defer func() {
		fault := recover()
		if fault == nil {
			return
		}
		slog.Error("a request failed", "project", p.name, "request", req.T, "fault", fault)
		p.reopen()
		if rev, ok, err := p.kept(ctx, req.Ref); err == nil && ok {
			c.answer(Message{T: "done", Ref: req.Ref, Rev: rev})
			return
		}
		c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(errFault)})
	}()
	refuse := func(err error) { c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(err)}) }
	if c.looks && (req.T == "edit" || req.T == "undo" || req.T == "redo") {
		refuse(errLooks)
		return
	}
	switch req.T {
	case "edit":
		rev, over, err := p.edit(ctx, c, req)
		var asks *workbench.Asks
		switch {
		case errors.As(err, &asks):
			c.answer(Message{T: "asks", Ref: req.Ref, Why: asks.Error(), Foreseen: &Foreseen{Outcome: asks.Outcome, Say: asks.Error()}})
		case err != nil:
			refuse(err)
		default:
			c.answer(Message{T: "done", Ref: req.Ref, Rev: rev, Over: over})
		}
	case "undo", "redo":
		rev, err := p.step(ctx, c, req.T, req.Ref)
		if err != nil {
			refuse(err)
			return
		}
		c.answer(Message{T: "done", Ref: req.Ref, Rev: rev})
	case "foresee":
		_, cmd, err := edit.Decode(req.Cmd)
		if err != nil {
			refuse(err)
			return
		}
		f, err := p.foresee(cmd, req.Path)
		if err != nil {
			refuse(err)
			return
		}
		c.answer(Message{T: "preview", Ref: req.Ref, Foreseen: f})
	case "wire":
		p.previewWire(c, req)
	case "nextName":
		c.answer(Message{T: "preview", Ref: req.Ref, Name: edit.NextName(req.Text[:min(len(req.Text), design.LongestText)])})
	case "person":
		who, err := author(c.author.ID, req.Text)
		if err != nil {
			refuse(err)
			return
		}
		c.author = who
		p.greet()
		c.answer(Message{T: "done", Ref: req.Ref})
	case "previewTrack":
		if err := p.trackable(req); err != nil {
			refuse(err)
			return
		}
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
		c.answer(Message{T: "preview", Ref: req.Ref, Track: &probe})
	case "previewDrag":
		if err := within(req.Step, req.Pivot); err != nil || len(req.IDs) > mostPicked {
			refuse(cmp.Or(err, fmt.Errorf("%d things at once are too many to drag", len(req.IDs))))
			return
		}
		d := p.bench.Drag(req.IDs, req.Step, req.Pivot, req.Angle)
		c.answer(Message{T: "preview", Ref: req.Ref, Drag: &d})
	case "differences":
		c.answer(Message{T: "preview", Ref: req.Ref, Differences: p.bench.Differences()})
	case "find":
		c.answer(Message{T: "preview", Ref: req.Ref, Hits: find.Find(p.bench.Doc, req.Query)})
	case "previewNumbers":
		list, err := circuit.Renumber(p.bench.Doc, p.bench.Nets().Tree, req.Numbering)
		if err != nil {
			c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
			return
		}
		c.answer(Message{T: "preview", Ref: req.Ref, Renamings: list})
	case "pairs":
		c.answer(Message{T: "preview", Ref: req.Ref, Pairs: p.bench.Nets().PairsByName()})
	case "checks":
		c.answer(Message{T: "preview", Ref: req.Ref, Checks: checkTable(p.bench.Doc.Checks)})
	case "timing":
		if len(req.Text) > design.LongestNote {
			refuse(fmt.Errorf("the timing diagram has %d characters; %d are the most", len(req.Text), design.LongestNote))
			return
		}
		d, err := timing.Parse(req.Text)
		if err != nil {
			c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
			return
		}
		c.answer(Message{T: "preview", Ref: req.Ref, Timing: d})
	case "paint":
		p.paint(c, req)
	case "paintItem":
		p.paintItem(c, req)
	case "share":
		p.share(c, req.Shared)
		c.answer(Message{T: "done", Ref: req.Ref, Rev: p.bench.Rev})
	default:
		c.answer(Message{T: "refused", Ref: req.Ref, Why: fmt.Sprintf("%q is not known", req.T)})
	}
}

// paint draws one use of a sheet.
func (p *project) paint(c *client, req Request) {
	nets := p.bench.Nets()
	for _, place := range nets.Tree.Of(req.Sheet) {
		if place.Path == req.Path {
			page := paper.PageOf(p.bench.Doc, nets, place)
			c.answer(Message{T: "preview", Ref: req.Ref, Page: &page})
			return
		}
	}
	c.answer(Message{T: "refused", Ref: req.Ref, Why: "There is no such sheet any more."})
}

// paintItem draws something that is not there yet: what a tool holds in its hand.
func (p *project) paintItem(c *client, req Request) {
	if req.Item == nil {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: "Nothing was given to draw."})
		return
	}
	o := design.Blank(req.Item.Kind)
	if o == nil || len(req.Item.Object) > 4*design.LongestNote || json.Unmarshal(req.Item.Object, o) != nil {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: "What was given to draw cannot be read."})
		return
	}
	if err := drawable(o); err != nil {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
		return
	}
	if part, ok := o.(*design.Part); ok && p.bench.Doc.SymbolOf(part) == nil { // of the shipped library
		c.answer(Message{T: "preview", Ref: req.Ref, Drawn: []paper.Drawn{{Kind: req.Item.Kind, Marks: libraryMarks(part)}}})
		return
	}
	c.answer(Message{T: "preview", Ref: req.Ref, Drawn: []paper.Drawn{{Kind: req.Item.Kind, Marks: paper.Marks(p.bench.Doc, o, "")}}})
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
	t := &CheckTable{Types: design.PinTypes, Words: circuit.PinWords, Pairs: map[string]string{}}
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

// mostPicked bounds what a preview moves at once.
const mostPicked = 20_000

// within checks places and steps of previews as commands' are.
func within(pts ...geom.Point) error {
	for _, p := range pts {
		if p.X > units.Limit || p.X < -units.Limit || p.Y > units.Limit || p.Y < -units.Limit {
			return fmt.Errorf("%s, %s lies beyond what a drawing can reach", units.Text(p.X), units.Text(p.Y))
		}
	}
	return nil
}

// trackable checks what a track is asked for.
func (p *project) trackable(req Request) error {
	if n := len(p.bench.Doc.Board.CopperNames()); req.Layer < 0 || req.Layer >= n {
		return fmt.Errorf("the board has no copper layer %d", req.Layer+1)
	}
	if req.Width < 0 || req.Width > units.Limit {
		return fmt.Errorf("a track cannot be %s wide", units.Text(req.Width))
	}
	return within(req.From, req.To)
}

// drawable checks what a tool holds in its hand; it has no sheet and perhaps no name yet.
func drawable(o design.Object) error {
	switch o := o.(type) {
	case *design.Part, *design.Label, *design.Port, *design.Supply, *design.OpenMark, *design.SheetBlock, *design.Tap:
		return nil
	case *design.Timing:
		d, err := timing.Parse(o.Text)
		if err != nil {
			return err
		}
		return cmp.Or(o.Valid(), d.Fits(o.Slot))
	case design.OnSheet:
		return o.Valid()
	}
	return fmt.Errorf("a %s is not drawn on a sheet", o.ObjectKind())
}

// previewWire finds the way of a wire from its last corner to the hand and what the whole would
// join.
func (p *project) previewWire(c *client, req Request) {
	n := len(req.Points)
	if n == 0 || n > 1000 {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: "A wire goes through 1 to 1000 places."})
		return
	}
	if err := within(append(slices.Clone(req.Points), req.To)...); err != nil {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: sentence(err)})
		return
	}
	view := p.bench.Nets().Views[req.Sheet]
	if view == nil {
		c.answer(Message{T: "refused", Ref: req.Ref, Why: "There is no such sheet any more."})
		return
	}
	way := circuit.Bend(p.bench.Doc, view, req.Points[n-1], req.To, circuit.Lead(req.Lead), req.Bundle)
	m := Message{T: "preview", Ref: req.Ref, Way: way}
	if path := append(slices.Clone(req.Points[:n-1]), way...); len(path) > 1 {
		if f, err := p.foresee(&edit.DrawWire{Sheet: req.Sheet, Path: path, Bundle: req.Bundle}, req.Path); err == nil {
			f.Put, f.Remove = nil, nil
			m.Foreseen = f
		}
	}
	c.answer(m)
}
