package server

import (
	"encoding/json"
	"fmt"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/library"
	"goldentrace/core/ordering"
	"goldentrace/store"
)

func (a *api) libraryRoutes(e *echo.Echo) {
	e.GET("/api/library", a.library)
	e.GET("/api/library/rows", a.libraryRows)
	e.GET("/api/library/versions", a.partVersions)
	e.POST("/api/library/withdraw", a.withdraw)
	e.GET("/api/library/pack", a.packLibrary)
	e.POST("/api/library/pack", a.takePack)
	e.GET("/api/projects/:id/pack", a.with(a.packProject))
	e.POST("/api/projects/:id/library", a.with(a.keepPart))
	e.GET("/api/makings", a.makings)
	e.PUT("/api/makings", a.putMaking)
	e.DELETE("/api/makings", a.dropMaking)
}

// readSmall reads the body of a request, which says little.
func readSmall(c *echo.Context, into any, what string) error {
	data, err := body(c, 1<<16, what) // to its end, so that the sender's going away is noticed
	if err != nil {
		return err
	}
	if json.Unmarshal(data, into) != nil {
		return fmt.Errorf("%s cannot be read", what)
	}
	return nil
}

// LibraryRows are parts of the libraries as a list shows them.
type LibraryRows struct {
	Rows  []library.Row `json:"rows"`
	Found int           `json:"found"`
}

// mostRows bounds a list of parts.
const mostRows = 500

func (a *api) libraryRows(c *echo.Context) error {
	list, found := a.hub.library.Search(c.QueryParam("q"), mostRows)
	out := LibraryRows{Rows: []library.Row{}, Found: found}
	for _, it := range list {
		out.Rows = append(out.Rows, library.RowOf(it))
	}
	return c.JSON(http.StatusOK, out)
}

func (a *api) library(c *echo.Context) error {
	const most = 80
	query, like := c.QueryParam("q"), library.Mounting(c.QueryParam("like"))
	out := Found{Query: query}
	out.Items, out.Found = a.hub.library.SearchMounted(query, like, most)
	if rest, value := ordering.ValueIn(query); out.Found == 0 && value != "" { // a part of that kind, to be given the value
		if out.Items, out.Found = a.hub.library.SearchMounted(rest, like, most); out.Found > 0 {
			out.Query, out.Value = rest, value
		}
	}
	if out.Items == nil {
		out.Items = []library.Item{}
	}
	return c.JSON(http.StatusOK, out)
}

// Keeping asks to keep a part of a project in the library of the workspace.
type Keeping struct {
	Part string `json:"part"`
	Who  string `json:"who"`
	Note string `json:"note,omitempty"`
}

// KeptAs answers with the version it is there.
type KeptAs struct {
	Version int `json:"version"`
}

func (a *api) keepPart(c *echo.Context, id int64) error {
	var in Keeping
	if err := readSmall(c, &in, "what is to be kept"); err != nil {
		return fail(c, err)
	}
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	r, err := ask(p, func() (*library.Release, error) {
		l := p.bench.Doc.LibraryPart(in.Part)
		if l == nil {
			return nil, fmt.Errorf("%w: the project has no part called %q", errNothing, in.Part)
		}
		return library.ReleaseOf(p.bench.Doc, l)
	})
	if err != nil {
		return fail(c, err)
	}
	version, err := a.hub.store.KeepPart(c.Request().Context(), r, in.Who, in.Note)
	if err != nil {
		return fail(c, err)
	}
	if err := a.hub.library.renew(c.Request().Context(), a.hub.store); err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, KeptAs{version})
}

func (a *api) partVersions(c *echo.Context) error {
	return a.partVersionsOf(c, c.QueryParam("name"))
}

// Withdrawing takes a version of a part out of what is offered, or brings it back.
type Withdrawing struct {
	Name    string `json:"name"`
	Version int    `json:"version"`
	Back    bool   `json:"back,omitempty"`
}

func (a *api) withdraw(c *echo.Context) error {
	var in Withdrawing
	if err := readSmall(c, &in, "what is to be withdrawn"); err != nil {
		return fail(c, err)
	}
	if err := a.hub.store.Withdraw(c.Request().Context(), in.Name, in.Version, in.Back); err != nil {
		return fail(c, err)
	}
	if err := a.hub.library.renew(c.Request().Context(), a.hub.store); err != nil {
		return fail(c, err)
	}
	return a.partVersionsOf(c, in.Name)
}

func (a *api) partVersionsOf(c *echo.Context, name string) error {
	list, err := a.hub.store.PartVersions(c.Request().Context(), name)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, list)
}

func (a *api) makings(c *echo.Context) error {
	list, err := a.hub.store.Makings(c.Request().Context())
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, list)
}

func (a *api) putMaking(c *echo.Context) error {
	var in store.Making
	if err := readSmall(c, &in, "what is to be named"); err != nil {
		return fail(c, err)
	}
	if err := a.hub.store.PutMaking(c.Request().Context(), in); err != nil {
		return fail(c, err)
	}
	return a.makings(c)
}

func (a *api) dropMaking(c *echo.Context) error {
	if err := a.hub.store.DropMaking(c.Request().Context(), c.QueryParam("name")); err != nil {
		return fail(c, err)
	}
	return a.makings(c)
}
