package picture_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/picture"
)

func svg(within string) []byte {
	return []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100">` + within + `</svg>`)
}

// uses are groups each of which uses the next n times, deep levels of them.
func uses(n, deep int) string {
	var b strings.Builder
	for i := range deep {
		fmt.Fprintf(&b, `<g id="g%d">%s</g>`, i, strings.Repeat(fmt.Sprintf(`<use href="#g%d"/>`, i+1), n))
	}
	fmt.Fprintf(&b, `<rect id="g%d" width="1" height="1"/>`, deep)
	return b.String()
}

// A few bytes must not draw for ever.
func TestPicturesThatWouldDrawForEver(t *testing.T) {
	for within, why := range map[string]string{
		uses(1, 8):                       "",
		uses(1, 9):                       "more than 8 deep",
		`<g id="a"><use href="#a"/></g>`: "use one another more than 8 deep, or themselves",
		uses(20, 5):                      "draws more than 50000 elements",
		`<use href="#nothing"/>`:         "",
		// The drawing itself and its first element, 49,998 lines: 50,000 elements.
		strings.Repeat("<g/>", 49_998):                                  "",
		strings.Repeat("<g/>", 49_999):                                  "draws more than 50000 elements",
		`<path d="M0 0L9 9" stroke-dasharray="none"/>`:                  "",
		`<path d="M0 0L9 9" stroke-dasharray="2, 3"/>`:                  "",
		`<path d="M0 0L9 9" stroke-dasharray="0.01"/>`:                  "",
		`<path d="M0 0L9 9" stroke-dasharray="0.0099"/>`:                "dashes are too short",
		`<path d="M0 0L9 9" stroke-dasharray="0 0"/>`:                   "dashes are too short",
		`<path d="M0 0L9 9" stroke-dasharray="0.004px 0.006px"/>`:       "",
		`<path d="M0 0L9 9" stroke-dasharray="4 -4"/>`:                  "cannot be read",
		`<path d="M0 0L9 9" stroke-dasharray="4 x y"/>`:                 "cannot be read",
		`<path d="M0 0L9 9" style="stroke-dasharray:0.001;fill:none"/>`: "dashes are too short",
		`<path d="M0 0L9 9" style="stroke-dasharray:4 2;fill:none"/>`:   "",
		`<path d="M0 0L9 9" style="fill:none"/>`:                        "",
	} {
		_, err := picture.Read("a.svg", svg(within))
		if why == "" {
			assert.NoError(t, err, "%.60s", within)
			continue
		}
		assert.ErrorContains(t, err, why, "%.60s", within)
	}
}

// A picture that came with a project is held to the same bounds as one that is put on a sheet.
func TestBoundedOfWhatIsKept(t *testing.T) {
	require.NoError(t, picture.Bounded(svg(uses(1, 8))))
	require.ErrorContains(t, picture.Bounded(svg(uses(1, 9))), "8 deep")
	require.Error(t, picture.Bounded([]byte("<html/>")))
	require.Error(t, picture.Bounded([]byte("<svg width='9' height='9'><g>")))
}

func TestSizesOfDrawings(t *testing.T) {
	for head, want := range map[string][2]int{
		`width="40" height="30.6"`:                       {40, 31},
		`width="10mm" height=".5e1"`:                     {0, 0},
		`width="1" height="1"`:                           {1, 1},
		`width="0.9" height="1"`:                         {0, 0},
		`width="1" height="0.9"`:                         {0, 0},
		`width="999999" height="2"`:                      {999_999, 2},
		`width="2" height="1000000"`:                     {0, 0},
		`width="1000000" height="2"`:                     {0, 0},
		`viewBox="5 6 70 80"`:                            {70, 80},
		`viewBox="5,6,70,80" width="100%" height="100%"`: {70, 80},
		`viewBox="5 6 70 80" width="20"`:                 {70, 80},
		`viewBox="5 6 70 80" width="20" height="10"`:     {20, 10},
		`viewBox="5 6 70"`:                               {0, 0},
		``:                                               {0, 0},
	} {
		a, err := picture.Read("dir/a.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" `+head+`><g/></svg>`))
		if want[0] == 0 {
			assert.ErrorContains(t, err, "says no size", head)
			continue
		}
		if assert.NoError(t, err, head) {
			assert.Equal(t, want, [2]int{a.Width, a.Height}, head)
			assert.Equal(t, "a.svg", a.Name)
		}
	}
}

// What is not drawing is left out with all that is within it; what reaches outside goes too.
func TestWhatIsKeptOfADrawing(t *testing.T) {
	a, err := picture.Read(" ", svg(`<script>alert(1)<g/></script><g onclick="x()" fill="red"><foreignObject><rect/></foreignObject><rect style="fill:blue;behavior:url(http://x);stroke:url(#p)" width="5" height="6"/></g>`+
		`<use href="http://elsewhere/x.svg#a"/><path d="M0 0" fill="url(http://elsewhere/p)"/><text>Weir</text>`))
	require.NoError(t, err)
	assert.Equal(t, "picture", a.Name)
	assert.Equal(t, `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><g fill="red"><rect style="fill:blue;stroke:url(#p)" width="5" height="6"></rect></g>`+
		`<use></use><path d="M0 0"></path><text>Weir</text></svg>`, string(a.Data))
}

func TestSizesOfFiles(t *testing.T) {
	_, err := picture.Read("empty.png", nil)
	require.ErrorContains(t, err, "empty.png is empty")
	_, err = picture.Read("big.png", make([]byte, design.LargestAsset+1))
	require.ErrorContains(t, err, "is the most")
	_, err = picture.Read("noise.png", make([]byte, design.LargestAsset))
	require.ErrorContains(t, err, "is not a picture", "just so large is read")
	for _, first := range []string{"<html></html>", "<svg", "< "} {
		_, err := picture.Read("a.svg", []byte(first))
		require.ErrorContains(t, err, "not a picture that can be used", first)
	}
}
