// Package handoff produces all files of a board at once, and the zip that holds them.
package handoff

import (
	"archive/zip"
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"regexp"
	"strings"
	"time"

	"github.com/google/uuid"

	"goldentrace/core/design"
	"goldentrace/core/fab/drill"
	"goldentrace/core/fab/gerber"
	"goldentrace/core/fab/tables"
	"goldentrace/core/fab/testnet"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// File is one of the files.
type File struct {
	Name string `json:"name"`
	Kind string `json:"kind"` // artwork, drill, table, netlist, note
	Role string `json:"role"` // what it is for the drawing: copper, mask, paste, silk, outline, plated, unplated, …
	Text string `json:"text"` // in words
	Size int    `json:"size"`
	Data []byte `json:"-"`
}

// spanned matches the file of holes that do not go through the whole board.
var spanned = regexp.MustCompile(`(plated|laser)-([0-9]+)-([0-9]+)\.xnc$`)

var unsafe = regexp.MustCompile(`[^A-Za-z0-9]+`)

// Stem is the project's name as it begins file names.
func Stem(title string) string {
	s := strings.Trim(unsafe.ReplaceAllString(strings.ToLower(title), "-"), "-")
	if s == "" {
		return "board"
	}
	return s
}

// Make produces the files. progress is called with the share done and may be nil.
func Make(ctx context.Context, d *design.Doc, x *layout.Index, name string, at time.Time, progress func(float64)) ([]File, error) {
	if len(d.Board.Outline) == 0 {
		return nil, fmt.Errorf("the board has no outline, so there is nothing to make yet: draw it first")
	}
	stem := Stem(name)
	stamp := at.UTC().Format(time.RFC3339)
	job := gerber.Job{Doc: d, Index: x, Rules: rules.Of(d), Stamp: stamp, Project: project(d, name)}
	if len(d.Pours) > 0 || d.Board.Teardrops != nil { // filled anew, so that nothing of before is in the files
		var err error
		if job.Fills, err = pour.Of(ctx, d, x, job.Rules, nil); err != nil {
			return nil, fmt.Errorf("making the files was stopped: %w", err)
		}
		for _, k := range job.Fills.Keys() {
			if at, why := job.Fills.Failed(k); why != nil {
				return nil, fmt.Errorf("the copper area %s cannot be filled near %s, %s: %w", d.Pours[k.Pour].Name, units.Text(at.X), units.Text(at.Y), why)
			}
		}
	}
	type step struct {
		suffix string
		make   func() []byte
	}
	var steps []step
	names := d.Board.CopperNames()
	for i := range names {
		steps = append(steps, step{fmt.Sprintf("copper-%d.gbr", i+1), func() []byte { return job.Copper(i) }})
	}
	for _, bottom := range []bool{false, true} {
		side := "top"
		if bottom {
			side = "bottom"
		}
		if d.Board.Coated(design.MaskLayer, bottom) {
			steps = append(steps, step{"mask-" + side + ".gbr", func() []byte { return job.Mask(bottom) }})
		}
		steps = append(steps, step{"paste-" + side + ".gbr", func() []byte { return job.Paste(bottom) }})
		if d.Board.Coated(design.SilkLayer, bottom) {
			steps = append(steps, step{"silk-" + side + ".gbr", func() []byte { return job.Silk(bottom) }})
		}
	}
	steps = append(steps, step{"outline.gbr", job.Outline})
	hits := drill.Hits(x, len(names))
	for _, span := range drill.Spans(hits) {
		steps = append(steps, step{drillName(span), func() []byte { return drill.Write(hits[span], span, stamp) }})
	}
	steps = append(steps,
		step{"placement.csv", func() []byte { return tables.Placement(d) }},
		step{"parts.csv", func() []byte { return tables.Parts(d) }},
		step{"netlist.ipc", func() []byte { return testnet.Write(d, x) }},
	)
	var out []File
	for i, s := range steps {
		if err := ctx.Err(); err != nil {
			return nil, fmt.Errorf("making the files was stopped: %w", err)
		}
		data := s.make()
		out = append(out, file(stem+"-"+s.suffix, data))
		if progress != nil {
			progress(float64(i+1) / float64(len(steps)+1))
		}
	}
	out = append(out, jobFile(job, stem, out))
	return out, nil
}

// project names the project in its files. One that no store has kept has a GUID that follows from its name (RFC 9562, version 5).
func project(d *design.Doc, name string) gerber.Project {
	guid := d.GUID
	if guid == "" {
		guid = uuid.NewSHA1(uuid.NameSpaceURL, []byte("golden-trace:"+name+"\n"+d.Settings.Title)).String()
	}
	return gerber.Project{Name: name, GUID: guid, Revision: cmp.Or(d.Settings.Revision, "none")}
}

// drillName ends the name of a span's file; one that does not go through names its layers.
func drillName(s drill.Span) string {
	switch {
	case !s.Plated:
		return "unplated.xnc"
	case s.Laser:
		return fmt.Sprintf("laser-%d-%d.xnc", s.From, s.To)
	case s.Through():
		return "plated.xnc"
	}
	return fmt.Sprintf("plated-%d-%d.xnc", s.From, s.To)
}

func file(name string, data []byte) File {
	f := File{Name: name, Size: len(data), Data: data}
	f.Kind, f.Role, f.Text = describe(name)
	return f
}

// jobFile lists the artwork with its functions, in the manner of the published Gerber job
// format.
func jobFile(job gerber.Job, stem string, files []File) File {
	d, project := job.Doc, job.Project
	type attr struct {
		Path         string `json:"Path"`
		FileFunction string `json:"FileFunction"`
		FilePolarity string `json:"FilePolarity,omitempty"`
	}
	var list []attr
	find := func(data []byte, name string) string {
		at := bytes.Index(data, []byte(name))
		if at < 0 {
			return ""
		}
		rest := data[at+len(name):]
		return string(rest[:bytes.IndexAny(rest, "*\n")])
	}
	for _, f := range files {
		if f.Kind == "artwork" || f.Kind == "drill" {
			list = append(list, attr{f.Name, find(f.Data, "TF.FileFunction,"), find(f.Data, "TF.FilePolarity,")})
		}
	}
	box := geom.Closing(d.Board.Outline).Box()
	data, _ := json.MarshalIndent(map[string]any{
		"Header": map[string]any{"GenerationSoftware": map[string]string{"Vendor": "Golden Trace", "Application": "goldentrace", "Version": "1"}, "CreationDate": job.Stamp},
		"GeneralSpecs": map[string]any{"ProjectId": map[string]string{"Name": project.Name, "GUID": project.GUID, "Revision": project.Revision},
			"Size": map[string]float64{"X": float64(box.Max.X-box.Min.X) / 1e6, "Y": float64(box.Max.Y-box.Min.Y) / 1e6}, "LayerNumber": d.Board.Layers(), "BoardThickness": float64(d.Board.Thickness()) / 1e6},
		"FilesAttributes": list,
	}, "", "  ") // plain data always marshals
	data = append(data, '\n')
	return file(stem+"-job.gbrjob", data)
}

// Zip packs the files.
func Zip(files []File, at time.Time) ([]byte, error) {
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range files {
		to, err := w.CreateHeader(&zip.FileHeader{Name: f.Name, Method: zip.Deflate, Modified: at})
		if err != nil {
			return nil, err
		}
		if _, err := to.Write(f.Data); err != nil {
			return nil, err
		}
	}
	err := w.Close()
	return b.Bytes(), err
}

// Unzip reads the files of an archive back, with what their names and heads say of them.
func Unzip(archive []byte) ([]File, error) {
	r, err := zip.NewReader(bytes.NewReader(archive), int64(len(archive)))
	if err != nil {
		return nil, fmt.Errorf("the archive cannot be read: %w", err)
	}
	var out []File
	for _, f := range r.File {
		in, err := f.Open()
		if err != nil {
			return nil, err
		}
		var b bytes.Buffer
		_, err = b.ReadFrom(in)
		_ = in.Close()
		if err != nil {
			return nil, fmt.Errorf("%s cannot be read: %w", f.Name, err)
		}
		out = append(out, file(f.Name, b.Bytes()))
	}
	return out, nil
}

// describe tells from a file's name what it is: kind, role and words.
func describe(name string) (kind, role, text string) {
	for _, d := range []struct{ suffix, kind, role, text string }{
		{"mask-top.gbr", "artwork", "mask-top", "Solder mask, top"}, {"mask-bottom.gbr", "artwork", "mask-bottom", "Solder mask, bottom"},
		{"paste-top.gbr", "artwork", "paste-top", "Solder paste, top"}, {"paste-bottom.gbr", "artwork", "paste-bottom", "Solder paste, bottom"},
		{"silk-top.gbr", "artwork", "silk-top", "Silkscreen, top"}, {"silk-bottom.gbr", "artwork", "silk-bottom", "Silkscreen, bottom"},
		{"outline.gbr", "artwork", "outline", "Board outline"}, {"unplated.xnc", "drill", "unplated", "Unplated holes"},
		{"plated.xnc", "drill", "plated", "Plated holes"}, {"placement.csv", "table", "placement", "Placement of the parts"},
		{"parts.csv", "table", "parts", "Parts list"}, {"netlist.ipc", "netlist", "netlist", "Netlist for the bare-board test, IPC-D-356A"},
		{"job.gbrjob", "note", "job", "Job file: what each file is"},
	} {
		if strings.HasSuffix(name, d.suffix) {
			return d.kind, d.role, d.text
		}
	}
	if m := spanned.FindStringSubmatch(name); m != nil {
		what := map[string]string{"plated": "Plated holes", "laser": "Lasered holes"}[m[1]]
		return "drill", m[1] + "-" + m[2] + "-" + m[3], what + " from copper layer " + m[2] + " to " + m[3]
	}
	if at := strings.LastIndex(name, "copper-"); at >= 0 {
		n := strings.TrimSuffix(name[at+len("copper-"):], ".gbr")
		return "artwork", "copper-" + n, "Copper layer " + n
	}
	return "note", "other", name
}
