package dxf

import (
	"bufio"
	"fmt"
	"io"
	"math"
	"strconv"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Write writes a board's edge, its cut-outs and its drilled holes as a drawing in millimetres: polylines with bulges on the layers OUTLINE and
// CUTOUT, circles on HOLES.
func Write(w io.Writer, b *design.Board, holes []*design.Hole) error {
	out := &writer{w: bufio.NewWriter(w)}
	out.put(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, "4", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES")
	out.ring("OUTLINE", b.Outline)
	for _, c := range b.CutOuts {
		out.ring("CUTOUT", c)
	}
	for _, h := range holes {
		out.put(0, "CIRCLE", 8, "HOLES", 10, mm(h.At.X), 20, mm(h.At.Y), 40, mm(h.Diameter/2))
	}
	out.put(0, "ENDSEC", 0, "EOF")
	return out.w.Flush()
}

type writer struct{ w *bufio.Writer }

// put writes pairs of a code and a value.
func (w *writer) put(pairs ...any) {
	for i := 0; i+1 < len(pairs); i += 2 {
		fmt.Fprintf(w.w, "%3d\r\n%v\r\n", pairs[i], pairs[i+1]) // an error stays until Flush
	}
}

func mm(nm int64) string { return strconv.FormatFloat(float64(nm)/1e6, 'f', -1, 64) }

func (w *writer) ring(layer string, corners []geom.Corner) {
	if len(corners) == 0 {
		return
	}
	w.put(0, "POLYLINE", 8, layer, 66, "1", 10, "0", 20, "0", 70, "1")
	for i, c := range corners {
		w.put(0, "VERTEX", 8, layer, 10, mm(c.X), 20, mm(c.Y))
		if p := c.PieceTo(corners[(i+1)%len(corners)]); p.Round() {
			w.put(42, strconv.FormatFloat(bulge(p), 'g', -1, 64))
		}
	}
	w.put(0, "SEQEND", 8, layer)
}

// bulge of an arc: the height of its bow over half its chord, above nothing where it turns anticlockwise.
func bulge(p geom.Piece) float64 {
	_, anticlockwise := p.Centre()
	r := p.Radius()
	sweep := p.Length() / r
	if !anticlockwise {
		sweep = -sweep
	}
	return math.Tan(sweep / 4)
}
