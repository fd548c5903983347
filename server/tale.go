package server

import (
	"crypto/rand"
	"log/slog"
)

// tale is what was told of the project since it was opened, numbered, as far back as there is room: a tab
// whose connection broke hears what it missed instead of everything.
type tale struct {
	run  string // names this opening; the numbers mean nothing in another
	last int64  // number of the last message
	told [][]byte
	size int
}

// mostTold bounds what is kept, in bytes.
const mostTold = 16 << 20

func newTale() tale { return tale{run: rand.Text()} }

// add keeps an encoded message under the next number.
func (t *tale) add(data []byte) {
	t.last++
	t.told = append(t.told, data)
	t.size += len(data)
	for t.size > mostTold && len(t.told) > 0 {
		t.size -= len(t.told[0])
		t.told = t.told[1:]
	}
}

// since are the messages after a number of the run; false when they are not all there any more.
func (t *tale) since(run string, number int64) ([][]byte, bool) {
	first := t.last - int64(len(t.told)) // the one before the first that is kept
	if run != t.run || number < first || number > t.last {
		return nil, false
	}
	return t.told[number-first:], true
}

// relate tells everybody something that belongs to the project as tabs hold it, and keeps it for those
// whose connection is broken.
func (p *project) relate(m any) {
	data, err := encodeAt(m, p.tale.last+1)
	if err != nil {
		slog.Error("a message cannot be written", "error", err)
		return
	}
	p.tale.add(data)
	for c := range p.clients {
		c.send(data)
	}
}

// welcome tells a tab what it needs: what it missed, if it had the project before, or everything but what
// it was sent already.
func (p *project) welcome(c *client, run string, number int64, had *early) {
	missed, ok := p.tale.since(run, number)
	if !ok || c.looks || had != nil {
		p.handOver(c, had)
		return
	}
	c.tell(Again{History: ptr(p.historyOf(c)), People: p.peopleSeenBy(c), Jobs: p.jobs.list()})
	for _, data := range missed {
		c.send(data)
	}
}
