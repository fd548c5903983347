package depot_test

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/standin/depot"
)

func TestTheServiceAnswersAsItIsTold(t *testing.T) {
	s := depot.NewService(filepath.Join(t.TempDir(), "books.db"))
	ctx, stop := context.WithCancel(context.Background())
	base, err := s.Start(ctx, "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { stop(); _ = s.Close() })
	call := func(method, path, body, origin string) (int, string, error) {
		r, err := http.NewRequestWithContext(ctx, method, base+path, bytes.NewReader([]byte(body)))
		require.NoError(t, err)
		if origin != "" {
			r.Header.Set("Origin", origin)
		}
		res, err := http.DefaultClient.Do(r)
		if err != nil {
			return 0, "", err
		}
		defer res.Body.Close()
		out, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(out), nil
	}
	get := func(method, path, body string, want int, say string) {
		t.Helper()
		code, out, err := call(method, path, body, "")
		require.NoError(t, err)
		assert.Equal(t, want, code, out)
		assert.Contains(t, out, say)
	}
	get("GET", "/v1", "", 200, `"name":"Osier \u0026 Finch"`)
	get("POST", "/v1/search", `{"words":"HX-R5"}`, 200, `"found":1`)
	get("POST", "/v1/search", `{"family":"cheese"}`, 400, "no family called")
	get("POST", "/v1/search", `{"words":`, 400, "cannot be read")
	get("POST", "/v1/parts", `{"numbers":["none"]}`, 200, `{"parts":[]}`)
	get("GET", "/v1/manner", "", 200, `{"answers":"well"}`)
	get("PUT", "/v1/manner", `{"answers":"rudely"}`, 400, "not \\\"rudely\\\"")
	code, _, err := call("POST", "/v1/search", `{}`, "http://elsewhere.example")
	require.NoError(t, err)
	assert.Equal(t, 403, code, "pages of other sites have no business here")

	get("PUT", "/v1/manner", `{"answers":"failing"}`, 200, "failing")
	get("POST", "/v1/search", `{}`, 503, "closed for the day")
	get("PUT", "/v1/manner", `{"answers":"absent"}`, 200, "absent")
	_, _, err = call("POST", "/v1/search", `{}`, "")
	assert.Error(t, err, "nobody answers")
	get("PUT", "/v1/manner", `{"answers":"slowly"}`, 200, "slowly")
	at := time.Now()
	get("GET", "/v1", "", 200, "Osier")
	assert.GreaterOrEqual(t, time.Since(at), depot.Delay)
	get("PUT", "/v1/manner", `{"answers":"well"}`, 200, "well")
	get("POST", "/v1/search", `{"words":"HX-R5"}`, 200, `"found":1`)
	var m depot.Manner
	_, out, err := call("GET", "/v1/manner", "", "")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal([]byte(out), &m))
	assert.Equal(t, depot.Well, m.Answers)
}
