package edit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// Run is a stretch of track on one copper layer; where a corner says so it goes on in an arc. Width 0 is the track's.
type Run struct {
	Layer design.LayerID `json:"layer"`
	Width int64          `json:"width,omitempty"`
	Path  []geom.Corner  `json:"path"`
	Hop   *route.Hop     `json:"hop,omitempty"` // how it is come to from the run before; not said: by the best hop that ends where it begins
}

// DrawTrack lays a track of a net along its runs; between two runs on different layers it
// hops. It is refused where it would break a
// clearance; with Aside what can move makes way for it, with Renew it takes the place of an old way between
// the same places, with Round its corners become arcs of that radius as far as they are free. Sought is how it goes on as a search found it, once what
// makes way for Runs has: nothing makes way for that. Width 0 takes the rules'.
type DrawTrack struct {
	Net    design.ID `json:"net"`
	Width  int64     `json:"width,omitempty"`
	Runs   []Run     `json:"runs"`
	Sought []Run     `json:"sought,omitempty"`
	Round  int64     `json:"round,omitempty"`
	Aside  bool      `json:"aside,omitempty"`
	Renew  bool      `json:"renew,omitempty"`

	raised string
}

// Said tells that vias of a hop were made greater than the rules say of new ones.
func (c *DrawTrack) Said() string { return c.raised }

// Apply the command.
func (c *DrawTrack) Apply(tx *Tx) error {
	field := tx.field()
	if tx.Doc.Nets[c.Net] == nil || !field.Index.Bears(c.Net) {
		return fmt.Errorf("there is no such net on the board (id %d)", c.Net)
	}
	legs, err := c.legs(tx, field, slices.Concat(c.Runs, c.Sought))
	if err != nil {
		return err
	}
	hand, err := c.legs(tx, field, c.Runs)
	if err != nil {
		return err
	}
	if c.Round < 0 || c.Round > units.Limit {
		return fmt.Errorf("corners cannot have a radius of %s", units.Text(c.Round))
	}
	legs = field.RoundLegs(legs, c.Net, c.Round)
	if c.Aside {
		aside, no := field.MakeWay(field.HandOf(field.RoundLegs(hand, c.Net, c.Round), c.Net), nil)
		if no != nil {
			return no
		}
		if err := tx.moveAside(field, aside); err != nil {
			return err
		}
	}
	if err := tx.layLegs(field, legs, c.Net); err != nil {
		return err
	}
	c.raised = tx.raised
	if c.Renew {
		return c.renew(tx, field, legs)
	}
	return nil
}

// renew takes away what the new way makes needless.
func (c *DrawTrack) renew(tx *Tx, field *route.Field, legs []route.Leg) error {
	if len(legs) == 0 {
		return nil
	}
	first, last := legs[0], legs[len(legs)-1]
	if err := tx.cutAt(field, c.Net, first.Layer, first.Path[0].Point); err != nil {
		return err
	}
	if err := tx.cutAt(field, c.Net, last.Layer, last.Path[len(last.Path)-1].Point); err != nil {
		return err
	}
	for _, id := range field.Superseded(c.Net, field.HandOf(legs, c.Net)) {
		tx.Remove(tx.Doc.Get(id))
	}
	return nil
}

// cutAt cuts the tracks of a net in two that go over a place, so that each part can go by itself.
func (tx *Tx) cutAt(field *route.Field, net design.ID, layer int, at geom.Point) error {
	var over []*layout.Copper
	for c := range field.Index.Near(geom.BoxOf(at)) {
		if c.Net == net && c.Kind == "track" && c.Has(layer) && !field.Gone[c.ID] {
			over = append(over, c)
		}
	}
	slices.SortFunc(over, func(a, b *layout.Copper) int { return cmp.Compare(a.ID, b.ID) })
	for _, c := range over {
		t := tx.Doc.Tracks[c.ID]
		if t == nil || t.Locked || at == t.A || at == t.B {
			continue
		}
		if gap, _, _ := geom.PieceDistance(t.Piece(), geom.Straight(at, at)); gap > 1 {
			continue
		}
		one, two := *t, *t
		one.B, two.A, two.ID = at, at, tx.Doc.NewID()
		if p := t.Piece(); p.Round() {
			a, b := p.Between(p.A, at), p.Between(at, p.B)
			one.Mid, two.Mid = &a.M, &b.M
		}
		if one.Valid() != nil || two.Valid() != nil {
			continue
		}
		if err := tx.Put(&one); err != nil {
			return err
		}
		if err := tx.Put(&two); err != nil {
			return err
		}
		*field = field.With([]design.ID{t.ID}, append(layout.PiecesOf(tx.Doc, &one), layout.PiecesOf(tx.Doc, &two)...)...)
	}
	return nil
}

// legs are the runs as the router has them, which must hang together.
func (c *DrawTrack) legs(tx *Tx, field *route.Field, runs []Run) (out []route.Leg, err error) {
	var at geom.Point
	for i, run := range runs {
		layer := tx.Doc.Board.Position(run.Layer)
		if layer < 0 {
			return nil, fmt.Errorf("the board has no such copper layer (id %d)", run.Layer)
		}
		if len(run.Path) == 0 || len(run.Path) > 10_000 {
			return nil, fmt.Errorf("a stretch of track goes through 1 to 10000 places, not %d", len(run.Path))
		}
		if i > 0 && run.Hop == nil && run.Path[0].Point != at {
			return nil, fmt.Errorf("the stretches of the track do not meet")
		}
		if run.Hop != nil {
			if err := tx.leads(run, runs[:i], at); err != nil {
				return nil, err
			}
		}
		for _, p := range geom.Named(run.Path) {
			if max(p.X, -p.X, p.Y, -p.Y) > units.Limit {
				return nil, fmt.Errorf("a track cannot lead so far: %s, %s", units.Text(p.X), units.Text(p.Y))
			}
		}
		width := cmp.Or(run.Width, c.Width)
		if width < 0 || width > units.Limit {
			return nil, fmt.Errorf("a track cannot be %s wide", units.Text(width))
		}
		at = run.Path[len(run.Path)-1].Point
		out = append(out, field.Widened(route.Leg{Layer: layer, Width: width, Path: run.Path, Hop: run.Hop}, c.Net)...)
	}
	return out, nil
}

// layLegs puts legs of a net, with the hops between those on different layers.
func (tx *Tx) layLegs(field *route.Field, legs []route.Leg, net design.ID) error {
	for i, leg := range legs {
		if i > 0 && leg.Layer != legs[i-1].Layer {
			hop, err := field.HopOf(legs[i-1], leg, net)
			if err != nil {
				return err
			}
			if err := tx.putHop(field, hop, net, leg.Width); err != nil {
				return err
			}
		}
		if err := tx.layLeg(field, leg, net); err != nil {
			return err
		}
	}
	return nil
}

// layLeg puts the pieces of one leg.
func (tx *Tx) layLeg(field *route.Field, leg route.Leg, net design.ID) error {
	for _, piece := range route.PiecesOf(leg.Path) {
		t := &design.Track{ID: tx.Doc.NewID(), Layer: tx.Doc.Board.At(leg.Layer), A: piece.A, B: piece.B, Width: leg.Width, Net: net}
		if piece.Round() {
			t.Mid = &piece.M
		}
		wish := route.Wish{Shape: geom.Bow(piece, leg.Width), Layers: 1 << leg.Layer, Net: net, Thing: design.ATrack}
		if least := field.Usual(design.LeastWidth, wish); t.Width < least {
			return fmt.Errorf("a track of %s is narrower than the least width, %s", units.Text(t.Width), units.Text(least))
		}
		if err := t.Valid(); err != nil {
			return err
		}
		if o := field.Clear(wish); o != nil {
			return o
		}
		if err := tx.Put(t); err != nil {
			return err
		}
	}
	return nil
}

// SetTrack changes the width of tracks, or whether the mask leaves them bare; nothing said stays. What would come too near to something is left to
// the checks to say, since a person may want to mend the neighbours next.
type SetTrack struct {
	IDs   []design.ID `json:"ids"`
	Width int64       `json:"width,omitempty"`
	Bare  *bool       `json:"bare,omitempty"`
}

// Apply the command.
func (c *SetTrack) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		t, err := get(tx.Doc.Tracks, id, "track")
		if err != nil {
			return err
		}
		q := *t
		if c.Width != 0 {
			q.Width = c.Width
		}
		set(&q.Bare, c.Bare)
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}
