package design

// Net is a net of the board, or one of the circuit that something is said of: tracks, vias and pads
// refer to it, its name stands here alone. Until the circuit is carried over it may be called
// otherwise there. Zero values say nothing.
type Net struct {
	ID        ID     `json:"id"`
	Name      string `json:"name"`
	Class     string `json:"class,omitempty"`
	Current   int64  `json:"current,omitempty"`   // in microamperes
	Voltage   int64  `json:"voltage,omitempty"`   // in microvolts, may be below zero
	Impedance int64  `json:"impedance,omitempty"` // target, in milliohms; of a pair: differential
	Partner   ID     `json:"partner,omitempty"`   // the other net of a differential pair
}

// Silent tells whether nothing is said of the net but its name.
func (n *Net) Silent() bool { return *n == Net{ID: n.ID, Name: n.Name} }

// NetNamed is the net with the name, or nil.
func (d *Doc) NetNamed(name string) *Net { return d.lookups.nets[name] }

// NetName is the name of a net; of none, nothing.
func (d *Doc) NetName(id ID) string {
	if n := d.Nets[id]; n != nil {
		return n.Name
	}
	return ""
}

// Borne tells how many tracks, vias and pads bear the net.
func (d *Doc) Borne(net ID) int { return d.lookups.borne[net] }
