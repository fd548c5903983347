package depot

import (
	"context"
	"fmt"
	"slices"

	"goldentrace/core/ordering"
)

// filter holds or does not, of each part. Those of one name are one: a count beside the others leaves them out together.
type filter struct {
	name  string
	holds []func(i int) bool
}

// Search answers a query: what is found, and how many there would be of each value of each filter while the others hold. Cost: one pass
// over the range, and a sort of what is found.
func (s *Stock) Search(ctx context.Context, q *ordering.Query) (*ordering.Answer, error) {
	if err := q.Check(); err != nil {
		return nil, err
	}
	words, err := s.found(ctx, q.Words)
	if err != nil {
		return nil, err
	}
	filters, err := s.filters(q, words)
	if err != nil {
		return nil, err
	}
	t := s.newTally(q)
	var found []int
	for i := range s.n {
		switch out := outside(filters, i); {
		case out == nil:
			found = append(found, i)
			t.all(i)
		case out != many:
			t.beside(out.name, i)
		}
	}
	limit := q.Limit
	if limit == 0 {
		limit = ordering.MostRows
	}
	shown, costs, err := s.first(q, found, q.Skip+limit)
	if err != nil {
		return nil, err
	}
	shown = shown[min(q.Skip, len(shown)):]
	list, err := s.parts(ctx, shown)
	if err != nil {
		return nil, err
	}
	a := &ordering.Answer{Found: len(found), Rows: []ordering.Row{}, Families: t.families(), Facets: t.facets()}
	for k, i := range shown {
		r := ordering.Row{Part: list[k]}
		if c, ok := costs(i); ok {
			r.Cost = &c
		}
		a.Rows = append(a.Rows, r)
	}
	return a, nil
}

// many stands for more than one filter.
var many = &filter{}

// outside is the filter that does not hold, nil when all do, many when several do not.
func outside(filters []*filter, i int) (out *filter) {
	for _, f := range filters {
		for _, holds := range f.holds {
			if !holds(i) {
				if out != nil {
					return many
				}
				out = f
				break
			}
		}
	}
	return out
}

// hidden names the filters that nothing is counted for.
const hidden = ""

func (s *Stock) filters(q *ordering.Query, words []bool) ([]*filter, error) {
	var out []*filter
	add := func(name string, holds func(i int) bool) {
		for _, f := range out {
			if f.name == name && name != hidden {
				f.holds = append(f.holds, holds)
				return
			}
		}
		out = append(out, &filter{name, []func(int) bool{holds}})
	}
	if words != nil {
		add(hidden, func(i int) bool { return words[i] })
	}
	if q.Numbers != nil {
		is := map[int]bool{}
		for _, n := range q.Numbers {
			if i, ok := s.byNumber[n]; ok {
				is[i] = true
			}
		}
		add(hidden, func(i int) bool { return is[i] })
	}
	if q.Family != "" {
		code, ok := s.family.at[q.Family]
		if !ok {
			return nil, fmt.Errorf("there is no family called %q", q.Family)
		}
		add("family", func(i int) bool { return s.family.codes[i] == code })
	}
	if q.InStock {
		add(hidden, func(i int) bool { return s.stock[i] >= max(1, q.Quantity) })
	}
	if q.Placed {
		add(hidden, func(i int) bool { return s.placed[i] })
	}
	if may := s.maySell(q); may != allBits { // what is not sold at all is shown as such
		add(ordering.FilterPackaging, func(i int) bool {
			return s.packagings[i] == 0 && len(q.Is[ordering.FilterPackaging]) == 0 || s.packagings[i]&may != 0
		})
	}
	for name, list := range q.Is {
		if name == ordering.FilterPackaging {
			continue
		}
		col := s.facets[name]
		if col == nil {
			return nil, fmt.Errorf("there is nothing called %q to filter by", name)
		}
		is := make([]bool, len(col.values))
		for _, text := range list {
			if code, ok := col.at[text]; ok {
				is[code] = true
			}
		}
		add(name, func(i int) bool { return col.codes[i] >= 0 && is[col.codes[i]] })
	}
	for _, bound := range []struct {
		of   map[string]float64
		keep func(v, bound float64) bool
	}{
		{q.Least, func(v, bound float64) bool { return v >= bound*(1-1e-9) }},
		{q.Most, func(v, bound float64) bool { return v <= bound*(1+1e-9) }},
	} {
		for name, v := range bound.of {
			col := s.facets[name]
			if col == nil || !col.number {
				return nil, fmt.Errorf("there is no number called %q to filter by", name)
			}
			add(name, func(i int) bool { return col.codes[i] >= 0 && bound.keep(col.values[col.codes[i]].Value, v) })
		}
	}
	return out, nil
}

const allBits = 1<<5 - 1

// packagingsOf a query: those chosen, else all, full reels only when they count too.
func packagingsOf(q *ordering.Query) []string {
	if chosen := q.Is[ordering.FilterPackaging]; len(chosen) > 0 {
		return chosen
	}
	if q.Reels {
		return ordering.Packagings
	}
	return nil
}

func (s *Stock) maySell(q *ordering.Query) (bits uint8) {
	list := packagingsOf(q)
	for i, p := range ordering.Packagings {
		if list == nil && p != ordering.Reel || slices.Contains(list, p) {
			bits |= 1 << i
		}
	}
	return bits
}
