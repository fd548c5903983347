package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"strconv"
	"time"

	"github.com/coder/websocket"

	"goldentrace/core/workbench"
	"goldentrace/store"
)

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

// tell sends a message to this tab alone.
func (c *client) tell(m any) {
	data, err := encode(m)
	if err != nil {
		slog.Error("a message cannot be written", "error", err)
		c.stop() // it comes back and is told everything
		return
	}
	c.send(data)
}

func (c *client) refuse(ref string, err error) { c.tell(Refused{ref, sentence(err)}) }

// largestMessage from a browser, in bytes.
const largestMessage = 32 << 20

func serveLive(h *hub, p *project, w http.ResponseWriter, r *http.Request) error {
	query := r.URL.Query()
	who, err := author(query.Get("who"), query.Get("name"))
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
	c := &client{out: make(chan []byte, 1024), stop: stop, author: who, looks: query.Get("look") == "1" || p.example}
	seq, _ := strconv.ParseInt(query.Get("seq"), 10, 64)
	if err := p.do(func() {
		p.clients[c] = true
		p.people.Add(1)
		p.welcome(c, query.Get("run"), seq)
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
	// Requests are served in their order by the project's goroutine. The socket is read on meanwhile, so
	// that stopping a job is heard at once.
	todo := make(chan Request, mostWaiting)
	go func() {
		defer stop()
		for {
			select {
			case <-ctx.Done():
				return
			case req := <-todo:
				if p.do(func() { p.answer(c, req) }) != nil {
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
			c.refuse(req.Ref, fmt.Errorf("the message cannot be read: %w", err))
			continue
		}
		if req.T == "stop" {
			p.jobs.stop(req.Job)
			c.tell(Done{Ref: req.Ref})
			continue
		}
		select {
		case todo <- req:
		case <-ctx.Done():
			return nil
		default:
			c.refuse(req.Ref, fmt.Errorf("more than %d requests of this window wait already", mostWaiting))
		}
	}
}

// mostWaiting bounds the requests of one window that wait to be served.
const mostWaiting = 2_000

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
			c.tell(Done{Ref: req.Ref, Rev: rev})
			return
		}
		c.refuse(req.Ref, errFault)
	}()
	if c.looks && (req.T == "edit" || req.T == "undo" || req.T == "redo") {
		c.refuse(req.Ref, errLooks)
		return
	}
	done := Done{Ref: req.Ref}
	var err error
	switch req.T {
	case "ask":
		answer, err := p.answerTo(req.Question)
		if err != nil {
			c.refuse(req.Ref, err)
			return
		}
		c.tell(Answered{req.Ref, answer})
		return
	case "edit":
		done.Rev, done.Over, err = p.edit(ctx, c, req)
		var asks *workbench.Asks
		if errors.As(err, &asks) {
			c.tell(Asks{req.Ref, asks.Error(), asks.Outcome})
			return
		}
	case "undo", "redo":
		done.Rev, err = p.step(ctx, c, req.T, req.Ref)
	case "person":
		var who store.Author
		if who, err = author(c.author.ID, req.Text); err == nil {
			c.author = who
			p.greet()
		}
	case "share":
		p.share(c, req.Shared)
		done.Rev = p.bench.Rev
	case "check":
		p.bench.CheckAll()
		p.settled()
	default:
		err = fmt.Errorf("%q is not known", req.T)
	}
	if err != nil {
		c.refuse(req.Ref, err)
		return
	}
	c.tell(done)
}
