package depot

import (
	"slices"

	"goldentrace/core/ordering"
)

// tally counts parts by the values that can be chosen.
type tally struct {
	s      *Stock
	family []int
	cols   []*column
	counts [][]int
	packs  [5]int
}

func (s *Stock) newTally(q *ordering.Query) *tally {
	t := &tally{s: s, family: make([]int, len(s.family.values))}
	names := []string{}
	if code, ok := s.family.at[q.Family]; ok {
		names = append(append(names, s.ofFamily[code]...), bodyFacets...)
	}
	for _, n := range append(names, ordering.FilterPackage, ordering.FilterMaker, ordering.FilterStatus) {
		col := s.facets[n]
		t.cols = append(t.cols, col)
		t.counts = append(t.counts, make([]int, len(col.values)))
	}
	return t
}

func (t *tally) all(i int) {
	t.family[t.s.family.codes[i]]++
	for k, col := range t.cols {
		if code := col.codes[i]; code >= 0 {
			t.counts[k][code]++
		}
	}
	t.packagings(i)
}

func (t *tally) packagings(i int) {
	for b := range t.packs {
		if t.s.packagings[i]&(1<<b) != 0 {
			t.packs[b]++
		}
	}
}

// beside counts a part that only the filter of that name leaves out.
func (t *tally) beside(name string, i int) {
	switch name {
	case hidden:
		return
	case "family":
		t.family[t.s.family.codes[i]]++
		return
	case ordering.FilterPackaging:
		t.packagings(i)
		return
	}
	for k, col := range t.cols {
		if col.name == name && col.codes[i] >= 0 {
			t.counts[k][col.codes[i]]++
		}
	}
}

func (t *tally) families() []ordering.Count {
	out := []ordering.Count{}
	for code, n := range t.family {
		if n > 0 {
			out = append(out, ordering.Count{Text: t.s.family.values[code].Text, Count: n})
		}
	}
	slices.SortFunc(out, func(a, b ordering.Count) int {
		return int(t.s.family.rank[t.s.family.at[a.Text]] - t.s.family.rank[t.s.family.at[b.Text]])
	})
	return out
}

func (t *tally) facets() []ordering.Facet {
	out := []ordering.Facet{}
	for k, col := range t.cols {
		f := ordering.Facet{Name: col.name, Unit: col.unit, Number: col.number, Values: []ordering.Count{}}
		order := make([]int32, len(col.values))
		for code, r := range col.rank {
			order[r] = int32(code)
		}
		for _, code := range order {
			if n := t.counts[k][code]; n > 0 {
				v := col.values[code]
				v.Count = n
				f.Values = append(f.Values, v)
			}
		}
		if col.number && len(f.Values) > 0 {
			f.Least, f.Most = f.Values[0].Value, f.Values[len(f.Values)-1].Value
		}
		out = append(out, f)
	}
	f := ordering.Facet{Name: ordering.FilterPackaging, Values: []ordering.Count{}}
	for b, n := range t.packs {
		if n > 0 {
			f.Values = append(f.Values, ordering.Count{Text: ordering.Packagings[b], Count: n})
		}
	}
	return append(out, f)
}
