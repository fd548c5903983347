package bench

import (
	"maps"
	"slices"
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/workbench"
)

// What the hand waits for in the program, where large boards are checked beside it: acts that reach everything.
func BenchmarkHandWaits(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.OpenWith(d, 0, func(*workbench.Bench) func(workbench.Beside) { return func(workbench.Beside) {} }) // made by nobody
		act := func(c edit.Command) {
			if _, err := w.Edit(c); err != nil {
				b.Fatal(err)
			}
			w.Settle()
		}
		b.Run("rule", func(b *testing.B) {
			report(b, 20, func(i int) {
				act(&edit.SetRules{Rules: map[design.RuleKind]int64{design.Clearance: 210_000 + int64(i%2)*10_000}})
			})
		})
		b.Run("stack", func(b *testing.B) { report(b, 20, func(i int) { act(&edit.SetLayers{Copper: 4 - 2*(i%2)}) }) })
		b.Run("rename", func(b *testing.B) {
			names := []string{"GND", "VSS"}
			report(b, 10, func(i int) { act(&edit.RenameNet{Net: names[i%2], To: names[1-i%2]}) })
		})
		b.Run("footprint", func(b *testing.B) {
			uses := map[string]int{}
			for p := range d.Placed.All() {
				uses[p.Footprint]++
			}
			most := slices.MaxFunc(slices.Sorted(maps.Keys(uses)), func(x, y string) int { return uses[x] - uses[y] })
			report(b, 10, func(i int) {
				was := d.Footprint(most)
				now := *was
				now.Pads = slices.Clone(was.Pads)
				now.Pads[0].Size.X += int64(1-2*(i%2)) * 50_000
				w.Apply(edit.ChangeSet{{Kind: design.KindFootprint, ID: was.ID, Before: was, After: &now}})
				w.Settle()
			})
			b.ReportMetric(float64(uses[most]), "parts")
		})
	})
}
