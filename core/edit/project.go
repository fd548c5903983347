package edit

// SetSettings changes what the title block and the project say; nil fields stay.
type SetSettings struct {
	Title    *string `json:"title,omitempty"`
	Number   *string `json:"number,omitempty"`
	Revision *string `json:"revision,omitempty"`
	Author   *string `json:"author,omitempty"`
	Date     *string `json:"date,omitempty"`
	Unit     *string `json:"unit,omitempty"`
}

func set[T any](to *T, from *T) {
	if from != nil {
		*to = *from
	}
}

// Apply the command.
func (c *SetSettings) Apply(tx *Tx) error {
	s := *tx.Doc.Settings
	set(&s.Title, c.Title)
	set(&s.Number, c.Number)
	set(&s.Revision, c.Revision)
	set(&s.Author, c.Author)
	set(&s.Date, c.Date)
	set(&s.Unit, c.Unit)
	if s == *tx.Doc.Settings {
		return nil
	}
	return tx.Put(&s)
}
