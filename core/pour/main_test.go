package pour_test

import (
	"flag"
	"os"
	"testing"
)

// Each random board is filled many times over, so that fewer of them are tried in one run than usual; -rapid.checks says otherwise.
func TestMain(m *testing.M) {
	_ = flag.Set("rapid.checks", "45")
	flag.Parse()
	os.Exit(m.Run())
}
