package design

import (
	"fmt"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// On what a text or figure of the board lies.
const (
	OnSilk    = ""        // printed
	OnCopper  = "copper"  // copper of no net, on a copper layer
	OnMask    = "mask"    // the mask is open there
	OnPaste   = "paste"   // solder paste goes there
	OnDrawing = "drawing" // seen on the screen and on paper alone
)

// Surfaces lists them.
var Surfaces = []string{OnSilk, OnCopper, OnMask, OnPaste, OnDrawing}

// Fonts of texts on the board: our single-stroke alphabet, and the outline fonts that ship with the program.
const (
	Strokes = ""
	Words   = "words"
	Bold    = "bold"
	Mono    = "mono"
	Own     = "own" // a font of the project: Legend.Face
)

// Fonts lists them.
var Fonts = []string{Strokes, Words, Bold, Mono, Own}

// Legend is a text on the board.
type Legend struct {
	ID     ID         `json:"id"`
	At     geom.Point `json:"at"` // middle of the text
	Angle  int32      `json:"angle"`
	Bottom bool       `json:"bottom,omitempty"` // it lies on the lower side, or reads from there
	Height int64      `json:"height"`           // of a capital
	Text   string     `json:"text"`
	On     string     `json:"on,omitempty"`
	Layer  LayerID    `json:"layer,omitempty"`  // of copper
	Font   string     `json:"font,omitempty"`   // one of Fonts
	Face   ID         `json:"face,omitempty"`   // the asset with the font, when it is the project's own
	Stroke int64      `json:"stroke,omitempty"` // width of the lines of our alphabet; 0: an eighth of the height, at least as the rules say
	Apart  int64      `json:"apart,omitempty"`  // on silk: kept so far off what the mask leaves free
	Locked bool       `json:"locked,omitempty"`
}

// BoardFigure is something drawn on the board: lines, or what they bound.
type BoardFigure struct {
	ID     ID              `json:"id"`
	Name   string          `json:"name,omitempty"`
	On     string          `json:"on,omitempty"`
	Layer  LayerID         `json:"layer,omitempty"` // of copper
	Bottom bool            `json:"bottom,omitempty"`
	Lines  [][]geom.Corner `json:"lines"`
	Closed bool            `json:"closed,omitempty"` // each line goes back to where it began
	Filled bool            `json:"filled,omitempty"` // filled where an odd number of lines surround; they are closed
	Width  int64           `json:"width,omitempty"`  // of the lines; of filled figures: as much around them
	Apart  int64           `json:"apart,omitempty"`  // on silk: kept so far off what the mask leaves free
	Locked bool            `json:"locked,omitempty"`
	// Fiducial is the diameter of the mask's opening around a dot of copper that an assembler's machine finds the board by; 0: it is none.
	Fiducial int64 `json:"fiducial,omitempty"`
}

// MostFigure bounds the corners of one figure.
const MostFigure = 5_000

// surface checks on what something lies.
func surface(what, on string, layer LayerID, bottom bool) error {
	return firstOf(oneOf("a surface of the board", on, Surfaces),
		check((on == OnCopper) == (layer > 0), "%s on copper names its layer, and only such", what))
}

// layered checks that the copper layer is there.
func layered(d *Doc, what string, on string, layer LayerID) error {
	return check(on != OnCopper || d.Board == nil || d.Board.Position(layer) >= 0, "%s lies on a copper layer that is not there", what)
}

// Valid checks the legend.
func (l *Legend) Valid() error {
	return firstOf(name("text", l.Text), place("a text", l.At), angle("a text", l.Angle), length("the height of a text", l.Height, 100_000),
		surface("a text", l.On, l.Layer, l.Bottom), oneOf("a font", l.Font, Fonts), length("the width of a text's lines", l.Stroke, 0),
		length("what a text is kept off", l.Apart, 0),
		check((l.Font == Own) == (l.Face > 0), "a text in a font of the project names it, and only such"),
		check(l.Height <= 200*units.MM, "the letters of a text are %s high; 200 mm is the most", units.Text(l.Height)))
}

func (l *Legend) refers(d *Doc) error {
	a := d.Assets[l.Face]
	return firstOf(layered(d, "a text", l.On, l.Layer), check(l.Face == 0 || a != nil && a.Type == FontAsset,
		"the font of a text is not in the project"))
}

// Valid checks the figure.
func (f *BoardFigure) Valid() error {
	if err := firstOf(text("name of a figure", f.Name), surface("a figure", f.On, f.Layer, f.Bottom),
		length("the width of a figure's lines", f.Width, 0),
		length("what a figure is kept off", f.Apart, 0),
		check(f.Filled || f.Width > 0, "a figure that is not filled has lines of a width"), check(!f.Filled || f.Closed,
			"a figure that is filled has closed lines"),
		check(len(f.Lines) > 0, "a figure has no line"), length("the opening around a fiducial", f.Fiducial, 0),
		check(f.Fiducial == 0 || f.On == OnCopper && !f.Filled && len(f.Lines) == 1 && len(f.Lines[0]) == 1 && f.Fiducial >= f.Width,
			"a fiducial is a dot of copper, and the mask is open at least over it")); err != nil {
		return err
	}
	total := 0
	for _, l := range f.Lines {
		if total += len(l); total > MostFigure {
			return fmt.Errorf("a figure has more than %d corners", MostFigure)
		}
		if err := f.line(l); err != nil {
			return err
		}
	}
	return nil
}

// line checks one line of a figure: a place alone is a dot.
func (f *BoardFigure) line(l []geom.Corner) error {
	if err := firstOf(check(len(l) > 0, "a line of a figure has no corner"), place("a figure", geom.Named(l)...)); err != nil {
		return err
	}
	if f.Filled {
		if len(l) < 3 && (len(l) != 2 || l[0].Mid == nil && l[1].Mid == nil) {
			return fmt.Errorf("what a figure fills needs 3 corners")
		}
	}
	for i := range l {
		if i+1 == len(l) && (!f.Closed || len(l) == 1) {
			continue
		}
		p := geom.Straight(l[i].Point, l[(i+1)%len(l)].Point)
		if l[i].Mid != nil {
			p.M = *l[i].Mid
		}
		if err := arc("a figure", p); err != nil {
			return err
		}
	}
	return nil
}

func (f *BoardFigure) refers(d *Doc) error { return layered(d, "a figure", f.On, f.Layer) }

// FontAsset is the type of assets that are outline fonts.
const FontAsset = "font"
