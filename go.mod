module goldentrace

go 1.26

require github.com/tidwall/rtree v1.10.0

require github.com/tidwall/geoindex v1.7.0 // indirect
