package pour

import (
	"slices"

	"goldentrace/core/geom"
)

// Finest is the least width that is tried for gaps, in nanometres.
const Finest = 50_000

// Unfilled are those of places within the edge of an area on a layer at which it fills nothing.
func (f *Fills) Unfilled(k Key, places []geom.Point) (out []geom.Point) {
	a := f.areaOf(k)
	if a == nil {
		return nil
	}
	board := f.doc.Board.Region().Prepare()
	within := func(geom.Point) bool { return true }
	if len(a.Outline) > 0 {
		within = geom.Region{Outer: geom.Closing(a.Outline)}.Prepare().Holds
	}
	for _, p := range places {
		if f.At(k, p) == nil && within(p) && board.Holds(p) {
			out = append(out, p)
		}
	}
	return out
}

// Filled are those of places that an area on a layer would fill, were its copper let be as thin as a width; nothing is changed. Islands
// count as filled. Cost: that of filling the tiles in which the places lie.
func (f *Fills) Filled(k Key, least int64, places []geom.Point) (out []geom.Point, err error) {
	a := f.areaOf(k)
	if a == nil {
		return nil, nil
	}
	a.least = least
	in := map[Tile][]geom.Point{}
	for _, p := range places {
		t := Tile{floor(p.X), floor(p.Y)}
		in[t] = append(in[t], p)
	}
	for t, list := range in {
		done := a.task(t).Do()
		if done.Err != nil {
			return nil, done.Err
		}
		for _, p := range list {
			for _, piece := range done.Pieces {
				if piece.Holds(p) {
					out = append(out, p)
					break
				}
			}
		}
	}
	return out, nil
}

// mostTiles is in how many tiles at most a width is sought.
const mostTiles = 16

// WidthFor is the greatest least width, in steps of 10 µm, at which an area on a layer fills all that it would fill of places at the
// finest; 0: even that fills none of them. fills is how many of them it does. It looks at the first mostTiles tiles that they lie in, and
// asks going, told the share that is done, whether to go on.
func (f *Fills) WidthFor(k Key, places []geom.Point, going func(float64) error) (width int64, fills int, err error) {
	tiles := map[Tile]bool{}
	places = slices.DeleteFunc(slices.Clone(places), func(p geom.Point) bool {
		t := Tile{floor(p.X), floor(p.Y)}
		if len(tiles) < mostTiles {
			tiles[t] = true
		}
		return !tiles[t]
	})
	list, err := f.Filled(k, Finest, places)
	if err != nil || len(list) == 0 {
		return 0, 0, err
	}
	const step = 10_000
	lo, hi := int64(Finest), f.Least(k)/step*step+step // it does at lo, and not at hi
	whole := hi - lo
	for hi-lo > step {
		if err := going(1 - float64(hi-lo)/float64(whole)); err != nil {
			return 0, 0, err
		}
		mid := (lo + hi) / 2 / step * step
		got, err := f.Filled(k, mid, list)
		if err != nil {
			return 0, 0, err
		}
		if len(got) == len(list) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo, len(list), nil
}
