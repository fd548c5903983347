package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/parts"
)

// WindowPaste parts the paste of pads into windows, or makes it whole again.
type WindowPaste struct {
	Footprint design.ID `json:"footprint"`
	Pads      []int     `json:"pads"` // refs
	Columns   int       `json:"columns,omitempty"`
	Rows      int       `json:"rows,omitempty"`
	Percent   int       `json:"percent,omitempty"` // of the copper that is covered; 0: no windows
}

// Apply the command.
func (c *WindowPaste) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Footprints, c.Footprint, "footprint")
	if err != nil {
		return err
	}
	f, _, _ := old.Named()
	n := 0
	for i := range f.Pads {
		p := &f.Pads[i]
		if !slices.Contains(c.Pads, p.ID) {
			continue
		}
		n++
		paste := design.Opening{}
		if p.Paste != nil {
			paste = *p.Paste
		}
		paste.Windows, paste.None = nil, false
		if c.Percent > 0 {
			if paste.Windows, err = parts.Windows(p, c.Columns, c.Rows, c.Percent); err != nil {
				return err
			}
		}
		p.Paste = &paste
		if paste.Margin == nil && paste.Windows == nil {
			p.Paste = nil
		}
	}
	if n == 0 {
		return fmt.Errorf("no pads are named")
	}
	return tx.Put(f)
}
