package server

import (
	"bytes"
	"errors"
	"fmt"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/library"
	"goldentrace/core/pack"
	"goldentrace/core/parts"
)

// What a part of a pack is to the library of the workspace.
const (
	packNew  = "new"
	packSame = "same" // as the workspace has it
	packNext = "next" // it would be the next version
)

// PackPart is a part of a pack before it is taken.
type PackPart struct {
	Row      library.Row  `json:"row"`
	State    string       `json:"state"`
	Version  int          `json:"version"` // that it has, or would have, in the workspace
	Changes  []string     `json:"changes"`
	Findings []parts.Flaw `json:"findings"`
}

// PackSeen is what a pack holds; Kept tells that it is in the workspace now.
type PackSeen struct {
	Title string     `json:"title"`
	Parts []PackPart `json:"parts"`
	Kept  bool       `json:"kept"`
}

// takePack reads a pack and shows what it holds; asked to keep it, its parts are in the library of the workspace after, all or none.
func (a *api) takePack(c *echo.Context) error {
	data, err := body(c, pack.LargestPack, "the pack")
	if err != nil {
		return fail(c, err)
	}
	p, err := pack.Read(data)
	if err != nil {
		return fail(c, err)
	}
	ctx := c.Request().Context()
	out := PackSeen{Title: p.Title, Parts: []PackPart{}}
	for _, r := range p.Releases {
		x := PackPart{Row: library.RowOf(r.Item(r.Part.Origin)), State: packNew, Version: 1, Changes: []string{}, Findings: r.Flaws(parts.UsualLimits())}
		versions, err := a.hub.store.PartVersions(ctx, r.Part.Name)
		if err != nil {
			return fail(c, err)
		}
		if len(versions) > 0 {
			x.State, x.Version = packNext, versions[0].Version+1
			last, err := a.hub.store.PartVersion(ctx, r.Part.Name, versions[0].Version)
			switch {
			case err != nil: // it cannot be read: the next version stands beside it
			case !versions[0].Withdrawn && last.Equal(r):
				x.State, x.Version = packSame, versions[0].Version
			default:
				x.Changes = library.Changes(last, r)
			}
		}
		out.Parts = append(out.Parts, x)
	}
	if c.QueryParam("keep") == "" {
		return c.JSON(http.StatusOK, out)
	}
	if _, err := a.hub.store.KeepParts(ctx, p.Releases, c.QueryParam("who"), p.Title); err != nil {
		return fail(c, err)
	}
	if err := a.hub.library.renew(ctx, a.hub.store); err != nil {
		return fail(c, err)
	}
	out.Kept = true
	return c.JSON(http.StatusOK, out)
}

// packLibrary gives the named parts of the libraries as a pack.
func (a *api) packLibrary(c *echo.Context) error {
	p := &pack.Pack{Title: "Parts"}
	for _, name := range c.QueryParams()["part"] {
		it, ok := a.hub.library.Find(name)
		if !ok {
			return fail(c, fmt.Errorf("%w: the libraries have no part called %q", errNothing, name))
		}
		p.Releases = append(p.Releases, library.ReleaseFrom(it))
	}
	return givePack(c, "parts", p)
}

// packProject gives parts of a project as a pack: the named ones, or all.
func (a *api) packProject(c *echo.Context, id int64) error {
	p, err := a.hub.project(c.Request().Context(), id)
	if err != nil {
		return fail(c, err)
	}
	name := ""
	shared, err := ask(p, func() (design.Shared, error) {
		name = p.name
		return p.bench.Doc.Share(), nil
	})
	if err != nil {
		return fail(c, err)
	}
	d := shared.Doc() // a copy, so that editing goes on meanwhile
	wanted := c.QueryParams()["part"]
	if len(wanted) == 0 {
		for l := range d.LibraryParts.All() {
			wanted = append(wanted, l.Name)
		}
	}
	out := &pack.Pack{Title: "Parts of " + name}
	for _, part := range wanted {
		l := d.LibraryPart(part)
		if l == nil {
			return fail(c, fmt.Errorf("%w: the project has no part called %q", errNothing, part))
		}
		r, err := library.ReleaseOf(d, l)
		if err != nil {
			return fail(c, err)
		}
		out.Releases = append(out.Releases, r)
	}
	return givePack(c, handoff.Stem(name)+"-parts", out)
}

func givePack(c *echo.Context, stem string, p *pack.Pack) error {
	switch {
	case len(p.Releases) == 0:
		return fail(c, errors.New("there are no parts to put into a pack"))
	case len(p.Releases) > pack.MostParts:
		return fail(c, fmt.Errorf("these are %d parts; a pack holds %d at most", len(p.Releases), pack.MostParts))
	}
	var b bytes.Buffer
	if err := pack.Write(&b, p); err != nil {
		return fail(c, err)
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.zip"`, stem))
	return c.Blob(http.StatusOK, "application/zip", b.Bytes())
}
