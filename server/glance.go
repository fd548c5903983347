package server

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/glance"
)

// Glance is a project as the list of projects shows it.
type Glance struct {
	Revision    int64    `json:"revision"`
	Circuit     string   `json:"circuit"`     // none, work, done
	Board       string   `json:"board"`       // pending: not known yet
	Handoff     string   `json:"handoff"`     // none, work: made and out of date since, done
	Differences int      `json:"differences"` // between circuit and board
	Nets        int      `json:"nets"`
	Faults      int      `json:"faults"`
	Warnings    int      `json:"warnings"`
	Picture     string   `json:"picture"`          // what the picture shows: board, circuit; empty: nothing is drawn
	Behind      bool     `json:"behind,omitempty"` // copper areas are still being filled: the picture is drawn again once they are
	People      []string `json:"people,omitempty"` // who have it open now, each once; one without a name is ""
}

// Example is a project that comes with the program: everybody may look at it and take a copy.
type Example struct {
	Name  string
	Build func() (*design.Doc, error)
}

// Starts is what a new project can begin with.
type Starts struct {
	Templates []design.Template `json:"templates"`
	Examples  []Begin           `json:"examples"`
}

// Begin is an example as a start.
type Begin struct {
	ID    int64  `json:"id"`
	Name  string `json:"name"`
	Parts int    `json:"parts"`
}

// kept is a glance as the database keeps it. One that was drawn in another form is drawn anew.
type kept struct {
	Form   int    `json:"form"`
	Glance Glance `json:"glance"`
}

// glanceForm changes when what a glance tells or how a picture is drawn does.
const glanceForm = 5

func (a *api) glanceRoutes(e *echo.Echo) {
	e.GET("/api/starts", a.starts)
	e.GET("/api/projects/:id/glance", a.with(a.glance))
	e.GET("/api/projects/:id/picture.svg", a.with(a.picture))
}

// starts lists templates and examples; the examples are kept when they are first asked for.
func (a *api) starts(c *echo.Context) error {
	ctx := c.Request().Context()
	out := Starts{Templates: design.Templates(), Examples: []Begin{}}
	if err := a.hub.putExamples(ctx); err != nil {
		return fail(c, err)
	}
	list, err := a.hub.store.Examples(ctx)
	if err != nil {
		return fail(c, err)
	}
	for _, p := range list {
		out.Examples = append(out.Examples, Begin{p.ID, p.Name, p.Parts})
	}
	return c.JSON(http.StatusOK, out)
}

func (h *hub) putExamples(ctx context.Context) error {
	h.examplesMu.Lock()
	defer h.examplesMu.Unlock()
	for _, x := range h.examples {
		if err := h.store.PutExample(context.WithoutCancel(ctx), x.Name, x.Build); err != nil {
			return fmt.Errorf("the example %s cannot be kept: %w", x.Name, err)
		}
	}
	h.examples = nil
	return nil
}

// look finds how a project looks now: as it was kept at this revision, or drawn anew from the
// open project and kept.
func (a *api) look(ctx context.Context, id int64) (g Glance, picture []byte, err error) {
	body, picture, ok, err := a.hub.store.GlanceAt(ctx, id)
	if err == nil && ok {
		var k kept
		if err := json.Unmarshal([]byte(body), &k); err == nil && k.Form == glanceForm {
			return k.Glance, picture, nil
		}
	}
	p, err := a.hub.project(ctx, id)
	if err != nil {
		return g, nil, err
	}
	m, err := ask(p, func() (moment, error) {
		s := p.bench.Stages()
		g = Glance{Revision: p.bench.Rev, Circuit: s.Circuit, Board: s.Board, Differences: s.Differences, Nets: s.Nets}
		for _, f := range p.bench.OpenFindings() {
			switch f.Severity {
			case "fault":
				g.Faults++
			case "warning":
				g.Warnings++
			}
		}
		return p.momentHere(), nil
	})
	if err != nil {
		return g, nil, err
	}
	done, err := a.hub.turns.take(ctx)
	if err != nil {
		return g, nil, err
	}
	defer done()
	a.hub.shows.stepAside(ctx, id)
	d := m.shared.Doc()
	g.Behind = m.behind
	picture, g.Picture = glance.Picture(d, circuit.Find(d))
	if g.Picture == "board" && !m.behind && g.Board != "pending" {
		made, err := glance.Finished(ctx, m.board())
		switch {
		case ctx.Err() != nil: // nobody waits for it any more
			return g, nil, ctx.Err()
		case err != nil:
			slog.Warn("a project's card cannot show the finished board", "project", id, "error", err)
		case made != nil:
			picture = made
		}
	}
	if picture == nil {
		picture = []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 3"/>`)
	}
	if g.Board == "pending" || m.behind { // it is looked at again
		return g, picture, nil
	}
	written, err := json.Marshal(kept{glanceForm, g})
	if err == nil {
		err = a.hub.store.KeepGlance(ctx, id, g.Revision, string(written), picture)
	}
	if err != nil && ctx.Err() == nil { // nobody may wait for it any more
		slog.Warn("how a project looks cannot be kept", "project", id, "error", err)
	}
	return g, picture, nil
}

func (a *api) glance(c *echo.Context, id int64) error {
	g, _, err := a.look(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	g.Handoff = "none"
	if h, ok, err := a.hub.store.LastHandoff(c.Request().Context(), id); err == nil && ok {
		g.Handoff = "work"
		if h.Revision == g.Revision {
			g.Handoff = "done"
		}
	}
	if p := a.hub.opened(id); p != nil {
		if here := p.here.Load(); here != nil {
			g.People = *here
		}
	}
	return c.JSON(http.StatusOK, g)
}

func (a *api) picture(c *echo.Context, id int64) error {
	_, picture, err := a.look(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; img-src data:; style-src 'unsafe-inline'; sandbox")
	c.Response().Header().Set("Cache-Control", "no-store") // another data directory has other projects by the same number
	return c.Blob(http.StatusOK, "image/svg+xml", picture)
}
