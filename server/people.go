package server

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"goldentrace/store"
)

// Person is somebody in the project as the others see them.
type Person struct {
	Who  string `json:"who"`  // tells them apart
	Name string `json:"name"` // empty: they did not say
	You  bool   `json:"you,omitempty"`
	Tabs int    `json:"tabs"`
	key  string
}

// peopleSeenBy lists who is in the project, each once, oneself first.
func (p *project) peopleSeenBy(me *client) []Person {
	by := map[string]*Person{}
	for c := range p.clients {
		key := c.author.ID
		if by[key] == nil {
			by[key] = &Person{Who: who(key), Name: c.author.Name, You: key == me.author.ID, key: key}
		}
		by[key].Tabs++
	}
	out := make([]Person, 0, len(by))
	for _, x := range by {
		out = append(out, *x)
	}
	slices.SortFunc(out, func(a, b Person) int {
		if a.You != b.You {
			if a.You {
				return -1
			}
			return 1
		}
		return cmp.Or(cmp.Compare(a.Name, b.Name), cmp.Compare(a.key, b.key))
	})
	return out
}

// greet tells everybody who is in the project now.
func (p *project) greet() {
	here := []string{}
	for _, x := range p.peopleSeenBy(&client{}) {
		here = append(here, x.Name)
	}
	p.here.Store(&here)
	for c := range p.clients {
		c.tell(Present{p.peopleSeenBy(c)})
	}
}

var personID = regexp.MustCompile(`^[A-Za-z0-9_-]{1,40}$`)

// author checks who somebody says they are.
func author(id, name string) (store.Author, error) {
	if !personID.MatchString(id) {
		return store.Author{}, fmt.Errorf("a browser names itself with up to 40 letters and digits")
	}
	name = strings.TrimSpace(name)
	if utf8.RuneCountInString(name) > 40 || !utf8.ValidString(name) || strings.ContainsFunc(name, unicode.IsControl) {
		return store.Author{}, fmt.Errorf("a person's name has at most 40 letters and no line breaks")
	}
	return store.Author{ID: id, Name: name}, nil
}

// who is the part of a browser's name for itself that others are told.
func who(id string) string { return id[:min(8, len(id))] }

// share tells what somebody picked: their own other windows take it over, others see it.
func (p *project) share(from *client, s *Shared) {
	if s == nil || len(s.Parts) > 10_000 || len(s.Net) > 400 {
		return
	}
	p.shares[from.author.ID] = s
	own, theirs := shareMessages(from.author.ID, s)
	for c := range p.clients {
		switch {
		case c == from:
		case c.author.ID == from.author.ID:
			c.send(own)
		default:
			c.send(theirs)
		}
	}
}

// shareMessages is what somebody picked as their own other windows are told, and as others are.
func shareMessages(from string, s *Shared) (own, theirs []byte) {
	own, _ = encode(Picked{Shared: s}) // ids and names always can be
	theirs, _ = encode(Picked{Shared: s, Who: who(from)})
	return own, theirs
}

// showShares tells somebody who comes what those who are here have picked.
func (p *project) showShares(c *client) {
	for from, s := range p.shares {
		own, theirs := shareMessages(from, s)
		if c.author.ID == from {
			c.send(own)
		} else {
			c.send(theirs)
		}
	}
}

// forgetShare drops what somebody picked when their last window has gone.
func (p *project) forgetShare(id string) {
	for c := range p.clients {
		if c.author.ID == id {
			return
		}
	}
	delete(p.shares, id)
}
