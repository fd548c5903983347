package synthetic

import (
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// Shaped is a small board of four layers with a bit of every shape, made by commands: round corners
// and a cut-out, bent tracks, slots, pads with a corner cut off and of free form, through vias, a blind
// one, one that is free of mask, an area that keeps vias out and a rule of its own. It is complete and
// breaks no rule.
func Shaped() (*design.Doc, error) {
	d := design.New("Reed Amplifier")
	s := &shaped{bench: workbench.Open(d, 0), sheet: d.SheetsInOrder()[0].ID}
	s.circuit()
	s.board()
	s.tracks()
	return d, s.err
}

type shaped struct {
	bench *workbench.Bench
	sheet design.ID
	err   error
}

func (s *shaped) do(c edit.Command) {
	if s.err != nil {
		return
	}
	if _, err := s.bench.Edit(c); err != nil {
		s.err = fmt.Errorf("%T: %w", c, err)
	}
}

func mm(x, y float64) geom.Point { return geom.Pt(units.MMf(x), units.MMf(y)) }

// circuit places the parts and names what their pins are on.
func (s *shaped) circuit() {
	nets := map[string]map[string]string{
		"J1": {"1": "VIN", "2": "GND", "3": "GND"}, "S1": {"1": "VIN", "2": "VCC"}, "R1": {"1": "FB", "2": "IN"},
		"U1": {"1": "FB", "2": "FB", "3": "IN", "4": "GND", "8": "VCC", "5": "", "6": "", "7": ""},
	}
	for i, p := range []struct{ name, library string }{{"J1", "Supply socket"}, {"S1", "Solder bridge"}, {"U1", "Dual amplifier DFN"}, {"R1", "Resistor 0805"}} {
		s.do(&edit.PlacePart{Sheet: s.sheet, Library: p.library, Designator: p.name, At: mm(40+60*float64(i), 100)})
		if s.err != nil {
			return
		}
		part := s.bench.Doc.Bearers(p.name)[0]
		symbol := s.bench.Doc.SymbolOf(part)
		for k := range symbol.Pins {
			pin := &symbol.Pins[k]
			at := circuit.PinPlace(part, pin)
			switch net := nets[p.name][pin.Number]; {
			case net == "":
				s.do(&edit.PlaceOpenMark{Sheet: s.sheet, At: at})
			case p.name == "J1" && pin.Number != "3":
				s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: net, Shape: map[string]string{"GND": "ground", "VIN": "bar"}[net], Feeds: true, At: at})
			case net == "GND" || net == "VCC":
				s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: net, Shape: map[string]string{"GND": "ground", "VCC": "bar"}[net], Feeds: net == "VCC" && p.name == "S1", At: at})
			default:
				s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: net, At: at})
			}
		}
	}
}

// board draws the edge, sets the layers and places the parts.
func (s *shaped) board() {
	bow := func(x, y, mx, my float64) geom.Corner { return mm(x, y).Through(mm(mx, my)) }
	at := func(x, y float64) geom.Corner { return geom.Corner{Point: mm(x, y)} }
	const k = 1.464466 // of a corner's radius of 5 mm, where the arc passes nearest to the corner
	s.do(&edit.SetLayers{Copper: 4})
	s.do(&edit.SetOutline{
		Outline: []geom.Corner{at(5, 0), bow(55, 0, 60-k, k), at(60, 5), bow(60, 35, 60-k, 40-k), at(55, 40), bow(5, 40, k, 40-k), at(0, 35), bow(0, 5, k, k)},
		CutOuts: &[][]geom.Corner{{at(25, 28), bow(35, 28, 37, 30), at(35, 32), bow(25, 32, 23, 30)}},
	})
	s.do(&edit.SetRules{Rules: map[design.RuleKind]int64{design.TrackWidth: 300 * units.Micrometre}})
	s.do(&edit.Carry{All: true})
	for name, p := range map[string]geom.Point{"J1": mm(10, 12), "S1": mm(24, 12), "U1": mm(36, 12), "R1": mm(36, 20)} {
		for on := range s.bench.Doc.Placed.All() {
			if on.Designator == name {
				s.do(&edit.SetPlaced{ID: on.ID, X: &p.X, Y: &p.Y})
			}
		}
	}
	s.do(&edit.AddHole{At: mm(55, 5), Diameter: 3_200 * units.Micrometre})
	s.do(&edit.AddHole{At: mm(55, 35), Diameter: 3_200 * units.Micrometre})
	s.do(&edit.AddLegend{At: mm(14, 34), Height: 2 * units.MM, Text: "Reed Amplifier"})
	s.do(&edit.PutArea{Area: design.RuleArea{Name: "Quiet", Outline: []geom.Corner{at(43, 10), bow(52, 10, 54, 16), at(52, 22), at(43, 22)}, KeepOut: []design.Thing{design.AVia}}})
	s.do(&edit.PutRule{Rule: design.Rule{Kind: design.Clearance, A: design.Scope{Net: "VIN"}, Value: design.Fixed(400 * units.Micrometre)}})
	for on := range s.bench.Doc.Placed.All() {
		if on.Designator == "S1" { // whose halves lie nearer to each other
			own := design.Scope{Part: on.ID}
			s.do(&edit.PutRule{Rule: design.Rule{Kind: design.Clearance, A: own, B: own, Value: design.Fixed(250 * units.Micrometre)}})
		}
	}
}

// tracks lays the copper. Arcs are quarters of circles of 2 mm.
func (s *shaped) tracks() {
	if s.err != nil {
		return
	}
	b := s.bench.Doc.Board
	top, inner, bottom := b.Top(), b.At(1), b.Bottom()
	const q = 1.414214
	net := func(name string) design.ID { return s.bench.Doc.NetNamed(name).ID }
	p := func(x, y float64) geom.Corner { return geom.Corner{Point: mm(x, y)} }
	bow := func(x, y, mx, my float64) geom.Corner { return mm(x, y).Through(mm(mx, my)) }
	lay := func(name string, runs ...edit.Run) { s.do(&edit.DrawTrack{Net: net(name), Runs: runs}) }
	on := func(l design.LayerID, path ...geom.Corner) edit.Run { return edit.Run{Layer: l, Path: path} }
	lay("VIN", on(top, p(10, 12), bow(10, 7, 12-q, 7-q), p(12, 5), bow(21.4, 5, 21.4+q, 7-q), p(23.4, 7), p(23.4, 12)))
	lay("VCC", on(top, p(24.6, 12), bow(24.6, 16, 26.6-q, 16+q), p(26.6, 18), bow(39, 18, 39+q, 16+q), p(41, 16), p(41, 12.975), p(37.45, 12.975)))
	lay("GND", on(top, p(16, 12), p(16, 16.7), p(13, 16.7)))
	lay("GND", on(top, p(35.5, 11.025), p(34.55, 11.025), p(34.55, 9.5)))
	s.do(&edit.AddVia{At: mm(34.55, 9.5), Net: net("GND"), From: top, To: inner, Diameter: 600 * units.Micrometre, Hole: 300 * units.Micrometre})
	lay("GND", on(inner, bow(34.55, 9.5, 25, 7.5), p(16, 12)))
	lay("FB", on(top, p(34.55, 12.325), p(34.55, 12.975), p(32, 12.975)), on(bottom, p(32, 12.975), p(32, 20)), on(top, p(32, 20), p(35.05, 20)))
	s.do(&edit.AddVia{At: mm(36.95, 22.5), Net: net("IN"), Cover: design.Open, Pads: []design.ViaPad{{Layer: inner}, {Layer: b.At(2)}}})
	lay("IN", on(top, p(34.55, 11.675), p(31, 11.675)), on(bottom, p(31, 11.675), p(30.5, 11.675), p(30.5, 20.5), bow(30.5, 20.5, 32.5-q, 20.5+q), p(32.5, 22.5), p(36.95, 22.5)))
	lay("IN", on(top, p(36.95, 22.5), p(36.95, 20)))
}
