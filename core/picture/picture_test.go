package picture_test

import (
	"bytes"
	"encoding/xml"
	"errors"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/picture"
)

func pixels(w, h int) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	img.Set(1, 1, color.White)
	return img
}

func TestPicturesAreToldByTheirContent(t *testing.T) {
	var p, j, g bytes.Buffer
	require.NoError(t, png.Encode(&p, pixels(30, 20)))
	require.NoError(t, jpeg.Encode(&j, pixels(30, 20), nil))
	require.NoError(t, gif.Encode(&g, pixels(30, 20), nil))
	a, err := picture.Read("C:\\plans\\weir.jpg", p.Bytes())
	require.NoError(t, err)
	assert.Equal(t, []any{"weir.jpg", "png", 30, 20}, []any{a.Name, a.Type, a.Width, a.Height})
	a, err = picture.Read("x", j.Bytes())
	require.NoError(t, err)
	assert.Equal(t, "jpeg", a.Type)
	for name, data := range map[string][]byte{
		"letter.png": []byte("Dear Trust"), "moving.png": g.Bytes(), "empty.png": {}, "cut.png": p.Bytes()[:40],
	} {
		_, err := picture.Read(name, data)
		assert.ErrorContains(t, err, name)
	}
}

// What remains of a hostile SVG draws the same shapes and nothing else.
func TestSVGIsCleaned(t *testing.T) {
	hostile := `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x "boo">]>
<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 200 100" onload="steal()">
<script>steal()</script><style>@import url(http://far.example/x.css)</style>
<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><iframe src="http://far.example"/></body></foreignObject>
<image href="http://far.example/p.png"/><a xlink:href="javascript:steal()"><circle cx="5" cy="5" r="4"/></a>
<rect width="10" height="10" fill="url(http://far.example/#g)" onclick="steal()"/>
<path d="M0 0L9 9" stroke="#123456" style="fill:none;background:url(javascript:steal());stroke-width:2"/>
<use xlink:href="http://far.example/#x"/><use href="#own"/><set attributeName="href" to="javascript:steal()"/>
<text x="3" y="9">level &lt; 2 m</text></svg>`
	a, err := picture.Read("plan.svg", []byte(hostile))
	require.NoError(t, err)
	assert.Equal(t, []any{"svg", 200, 100}, []any{a.Type, a.Width, a.Height})
	clean := string(a.Data)
	for _, bad := range []string{"steal", "far.example", "script", "foreignObject", "iframe", "onload", "onclick", "javascript", "@import", "image", "set "} {
		assert.NotContains(t, clean, bad)
	}
	for _, good := range []string{`d="M0 0L9 9"`, `stroke="#123456"`, "stroke-width:2", `href="#own"`, "level &lt; 2 m", "<rect"} {
		assert.Contains(t, clean, good)
	}
	dec := xml.NewDecoder(strings.NewReader(clean))
	for {
		if _, err := dec.Token(); errors.Is(err, io.EOF) {
			break
		} else {
			require.NoError(t, err, "it is well-formed still")
		}
	}
	for data, why := range map[string]string{
		"<svg": "not well-formed", "<html></html>": "its first element is html", "<svg xmlns='http://www.w3.org/2000/svg'/>": "says no size",
		"<svg width='9' height='9'>" + strings.Repeat("<g>", 200) + strings.Repeat("</g>", 200) + "</svg>": "nested more than",
		"<svg width='9' height='9'>&x;</svg>": "not well-formed",
	} {
		_, err := picture.Read("bad.svg", []byte(data))
		assert.ErrorContains(t, err, why)
	}
}
