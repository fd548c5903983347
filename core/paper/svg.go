package paper

import (
	"bytes"
	"encoding/base64"
	"encoding/xml"
	"fmt"
	"strconv"

	"goldentrace/core/design"
)

// SVG writes a page as one SVG 1.1 file, in millimetres. Texts stay texts.
func SVG(d *design.Doc, p Page) []byte {
	var b bytes.Buffer
	w, h := float64(p.Size.X)/perMM, float64(p.Size.Y)/perMM
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="0 0 %s %s">`+"\n", num(w), num(h), num(w), num(h))
	fmt.Fprintf(&b, "<title>%s</title>\n<rect width=\"100%%\" height=\"100%%\" fill=\"%s\"/>\n", escape(p.Place.Label), Print["paper"])
	for _, it := range p.Items {
		b.WriteString("<g>\n")
		for _, m := range it.Marks {
			svgMark(&b, d, m, h)
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	return b.Bytes()
}

func num(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }

func escape(s string) string {
	var b bytes.Buffer
	_ = xml.EscapeText(&b, []byte(s)) // a buffer does not fail
	return b.String()
}

func svgMark(b *bytes.Buffer, d *design.Doc, m Mark, h float64) {
	x := func(i int) string { return num(float64(m.Pts[i]) / perMM) }
	y := func(i int) string { return num(h - float64(m.Pts[i])/perMM) }
	if m.Text != "" {
		anchor := map[int]string{-1: "start", 0: "middle", 1: "end"}[m.Align]
		font, weight := "JetBrains Mono, monospace", "400"
		if m.Words {
			font = "Barlow, sans-serif"
		}
		if m.Bold {
			weight = "600"
		}
		turn := ""
		if m.Up {
			turn = fmt.Sprintf(` transform="rotate(-90 %s %s)"`, x(0), y(1))
		}
		fmt.Fprintf(b, `<text x="%s" y="%s" dy="0.35em" font-family="%s" font-size="%s" font-weight="%s" text-anchor="%s" fill="%s" xml:space="preserve"%s>%s</text>`+"\n",
			x(0), y(1), font, num(float64(m.Size)/perMM), weight, anchor, Print[m.Fill], turn, escape(m.Text))
		return
	}
	if m.Asset != 0 {
		if a := d.Assets[m.Asset]; a != nil {
			kind := map[string]string{"png": "image/png", "jpeg": "image/jpeg", "svg": "image/svg+xml"}[a.Type]
			fmt.Fprintf(b, `<image x="%s" y="%s" width="%s" height="%s" preserveAspectRatio="none" href="data:%s;base64,%s"/>`+"\n",
				x(0), y(3), num(float64(m.Pts[2]-m.Pts[0])/perMM), num(float64(m.Pts[3]-m.Pts[1])/perMM), kind, base64.StdEncoding.EncodeToString(a.Data))
		}
		return
	}
	paint := fmt.Sprintf(`fill="%s"`, orNone(Print[m.Fill]))
	if m.Stroke != "" {
		paint += fmt.Sprintf(` stroke="%s" stroke-width="%s" stroke-linecap="round" stroke-linejoin="round"`, Print[m.Stroke], num(float64(m.Width)/perMM))
	}
	if m.Dash {
		paint += ` stroke-dasharray="2 1.4"`
	}
	if m.R > 0 {
		fmt.Fprintf(b, `<circle cx="%s" cy="%s" r="%s" %s/>`+"\n", x(0), y(1), num(float64(m.R)/perMM), paint)
		return
	}
	fmt.Fprint(b, `<path d="`)
	for i := 0; i+1 < len(m.Pts); i += 2 {
		c := "L"
		if i == 0 {
			c = "M"
		}
		fmt.Fprintf(b, "%s%s %s", c, x(i), y(i+1))
	}
	if m.Closed {
		b.WriteString("Z")
	}
	fmt.Fprintf(b, `" %s/>`+"\n", paint)
}

func orNone(s string) string {
	if s == "" {
		return "none"
	}
	return s
}
