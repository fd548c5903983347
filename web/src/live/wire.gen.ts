// Written by tools/wiregen from the Go types. Do not edit; run `make wire`.

export interface Settings {
  id: number
  title: string
  number: string
  revision: string
  author: string
  date: string
  unit: string
}

export interface Checks {
  id: number
  kinds?: Record<string, string>
  pairs?: Record<string, string>
}

export interface Basket {
  id: number
  boards: number
  spares: number
  least: number
  reels?: boolean
  held?: Record<string, number>
  buy?: Record<string, number>
  packaging?: Record<string, string>
}

export interface Sheet {
  id: number
  name: string
  order: number
  size: string
  fields?: Record<string, string>
}

export interface Symbol {
  id: number
  name: string
  origin?: Origin
  pins: Pin[]
  figures: Figure[]
  designatorAt: Point
  valueAt: Point
  showNames?: boolean
}

export interface Footprint {
  id: number
  name: string
  description?: string
  origin?: Origin
  pads: Pad[]
  silk: Figure[]
  body: Figure[]
  courtyard: Point[]
  designatorAt: Point
  valueAt?: Point
  solids?: Solid[]
  recipe?: Recipe
  model?: number
  dimensions?: Dimension[]
  beneath?: Beneath
  checked?: DesignChecked
  together?: string[][]
}

export interface LibraryPart {
  id: number
  name: string
  origin?: Origin
  description: string
  keywords?: string
  prefix: string
  symbol: string
  footprint: string
  value?: string
  padOf?: Record<string, string>
  units?: string[]
  densities?: Record<string, string>
  order?: Record<string, string>
  datasheet?: string
  checked?: DesignChecked
}

export interface Asset {
  id: number
  name: string
  type: string
  width: number
  height: number
  data: string
  reach?: Reach
}

export interface Part {
  id: number
  sheet: number
  library: string
  unit?: number
  designator: string
  value: string
  footprint: string
  at: Point
  turn: number
  mirror?: boolean
  designatorAt?: Point
  valueAt?: Point
  others?: Record<string, string>
  fields?: Record<string, string>
  notFitted?: boolean
}

export interface Wire {
  id: number
  sheet: number
  a: Point
  b: Point
  bundle?: boolean
}

export interface Label {
  id: number
  sheet: number
  name: string
  at: Point
  turn: number
}

export interface Port {
  id: number
  sheet: number
  name: string
  way: string
  at: Point
  turn: number
}

export interface Tap {
  id: number
  sheet: number
  member: string
  at: Point
  turn: number
}

export interface Supply {
  id: number
  sheet: number
  name: string
  shape: string
  feeds?: boolean
  at: Point
  turn: number
}

export interface OpenMark {
  id: number
  sheet: number
  at: Point
}

export interface SheetBlock {
  id: number
  sheet: number
  name: string
  of: number
  at: Point
  size: Point
  pins: BlockPin[]
}

export interface Cluster {
  id: number
  sheet: number
  title: string
  a: Point
  b: Point
  tint: string
}

export interface Note {
  id: number
  sheet: number
  at: Point
  width: number
  size: number
  text: string
  tint: string
}

export interface Picture {
  id: number
  sheet: number
  asset: number
  at: Point
  size: Point
}

export interface Timing {
  id: number
  sheet: number
  at: Point
  slot: number
  text: string
}

export interface Graphic {
  id: number
  sheet: number
  form: string
  pts: Point[]
  dash?: boolean
  tint: string
}

export interface Net {
  id: number
  name: string
  class?: string
  current?: number
  voltage?: number
  impedance?: number
  partner?: number
}

export interface Excuse {
  id: number
  key: string
  print: string
  text: string
  reason: string
  made: string
}

export interface Board {
  id: number
  outline: Corner[]
  cutOuts?: Corner[][]
  stack: StackLayer[]
  wanted?: number
  oneSide?: boolean
  noPaste?: boolean
  rise?: number
  holes?: Holes
  teardrops?: Teardrops
  nextLayer: number
}

export interface RuleArea {
  id: number
  name: string
  outline: Corner[]
  layers?: number[]
  keepOut?: string[]
  locked?: boolean
}

export interface Rule {
  id: number
  kind: string
  order: number
  a?: Scope
  b?: Scope
  value: Amount
  inner?: Amount
}

export interface Placed {
  id: number
  part: number
  path?: string
  designator: string
  value: string
  footprint: string
  at: Point
  angle: number
  bottom?: boolean
  locked?: boolean
  notFitted?: boolean
  nets: Record<string, number>
  joins?: Record<string, string>
  label?: Point
  letters?: number
  notes?: PlaceNote[]
}

export interface Track {
  id: number
  layer: number
  a: Point
  mid?: Point
  b: Point
  width: number
  net?: number
  bare?: boolean
  group?: number
  locked?: boolean
}

export interface Via {
  id: number
  at: Point
  diameter: number
  hole: number
  from: number
  to: number
  kind?: string
  cover?: string
  pads?: ViaPad[]
  join?: string
  barrel?: number
  group?: number
  own?: boolean
  net?: number
  locked?: boolean
}

export interface Hole {
  id: number
  at: Point
  diameter: number
  land?: number
  keep?: number
  locked?: boolean
}

export interface Legend {
  id: number
  at: Point
  angle: number
  bottom?: boolean
  height: number
  text: string
  on?: string
  layer?: number
  font?: string
  face?: number
  stroke?: number
  apart?: number
  locked?: boolean
}

export interface BoardFigure {
  id: number
  name?: string
  on?: string
  layer?: number
  bottom?: boolean
  lines: Corner[][]
  closed?: boolean
  filled?: boolean
  width?: number
  apart?: number
  locked?: boolean
  fiducial?: number
}

export interface Pour {
  id: number
  name: string
  net: number
  layers: number[]
  outline?: Corner[]
  priority?: number
  clearance?: number
  leastWidth?: number
  islands?: string
  smallest?: number
  join?: string
  spokes?: Spokes
  locked?: boolean
}

export interface Stitching {
  id: number
  name: string
  net: number
  pattern?: string
  pitch: number
  apart?: number
  outline?: Corner[]
  along?: number
  barrel?: number
  out?: Point[]
  locked?: boolean
}

export interface BoardDimension {
  id: number
  from: Anchor
  to: Anchor
  way?: string
  off: number
  text?: string
}

export interface LayerSet {
  id: number
  name: string
  layers: number[]
  work?: number
  others?: string
  hidden?: string[]
  flipped?: boolean
}

export interface Tint {
  id: number
  class?: boolean
  name: string
  colour: string
}

export interface House {
  id: number
  name: string
  text?: string
  of?: string
  classes: HouseClass[]
}

export interface Request {
  t: string
  ref: string
  rev?: number
  cmd?: unknown
  agreed?: Outcome
  question?: unknown
  text?: string
  shared?: Shared
  job?: string
}

export interface Failure {
  error: string
  findings?: number
  unjoined?: number
  open?: number
}

export interface Created {
  id: number
  name: string
}

export interface Named {
  name: string
  template?: string
  copy?: number
}

export interface Starts {
  templates: Template[]
  examples: Begin[]
}

export interface Glance {
  revision: number
  circuit: string
  board: string
  handoff: string
  differences: number
  nets: number
  faults: number
  warnings: number
  picture: string
  behind?: boolean
  people?: string[]
}

export interface SteppedBack {
  act: string
}

export interface Drawing {
  kind: string
  role: string
  marks?: DrawnMark[]
  holes?: RereadHole[]
  rows?: string[][]
  text?: string
  count: string
  box: Box
}

export interface Found {
  items: Item[]
  found: number
  query: string
  value?: string
}

export interface LibraryRows {
  rows: Row[]
  found: number
}

export interface Keeping {
  part: string
  who: string
  note?: string
}

export interface KeptAs {
  version: number
}

export interface Withdrawing {
  name: string
  version: number
  back?: boolean
}

export interface PackSeen {
  title: string
  parts: PackPart[]
  kept: boolean
}

export interface DrawingSeen {
  unit: number
  layers: string[]
  skipped: string[]
  edges?: Edges
  wrong?: string
}

export interface LogoSeen {
  rings: Point[][]
  size: Point
  leftOut: string[]
  corners: number
}

export interface BasketSeen {
  boards: number
  lines: Line[]
  unchosen: Line[]
  total: number
  perBoard: number
  warnings: string[]
  trouble?: string
  since?: string
}

export interface DepotManner {
  answers: string
}

export interface Finish {
  rev: number
  behind?: boolean
  empty?: boolean
  view?: Painted
}

export interface Measured {
  rev: number
  houses: HouseSeen[]
}

export interface Query {
  words?: string
  numbers?: string[]
  family?: string
  is?: Record<string, string[]>
  least?: Record<string, number>
  most?: Record<string, number>
  inStock?: boolean
  placed?: boolean
  reels?: boolean
  quantity?: number
  sort?: string
  down?: boolean
  skip?: number
  limit?: number
}

export interface Answer {
  found: number
  rows: OrderingRow[]
  families: Count[]
  facets: Facet[]
}

export interface Numbers {
  numbers: string[]
}

export interface Parts {
  parts: OrderingPart[]
}

export interface KeptPart {
  name: string
  version: number
  made: string
  who: string
  note: string
  withdrawn?: boolean
}

export interface Making {
  name: string
  making: DesignMaking
}

export interface Preview {
  changes: Change[]
  problems: string[]
}

export interface Project {
  id: number
  name: string
  created: string
  changed: string
  revision: number
  parts: number
  trouble?: string
}

export interface Item {
  part: LibraryPart | null
  symbol: Symbol | null
  footprint: Footprint | null
  units?: Symbol[]
}

export interface AddDimension {
  from: Anchor
  to: Anchor
  way?: string
  off: number
  text?: string
}

export interface AddFigure {
  name?: string
  on?: string
  layer?: number
  bottom?: boolean
  lines: Corner[][]
  closed?: boolean
  filled?: boolean
  width?: number
  apart?: number
}

export interface AddFont {
  name: string
  data: string
  ids?: number[]
}

export interface AddHole {
  at: Point
  diameter: number
  land?: number
  keep?: number
}

export interface AddLayer {
  of: string
  at: number
  below?: boolean
}

export interface AddLegend {
  at: Point
  angle?: number
  bottom?: boolean
  height: number
  text: string
  on?: string
  layer?: number
  font?: string
  face?: number
  stroke?: number
  apart?: number
}

export interface AddPicture {
  sheet: number
  name: string
  data: string
  at: Point
  width: number
}

export interface AddPin {
  block: number
  name: string
  way: string
  side: number
  pos: number
}

export interface AddPins {
  symbol: number
  pins: Listed[]
  layout: string
}

export interface AddSheet {
  name?: string
  size?: string
}

export interface AddUnit {
  part: number
}

export interface AddVia {
  at: Point
  net?: number
  from?: number
  to?: number
  diameter?: number
  hole?: number
  made?: string
  cover?: string
  pads?: ViaPad[]
}

export interface Arrange {
  ids: number[]
  how: string
}

export interface BeginBoard {
  copper: number
  ready?: TakeStack
  form: string
  width?: number
  height?: number
  r?: number
  track: number
  oneSide?: boolean
  parts?: boolean
  planes?: BeginPlane[]
}

export interface Carry {
  all?: boolean
  keys?: string[]
}

export interface CutPour {
  id: number
  line: Point[]
  net: number
}

export interface DrawEdge {
  form: string
  a: Point
  b: Point
  r?: number
  corners?: Corner[]
  cut?: boolean
}

export interface DrawItem {
  item: Clipped
}

export interface DrawTrack {
  net: number
  width?: number
  runs: Run[]
  sought?: Run[]
  round?: number
  aside?: boolean
  renew?: boolean
}

export interface DrawWire {
  sheet: number
  path: Point[]
  bundle?: boolean
}

export interface DropCut {
  line: number
}

export interface DropHouse {
  id: number
}

export interface DropItems {
  ids: number[]
}

export interface DropLayer {
  id: number
}

export interface DropLayerSet {
  id: number
}

export interface Escape {
  parts: number[]
  layers: number[]
  beyond?: number
  holes?: boolean
  areas?: boolean
}

export interface EditExcuse {
  key: string
  print: string
  text: string
  reason: string
}

export interface ExcuseAlike {
  excuses: EditExcuse[]
}

export interface FlipPlaced {
  ids: number[]
  tracks?: string
}

export interface FootprintPieces {
  footprint: number
  pads?: Pad[]
  silk?: Figure[]
  body?: Figure[]
  dimensions?: Dimension[]
  removePads?: number[]
  removeFigures?: number[]
  removeDimensions?: number[]
  courtyard?: Point[]
  designatorAt?: Point
  valueAt?: Point
}

export interface Gather {
  ids: number[]
  at: Point
  tracks?: string
}

export interface GiveModel {
  footprint: number
  name: string
  data: string
}

export interface KeepLayerSet {
  set: LayerSet
}

export interface LayBeneath {
  footprint: number
  name: string
  data: string
  at: Point
  width: number
}

export interface LineUp {
  ids: number[]
  how: string
  gap?: number
  tracks?: string
}

export interface Lock {
  ids: number[]
  locked: boolean
}

export interface MarkOpen {
  ids: number[]
}

export interface MatchPort {
  block: number
  pin: string
  how: string
}

export interface MoveItems {
  ids: number[]
  step: Point
}

export interface MoveLayer {
  id: number
  down?: boolean
}

export interface MovePin {
  block: number
  pin: string
  side: number
  pos: number
}

export interface MovePlaced {
  ids: number[]
  step: Point
  tracks?: string
}

export interface MoveText {
  id: number
  text: string
  at?: Point
}

export interface MoveToUnit {
  part: number
  from: number
  pins: number[]
  unit: number
}

export interface OrderLabels {
  ids?: number[]
}

export interface OrderPins {
  block: number
}

export interface OrderRules {
  ids: number[]
}

export interface OrderSheets {
  sheets: number[]
}

export interface PairNets {
  pairs: string[][]
}

export interface Paste {
  sheet: number
  step: Point
  about: Point
  quarters?: number
  mirror?: boolean
  items: Clipped[]
  numberOn?: boolean
}

export interface PlaceBlock {
  sheet: number
  of?: number
  name?: string
  at: Point
  size?: Point
}

export interface PlaceLabel {
  sheet: number
  name: string
  at: Point
  turn?: number
}

export interface PlaceOpenMark {
  sheet: number
  at: Point
}

export interface PlacePart {
  sheet: number
  library: string
  at: Point
  turn?: number
  mirror?: boolean
  designator?: string
  unit?: number
  value?: string
}

export interface PlacePort {
  sheet: number
  name: string
  way: string
  at: Point
  turn?: number
}

export interface PlaceSupply {
  sheet: number
  name: string
  shape: string
  feeds?: boolean
  at: Point
  turn?: number
}

export interface PlaceTaps {
  sheet: number
  members: string[]
  at: Point
  step: Point
  turn?: number
  wire: Point
}

export interface PullTrack {
  id: number
  from: Point
  to: Point
  grip?: number
  corner?: boolean
  aside?: boolean
}

export interface PullVia {
  id: number
  to: Point
  aside?: boolean
}

export interface PutArea {
  area: RuleArea
}

export interface PutFiducials {
  bottom?: boolean
  diameter?: number
  opening?: number
}

export interface PutFootprint {
  footprint?: number
  name?: string
  recipe?: Recipe
}

export interface PutHouse {
  house: House
}

export interface PutLibraryPart {
  part: LibraryPart
  pins?: Listed[]
  layout?: string
}

export interface PutPour {
  pour: Pour
}

export interface PutRule {
  rule: Rule
}

export interface PutStack {
  layers: StackLayer[]
  wanted?: number
}

export interface PutStitching {
  stitching: Stitching
}

export interface PutSymbol {
  name: string
  pins?: Listed[]
  layout?: string
}

export interface Released {
  part: number
  library: string
  version: number
}

export interface Remove {
  ids: number[]
}

export interface RemoveAllTracks {
}

export interface RemoveNetTracks {
  net: number
}

export interface RemovePin {
  block: number
  pin: string
}

export interface RemoveSheet {
  sheet: number
}

export interface RemoveTrack {
  id: number
}

export interface RemoveUnit {
  part: number
  unit: number
}

export interface RenameNet {
  net: string
  to: string
  join?: boolean
}

export interface RenamePin {
  block: number
  pin: string
  to: string
}

export interface Renumber {
  sheets?: number[]
  prefixes?: string[]
  way: string
  from?: number
}

export interface ReplacePart {
  ids: number[]
  library: string
}

export interface ReplaceText {
  text: string
  case?: boolean
  whole?: boolean
  kinds?: string[]
  with: string
  only?: Hit[]
}

export interface ResizeBody {
  symbol: number
  box: Box
}

export interface RoundTracks {
  ids: number[]
  radius: number
}

export interface SetBasket {
  boards?: number
  spares?: number
  least?: number
  reels?: boolean
  held?: Record<string, number>
  buy?: Record<string, number>
  packaging?: Record<string, string>
}

export interface SetBlock {
  id: number
  name?: string
  at?: Point
  size?: Point
  pins?: BlockPin[]
}

export interface SetChecked {
  parts: number[]
  off?: boolean
  by?: string
  on?: string
  note?: string
}

export interface SetChecks {
  kinds?: Record<string, string>
  pairs?: Record<string, string>
}

export interface SetDimension {
  id: number
  way?: string
  off?: number
  text?: string
}

export interface SetFigure {
  ids: number[]
  name?: string
  on?: string
  layer?: number
  bottom?: boolean
  closed?: boolean
  filled?: boolean
  width?: number
  apart?: number
}

export interface SetFootprint {
  footprint: number
  name?: string
  description?: string
  together?: string[][]
  beneath?: Beneath
  noBeneath?: boolean
  solids?: Solid[]
  noModel?: boolean
}

export interface SetHole {
  ids: number[]
  diameter?: number
  land?: number
  keep?: number
}

export interface SetHoles {
  holes: Holes
  keep?: boolean
}

export interface SetHop {
  id: number
  way?: number
  turned?: number
  apart?: number
}

export interface SetJoins {
  ids: number[]
  pad?: string
  join: string
}

export interface SetLabel {
  id: number
  at?: Point
}

export interface SetLayer {
  id: number
  name?: string
  of?: string
  thickness?: number
  material?: string
  permittivity?: number
  loss?: number
  roughness?: number
}

export interface SetLayers {
  copper: number
}

export interface SetLegend {
  ids: number[]
  text?: string
  height?: number
  bottom?: boolean
  on?: string
  layer?: number
  font?: string
  face?: number
  stroke?: number
  apart?: number
}

export interface SetLetters {
  ids: number[]
  height: number
}

export interface SetName {
  id: number
  name: string
}

export interface SetNets {
  nets: string[]
  class?: string
  current?: number
  voltage?: number
  impedance?: number
  partner?: string
}

export interface SetNotes {
  id: number
  notes: PlaceNote[]
}

export interface SetOrigin {
  id: number
  at: Point
}

export interface SetOutline {
  outline: Corner[]
  cutOuts?: Corner[][]
}

export interface SetPart {
  id: number
  path?: string
  designator?: string
  value?: string
  footprint?: string
}

export interface SetParts {
  cells: Cell[]
}

export interface SetPaste {
  unfitted: boolean
}

export interface SetPlaced {
  id: number
  x?: number
  y?: number
  angle?: number
  bottom?: boolean
  tracks?: string
}

export interface SetPlane {
  layer: number
  net?: number
}

export interface SetPort {
  id: number
  way: string
}

export interface SetRise {
  rise: number
}

export interface SetRules {
  rules: Record<string, number>
}

export interface SetSettings {
  title?: string
  number?: string
  revision?: string
  author?: string
  date?: string
  unit?: string
}

export interface SetSheet {
  sheet: number
  name?: string
  size?: string
  fields?: Record<string, string>
}

export interface SetSides {
  oneSide: boolean
}

export interface SetSupply {
  id: number
  shape?: string
  feeds?: boolean
}

export interface SetSymbol {
  symbol: number
  name?: string
  showNames?: boolean
  designatorAt?: Point
  valueAt?: Point
}

export interface SetTeardrops {
  teardrops: Teardrops | null
}

export interface SetThickness {
  wanted: number
}

export interface SetTint {
  class?: boolean
  name: string
  colour?: string
}

export interface SetTrack {
  ids: number[]
  width?: number
  bare?: boolean
}

export interface ShapeEdge {
  line: number
  corner: number
  act: string
  to: Point
  size?: number
}

export interface SizeEdge {
  width?: number
  height?: number
}

export interface SwapPlaced {
  a: number
  b: number
  tracks?: string
}

export interface SymbolPieces {
  symbol: number
  pins?: Pin[]
  figures?: Figure[]
  removePins?: number[]
  removeFigures?: number[]
  fit?: boolean
}

export interface TakeLimits {
  house: string
  class: string
}

export interface TakePartTable {
  text: string
  columns?: string[]
}

export interface TakeParts {
  names: string[]
}

export interface TakeRules {
  numbers?: Record<string, number>
  rules: Rule[]
  classes?: Record<string, string[]>
}

export interface TakeStack {
  house: string
  name: string
  holes?: string
}

export interface TakeWidths {
  nets: number[]
  classes?: boolean
  widen?: boolean
}

export interface TidyTracks {
  ids: number[]
}

export interface TurnItems {
  ids: number[]
  pivot: Point
  quarters?: number
  mirror?: boolean
}

export interface TurnPlaced {
  ids: number[]
  pivot: Point
  angle: number
  tracks?: string
}

export interface UpdateParts {
  names: string[]
}

export interface VaryFootprint {
  ids: number[]
  name: string
  outward?: number
  around?: number
}

export interface WindowPaste {
  footprint: number
  pads: number[]
  columns?: number
  rows?: number
  percent?: number
}

export interface Again {
  history: History | null
  people: Person[]
  jobs?: JobState[]
}

export interface Answered {
  ref: string
  answer: unknown
}

export interface Asks {
  ref: string
  why: string
  outcome: Outcome
}

export interface Broken {
  why: string
}

export interface Changed {
  seq?: number
  rev: number
  act: string
  changes: ObjectChange[]
  drawn?: Drawn[]
  patterns?: Pattern[]
  texts?: Lettered[]
}

export interface Derived {
  seq?: number
  derived: Delta | null
}

export interface Done {
  ref: string
  rev?: number
  over?: string
  said?: string
  lost?: boolean
  took?: Took
}

export interface Gone {
}

export interface HandedOff {
  seq?: number
  handoff: HandoffState | null
}

export interface Told {
  history: History | null
}

export interface Job {
  job: JobState
}

export interface More {
  objects?: Boxed[]
  copper?: Copper
  patterns?: Pattern[]
  texts?: Lettered[]
}

export interface Renamed {
  seq?: number
  name: string
}

export interface Opened {
  looks?: boolean
  rev: number
  name: string
  missing?: string[]
  objects?: Boxed[]
  copper?: Copper
  patterns?: Pattern[]
  texts?: Lettered[]
}

export interface Present {
  people: Person[]
}

export interface Ready {
  run: string
  seq: number
  derived: Delta | null
  history: History | null
  handoff?: HandoffState
  people: Person[]
  jobs?: JobState[]
}

export interface Refused {
  ref: string
  why: string
}

export interface Picked {
  who?: string
  shared: Shared | null
}

export interface Alike {
  id: number
}

export interface Likeness {
  by: string
  is: string
  ids: number[]
}

export interface Checked {
}

export interface About {
  about: string
  what: string
}

export interface QuestionChecks {
}

export interface CheckTable {
  kinds: ErcKind[]
  types: string[]
  words: Record<string, string>
  pairs: Record<string, string>
}

export interface Differences {
}

export interface Difference {
  key: string
  kind: string
  text: string
  part?: number
  path?: string
  on?: number
  from?: string
  to?: string
}

export interface Drag {
  ids: number[]
  step: Point
  pivot: Point
  angle?: number
  tracks?: string
}

export interface Dragged {
  links: Record<string, Link[]>
  notes: NoteLine[]
  clashes: number[]
  length: number
  moved?: MovedTrack[]
  movedVias?: MovedVia[]
  going?: number[]
  sought?: boolean
  touches?: Obstacle[]
  near?: Obstacle[]
}

export interface QuestionEscape {
  parts: number[]
  layers: number[]
  beyond?: number
  holes?: boolean
  areas?: boolean
}

export interface EscapeSeen {
  led: number
  already: number
  tracks: Track[]
  vias: Via[]
  stuck: PadStuck[]
}

export interface Families {
}

export interface Family {
  id: string
  words: string
  group: string
  example: Recipe
  dims: BodyDimension[]
  counts: LandpatternCount[]
  choices: Choice[]
}

export interface Find {
  query: FindQuery
}

export interface Hit {
  id: number
  field: string
  text: string
  what: string
  sheet: number
  at: Point
}

export interface QuestionFinish {
  from: Point
  begun: Point
  layer: number
  net: number
  width?: number
  hops?: boolean
  done?: Run[]
  manner?: string
}

export interface Finished {
  runs: Run[]
  length: number
  hops: number
}

export interface FootprintNamed {
  name: string
}

export interface NamedFootprint {
  footprint: Footprint | null
  pattern: Pattern
  model?: string
}

export interface FootprintLook {
  footprint: number
}

export interface FootprintShown {
  found: Flaw[]
  agreements: Agreement[]
  mask: Outline[]
  paste: Outline[]
  used: string[]
  generated: boolean
}

export interface Foresee {
  cmd: unknown
  path?: string
}

export interface Foreseen {
  outcome: Outcome
  say: string
  said?: string
  names?: string[]
  put?: Drawn[]
  remove?: number[]
}

export interface Gaps {
  ids: number[]
}

export interface Gap {
  area: number
  layer: number
  open: number
  width?: number
  fills?: number
}

export interface Heights {
}

export interface Standing {
  part: number
  designator: string
  bottom?: boolean
  above: number
  below: number
  over: number
  mostAbove?: number
  mostBelow?: number
}

export interface HolesOf {
  from: number
  to: number
}

export interface HolesSeen {
  ways: WaySeen[]
  said: boolean
  barrels: BarrelSeen[]
}

export interface HopOf {
  id: number
}

export interface HopMade {
  vias: number[]
  from: number
  to: number
  ways?: string[]
  way?: number
  own?: boolean
  apart?: number
  turned: number
}

export interface QuestionItem {
  item: Clipped | null
}

export interface Drawn {
  id: number
  kind: Kind
  marks: Mark[]
}

export interface Land {
  recipe: Recipe
}

export interface LandMade {
  result?: LandPattern
  pattern?: Pattern
  found: Flaw[]
  views: BodyView[]
  wrong?: string
  dim?: string
}

export interface Lettering {
  text: string
  height: number
  font: string
  face?: number
}

export interface Point {
  x: number
  y: number
}

export interface LimitsTaken {
  house: string
  class: string
}

export interface LimitTaken {
  kind: string
  was: number
  is: number
}

export interface Mapping {
  part: number
  footprint?: string
}

export interface Mapped {
  rows: PinRow[]
  found: Flaw[]
  checked: string
  used: string[]
}

export interface Measure {
  a: Met
  b: Met
}

export interface Gauged {
  straight: number
  edges?: EdgeGap
  along?: Way
  apart?: boolean
}

export interface Newer {
}

export interface NewVersion {
  name: string
  library: string
  have: number
  latest: number
  changes: string[]
}

export interface NextName {
  text: string
}

export interface QuestionNumbers {
  numbering: Numbering
}

export interface Renaming {
  units: PartRef[]
  old: string
  new: string
}

export interface Overlay {
  name: string
}

export interface Overlaid {
  changes: string[]
  old: Mark[]
  new: Mark[]
  oldFoot?: Pattern
  newFoot?: Pattern
}

export interface PadList {
  text: string
  columns?: string[]
  unit?: string
}

export interface PadsRead {
  list: PartsPadList | null
  pattern: Pattern
}

export interface Pairs {
}

export interface PartCard {
  name: string
  project?: boolean
}

export interface Card {
  part: LibraryPart | null
  symbols: CardSymbol[]
  foot?: Footprint
  pattern?: Pattern
  rows: PinRow[]
  found: Flaw[]
  checked: string
  used: string[]
  have?: number
}

export interface PartTable {
  text: string
  columns?: string[]
}

export interface PartsPartTable {
  columns: string[]
  head: string[]
  cells: string[][]
  notes: string[]
  parts: TabledPart[]
}

export interface PatternOf {
  footprint: Footprint
}

export interface Pattern {
  footprint: number
  pads: PadOutlines[]
  silk: Outline[]
  courtyard: Point[]
}

export interface PinList {
  text: string
  columns?: string[]
  layout?: string
}

export interface PinsRead {
  list: PartsPinList | null
  marks: Mark[]
}

export interface PlaceNext {
  by: string
}

export interface Waiting {
  id: number
  designator: string
  connections: number
  pads: number
  area: number
}

export interface PourLook {
  id: number
}

export interface PourSeen {
  layer: number
  size: number
  pieces: number
  gone: number
  joined: number
  least: number
}

export interface Pull {
  id: number
  from: Point
  to: Point
  grip?: number
  corner?: boolean
  aside?: boolean
}

export interface Pulled {
  moved: MovedTrack[]
  movedVias?: MovedVia[]
  blocked?: Obstacle
}

export interface RepeatPads {
  pad: Pad
  how: Repeat
}

export interface Repeated {
  pads: Pad[]
  pattern: Pattern
}

export interface RuleHolds {
  rule: Rule
}

export interface RuleHeld {
  says: string
  holding: Holding
  wrong?: string
}

export interface RulesFile {
  text: string
}

export interface Filed {
  numbers: Record<string, number>
  rules: Rule[]
  classes: Record<string, string[]>
  left: string[]
}

export interface RulesSeen {
}

export interface RulesShown {
  sampler: BodyView
  numbers: Record<string, number>
  kinds: RuleKindWords[]
  rules: RuleSeen[]
  classes: Record<string, number>
  conflicts: string[]
}

export interface QuestionSheet {
  sheet: number
  path?: string
}

export interface Page {
  place: SheetUse
  size: Point
  items: Drawn[]
}

export interface Stack {
}

export interface StackSeen {
  thickness: number
  whole: number
  uneven?: string[]
  notes?: string[]
  layers: LayerSeen[]
  ready: ReadyStack[]
  ownHoles?: number
  ownWays?: number
}

export interface Suggest {
  parts: number[]
  query: string
  like?: Shape
}

export interface Suggested {
  want: Shape
  matches: Match[]
  found: number
}

export interface SymbolLook {
  symbol: number
}

export interface SymbolShown {
  pins: PieceMarks[]
  figures: PieceMarks[]
  body?: Box
  bodyRef: number
  used: string[]
}

export interface QuestionTiming {
  text: string
}

export interface Diagram {
  slot: string
  rows: TimingRow[]
  marks: TimingMark[]
  spans: Span[]
  slots: number
}

export interface Together {
  ids: number[]
  sheet?: boolean
}

export interface Touches {
  layer: number
}

export interface Touch {
  area: number
  id: number
  at: Point
  net?: number
  how: string
}

export interface QuestionTrack {
  from: Point
  to: Point
  style?: string
  round?: number
  manner?: string
  other?: boolean
  neck?: boolean
  done?: Run[]
  layer: number
  net?: number
  width?: number
  hop?: boolean
  hopTo?: number
  hopBy?: number
  turned?: number
}

export interface TrackWay {
  width: number
  clearance: number
  viaSize: number
  viaHole: number
  runs: Run[]
  whole?: Run[]
  blocked?: Obstacle
  rest?: Point[]
  length: number
  open?: number
  via?: string
  hop?: HopSeen
  ways?: HopTried[]
  moved?: MovedTrack[]
  movedVias?: MovedVia[]
}

export interface TrackWidths {
  net: number
  layer: number
}

export interface TracksOf {
  ids: number[]
}

export interface Wanted {
  part: number
}

export interface WantedOf {
  query: Query
  number: string
}

export interface Weigh {
  cmd: unknown
  tracks?: string
}

export interface Weighed {
  links: Record<string, Link[]>
  notes: NoteLine[]
  clashes: number[]
  length: number
  moved?: MovedTrack[]
  movedVias?: MovedVia[]
  going?: number[]
  sought?: boolean
  touches?: Obstacle[]
  near?: Obstacle[]
  parts: Placed[]
}

export interface Why {
  ids: number[]
}

export interface Asked {
  kind: string
  of?: string
  value: string
  measured?: string
  rule: number
  says: string
  beaten?: string[]
}

export interface Widths {
  all?: boolean
}

export interface WidthAdvice {
  rise: number
  rows: WidthRow[]
}

export interface QuestionWire {
  sheet: number
  path?: string
  points: Point[]
  to: Point
  lead?: string
  bundle?: boolean
}

export interface WireWay {
  way: Point[]
  foreseen?: Foreseen
}

export interface Origin {
  library?: string
  version?: number
}

export interface Pin {
  id?: number
  number: string
  name?: string
  type: string
  shape?: string
  at: Point
  turn: number
  length: number
}

export interface Figure {
  id?: number
  form: string
  pts: Point[]
  r?: number
  text?: string
  width?: number
}

export interface Pad {
  id?: number
  number: string
  form: string
  at: Point
  size: Point
  corner?: number
  cut?: number
  edge?: Corner[]
  angle?: number
  on?: Record<string, PadShape>
  far?: boolean
  hole?: number
  holeAt?: Point
  slot?: Point
  bare?: boolean
  mask?: Opening
  paste?: Opening
  join?: string
}

export interface Solid {
  form: string
  material: string
  edge?: Corner[]
  from: number
  to: number
  a?: Point
  b?: Point
}

export interface Recipe {
  family: string
  counts?: Record<string, number>
  dims: Record<string, Range>
  choices?: Record<string, string>
  missing?: string[]
  density: string
  overrides?: Record<string, number>
  making: DesignMaking
  name?: string
}

export interface Dimension {
  id: number
  a: Feature
  b: Feature
  way?: string
  says?: Range
  note?: string
}

export interface Beneath {
  asset: number
  at: Point
  width: number
  angle?: number
  opacity: number
  hidden?: boolean
}

export interface DesignChecked {
  by: string
  on: string
  print: string
  note?: string
}

export interface Reach {
  min: Point
  max: Point
  from: number
  to: number
}

export interface BlockPin {
  name: string
  way: string
  side: number
  pos: number
}

export interface Corner {
  x: number
  y: number
  mid?: Point
}

export interface StackLayer {
  id: number
  name: string
  kind: string
  thickness: number
  material: string
  permittivity?: number
  loss?: number
  roughness?: number
}

export interface Holes {
  drilled?: HoleLimits
  lasered?: HoleLimits
  stacked?: number
  barrels?: Barrel[]
  ways?: DesignWay[]
  next?: number
}

export interface Teardrops {
  length: number
  breadth: number
  most: number
  on: string[]
}

export interface Scope {
  class?: string
  net?: string
  thing?: string
  layer?: number
  area?: number
  part?: number
}

export interface Amount {
  fixed?: number
  share?: number
  least?: number
  most?: number
}

export interface PlaceNote {
  kind: string
  distance?: number
  of?: number
  pad?: string
  text?: string
}

export interface ViaPad {
  layer: number
  diameter: number
}

export interface Spokes {
  number?: number
  width?: number
  gap?: number
  angle?: number
}

export interface Anchor {
  of?: number
  pad?: string
  spot?: string
  line?: number
  corner?: number
  at: Point
}

export interface HouseClass {
  name: string
  text?: string
  price: number
  limits: Record<string, number>
}

export interface Outcome {
  joined: Join[]
  parted: CircuitPart[]
  onto: string[]
}

export interface Shared {
  parts: PartRef[]
  net: string
}

export interface Template {
  key: string
  name: string
  text: string
}

export interface Begin {
  id: number
  name: string
  parts: number
}

export interface DrawnMark {
  kind: string
  dark: boolean
  at: Point
  net?: string
  part?: string
  pin?: string
  function?: string
  shapes: DrawnShape[]
}

export interface RereadHole {
  at: Point
  slot?: Point
  diameter: number
  function?: string
}

export interface Box {
  min: Point
  max: Point
}

export interface Row {
  name: string
  library: string
  version: number
  prefix: string
  value?: string
  description: string
  pins: number
  footprint: string
  checked?: boolean
}

export interface PackPart {
  row: Row
  state: string
  version: number
  changes: string[]
  findings: Flaw[]
}

export interface Edges {
  outline: Corner[]
  cutOuts: Corner[][]
  mended: Mended[]
  open: Point[]
  loose: Piece[]
  notes: string[]
  doubt?: string
}

export interface Line {
  number: string
  designators: string[]
  part: OrderingPart | null
  need: number
  spare: number
  held: number
  wanted: number
  cost: Cost | null
  warnings: string[]
  cheaper?: Cost
  hint?: string
}

export interface Painted {
  bottom?: boolean
  box: Box
  coats: PaintedCoat[]
}

export interface HouseSeen {
  key: string
  own?: number
  name: string
  text: string
  of?: string
  differs?: string[]
  cheapest: number
  classes: ClassSeen[]
}

export interface OrderingRow {
  number: string
  maker: string
  makerNumber: string
  family: string
  text: string
  package: string
  status: string
  properties: Property[]
  body: Body
  stock: number
  placed: boolean
  weeks: number
  offers: Offer[]
  datasheet?: string
  cost: Cost | null
}

export interface Count {
  text: string
  value?: number
  count: number
}

export interface Facet {
  name: string
  unit?: string
  isNumber?: boolean
  least?: number
  most?: number
  values: Count[]
}

export interface OrderingPart {
  number: string
  maker: string
  makerNumber: string
  family: string
  text: string
  package: string
  status: string
  properties: Property[]
  body: Body
  stock: number
  placed: boolean
  weeks: number
  offers: Offer[]
  datasheet?: string
}

export interface DesignMaking {
  fabrication: number
  placement: number
  round: number
  gap: number
  form: string
  silkWidth: number
  silkGap: number
  yardRound: number
  leave?: string[]
}

export interface Change {
  id: number
  path?: string
  field: string
  text: string
  designator: string
  old: string
}

export interface Listed {
  number: string
  name: string
  type: string
  side?: string
  wrong?: string
}

export interface BeginPlane {
  at: number
  net: string
}

export interface Clipped {
  kind: Kind
  object: unknown
}

export interface Run {
  layer: number
  width?: number
  path: Corner[]
  hop?: Hop
}

export interface Cell {
  id: number
  path?: string
  field: string
  text: string
}

export interface History {
  undo: string
  redo: string
  steps: number
  kept: string
}

export interface Person {
  who: string
  name: string
  you?: boolean
  tabs: number
}

export interface JobState {
  id: string
  kind: string
  rev: number
  share: number
  ended?: boolean
  why?: string
}

export interface ObjectChange {
  kind: Kind
  id: number
  after?: AnyObject
}

export interface Lettered {
  id: number
  rings: Point[][]
}

export interface Delta {
  rev: number
  sheets: SheetView[]
  places: SheetUse[]
  nets: CircuitNet[]
  lostNets: string[]
  redrawn: Redrawn[]
  links: Record<string, LinkChange>
  findings: Finding[]
  mended: string[]
  stages: Stages
  dimensions?: DimensionDrawn[]
  lostDimensions?: number[]
  filled?: Filled[]
  behind?: Record<string, number>
}

export interface Took {
  act: string
  what: string
  where?: string
  stage?: string
  id?: number
}

export interface HandoffState {
  made: string
  revision: number
  fingerprint: string
  findings: number
  unjoined: number
  unchecked?: boolean
  size: number
  files: File[]
}

export interface Boxed {
  kind: Kind
  object: AnyObject | null
}

export interface Copper {
  tracks: Tracks
  vias: Vias
}

export interface ErcKind {
  kind: string
  rule: string
  severity: string
}

export interface Link {
  a: Point
  b: Point
  fromName: string
  toName: string
}

export interface NoteLine {
  part: number
  note: number
  a: Point
  b: Point
  has: number
  asked: number
  holds: boolean
  lost?: boolean
}

export interface MovedTrack {
  ids: number[]
  layer: number
  width: number
  path: Corner[]
}

export interface MovedVia {
  id: number
  to: Point
}

export interface Obstacle {
  name: string
  net: string
  at: Point
  measured: number
  required: number
}

export interface PadStuck {
  name: string
  id: number
  at: Point
  why: string
}

export interface BodyDimension {
  key: string
  words: string
  optional?: boolean
  zero?: boolean
}

export interface LandpatternCount {
  key: string
  words: string
  least: number
  most: number
  step?: number
  usual: number
}

export interface Choice {
  key: string
  words: string
  options: Option[]
}

export interface FindQuery {
  text: string
  case?: boolean
  whole?: boolean
  kinds?: string[]
}

export interface Flaw {
  kind: string
  severity: string
  text: string
  pin?: string
  pads?: number[]
  x?: number
  y?: number
}

export interface Agreement {
  id: number
  a: Point
  b: Point
  has: number
  agrees: boolean
  lost?: string
}

export interface Outline {
  corners: Corner[]
  area?: boolean
  r?: number
}

export interface WaySeen {
  way: DesignWay
  says: string
}

export interface BarrelSeen {
  id: number
  depth: number
  vias: number
}

export interface Mark {
  p?: number[]
  c?: boolean
  r?: number
  s?: string
  f?: string
  w?: number
  d?: boolean
  t?: string
  z?: number
  a?: number
  u?: boolean
  m?: boolean
  b?: boolean
  k?: string
  i?: number
}

export interface LandPattern {
  footprint: Footprint | null
  name: string
  table: Entry[]
  notes: string[]
  joints: Joint[]
  views: BodyView[]
}

export interface BodyView {
  name: string
  section?: boolean
  strokes: Stroke[]
  dims: DimLine[]
}

export interface PinRow {
  pin: string
  name: string
  type: string
  unit?: number
  pad: string
  pads: number
  given?: boolean
  wrong?: string
}

export interface Met {
  at: Point
  of?: number
  pad?: string
}

export interface EdgeGap {
  gap: number
  a: Point
  b: Point
}

export interface Way {
  length: number
  line: Corner[]
  vias: number
}

export interface Numbering {
  sheets?: number[]
  prefixes?: string[]
  way: string
  from?: number
}

export interface PartRef {
  part: number
  path?: string
}

export interface PartsPadList {
  columns: string[]
  head: string[]
  cells: string[][]
  notes: string[]
  pads: Pad[]
  wrong: string[]
}

export interface CardSymbol {
  id?: number
  name: string
  marks: Mark[]
}

export interface TabledPart {
  part: LibraryPart
  like: string
  state: string
  changes: string[]
  wrong?: string
}

export interface PadOutlines {
  on?: Record<string, Outline>
  barrel?: Outline
  bore?: Outline
}

export interface PartsPinList {
  columns: string[]
  head: string[]
  cells: string[][]
  notes: string[]
  pins: Listed[]
}

export interface Repeat {
  kind: string
  count: number
  rows?: number
  step?: Point
  centre?: Point
  sweep?: number
  turned?: boolean
  first: string
  by: number
  order: string
}

export interface Holding {
  things: number
  others: number
  nets: string[]
  ofNets: number
  ids: number[]
}

export interface RuleKindWords {
  kind: string
  words: string
  pairs: boolean
}

export interface RuleSeen {
  rule: Rule
  says: string
  holding: Holding
  trouble?: string
}

export interface SheetUse {
  path: string
  sheet: number
  label: string
  depth: number
}

export interface LayerSeen {
  id: number
  holds?: string
  planes?: number[]
}

export interface ReadyStack {
  house: string
  by: string
  name: string
  text: string
  copper: number
}

export interface Shape {
  pins: number
  pitch: number
  length: number
  width: number
  through: boolean
}

export interface Match {
  name: string
  library?: string
  shape: Shape
  words: string[]
  density?: string
}

export interface PieceMarks {
  ref: number
  marks: Mark[]
}

export interface TimingRow {
  name: string
  pieces: TimingPiece[]
}

export interface TimingMark {
  at: number
  text: string
}

export interface Span {
  from: number
  to: number
  text: string
}

export interface HopSeen {
  holes: HopHole[]
  own?: boolean
  vias: Via[]
  tracks?: Track[]
}

export interface HopTried {
  says: string
  fits?: boolean
  why?: string
}

export interface WidthRow {
  net: number
  name: string
  class?: string
  current: number
  length: number
  open: number
  least: number
  asked: number
  outer: number
  inner: number
  thin: boolean
  milliohm: number
  drop: number
}

export interface PadShape {
  form: string
  size: Point
  corner?: number
  cut?: number
  edge?: Corner[]
}

export interface Opening {
  margin?: number
  windows?: Corner[][]
  none?: boolean
}

export interface Range {
  min: number
  max: number
}

export interface Feature {
  of: string
  pad?: number
  spot?: string
}

export interface HoleLimits {
  leastHole?: number
  leastRing?: number
  aspect?: number
}

export interface Barrel {
  id: number
  name: string
  kind?: string
  from: number
  to: number
  hole?: number
  diameter?: number
  cover?: string
}

export interface DesignWay {
  from: number
  to: number
  steps: Step[]
}

export interface Join {
  nets: string[]
  meant: boolean
}

export interface CircuitPart {
  net: string
  meant: boolean
}

export interface DrawnShape {
  pts: Point[]
  area: boolean
  r: number
}

export interface Mended {
  at: Point
  size: number
}

export interface Piece {
  a: Point
  m: Point
  b: Point
}

export interface Cost {
  packaging: string
  pieces: number
  each: number
  total: number
}

export interface PaintedCoat {
  name: string
  colour: string
  opacity: number
  cells: PaintedCell[]
  areas?: string
  within?: PaintedCell[]
  all?: boolean
  without?: PaintedCell[]
}

export interface ClassSeen {
  name: string
  text: string
  price: number
  limits: LimitSeen[]
}

export interface Property {
  name: string
  unit?: string
  value?: number
  text: string
  isNumber?: boolean
}

export interface Body {
  length: number
  width: number
  height: number
  pins: number
  pitch: number
  through: boolean
}

export interface Offer {
  packaging: string
  minimum: number
  multiple: number
  breaks: Break[]
}

export interface Hop {
  holes: HopHole[]
  own?: boolean
}

export interface SheetView {
  sheet: number
  junctions: Point[]
  bundleJunctions: Point[]
  loose: Point[]
  bundles: Bundle[]
  unmatched: Unmatched[]
}

export interface CircuitNet {
  name: string
  pins: PinRef[]
  uses: NetUse[]
  named: boolean
  supplies?: string[]
  names?: string[]
}

export interface Redrawn {
  net: string
  uses: NetUse[]
}

export interface LinkChange {
  gone?: number[]
  come?: Link[]
  at?: number[]
}

export interface Finding {
  key: string
  kind: string
  severity: string
  text: string
  rule: string
  measured?: number
  required?: number
  stage: string
  at: Point
  sheet?: number
  path?: string
  place?: string
  layer?: number
  objects?: number[]
  ends?: Point[]
  says?: string
  print: string
  excused?: string
  lapsed?: string
}

export interface Stages {
  circuit: string
  library: string
  board: string
  differences: number
  fingerprint: string
  parts: number
  nets: number
}

export interface DimensionDrawn {
  id: number
  from: Point
  to: Point
  a: Point
  b: Point
  length: number
  text?: string
}

export interface Filled {
  pour: number
  layer: number
  x: number
  y: number
  lines: number[][]
  nets?: number[]
}

export interface File {
  name: string
  kind: string
  role: string
  text: string
  size: number
}

export interface Tracks {
  id: string
  layer: string
  net: string
  width: string
  ax: string
  ay: string
  bx: string
  by: string
  bent?: string
  mx?: string
  my?: string
  locked?: string
}

export interface Vias {
  id: string
  net: string
  x: string
  y: string
  diameter: string
  hole: string
  from: string
  to: string
  locked?: string
}

export interface Option {
  value: string
  words: string
}

export interface Entry {
  key: string
  words: string
  computed: number
  override?: number
  used: number
  plain?: boolean
}

export interface Joint {
  words: string
  outer: Range
  inner: Range
  side: Range
  goal: number[]
}

export interface Stroke {
  form: string
  pts: Point[]
  r?: number
  style: string
}

export interface DimLine {
  key?: string
  words: string
  a: Point
  b: Point
  off: Point
  text?: string
}

export interface TimingPiece {
  state: string
  slots: number
  text: string
}

export interface HopHole {
  barrel: number
  at: Point
}

export interface Step {
  barrel: number
  stepped?: boolean
  apart?: number
}

export interface PaintedCell {
  box: Box
  fill?: string
  lines?: PaintedLine[]
}

export interface LimitSeen {
  limit: string
  words: string
  most?: boolean
  length?: boolean
  bound: number
  keeps: boolean
  found?: HouseFound
  was?: number
}

export interface Break {
  from: number
  price: number
}

export interface Bundle {
  name: string
  members: string[]
  items: number[]
}

export interface Unmatched {
  object: number
  block: number
  pin: string
  at: Point
  why: string
}

export interface PinRef {
  part: number
  pin: string
  path?: string
}

export interface NetUse {
  path?: string
  sheet: number
  items: number[]
}

export interface PaintedLine {
  width: number
  path: string
}

export interface HouseFound {
  value: number
  at: Point
  layer?: number
  objects?: number[]
}

/** Every object by its kind. */
export interface Kinds {
  settings: Settings
  checks: Checks
  basket: Basket
  sheet: Sheet
  symbol: Symbol
  footprint: Footprint
  libraryPart: LibraryPart
  asset: Asset
  part: Part
  wire: Wire
  label: Label
  port: Port
  tap: Tap
  supply: Supply
  openMark: OpenMark
  block: SheetBlock
  cluster: Cluster
  note: Note
  picture: Picture
  timing: Timing
  shape: Graphic
  net: Net
  excuse: Excuse
  board: Board
  ruleArea: RuleArea
  rule: Rule
  placed: Placed
  track: Track
  via: Via
  hole: Hole
  legend: Legend
  figure: BoardFigure
  pour: Pour
  stitching: Stitching
  dimension: BoardDimension
  layerSet: LayerSet
  tint: Tint
  house: House
}
export type Kind = keyof Kinds
export type AnyObject = Kinds[Kind]

export const kindNames: Kind[] = ['settings', 'checks', 'basket', 'sheet', 'symbol', 'footprint', 'libraryPart', 'asset', 'part', 'wire', 'label', 'port', 'tap', 'supply', 'openMark', 'block', 'cluster', 'note', 'picture', 'timing', 'shape', 'net', 'excuse', 'board', 'ruleArea', 'rule', 'placed', 'track', 'via', 'hole', 'legend', 'figure', 'pour', 'stitching', 'dimension', 'layerSet', 'tint', 'house']

/** Every edit command by its name. */
export interface Commands {
  addDimension: AddDimension
  addFigure: AddFigure
  addFont: AddFont
  addHole: AddHole
  addLayer: AddLayer
  addLegend: AddLegend
  addPicture: AddPicture
  addPin: AddPin
  addPins: AddPins
  addSheet: AddSheet
  addUnit: AddUnit
  addVia: AddVia
  arrange: Arrange
  beginBoard: BeginBoard
  carry: Carry
  cutPour: CutPour
  drawEdge: DrawEdge
  drawItem: DrawItem
  drawTrack: DrawTrack
  drawWire: DrawWire
  dropCut: DropCut
  dropHouse: DropHouse
  dropItems: DropItems
  dropLayer: DropLayer
  dropLayerSet: DropLayerSet
  escape: Escape
  excuse: EditExcuse
  excuseAlike: ExcuseAlike
  flipPlaced: FlipPlaced
  footprintPieces: FootprintPieces
  gather: Gather
  giveModel: GiveModel
  keepLayerSet: KeepLayerSet
  layBeneath: LayBeneath
  lineUp: LineUp
  lock: Lock
  markOpen: MarkOpen
  matchPort: MatchPort
  moveItems: MoveItems
  moveLayer: MoveLayer
  movePin: MovePin
  movePlaced: MovePlaced
  moveText: MoveText
  moveToUnit: MoveToUnit
  orderLabels: OrderLabels
  orderPins: OrderPins
  orderRules: OrderRules
  orderSheets: OrderSheets
  pairNets: PairNets
  paste: Paste
  placeBlock: PlaceBlock
  placeLabel: PlaceLabel
  placeOpenMark: PlaceOpenMark
  placePart: PlacePart
  placePort: PlacePort
  placeSupply: PlaceSupply
  placeTaps: PlaceTaps
  pullTrack: PullTrack
  pullVia: PullVia
  putArea: PutArea
  putFiducials: PutFiducials
  putFootprint: PutFootprint
  putHouse: PutHouse
  putLibraryPart: PutLibraryPart
  putPour: PutPour
  putRule: PutRule
  putStack: PutStack
  putStitching: PutStitching
  putSymbol: PutSymbol
  released: Released
  remove: Remove
  removeAllTracks: RemoveAllTracks
  removeNetTracks: RemoveNetTracks
  removePin: RemovePin
  removeSheet: RemoveSheet
  removeTrack: RemoveTrack
  removeUnit: RemoveUnit
  renameNet: RenameNet
  renamePin: RenamePin
  renumber: Renumber
  replacePart: ReplacePart
  replaceText: ReplaceText
  resizeBody: ResizeBody
  roundTracks: RoundTracks
  setBasket: SetBasket
  setBlock: SetBlock
  setChecked: SetChecked
  setChecks: SetChecks
  setDimension: SetDimension
  setFigure: SetFigure
  setFootprint: SetFootprint
  setHole: SetHole
  setHoles: SetHoles
  setHop: SetHop
  setJoins: SetJoins
  setLabel: SetLabel
  setLayer: SetLayer
  setLayers: SetLayers
  setLegend: SetLegend
  setLetters: SetLetters
  setName: SetName
  setNets: SetNets
  setNotes: SetNotes
  setOrigin: SetOrigin
  setOutline: SetOutline
  setPart: SetPart
  setParts: SetParts
  setPaste: SetPaste
  setPlaced: SetPlaced
  setPlane: SetPlane
  setPort: SetPort
  setRise: SetRise
  setRules: SetRules
  setSettings: SetSettings
  setSheet: SetSheet
  setSides: SetSides
  setSupply: SetSupply
  setSymbol: SetSymbol
  setTeardrops: SetTeardrops
  setThickness: SetThickness
  setTint: SetTint
  setTrack: SetTrack
  shapeEdge: ShapeEdge
  sizeEdge: SizeEdge
  swapPlaced: SwapPlaced
  symbolPieces: SymbolPieces
  takeLimits: TakeLimits
  takePartTable: TakePartTable
  takeParts: TakeParts
  takeRules: TakeRules
  takeStack: TakeStack
  takeWidths: TakeWidths
  tidyTracks: TidyTracks
  turnItems: TurnItems
  turnPlaced: TurnPlaced
  updateParts: UpdateParts
  varyFootprint: VaryFootprint
  windowPaste: WindowPaste
}

/** Every message from the program by its name. */
export interface Messages {
  again: Again
  answer: Answered
  asks: Asks
  broken: Broken
  changes: Changed
  derived: Derived
  done: Done
  gone: Gone
  handoff: HandedOff
  history: Told
  job: Job
  more: More
  name: Renamed
  open: Opened
  people: Present
  ready: Ready
  refused: Refused
  shared: Picked
}
export type Message = { [T in keyof Messages]: { t: T } & Messages[T] }[keyof Messages]

/** Every question by its name, and its answer. */
export interface Questions {
  alike: { asks: Alike; answers: Likeness[] }
  checked: { asks: Checked; answers: About[] }
  checks: { asks: QuestionChecks; answers: CheckTable }
  differences: { asks: Differences; answers: Difference[] }
  drag: { asks: Drag; answers: Dragged }
  escape: { asks: QuestionEscape; answers: EscapeSeen }
  families: { asks: Families; answers: Family[] }
  find: { asks: Find; answers: Hit[] }
  finish: { asks: QuestionFinish; answers: Finished }
  footNamed: { asks: FootprintNamed; answers: NamedFootprint }
  footprint: { asks: FootprintLook; answers: FootprintShown }
  foresee: { asks: Foresee; answers: Foreseen }
  gaps: { asks: Gaps; answers: Gap[] }
  heights: { asks: Heights; answers: Standing[] }
  holes: { asks: HolesOf; answers: HolesSeen }
  hopOf: { asks: HopOf; answers: HopMade }
  item: { asks: QuestionItem; answers: Drawn }
  land: { asks: Land; answers: LandMade }
  lettering: { asks: Lettering; answers: Point[][] }
  limitsTaken: { asks: LimitsTaken; answers: LimitTaken[] }
  mapping: { asks: Mapping; answers: Mapped }
  measure: { asks: Measure; answers: Gauged }
  newer: { asks: Newer; answers: NewVersion[] }
  nextName: { asks: NextName; answers: string }
  numbers: { asks: QuestionNumbers; answers: Renaming[] }
  overlay: { asks: Overlay; answers: Overlaid }
  padList: { asks: PadList; answers: PadsRead }
  pairs: { asks: Pairs; answers: string[][] }
  partCard: { asks: PartCard; answers: Card }
  partTable: { asks: PartTable; answers: PartsPartTable }
  pattern: { asks: PatternOf; answers: Pattern }
  pinList: { asks: PinList; answers: PinsRead }
  placeNext: { asks: PlaceNext; answers: Waiting[] }
  pourLook: { asks: PourLook; answers: PourSeen[] }
  pull: { asks: Pull; answers: Pulled }
  repeat: { asks: RepeatPads; answers: Repeated }
  ruleHolds: { asks: RuleHolds; answers: RuleHeld }
  rulesFile: { asks: RulesFile; answers: Filed }
  rulesSeen: { asks: RulesSeen; answers: RulesShown }
  sheet: { asks: QuestionSheet; answers: Page }
  stack: { asks: Stack; answers: StackSeen }
  suggest: { asks: Suggest; answers: Suggested }
  symbol: { asks: SymbolLook; answers: SymbolShown }
  timing: { asks: QuestionTiming; answers: Diagram }
  together: { asks: Together; answers: number[] }
  touches: { asks: Touches; answers: Touch[] }
  track: { asks: QuestionTrack; answers: TrackWay }
  trackWidths: { asks: TrackWidths; answers: number[] }
  tracksOf: { asks: TracksOf; answers: number[] }
  wanted: { asks: Wanted; answers: WantedOf }
  weigh: { asks: Weigh; answers: Weighed }
  why: { asks: Why; answers: Asked[] }
  widths: { asks: Widths; answers: WidthAdvice }
  wire: { asks: QuestionWire; answers: WireWay }
}

/** Our lettering: strokes as places of two characters each. */
export const letters: Record<string, string> = {
  "!": "2622 2021",
  "\"": "1614 3634",
  "#": "1016 3036 0242 0444",
  "$": "453616050413334241301001 272a",
  "%": "0046 0506 4041",
  "\u0026": "4004051625240201102042",
  "'": "2624",
  "(": "36242230",
  ")": "16242210",
  "*": "2125 0442 0244",
  "+": "0343 2125",
  ",": "211a",
  "-": "1333",
  ".": "2021",
  "/": "0046",
  "0": "103041453616050110 1135",
  "1": "152620 1030",
  "2": "05163645440040",
  "3": "0516364544334241301001 1333",
  "4": "30360242",
  "5": "460603334241301001",
  "6": "4536160501103041423303",
  "7": "064610",
  "8": "13040516364544331302011030414233",
  "9": "0110304145361605041343",
  ":": "2021 2425",
  ";": "211a 2425",
  "\u003c": "450341",
  "=": "0242 0444",
  "\u003e": "054301",
  "?": "05163645442322 2021",
  "@": "3313243432 3242453616050110",
  "A": "002640 1333",
  "B": "00063645443303 3342413000",
  "C": "4536160501103041",
  "D": "00062644422000",
  "E": "46060040 0333",
  "F": "460600 0333",
  "G": "45361605011030414323",
  "H": "0006 4046 0343",
  "I": "1030 1636 2026",
  "J": "4641301001",
  "K": "0006 4602 1340",
  "L": "060040",
  "M": "0006234640",
  "N": "00064046",
  "O": "103041453616050110",
  "P": "00063645443303",
  "Q": "103041453616050110 2240",
  "R": "00063645443303 2340",
  "S": "453616050413334241301001",
  "T": "2026 0646",
  "U": "060110304146",
  "V": "062046",
  "W": "0610233046",
  "X": "0046 0640",
  "Y": "062346 2320",
  "Z": "06460040",
  "[": "36161030",
  "\\": "0640",
  "]": "16363010",
  "^": "042644",
  "_": "0040",
  "`": "1625",
  "a": "4440 4334140301103041",
  "b": "0600 0314344341301001",
  "c": "4334140301103041",
  "d": "4640 4334140301103041",
  "e": "02424334140301103041",
  "f": "10152636 0434",
  "g": "444a3b1b0a 4334140301103041",
  "h": "0600 0314344340",
  "i": "2420 2526",
  "j": "343a2b1b 3536",
  "k": "0600 3401 1230",
  "l": "262130",
  "m": "0004 03142320 23344340",
  "n": "0004 0314344340",
  "o": "103041433414030110",
  "p": "040b 0314344341301001",
  "q": "444b 4334140301103041",
  "r": "0004 031434",
  "s": "43341403123241301001",
  "t": "16112030 0434",
  "u": "0401103041 4440",
  "v": "042044",
  "w": "0410233044",
  "x": "0044 0440",
  "y": "0420 441b",
  "z": "04440040",
  "{": "36252413222130",
  "|": "2026",
  "}": "16252433222110",
  "~": "03143243",
  "¡": "2024 2526",
  "¢": "4334140301103041 252a",
  "£": "4536261510 0040 0333",
  "¤": "1113333111 0011 4031 0413 4433",
  "¥": "062346 2320 1333 1232",
  "¦": "2624 2220",
  "§": "4536160514344332 32120314 3241301001",
  "¨": "1516 3536",
  "©": "103041453616050110 3424132232",
  "ª": "3633 36161333 1232",
  "«": "240220 442240",
  "¬": "034341",
  "­": "1333",
  "®": "103041453616050110 1214343313 2332",
  "¯": "1636",
  "°": "1416363414",
  "±": "0444 2226 0040",
  "²": "1526351333",
  "³": "163625342313",
  "´": "2536",
  "µ": "040b 01103041 4440",
  "¶": "40461605041323 2620",
  "·": "2324",
  "¸": "202a1b",
  "¹": "152623",
  "º": "1416363414 1232",
  "»": "042200 244220",
  "¼": "0406 0046 322141 3230",
  "½": "0406 0046 224241212040",
  "¾": "06161404 0515 0046 322141 3230",
  "¿": "41301001022324 2625",
  "À": "002640 1333 1827",
  "Á": "002640 1333 2738",
  "Â": "002640 1333 172837",
  "Ã": "002640 1333 07182738",
  "Ä": "002640 1333 1718 3738",
  "Å": "002640 1333 1718383717",
  "Æ": "002646 262040 1343",
  "Ç": "4536160501103041 202a1b",
  "È": "46060040 0333 1827",
  "É": "46060040 0333 2738",
  "Ê": "46060040 0333 172837",
  "Ë": "46060040 0333 1718 3738",
  "Ì": "1030 1636 2026 1827",
  "Í": "1030 1636 2026 2738",
  "Î": "1030 1636 2026 172837",
  "Ï": "1030 1636 2026 1718 3738",
  "Ð": "00062644422000 0323",
  "Ñ": "00064046 07182738",
  "Ò": "103041453616050110 1827",
  "Ó": "103041453616050110 2738",
  "Ô": "103041453616050110 172837",
  "Õ": "103041453616050110 07182738",
  "Ö": "103041453616050110 1718 3738",
  "×": "0145 0541",
  "Ø": "103041453616050110 0046",
  "Ù": "060110304146 1827",
  "Ú": "060110304146 2738",
  "Û": "060110304146 172837",
  "Ü": "060110304146 1718 3738",
  "Ý": "062346 2320 2738",
  "Þ": "0006 053544433202",
  "ß": "000516263534233342413020",
  "à": "4440 4334140301103041 1625",
  "á": "4440 4334140301103041 2536",
  "â": "4440 4334140301103041 152635",
  "ã": "4440 4334140301103041 05162536",
  "ä": "4440 4334140301103041 1516 3536",
  "å": "4440 4334140301103041 1516363515",
  "æ": "0414232110011222 2242433423 213040",
  "ç": "4334140301103041 202a1b",
  "è": "02424334140301103041 1625",
  "é": "02424334140301103041 2536",
  "ê": "02424334140301103041 152635",
  "ë": "02424334140301103041 1516 3536",
  "ì": "2420 1625",
  "í": "2420 2536",
  "î": "2420 152635",
  "ï": "2420 1516 3536",
  "ð": "103041433414030110 432516 1536",
  "ñ": "0004 0314344340 05162536",
  "ò": "103041433414030110 1625",
  "ó": "103041433414030110 2536",
  "ô": "103041433414030110 152635",
  "õ": "103041433414030110 05162536",
  "ö": "103041433414030110 1516 3536",
  "÷": "0343 2425 2122",
  "ø": "103041433414030110 0044",
  "ù": "0401103041 4440 1625",
  "ú": "0401103041 4440 2536",
  "û": "0401103041 4440 152635",
  "ü": "0401103041 4440 1516 3536",
  "ý": "0420 441b 2536",
  "þ": "060b 0314344341301001",
  "ÿ": "0420 441b 1516 3536",
  "ı": "2420",
  "Δ": "00264000",
  "Θ": "103041453616050110 1333",
  "Λ": "002640",
  "Π": "00064640",
  "Σ": "4606230040",
  "Φ": "153544423111020415 2620",
  "Ω": "001011030516364543313040",
  "α": "44322010010314243240",
  "β": "0b051636453414 344341301001",
  "γ": "04202b 4420",
  "δ": "362615334241301001021333",
  "ε": "433414031222 1201103041",
  "η": "0004 031434434b",
  "θ": "103041453616050110 0343",
  "λ": "061640 2400",
  "μ": "040b 01103041 4440",
  "π": "0444 1410 3430",
  "ρ": "0b0314344341301001",
  "σ": "441403011030414334",
  "τ": "0444 242130",
  "φ": "143443413010010314 252b",
  "ω": "140301102123 2130414334",
  "–": "1333",
  "—": "0343",
  "‘": "2624",
  "’": "2624",
  "“": "1614 3634",
  "”": "1614 3634",
  "…": "0001 2021 4041",
  "€": "4536160501103041 0424 0222",
  "Ω": "001011030516364543313040",
  "Å": "002640 1333 1718383717",
  "−": "1333",
}
