package route

import (
	"slices"

	"goldentrace/core/geom"
)

// Tidied is a strand's line made shorter and straighter as far as the rules let it: its ends stay, it has no more corners than before,
// and it touches of its net what it touched before. The same line where nothing is better. Source of the method: shortcuts and sliding, as
// of what a search found.
func (f Field) Tidied(s *Strand) []geom.Point {
	free := f.With(s.IDs)
	path := lane{free, s.Width, s.Layer, s.Net}.tightened(s.Path)
	if slices.Equal(path, s.Path) || Length(path) > Length(s.Path) || !free.holds(s, path) || f.joinsAnew(s, path) != nil {
		return s.Path
	}
	return path
}
