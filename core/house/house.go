// Package house knows what board houses offer: ready-made stacks. The houses are simulated; what they offer stands in files beside
// this one, as a house would publish it.
package house

import (
	"embed"
	"encoding/json"
	"fmt"
	"slices"

	"goldentrace/core/design"
)

// House is a board house.
type House struct {
	Key     string    `json:"key"`
	Own     design.ID `json:"-"` // by which a project keeps it; 0: it is built in
	Name    string    `json:"name"`
	Text    string    `json:"text"` // what it is good for
	Of      string    `json:"-"`    // the key of the house that it is a variant of
	Stacks  []Stack   `json:"stacks"`
	Classes []Class   `json:"classes"` // the cheapest first
}

// Stack is a ready-made stack; the house has it on the shelf.
type Stack struct {
	Name   string              `json:"name"`
	Text   string              `json:"text"`
	Wanted int64               `json:"wanted"` // how thick the board is said to be
	Layers []design.StackLayer `json:"layers"` // from the top; without ids
	Holes  Holes               `json:"holes"`
}

// Holes are those that the house makes in a stack; copper layers are meant by their place, 1 at the top.
type Holes struct {
	Drilled design.HoleLimits `json:"drilled"`
	Lasered design.HoleLimits `json:"lasered,omitzero"`
	Stacked int               `json:"stacked,omitempty"`
	Barrels []Barrel          `json:"barrels,omitempty"` // none: through all layers, of the sizes that the rules say
}

// Barrel is a hole that the house makes in a stack.
type Barrel struct {
	Name     string `json:"name"`
	Kind     string `json:"kind,omitempty"`
	From     int    `json:"from"`
	To       int    `json:"to"`
	Hole     int64  `json:"hole"`
	Diameter int64  `json:"diameter"`
	Cover    string `json:"cover,omitempty"`
}

//go:embed *.json
var files embed.FS

// All lists the houses, the plainest first.
func All() []House { return slices.Clone(all) }

var all = read("northgate", "tallow")

func read(keys ...string) (out []House) {
	for _, key := range keys {
		data, err := files.ReadFile(key + ".json")
		if err != nil {
			panic(err) // it is built in
		}
		h := House{Key: key}
		if err := json.Unmarshal(data, &h); err != nil {
			panic(fmt.Sprintf("%s.json: %v", key, err))
		}
		out = append(out, h)
	}
	return out
}

// StackOf finds a ready-made stack by the house's key and its name.
func StackOf(key, name string) (Stack, error) {
	for _, h := range all {
		for _, s := range h.Stacks {
			if h.Key == key && s.Name == name {
				return s, nil
			}
		}
	}
	return Stack{}, fmt.Errorf("no board house offers a stack called %q", name)
}

// On are the holes for a board that has the stack; barrels that it has by name keep their ids.
func (h *Holes) On(b *design.Board) design.Holes {
	out := design.Holes{Drilled: h.Drilled, Lasered: h.Lasered, Stacked: h.Stacked, Next: max(b.Holes.Next, 1)}
	old := map[string]design.BarrelID{}
	for _, l := range b.Holes.Barrels {
		old[l.Name] = l.ID
	}
	for _, l := range h.Barrels {
		id, ok := old[l.Name]
		if !ok {
			id = out.Next
			out.Next++
		}
		out.Barrels = append(out.Barrels, design.Barrel{ID: id, Name: l.Name, Kind: l.Kind, From: b.At(l.From - 1), To: b.At(l.To - 1), Hole: l.Hole, Diameter: l.Diameter, Cover: l.Cover})
	}
	return out
}

// Own counts the holes and the ways of a board that somebody made: those that no ready-made stack brings along.
func Own(b *design.Board) (holes, ways int) {
	for _, h := range all {
		for i := range h.Stacks {
			s := &h.Stacks[i]
			if s.Copper() == b.Layers() && slices.Equal(s.Holes.On(b).Barrels, b.Holes.Barrels) {
				return 0, len(b.Holes.Ways)
			}
		}
	}
	return len(b.Holes.Barrels), len(b.Holes.Ways)
}

// Copper is how many copper layers it has.
func (s *Stack) Copper() int {
	return (&design.Board{Stack: s.Layers}).Layers()
}
