package design

// From version 2 to 3. There is a rule of the spacing of parts for everything: courtyards may touch, as they
// might before.
func toThree(objects []Raw, next ID) ([]Raw, ID, error) {
	for _, o := range objects {
		next = max(next, o.ID+1, FirstFree)
	}
	return append(objects, raw(&Rule{ID: next, Kind: Spacing, Order: 12, Value: Fixed(0)})), next + 1, nil
}
