package layout

import (
	"goldentrace/core/geom"
	"goldentrace/core/lettering"
)

// TextLines are the centre lines of a text around its middle; on the bottom it is mirrored,
// so that it reads from there. The angle is brought to the half turn in which it reads.
func TextLines(text string, height int64, at geom.Point, angle int32, bottom bool) [][]geom.Point {
	t := TextPose(at, angle, bottom)
	lines := lettering.Strokes(text, height)
	for i := range lines {
		lines[i] = t.ApplyAll(lines[i])
	}
	return lines
}

// TextPose carries a text around its middle to its place.
func TextPose(at geom.Point, angle int32, bottom bool) geom.Pose {
	a := ((angle % 360_000) + 360_000) % 360_000
	if bottom {
		if a >= 90_000 && a < 270_000 {
			a = (a + 180_000) % 360_000
		}
	} else if a > 90_000 && a <= 270_000 {
		a = (a + 180_000) % 360_000
	}
	return geom.Pose{At: at, Angle: a, Mirror: bottom}
}
