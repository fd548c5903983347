package edit

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Clipped is an object on the clipboard.
type Clipped struct {
	Kind   design.Kind     `json:"kind"`
	Object json.RawMessage `json:"object"`
}

// Paste puts copies of circuit objects on a sheet, moved by Step. Copied parts take free
// designators of their prefix; parts of another project bring nothing but their names, so
// their library parts must be in the shipped library or here already.
type Paste struct {
	Sheet design.ID  `json:"sheet"`
	Step  geom.Point `json:"step"`
	// About, Quarters and Mirror turn the copies about a place before they are moved.
	About    geom.Point `json:"about"`
	Quarters int        `json:"quarters,omitempty"`
	Mirror   bool       `json:"mirror,omitempty"`
	Items    []Clipped  `json:"items"`
	// NumberOn gives copies of labels and ports whose names the sheet has already the next free
	// numbers, so that they join nothing.
	NumberOn bool `json:"numberOn,omitempty"`
}

// Bears lists the names of the labels and ports to be pasted that are borne already by nets of
// the sheet: by these the copies would join them.
func (c *Paste) Bears(_ *design.Doc, n *circuit.Nets) []string {
	out := map[string]bool{}
	for _, it := range c.Items {
		if name := clippedName(it); name != "" && bears(n, c.Sheet, name) {
			out[name] = true
		}
	}
	return slices.Sorted(maps.Keys(out))
}

// clippedName is the name of a label or port on the clipboard, else empty.
func clippedName(it Clipped) string {
	if it.Kind != design.KindLabel && it.Kind != design.KindPort {
		return ""
	}
	var o struct {
		Name string `json:"name"`
	}
	if json.Unmarshal(it.Object, &o) != nil {
		return ""
	}
	return o.Name
}

// bears tells whether nets of a sheet bear a name, or any member's of a bundle.
func bears(n *circuit.Nets, sheet design.ID, name string) bool {
	members, _ := design.Members(name) // a name that cannot be is refused by the command
	return slices.ContainsFunc(members, func(m string) bool { return len(n.Bearing(sheet, m)) > 0 })
}

// numberedOn finds new names for those that the sheet has already: IN0 becomes the next INn that
// is free, D[7:0] the next Dn[7:0] whose members are.
func (c *Paste) numberedOn(n *circuit.Nets) map[string]string {
	out := map[string]string{}
	taken := map[string]bool{}
	for _, it := range c.Items {
		name := clippedName(it)
		if name == "" || out[name] != "" || !bears(n, c.Sheet, name) {
			continue
		}
		for next := NextName(name); ; next = NextName(next) {
			if !bears(n, c.Sheet, next) && !taken[next] {
				out[name], taken[next] = next, true
				break
			}
		}
	}
	return out
}

// NextName counts a name up: IN becomes IN1, IN0 IN1, D[7:0] D1[7:0], "SCL, SDA" "SCL1, SDA1".
func NextName(name string) string {
	if list := strings.Split(name, ","); len(list) > 1 {
		for i := range list {
			list[i] = NextName(strings.TrimSpace(list[i]))
		}
		return strings.Join(list, ", ")
	}
	stem, rest := name, ""
	if i := strings.IndexByte(name, '['); i > 0 {
		stem, rest = name[:i], name[i:]
	}
	k := len(stem)
	for k > 0 && len(stem)-k < 9 && stem[k-1] >= '0' && stem[k-1] <= '9' {
		k--
	}
	n, _ := strconv.Atoi("0" + stem[k:]) // digits only
	return stem[:k] + strconv.Itoa(n+1) + rest
}

// Apply the command.
func (c *Paste) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Items) > 20_000 {
		return fmt.Errorf("%d things at once are too many to paste; 20000 is the most", len(c.Items))
	}
	prose := 0
	for _, it := range c.Items {
		if it.Kind == design.KindNote || it.Kind == design.KindTiming {
			prose += len(it.Object)
		}
	}
	if prose > mostProse {
		return fmt.Errorf("the notes and timing diagrams to be pasted have %d characters; %d are the most on a sheet", prose, mostProse)
	}
	if c.Quarters < -3 || c.Quarters > 3 {
		return fmt.Errorf("%d quarter turns are more than a whole one", c.Quarters)
	}
	motion := circuit.By(c.Step)
	if c.Quarters != 0 || c.Mirror {
		turned := circuit.Turned(c.About, c.Quarters, c.Mirror)
		motion = func(o design.Object) design.Object { return circuit.By(c.Step)(turned(o)) }
	}
	names := map[string]string{}
	if c.NumberOn {
		names = c.numberedOn(tx.Nets())
	}
	units := map[string]string{}
	for _, it := range c.Items {
		o, err := design.Decode(it.Kind, it.Object)
		if err != nil {
			return fmt.Errorf("the clipboard holds something that cannot be pasted: %w", err)
		}
		on, ok := design.WithID(o, tx.Doc.NewID()).(design.OnSheet)
		if !ok {
			return fmt.Errorf("a %s cannot be pasted on a sheet", it.Kind)
		}
		on = renamed(design.WithSheet(motion(on).(design.OnSheet), c.Sheet), names)
		if err := tx.pasted(on, units); err != nil {
			return err
		}
	}
	return tx.room(c.Sheet)
}

// renamed is a label or port under its new name, if it has one.
func renamed(o design.OnSheet, names map[string]string) design.OnSheet {
	switch o := o.(type) {
	case *design.Label:
		if to, ok := names[o.Name]; ok {
			l := *o
			l.Name = to
			return &l
		}
	case *design.Port:
		if to, ok := names[o.Name]; ok {
			p := *o
			p.Name = to
			return &p
		}
	}
	return o
}

// pasted puts one copy; units of one package stay together, by their old designator.
func (tx *Tx) pasted(o design.OnSheet, units map[string]string) error {
	switch o := o.(type) {
	case *design.Part:
		if _, err := tx.ensurePart(o.Library); err != nil {
			return err
		}
		if err := tx.ensureFootprint(o.Footprint); err != nil {
			return err
		}
		p := *o
		p.Others = nil
		old := fmt.Sprintf("%s %s", o.Library, o.Designator)
		if name, ok := units[old]; ok && p.Unit > 0 && tx.mayBeCalled(&p, name) == nil {
			p.Designator = name
		} else {
			p.Designator = tx.Doc.FreeDesignator(design.Prefix(o.Designator))
			units[old] = p.Designator
		}
		if err := tx.Put(&p); err != nil {
			return err
		}
		return tx.callOthers(&p)
	case *design.SheetBlock:
		return tx.putBlock(o)
	case *design.Note, *design.Timing:
		return tx.drawn(o)
	case *design.Picture:
		if tx.Doc.Assets[o.Asset] == nil {
			return fmt.Errorf("the clipboard holds a picture that this project does not have; insert its file instead")
		}
	}
	return tx.Put(o)
}

// Remove takes things away: whatever was picked on a sheet, or tracks, vias, holes and
// texts of the board. Parts leave the board only by leaving the circuit.
type Remove struct {
	IDs []design.ID `json:"ids"`
	away
}

// Apply the command.
func (c *Remove) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		switch o := tx.Doc.Get(id).(type) {
		case design.OnSheet:
			tx.Remove(o)
			if b, ok := o.(*design.SheetBlock); ok {
				if err := tx.prune(b.Of); err != nil {
					return err
				}
			}
		case *design.Legend:
			if o.Locked {
				return fmt.Errorf("the text %q is locked; unlock it first", o.Text)
			}
			tx.Remove(o)
			tx.sweepFont(o.Face)
		case *design.BoardDimension:
			tx.Remove(o)
		case *design.BoardFigure:
			if o.Locked {
				return fmt.Errorf("a figure is locked; unlock it first")
			}
			tx.Remove(o)
		case *design.Track, *design.Via:
			if err := tx.leaveFree(o); err != nil {
				return err
			}
			c.take(tx, o)
		case *design.Stitching:
			if o.Locked {
				return fmt.Errorf("the stitching %s is locked; unlock it first", o.Name)
			}
			tx.unstitched(o)
			tx.Remove(o)
		case *design.Hole:
			if o.Locked {
				return fmt.Errorf("the hole is locked; unlock it first")
			}
			tx.Remove(o)
		case *design.RuleArea:
			if o.Locked {
				return fmt.Errorf("the area %s is locked; unlock it first", o.Name)
			}
			tx.Remove(o)
		case *design.Pour:
			if o.Locked {
				return fmt.Errorf("the copper area %s is locked; unlock it first", o.Name)
			}
			tx.Remove(o)
		case *design.Rule:
			if o.Everywhere() {
				return fmt.Errorf("of the %s there must be a rule for everything", o.Kind.Words())
			}
			tx.Remove(o)
		case *design.Placed:
			return fmt.Errorf("%s belongs to the circuit: remove it there and carry the change to the board", o.Designator)
		case nil: // gone already
		default:
			return fmt.Errorf("a %s cannot be removed", o.ObjectKind())
		}
	}
	if c.locked > 0 && len(tx.order) == 0 {
		return c.done("what was picked")
	}
	return nil
}
