package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// LoopKey is the key of the finding about a loop.
func LoopKey(l *layout.Loop) string { return fmt.Sprintf("loop %d", l.Tracks[0]) }

// Looped is the finding about a loop.
func Looped(d *design.Doc, l *layout.Loop) *Finding {
	f := &Finding{Key: LoopKey(l), Severity: Warning, Stage: "board", At: l.At, Layer: d.Board.At(l.Layer), Objects: l.Tracks}
	if l.Around > 0 {
		f.Kind, f.Rule = "loop", "Tracks make no loops"
		f.Text = fmt.Sprintf("Tracks of %s lead to one place by two ways, around %.2f mm².", d.NetName(l.Net), l.Around/1e12)
	} else {
		f.Kind, f.Rule, f.Measured = "doubled", "Tracks lie once", l.Over
		f.Text = fmt.Sprintf("Tracks of %s lie over each other for %s.", d.NetName(l.Net), units.Text(l.Over))
	}
	return f
}
