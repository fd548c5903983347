package server

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"sync"
	"time"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/ordering"
)

// depot is the supplier as the program speaks to it: over HTTP, as docs/depot-service.md says. It remembers what it heard of parts, so
// that baskets can be looked at while the supplier does not answer.
type depot struct {
	base string // its address; empty: there is none
	http http.Client

	mu    sync.Mutex
	known map[string]heard
}

// heard of a part, and when.
type heard struct {
	part ordering.Part
	at   time.Time
}

// longestAnswer is how long the supplier may take.
const longestAnswer = 20 * time.Second

// mostHeard bounds what is remembered.
const mostHeard = 20_000

func newDepot(base string) *depot {
	return &depot{base: base, http: http.Client{Timeout: longestAnswer}, known: map[string]heard{}}
}

// errDepot is a trouble of the supplier's, not of ours.
var errDepot = errors.New("the depot")

// call asks it for something.
func (d *depot) call(ctx context.Context, method, path string, in, out any) error {
	if d == nil || d.base == "" {
		return fmt.Errorf("%w is not set up; start the program with --depot and its address", errDepot)
	}
	var body io.Reader
	if in != nil {
		data, err := json.Marshal(in)
		if err != nil {
			return err
		}
		body = bytes.NewReader(data)
	}
	r, err := http.NewRequestWithContext(ctx, method, d.base+path, body)
	if err != nil {
		return err
	}
	r.Header.Set("Content-Type", "application/json")
	res, err := d.http.Do(r)
	if err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return fmt.Errorf("%w does not answer; everything else goes on, try it again in a while", errDepot)
	}
	defer res.Body.Close()
	data, err := io.ReadAll(io.LimitReader(res.Body, 64<<20))
	if err != nil {
		return fmt.Errorf("%w broke off in the middle of its answer", errDepot)
	}
	if res.StatusCode != http.StatusOK {
		var t struct {
			Error string `json:"error"`
		}
		if json.Unmarshal(data, &t) != nil || t.Error == "" {
			t.Error = res.Status
		}
		if res.StatusCode == http.StatusBadRequest {
			return errors.New(t.Error)
		}
		return fmt.Errorf("%w cannot answer: %s", errDepot, t.Error)
	}
	if err := json.Unmarshal(data, out); err != nil {
		return fmt.Errorf("%w answers in a way that cannot be read", errDepot)
	}
	return nil
}

func (d *depot) search(ctx context.Context, q *ordering.Query) (*ordering.Answer, error) {
	var a ordering.Answer
	if err := d.call(ctx, http.MethodPost, "/v1/search", q, &a); err != nil {
		return nil, err
	}
	return &a, nil
}

// parts asks for parts by their numbers, and remembers them.
func (d *depot) parts(ctx context.Context, numbers []string) ([]ordering.Part, error) {
	out := []ordering.Part{}
	for at := 0; at < len(numbers); at += ordering.MostNumbers {
		var a ordering.Parts
		if err := d.call(ctx, http.MethodPost, "/v1/parts", ordering.Numbers{Numbers: numbers[at:min(at+ordering.MostNumbers, len(numbers))]}, &a); err != nil {
			return nil, err
		}
		out = append(out, a.Parts...)
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	if len(d.known)+len(out) > mostHeard {
		clear(d.known)
	}
	for _, p := range out {
		d.known[p.Number] = heard{p, time.Now()}
	}
	return out, nil
}

// remembered gives what was heard of parts, and since when the oldest of it is known.
func (d *depot) remembered(numbers []string) (map[string]*ordering.Part, time.Time) {
	d.mu.Lock()
	defer d.mu.Unlock()
	out := map[string]*ordering.Part{}
	var since time.Time
	for _, n := range numbers {
		if h, ok := d.known[n]; ok {
			out[n] = &h.part
			if since.IsZero() || h.at.Before(since) {
				since = h.at
			}
		}
	}
	return out, since
}

func (a *api) depotRoutes(e *echo.Echo) {
	e.POST("/api/depot/search", a.depotSearch)
	e.POST("/api/depot/parts", a.depotParts)
	e.GET("/api/depot/manner", a.depotManner)
	e.PUT("/api/depot/manner", a.setDepotManner)
	e.GET("/api/projects/:id/basket", a.with(a.basket))
	e.GET("/api/projects/:id/basket.csv", a.with(a.basketTable))
}

// failDepot tells the supplier's troubles from those of the request.
func failDepot(c *echo.Context, err error) error {
	if errors.Is(err, errDepot) {
		return c.JSON(http.StatusBadGateway, Failure{Error: sentence(err)})
	}
	return fail(c, err)
}

func (a *api) depotSearch(c *echo.Context) error {
	var q ordering.Query
	if err := readSmall(c, &q, "what is looked for"); err != nil {
		return fail(c, err)
	}
	if err := q.Check(); err != nil {
		return fail(c, err)
	}
	out, err := a.hub.depot.search(c.Request().Context(), &q)
	if err != nil {
		return failDepot(c, err)
	}
	return c.JSON(http.StatusOK, out)
}

func (a *api) depotParts(c *echo.Context) error {
	var in ordering.Numbers
	if err := readSmall(c, &in, "the list of numbers"); err != nil {
		return fail(c, err)
	}
	list, err := a.hub.depot.parts(c.Request().Context(), in.Numbers)
	if err != nil {
		return failDepot(c, err)
	}
	return c.JSON(http.StatusOK, ordering.Parts{Parts: list})
}

// DepotManner is how the simulated depot answers.
type DepotManner struct {
	Answers string `json:"answers"`
}

func (a *api) depotManner(c *echo.Context) error {
	var m DepotManner
	if err := a.hub.depot.call(c.Request().Context(), http.MethodGet, "/v1/manner", nil, &m); err != nil {
		return failDepot(c, err)
	}
	return c.JSON(http.StatusOK, m)
}

func (a *api) setDepotManner(c *echo.Context) error {
	var m DepotManner
	if err := readSmall(c, &m, "how the depot answers"); err != nil {
		return fail(c, err)
	}
	if err := a.hub.depot.call(c.Request().Context(), http.MethodPut, "/v1/manner", m, &m); err != nil {
		return failDepot(c, err)
	}
	return c.JSON(http.StatusOK, m)
}

// BasketSeen is what a project's basket holds and costs.
type BasketSeen struct {
	ordering.Filled
	// Trouble says why the depot could not be asked; prices are then those of Since, where they are known at all.
	Trouble string `json:"trouble,omitempty"`
	Since   string `json:"since,omitempty"`
}

func (a *api) fillBasket(c *echo.Context, id int64) (*BasketSeen, string, error) {
	ctx := c.Request().Context()
	p, err := a.hub.project(ctx, id)
	if err != nil {
		return nil, "", err
	}
	type asked struct {
		basket *design.Basket
		needs  []ordering.Need
		name   string
	}
	in, err := ask(p, func() (asked, error) {
		d := p.bench.Doc
		return asked{d.BasketOr(), ordering.Needs(d, p.bench.Tree()), p.name}, nil
	})
	if err != nil {
		return nil, "", err
	}
	var numbers []string
	for _, n := range in.needs {
		if n.Number != "" {
			numbers = append(numbers, n.Number)
		}
	}
	out := &BasketSeen{}
	why := ordering.NotKnown
	var known map[string]*ordering.Part
	list, err := a.hub.depot.parts(ctx, numbers)
	switch {
	case err == nil:
		known = make(map[string]*ordering.Part, len(list))
		for i := range list {
			known[list[i].Number] = &list[i]
		}
	case errors.Is(err, errDepot):
		var since time.Time
		known, since = a.hub.depot.remembered(numbers)
		out.Trouble, why = sentence(err), "its price is not known: the depot could not be asked"
		if !since.IsZero() {
			out.Since = since.UTC().Format(time.RFC3339)
		}
	default:
		return nil, "", err
	}
	out.Filled = *ordering.Fill(in.basket, in.needs, known, why)
	return out, in.name, nil
}

func (a *api) basket(c *echo.Context, id int64) error {
	b, _, err := a.fillBasket(c, id)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, b)
}

func (a *api) basketTable(c *echo.Context, id int64) error {
	b, name, err := a.fillBasket(c, id)
	if err != nil {
		return fail(c, err)
	}
	if b.Trouble != "" {
		return c.JSON(http.StatusBadGateway, Failure{Error: b.Trouble + " A table to order by has prices of now; nothing was written."})
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-basket.csv"`, handoff.Stem(name)))
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", b.CSV())
}
