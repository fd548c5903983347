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
