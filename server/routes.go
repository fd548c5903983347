package server

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/library"
	"goldentrace/core/reading"
	"goldentrace/store"
)

func lower(s string) string { return strings.ToLower(s) }

// sentence makes an error one: a capital at its head, a full stop at its end.
func sentence(err error) string {
	s := strings.ReplaceAll(err.Error(), "\n", "; ")
	if s == "" {
		return "Something went wrong."
	}
	r := []rune(s)
	s = strings.ToUpper(string(r[0])) + string(r[1:])
	if !strings.HasSuffix(s, ".") && !strings.HasSuffix(s, "!") && !strings.HasSuffix(s, "?") {
		s += "."
	}
	return s
}

// Failure is the body of every answer that refuses something.
type Failure struct {
	Error    string `json:"error"`
	Findings int    `json:"findings,omitempty"`
	Unjoined int    `json:"unjoined,omitempty"` // nets
	Open     int    `json:"open,omitempty"`     // links of theirs
}

var errNothing = errors.New("there is nothing at this address")

func fail(c *echo.Context, err error) error {
	code := http.StatusBadRequest
	var large *tooLarge
	switch {
	case errors.As(err, &large):
		code = http.StatusRequestEntityTooLarge
	case errors.Is(err, store.ErrNoProject), errors.Is(err, errNothing):
		code = http.StatusNotFound
	case errors.Is(err, errFault):
		code = http.StatusInternalServerError
	case errors.Is(err, store.ErrNameTaken):
		code = http.StatusConflict
	case errors.Is(err, errBusy), errors.Is(err, errManyJobs), errors.Is(err, errCrowded), errors.Is(err, errFilling):
		code = http.StatusServiceUnavailable
		c.Response().Header().Set("Retry-After", "5")
	}
	return c.JSON(code, Failure{Error: sentence(err)})
}

type api struct {
	hub *hub
}

func (a *api) routes(e *echo.Echo) {
	e.GET("/api/projects", a.list)
	e.POST("/api/projects", a.create)
	e.PATCH("/api/projects/:id", a.with(a.rename))
	e.DELETE("/api/projects/:id", a.with(a.remove))
	e.POST("/api/projects/:id/restore", a.with(a.restore))
	e.POST("/api/projects/:id/duplicate", a.with(a.duplicate))
	e.GET("/api/projects/:id/export", a.with(a.export))
	e.GET("/api/projects/:id/raw", a.with(a.exportRaw))
	e.POST("/api/projects/:id/stepback", a.with(a.stepBack))
	e.POST("/api/import", a.importFile)
	e.GET("/api/projects/:id/live", a.with(a.live))
	e.POST("/api/projects/:id/handoff", a.with(a.makeHandoff))
	e.GET("/api/projects/:id/handoff.zip", a.with(a.handoffZip))
	e.GET("/api/projects/:id/handoff/:file", a.with(a.handoffFile))
	e.GET("/api/projects/:id/handoff/:file/drawing", a.with(a.handoffDrawing))
	a.circuitRoutes(e)
	a.libraryRoutes(e)
	a.depotRoutes(e)
	a.glanceRoutes(e)
	a.drawingRoutes(e)
	a.reportRoutes(e)
	a.finishedRoutes(e)
	a.houseRoutes(e)
	e.Any("/api/*", func(c *echo.Context) error {
		return c.JSON(http.StatusNotFound, Failure{Error: "There is nothing at this address."})
	})
}

func (a *api) with(f func(c *echo.Context, id int64) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id, err := echo.PathParam[int64](c, "id")
		if err != nil {
			return fail(c, store.ErrNoProject)
		}
		return f(c, id)
	}
}

func (a *api) list(c *echo.Context) error {
	list, err := a.hub.store.Projects(c.Request().Context())
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, list)
}

// Named is the body of requests that give a name; a new project begins with a template, or as a
// copy of another.
type Named struct {
	Name     string `json:"name"`
	Template string `json:"template,omitempty"`
	Copy     int64  `json:"copy,omitempty"`
}

// Created answers with a project's id and name.
type Created struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
}

func readName(c *echo.Context) (n Named, err error) {
	data, err := body(c, 1<<16, "the name")
	if err != nil {
		return n, err
	}
	if err := json.Unmarshal(data, &n); err != nil {
		return n, fmt.Errorf("the name cannot be read: %w", reading.Wrong(err))
	}
	n.Name, err = store.CheckName(n.Name)
	return n, err
}

func (a *api) create(c *echo.Context) error {
	n, err := readName(c)
	var d *design.Doc
	switch {
	case err != nil:
	case n.Copy != 0:
		d, err = a.hub.copyOf(c.Request().Context(), n.Copy)
	default:
		d, err = design.FromTemplate(cmp.Or(n.Template, "empty"), n.Name)
	}
	if err != nil {
		return fail(c, err)
	}
	id, err := a.hub.store.Create(c.Request().Context(), n.Name, d)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusCreated, Created{id, n.Name})
}

func (a *api) rename(c *echo.Context, id int64) error {
	n, err := readName(c)
	name := n.Name
	if err == nil {
		err = a.hub.store.Rename(c.Request().Context(), id, name)
	}
	if err != nil {
		return fail(c, err)
	}
	if p := a.hub.opened(id); p != nil {
		_ = p.do(func() { p.name = name; p.relate(Renamed{Name: name}) })
	}
	return c.JSON(http.StatusOK, Created{id, name})
}

func (a *api) remove(c *echo.Context, id int64) error {
	if err := a.hub.store.Delete(c.Request().Context(), id); err != nil {
		return fail(c, err)
	}
	a.hub.forget(id)
	return c.NoContent(http.StatusNoContent)
}

func (a *api) restore(c *echo.Context, id int64) error {
	if err := a.hub.store.Restore(c.Request().Context(), id); err != nil {
		return fail(c, err)
	}
	return c.NoContent(http.StatusNoContent)
}

func (a *api) duplicate(c *echo.Context, id int64) error {
	copied, err := a.hub.duplicate(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusCreated, Created{ID: copied})
}

func (a *api) export(c *echo.Context, id int64) error {
	p, err := a.hub.store.Load(c.Request().Context(), id)
	if err == nil && len(p.Missing) > 0 {
		err = fmt.Errorf("the project cannot be exported whole, since some of it cannot be read (%s); export it as it is kept", p.Missing[0])
	}
	var b bytes.Buffer
	if err == nil {
		err = design.WriteFile(&b, p.Name, p.Doc)
	}
	if err != nil {
		return fail(c, err)
	}
	return projectFile(c, p.Name, b.Bytes())
}

func projectFile(c *echo.Context, name string, data []byte) error {
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.goldentrace"`, handoff.Stem(name)))
	return c.Blob(http.StatusOK, "application/x-ndjson", data)
}

// exportRaw writes a project's objects as they are kept, be they readable or not.
func (a *api) exportRaw(c *echo.Context, id int64) error {
	var b bytes.Buffer
	name, err := a.hub.store.WriteRaw(c.Request().Context(), &b, id)
	if err != nil {
		return fail(c, err)
	}
	return projectFile(c, name+" as kept", b.Bytes())
}

// SteppedBack tells which act was taken back.
type SteppedBack struct {
	Act string `json:"act"`
}

// stepBack takes back the last act of a project that cannot be opened.
func (a *api) stepBack(c *echo.Context, id int64) error {
	if p, err := a.hub.project(c.Request().Context(), id); err == nil && len(p.missing) == 0 {
		return c.JSON(http.StatusConflict, Failure{Error: "The project can be opened; undo its last step there."})
	}
	a.hub.forget(id)
	act, err := a.hub.store.StepBack(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	_, _ = a.hub.project(c.Request().Context(), id) // notes its trouble, if it still has any
	return c.JSON(http.StatusOK, SteppedBack{act})
}

func (a *api) importFile(c *echo.Context) error {
	id, name, err := Import(c.Request().Context(), a.hub.store, c.Request().Body)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusCreated, Created{id, name})
}

// Import keeps a project file as a new project; when its name is taken it gets a number.
func Import(ctx context.Context, s *store.Store, r io.Reader) (int64, string, error) {
	name, d, err := design.ReadFile(r)
	if err != nil {
		return 0, "", err
	}
	if name, err = store.CheckName(name); err != nil {
		return 0, "", err
	}
	if err := edit.Gate(d); err != nil {
		return 0, "", fmt.Errorf("the project file cannot be taken in: %w", err)
	}
	if name, err = FreeName(ctx, s, name); err != nil {
		return 0, "", err
	}
	id, err := s.Create(ctx, name, d)
	return id, name, err
}

// Found answers a search of the library: the best items, and how many there are in all.
type Found struct {
	Items []library.Item `json:"items"`
	Found int            `json:"found"`
	Query string         `json:"query"`           // what they were found by
	Value string         `json:"value,omitempty"` // a value among the words typed, where no part bears it: what is placed gets it
}
