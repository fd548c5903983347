package store

import "io/fs"

// subFS is the folder of migrations as goose wants it, at the root.
type subFS struct{}

func (subFS) Open(name string) (fs.File, error) {
	if name == "." {
		return migrations.Open("migrations")
	}
	return migrations.Open("migrations/" + name)
}
