// Package server serves the web application, its HTTP routes and the live connection. It
// translates between the wire and the core; it computes nothing of the job itself.
package server

import (
	"context"
	"crypto/rand"
	"embed"
	"encoding/base64"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"path"
	"strings"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"goldentrace/store"
)

//go:embed all:web
var built embed.FS

// Serve listens on addr until the context ends. ready is called with the address listened
// on before the first request is served; depot is the address at which the supplier is asked, empty: there is none; examples are
// what everybody may take a copy of.
func Serve(ctx context.Context, s *store.Store, addr, depot string, examples []Example, ready func(net.Addr)) error {
	listener, err := (&net.ListenConfig{}).Listen(ctx, "tcp", addr)
	if err != nil {
		return fmt.Errorf("%s cannot be listened on: %w", addr, err)
	}
	h := newHub(s, examples...)
	h.depot = newDepot(depot)
	defer h.close()
	e := Handler(h, listener.Addr().String(), addr)
	ready(listener.Addr())
	conf := echo.StartConfig{Listener: listener, HideBanner: true, HidePort: true, GracefulTimeout: 2 * time.Second,
		BeforeServeFunc: func(srv *http.Server) error {
			// a request that comes slowly, an answer that nobody takes, a connection that idles
			srv.ReadHeaderTimeout, srv.ReadTimeout, srv.WriteTimeout, srv.IdleTimeout = 10*time.Second, 5*time.Minute, 10*time.Minute, 2*time.Minute
			srv.MaxHeaderBytes = 64 << 10
			return nil
		}}
	if err := conf.Start(ctx, e); err != nil && ctx.Err() == nil {
		return err
	}
	return nil
}

// Handler is the whole application for requests to the given addresses.
func Handler(h *hub, addrs ...string) *echo.Echo {
	e := echo.New()
	e.Logger = slog.New(slog.DiscardHandler)
	e.Use(guard(hosts(addrs)), drained, whole)
	(&api{h}).routes(e)
	e.GET("/*", page, middleware.GzipWithConfig(middleware.GzipConfig{MinLength: 1 << 10, Skipper: packed}))
	return e
}

// hosts are the values of Host that name this server.
func hosts(addrs []string) map[string]bool {
	out := map[string]bool{}
	for _, a := range addrs {
		host, port, err := net.SplitHostPort(a)
		if err != nil {
			continue
		}
		if host != "" {
			out[net.JoinHostPort(host, port)] = true
		}
		for _, local := range []string{"localhost", "127.0.0.1", "::1"} {
			out[net.JoinHostPort(local, port)] = true
		}
	}
	return out
}

// guard refuses requests that name another host or come from another site's page, and sets
// the policy under which pages run.
func guard(known map[string]bool) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			if !known[r.Host] {
				return c.JSON(http.StatusForbidden, Failure{Error: "This address is not one that Golden Trace serves."})
			}
			if o := r.Header.Get("Origin"); o != "" {
				if host, ok := strings.CutPrefix(o, "http://"); !ok || !known[host] {
					return c.JSON(http.StatusForbidden, Failure{Error: "Requests from other sites are refused."})
				}
			}
			if s := r.Header.Get("Sec-Fetch-Site"); s != "" && s != "same-origin" && s != "none" && !visit(r) {
				return c.JSON(http.StatusForbidden, Failure{Error: "Requests from other sites are refused."})
			}
			head := c.Response().Header()
			head.Set("X-Content-Type-Options", "nosniff")
			head.Set("Referrer-Policy", "no-referrer")
			head.Set("Cross-Origin-Opener-Policy", "same-origin")
			head.Set("Cross-Origin-Resource-Policy", "same-origin")
			head.Set("X-Frame-Options", "DENY")
			head.Set("Content-Security-Policy", policy(""))
			if strings.HasPrefix(r.URL.Path, "/api/") {
				head.Set("Cache-Control", "no-store")
			}
			return next(c)
		}
	}
}

// visit tells whether a request is somebody following a link to a page of ours, from wherever it stands (Fetch Metadata, 2.3).
func visit(r *http.Request) bool {
	return r.Method == http.MethodGet && r.Header.Get("Sec-Fetch-Mode") == "navigate" && r.Header.Get("Sec-Fetch-Dest") == "document" &&
		!strings.HasPrefix(r.URL.Path, "/api/")
}

// whole turns a fault of ours in a request into one refusal.
func whole(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) (err error) {
		defer func() {
			if fault := recover(); fault != nil {
				slog.Error("a request failed", "path", c.Request().URL.Path, "fault", fault)
				err = c.JSON(http.StatusInternalServerError, Failure{Error: "The program failed on this request; nothing was changed by it."})
			}
		}()
		return next(c)
	}
}

func policy(nonce string) string {
	style := "'self'"
	if nonce != "" {
		style += " 'nonce-" + nonce + "'"
	}
	return "default-src 'none'; script-src 'self'; style-src " + style + "; img-src 'self' data: blob:; font-src 'self'; connect-src 'self' blob:; " +
		"base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
}

// packed tells whether a file is compressed by its nature.
func packed(c *echo.Context) bool { return strings.HasSuffix(c.Request().URL.Path, ".woff2") }

// page serves the built web application; every address that is no file is its entrance.
func page(c *echo.Context) error {
	name := strings.TrimPrefix(path.Clean("/"+c.Param("*")), "/")
	if name != "" && name != "index.html" && name != ".keep" {
		if data, err := fs.ReadFile(built, "web/"+name); err == nil {
			if strings.HasPrefix(name, "assets/") {
				c.Response().Header().Set("Cache-Control", "public, max-age=31536000, immutable")
			}
			http.ServeContent(c.Response(), c.Request(), name, time.Time{}, strings.NewReader(string(data)))
			return nil
		}
		if path.Ext(name) != "" {
			return c.String(http.StatusNotFound, "There is nothing at this address.")
		}
	}
	data, err := fs.ReadFile(built, "web/index.html")
	if err != nil {
		return c.String(http.StatusServiceUnavailable, "The web application was not built into this program. Run `make build`.")
	}
	raw := make([]byte, 16)
	if _, err := rand.Read(raw); err != nil {
		return err
	}
	nonce := base64.RawStdEncoding.EncodeToString(raw)
	c.Response().Header().Set("Content-Security-Policy", policy(nonce))
	c.Response().Header().Set("Cache-Control", "no-store")
	return c.HTML(http.StatusOK, strings.ReplaceAll(string(data), "NONCE", nonce))
}
