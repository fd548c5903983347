package design

import (
	"fmt"
	"strings"
)

// Lying counts what lies on a copper layer, or names it.
type Lying struct {
	Tracks, ViaEnds, Drawn, Areas, Pours, Rules int
}

// String says it: "3 tracks, 1 copper area"; empty: nothing.
func (l Lying) String() string {
	var out []string
	for _, x := range []struct {
		n         int
		one, many string
	}{
		{l.Tracks, "track", "tracks"}, {l.ViaEnds, "end of a via", "ends of vias"}, {l.Drawn, "text or figure", "texts and figures"},
		{l.Areas, "area", "areas"}, {l.Pours, "copper area", "copper areas"}, {l.Rules, "rule", "rules"},
	} {
		switch {
		case x.n == 1:
			out = append(out, "1 "+x.one)
		case x.n > 1:
			out = append(out, fmt.Sprintf("%d %s", x.n, x.many))
		}
	}
	return strings.Join(out, ", ")
}

// OnLayers counts what lies on each copper layer; O(everything on the board).
func (d *Doc) OnLayers() map[LayerID]Lying {
	out := map[LayerID]Lying{}
	add := func(id LayerID, to func(*Lying) *int) {
		if id != 0 {
			l := out[id]
			*to(&l)++
			out[id] = l
		}
	}
	for _, t := range d.Tracks {
		add(t.Layer, func(l *Lying) *int { return &l.Tracks })
	}
	for _, v := range d.Vias {
		add(v.From, func(l *Lying) *int { return &l.ViaEnds })
		add(v.To, func(l *Lying) *int { return &l.ViaEnds })
	}
	for _, t := range d.Legends {
		add(t.Layer, func(l *Lying) *int { return &l.Drawn })
	}
	for _, f := range d.Figures {
		add(f.Layer, func(l *Lying) *int { return &l.Drawn })
	}
	for _, a := range d.RuleAreas {
		for _, id := range a.Layers {
			add(id, func(l *Lying) *int { return &l.Areas })
		}
	}
	for _, p := range d.Pours {
		for _, id := range p.Layers {
			add(id, func(l *Lying) *int { return &l.Pours })
		}
	}
	for _, r := range d.Rules {
		add(r.A.Layer, func(l *Lying) *int { return &l.Rules })
		if r.B.Layer != r.A.Layer {
			add(r.B.Layer, func(l *Lying) *int { return &l.Rules })
		}
	}
	return out
}
