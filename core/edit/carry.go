package edit

import (
	"cmp"
	"maps"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Carry takes the circuit's changes over to the board, all or those whose keys are given.
type Carry struct {
	All  bool     `json:"all,omitempty"`
	Keys []string `json:"keys,omitempty"`
}

// Apply the command.
func (c *Carry) Apply(tx *Tx) error {
	nets := tx.Nets()
	differences := layout.Differences(tx.Doc, nets)
	if c.takes(differences) {
		swapped, err := keepLarger(tx, nets)
		if err != nil {
			return err
		}
		if swapped {
			differences = layout.Differences(tx.Doc, nets)
			c = &Carry{All: true}
		}
	}
	var adds []circuit.Package
	renames, accepted := map[string]string{}, map[string]string{}
	for _, x := range differences {
		if x.Kind == "rename" {
			renames[x.From] = x.To
		}
	}
	moved := moves{}
	for _, x := range differences {
		if !c.All && !slices.Contains(c.Keys, x.Key) || x.Kind == "none" {
			continue
		}
		p, on := tx.Doc.Parts[x.Part], tx.Doc.Placed[x.On]
		k, _ := circuit.PackageOf(tx.Doc, nets.Tree, circuit.PartRef{Part: x.Part, Path: x.Path})
		switch x.Kind {
		case "add":
			adds = append(adds, k)
		case "remove":
			tx.Remove(on)
		case "rename":
			accepted[x.From] = x.To
		case "change":
			q := *on
			q.Designator, q.Value, q.NotFitted = k.Designator, p.Value, p.NotFitted
			if p.Footprint != "" {
				if err := tx.ensureFootprint(p.Footprint); err != nil {
					return err
				}
				q.Footprint = p.Footprint
			}
			if err := tx.Put(&q); err != nil {
				return err
			}
		case "nets":
			if err := c.pads(tx, x, layout.PadNets(tx.Doc, nets, k), renames, moved); err != nil {
				return err
			}
		}
	}
	if err := renameOnBoard(tx, accepted); err != nil {
		return err
	}
	if err := moved.copper(tx); err != nil {
		return err
	}
	if err := arrive(tx, adds); err != nil {
		return err
	}
	sweep(tx)
	return nil
}

// takes tells whether all that differs is to be carried over.
func (c *Carry) takes(differences []layout.Difference) bool {
	return c.All || !slices.ContainsFunc(differences, func(x layout.Difference) bool {
		return x.Kind != "none" && !slices.Contains(c.Keys, x.Key)
	})
}

// pads gives a part's pads the nets they should bear.
func (c *Carry) pads(tx *Tx, x layout.Difference, want map[string]string, renames map[string]string, moved moves) error {
	q := *tx.Doc.Placed[x.On]
	next := map[string]design.ID{}
	for _, pad := range slices.Sorted(maps.Keys(want)) {
		name := want[pad]
		was := tx.Doc.NetName(q.Nets[pad])
		if was != "" && renames[was] == name { // a renamed net is its own difference and may be declined
			name = was
		}
		n, err := tx.netNamed(name)
		if err != nil {
			return err
		}
		next[pad] = n.ID
	}
	for pad, was := range q.Nets {
		moved.note(q.ID, pad, was, next[pad])
	}
	q.Nets = next
	return tx.Put(&q)
}

// renameOnBoard gives nets other names. What is said of a net that bore the new name already, but that
// nothing on the board bears, goes over to the renamed one; copper that bears it does too.
func renameOnBoard(tx *Tx, renames map[string]string) error {
	var list []*design.Net
	for _, from := range slices.Sorted(maps.Keys(renames)) {
		if n := tx.Doc.NetNamed(from); n != nil {
			list = append(list, n)
		}
	}
	for _, n := range list {
		q := *n
		q.Name = renames[n.Name]
		if err := tx.retint(n.Name, q.Name); err != nil {
			return err
		}
		if there := tx.Doc.NetNamed(q.Name); there != nil && !slices.Contains(list, there) {
			q.Class, q.Current = cmp.Or(q.Class, there.Class), cmp.Or(q.Current, there.Current)
			q.Voltage, q.Impedance = cmp.Or(q.Voltage, there.Voltage), cmp.Or(q.Impedance, there.Impedance)
			if there.Partner != n.ID {
				q.Partner = cmp.Or(q.Partner, there.Partner)
			}
			if err := tx.hand(there.ID, n.ID); err != nil {
				return err
			}
			tx.Remove(there)
		}
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}

// hand gives all that refers to one net to another: copper, pads and partners.
func (tx *Tx) hand(from, to design.ID) error {
	for other := range tx.Doc.Nets.All() {
		if other.Partner == from {
			q := *other
			if q.Partner = to; q.ID == to {
				q.Partner = 0
			}
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	if tx.Doc.Borne(from) == 0 {
		return nil
	}
	for on := range tx.Doc.Placed.All() {
		q := *on
		q.Nets = maps.Clone(on.Nets)
		for pad, net := range on.Nets {
			if net == from {
				q.Nets[pad] = to
			}
		}
		if !maps.Equal(q.Nets, on.Nets) {
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for s := range tx.Doc.Stitchings.All() {
		if s.Net == from || s.Along == from {
			if err := tx.Put(with(s, func(q *design.Stitching) {
				for _, n := range []*design.ID{&q.Net, &q.Along} {
					if *n == from {
						*n = to
					}
				}
			})); err != nil {
				return err
			}
		}
	}
	for p := range tx.Doc.Pours.All() {
		if p.Net == from {
			if err := tx.Put(with(p, func(q *design.Pour) { q.Net = to })); err != nil {
				return err
			}
		}
	}
	for _, c := range tx.Index().NetPieces(from) {
		if err := tx.giveNet(c.ID, from, to); err != nil {
			return err
		}
	}
	return nil
}

// giveNet gives a track or a via that bears a net another one.
func (tx *Tx) giveNet(id, from, to design.ID) error {
	switch o := tx.Doc.Get(id).(type) {
	case *design.Track:
		if o.Net == from {
			q := *o
			q.Net = to
			return tx.Put(&q)
		}
	case *design.Via:
		if o.Net == from {
			q := *o
			q.Net = to
			return tx.Put(&q)
		}
	}
	return nil
}

// sweep takes out nets that nobody bears and of which nothing is said.
func sweep(tx *Tx) {
	partner := map[design.ID]bool{}
	for _, n := range tx.Doc.Nets {
		partner[n.Partner] = true
	}
	for n := range tx.Doc.Nets.All() {
		if n.Silent() && tx.Doc.Borne(n.ID) == 0 && !partner[n.ID] {
			tx.Remove(n)
		}
	}
}

// arrive puts new parts beside the outline, those of a cluster or a sheet together.
func arrive(tx *Tx, packages []circuit.Package) error {
	come := make([]layout.Newcomer, len(packages))
	for i, k := range packages {
		p := tx.Doc.Parts[k.Lead().Part]
		if err := tx.ensureFootprint(p.Footprint); err != nil {
			return err
		}
		come[i] = layout.Newcomer{Footprint: tx.Doc.Footprint(p.Footprint), Group: layout.GroupOf(tx.Doc, k.Lead())}
	}
	nets := tx.Nets()
	for i, at := range layout.Arrive(tx.Doc, come) {
		k := packages[i]
		p := tx.Doc.Parts[k.Lead().Part]
		pads := map[string]design.ID{}
		want := layout.PadNets(tx.Doc, nets, k)
		for _, pad := range slices.Sorted(maps.Keys(want)) {
			n, err := tx.netNamed(want[pad])
			if err != nil {
				return err
			}
			pads[pad] = n.ID
		}
		if err := tx.Put(&design.Placed{ID: tx.Doc.NewID(), Part: p.ID, Path: k.Lead().Path, Designator: k.Designator, Value: p.Value,
			Footprint: p.Footprint, NotFitted: p.NotFitted, At: at, Nets: pads}); err != nil {
			return err
		}
	}
	return nil
}
