package server

import (
	"fmt"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/overlay"
	"goldentrace/core/units"
	"goldentrace/core/vector"
)

// LogoSeen is what a drawing (SVG) fills, its middle at the origin; nothing is taken by asking.
type LogoSeen struct {
	Rings   [][]geom.Point `json:"rings"` // filled where an odd number surround
	Size    geom.Point     `json:"size"`
	LeftOut []string       `json:"leftOut"` // kinds of what cannot be taken
	Corners int            `json:"corners"`
}

// readLogo works in the request's own goroutine: joining what a drawing paints can take a while.
func (a *api) readLogo(c *echo.Context) error {
	data, err := body(c, vector.Largest, "the drawing")
	if err != nil {
		return fail(c, err)
	}
	width, err := strconv.ParseInt(c.QueryParam("width"), 10, 64)
	if err != nil || width <= 0 || width > units.Limit {
		return fail(c, fmt.Errorf("a logo is to be some width"))
	}
	done, err := a.hub.turns.take(c.Request().Context())
	if err != nil {
		return fail(c, err)
	}
	defer done()
	d, err := vector.SVG(c.Request().Context(), data, width)
	if err != nil {
		return fail(c, fmt.Errorf("the drawing cannot be put on the board: %w", err))
	}
	out := LogoSeen{Rings: overlay.Rings(d.Areas), Size: d.Size, LeftOut: append([]string{}, d.LeftOut...)}
	for _, r := range out.Rings {
		out.Corners += len(r)
	}
	if out.Corners > design.MostFigure {
		return fail(c, fmt.Errorf("the drawing has %d corners; a figure has %d at most: make it simpler, or put it on in pieces",
			out.Corners, design.MostFigure))
	}
	return c.JSON(http.StatusOK, out)
}
