package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/house"
)

// PutHouse keeps what a house makes with the project, in place of the one that bears its id.
type PutHouse struct {
	House design.House `json:"house"`
}

// mostHouses bounds the houses of a project.
const mostHouses = 50

// Apply the command.
func (c *PutHouse) Apply(tx *Tx) error {
	h := c.House
	h.Name = strings.TrimSpace(h.Name)
	if err := house.Knows(&h); err != nil {
		return err
	}
	for _, o := range house.All() {
		if strings.EqualFold(o.Name, h.Name) {
			return fmt.Errorf("a house called %s is there already; give yours a name of its own", o.Name)
		}
	}
	if h.ID == 0 {
		if len(tx.Doc.Houses) >= mostHouses {
			return fmt.Errorf("%d houses are kept with the project already; drop one first", mostHouses)
		}
		h.ID = tx.Doc.NewID()
	} else if _, err := get(tx.Doc.Houses, h.ID, "house"); err != nil {
		return err
	}
	return tx.Put(&h)
}

// DropHouse keeps a house with the project no longer. What was taken of it as rules stays.
type DropHouse struct {
	ID design.ID `json:"id"`
}

// Apply the command.
func (c *DropHouse) Apply(tx *Tx) error {
	h, err := get(tx.Doc.Houses, c.ID, "house")
	if err != nil {
		return err
	}
	tx.Remove(h)
	return nil
}
