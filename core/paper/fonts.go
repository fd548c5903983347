package paper

import (
	_ "embed" // the type
	"slices"
	"sync"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// The type of the drawings: Barlow for words, JetBrains Mono for figures and names, both
// under the SIL Open Font License; cut by script as they are published for browsers.
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

// face is one font file with a name, for media that embed it.
type face struct {
	name  string
	data  []byte
	font  *sfnt.Font
	width map[rune]float64
	mu    sync.Mutex
}

var faces = sync.OnceValue(func() []*face {
	list := []*face{{name: "words", data: barlow}, {name: "bold", data: barlowBold}, {name: "mono", data: monoLatin},
		{name: "mono-ext", data: monoLatinExt}, {name: "mono-greek", data: monoGreek}, {name: "mono-cyrillic", data: monoCyrillic}}
	for _, f := range list {
		parsed, err := sfnt.Parse(f.data)
		if err != nil {
			panic("the type that ships with the program is damaged: " + err.Error())
		}
		f.font, f.width = parsed, map[rune]float64{}
	}
	return list
})

// advance is a letter's width in ems; 0 when the font lacks it.
func (f *face) advance(r rune) float64 {
	f.mu.Lock()
	defer f.mu.Unlock()
	if w, ok := f.width[r]; ok {
		return w
	}
	var buf sfnt.Buffer
	w := 0.0
	if i, err := f.font.GlyphIndex(&buf, r); err == nil && i != 0 {
		if a, err := f.font.GlyphAdvance(&buf, i, fixed.I(1000), font.HintingNone); err == nil {
			w = float64(a) / 64000
		}
	}
	f.width[r] = w
	return w
}

// facesOf lists the fonts a text is looked for in, the first best.
func facesOf(m Mark) []*face {
	all := faces()
	switch {
	case m.Words && m.Bold:
		return append([]*face{all[1]}, all[2:]...)
	case m.Words:
		return append([]*face{all[0]}, all[2:]...)
	}
	return all[2:]
}

// pieces cuts a text by the fonts that have its letters; what no font has becomes a box.
type piece struct {
	face  *face
	text  string
	width float64 // in ems
}

func pieces(m Mark) []piece {
	var out []piece
	list := facesOf(m)
	for _, r := range m.Text {
		f, w := list[0], 0.0
		for _, g := range list {
			if w = g.advance(r); w > 0 {
				f = g
				break
			}
		}
		if w == 0 {
			r, f, w = '?', list[0], list[0].advance('?')
		}
		if k := len(out); k > 0 && out[k-1].face == f {
			out[k-1].text += string(r)
			out[k-1].width += w
		} else {
			out = append(out, piece{f, string(r), w})
		}
	}
	return out
}

// Replaced lists the letters of a text that none of its fonts has; PDF shows "?" for them, the
// screen and SVG what the machine has.
func Replaced(m Mark) []rune {
	var out []rune
	for _, r := range m.Text {
		if !slices.ContainsFunc(facesOf(m), func(f *face) bool { return f.advance(r) > 0 }) {
			out = append(out, r)
		}
	}
	return out
}

// TextWidth is how wide a text runs.
func TextWidth(m Mark) int64 {
	w := 0.0
	for _, p := range pieces(m) {
		w += p.width
	}
	return int64(w * float64(m.Size))
}
