package depot

import (
	"cmp"
	"slices"
	"strconv"

	"goldentrace/core/ordering"
)

// columns hold what all parts are filtered, counted and sorted by, part after part.
type columns struct {
	n          int
	byNumber   map[string]int
	family     *column
	facets     map[string]*column // by property, and maker, package, status
	ofFamily   map[int32][]string // properties of a family, in its order
	offers     [][]ordering.Offer
	packagings []uint8 // bits, as in ordering.Packagings
	stock      []int
	placed     []bool
	numbers    []string
	byRank     []int32 // of numbers, in their order
}

// column is one thing said of parts: a code for each, -1 where it is not said.
type column struct {
	name, unit string
	number     bool
	codes      []int32
	values     []ordering.Count // by code; Count is not used
	at         map[string]int32
	rank       []int32 // of codes, in the order of their values
}

func newColumn(name string) *column { return &column{name: name, at: map[string]int32{}} }

func (c *column) put(i int, text string, value float64) {
	for len(c.codes) < i {
		c.codes = append(c.codes, -1)
	}
	code, ok := c.at[text]
	if !ok {
		code = int32(len(c.values))
		c.at[text] = code
		c.values = append(c.values, ordering.Count{Text: text, Value: value})
	}
	c.codes = append(c.codes, code)
}

// close sorts the values and fills up to so many parts.
func (c *column) close(n int) {
	for len(c.codes) < n {
		c.codes = append(c.codes, -1)
	}
	order := make([]int32, len(c.values))
	for i := range order {
		order[i] = int32(i)
	}
	slices.SortFunc(order, func(a, b int32) int {
		x, y := c.values[a], c.values[b]
		return cmp.Or(cmp.Compare(x.Value, y.Value), cmp.Compare(x.Text, y.Text))
	})
	c.rank = make([]int32, len(order))
	for r, code := range order {
		c.rank[code] = int32(r)
	}
}

// What of its body every part is filtered by.
var bodyFacets = []string{ordering.BodyLength, ordering.BodyWidth, ordering.BodyHeight, ordering.LeadPitch, ordering.Leads}

// leads is the place of their number among them; all others are lengths.
const leads = 4

func measures(b *ordering.Body) [5]int64 {
	return [5]int64{b.Length, b.Width, b.Height, b.Pitch, int64(b.Pins)}
}

func newColumns() *columns {
	c := &columns{byNumber: map[string]int{}, family: newColumn("family"), facets: map[string]*column{}, ofFamily: map[int32][]string{}}
	for _, name := range []string{ordering.FilterMaker, ordering.FilterPackage, ordering.FilterStatus} {
		c.facets[name] = newColumn(name)
	}
	for k, name := range bodyFacets {
		col := newColumn(name)
		col.number = true
		if k != leads {
			col.unit = "m"
		}
		c.facets[name] = col
	}
	return c
}

func (c *columns) add(p *ordering.Part) {
	i := c.n
	c.n++
	c.byNumber[p.Number] = i
	c.family.put(i, p.Family, 0)
	c.facets[ordering.FilterMaker].put(i, p.Maker, 0)
	c.facets[ordering.FilterPackage].put(i, p.Package, 0)
	c.facets[ordering.FilterStatus].put(i, p.Status, 0)
	family := c.family.codes[i]
	for _, x := range p.Properties {
		col := c.facets[x.Name]
		if col == nil {
			col = newColumn(x.Name)
			col.unit, col.number = x.Unit, x.Number
			c.facets[x.Name] = col
		}
		if !slices.Contains(c.ofFamily[family], x.Name) {
			c.ofFamily[family] = append(c.ofFamily[family], x.Name)
		}
		col.put(i, x.Text, x.Value)
	}
	for k, v := range measures(&p.Body) {
		if v == 0 {
			continue
		}
		col := c.facets[bodyFacets[k]]
		if k == leads {
			col.put(i, strconv.FormatInt(v, 10), float64(v))
		} else {
			col.put(i, ordering.Quantity(float64(v)/1e9, "m"), float64(v)/1e9)
		}
	}
	var bits uint8
	for _, o := range p.Offers {
		bits |= 1 << slices.Index(ordering.Packagings, o.Packaging)
	}
	c.packagings = append(c.packagings, bits)
	c.offers = append(c.offers, p.Offers)
	c.stock = append(c.stock, p.Stock)
	c.placed = append(c.placed, p.Placed)
	c.numbers = append(c.numbers, p.Number)
}

func (c *columns) close() {
	order := make([]int, c.n)
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(c.numbers[a], c.numbers[b]) })
	c.byRank = make([]int32, c.n)
	for r, i := range order {
		c.byRank[i] = int32(r)
	}
	c.family.close(c.n)
	for _, col := range c.facets {
		col.close(c.n)
	}
}
