package design

// What every object answers about itself.

func (o *Settings) ObjectID() ID        { return o.ID }
func (o *Settings) ObjectKind() Kind    { return KindSettings }
func (o *Settings) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Checks) ObjectID() ID        { return o.ID }
func (o *Checks) ObjectKind() Kind    { return KindChecks }
func (o *Checks) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Basket) ObjectID() ID        { return o.ID }
func (o *Basket) ObjectKind() Kind    { return KindBasket }
func (o *Basket) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Sheet) ObjectID() ID        { return o.ID }
func (o *Sheet) ObjectKind() Kind    { return KindSheet }
func (o *Sheet) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Symbol) ObjectID() ID        { return o.ID }
func (o *Symbol) ObjectKind() Kind    { return KindSymbol }
func (o *Symbol) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Footprint) ObjectID() ID        { return o.ID }
func (o *Footprint) ObjectKind() Kind    { return KindFootprint }
func (o *Footprint) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *LibraryPart) ObjectID() ID        { return o.ID }
func (o *LibraryPart) ObjectKind() Kind    { return KindLibraryPart }
func (o *LibraryPart) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Asset) ObjectID() ID        { return o.ID }
func (o *Asset) ObjectKind() Kind    { return KindAsset }
func (o *Asset) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Part) ObjectID() ID        { return o.ID }
func (o *Part) ObjectKind() Kind    { return KindPart }
func (o *Part) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Wire) ObjectID() ID        { return o.ID }
func (o *Wire) ObjectKind() Kind    { return KindWire }
func (o *Wire) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Label) ObjectID() ID        { return o.ID }
func (o *Label) ObjectKind() Kind    { return KindLabel }
func (o *Label) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Port) ObjectID() ID        { return o.ID }
func (o *Port) ObjectKind() Kind    { return KindPort }
func (o *Port) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Tap) ObjectID() ID        { return o.ID }
func (o *Tap) ObjectKind() Kind    { return KindTap }
func (o *Tap) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Supply) ObjectID() ID        { return o.ID }
func (o *Supply) ObjectKind() Kind    { return KindSupply }
func (o *Supply) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *OpenMark) ObjectID() ID        { return o.ID }
func (o *OpenMark) ObjectKind() Kind    { return KindOpenMark }
func (o *OpenMark) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *SheetBlock) ObjectID() ID        { return o.ID }
func (o *SheetBlock) ObjectKind() Kind    { return KindBlock }
func (o *SheetBlock) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Cluster) ObjectID() ID        { return o.ID }
func (o *Cluster) ObjectKind() Kind    { return KindCluster }
func (o *Cluster) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Note) ObjectID() ID        { return o.ID }
func (o *Note) ObjectKind() Kind    { return KindNote }
func (o *Note) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Picture) ObjectID() ID        { return o.ID }
func (o *Picture) ObjectKind() Kind    { return KindPicture }
func (o *Picture) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Timing) ObjectID() ID        { return o.ID }
func (o *Timing) ObjectKind() Kind    { return KindTiming }
func (o *Timing) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Graphic) ObjectID() ID        { return o.ID }
func (o *Graphic) ObjectKind() Kind    { return KindShape }
func (o *Graphic) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Net) ObjectID() ID        { return o.ID }
func (o *Net) ObjectKind() Kind    { return KindNet }
func (o *Net) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Excuse) ObjectID() ID        { return o.ID }
func (o *Excuse) ObjectKind() Kind    { return KindExcuse }
func (o *Excuse) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Board) ObjectID() ID        { return o.ID }
func (o *Board) ObjectKind() Kind    { return KindBoard }
func (o *Board) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Placed) ObjectID() ID        { return o.ID }
func (o *Placed) ObjectKind() Kind    { return KindPlaced }
func (o *Placed) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Track) ObjectID() ID        { return o.ID }
func (o *Track) ObjectKind() Kind    { return KindTrack }
func (o *Track) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Via) ObjectID() ID        { return o.ID }
func (o *Via) ObjectKind() Kind    { return KindVia }
func (o *Via) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Hole) ObjectID() ID        { return o.ID }
func (o *Hole) ObjectKind() Kind    { return KindHole }
func (o *Hole) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Legend) ObjectID() ID        { return o.ID }
func (o *Legend) ObjectKind() Kind    { return KindLegend }
func (o *Legend) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *BoardFigure) ObjectID() ID        { return o.ID }
func (o *BoardFigure) ObjectKind() Kind    { return KindFigure }
func (o *BoardFigure) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *BoardDimension) ObjectID() ID        { return o.ID }
func (o *BoardDimension) ObjectKind() Kind    { return KindDimension }
func (o *BoardDimension) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Stitching) ObjectID() ID        { return o.ID }
func (o *Stitching) ObjectKind() Kind    { return KindStitching }
func (o *Stitching) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *LayerSet) ObjectID() ID        { return o.ID }
func (o *LayerSet) ObjectKind() Kind    { return KindLayerSet }
func (o *LayerSet) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Tint) ObjectID() ID        { return o.ID }
func (o *Tint) ObjectKind() Kind    { return KindTint }
func (o *Tint) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *House) ObjectID() ID        { return o.ID }
func (o *House) ObjectKind() Kind    { return KindHouse }
func (o *House) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Pour) ObjectID() ID        { return o.ID }
func (o *Pour) ObjectKind() Kind    { return KindPour }
func (o *Pour) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *RuleArea) ObjectID() ID        { return o.ID }
func (o *RuleArea) ObjectKind() Kind    { return KindRuleArea }
func (o *RuleArea) withID(id ID) Object { c := *o; c.ID = id; return &c }

func (o *Rule) ObjectID() ID        { return o.ID }
func (o *Rule) ObjectKind() Kind    { return KindRule }
func (o *Rule) withID(id ID) Object { c := *o; c.ID = id; return &c }
