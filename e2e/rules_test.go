package e2e

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A rule for one class in one area: drawn, said, asked "why?"; one that matches nothing says so, one that another hides too; the order is changed, numbers are
// typed at the drawing.
func TestRulesOfABoard(t *testing.T) {
	b := light(t)
	b.focus()
	b.key(escape)
	b.key("f")
	b.key("a")
	b.drag(25.4, 5.08, 58.42, 36.83)
	b.until(`goldenTrace.all('ruleArea').length === 1`)
	b.key(escape)
	net := eval[string](b, `goldenTrace.netName(Object.values(goldenTrace.all('placed').find(p => p.designator === 'R1').nets)[0])`)

	b.key("r")
	b.there("dialog", "Rules")
	b.sees("There are none: the numbers above hold for everything")
	b.glimpse("rules-empty")
	b.fill("clearance", "0.25")
	b.until(`goldenTrace.rule('clearance') === 250000`)
	b.fill("Nets called", net)
	b.fill("Class", "signal")
	b.press("Give it to 1")
	b.sees("1 net is of the class signal now.")
	b.sees("signal 1")

	b.press("New rule")
	b.sees("Say for what it is to hold")
	b.fill("Value, mm", "0.7")
	b.choose("Class", "signal")
	b.choose("Within", "Area 1")
	b.sees("Between anything of the class signal in Area 1 and anything: clearance 0.7 mm.")
	b.glimpse("rule-editor")
	b.press("Add the rule")
	b.until(`goldenTrace.all('rule').some(r => r.a?.class === 'signal' && r.a?.area)`)
	b.sees("thing")
	b.press("New rule")
	b.fill("Of the part", "R99")
	b.sees("No part of the board is called R99.")
	b.key(escape)
	b.click(field("Nets called"))
	b.key("a", ctrl)
	b.typing("NOSUCH*")
	b.sees("It holds for 0 things") // while one types
	b.key(escape)
	b.sees("Say for what it is to hold") // what was typed is given up
	b.click(field("Nets called"))
	b.typing("NOSUCH*")
	b.key(enter)
	b.press("Add the rule")
	b.sees("Nothing on the board fits it now.")
	b.glimpse("rules")

	// out into a file and in again, less a rule that names what is not here
	code, written := b.p.api("GET", fmt.Sprintf("/projects/%d/rules.json", eval[int](b, `goldenTrace.id`)), nil)
	require.Equal(t, 200, code)
	assert.Contains(t, string(written), `"class": "signal"`)
	file := filepath.Join(t.TempDir(), "rules.json")
	require.NoError(t, os.WriteFile(file, bytes.Replace(written, []byte(`"net": "NOSUCH*"`), []byte(`"layer": "Inner 7"`), 1), 0o644))
	b.upload("File of rules", file)
	b.sees("and 1 rule for some things, in place of the 2 there are")
	b.sees("is left out: there is no layer Inner 7 here.")
	b.press("Take them")
	b.until(`goldenTrace.all('rule').filter(r => r.a?.class || r.a?.net).length === 1`)
	b.key(escape)
	b.gone("dialog", "Rules")

	// why? of the resistor: within the area its pad's clearance is the class's, the rule for everything is beaten
	b.pickPart("R1")
	b.press("Why? Rules that hold here")
	b.sees("Between anything of the class signal in Area 1 and anything: clearance 0.7 mm.")
	b.sees("instead of: Everywhere: clearance 0.25 mm.")
	b.until(`[...document.querySelectorAll('.why dd')].some(e => { const r = e.getBoundingClientRect(); return document.elementFromPoint(r.x + 4, r.y + r.height / 2) === e })`) // it is scrolled to
	b.focus()
	b.onBoard("R1", "10", "34", "0")
	b.press("Why? Rules that hold here")
	b.sees("Everywhere: clearance 0.25 mm.")
	assert.Equal(t, false, eval[bool](b, `document.body.innerText.includes('clearance 0.7 mm')`), "outside the area it does not hold")
	b.key("z", ctrl)
}
