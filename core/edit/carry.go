package edit

import (
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
	var adds []circuit.Package
	differences := layout.Differences(tx.Doc, nets)
	renames, accepted := map[string]string{}, map[string]string{}
	for _, x := range differences {
		if x.Kind == "rename" {
			renames[x.From] = x.To
		}
	}
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
			q := *tx.Doc.Placed[x.On]
			want := layout.PadNets(tx.Doc, nets, k)
			next := map[string]string{}
			for pad, net := range want {
				// a renamed net is its own difference and may be declined
				if was := q.Nets[pad]; was != "" && renames[was] == net {
					net = was
				}
				next[pad] = net
			}
			q.Nets = next
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	if err := renameOnBoard(tx, accepted); err != nil {
		return err
	}
	return arrive(tx, adds)
}

func renameOnBoard(tx *Tx, renames map[string]string) error {
	if len(renames) == 0 {
		return nil
	}
	for on := range tx.Doc.Placed.All() {
		q := *on
		q.Nets = maps.Clone(on.Nets)
		for pad, net := range on.Nets {
			if to, ok := renames[net]; ok {
				q.Nets[pad] = to
			}
		}
		if !maps.Equal(q.Nets, on.Nets) {
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for t := range tx.Doc.Tracks.All() {
		if to, ok := renames[t.Net]; ok {
			q := *t
			q.Net = to
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	for v := range tx.Doc.Vias.All() {
		if to, ok := renames[v.Net]; ok {
			q := *v
			q.Net = to
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return nil
}

// arrive puts new parts beside the outline.
func arrive(tx *Tx, packages []circuit.Package) error {
	feet := make([]*design.Footprint, len(packages))
	for i, k := range packages {
		p := tx.Doc.Parts[k.Lead().Part]
		if err := tx.ensureFootprint(p.Footprint); err != nil {
			return err
		}
		feet[i] = tx.Doc.Footprint(p.Footprint)
	}
	nets := tx.Nets()
	for i, at := range layout.Arrive(tx.Doc, feet) {
		k := packages[i]
		p := tx.Doc.Parts[k.Lead().Part]
		if err := tx.Put(&design.Placed{ID: tx.Doc.NewID(), Part: p.ID, Path: k.Lead().Path, Designator: k.Designator, Value: p.Value,
			Footprint: p.Footprint, NotFitted: p.NotFitted, At: at, Nets: layout.PadNets(tx.Doc, nets, k)}); err != nil {
			return err
		}
	}
	return nil
}
