package library

import (
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/design"
)

// pinsOf packages that have several numbers of them.
var pinsOfPackages = map[string][]int{
	"SOIC": {8, 14, 16, 18, 20, 24, 28}, "SSOP": {16, 20, 24, 28}, "TSSOP": {8, 14, 16, 20, 24, 28}, "MSOP": {8, 10}, "DIP": {6, 8, 14, 16, 18, 20, 24, 28, 40},
	"SON": {6, 8, 10}, "QFP": {32, 44, 48, 64, 80, 100, 128, 144}, "QFN": {16, 20, 24, 28, 32, 40, 48, 64}, "PLCC": {20, 28, 44},
}

// PackageNamed is the body of a package by its name in the trade (0603, SOIC-8, SOT-23, SMB), or nil when the library does not have it.
func PackageNamed(name string) *design.Recipe {
	for _, c := range chips {
		if c.name == name {
			return chipOf(name, "RES", min(c.width*0.6, 0.6), false)
		}
	}
	if name == "0805 diode" {
		return chipOf("0805", "LED", 0.8, true)
	}
	if name == "SMA" {
		return mouldedOf("DIO", true, 4.8, 5.28, 2.29, 2.79, 0.76, 1.52, 1.27, 1.63, 1.98, 2.42)
	}
	for _, p := range flatDiodes() {
		if p.name == name {
			return p.r
		}
	}
	if r := sot(name); r != nil {
		return r
	}
	if at := strings.LastIndexByte(name, '-'); at > 0 {
		if n, err := strconv.Atoi(name[at+1:]); err == nil && slices.Contains(pinsOfPackages[name[:at]], n) {
			return packs(n, name[:at])[0].r
		}
	}
	return nil
}
