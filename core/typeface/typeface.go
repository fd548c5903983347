// Package typeface reads outline fonts (TrueType and OpenType) and holds those that ship with the
// program: Barlow for words, JetBrains Mono for figures and names, both under the SIL Open Font
// License. Lengths are ems.
package typeface

import (
	_ "embed" // the fonts
	"errors"
	"fmt"
	"math"
	"sync"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// The fonts, cut by script as they are published for browsers.
var (
	//go:embed fonts/barlow-400.ttf
	barlow []byte
	//go:embed fonts/barlow-600.ttf
	barlowBold []byte
	//go:embed fonts/mono-latin.ttf
	monoLatin []byte
	//go:embed fonts/mono-latin-ext.ttf
	monoLatinExt []byte
	//go:embed fonts/mono-greek.ttf
	monoGreek []byte
	//go:embed fonts/mono-cyrillic.ttf
	monoCyrillic []byte
)

// Largest is the most bytes of a font that is brought along.
const Largest = 4 << 20

// Face is one font. It can be asked by several at once.
type Face struct {
	Name string // of shipped ones, for media that embed them
	Data []byte

	mu    sync.Mutex
	font  *sfnt.Font
	buf   sfnt.Buffer
	width map[rune]float64
	drawn map[rune]Letter
}

// Letter is what a font has for a letter: closed contours of places, filled where they wind around a
// place, and how far the next letter stands on.
type Letter struct {
	Contours [][][2]float64
	Advance  float64
}

// Shipped lists the fonts that ship with the program: words, bold, then the parts of mono.
var Shipped = sync.OnceValue(func() []*Face {
	list := []*Face{{Name: "words", Data: barlow}, {Name: "bold", Data: barlowBold}, {Name: "mono", Data: monoLatin},
		{Name: "mono-ext", Data: monoLatinExt}, {Name: "mono-greek", Data: monoGreek}, {Name: "mono-cyrillic", Data: monoCyrillic}}
	for _, f := range list {
		if err := f.open(); err != nil {
			panic("the type that ships with the program is damaged: " + err.Error())
		}
	}
	return list
})

// Read reads a font's file. What is none, or one that cannot be drawn from, is refused with a sentence.
func Read(name string, data []byte) (f *Face, err error) {
	defer func() {
		if fault := recover(); fault != nil { // a damaged file can lead the reader astray
			f, err = nil, fmt.Errorf("the font %s is damaged", name)
		}
	}()
	switch {
	case len(data) == 0:
		return nil, fmt.Errorf("the file %s is empty", name)
	case len(data) > Largest:
		return nil, fmt.Errorf("the font %s has %d MB; %d MB is the most", name, len(data)>>20, Largest>>20)
	}
	f = &Face{Name: name, Data: data}
	if err := f.open(); err != nil {
		return nil, fmt.Errorf("the file %s is not a font: only TrueType and OpenType can be read (%w)", name, err)
	}
	if h := f.Capital(); h <= 0 {
		return nil, fmt.Errorf("the font %s has no capital letters, so that its size cannot be told", name)
	}
	return f, nil
}

func (f *Face) open() error {
	parsed, err := sfnt.Parse(f.Data)
	if err != nil {
		return err
	}
	if parsed.UnitsPerEm() == 0 {
		return errors.New("it has no unit")
	}
	f.font, f.width, f.drawn = parsed, map[rune]float64{}, map[rune]Letter{}
	return nil
}

// Advance is a letter's width; 0 when the font lacks it.
func (f *Face) Advance(r rune) float64 {
	f.mu.Lock()
	defer f.mu.Unlock()
	if w, ok := f.width[r]; ok {
		return w
	}
	w := 0.0
	if i, err := f.font.GlyphIndex(&f.buf, r); err == nil && i != 0 {
		if a, err := f.font.GlyphAdvance(&f.buf, i, fixed.I(1000), font.HintingNone); err == nil {
			w = float64(a) / 64000
		}
	}
	f.width[r] = w
	return w
}

// Capital is the height of a capital: that of H, else of E.
func (f *Face) Capital() float64 {
	top := 0.0
	for _, r := range "HE" {
		if l, ok := f.Letter(r); ok {
			for _, c := range l.Contours {
				for _, p := range c {
					top = max(top, p[1])
				}
			}
			if top > 0 {
				break
			}
		}
	}
	return top
}

// Letter gives a letter's contours, curves as chords that stray from them by less than a two-thousandth
// of an em; ok is false when the font lacks it.
func (f *Face) Letter(r rune) (l Letter, ok bool) {
	w := f.Advance(r)
	f.mu.Lock()
	defer f.mu.Unlock()
	if l, ok := f.drawn[r]; ok {
		return l, true
	}
	i, err := f.font.GlyphIndex(&f.buf, r)
	if err != nil || i == 0 {
		return Letter{}, false
	}
	upem := fixed.I(int(f.font.UnitsPerEm()))
	segments, err := f.font.LoadGlyph(&f.buf, i, upem, nil)
	if err != nil {
		return Letter{}, false
	}
	em := float64(upem)
	place := func(p fixed.Point26_6) [2]float64 { return [2]float64{float64(p.X) / em, -float64(p.Y) / em} }
	l.Advance = w
	var line [][2]float64
	flush := func() {
		if len(line) > 2 {
			l.Contours = append(l.Contours, line)
		}
		line = nil
	}
	for _, s := range segments {
		switch s.Op {
		case sfnt.SegmentOpMoveTo:
			flush()
			line = append(line, place(s.Args[0]))
		case sfnt.SegmentOpLineTo:
			line = append(line, place(s.Args[0]))
		case sfnt.SegmentOpQuadTo:
			a, b, c := line[len(line)-1], place(s.Args[0]), place(s.Args[1])
			line = Cubic(line, a, Between(a, b, 2.0/3), Between(c, b, 2.0/3), c, 1.0/2000)
		case sfnt.SegmentOpCubeTo:
			line = Cubic(line, line[len(line)-1], place(s.Args[0]), place(s.Args[1]), place(s.Args[2]), 1.0/2000)
		}
	}
	flush()
	f.drawn[r] = l
	return l, true
}

// Between is the place a share of the way from a to b.
func Between(a, b [2]float64, t float64) [2]float64 {
	return [2]float64{a[0] + (b[0]-a[0])*t, a[1] + (b[1]-a[1])*t}
}

// Cubic goes on along a cubic Bézier curve from a to d by chords that stray from it by less than the
// tolerance: a chord over 1/n of a curve strays by at most |B″|/8n², and B″ of a cubic is at most six times
// the larger of its second differences.
func Cubic(line [][2]float64, a, b, c, d [2]float64, tolerance float64) [][2]float64 {
	second := func(p, q, r [2]float64) float64 { return math.Hypot(p[0]-2*q[0]+r[0], p[1]-2*q[1]+r[1]) }
	bend := max(second(a, b, c), second(b, c, d))
	n := min(max(int(math.Ceil(math.Sqrt(0.75*bend/tolerance))), 1), 500)
	for i := 1; i < n; i++ {
		t := float64(i) / float64(n)
		ab, bc, cd := Between(a, b, t), Between(b, c, t), Between(c, d, t)
		line = append(line, Between(Between(ab, bc, t), Between(bc, cd, t), t))
	}
	return append(line, d)
}
