package design

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/google/uuid"

	"goldentrace/core/reading"
)

// FileFormat and Version stand in the first line of a project file.
const (
	FileFormat = "golden-trace-project"
	// LargestFile bounds what is read from elsewhere, in bytes.
	LargestFile = 256 << 20
	// LongestLine bounds an object as it is written, in bytes: what is kept can be read again.
	LongestLine = 16 << 20
)

// header is the first line of a project file.
type header struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Name    string `json:"name"`
	GUID    string `json:"guid,omitempty"`
	Next    ID     `json:"next"`
	Objects int    `json:"objects"`
}

type fileLine struct {
	Kind   Kind            `json:"kind"`
	Object json.RawMessage `json:"object"`
}

// WriteFile writes a project as one text file: a header line, then one object a line, as
// docs/project-file.md tells.
func WriteFile(w io.Writer, name string, d *Doc) error {
	n := 0
	for range d.All() {
		n++
	}
	buf := bufio.NewWriter(w)
	enc := json.NewEncoder(buf)
	enc.SetEscapeHTML(false)
	if err := enc.Encode(header{FileFormat, Version, name, d.GUID, d.Next, n}); err != nil {
		return err
	}
	for o := range d.All() {
		body, err := json.Marshal(o)
		if err != nil {
			return err
		}
		if err := enc.Encode(fileLine{o.ObjectKind(), body}); err != nil {
			return err
		}
	}
	return buf.Flush()
}

// ReadFile reads a project file and checks that it is whole. Errors say what is wrong and in
// which line.
func ReadFile(r io.Reader) (name string, d *Doc, err error) {
	lines := bufio.NewScanner(io.LimitReader(r, LargestFile+1))
	lines.Buffer(make([]byte, 1<<20), LongestLine)
	if !lines.Scan() {
		return "", nil, errors.New("this is not a Golden Trace project: the file is empty")
	}
	var h header
	if json.Unmarshal(lines.Bytes(), &h) != nil || h.Format != FileFormat {
		return "", nil, errors.New("this is not a Golden Trace project file")
	}
	if h.Version < 1 || h.Version > Version {
		return "", nil, fmt.Errorf("the project file is of version %d; this program reads versions 1 to %d", h.Version, Version)
	}
	d = Empty()
	seen := map[ID]bool{}
	var old []Raw
	take := func(kind Kind, body json.RawMessage) error {
		o, err := Decode(kind, body)
		if err != nil {
			return err
		}
		if err := CheckID(o); err != nil {
			return err
		}
		if len(seen) == MostObjects {
			return fmt.Errorf("it holds more than %d objects", MostObjects)
		}
		if seen[o.ObjectID()] {
			return fmt.Errorf("the id %d is used twice", o.ObjectID())
		}
		seen[o.ObjectID()] = true
		d.Put(o)
		return nil
	}
	count := 0
	for n := 2; lines.Scan(); n++ {
		if len(lines.Bytes()) == 0 {
			continue
		}
		var l fileLine
		err := json.Unmarshal(lines.Bytes(), &l)
		switch {
		case err != nil:
		case h.Version < Version: // read when all of it is there
			var id struct{ ID ID }
			_ = json.Unmarshal(l.Object, &id) // what cannot be read is said when it is taken
			old = append(old, Raw{l.Kind, id.ID, l.Object, n})
			err = check(len(old) <= MostObjects, "it holds more than %d objects", MostObjects)
		default:
			err = take(l.Kind, l.Object)
		}
		if err != nil {
			return "", nil, fmt.Errorf("the project file is damaged in line %d: %w", n, reading.Wrong(err))
		}
		count++
	}
	if err := lines.Err(); errors.Is(err, bufio.ErrTooLong) {
		return "", nil, fmt.Errorf("the project file has a line of more than %d MB", LongestLine>>20)
	} else if err != nil {
		return "", nil, fmt.Errorf("the project file cannot be read: %w", err)
	}
	if count != h.Objects {
		return "", nil, fmt.Errorf("the project file is cut short: it should hold %d objects and holds %d", h.Objects, count)
	}
	if h.Next < 0 || h.Next > MaxID {
		return "", nil, fmt.Errorf("the project file says that the next id is %d; ids end at %d", h.Next, MaxID)
	}
	if h.Version < Version {
		upgraded, next, err := Upgrade(h.Version, old, h.Next)
		if err != nil {
			return "", nil, fmt.Errorf("the project file is damaged: %w", err)
		}
		for _, o := range upgraded {
			if err := take(o.Kind, o.Body); err != nil {
				return "", nil, fmt.Errorf("the project file is damaged in line %d: %w", o.Line, err)
			}
		}
		h.Next = next
	}
	d.Next = max(d.Next, h.Next)
	if h.GUID != "" {
		if uuid.Validate(h.GUID) != nil {
			return "", nil, errors.New("the project file is damaged: what names the project among all projects is no GUID")
		}
		d.GUID = strings.ToLower(h.GUID)
	}
	if err := errors.Join(d.Whole(), d.Distinct()); err != nil {
		return "", nil, fmt.Errorf("the project file is damaged: %w", err)
	}
	return h.Name, d, nil
}
