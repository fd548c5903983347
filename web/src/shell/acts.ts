const names: Record<string, string> = {
  setSettings: 'the project’s details', setSheet: 'the sheet', placePart: 'placing a part', placeSupply: 'placing a supply', placeLabel: 'placing a label',
  placeOpenMark: 'a no-connect mark', drawWire: 'drawing a wire', moveItems: 'moving', turnItems: 'turning', setPart: 'a part’s details', renameLabel: 'renaming',
  moveText: 'moving a text', paste: 'pasting', remove: 'removing', setOutline: 'the outline', setRules: 'the rules', carry: 'carrying to the board',
  movePlaced: 'moving', turnPlaced: 'turning', flipPlaced: 'changing sides', setPlaced: 'an exact position', lock: 'locking', drawTrack: 'a track',
  removeTrack: 'removing a track', removeNetTracks: 'removing a net’s tracks', setTrack: 'a track’s width', addHole: 'a hole', addLegend: 'a text', setLegend: 'a text',
} // prettier-ignore

/** What a kept edit did, in words. */
export const actName = (act: string) => names[act] ?? act
