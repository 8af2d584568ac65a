# `make demo` and `make test` do everything on a fresh machine with Python 3.11, pip and make.

PYTHON ?= python3
MINUTES ?= 10
CHECK_PYTHON = import sys; sys.exit('Fendra needs Python 3.11 or newer: make PYTHON=python3.11 ...' if sys.version_info < (3, 11) else 0)
PYTEST = .venv-dev/bin/python -m pytest -n logical --dist worksteal
.DEFAULT_GOAL := help

.PHONY: help demo test test-quick without-unix windows web site audit faults fuzz bench format docs screenshots clean

help:
	@echo "make demo         make an environment, install Fendra, run the demo"
	@echo "make test         make an environment, run all tests"
	@echo "make test-quick   the tests of the core, of files and of docstrings: while you write"
	@echo "make without-unix the tests of ports, terminals and runs without what Windows lacks"
	@echo "make windows      the same, with files, commands and pages, on Python for Windows, in wine"
	@echo "make faults       put faults into the code: which of them do the tests find? (takes an hour)"
	@echo "make web          lint, test and build the page of web/; is what ships the same?"
	@echo "make audit        what bandit says of the code, and pip-audit of the packages"
	@echo "make fuzz         odd inputs of every kind for ten minutes; MINUTES=60 for an hour"
	@echo "make bench        measure speed (not part of make test)"
	@echo "make format       put the code into the house format"
	@echo "make docs         make the pages and the C of docs/ that follow from the code"
	@echo "make site         build the docs as a site, with search: build/site/index.html"
	@echo "make screenshots  make docs/screenshots anew from the demo data"
	@echo "make clean        remove environments and everything made"

demo: .venv/installed
	.venv/bin/fendra demo

test: .venv-dev/installed
	.venv-dev/bin/ruff format --check .
	.venv-dev/bin/ruff check .
	for system in linux darwin win32; do .venv-dev/bin/mypy --platform $$system || exit 1; done
	.venv-dev/bin/lint-imports
	$(MAKE) --no-print-directory audit web
	$(PYTEST) --durations=10
	$(MAKE) --no-print-directory without-unix

# The rooms that touch the system, in an interpreter from which all that Windows lacks is taken away.
without-unix: .venv-dev/installed
	PYTHONPATH=tests $(PYTEST) -p no_unix.plugin tests/system tests/outputs tests/sources tests/live \
		tests/contract tests/native/test_store.py tests/native/test_engine.py tests/test_whole.py \
		tests/cli/test_commands.py tests/cli/test_plain.py tests/cli/test_demo.py tests/cli/test_lamps.py

# Tests that need Unix are marked `unix` or `posix`.
# The tests of live commands watch the clock more closely than wine keeps it.
windows: .venv-windows/installed
	.venv-dev/bin/python scripts/windows.py -m pytest -n logical --dist worksteal -p no:cacheprovider \
		-m "not unix and not posix" --durations=5 \
		tests/system tests/outputs tests/sources tests/live tests/contract tests/native tests/cli \
		tests/computer tests/lamps tests/page tests/files/test_trust.py tests/test_whole.py \
		tests/agree/test_designs.py --ignore tests/cli/test_live_commands.py

.venv-windows/installed: .venv-dev/installed scripts/windows.py $(wildcard tests/on_wine/*)
	.venv-dev/bin/python scripts/windows.py make
	touch $@

web: .venv-dev/installed
	@if command -v npm > /dev/null; then $(MAKE) --no-print-directory built; \
	else echo "no npm here: the page is not built anew, and what ships of it is not compared"; fi

.PHONY: built
built:
	cd web && npm ci --silent --no-audit --no-fund && npm run --silent types && npm run --silent check
	git diff --exit-code --stat -- src/fendra/page/built web/src/data.ts \
		|| (echo "what ships of the page is not what web/ gives: run 'make web', and commit it"; exit 1)

test-quick: .venv-dev/installed
	$(PYTEST) src tests/core tests/files tests/test_public.py -m "not slow" --hypothesis-profile quick --durations=10

audit: .venv-dev/installed
	.venv-dev/bin/bandit -q -c pyproject.toml -r src/fendra
	.venv-dev/bin/python scripts/audit.py

fuzz: .venv-dev/installed
	@.venv-dev/bin/python -m pip install --quiet --disable-pip-version-check -e '.[fuzz]' \
		|| echo "atheris is not for this system: inputs are changed by chance alone"
	.venv-dev/bin/python scripts/fuzz.py --minutes $(MINUTES)
	.venv-dev/bin/python -m pytest -q tests/core/test_odd_structure.py tests/sources/test_fuzz.py \
		--hypothesis-profile fuzz --timeout 3600

faults: .venv-dev/installed
	.venv-dev/bin/python -m pip install --quiet --disable-pip-version-check -e '.[faults]'
	.venv-dev/bin/python scripts/faults.py

bench: .venv-dev/installed
	.venv-dev/bin/python -m pytest benchmarks -c benchmarks/pytest.ini
	.venv-dev/bin/python benchmarks/ratio.py
	.venv-dev/bin/python benchmarks/live.py latency
	.venv-dev/bin/python benchmarks/live.py large
	@command -v avr-gcc > /dev/null && .venv-dev/bin/python benchmarks/firmware.py \
		|| echo "no avr-gcc here: firmware is not measured"

format: .venv-dev/installed
	.venv-dev/bin/ruff check --fix .
	.venv-dev/bin/ruff format .

docs: .venv-dev/installed
	.venv-dev/bin/python scripts/make_docs.py

site: .venv-dev/installed
	NO_MKDOCS_2_WARNING=1 .venv-dev/bin/mkdocs build --strict --quiet
	@echo "open build/site/index.html in a browser"

screenshots: .venv-dev/installed
	.venv-dev/bin/python scripts/make_screenshots.py

.venv/installed: pyproject.toml
	@$(PYTHON) -c "$(CHECK_PYTHON)"
	$(PYTHON) -m venv .venv
	.venv/bin/python -m pip install --quiet --disable-pip-version-check -e '.[desk,page]'
	touch $@

.venv-dev/installed: pyproject.toml
	@$(PYTHON) -c "$(CHECK_PYTHON)"
	$(PYTHON) -m venv .venv-dev
	.venv-dev/bin/python -m pip install --quiet --disable-pip-version-check -e '.[dev]'
	@.venv-dev/bin/python -m pip install --quiet --disable-pip-version-check -e '.[keys]' \
		|| echo "evdev needs a C compiler and Linux: the tests of keys are left out"
	touch $@

clean:
	rm -rf .venv .venv-dev .venv-windows fendra-demo .pytest_cache .mypy_cache .ruff_cache .hypothesis .benchmarks
