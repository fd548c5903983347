package question

import (
	"cmp"
	"slices"

	"goldentrace/core/ampacity"
	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/rules"
	"goldentrace/core/workbench"
)

// Widths asks how wide the tracks of nets are to be for their currents.
type Widths struct {
	All bool `json:"all,omitempty"` // those of no known current too
}

// WidthAdvice is the table.
type WidthAdvice struct {
	Rise float64    `json:"rise"` // kelvins
	Rows []WidthRow `json:"rows"`
}

// WidthRow is a net. Lengths are nanometres, currents microamperes.
type WidthRow struct {
	Net      design.ID `json:"net"`
	Name     string    `json:"name"`
	Class    string    `json:"class,omitempty"`
	Current  int64     `json:"current"`
	Length   int64     `json:"length"` // of its tracks
	Open     int64     `json:"open"`   // of its open links
	Least    int64     `json:"least"`  // width of its narrowest track; 0: it has none
	Asked    int64     `json:"asked"`  // what the rules ask of new tracks on the outer layers
	Outer    int64     `json:"outer"`  // needed on outer layers
	Inner    int64     `json:"inner"`  // on inner ones; 0: there are none
	Thin     bool      `json:"thin"`   // a track is thinner than it needs to be
	Milliohm float64   `json:"milliohm"`
	Drop     float64   `json:"drop"` // in millivolts, if all of it lies one after the other
}

// Answer the question.
func (q *Widths) Answer(b *workbench.Bench) (*WidthAdvice, error) {
	d := b.Doc
	out := &WidthAdvice{Rise: d.Board.Warms(), Rows: []WidthRow{}}
	open := map[design.ID]int64{}
	for net, l := range b.All().Links {
		for _, k := range l.Come {
			open[net] += int64(k.A.Dist(k.B))
		}
	}
	for n := range d.Nets.All() {
		if n.Current <= 0 && !q.All || d.Borne(n.ID) == 0 {
			continue
		}
		out.Rows = append(out.Rows, widthRow(b, n, open[n.ID]))
	}
	slices.SortFunc(out.Rows, func(a, b WidthRow) int {
		return cmp.Or(cmp.Compare(b.Current, a.Current), circuit.CompareNatural(a.Name, b.Name))
	})
	return out, nil
}

// celsius of the surroundings.
const celsius = 20

func widthRow(b *workbench.Bench, n *design.Net, open int64) WidthRow {
	d := b.Doc
	row := WidthRow{Net: n.ID, Name: n.Name, Class: n.Class, Current: n.Current, Open: open}
	row.Asked = b.Rules().For(design.TrackWidth, rules.Subject{Net: n.ID, Thing: design.ATrack}, 0,
		d.Board.Region().Outer.Box().Centre()).Of(0)
	if n.Current > 0 {
		layers := d.Board.Layers()
		row.Outer = max(check.Needs(d.Board, n.Current, 0), check.Needs(d.Board, n.Current, layers-1))
		for i := 1; i < layers-1; i++ {
			row.Inner = max(row.Inner, check.Needs(d.Board, n.Current, i))
		}
	}
	row.Thin = check.Thin(d, b.Index(), n.ID) != nil
	top := d.Board.Layer(d.Board.Top()).Thickness
	ohm := ampacity.Resistance(open, max(row.Outer, row.Asked), top, celsius+d.Board.Warms())
	for _, c := range b.Index().NetPieces(n.ID) {
		t := d.Tracks[c.ID]
		if t == nil {
			continue
		}
		long := int64(t.Piece().Length())
		row.Length += long
		if row.Least == 0 || t.Width < row.Least {
			row.Least = t.Width
		}
		ohm += ampacity.Resistance(long, t.Width, d.Board.Layer(t.Layer).Thickness, celsius+d.Board.Warms())
	}
	row.Milliohm = ohm * 1e3
	row.Drop = row.Milliohm * float64(n.Current) / 1e6
	return row
}
