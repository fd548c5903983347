// Package ampacity says how wide tracks are to be for the current they carry, and what they resist.
// Lengths are nanometres, currents amperes, temperatures kelvins or degrees Celsius.
package ampacity

import "math"

// mil in nanometres.
const mil = 25_400

// Width is how wide a track is to be so that a current warms it by no more than so much above its surroundings:
// I = k · ΔT^0.44 · A^0.725 with A in square mils and k = 0.048 outside, 0.024 inside the board.
//
// Source: IPC-2221, section 6.2 and its charts. They end at 35 A, 100 K and 400 mil; beyond them it goes on.
func Width(current, rise float64, thickness int64, inner bool) int64 {
	if current <= 0 || rise <= 0 || thickness <= 0 {
		return 0
	}
	area := math.Pow(current/(factor(inner)*math.Pow(rise, 0.44)), 1/0.725) // mil²
	return int64(math.Ceil(area * mil * mil / float64(thickness)))
}

// Current is what warms a track of the width by so much: Width the other way round.
func Current(width int64, rise float64, thickness int64, inner bool) float64 {
	if width <= 0 || rise <= 0 || thickness <= 0 {
		return 0
	}
	area := float64(width) * float64(thickness) / (mil * mil)
	return factor(inner) * math.Pow(rise, 0.44) * math.Pow(area, 0.725)
}

func factor(inner bool) float64 {
	if inner {
		return 0.024
	}
	return 0.048
}

// Resistance of copper in ohms, at a temperature in degrees Celsius: ρ(T) = 1.724·10⁻⁸ Ωm · (1 + 0.00393 · (T − 20 °C)).
//
// Source: IEC 60028, the standard of resistance for copper.
func Resistance(length, width, thickness int64, celsius float64) float64 {
	if width <= 0 || thickness <= 0 {
		return 0
	}
	rho := 1.724e-8 * (1 + 0.00393*(celsius-20))
	return rho * float64(length) / 1e9 / (float64(width) / 1e9 * float64(thickness) / 1e9)
}
