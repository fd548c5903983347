package spanning

import (
	"cmp"
	"slices"
)

// before is the order of lines: shorter ones first, then as their ends lie.
func (s *Points) before(a, b Line) int {
	if c := cmp.Compare(a.length, b.length); c != 0 || a.A == b.A && a.B == b.B {
		return c
	}
	p, q := s.at[a.A], s.at[b.A]
	if p == q {
		p, q = s.at[a.B], s.at[b.B]
	}
	return cmp.Or(cmp.Compare(p.Y, q.Y), cmp.Compare(p.X, q.X))
}

// Lines are those among which a shortest tree finds its own, in order. They hold until the next change.
// Cost: O(n), and what changed.
func (s *Points) Lines() []Line {
	if len(s.stale) == 0 {
		return s.lines
	}
	fresh := make([]Line, 0, len(s.stale))
	seen := map[slot]bool{}
	for _, at := range s.stale {
		if to := s.near[at.sixth][at.point]; to != none && s.live[at.point] && !seen[at] {
			seen[at] = true
			fresh = append(fresh, Line{at.point, to, s.far[at.sixth][at.point], at.sixth})
		}
	}
	slices.SortFunc(fresh, s.before)
	out := make([]Line, 0, len(s.lines)+len(fresh))
	for _, l := range s.lines {
		if !s.live[l.A] || s.near[l.sixth][l.A] != l.B || seen[slot{l.A, l.sixth}] {
			continue
		}
		for len(fresh) > 0 && s.before(fresh[0], l) < 0 {
			out, fresh = append(out, fresh[0]), fresh[1:]
		}
		out = append(out, l)
	}
	s.lines, s.stale = append(out, fresh...), s.stale[:0]
	return s.lines
}
