# Two commands matter: `make demo` and `make test`. Both set up everything they need.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
NPM := npm --prefix frontend
PORT ?= 8400

FRONT_SOURCES := $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts
STATIC := src/entrick/web/static/index.html

UV := uv==0.13.9

# Tests run on every processor; what numpy works out in one of them takes one.
export OPENBLAS_NUM_THREADS := 1

# Dozens of processes are started by the tests, and each would compile everything anew.
unexport PYTHONDONTWRITEBYTECODE

.PHONY: demo test test-deep check check-core check-front bench fuzz crash load soak build types docs lock screenshots clean

demo: $(VENV)/.ready $(STATIC)
	$(BIN)/entrick serve --demo --port $(PORT) --database var/demo.db

# Every test, each property on a few examples.
test: $(VENV)/.dev $(STATIC) build/.browser
	$(NPM) test
	$(BIN)/pytest -n 2 --dist worksteal $(ARGS)

# The same tests, each property on many examples, new ones every time: for a night.
test-deep: $(VENV)/.dev $(STATIC) build/.browser
	$(NPM) test
	ENTRICK_TESTS=deep $(BIN)/pytest -n 2 --dist worksteal $(ARGS)

check: check-core check-front

check-core: $(VENV)/.dev
	$(BIN)/ruff format --check src tests bench
	$(BIN)/ruff check src tests bench
	$(BIN)/mypy
	$(BIN)/lint-imports
	! git grep -nE "[0-9]e-[0-9]" -- "src/entrick/core/*.py" ":!src/entrick/core/tolerance.py"  # a tolerance has a name
	! git grep -n "fmt: skip" -- "*.py"  # one thing on a line
	$(BIN)/python -m entrick.web.openapi frontend/openapi.json --check

check-front: frontend/node_modules/.ready
	$(NPM) run check

bench: $(VENV)/.dev $(STATIC) build/.browser
	$(BIN)/python -m bench
	$(BIN)/python -m bench.looking

# Random plans through every way out: FUZZ_SECONDS, by a seed that is printed.
FUZZ_SECONDS ?= 60
fuzz: $(VENV)/.dev
	$(BIN)/python tests/fuzz --seconds $(FUZZ_SECONDS) $(ARGS)

# A served desk is killed in the middle of saving, again and again: nothing acknowledged may be lost.
KILLS ?= 200
crash: $(VENV)/.dev $(STATIC)
	$(BIN)/python tests/crash.py --kills $(KILLS)
	$(BIN)/python tests/crash.py --kills $(KILLS) --server

# Many at the desk at once, and the heaviest work there is: latencies and memory.
load: $(VENV)/.dev $(STATIC)
	$(BIN)/python -m bench.load
	$(BIN)/python -m bench.office

# Thousands of edits at one desk: whether its memory stays as it was.
soak: $(VENV)/.dev $(STATIC)
	$(BIN)/python -m bench.soak

build: $(STATIC)

types: $(VENV)/.dev frontend/node_modules/.ready
	$(BIN)/python -m entrick.web.openapi frontend/openapi.json
	$(NPM) run types

# The guide to the plan language, from what the kinds declare.
docs: $(VENV)/.dev
	$(BIN)/entrick handbook -o docs/plan-language.md

lock: $(VENV)/.dev
	$(BIN)/uv pip compile -q --generate-hashes --no-emit-index-url --no-header pyproject.toml -o requirements.lock
	$(BIN)/uv pip compile -q --generate-hashes --no-emit-index-url --no-header --extra dev -c requirements.lock pyproject.toml -o requirements-dev.lock

screenshots: $(VENV)/.dev $(STATIC) build/.browser
	$(BIN)/python -m bench.screenshots docs/screenshots

$(VENV)/.ready: requirements.lock pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(BIN)/pip install -q $(UV)
	$(BIN)/uv pip install -q --python $(BIN)/python --require-hashes -r requirements.lock
	$(BIN)/uv pip install -q --python $(BIN)/python --no-deps -e .
	touch $@

$(VENV)/.dev: $(VENV)/.ready requirements-dev.lock
	$(BIN)/uv pip install -q --python $(BIN)/python --require-hashes -r requirements-dev.lock
	touch $@

frontend/node_modules/.ready: frontend/package-lock.json
	$(NPM) ci --no-audit --no-fund
	touch $@

$(STATIC): frontend/node_modules/.ready $(FRONT_SOURCES) src/entrick/fonts/routed-gothic.ttf
	$(NPM) run build
	touch $@

# The browser of the tests and their database server come from Debian.
build/.browser:
	mkdir -p build
	command -v chromium >/dev/null || { apt-get update -q && apt-get install -yq --no-install-recommends chromium; }
	ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || { apt-get update -q && apt-get install -yq --no-install-recommends postgresql; }
	touch $@

clean:
	rm -rf $(VENV) build frontend/node_modules src/entrick/web/static
