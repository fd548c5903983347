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
	// Size is that of the copper before it is turned, by degrees anticlockwise.
	Size geom.Point `json:"size"`
	Turn int        `json:"turn,omitempty"`
}

// TestNetlist reads an IPC-D-356A file in metric units.
func TestNetlist(data []byte) ([]Probe, error) {
	var out []Probe
	long, parts, pins := map[string]string{}, map[string]string{}, map[string]string{}
	ended := false
	for n, line := range strings.Split(strings.ReplaceAll(string(data), "\r", ""), "\n") {
		switch {
		case strings.HasPrefix(line, "P  NNAME"):
			told(long, line[3:])
		case strings.HasPrefix(line, "C  PART  "):
			told(parts, line[9:])
		case strings.HasPrefix(line, "C  PIN   "):
			told(pins, line[9:])
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
			for _, f := range []struct {
				name  *string
				alias map[string]string
			}{{&p.Net, long}, {&p.Part, parts}, {&p.Pin, pins}} {
				if l, ok := f.alias[*f.name]; ok {
					*f.name = l
				}
			}
			x, errX := strconv.ParseInt(field(43, 49), 10, 64)
			y, errY := strconv.ParseInt(field(51, 57), 10, 64)
			if errX != nil || errY != nil {
				return nil, fmt.Errorf("line %d: the place cannot be read", n+1)
			}
			p.At = geom.Pt(x*1000, y*1000)
			if len(line) >= 71 {
				w, errW := strconv.ParseInt(field(59, 62), 10, 64)
				h, errH := strconv.ParseInt(field(64, 67), 10, 64)
				turn, errT := strconv.Atoi(field(69, 71))
				if errW != nil || errH != nil || errT != nil {
					return nil, fmt.Errorf("line %d: the size cannot be read", n+1)
				}
				p.Size, p.Turn = geom.Pt(w*1000, h*1000), turn
			}
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

// told notes the name that a record tells for an alias.
func told(of map[string]string, record string) {
	if f := strings.Fields(record); len(f) > 1 {
		of[f[0]] = unspelt(strings.TrimSpace(strings.TrimSpace(record)[len(f[0]):]))
	}
}

// unspelt takes back letters written as \u and four digits, or \U and eight.
func unspelt(s string) string {
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		digits := map[byte]int{'u': 4, 'U': 8}[s[min(i+1, len(s)-1)]]
		if s[i] == '\\' && digits > 0 && i+2+digits <= len(s) {
			if r, err := strconv.ParseUint(s[i+2:i+2+digits], 16, 32); err == nil {
				b.WriteRune(rune(r))
				i += 1 + digits
				continue
			}
		}
		b.WriteByte(s[i])
	}
	return b.String()
}
