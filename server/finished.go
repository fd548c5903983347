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
	err = p.do(func() {
		b := p.bench
		_, filling := b.Behind()["fills"]
		m = moment{b.Doc.Share(), finished.FillsOf(b.Fills()), b.Rev, filling, p.name}
	})
	return m, err
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

var errFilling = errors.New("the copper areas are still being filled; ask again in a moment")

// settledMoment is the board once its copper areas are filled, as files are made of.
func (a *api) settledMoment(c *echo.Context, id int64) (*project, *moment, error) {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return nil, nil, err
	}
	if err := p.caughtUp(c.Request().Context()); err != nil {
		return nil, nil, err
	}
	m, err := p.moment()
	if err == nil && m.behind {
		err = errFilling
	}
	return p, &m, err
}

// face is what a request asks to see: which side, with or without parts.
func face(c *echo.Context, m *moment) (*finished.View, error) {
	side := c.QueryParam("side")
	if side != "" && side != "top" && side != "bottom" {
		return nil, fmt.Errorf("a board has two sides, top and bottom, and is not seen from %q", side)
	}
	return m.board().View(side == "bottom", c.QueryParam("bare") == "")
}

func (a *api) painted(c *echo.Context, id int64) error {
	_, m, err := a.seen(c, id)
	if err != nil {
		return fail(c, err)
	}
	v, err := face(c, m)
	out := Finish{Rev: m.rev, Behind: m.behind}
	switch {
	case errors.Is(err, finished.ErrNoOutline):
		out.Empty = true
	case err != nil:
		return fail(c, err)
	default:
		out.View = v.Paths()
	}
	return c.JSON(http.StatusOK, out)
}

// longSide is how many pixels the longer side of a picture has.
const longSide = 2400

func (a *api) pictureSVG(c *echo.Context, id int64) error {
	return a.faceFile(c, id, "svg", "image/svg+xml", func(v *finished.View) ([]byte, error) { return v.SVG(), nil })
}

func (a *api) picturePNG(c *echo.Context, id int64) error {
	return a.faceFile(c, id, "png", "image/png", func(v *finished.View) ([]byte, error) {
		var buf bytes.Buffer
		err := png.Encode(&buf, v.Image(longSide))
		return buf.Bytes(), err
	})
}

// faceFile sends a face of the finished board as a file.
func (a *api) faceFile(c *echo.Context, id int64, form, kind string, draw func(*finished.View) ([]byte, error)) error {
	p, m, err := a.settledMoment(c, id)
	if err != nil {
		return fail(c, err)
	}
	v, err := face(c, m)
	if err != nil {
		return fail(c, err)
	}
	var data []byte
	err = p.late(c.Request().Context(), "picture", m.rev, func(context.Context, func(float64)) (err error) {
		data, err = draw(v)
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	side := "top"
	if v.Bottom {
		side = "bottom"
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-%s.%s"`, handoff.Stem(m.name), side, form))
	return c.Blob(http.StatusOK, kind, data)
}

// revision is the header that tells of which revision what is sent is.
const revision = "Golden-Trace-Revision"

// model sends the board in space: as a file to be kept, or to be looked at as it is now.
func (a *api) model(c *echo.Context, id int64) error {
	ctx, take := c.Request().Context(), a.settledMoment
	if c.QueryParam("look") != "" {
		take = a.seen
	}
	p, m, err := take(c, id)
	if err != nil {
		return fail(c, err)
	}
	var data []byte
	if c.QueryParam("closed") != "" {
		data, err = space.Closed(m.name, m.board())
		return a.sendModel(c, m, data, err)
	}
	err = p.late(ctx, "model", m.rev, func(ctx context.Context, progress func(float64)) (err error) {
		data, err = space.Model(ctx, m.name, m.board(), progress)
		return err
	})
	return a.sendModel(c, m, data, err)
}

func (a *api) sendModel(c *echo.Context, m *moment, data []byte, err error) error {
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
