package server

import (
	"fmt"
	"io"
	"net/http"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/paper"
	"goldentrace/core/partlist"
)

func (a *api) circuitRoutes(e *echo.Echo) {
	e.GET("/api/projects/:id/assets/:asset", a.with(a.asset))
	e.GET("/api/projects/:id/parts.csv", a.with(a.partsOut))
	e.POST("/api/projects/:id/parts.csv", a.with(a.partsIn))
	e.GET("/api/projects/:id/circuit.pdf", a.with(a.circuitPDF))
	e.GET("/api/projects/:id/sheet.svg", a.with(a.sheetSVG))
}

// circuitPDF prints all sheets. It works on a copy, so that editing goes on meanwhile, tells
// its progress to everybody in the project, and stops when nobody waits for it any more.
func (a *api) circuitPDF(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	var d *design.Doc
	if err := p.do(func() { d = p.bench.Doc.Snapshot() }); err != nil {
		return fail(c, err)
	}
	data, err := paper.PDF(c.Request().Context(), d, circuit.Find(d), time.Now(), func(share float64) {
		_ = p.do(func() { p.tell(Message{T: "progress", Job: "pdf", Share: share}) })
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-circuit.pdf"`, handoff.Stem(p.name)))
	return c.Blob(http.StatusOK, "application/pdf", data)
}

func (a *api) sheetSVG(c *echo.Context, id int64) error {
	return a.look(c, id, func(p *project) error {
		n, _ := strconv.ParseInt(c.QueryParam("sheet"), 10, 64)
		nets := p.bench.Nets()
		for _, place := range nets.Tree.Of(design.ID(n)) {
			if place.Path != c.QueryParam("path") {
				continue
			}
			c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.svg"`, handoff.Stem(p.name+" "+place.Label)))
			return c.Blob(http.StatusOK, "image/svg+xml", paper.SVG(p.bench.Doc, paper.PageOf(p.bench.Doc, nets, place)))
		}
		return c.JSON(http.StatusNotFound, Failure{Error: "There is no such sheet in the project."})
	})
}

// look runs f on the open project's document.
func (a *api) look(c *echo.Context, id int64, f func(p *project) error) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	var failed error
	if err := p.do(func() { failed = f(p) }); err != nil {
		return fail(c, err)
	}
	return failed
}

func (a *api) asset(c *echo.Context, id int64) error {
	return a.look(c, id, func(p *project) error {
		n, _ := strconv.ParseInt(c.Param("asset"), 10, 64)
		as := p.bench.Doc.Assets[design.ID(n)]
		if as == nil {
			return c.JSON(http.StatusNotFound, Failure{Error: "There is no such picture in the project."})
		}
		kind := map[string]string{"png": "image/png", "jpeg": "image/jpeg", "svg": "image/svg+xml"}[as.Type]
		c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
		c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
		return c.Blob(http.StatusOK, kind, as.Data)
	})
}

func (a *api) partsOut(c *echo.Context, id int64) error {
	return a.look(c, id, func(p *project) error {
		c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-parts.csv"`, handoff.Stem(p.name)))
		return c.Blob(http.StatusOK, "text/csv; charset=utf-8", partlist.Write(p.bench.Doc, p.bench.Nets().Tree))
	})
}

func (a *api) partsIn(c *echo.Context, id int64) error {
	data, err := io.ReadAll(io.LimitReader(c.Request().Body, partlist.LargestTable+1))
	if err != nil {
		return fail(c, fmt.Errorf("the table did not arrive whole: %w", err))
	}
	return a.look(c, id, func(p *project) error {
		preview, err := partlist.Read(p.bench.Doc, p.bench.Nets().Tree, data)
		if err != nil {
			return fail(c, err)
		}
		return c.JSON(http.StatusOK, preview)
	})
}
