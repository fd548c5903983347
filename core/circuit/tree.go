package circuit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
)

// SheetUse is one use of a sheet: a sheet nobody stands for has one, with an empty path; each
// block gives the sheet it stands for another, at the path of the blocks that lead there.
type SheetUse struct {
	Path  string    `json:"path"` // ids of blocks, from the top, joined by slashes
	Sheet design.ID `json:"sheet"`
	Label string    `json:"label"` // as people call it: the sheet's or the blocks' names
	Depth int       `json:"depth"`
}

// Tree lists all uses of all sheets, from the top down, in the order of sheets and blocks.
type Tree struct {
	Uses  []SheetUse
	of    map[design.ID][]SheetUse
	order map[useKey]int
}

type useKey struct {
	path  string
	sheet design.ID
}

func (p SheetUse) key() useKey { return useKey{p.Path, p.Sheet} }

// MostUses bounds the uses of sheets in a project.
const MostUses = 2_000

// TreeOf finds the uses of all sheets. A sheet within itself, which commands refuse, and
// uses beyond MostUses are left out.
func TreeOf(d *design.Doc) *Tree {
	t := &Tree{of: map[design.ID][]SheetUse{}, order: map[useKey]int{}}
	blocks := map[design.ID][]*design.SheetBlock{}
	used := map[design.ID]bool{}
	seen := map[string]bool{} // labels, each once
	for b := range d.Blocks.All() {
		blocks[b.Sheet] = append(blocks[b.Sheet], b)
		used[b.Of] = true
	}
	for _, list := range blocks { // as the sheets are ordered, then as they were placed
		slices.SortStableFunc(list, func(a, b *design.SheetBlock) int {
			sa, sb := d.Sheets[a.Of], d.Sheets[b.Of]
			if sa == nil || sb == nil {
				return 0
			}
			return cmp.Compare(sa.Order, sb.Order)
		})
	}
	var walk func(p SheetUse)
	walk = func(p SheetUse) {
		if len(t.Uses) >= MostUses || p.Depth > 50 {
			return
		}
		seen[p.Label] = true
		t.order[p.key()] = len(t.Uses)
		t.Uses = append(t.Uses, p)
		t.of[p.Sheet] = append(t.of[p.Sheet], p)
		for _, b := range blocks[p.Sheet] {
			if d.Sheets[b.Of] == nil {
				continue
			}
			label := b.Name
			if p.Depth > 0 || seen[label] {
				label = p.Label + "/" + b.Name
			}
			if seen[label] {
				label = fmt.Sprintf("%s/%s %d", p.Label, b.Name, b.ID)
			}
			walk(SheetUse{Path: Below(p.Path, b.ID), Sheet: b.Of, Label: label, Depth: p.Depth + 1})
		}
	}
	for _, s := range d.SheetsInOrder() {
		if !used[s.ID] {
			walk(SheetUse{Sheet: s.ID, Label: s.Name})
		}
	}
	return t
}

// Below is the path of what the block, standing in the use at path, leads to.
func Below(path string, block design.ID) string {
	if path == "" {
		return fmt.Sprint(block)
	}
	return fmt.Sprintf("%s/%d", path, block)
}

// Of lists the uses of the sheet.
func (t *Tree) Of(sheet design.ID) []SheetUse { return t.of[sheet] }

// Has tells whether the path leads to a use of the sheet.
func (t *Tree) Has(path string, sheet design.ID) bool {
	_, ok := t.order[useKey{path, sheet}]
	return ok
}

// LabelOf is what people call a use of a sheet; empty when there is no such use.
func (t *Tree) LabelOf(path string, sheet design.ID) string {
	if i, ok := t.order[useKey{path, sheet}]; ok {
		return t.Uses[i].Label
	}
	return ""
}

// sameOrder tells whether the uses that are in both trees come in the same order.
func (t *Tree) sameOrder(before *Tree) bool {
	last := -1
	for _, p := range before.Uses {
		if i, ok := t.order[p.key()]; ok {
			if i < last {
				return false
			}
			last = i
		}
	}
	return true
}
