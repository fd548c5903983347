package reread

import (
	"fmt"
	"strconv"
	"strings"

	"goldentrace/core/geom"
)

// Probe is one place that the bare-board test touches.
type Probe struct {
	Net  string     `json:"net"`
	Part string     `json:"part"`
	Pin  string     `json:"pin"`
	At   geom.Point `json:"at"`
	Hole int64      `json:"hole,omitempty"`
}

// TestNetlist reads an IPC-D-356A file in metric units.
func TestNetlist(data []byte) ([]Probe, error) {
	var out []Probe
	long := map[string]string{}
	ended := false
	for n, line := range strings.Split(strings.ReplaceAll(string(data), "\r", ""), "\n") {
		switch {
		case strings.HasPrefix(line, "P  NNAME"):
			f := strings.Fields(line[3:])
			if len(f) > 1 {
				long[f[0]] = strings.TrimSpace(line[3+len(f[0]):])
			}
		case strings.HasPrefix(line, "P  UNITS") && !strings.Contains(line, "CUST 1"):
			return nil, fmt.Errorf("line %d: only metric netlists are read", n+1)
		case strings.HasPrefix(line, "999"):
			ended = true
		case strings.HasPrefix(line, "317") || strings.HasPrefix(line, "327") || strings.HasPrefix(line, "307"):
			if len(line) < 57 {
				return nil, fmt.Errorf("line %d is cut short", n+1)
			}
			field := func(from, to int) string { return strings.TrimSpace(line[from-1 : to]) }
			p := Probe{Net: field(4, 17), Part: field(21, 26), Pin: field(28, 31)}
			if l, ok := long[p.Net]; ok {
				p.Net = l
			}
			x, errX := strconv.ParseInt(field(43, 49), 10, 64)
			y, errY := strconv.ParseInt(field(51, 57), 10, 64)
			if errX != nil || errY != nil {
				return nil, fmt.Errorf("line %d: the place cannot be read", n+1)
			}
			p.At = geom.Pt(x*1000, y*1000)
			if line[32] == 'D' {
				h, err := strconv.ParseInt(field(34, 37), 10, 64)
				if err != nil {
					return nil, fmt.Errorf("line %d: the hole cannot be read", n+1)
				}
				p.Hole = h * 1000
			}
			out = append(out, p)
		}
	}
	if !ended {
		return nil, fmt.Errorf("the netlist is cut short: its end mark is missing")
	}
	return out, nil
}
