package depot

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/ordering"
)

// key is what a part is sorted by.
type key struct {
	first, second int64
	i             int
}

// last comes after everything, in both directions.
const last = int64(1) << 62

// first gives the first of what was found in the order that is asked for, and what each of them costs. Cost: O(n) for a few of many.
func (s *Stock) first(q *ordering.Query, found []int, most int) ([]int, func(i int) (ordering.Cost, bool), error) {
	quantity, packagings := max(1, q.Quantity), packagingsOf(q)
	cost := func(i int) (ordering.Cost, bool) { return ordering.Cheapest(s.offers[i], quantity, packagings) }
	of, err := s.orderOf(q, quantity, cost)
	if err != nil {
		return nil, nil, err
	}
	most = min(most, len(found))
	if most == 0 {
		return nil, cost, nil
	}
	compare := func(a, b key) int {
		x := cmp.Compare(a.first, b.first)
		if q.Down && a.first != last && b.first != last {
			x = -x
		}
		if x == 0 {
			x = cmp.Compare(a.second, b.second)
		}
		if x == 0 {
			x = cmp.Compare(s.byRank[a.i], s.byRank[b.i])
		}
		return x
	}
	keys := make([]key, 0, 2*most+1)
	var worst *key // of as many as are wanted; what comes after it is out of the question
	for _, i := range found {
		a, b := of(i)
		k := key{a, b, i}
		if worst != nil && compare(k, *worst) > 0 {
			continue
		}
		if keys = append(keys, k); len(keys) == cap(keys) {
			slices.SortFunc(keys, compare)
			keys = keys[:most]
			w := keys[most-1]
			worst = &w
		}
	}
	slices.SortFunc(keys, compare)
	keys = keys[:min(most, len(keys))]
	out := make([]int, len(keys))
	for k := range keys {
		out[k] = keys[k].i
	}
	return out, cost, nil
}

// orderOf gives what parts are sorted by; of those alike the cheaper one comes first.
func (s *Stock) orderOf(q *ordering.Query, quantity int, cost func(int) (ordering.Cost, bool)) (func(i int) (int64, int64), error) {
	price := func(i int) int64 {
		if c, ok := cost(i); ok {
			return c.Total
		}
		return last
	}
	switch q.Sort {
	case "":
		return func(i int) (int64, int64) {
			if s.stock[i] < quantity {
				return 1, price(i)
			}
			return 0, price(i)
		}, nil
	case "price":
		return func(i int) (int64, int64) { return price(i), 0 }, nil
	case "stock":
		return func(i int) (int64, int64) { return int64(s.stock[i]), price(i) }, nil
	case "number":
		return func(i int) (int64, int64) { return int64(s.byRank[i]), 0 }, nil
	}
	col := s.facets[q.Sort]
	if col == nil {
		return nil, fmt.Errorf("there is nothing called %q to sort by", q.Sort)
	}
	return func(i int) (int64, int64) {
		if col.codes[i] < 0 {
			return last, 0
		}
		return int64(col.rank[col.codes[i]]), price(i)
	}, nil
}
