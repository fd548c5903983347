// Package columns holds many objects of one kind as columns of numbers, as they travel to browsers and
// are held there: the tracks and vias of a large board.
package columns

import (
	"encoding/base64"
	"encoding/binary"
	"errors"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Numbers is a column. On the wire it is base64 of 32-bit whole numbers, the lowest byte first.
type Numbers []int32

// MarshalText writes the column.
func (n Numbers) MarshalText() ([]byte, error) {
	raw := make([]byte, 0, 4*len(n))
	for _, v := range n {
		raw = binary.LittleEndian.AppendUint32(raw, uint32(v))
	}
	return base64.StdEncoding.AppendEncode(nil, raw), nil
}

// Tracks by row, in the order of their ids: those that the mask covers and that stand alone. Lengths are nanometres.
type Tracks struct {
	ID     Numbers `json:"id"`
	Layer  Numbers `json:"layer"`
	Net    Numbers `json:"net"`
	Width  Numbers `json:"width"`
	AX     Numbers `json:"ax"`
	AY     Numbers `json:"ay"`
	BX     Numbers `json:"bx"`
	BY     Numbers `json:"by"`
	Bent   Numbers `json:"bent,omitempty"` // rows that are arcs, rising, through MX, MY
	MX     Numbers `json:"mx,omitempty"`
	MY     Numbers `json:"my,omitempty"`
	Locked Numbers `json:"locked,omitempty"` // rows, rising
}

// Vias by row, in the order of their ids: those of one kind, covered by the mask, joined as the rules say, with the same copper on all
// their layers, of sizes of their own, that stand alone. Lengths are nanometres.
type Vias struct {
	ID       Numbers `json:"id"`
	Net      Numbers `json:"net"`
	X        Numbers `json:"x"`
	Y        Numbers `json:"y"`
	Diameter Numbers `json:"diameter"`
	Hole     Numbers `json:"hole"`
	From     Numbers `json:"from"`
	To       Numbers `json:"to"`
	Locked   Numbers `json:"locked,omitempty"` // rows, rising
}

// Copper of a board in columns.
type Copper struct {
	Tracks Tracks `json:"tracks"`
	Vias   Vias   `json:"vias"`
}

// Add takes an object in, in the order of ids; false: columns cannot hold it, and it travels as it is.
func (c *Copper) Add(o design.Object) bool {
	switch o := o.(type) {
	case *design.Track:
		return c.Tracks.add(o)
	case *design.Via:
		return c.Vias.add(o)
	}
	return false
}

func fits(vs ...int64) bool {
	for _, v := range vs {
		if v < math.MinInt32 || v > math.MaxInt32 {
			return false
		}
	}
	return true
}

func (t *Tracks) add(o *design.Track) bool {
	if o.Bare || o.Group != 0 || !fits(int64(o.ID), int64(o.Layer), int64(o.Net), o.Width, o.A.X, o.A.Y, o.B.X, o.B.Y) || o.Mid != nil && !fits(o.Mid.X, o.Mid.Y) {
		return false
	}
	row := int32(len(t.ID))
	put(&t.ID, int64(o.ID))
	put(&t.Layer, int64(o.Layer))
	put(&t.Net, int64(o.Net))
	put(&t.Width, o.Width)
	put(&t.AX, o.A.X)
	put(&t.AY, o.A.Y)
	put(&t.BX, o.B.X)
	put(&t.BY, o.B.Y)
	if o.Mid != nil {
		t.Bent = append(t.Bent, row)
		put(&t.MX, o.Mid.X)
		put(&t.MY, o.Mid.Y)
	}
	if o.Locked {
		t.Locked = append(t.Locked, row)
	}
	return true
}

func (v *Vias) add(o *design.Via) bool {
	if o.Kind != design.Drilled || o.Cover != design.Tented || o.Join != design.ByRule || len(o.Pads) > 0 || o.Barrel != 0 || o.Group != 0 || o.Own ||
		!fits(int64(o.ID), int64(o.Net), o.At.X, o.At.Y, o.Diameter, o.Hole, int64(o.From), int64(o.To)) {
		return false
	}
	if o.Locked {
		v.Locked = append(v.Locked, int32(len(v.ID)))
	}
	put(&v.ID, int64(o.ID))
	put(&v.Net, int64(o.Net))
	put(&v.X, o.At.X)
	put(&v.Y, o.At.Y)
	put(&v.Diameter, o.Diameter)
	put(&v.Hole, o.Hole)
	put(&v.From, int64(o.From))
	put(&v.To, int64(o.To))
	return true
}

func put(n *Numbers, v int64) { *n = append(*n, int32(v)) }

// UnmarshalText reads a column.
func (n *Numbers) UnmarshalText(text []byte) error {
	raw, err := base64.StdEncoding.AppendDecode(nil, text)
	if err != nil || len(raw)%4 != 0 {
		return errors.New("a column is not base64 of 32-bit numbers")
	}
	*n = make(Numbers, len(raw)/4)
	for i := range *n {
		(*n)[i] = int32(binary.LittleEndian.Uint32(raw[4*i:]))
	}
	return nil
}

// Len is how many objects the columns hold.
func (c *Copper) Len() int { return len(c.Tracks.ID) + len(c.Vias.ID) }

// sound tells whether all columns are as long as they are to be and rows lie within.
func (c *Copper) sound() bool {
	t, v := &c.Tracks, &c.Vias
	n, m := len(t.ID), len(v.ID)
	for _, col := range []Numbers{t.Layer, t.Net, t.Width, t.AX, t.AY, t.BX, t.BY} {
		if len(col) != n {
			return false
		}
	}
	for _, col := range []Numbers{v.Net, v.X, v.Y, v.Diameter, v.Hole, v.From, v.To} {
		if len(col) != m {
			return false
		}
	}
	within := func(rows Numbers, n int) bool {
		return !slices.ContainsFunc(rows, func(r int32) bool { return r < 0 || int(r) >= n })
	}
	return len(t.MX) == len(t.Bent) && len(t.MY) == len(t.Bent) && within(t.Bent, n) && within(t.Locked, n) && within(v.Locked, m)
}

// Objects are the tracks and vias that the columns hold. The error says that they do not fit together.
func (c *Copper) Objects() ([]design.Object, error) {
	if !c.sound() {
		return nil, errors.New("the columns do not fit together")
	}
	t, v := &c.Tracks, &c.Vias
	tracks, vias := make([]design.Track, len(t.ID)), make([]design.Via, len(v.ID))
	out := make([]design.Object, 0, c.Len())
	for i := range tracks {
		tracks[i] = design.Track{ID: design.ID(t.ID[i]), Layer: design.LayerID(t.Layer[i]), Net: design.ID(t.Net[i]), Width: int64(t.Width[i]),
			A: geom.Pt(int64(t.AX[i]), int64(t.AY[i])), B: geom.Pt(int64(t.BX[i]), int64(t.BY[i]))}
		out = append(out, &tracks[i])
	}
	for i, row := range t.Bent {
		mid := geom.Pt(int64(t.MX[i]), int64(t.MY[i]))
		tracks[row].Mid = &mid
	}
	for _, row := range t.Locked {
		tracks[row].Locked = true
	}
	for i := range vias {
		vias[i] = design.Via{ID: design.ID(v.ID[i]), Net: design.ID(v.Net[i]), At: geom.Pt(int64(v.X[i]), int64(v.Y[i])), Diameter: int64(v.Diameter[i]), Hole: int64(v.Hole[i]),
			From: design.LayerID(v.From[i]), To: design.LayerID(v.To[i])}
		out = append(out, &vias[i])
	}
	for _, row := range v.Locked {
		vias[row].Locked = true
	}
	return out, nil
}
