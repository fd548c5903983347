package workbench

import (
	"context"
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/derive"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
)

// pours are what copper areas fill.
type pours struct {
	*derive.Result
	doc      *design.Doc
	fills    *pour.Fills
	beside   func(Beside) // nil: nothing is done beside
	busy     bool         // tiles are being filled beside
	findings *ledger
	nets     derive.Feed[design.ID]          // whose areas fill otherwise now
	tiles    derive.Feed[filledTile]         // that were filled
	before   map[pour.Key]map[pour.Tile]bool // tiles that changed since it was last told
}

// filledTile is a tile of an area on a layer.
type filledTile struct {
	key  pour.Key
	tile pour.Tile
}

// Filled is what a copper area fills of a tile: closed lines, of which an odd number surround what is filled. Without any, it fills nothing there.
type Filled struct {
	Pour  design.ID      `json:"pour"`
	Layer design.LayerID `json:"layer"`
	X     int32          `json:"x"`
	Y     int32          `json:"y"`
	Lines [][]int64      `json:"lines"` // x and y in turn, in nanometres
	// Nets are those of the lines, where they are teardrops: the area is 0 then.
	Nets []design.ID `json:"nets,omitempty"`
}

// manyTiles is how many tiles are planned while everybody waits; more are planned on a copy of the design.
const manyTiles = 150

func newPours(b *Bench) *pours {
	p := &pours{doc: b.Doc, findings: b.findings, beside: b.beside, before: map[pour.Key]map[pour.Tile]bool{}}
	p.fills = pour.New(b.Doc, b.copper.index, b.rules.set)
	p.Result = b.graph.Result("fills", p.renew)
	p.nets.By(p.Result)
	p.tiles.By(p.Result)
	p.Of(func(c edit.Change) {
		was, _ := c.Before.(*design.Pour)
		is, _ := c.After.(*design.Pour)
		p.fills.Pour(was, is)
		for _, o := range []*design.Pour{was, is} {
			if o == nil {
				continue
			}
			p.nets.Tell(o.Net)
			for _, l := range o.Layers {
				p.say(pour.Key{Pour: o.ID, Layer: l})
			}
		}
	}, design.KindPour)
	p.Of(func(c edit.Change) { // which findings name
		for o := range b.Doc.Pours.All() {
			if o.Net == c.ID {
				for _, l := range o.Layers {
					p.say(pour.Key{Pour: o.ID, Layer: l})
				}
			}
		}
	}, design.KindNet)
	p.Of(func(c edit.Change) {
		if heeds(c.Before) || heeds(c.After) {
			p.fills.Anew()
		}
	}, design.KindRule)
	p.Of(func(edit.Change) { p.fills.Anew() }, design.KindBoard, design.KindRuleArea)
	derive.From(p.Result, &b.copper.places, func(c *layout.Copper) { p.fills.Near(c.Box(), c.Layers) })
	p.Of(func(c edit.Change) {
		if keeps(c.Before) || keeps(c.After) {
			p.fills.Anew()
		}
	}, design.KindHole)
	derive.From(p.Result, &b.rules.retold, func(net design.ID) {
		for o := range b.Doc.Pours.All() {
			if o.Net == net {
				p.fills.Pour(nil, o)
			}
		}
		for id := range b.copper.index.ObjectsOf(net) {
			for _, c := range b.copper.index.Of(id) {
				p.fills.Near(c.Box(), c.Layers)
			}
		}
	})
	return p
}

// heeds tells whether areas follow rules of a kind.
func heeds(o design.Object) bool {
	r, ok := o.(*design.Rule)
	return ok && slices.Contains([]design.RuleKind{design.Clearance, design.EdgeClearance, design.LeastWidth, design.SpokeWidth, design.SpokeGap, design.HoleCopper}, r.Kind)
}

func (p *pours) renew() {
	if p.busy || p.fills.Waiting() == 0 {
		return
	}
	if p.beside == nil {
		p.take(p.outcomes(context.Background(), p.fills.Tasks(p.fills.Due()), nil))
		p.sayAll()
		return
	}
	p.begin()
}

// outcomes of tasks; none when they were stopped.
func (p *pours) outcomes(ctx context.Context, tasks []*pour.Task, progress func(float64)) []pour.Outcome {
	out, err := pour.Do(ctx, tasks, progress)
	if err != nil {
		return nil
	}
	return out
}

// begin has the tiles that are stale filled beside. Few are planned here and now, many on a copy of the design.
func (p *pours) begin() {
	p.busy = true
	p.Beside(true)
	due := p.fills.Due()
	n := 0
	for _, tiles := range due {
		n += len(tiles)
	}
	if n <= manyTiles {
		tasks := p.fills.Tasks(due)
		p.beside(Beside{Kind: "fill", Rev: p.Now(), Quick: true, Run: func(ctx context.Context, progress func(float64)) func() {
			list := p.outcomes(ctx, tasks, progress)
			return func() { p.taken(due, list) }
		}})
		return
	}
	shared := p.doc.Share()
	p.beside(Beside{Kind: "fill", Rev: p.Now(), Run: func(ctx context.Context, progress func(float64)) func() {
		list, err := fillCopy(ctx, shared, due, progress)
		if err != nil {
			list = nil
		}
		return func() { p.taken(due, list) }
	}})
}

// fillCopy fills tiles of a copy of the design. A fault of ours is an error.
func fillCopy(ctx context.Context, shared design.Shared, due map[pour.Key]map[pour.Tile]bool, progress func(float64)) (list []pour.Outcome, err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("filling failed: %v", fault)
		}
	}()
	d := shared.Doc()
	f := pour.New(d, layout.NewIndex(d), rules.Of(d))
	return pour.Do(ctx, f.Tasks(due), progress)
}

// taken takes in what was filled beside; when that was stopped, the tiles wait for the next change.
func (p *pours) taken(due map[pour.Key]map[pour.Tile]bool, list []pour.Outcome) {
	p.busy = false
	if list == nil {
		p.fills.Wait(due)
		return
	}
	p.take(list)
	if p.fills.Waiting() > 0 {
		p.begin()
		return
	}
	p.sayAll()
	if p.Rev() == derive.Never { // what is open of their nets can be told from now on
		for o := range p.doc.Pours.All() {
			p.nets.Tell(o.Net)
		}
	}
	p.Beside(false)
	p.Stale()
}

// of tells whether a net has copper areas.
func (p *pours) of(net design.ID) bool {
	for o := range p.doc.Pours.All() {
		if o.Net == net {
			return true
		}
	}
	return false
}

// take takes outcomes in.
func (p *pours) take(list []pour.Outcome) {
	nets := map[design.ID]bool{}
	for _, c := range p.fills.Take(list) {
		if p.before[c.Key] == nil {
			p.before[c.Key] = map[pour.Tile]bool{}
		}
		for _, t := range c.Tiles {
			p.before[c.Key][t] = true
			p.tiles.Tell(filledTile{c.Key, t})
		}
		p.say(c.Key)
		if o := p.doc.Pours[c.Pour]; o != nil {
			nets[o.Net] = true
		}
	}
	for _, n := range slices.Sorted(maps.Keys(nets)) {
		p.nets.Tell(n)
	}
}

// sayAll makes the findings about all areas, once all is filled: those that fill nothing bring no outcome to tell it by.
func (p *pours) sayAll() {
	for o := range p.doc.Pours.All() {
		for _, l := range o.Layers {
			p.say(pour.Key{Pour: o.ID, Layer: l})
		}
	}
}

// say makes the finding about an area on a layer.
func (p *pours) say(k pour.Key) {
	if f := check.Pours(p.doc, p.fills, k); f != nil {
		p.findings.put(f)
		return
	}
	p.findings.drop(check.PourKey(k))
}

// told are the tiles that changed since this was last asked.
func (p *pours) told() (out []Filled) {
	for _, k := range slices.SortedFunc(maps.Keys(p.before), pour.Key.Compare) {
		for _, t := range slices.SortedFunc(maps.Keys(p.before[k]), pour.Tile.Compare) {
			out = append(out, p.filled(k, t, p.fills.Seen(k, t)))
		}
	}
	p.before = map[pour.Key]map[pour.Tile]bool{}
	return out
}

// all are all tiles that are filled.
func (p *pours) all() (out []Filled) {
	for _, k := range p.fills.Keys() {
		for t, pieces := range p.fills.Tiles(k) {
			out = append(out, p.filled(k, t, pieces))
		}
	}
	return out
}

func (p *pours) filled(k pour.Key, t pour.Tile, pieces []*pour.Piece) Filled {
	out := Filled{Pour: k.Pour, Layer: k.Layer, X: t.X, Y: t.Y, Lines: [][]int64{}}
	for _, piece := range pieces {
		if k.AreTeardrops() {
			out.Nets = append(out.Nets, p.fills.NetOf(piece))
		}
		for _, ring := range append([][]geom.Point{piece.Outer}, piece.Holes...) {
			line := make([]int64, 0, 2*len(ring))
			for _, at := range ring {
				line = append(line, at.X, at.Y)
			}
			out.Lines = append(out.Lines, line)
		}
	}
	return out
}

// PourSeen is what a copper area fills on one of its layers.
type PourSeen struct {
	Layer  design.LayerID `json:"layer"`
	Size   float64        `json:"size"`   // square millimetres
	Pieces int            `json:"pieces"` // that do not hang together
	Gone   int            `json:"gone"`   // islands that nothing of the net reaches, and that are left out
	Joined int            `json:"joined"` // pads, vias and tracks of the net that it touches
	Least  int64          `json:"least"`  // width that its copper has
}

// PourSeen tells what a copper area fills, layer by layer from the top.
func (b *Bench) PourSeen(id design.ID) (out []PourSeen) {
	o := b.Doc.Pours[id]
	for _, l := range b.Doc.Board.Copper() {
		if o == nil || !o.On(l.ID) {
			continue
		}
		k := pour.Key{Pour: id, Layer: l.ID}
		s := PourSeen{Layer: l.ID, Least: b.pours.fills.Least(k)}
		for _, is := range b.pours.fills.Islands(k) {
			if !is.Stays {
				s.Gone++
				continue
			}
			s.Size += is.Size / 1e12
			s.Pieces++
			s.Joined += len(is.Touches)
		}
		out = append(out, s)
	}
	return out
}

// Touching lists the pads and vias within the edge of a copper area on a layer, and how it joins them.
func (b *Bench) Touching(id design.ID, layer design.LayerID) []pour.Touch {
	return b.pours.fills.Touching(pour.Key{Pour: id, Layer: layer})
}

// GapsOf tells at how many of places a copper area on a layer fills nothing, and which least width would fill how many of them.
func (b *Bench) GapsOf(k pour.Key, places []geom.Point) (open int, width int64, fills int, err error) {
	list := b.pours.fills.Unfilled(k, places)
	if len(list) == 0 {
		return 0, 0, 0, nil
	}
	width, fills, err = b.pours.fills.WidthFor(k, list, b.Far)
	return len(list), width, fills, err
}

// beneath are the pieces that copper areas of a net join which are filled at a place on layers of a mask.
func (p *pours) beneath(net design.ID, at geom.Point, layers uint32) (out layout.Bond) {
	for o := range p.doc.Pours.All() {
		if o.Net != net {
			continue
		}
		for _, l := range o.Layers {
			if i := p.doc.Board.Position(l); i >= 0 && layers&(1<<i) != 0 {
				if is := p.fills.At(pour.Key{Pour: o.ID, Layer: l}, at); is != nil {
					out = append(out, is.Touches...)
				}
			}
		}
	}
	return out
}

// Fills are what copper areas fill now, of the revision that Behind tells.
func (b *Bench) Fills() *pour.Fills { return b.pours.fills }
