package e2e

import (
	"bytes"
	"io"
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// late is the program as it is reached over a slow line: each way takes half of the delay.
func late(t *testing.T, p *program, delay time.Duration) *program {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = l.Close() })
	to := strings.TrimPrefix(p.url, "http://")
	go func() {
		for {
			near, err := l.Accept()
			if err != nil {
				return
			}
			far, err := net.Dial("tcp", to)
			if err != nil {
				_ = near.Close()
				continue
			}
			go passLate(near, far, delay/2, nil)
			go passLate(far, near, delay/2, func(data []byte) []byte { return bytes.ReplaceAll(data, []byte(l.Addr().String()), []byte(to)) })
		}
	}()
	slow := *p
	slow.url = "http://" + l.Addr().String()
	return &slow
}

// passLate passes on what it reads, each piece so much later. The program serves its own address alone: heard is what it is to hear of a piece.
func passLate(to, from net.Conn, delay time.Duration, heard func([]byte) []byte) {
	type piece struct {
		at   time.Time
		data []byte
	}
	pieces := make(chan piece, 1024)
	go func() {
		defer close(pieces)
		for {
			data := make([]byte, 32<<10)
			n, err := from.Read(data)
			if data = data[:n]; heard != nil {
				data = heard(data)
			}
			if n > 0 {
				pieces <- piece{time.Now().Add(delay), data}
			}
			if err != nil {
				return
			}
		}
	}()
	for p := range pieces {
		time.Sleep(time.Until(p.at))
		if _, err := to.Write(p.data); err != nil {
			break
		}
	}
	_ = to.Close()
	_, _ = io.Copy(io.Discard, from)
}
