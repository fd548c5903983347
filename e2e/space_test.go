package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What is drawn in space, told from the picture itself: how many of its dots are neither see-through nor of the board's mask.
const drawnInSpace = `(()=>{const c=document.querySelector('.space canvas');const k=document.createElement('canvas');k.width=k.height=60;const x=k.getContext('2d');
	x.drawImage(c,0,0,60,60);const d=x.getImageData(0,0,60,60).data;let n=0;for(let i=0;i<d.length;i+=4)if(d[i+3]>200)n++;return n})()`

// Footprints are suggested by what the chosen part measures, and seen in space with the part's body on them.
func aFootprintForAChosenPart(t *testing.T, b *tab) {
	b.view("Assign")
	b.fill("Filter the parts", "SK-485")
	b.until("!!" + rowOf("U5"))
	b.click(b.found(rowOf("U5") + `.querySelector('[data-c="0"]')`))
	b.sees("the nearest to SK-485 first")
	b.until(`document.querySelectorAll('[aria-label="Footprints that suit"] [role=option]').length > 3`)
	first := eval[string](b, `document.querySelectorAll('[aria-label="Footprints that suit"] [role=option]')[0].innerText`)
	assert.Contains(t, first, "equal", "the depot’s part measures what the standard says")
	b.click(b.found(`[...document.querySelectorAll('[aria-label="Footprints that suit"] [role=option]')].find(o=>o.innerText.includes('SOIC127P600X175-8N'))`))
	b.press("In space")
	b.until(`!!document.querySelector('.space canvas')`)
	b.until(drawnInSpace + ` > 300`)
	b.glimpse("assign-space")
}

// All parts of Weir Gauge lose their footprints and get them again: one kind by what measures the same, the others their parts' own.
func assigningAllOfWeirGauge(t *testing.T, b *tab) {
	b.view("Library") // and back, without a filter
	b.until(`!!document.querySelector('[aria-label="Find parts"]')`)
	b.view("Assign")
	b.until(`!!document.querySelector('[aria-label="Filter the parts"]')`)
	b.until("!!" + rowOf("C1"))
	bare := `goldenTrace.all('part').filter(p => !p.footprint).length`
	b.click(b.found(rowOf("C1") + `.querySelector('[data-c="0"]')`))
	b.key("a", ctrl)
	b.press("Take theirs away")
	b.until(bare + ` === goldenTrace.all('part').length`)
	b.sees("103 without a footprint")
	b.until(`[...document.querySelectorAll('nav.rail a, nav.rail button')].some(a => a.innerText.startsWith('Parts') && !a.innerText.includes('done'))`)
	b.fill("Filter the parts", "librarypart:0603")
	b.until("!!" + rowOf("R1"))
	b.fill("Filter the parts", "librarypart:resistor 0603")
	b.until("!" + rowOf("C2"))
	b.click(b.found(rowOf("R1") + `.querySelector('[data-c="0"]')`))
	b.key("a", ctrl)
	b.fill("Filter the footprints", "RESC1608*N")
	b.click(b.found(`[...document.querySelectorAll('[aria-label="Footprints that suit"] [role=option]')].find(o=>/^RESC1608X\d+N/.test(o.innerText))`))
	b.click(b.found(`[...document.querySelectorAll('aside button')].find(x=>/^Give it to \d+/.test(x.innerText))`))
	b.until(`goldenTrace.all('part').filter(p => p.library === 'Resistor 0603').every(p => /^RESC1608/.test(p.footprint))`)
	b.click(b.found(`[...document.querySelectorAll('button')].find(x=>/their parts’ own/.test(x.innerText))`))
	b.sees("all have a footprint")
	assert.Zero(t, eval[int](b, bare))
	b.key("z", ctrl)
	b.sees("without a footprint")
}
