package library

import "goldentrace/core/design"

// Row is a part of a library as a list shows it: what it costs to send does not follow its drawings.
type Row struct {
	Name        string `json:"name"`
	Library     string `json:"library"`
	Version     int    `json:"version"`
	Prefix      string `json:"prefix"`
	Value       string `json:"value,omitempty"`
	Description string `json:"description"`
	Pins        int    `json:"pins"`
	Footprint   string `json:"footprint"`
	Checked     bool   `json:"checked,omitempty"` // somebody says so; whether it still holds is told by its card
}

// RowOf an item.
func RowOf(it Item) Row {
	p := it.Part
	r := Row{Name: p.Name, Library: p.Origin.Library, Version: p.Origin.Version, Prefix: p.Prefix, Value: p.Value, Description: p.Description, Footprint: p.Footprint, Checked: p.Checked != nil}
	for _, s := range it.symbols() {
		r.Pins += len(s.Pins)
	}
	return r
}

// symbols of the item: of its units, or its one.
func (it Item) symbols() []*design.Symbol {
	if len(it.Units) > 0 {
		return it.Units
	}
	if it.Symbol == nil {
		return nil
	}
	return []*design.Symbol{it.Symbol}
}
