package design

import "slices"

// Basket says how parts are bought for the project: for how many boards, with what to spare, what is here already and in what packaging
// some of them come. There is at most one, with id 4. What it holds and costs follows from the circuit and from the depot.
type Basket struct {
	ID     ID   `json:"id"`
	Boards int  `json:"boards"`
	Spares int  `json:"spares"` // percent more than needed
	Least  int  `json:"least"`  // spare pieces of each, at least
	Reels  bool `json:"reels,omitempty"`
	// Held are the pieces that are here, by order number.
	Held map[string]int `json:"held,omitempty"`
	// Buy says of order numbers that at least so many are bought.
	Buy map[string]int `json:"buy,omitempty"`
	// Packaging that was chosen instead of the cheapest, by order number.
	Packaging map[string]string `json:"packaging,omitempty"`
}

// UsualBasket is the one of a project that has none: for five boards, without spares.
func UsualBasket() *Basket { return &Basket{ID: BasketID, Boards: 5} }

// BasketOr is the project's basket, or the usual one.
func (d *Doc) BasketOr() *Basket {
	if d.Basket != nil {
		return d.Basket
	}
	return UsualBasket()
}

// Packagings in which parts are sold.
var Packagings = []string{"cut tape", "full reel", "tube", "tray", "loose"}

// Bounds of a basket.
const (
	MostBoards = 100_000
	MostHeld   = 10_000_000
)

// Valid checks the basket.
func (b *Basket) Valid() error {
	if err := firstOf(
		check(b.Boards >= 1 && b.Boards <= MostBoards, "a basket is for 1 to %d boards, not %d", MostBoards, b.Boards),
		check(b.Spares >= 0 && b.Spares <= 1000, "spares are between 0 and 1000 %%, not %d", b.Spares),
		check(b.Least >= 0 && b.Least <= MostHeld, "spares are up to %d pieces, not %d", MostHeld, b.Least),
		most("the list of what is at hand", len(b.Held), 20_000),
		most("the list of what is bought", len(b.Buy), 20_000),
		most("the list of packagings", len(b.Packaging), 20_000),
	); err != nil {
		return err
	}
	for n, k := range b.Held {
		if err := firstOf(name("order number", n), check(k >= 0 && k <= MostHeld, "%d pieces of %s cannot be at hand", k, n)); err != nil {
			return err
		}
	}
	for n, k := range b.Buy {
		if err := firstOf(name("order number", n), check(k >= 0 && k <= MostHeld, "%d pieces of %s cannot be bought", k, n)); err != nil {
			return err
		}
	}
	for n, k := range b.Packaging {
		if err := firstOf(name("order number", n), check(slices.Contains(Packagings, k), "%q is not a packaging", k)); err != nil {
			return err
		}
	}
	return nil
}
