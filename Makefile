# Deep Section. `make demo` starts it, `make test` proves it; everything else is a step of these.

# Debian's interpreter is built with its profile at hand: a fifth to a third faster here than one built without.
PYTHON ?= $(firstword $(wildcard /usr/bin/python3.13 /usr/bin/python3.12 /usr/bin/python3.11) python3)
BIN := .venv/bin
NPM := npm --prefix web
# One more than there are cores: browser tests wait much of their time.
TESTERS ?= $(shell expr $$(nproc) + 1)
CHROMIUM ?= /usr/bin/chromium
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/package.json web/vite.config.ts web/tsconfig.json

.PHONY: demo dev test soak lint types bench screenshots clean

demo: .venv/runtime web/dist/index.html ## Start the application with its demo projects and print the address
	$(BIN)/deepsection serve

dev: .venv/runtime web/node_modules/.ready deepsection/fonts/sans.ttf ## Service and front end, each reloading on change
	DEEPSECTION_LOG=info $(BIN)/deepsection serve --port 8421 & trap "kill $$!" EXIT INT TERM; $(NPM) run dev

test: lint web/dist/index.html $(CHROMIUM) ## Everything: lint, types, front end, core, formats, service, browser
	$(NPM) test
	$(BIN)/python -m pytest -n $(TESTERS) --dist loadfile --no-loadscope-reorder

soak: .venv/test deepsection/fonts/sans.ttf ## Long campaigns: random edits of every kind, every roof outline at 40 angles
	DEEPSECTION_LONG=1 $(BIN)/python -m pytest -n auto tests/service/test_kept.py tests/core tests/formats

lint: .venv/test web/node_modules/.ready ## Ruff, mypy, Biome and tsc
	$(BIN)/ruff check . && $(BIN)/ruff format --check -q .
	$(BIN)/mypy
	$(NPM) run lint
	$(NPM) run check

types: .venv/test web/node_modules/.ready ## Generate the TypeScript types from the service's OpenAPI
	$(BIN)/python scripts/openapi.py web/src/api/generated.openapi.json
	$(NPM) run types

bench: .venv/bench deepsection/fonts/sans.ttf ## The table of stages, views and edits with part counts
	$(BIN)/python -m bench $(if $(RECORD),--record)

screenshots: .venv/test web/dist/index.html $(CHROMIUM) ## Refresh docs/screenshots from the demo
	$(BIN)/python scripts/screenshots.py

clean: ## Take away what was built
	rm -rf .venv web/node_modules web/dist deepsection/fonts/*.ttf

.venv/bin/python:
	$(PYTHON) -m venv .venv || (apt-get update -q && apt-get install -y -q --no-install-recommends python3-venv \
		&& $(PYTHON) -m venv --clear .venv)

.venv/runtime: requirements.lock pyproject.toml | .venv/bin/python
	$(BIN)/pip install -q --disable-pip-version-check -r requirements.lock
	$(BIN)/pip install -q --disable-pip-version-check --no-deps -e .
	touch $@

.venv/test: requirements-test.lock .venv/runtime
	$(BIN)/pip install -q --disable-pip-version-check -r requirements-test.lock
	touch $@

.venv/bench: requirements-bench.lock .venv/test
	$(BIN)/pip install -q --disable-pip-version-check -r requirements-bench.lock
	touch $@

web/node_modules/.ready: web/package-lock.json
	$(NPM) ci --ignore-scripts --no-audit --no-fund --loglevel=error
	touch $@

deepsection/fonts/sans.ttf: scripts/build_fonts.py | .venv/runtime web/node_modules/.ready
	$(BIN)/python scripts/build_fonts.py

web/dist/index.html: $(WEB_SOURCES) deepsection/fonts/sans.ttf | web/node_modules/.ready
	$(NPM) run build --silent

$(CHROMIUM):
	apt-get update -q && apt-get install -y -q --no-install-recommends chromium
