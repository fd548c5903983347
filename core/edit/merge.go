package edit

import (
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Where nets of the circuit came together or fell apart, pads get other nets, and the copper that was
// laid between them goes along: each piece of joined copper whose pads now all bear one other net.

// padRef is a pad on the board.
type padRef struct {
	part   design.ID
	number string
}

// moves are the nets that pads get, by the net they bore.
type moves map[design.ID]map[padRef]design.ID

func (m moves) note(part design.ID, pad string, from, to design.ID) {
	if from == to || from == 0 {
		return
	}
	if m[from] == nil {
		m[from] = map[padRef]design.ID{}
	}
	m[from][padRef{part, pad}] = to
}

// copper moves the tracks and vias of joined copper whose pads moved all to one net. Copper without any
// pad goes where all pads of its net went, when they went to one.
func (m moves) copper(tx *Tx) error {
	for from, pads := range m {
		var whole design.ID // where all of the net went
		for _, to := range pads {
			if whole != 0 && to != whole {
				whole = 0
				break
			}
			whole = to
		}
		pieces := tx.Index().NetPieces(from)
		for _, c := range pieces {
			if _, moved := pads[padRef{c.ID, c.Number}]; c.Pad >= 0 && !moved {
				whole = 0
			}
		}
		for _, island := range layout.Islands(pieces) {
			to, any, one := design.ID(0), false, true
			for _, c := range island {
				if c.Pad < 0 {
					continue
				}
				next, moved := pads[padRef{c.ID, c.Number}]
				if !moved {
					next = from
				}
				one = one && (!any || next == to)
				to, any = next, true
			}
			if !any {
				to = whole
			}
			if !one || to == from || to == 0 {
				continue
			}
			for _, c := range island {
				if err := tx.giveNet(c.ID, from, to); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// keepLarger looks for nets that went wholly into another one with less copper, and lets the two change
// names, so that the lesser one's copper is what changes its net. It tells whether any did.
func keepLarger(tx *Tx, nets *circuit.Nets) (bool, error) {
	into := map[design.ID]map[string]bool{} // names that the pads of a net should bear
	for on := range tx.Doc.Placed.All() {
		k, ok := circuit.PackageOf(tx.Doc, nets.Tree, circuit.PartRef{Part: on.Part, Path: on.Path})
		if !ok {
			continue
		}
		want := layout.PadNets(tx.Doc, nets, k)
		for pad, net := range on.Nets {
			if into[net] == nil {
				into[net] = map[string]bool{}
			}
			into[net][want[pad]] = true
		}
	}
	did := false
	for n := range tx.Doc.Nets.All() {
		if len(into[n.ID]) != 1 {
			continue
		}
		for name := range into[n.ID] {
			other := tx.Doc.NetNamed(name)
			if other == nil || other.ID == n.ID || len(into[other.ID]) == 0 || tx.Doc.Borne(other.ID) >= tx.Doc.Borne(n.ID) {
				continue
			}
			a, b := *n, *other
			a.Name, a.Class, a.Current, a.Voltage, a.Impedance = other.Name, other.Class, other.Current, other.Voltage, other.Impedance
			b.Name, b.Class, b.Current, b.Voltage, b.Impedance = n.Name, n.Class, n.Current, n.Voltage, n.Impedance
			for _, q := range []*design.Net{&a, &b} {
				if err := tx.Put(q); err != nil {
					return did, err
				}
			}
			did = true
		}
	}
	return did, nil
}
