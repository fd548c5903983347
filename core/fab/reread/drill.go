package reread

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"goldentrace/core/geom"
)

// Hole is one hit of a drill file.
type Hole struct {
	At       geom.Point `json:"at"`
	Slot     geom.Point `json:"slot,omitzero"` // the way the middle of a slot goes from there
	Diameter int64      `json:"diameter"`
	Function string     `json:"function,omitempty"`
}

// Drilling is a drill file as read.
type Drilling struct {
	Attributes map[string]string
	Plated     bool
	From, To   int // the copper layers between which the holes go, from 1; 0 when the file does not say
	Holes      []Hole
}

// Drill reads an XNC file: decimal coordinates in millimetres or inches.
func Drill(data []byte) (*Drilling, error) {
	out := &Drilling{Attributes: map[string]string{}}
	unit, function := 0.0, ""
	tools, functions := map[string]int64{}, map[string]string{}
	tool, ended, header := "", false, false
	routing, down := false, false
	var at geom.Point
	for n, line := range strings.Split(strings.ReplaceAll(string(data), "\r", ""), "\n") {
		line = strings.TrimSpace(line)
		fail := func(what string) error { return fmt.Errorf("line %d, %.40q: %s", n+1, line, what) }
		switch {
		case line == "" || ended:
		case strings.HasPrefix(line, "; #@! TF"):
			name, value, _ := strings.Cut(line[len("; #@! TF"):], ",")
			out.Attributes[name] = value
			if name == ".FileFunction" {
				if _, err := fmt.Sscanf(strings.ReplaceAll(value, ",", " "), "Plated %d %d", &out.From, &out.To); err == nil {
					out.Plated = true
				}
			}
		case strings.HasPrefix(line, "; #@! TA.AperFunction,"):
			function = line[len("; #@! TA.AperFunction,"):]
		case strings.HasPrefix(line, "; #@! TD"):
			function = ""
		case line[0] == ';':
		case line == "M48":
			header = true
		case line == "METRIC" || strings.HasPrefix(line, "METRIC,"):
			unit = 1e6
		case line == "INCH" || strings.HasPrefix(line, "INCH,"):
			unit = 25.4e6
		case line == "M30":
			ended = true
		case line == "M15" || line == "M16" || line == "M17":
			if !routing {
				return nil, fail("the tool goes down outside of a rout")
			}
			down = line == "M15"
		case line == "G05":
			routing = false
		case line == "%" || line == "G90" || line == "FMAT,2":
		case line[0] == 'T' && strings.Contains(line, "C"):
			name, size, _ := strings.Cut(line, "C")
			d, err := strconv.ParseFloat(size, 64)
			if err != nil || unit == 0 || d <= 0 {
				return nil, fail("the tool's size cannot be read")
			}
			tools[name], functions[name] = int64(math.Round(d*unit)), function
		case line[0] == 'T':
			if tools[line] == 0 && line != "T0" {
				return nil, fail("this tool is not defined")
			}
			tool = line
		case line[0] == 'X' || line[0] == 'Y' || strings.HasPrefix(line, "G00") || strings.HasPrefix(line, "G01"):
			if tool == "" || unit == 0 {
				return nil, fail("a hole before its tool")
			}
			move := ""
			if line[0] == 'G' {
				move, line = line[:3], line[3:]
				routing = routing || move == "G00"
			}
			to, slot := "", false
			if line, to, slot = strings.Cut(line, "G85"); slot && move != "" {
				return nil, fail("this is not known")
			}
			if !strings.Contains(line, ".") && strings.Trim(line, "XY-0123456789") != "" {
				return nil, fail("this is not known")
			}
			from := at
			if err := place(line, unit, &at); err != nil {
				return nil, fail(err.Error())
			}
			switch {
			case move == "G01" && !down, move == "" && routing:
				return nil, fail("the tool is not down")
			case move == "G00":
				continue
			case move == "G01":
				out.Holes = append(out.Holes, Hole{from, at.Sub(from), tools[tool], functions[tool]})
				continue
			case slot:
				from = at
				if err := place(to, unit, &at); err != nil {
					return nil, fail(err.Error())
				}
				out.Holes = append(out.Holes, Hole{from, at.Sub(from), tools[tool], functions[tool]})
				continue
			}
			out.Holes = append(out.Holes, Hole{at, geom.Point{}, tools[tool], functions[tool]})
		default:
			return nil, fail("this is not known")
		}
	}
	if !header {
		return nil, fmt.Errorf("this is not a drill file: it does not begin with M48")
	}
	if !ended {
		return nil, fmt.Errorf("the drill file is cut short: its end mark is missing")
	}
	return out, nil
}

// place reads the coordinates of a line; one that is not given stays.
func place(line string, unit float64, at *geom.Point) error {
	for _, axis := range []byte{'X', 'Y'} {
		i := strings.IndexByte(line, axis)
		if i < 0 {
			continue
		}
		j := i + 1
		for j < len(line) && line[j] != 'X' && line[j] != 'Y' {
			j++
		}
		v, err := strconv.ParseFloat(line[i+1:j], 64)
		if err != nil {
			return fmt.Errorf("the place cannot be read")
		}
		if axis == 'X' {
			at.X = int64(math.Round(v * unit))
		} else {
			at.Y = int64(math.Round(v * unit))
		}
	}
	return nil
}
