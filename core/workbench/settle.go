package workbench

import (
	"maps"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
)

// Delta is what changed in the derived results.
type Delta struct {
	Rev      int64                           `json:"rev"` // the revision all of it was computed from, but for what is behind
	Sheets   []*circuit.SheetView            `json:"sheets"`
	Places   []circuit.SheetUse              `json:"places"` // uses of sheets, all of them when any changed
	Nets     []*circuit.Net                  `json:"nets"`
	LostNets []string                        `json:"lostNets"`
	Redrawn  []Redrawn                       `json:"redrawn"` // nets that join what they joined
	Links    map[design.ID]layout.LinkChange `json:"links"`   // per net of the board
	Findings []*check.Finding                `json:"findings"`
	Mended   []string                        `json:"mended"` // keys of findings that are gone
	Stages   Stages                          `json:"stages"`
	// Dimensions of the board as they are drawn now, and those that are gone.
	Dimensions     []layout.DimensionDrawn `json:"dimensions,omitempty"`
	LostDimensions []design.ID             `json:"lostDimensions,omitempty"`
	Filled         []Filled                `json:"filled,omitempty"` // tiles of copper areas that fill otherwise now
	Behind         map[string]int64        `json:"behind,omitempty"` // results that are still of an earlier revision, and which; -1: nothing of it is known yet
}

// Redrawn is a net that joins what it joined, drawn otherwise in some uses of sheets.
type Redrawn struct {
	Net  string           `json:"net"`
	Uses []circuit.NetUse `json:"uses"` // without items: not drawn there any more
}

// Settle brings everything derived up to date and tells what changed since it was last settled.
// Whoever follows the deltas calls it before anything else that settles: All, Findings,
// Differences, Links.
func (b *Bench) Settle() Delta {
	b.graph.Settle()
	d := Delta{Rev: b.Rev, Links: b.links.told(), Behind: b.graph.Behind()}
	b.circuit.tell(&d)
	d.Findings, d.Mended = b.findings.told()
	d.Dimensions, d.LostDimensions = b.dimensions.told()
	d.Filled = b.pours.told()
	d.Stages = b.Stages()
	return d
}

// All is everything derived, as a delta from nothing.
func (b *Bench) All() Delta {
	b.graph.Settle()
	n := b.circuit.nets
	d := Delta{Rev: b.Rev, Links: map[design.ID]layout.LinkChange{}, Stages: b.Stages(), Findings: b.Findings(), Places: n.Tree.Uses, Behind: b.graph.Behind(), Dimensions: b.dimensions.all(), Filled: b.pours.all()}
	for _, s := range b.Doc.SheetsInOrder() {
		d.Sheets = append(d.Sheets, n.Views[s.ID])
	}
	for id, l := range b.links.of {
		if len(l.Links()) > 0 && !b.links.unknown(id) {
			d.Links[id] = layout.LinkChange{Come: l.Links()}
		}
	}
	for _, net := range n.ByName {
		d.Nets = append(d.Nets, net)
	}
	inOrder(d.Nets)
	return d
}

func inOrder(nets []*circuit.Net) {
	slices.SortFunc(nets, func(a, c *circuit.Net) int { return circuit.CompareNatural(a.Name, c.Name) })
}

// Findings lists all of them: faults first, then by kind and key.
func (b *Bench) Findings() []*check.Finding {
	b.graph.Settle()
	out := slices.Collect(maps.Values(b.findings.by))
	check.Sort(out)
	return out
}

// OpenFindings lists those that nobody excused, notes left out.
func (b *Bench) OpenFindings() []*check.Finding {
	return slices.DeleteFunc(b.Findings(), func(f *check.Finding) bool { return f.Excused != "" || f.Severity == check.Note })
}

// Differences between circuit and board.
func (b *Bench) Differences() []layout.Difference {
	b.graph.Settle()
	return b.drift.cmp.List()
}

// Open counts the nets that are not joined, and the open links of all of them.
func (b *Bench) Open() (nets, links int) {
	for _, n := range b.links.of {
		if l := len(n.Links()); l > 0 {
			nets++
			links += l
		}
	}
	return nets, links
}

// Links lists all open links.
func (b *Bench) Links() []layout.Link {
	b.graph.Settle()
	var out []layout.Link
	for _, n := range slices.Sorted(maps.Keys(b.links.of)) {
		out = append(out, b.links.of[n].Links()...)
	}
	return out
}

// Behind names the results that are still of an earlier revision, as of the last Settle, and which; derive.Never: nothing of it is known yet.
func (b *Bench) Behind() map[string]int64 { return b.graph.Behind() }
