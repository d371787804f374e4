# Two commands matter: `make demo` and `make test`. Each does all its set-up.
PYTHON ?= python3
BIN := .venv/bin
.DEFAULT_GOAL := help
.PHONY: help setup demo test check bench fuzz mutate abuse kills format clean

help:
	@echo "make demo   run the application with demo data (Ctrl-C stops it)"
	@echo "make test   run all tests"
	@echo "make check  format, lint, types, import rules, generated files"
	@echo "make bench  print the benchmarks"
	@echo "make fuzz   compare the engine with the slow walker on 100,000 generated texts (COUNT=...), and sweep the corpus"
	@echo "make abuse  one account and a stranger do their worst for three minutes, then other hardships: what the others see"
	@echo "make kills  5,000 saves while the application, its workers and the database are killed: what is kept"
	@echo "make mutate change every number, word and row of the corpus, insert clauses, and count what the proof finds"

setup:
	@bash scripts/setup

demo: setup
	@exec $(BIN)/rillstep demo

test: setup
	$(BIN)/python -m pytest -n 2 --dist loadgroup

check: setup
	$(BIN)/ruff format --check .
	$(BIN)/ruff check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	bash scripts/generated --check
	cd frontend && npx tsc -b && npx eslint src && npx prettier --check src

format: setup
	$(BIN)/ruff check --fix . ; $(BIN)/ruff format .
	cd frontend && npx prettier --write src
	bash scripts/generated

bench: setup
	$(BIN)/python -m tests.bench

fuzz: setup
	$(BIN)/python -m tests.core.fuzz $(or $(COUNT),100000)
	$(BIN)/python -m tests.sweep
	RILLSTEP_WALLS=2000 $(BIN)/python -m pytest -q tests/core/test_side_stitches.py
	RILLSTEP_CASES=60 $(BIN)/python -m pytest -q tests/api/test_schema.py
	RILLSTEP_ALL=1 $(BIN)/python -m pytest -q -n 2 tests/api/test_all_steps.py tests/browser/test_five_builds.py

mutate: setup
	$(BIN)/python -m tests.core.mutate
	$(BIN)/python -m tests.core.free_numbers
	$(BIN)/python -m tests.sweep.damage
	$(BIN)/python -m tests.sweep.reworded
	$(BIN)/python -m tests.sweep.unread

abuse: setup
	$(BIN)/python -m tests.abuse

kills: setup
	$(BIN)/python -m tests.abuse.kills

clean:
	rm -rf .venv var frontend/node_modules frontend/dist
