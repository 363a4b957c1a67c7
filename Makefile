# One target per chore. `make demo` and `make test` do all their own set-up.
.DEFAULT_GOAL := demo
.PHONY: proofs coverage setup test-setup demo test lint types unit browser bench bench-drag mutants campaign lock vendor schemas screenshots wheel test-all clean

PORT ?= 8000
FANDLE_HOME ?= $(CURDIR)/.fandle
PYTHON ?= python3
BIN := .venv/bin
export FANDLE_HOME
# what the first start has read is kept: without it every start of every verb reads 1,500 modules again, two seconds of CPU
export PYTHONDONTWRITEBYTECODE :=

setup: .venv/.warm

test-setup: .venv/.ready-test
	@tools/need-chromium.sh

.venv/.ready: requirements/installers.txt requirements/runtime.txt requirements/runtime.in pyproject.toml
	@PYTHON=$(PYTHON) tools/need-venv.sh
	@tools/install.sh runtime
	@touch $@

# Compile the kernels again when their sources change, not in front of a user; says so, and how far it is.
.venv/.warm: .venv/.ready $(wildcard src/fandle/core/physics/*.py)
	$(BIN)/python -m fandle.work.warm
	@touch $@

.venv/.ready-test: .venv/.warm requirements/test.txt
	@tools/install.sh test
	@touch $@

# The server answers at once; kernels that are not compiled yet are compiled meanwhile.
demo: .venv/.ready
	$(BIN)/fandle serve --demo --port $(PORT)

test: lint types unit browser

lint: test-setup
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	@tools/check-js.sh

types: test-setup
	$(BIN)/mypy

unit: test-setup
	$(BIN)/python -m pytest -q -n 2 --dist worksteal -m "not browser"

browser: test-setup
	$(BIN)/python -m pytest -q -n 3 --dist worksteal -m browser

# Three quarters of an hour or more: what `make test` tries a part of, in full, and what is told held against a second simulator.
proofs: test-setup
	FANDLE_PROOFS=1 $(BIN)/python -m pytest -q -n 2 --dist worksteal -m proof
	$(BIN)/python -m tests.reference

# Which lines no unit test comes by; slower by a third than the tests alone.
coverage: test-setup
	$(BIN)/python -m pytest -q -n 2 --dist worksteal -m "not browser" --cov --cov-report=term:skip-covered

bench: .venv/.ready-test
	$(BIN)/python bench/speed.py
	$(BIN)/python bench/plans.py
	PYTHONPATH=. $(BIN)/python bench/trust.py
	$(BIN)/python bench/close_work.py

# Breaks lines of every floor and counts how many the tests notice: an hour.
mutants: test-setup
	$(BIN)/python bench/mutants.py

bench-drag: test-setup
	PYTHONPATH=. $(BIN)/python bench/drag.py

# Three quarters of an hour of everything that could break it; SEED and SCALE are honoured. Ends with a table of what was tried.
SEED ?= 1
SCALE ?= 1
campaign: test-setup
	$(BIN)/python -m campaign --seed $(SEED) --scale $(SCALE)

screenshots: test-setup
	$(BIN)/python tools/screenshots.py

# Unit tests on every Python from 3.11 on that is here, or PYTHONS="3.13" alone: a quarter of an hour each.
test-all: test-setup
	@tools/test-all.sh

# One file that installs anywhere: dist/fandle-….whl
wheel: .venv/.ready
	@rm -rf build dist
	$(BIN)/python -m uv build --quiet --wheel --no-build-isolation --out-dir dist

schemas: setup
	$(BIN)/python -m fandle.formats.schemas

# Needs uv (from PyPI). Writes versions and hashes, no addresses.
lock:
	uv pip compile --quiet --generate-hashes --python-version 3.11 --no-header --no-emit-index-url --no-emit-find-links -o requirements/installers.txt requirements/installers.in
	uv pip compile --quiet --generate-hashes --python-version 3.11 --no-header --no-emit-index-url --no-emit-find-links -o requirements/runtime.txt requirements/runtime.in
	uv pip compile --quiet --generate-hashes --python-version 3.11 --no-header --no-emit-index-url --no-emit-find-links -o requirements/test.txt requirements/test.in

vendor:
	$(PYTHON) tools/vendor.py

clean:
	rm -rf .venv .fandle .mypy_cache .ruff_cache .hypothesis
