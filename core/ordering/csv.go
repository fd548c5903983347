package ordering

import (
	"strconv"
	"strings"

	"goldentrace/core/tabular"
)

// CSV is the basket as a table (RFC 4180) to order by: a line for each number, money in euros.
func (f *Filled) CSV() []byte {
	rows := [][]string{{"Order number", "Maker", "Part number", "Description", "Pieces", "Packaging", "Price each (EUR)", "Total (EUR)", "Needed", "Spare", "At hand", "Designators", "Remarks"}}
	money := func(v int64) string { return strconv.FormatFloat(float64(v)/1e6, 'f', -1, 64) }
	for _, l := range f.Lines {
		row := []string{l.Number, "", "", "", "0", "", "", "", strconv.Itoa(l.Need), strconv.Itoa(l.Spare), strconv.Itoa(l.Held), strings.Join(l.Designators, " "), strings.Join(l.Warnings, "; ")}
		if l.Part != nil {
			row[1], row[2], row[3] = l.Part.Maker, l.Part.MakerNumber, l.Part.Text
		}
		if l.Cost != nil {
			row[4], row[5], row[6], row[7] = strconv.Itoa(l.Cost.Pieces), l.Cost.Packaging, money(l.Cost.Each), money(l.Cost.Total)
		}
		rows = append(rows, row)
	}
	for _, l := range f.Unchosen {
		rows = append(rows, []string{"", "", "", "", "", "", "", "", strconv.Itoa(l.Need), "", "", strings.Join(l.Designators, " "), strings.Join(l.Warnings, "; ")})
	}
	return tabular.CSV(rows)
}
