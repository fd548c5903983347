package design

// From version 5 to 6. There are rules of the mask, of what is printed, of the copper near holes and of the height of parts. Those that would
// make faults of what was none ask for nothing.
func toSix(objects []Raw, next ID) ([]Raw, ID, error) {
	for _, o := range objects {
		next = max(next, o.ID+1, FirstFree)
	}
	usual := Usual()
	usual[HoleCopper] = 0
	for i, k := range []RuleKind{HoleCopper, MaskWeb, SilkApart, LeastSilk, LetterHeight, HeightAbove, HeightBelow} {
		objects = append(objects, raw(&Rule{ID: next, Kind: k, Order: 15 + i, Value: Fixed(usual[k])}))
		next++
	}
	return objects, next, nil
}
