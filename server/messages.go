package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/paper"
	"goldentrace/core/question"
	"goldentrace/core/reading"
	"goldentrace/core/workbench"
)

// Messages to browsers. Each kind is a struct; on the wire its name stands in t.
type (
	// Opened begins to hand a project over: its objects come in parcels, those of the stage in view in this
	// first one, others in those that follow, and at last what follows from them.
	Opened struct {
		Looks   bool     `json:"looks,omitempty"` // the project is shown and not changed
		Rev     int64    `json:"rev"`
		Name    string   `json:"name"`
		Missing []string `json:"missing,omitempty"`
		Parcel
	}
	// More is a further parcel.
	More struct {
		Parcel
	}
	// Ready ends what Opened began. Messages that change what tabs hold have numbers, which a tab whose
	// connection broke names with the run to hear what it missed.
	Ready struct {
		Run     string           `json:"run"`
		Seq     int64            `json:"seq"` // of the last numbered message before it
		Derived *workbench.Delta `json:"derived"`
		History *History         `json:"history"`
		Handoff *HandoffState    `json:"handoff,omitempty"`
		People  []Person         `json:"people"`
		Jobs    []JobState       `json:"jobs,omitempty"`
	}
	// Again greets a tab that has the project already; what it missed follows.
	Again struct {
		History *History   `json:"history"`
		People  []Person   `json:"people"`
		Jobs    []JobState `json:"jobs,omitempty"`
	}
	// Changed is an act that was kept.
	Changed struct {
		Seq     int64          `json:"seq,omitempty"`
		Rev     int64          `json:"rev"`
		Act     string         `json:"act"`
		Changes []ObjectChange `json:"changes"`
		Drawn   []paper.Drawn  `json:"drawn,omitempty"`
		// Patterns of footprints that changed.
		Patterns []layout.Pattern `json:"patterns,omitempty"`
		// Texts in outline fonts that changed.
		Texts []layout.Lettered `json:"texts,omitempty"`
	}
	// Derived is what follows from what was kept.
	Derived struct {
		Seq     int64            `json:"seq,omitempty"`
		Derived *workbench.Delta `json:"derived"`
	}
	// Told is what the person can undo and redo.
	Told struct {
		History *History `json:"history"`
	}
	// Done answers an act that was kept, or anything else that is done.
	Done struct {
		Ref  string `json:"ref"`
		Rev  int64  `json:"rev,omitempty"`
		Over string `json:"over,omitempty"` // what of another's the edit replaced
		Said string `json:"said,omitempty"` // what else has to be told of what it did
		Lost bool   `json:"lost,omitempty"` // what is said tells of a loss
		Took *Took  `json:"took,omitempty"` // what an undo or a redo did
	}
	// Refused answers what was not done.
	Refused struct {
		Ref string `json:"ref"`
		Why string `json:"why"`
	}
	// Asks answers an edit that would join or part nets nobody agreed to.
	Asks struct {
		Ref     string          `json:"ref"`
		Why     string          `json:"why"`
		Outcome circuit.Outcome `json:"outcome"`
	}
	// Answered answers a question; see Questions for what of which type.
	Answered struct {
		Ref    string `json:"ref"`
		Answer any    `json:"answer"`
	}
	// Renamed is the project's new name.
	Renamed struct {
		Seq  int64  `json:"seq,omitempty"`
		Name string `json:"name"`
	}
	// HandedOff are the files that were made last.
	HandedOff struct {
		Seq     int64         `json:"seq,omitempty"`
		Handoff *HandoffState `json:"handoff"`
	}
	// Job tells how long work is getting on.
	Job struct {
		Job JobState `json:"job"`
	}
	// Picked is what somebody in the project picked: oneself in another window, or with Who another person.
	Picked struct {
		Who    string  `json:"who,omitempty"`
		Shared *Shared `json:"shared"`
	}
	// Present are those who are in the project.
	Present struct {
		People []Person `json:"people"`
	}
	// Broken says why the project cannot go on.
	Broken struct {
		Why string `json:"why"`
	}
	// Gone says that the project was removed.
	Gone struct{}
)

// ObjectChange is an object as it is now; none: it is gone.
type ObjectChange struct {
	Kind  design.Kind     `json:"kind"`
	ID    design.ID       `json:"id"`
	After json.RawMessage `json:"after,omitempty"`
}

// messages by the name they bear on the wire.
var messages = map[string]reflect.Type{
	"open": reflect.TypeFor[Opened](), "more": reflect.TypeFor[More](), "ready": reflect.TypeFor[Ready](), "again": reflect.TypeFor[Again](), "changes": reflect.TypeFor[Changed](), "derived": reflect.TypeFor[Derived](), "history": reflect.TypeFor[Told](),
	"done": reflect.TypeFor[Done](), "refused": reflect.TypeFor[Refused](), "asks": reflect.TypeFor[Asks](), "answer": reflect.TypeFor[Answered](),
	"name": reflect.TypeFor[Renamed](), "handoff": reflect.TypeFor[HandedOff](), "job": reflect.TypeFor[Job](), "shared": reflect.TypeFor[Picked](),
	"people": reflect.TypeFor[Present](), "broken": reflect.TypeFor[Broken](), "gone": reflect.TypeFor[Gone](),
}

var messageNames = func() map[reflect.Type]string {
	out := map[reflect.Type]string{}
	for name, t := range messages {
		out[t] = name
	}
	return out
}()

// Messages are the names of all messages to browsers, with their types.
func Messages() (names []string, types map[string]reflect.Type) {
	return slices.Sorted(maps.Keys(messages)), messages
}

// encode writes a message. One that cannot be written is a fault of ours.
func encode(m any) ([]byte, error) { return encodeAt(m, 0) }

// encodeAt writes a message with its number; 0: it has none.
func encodeAt(m any, number int64) ([]byte, error) {
	name, ok := messageNames[reflect.TypeOf(m)]
	if !ok {
		return nil, fmt.Errorf("%T is not a message", m)
	}
	body, err := json.Marshal(m)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	out.Grow(len(body) + len(name) + 8)
	out.WriteString(`{"t":"` + name + `"`)
	if number > 0 {
		out.WriteString(`,"seq":` + strconv.FormatInt(number, 10))
	}
	if len(body) > 2 {
		out.WriteByte(',')
	}
	out.Write(body[1:])
	return out.Bytes(), nil
}

// Took is what an undo took back, or a redo did again.
type Took struct {
	Act string `json:"act"` // that was taken back
	edit.Recount
}

// Request comes from a browser. T: edit (Cmd, Agreed, Rev), undo, redo, ask (Question), share (Shared),
// person (Text), check, giveUp (Job), shown (the stage in view is; nothing is answered).
type Request struct {
	T        string           `json:"t"`
	Ref      string           `json:"ref"`
	Rev      int64            `json:"rev,omitempty"` // the revision the browser had when it asked
	Cmd      json.RawMessage  `json:"cmd,omitempty"`
	Agreed   *circuit.Outcome `json:"agreed,omitempty"`
	Question json.RawMessage  `json:"question,omitempty"` // with its kind
	Text     string           `json:"text,omitempty"`
	Shared   *Shared          `json:"shared,omitempty"`
	Job      string           `json:"job,omitempty"`
}

// Shared is what somebody in the project picked or put in the light; everybody else there
// sees it.
type Shared struct {
	Parts []circuit.PartRef `json:"parts"`
	Net   string            `json:"net"`
}

// answerTo answers a question.
func (p *project) answerTo(body []byte) (any, error) {
	var head struct {
		Kind string `json:"kind"`
	}
	if err := json.Unmarshal(body, &head); err != nil {
		return nil, fmt.Errorf("the question cannot be read: %w", reading.Wrong(err))
	}
	return question.Answer(head.Kind, body, p.bench)
}
