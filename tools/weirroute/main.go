// Command weirroute lets the router lay the tracks of the demo project Weir Gauge and writes them into demo/drawings/weir-tracks.txt, from
// where the demo lays them.
package main

import (
	"fmt"
	"os"

	"goldentrace/demo"
)

func main() {
	_, tracks, err := demo.RouteWeirGauge()
	if err == nil {
		err = os.WriteFile("demo/drawings/weir-tracks.txt", []byte(tracks), 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
