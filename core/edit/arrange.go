package edit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Arrange lines things up on a sheet by their origins, or spreads them evenly; wires follow.
// How: "column" and "row" line up with the first of the ids; "across" and "down" leave the
// outermost where they are and spread the others between them, on the grid.
type Arrange struct {
	IDs []design.ID `json:"ids"`
	How string      `json:"how"`
}

// Apply the command.
func (c *Arrange) Apply(tx *Tx) error {
	type item struct {
		id design.ID
		at geom.Point
	}
	var list []item
	for _, id := range c.IDs {
		if at, ok := origin(tx.Doc.Get(id)); ok {
			list = append(list, item{id, at})
		}
	}
	least := 2
	if c.How == "across" || c.How == "down" {
		least = 3
	}
	if len(list) < least {
		return fmt.Errorf("pick at least %d parts to line them up or spread them", least)
	}
	steps := map[design.ID]geom.Point{}
	switch c.How {
	case "column":
		for _, it := range list {
			steps[it.id] = geom.Pt(list[0].at.X-it.at.X, 0)
		}
	case "row":
		for _, it := range list {
			steps[it.id] = geom.Pt(0, list[0].at.Y-it.at.Y)
		}
	case "across", "down":
		along := func(p geom.Point) int64 {
			if c.How == "across" {
				return p.X
			}
			return p.Y
		}
		slices.SortStableFunc(list, func(a, b item) int { return cmp.Compare(along(a.at), along(b.at)) })
		from, to := along(list[0].at), along(list[len(list)-1].at)
		for i, it := range list[1 : len(list)-1] {
			want := from + (to-from)*int64(i+1)/int64(len(list)-1)
			want += floorMod(along(it.at)-want+grid/2, grid) - grid/2 // stays on its own grid
			step := want - along(it.at)
			if c.How == "across" {
				steps[it.id] = geom.Pt(step, 0)
			} else {
				steps[it.id] = geom.Pt(0, step)
			}
		}
	default:
		return fmt.Errorf("things cannot be arranged by %q", c.How)
	}
	ids := make([]design.ID, len(list))
	still := true
	for i, it := range list {
		ids[i] = it.id
		still = still && steps[it.id] == geom.Point{}
	}
	if still {
		return fmt.Errorf("they stand so already")
	}
	return tx.move(ids, circuit.Each(steps))
}

func floorMod(a, m int64) int64 { return ((a % m) + m) % m }

// origin of what can be lined up.
func origin(o design.Object) (geom.Point, bool) {
	switch o := o.(type) {
	case *design.Part:
		return o.At, true
	case *design.SheetBlock:
		return o.At, true
	case *design.Supply:
		return o.At, true
	case *design.Label:
		return o.At, true
	case *design.Port:
		return o.At, true
	case *design.Note:
		return o.At, true
	case *design.Picture:
		return o.At, true
	case *design.Timing:
		return o.At, true
	case *design.Cluster:
		return o.Box().Min, true
	}
	return geom.Point{}, false
}
