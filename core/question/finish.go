package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Finish asks for a way from where a track stands to what its net has yet to reach.
type Finish struct {
	From  geom.Point     `json:"from"`  // where the track stands
	Begun geom.Point     `json:"begun"` // where it began
	Layer design.LayerID `json:"layer"`
	Net   design.ID      `json:"net"`
	Width int64          `json:"width,omitempty"`
	Hops  bool           `json:"hops,omitempty"` // it may change layers
	// Done was drawn so far, and in which manner: what makes way for it is where it will lie.
	Done   []edit.Run   `json:"done,omitempty"`
	Manner route.Manner `json:"manner,omitempty"`
}

// Finished is the answer.
type Finished struct {
	Runs   []edit.Run `json:"runs"`
	Length int64      `json:"length"`
	Hops   int        `json:"hops"`
}

// mostLooked is how many places of grids are looked at for one finish: about a second, while which it can be stopped.
const mostLooked = 1_200_000

// Answer the question.
func (q *Finish) Answer(b *workbench.Bench) (out Finished, err error) {
	layer := b.Doc.Board.Position(q.Layer)
	if layer < 0 {
		return out, fmt.Errorf("the board has no such copper layer (id %d)", q.Layer)
	}
	if q.Width < 0 || q.Width > units.Limit {
		return out, fmt.Errorf("a track cannot be %s wide", units.Text(q.Width))
	}
	if err := within(q.From, q.Begun); err != nil {
		return out, err
	}
	n := b.Doc.Nets[q.Net]
	if n == nil {
		return out, fmt.Errorf("there is no such net (id %d)", q.Net)
	}
	goals := b.Unjoined(q.Net, q.Begun, 1<<layer)
	if len(goals) == 0 {
		return out, fmt.Errorf("nothing of %s is open: there is nowhere to go", n.Name)
	}
	f := b.Field()
	done, err := legsOf(b, q.Done)
	if err != nil {
		return out, err
	}
	if q.Manner == route.MoveThem && len(done) > 0 {
		aside, no := f.MakeWay(f.HandOf(done, q.Net), nil)
		if no != nil {
			return out, fmt.Errorf("what was drawn so far cannot be laid: %w", no)
		}
		f = aside.In(f)
	}
	layers := uint32(1) << layer
	q.Hops = q.Hops && (len(b.Doc.Board.Holes.Barrels) == 0 || b.Doc.Board.Through() != nil) // it hops by vias through all layers
	if all := uint32(1)<<b.Doc.Board.Layers() - 1; q.Hops && f.PlatedAt(q.From, q.Net, all) {
		layers = all
	}
	var stopped error
	stop := func(looked int) bool {
		if stopped == nil {
			stopped = b.Far(float64(looked) / mostLooked)
		}
		return stopped != nil
	}
	legs := f.Finish(route.Errand{Net: q.Net, Width: q.Width, From: q.From, Layers: layers, Goals: goals, Hops: q.Hops, Most: mostLooked, Stop: stop})
	if stopped != nil {
		return out, stopped
	}
	if legs == nil {
		hint := "on other layers it was not looked for"
		if q.Hops {
			hint = "on any layer"
		}
		return out, fmt.Errorf("no way was found from here to the rest of %s that keeps the rules, %s", n.Name, hint)
	}
	for i, l := range legs {
		out.Runs = append(out.Runs, edit.Run{Layer: b.Doc.Board.At(l.Layer), Width: q.Width, Path: l.Path})
		out.Length += route.Length(geom.Places(l.Path))
		if i > 0 {
			out.Hops++
		}
	}
	return out, nil
}
