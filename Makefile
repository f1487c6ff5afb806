# Everything a fresh machine needs is done by these targets; see README.md.
PY := .venv/bin/python
PREPARE := python3 scripts/prepare.py
STATIC := src/rosy_kettle/api/static/index.html
WEB_SOURCES := $(shell find web/src web/public docs/guide docs/screenshots -type f 2>/dev/null) web/index.html web/vite.config.ts web/tsconfig.json

# Compiled once, not by every process that is started: a machine may ask for the opposite.
unexport PYTHONDONTWRITEBYTECODE

# One more than there are processors: a browser and a bench wait as often as they work.
SIDE_BY_SIDE := -n $(shell expr $$(nproc) + 1) --maxprocesses 5 --dist worksteal

.PHONY: setup wheel run demo-reset test test-fast lint types bench bench-lots bench-lists fuzz former-studio mutants prove chaos screenshots lock api-types clean

setup: .stamps/python .stamps/web $(STATIC)

.stamps/python: requirements-dev.txt pyproject.toml scripts/prepare.py
	@$(PREPARE) python
	@mkdir -p .stamps && touch $@

.stamps/web: .stamps/python web/package-lock.json
	@$(PREPARE) npm ci
	@mkdir -p .stamps && touch $@

.stamps/browser:
	@$(PREPARE) browser
	@mkdir -p .stamps && touch $@

$(STATIC): .stamps/web $(WEB_SOURCES)
	@$(PREPARE) npm run build
	@touch $@

# A wheel with the built pages inside; whoever installs it needs no Node.
wheel: setup
	@rm -rf build dist
	@.venv/bin/pip wheel --quiet --no-deps --no-build-isolation --wheel-dir dist .
	@rm -rf build
	@ls dist

run: setup
	@.venv/bin/rosy-kettle serve --seed-demo

demo-reset: setup
	@.venv/bin/rosy-kettle demo-reset

test: setup .stamps/browser
	@$(PREPARE) npm test
	@$(PY) -m pytest $(SIDE_BY_SIDE) -m "not clock"
	@$(PY) -m pytest -m clock tests

test-fast: setup
	@$(PY) -m pytest $(SIDE_BY_SIDE) -m "not clock" --ignore=tests/browser --ignore=tests/served

lint: setup
	@.venv/bin/ruff check .
	@.venv/bin/ruff format --check .
	@$(PREPARE) npm run lint
	@$(PY) scripts/check_lockfile.py

types: setup
	@.venv/bin/mypy
	@$(PREPARE) npm run types

bench: setup
	@$(PY) -m pytest tests/bench --benchmark-enable --benchmark-only --benchmark-columns=min,median,iqr,rounds

bench-lots: setup
	@$(PY) -m scripts.bench_lots

bench-lists: setup
	@$(PY) scripts/bench_lists.py

former-studio: setup
	@$(PY) -m scripts.keep_former_studio

fuzz: setup
	@$(PY) -m scripts.fuzz

mutants: setup
	@$(PY) -m scripts.mutants

prove: setup .stamps/browser
	@$(PY) -m scripts.prove

chaos: setup
	@$(PY) -m scripts.chaos

screenshots: setup .stamps/browser
	@$(PY) -m scripts.screenshots

# The two below are for developers who change dependencies or the HTTP API.
lock:
	@$(PREPARE) lock

api-types: .stamps/web
	@ROSY_KETTLE_DESCRIBING=1 $(PY) -m rosy_kettle.api.openapi > src/rosy_kettle/api/openapi.json
	@$(PREPARE) npm run api-types
	@$(PY) -m scripts.event_kinds

clean:
	rm -rf .venv .stamps web/node_modules src/rosy_kettle/api/static
