package design

import "goldentrace/core/geom"

// SheetBlock stands on a sheet for a use of another sheet; its pins mirror that sheet's ports.
type SheetBlock struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"` // of this use
	Of    ID         `json:"of"`   // the sheet it stands for
	At    geom.Point `json:"at"`   // lower left corner
	Size  geom.Point `json:"size"`
	Pins  []BlockPin `json:"pins"`
}

// BlockPin mirrors the port of the same name.
type BlockPin struct {
	Name string `json:"name"`
	Way  string `json:"way"`  // in, out or both, as seen from inside
	Side int    `json:"side"` // in quarter turns: 0 right, 1 top, 2 left, 3 bottom
	Pos  int64  `json:"pos"`  // along the side, from the left or from below
}

// PinAt is where wires meet the block's pin.
func (b *SheetBlock) PinAt(p BlockPin) geom.Point {
	switch p.Side {
	case 0:
		return b.At.Add(geom.Pt(b.Size.X, p.Pos))
	case 1:
		return b.At.Add(geom.Pt(p.Pos, b.Size.Y))
	case 2:
		return b.At.Add(geom.Pt(0, p.Pos))
	}
	return b.At.Add(geom.Pt(p.Pos, 0))
}

// Port carries a net of its sheet to the blocks that stand for the sheet. Within the sheet
// it names the net as a label does.
type Port struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"`
	Way   string     `json:"way"` // in, out or both
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn"`
}

// Tap leads one member out of a bundle: it stands with At on the bundle and ends, slanted,
// one grid step away each way.
type Tap struct {
	ID     ID         `json:"id"`
	Sheet  ID         `json:"sheet"`
	Member string     `json:"member"`
	At     geom.Point `json:"at"`
	Turn   int        `json:"turn"` // 0: up to the right, then anticlockwise
}

// TapReach is how far a tap's end lies from the bundle, each way.
const TapReach = 2_500_000

// End is where wires meet the tap.
func (t *Tap) End() geom.Point {
	return t.At.Add([]geom.Point{{X: TapReach, Y: TapReach}, {X: -TapReach, Y: TapReach}, {X: -TapReach, Y: -TapReach}, {X: TapReach, Y: -TapReach}}[t.Turn&3])
}

// Uses lists the blocks that stand for the sheet.
func (d *Doc) Uses(sheet ID) []*SheetBlock {
	var out []*SheetBlock
	for b := range d.Blocks.All() {
		if b.Of == sheet {
			out = append(out, b)
		}
	}
	return out
}

// Within tells whether inner is the outer sheet or lies below it.
func (d *Doc) Within(inner, outer ID) bool {
	below := map[ID][]ID{}
	for _, b := range d.Blocks {
		below[b.Sheet] = append(below[b.Sheet], b.Of)
	}
	seen := map[ID]bool{}
	todo := []ID{outer}
	for len(todo) > 0 {
		s := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		if s == inner {
			return true
		}
		if !seen[s] {
			seen[s] = true
			todo = append(todo, below[s]...)
		}
	}
	return false
}
