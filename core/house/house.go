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
	Key    string  `json:"key"`
	Name   string  `json:"name"`
	Text   string  `json:"text"` // what it is good for
	Stacks []Stack `json:"stacks"`
}

// Stack is a ready-made stack; the house has it on the shelf.
type Stack struct {
	Name   string              `json:"name"`
	Text   string              `json:"text"`
	Wanted int64               `json:"wanted"` // how thick the board is said to be
	Layers []design.StackLayer `json:"layers"` // from the top; without ids
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

// Copper is how many copper layers it has.
func (s *Stack) Copper() int {
	return (&design.Board{Stack: s.Layers}).Layers()
}
