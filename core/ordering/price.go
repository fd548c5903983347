package ordering

import (
	"slices"

	"goldentrace/core/design"
)

// Offer is one way in which a part is sold.
type Offer struct {
	Packaging string  `json:"packaging"` // one of Packagings
	Minimum   int     `json:"minimum"`
	Multiple  int     `json:"multiple"` // only so many and their multiples
	Breaks    []Break `json:"breaks"`   // from the least quantity up
}

// Packagings in which parts come.
var Packagings = design.Packagings

// The two of them that matter to what is bought: a piece of a tape, and the whole reel, which nobody wants for a few boards.
const (
	CutTape = "cut tape"
	Reel    = "full reel"
)

// Break is the price of one from a quantity on.
type Break struct {
	From  int   `json:"from"`
	Price int64 `json:"price"` // millionths of a euro
}

// Cost is what getting so many comes to.
type Cost struct {
	Packaging string `json:"packaging"`
	Pieces    int    `json:"pieces"` // as many as have to be bought
	Each      int64  `json:"each"`   // millionths of a euro
	Total     int64  `json:"total"`
}

// MostPieces bounds quantities, so that no price overflows.
const MostPieces = 10_000_000

// Pieces that have to be bought of the offer to get as many: at least its minimum, in its multiples.
func (o *Offer) Pieces(quantity int) int {
	n := max(quantity, o.Minimum, 1)
	if m := o.Multiple; m > 1 {
		n = (n + m - 1) / m * m
	}
	return n
}

// at is the price of one when so many are bought. The first break also holds for fewer.
func (o *Offer) at(pieces int) int64 {
	price := int64(0)
	for i, b := range o.Breaks {
		if i == 0 || b.From <= pieces {
			price = b.Price
		}
	}
	return price
}

// For is what getting as many comes to, or false when nothing is asked for it.
func (o *Offer) For(quantity int) (Cost, bool) {
	if len(o.Breaks) == 0 {
		return Cost{}, false
	}
	n := o.Pieces(min(quantity, MostPieces))
	each := o.at(n)
	return Cost{o.Packaging, n, each, each * int64(n)}, true
}

// Allowed packagings. Empty: all but full reels.
func allowed(packagings []string, p string) bool {
	if len(packagings) == 0 {
		return p != Reel
	}
	return slices.Contains(packagings, p)
}

// Cheapest is the offer of least cost for as many in one of the packagings (none named: all but full reels), or false. Of those that
// cost the same, the one with fewer pieces.
func Cheapest(offers []Offer, quantity int, packagings []string) (best Cost, ok bool) {
	for i := range offers {
		if !allowed(packagings, offers[i].Packaging) {
			continue
		}
		c, has := offers[i].For(quantity)
		if has && (!ok || c.Total < best.Total || c.Total == best.Total && c.Pieces < best.Pieces) {
			best, ok = c, true
		}
	}
	return best, ok
}

// Cheaper is what costs less although more are bought: the first break of the same packagings at which the whole is less than
// now. False: there is none.
func Cheaper(offers []Offer, now Cost, packagings []string) (best Cost, ok bool) {
	for i := range offers {
		o := &offers[i]
		if !allowed(packagings, o.Packaging) {
			continue
		}
		for _, b := range o.Breaks {
			if b.From <= now.Pieces {
				continue
			}
			if c, has := o.For(b.From); has && c.Total < now.Total && (!ok || c.Total < best.Total) {
				best, ok = c, true
			}
		}
	}
	return best, ok
}
