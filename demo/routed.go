package demo

import (
	"bufio"
	"cmp"
	_ "embed"
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// The tracks of a routed board as text, a line each: of a via "NET via x,y", of a track "NET layer width x,y x,y …", layers counted from the
// top, lengths in nanometres. RouteWeirGauge writes it; building the demo lays it by the commands of a hand.

//go:embed drawings/weir-tracks.txt
var weirTracks string

// lay draws the tracks of a text.
func (b *builder) layTracks(text string) {
	for line := range strings.Lines(text) {
		f := strings.Fields(line)
		if b.err != nil || len(f) < 3 {
			return
		}
		net := b.net(f[0])
		if f[1] == "via" {
			b.do(&edit.AddVia{At: place(f[2]), Net: net})
			continue
		}
		var layer int
		var width int64
		if _, err := fmt.Sscan(f[1]+" "+f[2], &layer, &width); err != nil {
			b.err = fmt.Errorf("tracks: %q: %w", line, err)
			return
		}
		var path []geom.Corner
		for _, p := range f[3:] {
			path = append(path, geom.Corner{Point: place(p)})
		}
		b.do(&edit.DrawTrack{Net: net, Runs: []edit.Run{{Layer: b.bench.Doc.Board.At(layer), Width: width, Path: path}}})
		if b.err != nil {
			b.err = fmt.Errorf("tracks: %q: %w", line, b.err)
		}
	}
}

func place(s string) (p geom.Point) {
	_, _ = fmt.Sscanf(s, "%d,%d", &p.X, &p.Y) // what cannot be read is refused by the commands
	return p
}

// tracksText writes the tracks and vias of a board.
func tracksText(b *builder) string {
	var out strings.Builder
	w := bufio.NewWriter(&out)
	d := b.bench.Doc
	var vias []*design.Via
	for v := range d.Vias.All() {
		vias = append(vias, v)
	}
	slices.SortFunc(vias, func(a, b *design.Via) int { return cmp.Or(cmp.Compare(a.At.X, b.At.X), cmp.Compare(a.At.Y, b.At.Y)) })
	for _, v := range vias {
		fmt.Fprintf(w, "%s via %d,%d\n", d.NetName(v.Net), v.At.X, v.At.Y)
	}
	f := b.bench.Field()
	done := map[design.ID]bool{}
	for t := range d.Tracks.All() {
		if done[t.ID] {
			continue
		}
		path := []geom.Point{t.A, t.B}
		if s, err := f.Strand(t.ID); err == nil {
			path = s.Path
			for _, id := range s.IDs {
				done[id] = true
			}
		}
		fmt.Fprintf(w, "%s %d %d", d.NetName(t.Net), d.Board.Position(t.Layer), t.Width)
		for _, p := range path {
			fmt.Fprintf(w, " %d,%d", p.X, p.Y)
		}
		fmt.Fprintln(w)
	}
	_ = w.Flush() // into memory
	return out.String()
}
