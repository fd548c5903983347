package design

// What is held against circuit and board.

// Excuse accepts a finding for a reason. It holds as long as the finding looks as it did.
type Excuse struct {
	ID          ID     `json:"id"`
	Key         string `json:"key"`   // of the finding
	Fingerprint string `json:"print"` // what the finding was about, for comparison
	Text        string `json:"text"`  // what it said
	Reason      string `json:"reason"`
	Made        string `json:"made"` // day, ISO 8601
}

// Checks holds the severities of the electrical check where they differ from the usual
// ones: of kinds of findings, and of pairs of pin types ("input|output", in the order of
// PinTypes). Values are fault, warning and off. There is at most one, with id 3.
type Checks struct {
	ID    ID                `json:"id"`
	Kinds map[string]string `json:"kinds,omitempty"`
	Pairs map[string]string `json:"pairs,omitempty"`
}
