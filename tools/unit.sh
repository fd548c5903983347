#!/bin/bash
# The tests of Go's packages. Those that draw at random begin from a seed, so that a change is judged by what it changes:
# `tools/unit.sh 20261202` draws the same each time, `tools/unit.sh 0` anew, with flags for the latter after it (-rapid.checks=1000).
set -euo pipefail
cd "$(dirname "$0")/.."
seed=$1
shift
all=(./core/... ./store/... ./server/... ./standin/... ./demo/... ./cmd/...)
imports='{{.ImportPath}} {{.TestImports}} {{.XTestImports}}'
random=$(go list -f "$imports" "${all[@]}" | awk '/pgregory.net\/rapid/ {print $1}')
if [ "$seed" != 0 ]; then
	go test -timeout 20m $(go list "${all[@]}" | grep -vxF "$random")
fi
go test -timeout 60m $random -rapid.seed="$seed" "$@"
