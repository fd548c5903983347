// Package timing reads the short text from which a timing diagram is drawn. The notation is
// described in docs/guide.md:
//
//	slot 10 ns
//	CLK: clock 8
//	CS: high 1, low 6, high 1
//	DATA: free 2, data 4 "D7 to D0", free 2
//	mark 2 "sampled"
//	span 1 3 "t1 = 20 ns"
//
// One line is one signal: its name, a colon, and states with the number of slots each
// lasts. Lengths are slots.
package timing

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Diagram is what a text describes.
type Diagram struct {
	Slot  string  `json:"slot"` // what one slot is, as text
	Rows  []Row   `json:"rows"`
	Marks []Mark  `json:"marks"`
	Spans []Span  `json:"spans"`
	Slots float64 `json:"slots"` // of the longest row
}

// Row is one signal.
type Row struct {
	Name   string  `json:"name"`
	Pieces []Piece `json:"pieces"`
}

// Piece is a state and how long it lasts.
type Piece struct {
	State string  `json:"state"`
	Slots float64 `json:"slots"`
	Text  string  `json:"text"`
}

// Mark is a line across all signals.
type Mark struct {
	At   float64 `json:"at"`
	Text string  `json:"text"`
}

// Span is a dimension between two times.
type Span struct {
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Text string  `json:"text"`
}

// States a signal can be in: high, low, free (nobody drives it), any (whatever it is), data
// (valid, with a text), clock (high and low by turns, one period a slot), gap (left out).
var States = []string{"high", "low", "free", "any", "data", "clock", "gap"}

// Bounds of what is drawn.
const (
	MostRows  = 100
	MostSlots = 1000
	// MostDrawn bounds the states of all signals and the periods of their clocks together.
	MostDrawn = 5000
)

// Parse reads a text. Errors name the line and what is wrong there.
func Parse(text string) (*Diagram, error) {
	d := &Diagram{}
	for i, line := range strings.Split(text, "\n") {
		line = strings.TrimSpace(line)
		if line == "" {
			continue
		}
		if err := d.line(line); err != nil {
			return nil, fmt.Errorf("line %d of the timing diagram: %w", i+1, err)
		}
	}
	switch {
	case len(d.Rows) == 0:
		return nil, fmt.Errorf("the timing diagram has no signal; write one as \"CLK: clock 8\"")
	case len(d.Rows) > MostRows:
		return nil, fmt.Errorf("the timing diagram has %d signals; %d are the most", len(d.Rows), MostRows)
	case d.drawn() > MostDrawn:
		return nil, fmt.Errorf("the timing diagram has %d states and clock periods; %d are the most", d.drawn(), MostDrawn)
	case d.Slots > MostSlots:
		return nil, fmt.Errorf("the timing diagram is %g slots long; %d are the most", d.Slots, MostSlots)
	}
	return d, nil
}

// drawn counts what is drawn of the signals.
func (d *Diagram) drawn() int {
	n := 0
	for _, r := range d.Rows {
		for _, p := range r.Pieces {
			n++
			if p.State == "clock" {
				n += int(p.Slots)
			}
		}
	}
	return n
}

// Widest is how far a diagram reaches on a sheet at most, in nanometres: the longest side of
// the largest sheet.
const Widest = 863_600_000

// Fits says in a sentence when the diagram, with slots of the given width, is too wide for a
// sheet.
func (d *Diagram) Fits(slot int64) error {
	if wide := d.Slots * float64(slot); wide > Widest {
		return fmt.Errorf("the timing diagram would be %.0f mm wide: %g slots of %g mm; %.0f mm is the most", wide/1e6, d.Slots, float64(slot)/1e6, Widest/1e6)
	}
	return nil
}

func (d *Diagram) line(line string) error {
	word, rest, _ := strings.Cut(line, " ")
	if name, states, ok := cutName(line); ok {
		return d.row(name, states)
	}
	switch word {
	case "slot":
		d.Slot = strings.TrimSpace(rest)
		return nil
	case "mark":
		nums, text, err := numbers(rest, 1)
		if err == nil {
			d.Marks = append(d.Marks, Mark{nums[0], text})
		}
		return err
	case "span":
		nums, text, err := numbers(rest, 2)
		if err == nil && nums[1] <= nums[0] {
			err = fmt.Errorf("a span goes from an earlier to a later slot, not from %g to %g", nums[0], nums[1])
		}
		if err == nil {
			d.Spans = append(d.Spans, Span{nums[0], nums[1], text})
		}
		return err
	}
	return fmt.Errorf("%q is neither a signal (name, colon, states) nor slot, mark or span", line)
}

// cutName splits a signal's line at the colon, unless it stands within quotes.
func cutName(line string) (name, states string, ok bool) {
	colon, quote := strings.Index(line, ":"), strings.Index(line, `"`)
	if colon < 1 || quote >= 0 && quote < colon {
		return "", "", false
	}
	return strings.TrimSpace(line[:colon]), line[colon+1:], true
}

// numbers reads n numbers and a text in quotes, which may be left out.
func numbers(s string, n int) ([]float64, string, error) {
	head, text := quoted(s)
	words := strings.Fields(head)
	if len(words) != n {
		return nil, "", fmt.Errorf("%d numbers are meant before the text, not %d", n, len(words))
	}
	out := make([]float64, n)
	for i, w := range words {
		v, err := strconv.ParseFloat(w, 64)
		if err != nil || v < 0 || v > MostSlots {
			return nil, "", fmt.Errorf("%q is not a number of slots from 0 to %d", w, MostSlots)
		}
		out[i] = v
	}
	return out, text, nil
}

func quoted(s string) (head, text string) {
	from := strings.Index(s, `"`)
	if from < 0 {
		return s, ""
	}
	to := strings.LastIndex(s, `"`)
	if to == from {
		return s[:from], s[from+1:]
	}
	return s[:from], s[from+1 : to]
}

// split cuts at commas outside quotes.
func split(s string) []string {
	var out []string
	in, from := false, 0
	for i, r := range s {
		switch {
		case r == '"':
			in = !in
		case r == ',' && !in:
			out = append(out, s[from:i])
			from = i + 1
		}
	}
	return append(out, s[from:])
}

func (d *Diagram) row(name, states string) error {
	r := Row{Name: name}
	total := 0.0
	for _, s := range split(states) {
		head, text := quoted(s)
		words := strings.Fields(head)
		if len(words) == 0 {
			return fmt.Errorf("the signal %s has an empty state", name)
		}
		if !slices.Contains(States, words[0]) {
			return fmt.Errorf("%q is not a state of a signal; there are %s", words[0], strings.Join(States, ", "))
		}
		p := Piece{State: words[0], Slots: 1, Text: text}
		if len(words) > 2 {
			return fmt.Errorf("%q says more than a state and a number of slots", strings.TrimSpace(head))
		}
		if len(words) == 2 {
			v, err := strconv.ParseFloat(words[1], 64)
			if err != nil || v <= 0 || v > MostSlots {
				return fmt.Errorf("%q is not a number of slots", words[1])
			}
			p.Slots = v
		}
		total += p.Slots
		r.Pieces = append(r.Pieces, p)
	}
	d.Rows = append(d.Rows, r)
	d.Slots = max(d.Slots, total)
	return nil
}
