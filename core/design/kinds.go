package design

import (
	"fmt"
	"slices"
)

// descriptor is all there is to know about a kind of object; every other list of kinds is made from
// these. What an object is by itself (its fields, Valid) stands beside its struct.
type descriptor struct {
	kind   Kind
	blank  func() Object
	open   func(*Doc) table // makes the place where objects of the kind stand in a document
	single ID               // the id of the one object there is; 0: there can be many
	plural string           // what several are called, where each has a name of its own
	name   func(Object) string
	called func(*Doc, Object) string
	refers func(*Doc, Object) error
	left   func(d *Doc, was, is Object) error
	index  func(l *lookups, o Object, in bool)
	since  int
	mend   func(version int, body []byte) []byte
	apart  bool
}

// about describes a kind in terms of its own type. Fields that are nil say nothing.
type about[P Object] struct {
	table  func(*Doc) *Table[P] // where many stand
	one    func(*Doc) *P        // where the one stands
	single ID
	plural string
	name   func(P) string         // that no other of the kind may have
	called func(*Doc, P) string   // in a sentence
	refers func(P, *Doc) error    // says which thing it refers to is not there; O(1)
	left   func(*Doc, P, P) error // says who still refers to it when it was removed (the second is nil) or changed
	index  func(l *lookups, o P, in bool)
	// since is the first version whose objects of this kind can be read by themselves; earlier ones are
	// upgraded together with their whole document. 0: all can.
	since int
	// mend brings the body of an object that an earlier version wrote, not before since, to the present one.
	mend  func(version int, body []byte) []byte
	apart bool // no file that is made follows from it, so that it is left out of what a handoff is compared by
}

func describe[T any, P interface {
	*T
	Object
}](a about[P]) descriptor {
	blank := func() Object { return P(new(T)) }
	d := descriptor{kind: blank().ObjectKind(), blank: blank, single: a.single, plural: a.plural, since: a.since, mend: a.mend, apart: a.apart}
	d.open = func(doc *Doc) table {
		if a.one != nil {
			return &alone[P]{a.one(doc)}
		}
		at := a.table(doc)
		*at = Table[P]{}
		return &cell[P]{at: at}
	}
	if a.name != nil {
		d.name = func(o Object) string { return a.name(o.(P)) }
	}
	if a.called != nil {
		d.called = func(doc *Doc, o Object) string { return a.called(doc, o.(P)) }
	}
	if a.refers != nil {
		d.refers = func(doc *Doc, o Object) error { return a.refers(o.(P), doc) }
	}
	if a.left != nil {
		d.left = func(doc *Doc, was, is Object) error {
			now, _ := is.(P)
			return a.left(doc, was.(P), now)
		}
	}
	if a.index != nil {
		d.index = func(l *lookups, o Object, in bool) { a.index(l, o.(P), in) }
	}
	return d
}

// catalog lists the kinds as they stand in a file: what others refer to comes first.
var catalog []descriptor

// of finds the descriptor of a kind.
var of map[Kind]*descriptor

func init() { // the descriptors ask documents, which ask the catalog
	catalog = append(append(circuitKinds(), checkKinds()...), boardKinds()...)
	of = make(map[Kind]*descriptor, len(catalog))
	for i := range catalog {
		of[catalog[i].kind] = &catalog[i]
	}
}

func circuitKinds() []descriptor {
	return []descriptor{
		describe(about[*Settings]{
			one:    func(d *Doc) **Settings { return &d.Settings },
			single: SettingsID,
			called: always[*Settings]("the project's settings"),
			left: func(_ *Doc, _, is *Settings) error {
				return check(is != nil, "the project's settings cannot be removed")
			},
		}),
		describe(about[*Checks]{one: func(d *Doc) **Checks { return &d.Checks }, single: ChecksID}),
		describe(about[*Basket]{one: func(d *Doc) **Basket { return &d.Basket }, single: BasketID, apart: true}),
		describe(about[*Sheet]{
			table:  func(d *Doc) *Table[*Sheet] { return &d.Sheets },
			plural: "sheets",
			name:   func(s *Sheet) string { return s.Name },
			called: func(_ *Doc, s *Sheet) string { return "the sheet " + s.Name },
			left: func(d *Doc, was, is *Sheet) error {
				return check(is != nil || len(d.ItemsOf(was.ID))+len(d.Uses(was.ID)) == 0, "something still stands on the sheet %s, or for it", was.Name)
			},
		}),
		describe(about[*Symbol]{
			table:  func(d *Doc) *Table[*Symbol] { return &d.Symbols },
			plural: "symbols",
			name:   func(s *Symbol) string { return s.Name },
			called: func(_ *Doc, s *Symbol) string { return "the symbol " + s.Name },
			left:   seldom[*Symbol],
			index:  func(l *lookups, o *Symbol, in bool) { keep(l.symbols, o.Name, o, in) },
		}),
		describe(about[*Footprint]{
			table:  func(d *Doc) *Table[*Footprint] { return &d.Footprints },
			plural: "footprints",
			name:   func(f *Footprint) string { return f.Name },
			called: func(_ *Doc, f *Footprint) string { return "the footprint " + f.Name },
			refers: (*Footprint).refers,
			left:   seldom[*Footprint],
			index:  func(l *lookups, o *Footprint, in bool) { keep(l.footprints, o.Name, o, in) },
		}),
		describe(about[*LibraryPart]{
			table:  func(d *Doc) *Table[*LibraryPart] { return &d.LibraryParts },
			plural: "library parts",
			name:   func(p *LibraryPart) string { return p.Name },
			called: func(_ *Doc, p *LibraryPart) string { return "the library part " + p.Name },
			refers: (*LibraryPart).refers,
			left:   seldom[*LibraryPart],
			index:  func(l *lookups, o *LibraryPart, in bool) { keep(l.parts, o.Name, o, in) },
		}),
		describe(about[*Asset]{table: func(d *Doc) *Table[*Asset] { return &d.Assets }, left: seldom[*Asset]}),
		describe(about[*Part]{
			table:  func(d *Doc) *Table[*Part] { return &d.Parts },
			called: func(_ *Doc, p *Part) string { return "the part " + p.Designator },
			refers: func(p *Part, d *Doc) error {
				return check(d.SymbolOf(p) != nil, "the part %s is a %q, which is not among the project's library parts", p.Designator, p.Library)
			},
			index: (*lookups).part,
		}),
		describe(about[*Wire]{table: func(d *Doc) *Table[*Wire] { return &d.Wires }, called: always[*Wire]("a wire")}),
		describe(about[*Label]{
			table:  func(d *Doc) *Table[*Label] { return &d.Labels },
			called: func(_ *Doc, o *Label) string { return "the label " + o.Name },
		}),
		describe(about[*Port]{
			table:  func(d *Doc) *Table[*Port] { return &d.Ports },
			called: func(_ *Doc, o *Port) string { return "the port " + o.Name },
		}),
		describe(about[*Tap]{table: func(d *Doc) *Table[*Tap] { return &d.Taps }}),
		describe(about[*Supply]{
			table:  func(d *Doc) *Table[*Supply] { return &d.Supplies },
			called: func(_ *Doc, o *Supply) string { return "the supply mark " + o.Name },
		}),
		describe(about[*OpenMark]{table: func(d *Doc) *Table[*OpenMark] { return &d.OpenMarks }}),
		describe(about[*SheetBlock]{
			table:  func(d *Doc) *Table[*SheetBlock] { return &d.Blocks },
			called: func(_ *Doc, o *SheetBlock) string { return "the block " + o.Name },
			refers: (*SheetBlock).refers,
		}),
		describe(about[*Cluster]{table: func(d *Doc) *Table[*Cluster] { return &d.Clusters }}),
		describe(about[*Note]{table: func(d *Doc) *Table[*Note] { return &d.Notes }}),
		describe(about[*Picture]{table: func(d *Doc) *Table[*Picture] { return &d.Pictures }, refers: func(p *Picture, d *Doc) error {
			return check(d.Assets[p.Asset] != nil, "a picture (id %d) is not in the project", p.ID)
		}}),
		describe(about[*Timing]{table: func(d *Doc) *Table[*Timing] { return &d.Timings }}),
		describe(about[*Graphic]{table: func(d *Doc) *Table[*Graphic] { return &d.Graphics }}),
	}
}

func checkKinds() []descriptor {
	return []descriptor{
		describe(about[*Net]{table: func(d *Doc) *Table[*Net] { return &d.Nets }, plural: "nets", name: func(n *Net) string { return n.Name },
			called: func(_ *Doc, n *Net) string { return "the net " + n.Name }, since: 2,
			refers: func(n *Net, d *Doc) error {
				return check(n.Partner == 0 || d.Nets[n.Partner] != nil, "the partner of the net %s is not there", n.Name)
			},
			left: func(d *Doc, was, is *Net) error {
				return check(is != nil || d.Borne(was.ID) == 0, "copper of the board still bears the net %s", was.Name)
			},
			index: func(l *lookups, o *Net, in bool) { keep(l.nets, o.Name, o, in) }}),
		describe(about[*Excuse]{
			table: func(d *Doc) *Table[*Excuse] { return &d.Excuses },
			index: func(l *lookups, o *Excuse, in bool) { keep(l.excuses, o.Key, o, in) },
		}),
	}
}

func boardKinds() []descriptor {
	return []descriptor{
		describe(about[*Board]{
			one:    func(d *Doc) **Board { return &d.Board },
			single: BoardID,
			called: always[*Board]("the board's outline or layers"),
			since:  2,
			mend:   boardOfFive,
			left: func(d *Doc, was, is *Board) error {
				if is == nil {
					return fmt.Errorf("the board cannot be removed")
				}
				return d.layersLeft(was, is)
			},
		}),
		describe(about[*RuleArea]{
			table:  func(d *Doc) *Table[*RuleArea] { return &d.RuleAreas },
			called: func(_ *Doc, a *RuleArea) string { return "the area " + a.Name },
			since:  2,
			refers: (*RuleArea).refers,
			left: func(d *Doc, was, is *RuleArea) error {
				holds := func(r *Rule) bool { return r.A.Area == was.ID || r.B.Area == was.ID }
				return check(is != nil || !slices.ContainsFunc(slices.Collect(d.Rules.All()), holds), "a rule still holds in the area %s", was.Name)
			},
		}),
		describe(about[*Rule]{
			table:  func(d *Doc) *Table[*Rule] { return &d.Rules },
			plural: "rules for everything",
			name:   (*Rule).distinct,
			called: func(_ *Doc, r *Rule) string { return "a rule of the " + r.Kind.Words() },
			since:  2,
			refers: (*Rule).refers,
			left: func(d *Doc, was, is *Rule) error {
				return check(d.Base(was.Kind) != nil, "of the %s there must be a rule for everything", was.Kind.Words())
			},
			index: func(l *lookups, r *Rule, in bool) {
				if r.Everywhere() && (in || l.base[r.Kind] == r) {
					keep(l.base, r.Kind, r, in)
				}
			},
		}),
		describe(about[*Placed]{
			table:  func(d *Doc) *Table[*Placed] { return &d.Placed },
			called: func(_ *Doc, p *Placed) string { return "the part " + p.Designator + " on the board" },
			since:  2,
			refers: (*Placed).refers,
			index: func(l *lookups, p *Placed, in bool) {
				keep(l.placed, placedKey{p.Part, p.Path}, p, in)
				for _, n := range p.Nets {
					l.bear(n, in)
				}
			},
		}),
		describe(about[*Track]{
			table:  func(d *Doc) *Table[*Track] { return &d.Tracks },
			called: func(d *Doc, t *Track) string { return "a track of " + d.NetName(t.Net) },
			since:  2,
			refers: (*Track).refers,
			index:  func(l *lookups, t *Track, in bool) { l.bear(t.Net, in) },
		}),
		describe(about[*Via]{
			table:  func(d *Doc) *Table[*Via] { return &d.Vias },
			called: func(d *Doc, v *Via) string { return "a via of " + d.NetName(v.Net) },
			since:  2,
			refers: (*Via).refers,
			index:  func(l *lookups, v *Via, in bool) { l.bear(v.Net, in) },
		}),
		describe(about[*Hole]{table: func(d *Doc) *Table[*Hole] { return &d.Holes }}),
		describe(about[*Legend]{table: func(d *Doc) *Table[*Legend] { return &d.Legends }, called: always[*Legend]("a text on the board"), refers: (*Legend).refers}),
		describe(about[*BoardFigure]{table: func(d *Doc) *Table[*BoardFigure] { return &d.Figures }, called: always[*BoardFigure]("a figure on the board"), refers: (*BoardFigure).refers}),
		describe(about[*Pour]{
			table:  func(d *Doc) *Table[*Pour] { return &d.Pours },
			called: func(_ *Doc, p *Pour) string { return "the copper area " + p.Name },
			refers: (*Pour).refers,
			index:  func(l *lookups, p *Pour, in bool) { l.bear(p.Net, in) },
		}),
		describe(about[*Stitching]{
			table:  func(d *Doc) *Table[*Stitching] { return &d.Stitchings },
			plural: "stitchings", name: func(s *Stitching) string { return s.Name },
			called: func(_ *Doc, s *Stitching) string { return "the stitching " + s.Name },
			refers: (*Stitching).refers,
			index: func(l *lookups, s *Stitching, in bool) {
				l.bear(s.Net, in)
				if s.Along != 0 {
					l.bear(s.Along, in)
				}
			},
			apart: true, // its vias are in the files, it is not
		}),
		describe(about[*BoardDimension]{table: func(d *Doc) *Table[*BoardDimension] { return &d.Dimensions }, called: always[*BoardDimension]("a dimension on the board"), apart: true}),
		describe(about[*LayerSet]{table: func(d *Doc) *Table[*LayerSet] { return &d.LayerSets },
			plural: "layer sets", name: func(s *LayerSet) string { return s.Name }, called: func(_ *Doc, s *LayerSet) string { return "the layer set " + s.Name }, apart: true}),
		describe(about[*Tint]{table: func(d *Doc) *Table[*Tint] { return &d.Tints },
			plural: "colours of nets", name: (*Tint).called, called: func(_ *Doc, t *Tint) string { return "the colour of the " + t.called() }, apart: true}),
		describe(about[*House]{table: func(d *Doc) *Table[*House] { return &d.Houses },
			plural: "houses", name: func(h *House) string { return h.Name }, called: func(_ *Doc, h *House) string { return "the house " + h.Name }, apart: true}),
	}
}

// always calls every object of a kind the same.
func always[P Object](words string) func(*Doc, P) string {
	return func(*Doc, P) string { return words }
}

// seldom looks through the whole document for who refers to what was removed, which only undoing what
// brought it does.
func seldom[P Object](d *Doc, _, is P) error {
	if any(is) != any(*new(P)) {
		return nil
	}
	return d.Whole()
}

// Kinds lists all kinds, in the order in which they stand in a file.
func Kinds() []Kind {
	out := make([]Kind, len(catalog))
	for i, k := range catalog {
		out[i] = k.kind
	}
	return out
}

// Blank is an empty object of the kind, or nil.
func Blank(kind Kind) Object {
	if k, ok := of[kind]; ok {
		return k.blank()
	}
	return nil
}

// Called is what an object is called in a sentence: "the part R1", "a track of GND".
func (d *Doc) Called(o Object) string {
	if o == nil {
		return "something"
	}
	if k := of[o.ObjectKind()]; k != nil && k.called != nil {
		return k.called(d, o)
	}
	return "a " + string(o.ObjectKind())
}
