package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

func TestBasketOfAProject(t *testing.T) {
	k := newDesk(t)
	assert.Nil(t, k.d.Basket)
	assert.Equal(t, 5, k.d.BasketOr().Boards)
	k.do(&edit.SetBasket{Boards: ptr(25), Spares: ptr(2), Held: map[string]int{"OF-A": 40, "OF-B": 3}})
	k.do(&edit.SetBasket{Least: ptr(5), Reels: ptr(true), Held: map[string]int{"OF-A": 0}, Buy: map[string]int{"OF-B": 100}, Packaging: map[string]string{"OF-B": "tube"}})
	assert.Equal(t, &design.Basket{ID: design.BasketID, Boards: 25, Spares: 2, Least: 5, Reels: true, Held: map[string]int{"OF-B": 3}, Buy: map[string]int{"OF-B": 100}, Packaging: map[string]string{"OF-B": "tube"}}, k.d.Basket, "what is not said stays")
	k.do(&edit.SetBasket{Held: map[string]int{"OF-B": 0}, Packaging: map[string]string{"OF-B": ""}})
	assert.Empty(t, k.d.Basket.Held)
	assert.Empty(t, k.d.Basket.Packaging)
	assert.Zero(t, design.PrintOf(k.d.Basket), "no file that is made follows from it")
	assert.NotZero(t, design.PrintOf(k.d.Board))
	k.refuse(&edit.SetBasket{Boards: ptr(25)}, "would change nothing")
	k.refuse(&edit.SetBasket{Boards: ptr(0)}, "1 to 100000 boards")
	k.refuse(&edit.SetBasket{Boards: ptr(100_001)}, "1 to 100000 boards")
	k.refuse(&edit.SetBasket{Spares: ptr(-1)}, "between 0 and 1000 %")
	k.refuse(&edit.SetBasket{Least: ptr(10_000_001)}, "up to 10000000 pieces")
	k.refuse(&edit.SetBasket{Held: map[string]int{"OF-A": -4}}, "cannot be at hand")
	k.refuse(&edit.SetBasket{Buy: map[string]int{"OF-A": 10_000_001}}, "cannot be bought")
	k.refuse(&edit.SetBasket{Packaging: map[string]string{"OF-A": "a bag"}}, "not a packaging")
}
