package workbench

import (
	"cmp"
	"maps"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// first is what takes longest to find of a design, from scratch.
type first struct {
	nets       *circuit.Nets
	electrical *circuit.Erc
	index      *layout.Index
	rules      *rules.Set
	check      *check.Board // nil: it is left to be done beside
	links      map[design.ID]*layout.NetLinks
	bare       []check.End                  // ends of tracks at which no copper is
	corners    map[check.Joint]check.Corner // those that are sharp
	loops      []layout.Loop
}

// found finds it on all processors: the circuit's side on one, the copper on another; what follows from the copper is shared out in pieces.
// Nothing of it changes the document, nor the index once it is made. The check of a large board is left out if somebody does it later.
func found(d *design.Doc, print *uint64, later bool) (f first) {
	var fault atomic.Pointer[any]
	guarded := func(work func()) {
		defer func() {
			if why := recover(); why != nil {
				fault.CompareAndSwap(nil, &why)
			}
		}()
		work()
	}
	var work sync.WaitGroup
	ready := make(chan []func(), 1) // what follows from the copper; nil if that failed
	var next atomic.Int64
	take := func(tasks []func()) {
		for i := next.Add(1) - 1; int(i) < len(tasks); i = next.Add(1) - 1 {
			tasks[i]()
		}
	}
	work.Go(func() {
		defer guarded(func() { // whatever became of the circuit
			tasks := <-ready
			ready <- tasks
			take(tasks)
		})
		guarded(func() {
			f.nets = circuit.Find(d)
			f.electrical = circuit.NewErc()
			f.electrical.Fill(d, f.nets)
			for o := range d.All() {
				*print ^= design.PrintOf(o)
			}
		})
	})
	var tasks []func()
	guarded(func() {
		f.index, f.rules = layout.NewIndex(d), rules.Of(d)
		tasks = f.ofCopper(d, later)
	})
	ready <- tasks
	for range runtime.GOMAXPROCS(0) - 1 {
		work.Go(func() { guarded(func() { take(tasks) }) })
	}
	work.Wait()
	if why := fault.Load(); why != nil {
		panic(*why)
	}
	return f
}

// ofCopper are the pieces of work that follow from the copper, the largest first; they may be done at the same time.
func (f *first) ofCopper(d *design.Doc, later bool) (tasks []func()) {
	if !later || f.index.Len() <= mostAtOnce {
		tasks = append(tasks, func() { f.check = check.NewBoard(d, f.index, f.rules) })
	}
	nets := f.index.Nets()
	size := map[design.ID]int{}
	for _, net := range nets {
		size[net] = len(f.index.ObjectsOf(net))
	}
	slices.SortFunc(nets, func(a, b design.ID) int { return cmp.Or(cmp.Compare(size[b], size[a]), cmp.Compare(a, b)) })
	f.links = map[design.ID]*layout.NetLinks{}
	var mu sync.Mutex
	for _, net := range nets {
		links := layout.NewNetLinks(net)
		f.links[net] = links
		tasks = append(tasks, func() {
			links.Update(f.index, maps.Keys(f.index.ObjectsOf(net)))
			loops, _ := links.Loops(slices.Collect(maps.Keys(f.index.ObjectsOf(net))))
			mu.Lock()
			defer mu.Unlock()
			f.loops = append(f.loops, loops...)
		})
	}
	f.corners = map[check.Joint]check.Corner{}
	tasks = append(tasks, func() {
		for _, j := range check.Joints(d) {
			if c, is := check.Sharp(f.index, j); is {
				f.corners[j] = c
			}
		}
	})
	const some = 4_000
	for list := range slices.Chunk(slices.Collect(maps.Keys(d.Tracks)), some) {
		tasks = append(tasks, func() {
			bare := check.Bare(d, f.index, list)
			mu.Lock()
			defer mu.Unlock()
			f.bare = append(f.bare, bare...)
		})
	}
	return tasks
}
