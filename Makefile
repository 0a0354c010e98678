# Entretoile. `make demo` starts it, `make test` checks it; both set up what they need.
SHELL := /bin/bash
PORT ?= 8321
PYTHON ?= python3
DATA := $(if $(ENTRETOILE_DATA),$(ENTRETOILE_DATA),$(CURDIR)/data)
VENV := .venv
PY := $(VENV)/bin/python
MANAGE := ENTRETOILE_DATA="$(DATA)" $(PY) server/manage.py
export UV_PYTHON_DOWNLOADS = never
export UV_LINK_MODE = copy

.PHONY: demo backup restore dev count mutants test setup setup-dev web chromium lint types check-web core-tests server-tests browser-tests bench shots drawings api lock clean

demo: $(VENV)/base.stamp web/dist/built.stamp
	@ENTRETOILE_DATA="$(DATA)" $(PY) server/serve.py --port $(PORT) --demo $(if $(filter 1,$(RESET)),--reset) $(if $(filter 1,$(YES)),--yes) $(if $(filter 1,$(ANEW)),--anew)

test: $(VENV)/dev.stamp
	@$(PY) scripts/check.py

# Tools that make the rest: said plainly when missing or too old.
prerequisites.stamp:
	@bash scripts/prerequisites.sh "$(PYTHON)"
	@touch $@

$(VENV)/uv.stamp: | prerequisites.stamp
	@$(PYTHON) -m venv $(VENV)
	@$(PY) -m pip install --quiet --disable-pip-version-check uv
	@touch $@

$(VENV)/base.stamp: $(VENV)/uv.stamp requirements/base.txt
	@echo "Setting up Python packages"
	@$(VENV)/bin/uv pip install --quiet --python $(PY) --compile-bytecode --require-hashes -r requirements/base.txt
	@touch $@

$(VENV)/dev.stamp: $(VENV)/base.stamp requirements/dev.txt
	@echo "Setting up the checks"
	@$(VENV)/bin/uv pip install --quiet --python $(PY) --compile-bytecode --require-hashes -r requirements/dev.txt
	@touch $@

web/node_modules/installed.stamp: web/package.json web/package-lock.json | prerequisites.stamp
	@echo "Setting up front-end packages"
	@cd web && npm ci --silent --no-audit --no-fund
	@touch $@

web/dist/built.stamp: web/node_modules/installed.stamp web/index.html web/vite.config.ts $(shell find web/src -type f)
	@echo "Building the front end"
	@cd web && npx vite build --logLevel warn
	@touch $@

setup: $(VENV)/base.stamp web/dist/built.stamp
setup-dev: $(VENV)/dev.stamp web/dist/built.stamp chromium
web: web/dist/built.stamp

chromium:
	@bash scripts/chromium.sh

core-tests: $(VENV)/dev.stamp
	@$(PY) scripts/check.py core

server-tests: $(VENV)/dev.stamp web/dist/built.stamp
	@$(PY) scripts/check.py server

browser-tests: $(VENV)/dev.stamp web/dist/built.stamp chromium
	@$(PY) scripts/check.py browser

lint types check-web: $(VENV)/dev.stamp web/node_modules/installed.stamp
	@$(PY) scripts/check.py $@

# Vite's server with a change shown in a second, Django beside it reloading; Ctrl-C ends both.
dev: $(VENV)/base.stamp web/node_modules/installed.stamp
	@$(MANAGE) prepare
	@$(MANAGE) lantern_deck
	@trap 'kill 0' EXIT INT TERM; $(MANAGE) runserver 127.0.0.1:8322 & \
		echo "Entretoile in development is at http://127.0.0.1:5321/"; cd web && npx vite --logLevel warn

# Everything into one file, also while the program runs; and back, which puts aside what there is.
backup: $(VENV)/base.stamp
	@$(MANAGE) backup "$(FILE)"

restore: $(VENV)/base.stamp
	@$(MANAGE) restore "$(FILE)"

# How much of the code is tests.
count: $(VENV)/dev.stamp
	@$(PY) scripts/count.py

# Sixty places broken one at a time: which are not noticed.
mutants: $(VENV)/dev.stamp
	@$(PY) scripts/mutants.py

bench: $(VENV)/dev.stamp web/dist/built.stamp chromium
	@PYTHONPATH=core:server:. $(PY) -m bench

shots: $(VENV)/dev.stamp web/dist/built.stamp chromium
	@PYTHONPATH=core:server:. $(PY) -m browser_tests.shots

# The drawings in docs/theory.
drawings: $(VENV)/dev.stamp
	@PYTHONPATH=core $(PY) scripts/drawings.py

# After a change to the API: the schema and the types made from it, both committed.
api: $(VENV)/dev.stamp web/node_modules/installed.stamp
	@$(MANAGE) spectacular --file server/openapi.yaml --validate --fail-on-warn
	@cd web && npm run --silent api

lock: $(VENV)/uv.stamp
	@$(VENV)/bin/uv pip compile -q --python-version 3.11 --generate-hashes --no-emit-index-url --no-header requirements/base.in -o requirements/base.txt
	@$(VENV)/bin/uv pip compile -q --python-version 3.11 --generate-hashes --no-emit-index-url --no-header requirements/dev.in -o requirements/dev.txt

clean:
	rm -rf $(VENV) web/node_modules web/dist prerequisites.stamp .mypy_cache .ruff_cache
