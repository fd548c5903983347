package design

// From version 3 to 4. There are rules of how copper areas join pads: by spokes. Nothing of version 3 has areas.
func toFour(objects []Raw, next ID) ([]Raw, ID, error) {
	for _, o := range objects {
		next = max(next, o.ID+1, FirstFree)
	}
	usual := Usual()
	for i, r := range []Rule{
		{Kind: SpokeWidth, Order: 13, Value: Fixed(usual[SpokeWidth])},
		{Kind: SpokeGap, Order: 14, Value: Fixed(usual[SpokeGap])},
	} {
		r.ID = next + ID(i)
		objects = append(objects, raw(&r))
	}
	return objects, next + 2, nil
}
