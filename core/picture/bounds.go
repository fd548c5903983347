package picture

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
)

// Bounds of what an SVG draws once its uses are followed. A few bytes could else draw for ever:
// a group that uses itself, groups that use one another in a tree, dashes without length.
const (
	mostElements = 50_000
	mostUses     = 8      // within one another
	mostDashes   = 20_000 // in a line as long as the picture is wide and high
)

// element of a picture, with the ids it uses.
type element struct {
	id       string
	uses     string
	children []*element
}

// bounded says in a sentence when an SVG draws more than can be painted in reasonable time.
func bounded(clean []byte, w, h int) error {
	root, err := elementsOf(clean, w, h)
	if err != nil {
		return err
	}
	byID := map[string]*element{}
	var gather func(e *element)
	gather = func(e *element) {
		if e.id != "" {
			byID[e.id] = e
		}
		for _, c := range e.children {
			gather(c)
		}
	}
	gather(root)
	n := 0
	var follow func(e *element, uses int) error
	follow = func(e *element, uses int) error {
		if n++; n > mostElements {
			return fmt.Errorf("it draws more than %d elements", mostElements)
		}
		if to := byID[e.uses]; e.uses != "" && to != nil {
			if uses == mostUses {
				return fmt.Errorf("its elements use one another more than %d deep, or themselves", mostUses)
			}
			if err := follow(to, uses+1); err != nil {
				return err
			}
		}
		for _, c := range e.children {
			if err := follow(c, uses); err != nil {
				return err
			}
		}
		return nil
	}
	return follow(root, 0)
}

// Bounded is bounded for a picture that was cleaned already.
func Bounded(clean []byte) error {
	_, w, h, err := cleanSVG(clean)
	if err != nil {
		return err
	}
	return bounded(clean, w, h)
}

func elementsOf(clean []byte, w, h int) (*element, error) {
	in := xml.NewDecoder(bytes.NewReader(clean))
	root := &element{}
	stack := []*element{root}
	for {
		t, err := in.Token()
		if errors.Is(err, io.EOF) {
			return root, nil
		}
		if err != nil {
			return nil, fmt.Errorf("it is not well-formed SVG (%w)", err)
		}
		switch t := t.(type) {
		case xml.StartElement:
			e := &element{}
			for _, a := range t.Attr {
				switch a.Name.Local {
				case "id":
					e.id = a.Value
				case "href":
					e.uses = strings.TrimPrefix(a.Value, "#")
				case "stroke-dasharray":
					err = dashes(a.Value, w, h)
				case "style":
					if _, v, ok := strings.Cut(a.Value, "stroke-dasharray:"); ok {
						v, _, _ = strings.Cut(v, ";")
						err = dashes(v, w, h)
					}
				}
				if err != nil {
					return nil, err
				}
			}
			top := stack[len(stack)-1]
			top.children = append(top.children, e)
			stack = append(stack, e)
		case xml.EndElement:
			stack = stack[:len(stack)-1]
		}
	}
}

// dashes checks that a pattern of dashes gets on.
func dashes(v string, w, h int) error {
	if v = strings.TrimSpace(v); v == "none" || v == "" {
		return nil
	}
	sum := 0.0
	for _, s := range strings.FieldsFunc(v, func(r rune) bool { return r == ',' || r == ' ' }) {
		f, err := strconv.ParseFloat(strings.TrimRight(s, "abcdefghijklmnopqrstuvwxyz%"), 64)
		if err != nil || f < 0 {
			return fmt.Errorf("its dashes %.40q cannot be read", v)
		}
		sum += f
	}
	if sum <= 0 || float64(w+h)/sum > mostDashes {
		return errors.New("its dashes are too short to be painted")
	}
	return nil
}
