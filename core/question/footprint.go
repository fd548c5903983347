package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// FootprintLook asks for all that is shown of a footprint while it is edited.
type FootprintLook struct {
	Footprint design.ID `json:"footprint"`
}

// FootprintShown is the answer.
type FootprintShown struct {
	Found      []parts.Flaw      `json:"found"`
	Agreements []parts.Agreement `json:"agreements"`
	Mask       []layout.Outline  `json:"mask"`  // openings on the part's side
	Paste      []layout.Outline  `json:"paste"` // of it
	Used       []string          `json:"used"`
	Generated  bool              `json:"generated"` // it is as its recipe makes it
}

// Answer the question.
func (q *FootprintLook) Answer(b *workbench.Bench) (*FootprintShown, error) {
	f := b.Doc.Footprints[q.Footprint]
	if f == nil {
		return nil, errors.New("there is no such footprint in the project any more")
	}
	out := &FootprintShown{
		Found: parts.CheckFootprint(f, parts.LimitsOf(b.Doc)), Agreements: parts.Agreements(f), Used: parts.UsesOfFootprint(b.Doc, f.Name), Generated: parts.AsGenerated(f),
	}
	out.Mask, out.Paste = layout.OpeningsOf(f, b.Doc.Base(design.MaskMargin).Value, b.Doc.Base(design.PasteMargin).Value)
	if out.Used == nil {
		out.Used = []string{}
	}
	return out, nil
}
