// Package reading says in plain words what is wrong with JSON that cannot be read: for people, who did not write it.
package reading

import (
	"encoding/json"
	"errors"
	"io"
	"strings"
)

// Wrong is the error of encoding/json in words: neither types nor fields of a program stand in it. Other errors stay what they are.
func Wrong(err error) error {
	var kind *json.UnmarshalTypeError
	var syntax *json.SyntaxError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &kind):
		return errors.New(given(kind.Value) + " stands where it cannot be read")
	case errors.As(err, &syntax), errors.Is(err, io.ErrUnexpectedEOF), errors.Is(err, io.EOF):
		return errors.New("it is not well-formed, or was cut short")
	case strings.HasPrefix(err.Error(), "json: unknown field"):
		return errors.New("it says something that this version does not know")
	case strings.HasPrefix(err.Error(), "json:"):
		return errors.New("it is not well-formed")
	}
	return err
}

// InFile is Wrong for files that people write by hand: it names the field as it stands in the file.
func InFile(err error) error {
	var kind *json.UnmarshalTypeError
	if errors.As(err, &kind) && kind.Field != "" {
		return errors.New(given(kind.Value) + " stands at " + kind.Field + ", where it cannot be read")
	}
	if err != nil {
		if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
			return errors.New("it says " + name + ", which this version does not know")
		}
	}
	return Wrong(err)
}

// given is what stood there; value is the decoder's word for it, as "number 12.5".
func given(value string) string {
	word, rest, _ := strings.Cut(value, " ")
	switch {
	case word == "number" && rest != "":
		return "the number " + rest
	case word == "string":
		return "a text"
	case word == "bool":
		return "a yes or no"
	case word == "array":
		return "a list"
	case word == "object":
		return "a group"
	}
	return "a " + word
}
