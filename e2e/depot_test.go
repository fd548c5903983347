package e2e

import (
	"encoding/base64"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// gaugeParts opens the stage of parts of Weir Gauge.
func gaugeParts(t *testing.T, b *tab, p *program) {
	t.Helper()
	b.sees("Weir Gauge")
	p.openStage(t, b, "Weir Gauge", "parts")
	b.until(`!!document.querySelector('[aria-label="Find parts"]')`)
}

// view of the parts: Library, Assign, Depot, Basket.
func (b *tab) view(name string) {
	b.t.Helper()
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('[aria-label="What is seen of the parts"] button')].find(x=>x.innerText===%q)`, name)))
}

// row is the first row of the table in which all words stand.
func rowOf(words ...string) string {
	test := "true"
	for _, w := range words {
		test += fmt.Sprintf("&&r.innerText.includes(%q)", w)
	}
	return `[...document.querySelectorAll('[role=grid] [role=row][data-r]')].find(r=>` + test + `)`
}

// field of the part of the circuit with the designator.
func (b *tab) partField(designator, field string) string {
	b.t.Helper()
	return eval[string](b, fmt.Sprintf(`goldenTrace.all('part').find(p=>p.designator===%q)?.fields?.[%q] ?? ''`, designator, field))
}

// Parts of Weir Gauge are bought and assigned, one thing after the other in one browser.
func TestBuyingAndAssigning(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	gaugeParts(t, b, p)
	for _, step := range []func(*testing.T, *tab){choosingInTheDepot, aBasketForTwentyFiveBoards, aFootprintForAChosenPart, assigningAllOfWeirGauge} {
		step(t, b)
	}
}

// A relay is chosen in the depot for a part that had none, among relays that are compared; the depot fails meanwhile, and nothing is lost.
func choosingInTheDepot(t *testing.T, b *tab) {
	b.view("Assign")
	b.sees("all have a footprint")
	b.fill("Filter the parts", "K1")
	b.until("!!" + rowOf("K1"))
	b.click(b.found(rowOf("K1") + `.querySelector('[data-c="0"]')`))
	b.press("Choose in the depot")
	b.sees("Relay 5 V, 5 A, one change-over")
	b.sees("for K1")
	b.glimpse("depot-relay")

	b.view("Assign")
	b.fill("Filter the parts", "52k3")
	b.until("!!" + rowOf("R1"))
	b.click(b.found(rowOf("R1") + `.querySelector('[data-c="0"]')`))
	b.press("Choose another in the depot")
	b.until(`!!document.querySelector("[aria-label=\"Filters of the depot\"] .v-chip")`)
	assert.Equal(t, "52.3 kΩ", eval[string](b, `[...document.querySelectorAll('[aria-label="Filters of the depot"] .v-chip')].map(x=>x.innerText.trim()).find(x=>x.includes('Ω'))`))
	b.glimpse("depot-resistor")
	b.view("Assign")
	b.fill("Filter the parts", "K1")
	b.until("!!" + rowOf("K1"))
	b.click(b.found(rowOf("K1") + `.querySelector('[data-c="0"]')`))
	b.press("Choose in the depot")
	b.sees("for K1")
	b.press("All families")
	b.fill("Find in the depot", "relay 5 V change-over")
	b.until("!!" + rowOf("HXRL50-5C") + "&&!!" + rowOf("HX-R5"))
	for _, n := range []string{"HXRL50-5C", "HX-R5"} {
		b.click(b.found(rowOf(n) + `.querySelector('[data-c="0"]')`))
		b.press("Compare")
	}
	b.press("Compare 2")
	b.sees("Side by side")
	b.until(`document.querySelectorAll('[aria-label="Parts side by side"] tbody tr').length > 8`)
	b.glimpse("depot-compare")
	b.key(escape)
	b.gone("dialog", "Parts side by side")

	b.press("Osier & Finch")
	b.click(b.found(seen("menuitem", "The simulated depot answers with a failure")))
	b.sees("cannot answer")
	b.glimpse("depot-failing")
	b.fill("Find in the depot", "relay 12 V")
	b.sees("What is listed is of before")
	b.press("Osier & Finch")
	b.click(b.found(seen("menuitem", "The simulated depot answers slowly")))
	b.sees("The depot is being asked")
	b.press("Stop")
	b.sees("It was stopped")
	b.press("Osier & Finch")
	b.click(b.found(seen("menuitem", "The simulated depot answers well")))
	b.until("!!" + rowOf("Relay 12 V"))
	b.fill("Find in the depot", "HX-R5")
	b.click(b.found(rowOf("HX-R5") + `.querySelector('[data-c="0"]')`))
	b.press("Choose for K1")
	b.until(`goldenTrace.all('part').find(p=>p.designator==='K1').fields?.['part number']==='HX-R5'`)
	assert.Equal(t, "Haldwick", b.partField("K1", "maker"))
	b.key("z", ctrl)
	b.until(`!goldenTrace.all('part').find(p=>p.designator==='K1').fields?.['part number']`)
}

// A basket for 25 boards of Weir Gauge: what it needs is as the circuit says, what it costs is as the depot's prices say, and its table is what is seen.
func aBasketForTwentyFiveBoards(t *testing.T, b *tab) {
	b.view("Basket")
	b.until("!!" + rowOf("QFC0603100NX50"))
	b.glimpse("basket")
	b.fill("Boards", "25")
	b.fill("Spares, %", "2")
	b.until(rowOf("QFC0603100NX50") + `.innerText.includes('425')`) // 17 on a board: nine, and two four times
	b.sees("parts of the board are ordered nowhere")

	b.saves()
	b.press("Save the table")
	b.until(`!!window.savedFile`)
	assert.Equal(t, "weir-gauge-basket.csv", eval[string](b, `savedFile.name`))
	data, err := base64.StdEncoding.DecodeString(eval[string](b, `savedFile.body`))
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(string(data))).ReadAll()
	require.NoError(t, err)
	total := 0.0
	need := map[string]int{}
	for _, r := range rows[1:] {
		if r[7] != "" {
			pieces, _ := strconv.ParseFloat(r[4], 64)
			each, _ := strconv.ParseFloat(r[6], 64)
			sum, _ := strconv.ParseFloat(r[7], 64)
			assert.InDelta(t, pieces*each, sum, 1e-6, r[2])
			total += sum
		}
		n, _ := strconv.Atoi(r[8])
		need[r[2]] += n
	}
	assert.Equal(t, 25, need["HX-48C"])
	assert.Equal(t, 100, need["BV272"], "one for each of four probes")
	assert.Equal(t, 50, need[""], "the relay and the coin cell")
	b.sees(fmt.Sprintf("%.2f €", total))
}
