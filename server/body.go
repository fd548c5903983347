package server

import (
	"errors"
	"fmt"
	"io"
	"net/http"

	"github.com/labstack/echo/v5"

	"goldentrace/core/edit"
)

// tooLarge refuses a body over its bound.
type tooLarge struct {
	what string
	most int64
}

func (e *tooLarge) Error() string {
	if e.most < 1<<20 {
		return fmt.Sprintf("%s is larger than %d kB", e.what, e.most>>10)
	}
	return fmt.Sprintf("%s is larger than %d MB", e.what, e.most>>20)
}

// body reads what a request brings, of at most so many bytes.
func body(c *echo.Context, most int64, what string) ([]byte, error) {
	data, err := io.ReadAll(io.LimitReader(c.Request().Body, most+1))
	switch {
	case err != nil:
		return nil, fmt.Errorf("%s did not arrive whole: %w", what, err)
	case int64(len(data)) > most:
		return nil, &tooLarge{what, most}
	}
	return data, nil
}

// mostDrained bounds how much of a body is read that nobody wants, in bytes.
const mostDrained = 1 << 30

// drained reads the rest of every request's body before its answer goes out, within bounds, so that the answer reaches a browser that is
// still sending.
func drained(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := next(c)
		if b := c.Request().Body; b != nil && c.Request().Method != http.MethodGet {
			_, _ = io.Copy(io.Discard, io.LimitReader(b, mostDrained))
		}
		return err
	}
}

// Bounds of a window's messages, in bytes, by what they are: an edit that brings a file, other edits, questions, which may bring a pasted
// table, what is picked, and all that says little.
const (
	mostFileEdit = 32 << 20
	mostEdit     = 8 << 20
	mostQuestion = 4 << 20
	mostShared   = 1 << 20
	mostSmall    = 4 << 10
)

var errSize = errors.New("the message is larger than messages of its kind may be")

// sized refuses a message that is larger than messages of its kind are.
func (r *Request) sized(bytes int) error {
	most := mostSmall
	switch r.T {
	case "edit":
		if most = mostEdit; bytes > most && edit.BringsFile(r.Cmd) {
			most = mostFileEdit
		}
	case "ask":
		most = mostQuestion
	case "share":
		most = mostShared
	}
	if bytes > most {
		if most == mostEdit {
			return fmt.Errorf("this would change more at once than %d MB of text tell; do it in pieces", mostEdit>>20)
		}
		return errSize
	}
	return nil
}
