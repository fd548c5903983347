package server

import (
	"context"
	"fmt"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/fab/handoff"
	"goldentrace/core/house"
)

// houseRoutes are those of what board houses make.
func (a *api) houseRoutes(e *echo.Echo) {
	e.GET("/api/projects/:id/houses", a.with(a.houses))
	e.GET("/api/projects/:id/houses/:key", a.with(a.houseFile))
	e.POST("/api/projects/:id/houses/read", a.with(a.readHouse))
}

// Measured is how the board stood against the houses at a revision.
type Measured struct {
	Rev    int64             `json:"rev"`
	Houses []house.HouseSeen `json:"houses"`
}

// houses holds the board as it is now against all houses, beside the hand.
func (a *api) houses(c *echo.Context, id int64) error {
	var out Measured
	m, err := a.made(c, id, "measure", false, func(ctx context.Context, m *moment, progress func(float64)) (err error) {
		b := m.board()
		out.Houses, err = house.Against(ctx, b.Doc, b.Index, b.Rules, progress)
		return err
	})
	out.Rev = m.rev
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, out)
}

// houseFile sends what a house makes as a file.
func (a *api) houseFile(c *echo.Context, id int64) error {
	_, m, err := a.seen(c, id)
	if err != nil {
		return fail(c, err)
	}
	h, err := house.In(m.shared.Doc(), c.Param("key"))
	if err != nil {
		return fail(c, err)
	}
	data, err := h.Write()
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-house.json"`, handoff.Stem(h.Name)))
	return c.Blob(http.StatusOK, "application/json", data)
}

// readHouse reads what a house makes from a file; nothing is kept.
func (a *api) readHouse(c *echo.Context, _ int64) error {
	data, err := body(c, house.LargestFile, "the file")
	if err != nil {
		return fail(c, err)
	}
	h, err := house.ReadFile(data)
	if err != nil {
		return fail(c, err)
	}
	return c.JSON(http.StatusOK, h)
}
