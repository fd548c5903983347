package landpattern

import "goldentrace/core/design"

// goal is how much solder is to stand beyond the lead at its outer end, its inner end and its sides, and how far
// the courtyard reaches beyond all; in nanometres, for the densities most, nominal and least. In all tables of the standard but that of J leads the outer
// fillet is the toe and the inner one the heel.
type goal struct {
	outer, inner, side, yard [3]int64
}

type fillet struct{ outer, inner, side, yard int64 }

func level(density string) int {
	switch density {
	case design.Most:
		return 0
	case design.Least:
		return 2
	}
	return 1
}

func (g goal) at(density string) fillet {
	i := level(density)
	return fillet{g.outer[i], g.inner[i], g.side[i], g.yard[i]}
}

func goals(hundredths ...int64) [3]int64 {
	return [3]int64{hundredths[0] * 10_000, hundredths[1] * 10_000, hundredths[2] * 10_000}
}

// Fillet goals of IPC-7351B, in hundredths of a millimetre.
var (
	usualYard = goals(50, 25, 10)

	gullGoal     = goal{goals(55, 35, 15), goals(45, 35, 25), goals(5, 3, 1), usualYard}              // table 3-2: pitch above 0.625 mm
	gullFineGoal = goal{goals(55, 35, 15), goals(45, 35, 25), goals(1, -2, -4), usualYard}            // table 3-3: pitch up to 0.625 mm
	jGoal        = goal{goals(55, 35, 15), goals(10, 0, -10), goals(5, 3, 1), usualYard}              // table 3-4: the outer fillet is its heel
	chipGoal     = goal{goals(55, 35, 15), goals(0, 0, 0), goals(5, 0, -5), usualYard}                // table 3-5: from 1608 on
	chipFineGoal = goal{goals(30, 20, 10), goals(0, 0, 0), goals(5, 0, -5), goals(20, 15, 10)}        // table 3-6: below 1608
	cylinderGoal = goal{goals(60, 40, 20), goals(20, 10, 2), goals(10, 5, 1), usualYard}              // table 3-7
	inwardGoal   = goal{goals(25, 15, 7), goals(80, 50, 20), goals(1, -5, -10), usualYard}            // table 3-13: inward L leads
	lugGoal      = goal{goals(55, 35, 15), goals(45, 35, 25), goals(5, 3, 1), usualYard}              // table 3-14: flat lugs
	noLeadGoal   = goal{goals(40, 30, 20), goals(0, 0, 0), goals(-4, -4, -4), usualYard}              // tables 3-15, 3-16
	canGoal      = goal{goals(70, 50, 30), goals(0, -10, -20), goals(50, 40, 30), goals(100, 50, 25)} // table 3-20: up to 10 mm high
	tallCanGoal  = goal{goals(100, 70, 40), goals(0, -5, -10), goals(60, 50, 40), goals(100, 50, 25)} // table 3-21: higher

	ballYard = goals(200, 100, 50)
	holeYard = usualYard
)

// Holes and lands of leads that go through the board: what a hole is wider than the lead at its thickest (IPC-2222
// 9.2.3), the annular ring (IPC-2221 9.1.2), and the allowance for fabrication.
var (
	holeOver  = goals(25, 20, 15)
	ring      = int64(50_000)
	allowance = goals(60, 50, 40)
)
