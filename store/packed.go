package store

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"errors"
	"fmt"
	"io"
)

// Journal rows are text when short and compressed when long; rows of earlier versions are text.

const packedFrom = 1 << 10 // bytes

// packed is a value as the journal keeps it: a string, or compressed bytes.
func packed(v any) (any, error) {
	text, err := json.Marshal(v)
	if err != nil || len(text) < packedFrom {
		return string(text), err
	}
	var out bytes.Buffer
	w, err := gzip.NewWriterLevel(&out, gzip.BestSpeed)
	if err != nil {
		return nil, err
	}
	if _, err := w.Write(text); err != nil {
		return nil, err
	}
	if err := w.Close(); err != nil {
		return nil, err
	}
	return out.Bytes(), nil
}

// mostUnpacked bounds what a row may grow to.
const mostUnpacked = 1 << 30

// unpacked is the text of a row.
func unpacked(row []byte) ([]byte, error) {
	if !bytes.HasPrefix(row, []byte{0x1f, 0x8b}) {
		return row, nil
	}
	r, err := gzip.NewReader(bytes.NewReader(row))
	if err != nil {
		return nil, fmt.Errorf("the row cannot be unpacked: %w", err)
	}
	out, err := io.ReadAll(io.LimitReader(r, mostUnpacked+1))
	if err == nil && len(out) > mostUnpacked {
		err = errors.New("it is larger than any act makes it")
	}
	if err != nil {
		return nil, fmt.Errorf("the row cannot be unpacked: %w", err)
	}
	return out, nil
}
