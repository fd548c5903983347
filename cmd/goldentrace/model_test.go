package main

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

// run runs a command as from a shell.
func run(args ...string) error {
	c := command()
	c.SetArgs(args)
	return c.Execute()
}

// The demos' models pass the validator of glTF's own authors.
func TestModelsAreValid(t *testing.T) {
	dir := t.TempDir()
	for _, name := range []string{"Moth Lamp", "Weir Gauge"} {
		project, out := filepath.Join(dir, name+".json"), filepath.Join(dir, name+".glb")
		require.NoError(t, run("demo-project", name, "--out", project))
		require.NoError(t, run("model", project, "--out", out))
		said, err := exec.Command("node", "../../web/tools/validate.mjs", out).CombinedOutput()
		require.NoError(t, err, "%s", said)
		require.ErrorContains(t, run("model", project, "--out", filepath.Join(dir, "board.stl")), "written as .glb")
	}
	broken := filepath.Join(dir, "broken.glb")
	require.NoError(t, os.WriteFile(broken, []byte("glTF, but no more"), 0o600))
	require.Error(t, exec.Command("node", "../../web/tools/validate.mjs", broken).Run(), "the validator tells")
}
