// Package goods is what Osier & Finch, the simulated depot, has on offer: invented parts in series of real values, ratings and packages, with
// prices that fall plausibly. Numbers, stocks and times follow from the parts' names, so that it is always the same.
package goods

import (
	"hash/fnv"
	"math"
	"sync"

	"goldentrace/core/landpattern"
	"goldentrace/core/library"
	"goldentrace/core/ordering"
	"goldentrace/core/parts"
)

// Version of the goods; books of another one are made anew.
const Version = 2

// Makers and the letters that their numbers begin with.
const (
	haldwick     = "Haldwick"
	bryceVane    = "Bryce & Vane"
	ottermere    = "Ottermere"
	sennick      = "Sennick"
	quillfeather = "Quillfeather"
)

var letters = map[string]string{haldwick: "HX", bryceVane: "BV", ottermere: "OM", sennick: "SK", quillfeather: "QF"}

// All of it. Cost: some tenths of a second, once.
var All = sync.OnceValue(func() []ordering.Part {
	c := &range_{bodies: map[string]ordering.Body{}}
	c.resistors()
	c.capacitors()
	c.coils()
	c.diodes()
	c.transistors()
	c.power()
	c.analog()
	c.digital()
	c.clocks()
	c.protection()
	c.mechanical()
	return c.parts
})

// range_ is the catalogue on its way.
type range_ struct {
	parts  []ordering.Part
	bodies map[string]ordering.Body
}

// item is what a family says of a part.
type item struct {
	family, maker, series, text, pack string
	props                             []ordering.Property
	body                              ordering.Body // of packages that the library does not know
	price                             float64       // euros for one
	sold                              sale
	rare                              float64 // 0: everywhere in stock; 1: hardly ever
}

func num(name string, v float64, unit string) ordering.Property {
	return ordering.Property{Name: name, Unit: unit, Value: v, Text: ordering.Quantity(v, unit), Number: true}
}

func word(name, text string) ordering.Property { return ordering.Property{Name: name, Text: text} }

// add puts one in. What nobody says of it (stock, time to come, whether the placement line has it) follows from its number.
func (c *range_) add(it item) {
	number := letters[it.maker] + it.series
	h := newDice(number)
	p := ordering.Part{
		Number: "OF-" + h.letters(7), Maker: it.maker, MakerNumber: number, Family: it.family, Text: it.text, Package: it.pack,
		Properties: it.props,
		Body:       it.body, Status: "made", Datasheet: "https://datasheets.osierfinch.example/" + number + ".pdf",
	}
	if p.Body == (ordering.Body{}) {
		p.Body = c.body(it.pack)
	}
	switch x := h.share(); {
	case x < 0.015:
		p.Status = "ended"
	case x < 0.05:
		p.Status = "last orders"
	}
	if h.share() > 0.06+0.5*it.rare {
		p.Stock = int(math.Exp(3.5 + h.share()*(8.5-4*it.rare)))
		if p.Stock > 1000 {
			p.Stock = p.Stock / 50 * 50
		}
	}
	p.Weeks = 2 + int(h.share()*h.share()*24)
	p.Placed = !p.Body.Through && p.Stock > 500 && h.share() < 0.5-0.3*it.rare
	if p.Status != "ended" || p.Stock > 0 {
		p.Offers = it.sold.offers(it.price * (0.92 + 0.16*h.share()))
	}
	c.parts = append(c.parts, p)
}

// body of a package, from its dimensions in the standard and the land pattern made for it.
func (c *range_) body(pack string) ordering.Body {
	if b, ok := c.bodies[pack]; ok {
		return b
	}
	var b ordering.Body
	if r := library.PackageNamed(pack); r != nil {
		if f, err := landpattern.Footprint(r); err == nil {
			s := parts.ShapeOf(f)
			high := max(r.Dims["height"].Max, r.Dims["diameter"].Max) // a cylinder lies
			b = ordering.Body{Length: s.Length, Width: s.Width, Height: high, Pins: s.Pins, Pitch: s.Pitch, Through: s.Through}
		}
	}
	c.bodies[pack] = b
	return b
}

// dice are numbers that follow from a text: always the same.
type dice uint64

func newDice(text string) *dice {
	h := fnv.New64a()
	_, _ = h.Write([]byte(text))
	d := dice(h.Sum64())
	return &d
}

func (d *dice) next() uint64 { // splitmix64 (Steele, Lea, Flood 2014)
	*d += 0x9e3779b97f4a7c15
	z := uint64(*d)
	z = (z ^ z>>30) * 0xbf58476d1ce4e5b9
	z = (z ^ z>>27) * 0x94d049bb133111eb
	return z ^ z>>31
}

// share is between 0 and 1.
func (d *dice) share() float64 { return float64(d.next()>>11) / (1 << 53) }

// letters that are not mistaken for one another.
func (d *dice) letters(n int) string {
	const of = "23456789CDFGHJKLMNPQRTVWX"
	out := make([]byte, n)
	for i := range out {
		out[i] = of[d.next()%uint64(len(of))]
	}
	return string(out)
}
