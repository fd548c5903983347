package edit

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"

	"goldentrace/core/reading"
)

// Version of the commands; a command of a later version is refused.
const Version = 1

// kinds of commands by the name they bear in files and on the wire.
var kinds = map[string]func() Command{
	"setSettings":     func() Command { return &SetSettings{} },
	"setBasket":       func() Command { return &SetBasket{} },
	"takePartTable":   func() Command { return &TakePartTable{} },
	"addUnit":         func() Command { return &AddUnit{} },
	"windowPaste":     func() Command { return &WindowPaste{} },
	"removeUnit":      func() Command { return &RemoveUnit{} },
	"moveToUnit":      func() Command { return &MoveToUnit{} },
	"addSheet":        func() Command { return &AddSheet{} },
	"setSheet":        func() Command { return &SetSheet{} },
	"orderSheets":     func() Command { return &OrderSheets{} },
	"removeSheet":     func() Command { return &RemoveSheet{} },
	"placeBlock":      func() Command { return &PlaceBlock{} },
	"setBlock":        func() Command { return &SetBlock{} },
	"movePin":         func() Command { return &MovePin{} },
	"orderPins":       func() Command { return &OrderPins{} },
	"addPin":          func() Command { return &AddPin{} },
	"removePin":       func() Command { return &RemovePin{} },
	"renamePin":       func() Command { return &RenamePin{} },
	"markOpen":        func() Command { return &MarkOpen{} },
	"matchPort":       func() Command { return &MatchPort{} },
	"placePart":       func() Command { return &PlacePart{} },
	"placeSupply":     func() Command { return &PlaceSupply{} },
	"setSupply":       func() Command { return &SetSupply{} },
	"placeLabel":      func() Command { return &PlaceLabel{} },
	"placePort":       func() Command { return &PlacePort{} },
	"setPort":         func() Command { return &SetPort{} },
	"placeTaps":       func() Command { return &PlaceTaps{} },
	"setName":         func() Command { return &SetName{} },
	"renameNet":       func() Command { return &RenameNet{} },
	"setNets":         func() Command { return &SetNets{} },
	"pairNets":        func() Command { return &PairNets{} },
	"placeOpenMark":   func() Command { return &PlaceOpenMark{} },
	"drawWire":        func() Command { return &DrawWire{} },
	"moveItems":       func() Command { return &MoveItems{} },
	"turnItems":       func() Command { return &TurnItems{} },
	"arrange":         func() Command { return &Arrange{} },
	"setPart":         func() Command { return &SetPart{} },
	"setParts":        func() Command { return &SetParts{} },
	"renumber":        func() Command { return &Renumber{} },
	"replacePart":     func() Command { return &ReplacePart{} },
	"moveText":        func() Command { return &MoveText{} },
	"drawItem":        func() Command { return &DrawItem{} },
	"addPicture":      func() Command { return &AddPicture{} },
	"replaceText":     func() Command { return &ReplaceText{} },
	"setChecks":       func() Command { return &SetChecks{} },
	"takeLimits":      func() Command { return &TakeLimits{} },
	"excuse":          func() Command { return &Excuse{} },
	"excuseAlike":     func() Command { return &ExcuseAlike{} },
	"paste":           func() Command { return &Paste{} },
	"remove":          func() Command { return &Remove{} },
	"setOutline":      func() Command { return &SetOutline{} },
	"beginBoard":      func() Command { return &BeginBoard{} },
	"setPaste":        func() Command { return &SetPaste{} },
	"setSides":        func() Command { return &SetSides{} },
	"gather":          func() Command { return &Gather{} },
	"drawEdge":        func() Command { return &DrawEdge{} },
	"shapeEdge":       func() Command { return &ShapeEdge{} },
	"sizeEdge":        func() Command { return &SizeEdge{} },
	"dropCut":         func() Command { return &DropCut{} },
	"setRules":        func() Command { return &SetRules{} },
	"putRule":         func() Command { return &PutRule{} },
	"takeRules":       func() Command { return &TakeRules{} },
	"orderRules":      func() Command { return &OrderRules{} },
	"putArea":         func() Command { return &PutArea{} },
	"setLayers":       func() Command { return &SetLayers{} },
	"putStack":        func() Command { return &PutStack{} },
	"addLayer":        func() Command { return &AddLayer{} },
	"setLayer":        func() Command { return &SetLayer{} },
	"moveLayer":       func() Command { return &MoveLayer{} },
	"dropLayer":       func() Command { return &DropLayer{} },
	"setThickness":    func() Command { return &SetThickness{} },
	"setHoles":        func() Command { return &SetHoles{} },
	"setHop":          func() Command { return &SetHop{} },
	"takeStack":       func() Command { return &TakeStack{} },
	"putStitching":    func() Command { return &PutStitching{} },
	"putFiducials":    func() Command { return &PutFiducials{} },
	"keepLayerSet":    func() Command { return &KeepLayerSet{} },
	"dropLayerSet":    func() Command { return &DropLayerSet{} },
	"setTint":         func() Command { return &SetTint{} },
	"putHouse":        func() Command { return &PutHouse{} },
	"dropHouse":       func() Command { return &DropHouse{} },
	"cutPour":         func() Command { return &CutPour{} },
	"setPlane":        func() Command { return &SetPlane{} },
	"addVia":          func() Command { return &AddVia{} },
	"carry":           func() Command { return &Carry{} },
	"movePlaced":      func() Command { return &MovePlaced{} },
	"turnPlaced":      func() Command { return &TurnPlaced{} },
	"flipPlaced":      func() Command { return &FlipPlaced{} },
	"lineUp":          func() Command { return &LineUp{} },
	"swapPlaced":      func() Command { return &SwapPlaced{} },
	"setNotes":        func() Command { return &SetNotes{} },
	"setLabel":        func() Command { return &SetLabel{} },
	"orderLabels":     func() Command { return &OrderLabels{} },
	"setPlaced":       func() Command { return &SetPlaced{} },
	"lock":            func() Command { return &Lock{} },
	"drawTrack":       func() Command { return &DrawTrack{} },
	"escape":          func() Command { return &Escape{} },
	"removeTrack":     func() Command { return &RemoveTrack{} },
	"pullTrack":       func() Command { return &PullTrack{} },
	"pullVia":         func() Command { return &PullVia{} },
	"roundTracks":     func() Command { return &RoundTracks{} },
	"tidyTracks":      func() Command { return &TidyTracks{} },
	"removeNetTracks": func() Command { return &RemoveNetTracks{} },
	"setJoins":        func() Command { return &SetJoins{} },
	"putPour":         func() Command { return &PutPour{} },
	"removeAllTracks": func() Command { return &RemoveAllTracks{} },
	"setLetters":      func() Command { return &SetLetters{} },
	"varyFootprint":   func() Command { return &VaryFootprint{} },
	"setRise":         func() Command { return &SetRise{} },
	"setTeardrops":    func() Command { return &SetTeardrops{} },
	"takeWidths":      func() Command { return &TakeWidths{} },
	"setTrack":        func() Command { return &SetTrack{} },
	"addHole":         func() Command { return &AddHole{} },
	"setHole":         func() Command { return &SetHole{} },
	"addLegend":       func() Command { return &AddLegend{} },
	"setLegend":       func() Command { return &SetLegend{} },
	"addFont":         func() Command { return &AddFont{} },
	"addFigure":       func() Command { return &AddFigure{} },
	"setFigure":       func() Command { return &SetFigure{} },
	"addDimension":    func() Command { return &AddDimension{} },
	"setDimension":    func() Command { return &SetDimension{} },
	"putSymbol":       func() Command { return &PutSymbol{} },
	"symbolPieces":    func() Command { return &SymbolPieces{} },
	"setSymbol":       func() Command { return &SetSymbol{} },
	"addPins":         func() Command { return &AddPins{} },
	"resizeBody":      func() Command { return &ResizeBody{} },
	"setOrigin":       func() Command { return &SetOrigin{} },
	"putFootprint":    func() Command { return &PutFootprint{} },
	"footprintPieces": func() Command { return &FootprintPieces{} },
	"setFootprint":    func() Command { return &SetFootprint{} },
	"layBeneath":      func() Command { return &LayBeneath{} },
	"giveModel":       func() Command { return &GiveModel{} },
	"putLibraryPart":  func() Command { return &PutLibraryPart{} },
	"takeParts":       func() Command { return &TakeParts{} },
	"updateParts":     func() Command { return &UpdateParts{} },
	"released":        func() Command { return &Released{} },
	"setChecked":      func() Command { return &SetChecked{} },
	"dropItems":       func() Command { return &DropItems{} },
}

// Kinds lists the names of all commands.
func Kinds() []string { return slices.Sorted(maps.Keys(kinds)) }

// Blank is an empty command of the kind, or nil.
func Blank(kind string) Command {
	if f, ok := kinds[kind]; ok {
		return f()
	}
	return nil
}

// BringsFile tells whether a command, as JSON, is one that brings a file along.
func BringsFile(data []byte) bool {
	var head struct {
		Kind string `json:"kind"`
	}
	if json.Unmarshal(data, &head) != nil {
		return false
	}
	c := Blank(head.Kind)
	if c == nil {
		return false
	}
	t := reflect.TypeOf(c).Elem()
	for i := range t.NumField() {
		if t.Field(i).Type == reflect.TypeFor[[]byte]() {
			return true
		}
	}
	return false
}

// Decode reads a command from JSON: its fields beside "kind" and "v". Fields it does not
// know are refused, since ignoring them would do something else than was meant.
func Decode(data []byte) (string, Command, error) {
	var head struct {
		Kind string `json:"kind"`
		V    int    `json:"v"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return "", nil, fmt.Errorf("the edit cannot be read: %w", reading.Wrong(err))
	}
	c := Blank(head.Kind)
	if c == nil {
		return head.Kind, nil, fmt.Errorf("there is no edit called %q", head.Kind)
	}
	if head.V > Version {
		return head.Kind, nil, fmt.Errorf("the edit %s is of version %d; this program knows version %d", head.Kind, head.V, Version)
	}
	var fields map[string]json.RawMessage
	if err := json.Unmarshal(data, &fields); err != nil {
		return head.Kind, nil, fmt.Errorf("the edit cannot be read: %w", reading.Wrong(err))
	}
	delete(fields, "kind")
	delete(fields, "v")
	body, err := json.Marshal(fields)
	if err != nil {
		return head.Kind, nil, err
	}
	dec := json.NewDecoder(bytes.NewReader(body))
	dec.DisallowUnknownFields()
	if err := dec.Decode(c); err != nil && err != io.EOF {
		return head.Kind, nil, fmt.Errorf("the edit cannot be read: %w", reading.Wrong(err))
	}
	return head.Kind, c, nil
}
