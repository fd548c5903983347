package paper

import (
	"bytes"
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Extract draws what stands on one use of a sheet, without frame and title block, cut to what
// is drawn with a little room around; nil: nothing stands there.
func Extract(d *design.Doc, n *circuit.Nets, place circuit.SheetUse) []byte {
	p := PageOf(d, n, place)
	var box geom.Extent
	for _, it := range p.Items[1:] { // the first is the frame
		if len(it.Marks) > 0 {
			box.AddBox(Box(it.Marks))
		}
	}
	if len(p.Items) == 1 {
		return nil
	}
	b := box.Box.Grow(4 * mm)
	var out bytes.Buffer
	mm := func(nm int64) string { return num(float64(nm) / perMM) }
	fmt.Fprintf(&out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s">`+"\n", mm(b.Min.X), mm(p.Size.Y-b.Max.Y), mm(b.Max.X-b.Min.X), mm(b.Max.Y-b.Min.Y))
	for _, it := range p.Items[1:] {
		for _, m := range it.Marks {
			svgMark(&out, d, m, float64(p.Size.Y)/perMM)
		}
	}
	out.WriteString("</svg>\n")
	return out.Bytes()
}
