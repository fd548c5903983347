package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// mostOff is how far the thickness of a board may be from what is wanted, as a share of it: the tolerance of the trade.
const mostOff = 0.1

// stack checks the build of the board: that it is symmetric, and as thick as it is wanted.
func (b *Board) stack() {
	board := b.doc.Board
	if uneven := board.Uneven(); len(uneven) > 0 {
		more := ""
		if n := len(uneven) - 1; n > 0 {
			more = fmt.Sprintf("; and %d more", n)
		}
		b.list(Finding{Key: "uneven", Kind: "stack", Severity: Warning, Rule: "A build is symmetric", Objects: []design.ID{design.BoardID},
			Text: fmt.Sprintf("The build is not symmetric, so that the board may warp: %s%s.", uneven[0], more)})
	}
	if is, want := board.Thickness(), board.Wanted; want > 0 && max(is-want, want-is) > int64(mostOff*float64(want)) {
		b.list(Finding{Key: "thickness", Kind: "stack", Severity: Warning, Rule: "The board's thickness", Measured: is, Required: want,
			Objects: []design.ID{design.BoardID},
			Text:    fmt.Sprintf("The board is %s thick, and %s is wanted.", units.Text(is), units.Text(want))})
	}
}
