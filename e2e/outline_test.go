package e2e

import (
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// boardArea is what the board's outline encloses less its cut-outs, in mm², worked out from its corners in the page: the shoelace formula and the
// segments of arcs.
const boardArea = `(()=>{const area=c=>c.reduce((s,p,i)=>{const q=c[(i+1)%c.length];let a=(p.x*q.y-q.x*p.y)/2;if(p.mid){const m=p.mid,
	A=Math.hypot(m.x-q.x,m.y-q.y),B=Math.hypot(p.x-m.x,p.y-m.y),C=Math.hypot(p.x-q.x,p.y-q.y),k=((m.x-p.x)*(q.y-p.y)-(m.y-p.y)*(q.x-p.x))/2,
	r=A*B*C/(4*Math.abs(k)),obtuse=A*A+B*B<C*C,half=Math.asin(Math.min(1,C/2/r)),th=2*(obtuse?half:Math.PI-half);
	a+=Math.sign(k)*(r*r*(th-Math.sin(th))/2)}return s+a},0)/1e12;const b=goldenTrace.board;return area(b.outline)-(b.cutOuts??[]).reduce((s,c)=>s+Math.abs(area(c)),0)})()`

func (b *tab) edgeIs(area float64) {
	b.t.Helper()
	b.until(fmt.Sprintf(`goldenTrace.board.outline.length && Math.abs(%s-%g)<0.05`, boardArea, area))
}

// The edge is drawn with the hand, a side bent to an arc, corners rounded and moved by numbers, something cut out of it; each step is undone by one.
func TestShapingAnOutline(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Edges")
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	b.key("y")
	b.drag(2.54, 2.54, 43.18, 33.02) // 40.64 × 30.48 on the grid
	b.edgeIs(40.64 * 30.48)
	b.fill("Width, mm", "50")
	b.fill("Height, mm", "30")
	b.fill("x, mm", "0")
	b.fill("y, mm", "0")
	b.edgeIs(1500)
	b.key("f")

	// a corner by the hand onto the grid, then by its numbers
	b.drag(50, 30, 53.34, 33.02)
	b.until(`goldenTrace.board.outline[2].x === 53340000 && goldenTrace.board.outline[2].y === 33020000`)
	b.point(53.34, 33.02)
	b.sees("Corner 3")
	b.fill("x, mm", "50")
	b.fill("y, mm", "30")
	b.edgeIs(1500)
	b.fill("by, mm", "5")
	b.press("Round")
	b.edgeIs(1500 - 25*(1-math.Pi/4))
	b.glimpse("outline-corner")
	b.key(escape)

	// the lower side's middle pulled down makes a corner; its right half bent
	b.drag(25, 0, 25.4, -5.08)
	b.until(`goldenTrace.board.outline.length === 6`)
	b.sees("Corner 2")
	b.press("Take out")
	b.edgeIs(1500 - 25*(1-math.Pi/4))
	b.point(25, 0)
	b.sees("Side 1")
	b.fill("Radius, mm", "25")
	b.edgeIs(1500 - 25*(1-math.Pi/4) + math.Pi*25*25/2)
	b.glimpse("outline-arc")
	b.press("Straight")
	b.edgeIs(1500 - 25*(1-math.Pi/4))
	b.key(escape)

	// a round cut-out and a slot
	b.press("Cut-out")
	b.choose("Form", "Circle")
	b.drag(12.7, 15.24, 15.24, 15.24)
	b.edgeIs(1500 - 25*(1-math.Pi/4) - math.Pi*2.54*2.54)
	b.choose("Form", "Slot")
	b.drag(30.48, 10.16, 30.48, 20.32)
	b.edgeIs(1500 - 25*(1-math.Pi/4) - math.Pi*2.54*2.54 - 2*10.16 - math.Pi)
	b.drag(48.26, 10.16, 55.88, 10.16) // across the edge: refused, and nothing is lost
	b.sees("meets the outline")
	b.glimpse("outline-cuts")
	assert.Len(t, eval[[]any](b, `goldenTrace.board.cutOuts`), 2)
	b.key(escape)
	b.key("z", ctrl)
	b.key("z", ctrl)
	b.edgeIs(1500 - 25*(1-math.Pi/4))

	// a free line
	b.key("y")
	b.press("Outline")
	b.choose("Form", "Free")
	for _, at := range [][2]float64{{2.54, 2.54}, {38.1, 2.54}, {38.1, 25.4}, {12.7, 25.4}} {
		b.point(at[0], at[1])
	}
	b.key(enter)
	b.edgeIs((35.56 + 25.4) / 2 * 22.86)
}

// An outline from a DXF drawing: its unit asked for, a gap closed and shown, lines that close nowhere said; written and read again it is the same.
func TestOutlineFromADrawing(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Drawn")
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	drawing := "0\nSECTION\n2\nENTITIES\n" +
		"0\nLINE\n8\nEDGE\n10\n100\n20\n100\n11\n160\n21\n100\n" +
		"0\nLINE\n8\nEDGE\n10\n160.05\n20\n100\n11\n160\n21\n140\n" +
		"0\nLWPOLYLINE\n8\nEDGE\n90\n3\n70\n0\n10\n160\n20\n140\n10\n110\n20\n140\n42\n0.41421356237309503\n10\n100\n20\n130\n" +
		"0\nLINE\n8\nEDGE\n10\n100\n20\n130\n11\n100\n21\n100\n" +
		"0\nCIRCLE\n8\nHOLES\n10\n130\n20\n120\n40\n4\n" +
		"0\nLINE\n8\nNOTES\n10\n0\n20\n0\n11\n10\n21\n0\n" +
		"0\nENDSEC\n0\nEOF\n"
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "weir.dxf"), filepath.Join(dir, "broken.dxf")
	require.NoError(t, os.WriteFile(good, []byte(drawing), 0o644))
	require.NoError(t, os.WriteFile(bad, []byte(drawing[:120]), 0o644))
	b.key("y")
	b.press("From a drawing")
	b.upload("DXF drawing", bad)
	b.sees("The drawing is cut short")
	b.upload("DXF drawing", good)
	b.sees("The drawing does not say its unit; name it")
	b.choose("Unit", "millimetres")
	b.sees("Lines with 4 loose ends close nowhere and are left out.")
	b.fill("Close gaps up to, mm", "0.1")
	b.sees("1 gap was closed, the widest of 0.05 mm")
	b.sees("Lines with 2 loose ends close nowhere and are left out.")
	b.sees("60.025 × 40 mm, 1 cut-out")
	b.glimpse("outline-drawing")
	b.press("Take this outline")
	want := 60*40 + 0.025*40/2 - 100*(1-math.Pi/4) - math.Pi*16 // the corner lies in the middle of the gap
	b.edgeIs(want)
	assert.Equal(t, 0, eval[int](b, `Math.min(...goldenTrace.board.outline.map(c => c.x))`), "moved to the origin")

	code, file := p.api("GET", fmt.Sprintf("/projects/%d/outline.dxf", eval[int](b, `goldenTrace.id`)), nil)
	require.Equal(t, 200, code)
	assert.Contains(t, string(file), "OUTLINE")
	again := filepath.Join(dir, "again.dxf")
	require.NoError(t, os.WriteFile(again, file, 0o644))
	b.press("From a drawing")
	b.upload("DXF drawing", again)
	b.sees("60.025 × 40 mm, 1 cut-out")
	b.press("Take this outline")
	b.kept()
	b.edgeIs(want)
}
