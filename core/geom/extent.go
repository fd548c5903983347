package geom

// Extent is the box around what was added to it; the zero value is around nothing.
type Extent struct {
	Box Box
	Any bool // whether anything was added
}

// Add makes room for places.
func (e *Extent) Add(pts ...Point) {
	for _, p := range pts {
		if !e.Any {
			e.Box, e.Any = Box{p, p}, true
		}
		e.Box = e.Box.With(p)
	}
}

// AddBox makes room for a box.
func (e *Extent) AddBox(b Box) { e.Add(b.Min, b.Max) }

// AddRing makes room for the closed line through the corners.
func (e *Extent) AddRing(corners []Corner) {
	if len(corners) > 0 {
		e.AddBox(Closing(corners).Box())
	}
}
