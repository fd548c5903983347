// Package finished shows the board as it will be: laminate, copper, mask, finish, silk, holes and bodies from above or from below, of the same
// shapes that the artwork is made of. Lengths are nanometres.
package finished

import (
	"cmp"
	"context"
	"errors"
	"image/color"
	"slices"
	"strings"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
)

// Board is what the picture follows from.
type Board struct {
	Doc   *design.Doc
	Index *layout.Index
	Rules *rules.Set
	Fills Fills
}

// Fills are what copper areas fill, piece beside piece, by layer.
type Fills map[design.LayerID][]overlay.Area

// FillsOf are those that stay.
func FillsOf(f *pour.Fills) Fills {
	out := Fills{}
	for _, k := range f.Keys() {
		for _, pieces := range f.Tiles(k) {
			for _, p := range pieces {
				out[k.Layer] = append(out[k.Layer], p.Area)
			}
		}
	}
	return out
}

// Filled is the board with its copper areas filled from scratch. Progress is told as a share.
func Filled(ctx context.Context, d *design.Doc, x *layout.Index, r *rules.Set, progress func(float64)) (*Board, error) {
	b := &Board{Doc: d, Index: x, Rules: r}
	if len(d.Pours) == 0 && d.Board.Teardrops == nil {
		return b, nil
	}
	fills, err := pour.Of(ctx, d, x, r, progress)
	if err != nil {
		return nil, err
	}
	b.Fills = FillsOf(fills)
	return b, nil
}

// Coat is a layer of colour: it covers what its shapes cover, within others where there are any, and not where what is left out is.
type Coat struct {
	Name    string
	Colour  color.NRGBA
	Shapes  []geom.Shape
	Areas   []overlay.Area // that lie beside each other, so that no seam is seen
	Within  []geom.Shape   // nil: everywhere
	Without []geom.Shape
}

// View is a face of the board, coat upon coat.
type View struct {
	Box    geom.Box // of the board
	Bottom bool     // it is seen from below: left and right change places
	Coats  []Coat
}

func rgb(hex uint32) color.NRGBA {
	return color.NRGBA{uint8(hex >> 16), uint8(hex >> 8), uint8(hex), 255}
}

// What materials look like.
var (
	laminate = rgb(0xC9B779)
	bare     = rgb(0xC98252)
	masks    = map[string]color.NRGBA{"green": rgb(0x1E6B45), "blue": rgb(0x22508F), "red": rgb(0x9A2A2F), "black": rgb(0x23232A),
		"white": rgb(0xE9E6DF), "yellow": rgb(0xC9A227), "violet": rgb(0x5A3B86)}
	inks      = map[string]color.NRGBA{"white": rgb(0xF4F1E8), "black": rgb(0x1C1C20), "yellow": rgb(0xE8C84A)}
	finishes  = map[string]color.NRGBA{"tin": rgb(0xC9CBCB), "gold": rgb(0xDDB25A), "silver": rgb(0xD8D8DA), "copper": bare}
	materials = map[string]color.NRGBA{"body": rgb(0x2E2C33), "lead": rgb(0xB9BBBE), "ceramic": rgb(0xB08A62), "metal": rgb(0xA9ABAF),
		"glass": rgb(0xC5632F), "band": rgb(0x7C5A2A), "socket": rgb(0x3D4F43), "film": rgb(0xB5493A)}
)

// maskShows is how much of what lies beneath the mask hides, of 255.
const maskShows = 198

// Body is what a material of a part's body looks like.
func Body(material string) color.NRGBA { return named(material, materials, "body") }

// Plated is what the walls of plated holes look like, by the finish of a face.
func (b Board) Plated() color.NRGBA {
	if finish, ok := b.coat(design.FinishLayer, false); ok {
		return named(finish, finishes, "tin")
	}
	return bare
}

// named finds the colour that a material's name tells.
func named(material string, known map[string]color.NRGBA, usual string) color.NRGBA {
	for _, word := range strings.FieldsFunc(strings.ToLower(material), func(r rune) bool { return r < 'a' || r > 'z' }) {
		if c, ok := known[word]; ok {
			return c
		}
	}
	return known[usual]
}

// coat is the material of a coat on a face; false: the board has none there.
func (b Board) coat(kind design.LayerKind, bottom bool) (string, bool) {
	list := slices.Clone(b.Doc.Board.Stack)
	if bottom {
		slices.Reverse(list)
	}
	for _, l := range list {
		if l.Kind == kind {
			return l.Material, true
		}
		if l.Copper() || l.Dielectric() {
			break
		}
	}
	return "", false
}

// ErrNoOutline tells that there is no board to be shown yet.
var ErrNoOutline = errors.New("the board has no outline yet, so that nothing of it can be shown")

// opens tells whether a hole is seen from a face: that of a via only where it comes out there, is not filled, and the mask leaves it free, for
// itself or for something else.
func (b Board) opens(c *layout.Copper, bottom bool, open *rtree.RTreeG[geom.Shape]) bool {
	v := b.Doc.Vias[c.ID]
	if c.Kind != "via" || v == nil {
		return true
	}
	outer := surface.Board{Doc: b.Doc}.Outer(bottom)
	if !c.Has(outer) || v.Cover == design.Filled {
		return false
	}
	if v.Cover == design.Open {
		return true
	}
	free, at := false, [2]float64{float64(v.At.X), float64(v.At.Y)}
	open.Search(at, at, func(_, _ [2]float64, s geom.Shape) bool {
		free = s.Holds(v.At)
		return !free
	})
	return free
}

// copper is all that lies on a copper layer; as an outer one it is on a face.
func (b Board) copper(layer int, bottom bool) (shapes []geom.Shape, areas []overlay.Area) {
	if b.Doc.Board.Layers() == 1 && !bottom == b.Doc.Board.OnlyBelow() {
		return nil, nil // the one layer is on the other face
	}
	for c := range b.Index.All() {
		if c.Has(layer) && !c.Bare {
			shapes = append(shapes, c.On(layer))
		}
	}
	return shapes, b.Fills[b.Doc.Board.At(layer)]
}

// edgeOfBodies is half the width of the lines around bodies, in nanometres.
const edgeOfBodies = 20_000

// parts are the bodies of the parts on a face, the lower ones first.
func (b Board) parts(bottom bool, on geom.Box) (out []Coat) {
	type standing struct {
		p    *design.Placed
		high int64
	}
	var list []standing
	for p := range b.Doc.Placed.All() {
		if p.Bottom == bottom && on.Holds(p.At) && !p.NotFitted {
			high, _ := layout.Heights(b.Doc, p)
			list = append(list, standing{p, high})
		}
	}
	slices.SortFunc(list, func(x, y standing) int { return cmp.Or(cmp.Compare(x.high, y.high), cmp.Compare(x.p.ID, y.p.ID)) })
	for _, s := range list {
		f := b.Doc.Footprint(s.p.Footprint)
		if f == nil {
			continue
		}
		bodies := layout.BodiesOf(b.Doc, s.p)
		slices.SortStableFunc(bodies, func(x, y layout.Body) int { return cmp.Compare(x.To, y.To) })
		for _, body := range bodies {
			c := Body(body.Material)
			shape := geom.Shape{Pts: body.Edge, Area: true}
			if n := len(out); n > 0 && out[n-1].Colour == c && out[n-1].Name == s.p.Designator {
				out[n-1].Shapes = append(out[n-1].Shapes, shape)
			} else {
				out = append(out, Coat{Name: s.p.Designator, Colour: c, Shapes: []geom.Shape{shape}})
			}
		}
		var lines []geom.Shape
		for _, body := range bodies {
			if len(body.Edge) > 2 {
				lines = append(lines, geom.Shape{Pts: append(slices.Clone(body.Edge), body.Edge[0]), R: edgeOfBodies})
			}
		}
		if len(lines) > 0 {
			out = append(out, Coat{Name: s.p.Designator + " edges", Colour: color.NRGBA{0, 0, 0, 90}, Shapes: lines})
		}
	}
	return out
}

// Copper is all of a copper layer, with the holes that go through it.
func (b Board) Copper(layer int) Coat {
	copper, fills := b.copper(layer, b.Doc.Board.OnlyBelow())
	whole, away := b.laminate()
	for c := range b.Index.All() {
		if c.Hole > 0 && c.Has(layer) {
			away = append(away, c.Bore())
		}
	}
	return Coat{"copper", bare, copper, fills, whole, away}
}

// laminate is what the outline bounds, and what is cut out of it.
func (b Board) laminate() (whole, away []geom.Shape) {
	region := b.Doc.Board.Region()
	for _, h := range region.Holes {
		away = append(away, h.Filled())
	}
	return []geom.Shape{region.Outer.Filled()}, away
}

// Sheet is the laminate between two copper layers, the upper one at a place, with the holes that go through it.
func (b Board) Sheet(upper int) Coat {
	whole, away := b.laminate()
	last := b.Doc.Board.Layers() - 1
	for c := range b.Index.All() {
		if c.Hole > 0 && c.Has(min(max(upper, 0), last)) && c.Has(min(upper+1, last)) {
			away = append(away, c.Bore())
		}
	}
	return Coat{"laminate", laminate, whole, nil, nil, away}
}

// View shows a face. A board without an outline has none; parts that stand beside it are left out. When the context ends, its error is
// given back soon.
func (b Board) View(ctx context.Context, bottom, parts bool) (*View, error) {
	region := b.Doc.Board.Region()
	if len(region.Outer) == 0 {
		return nil, ErrNoOutline
	}
	v := &View{Box: region.Outer.Box(), Bottom: bottom}
	whole, away := b.laminate() // away: holes and cut-outs
	f := surface.Board{Doc: b.Doc, Index: b.Index, Rules: b.Rules}
	copper, fills := b.copper(f.Outer(bottom), bottom)
	open, silk := []geom.Shape{}, []geom.Shape{} // none is nowhere, not everywhere
	var openAt rtree.RTreeG[geom.Shape]
	for o := range surface.Objects(b.Doc) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		for _, p := range f.Openings(o, bottom) {
			open = append(open, p.Shape)
			box := p.Shape.Box()
			openAt.Insert([2]float64{float64(box.Min.X), float64(box.Min.Y)}, [2]float64{float64(box.Max.X), float64(box.Max.Y)}, p.Shape)
		}
		for _, p := range f.Silk(o, bottom) {
			silk = append(silk, p.Shape)
		}
	}
	for c := range b.Index.All() {
		if c.Hole > 0 && b.opens(c, bottom, &openAt) {
			away = append(away, c.Bore())
		}
	}
	v.Coats = append(v.Coats, Coat{"laminate", laminate, whole, nil, nil, away}, Coat{"copper", bare, copper, fills, whole, away})
	finish, coated := b.coat(design.FinishLayer, bottom)
	shown := open // where copper is free of mask
	if mask, ok := b.coat(design.MaskLayer, bottom); ok {
		c := named(mask, masks, "green")
		c.A = maskShows
		v.Coats = append(v.Coats, Coat{"mask", c, whole, nil, nil, append(slices.Clip(open), away...)})
	} else {
		shown, open = whole, nil // all copper is free
	}
	if coated {
		v.Coats = append(v.Coats, Coat{"finish", named(finish, finishes, "tin"), copper, fills, shown, away})
	}
	if ink, ok := b.coat(design.SilkLayer, bottom); ok {
		v.Coats = append(v.Coats, Coat{"silk", named(ink, inks, "white"), silk, nil, whole, append(slices.Clip(open), away...)})
	}
	if parts {
		v.Coats = append(v.Coats, b.parts(bottom, v.Box)...)
	}
	return v, nil
}
