package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"strconv"
	"time"

	"github.com/coder/websocket"
	"github.com/labstack/echo/v5"

	"goldentrace/core/reading"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// client is one browser tab in a project.
type client struct {
	out    chan letter
	stop   context.CancelFunc
	author store.Author
	looks  bool   // shown the project, and does not change it
	stage  string // in view when it came
}

// letter is what a tab is sent: one message or several, made when their turn comes.
type letter func(write func([]byte) error) error

// post queues a letter; a tab that does not take its messages is let go and comes back.
func (c *client) post(l letter) {
	select {
	case c.out <- l:
	default:
		c.stop()
	}
}

// send queues a message.
func (c *client) send(data []byte) {
	c.post(func(write func([]byte) error) error { return write(data) })
}

// tell sends a message to this tab alone.
func (c *client) tell(m any) {
	data, err := encode(m)
	if err != nil {
		c.fail(err)
		return
	}
	c.send(data)
}

// fail lets a tab go that cannot be told something; it comes back and is told everything.
func (c *client) fail(err error) {
	slog.Error("a message cannot be written", "error", err)
	c.stop()
}

func (c *client) refuse(ref string, err error) { c.tell(Refused{ref, sentence(err)}) }

// largestMessage from a browser, in bytes; of most kinds they are smaller (Request.sized).
const largestMessage = mostFileEdit

// live is the connection of a browser tab to a project, which is opened if it is not yet: what can be
// shown of it before is sent at once.
func (a *api) live(c *echo.Context, id int64) error {
	r, query := c.Request(), c.Request().URL.Query()
	defer a.hub.sockets.Add(-1)
	if a.hub.sockets.Add(1) > mostSocket {
		return fail(c, errCrowded)
	}
	s := a.hub.slot(r.Context(), id, query.Get("stage") == "board")
	defer s.show()
	select {
	case <-s.loaded:
	case <-r.Context().Done():
		return r.Context().Err()
	}
	had := s.early.Load()
	if had == nil { // it is open, or cannot be
		<-s.done
		switch {
		case s.err != nil:
			return fail(c, s.err)
		case s.project.people.Load() >= mostInOne:
			return fail(c, errCrowded)
		}
	}
	who, err := author(query.Get("who"), query.Get("name"))
	if err != nil {
		return fail(c, err)
	}
	conn, err := websocket.Accept(c.Response(), r, &websocket.AcceptOptions{CompressionMode: websocket.CompressionDisabled})
	if err != nil {
		return nil // Accept has answered
	}
	defer conn.CloseNow()
	conn.SetReadLimit(largestMessage)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	me := &client{out: make(chan letter, 1024), stop: stop, author: who, looks: query.Get("look") == "1", stage: query.Get("stage")}
	write := func(data []byte) error {
		late, cancel := context.WithTimeout(ctx, 30*time.Second)
		defer cancel()
		return conn.Write(late, websocket.MessageText, data)
	}
	todo := make(chan Request, mostWaiting)
	go read(ctx, me, conn, s, todo)
	if had != nil {
		if err := had.begin(me, write); err != nil {
			return nil
		}
		<-s.done
		err := s.err
		if err == nil && s.project.people.Load() >= mostInOne {
			err = errCrowded
		}
		if err != nil {
			data, _ := encode(Broken{sentence(err)}) // a sentence always can be
			_ = write(data)
			return nil
		}
	}
	seq, _ := strconv.ParseInt(query.Get("seq"), 10, 64)
	s.project.serve(ctx, me, conn, write, todo, func() { s.project.welcome(me, query.Get("run"), seq, had) })
	return nil
}

var errCrowded = errors.New("too many windows are open in this project or in all; close one first")

// serve serves a tab until its connection ends.
func (p *project) serve(ctx context.Context, c *client, conn *websocket.Conn, write func([]byte) error, todo <-chan Request, welcome func()) {
	stop := c.stop
	if err := p.do(func() {
		c.looks = c.looks || p.example
		p.clients[c] = true
		p.people.Add(1)
		welcome()
		p.greet()
		p.showShares(c)
	}); err != nil {
		return
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
			case l := <-c.out:
				if l(write) != nil {
					return
				}
			}
		}
	}()
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
}

// read reads a tab's requests, which are served in their order by the project's goroutine. The socket is read on
// meanwhile, so that stopping a job is heard at once.
func read(ctx context.Context, c *client, conn *websocket.Conn, s *slot, todo chan<- Request) {
	defer c.stop()
	defer s.show()
	for {
		_, data, err := conn.Read(ctx)
		if err != nil {
			return
		}
		var req Request
		if err := json.Unmarshal(data, &req); err != nil {
			c.refuse(req.Ref, fmt.Errorf("the message cannot be read: %w", reading.Wrong(err)))
			continue
		}
		if err := req.sized(len(data)); err != nil {
			c.refuse(req.Ref, err)
			continue
		}
		switch req.T {
		case "shown":
			s.show()
			continue
		case "giveUp":
			<-s.done
			if s.project != nil {
				s.project.jobs.stop(req.Job)
			}
			c.tell(Done{Ref: req.Ref})
			continue
		}
		select {
		case todo <- req:
		case <-ctx.Done():
			return
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
		var answer any
		p.moved()
		p.attended("search", func() { answer, err = p.answerTo(req.Question) })
		if err != nil {
			c.refuse(req.Ref, err)
			return
		}
		c.tell(Answered{req.Ref, answer})
		return
	case "edit":
		p.attended("act", func() { done, err = p.edit(ctx, c, req) })
		var asks *workbench.Asks
		if errors.As(err, &asks) {
			c.tell(Asks{req.Ref, asks.Error(), asks.Outcome})
			return
		}
	case "undo", "redo":
		done, err = p.step(ctx, c, req.T, req.Ref)
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
