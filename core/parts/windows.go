package parts

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// MostWindows bounds how many windows the paste of a pad is parted into.
const MostWindows = 900

// Windows parts the paste of a pad into a grid of windows that cover so much of its copper, as datasheets ask for large pads: a whole field of
// paste lets the part swim, and gas has no way out. Windows and gaps are equal, half a gap stands at the edges. Their corners are seen from the
// pad's middle.
func Windows(p *design.Pad, columns, rows, percent int) ([][]geom.Corner, error) {
	switch {
	case columns < 1 || rows < 1 || columns*rows > MostWindows:
		return nil, fmt.Errorf("%d by %d windows are not possible; up to %d are", columns, rows, MostWindows)
	case percent < 10 || percent > 95:
		return nil, fmt.Errorf("windows cover 10 to 95 %% of a pad, not %d %%", percent)
	case p.Form == design.Round || p.Form == design.Free:
		return nil, fmt.Errorf("pad %s is %s; windows are laid over pads with straight sides", p.Number, map[string]string{design.Round: "round", design.Free: "of a free form"}[p.Form])
	}
	share := math.Sqrt(float64(percent) / 100)
	if least := float64(50 * units.Micrometre); float64(p.Size.X)*share < least*float64(columns) || float64(p.Size.Y)*share < least*float64(rows) {
		return nil, fmt.Errorf("windows of pad %s would be smaller than 0.05 mm", p.Number)
	}
	return landpattern.Windows(p.Size, int64(columns), int64(rows), share), nil
}
