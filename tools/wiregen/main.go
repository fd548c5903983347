// Command wiregen writes the TypeScript types of everything that goes over the wire from the
// Go types, and the lettering table, into web/src/live/wire.gen.ts. With -check it writes
// nothing and fails when the file is stale.
package main

import (
	"bytes"
	"encoding"
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"os"
	"reflect"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/lettering"
	"goldentrace/core/library"
	"goldentrace/core/ordering"
	"goldentrace/core/partlist"
	"goldentrace/core/question"
	"goldentrace/server"
	"goldentrace/store"
)

const file = "web/src/live/wire.gen.ts"

func main() {
	check := flag.Bool("check", false, "fail when the file is stale")
	flag.Parse()
	g := &generator{done: map[reflect.Type]string{}}
	data := g.all()
	if *check {
		if old, err := os.ReadFile(file); err != nil || !bytes.Equal(old, data) {
			fmt.Fprintf(os.Stderr, "%s is stale; run `make wire`\n", file)
			os.Exit(1)
		}
		return
	}
	if err := os.WriteFile(file, data, 0o644); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

type generator struct {
	out   bytes.Buffer
	done  map[reflect.Type]string
	queue []reflect.Type
}

// objects by their kind, for the union of all of them.
var objects = func() []design.Object {
	var out []design.Object
	for _, k := range design.Kinds() {
		out = append(out, design.Blank(k))
	}
	return out
}()

func (g *generator) all() []byte {
	g.out.WriteString("// Written by tools/wiregen from the Go types. Do not edit; run `make wire`.\n\n")
	for _, o := range objects {
		g.name(reflect.TypeOf(o).Elem())
	}
	for _, v := range []any{server.Request{}, server.Failure{}, server.Created{}, server.Named{}, server.Starts{}, server.Glance{}, server.SteppedBack{}, server.Drawing{}, server.Found{}, server.LibraryRows{}, server.Keeping{}, server.KeptAs{}, server.Withdrawing{}, server.PackSeen{}, server.DrawingSeen{}, server.LogoSeen{}, server.BasketSeen{}, server.DepotManner{}, server.Finish{}, server.Measured{}, ordering.Query{}, ordering.Answer{}, ordering.Numbers{}, ordering.Parts{}, store.KeptPart{}, store.Making{}, partlist.Preview{}, store.Project{}, library.Item{}} {
		g.name(reflect.TypeOf(v))
	}
	commands := map[string]string{}
	for _, k := range edit.Kinds() {
		commands[k] = g.name(reflect.TypeOf(edit.Blank(k)).Elem())
	}
	names, types := server.Messages()
	for _, n := range names {
		g.name(types[n])
	}
	var questions bytes.Buffer
	for _, k := range question.Kinds() {
		asked, answer := question.Types(k)
		fmt.Fprintf(&questions, "  %s: { asks: %s; answers: %s }\n", k, g.name(asked), g.ts(answer, true))
	}
	for len(g.queue) > 0 {
		t := g.queue[0]
		g.queue = g.queue[1:]
		g.write(t)
	}
	g.out.WriteString("/** Every object by its kind. */\nexport interface Kinds {\n")
	for _, o := range objects {
		fmt.Fprintf(&g.out, "  %s: %s\n", o.ObjectKind(), g.done[reflect.TypeOf(o).Elem()])
	}
	g.out.WriteString("}\nexport type Kind = keyof Kinds\nexport type AnyObject = Kinds[Kind]\n\nexport const kindNames: Kind[] = [")
	for i, o := range objects {
		if i > 0 {
			g.out.WriteString(", ")
		}
		fmt.Fprintf(&g.out, "'%s'", o.ObjectKind())
	}
	g.out.WriteString("]\n\n/** Every edit command by its name. */\nexport interface Commands {\n")
	for _, k := range slices.Sorted(maps.Keys(commands)) {
		fmt.Fprintf(&g.out, "  %s: %s\n", k, commands[k])
	}
	g.out.WriteString("}\n\n/** Every message from the program by its name. */\nexport interface Messages {\n")
	for _, n := range names {
		fmt.Fprintf(&g.out, "  %s: %s\n", n, g.done[types[n]])
	}
	g.out.WriteString("}\nexport type Message = { [T in keyof Messages]: { t: T } & Messages[T] }[keyof Messages]\n\n/** Every question by its name, and its answer. */\nexport interface Questions {\n")
	g.out.Write(questions.Bytes())
	g.out.WriteString("}\n\n/** Our lettering: strokes as places of two characters each. */\nexport const letters: Record<string, string> = {\n")
	for _, r := range slices.Sorted(maps.Keys(lettering.Letters)) {
		fmt.Fprintf(&g.out, "  %s: %s,\n", quote(string(r)), quote(lettering.Letters[r]))
	}
	g.out.WriteString("}\n")
	return g.out.Bytes()
}

func quote(s string) string {
	b, _ := json.Marshal(s) // a string always marshals
	return string(b)
}

func (g *generator) name(t reflect.Type) string {
	if n, ok := g.done[t]; ok {
		return n
	}
	n := t.Name()
	for _, other := range g.done {
		if other == n {
			n = strings.ToUpper(t.PkgPath()[strings.LastIndex(t.PkgPath(), "/")+1:][:1]) + t.PkgPath()[strings.LastIndex(t.PkgPath(), "/")+2:] + n
		}
	}
	g.done[t] = n
	g.queue = append(g.queue, t)
	return n
}

func (g *generator) write(t reflect.Type) {
	fmt.Fprintf(&g.out, "export interface %s {\n", g.done[t])
	g.fields(t)
	g.out.WriteString("}\n\n")
}

func (g *generator) fields(t reflect.Type) {
	for i := range t.NumField() {
		f := t.Field(i)
		if !f.IsExported() {
			continue
		}
		tag := strings.Split(f.Tag.Get("json"), ",")
		if f.Anonymous && tag[0] == "" {
			g.fields(f.Type)
			continue
		}
		if tag[0] == "-" || tag[0] == "" {
			continue
		}
		if f.Type.Kind() == reflect.Slice && tag[0] == "shapes" && t.Name() == "Mark" {
			continue
		}
		opt := ""
		if slices.Contains(tag, "omitempty") || slices.Contains(tag, "omitzero") {
			opt = "?"
		}
		ts := g.ts(f.Type, opt != "")
		if t == reflect.TypeFor[server.ObjectChange]() && tag[0] == "after" {
			ts = "AnyObject"
		}
		fmt.Fprintf(&g.out, "  %s%s: %s\n", tag[0], opt, ts)
	}
}

func (g *generator) ts(t reflect.Type, optional bool) string {
	switch t {
	case reflect.TypeFor[json.RawMessage]():
		return "unknown"
	case reflect.TypeFor[design.Object]():
		return "AnyObject | null"
	case reflect.TypeFor[design.Kind]():
		return "Kind"
	}
	if t.Implements(reflect.TypeFor[encoding.TextMarshaler]()) {
		return "string"
	}
	switch t.Kind() {
	case reflect.Pointer:
		if optional {
			return g.ts(t.Elem(), false)
		}
		return g.ts(t.Elem(), false) + " | null"
	case reflect.Slice, reflect.Array:
		if t.Elem().Kind() == reflect.Uint8 {
			return "string"
		}
		e := g.ts(t.Elem(), true)
		if strings.Contains(e, "|") {
			e = "(" + e + ")"
		}
		return e + "[]"
	case reflect.Map:
		return "Record<string, " + g.ts(t.Elem(), true) + ">"
	case reflect.Struct:
		return g.name(t)
	case reflect.String:
		return "string"
	case reflect.Bool:
		return "boolean"
	case reflect.Interface:
		return "unknown"
	}
	return "number"
}
