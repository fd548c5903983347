package edit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// SetHop makes a hop anew that is on the board: by another way, turned, or with its holes further apart. What came to it before is
// joined with it again. A person chose it then: it does not follow when the order of ways changes.
type SetHop struct {
	ID     design.ID `json:"id"`               // of any of its vias
	Way    int       `json:"way,omitempty"`    // its place among the ways between its layers, from 1 on; 0: the one it is of
	Turned *int32    `json:"turned,omitempty"` // towards where its holes stand apart, in millidegrees; not said: where there is most room
	Apart  int64     `json:"apart,omitempty"`  // how far they do; 0: as the way says
}

// Apply the command.
func (c *SetHop) Apply(tx *Tx) error {
	v, err := get(tx.Doc.Vias, c.ID, "via")
	if err != nil {
		return err
	}
	if v.Locked {
		return fmt.Errorf("the via is locked; unlock it first")
	}
	if c.Apart < 0 || c.Apart > 10*units.MM {
		return fmt.Errorf("holes of a hop are up to 10 mm apart, not %s", units.Text(c.Apart))
	}
	field := tx.field()
	m, b := field.MadeOf(v), tx.Doc.Board
	way, ok := m.Way(b)
	if c.Way != 0 {
		ways, _ := b.WaysOf(b.At(m.From), b.At(m.To))
		if c.Way < 0 || c.Way > len(ways) {
			return fmt.Errorf("between %s and %s there are %d ways, and no number %d", b.Layer(b.At(m.From)).Name, b.Layer(b.At(m.To)).Name,
				len(ways), c.Way)
		}
		way, ok = ways[c.Way-1], true
	}
	if !ok {
		return fmt.Errorf("the via is of no way that the board has; choose one")
	}
	_, err = tx.remake(field, m, way, c.Turned, c.Apart, true)
	return err
}

// remake makes a hop anew by a way, and joins it with what came to it.
func (tx *Tx) remake(field *route.Field, m *route.Made, way design.Way, turned *int32, apart int64, own bool) ([]*design.Via, error) {
	ask := route.HopAsk{At: m.A, Net: m.Net, From: m.From, To: m.To, Angle: turned, Apart: apart}
	free := field.With(m.IDs())
	hop, why := free.HopBy(ask, way)
	if hop == nil {
		return nil, fmt.Errorf("the way does not fit here: %w", why)
	}
	hop.Own = own
	legs := []route.Leg{}
	if end := hop.End(); m.Width > 0 && end != m.Z {
		vias, tracks := free.HopThings(hop, m.Net, 0)
		for _, v := range vias {
			free.Laid = append(free.Laid, layout.PiecesOf(tx.Doc, v)...)
		}
		for _, t := range tracks {
			free.Laid = append(free.Laid, layout.PiecesOf(tx.Doc, t)...)
		}
		p := free.Draw(end, m.Z, route.StraightFirst, m.To, m.Net, m.Width)
		if p.Blocked != nil {
			if p = free.Draw(end, m.Z, route.DiagonalFirst, m.To, m.Net, m.Width); p.Blocked != nil {
				return nil, fmt.Errorf("what came to the hop cannot be joined with it: %w", p.Blocked)
			}
		}
		legs = append(legs, route.Leg{Layer: m.To, Width: m.Width, Path: geom.Corners(p.Path...)})
	}
	for _, t := range m.Tracks {
		tx.Remove(t)
	}
	for _, v := range m.Vias[min(len(m.Vias), len(hop.Holes)):] {
		tx.Remove(v)
	}
	*field = field.With(m.IDs())
	return tx.putMade(field, m, hop, legs)
}

// putMade puts a hop in the place of one there was, whose vias keep their ids as far as they go, and the legs that belong to it.
func (tx *Tx) putMade(field *route.Field, m *route.Made, hop *route.Hop, legs []route.Leg) ([]*design.Via, error) {
	vias, tracks := field.HopThings(hop, m.Net, 0)
	for _, l := range legs {
		for _, p := range route.PiecesOf(l.Path) {
			tracks = append(tracks, &design.Track{Layer: tx.Doc.Board.At(l.Layer), A: p.A, B: p.B, Width: l.Width, Net: m.Net})
		}
	}
	group := design.ID(0)
	if len(vias)+len(tracks) > 1 {
		group = cmp.Or(m.Vias[0].Group, tx.Doc.NewID())
	}
	if tx.Doc.Stitchings[m.Vias[0].Group] != nil {
		group = m.Vias[0].Group
	}
	for i, v := range vias {
		v.Group, v.Own = group, hop.Own
		if i < len(m.Vias) {
			old := m.Vias[i]
			v.ID, v.Join = old.ID, old.Join
		} else {
			v.ID = tx.Doc.NewID()
		}
		if err := tx.Put(v); err != nil {
			return nil, err
		}
		field.Lay(layout.PiecesOf(tx.Doc, v)...)
	}
	for _, t := range tracks {
		t.ID, t.Group = tx.Doc.NewID(), group
		if err := tx.Put(t); err != nil {
			return nil, err
		}
		field.Lay(layout.PiecesOf(tx.Doc, t)...)
	}
	return vias, nil
}

// SetHoles says which holes the board's house makes and which ways between layers are best. What follows them is made anew, unless
// Keep says otherwise: vias get the sizes of their barrels, hops that nobody chose become the best way that fits their place.
type SetHoles struct {
	Holes design.Holes `json:"holes"`
	Keep  bool         `json:"keep,omitempty"` // what is on the board stays as it is

	said []string
}

// Said tells what became of vias that were made of barrels.
func (c *SetHoles) Said() string { return strings.Join(c.said, " ") }

// Apply the command.
func (c *SetHoles) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	b.Holes = c.Holes
	for i := range b.Holes.Barrels {
		b.Holes.Next = max(b.Holes.Next, b.Holes.Barrels[i].ID+1, tx.Doc.Board.Holes.Next)
	}
	b.Holes.Barrels = slices.Clone(b.Holes.Barrels)
	for i := range b.Holes.Barrels {
		if l := &b.Holes.Barrels[i]; l.ID == 0 {
			l.ID = max(b.Holes.Next, 1)
			b.Holes.Next = l.ID + 1
		}
	}
	if err := b.Valid(); err != nil {
		return err
	}
	if no := b.Unmakeable(); len(no) > 0 {
		return fmt.Errorf("no house can make this: %s", strings.Join(no, "; "))
	}
	if err := tx.Put(&b); err != nil {
		return err
	}
	if c.said = nil; c.Keep {
		return nil
	}
	return c.follow(tx)
}

// follow makes the hops anew that follow their recipes.
func (c *SetHoles) follow(tx *Tx) error {
	field := tx.field()
	changed, stayed := map[string]int{}, map[string]int{}
	seen := map[design.ID]bool{}
	all := slices.Sorted(maps.Keys(tx.Doc.Vias))
	for i, id := range all {
		if err := tx.going(float64(i) / float64(len(all))); err != nil {
			return err
		}
		v := tx.Doc.Vias[id]
		if v == nil || seen[id] || v.Barrel == 0 {
			continue
		}
		m := field.MadeOf(v)
		locked := false
		for _, o := range m.Vias {
			seen[o.ID] = true
			locked = locked || o.Locked
		}
		was := madeInWords(tx.Doc.Board, m.Vias)
		if locked {
			stayed["locked"]++
			continue
		}
		to, why := c.remade(tx, field, m)
		switch {
		case why != nil:
			stayed[why.Error()]++
		case to != "":
			changed[was+" → "+to]++
		}
	}
	for _, s := range slices.Sorted(maps.Keys(changed)) {
		c.said = append(c.said, fmt.Sprintf("%s: %s.", counted(changed[s], "hop", "hops"), s))
	}
	for _, s := range slices.Sorted(maps.Keys(stayed)) {
		c.said = append(c.said, fmt.Sprintf("%s as before: %s.", counted(stayed[s], "hop stays", "hops stay"), s))
	}
	return nil
}

// remade makes one hop anew, if its recipe says otherwise now; it tells what became of it, or why it stays.
func (c *SetHoles) remade(tx *Tx, field *route.Field, m *route.Made) (string, error) {
	b := tx.Doc.Board
	now, ok := m.Way(b)
	same := ok && c.sized(tx, m)
	if m.Sure && !m.Vias[0].Own {
		ways, _ := b.WaysOf(b.At(m.From), b.At(m.To))
		var first error
		for _, w := range ways {
			if same && w.Same(now) {
				return "", nil
			}
			if vias, err := tx.remake(field, m, w, nil, 0, false); err == nil {
				return madeInWords(b, vias), nil
			} else if first == nil {
				first = err
			}
		}
		if same {
			return "", nil
		}
		return "", cmp.Or(first, fmt.Errorf("no way leads between its layers now"))
	}
	if same {
		return "", nil
	}
	if !ok {
		return "", fmt.Errorf("its way is none of the board's any more")
	}
	vias, err := tx.remake(field, m, now, nil, 0, m.Vias[0].Own)
	if err != nil {
		return "", err
	}
	return madeInWords(b, vias), nil
}

// sized tells whether the vias of a hop are as their barrels are.
func (c *SetHoles) sized(tx *Tx, m *route.Made) bool {
	for _, v := range m.Vias {
		l := tx.Doc.Board.Barrel(v.Barrel)
		if l == nil || l.Kind != v.Kind || l.From != v.From || l.To != v.To || l.Cover != v.Cover || l.Hole > 0 && l.Hole != v.Hole ||
			l.Diameter > 0 && l.Diameter != v.Diameter {
			return false
		}
	}
	return true
}

// madeInWords says what the vias of a hop are.
func madeInWords(b *design.Board, vias []*design.Via) string {
	var out []string
	for _, v := range vias {
		name := fmt.Sprintf("%s to %s", b.Layer(v.From).Name, b.Layer(v.To).Name)
		if l := b.Barrel(v.Barrel); l != nil {
			name = l.Name
		}
		out = append(out, fmt.Sprintf("%s %s/%s", name, units.Text(v.Diameter), units.Text(v.Hole)))
	}
	return strings.Join(out, ", ")
}
