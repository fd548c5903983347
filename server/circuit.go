package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"net/url"
	"slices"
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
	e.GET("/api/projects/:id/footprints.pdf", a.with(a.footprintsPDF))
	e.GET("/api/projects/:id/sheet.svg", a.with(a.sheetSVG))
}

// circuitPDF prints all sheets. It works on a copy, so that editing goes on meanwhile, tells
// its progress to everybody in the project, and stops when nobody waits for it any more.
func (a *api) circuitPDF(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	name := ""
	var rev int64
	shared, err := ask(p, func() (design.Shared, error) {
		name, rev = handoff.Stem(p.name), p.bench.Rev
		return p.bench.Doc.Share(), nil
	})
	if err != nil {
		return fail(c, err)
	}
	return a.printed(c, p, rev, name+"-circuit", func(ctx context.Context, progress func(float64)) ([]byte, string, error) {
		d := shared.Doc()
		return paper.PDF(ctx, d, circuit.Find(d), time.Now(), progress)
	})
}

// printed prints as a job of the project and answers with the file; replaced are letters the type does not have.
func (a *api) printed(c *echo.Context, p *project, rev int64, name string, print func(ctx context.Context, progress func(float64)) (data []byte, replaced string, err error)) error {
	var data []byte
	var replaced string
	err := p.job(c.Request().Context(), "print", rev, func(ctx context.Context, progress func(float64)) error {
		done, err := a.hub.turns.take(ctx)
		if err != nil {
			return err
		}
		defer done()
		data, replaced, err = print(ctx, progress)
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	if replaced != "" { // said by the browser
		c.Response().Header().Set("X-Replaced", url.QueryEscape(replaced))
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.pdf"`, name))
	return c.Blob(http.StatusOK, "application/pdf", data)
}

// footprintsPDF prints footprints of the project at true size: the named ones, or all.
func (a *api) footprintsPDF(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	name := ""
	var rev int64
	wanted := c.QueryParams()["name"]
	list, err := ask(p, func() ([]*design.Footprint, error) {
		d := p.bench.Doc
		name, rev = p.name, p.bench.Rev
		var out []*design.Footprint
		if len(wanted) == 0 {
			for f := range d.Footprints.All() {
				out = append(out, f)
			}
			slices.SortFunc(out, func(a, b *design.Footprint) int { return cmp.Compare(a.Name, b.Name) })
		}
		for _, name := range wanted {
			f := d.Footprint(name)
			if f == nil {
				return nil, fmt.Errorf("%w: the project has no footprint called %q", errNothing, name)
			}
			out = append(out, f)
		}
		return out, nil
	})
	if err != nil {
		return fail(c, err)
	}
	return a.printed(c, p, rev, handoff.Stem(name)+"-footprints", func(ctx context.Context, progress func(float64)) ([]byte, string, error) {
		return paper.FootprintsPDF(ctx, list, name, time.Now(), progress)
	})
}

func (a *api) sheetSVG(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	n, _ := strconv.ParseInt(c.QueryParam("sheet"), 10, 64)
	name := ""
	svg, err := ask(p, func() ([]byte, error) {
		nets := p.bench.Nets()
		for _, use := range nets.Tree.Of(design.ID(n)) {
			if use.Path == c.QueryParam("path") {
				name = handoff.Stem(p.name + " " + use.Label)
				return paper.SVG(p.bench.Doc, paper.PageOf(p.bench.Doc, nets, use)), nil
			}
		}
		return nil, fmt.Errorf("%w: the project has no such sheet", errNothing)
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.svg"`, name))
	return c.Blob(http.StatusOK, "image/svg+xml", svg)
}

func (a *api) asset(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	n, _ := strconv.ParseInt(c.Param("asset"), 10, 64)
	as, err := ask(p, func() (*design.Asset, error) { return p.bench.Doc.Assets[design.ID(n)], nil })
	if err == nil && as == nil {
		err = fmt.Errorf("%w: the project has no such picture", errNothing)
	}
	if err != nil {
		return fail(c, err)
	}
	kind := map[string]string{"png": "image/png", "jpeg": "image/jpeg", "svg": "image/svg+xml", "glb": "model/gltf-binary"}[as.Type]
	c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	return c.Blob(http.StatusOK, kind, as.Data)
}

// parts is the circuit as it is now, for tables of its parts, and what the project is called.
func (p *project) parts() (d *design.Doc, tree *circuit.Tree, name string, err error) {
	shared, err := ask(p, func() (design.Shared, error) {
		name = handoff.Stem(p.name)
		return p.bench.Doc.Share(), nil
	})
	if err != nil {
		return nil, nil, "", err
	}
	d = shared.Doc()
	return d, circuit.TreeOf(d), name, nil
}

func (a *api) partsOut(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	d, tree, name, err := p.parts()
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-parts.csv"`, name))
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", partlist.Write(d, tree))
}

// partsIn compares a table with the circuit, beside the hand; nothing is changed yet.
func (a *api) partsIn(c *echo.Context, id int64) error {
	ctx := c.Request().Context()
	data, err := body(c, partlist.LargestTable, "the table")
	if err != nil {
		return fail(c, err)
	}
	p, err := a.hub.project(ctx, id)
	if err != nil {
		return fail(c, err)
	}
	rev, err := ask(p, func() (int64, error) { return p.bench.Rev, nil })
	if err != nil {
		return fail(c, err)
	}
	var preview *partlist.Preview
	err = p.late(ctx, "compare", rev, func(ctx context.Context, _ func(float64)) error {
		done, err := a.hub.turns.take(ctx)
		if err != nil {
			return err
		}
		defer done()
		d, tree, _, err := p.parts()
		if err != nil {
			return err
		}
		preview, err = partlist.Read(ctx, d, tree, data)
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, preview)
}
