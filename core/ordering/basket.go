package ordering

import (
	"fmt"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// Need is what one board needs of one thing to order.
type Need struct {
	Number      string // order number; empty: nothing was chosen
	Value       string
	Library     string
	Designators []string
}

// Needs of one board: all fitted packages of the circuit by their order numbers, those for which nothing was chosen by value and library
// part. In the order of designators.
func Needs(d *design.Doc, t *circuit.Tree) []Need {
	var out []Need
	at := map[[3]string]int{}
	for _, k := range circuit.Packages(d, t) {
		p := d.Parts[k.Lead().Part]
		if p.NotFitted {
			continue
		}
		key := [3]string{OrderNumber(p, d.LibraryPart(p.Library))}
		if key[0] == "" {
			key[1], key[2] = ValueKey(p.Value, design.Prefix(p.Designator)), p.Library
		}
		i, ok := at[key]
		if !ok {
			i, at[key] = len(out), len(out)
			out = append(out, Need{Number: key[0], Value: p.Value, Library: p.Library})
		}
		out[i].Designators = append(out[i].Designators, k.Designator)
	}
	return out
}

// NotKnown is why a part is missing where the depot was asked for it.
const NotKnown = "the depot does not know this number"

// Line of a basket.
type Line struct {
	Number      string   `json:"number"`
	Designators []string `json:"designators"`
	Part        *Part    `json:"part"`   // nil: the depot does not know the number
	Need        int      `json:"need"`   // for all boards
	Spare       int      `json:"spare"`  // beyond that
	Held        int      `json:"held"`   // already here
	Wanted      int      `json:"wanted"` // to be bought
	Cost        *Cost    `json:"cost"`   // nil: nothing is to be bought, or it cannot be
	Warnings    []string `json:"warnings"`
	Cheaper     *Cost    `json:"cheaper,omitempty"` // more of them that cost less
	Hint        string   `json:"hint,omitempty"`    // says so
}

// Filled basket.
type Filled struct {
	Boards   int      `json:"boards"`
	Lines    []Line   `json:"lines"`
	Unchosen []Line   `json:"unchosen"` // nothing is ordered for them
	Total    int64    `json:"total"`
	PerBoard int64    `json:"perBoard"`
	Warnings []string `json:"warnings"` // about the whole
}

// Fill makes a basket: what so many boards need and spares, less what is here, bought as cheaply as it can be. known are the depot's
// parts by number; why says why one is missing among them.
func Fill(b *design.Basket, needs []Need, known map[string]*Part, why string) *Filled {
	out := &Filled{Boards: b.Boards, Lines: []Line{}, Unchosen: []Line{}, Warnings: []string{}}
	without := 0
	for _, n := range needs {
		l := Line{Number: n.Number, Designators: n.Designators, Need: len(n.Designators) * b.Boards, Warnings: []string{}}
		if n.Number == "" {
			l.Warnings = append(l.Warnings, fmt.Sprintf("nothing chosen: %s %s", n.Library, n.Value))
			out.Unchosen = append(out.Unchosen, l)
			without += len(n.Designators)
			continue
		}
		l.fill(b, known[n.Number], why)
		if l.Cost != nil {
			out.Total += l.Cost.Total
		}
		out.Lines = append(out.Lines, l)
	}
	if b.Boards > 0 {
		out.PerBoard = (out.Total + int64(b.Boards)/2) / int64(b.Boards)
	}
	if without > 0 {
		out.Warnings = append(out.Warnings, plural(without, "part of the board is ordered nowhere", "parts of the board are ordered nowhere"))
	}
	return out
}

// Spares of so many: the percentage, rounded up, and at least the least.
func Spares(need, percent, least int) int { return max((need*percent+99)/100, least) }

func (l *Line) fill(b *design.Basket, p *Part, why string) {
	l.Part = p
	l.Spare = Spares(l.Need, b.Spares, b.Least)
	l.Held = b.Held[l.Number]
	l.Wanted = max(0, l.Need+l.Spare-l.Held, b.Buy[l.Number])
	warn := func(format string, of ...any) { l.Warnings = append(l.Warnings, fmt.Sprintf(format, of...)) }
	if p == nil {
		warn("%s", why)
		return
	}
	if p.Status != "made" {
		warn("%s", map[string]string{"last orders": "the maker takes last orders", "ended": "not made any more"}[p.Status])
	}
	if l.Wanted == 0 {
		return
	}
	var packagings []string
	if c := b.Packaging[l.Number]; c != "" {
		packagings = []string{c}
	} else if b.Reels {
		packagings = Packagings
	}
	c, ok := Cheapest(p.Offers, l.Wanted, packagings)
	if !ok && len(packagings) == 1 {
		warn("it is not sold as %s", packagings[0])
		packagings = nil
		c, ok = Cheapest(p.Offers, l.Wanted, nil)
	}
	if !ok {
		if slices.ContainsFunc(p.Offers, func(o Offer) bool { return o.Packaging == Reel }) {
			warn("it is sold in full reels only")
			packagings = Packagings
			c, ok = Cheapest(p.Offers, l.Wanted, packagings)
		} else {
			warn("it is not sold at present")
		}
	}
	if !ok {
		return
	}
	l.Cost = &c
	if c.Pieces > l.Wanted {
		warn("%d have to be bought for %d", c.Pieces, l.Wanted)
	}
	if p.Stock < c.Pieces {
		if p.Stock == 0 {
			warn("none in stock; more in %s", plural(p.Weeks, "week", "weeks"))
		} else {
			warn("%d of %d in stock; more in %s", p.Stock, c.Pieces, plural(p.Weeks, "week", "weeks"))
		}
	}
	if more, ok := Cheaper(p.Offers, c, packagings); ok {
		l.Cheaper = &more
		l.Hint = fmt.Sprintf("%d cost %s less", more.Pieces, Euro(c.Total-more.Total))
	}
}

func plural(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// Euro writes money: cents, and as many more places as a small price needs.
func Euro(millionths int64) string {
	places := 2
	switch {
	case millionths == 0:
	case millionths < 1_000:
		places = 6
	case millionths < 100_000:
		places = 4
	}
	return fmt.Sprintf("%.*f €", places, float64(millionths)/1e6)
}
