package server

import (
	"fmt"
	"net/http"
	"time"

	"github.com/labstack/echo/v5"

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

// findings sends what was found as a file.
func (a *api) findings(c *echo.Context, id int64, form, kind string, write func(*report.Report) ([]byte, error)) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	name := ""
	data, err := ask(p, func() ([]byte, error) {
		name = handoff.Stem(p.name)
		b := p.bench
		return write(&report.Report{Doc: b.Doc, Revision: b.Rev, Behind: b.Behind()["board rules"], Made: time.Now(), Findings: b.Findings()})
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-findings.%s"`, name, form))
	return c.Blob(http.StatusOK, kind, data)
}
