package check

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/pour"
	"goldentrace/core/units"
)

// PourKey is the key of the finding about an area on a layer.
func PourKey(k pour.Key) string { return fmt.Sprintf("pour %d %d", k.Pour, k.Layer) }

// Pours is the finding about what an area fills on a layer: that it could not be filled, that nothing of its net reaches it, or that a plane
// falls into pieces; nil: there is nothing to say.
func Pours(d *design.Doc, f *pour.Fills, k pour.Key) *Finding {
	p := d.Pours[k.Pour]
	l := d.Board.Layer(k.Layer)
	if p == nil || l == nil || !p.On(k.Layer) {
		return nil
	}
	say := func(severity Severity, rule string, at geom.Point, text string, args ...any) *Finding {
		return &Finding{Key: PourKey(k), Kind: "pour", Severity: severity, Rule: rule, Stage: "board", Text: fmt.Sprintf(text, args...),
			At: at, Layer: k.Layer, Objects: []design.ID{p.ID}}
	}
	net := d.NetName(p.Net)
	if at, why := f.Failed(k); why != nil {
		return say(Fault, "Copper areas are filled", at, "The copper area %s cannot be filled near %s, %s on %s: %v.",
			p.Name, units.Text(at.X), units.Text(at.Y), l.Name, why)
	}
	var stay, gone, loose []*pour.Island
	for _, is := range f.Islands(k) {
		if is.Stays {
			stay = append(stay, is)
			if len(is.Touches) == 0 {
				loose = append(loose, is)
			}
		} else {
			gone = append(gone, is)
		}
	}
	switch position := d.Board.Position(k.Layer); {
	case len(stay)+len(gone) == 0 && f.Waiting() == 0:
		return nothing(d, p, k, say)
	case len(stay) == 0 && len(gone) > 0:
		return say(Warning, "Copper areas are reached", gone[0].At,
			"Nothing of %s reaches the copper area %s on %s, so that it is left empty.", net, p.Name, l.Name)
	case len(p.Outline) == 0 && len(stay) > 1 && position > 0 && position < d.Board.Layers()-1:
		least := slices.MinFunc(stay, func(a, b *pour.Island) int { return cmp.Compare(a.Size, b.Size) })
		return say(Warning, "Planes are whole", least.At, "The plane of %s on %s falls into %d pieces.", net, l.Name, len(stay))
	case len(loose) == 1:
		return say(Warning, "Copper is joined", loose[0].At, "One island of the copper area %s on %s stays that nothing of %s reaches.",
			p.Name, l.Name, net)
	case len(loose) > 1:
		return say(Warning, "Copper is joined", loose[0].At, "%d islands of the copper area %s on %s stay that nothing of %s reaches.",
			len(loose), p.Name, l.Name, net)
	}
	return nil
}

// nothing is the finding about an area that fills nothing on a layer: that others go before it, or that there is no room for it.
func nothing(d *design.Doc, p *design.Pour, k pour.Key, say func(Severity, string, geom.Point, string, ...any) *Finding) *Finding {
	at := d.Board.Region().Outer.Box().Centre()
	if len(p.Outline) > 0 {
		at = geom.Closing(p.Outline).Box().Centre()
	}
	layer, rule := d.Board.Layer(k.Layer).Name, "Copper areas fill something"
	var over *design.Pour // the first that goes before it and lies over it
	for o := range d.Pours.All() {
		if o.Net != p.Net && o.On(k.Layer) && o.Before(p) && over == nil && (len(o.Outline) == 0 || geom.Closing(o.Outline).Box().Holds(at)) {
			over = o
		}
	}
	if over == nil {
		return say(Warning, rule, at, "The copper area %s gets nothing on %s: there is no room for it.", p.Name, layer)
	}
	return say(Warning, rule, at, "The copper area %s gets nothing on %s: %s lies over it and goes before it. Give %s a higher priority than %d.",
		p.Name, layer, over.Name, p.Name, over.Priority)
}
