package e2e

import (
	"bytes"
	"encoding/base64"
	"os"
	"path/filepath"
	"testing"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// saves makes the tab note what it hands to the browser to keep.
func (b *tab) saves() {
	b.t.Helper()
	eval[bool](b, `(()=>{const make=URL.createObjectURL;let last;URL.createObjectURL=b=>{last=b;return make.call(URL,b)};
		HTMLAnchorElement.prototype.click=function(){const n=this.download;last.arrayBuffer().then(a=>{
			let s='';for(const x of new Uint8Array(a))s+=String.fromCharCode(x);window.savedFile={name:n,body:btoa(s)}})};return true})()`)
}

// All parts of a project go as a pack into the workspace of another program, where a project takes one.
func TestAPackFromOneProgramToAnother(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Weir Gauge")
	p.openStage(t, b, "Weir Gauge", "parts")
	b.saves()
	b.press("In and out")
	b.click(b.found(seen("menuitem", "All parts of this project*")))
	b.until(`!!window.savedFile`)
	assert.Equal(t, "weir-gauge-parts.zip", eval[string](b, `savedFile.name`))
	data, err := base64.StdEncoding.DecodeString(eval[string](b, `savedFile.body`))
	require.NoError(t, err)
	dir := t.TempDir()
	whole, cut := filepath.Join(dir, "gauge.zip"), filepath.Join(dir, "cut.zip")
	require.NoError(t, os.WriteFile(whole, data, 0o644))
	require.NoError(t, os.WriteFile(cut, data[:len(data)/3], 0o644))
	out, code := command(t, "part", "check", whole)
	assert.Zero(t, code, out)
	eval[bool](b, `(delete window.savedFile)`)
	b.press("In and out")
	b.click(b.found(seen("menuitem", "Print the footprints*")))
	b.until(`!!window.savedFile`)
	assert.Equal(t, "weir-gauge-footprints.pdf", eval[string](b, `savedFile.name`))
	printed, err := base64.StdEncoding.DecodeString(eval[string](b, `savedFile.body`))
	require.NoError(t, err)
	r, err := pdf.NewReader(bytes.NewReader(printed), int64(len(printed)))
	require.NoError(t, err)
	text, err := r.GetPlainText()
	require.NoError(t, err)
	var words bytes.Buffer
	_, err = words.ReadFrom(text)
	require.NoError(t, err)
	for _, name := range eval[[]string](b, `goldenTrace.all('footprint').map(f => f.name)`) {
		assert.Contains(t, words.String(), name)
	}

	c := partsOf(t, "Elsewhere")
	c.upload("File of a pack", cut)
	c.sees("cut short")
	c.press("Close")
	c.upload("File of a pack", whole)
	c.sees("27 parts. Nothing is kept yet")
	c.glimpse("pack")
	c.fill("Find parts", "Relay")
	assert.False(t, eval[bool](c, `[...document.querySelectorAll('[role=grid] [role=row]')].some(r=>r.innerText.includes('workspace'))`))
	c.press("Keep 27 parts in the workspace")
	c.until(`[...document.querySelectorAll('[role=grid] [role=row]')].some(r=>r.innerText.includes('Relay')&&r.innerText.includes('workspace'))`)
	relay := `[...document.querySelectorAll('[role=grid] [role=row]')].find(r=>r.innerText.includes('Relay')&&r.innerText.includes('workspace'))`
	c.click(c.found(relay + `.querySelector('[data-c="0"]')`))
	c.sees("Version 1")
	c.glimpse("versions")
	c.press("Withdraw version 1")
	c.sees("withdrawn")
	c.until("!" + relay)
	c.press("Bring back version 1")
	c.until("!!" + relay)
	c.upload("File of a pack", whole)
	c.sees("The workspace has all of them")
	assert.Equal(t, 27, eval[int](c, `document.querySelectorAll('[data-state=same]').length`))
	c.key(escape)
	c.gone("dialog", "Parts of a pack")
}
