package e2e

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"image/png"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
)

// command runs the program to its end and gives all it said and its exit code.
func command(t *testing.T, args ...string) (string, int) {
	t.Helper()
	out, err := exec.Command(binary, args...).CombinedOutput()
	var exit *exec.ExitError
	if errors.As(err, &exit) {
		return string(out), exit.ExitCode()
	}
	require.NoError(t, err)
	return string(out), 0
}

func TestCommandLine(t *testing.T) {
	dir := t.TempDir()
	file, data := filepath.Join(dir, "lamp.goldentrace"), filepath.Join(dir, "data")
	_, code := command(t, "demo-project", "Moth Lamp", "--out", file)
	require.Zero(t, code)
	out, code := command(t, "check", file)
	assert.Zero(t, code)
	assert.Contains(t, out, "No findings.")

	out, code = command(t, "check", file, "--house", "Northgate Boards")
	assert.Zero(t, code)
	assert.Contains(t, out, "Northgate Boards makes it as Plain, at 1.00 times the price of a plain board.")
	out, code = command(t, "check", file, "--house", "tallow", "--json")
	assert.Zero(t, code)
	var against struct {
		House struct {
			Name, Class string
			Limits      []struct {
				Limit string
				Bound int64
				Found *struct{ Value int64 }
				Keeps bool
			}
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &against))
	assert.Equal(t, []string{"Tallow Fine-Line", "Fine"}, []string{against.House.Name, against.House.Class})
	for _, l := range against.House.Limits {
		assert.True(t, l.Keeps, l.Limit)
		if l.Limit == "track" {
			assert.EqualValues(t, 800_000, l.Found.Value, "its tracks are of 0.8 mm")
			assert.EqualValues(t, 100_000, l.Bound)
		}
	}
	out, code = command(t, "check", file, "--house", "nobody")
	assert.Equal(t, 2, code)
	assert.Contains(t, out, `there is no board house called "nobody"`)

	shown := filepath.Join(dir, "lamp.png")
	_, code = command(t, "picture", file, "--side", "bottom", "--pixels", "500", "--out", shown)
	require.Zero(t, code)
	drawn, err := os.ReadFile(shown)
	require.NoError(t, err)
	config, err := png.DecodeConfig(bytes.NewReader(drawn))
	require.NoError(t, err)
	assert.Equal(t, []int{500, 400}, []int{config.Width, config.Height}, "a board of 50 × 40 mm")
	_, code = command(t, "picture", file, "--out", filepath.Join(dir, "lamp.svg"))
	assert.Zero(t, code)
	for says, bad := range map[string][]string{"not seen from \"inside\"": {"--side", "inside", "--out", shown}, "not as lamp.jpg": {"--out", filepath.Join(dir, "lamp.jpg")},
		"not 9": {"--pixels", "9", "--out", shown}} {
		out, code = command(t, append([]string{"picture", file}, bad...)...)
		assert.Equal(t, 2, code)
		assert.Contains(t, out, says)
	}

	first := filepath.Join(dir, "first.goldentrace")
	_, code = command(t, "demo-project", "Moth Lamp, first try", "--out", first)
	require.Zero(t, code)
	out, code = command(t, "check", first, "--json")
	assert.Equal(t, 1, code)
	var found struct {
		Findings []struct{ Kind, Severity string }
	}
	require.NoError(t, json.Unmarshal([]byte(out), &found))
	faults := map[string]int{}
	for _, f := range found.Findings {
		if f.Severity != "todo" && f.Severity != "note" || f.Kind == "openPin" {
			faults[f.Kind]++
		}
	}
	assert.Equal(t, map[string]int{"openPin": 1, "edge": 1}, faults, "a fault and a pin to find")

	_, code = command(t, "project", "import", "--data", data, file)
	require.Zero(t, code)
	out, code = command(t, "project", "import", "--data", data, file)
	require.Zero(t, code)
	assert.Contains(t, out, `"Moth Lamp (2)"`, "a name that is taken gets a number")
	out, code = command(t, "project", "list", "--data", data, "--json")
	require.Zero(t, code)
	assert.Contains(t, out, `"Moth Lamp"`)
	back := filepath.Join(dir, "back.goldentrace")
	_, code = command(t, "project", "export", "--data", data, "--project", "Moth Lamp", "--out", back)
	require.Zero(t, code)
	was, err := os.ReadFile(file)
	require.NoError(t, err)
	is, err := os.ReadFile(back)
	require.NoError(t, err)
	named := regexp.MustCompile(`"guid":"[0-9a-f-]{36}",`)
	assert.Regexp(t, named, string(is), "it is named among all projects once it is kept")
	assert.Equal(t, string(was), named.ReplaceAllString(string(is), ""), "out and in and out again")

	out, code = command(t, "handoff", file, "--out", filepath.Join(dir, "files"))
	require.Zero(t, code, out)
	names, err := filepath.Glob(filepath.Join(dir, "files", "moth-lamp-*"))
	require.NoError(t, err)
	assert.Len(t, names, 16)
}

// A pack with a switch whose pin B has no pad, then with all pads, then cut short.
func TestCheckingAPack(t *testing.T) {
	dir := t.TempDir()
	pads := []string{
		`{"number":"A","form":"rect","at":{"x":-3000000,"y":0},"size":{"x":1200000,"y":1200000}}`,
		`{"number":"B","form":"rect","at":{"x":3000000,"y":0},"size":{"x":1200000,"y":1200000}}`,
	}
	zipped := func(name, pads string) string {
		file := filepath.Join(dir, name)
		var b bytes.Buffer
		z := zip.NewWriter(&b)
		w, err := z.Create("pack.json")
		require.NoError(t, err)
		_, err = io.WriteString(w, `{"format":"golden-trace-part-pack","version":1,"parts":[{
			"part":{"name":"Push switch","prefix":"S","symbol":"Push switch","footprint":"Push 6 mm"},
			"symbols":[{"name":"Push switch","figures":[],"pins":[
				{"number":"A","type":"passive","at":{"x":-5080000,"y":0},"turn":0,"length":2540000},
				{"number":"B","type":"passive","at":{"x":5080000,"y":0},"turn":2,"length":2540000}]}],
			"footprints":[{"name":"Push 6 mm","silk":[],"body":[{"form":"area","pts":[{"x":-2000000,"y":-2000000},{"x":2000000,"y":-2000000},{"x":2000000,"y":2000000},{"x":-2000000,"y":2000000}]}],
				"courtyard":[{"x":-4000000,"y":-3000000},{"x":4000000,"y":-3000000},{"x":4000000,"y":3000000},{"x":-4000000,"y":3000000}],
				"pads":[`+pads+`]}]}]}`)
		require.NoError(t, err)
		require.NoError(t, z.Close())
		require.NoError(t, os.WriteFile(file, b.Bytes(), 0o644))
		return file
	}
	out, code := command(t, "part", "check", zipped("lacks.zip", pads[0]), "--json")
	assert.Equal(t, 1, code, out)
	var found struct {
		Parts []struct {
			Part     string
			Findings []struct{ Text, Severity string }
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &found))
	require.Len(t, found.Parts, 1)
	assert.Equal(t, "Push switch", found.Parts[0].Part)
	require.NotEmpty(t, found.Parts[0].Findings)
	assert.Contains(t, found.Parts[0].Findings[0].Text, "B")

	whole := zipped("whole.zip", strings.Join(pads, ","))
	out, code = command(t, "part", "check", whole)
	assert.Zero(t, code, out)
	assert.Contains(t, out, "Push switch: no findings.")

	data, err := os.ReadFile(whole)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(whole, data[:len(data)/2], 0o644))
	out, code = command(t, "part", "check", whole)
	assert.Equal(t, 2, code, out)
	assert.Contains(t, out, "cut short")
}

func TestBadInputGetsASentence(t *testing.T) {
	dir := t.TempDir()
	good := filepath.Join(dir, "good")
	_, code := command(t, "demo-project", "Moth Lamp", "--out", good)
	require.Zero(t, code)
	text, err := os.ReadFile(good)
	require.NoError(t, err)
	lines := strings.SplitAfter(string(text), "\n")
	for name, c := range map[string]struct{ content, says string }{
		"empty":        {"", "is empty"},
		"foreign":      {"{\"hello\": 1}\n", "not a Golden Trace project file"},
		"binary":       {"\x00\x01\x02PK", "not a Golden Trace project file"},
		"newer":        {strings.Replace(string(text), fmt.Sprintf(`"version":%d`, design.Version), `"version":9`, 1), "version 9"},
		"cut":          {strings.Join(lines[:20], ""), "cut short"},
		"damaged":      {strings.Join(lines[:9], "") + "{\"kind\":\"part\"\n" + strings.Join(lines[10:], ""), "damaged in line 10"},
		"twice":        {strings.Join(lines[:5], "") + lines[4] + strings.Join(lines[5:], ""), "used twice"},
		"unknown":      {strings.Replace(string(text), `"kind":"wire"`, `"kind":"rope"`, 1), "rope"},
		"not a number": {strings.Replace(string(text), `"fixed":800000`, `"fixed":"wide"`, 1), "cannot be read"},
		"crossing":     {strings.Replace(string(text), `{"x":50000000,"y":0},{"x":50000000,"y":40000000}`, `{"x":50000000,"y":40000000},{"x":50000000,"y":0}`, 1), "crosses itself"},
		"no footprint": {strings.Replace(string(text), `"name":"TO-92 wide"`, `"name":"TO-93"`, 1), "TO-92 wide"},
	} {
		t.Run(name, func(t *testing.T) {
			file := filepath.Join(dir, strings.ReplaceAll(name, " ", "-"))
			require.NoError(t, os.WriteFile(file, []byte(c.content), 0o644))
			out, code := command(t, "check", file)
			assert.Equal(t, 2, code, out)
			assert.Contains(t, out, c.says)
			assert.NotContains(t, out, "panic")
			data := filepath.Join(dir, "data")
			_, code = command(t, "project", "import", "--data", data, file)
			assert.Equal(t, 2, code)
			out, _ = command(t, "project", "list", "--data", data, "--json")
			assert.Equal(t, "[]\n", out, "nothing was kept")
		})
	}
	out, code := command(t, "check", filepath.Join(dir, "absent"))
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "no such file")
	out, code = command(t, "demo-project", "Nothing", "--out", filepath.Join(dir, "x"))
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "no demo project")
}

func TestRefusedRequests(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	ask := func(method, path, body string, change func(*http.Request)) (int, string) {
		req, err := http.NewRequest(method, p.url+path, strings.NewReader(body))
		require.NoError(t, err)
		if change != nil {
			change(req)
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		var f struct{ Error string }
		_ = json.NewDecoder(res.Body).Decode(&f)
		if res.StatusCode == 200 {
			assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'none'")
			assert.NotContains(t, res.Header.Get("Content-Security-Policy"), "unsafe")
		}
		return res.StatusCode, f.Error
	}
	code, _ := ask("GET", "/", "", nil)
	assert.Equal(t, 200, code)
	code, _ = ask("GET", "/api/projects", "", func(r *http.Request) { r.Host = "elsewhere.example" })
	assert.Equal(t, 403, code, "wrong host")
	code, _ = ask("POST", "/api/projects", `{"name":"x"}`, func(r *http.Request) { r.Header.Set("Origin", "http://elsewhere.example") })
	assert.Equal(t, 403, code, "wrong origin")
	code, _ = ask("GET", "/api/projects/1/live", "", func(r *http.Request) {
		r.Header.Set("Origin", "http://elsewhere.example")
		r.Header.Set("Connection", "Upgrade")
		r.Header.Set("Upgrade", "websocket")
	})
	assert.Equal(t, 403, code, "wrong origin on the live connection")
	code, _ = ask("POST", "/api/projects", `{"name":"Sluice"}`, nil)
	assert.Equal(t, 201, code)
	code, says := ask("POST", "/api/projects", `{"name":"sluice"}`, nil)
	assert.Equal(t, 409, code)
	assert.Contains(t, says, "already a project with this name")
	code, says = ask("POST", "/api/projects", `{"name":"  "}`, nil)
	assert.Equal(t, 400, code)
	assert.Equal(t, "A project needs a name.", says)
	code, says = ask("GET", "/api/projects/99/live", "", nil)
	assert.Equal(t, 404, code)
	assert.Contains(t, says, "no such project")

	id := p.projectID("Sluice")
	w := p.live(id)
	refused := func(cmd map[string]any, want string) {
		t.Helper()
		m, err := w.ask(want, map[string]any{"t": "edit", "cmd": cmd})
		require.NoError(t, err)
		assert.Equal(t, "refused", m.T)
		assert.Contains(t, m.Why, want)
	}
	pt := func(x, y int) map[string]int { return map[string]int{"x": x, "y": y} }
	refused(map[string]any{"kind": "setOutline", "outline": []any{pt(0, 0), pt(10_000_000, 10_000_000), pt(10_000_000, 0), pt(0, 10_000_000)}}, "crosses itself at 5 mm, 5 mm")
	refused(map[string]any{"kind": "fly"}, "no edit called")
	refused(map[string]any{"kind": "setOutline", "outline": "round"}, "cannot be read")
	refused(map[string]any{"kind": "setOutline", "outlines": nil}, "says something that this version does not know")
	refused(map[string]any{"kind": "placePart", "sheet": w.open.sheet(), "library": "Flux capacitor", "at": pt(0, 0)}, "no part called")
	refused(map[string]any{"kind": "placeLabel", "sheet": w.open.sheet(), "name": "a\nb", "at": pt(0, 0)}, "control character")
	refused(map[string]any{"kind": "addHole", "at": pt(9_000_000_000_000, 0), "diameter": 1000}, "beyond")
	refused(map[string]any{"kind": "drawTrack", "net": 77, "runs": []any{}}, "no such net")
}
