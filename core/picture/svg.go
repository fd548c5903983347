package picture

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// elements of SVG 1.1 that only draw.
var elements = []string{
	"svg", "g", "path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "tspan", "title", "desc", "defs",
	"linearGradient", "radialGradient", "stop", "clipPath", "symbol", "use",
}

// attributes that only draw; references are allowed within the file alone.
var attributes = []string{
	"id", "x", "y", "x1", "y1", "x2", "y2", "cx", "cy", "r", "rx", "ry", "fx", "fy", "d", "points", "width", "height", "viewBox", "transform",
	"fill", "fill-opacity", "fill-rule", "stroke", "stroke-width", "stroke-opacity", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit",
	"stroke-dasharray", "stroke-dashoffset", "opacity", "clip-path", "clip-rule", "color", "offset", "stop-color", "stop-opacity", "gradientUnits",
	"gradientTransform", "spreadMethod", "clipPathUnits", "font-family", "font-size", "font-weight", "font-style", "text-anchor", "dx", "dy",
	"dominant-baseline", "letter-spacing", "preserveAspectRatio", "version", "display", "visibility", "style", "href",
}

const (
	svgSpace   = "http://www.w3.org/2000/svg"
	xlinkSpace = "http://www.w3.org/1999/xlink"
	mostDepth  = 100
)

var within = regexp.MustCompile(`^url\(#[A-Za-z0-9_.-]+\)$`)

// cleanSVG copies what draws and tells the picture's size in its own units.
func cleanSVG(data []byte) (clean []byte, w, h int, err error) {
	in := xml.NewDecoder(bytes.NewReader(data))
	in.Entity = map[string]string{} // no entities of one's own
	var out bytes.Buffer
	enc := xml.NewEncoder(&out)
	depth, skip := 0, 0
	seen := false
	for {
		t, err := in.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, 0, 0, fmt.Errorf("it is not well-formed SVG (%w)", err)
		}
		switch t := t.(type) {
		case xml.StartElement:
			if depth++; depth > mostDepth {
				return nil, 0, 0, fmt.Errorf("its elements are nested more than %d deep", mostDepth)
			}
			if depth == 1 {
				if t.Name.Local != "svg" {
					return nil, 0, 0, fmt.Errorf("it is not SVG, its first element is %s", t.Name.Local)
				}
				seen = true
				if w, h, err = size(t); err != nil {
					return nil, 0, 0, err
				}
			}
			if skip > 0 || !slices.Contains(elements, t.Name.Local) || t.Name.Space != "" && t.Name.Space != svgSpace {
				skip++
				continue
			}
			if err := enc.EncodeToken(start(t, depth == 1, w, h)); err != nil {
				return nil, 0, 0, err
			}
		case xml.EndElement:
			depth--
			if skip > 0 {
				skip--
				continue
			}
			if err := enc.EncodeToken(xml.EndElement{Name: xml.Name{Local: t.Name.Local}}); err != nil {
				return nil, 0, 0, err
			}
		case xml.CharData:
			if skip == 0 && depth > 0 {
				if err := enc.EncodeToken(t); err != nil {
					return nil, 0, 0, err
				}
			}
		}
	}
	if err := enc.Flush(); err != nil || !seen {
		return nil, 0, 0, errors.New("it is not SVG")
	}
	return out.Bytes(), w, h, nil
}

// start is an element with what draws of its attributes.
func start(t xml.StartElement, root bool, w, h int) xml.StartElement {
	out := xml.StartElement{Name: xml.Name{Local: t.Name.Local}}
	if root {
		out.Attr = append(out.Attr, xml.Attr{Name: xml.Name{Local: "xmlns"}, Value: svgSpace},
			xml.Attr{Name: xml.Name{Local: "width"}, Value: strconv.Itoa(w)}, xml.Attr{Name: xml.Name{Local: "height"}, Value: strconv.Itoa(h)})
	}
	for _, a := range t.Attr {
		name := a.Name.Local
		if a.Name.Space != "" && !(a.Name.Space == xlinkSpace && name == "href") || !slices.Contains(attributes, name) || root && (name == "width" || name == "height") {
			continue
		}
		v := strings.TrimSpace(a.Value)
		if name == "href" && !strings.HasPrefix(v, "#") {
			continue
		}
		if name == "style" {
			if v = style(v); v == "" {
				continue
			}
		}
		if name != "style" && foreign(v) {
			continue
		}
		out.Attr = append(out.Attr, xml.Attr{Name: xml.Name{Local: name}, Value: v})
	}
	return out
}

// foreign tells whether a value reaches outside the file.
func foreign(v string) bool {
	l := strings.ToLower(v)
	return strings.Contains(l, "url(") && !within.MatchString(v) || strings.Contains(l, "javascript:") || strings.Contains(l, "expression(")
}

// style keeps the declarations that draw.
func style(v string) string {
	var keep []string
	for d := range strings.SplitSeq(v, ";") {
		name, value, ok := strings.Cut(d, ":")
		name, value = strings.TrimSpace(name), strings.TrimSpace(value)
		if ok && slices.Contains(attributes, name) && !foreign(value) && !strings.ContainsAny(value, `\<@`) {
			keep = append(keep, name+":"+value)
		}
	}
	return strings.Join(keep, ";")
}

var number = regexp.MustCompile(`^[0-9]*\.?[0-9]+`)

func size(t xml.StartElement) (w, h int, err error) {
	var fw, fh float64
	for _, a := range t.Attr {
		switch a.Name.Local {
		case "width":
			fw = lengthOf(a.Value)
		case "height":
			fh = lengthOf(a.Value)
		}
	}
	for _, a := range t.Attr {
		if f := strings.FieldsFunc(a.Value, func(r rune) bool { return r == ' ' || r == ',' }); a.Name.Local == "viewBox" && len(f) == 4 && (fw <= 0 || fh <= 0) {
			fw, _ = strconv.ParseFloat(f[2], 64)
			fh, _ = strconv.ParseFloat(f[3], 64)
		}
	}
	if !(fw >= 1 && fh >= 1 && fw < 1e6 && fh < 1e6) {
		return 0, 0, errors.New("it says no size: it needs a width and height, or a view box")
	}
	return int(math.Round(fw)), int(math.Round(fh)), nil
}

// lengthOf reads a length's number; a share of the page says nothing.
func lengthOf(s string) float64 {
	if strings.HasSuffix(strings.TrimSpace(s), "%") {
		return 0
	}
	v, _ := strconv.ParseFloat(number.FindString(strings.TrimSpace(s)), 64)
	return v
}
