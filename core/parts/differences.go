package parts

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/units"
)

// Version is a part with where its symbols and footprint are found.
type Version struct {
	Part *design.LibraryPart
	From Source
}

// Differences lists in sentences what is otherwise in the second version of a part. Cost: O(pins + pads).
func Differences(a, b Version) []string {
	out := []string{}
	say := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	text := func(what, x, y string) {
		if x != y {
			say("The %s is %s instead of %s.", what, quoteOr(y), quoteOr(x))
		}
	}
	text("value", a.Part.Value, b.Part.Value)
	text("prefix", a.Part.Prefix, b.Part.Prefix)
	text("description", a.Part.Description, b.Part.Description)
	text("datasheet", a.Part.Datasheet, b.Part.Datasheet)
	text("footprint", a.Part.Footprint, b.Part.Footprint)
	pinDifferences(Pins(a.Part, a.From), Pins(b.Part, b.From), say)
	for _, n := range counted(keys(a.Part.PadOf), keys(b.Part.PadOf)) {
		if x, y := a.Part.Pads(n), b.Part.Pads(n); !slices.Equal(x, y) {
			say("Pin %s goes to pad %v instead of %v.", n, y, x)
		}
	}
	f, g := a.From.Footprint(a.Part.Footprint), b.From.Footprint(b.Part.Footprint)
	if f != nil && g != nil {
		footDifferences(f, g, say)
	}
	return out
}

func quoteOr(s string) string {
	if s == "" {
		return "nothing"
	}
	return "“" + s + "”"
}

func keys(m map[string]string) []string { return slices.Collect(maps.Keys(m)) }

// counted is both lists together, each name once, in the order people count.
func counted(a, b []string) []string {
	all := append(slices.Clone(a), b...)
	slices.SortFunc(all, circuit.CompareNatural)
	return slices.Compact(all)
}

func pinDifferences(a, b []design.Pin, say func(string, ...any)) {
	x, y := map[string]design.Pin{}, map[string]design.Pin{}
	for _, p := range a {
		x[p.Number] = p
	}
	for _, p := range b {
		y[p.Number] = p
	}
	moved := 0
	for _, n := range counted(slices.Collect(maps.Keys(x)), slices.Collect(maps.Keys(y))) {
		p, was := x[n]
		q, is := y[n]
		switch {
		case !was:
			say("Pin %s is new.", called(q))
		case !is:
			say("Pin %s is gone.", called(p))
		case p.Name != q.Name:
			say("Pin %s is called %s instead of %s.", n, quoteOr(q.Name), quoteOr(p.Name))
		case p.Type != q.Type:
			say("Pin %s is of the type %s instead of %s.", called(q), q.Type, p.Type)
		case p.At != q.At || p.Turn != q.Turn:
			moved++
		}
	}
	if moved > 0 {
		say("%s elsewhere on the symbol.", count(moved, "pin stands", "pins stand"))
	}
}

func count(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func footDifferences(a, b *design.Footprint, say func(string, ...any)) {
	x, y := byNumber(a), byNumber(b)
	same := func(p, q design.Pad) bool {
		p.ID, q.ID = 0, 0
		return marshalled(p) == marshalled(q)
	}
	for _, n := range counted(slices.Collect(maps.Keys(x)), slices.Collect(maps.Keys(y))) {
		p, q := x[n], y[n]
		switch {
		case len(p) == 0:
			say("Pad %s is new.", n)
		case len(q) == 0:
			say("Pad %s is gone.", n)
		case len(p) != len(q):
			say("There are %d pads %s instead of %d.", len(q), n, len(p))
		default:
			for i := range p {
				if same(p[i], q[i]) {
					continue
				}
				switch {
				case p[i].At != q[i].At:
					say("Pad %s is moved by %s, %s.", n, units.Text(q[i].At.X-p[i].At.X), units.Text(q[i].At.Y-p[i].At.Y))
				case p[i].Size != q[i].Size:
					say("Pad %s is %s × %s instead of %s × %s.", n, units.Text(q[i].Size.X), units.Text(q[i].Size.Y), units.Text(p[i].Size.X), units.Text(p[i].Size.Y))
				case p[i].Hole != q[i].Hole:
					say("The hole of pad %s is %s instead of %s.", n, units.Text(q[i].Hole), units.Text(p[i].Hole))
				default:
					say("Pad %s is made otherwise.", n)
				}
			}
		}
	}
	part := func(what string, x, y any) {
		if marshalled(x) != marshalled(y) {
			say("The %s is drawn otherwise.", what)
		}
	}
	f, g := Bare(a), Bare(b)
	part("silk", f.Silk, g.Silk)
	part("assembly outline", f.Body, g.Body)
	part("courtyard", f.Courtyard, g.Courtyard)
	part("body in space", f.Solids, g.Solids)
}

func byNumber(f *design.Footprint) map[string][]design.Pad {
	out := map[string][]design.Pad{}
	for _, p := range f.Pads {
		out[p.Number] = append(out[p.Number], p)
	}
	return out
}
