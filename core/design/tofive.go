package design

import (
	"encoding/json"
	"strings"
)

// From version 4 to 5. A layer of the stack says what it is of, and the coats outside are layers too: before, every board had mask
// and silk on both sides.
func toFive(objects []Raw, next ID) ([]Raw, ID, error) {
	for i, o := range objects {
		next = max(next, o.ID+1, FirstFree)
		if o.Kind == KindBoard {
			objects[i].Body = boardOfFive(4, o.Body)
		}
	}
	return objects, next, nil
}

// boardOfFive is the body of a board as version 5 says it; what cannot be read is left to who decodes it.
func boardOfFive(version int, body []byte) []byte {
	var fields map[string]json.RawMessage
	var old struct {
		Stack []oldLayer `json:"stack"`
		Next  LayerID    `json:"nextLayer"`
	}
	if version >= 5 || json.Unmarshal(body, &fields) != nil || json.Unmarshal(body, &old) != nil {
		return body
	}
	var stack []StackLayer
	for _, l := range old.Stack {
		stack = append(stack, l.five())
	}
	is := Board{Next: old.Next}.Stacked(WithCoats(stack))
	fields["stack"], _ = json.Marshal(is.Stack) // plain data always marshals
	fields["nextLayer"], _ = json.Marshal(is.Next)
	body, _ = json.Marshal(fields)
	return body
}

// five is the layer as version 5 says it.
func (l oldLayer) five() StackLayer {
	is := StackLayer{ID: l.ID, Name: l.Name, Kind: CoreLayer, Thickness: l.Thickness, Material: l.Material}
	switch {
	case l.Copper:
		is.Kind, is.Roughness = CopperLayer, usualRoughness
	case strings.Contains(strings.ToLower(l.Name), "prepreg"):
		is.Kind = PrepregLayer
	}
	if !l.Copper && l.Material == "FR-4" {
		is.Permittivity, is.Loss = usualPermittivity, usualLoss
	}
	return is
}
