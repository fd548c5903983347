package design

import (
	"fmt"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// MostCorners bounds a closed line drawn by hand.
const MostCorners = 1000

// closed checks a closed line: enough corners, within reach, crossing itself nowhere.
func closed(what string, corners []geom.Corner) error {
	if n := len(corners); n < 3 && (n != 2 || corners[0].Mid == nil && corners[1].Mid == nil) || n > MostCorners {
		return fmt.Errorf("%s needs 3 to %d corners, not %d", what, MostCorners, n)
	}
	if err := place(what, geom.Named(corners)...); err != nil {
		return err
	}
	ring := geom.Closing(corners)
	for _, p := range ring {
		if err := arc(what, p); err != nil {
			return err
		}
	}
	if p, bad := geom.Crossing(ring); bad {
		return fmt.Errorf("%s crosses itself at %s, %s", what, units.Text(p.X), units.Text(p.Y))
	}
	return nil
}

// arc checks a piece: it has a length, and its radius is one that can be drawn.
func arc(what string, p geom.Piece) error {
	return firstOf(check(p.A != p.B, "%s has two corners in one place", what), flat(what, p))
}

func flat(what string, p geom.Piece) error {
	return check(!p.Round() || p.Radius() <= float64(units.Limit), "%s has an arc too flat to be told from a straight line", what)
}

// Valid checks what is said of a net.
func (n *Net) Valid() error {
	return firstOf(name("net's name", n.Name), text("net class", n.Class),
		check(n.Current >= 0, "the current of %s is below zero", n.Name), check(n.Impedance >= 0, "the impedance of %s is below zero", n.Name),
		check(n.Partner != n.ID, "%s cannot be its own partner", n.Name))
}

// Valid checks the pad's shape.
func (s PadShape) Valid(what string) error {
	if err := firstOf(length("the width of "+what, s.Size.X, 1), length("the height of "+what, s.Size.Y, 1),
		check(slices.Contains(PadForms, s.Form), "%s has the unknown form %q", what, s.Form)); err != nil {
		return err
	}
	switch s.Form {
	case Rounded:
		return check(s.Corner >= 0 && 2*s.Corner <= min(s.Size.X, s.Size.Y), "%s has corners rounder than itself", what)
	case Chamfered:
		return firstOf(check(s.Corner > 0 && 2*s.Corner < min(s.Size.X, s.Size.Y), "%s has more cut off its corners than it has", what),
			check(s.Cut >= 0 && s.Cut < 16, "%s has no corners %d to cut off", what, s.Cut))
	case Free:
		return closed("the edge of "+what, s.Edge)
	}
	return check(s.Corner >= 0, "%s has corners of less than nothing", what)
}

func (o *Opening) valid(what string) error {
	if o == nil {
		return nil
	}
	if o.Margin != nil {
		if err := length("the margin of "+what, *o.Margin, -units.MM); err != nil {
			return err
		}
	}
	if err := most("the windows of "+what, len(o.Windows), 100); err != nil {
		return err
	}
	for _, w := range o.Windows {
		if err := closed("a window of "+what, w); err != nil {
			return err
		}
	}
	return nil
}

// Valid checks the pad.
func (p *Pad) Valid(of string) error {
	what := fmt.Sprintf("pad %s of %s", p.Number, of)
	if err := firstOf(text("pad's number", p.Number), place(what, p.At, p.At.Add(p.HoleAt), p.At.Add(p.HoleAt).Add(p.Slot)), length("the hole of "+what, p.Hole, 0),
		p.Shape().Valid(what), angle(what, p.Angle), p.Mask.valid("the mask of "+what), p.Paste.valid("the paste of "+what),
		check(p.Hole > 0 || p.Slot == geom.Point{} && p.HoleAt == geom.Point{}, "%s has a slot but no hole", what),
		check(!p.Bare || p.Hole > 0, "%s has no hole that could be without plating", what),
		check(!p.Far || p.Hole == 0, "%s has a hole, so that it is on both sides", what),
		oneOf("a way to join areas", p.Join, Joins)); err != nil {
		return err
	}
	for group, s := range p.On {
		if err := firstOf(oneOf("a group of layers", group, LayerGroups), s.Valid(what+" on the "+group+" layers")); err != nil {
			return err
		}
	}
	return nil
}

// Valid checks where something was taken from.
func (o Origin) Valid() error {
	return firstOf(text("library", o.Library), check(o.Version >= 0, "a library's version is below zero"))
}

// Valid checks the footprint.
func (f *Footprint) Valid() error {
	if err := firstOf(name("footprint's name", f.Name), f.Origin.Valid(), figures("the footprint "+f.Name, f.Silk, false),
		figures("the footprint "+f.Name, f.Body, false), place("courtyard", f.Courtyard...), solids(f.Name, f.Solids)); err != nil {
		return err
	}
	if err := firstOf(
		most("the list of pads of "+f.Name, len(f.Pads), MostPins),
		most("the courtyard of "+f.Name, len(f.Courtyard), MostCorners),
		most("the groups of "+f.Name, len(f.Together), MostPins),
	); err != nil {
		return err
	}
	if err := firstOf(
		dimensions(f.Dimensions),
		f.Beneath.valid(),
		f.Checked.valid(),
		distinctRefs("the list of pads of "+f.Name, f.Pads, func(p *Pad) int { return p.ID }),
		distinctRefs("the silk of "+f.Name, f.Silk, func(g *Figure) int { return g.ID }),
		distinctRefs("the outline of "+f.Name, f.Body, func(g *Figure) int { return g.ID }),
	); err != nil {
		return err
	}
	if f.Recipe != nil {
		if err := f.Recipe.Valid(); err != nil {
			return err
		}
	}
	for i := range f.Pads {
		if err := f.Pads[i].Valid(f.Name); err != nil {
			return err
		}
	}
	return nil
}

// Valid checks outline, cut-outs and stack.
func (b *Board) Valid() error {
	if err := b.edges(); err != nil {
		return err
	}
	if err := b.Teardrops.valid(); err != nil {
		return err
	}
	if b.Rise < 0 || b.Rise > 200 {
		return fmt.Errorf("tracks that become %d K warmer are not meant; 1 to 200 are", b.Rise)
	}
	return b.validStack()
}

// edges checks outline and cut-outs: each crosses neither itself nor another, and the cut-outs lie in
// the board.
func (b *Board) edges() error {
	if len(b.Outline) == 0 {
		return check(len(b.CutOuts) == 0, "a board without an outline has nothing to cut out of")
	}
	if err := firstOf(closedOutline(b.Outline), most("the list of cut-outs", len(b.CutOuts), MostCorners)); err != nil {
		return err
	}
	if len(b.CutOuts) == 0 {
		return nil
	}
	rings := []geom.Ring{geom.Closing(b.Outline)}
	total := len(b.Outline)
	for _, c := range b.CutOuts {
		if err := closed("a cut-out", c); err != nil {
			return err
		}
		if !rings[0].Holds(c[0].Point) {
			return fmt.Errorf("a cut-out at %s, %s does not lie within the board", units.Text(c[0].X), units.Text(c[0].Y))
		}
		rings = append(rings, geom.Closing(c))
		total += len(c)
	}
	if total > 2*MostCorners {
		return fmt.Errorf("outline and cut-outs have %d corners; %d are the most", total, 2*MostCorners)
	}
	if p, bad := geom.Crossing(rings...); bad {
		return fmt.Errorf("a cut-out meets the outline or another cut-out at %s, %s", units.Text(p.X), units.Text(p.Y))
	}
	for i, r := range rings[1:] {
		for j, other := range rings[1:] {
			if i != j && other.Holds(r[0].A) {
				return fmt.Errorf("a cut-out at %s, %s lies within another", units.Text(r[0].A.X), units.Text(r[0].A.Y))
			}
		}
	}
	return nil
}

func closedOutline(corners []geom.Corner) error {
	if n := len(corners); n > MostCorners || n < 2 || n == 2 && corners[0].Mid == nil && corners[1].Mid == nil {
		return fmt.Errorf("an outline needs 3 to %d corners, not %d", MostCorners, n)
	}
	return closed("the outline", corners)
}

// Valid checks the rule.
func (r *Rule) Valid() error {
	k, known := ruleKinds[r.Kind]
	if !known {
		return fmt.Errorf("%q is not a kind of rule", r.Kind)
	}
	what := "the " + k.words
	for _, a := range []*Amount{&r.Value, r.Inner} {
		if a == nil {
			continue
		}
		if err := firstOf(length(what, a.Fixed, k.least), check(a.Share >= 0 && a.Share <= 10_000, "%s is %g %% of the size; 0 to 1000 are meant", what, float64(a.Share)/10),
			check(a.Share == 0 || a.Fixed == 0, "%s is both a length and a share of the size", what)); err != nil {
			return err
		}
		if a.Share > 0 {
			if err := firstOf(length(what, a.Least, k.least), length(what, a.Most, k.least), check(a.Least <= a.Most, "%s is held between %s and %s, which is the wrong way round", what, units.Text(a.Least), units.Text(a.Most))); err != nil {
				return err
			}
		}
	}
	return firstOf(r.A.Valid(what), r.B.Valid(what), check(k.pair || r.B == Scope{}, "a rule of %s holds for single things, not between two", what))
}

// Valid checks the scope of a rule.
func (s Scope) Valid(what string) error {
	return firstOf(text("net class", s.Class), text("pattern of nets", s.Net),
		check(s.Thing == "" || slices.Contains(Things, s.Thing), "%s holds for the unknown kind of thing %q", what, s.Thing),
		check(s.Layer >= 0 && s.Area >= 0 && s.Part >= 0, "%s names something by an id below zero", what))
}

// Valid checks the area.
func (a *RuleArea) Valid() error {
	if err := firstOf(name("area's name", a.Name), most("the layers of "+a.Name, len(a.Layers), MostLayers), most("what "+a.Name+" keeps out", len(a.KeepOut), len(Things)),
		closed("the edge of "+a.Name, a.Outline)); err != nil {
		return err
	}
	for _, t := range a.KeepOut {
		if !slices.Contains(Things, t) {
			return fmt.Errorf("%s keeps out the unknown kind of thing %q", a.Name, t)
		}
	}
	return nil
}

// Valid checks the placed part.
func (p *Placed) Valid() error {
	if err := most("the pads of "+p.Designator, len(p.Nets), MostPins); err != nil {
		return err
	}
	for pad, net := range p.Nets {
		if err := firstOf(text("pad's number", pad), check(net > 0, "pad %s.%s bears a net that is none", p.Designator, pad)); err != nil {
			return err
		}
	}
	if err := most("the pads of "+p.Designator+" that areas join otherwise", len(p.Joins), MostPins); err != nil {
		return err
	}
	for pad, how := range p.Joins {
		if err := firstOf(text("pad's number", pad), oneOf("a way to join areas", how, Joins)); err != nil {
			return err
		}
	}
	if p.Letters != 0 {
		if err := firstOf(
			length("the height of the designator "+p.Designator, p.Letters, 100_000),
			check(p.Letters <= 50*units.MM, "the designator %s is %s high; 50 mm is the most", p.Designator, units.Text(p.Letters)),
		); err != nil {
			return err
		}
	}
	if err := most("the notes of "+p.Designator, len(p.Notes), MostNotes); err != nil {
		return err
	}
	for _, n := range p.Notes {
		if err := n.valid("a note of " + p.Designator); err != nil {
			return err
		}
	}
	return firstOf(name("designator", p.Designator), name("footprint of "+p.Designator, p.Footprint), text("value", p.Value),
		place("part "+p.Designator, p.At), angle("part "+p.Designator, p.Angle))
}

func (n PlaceNote) valid(what string) error {
	return firstOf(oneOf("a kind of note", n.Kind, []string{NoteWithin, NoteEdge, NoteText}), length("the distance of "+what, n.Distance, 0), text("pad's number", n.Pad), text("note", n.Text),
		check(n.Kind != NoteWithin || n.Of > 0, "%s names no part that it is to be near", what), check(n.Kind != NoteText || n.Text != "", "%s says nothing", what))
}

// Valid checks the track.
func (t *Track) Valid() error {
	if t.Mid != nil {
		if err := firstOf(place("a track", *t.Mid), flat("a track", t.Piece())); err != nil {
			return err
		}
	}
	return firstOf(place("a track", t.A, t.B), length("the width of a track", t.Width, 1),
		check(t.A != t.B, "a track has no length"), check(t.Layer > 0, "a track lies on no layer"))
}

// Valid checks the via.
func (v *Via) Valid() error {
	seen := map[LayerID]bool{}
	for _, p := range v.Pads {
		if err := firstOf(length("a pad of a via", p.Diameter, 0), check(p.Layer > 0 && !seen[p.Layer], "a via has two pads on one layer, or one on none")); err != nil {
			return err
		}
		seen[p.Layer] = true
	}
	return firstOf(place("a via", v.At), length("the diameter of a via", v.Diameter, 1), length("the hole of a via", v.Hole, 1),
		check(v.Hole < v.Diameter, "a via's hole, %s, is not smaller than its diameter, %s", units.Text(v.Hole), units.Text(v.Diameter)),
		oneOf("a kind of via", v.Kind, []string{Drilled, Lasered}), oneOf("a cover of a via", v.Cover, []string{Tented, Open, Filled}),
		oneOf("a way to join areas", v.Join, Joins),
		check(v.From > 0 && v.To > 0 && v.From != v.To, "a via joins no two layers"))
}

// Valid checks the hole.
func (h *Hole) Valid() error {
	return firstOf(place("a hole", h.At), length("a hole", h.Diameter, 1), length("the copper around a hole", h.Land, 0), length("what is kept free around a hole", h.Keep, 0),
		check(h.Land == 0 || h.Land > h.Diameter, "the copper around a hole, %s, is not larger than the hole, %s", units.Text(h.Land), units.Text(h.Diameter)))
}
