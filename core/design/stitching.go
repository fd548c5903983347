package design

import (
	"fmt"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Stitching is a group of vias of a net that tie its copper areas together: they stand where they fit, and are made anew together.
// The vias bear its id as their group.
type Stitching struct {
	ID      ID            `json:"id"`
	Name    string        `json:"name"`
	Net     ID            `json:"net"`
	Pattern string        `json:"pattern,omitempty"` // InGrid, AtEdge or AlongTracks
	Pitch   int64         `json:"pitch"`             // from via to via, nanometres
	Apart   int64         `json:"apart,omitempty"`   // of middles from the board's edge, or from the middle of the tracks they go along
	Outline []geom.Corner `json:"outline,omitempty"` // where a grid lies; none: on the whole board
	Along   ID            `json:"along,omitempty"`   // the net beside whose tracks they stand
	Barrel  BarrelID      `json:"barrel,omitempty"`  // of which they are made; 0: as the rules say, through all layers
	Out     []geom.Point  `json:"out,omitempty"`     // places from which a person took one away
	Locked  bool          `json:"locked,omitempty"`
}

// How the vias of a stitching stand.
const (
	InGrid      = ""
	AtEdge      = "edge"
	AlongTracks = "along"
)

// LeastStitch is the least pitch of a stitching, in nanometres.
const LeastStitch = 200_000

// Valid checks the stitching.
func (s *Stitching) Valid() error {
	what := "the stitching " + s.Name
	if err := firstOf(name("stitching's name", s.Name), check(s.Net > 0, "%s is of no net; say which net it ties together", what),
		oneOf("a pattern of stitching", s.Pattern, []string{InGrid, AtEdge, AlongTracks}),
		length("the pitch of "+what, s.Pitch, LeastStitch), length("the distance of "+what, s.Apart, 0),
		check(s.Pattern != AlongTracks || s.Along > 0 && s.Apart > 0, "%s goes along the tracks of a net, at a distance; say which, and how far", what),
		check(s.Pattern != AtEdge || s.Apart > 0, "%s goes along the edge; say at which distance", what),
		check(s.Pattern == InGrid || len(s.Outline) == 0, "%s has an outline but is no grid", what),
		most("the places that "+what+" leaves free", len(s.Out), 10*MostCorners)); err != nil {
		return err
	}
	if len(s.Outline) > 0 {
		return closed("the edge of "+what, s.Outline)
	}
	return nil
}

func (s *Stitching) refers(d *Doc) error {
	switch {
	case d.Nets[s.Net] == nil:
		return fmt.Errorf("the stitching %s is of a net that is not there", s.Name)
	case s.Along != 0 && d.Nets[s.Along] == nil:
		return fmt.Errorf("the stitching %s goes along a net that is not there", s.Name)
	}
	return nil
}

// LeavesFree tells whether a person took a via away at a place.
func (s *Stitching) LeavesFree(at geom.Point) bool {
	return slices.ContainsFunc(s.Out, func(p geom.Point) bool { return p.Dist(at) < float64(10*units.Micrometre) })
}
