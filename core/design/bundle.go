package design

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// MostMembers bounds a bundle.
const MostMembers = 1024

var vector = regexp.MustCompile(`^(.*)\[([0-9]{1,6}):([0-9]{1,6})\]$`)

// IsBundle tells whether a name means several nets.
func IsBundle(name string) bool {
	return strings.Contains(name, ",") || vector.MatchString(name)
}

// Members lists the nets a bundle's name stands for, in order: D[7:0] stands for D7 to D0,
// a list "SCL, SDA" for its entries, which may be vectors too. The name of a single net
// stands for itself. An error says what is wrong in the name.
func Members(name string) ([]string, error) {
	if !IsBundle(name) {
		return []string{name}, nil
	}
	var out []string
	seen := map[string]bool{}
	add := func(m string) error {
		if seen[m] {
			return fmt.Errorf("the bundle %s holds %s twice", name, m)
		}
		if len(out) == MostMembers {
			return fmt.Errorf("the bundle %s has more than %d members", name, MostMembers)
		}
		seen[m] = true
		out = append(out, m)
		return nil
	}
	for part := range strings.SplitSeq(name, ",") {
		part = strings.TrimSpace(part)
		if part == "" {
			return nil, fmt.Errorf("the bundle %s has an empty member", name)
		}
		m := vector.FindStringSubmatch(part)
		if m == nil {
			if err := add(part); err != nil {
				return nil, err
			}
			continue
		}
		if m[1] == "" {
			return nil, fmt.Errorf("the bundle %s has a range without a name before it", name)
		}
		from, _ := strconv.Atoi(m[2]) // digits only
		to, _ := strconv.Atoi(m[3])
		step := 1
		if to < from {
			step = -1
		}
		for i := from; ; i += step {
			if err := add(m[1] + strconv.Itoa(i)); err != nil {
				return nil, err
			}
			if i == to {
				break
			}
		}
	}
	return out, nil
}
