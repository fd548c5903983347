package demo

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// weirPours lays the ground as a plane of its own below the top and fills what is free of the other layers: ground outside, the logic's supply
// around its tracks inside. Below the relay's contacts no copper lies that they could reach. Of the ground's tracks on its plane none are
// needed any more.
func weirPours(b *builder) {
	d := b.bench.Doc
	for a := range d.RuleAreas.All() {
		if a.Name == "Sluice contacts" {
			q := *a
			q.KeepOut = append(q.KeepOut, design.APour)
			b.do(&edit.PutArea{Area: q})
		}
	}
	layers := func(at ...int) (out []design.LayerID) {
		for _, l := range at {
			out = append(out, d.Board.At(l))
		}
		return out
	}
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Ground plane", Net: b.net("GND"), Layers: layers(ground)}})
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Ground", Net: b.net("GND"), Layers: layers(top, bottom), LeastWidth: 200_000, Clearance: 200_000}})
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Logic supply", Net: b.net("+3V3"), Layers: layers(power), LeastWidth: 250_000, Clearance: 250_000}})
	var needless []design.ID
	for t := range d.Tracks.All() {
		if t.Net == b.net("GND") && t.Layer == d.Board.At(ground) {
			needless = append(needless, t.ID)
		}
	}
	b.do(&edit.Remove{IDs: needless})
}
