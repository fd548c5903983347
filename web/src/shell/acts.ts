const names: Record<string, string> = {
  setSettings: 'the project’s details', setSheet: 'the sheet', addSheet: 'a new sheet', orderSheets: 'the order of sheets', removeSheet: 'removing a sheet', placeBlock: 'a block', setBlock: 'a block',
  movePin: 'moving a pin', orderPins: 'ordering pins', addPin: 'adding a pin', removePin: 'removing a pin', renamePin: 'renaming a pin', markOpen: 'marks of open pins', stepBack: 'a step back', matchPort: 'matching a port', setSupply: 'a supply', placePort: 'a port', setPort: 'a port', placeTaps: 'taps', setName: 'a name', renameNet: 'renaming a net', setNets: 'what a net is for',
  pairNets: 'pairs of nets', arrange: 'lining up', setParts: 'parts’ details', renumber: 'numbering', replacePart: 'replacing parts', drawItem: 'drawing', addPicture: 'a picture',
  replaceText: 'replacing text', setChecks: 'the rules of the check', excuse: 'excusing', placePart: 'placing a part', placeSupply: 'placing a supply', placeLabel: 'placing a label',
  placeOpenMark: 'a no-connect mark', drawWire: 'drawing a wire', moveItems: 'moving', turnItems: 'turning', setPart: 'a part’s details',
  moveText: 'moving a text', paste: 'pasting', remove: 'removing', setOutline: 'the outline', beginBoard: 'beginning the board', setSides: 'the sides of parts', gather: 'gathering', lineUp: 'lining up', swapPlaced: 'changing places', setLabel: 'a designator’s place', orderLabels: 'designators in order', setNotes: 'notes about places', drawEdge: 'the outline', shapeEdge: 'shaping the outline', dropCut: 'a cut-out', setHole: 'a hole', setRules: 'the rules', putRule: 'a rule', orderRules: 'the order of rules', takeRules: 'rules from a file', putArea: 'an area', carry: 'carrying to the board',
  movePlaced: 'moving', turnPlaced: 'turning', flipPlaced: 'changing sides', setPlaced: 'an exact position', lock: 'locking', drawTrack: 'a track',
  removeTrack: 'removing a track', removeNetTracks: 'removing a net’s tracks', setTrack: 'tracks', setRise: 'how warm tracks become', takeWidths: 'widths for currents', addHole: 'a hole', addLegend: 'a text', setLegend: 'texts', addFont: 'a font', addFigure: 'a figure', setFigure: 'figures', addDimension: 'a dimension', setDimension: 'a dimension',
  putSymbol: 'a new symbol', symbolPieces: 'drawing a symbol', addPins: 'a list of pins', setSymbol: 'a symbol’s details', resizeBody: 'a symbol’s body', setOrigin: 'an origin', putFootprint: 'a footprint', footprintPieces: 'drawing a footprint',
  setFootprint: 'a footprint’s details', layBeneath: 'a picture beneath', giveModel: 'a body from a file', putLibraryPart: 'a part of the library', takeParts: 'taking parts', updateParts: 'a new version of a part', released: 'keeping a part in the workspace', setChecked: 'checked against the datasheet', dropItems: 'removing from the library',
} // prettier-ignore

/** What a kept edit did, in words. */
export const actName = (act: string) => names[act] ?? act
