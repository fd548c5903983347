package library

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// Catalog is a list of items made ready for searching as somebody types: a search looks at
// each item once, at about a tenth of a microsecond.
type Catalog struct {
	items    []Item                       // by name, numbers by their value
	by       map[string]int               // items by their exact name
	feet     map[string]*design.Footprint // by name
	own      map[string]int               // whose item a footprint is
	names    []string                     // in lower case
	rest     []string                     // all other texts, in lower case, words between spaces
	pins     []int
	mounting []Mounting

	listed sync.Once // the list of footprints
	list   []Foot
}

// NewCatalog makes items ready for searching.
func NewCatalog(items []Item) *Catalog {
	c := &Catalog{items: slices.Clone(items), by: map[string]int{}, feet: map[string]*design.Footprint{}, own: map[string]int{}}
	slices.SortStableFunc(c.items, func(a, b Item) int {
		return circuit.CompareNatural(a.Part.Name, b.Part.Name)
	})
	for i, it := range c.items {
		p := it.Part
		c.by[p.Name] = i
		if it.Footprint != nil {
			c.foot(i, it.Footprint)
		}
		for _, f := range it.Others {
			c.foot(i, f)
		}
		c.names = append(c.names, strings.ToLower(p.Name))
		c.rest = append(c.rest, strings.ToLower(strings.Join([]string{"", p.Value, p.Footprint, p.Prefix, p.Description, p.Keywords, ""}, " ")))
		c.pins, c.mounting = append(c.pins, RowOf(it).Pins), append(c.mounting, mountingOf(it.Footprint))
	}
	return c
}

// Find is the item with the exact name.
func (c *Catalog) Find(name string) (Item, bool) {
	i, ok := c.by[name]
	if !ok {
		return Item{}, false
	}
	return c.items[i], true
}

func (c *Catalog) foot(of int, f *design.Footprint) {
	if f != nil {
		c.feet[f.Name], c.own[f.Name] = f, of
	}
}

// Asset that the footprint of the name refers to, or nil.
func (c *Catalog) Asset(footprint string, id design.ID) *design.Asset {
	i, ok := c.own[footprint]
	if !ok {
		return nil
	}
	return c.items[i].Assets[id]
}

// Footprint by its name, or nil.
func (c *Catalog) Footprint(name string) *design.Footprint { return c.feet[name] }

var shipped = sync.OnceValue(func() *Catalog { return NewCatalog(shippedItems()) })

// Shipped is the catalog of the shipped library.
func Shipped() *Catalog { return shipped() }

// Search the shipped library.
func Search(query string) []Item {
	found, _ := shipped().Search(query, 0)
	return found
}

var (
	pinCount = regexp.MustCompile(`([0-9]+)[ -]pins?\b`)
	wild     = strings.NewReplacer(`\*`, `\S*`, `\?`, `\S`)
)

// Search lists the items in which every word of the query occurs, best first: whole words before the beginnings of words and those before what stands
// within them, the name before value, footprint, prefix, description and keywords; alike ones by name, numbers by their value. Plain words of people stand
// for those of the trade as well (alike.go). A word may hold the wildcards * and ?, which stand for any letters and for one; "8 pins" asks for a
// number of pins. Most bounds the list, 0 does not; found is how many there are in all.
func (c *Catalog) Search(query string, most int) (list []Item, found int) {
	return c.SearchMounted(query, AnyMounting, most)
}

// Mounting is how parts are held on a board: alike ones that are mounted so come first.
type Mounting string

const (
	AnyMounting Mounting = ""
	Through     Mounting = "through" // leads in plated holes
	Surface     Mounting = "surface" // pads on one side
)

// mountingOf a footprint.
func mountingOf(f *design.Footprint) Mounting {
	switch {
	case f == nil || len(f.Pads) == 0:
		return AnyMounting
	case slices.ContainsFunc(f.Pads, func(p design.Pad) bool { return p.Hole > 0 }):
		return Through
	}
	return Surface
}

// SearchMounted is Search with those first, among equals, that are mounted as said.
func (c *Catalog) SearchMounted(query string, like Mounting, most int) (list []Item, found int) {
	query = strings.ToLower(query)
	pins := -1
	if m := pinCount.FindStringSubmatch(query); m != nil {
		pins, _ = strconv.Atoi(m[1]) // digits only
		query = strings.Replace(query, m[0], " ", 1)
	}
	words := strings.Fields(query)
	whole := strings.Join(words, " ")
	asked := wordsAsked(words)
	var ranked [][]int // the items of each rank, by name
	for i, name := range c.names {
		if pins >= 0 && c.pins[i] != pins {
			continue
		}
		rank := 2
		for _, w := range asked {
			r := w.rank(name, c.rest[i])
			if r < 0 {
				rank = -1
				break
			}
			rank += r
		}
		if rank < 0 {
			continue
		}
		switch { // what is called just so comes first, then what begins so
		case name == whole:
			rank = 0
		case len(words) > 1 && strings.HasPrefix(name, whole):
			rank = 1
		}
		rank *= 2
		if like != AnyMounting && c.mounting[i] != like {
			rank++
		}
		for len(ranked) <= rank {
			ranked = append(ranked, nil)
		}
		ranked[rank] = append(ranked[rank], i)
		found++
	}
	for _, same := range ranked {
		for _, i := range same {
			if most > 0 && len(list) == most {
				return list, found
			}
			list = append(list, c.items[i])
		}
	}
	return list, found
}

// asked is a word of a query with the words that mean the same.
type asked struct {
	words []string
	glob  *glob
}

// wordsAsked are the words of a query; long ones first, which leave less to look at.
func wordsAsked(words []string) (out []asked) {
	for _, w := range alike(words) {
		a := asked{words: w}
		if strings.ContainsAny(w[0], "*?") {
			a.glob = &glob{pieces: strings.FieldsFunc(w[0], func(r rune) bool { return r == '*' || r == '?' })}
			a.glob.whole = regexp.MustCompile(`(^|\s)` + wild.Replace(regexp.QuoteMeta(w[0])) + `(\s|$)`)
		}
		out = append(out, a)
	}
	slices.SortStableFunc(out, func(a, b asked) int { return len(b.words[0]) - len(a.words[0]) })
	return out
}

// rank tells how well the word fits an item, 0 best; below 0 it does not.
func (a asked) rank(name, rest string) int {
	switch g := a.glob; {
	case g != nil && g.in(name):
		return 1
	case g != nil && g.in(rest):
		return 4
	case g != nil:
		return -1
	}
	best := -1
	for k, w := range a.words {
		r := rankOf(name, rest, w)
		if r >= 0 && k > 0 {
			r += 2 // it means the same, but is not what was typed
		}
		if r >= 0 && (best < 0 || r < best) {
			best = r
		}
	}
	return best
}

func rankOf(name, rest, w string) int {
	switch at, i := place(name, w); {
	case at == wholeWord && i == 0:
		return 0
	case at == wholeWord:
		return 1
	case at == wordBegins && i == 0:
		return 2
	case at == wordBegins:
		return 3
	case at == within:
		if at, _ := place(rest, w); at == wholeWord {
			return 4
		}
		return 6
	}
	switch at, _ := place(rest, w); at {
	case wholeWord:
		return 4
	case wordBegins:
		return 5
	case within:
		return 7
	}
	return -1
}

// Where a word stands in a text.
const (
	nowhere = iota
	within
	wordBegins
	wholeWord
)

// place is how a word stands in a text at best, and where.
func place(text, w string) (best, at int) {
	for from := 0; from < len(text); {
		i := strings.Index(text[from:], w)
		if i < 0 {
			break
		}
		i += from
		how := within
		if i == 0 || !ofWord(text[i-1]) {
			how = wordBegins
			if len(w) == 1 { // whether a letter stands alone says little
				return how, i
			}
			if end := i + len(w); end == len(text) || !ofWord(text[end]) {
				return wholeWord, i
			}
		}
		if how > best {
			best, at = how, i
		}
		from = i + 1
	}
	return best, at
}

// ofWord tells whether a byte belongs to a word: letters and figures, and whatever is beyond ASCII.
func ofWord(b byte) bool {
	return b >= 'a' && b <= 'z' || b >= '0' && b <= '9' || b >= 0x80
}

// glob is a word with wildcards; its letters are looked for first, which is quick.
type glob struct {
	pieces []string
	whole  *regexp.Regexp
}

func (g *glob) in(text string) bool {
	for _, p := range g.pieces {
		if !strings.Contains(text, p) {
			return false
		}
	}
	return g.whole.MatchString(text)
}
