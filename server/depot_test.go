package server

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// shop is a depot written by hand after docs/depot-service.md.
type shop struct {
	answer atomic.Pointer[func(w http.ResponseWriter, r *http.Request)]
}

func (s *shop) does(f func(w http.ResponseWriter, r *http.Request)) { s.answer.Store(&f) }

func withShop(t *testing.T) (*desk, *shop) {
	t.Helper()
	k, s := newDesk(t), &shop{}
	web := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) { (*s.answer.Load())(w, r) }))
	t.Cleanup(web.Close)
	k.hub.depot = newDepot(web.URL)
	return k, s
}

const aPart = `{"number":"X-1","maker":"Sennick","makerNumber":"SK-1","family":"resistor","text":"Resistor 1 kΩ","package":"0603","status":"made","stock":80,"weeks":3,
	"properties":[],"body":{},"offers":[{"packaging":"cut tape","minimum":1,"multiple":1,"breaks":[{"from":1,"price":20000},{"from":100,"price":5000}]}]}`

func TestTroublesOfTheDepot(t *testing.T) {
	k, s := withShop(t)
	var asked string
	s.does(func(w http.ResponseWriter, r *http.Request) {
		body, _ := io.ReadAll(r.Body)
		asked = r.Method + " " + r.URL.Path + " " + string(body)
		fmt.Fprintf(w, `{"found":1,"rows":[%s],"families":[{"text":"resistor","count":1}],"facets":[]}`, aPart)
	})
	code, body := k.ask("POST", "/depot/search", `{"words":"1k","quantity":25,"inStock":true}`)
	assert.Equal(t, 200, code, body)
	assert.Equal(t, `POST /v1/search {"words":"1k","inStock":true,"quantity":25}`, asked)
	assert.Contains(t, body, `"makerNumber":"SK-1"`)

	for say, f := range map[string]func(w http.ResponseWriter, r *http.Request){
		"The depot cannot answer: closed today.": func(w http.ResponseWriter, _ *http.Request) {
			w.WriteHeader(503)
			fmt.Fprint(w, `{"error":"closed today"}`)
		},
		"The depot cannot answer: 500 Internal Server Error.": func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(500) },
		"The depot answers in a way that cannot be read.":     func(w http.ResponseWriter, _ *http.Request) { fmt.Fprint(w, `<html>`) },
		"The depot does not answer;":                          func(http.ResponseWriter, *http.Request) { panic(http.ErrAbortHandler) },
		"The depot broke off in the middle of its answer.": func(w http.ResponseWriter, _ *http.Request) {
			w.Header().Set("Content-Length", "1000")
			fmt.Fprint(w, `{"found"`)
		},
	} {
		s.does(f)
		code, body := k.ask("POST", "/depot/search", `{}`)
		assert.Equal(t, 502, code, body)
		assert.Contains(t, body, say)
		code, body = k.ask("GET", "/depot/manner", ``)
		assert.Equal(t, 502, code, body)
	}
	s.does(func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(400)
		fmt.Fprint(w, `{"error":"there is no family called \"cheese\""}`)
	})
	code, body = k.ask("POST", "/depot/search", `{"family":"cheese"}`)
	assert.Equal(t, 400, code, "what was asked is wrong, not the depot")
	assert.Contains(t, body, "There is no family called")
	code, body = k.ask("POST", "/depot/search", `{"limit":5000}`)
	assert.Equal(t, 400, code, body)
	code, body = k.ask("POST", "/depot/search", `{`)
	assert.Equal(t, 400, code, body)
	k.hub.depot = newDepot("")
	code, body = k.ask("POST", "/depot/search", `{}`)
	assert.Equal(t, 502, code)
	assert.Contains(t, body, "is not set up")
}

// Who stops waiting is not waited for.
func TestAStoppedQuestionIsNotAsked(t *testing.T) {
	k, s := withShop(t)
	gone := make(chan bool)
	s.does(func(_ http.ResponseWriter, r *http.Request) {
		_, _ = io.Copy(io.Discard, r.Body)
		<-r.Context().Done()
		close(gone)
	})
	ctx, stop := context.WithTimeout(context.Background(), 50*time.Millisecond)
	defer stop()
	r, err := http.NewRequestWithContext(ctx, "POST", k.url+"/api/depot/search", http.NoBody)
	require.NoError(t, err)
	r.Body = io.NopCloser(strings.NewReader(`{}`))
	_, err = http.DefaultClient.Do(r)
	require.Error(t, err)
	select {
	case <-gone:
	case <-time.After(5 * time.Second):
		t.Fatal("the depot still works for nobody")
	}
}

// A basket of five boards of one part: priced, kept in the project, looked at while the depot is gone, and not written then.
func TestABasketWhileTheDepotIsGone(t *testing.T) {
	k, s := withShop(t)
	id := k.created(k.ask("POST", "/projects", `{"name": "B"}`)).ID
	l := k.dial(id)
	l.opened()
	does := func(kind string, fields map[string]any) {
		t.Helper()
		m := l.does(edits(kind, fields))
		require.Equal(t, "done", m.T, m.Why)
	}
	sheet := k.docOf(id).SheetsInOrder()[0].ID
	does("placePart", map[string]any{"sheet": sheet, "library": "Resistor 0603", "designator": "R1", "at": map[string]int{"x": 50_000_000, "y": 50_000_000}})
	part := int64(0)
	for _, p := range k.docOf(id).Parts {
		part = int64(p.ID)
	}
	working := func(w http.ResponseWriter, r *http.Request) {
		body, _ := io.ReadAll(r.Body)
		if r.URL.Path != "/v1/parts" || string(body) != `{"numbers":["X-1"]}` && string(body) != `{"numbers":null}` {
			w.WriteHeader(500)
			return
		}
		if string(body) == `{"numbers":["X-1"]}` {
			fmt.Fprintf(w, `{"parts":[%s]}`, aPart)
		} else {
			fmt.Fprint(w, `{"parts":[]}`)
		}
	}
	s.does(working)
	code, body := k.ask("GET", pathOf(id)+"/basket", "")
	assert.Equal(t, 200, code, body)
	assert.Contains(t, body, "nothing chosen: Resistor 0603")

	does("setParts", map[string]any{"cells": []map[string]any{{"id": part, "field": "order number", "text": "X-1"}}})
	does("setBasket", map[string]any{"boards": 30})
	_, body = k.ask("GET", pathOf(id)+"/basket", "")
	assert.Contains(t, body, `"total":600000`, "30 at 0.02 €")
	assert.Contains(t, body, `"hint":"100 cost 0.10 € less"`)
	code, body = k.ask("GET", pathOf(id)+"/basket.csv", "")
	assert.Equal(t, 200, code)
	assert.Contains(t, body, "X-1,Sennick,SK-1,Resistor 1 kΩ,30,cut tape,0.02,0.6,30,0,0,R1,")

	s.does(func(http.ResponseWriter, *http.Request) { panic(http.ErrAbortHandler) })
	does("setBasket", map[string]any{"boards": 100})
	code, body = k.ask("GET", pathOf(id)+"/basket", "")
	assert.Equal(t, 200, code, "what was heard before is still to be seen")
	assert.Contains(t, body, `"total":500000`)
	assert.Contains(t, body, `"trouble":"The depot does not answer;`)
	assert.Contains(t, body, `"since":"20`)
	code, body = k.ask("GET", pathOf(id)+"/basket.csv", "")
	assert.Equal(t, 502, code)
	assert.Contains(t, body, "nothing was written")
	does("setParts", map[string]any{"cells": []map[string]any{{"id": part, "field": "order number", "text": "X-2"}}})
	_, body = k.ask("GET", pathOf(id)+"/basket", "")
	assert.Contains(t, body, "the depot could not be asked", "never that it does not know a number that it was not asked for")
	for i := range 2 {
		m := l.does(map[string]any{"t": "undo", "ref": fmt.Sprint("u", i)})
		require.Equal(t, "done", m.T, m.Why)
	}
	assert.Equal(t, 30, k.docOf(id).Basket.Boards, "a basket is undone as everything is")
}
