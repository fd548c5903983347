#!/bin/bash
# What changed since a commit (default: the last one) is linted and tested by its own tests: the inner loop, not the proof.
set -euo pipefail
cd "$(dirname "$0")/.."
changed=$( { git diff --name-only "${1:-HEAD}"; git ls-files --others --exclude-standard; } | sort -u | while read -r f; do [ -f "$f" ] && echo "$f"; done )
go=$(grep '\.go$' <<<"$changed" || true)
web=$(sed -n 's,^web/\(src/.*\.\(ts\|vue\)\)$,\1,p' <<<"$changed")
if [ -n "$go" ]; then
	bad=$(gofmt -l $go)
	[ -z "$bad" ] || { echo "not formatted: $bad"; exit 1; }
	packages=$(xargs -n1 dirname <<<"$go" | sort -u | sed 's,^,./,')
	go run ./tools/wiregen -check
	go vet $packages
	go test -timeout 10m $(grep -v '^\./e2e' <<<"$packages" || echo ./core/units)
fi
if [ -n "$web" ]; then
	cd web
	npx vue-tsc --noEmit
	npx eslint $web
	npx prettier --check $web
	npx vitest related --run $web
fi
