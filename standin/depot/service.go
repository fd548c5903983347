// Package depot is Osier & Finch, the simulated supplier that ships with the program: its goods, kept in SQLite with FTS5, asked over HTTP
// (docs/depot-service.md). It stands in for a real one, which would be spoken to in the same way.
package depot

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"github.com/labstack/echo/v5"

	"goldentrace/core/ordering"
	"goldentrace/standin/depot/goods"
)

// Name of the business.
const Name = "Osier & Finch"

// How the stand-in answers, so that a program can be seen to bear it.
const (
	Well    = "well"
	Slowly  = "slowly"  // after Delay
	Failing = "failing" // with 503 and a sentence
	Absent  = "absent"  // not at all: the connection is cut
)

// Manners lists them.
var Manners = []string{Well, Slowly, Failing, Absent}

// Delay of slow answers.
const Delay = 4 * time.Second

// Manner of answering, as it is asked for and set.
type Manner struct {
	Answers string `json:"answers"`
}

// About the business.
type About struct {
	Name    string `json:"name"`
	Version int    `json:"version"`
	Parts   int    `json:"parts"`
}

// Trouble is the body of every answer that refuses something.
type Trouble struct {
	Error string `json:"error"`
}

// Service answers requests. Its database is opened by the first of them.
type Service struct {
	file   string
	mu     sync.Mutex
	stock  *Stock
	manner atomic.Value
}

// NewService keeps its database in the file.
func NewService(file string) *Service {
	s := &Service{file: file}
	s.manner.Store(Well)
	return s
}

// Stock of the service, opened when it is first wanted.
func (s *Service) open(ctx context.Context) (*Stock, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.stock == nil {
		stock, err := Open(context.WithoutCancel(ctx), s.file, goods.Version, goods.All)
		if err != nil {
			return nil, err
		}
		s.stock = stock
	}
	return s.stock, nil
}

// Close the database.
func (s *Service) Close() error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.stock == nil {
		return nil
	}
	return s.stock.Close()
}

// Handler of its requests.
func (s *Service) Handler() http.Handler {
	e := echo.New()
	e.Use(s.mannered)
	e.GET("/v1", s.about)
	e.POST("/v1/search", s.search)
	e.POST("/v1/parts", s.parts)
	e.GET("/v1/manner", func(c *echo.Context) error { return c.JSON(http.StatusOK, Manner{s.manner.Load().(string)}) })
	e.PUT("/v1/manner", s.setManner)
	return e
}

// mannered answers as it was told to, whatever is asked; how it answers can always be asked and set. Pages of browsers are refused.
func (s *Service) mannered(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if r.Header.Get("Origin") != "" {
			return c.JSON(http.StatusForbidden, Trouble{"this service is for programs, not for pages"})
		}
		if r.URL.Path == "/v1/manner" {
			return next(c)
		}
		switch s.manner.Load() {
		case Slowly:
			select {
			case <-time.After(Delay):
			case <-r.Context().Done():
				return r.Context().Err()
			}
		case Failing:
			return c.JSON(http.StatusServiceUnavailable, Trouble{"the books are being closed for the day"})
		case Absent:
			panic(http.ErrAbortHandler)
		}
		return next(c)
	}
}

func refuse(c *echo.Context, code int, err error) error { return c.JSON(code, Trouble{err.Error()}) }

func read(c *echo.Context, into any) error {
	if err := json.NewDecoder(io.LimitReader(c.Request().Body, 1<<20)).Decode(into); err != nil {
		return fmt.Errorf("the request cannot be read: %w", err)
	}
	return nil
}

func (s *Service) about(c *echo.Context) error {
	stock, err := s.open(c.Request().Context())
	if err != nil {
		return refuse(c, http.StatusInternalServerError, err)
	}
	return c.JSON(http.StatusOK, About{Name, goods.Version, stock.n})
}

func (s *Service) search(c *echo.Context) error {
	var q ordering.Query
	if err := read(c, &q); err != nil {
		return refuse(c, http.StatusBadRequest, err)
	}
	stock, err := s.open(c.Request().Context())
	if err != nil {
		return refuse(c, http.StatusInternalServerError, err)
	}
	a, err := stock.Search(c.Request().Context(), &q)
	if err != nil {
		return refuse(c, http.StatusBadRequest, err)
	}
	return c.JSON(http.StatusOK, a)
}

func (s *Service) parts(c *echo.Context) error {
	var in ordering.Numbers
	if err := read(c, &in); err != nil {
		return refuse(c, http.StatusBadRequest, err)
	}
	stock, err := s.open(c.Request().Context())
	if err != nil {
		return refuse(c, http.StatusInternalServerError, err)
	}
	list, err := stock.Parts(c.Request().Context(), in.Numbers)
	if err != nil {
		return refuse(c, http.StatusBadRequest, err)
	}
	return c.JSON(http.StatusOK, ordering.Parts{Parts: list})
}

func (s *Service) setManner(c *echo.Context) error {
	var m Manner
	if err := read(c, &m); err != nil {
		return refuse(c, http.StatusBadRequest, err)
	}
	for _, known := range Manners {
		if m.Answers == known {
			s.manner.Store(known)
			return c.JSON(http.StatusOK, m)
		}
	}
	return refuse(c, http.StatusBadRequest, fmt.Errorf("it answers one of %q, not %q", Manners, m.Answers))
}

// Start serves on the address until the context ends, and gives the address at which it is asked.
func (s *Service) Start(ctx context.Context, addr string) (string, error) {
	listener, err := (&net.ListenConfig{}).Listen(ctx, "tcp", addr)
	if err != nil {
		return "", fmt.Errorf("%s cannot be listened on: %w", addr, err)
	}
	server := &http.Server{Handler: s.Handler(), ReadHeaderTimeout: 10 * time.Second, IdleTimeout: time.Minute}
	go func() { _ = server.Serve(listener) }()
	context.AfterFunc(ctx, func() { _ = server.Close() })
	return "http://" + listener.Addr().String(), nil
}
