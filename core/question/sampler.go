package question

import (
	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// A tile of the sampler and how tiles stand: five beside each other in two rows, with room above and below each for a number.
const (
	tileWide, tileHigh  = 4_400_000, 2_200_000
	tileStep, tileLines = 5_000_000, 6_700_000
	dimensionOff        = 350_000
)

// sampler is a small board in ten tiles with a bit of everything, in which each rule for everything stands as a dimension line above or below what
// it is of. What would be too small or too large to be seen is drawn within bounds; the lines say what holds. The rules that are numbers of
// letters, heights and webs alone are left to the lists.
func sampler(n map[design.RuleKind]int64) landpattern.BodyView {
	const um = units.Micrometre
	s := samplerTile{view: landpattern.BodyView{Name: "Rules for everything", Strokes: []landpattern.Stroke{}, Dims: []landpattern.DimLine{}}}
	seen := func(k design.RuleKind, least, most int64) int64 { return min(max(n[k], least), most) }
	hole, ring, apart := seen(design.LeastHole, 250*um, 1000*um), seen(design.LeastRing, 100*um, 500*um), seen(design.HoleClearance, 200*um, 1200*um)
	clear, within, space := seen(design.Clearance, 150*um, 1200*um), seen(design.WithinPart, 150*um, 1200*um), seen(design.Spacing, 150*um, 1500*um)

	s.next() // a track beside the board's edge, the tile's own
	edge, wide := seen(design.EdgeClearance, 150*um, 1500*um), seen(design.TrackWidth, 150*um, 1500*um)
	right := s.middle - edge/2
	s.view.Strokes = nil
	s.box("ground", s.left, 0, right+edge, tileHigh)
	s.box("copper", right-wide, 0, right, tileHigh)
	s.above(design.EdgeClearance, right, right+edge)
	s.below(design.TrackWidth, right-wide, right)

	s.next() // two tracks
	thin := seen(design.LeastWidth, 100*um, 900*um)
	s.box("copper", s.middle-clear/2-thin, 0, s.middle-clear/2, tileHigh)
	s.box("copper", s.middle+clear/2, 0, s.middle+clear/2+700*um, tileHigh)
	s.above(design.Clearance, s.middle-clear/2, s.middle+clear/2)
	s.below(design.LeastWidth, s.middle-clear/2-thin, s.middle-clear/2)

	s.next() // a drilled hole with its ring
	s.disc("copper", s.middle, hole/2+ring)
	s.disc("hole", s.middle, hole/2)
	s.above(design.LeastHole, s.middle-hole/2, s.middle+hole/2)
	s.below(design.LeastRing, s.middle-hole/2-ring, s.middle-hole/2)

	s.next() // two holes
	for _, x := range []int64{s.middle - apart/2 - 300*um, s.middle + apart/2 + 300*um} {
		s.disc("copper", x, min(300*um+ring, 500*um))
	}
	for _, x := range []int64{s.middle - apart/2 - 300*um, s.middle + apart/2 + 300*um} {
		s.disc("hole", x, 300*um)
	}
	s.above(design.HoleClearance, s.middle-apart/2, s.middle+apart/2)

	s.next() // a via
	via, bore := seen(design.ViaDiameter, 500*um, 1800*um), seen(design.ViaHole, 200*um, 1300*um)
	s.disc("copper", s.middle, via/2)
	s.disc("hole", s.middle, bore/2)
	s.above(design.ViaDiameter, s.middle-via/2, s.middle+via/2)
	s.below(design.ViaHole, s.middle-bore/2, s.middle+bore/2)

	s.next() // a part with two pads
	s.box("body", s.middle-within/2-1100*um, 400*um, s.middle+within/2+1100*um, 1800*um)
	s.box("copper", s.middle-within/2-800*um, 650*um, s.middle-within/2, 1550*um)
	s.box("copper", s.middle+within/2, 650*um, s.middle+within/2+800*um, 1550*um)
	s.above(design.WithinPart, s.middle-within/2, s.middle+within/2)

	s.next() // two parts
	s.box("body", s.middle-space/2-1100*um, 400*um, s.middle-space/2, 1800*um)
	s.box("body", s.middle+space/2, 400*um, s.middle+space/2+1100*um, 1800*um)
	s.above(design.Spacing, s.middle-space/2, s.middle+space/2)

	s.next() // a pad with its openings
	mask, paste := seen(design.MaskMargin, -300*um, 350*um), seen(design.PasteMargin, -300*um, 400*um)
	s.box("mask", s.middle-900*um-mask, 450*um-mask, s.middle+900*um+mask, 1750*um+mask)
	s.box("copper", s.middle-900*um, 450*um, s.middle+900*um, 1750*um)
	s.box("paste", s.middle-900*um+paste, 450*um+paste, s.middle+900*um-paste, 1750*um-paste)
	s.above(design.MaskMargin, s.middle+900*um, s.middle+900*um+mask)
	s.below(design.PasteMargin, s.middle-900*um, s.middle-900*um+paste)

	s.next() // a line of silk
	silk := seen(design.SilkWidth, 80*um, 600*um)
	s.box("silk", s.middle-silk/2, 300*um, s.middle+silk/2, 1900*um)
	s.above(design.SilkWidth, s.middle-silk/2, s.middle+silk/2)

	s.next() // a pad in a copper area, joined by spokes
	joint, around, land := seen(design.SpokeWidth, 100*um, 700*um), seen(design.SpokeGap, 100*um, 450*um), int64(900*um)
	m, h, free := s.middle, int64(tileHigh/2), land/2+around
	s.box("copper", s.left+300*um, 0, m-free, tileHigh)
	s.box("copper", m+free, 0, s.left+tileWide-300*um, tileHigh)
	s.box("copper", m-free, 0, m+free, h-free)
	s.box("copper", m-free, h+free, m+free, tileHigh)
	s.box("copper", m-land/2, h-land/2, m+land/2, h+land/2)
	if n[design.SpokeWidth] > 0 {
		s.box("copper", m-free, h-joint/2, m+free, h+joint/2)
		s.box("copper", m-joint/2, h-free, m+joint/2, h+free)
	}
	s.above(design.SpokeGap, m+land/2, m+land/2+around)
	s.below(design.SpokeWidth, m-joint/2, m+joint/2)
	return s.view
}

// samplerTile is the tile that is being drawn; heights count from its lower edge.
type samplerTile struct {
	view               landpattern.BodyView
	at                 int // from 1 on
	left, middle, foot int64
}

func (s *samplerTile) next() {
	column, row := s.at%5, s.at/5
	s.at++
	s.left, s.foot = int64(column)*tileStep, -int64(row)*tileLines
	s.middle = s.left + tileWide/2
	s.box("ground", s.left, 0, s.left+tileWide, tileHigh)
}

func (s *samplerTile) box(style string, x0, y0, x1, y1 int64) {
	s.view.Strokes = append(s.view.Strokes, landpattern.Area(style, x0, s.foot+y0, x1, s.foot+y1))
}

func (s *samplerTile) disc(style string, x, r int64) {
	s.view.Strokes = append(s.view.Strokes, landpattern.Disc(style, x, s.foot+tileHigh/2, r))
}

func (s *samplerTile) above(k design.RuleKind, x0, x1 int64) {
	s.view.Dims = append(s.view.Dims, landpattern.Measure(string(k), k.Words(), x0, s.foot+tileHigh, x1, s.foot+tileHigh, 0, dimensionOff))
}

func (s *samplerTile) below(k design.RuleKind, x0, x1 int64) {
	s.view.Dims = append(s.view.Dims, landpattern.Measure(string(k), k.Words(), x0, s.foot, x1, s.foot, 0, -dimensionOff))
}
