package goods

import (
	"math"

	"goldentrace/core/ordering"
)

// sale is how a kind of part is sold.
type sale struct {
	packagings []string
	reel       int // pieces of a full one
	least      int // of the other packagings
	falls      []float64
}

// How prices fall with the quantity: of what costs next to nothing by itself, more; of what is dear, less. From 1, 10, 25, 100, 250, 500,
// 1000 and 2500 pieces on.
var (
	steps  = []int{1, 10, 25, 100, 250, 500, 1000, 2500}
	steep  = []float64{1, 0.62, 0.45, 0.26, 0.21, 0.17, 0.14, 0.12}
	middle = []float64{1, 0.86, 0.78, 0.64, 0.56, 0.5, 0.44, 0.4}
	flat   = []float64{1, 0.94, 0.9, 0.83, 0.79, 0.76, 0.73, 0.71}
)

// The usual ways.
var (
	taped      = sale{[]string{ordering.CutTape, ordering.Reel}, 5000, 1, steep}
	tapedTens  = sale{[]string{ordering.CutTape, ordering.Reel}, 10000, 10, steep}
	tapedChips = sale{[]string{ordering.CutTape, ordering.Reel}, 2500, 1, middle}
	tapedLarge = sale{[]string{ordering.CutTape, ordering.Reel}, 1000, 1, middle}
	reelOnly   = sale{[]string{ordering.Reel}, 3000, 1, middle}
	tubed      = sale{[]string{"tube"}, 0, 1, middle}
	trayed     = sale{[]string{"tray"}, 0, 1, flat}
	loose      = sale{[]string{"loose"}, 0, 1, middle}
)

// offers for a part that costs so many euros when one is bought.
func (s sale) offers(price float64) []ordering.Offer {
	var out []ordering.Offer
	for _, p := range s.packagings {
		o := ordering.Offer{Packaging: p, Minimum: s.least, Multiple: 1}
		if p == ordering.Reel {
			o.Minimum, o.Multiple = s.reel, s.reel
			last := s.falls[len(s.falls)-1]
			for i, by := range []float64{0.92, 0.84, 0.78} {
				o.Breaks = append(o.Breaks, ordering.Break{From: s.reel * []int{1, 4, 10}[i], Price: rounded(price * last * by)})
			}
		} else {
			for i, from := range steps {
				if from >= s.least {
					o.Breaks = append(o.Breaks, ordering.Break{From: from, Price: rounded(price * s.falls[i])})
				}
			}
		}
		out = append(out, o)
	}
	return out
}

// rounded as price lists are: to four places below ten cents, to three below a euro, else to cents. Never nothing.
func rounded(euros float64) int64 {
	unit := 10_000.0
	switch {
	case euros < 0.1:
		unit = 100
	case euros < 1:
		unit = 1_000
	}
	return max(100, int64(math.Round(euros*1e6/unit)*unit))
}
