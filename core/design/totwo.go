package design

import (
	"encoding/json"
	"maps"
	"slices"
)

// From version 1 to 2. Layers get ids in the order of the stack; nets get the ids of what was said of
// them (netSpec), else new ones in the order of their names; the board's dozen numbers become rules for
// everything. Nothing else changes: the same copper, nets and files come of it.

// oldTrack is what of a track of version 1 changes; before layers were called so, the field was "sheet".
type oldTrack struct {
	Layer *int   `json:"layer"`
	Sheet int    `json:"sheet"`
	Net   string `json:"net"`
}

type oldVia struct {
	From int    `json:"from"`
	To   int    `json:"to"`
	Net  string `json:"net"`
}

type oldPlaced struct {
	Nets map[string]string `json:"nets"`
}

type oldSpec struct {
	ID        ID     `json:"id"`
	Net       string `json:"net"`
	Class     string `json:"class"`
	Current   int64  `json:"current"`
	Voltage   int64  `json:"voltage"`
	Impedance int64  `json:"impedance"`
	Partner   string `json:"partner"`
}

type oldLayer struct {
	ID        LayerID `json:"id"`
	Name      string  `json:"name"`
	Copper    bool    `json:"copper"`
	Thickness int64   `json:"thickness"`
	Material  string  `json:"material"`
}

type oldBoard struct {
	Stack []oldLayer         `json:"stack"`
	Rules map[RuleKind]int64 `json:"rules"`
}

func toTwo(objects []Raw, next ID) ([]Raw, ID, error) {
	for _, o := range objects {
		next = max(next, o.ID+1, FirstFree)
	}
	up := &two{next: next, nets: map[string]*Net{}}
	for _, o := range objects {
		up.learn(o)
	}
	up.name()
	var out []Raw
	for _, o := range objects {
		if changed, ok := up.object(o); ok {
			out = append(out, changed)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(up.nets)) {
		n := up.nets[name]
		out = append(out, raw(n))
	}
	for i, k := range ofTwo {
		value, ok := up.board.Rules[k]
		if !ok {
			value = Usual()[k]
		}
		out = append(out, raw(&Rule{ID: up.next, Kind: k, Order: i, Value: Fixed(value)}))
		up.next++
	}
	return out, up.next, nil
}

// ofTwo are the kinds of rules of version 2.
var ofTwo = []RuleKind{Clearance, EdgeClearance, HoleClearance, TrackWidth, LeastWidth, LeastHole, LeastRing, ViaDiameter, ViaHole, MaskMargin, PasteMargin, SilkWidth}

type two struct {
	next  ID
	board oldBoard
	nets  map[string]*Net
	specs []oldSpec
}

func raw(o Object) Raw {
	body, _ := json.Marshal(o) // plain data always marshals
	return Raw{Kind: o.ObjectKind(), ID: o.ObjectID(), Body: body}
}

// read reads what is needed of an object; what cannot be read is left to who decodes it.
func read[T any](o Raw) (out T, ok bool) {
	return out, json.Unmarshal(o.Body, &out) == nil
}

// learn notes the board's layers and all nets that are named.
func (up *two) learn(o Raw) {
	name := func(s string) {
		if s != "" && up.nets[s] == nil {
			up.nets[s] = &Net{Name: s}
		}
	}
	switch o.Kind {
	case KindBoard:
		if b, ok := read[oldBoard](o); ok {
			up.board = b
		}
	case KindTrack:
		t, _ := read[oldTrack](o)
		name(t.Net)
	case KindVia:
		v, _ := read[oldVia](o)
		name(v.Net)
	case KindPlaced:
		p, _ := read[oldPlaced](o)
		for _, n := range p.Nets {
			name(n)
		}
	case "netSpec":
		if s, ok := read[oldSpec](o); ok {
			up.specs = append(up.specs, s)
			name(s.Net)
			name(s.Partner)
		}
	}
}

// name gives every net its id and what was said of it.
func (up *two) name() {
	for _, s := range up.specs {
		if n := up.nets[s.Net]; n != nil && n.ID == 0 {
			*n = Net{ID: s.ID, Name: s.Net, Class: s.Class, Current: s.Current, Voltage: s.Voltage, Impedance: s.Impedance}
		}
	}
	for _, name := range slices.Sorted(maps.Keys(up.nets)) {
		if n := up.nets[name]; n.ID == 0 {
			n.ID = up.next
			up.next++
		}
	}
	for _, s := range up.specs {
		if n, p := up.nets[s.Net], up.nets[s.Partner]; n != nil && p != nil {
			n.Partner = p.ID
		}
	}
}

func (up *two) net(name string) ID {
	if n := up.nets[name]; n != nil {
		return n.ID
	}
	return 0
}

// layer is the id of the copper layer at a position; ids follow the order of the stack.
func (up *two) layer(position int) LayerID {
	for i, l := range up.board.Stack {
		if !l.Copper {
			continue
		}
		if position == 0 {
			return LayerID(i + 1)
		}
		position--
	}
	return LayerID(len(up.board.Stack) + 1 + position) // none: refused by who decodes it
}

// object is the object as version 2 says it; false: it is no more.
func (up *two) object(o Raw) (Raw, bool) {
	set := map[string]any{}
	switch o.Kind {
	case "netSpec":
		return o, false
	case KindBoard:
		stack := slices.Clone(up.board.Stack)
		for i := range stack {
			stack[i].ID = LayerID(i + 1)
		}
		set["stack"], set["nextLayer"], set["rules"] = stack, len(stack)+1, nil
	case KindTrack:
		t, ok := read[oldTrack](o)
		if !ok {
			return o, true
		}
		at := t.Sheet
		if t.Layer != nil {
			at = *t.Layer
		}
		set["layer"], set["sheet"], set["net"] = up.layer(at), nil, up.net(t.Net)
	case KindVia:
		v, ok := read[oldVia](o)
		if !ok {
			return o, true
		}
		set["from"], set["to"], set["net"] = up.layer(v.From), up.layer(v.To), up.net(v.Net)
	case KindPlaced:
		p, ok := read[oldPlaced](o)
		if !ok {
			return o, true
		}
		nets := map[string]ID{}
		for pad, n := range p.Nets {
			if id := up.net(n); id != 0 {
				nets[pad] = id
			}
		}
		set["nets"] = nets
	default:
		return o, true
	}
	var fields map[string]json.RawMessage
	if json.Unmarshal(o.Body, &fields) != nil {
		return o, true
	}
	for k, v := range set {
		if v == nil || v == ID(0) {
			delete(fields, k)
			continue
		}
		fields[k], _ = json.Marshal(v) // plain data always marshals
	}
	o.Body, _ = json.Marshal(fields)
	return o, true
}
