package route

// pages holds a great many things by number of which few are there: room for them is made a page at a time, so that a search in a corner of a
// large board costs what that corner does.
type pages[T any] []*[pageSize]*T

const pageSize = 256

func newPages[T any](most int) pages[T] { return make(pages[T], (most+pageSize-1)/pageSize) }

// at is the thing of a number; nil: there is none.
func (p pages[T]) at(k int32) *T {
	page := p[k/pageSize]
	if page == nil {
		return nil
	}
	return page[k%pageSize]
}

func (p pages[T]) put(k int32, t *T) {
	page := p[k/pageSize]
	if page == nil {
		page = new([pageSize]*T)
		p[k/pageSize] = page
	}
	page[k%pageSize] = t
}
