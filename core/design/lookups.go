package design

import (
	"cmp"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
)

// lookups find objects otherwise than by id. They follow each change at a cost that does
// not depend on the size of the document.
type lookups struct {
	symbols     map[string]*Symbol
	footprints  map[string]*Footprint
	parts       map[string]*LibraryPart
	placed      map[placedKey]*Placed
	designators map[string]map[ID]*Part // who bears it, in any use of its sheet
	free        map[string]int          // per prefix: no number below is free
	sheets      map[ID]map[ID]OnSheet
	specs       map[string]*NetSpec
	excuses     map[string]*Excuse
}

type placedKey struct {
	part ID
	path string
}

func newLookups() lookups {
	return lookups{
		symbols: map[string]*Symbol{}, footprints: map[string]*Footprint{}, parts: map[string]*LibraryPart{},
		placed: map[placedKey]*Placed{}, designators: map[string]map[ID]*Part{}, free: map[string]int{},
		sheets: map[ID]map[ID]OnSheet{}, specs: map[string]*NetSpec{}, excuses: map[string]*Excuse{},
	}
}

func (l *lookups) put(o Object) {
	switch o := o.(type) {
	case *Symbol:
		l.symbols[o.Name] = o
	case *Footprint:
		l.footprints[o.Name] = o
	case *LibraryPart:
		l.parts[o.Name] = o
	case *Placed:
		l.placed[placedKey{o.Part, o.Path}] = o
	case *NetSpec:
		l.specs[o.Net] = o
	case *Excuse:
		l.excuses[o.Key] = o
	case *Part:
		for _, s := range o.names() {
			if l.designators[s] == nil {
				l.designators[s] = map[ID]*Part{}
			}
			l.designators[s][o.ID] = o
		}
	}
	if o, ok := o.(OnSheet); ok {
		if l.sheets[o.SheetID()] == nil {
			l.sheets[o.SheetID()] = map[ID]OnSheet{}
		}
		l.sheets[o.SheetID()][o.ObjectID()] = o
	}
}

// unless deletes a name's entry when it still leads to the object.
func unless[K comparable, T comparable](m map[K]T, k K, o T) {
	if m[k] == o {
		delete(m, k)
	}
}

func (l *lookups) drop(o Object) {
	switch o := o.(type) {
	case *Symbol:
		unless(l.symbols, o.Name, o)
	case *Footprint:
		unless(l.footprints, o.Name, o)
	case *LibraryPart:
		unless(l.parts, o.Name, o)
	case *Placed:
		unless(l.placed, placedKey{o.Part, o.Path}, o)
	case *NetSpec:
		unless(l.specs, o.Net, o)
	case *Excuse:
		unless(l.excuses, o.Key, o)
	case *Part:
		for _, s := range o.names() {
			delete(l.designators[s], o.ID)
			if len(l.designators[s]) == 0 {
				delete(l.designators, s)
				if m := numbered.FindStringSubmatch(s); m != nil {
					if n, err := strconv.Atoi(m[2]); err == nil {
						l.free[m[1]] = min(l.free[m[1]], n)
					}
				}
			}
		}
	}
	if o, ok := o.(OnSheet); ok {
		delete(l.sheets[o.SheetID()], o.ObjectID())
	}
}

var numbered = regexp.MustCompile(`^(.*?)([0-9]+)$`)

// Prefix is a designator without its number.
func Prefix(designator string) string {
	if m := numbered.FindStringSubmatch(designator); m != nil {
		return m[1]
	}
	return designator
}

// names are the part's designators in all uses of its sheet.
func (p *Part) names() []string {
	out := []string{p.Designator}
	for _, s := range p.Others {
		out = append(out, s)
	}
	return out
}

// Symbol by name, or nil.
func (d *Doc) Symbol(name string) *Symbol { return d.lookups.symbols[name] }

// Footprint by name, or nil.
func (d *Doc) Footprint(name string) *Footprint { return d.lookups.footprints[name] }

// LibraryPart by name, or nil.
func (d *Doc) LibraryPart(name string) *LibraryPart { return d.lookups.parts[name] }

// PlacedOf is the board's side of a part in the use of its sheet with the path, or nil.
func (d *Doc) PlacedOf(part ID, path string) *Placed { return d.lookups.placed[placedKey{part, path}] }

// SpecOf is what is asked of the net, or nil.
func (d *Doc) SpecOf(net string) *NetSpec { return d.lookups.specs[net] }

// ExcuseOf the finding with the key, or nil.
func (d *Doc) ExcuseOf(key string) *Excuse { return d.lookups.excuses[key] }

// SymbolOf the part, or of the unit it is; nil when its library item is missing.
func (d *Doc) SymbolOf(p *Part) *Symbol {
	l := d.LibraryPart(p.Library)
	switch {
	case l == nil:
		return nil
	case p.Unit >= 1 && p.Unit <= len(l.Units):
		return d.Symbol(l.Units[p.Unit-1])
	}
	return d.Symbol(l.Symbol)
}

// Bearers lists the parts that bear the designator in any use of their sheets.
func (d *Doc) Bearers(designator string) []*Part {
	return slices.SortedFunc(maps.Values(d.lookups.designators[designator]), func(a, b *Part) int { return cmp.Compare(a.ID, b.ID) })
}

// DesignatorTaken tells whether a part of the circuit bears the designator.
func (d *Doc) DesignatorTaken(s string) bool { return len(d.lookups.designators[s]) > 0 }

// FreeDesignator is the prefix with the least number no part bears.
func (d *Doc) FreeDesignator(prefix string) string {
	for n := max(1, d.lookups.free[prefix]); ; n++ {
		if s := fmt.Sprintf("%s%d", prefix, n); !d.DesignatorTaken(s) {
			d.lookups.free[prefix] = n
			return s
		}
	}
}

// FreeDesignators are n designators of the prefix that no part bears, with the least numbers.
func (d *Doc) FreeDesignators(prefix string, n int) []string {
	out := make([]string, 0, n)
	for i := max(1, d.lookups.free[prefix]); len(out) < n; i++ {
		if s := fmt.Sprintf("%s%d", prefix, i); !d.DesignatorTaken(s) {
			out = append(out, s)
		}
	}
	return out
}

// ItemsOf lists what stands on the sheet, in the order of ids.
func (d *Doc) ItemsOf(sheet ID) []OnSheet {
	return slices.SortedFunc(maps.Values(d.lookups.sheets[sheet]), func(a, b OnSheet) int { return cmp.Compare(a.ObjectID(), b.ObjectID()) })
}
