package server

import (
	"fmt"
	"net/http"
	"time"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/report"
)

// reportRoutes are those of the files of findings.
func (a *api) reportRoutes(e *echo.Echo) {
	e.GET("/api/projects/:id/findings.csv", a.with(func(c *echo.Context, id int64) error {
		return a.findings(c, id, "csv", "text/csv; charset=utf-8", func(r *report.Report) ([]byte, error) { return r.CSV(), nil })
	}))
	e.GET("/api/projects/:id/findings.html", a.with(func(c *echo.Context, id int64) error {
		return a.findings(c, id, "html", "text/html; charset=utf-8", (*report.Report).HTML)
	}))
}

// findings sends what was found as a file, once it is known. Of a board that takes long to be filled and checked a page says so, and a table, which
// cannot, is refused.
func (a *api) findings(c *echo.Context, id int64, form, kind string, write func(*report.Report) ([]byte, error)) error {
	ctx := c.Request().Context()
	p, err := a.hub.project(ctx, id)
	if err == nil {
		err = p.caughtUp(ctx)
	}
	if err != nil {
		return fail(c, err)
	}
	name := ""
	var shared design.Shared
	r, err := ask(p, func() (*report.Report, error) {
		b := p.bench
		name, shared = handoff.Stem(p.name), b.Doc.Share()
		return &report.Report{Revision: b.Rev, Behind: b.Behind() != nil, Made: time.Now(), Findings: b.Findings()}, nil
	})
	if err == nil && r.Behind && form == "csv" {
		err = errFilling
	}
	if err != nil {
		return fail(c, err)
	}
	done, err := a.hub.turns.take(ctx)
	if err != nil {
		return fail(c, err)
	}
	defer done()
	r.Doc = shared.Doc()
	data, err := write(r)
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-findings.%s"`, name, form))
	return c.Blob(http.StatusOK, kind, data)
}
