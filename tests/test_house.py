"""Rules of the house that a prose page would not keep."""

import ast
import re
import subprocess
import sys
from collections import Counter
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
SOURCES = sorted((ROOT / "rillstep").rglob("*.py"))
MOST_LINES = 427
# What is read by hand today; whatever takes lines or expressions away writes the smaller number here.
MOST_LINES_BY_HAND, MOST_EXPRESSIONS_BY_HAND = 9302, 214


def test_imports_go_one_way() -> None:
    run = subprocess.run(
        [str(Path(sys.executable).parent / "lint-imports")], cwd=ROOT, capture_output=True, text=True, check=False
    )
    assert run.returncode == 0, run.stdout


@pytest.mark.parametrize("path", SOURCES, ids=lambda p: str(p.relative_to(ROOT)))
def test_files_have_one_subject_and_say_it(path: Path) -> None:
    if "versions" in path.parts or path.suffix != ".py":
        return
    text = path.read_text()
    assert ast.get_docstring(ast.parse(text)), "a module says what it is"
    assert len(text.splitlines()) <= MOST_LINES
    assert path.stem not in ("utils", "helpers", "manager", "common")


def expressions(path: Path) -> int:
    """How many regular expressions a file writes."""
    calls = (node.func for node in ast.walk(ast.parse(path.read_text())) if isinstance(node, ast.Call))
    return sum(
        isinstance(call, ast.Attribute) and isinstance(call.value, ast.Name) and call.value.id == "re" for call in calls
    )


def test_what_reads_by_hand_only_gets_smaller() -> None:
    """The forms of the language take its place, kind by kind: neither its lines nor its expressions grow again."""
    core = ROOT / "rillstep" / "core"
    by_hand = [path for floor in ("clauses", "notation") for path in sorted((core / floor).glob("*.py"))]
    assert sum(len(path.read_text().splitlines()) for path in by_hand) <= MOST_LINES_BY_HAND
    assert sum(expressions(path) for path in by_hand) <= MOST_EXPRESSIONS_BY_HAND
    assert sum(expressions(path) for floor in ("language", "reading") for path in (core / floor).rglob("*.py")) == 0


def test_few_statements_are_laid_out_by_hand() -> None:
    core = ROOT / "rillstep" / "core"
    assert sum(path.read_text().count("# fmt: skip") for path in core.rglob("*.py")) < 40


def test_public_functions_of_the_core_say_what_they_do() -> None:
    silent = []
    for path in (ROOT / "rillstep" / "core").rglob("*.py"):
        for node in ast.parse(path.read_text()).body:
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_") and not ast.get_docstring(node):
                silent.append(f"{path.name}: {node.name}")
    assert silent == []


def test_no_recorded_addresses_in_lock_files() -> None:
    for name in ("requirements.txt", "requirements-dev.txt", "frontend/package-lock.json"):
        text = (ROOT / name).read_text()
        assert '"resolved"' not in text
        assert not re.search(r"https?://", text) or name.endswith(".json")
        assert not re.search(r"^--(extra-)?index-url", text, re.MULTILINE)


def test_every_picture_is_linked_from_the_readme() -> None:
    linked = set(re.findall(r"docs/screenshots/[\w-]+\.png", (ROOT / "README.md").read_text()))
    assert linked == {f"docs/screenshots/{path.name}" for path in (ROOT / "docs" / "screenshots").iterdir()}


def _rooms(*floors: str) -> list[Path]:
    return [path for floor in floors for path in (ROOT / "rillstep" / "core" / floor).glob("*.py")]


def test_only_the_ledger_rooms_move_the_cursor_past_words() -> None:
    """No loop elsewhere passes words over: what is not read is kept in one room, or not understood."""
    moving = re.compile(r"\.at \+= 1\b")
    rooms = {"stream.py", "asides.py"}
    reading = [path for path in _rooms("words", "clauses", "notation") if path.name not in rooms]
    assert len(reading) > 30
    assert [path.name for path in reading if moving.search(path.read_text())] == []


def test_no_floor_of_the_core_has_more_than_25_rooms_and_no_two_rooms_have_one_name() -> None:
    core = ROOT / "rillstep" / "core"
    rooms = [path for path in core.rglob("*.py") if path.name != "__init__.py"]
    assert max(Counter(path.parent for path in rooms).values()) <= 25
    assert [name for name, often in Counter(path.name for path in rooms).items() if often > 1] == []


def test_no_two_classes_have_one_name() -> None:
    classes = re.compile(r"^class (\w+)", re.MULTILINE)
    named = Counter(name for path in (ROOT / "rillstep").rglob("*.py") for name in classes.findall(path.read_text()))
    assert [name for name, often in named.items() if often > 1] == []


def test_a_property_reaches_what_it_asserts_in_each_of_its_draws() -> None:
    """What a draw must be is assumed, so that Hypothesis draws until as many were tried as it says: a property that
    returns before it asserts looks as if it had tried them all."""
    early = []
    for path in sorted((ROOT / "tests").rglob("test_*.py")):
        for node in ast.parse(path.read_text()).body:
            if not isinstance(node, ast.FunctionDef) or not any("given" in ast.unparse(d) for d in node.decorator_list):
                continue
            steps = [one for one in node.body if not isinstance(one, ast.FunctionDef)]  # what helps it may return
            if any(isinstance(one, ast.Return) for step in steps for one in ast.walk(step)):
                early.append(f"{path.name}: {node.name}")
    assert early == []
