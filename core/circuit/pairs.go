package circuit

import "strings"

// pairEnds are the usual endings of the two halves of a differential pair.
var pairEnds = [][2]string{{"_P", "_N"}, {"_p", "_n"}, {"+", "-"}, {"+", "−"}, {"_DP", "_DM"}}

// PairsByName lists the nets that look like the halves of differential pairs, the positive
// half first, by name.
func (n *Nets) PairsByName() [][2]string {
	var out [][2]string
	for _, net := range sortedNets(n.ByName) {
		for _, e := range pairEnds {
			stem, ok := strings.CutSuffix(net.Name, e[0])
			if !ok || stem == "" {
				continue
			}
			if other := n.ByName[stem+e[1]]; other != nil {
				out = append(out, [2]string{net.Name, other.Name})
				break
			}
		}
	}
	return out
}
