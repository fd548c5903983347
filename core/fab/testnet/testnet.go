// Package testnet writes the netlist for the bare-board test in IPC-D-356A: records of 80
// columns, metric, in thousandths of a millimetre.
package testnet

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Write makes the file: one record for each pad and via that has copper.
func Write(d *design.Doc, x *layout.Index) []byte {
	var b bytes.Buffer
	rec := func(format string, args ...any) { fmt.Fprintf(&b, "%-80s\r\n", fmt.Sprintf(format, args...)) }
	rec("C  Bare-board test netlist, written by Golden Trace")
	rec("P  JOB   %s", ascii(d.Settings.Title, 60))
	rec("P  UNITS CUST 1")
	rec("P  DIM   N")
	var nets []string
	for _, id := range x.Nets() {
		nets = append(nets, d.NetName(id))
	}
	slices.Sort(nets)
	alias := map[string]string{"": "N/C"}
	long := 0
	for _, n := range nets {
		if a := ascii(n, 200); a == n && len(n) <= 14 && n != "N/C" {
			alias[n] = n
			continue
		}
		long++
		alias[n] = fmt.Sprintf("NNAME%d", long)
		rec("P  NNAME%-5d%s", long, ascii(n, 60))
	}
	bottom := d.Board.Layers() - 1
	for p := range d.Placed.All() {
		f := d.Footprint(p.Footprint)
		for _, c := range x.Of(p.ID) {
			if !c.Bare {
				rec("%s", record(c, alias[d.NetName(c.Net)], p.Designator, f.Pads[c.Pad].Number, bottom, "S0"))
			}
		}
	}
	for v := range d.Vias.All() {
		for _, c := range x.Of(v.ID) {
			if !c.Has(0) && !c.Has(bottom) {
				continue // a buried via cannot be probed
			}
			mask := "S3" // covered on both sides
			if v.Cover == design.Open {
				mask = "S0"
			}
			rec("%s", record(c, alias[d.NetName(c.Net)], "VIA", "", bottom, mask))
		}
	}
	b.WriteString("999\r\n")
	return b.Bytes()
}

// ascii keeps what the format can hold.
func ascii(s string, most int) string {
	s = strings.Map(func(r rune) rune {
		if r < ' ' || r > 126 {
			return '_'
		}
		return r
	}, s)
	return s[:min(len(s), most)]
}

func micro(nm int64) int64 {
	if nm < 0 {
		return -((-nm + 500) / 1000)
	}
	return (nm + 500) / 1000
}

// record is one line, its fields at the columns of the standard: 1 kind, 4 net, 21 part,
// 28 pin, 33 hole, 39 access, 42 place, 58 size, 73 mask.
func record(c *layout.Copper, net, part, pin string, bottom int, mask string) string {
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
	if pin == "" {
		dash = " "
	}
	upper := 0
	if !c.Has(0) {
		upper = bottom
	}
	box := c.On(upper).Box()
	return fmt.Sprintf("%s%-14.14s   %-6.6s%s%-4.4s %-6s%sX%+07dY%+07dX%04dY%04dR000 %s", kind, net, ascii(part, 6), dash, ascii(pin, 4), hole, access,
		micro(c.At.X), micro(c.At.Y), min(micro(box.Max.X-box.Min.X), 9999), min(micro(box.Max.Y-box.Min.Y), 9999), mask)
}
