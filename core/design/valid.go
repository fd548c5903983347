package design

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// LongestText bounds names, values and other one-line texts, in bytes.
const LongestText = 200

func text(what, s string) error {
	switch {
	case len(s) > LongestText:
		return fmt.Errorf("the %s is %d characters long; %d is the most", what, len(s), LongestText)
	case !utf8.ValidString(s):
		return fmt.Errorf("the %s is not proper text (UTF-8)", what)
	case strings.ContainsFunc(s, unicode.IsControl):
		return fmt.Errorf("the %s holds a control character or a line break", what)
	}
	return nil
}

func name(what, s string) error {
	if strings.TrimSpace(s) == "" {
		return fmt.Errorf("the %s is empty", what)
	}
	if s != strings.TrimSpace(s) {
		return fmt.Errorf("the %s begins or ends with a space", what)
	}
	return text(what, s)
}

func place(what string, pts ...geom.Point) error {
	for _, p := range pts {
		if p.X > units.Limit || p.X < -units.Limit || p.Y > units.Limit || p.Y < -units.Limit {
			return fmt.Errorf("%s lies at %s, %s, beyond the %s a drawing can reach",
				what, units.Text(p.X), units.Text(p.Y), units.Text(units.Limit))
		}
	}
	return nil
}

func length(what string, v, least int64) error {
	if v < least || v > units.Limit {
		return fmt.Errorf("%s is %s; it must lie between %s and %s", what, units.Text(v), units.Text(least), units.Text(units.Limit))
	}
	return nil
}

func turn(what string, t int) error {
	if t < 0 || t > 3 {
		return fmt.Errorf("%s is turned by %d quarters; 0 to 3 are meant", what, t)
	}
	return nil
}

func angle(what string, a int32) error {
	if a < 0 || a >= 360_000 {
		return fmt.Errorf("%s is turned by %g°; an angle from 0° to below 360° is meant", what, float64(a)/1000)
	}
	return nil
}

// The most there can be of what an object lists; more would take long to draw and to keep.
const (
	MostFields    = 100  // entries of one's own of a part
	MostBlockPins = 500  // of a block
	MostPins      = 5000 // of a symbol, and pads of a footprint
	MostFigures   = 2000 // of a symbol's or footprint's drawing
)

// most checks how many there are of something.
func most(what string, n, limit int) error {
	return check(n <= limit, "%s has %d entries; %d are the most", what, n, limit)
}

func firstOf(errs ...error) error {
	for _, e := range errs {
		if e != nil {
			return e
		}
	}
	return nil
}

func check(ok bool, format string, args ...any) error {
	if ok {
		return nil
	}
	return fmt.Errorf(format, args...)
}

func figures(what string, figs []Figure, texts bool) error {
	if err := most("the drawing of "+what, len(figs), MostFigures); err != nil {
		return err
	}
	for _, f := range figs {
		ok := len(f.Pts) > 0 && len(f.Pts) <= 10_000
		switch f.Form {
		case "line":
			ok = ok && len(f.Pts) >= 2
		case "arc":
			ok = len(f.Pts) == 3 && (geom.Piece{A: f.Pts[0], M: f.Pts[1], B: f.Pts[2]}).Round()
			if ok {
				if err := flat(what, geom.Piece{A: f.Pts[0], M: f.Pts[1], B: f.Pts[2]}); err != nil {
					return err
				}
			}
		case "area", "solid":
			ok = ok && len(f.Pts) >= 3
		case "circle":
			ok = ok && len(f.Pts) == 1 && f.R > 0
		case "text":
			if err := firstOf(check(texts, "%s has no texts of its own; the board's legends are", what), name("text of "+what, f.Text)); err != nil {
				return err
			}
			ok = ok && len(f.Pts) == 1 && f.R > 0
		default:
			return fmt.Errorf("%s is drawn with the unknown form %q", what, f.Form)
		}
		if !ok {
			return fmt.Errorf("%s has a %s with %d points", what, f.Form, len(f.Pts))
		}
		if err := firstOf(length("a line of "+what, f.Width, 0), length("a circle of "+what, f.R, 0)); err != nil {
			return err
		}
		if err := place(what, f.Pts...); err != nil {
			return err
		}
	}
	return nil
}

// Valid checks the settings.
func (s *Settings) Valid() error {
	return firstOf(text("title", s.Title), text("document number", s.Number), text("revision", s.Revision),
		text("author", s.Author), text("date", s.Date),
		check(s.Unit == "mm" || s.Unit == "in" || s.Unit == "mil", "%q is not one of the units mm, in and mil", s.Unit))
}

// SheetFields are the entries of the title block that a sheet can have for itself.
var SheetFields = []string{"title", "number", "revision", "author", "date"}

// Valid checks the sheet.
func (s *Sheet) Valid() error {
	_, ok := SheetSizes[s.Size]
	if err := firstOf(name("sheet's name", s.Name), check(ok, "%q is not a size of sheet", s.Size)); err != nil {
		return err
	}
	for k, v := range s.Fields {
		if err := firstOf(check(slices.Contains(SheetFields, k), "%q is not an entry of the title block", k), text(k, v)); err != nil {
			return err
		}
	}
	return nil
}

func oneOf(what, s string, allowed []string) error {
	return check(slices.Contains(allowed, s), "%q is not %s; there are %s", s, what, strings.Join(allowed, ", "))
}

// Valid checks the symbol: its pins have numbers of their own and its drawing is whole.
func (s *Symbol) Valid() error {
	if err := firstOf(
		most("the list of pins of the symbol "+s.Name, len(s.Pins), MostPins),
		name("symbol's name", s.Name), s.Origin.Valid(),
		figures("the symbol "+s.Name, s.Figures, true),
	); err != nil {
		return err
	}
	seen := map[string]bool{}
	for _, p := range s.Pins {
		if err := firstOf(name("pin's number", p.Number), text("pin's name", p.Name), turn("pin "+p.Number, p.Turn),
			place("pin "+p.Number, p.At), length("pin "+p.Number, p.Length, 0),
			check(!seen[p.Number], "the symbol %s has two pins %s", s.Name, p.Number),
			check(slices.Contains(PinShapes, p.Shape), "pin %s of the symbol %s has the unknown shape %q", p.Number, s.Name, p.Shape),
			check(slices.Contains(PinTypes, p.Type), "pin %s of the symbol %s has the unknown type %q", p.Number, s.Name, p.Type)); err != nil {
			return err
		}
		seen[p.Number] = true
	}
	return firstOf(
		distinctRefs("the list of pins of "+s.Name, s.Pins, func(p *Pin) int { return p.ID }),
		distinctRefs("the drawing of "+s.Name, s.Figures, func(f *Figure) int { return f.ID }),
	)
}

// Valid checks the library part.
func (l *LibraryPart) Valid() error {
	if err := firstOf(
		most("the list of units of "+l.Name, len(l.Units), 26),
		most("the pad table of "+l.Name, len(l.PadOf), MostPins),
	); err != nil {
		return err
	}
	for _, u := range l.Units {
		if err := name("symbol of a unit", u); err != nil {
			return err
		}
	}
	return firstOf(name("library part's name", l.Name), l.Origin.Valid(), name("prefix", l.Prefix), name("symbol", l.Symbol),
		text("footprint", l.Footprint), text("value", l.Value), text("description", l.Description),
		text("keywords", l.Keywords), text("datasheet", l.Datasheet), l.Checked.valid(), l.lists())
}

// lists checks footprints by density and ordering fields.
func (l *LibraryPart) lists() error {
	for k, v := range l.Densities {
		if err := firstOf(oneOf("a density", k, Densities), name("footprint", v)); err != nil {
			return err
		}
	}
	if err := most("the ordering data of "+l.Name, len(l.Order), MostFields); err != nil {
		return err
	}
	for k, v := range l.Order {
		if err := firstOf(name("field's name", k), text(k, v)); err != nil {
			return err
		}
	}
	return nil
}

// Valid checks the part.
func (p *Part) Valid() error {
	if err := firstOf(
		most("the list of fields of "+p.Designator, len(p.Fields), MostFields),
		most("the list of designators of "+p.Designator, len(p.Others), 100_000),
	); err != nil {
		return err
	}
	for _, d := range p.Others {
		if err := name("designator", d); err != nil {
			return err
		}
	}
	for k, v := range p.Fields {
		if err := firstOf(name("field's name", k), text(k, v)); err != nil {
			return err
		}
	}
	return firstOf(name("designator", p.Designator), text("value", p.Value), text("footprint", p.Footprint),
		place("part "+p.Designator, p.At), turn("part "+p.Designator, p.Turn),
		check(p.Unit >= 0 && p.Unit <= 26, "%s is unit %d of its package; 1 to 26 are meant", p.Designator, p.Unit))
}

// Valid checks the wire.
func (w *Wire) Valid() error {
	return firstOf(place("a wire", w.A, w.B), check(w.A != w.B, "a wire has no length"))
}

// Valid checks the label.
func (l *Label) Valid() error {
	return firstOf(netName("net label", l.Name), place("label "+l.Name, l.At), turn("label "+l.Name, l.Turn))
}

// Valid checks the supply mark.
func (s *Supply) Valid() error {
	return firstOf(name("supply's name", s.Name), place("supply "+s.Name, s.At), turn("supply "+s.Name, s.Turn),
		check(!IsBundle(s.Name), "a supply has one name; %s is a bundle", s.Name), oneOf("a shape of supply mark", s.Shape, SupplyShapes))
}

// Valid checks the mark.
func (o *OpenMark) Valid() error { return place("a no-connect mark", o.At) }

// netName checks the name of a net or bundle.
func netName(what, s string) error {
	if err := name(what, s); err != nil {
		return err
	}
	_, err := Members(s)
	return err
}

var ways = []string{"in", "out", "both"}

// Valid checks the port.
func (p *Port) Valid() error {
	return firstOf(
		netName("port's name", p.Name),
		oneOf("a direction of a port", p.Way, ways),
		place("port "+p.Name, p.At),
		turn("port "+p.Name, p.Turn),
	)
}

// Valid checks the tap.
func (t *Tap) Valid() error {
	return firstOf(name("member's name", t.Member), check(!IsBundle(t.Member), "a tap leads out one net; %s is a bundle", t.Member),
		place("tap "+t.Member, t.At), turn("tap "+t.Member, t.Turn))
}

// Valid checks the block: its pins lie on its sides and have names of their own.
func (b *SheetBlock) Valid() error {
	what := "the block " + b.Name
	if err := firstOf(most("the list of pins of "+what, len(b.Pins), MostBlockPins), name("block's name", b.Name), check(!strings.Contains(b.Name, "/"), "a block's name may not hold a slash: %s", b.Name),
		place(what, b.At, b.At.Add(b.Size)), length("the width of "+what, b.Size.X, 1), length("the height of "+what, b.Size.Y, 1)); err != nil {
		return err
	}
	seen := map[string]bool{}
	for _, p := range b.Pins {
		along := b.Size.Y
		if p.Side&1 == 1 {
			along = b.Size.X
		}
		if err := firstOf(netName("pin's name", p.Name), oneOf("a direction of a pin", p.Way, ways), turn("pin "+p.Name, p.Side),
			check(p.Pos >= 0 && p.Pos <= along, "pin %s does not lie on the side of %s", p.Name, what),
			check(!seen[p.Name], "%s has two pins %s", what, p.Name)); err != nil {
			return err
		}
		seen[p.Name] = true
	}
	return nil
}

// Valid checks the cluster.
func (c *Cluster) Valid() error {
	return firstOf(name("cluster's title", c.Title), place("cluster "+c.Title, c.A, c.B), oneOf("a tint", c.Tint, Tints),
		check(c.A.X != c.B.X && c.A.Y != c.B.Y, "the cluster %s has no area", c.Title))
}

// prose checks a text of several lines.
func prose(what, s string) error {
	switch {
	case strings.TrimSpace(s) == "":
		return fmt.Errorf("the %s is empty", what)
	case len(s) > LongestNote:
		return fmt.Errorf("the %s is %d characters long; %d is the most", what, len(s), LongestNote)
	case !utf8.ValidString(s):
		return fmt.Errorf("the %s is not proper text (UTF-8)", what)
	case strings.ContainsFunc(s, func(r rune) bool { return r != '\n' && r != '\t' && unicode.IsControl(r) }):
		return fmt.Errorf("the %s holds a control character", what)
	}
	return nil
}

// Valid checks the note.
func (n *Note) Valid() error {
	return firstOf(prose("note", n.Text), place("a note", n.At), length("the width of a note", n.Width, units.MM),
		length("the height of a note's letters", n.Size, units.MM/2), oneOf("a tint", n.Tint, Tints))
}

// Valid checks the asset by what can be said without reading the picture; package
// core/picture reads it.
func (a *Asset) Valid() error {
	return firstOf(name("picture's name", a.Name), oneOf("a kind of picture", a.Type, []string{"png", "jpeg", "svg", "glb", FontAsset}),
		check(a.Type == "glb" || a.Type == FontAsset || a.Width > 0 && a.Height > 0, "the picture %s has no size", a.Name),
		check(len(a.Data) > 0 && len(a.Data) <= LargestAsset, "the picture %s has %d bytes; 1 to %d are allowed", a.Name, len(a.Data), LargestAsset))
}

// Valid checks the picture.
func (p *Picture) Valid() error {
	return firstOf(
		place("a picture", p.At, p.At.Add(p.Size)),
		length("the width of a picture", p.Size.X, units.MM/10),
		length("the height of a picture", p.Size.Y, units.MM/10),
	)
}

// Valid checks the timing diagram but for its text's meaning.
func (t *Timing) Valid() error {
	return firstOf(prose("timing diagram", t.Text), place("a timing diagram", t.At), length("the width of a slot", t.Slot, units.MM/2))
}

// Valid checks the shape.
func (s *Graphic) Valid() error {
	ok := len(s.Pts) >= 2 && len(s.Pts) <= 1000
	if s.Form == "rectangle" || s.Form == "ellipse" {
		ok = len(s.Pts) == 2
	}
	return firstOf(oneOf("a form", s.Form, GraphicForms), oneOf("a tint", s.Tint, Tints), place("a shape", s.Pts...),
		check(ok, "a %s of %d points cannot be drawn", s.Form, len(s.Pts)))
}

// Valid checks the excuse.
func (e *Excuse) Valid() error {
	return firstOf(
		check(e.Key != "", "an excuse names no finding"),
		check(len(e.Key)+len(e.Text)+len(e.Fingerprint) < 4*LongestNote, "the excuse is too long"),
		prose("reason", e.Reason),
		text("day", e.Made),
	)
}

// Severities a kind of finding can be given.
var Severities = []string{"fault", "warning", "todo", "off"}

// Valid checks the severities.
func (c *Checks) Valid() error {
	if err := firstOf(most("the list of kinds", len(c.Kinds), 200), most("the list of pairs", len(c.Pairs), 200)); err != nil {
		return err
	}
	for k, v := range c.Kinds {
		if err := firstOf(name("kind of finding", k), oneOf("a severity", v, Severities)); err != nil {
			return err
		}
	}
	for k, v := range c.Pairs {
		a, b, _ := strings.Cut(k, "|")
		if err := firstOf(
			oneOf("a type of pin", a, PinTypes),
			oneOf("a type of pin", b, PinTypes),
			oneOf("a severity", v, Severities),
		); err != nil {
			return err
		}
	}
	return nil
}
