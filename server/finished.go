package server

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image/png"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/finished"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/space"
)

// finishedRoutes are those of the board as it will be: as paths that the browser paints, as pictures and in space.
func (a *api) finishedRoutes(e *echo.Echo) {
	e.GET("/api/projects/:id/finished", a.with(a.painted))
	e.GET("/api/projects/:id/finished.svg", a.with(a.pictureSVG))
	e.GET("/api/projects/:id/finished.png", a.with(a.picturePNG))
	e.GET("/api/projects/:id/model.glb", a.with(a.model))
}

// Finish is the finished board as it was at a revision.
type Finish struct {
	Rev    int64             `json:"rev"`
	Behind bool              `json:"behind,omitempty"` // its copper areas are still being filled
	Empty  bool              `json:"empty,omitempty"`  // it has no outline yet
	View   *finished.Painted `json:"view,omitempty"`
}

// moment is a project's board as it is now, to be worked on beside the hand.
type moment struct {
	shared design.Shared
	fills  finished.Fills
	rev    int64
	behind bool
	name   string
}

func (p *project) moment() (m moment, err error) {
	err = p.do(func() { m = p.momentHere() })
	return m, err
}

// momentHere is the moment, on the project's own goroutine.
func (p *project) momentHere() moment {
	b := p.bench
	_, filling := b.Behind()["fills"]
	return moment{b.Doc.Share(), finished.FillsOf(b.Fills()), b.Rev, filling, p.name}
}

// board is the board of the moment.
func (m *moment) board() finished.Board {
	d := m.shared.Doc()
	return finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d), Fills: m.fills}
}

// seen is the project and its board as it is now.
func (a *api) seen(c *echo.Context, id int64) (*project, *moment, error) {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return nil, nil, err
	}
	m, err := p.moment()
	return p, &m, err
}

var errFilling = errors.New("the board is still being filled and checked; ask again in a moment")

// made makes something of the whole board, in its turn: a job when that takes a while, which ends when nobody waits for it. What becomes a
// file (filled) waits a little for the copper areas, and is refused as long as they are not known; what is looked at says so instead.
func (a *api) made(c *echo.Context, id int64, kind string, filled bool, work func(context.Context, *moment, func(float64)) error) (m moment, err error) {
	outer := c.Request().Context()
	p, err := a.hub.project(outer, id)
	if err == nil && filled {
		err = p.caughtUp(outer)
	}
	if err != nil {
		return m, err
	}
	rev, err := ask(p, func() (int64, error) { return p.bench.Rev, nil })
	if err != nil {
		return m, err
	}
	err = p.late(outer, kind, rev, func(ctx context.Context, progress func(float64)) error {
		done, err := a.hub.turns.take(ctx)
		if err != nil {
			return err
		}
		defer done()
		defer p.largeDone()
		if m, err = p.moment(); err != nil {
			return err
		}
		if filled && m.behind {
			return errFilling
		}
		return work(ctx, &m, progress)
	})
	return m, err
}

// face is which face of the board is asked for.
type face struct {
	bottom, parts bool
}

// faceAsked is what a request asks to see: which side, with or without parts.
func faceAsked(c *echo.Context) (face, error) {
	side := c.QueryParam("side")
	if side != "" && side != "top" && side != "bottom" {
		return face{}, fmt.Errorf("a board has two sides, top and bottom, and is not seen from %q", side)
	}
	return face{side == "bottom", c.QueryParam("bare") == ""}, nil
}

// painted answers with the board as the browser paints it now.
func (a *api) painted(c *echo.Context, id int64) error {
	var out Finish
	f, err := faceAsked(c)
	if err != nil {
		return fail(c, err)
	}
	m, err := a.made(c, id, "picture", false, func(ctx context.Context, m *moment, _ func(float64)) error {
		v, err := m.board().View(ctx, f.bottom, f.parts)
		if err != nil {
			return err
		}
		out.View, err = v.Paths(ctx)
		return err
	})
	out.Rev, out.Behind = m.rev, m.behind
	if errors.Is(err, finished.ErrNoOutline) {
		out.Empty, err = true, nil
	}
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, out)
}

// longSide is how many pixels the longer side of a picture has.
const longSide = 2400

func (a *api) pictureSVG(c *echo.Context, id int64) error {
	return a.faceFile(c, id, "svg", "image/svg+xml", func(ctx context.Context, v *finished.View) ([]byte, error) { return v.SVG(ctx) })
}

func (a *api) picturePNG(c *echo.Context, id int64) error {
	return a.faceFile(c, id, "png", "image/png", func(ctx context.Context, v *finished.View) ([]byte, error) {
		img, err := v.Image(ctx, longSide)
		if err != nil {
			return nil, err
		}
		var buf bytes.Buffer
		err = png.Encode(&buf, img)
		return buf.Bytes(), err
	})
}

// faceFile sends a face of the finished board as a file.
func (a *api) faceFile(c *echo.Context, id int64, form, kind string, draw func(context.Context, *finished.View) ([]byte, error)) error {
	f, err := faceAsked(c)
	if err != nil {
		return fail(c, err)
	}
	var data []byte
	m, err := a.made(c, id, "picture", true, func(ctx context.Context, m *moment, _ func(float64)) error {
		v, err := m.board().View(ctx, f.bottom, f.parts)
		if err == nil {
			data, err = draw(ctx, v)
		}
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	side := "top"
	if f.bottom {
		side = "bottom"
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-%s.%s"`, handoff.Stem(m.name), side, form))
	return c.Blob(http.StatusOK, kind, data)
}

// revision is the header that tells of which revision what is sent is.
const revision = "Golden-Trace-Revision"

// model sends the board in space: as a file to be kept, or to be looked at as it is now.
func (a *api) model(c *echo.Context, id int64) error {
	var data []byte
	m, err := a.made(c, id, "model", c.QueryParam("look") == "", func(ctx context.Context, m *moment, progress func(float64)) (err error) {
		if c.QueryParam("closed") != "" {
			data, err = space.Closed(ctx, m.name, m.board())
		} else {
			data, err = space.Model(ctx, m.name, m.board(), progress)
		}
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set(revision, fmt.Sprint(m.rev))
	if m.behind {
		c.Response().Header().Set(revision+"-Behind", "1")
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.glb"`, handoff.Stem(m.name)))
	return c.Blob(http.StatusOK, "model/gltf-binary", data)
}
