# The commands anyone needs. Everything is set up inside the project, in .venv.
# Debian builds its Python from profiles, one built by hand runs a tenth slower; where it can make no venv, or is
# too old, whichever comes first will do.
FIT = import ensurepip, sys; sys.exit(sys.version_info < (3, 11))
PYTHON ?= $(shell /usr/bin/python3 -c '$(FIT)' 2>/dev/null && echo /usr/bin/python3 || echo python3)
PORT ?= $(or $(LAMSIK_PORT),5151)
BIN = .venv/bin
.DEFAULT_GOAL = help
# The program is started many times by its tests: without its bytecode kept each start compiles all of it.
unexport PYTHONDONTWRITEBYTECODE
.PHONY: help demo run ready test lint bench proof torture shots vendor format clean debian-needs

help:  ## show this list
	@grep -hE '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/^([a-z-]+):.*## /  make \1\t/' | expand -t 18

# Every version is pinned, what others need too: nothing is looked for, and what is never run is not compiled.
INSTALL = $(BIN)/python -m pip install --quiet --disable-pip-version-check --no-deps --no-compile

.venv/.begun:
	@$(PYTHON) -c 'import sys; sys.exit("Python 3.11 or newer is needed; this is " + sys.version.split()[0]) if sys.version_info < (3, 11) else None'
	$(PYTHON) -m venv .venv
	@touch $@

.venv/.made: requirements.txt pyproject.toml .venv/.begun
	$(INSTALL) -r requirements.txt
	$(INSTALL) --no-build-isolation -e .
	@touch $@

.venv/.made-dev: requirements-dev.txt .venv/.begun
	$(INSTALL) -r requirements-dev.txt
	@touch $@

demo: .venv/.made  ## start with fresh demo data at 127.0.0.1, port from LAMSIK_PORT (5151)
	$(BIN)/lamsik demo --port $(PORT)

run: .venv/.made  ## start on the shop's own data (LAMSIK_HOME, else ./instance)
	$(BIN)/lamsik run --port $(PORT)

debian-needs:
	@sh scripts/debian-needs.sh

# What several processes would each compile for themselves is compiled once, while Debian's packages come.
NEVER_RUN = /(tests?|testing|mypyc?|typeshed|pip|setuptools|pygments|networkx|grimp|pyphen|importlinter)/
ROOMS = tests/web tests/browser tests/cli

.venv/.compiled: .venv/.made .venv/.made-dev
	@$(BIN)/python -m compileall -q -j 2 -x '$(NEVER_RUN)' .venv/lib/python3*/site-packages >/dev/null || true
	@$(BIN)/python -m compileall -q -j 2 src
	@{ $(BIN)/python -m pytest --collect-only $(ROOMS) & \
	  $(BIN)/python -m pytest --collect-only $(ROOMS:%=--ignore=%); wait; } >/dev/null
	@touch $@

ready:  # all that the tools need, the parts of it side by side
	@$(MAKE) --no-print-directory -j 3 .venv/.made .venv/.made-dev debian-needs

test:  ## the whole suite, browser tests included
	@$(MAKE) --no-print-directory -j 3 .venv/.compiled debian-needs
	$(BIN)/python -m compileall -q -j 2 src
	$(BIN)/python -m pytest -n 3 --dist worksteal

lint: .venv/.made .venv/.made-dev  ## style, types, layers, figures, templates, test share
	$(BIN)/ruff check src tests bench scripts
	$(BIN)/ruff format --check src tests bench scripts
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/python scripts/dead_code.py
	$(BIN)/python scripts/messages.py
	$(BIN)/python scripts/figures.py
	$(BIN)/python scripts/sentences.py
	$(BIN)/djlint --quiet --lint src/lamsik/web/templates
	$(BIN)/python scripts/format_css.py --check
	$(BIN)/python scripts/table_docs.py --check
	$(BIN)/python scripts/format_templates.py --check
	sh scripts/check-js.sh
	$(BIN)/python scripts/test_share.py

format: .venv/.made .venv/.made-dev  ## let the formatters format code, style sheets and templates
	$(BIN)/ruff check --fix --quiet src tests bench scripts
	$(BIN)/ruff format --quiet src tests bench scripts
	$(BIN)/python scripts/format_css.py
	$(BIN)/python scripts/format_templates.py
	$(BIN)/python scripts/schemas.py

bench: ready  ## the benchmark table
	$(BIN)/python -m bench

proof: .venv/.made .venv/.made-dev  ## all of what the suite runs a sample of: every recorded document, every body against booleans
	$(BIN)/python -m pytest -m proof -n 2

torture: .venv/.made .venv/.made-dev  ## kills, wild requests, many clients for a quarter of an hour; every page in every dress
	$(BIN)/python -m bench.torture
	$(BIN)/python -m pytest -m proof -n 2 tests/browser/test_screens.py

shots: ready  ## renew docs/screenshots from the demo data
	PYTHONPATH=. $(BIN)/python scripts/shots.py

vendor:  ## renew static/vendor from npm packages
	sh scripts/vendor.sh

clean:  ## remove what was set up
	rm -rf .venv .mypy_cache .ruff_cache .pytest_cache build
