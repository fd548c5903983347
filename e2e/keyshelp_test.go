package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// The keys that hold where one is, and no others: of the list of projects, of a board of four copper layers, of a page without a drawing.
func TestKeysOfWhereOneIs(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Weir Gauge")
	b.key("?", shift)
	b.there("dialog", "Keys of the list of projects")
	b.sees("New project")
	listed := `[...document.querySelectorAll('.help .row')].map(r => r.innerText.split('\n')[0])`
	assert.Equal(t, []string{"New project", "Find a project", "Import files", "These keys"}, eval[[]string](b, listed))
	b.key(escape)
	b.until(`!document.querySelector('.help')`)
	b.key("/")
	b.until(`document.activeElement?.getAttribute('aria-label') === 'Find a project'`)
	b.typing("Weir")
	b.click(b.found(`[...document.querySelectorAll('article a')].find(a => /Weir/.test(a.innerText))`))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	b.key("?", shift)
	b.there("dialog", "Keys of this stage")
	board := eval[[]string](b, listed)
	assert.Contains(t, board, "Copper layer 4")
	assert.NotContains(t, board, "Copper layer 5")
	assert.Contains(t, board, "Nearer, further")
	assert.NotContains(t, board, "New project")
	b.key(escape)
	b.until(`!document.querySelector('.help')`)
	b.stage("Checks")
	b.sees("Circuit and board")
	b.key("?", shift)
	b.there("dialog", "Keys of this stage")
	assert.NotContains(t, eval[[]string](b, listed), "Nearer, further", "there is no drawing")
}
