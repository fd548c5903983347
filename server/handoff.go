package server

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/store"
)

// HandoffState is what was last produced.
type HandoffState struct {
	Made        time.Time      `json:"made"`
	Revision    int64          `json:"revision"`
	Fingerprint string         `json:"fingerprint"`         // of the design the files were made from
	Findings    int            `json:"findings"`            // there were at that time, nets that are not joined included
	Unjoined    int            `json:"unjoined"`            // nets that were not joined
	Unchecked   bool           `json:"unchecked,omitempty"` // nobody knew these two yet
	Size        int            `json:"size"`
	Files       []handoff.File `json:"files"`
	archive     []byte
}

func handoffState(h store.Handoff) (*HandoffState, error) {
	files, err := handoff.Unzip(h.Archive)
	if err != nil {
		return nil, err
	}
	return &HandoffState{h.Made, h.Revision, h.Fingerprint, h.Findings, h.Unjoined, h.Unchecked, len(h.Archive), files, h.Archive}, nil
}

// soon is how long is waited for what is still being filled or checked.
const soon = 5 * time.Second

// caughtUp waits a little until everything is of the present revision: what is filled or checked beside is seldom long in coming.
func (p *project) caughtUp(ctx context.Context) error {
	ready := make(chan struct{})
	if err := p.do(func() {
		p.awaited = append(p.awaited, ready)
		p.wake()
	}); err != nil {
		return err
	}
	select {
	case <-ready:
	case <-time.After(soon):
	case <-p.quit:
		return errClosed
	case <-ctx.Done():
	}
	return ctx.Err()
}

// wake tells those who wait for it that nothing is behind, if that is so.
func (p *project) wake() {
	if len(p.awaited) == 0 || p.bench.Behind() != nil {
		return
	}
	for _, ready := range p.awaited {
		close(ready)
	}
	p.awaited = nil
}

// makeHandoff produces the files from a snapshot, so that editing goes on meanwhile. A board
// with findings is refused unless despite=1 says to go on.
func (a *api) makeHandoff(c *echo.Context, id int64) error {
	ctx := c.Request().Context()
	p, err := a.hub.project(ctx, id)
	if err != nil {
		return fail(c, err)
	}
	var n, nets, links int
	var rev int64
	var print, name string
	var shared design.Shared
	if err := p.caughtUp(ctx); err != nil {
		return fail(c, err)
	}
	var behind bool
	if err := p.do(func() {
		behind = p.bench.Behind() != nil
		nets, links = p.bench.Open()
		n, rev, print, name = len(p.bench.OpenFindings()), p.bench.Rev, p.bench.Fingerprint(), p.name
		shared = p.bench.Doc.Share()
	}); err != nil {
		return fail(c, err)
	}
	if behind {
		nets = 0 // not known yet
	}
	if c.QueryParam("despite") == "" {
		if f := gate(behind, n, nets, links); f != nil {
			return c.JSON(http.StatusConflict, f)
		}
	}
	at := time.Now()
	var archive []byte
	err = p.job(ctx, "files", rev, func(ctx context.Context, progress func(float64)) error {
		done, err := a.hub.turns.take(ctx)
		if err != nil {
			return err
		}
		defer done()
		doc := shared.Doc()
		files, err := handoff.Make(ctx, doc, layout.NewIndex(doc), name, at, progress)
		if err == nil {
			archive, err = handoff.Zip(files, at)
		}
		return err
	})
	if err != nil {
		return fail(c, err)
	}
	h := store.Handoff{Made: at, Revision: rev, Fingerprint: print, Findings: n, Unjoined: nets, Unchecked: behind, Archive: archive}
	if err := a.hub.store.KeepHandoff(context.WithoutCancel(ctx), id, h); err != nil {
		return fail(c, err)
	}
	state, err := handoffState(h)
	if err != nil {
		return fail(c, err)
	}
	_ = p.do(func() { p.handoff = state; p.relate(HandedOff{Handoff: state}) })
	return c.JSON(http.StatusCreated, state)
}

// gate says why files are not made unless somebody says to go on: nets that are not joined first.
func gate(behind bool, findings, nets, links int) *Failure {
	switch other := findings - nets; {
	case behind:
		return &Failure{Error: "The board is still being filled and checked. Wait for its findings, or make the files all the same."}
	case findings == 0:
		return nil
	case nets == 0:
		return &Failure{Error: fmt.Sprintf("The checks have %s. Look at them first, or make the files all the same.", counted(findings, "finding", "findings")), Findings: findings}
	default:
		text := fmt.Sprintf("%s not joined: %s open.", counted(nets, "net is", "nets are"), counted(links, "link is", "links are"))
		if other > 0 {
			text += fmt.Sprintf(" The checks have %s beside.", counted(other, "finding", "findings"))
		}
		return &Failure{Error: text + " Look at them first, or make the files all the same.", Findings: findings, Unjoined: nets, Open: links}
	}
}

// counted says a number with what it counts, one or several.
func counted(n int, one, several string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, several)
}

func (a *api) lastHandoff(c *echo.Context, id int64) (*HandoffState, string, error) {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return nil, "", err
	}
	var h *HandoffState
	var name string
	if err := p.do(func() { h, name = p.handoff, p.name }); err != nil {
		return nil, "", err
	}
	if h == nil {
		return nil, "", fmt.Errorf("no files were made of this project yet")
	}
	return h, name, nil
}

func (a *api) handoffZip(c *echo.Context, id int64) error {
	h, name, err := a.lastHandoff(c, id)
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-handoff.zip"`, handoff.Stem(name)))
	return c.Blob(http.StatusOK, "application/zip", h.archive)
}

func (a *api) file(c *echo.Context, id int64) (handoff.File, error) {
	h, _, err := a.lastHandoff(c, id)
	if err != nil {
		return handoff.File{}, err
	}
	for _, f := range h.Files {
		if f.Name == c.Param("file") {
			return f, nil
		}
	}
	return handoff.File{}, fmt.Errorf("the handoff has no file %q", c.Param("file"))
}

func (a *api) handoffFile(c *echo.Context, id int64) error {
	f, err := a.file(c, id)
	if err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename=%q`, f.Name))
	return c.Blob(http.StatusOK, "text/plain; charset=utf-8", f.Data)
}

// Drawing is a file as an independent reader sees it.
type Drawing struct {
	Kind  string        `json:"kind"` // artwork, drill, table, netlist, note
	Role  string        `json:"role"`
	Marks []DrawnMark   `json:"marks,omitempty"`
	Holes []reread.Hole `json:"holes,omitempty"`
	Rows  [][]string    `json:"rows,omitempty"`
	Text  string        `json:"text,omitempty"`
	Count string        `json:"count"` // what was read, in words
	Box   geom.Box      `json:"box"`
}

// DrawnMark is a mark of an artwork file with its shapes.
type DrawnMark struct {
	reread.Mark
	Shapes []DrawnShape `json:"shapes"`
}

// DrawnShape is a line or filled polygon of round radius R.
type DrawnShape struct {
	Pts  []geom.Point `json:"pts"`
	Area bool         `json:"area"`
	R    int64        `json:"r"`
}

func (a *api) handoffDrawing(c *echo.Context, id int64) error {
	f, err := a.file(c, id)
	if err != nil {
		return fail(c, err)
	}
	d, err := draw(f)
	if err != nil {
		return fail(c, fmt.Errorf("%s cannot be read back: %w", f.Name, err))
	}
	return c.JSON(http.StatusOK, d)
}

func draw(f handoff.File) (Drawing, error) {
	d := Drawing{Kind: f.Kind, Role: f.Role}
	var all geom.Extent
	switch f.Kind {
	case "artwork":
		art, err := reread.Gerber(f.Data)
		if err != nil {
			return d, err
		}
		for _, m := range art.Marks {
			out := DrawnMark{Mark: m}
			for _, s := range m.Shapes {
				out.Shapes = append(out.Shapes, DrawnShape{s.Pts, s.Area, s.R})
				all.AddBox(s.Box())
			}
			d.Marks = append(d.Marks, out)
		}
		d.Count = fmt.Sprintf("%d marks, %s", len(d.Marks), art.Attributes[".FileFunction"])
	case "drill":
		dr, err := reread.Drill(f.Data)
		if err != nil {
			return d, err
		}
		d.Holes, d.Count = dr.Holes, fmt.Sprintf("%d holes", len(dr.Holes))
		for _, h := range dr.Holes {
			all.AddBox(geom.BoxOf(h.At, h.At.Add(h.Slot)).Grow(h.Diameter / 2))
		}
	case "table":
		rows, err := csv.NewReader(bytes.NewReader(f.Data)).ReadAll()
		if err != nil {
			return d, err
		}
		d.Rows, d.Count = rows, fmt.Sprintf("%d lines", len(rows)-1)
	case "netlist":
		probes, err := reread.TestNetlist(f.Data)
		if err != nil {
			return d, err
		}
		d.Rows = [][]string{{"Net", "Part", "Pin", "X (mm)", "Y (mm)", "Hole (mm)"}}
		for _, p := range probes {
			hole := ""
			if p.Hole > 0 {
				hole = fmt.Sprintf("%.2f", float64(p.Hole)/1e6)
			}
			d.Rows = append(d.Rows, []string{p.Net, p.Part, p.Pin, fmt.Sprintf("%.3f", float64(p.At.X)/1e6), fmt.Sprintf("%.3f", float64(p.At.Y)/1e6), hole})
		}
		d.Count = fmt.Sprintf("%d test points", len(probes))
	default:
		d.Text, d.Count = string(f.Data), fmt.Sprintf("%d lines", strings.Count(string(f.Data), "\n"))
	}
	d.Box = all.Box
	return d, nil
}
