package e2e

import (
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The finished board takes the place of the one in work, with the hand's tools: what the canvas shows of it is what the picture's file shows.
// From below it is seen by the lowest layer, mirrored when it is flipped.
func TestTheFinishedBoardInItsPlace(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	id := p.projectID("Moth Lamp")
	p.openStage(t, b, "Moth Lamp", "board")
	b.atRest()
	b.key("v")
	b.key("1")
	for _, side := range []string{"top", "bottom"} {
		b.until(fmt.Sprintf(`(()=>{window.file=null;fetch('/api/projects/%d/finished.png?side=%s').then(r=>r.blob()).then(createImageBitmap).then(i=>{
			const c=new OffscreenCanvas(i.width,i.height),x=c.getContext('2d');x.drawImage(i,0,0);window.file=x.getImageData(0,0,i.width,i.height)});return true})()`, id, side))
		b.until(`window.file`)
		b.atRest()
		// where nine pixels of the file around a place are alike, the canvas has their colour
		b.until(fmt.Sprintf(`(()=>{const mirror=%t,f=window.file,o=goldenTrace.board.outline,xs=o.map(c=>c.x),ys=o.map(c=>c.y);
			const [x0,x1,y0,y1]=[Math.min(...xs),Math.max(...xs),Math.min(...ys),Math.max(...ys)];
			const v=document.querySelector('[role=application][aria-label=Board]'),c=v.querySelector('canvas'),ctx=c.getContext('2d'),r=v.getBoundingClientRect();
			const [cx,cy,s]=v.dataset.view.split(' ').map(Number);let seen=0,wrong=0;const kinds=new Set();let n=7;
			for(let k=0;k<4000;k++){n=(n*48271)%%2147483647;const u=n/2147483647;n=(n*48271)%%2147483647;const w=n/2147483647;
				const px=Math.floor(2+u*(f.width-4)),py=Math.floor(2+w*(f.height-4)),at=(i,j)=>{const q=4*((py+j)*f.width+px+i);return [...f.data.slice(q,q+4)]};
				const here=at(0,0);let same=here[3]===255;for(let i=-2;i<=2&&same;i++)for(let j=-2;j<=2;j++)same=same&&at(i,j).join()===here.join();
				if(!same)continue;
				let x=x0+(px+0.5)/f.width*(x1-x0);if(mirror)x=x1-(x-x0);const y=y1-(py+0.5)/f.height*(y1-y0);
				const sx=(x-cx)*s+r.width/2,sy=r.height/2-(y-cy)*s;
				if(sx<2||sy<2||sx>r.width-2||sy>r.height-2)continue;
				const d=ctx.getImageData(Math.floor(sx*c.width/r.width),Math.floor(sy*c.height/r.height),1,1).data;
				seen++;kinds.add(here.join());if([0,1,2].some(i=>Math.abs(d[i]-here[i])>12))wrong++}
			return seen>300&&wrong<seen*0.02&&kinds.size>=3})()`, side == "bottom"))
		b.look("the finished board from its " + side)
		if side == "top" {
			b.key("2") // the lowest layer is worked on: the board is seen from below, through itself
		}
	}
	b.key("1")
	// the hand's tools work on it
	at := eval[[]float64](b, `(()=>{const p=goldenTrace.all('placed').find(p=>p.designator==='Q1');return [p.at.x/1e6,p.at.y/1e6,p.angle]})()`)
	b.point(at[0]+1, at[1]+1)
	// turned, a track might go: that is said first
	turned := fmt.Sprintf(`goldenTrace.all('placed').find(p=>p.designator==='Q1').angle !== %f`, at[2])
	b.key("q")
	b.sees("Enter turns it all the same, Esc leaves it as it was.")
	b.key(escape)
	b.until(`!document.body.innerText.includes('all the same') && !(` + turned + `)`)
	b.key("q")
	b.sees("Enter turns it all the same")
	b.key(enter)
	b.kept()
	b.until(turned)
	b.key("z", ctrl)
	b.kept()
	b.key("U", shift)
	b.there("application", "The finished board")
	b.until(`document.querySelector('[role=application][aria-label="The finished board"]').dataset.view === document.querySelector('[role=application][aria-label=Board]').dataset.view`)
	b.look("beside")
	resp, err := http.Get(p.url + fmt.Sprintf("/api/projects/%d/finished.svg?side=bottom&bare=1", id))
	require.NoError(t, err)
	svg, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	_ = resp.Body.Close()
	assert.Equal(t, "image/svg+xml", resp.Header.Get("Content-Type"))
	assert.Contains(t, string(svg), "<svg")
	resp, err = http.Get(p.url + fmt.Sprintf("/api/projects/%d/finished.png?side=left", id))
	require.NoError(t, err)
	assert.Equal(t, http.StatusBadRequest, resp.StatusCode)
	_ = resp.Body.Close()
}

// A part that is too high is found in space: it is marked there, its measure and what is allowed are said, and it is picked everywhere. What is
// not seen is not drawn.
func TestAPartTooHighIsFoundInSpace(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "board")
	b.atRest()
	b.until(`(()=>{void goldenTrace.edit('setRules',{rules:{heightAbove:12000000}});return true})()`)
	b.kept()
	b.until(`goldenTrace.openFindings.value.filter(f=>f.kind==='height').length===1`)
	b.key("u")
	b.until(`document.querySelector('.space canvas')?.dataset.drawn`)
	b.sees("Highest above")
	b.look("in space")
	b.press("K1")
	b.sees("K1 reaches 15.5 mm above the board")
	b.sees("Allowed there: 12 mm above")
	b.until(`document.querySelector('.says .bad')`)
	// what it came to stands in the middle now: a click there picks it again
	middle := func() {
		at := eval[[]float64](b, `(()=>{const r=document.querySelector('.space canvas').getBoundingClientRect();
		return [r.x+r.width/2,r.y+r.height/2]})()`)
		b.moveXY(at[0], at[1])
		b.do(chromedp.MouseClickXY(at[0], at[1]))
	}
	corner := eval[[]float64](b, `(()=>{const r=document.querySelector('.space canvas').getBoundingClientRect();
		return [r.right-20,r.y+r.height*0.8]})()`)
	b.do(chromedp.MouseClickXY(corner[0], corner[1]))
	b.sees("Highest above")
	middle()
	b.sees("K1 reaches 15.5 mm above the board")
	b.look("K1 in space")
	// a higher limit: nothing is wrong any more, here as everywhere
	b.until(`(()=>{void goldenTrace.edit('setRules',{rules:{heightAbove:20000000}});return true})()`)
	b.kept()
	b.until(`!document.querySelector('.says .bad') && !goldenTrace.openFindings.value.some(f=>f.kind==='height')`)
	// made anew by itself, or where that takes long, when it is asked for
	b.until(`+document.querySelector('.space canvas').dataset.drawn === goldenTrace.rev.value || seen('button', 'Make it anew')`)
	eval[bool](b, `(seen('button', 'Make it anew')?.click(), true)`) // which goes when it is made in that very moment
	b.until(`+document.querySelector('.space canvas').dataset.drawn === goldenTrace.rev.value`)
	// its layers are asked for when they are to be seen
	b.press("Along")
	b.until(`document.querySelector('.space canvas').dataset.layers === 'yes'`)
	b.look("cut")
	// beside the board in work; and nothing is drawn of what is not seen
	b.key("U", shift)
	b.until(`document.querySelector('.space').getBoundingClientRect().width < 600`)
	still := eval[int](b, `+document.querySelector('.space canvas').dataset.frames`)
	b.still()
	assert.LessOrEqual(t, eval[int](b, `+document.querySelector('.space canvas').dataset.frames`), still+2, "nothing moves, nothing is drawn")
	b.key("u")
	b.until(`!document.querySelector('.space')`)
}

// A difference between circuit and board is mended from the page that shows both: a part that the circuit has no more, and a joint that is missing.
func TestADifferenceIsMendedFromThePage(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "checks")
	b.show("Circuit and board")
	b.sees("The board is what the circuit says")
	// a track is taken away, and a part gets another footprint in the circuit
	b.until(`(()=>{const t=goldenTrace.all('track').find(t=>goldenTrace.netName(t.net)==='VIN')??goldenTrace.all('track')[0];
		void goldenTrace.edit('remove',{ids:[t.id]});return true})()`)
	b.kept()
	b.until(`(()=>{const c=goldenTrace.all('part').filter(p=>p.footprint);const a=c.find(p=>p.designator==='R1');
		const other=goldenTrace.all('footprint').find(f=>f.name!==a.footprint&&f.pads.length===2);
		void goldenTrace.edit('setParts',{cells:[{id:a.id,field:'footprint',text:other.name}]});return true})()`)
	b.kept()
	b.until(`document.querySelectorAll('[role=listbox][aria-label="Differences of circuit and board"] [role=option]').length===2`)
	b.sees("Joints missing")
	b.until(`document.querySelectorAll('.pair canvas').length===2`)
	b.look("circuit and board")
	b.press("Carry it to the board")
	b.kept()
	b.until(`!goldenTrace.stages.value.differences`)
	for n := eval[int](b, `goldenTrace.links.size`); n > 0; n = eval[int](b, `goldenTrace.links.size`) {
		b.press("Find a way")
		b.kept()
		b.until(fmt.Sprintf(`goldenTrace.links.size < %d`, n))
	}
	b.sees("The board is what the circuit says")
	b.key("z", ctrl)
	b.kept()
	b.sees("Joints missing")
}

// Layers as they are seen: kept under a name and taken again; from below, what the hand does is to the right as it is seen. A house of the
// project's own says in what it differs; a file that is none is refused with a sentence.
func TestLayersInViewAndAHouseOfOnesOwn(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	id := p.projectID("Moth Lamp")
	p.openStage(t, b, "Moth Lamp", "board")
	b.atRest()
	b.press("View")
	b.press("Plain")
	b.press("Below")
	b.sees("seen from below")
	b.fill("Keep as", "From below")
	b.kept()
	b.press("Above")
	b.press("Dimmed")
	b.until(`document.querySelector('[role=application][aria-label=Board]').dataset.view.split(' ')[3]==='1'`)
	b.press("From below")
	b.until(`document.querySelector('[role=application][aria-label=Board]').dataset.view.split(' ')[3]==='-1'`)
	b.choose("Net or class", "GND")
	b.press("Draw it in #4ad6e0")
	b.kept()
	b.until(`goldenTrace.all('tint')[0]?.name==='GND'`)
	b.press("Close the view")
	b.look("from below")
	b.press("Put three")
	b.kept()
	b.until(`goldenTrace.all('figure').filter(f=>f.fiducial===2000000).length===3 && goldenTrace.all('rule').some(r=>r.a?.thing==='fiducial')`)
	b.atRest()
	b.look("fiducials")
	b.key("z", ctrl)
	b.kept()
	b.until(`!goldenTrace.all('figure').some(f=>f.fiducial)`)
	// from below a nudge to the right makes x less
	eval[bool](b, `(goldenTrace.picked.value=[], true)`)
	q := eval[[]float64](b, `(()=>{const p=goldenTrace.all('placed').find(p=>p.designator==='Q1');return [p.id,p.at.x]})()`)
	b.goTo(fmt.Sprintf("/project/%d/board?id=%.0f", id, q[0]))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.sees("TO-92 wide")
	b.key("M", shift)
	b.key(kb.ArrowRight)
	b.kept()
	b.until(fmt.Sprintf(`goldenTrace.all('placed').find(p=>p.designator==='Q1').at.x < %f`, q[1]))
	b.key("z", ctrl)
	b.kept()

	p.openStage(t, b, "Moth Lamp", "checks")
	b.show("Houses")
	b.sees("Width of copper lines")
	b.press("Make a variant")
	b.kept()
	b.sees("in all limits")
	b.fill("Limit of Drilled holes, mm", "0.35")
	b.kept()
	b.sees("It differs from")
	b.sees("drilled holes 0.35 mm instead of")
	b.fill("Limit of Copper layers", "6")
	b.kept()
	b.sees("copper layers 6 instead of")
	b.fill("Price, ×", "0.9 + 0.15")
	b.kept()
	b.sees("costs 1.05 × instead of")
	b.press("Add a class")
	b.kept()
	b.fill("Class", "By hand")
	b.kept()
	b.sees("By hand is new")
	b.look("a house of one's own")
	b.press("Take the class out")
	b.kept()
	b.until(`goldenTrace.all('house')[0].classes.every(c=>c.name!=='By hand')`)
	dir := t.TempDir()
	broken := filepath.Join(dir, "broken.json")
	require.NoError(t, os.WriteFile(broken, []byte(`{"format":"golden-trace-house","version":1,"name":"X","classes":[{"name":"P","price":1,"limits":{"track":"wide"}}]}`), 0o600))
	b.upload("File of a house", broken)
	b.sees("Width of copper lines:")
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('house').length`))
	b.press("Drop the house")
	b.kept()
	b.until(`goldenTrace.all('house').length===0`)
	b.key("z", ctrl)
	b.kept()
	b.until(`goldenTrace.all('house').length===1`)
}
