package question

import (
	"cmp"
	"fmt"
	"math/bits"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/rules"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// RuleSeen is a rule with a scope, as it is read.
type RuleSeen struct {
	Rule    design.Rule `json:"rule"`
	Says    string      `json:"says"`
	Holding Holding     `json:"holding"`
	Trouble string      `json:"trouble,omitempty"` // why it decides nothing
}

// Holding is what a rule holds for now.
type Holding struct {
	Things int         `json:"things"` // pieces of copper and holes that fit its first scope
	Others int         `json:"others"` // that fit its second one, where it has one
	Nets   []string    `json:"nets"`   // of them, the first few
	OfNets int         `json:"ofNets"` // how many nets they are in all
	IDs    []design.ID `json:"ids"`    // on the board, the first of them
}

// RulesSeen asks for the rules with a scope, in their order, and for the drawing of those for everything.
type RulesSeen struct{}

// RulesShown is the answer.
type RulesShown struct {
	Sampler landpattern.BodyView      `json:"sampler"`
	Numbers map[design.RuleKind]int64 `json:"numbers"`
	Kinds   []RuleKindWords           `json:"kinds"`
	Rules   []RuleSeen                `json:"rules"`
	Classes map[string]int            `json:"classes"` // with how many nets each has
	// Conflicts are sentences about rules that cannot be kept together.
	Conflicts []string `json:"conflicts"`
}

// RuleKindWords is a kind of rule with its words, and whether it holds between two things.
type RuleKindWords struct {
	Kind  design.RuleKind `json:"kind"`
	Words string          `json:"words"`
	Pairs bool            `json:"pairs"`
}

// mostHeld bounds the rules for which it is counted what they hold for.
const mostHeld = 100

// Answer the question.
func (q *RulesSeen) Answer(b *workbench.Bench) (*RulesShown, error) {
	out := &RulesShown{Sampler: sampler(b.Doc.Numbers()), Numbers: b.Doc.Numbers(), Rules: []RuleSeen{}, Classes: map[string]int{}}
	out.Conflicts = append([]string{}, rules.Conflicts(b.Doc, b.Rules())...)
	for _, k := range design.RuleKinds {
		out.Kinds = append(out.Kinds, RuleKindWords{k, k.Words(), k.Pairs()})
	}
	for n := range b.Doc.Nets.All() {
		if n.Class != "" {
			out.Classes[n.Class]++
		}
	}
	for r := range b.Doc.Rules.All() {
		if r.Everywhere() {
			continue
		}
		x := RuleSeen{Rule: *r, Says: rules.Sentence(b.Doc, r), Holding: Holding{Nets: []string{}, IDs: []design.ID{}}}
		if len(out.Rules) < mostHeld {
			x.Holding = holding(b, r)
			x.Trouble = troubleOf(b.Doc, r, x.Holding)
		}
		out.Rules = append(out.Rules, x)
	}
	slices.SortFunc(out.Rules, func(a, b RuleSeen) int {
		return cmp.Or(cmp.Compare(a.Rule.Order, b.Rule.Order), cmp.Compare(a.Rule.ID, b.Rule.ID))
	})
	return out, nil
}

func troubleOf(d *design.Doc, r *design.Rule, h Holding) string {
	if by := rules.Hidden(d, r); by != nil {
		return "It never decides: another rule for the same things comes before it."
	}
	if r.Kind == design.SilkWidth {
		return ""
	}
	if h.Things == 0 || r.Kind.Pairs() && r.B != (design.Scope{}) && h.Others == 0 {
		return "Nothing on the board fits it now."
	}
	return ""
}

// RuleHolds asks what a rule that is being made would hold for.
type RuleHolds struct {
	Rule design.Rule `json:"rule"`
}

// RuleHeld is the answer.
type RuleHeld struct {
	Says    string  `json:"says"`
	Holding Holding `json:"holding"`
	Wrong   string  `json:"wrong,omitempty"`
}

// Answer the question.
func (q *RuleHolds) Answer(b *workbench.Bench) (*RuleHeld, error) {
	r := q.Rule
	if err := r.Valid(); err != nil {
		return &RuleHeld{Wrong: fmt.Sprintf("%v.", err), Holding: Holding{Nets: []string{}, IDs: []design.ID{}}}, nil
	}
	return &RuleHeld{Says: rules.Sentence(b.Doc, &r), Holding: holding(b, &r)}, nil
}

// RulesFile asks what a file of rules would bring; nothing is taken by asking.
type RulesFile struct {
	Text string `json:"text"`
}

// Answer the question.
func (q *RulesFile) Answer(b *workbench.Bench) (*rules.Filed, error) {
	return rules.Read(b.Doc, []byte(q.Text))
}

// holding counts what fits a rule's scopes. Cost: that of all pieces on the board.
func holding(b *workbench.Bench, r *design.Rule) Holding {
	out := Holding{Nets: []string{}, IDs: []design.ID{}}
	holds := b.Rules().Holder(r)
	nets, ids := map[design.ID]bool{}, map[design.ID]bool{}
	if r.Kind == design.Spacing {
		for p := range b.Doc.Placed.All() {
			layer := 0
			if p.Bottom {
				layer = b.Doc.Board.Layers() - 1
			}
			first, second := holds(rules.Subject{Thing: design.APart, Part: p.ID}, layer, p.At)
			if second {
				out.Others++
			}
			if first {
				out.Things++
				ids[p.ID] = true
			}
		}
		return out.listed(ids)
	}
	for c := range b.Index().All() {
		first, second := false, false
		for layers := c.Layers; layers != 0 && !(first && second); layers &= layers - 1 {
			a, o := holds(c.Subject(), bits.TrailingZeros32(layers), c.At)
			first, second = first || a, second || o
		}
		if second {
			out.Others++
		}
		if first {
			out.Things++
			ids[c.ID] = true
			if c.Net != 0 {
				nets[c.Net] = true
			}
		}
	}
	for n := range nets {
		out.Nets = append(out.Nets, b.Doc.NetName(n))
	}
	slices.SortFunc(out.Nets, circuit.CompareNatural)
	out.OfNets = len(out.Nets)
	out.Nets = out.Nets[:min(len(out.Nets), 8)]
	return out.listed(ids)
}

// listed names the things, as many as are shown.
func (out Holding) listed(ids map[design.ID]bool) Holding {
	for id := range ids {
		out.IDs = append(out.IDs, id)
	}
	slices.Sort(out.IDs)
	out.IDs = out.IDs[:min(len(out.IDs), 500)]
	return out
}

// sampler is a small board with a bit of everything, on which each rule for everything stands as a dimension line. What would be too
// small or too large to be
// seen is drawn within bounds; the lines say what holds.
func sampler(n map[design.RuleKind]int64) landpattern.BodyView {
	v := landpattern.BodyView{Name: "Rules for everything", Strokes: []landpattern.Stroke{}, Dims: []landpattern.DimLine{}}
	seen := func(k design.RuleKind, least, most int64) int64 { return min(max(n[k], least), most) }
	um := units.Micrometre
	edge, clear := seen(design.EdgeClearance, 150*um, 1500*um), seen(design.Clearance, 120*um, 1200*um)
	wide, thin := seen(design.TrackWidth, 150*um, 1500*um), seen(design.LeastWidth, 100*um, 1200*um)
	hole, ring, apart := seen(design.LeastHole, 250*um, 1200*um), seen(design.LeastRing, 100*um, 700*um), seen(design.HoleClearance,
		200*um, 1500*um)
	via, bore := seen(design.ViaDiameter, 500*um, 1800*um), seen(design.ViaHole, 200*um, 1300*um)
	mask, paste := seen(design.MaskMargin, -300*um, 400*um), seen(design.PasteMargin, -300*um, 400*um)
	silk := seen(design.SilkWidth, 80*um, 600*um)
	box := func(style string, x0, y0, x1, y1 int64) {
		v.Strokes = append(v.Strokes, landpattern.Area(style, x0, y0, x1, y1))
	}
	disc := func(style string, x, y, r int64) { v.Strokes = append(v.Strokes, landpattern.Disc(style, x, y, r)) }
	dim := func(k design.RuleKind, x0, y0, x1, y1, dx, dy int64) {
		v.Dims = append(v.Dims, landpattern.Measure(string(k), k.Words(), x0, y0, x1, y1, dx, dy))
	}
	space := seen(design.Spacing, 150*um, 1500*um)
	width, height := 18_600*um, 5_800*um
	box("ground", 0, 0, width, height)
	// two tracks above the lower edge
	y1 := edge + wide
	y2 := y1 + clear
	box("copper", 1300*um, edge, 4400*um, y1)
	box("copper", 1300*um, y2, 4400*um, y2+thin)
	dim(design.EdgeClearance, 1800*um, 0, 1800*um, edge, -2500*um, 0)
	dim(design.TrackWidth, 4400*um, edge, 4400*um, y1, 700*um, 0)
	dim(design.Clearance, 1300*um, y1, 1300*um, y2, -2000*um, 0)
	dim(design.LeastWidth, 4400*um, y2, 4400*um, y2+thin, 700*um, 0)
	// two drilled holes with their rings
	hx, hy := 1700*um, 4200*um
	gap := hole + apart
	for _, x := range []int64{hx, hx + gap} {
		disc("copper", x, hy, hole/2+ring)
	}
	for _, x := range []int64{hx, hx + gap} {
		disc("hole", x, hy, hole/2)
	}
	dim(design.LeastHole, hx-hole/2, hy, hx+hole/2, hy, 0, 1100*um)
	dim(design.LeastRing, hx-hole/2-ring, hy, hx-hole/2, hy, 0, -1200*um)
	dim(design.HoleClearance, hx+hole/2, hy, hx+hole/2+apart, hy, 0, -1000*um)
	// a via
	vx, vy := 5400*um, 4200*um
	disc("copper", vx, vy, via/2)
	disc("hole", vx, vy, bore/2)
	dim(design.ViaDiameter, vx-via/2, vy, vx+via/2, vy, 0, 1100*um)
	dim(design.ViaHole, vx-bore/2, vy, vx+bore/2, vy, 0, -1200*um)
	// a pad with its openings, and a line of silk
	px, py, pw, ph := 9000*um, 1300*um, 1700*um, 1300*um
	box("mask", px-mask, py-mask, px+pw+mask, py+ph+mask)
	box("copper", px, py, px+pw, py+ph)
	box("paste", px+paste, py+paste, px+pw-paste, py+ph-paste)
	dim(design.MaskMargin, px+pw, py+ph, px+pw+mask, py+ph, 0, 700*um)
	dim(design.PasteMargin, px, py, px+paste, py, 0, -700*um)
	// two parts
	bx, by := 12_400*um, 1300*um
	box("body", bx-700*um, by, bx, by+1100*um)
	box("body", bx+space, by, bx+space+700*um, by+1100*um)
	dim(design.Spacing, bx, by, bx+space, by, 0, -700*um)
	// a part with two pads
	within := seen(design.WithinPart, 120*um, 1200*um)
	cx, cy := bx+space/2, 3700*um
	box("body", cx-within/2-1000*um, cy-200*um, cx+within/2+1000*um, cy+900*um)
	box("copper", cx-within/2-800*um, cy, cx-within/2, cy+700*um)
	box("copper", cx+within/2, cy, cx+within/2+800*um, cy+700*um)
	dim(design.WithinPart, cx-within/2, cy+700*um, cx+within/2, cy+700*um, 0, 800*um)
	// a pad in a copper area, joined by spokes
	ax, ay, aw, land := 15_000*um, 1200*um, 3000*um, 1100*um
	joint, around := seen(design.SpokeWidth, 100*um, 900*um), seen(design.SpokeGap, 100*um, 700*um)
	mx, my, free := ax+aw/2, ay+aw/2, land/2+around
	box("copper", ax, ay, mx-free, ay+aw)
	box("copper", mx+free, ay, ax+aw, ay+aw)
	box("copper", mx-free, ay, mx+free, my-free)
	box("copper", mx-free, my+free, mx+free, ay+aw)
	box("copper", mx-land/2, my-land/2, mx+land/2, my+land/2)
	if n[design.SpokeWidth] > 0 {
		box("copper", mx-free, my-joint/2, mx+free, my+joint/2)
		box("copper", mx-joint/2, my-free, mx+joint/2, my+free)
	}
	dim(design.SpokeGap, mx+land/2, my+land/2, mx+land/2+around, my+land/2, 0, 1500*um)
	dim(design.SpokeWidth, mx-joint/2, my-free, mx+joint/2, my-free, 0, -1300*um)
	sy := 4800 * um
	box("silk", 7800*um, sy, 10_300*um, sy+silk)
	dim(design.SilkWidth, 10_300*um, sy, 10_300*um, sy+silk, 900*um, 0)
	return v
}
