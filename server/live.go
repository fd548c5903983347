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
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// Message goes from the server to a browser. T tells which fields are set: open (Rev, Name,
// Objects, Derived, History, Handoff), changes (Rev, Act, Changes, History), done (Ref,
// Rev), refused (Ref, Why), derived (Derived), preview (Ref and one of the answers), name
// (Name), handoff (Handoff), progress (Job, Share), gone.
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
	Job         string              `json:"job,omitempty"`
	Share       float64             `json:"share,omitempty"`
}

// MovedPreview is what moving things on a sheet would do.
type MovedPreview struct {
	Put    []Boxed     `json:"put"`
	Remove []design.ID `json:"remove"`
	Joined [][2]string `json:"joined"`
	Parted []string    `json:"parted"`
}

// Request comes from a browser. T: edit (Cmd), undo, redo, previewMove (IDs with Step, or
// Pivot with Quarters and Mirror), previewTrack (From, To, Style, Sheet, Net, Width),
// previewDrag (IDs, Step, Pivot, Angle), differences.
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
	Sheet    int             `json:"sheet,omitempty"`
	Net      string          `json:"net,omitempty"`
	Width    int64           `json:"width,omitempty"`
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
		probe := field.Draw(req.From, req.To, req.Style, req.Sheet, req.Net, width)
		end := probe.Path[len(probe.Path)-1]
		r := p.bench.Doc.Board.Rules
		if o := field.Clear(geom.Disc(end, r.ViaDiameter/2), 1<<len(p.bench.Doc.Board.CopperNames())-1, req.Net, r.ViaHole); o != nil && !edit.PlatedAt(field.Index, end, req.Net) {
			probe.Via = o.Error()
		}
		c.say(Message{T: "preview", Ref: req.Ref, Track: &probe})
	case "previewDrag":
		d := p.bench.Drag(req.IDs, req.Step, req.Pivot, req.Angle)
		c.say(Message{T: "preview", Ref: req.Ref, Drag: &d})
	case "differences":
		c.say(Message{T: "preview", Ref: req.Ref, Differences: p.bench.Differences()})
	default:
		c.say(Message{T: "refused", Ref: req.Ref, Why: fmt.Sprintf("%q is not known", req.T)})
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
	view := p.bench.Nets().Views[design.ID(req.Sheet)]
	if view == nil {
		c.say(Message{T: "refused", Ref: req.Ref, Why: "there is no such sheet"})
		return
	}
	next := p.bench.Doc.Next
	m := circuit.Move(p.bench.Doc, view, sel, motion, func() design.ID { next++; return next })
	out := MovedPreview{Joined: m.Joined, Parted: m.Parted}
	for _, o := range m.Put {
		out.Put = append(out.Put, Boxed{o.ObjectKind(), o})
	}
	for _, o := range m.Remove {
		out.Remove = append(out.Remove, o.ObjectID())
	}
	c.say(Message{T: "preview", Ref: req.Ref, Moved: &out})
}
