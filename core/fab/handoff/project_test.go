package handoff_test

import (
	"context"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// idOf is what the artwork of a board says of its project.
func idOf(t *testing.T, d *design.Doc, name string) []string {
	list, err := handoff.Make(context.Background(), d, layout.NewIndex(d), name, time.Unix(0, 0), nil)
	require.NoError(t, err)
	m := regexp.MustCompile(`TF\.ProjectId,([^*]*)\*`).FindSubmatch(list[0].Data)
	require.NotNil(t, m)
	return strings.Split(string(m[1]), ",")
}

// The project's own GUID and revision stand in the files; one that was never kept gets a GUID that is its own, and the same each time.
func TestFilesNameTheirProject(t *testing.T) {
	d := synthetic.FourLayers()
	d.GUID = "7d444840-9dc0-41d1-b245-5ffdce74fad2"
	s := *d.Settings
	s.Revision = "C*2"
	d.Put(&s)
	assert.Equal(t, []string{"Weir", d.GUID, `C\u002A2`}, idOf(t, d, "Weir"))
	d.GUID = ""
	s.Revision = ""
	d.Put(&s)
	first := idOf(t, d, "Weir")
	assert.Equal(t, first, idOf(t, d, "Weir"))
	assert.NotEqual(t, first[1], idOf(t, d, "Loom")[1])
	assert.NoError(t, uuid.Validate(first[1]))
	assert.Equal(t, "none", first[2])
}
