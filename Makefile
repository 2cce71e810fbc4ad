# make demo: install into this folder, build, serve with demo data.   make test: everything that is checked.
PYTHON ?= python3
VENV := .venv
TOOLS := .tools
BIN := $(VENV)/bin
PORT ?= 8765
# an environment that forbids bytecode would have every start compile everything anew
unexport PYTHONDONTWRITEBYTECODE
WEB_SOURCES := $(shell find web/src web/index.html web/vite.config.ts web/tsconfig.json -type f 2>/dev/null)

.PHONY: demo serve test lint types unit web-test generated generate bench mutants setup-test screenshots clean

demo: .stamps/runtime fahrtwind/api/static/index.html
	@$(BIN)/fahrtwind serve --demo --port $(PORT)

serve: .stamps/runtime fahrtwind/api/static/index.html
	@$(BIN)/fahrtwind serve --port $(PORT)

test: setup-test lint types generated web-test unit

$(TOOLS)/bin/uv:
	$(PYTHON) -m venv $(TOOLS)
	$(TOOLS)/bin/pip -q install uv==0.13.9

$(BIN)/python:
	$(PYTHON) -m venv --without-pip $(VENV)

# the development lock holds everything the runtime lock holds, so installing one never undoes the other
.stamps/runtime: requirements.lock pyproject.toml $(TOOLS)/bin/uv | $(BIN)/python
	$(TOOLS)/bin/uv pip install -q --compile-bytecode --python $(BIN)/python --require-hashes -r requirements.lock
	$(TOOLS)/bin/uv pip install -q --python $(BIN)/python --no-deps --no-build-isolation -C editable_mode=compat -e .
	$(BIN)/python -m compileall -q fahrtwind
	@mkdir -p .stamps && touch $@

.stamps/dev: requirements-dev.lock .stamps/runtime
	$(TOOLS)/bin/uv pip install -q --compile-bytecode --python $(BIN)/python --require-hashes -r requirements-dev.lock
	@mkdir -p .stamps && touch $@

.stamps/web: web/package.json web/package-lock.json web/.npmrc
	cd web && npm ci --no-progress --loglevel=error
	@mkdir -p .stamps && touch $@

fahrtwind/api/static/index.html: .stamps/web $(WEB_SOURCES) web/src/api/schema.d.ts
	cd web && npm run -s build

# Debian's browser for the tests; nothing is fetched when it is there
setup-test: .stamps/dev fahrtwind/api/static/index.html
	@command -v chromium >/dev/null || { SUDO=$$( [ "$$(id -u)" = 0 ] || echo sudo ); \
	  $$SUDO apt-get -qq update && $$SUDO apt-get -qq install -y chromium >/dev/null; }

lint: .stamps/dev .stamps/web
	$(BIN)/ruff check -q .
	$(BIN)/ruff format -q --check .
	cd web && npm run -s lint

types: .stamps/dev .stamps/web
	$(BIN)/mypy
	cd web && npm run -s typecheck

# client types, job schema, formula and snag lists are generated: fail when they are stale
generated: .stamps/dev .stamps/web
	@$(BIN)/python -m fahrtwind.api.generate .stamps/generated
	@for f in openapi.json doors.openapi.json pages.openapi.json job.schema.json formulas.md snags.md; do \
	  cmp -s .stamps/generated/$$f docs/$$f || { echo "docs/$$f is stale: run 'make generate'"; exit 1; }; done
	@cd web && npx openapi-typescript ../docs/pages.openapi.json -o ../.stamps/generated/schema.d.ts >/dev/null 2>&1
	@cmp -s .stamps/generated/schema.d.ts web/src/api/schema.d.ts || { echo "client types are stale: run 'make generate'"; exit 1; }

generate: .stamps/dev .stamps/web
	$(BIN)/python -m fahrtwind.api.generate docs
	cd web && npm run -s types

web-test: .stamps/web
	cd web && npm run -s test

unit: setup-test
	$(BIN)/pytest -q -n 2

bench: setup-test
	$(BIN)/python -m bench

# small faults put into the core, a sample: what no test notices is printed
mutants: .stamps/dev
	$(BIN)/python -m bench.mutants

screenshots: setup-test
	$(BIN)/python -m docs.take_screenshots

clean:
	rm -rf $(VENV) $(TOOLS) .stamps web/node_modules fahrtwind/api/static
