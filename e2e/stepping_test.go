package e2e

import "testing"

// A step back says what it took back and where; what is on another stage is gone to from there.
func TestAStepBackSaysWhatItTookBack(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	b.pickPart("C3")
	b.key("e")
	b.sees("Enter turns it all the same") // from the list as well
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('placed').find(p => p.designator === 'C3').angle === 0`)
	b.stage("Circuit")
	b.sees("Table of parts")
	b.key("z", ctrl)
	b.sees("Taken back: turning: C3")
	b.press("Show")
	b.there("application", "Board")
	b.key("y", ctrl)
	b.sees("Done again: turning: C3")
}
