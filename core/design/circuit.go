package design

import "goldentrace/core/geom"

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

// Sheet of the circuit.
type Sheet struct {
	ID    ID     `json:"id"`
	Name  string `json:"name"`
	Order int    `json:"order"`
	Size  string `json:"size"` // A4, A3 …; landscape
}

// SheetSizes are the frames a sheet can have, in nanometres, landscape (ISO 216).
var SheetSizes = map[string]geom.Point{
	"A4": {X: 297_000_000, Y: 210_000_000},
	"A3": {X: 420_000_000, Y: 297_000_000},
}

// Figure is a piece of a symbol's or footprint's drawing.
type Figure struct {
	Form string       `json:"form"` // line, area (closed, body fill), solid (closed, ink fill), circle
	Pts  []geom.Point `json:"pts"`
	R    int64        `json:"r,omitempty"` // radius of a circle around Pts[0]
}

// Pin of a symbol. At is where wires connect; the pin's line runs from there for Length in
// the direction Turn (quarter turns, 0 = to the right) to the body.
type Pin struct {
	Number string     `json:"number"`
	Name   string     `json:"name,omitempty"`
	Type   string     `json:"type"` // passive, input, output, both, supplyIn, supplyOut
	At     geom.Point `json:"at"`
	Turn   int        `json:"turn"`
	Length int64      `json:"length"`
}

// Symbol is the drawing of a part in the circuit.
type Symbol struct {
	ID      ID       `json:"id"`
	Name    string   `json:"name"`
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
	Description string            `json:"description"`
	Keywords    string            `json:"keywords,omitempty"`
	Prefix      string            `json:"prefix"`
	Symbol      string            `json:"symbol"`
	Footprint   string            `json:"footprint"` // empty: none chosen yet
	Value       string            `json:"value,omitempty"`
	PadOf       map[string]string `json:"padOf,omitempty"` // pin number → pad number where they differ
}

// Pad is the number of the pad that a pin goes to.
func (l *LibraryPart) Pad(pin string) string {
	if p, ok := l.PadOf[pin]; ok {
		return p
	}
	return pin
}

// Part is a part placed in the circuit.
type Part struct {
	ID           ID          `json:"id"`
	Sheet        ID          `json:"sheet"`
	Library      string      `json:"library"` // name of the LibraryPart
	Designator   string      `json:"designator"`
	Value        string      `json:"value"`
	Footprint    string      `json:"footprint"`
	At           geom.Point  `json:"at"`
	Turn         int         `json:"turn"` // quarter turns anticlockwise
	Mirror       bool        `json:"mirror,omitempty"`
	DesignatorAt *geom.Point `json:"designatorAt,omitempty"` // moved away from its usual place
	ValueAt      *geom.Point `json:"valueAt,omitempty"`
}

// Pose carries the symbol's coordinates onto the sheet.
func (p *Part) Pose() geom.Pose {
	return geom.Pose{At: p.At, Angle: int32(p.Turn) * 90_000, Mirror: p.Mirror}
}

// Wire is one straight piece of wire.
type Wire struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	A     geom.Point `json:"a"`
	B     geom.Point `json:"b"`
}

// Label names the net at its place, within its sheet.
type Label struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"`
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn"`
}

// Supply joins everything that bears its name, on all sheets.
type Supply struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	Name  string     `json:"name"`
	Shape string     `json:"shape"` // ground, bar
	At    geom.Point `json:"at"`
	Turn  int        `json:"turn"`
}

// OpenMark says that the pin at its place is left open on purpose.
type OpenMark struct {
	ID    ID         `json:"id"`
	Sheet ID         `json:"sheet"`
	At    geom.Point `json:"at"`
}
