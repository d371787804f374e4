# Two commands matter: `make demo` and `make test`. Each does all its set-up.
PYTHON ?= python3
BIN := .venv/bin
.DEFAULT_GOAL := help
.PHONY: help setup demo test check bench format clean

help:
	@echo "make demo   run the application with demo data (Ctrl-C stops it)"
	@echo "make test   run all tests"
	@echo "make check  format, lint, types, import rules, generated files"
	@echo "make bench  print the benchmarks"

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

clean:
	rm -rf .venv var frontend/node_modules frontend/dist
