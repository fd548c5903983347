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
	nets        map[string]*Net
	borne       map[ID]int // tracks, vias, areas and pads by net
	base        map[RuleKind]*Rule
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
		sheets: map[ID]map[ID]OnSheet{}, nets: map[string]*Net{}, borne: map[ID]int{}, base: map[RuleKind]*Rule{}, excuses: map[string]*Excuse{},
	}
}

// change takes an object in or out.
func (l *lookups) change(o Object, in bool) {
	if k := of[o.ObjectKind()]; k.index != nil {
		k.index(l, o, in)
	}
	if o, ok := o.(OnSheet); ok {
		at := l.sheets[o.SheetID()]
		switch {
		case !in:
			delete(at, o.ObjectID())
		case at == nil:
			l.sheets[o.SheetID()] = map[ID]OnSheet{o.ObjectID(): o}
		default:
			at[o.ObjectID()] = o
		}
	}
}

// keep makes a name lead to the object, or to nothing when it still led to it.
func keep[K comparable, T comparable](m map[K]T, k K, o T, in bool) {
	if in {
		m[k] = o
	} else if m[k] == o {
		delete(m, k)
	}
}

// bear counts who bears a net.
func (l *lookups) bear(net ID, in bool) {
	switch {
	case net == 0:
	case in:
		l.borne[net]++
	default:
		if l.borne[net]--; l.borne[net] == 0 {
			delete(l.borne, net)
		}
	}
}

// part makes the part found by its designators.
func (l *lookups) part(p *Part, in bool) {
	for _, s := range p.names() {
		if in {
			if l.designators[s] == nil {
				l.designators[s] = map[ID]*Part{}
			}
			l.designators[s][p.ID] = p
			continue
		}
		delete(l.designators[s], p.ID)
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
