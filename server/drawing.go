package server

import (
	"bytes"
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"

	"goldentrace/core/dxf"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/rules"
)

// drawingRoutes are those of files about a board: drawings of its outline, and its rules.
func (a *api) drawingRoutes(e *echo.Echo) {
	e.POST("/api/drawing", a.readDrawing)
	e.POST("/api/logo", a.readLogo)
	e.GET("/api/projects/:id/outline.dxf", a.with(a.outlineDrawing))
	e.GET("/api/projects/:id/rules.json", a.with(a.rulesFile))
}

// DrawingSeen is what a DXF drawing holds, and the outline it gives; nothing is taken by asking.
type DrawingSeen struct {
	dxf.Drawing
	Edges *dxf.Edges `json:"edges,omitempty"`
	Wrong string     `json:"wrong,omitempty"` // why it gives none, taken so
}

func (a *api) readDrawing(c *echo.Context) error {
	data, err := body(c, dxf.LargestFile, "the drawing")
	if err != nil {
		return fail(c, err)
	}
	d, err := dxf.Read(data)
	if err != nil {
		return fail(c, err)
	}
	how := dxf.Taking{Layers: c.QueryParams()["layer"]}
	how.Unit, _ = strconv.ParseFloat(c.QueryParam("unit"), 64) // what is none is as the file says
	how.Gap, _ = strconv.ParseInt(c.QueryParam("gap"), 10, 64)
	how.Tolerance, _ = strconv.ParseInt(c.QueryParam("tolerance"), 10, 64)
	out := DrawingSeen{Drawing: *d}
	if out.Edges, err = d.Outline(how); err != nil {
		out.Edges, out.Wrong = nil, sentence(err)
	}
	return c.JSON(http.StatusOK, out)
}

func (a *api) outlineDrawing(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	var b bytes.Buffer
	name, err := ask(p, func() (string, error) {
		d := p.bench.Doc
		if len(d.Board.Outline) == 0 {
			return "", fmt.Errorf("%w: the board has no outline that could be written", errNothing)
		}
		return handoff.Stem(p.name), dxf.Write(&b, d.Board, slices.Collect(d.Holes.All()))
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-outline.dxf"`, name))
	return c.Blob(http.StatusOK, "image/vnd.dxf", b.Bytes())
}

func (a *api) rulesFile(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	name := ""
	data, err := ask(p, func() ([]byte, error) {
		name = handoff.Stem(p.name)
		return rules.Write(p.bench.Doc)
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-rules.json"`, name))
	return c.Blob(http.StatusOK, "application/json", data)
}
