package synthetic

import (
	"fmt"
	"strconv"

	"goldentrace/core/design"
)

// Net is the document's net with the name, which is made when it is not there, with an id far from those
// of the rest; of no name, none.
func Net(d *design.Doc, name string) design.ID {
	if name == "" {
		return 0
	}
	if n := d.NetNamed(name); n != nil {
		return n.ID
	}
	n := &design.Net{ID: design.ID(9_000_000 + len(d.Nets)), Name: name}
	d.Put(n)
	return n.ID
}

// Layers gives the document a stack of so many copper layers, called L1 and so on.
func Layers(d *design.Doc, n int) {
	var stack []design.StackLayer
	for i := range n {
		if i > 0 {
			stack = append(stack, design.StackLayer{Name: fmt.Sprint("Core ", i), Kind: design.CoreLayer, Thickness: 200_000, Material: "FR-4"})
		}
		stack = append(stack, design.StackLayer{Name: "L" + strconv.Itoa(i+1), Kind: design.CopperLayer, Thickness: 35_000, Material: "Copper"})
	}
	b := *d.Board
	b.Next = 0
	d.Put(b.Stacked(design.WithCoats(stack)))
}
