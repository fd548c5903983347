// Package pack reads and writes part packs: parts with symbols, footprints, pictures and bodies in a zip, as docs/part-pack.md tells.
// What is read comes from strangers: sizes, counts and names are bounded, pictures are cleaned, and nothing is taken before all of it could be read.
package pack

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"regexp"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/core/picture"
	"goldentrace/core/reading"
)

// The format of a pack's table of contents, and the latest version of it.
const (
	Format  = "golden-trace-part-pack"
	Version = 1
	index   = "pack.json"
)

// Bounds of what is read.
const (
	LargestPack    = 64 << 20 // bytes as they come
	LargestIndex   = 32 << 20
	LargestContent = 160 << 20 // unpacked, all together
	MostEntries    = 4000
	MostParts      = 2000
	deepest        = 4 // folders
)

// Pack is a set of parts.
type Pack struct {
	Title    string
	Releases []*library.Release
}

// contents is what the table of contents says. Files of pictures and bodies are named; the ids of assets are those within their release.
type contents struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Title   string `json:"title,omitempty"`
	Parts   []part `json:"parts"`
}

type part struct {
	Part       *design.LibraryPart `json:"part"`
	Symbols    []*design.Symbol    `json:"symbols"`
	Footprints []*design.Footprint `json:"footprints"`
	Files      []file              `json:"files,omitempty"`
}

type file struct {
	ID   design.ID `json:"id"`
	Name string    `json:"name"` // what it is called by people
	Path string    `json:"path"` // in the zip
}

// Write writes a pack.
func Write(w io.Writer, p *Pack) error {
	z := zip.NewWriter(w)
	c := contents{Format: Format, Version: Version, Title: p.Title, Parts: []part{}}
	for i, r := range p.Releases {
		if err := r.Valid(); err != nil {
			return err
		}
		x := part{Part: r.Part, Symbols: r.Symbols, Footprints: r.Footprints}
		for _, a := range r.Assets {
			f := file{a.ID, a.Name, fmt.Sprintf("files/%d-%d.%s", i+1, a.ID, a.Type)}
			out, err := z.Create(f.Path)
			if err == nil {
				_, err = out.Write(a.Data)
			}
			if err != nil {
				return err
			}
			x.Files = append(x.Files, f)
		}
		c.Parts = append(c.Parts, x)
	}
	body, err := json.MarshalIndent(c, "", " ")
	if err != nil {
		return err
	}
	out, err := z.Create(index)
	if err == nil {
		_, err = out.Write(body)
	}
	return errors.Join(err, z.Close())
}

// Read reads a pack. Errors say in a sentence what is wrong and where.
func Read(data []byte) (*Pack, error) {
	if len(data) > LargestPack {
		return nil, fmt.Errorf("the pack has %d MB; %d are the most", len(data)>>20, LargestPack>>20)
	}
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, errors.New("this is not a part pack: it is no zip file, or one cut short")
	}
	files, err := entries(z)
	if err != nil {
		return nil, err
	}
	f := files[index]
	if f == nil {
		return nil, fmt.Errorf("this is not a part pack: there is no %s in it", index)
	}
	total := int64(0)
	body, err := unpack(f, LargestIndex, &total)
	if err != nil {
		return nil, err
	}
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if json.Unmarshal(body, &head) != nil || head.Format != Format {
		return nil, errors.New("this is not a part pack: its table of contents is not one")
	}
	if head.Version > Version {
		return nil, fmt.Errorf("the pack is of version %d; this program reads version %d", head.Version, Version)
	}
	var c contents
	dec := json.NewDecoder(bytes.NewReader(body))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&c); err != nil {
		return nil, fmt.Errorf("the pack's table of contents cannot be read: %w", reading.InFile(err))
	}
	switch {
	case len(c.Parts) == 0:
		return nil, errors.New("the pack holds no parts")
	case len(c.Parts) > MostParts:
		return nil, fmt.Errorf("the pack holds %d parts; %d are the most", len(c.Parts), MostParts)
	case len(c.Title) > design.LongestText:
		return nil, errors.New("the pack's title is too long")
	}
	out := &Pack{Title: c.Title}
	seen := map[string]bool{}
	for i, x := range c.Parts {
		r, err := x.release(files, &total)
		if err != nil {
			return nil, fmt.Errorf("part %d of the pack: %w", i+1, err)
		}
		if seen[strings.ToLower(r.Part.Name)] {
			return nil, fmt.Errorf("the pack holds two parts called %s", r.Part.Name)
		}
		seen[strings.ToLower(r.Part.Name)] = true
		out.Releases = append(out.Releases, r)
	}
	return out, nil
}

var plainName = regexp.MustCompile(`^[A-Za-z0-9][A-Za-z0-9._ -]{0,99}$`)

// entries are the files of a zip by their paths. Paths that lead elsewhere, or that no system could keep, are refused.
func entries(z *zip.Reader) (map[string]*zip.File, error) {
	if len(z.File) > MostEntries {
		return nil, fmt.Errorf("the pack holds %d files; %d are the most", len(z.File), MostEntries)
	}
	out := map[string]*zip.File{}
	for _, f := range z.File {
		if f.FileInfo().IsDir() {
			continue
		}
		folders := strings.Split(f.Name, "/")
		bad := len(folders) > deepest || path.Clean(f.Name) != f.Name || !f.FileInfo().Mode().IsRegular()
		for _, s := range folders {
			bad = bad || !plainName.MatchString(s)
		}
		if bad {
			return nil, fmt.Errorf("the pack holds a file with the name %.80q, which cannot be", f.Name)
		}
		if out[f.Name] != nil {
			return nil, fmt.Errorf("the pack holds two files called %s", f.Name)
		}
		out[f.Name] = f
	}
	return out, nil
}

// unpack reads a file of the zip within bounds, whatever it says of its size.
func unpack(f *zip.File, most int64, total *int64) ([]byte, error) {
	in, err := f.Open()
	if err != nil {
		return nil, fmt.Errorf("%s cannot be unpacked: %w", f.Name, err)
	}
	defer in.Close()
	most = min(most, LargestContent-*total)
	data, err := io.ReadAll(io.LimitReader(in, most+1))
	if err != nil {
		return nil, fmt.Errorf("%s cannot be unpacked: %w", f.Name, err)
	}
	if int64(len(data)) > most {
		return nil, fmt.Errorf("%s unpacks to more than %d MB", f.Name, most>>20)
	}
	*total += int64(len(data))
	return data, nil
}

// release reads a part with its files.
func (x part) release(files map[string]*zip.File, total *int64) (*library.Release, error) {
	r := &library.Release{Part: x.Part, Symbols: x.Symbols, Footprints: x.Footprints}
	if r.Part == nil {
		return nil, errors.New("it has no part")
	}
	r.Part.ID, r.Part.Origin = 0, design.Origin{}
	for _, s := range r.Symbols {
		if s == nil {
			return nil, errors.New("it has an empty symbol")
		}
		s.ID, s.Origin = 0, design.Origin{}
	}
	for _, f := range r.Footprints {
		if f == nil {
			return nil, errors.New("it has an empty footprint")
		}
		f.ID, f.Origin = 0, design.Origin{}
	}
	seen := map[design.ID]bool{}
	for _, f := range x.Files {
		z := files[f.Path]
		if z == nil {
			return nil, fmt.Errorf("the file %.80q is not in the pack", f.Path)
		}
		if f.ID <= 0 || seen[f.ID] {
			return nil, fmt.Errorf("two of its files have the id %d", f.ID)
		}
		seen[f.ID] = true
		data, err := unpack(z, design.LargestAsset, total)
		if err != nil {
			return nil, err
		}
		a, err := readAsset(f.Name, data)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", f.Path, err)
		}
		a.ID = f.ID
		r.Assets = append(r.Assets, a)
	}
	return r, r.Valid()
}

// readAsset reads a picture or a body in space.
func readAsset(name string, data []byte) (*design.Asset, error) {
	if bytes.HasPrefix(data, []byte("glTF")) {
		return picture.ReadBody(name, data)
	}
	return picture.Read(name, data)
}
