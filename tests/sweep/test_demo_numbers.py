"""Every single number in the printed text of the demo design, one more and one less, in one size: found.

A change is written into the text as a designer would type it, and the text is proved from
scratch. It must be found in the changed size, at the changed line: either the finding stands
there, or it stands where the contradiction shows and names the changed line as related, or a
repair that is offered changes that very line.
"""

import re

from rillstep.core.findings import Edit, Finding, Span, apply_edits
from rillstep.core.notation import parse
from rillstep.core.proof import prove_text
from rillstep.core.tree import Num, Row, Setup
from rillstep.core.words.numbers import edit_value, numbers_in
from tests.examples import totes


def changes_of(text: str) -> list[tuple[str, int, int | None, Edit]]:
    """(what, line, size or None for all, edit) for every number of the worked lines, +1 and -1."""
    pattern = parse(text).pattern
    found: list[tuple[str, int, int | None, Edit]] = []
    for _, line in pattern.lines():
        if isinstance(line, Row | Setup):
            for number in numbers_in(line):
                found += _changes(number, line.span.line, pattern.sizes)
    for index, row in enumerate(text.split("\n"), start=1):
        if row.startswith(("Check:", "Finished:")):
            for match in re.finditer(r"\d+(\.\d+)?", row):
                found += _statement_changes(match, index, row, len(pattern.sizes))
    return found


def _changes(number: Num, line: int, sizes: tuple[str, ...]) -> list[tuple[str, int, int | None, Edit]]:
    ordinal = number.parts[0].end_column - number.parts[0].column and number.values[0]
    del ordinal
    found: list[tuple[str, int, int | None, Edit]] = []
    for size, value in enumerate(number.values):
        if value is None:
            continue
        for new in (value + 1, value - 1):
            found.append((f"{value}->{new} in {sizes[size]}", line, size, edit_value(number, size, new)))
    return found


def _statement_changes(match: re.Match[str], line: int, row: str, n: int) -> list[tuple[str, int, int | None, Edit]]:

    decimals = "." in match.group()
    span = Span(line, match.start() + 1, match.end() + 1)
    return [
        (f"{match.group()}{by:+}", line, None, Edit(span, f"{float(match.group()) + by:.{1 if decimals else 0}f}"))
        for by in (1, -1)
    ]


def is_found_at(finding: Finding, line: int, size: int | None) -> bool:
    if finding.severity == "caution" or (size is not None and finding.size not in (size, None)):
        return False
    lines = {finding.span.line, *(span.line for span in finding.related)}
    lines |= {edit.span.line for repair in finding.repairs for edit in repair.edits}
    return line in lines


def survivors(text: str, sizes: tuple[int, ...] = tuple(range(10))) -> tuple[int, list[str]]:
    """How many changes of some sizes were tried, and those that were not found at their line and size."""
    lines = text.split("\n")
    lost = []
    tried = [change for change in changes_of(text) if change[2] is None or change[2] in sizes]
    for what, line, size, edit in tried:
        changed = apply_edits(text, (_with_ordinal(edit, lines),))
        proof = prove_text(changed)
        if not any(is_found_at(finding, line, size) for finding in proof.findings):
            lost.append(f"line {line}, {what}: {changed.split(chr(10))[line - 1]}")
    return len(tried), lost


def _with_ordinal(edit: Edit, lines: list[str]) -> Edit:
    """ "2nd" with one more is "3rd", in all sizes: an ordinal holds for all."""
    row = lines[edit.span.line - 1]
    if not re.match(r"(st|nd|rd|th)\b", row[edit.span.end_column - 1 :]):
        return edit

    value = max(int(part) for part in re.findall(r"\d+", edit.text)) if "(" in edit.text else int(edit.text)
    before = int(row[edit.span.column - 1 : edit.span.end_column - 1])
    values = [int(part) for part in re.findall(r"\d+", edit.text)]
    value = next((v for v in values if v != before), value)
    suffix = {1: "st", 2: "nd", 3: "rd"}.get(value, "th")
    return Edit(Span(edit.span.line, edit.span.column, edit.span.end_column + 2), f"{value}{suffix}")


def test_every_changed_number_of_the_demo_design_is_found_at_its_line_and_size() -> None:
    """In the smallest size; `make fuzz` does so in all, and in all ways of working."""
    text = totes()[0]
    assert prove_text(text).findings == ()
    tried, lost = survivors(text, (0,))
    assert tried > 150
    assert lost == []
