package design

import (
	"strings"

	"goldentrace/core/geom"
)

// Settings of the project as a whole; the title block shows them. There is one, with id 1.
type Settings struct {
	ID       ID     `json:"id"`
	Title    string `json:"title"`
	Number   string `json:"number"`
	Revision string `json:"revision"`
	Author   string `json:"author"`
	Date     string `json:"date"`
	Unit     string `json:"unit"` // shown lengths: mm, in or mil
}

// Sheet of the circuit. Fields holds the entries of the title block that differ from the
// project's: title, number, revision, author or date.
type Sheet struct {
	ID     ID                `json:"id"`
	Name   string            `json:"name"`
	Order  int               `json:"order"`
	Size   string            `json:"size"` // one of SheetSizes; landscape
	Fields map[string]string `json:"fields,omitempty"`
}

// SheetSizes are the frames a sheet can have, in nanometres, landscape: the A series of ISO
// 216 and the sizes A (Letter) to D of ASME Y14.1.
var SheetSizes = map[string]geom.Point{
	"A4": {X: 297_000_000, Y: 210_000_000}, "A3": {X: 420_000_000, Y: 297_000_000},
	"A2": {X: 594_000_000, Y: 420_000_000}, "A1": {X: 841_000_000, Y: 594_000_000},
	"Letter": {X: 279_400_000, Y: 215_900_000}, "B": {X: 431_800_000, Y: 279_400_000},
	"C": {X: 558_800_000, Y: 431_800_000}, "D": {X: 863_600_000, Y: 558_800_000},
}

// Figure is a piece of a symbol's or footprint's drawing.
type Figure struct {
	ID   int          `json:"id,omitempty"` // its ref; see refs.go
	Form string       `json:"form"`         // line, arc (through three points), area (closed, body fill), solid (closed, ink fill), circle, text (of symbols)
	Pts  []geom.Point `json:"pts"`
	R    int64        `json:"r,omitempty"`    // radius of a circle around Pts[0]; height of a text's letters
	Text string       `json:"text,omitempty"` // its middle at Pts[0]
	// Width of a printed line; 0: as the rule for silk says. Symbols have one width for all.
	Width int64 `json:"width,omitempty"`
}

// PinTypes are the electrical types of pins.
var PinTypes = []string{"input", "output", "both", "triState", "passive", "supplyIn", "supplyOut", "openCollector", "openEmitter", "notConnected"}

// PinShapes are what is drawn where a pin meets the body, after IEC 60617-12: nothing, a ring for negation, a wedge for a
// clock, both, or a flag for active low.
var PinShapes = []string{"", "negated", "clock", "negatedClock", "low"}

// Pin of a symbol. At is where wires connect; the pin's line runs from there for Length in
// the direction Turn (quarter turns, 0 = to the right) to the body.
type Pin struct {
	ID     int        `json:"id,omitempty"` // its ref; see refs.go
	Number string     `json:"number"`
	Name   string     `json:"name,omitempty"`
	Type   string     `json:"type"`            // one of PinTypes
	Shape  string     `json:"shape,omitempty"` // one of PinShapes
	At     geom.Point `json:"at"`
	Turn   int        `json:"turn"`
	Length int64      `json:"length"`
}

// Symbol is the drawing of a part in the circuit.
type Symbol struct {
	ID      ID       `json:"id"`
	Name    string   `json:"name"`
	Origin  Origin   `json:"origin,omitzero"`
	Pins    []Pin    `json:"pins"`
	Figures []Figure `json:"figures"`
	// Where designator and value stand by default, relative to the origin.
	DesignatorAt geom.Point `json:"designatorAt"`
	ValueAt      geom.Point `json:"valueAt"`
	ShowNames    bool       `json:"showNames,omitempty"`
}

// Pin with the number, or nil.
func (s *Symbol) Pin(number string) *Pin {
	for i := range s.Pins {
		if s.Pins[i].Number == number {
			return &s.Pins[i]
		}
	}
	return nil
}

// LibraryPart ties a symbol to a footprint.
type LibraryPart struct {
	ID          ID                `json:"id"`
	Name        string            `json:"name"`
	Origin      Origin            `json:"origin,omitzero"`
	Description string            `json:"description"`
	Keywords    string            `json:"keywords,omitempty"`
	Prefix      string            `json:"prefix"`
	Symbol      string            `json:"symbol"`
	Footprint   string            `json:"footprint"` // empty: none chosen yet
	Value       string            `json:"value,omitempty"`
	PadOf       map[string]string `json:"padOf,omitempty"` // pin number → pad number where they differ; several with spaces between
	Units       []string          `json:"units,omitempty"` // symbols of the units of a package that has several
	// Footprints by density, where there are several; Footprint is the one for most boards.
	Densities map[string]string `json:"densities,omitempty"`
	Order     map[string]string `json:"order,omitempty"` // fields that a placed part begins with: maker, its number …
	Datasheet string            `json:"datasheet,omitempty"`
	Checked   *Checked          `json:"checked,omitempty"`
}

// Pads are the numbers of the pads that a pin goes to; more than one where the part joins them.
func (l *LibraryPart) Pads(pin string) []string {
	p, ok := l.PadOf[pin]
	if !ok {
		return []string{pin}
	}
	return strings.Fields(p)
}

// Part is a part placed in the circuit.
type Part struct {
	ID           ID          `json:"id"`
	Sheet        ID          `json:"sheet"`
	Library      string      `json:"library"`        // name of the LibraryPart
	Unit         int         `json:"unit,omitempty"` // from 1, of a package with several units; units of one package share a designator
	Designator   string      `json:"designator"`
	Value        string      `json:"value"`
	Footprint    string      `json:"footprint"`
	At           geom.Point  `json:"at"`
	Turn         int         `json:"turn"` // quarter turns anticlockwise
	Mirror       bool        `json:"mirror,omitempty"`
	DesignatorAt *geom.Point `json:"designatorAt,omitempty"` // moved away from its usual place
	ValueAt      *geom.Point `json:"valueAt,omitempty"`
	// Others are the designators in further uses of its sheet, by path.
	Others    map[string]string `json:"others,omitempty"`
	Fields    map[string]string `json:"fields,omitempty"` // entries of one's own: maker's number …
	NotFitted bool              `json:"notFitted,omitempty"`
}

// Called is the part's designator in the use of its sheet with the path.
func (p *Part) Called(path string) string {
	if s, ok := p.Others[path]; ok {
		return s
	}
	return p.Designator
}

// UnitLetter is A for unit 1, B for unit 2 …; empty for a part that is whole.
func (p *Part) UnitLetter() string {
	if p.Unit < 1 || p.Unit > 26 {
		return ""
	}
	return string(rune('A' + p.Unit - 1))
}

// Pose carries the symbol's coordinates onto the sheet.
func (p *Part) Pose() geom.Pose {
	return geom.Pose{At: p.At, Angle: int32(p.Turn) * 90_000, Mirror: p.Mirror}
}

// Wire is one straight piece of wire, or of a bundle of wires.
type Wire struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	A     geom.Point `json:"a"`
	B     geom.Point `json:"b"`
	// Bundle tells that it carries several nets: it joins only with bundles, and with wires
	// through taps.
	Bundle bool `json:"bundle,omitempty"`
}

// Label names the net at its place, within its sheet; on a bundle it names the members.
type Label struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"`
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn"`
}

// SupplyShapes are the shapes of supply marks: three kinds of ground after IEC 60617 (plain,
// protective, chassis), a bar, an arrow and a ring.
var SupplyShapes = []string{"ground", "earth", "chassis", "bar", "arrow", "ring"}

// Grounds tells whether marks of the shape hang below their place.
func Grounds(shape string) bool { return shape == "ground" || shape == "earth" || shape == "chassis" }

// Supply joins everything that bears its name, on all sheets.
type Supply struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"`
	Shape string     `json:"shape"`           // one of SupplyShapes
	Feeds bool       `json:"feeds,omitempty"` // the supply comes in here, as from a connector
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn"`
}

// OpenMark says that the pin at its place is left open on purpose.
type OpenMark struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	At    geom.Point `json:"at"`
}
