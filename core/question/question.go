// Package question holds everything that can be asked about an open design without changing it: what the
// hand's preview shows, what a panel lists. Each question is a file with the type of what is asked and how
// it is answered; it bounds what it may cost and refuses with a sentence. Lengths are nanometres.
package question

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/layout"
	"goldentrace/core/parts"
	"goldentrace/core/reading"
	"goldentrace/core/report"
	"goldentrace/core/rules"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// question is what all of them can do.
type question[A any] interface {
	Answer(b *workbench.Bench) (A, error)
}

// entry is a kind of question.
type entry struct {
	asked, answer reflect.Type
	answerTo      func(body []byte, b *workbench.Bench) (any, error)
}

func is[Q any, A any, P interface {
	*Q
	question[A]
}]() entry {
	return entry{reflect.TypeFor[Q](), reflect.TypeFor[A](), func(body []byte, b *workbench.Bench) (any, error) {
		q := P(new(Q))
		dec := json.NewDecoder(bytes.NewReader(body))
		if err := dec.Decode(q); err != nil {
			return nil, fmt.Errorf("the question cannot be read: %w", reading.Wrong(err))
		}
		if _, err := dec.Token(); err != io.EOF {
			return nil, fmt.Errorf("the question cannot be read: something follows it")
		}
		return q.Answer(b)
	}}
}

// kinds of questions by the name they bear on the wire.
var kinds = map[string]entry{
	"foresee":     is[Foresee, *Foreseen](),
	"wire":        is[Wire, *WireWay](),
	"track":       is[Track, TrackWay](),
	"finish":      is[Finish, Finished](),
	"hopOf":       is[HopOf, *HopMade](),
	"holes":       is[HolesOf, *HolesSeen](),
	"stack":       is[Stack, *StackSeen](),
	"escape":      is[Escape, *EscapeSeen](),
	"gaps":        is[Gaps, []Gap](),
	"touches":     is[Touches, []Touch](),
	"pourLook":    is[PourLook, []workbench.PourSeen](),
	"trackWidths": is[TrackWidths, []int64](),
	"pull":        is[Pull, Pulled](),
	"drag":        is[Drag, Dragged](),
	"weigh":       is[Weigh, *Weighed](),
	"why":         is[Why, []Asked](),
	"differences": is[Differences, []Difference](),
	"find":        is[Find, []Hit](),
	"numbers":     is[Numbers, []Renaming](),
	"nextName":    is[NextName, string](),
	"pairs":       is[Pairs, [][2]string](),
	"checks":      is[Checks, *CheckTable](),
	"checked":     is[Checked, []report.About](),
	"heights":     is[Heights, []Standing](),
	"limitsTaken": is[LimitsTaken, []edit.LimitTaken](),
	"timing":      is[Timing, *Diagram](),
	"sheet":       is[Sheet, *Page](),
	"item":        is[Item, Drawn](),
	"pattern":     is[PatternOf, layout.Pattern](),
	"families":    is[Families, []*landpattern.Family](),
	"land":        is[Land, *LandMade](),
	"pinList":     is[PinList, *PinsRead](),
	"repeat":      is[RepeatPads, *Repeated](),
	"mapping":     is[Mapping, *Mapped](),
	"footprint":   is[FootprintLook, *FootprintShown](),
	"newer":       is[Newer, []NewVersion](),
	"overlay":     is[Overlay, *Overlaid](),
	"suggest":     is[Suggest, *Suggested](),
	"wanted":      is[Wanted, *WantedOf](),
	"padList":     is[PadList, *PadsRead](),
	"partTable":   is[PartTable, *parts.PartTable](),
	"rulesSeen":   is[RulesSeen, *RulesShown](),
	"rulesFile":   is[RulesFile, *rules.Filed](),
	"ruleHolds":   is[RuleHolds, *RuleHeld](),
	"placeNext":   is[PlaceNext, []layout.Waiting](),
	"alike":       is[Alike, []Likeness](),
	"widths":      is[Widths, *WidthAdvice](),
	"measure":     is[Measure, *Gauged](),
	"lettering":   is[Lettering, [][]geom.Point](),
	"tracksOf":    is[TracksOf, []design.ID](),
	"together":    is[Together, []design.ID](),
	"footNamed":   is[FootprintNamed, *NamedFootprint](),
	"partCard":    is[PartCard, *Card](),
	"symbol":      is[SymbolLook, *SymbolShown](),
}

// Kinds are the names of all questions.
func Kinds() []string { return slices.Sorted(maps.Keys(kinds)) }

// Types are those of what is asked and of the answer, for who writes them in another language.
func Types(kind string) (asked, answer reflect.Type) { return kinds[kind].asked, kinds[kind].answer }

// Answer answers a question of the kind, written as JSON.
func Answer(kind string, body []byte, b *workbench.Bench) (any, error) {
	k, ok := kinds[kind]
	if !ok {
		return nil, fmt.Errorf("%q is not a question", kind)
	}
	return k.answerTo(body, b)
}

// within checks places and steps as commands' are.
func within(pts ...geom.Point) error {
	for _, p := range pts {
		if p.X > units.Limit || p.X < -units.Limit || p.Y > units.Limit || p.Y < -units.Limit {
			return fmt.Errorf("%s, %s lies beyond what a drawing can reach", units.Text(p.X), units.Text(p.Y))
		}
	}
	return nil
}
