// Package testnet writes the netlist for the bare-board test in IPC-D-356A: records of 80
// columns, metric, in thousandths of a millimetre.
package testnet

import (
	"bytes"
	"fmt"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Write makes the file: one record for each pad and via that has copper.
func Write(d *design.Doc, x *layout.Index) []byte {
	var b bytes.Buffer
	rec := func(format string, args ...any) { fmt.Fprintf(&b, "%-80s\r\n", fmt.Sprintf(format, args...)) }
	rec("C  Bare-board test netlist, written by Golden Trace")
	rec("P  JOB   %s", cut(spelt(d.Settings.Title), 60))
	rec("P  UNITS CUST 1")
	rec("P  DIM   N")
	names := named(d, x)
	for _, line := range names.lines() {
		rec("%s", cut(line, 80))
	}
	bottom := d.Board.Layers() - 1
	for p := range d.Placed.All() {
		f := d.Footprint(p.Footprint)
		for _, c := range x.Of(p.ID) {
			if !c.Bare {
				pad := &f.Pads[c.Pad]
				r := probe{names.net(d, c), names.parts.name(p.Designator), names.pins.name(pad.Number), "S0", turnOf(p, pad)}
				rec("%s", r.record(c, bottom))
			}
		}
	}
	for v := range d.Vias.All() {
		for _, c := range x.Of(v.ID) {
			if !c.Has(0) && !c.Has(bottom) {
				continue // a buried via cannot be probed
			}
			r := probe{net: names.net(d, c), part: "VIA", mask: "S3"} // covered on both sides
			if v.Cover == design.Open {
				r.mask = "S0"
			}
			rec("%s", r.record(c, bottom))
		}
	}
	b.WriteString("999\r\n")
	return b.Bytes()
}

// names are the fields' names for nets, parts and pins.
type names struct {
	nets, parts, pins *aliases
}

// named finds them all, in order, so that the head of the file can tell the aliases.
func named(d *design.Doc, x *layout.Index) names {
	var nets, parts, pins []string
	for _, id := range x.Nets() {
		nets = append(nets, d.NetName(id))
	}
	for p := range d.Placed.All() {
		parts = append(parts, p.Designator)
		if f := d.Footprint(p.Footprint); f != nil {
			for _, pad := range f.Pads {
				pins = append(pins, pad.Number)
			}
		}
	}
	slices.Sort(nets)
	n := names{newAliases(14, "NNAME", "P  ", append(nets, "N/C")), newAliases(6, "REF", "C  PART  ", append(parts, "VIA")), newAliases(4, "P", "C  PIN   ", pins)}
	n.nets.of[""] = "N/C"
	for _, name := range nets {
		if name == "N/C" { // a net that is called like none
			n.nets.alias(name)
		}
		n.nets.name(name)
	}
	for _, name := range parts {
		n.parts.name(name)
	}
	for _, name := range pins {
		n.pins.name(name)
	}
	return n
}

func (n names) lines() []string { return slices.Concat(n.nets.lines, n.parts.lines, n.pins.lines) }

func (n names) net(d *design.Doc, c *layout.Copper) string { return n.nets.name(d.NetName(c.Net)) }

func cut(s string, most int) string { return s[:min(len(s), most)] }

// turnOf is how a pad of a part is turned on the board, in millidegrees anticlockwise as seen from above.
func turnOf(p *design.Placed, pad *design.Pad) int32 {
	t, own := p.Pose(), pad.Pose()
	const far = 1_000_000_000 // so that rounding does not matter
	way := t.Apply(own.Apply(geom.Pt(far, 0))).Sub(t.Apply(own.Apply(geom.Point{})))
	return int32(math.Round(math.Atan2(float64(way.Y), float64(way.X)) * 180_000 / math.Pi))
}

func micro(nm int64) int64 {
	if nm < 0 {
		return -((-nm + 500) / 1000)
	}
	return (nm + 500) / 1000
}

// probe is what a record says beside the copper's place and size.
type probe struct {
	net, part, pin, mask string
	turn                 int32 // of the copper, in millidegrees
}

// record is one line, its fields at the columns of the standard: 1 kind, 4 net, 21 part,
// 28 pin, 33 hole, 39 access, 42 place, 58 size, 68 turn, 73 mask. The size is the copper's own, before it is turned.
func (r probe) record(c *layout.Copper, bottom int) string {
	kind, hole, access := "327", "     ", "A01"
	switch {
	case c.Hole > 0 && !(c.Has(0) && c.Has(bottom)): // a blind via is probed from the side it reaches
		kind, hole = "307", fmt.Sprintf("D%04dP", min(micro(c.Hole), 9999))
		if !c.Has(0) {
			access = fmt.Sprintf("A%02d", bottom+1)
		}
	case c.Hole > 0:
		kind, hole, access = "317", fmt.Sprintf("D%04dP", min(micro(c.Hole), 9999)), "A00"
	case c.Has(bottom) && bottom > 0:
		access = fmt.Sprintf("A%02d", bottom+1)
	}
	dash := "-"
	if r.pin == "" {
		dash = " "
	}
	upper := 0
	if !c.Has(0) {
		upper = bottom
	}
	width, height, turn := sized(c.On(upper), r.turn)
	return fmt.Sprintf("%s%-14.14s   %-6.6s%s%-4.4s %-6s%sX%+07dY%+07dX%04dY%04dR%03d %s", kind, r.net, r.part, dash, r.pin, hole, access,
		micro(c.At.X), micro(c.At.Y), min(micro(width), 9999), min(micro(height), 9999), turn, r.mask)
}

// sized is the width and height of a shape in its own directions, and how many degrees anticlockwise these are turned, 0 to 179; quarter turns
// change width and height instead.
func sized(s geom.Shape, turn int32) (width, height int64, degrees int) {
	turn = (turn%180_000 + 180_000) % 180_000
	if len(s.Pts) == 1 {
		turn = 0
	}
	quarter := turn == 90_000
	if quarter {
		turn = 0
	}
	box := s.Moved(geom.Pose{Angle: -turn}).Box()
	return box.Max.X - box.Min.X, box.Max.Y - box.Min.Y, int(turn+500) / 1000 % 180
}
