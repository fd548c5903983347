# The only two commands a fresh machine needs: `make demo` and `make test`.
SHELL := /bin/bash
# SQLite with its index of words, of which the depot's books are made.
export GOFLAGS := $(GOFLAGS) -tags=sqlite_fts5
DATA ?= demo-data
ADDR ?= 127.0.0.1:8411
WEB = $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package.json

.PHONY: demo test build wire lint format bench faults pictures tools tools-build unit browser quick soak

demo: tools-build build ## the program with its demo projects
	bin/goldentrace demo --data $(DATA) --addr $(ADDR)

test: tools lint unit browser ## everything

build: bin/goldentrace

bin/goldentrace: server/web/index.html $(shell find cmd core demo server standin store -name '*.go' -o -name '*.sql') go.mod go.sum
	go build -o $@ ./cmd/goldentrace

server/web/index.html: web/node_modules/.installed $(WEB)
	go run ./tools/wiregen -check
	cd web && npm run --silent build
	touch server/web/.keep

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	touch $@

# Debian's packages that are missing are installed where that is permitted, else named.
tools-build: NEED = gcc pkg-config geos-config
tools: NEED = gcc pkg-config geos-config chromium-headless-shell
tools tools-build:
	@command -v go >/dev/null || { echo "Go is missing: install Go 1.26 or later."; exit 1; }
	@command -v npm >/dev/null || { echo "Node.js and npm are missing: install Node.js 20.19 or later."; exit 1; }
	@missing=""; for c in $(NEED); do command -v $$c >/dev/null || missing="$$missing $${c/geos-config/libgeos-dev}"; done; \
	if [ -n "$$missing" ]; then \
		if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends $$missing; \
		else echo "These packages are missing:$$missing. Install them, for instance with: sudo apt-get install$$missing"; exit 1; fi; fi

wire: ## the TypeScript types of the wire, from Go
	go run ./tools/wiregen

lint: web/node_modules/.installed
	@bad=$$(gofmt -l bench cmd core demo e2e server standin store tools); [ -z "$$bad" ] || { echo "not formatted: $$bad"; exit 1; }
	go run ./tools/wiregen -check
	go vet ./...
	go tool staticcheck ./...
	cd web && npm run --silent lint

unit: server/web/index.html
	tools/unit.sh 20261202
	cd web && npm run --silent test

CHECKS ?= 500
soak: ## the tests that draw at random, drawn anew and more often
	tools/unit.sh 0 -rapid.checks=$(CHECKS)

quick: web/node_modules/.installed ## the inner loop: what changed since BASE is linted and tested by its own tests
	tools/quick.sh $(BASE)

browser: server/web/index.html
	go test -count 1 -timeout 40m ./e2e/... # what the browser is given is no file of the tests: go would take an old outcome for this one

format:
	gofmt -w bench cmd core demo e2e server standin store tools
	cd web && npm run --silent format

bench: build ## work, size and growth, against stated references
	go test -run '^$$' -bench . -benchtime 1x ./bench/...
	go test -run '^$$' -bench . -benchtime 1x -timeout 30m ./e2e

# Small faults in one package at a time: how many do its own tests notice? Takes an hour or two; PACKAGES narrows it.
PACKAGES ?= $(shell go list ./core/... ./store/... ./server/... ./standin/... | sed 's,goldentrace/,./,')
faults:
	@for p in $(PACKAGES); do \
		ls $$p/*_test.go >/dev/null 2>&1 || { echo "$$p has no tests of its own"; continue; }; \
		echo "== $$p"; \
		go run github.com/go-gremlins/gremlins/cmd/gremlins@v0.6.0 unleash --workers 1 --timeout-coefficient 25 $$p | grep -E 'LIVED|NOT COVERED|Killed|Timed' || exit 1; \
	done

pictures: server/web/index.html ## the pictures of docs/screenshots
	GOLDENTRACE_PICTURES=$(CURDIR)/docs/screenshots go test -count 1 -run TestPictures ./e2e
