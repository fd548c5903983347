package ordering

import (
	"errors"
	"fmt"
)

// Query asks a depot for parts. What is empty is not asked for.
type Query struct {
	Words    string              `json:"words,omitempty"`
	Numbers  []string            `json:"numbers,omitempty"` // the depot's own; only these
	Family   string              `json:"family,omitempty"`
	Is       map[string][]string `json:"is,omitempty"`    // property, maker, package, packaging or status → any of these texts
	Least    map[string]float64  `json:"least,omitempty"` // property → at least so much
	Most     map[string]float64  `json:"most,omitempty"`
	InStock  bool                `json:"inStock,omitempty"` // the whole quantity
	Placed   bool                `json:"placed,omitempty"`
	Reels    bool                `json:"reels,omitempty"`    // full reels count too
	Quantity int                 `json:"quantity,omitempty"` // 0: one
	Sort     string              `json:"sort,omitempty"`     // a property, or one of number, maker, package, stock, price; empty: how well words fit
	Down     bool                `json:"down,omitempty"`
	Skip     int                 `json:"skip,omitempty"`
	Limit    int                 `json:"limit,omitempty"` // 0: MostRows
}

// MostRows bounds one answer; more are asked for by Skip.
const MostRows = 200

// Filters that every family has, beside its properties.
const (
	FilterMaker     = "maker"
	FilterPackage   = "package"
	FilterPackaging = "packaging"
	FilterStatus    = "status"
)

// What of its body every part can be filtered and sorted by, when a family is chosen.
const (
	BodyLength = "body length"
	BodyWidth  = "body width"
	BodyHeight = "body height"
	LeadPitch  = "lead pitch"
	Leads      = "leads"
)

// Answer of a depot.
type Answer struct {
	Found    int     `json:"found"`
	Rows     []Row   `json:"rows"`
	Families []Count `json:"families"` // as many as there would be in each, were none chosen
	Facets   []Facet `json:"facets"`
}

// Row is a part with what the quantity comes to.
type Row struct {
	Part
	Cost *Cost `json:"cost"` // nil: not sold in what is allowed
}

// Facet is what can be chosen of a property, with how many parts there would be of each, the other filters holding.
type Facet struct {
	Name   string  `json:"name"`
	Unit   string  `json:"unit,omitempty"`
	Number bool    `json:"isNumber,omitempty"`
	Least  float64 `json:"least,omitempty"` // of what there is
	Most   float64 `json:"most,omitempty"`
	Values []Count `json:"values"`
}

// Count of parts that have a value.
type Count struct {
	Text  string  `json:"text"`
	Value float64 `json:"value,omitempty"`
	Count int     `json:"count"`
}

// Numbers asks a depot for parts by its numbers.
type Numbers struct {
	Numbers []string `json:"numbers"`
}

// Parts is the answer; numbers that it does not know are missing.
type Parts struct {
	Parts []Part `json:"parts"`
}

// MostNumbers bounds how many are asked for at once.
const MostNumbers = 2000

// Check refuses what is out of bounds.
func (q *Query) Check() error {
	switch {
	case len(q.Numbers) > MostNumbers:
		return fmt.Errorf("up to %d numbers can be asked for at once", MostNumbers)
	case len(q.Words) > 500:
		return errors.New("that are too many words to look for")
	case q.Quantity < 0 || q.Quantity > MostPieces:
		return fmt.Errorf("between 1 and %d pieces can be asked for", MostPieces)
	case q.Skip < 0 || q.Limit < 0 || q.Limit > MostRows:
		return fmt.Errorf("an answer has up to %d rows", MostRows)
	case len(q.Is)+len(q.Least)+len(q.Most) > 60:
		return errors.New("that are too many filters")
	}
	for name, list := range q.Is {
		if len(list) > 1000 {
			return fmt.Errorf("that are too many values of %s", name)
		}
	}
	return nil
}
