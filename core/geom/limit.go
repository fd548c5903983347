package geom

import "math"

// Slack is how much a measure may fall short of a limit and still keep it, in nanometres.
//
// It is the one rounding rule of the house. Places are whole nanometres: a point of a part at
// an odd angle lies up to √½ = 0.71 nm from its exact place, so the distance of two such points
// is up to 1.42 nm short; a radius is half a width rounded down, up to 0.5 nm short for each of
// two shapes. What is drawn exactly at its limit therefore measures up to 2.42 nm less.
const Slack = 3

// Short tells whether a measure breaks its limit: it is less by more than Slack.
func Short(measure float64, limit int64) bool { return measure < float64(limit-Slack) }

// Measured is a measure as it is told, in whole nanometres, halves upwards.
func Measured(measure float64) int64 { return int64(math.Floor(measure + 0.5)) }
