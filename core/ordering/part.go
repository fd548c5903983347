// Package ordering is what buying parts takes: what a depot has on offer, how it is asked, what so many cost, and the basket for so
// many boards. It knows no depot by itself; server speaks to one in these types, over HTTP (docs/depot-service.md). Money is in
// millionths of a euro.
package ordering

import "goldentrace/core/design"

// Part is one that a depot has on offer.
type Part struct {
	Number      string     `json:"number"` // the depot's own, by which it is ordered
	Maker       string     `json:"maker"`
	MakerNumber string     `json:"makerNumber"`
	Family      string     `json:"family"`
	Text        string     `json:"text"`
	Package     string     `json:"package"`
	Status      string     `json:"status"`     // one of Statuses
	Properties  []Property `json:"properties"` // in the order of the family
	Body        Body       `json:"body"`
	Stock       int        `json:"stock"`
	Placed      bool       `json:"placed"` // the placement line has it on its machines
	Weeks       int        `json:"weeks"`  // until more of them come
	Offers      []Offer    `json:"offers"`
	Datasheet   string     `json:"datasheet,omitempty"`
}

// Statuses of parts: made, to be made no longer, not made any more.
var Statuses = []string{"made", "last orders", "ended"}

// Property of a part: a number with its unit, or a word.
type Property struct {
	Name  string  `json:"name"`
	Unit  string  `json:"unit,omitempty"` // SI, of a number; % for shares; empty for words and plain numbers
	Value float64 `json:"value,omitempty"`
	Text  string  `json:"text"` // as it is written: "10 kΩ", "X7R"
	// Number tells that Value counts.
	Number bool `json:"isNumber,omitempty"`
}

// Body of a part, at its greatest. Lengths are nanometres, 0: not said.
type Body struct {
	Length  int64 `json:"length"`
	Width   int64 `json:"width"`
	Height  int64 `json:"height"`
	Pins    int   `json:"pins"`
	Pitch   int64 `json:"pitch"`
	Through bool  `json:"through"` // its leads go through the board
}

// Property with the name, or nil.
func (p *Part) Property(name string) *Property {
	for i := range p.Properties {
		if p.Properties[i].Name == name {
			return &p.Properties[i]
		}
	}
	return nil
}

// Fields of a part of the circuit that say what is ordered for it.
const (
	FieldMaker       = "maker"
	FieldMakerNumber = "part number"
	FieldNumber      = "order number"
	FieldDatasheet   = "datasheet"
)

// Fields that a part of the circuit gets when this one is chosen for it.
func (p *Part) Fields() map[string]string {
	out := map[string]string{FieldMaker: p.Maker, FieldMakerNumber: p.MakerNumber, FieldNumber: p.Number}
	if p.Datasheet != "" {
		out[FieldDatasheet] = p.Datasheet
	}
	return out
}

// OrderNumber of a part of the circuit: its own, or its library part's. Empty: none was chosen.
func OrderNumber(p *design.Part, l *design.LibraryPart) string {
	if n := p.Fields[FieldNumber]; n != "" {
		return n
	}
	if l != nil {
		return l.Order[FieldNumber]
	}
	return ""
}
