# Hollet: `make demo` starts it with demo data, `make test` passes everything. See README.md
PY := .venv/bin/python
SHELL := /bin/bash
PORT ?= 8765

.PHONY: demo demo-fresh test build setup lint types unit browser count bench house mutate api check-api shots chromium clean

demo: build
	.venv/bin/hollet demo --port $(PORT)

demo-fresh: build
	.venv/bin/hollet demo --port $(PORT) --fresh

.venv/.done: pyproject.toml
	test -x $(PY) || python3 -m venv .venv
	$(PY) -m pip install --quiet --disable-pip-version-check -e '.[dev]'
	touch $@

frontend/node_modules/.done: frontend/package-lock.json
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	touch $@

setup: .venv/.done frontend/node_modules/.done

chromium:
	test -x /usr/bin/chromium || (apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -yq --no-install-recommends chromium)

src/hollet/web/dist/index.html: frontend/node_modules/.done .venv/.done $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts
	cd frontend && npm run --silent build -- --logLevel warn

build: setup src/hollet/web/dist/index.html

# the picture of the layers in docs/architecture.md
house: setup
	$(PY) docs/house.py

# the front end's types come from the schema; check-api fails when they are stale
api: setup
	.venv/bin/hollet openapi > frontend/openapi.json
	cd frontend && npm run --silent api

check-api: setup
	.venv/bin/hollet openapi > /tmp/hollet-openapi.json
	diff -q /tmp/hollet-openapi.json frontend/openapi.json || (echo "the schema has changed: run 'make api'"; exit 1)
	cd frontend && npx --no openapi-typescript openapi.json -o /tmp/hollet-schema.ts --default-non-nullable=false >/dev/null && diff -q /tmp/hollet-schema.ts src/api/schema.ts || (echo "the types are stale: run 'make api'"; exit 1)

lint: setup
	.venv/bin/ruff check src tests bench docs
	.venv/bin/ruff format --check --quiet src tests bench docs
	.venv/bin/lint-imports
	cd frontend && npm run --silent lint

types: build
	.venv/bin/mypy
	cd frontend && npm run --silent types

unit: setup
	$(PY) -m pytest tests --ignore=tests/browser -n 2 -p no:playwright -p no:benchmark
	cd frontend && npm run --silent test

browser: build chromium
	$(PY) -m pytest tests/browser -n 2 -p no:schemathesis -p no:hypothesispytest -p no:benchmark

test: build lint types check-api unit browser count

count:
	$(PY) bench/count.py

bench: build chromium
	$(PY) -m pytest bench -p no:schemathesis -p no:playwright --benchmark-columns=min,median,max,rounds --benchmark-sort=name
	$(PY) -m bench.table

# how many of a sample of planted faults the suite sees; takes a while, not in CI
mutate: setup
	$(PY) -m bench.mutate 60

shots: build chromium
	$(PY) -m bench.shots

clean:
	rm -rf .venv frontend/node_modules src/hollet/web/dist demo-data
