package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/layout"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// Land asks for the footprint that a recipe makes.
type Land struct {
	Recipe design.Recipe `json:"recipe"`
}

// LandMade is the answer. A body that cannot be has only its drawing, and a sentence of the dimension that is wrong.
type LandMade struct {
	Result  *landpattern.LandPattern `json:"result,omitempty"`
	Pattern *layout.Pattern          `json:"pattern,omitempty"`
	Found   []parts.Flaw             `json:"found"`
	Views   []landpattern.BodyView   `json:"views"`
	Wrong   string                   `json:"wrong,omitempty"`
	Dim     string                   `json:"dim,omitempty"`
}

// Answer the question.
func (q *Land) Answer(b *workbench.Bench) (*LandMade, error) {
	out := &LandMade{Found: []parts.Flaw{}, Views: []landpattern.BodyView{}}
	made, err := landpattern.Make(&q.Recipe)
	var no *landpattern.Impossible
	switch {
	case errors.As(err, &no):
		out.Wrong, out.Dim = no.Text, no.Dim
		if views, err := landpattern.Drawing(&q.Recipe); err == nil {
			out.Views = views
		}
		return out, nil
	case err != nil:
		return nil, err
	}
	p := layout.PatternOf(made.Footprint)
	out.Result, out.Pattern, out.Views = made, &p, made.Views
	out.Found = parts.CheckFootprint(made.Footprint, parts.LimitsOf(b.Doc))
	return out, nil
}
