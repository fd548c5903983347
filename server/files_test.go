package server

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"goldentrace/demo"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The files of a board are refused while the checks find something, made all the same when one
// insists, kept, and shown as an independent reader reads them.
func TestFilesOfABoard(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	at := func(format string, a ...any) string {
		return fmt.Sprintf("/projects/%d", id) + fmt.Sprintf(format, a...)
	}
	code, body := k.ask("GET", at("/handoff.zip"), "")
	assert.Equal(t, 400, code)
	assert.Contains(t, body, "No files were made of this project yet.")

	moth, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	l := k.dial(id)
	l.opened()
	l.say(map[string]any{"t": "edit", "ref": "e", "cmd": map[string]any{"kind": "removeNetTracks", "net": moth.NetNamed("+3V").ID}})
	l.until("the edit", func(m raw) bool { return m.Ref == "e" && m.T == "done" })
	code, body = k.ask("POST", at("/handoff"), "")
	var f Failure
	require.NoError(t, json.Unmarshal([]byte(body), &f))
	require.Equal(t, 409, code, body)
	assert.Positive(t, f.Findings)
	assert.Equal(t, 1, f.Unjoined)
	assert.Contains(t, f.Error, "1 net is not joined: 5 links are open.")

	code, body = k.ask("POST", at("/handoff?despite=1"), "")
	require.Equal(t, 201, code, body)
	var state HandoffState
	require.NoError(t, json.Unmarshal([]byte(body), &state))
	assert.Equal(t, f.Findings, state.Findings)
	assert.NotEmpty(t, state.Fingerprint)
	l.next("handoff")

	code, archive := k.ask("GET", at("/handoff.zip"), "")
	require.Equal(t, 200, code)
	assert.Len(t, archive, state.Size)
	z, err := zip.NewReader(bytes.NewReader([]byte(archive)), int64(len(archive)))
	require.NoError(t, err)
	names := map[string]bool{}
	for _, f := range z.File {
		names[f.Name] = true
	}
	kinds := map[string]int{}
	for _, f := range state.Files {
		assert.True(t, names[f.Name], f.Name)
		code, data := k.ask("GET", at("/handoff/%s", f.Name), "")
		require.Equal(t, 200, code, f.Name)
		code, body := k.ask("GET", at("/handoff/%s/drawing", f.Name), "")
		require.Equal(t, 200, code, f.Name)
		var d Drawing
		require.NoError(t, json.Unmarshal([]byte(body), &d))
		assert.Equal(t, f.Kind, d.Kind)
		kinds[f.Kind]++
		switch f.Kind {
		case "artwork":
			assert.True(t, strings.HasSuffix(strings.TrimSpace(data), "M02*"), f.Name)
			if !strings.HasPrefix(f.Role, "paste") { // all its parts have legs
				require.NotEmpty(t, d.Marks, f.Name)
				assert.Positive(t, d.Box.Max.X-d.Box.Min.X, f.Name)
			}
			assert.True(t, strings.HasPrefix(d.Count, fmt.Sprintf("%d marks, ", len(d.Marks))), d.Count)
		case "drill":
			assert.Equal(t, fmt.Sprintf("%d holes", len(d.Holes)), d.Count)
			for _, h := range d.Holes {
				assert.LessOrEqual(t, d.Box.Min.X+h.Diameter/2, h.At.X)
				assert.GreaterOrEqual(t, d.Box.Max.Y-h.Diameter/2, h.At.Y)
			}
		case "table":
			assert.Equal(t, fmt.Sprintf("%d lines", strings.Count(strings.TrimSpace(data), "\n")), d.Count)
		case "netlist":
			require.Greater(t, len(d.Rows), 1)
			assert.Equal(t, "Net", d.Rows[0][0])
			assert.Len(t, d.Rows[1], len(d.Rows[0]))
			loaded, err := k.store.Load(context.Background(), id)
			require.NoError(t, err)
			checked := 0
			for _, row := range d.Rows[1:] {
				for p := range loaded.Doc.Placed.All() {
					for _, pad := range loaded.Doc.Footprint(p.Footprint).Pads {
						if p.Designator != row[1] || pad.Number != row[2] {
							continue
						}
						at := p.Pose().Apply(pad.At)
						assert.Equal(t, []string{fmt.Sprintf("%.3f", float64(at.X)/1e6), fmt.Sprintf("%.3f", float64(at.Y)/1e6), fmt.Sprintf("%.2f", float64(pad.Hole)/1e6)}, row[3:], "%s.%s", row[1], row[2])
						checked++
					}
				}
			}
			assert.Equal(t, 26, checked, "all pads of the lamp")
		default:
			assert.Equal(t, data, d.Text)
		}
	}
	assert.GreaterOrEqual(t, kinds["artwork"], 7, "copper, mask, silk and outline")
	for _, kind := range []string{"drill", "table", "netlist"} {
		assert.Positive(t, kinds[kind], kind)
	}
	code, body = k.ask("GET", at("/handoff/none.gbr"), "")
	assert.Equal(t, 400, code)
	assert.Contains(t, body, "has no file")
}

// All sheets as a document, sent under the project's name.
func TestTheCircuitAsADocument(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Weir Gauge")
	code, pdf := k.ask("GET", fmt.Sprintf("/projects/%d/circuit.pdf", id), "")
	require.Equal(t, 200, code)
	assert.True(t, strings.HasPrefix(pdf, "%PDF-1."))
	assert.True(t, strings.HasSuffix(strings.TrimSpace(pdf), "%%EOF"))
	assert.Equal(t, 10, strings.Count(pdf, "/Type /Page\n"), "one page a use of a sheet")
}
