// Package lettering is our own single-stroke alphabet for texts on the board. Letters stand
// on a grid of which six units are the height of a capital; strokes are centre lines.
package lettering

import (
	"math"

	"goldentrace/core/geom"
)

// Capital is the height of a capital letter in grid units; Gap the space between letters.
const (
	Capital = 6
	Gap     = 2
	space   = 3
)

// Letters maps a letter to its strokes: runs of places of two characters each, x then y, y
// below the line as a (−1) and b (−2); runs are parted by blanks.
var Letters = map[rune]string{
	'A': "002640 1333", 'B': "00063645443303 3342413000", 'C': "4536160501103041", 'D': "00062644422000",
	'E': "46060040 0333", 'F': "460600 0333", 'G': "45361605011030414323", 'H': "0006 4046 0343", 'I': "1030 1636 2026",
	'J': "4641301001", 'K': "0006 4602 1340", 'L': "060040", 'M': "0006234640", 'N': "00064046", 'O': "103041453616050110",
	'P': "00063645443303", 'Q': "103041453616050110 2240", 'R': "00063645443303 2340", 'S': "453616050413334241301001",
	'T': "2026 0646", 'U': "060110304146", 'V': "062046", 'W': "0610233046", 'X': "0046 0640", 'Y': "062346 2320", 'Z': "06460040",
	'0': "103041453616050110 1135", '1': "152620 1030", '2': "05163645440040", '3': "0516364544334241301001 1333",
	'4': "30360242", '5': "460603334241301001", '6': "4536160501103041423303", '7': "064610",
	'8': "13040516364544331302011030414233", '9': "0110304145361605041343",
	'a': "4440 4334140301103041", 'b': "0600 0314344341301001", 'c': "4334140301103041", 'd': "4640 4334140301103041",
	'e': "02424334140301103041", 'f': "10152636 0434", 'g': "444a3b1b0a 4334140301103041", 'h': "0600 0314344340",
	'i': "2420 2526", 'j': "343a2b1b 3536", 'k': "0600 3401 1230", 'l': "262130", 'm': "0004 03142320 23344340",
	'n': "0004 0314344340", 'o': "103041433414030110", 'p': "040b 0314344341301001", 'q': "444b 4334140301103041",
	'r': "0004 031434", 's': "43341403123241301001", 't': "16112030 0434", 'u': "0401103041 4440", 'v': "042044",
	'w': "0410233044", 'x': "0044 0440", 'y': "0420 441b", 'z': "04440040",
	'.': "2021", ',': "211a", ':': "2021 2425", ';': "211a 2425", '-': "1333", '–': "1333", '−': "1333", '+': "0343 2125", '=': "0242 0444",
	'/': "0046", '\\': "0640", '(': "36242230", ')': "16242210", '[': "36161030", ']': "16363010", '*': "2125 0442 0244",
	'_': "0040", '!': "2622 2021", '?': "05163645442322 2021", '"': "1614 3634", '\'': "2624", '#': "1016 3036 0242 0444",
	'%': "0046 0506 4041", '&': "4004051625240201102042", '<': "450341", '>': "054301", '|': "2026", '^': "042644", '~': "03143243",
	'µ': "040b 01103041 4440", 'μ': "040b 01103041 4440", 'Ω': "001011030516364543313040", '\u2126': "001011030516364543313040",
	'°': "1416363414", '×': "0145 0541", '@': "3313243432 3242453616050110",
}

// unknown stands for letters the alphabet lacks: an empty frame.
const unknown = "0006464000"

type stroke [][2]float64

func glyph(r rune) (strokes []stroke, width float64) {
	if r == ' ' {
		return nil, space
	}
	code, ok := Letters[r]
	if !ok {
		code = unknown
	}
	var run stroke
	flush := func() {
		if len(run) > 1 {
			strokes = append(strokes, run)
		}
		run = nil
	}
	for i := 0; i < len(code); i++ {
		if code[i] == ' ' || i+1 >= len(code) {
			flush()
			continue
		}
		x, y := float64(code[i]-'0'), float64(code[i+1])-'0'
		if code[i+1] >= 'a' {
			y = -float64(code[i+1]-'a') - 1
		}
		width = math.Max(width, x)
		run = append(run, [2]float64{x, y})
		i++
	}
	flush()
	return strokes, width
}

// Strokes gives the centre lines of a text whose capitals are height nanometres high, its
// middle at the origin.
func Strokes(text string, height int64) [][]geom.Point {
	unit := float64(height) / Capital
	var lines []stroke
	x := 0.0
	for _, r := range text {
		strokes, w := glyph(r)
		for _, s := range strokes {
			moved := make(stroke, len(s))
			for i, p := range s {
				moved[i] = [2]float64{p[0] + x, p[1]}
			}
			lines = append(lines, moved)
		}
		x += w + Gap
	}
	half := (x - Gap) / 2
	out := make([][]geom.Point, len(lines))
	for i, l := range lines {
		for _, p := range l {
			out[i] = append(out[i], geom.Pt(int64(math.Round((p[0]-half)*unit)), int64(math.Round((p[1]-Capital/2.0)*unit))))
		}
	}
	return out
}

// Width of a text in nanometres.
func Width(text string, height int64) int64 {
	x := -float64(Gap)
	for _, r := range text {
		_, w := glyph(r)
		x += w + Gap
	}
	return int64(math.Round(max(x, 0) * float64(height) / Capital))
}
