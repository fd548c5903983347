package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/typeface"
)

// Texts and figures on the board.

// AddLegend puts a text on the board.
type AddLegend struct {
	At     geom.Point     `json:"at"`
	Angle  int32          `json:"angle,omitempty"`
	Bottom bool           `json:"bottom,omitempty"`
	Height int64          `json:"height"`
	Text   string         `json:"text"`
	On     string         `json:"on,omitempty"`
	Layer  design.LayerID `json:"layer,omitempty"` // of copper; 0: the outer one of the side
	Font   string         `json:"font,omitempty"`
	Face   design.ID      `json:"face,omitempty"`
	Stroke int64          `json:"stroke,omitempty"`
	Apart  int64          `json:"apart,omitempty"`
}

// Apply the command.
func (c *AddLegend) Apply(tx *Tx) error {
	return tx.putLegend(&design.Legend{ID: tx.Doc.NewID(), At: c.At, Angle: c.Angle, Bottom: c.Bottom, Height: c.Height, Text: c.Text,
		On: c.On, Layer: tx.layerOf(c.On, c.Layer, c.Bottom), Font: c.Font, Face: c.Face, Stroke: c.Stroke, Apart: c.Apart})
}

// layerOf is the copper layer of something drawn; on copper and none: the outer one of its side.
func (tx *Tx) layerOf(on string, layer design.LayerID, bottom bool) design.LayerID {
	switch {
	case on != design.OnCopper:
		return 0
	case layer != 0:
		return layer
	case bottom:
		return tx.Doc.Board.Bottom()
	}
	return tx.Doc.Board.Top()
}

// putLegend stores a text that can be set.
func (tx *Tx) putLegend(l *design.Legend) error {
	if err := l.Valid(); err != nil {
		return err
	}
	if err := tx.Doc.Refers(l); err != nil {
		return err
	}
	if l.Font != design.Strokes && len(layout.TextRings(tx.Doc.Asset, l)) == 0 {
		return fmt.Errorf("the text %q has nothing to draw in that font", l.Text)
	}
	return tx.Put(l)
}

// SetLegend changes texts on the board; nil fields stay.
type SetLegend struct {
	IDs    []design.ID     `json:"ids"`
	Text   *string         `json:"text,omitempty"`
	Height *int64          `json:"height,omitempty"`
	Bottom *bool           `json:"bottom,omitempty"`
	On     *string         `json:"on,omitempty"`
	Layer  *design.LayerID `json:"layer,omitempty"`
	Font   *string         `json:"font,omitempty"`
	Face   *design.ID      `json:"face,omitempty"`
	Stroke *int64          `json:"stroke,omitempty"`
	Apart  *int64          `json:"apart,omitempty"`
}

// Apply the command.
func (c *SetLegend) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		old, err := get(tx.Doc.Legends, id, "text")
		if err != nil {
			return err
		}
		if old.Locked {
			return fmt.Errorf("the text %q is locked; unlock it first", old.Text)
		}
		l := *old
		set(&l.Text, c.Text)
		set(&l.Height, c.Height)
		set(&l.Bottom, c.Bottom)
		set(&l.On, c.On)
		set(&l.Layer, c.Layer)
		set(&l.Font, c.Font)
		set(&l.Face, c.Face)
		set(&l.Stroke, c.Stroke)
		set(&l.Apart, c.Apart)
		if l.Font != design.Own {
			l.Face = 0
		}
		l.Layer = tx.layerOf(l.On, l.Layer, l.Bottom)
		if err := tx.putLegend(&l); err != nil {
			return err
		}
		tx.sweepFont(old.Face)
	}
	return nil
}

// sweepFont removes a font of the project once no text is set in it any more.
func (tx *Tx) sweepFont(face design.ID) {
	if face == 0 {
		return
	}
	for l := range tx.Doc.Legends.All() {
		if l.Face == face {
			return
		}
	}
	if a := tx.Doc.Assets[face]; a != nil {
		tx.Remove(a)
	}
}

// AddFont keeps an outline font's file in the project, and sets texts in it.
type AddFont struct {
	Name string      `json:"name"`
	Data []byte      `json:"data"`
	IDs  []design.ID `json:"ids,omitempty"`
}

// Apply the command.
func (c *AddFont) Apply(tx *Tx) error {
	a, err := fontAsset(c.Name, c.Data)
	if err != nil {
		return err
	}
	a.ID = tx.Doc.NewID()
	if err := tx.Put(a); err != nil {
		return err
	}
	if len(c.IDs) == 0 {
		return nil
	}
	return (&SetLegend{IDs: c.IDs, Font: new(design.Own), Face: &a.ID}).Apply(tx)
}

// fontAsset reads a font's file.
func fontAsset(name string, data []byte) (*design.Asset, error) {
	f, err := typeface.Read(name, data)
	if err != nil {
		return nil, err
	}
	return &design.Asset{Name: f.Name, Type: design.FontAsset, Data: data}, nil
}

// AddFigure draws something on the board.
type AddFigure struct {
	Name   string          `json:"name,omitempty"`
	On     string          `json:"on,omitempty"`
	Layer  design.LayerID  `json:"layer,omitempty"` // of copper; 0: the outer one of the side
	Bottom bool            `json:"bottom,omitempty"`
	Lines  [][]geom.Corner `json:"lines"`
	Closed bool            `json:"closed,omitempty"`
	Filled bool            `json:"filled,omitempty"`
	Width  int64           `json:"width,omitempty"`
	Apart  int64           `json:"apart,omitempty"`
}

// Apply the command.
func (c *AddFigure) Apply(tx *Tx) error {
	return tx.Put(&design.BoardFigure{ID: tx.Doc.NewID(), Name: c.Name, On: c.On, Layer: tx.layerOf(c.On, c.Layer, c.Bottom), Bottom: c.Bottom,
		Lines: c.Lines, Closed: c.Closed, Filled: c.Filled, Width: c.Width, Apart: c.Apart})
}

// SetFigure changes figures on the board; nil fields stay.
type SetFigure struct {
	IDs    []design.ID     `json:"ids"`
	Name   *string         `json:"name,omitempty"`
	On     *string         `json:"on,omitempty"`
	Layer  *design.LayerID `json:"layer,omitempty"`
	Bottom *bool           `json:"bottom,omitempty"`
	Closed *bool           `json:"closed,omitempty"`
	Filled *bool           `json:"filled,omitempty"`
	Width  *int64          `json:"width,omitempty"`
	Apart  *int64          `json:"apart,omitempty"`
}

// Apply the command.
func (c *SetFigure) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		old, err := get(tx.Doc.Figures, id, "figure")
		if err != nil {
			return err
		}
		if old.Locked {
			return fmt.Errorf("a figure is locked; unlock it first")
		}
		f := *old
		set(&f.Name, c.Name)
		set(&f.On, c.On)
		set(&f.Layer, c.Layer)
		set(&f.Bottom, c.Bottom)
		set(&f.Closed, c.Closed)
		set(&f.Filled, c.Filled)
		set(&f.Width, c.Width)
		set(&f.Apart, c.Apart)
		f.Closed = f.Closed || f.Filled && c.Closed == nil
		f.Layer = tx.layerOf(f.On, f.Layer, f.Bottom)
		if err := tx.Put(&f); err != nil {
			return err
		}
	}
	return nil
}
