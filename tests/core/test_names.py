"""Names wherever a number stands: read, proved, printed with their numbers, undone, and moved as their forms say.

`tests/names` holds a text for each place in which a name can stand, and the print that readers get of it.
"""

import re
from collections import Counter
from pathlib import Path

import pytest

from rillstep.cli import main
from rillstep.core.findings import apply_edits
from rillstep.core.notation import parse
from rillstep.core.printing.named_source import write_source
from rillstep.core.printing.unnaming import without_names
from rillstep.core.proof import prove_text, reader_text
from rillstep.core.settling import read
from rillstep.core.tree import Num
from rillstep.core.words.numbers import every_number, set_text

FOLDER = Path(__file__).parents[1] / "names"
TEXTS = sorted(FOLDER.glob("*.txt"))
DEFINED = re.compile(r"^Number: ([\w ]+?) = (\d+)(?: \((\d+(?:, \d+)*)\))?$", re.MULTILINE)
RING = "Sizes: S, L\nNumber: side = 10 (14)\nCh {2*side}, join into a ring.\nRnd 1: Sc in each ch around; join. — {2*side} sts\n"


def codes(text: str) -> list[tuple[str, int]]:
    return [(f.code, f.span.line) for f in prove_text(text).findings if f.severity == "error"]


@pytest.mark.parametrize("path", TEXTS, ids=[path.stem for path in TEXTS])
def test_a_text_with_names_is_proved_printed_and_undone(path: Path) -> None:
    text = path.read_text()
    proof = prove_text(text)
    assert proof.ok and all(line.mark == "proved" for line in proof.lines), proof.findings
    made = reader_text(proof.pattern, proof.pattern.terms)
    assert made.ok and made.text == path.with_suffix(".print").read_text()
    assert "{" not in made.text
    for size in range(len(proof.pattern.sizes)):
        assert reader_text(proof.pattern, "US", size).ok
    plain = without_names(text, read(text))
    assert "{" not in plain and "Number:" not in plain
    assert prove_text(plain).pattern == proof.pattern


@pytest.mark.parametrize("path", TEXTS, ids=[path.stem for path in TEXTS])
def test_a_source_print_keeps_names_and_reads_back(path: Path) -> None:
    parsed = read(path.read_text())
    written = write_source(parsed)
    assert read(written).pattern.sections == parsed.pattern.sections
    kept = {name for name, _ in definitions(path.read_text()) if re.search(rf"\{{[^}}]*\b{name}\b", written)}
    assert kept or path.stem in ("note", "layout", "make", "make2") or "{rnd" in path.read_text()


def changed(text: str, name: str, values: list[int], size: int, by: int) -> str:
    """The text with one number of a name changed."""
    moved = [value + by * (at == size) for at, value in enumerate(values)]
    return re.sub(rf"^Number: {name} = .*$", f"Number: {name} = {set_text(tuple(moved))}", text, flags=re.MULTILINE)


def definitions(text: str) -> list[tuple[str, list[int]]]:
    sizes = len(parse(text).pattern.sizes)
    found = []
    for name, first, rest in DEFINED.findall(text):
        values = [int(first), *(int(value) for value in rest.split(", ") if value)]
        found.append((name, values * sizes if len(values) == 1 else values))
    return found


def numbers_of(text: str) -> dict[tuple[str, int, int], list[Num]]:
    """All numbers of each line of the tree, those too that follow from others; by section and line of the source,
    and where that makes several rounds, by their number."""
    lines = [(section.title, line) for section, line in read(text).pattern.lines()]
    often = Counter((title, line.span.line) for title, line in lines)
    found = {}
    for title, line in lines:
        rounds = [value for value in getattr(line, "first", Num(())).values if value is not None]
        several = often[title, line.span.line] > 1 and rounds
        found[title, line.span.line, max(rounds) if several else 0] = every_number(line)
    return found


@pytest.mark.parametrize("path", TEXTS, ids=[path.stem for path in TEXTS])
def test_a_number_moves_as_its_form_says(path: Path) -> None:
    """The form of every number equals what it differs by when a name is two more, in the size in which it is."""
    text = path.read_text()
    before = numbers_of(text)
    looked = 0
    for name, values in definitions(text):
        for size in range(len(values)):
            other_text = changed(text, name, values, size, 2)
            if any(f.code == "number-not-worked-out" for f in parse(other_text).findings):
                continue
            after = numbers_of(other_text)
            for key in before.keys() & after.keys():
                if len(before[key]) != len(after[key]):
                    continue  # a step is there in one of the two only
                for one, other in zip(before[key], after[key], strict=True):
                    was, now, form = one.values[size], other.values[size], one.form(size)
                    if was is None or now is None or form is None:
                        continue
                    assert now - was == 2 * form.of(name), (one, other)
                    looked += bool(one.forms)
    assert looked or path.stem in ("note", "layout", "make", "make2")


@pytest.mark.parametrize("path", TEXTS[::3], ids=[path.stem for path in TEXTS[::3]])
def test_a_wrong_number_of_a_name_is_found_or_makes_another_true_text(path: Path) -> None:
    """As a single number in a row is: what it contradicts says so; where nothing does, the tree is another."""
    text = path.read_text()
    whole = prove_text(text).pattern
    for name, values in definitions(text):
        if path.stem == "half" or not re.search(rf"\{{[^}}]*\b{name}\b", text):
            continue  # defined and not used, or not in every size
        for size in range(len(values)):
            proof = prove_text(changed(text, name, values, size, 1))
            assert not proof.ok or proof.pattern != whole


@pytest.mark.parametrize(
    ("text", "code", "line", "words"),
    [
        ("Number: a = {b + 1}\nNumber: b = {a - 1}\nRnd 1: {a} sc in ring.", "number-form", 1, "defined by itself"),
        (RING + "Rnd 2: Sc in next {side*side} sts.", "number-not-worked-out", 5, "one name times another"),
        (RING + "Rnd 2: Sc in next {side/4} sts.", "number-not-worked-out", 5, "not a whole number"),
        (RING + "Rnd 2: Sc in next {side - 12} sts.", "number-not-worked-out", 5, "less than nothing"),
        (RING + "Rnd 2: Sc in next {sid} sts.", "name-not-defined", 5, "“sid” is not defined"),
        (RING + "Rnd 2: Sc in next {side/0} sts.", "number-not-worked-out", 5, "divides by nothing"),
        (RING + "Note: {rnd} rounds.\nSc in next {rnd} sts.", "name-not-defined", 6, "number of a round"),
        ("Number: rnd = 4\nRnd 1: 6 sc in ring.", "number-form", 1, "made of letters"),
        ("Number: a = 4 (5, 6)\nRnd 1: {a} sc in ring.", "number-form", 1, "3 numbers, but there are 1 sizes"),
        (RING + "Rnds 2-{side*100}: Sc in next {rnd} sts.", "number-too-large", 5, "At most"),
    ],
)
def test_what_is_no_number_is_said(text: str, code: str, line: int, words: str) -> None:
    found = [f for f in prove_text(text).findings if f.code == code and f.span.line == line]
    assert found and any(words in f.message for f in found), prove_text(text).findings


def test_a_sum_holds_in_the_sizes_in_force_only() -> None:
    head = "Sizes: S, L\nNumber: w = 9 (14)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
    row = "Rnd 2: Sc in next {w/2} sts, sc in each st around; join."
    assert codes(f"{head}Size L only:\n{row}") == []
    assert codes(head + row) == [("number-not-worked-out", 5)]


def test_a_finding_in_a_line_of_many_rounds_is_said_once_where_it_stands() -> None:
    text = RING + "Rnds 2-9: Sc in next {rnd} sts, blub in next st, sc in each st around; join."
    assert codes(text) == [("not-understood", 5)]
    (finding,) = [f for f in prove_text(text).findings if f.severity == "error"]
    row = text.split("\n")[4]
    assert row[finding.span.column - 1 : finding.span.end_column - 1].startswith("blub")


def test_a_line_that_begins_a_section_knows_where_its_names_stand() -> None:
    text = (
        RING
        + "Border Rnd 1: Ch 1, sc in next {2*side - 1} sts; join. — {2*side} sts\nBorder Rnd 2: Sc in each st around; join."
    )
    numbers = [n for _, line in parse(text).pattern.lines() for n in every_number(line) if n.source == "2*side - 1"]
    assert numbers
    row = text.split("\n")[4]
    assert {row[n.span.column - 1 : n.span.end_column - 1] for n in numbers} == {"{2*side - 1}"}


@pytest.mark.parametrize("label", ["Border Rnds 2-4", "Rnds 2-4 (BLO)"])
def test_nothing_of_a_label_is_lost_where_rounds_are_written_out(label: str) -> None:
    text = RING + f"{label}: Sc in next {{rnd}} sts, sc in each st around; join."
    assert codes(text) or all(
        "BLO" in row for row in reader_text(parse(text).pattern, "US").text.split("\n") if "Rnd 3" in row
    )


def test_a_repair_keeps_the_names() -> None:
    text = RING.replace("{2*side}, join", "{2*side + 1}, join") + "Rnd 2: Sc in next {2*side} sts; join.\n"
    text = text.replace("— {2*side} sts", "— {2*side + 1} sts")
    repairs = [repair for f in prove_text(text).findings for repair in f.repairs]
    assert repairs
    for repair in repairs:
        mended = apply_edits(text, repair.edits)
        assert mended.count("{") == text.count("{"), repair
    here = next(repair for repair in repairs if "only here" in repair.message)
    assert "Number: side 2 = " in apply_edits(text, here.edits)


def test_a_number_is_changed_in_all_places_where_that_mends_the_line() -> None:
    text = (
        "Number: side = 10\nNumber: corner = 3\nCh 26, join into a ring.\nRnd 1: Sc in each ch around; join. — 26 sts\n"
        "Rnd 2: Ch 1, sc in next {side} sts, {corner} sc in next st, sc in next {side} sts, {corner} sc in next st; join.\n"
    )
    found = [f for f in prove_text(text).findings if f.severity == "error"]
    messages = [repair.message for f in found for repair in f.repairs]
    everywhere = [f for f in found for repair in f.repairs if "in all places" in repair.message]
    assert any("only here" in message for message in messages)
    for finding in everywhere:
        repair = next(one for one in finding.repairs if "in all places" in one.message)
        after = prove_text(apply_edits(text, repair.edits))
        assert not any(f.code == finding.code and f.span.line == finding.span.line for f in after.findings)


def test_one_repair_mends_a_named_number_in_all_sizes() -> None:
    text = (
        "Sizes: S, M, L\nNumber: side = 10 (14, 20)\nCh {2*side}, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
        "Rnd 2: Ch 1, sc in next {2*side - 2} sts, 2 sc in next st; join.\n"
    )
    found = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [finding.size for finding in found] == [0, 1, 2]
    for finding in found:
        repair = next(one for one in finding.repairs if "only here" in one.message)
        mended = apply_edits(text, repair.edits)
        assert "Number: side 2 = 19 (27, 39)" in mended and prove_text(mended).ok


def test_no_repair_changes_one_round_of_many() -> None:
    text = RING + "Rnds 2-4: Sc in next {rnd} sts, sc in next {20 - rnd} sts; join."
    found = [f for f in prove_text(text).findings if f.severity == "error"]
    assert found and all(not any("{" in e.text or e.span.line == 5 for e in r.edits) for f in found for r in f.repairs)


def test_the_command_undoes_names(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source = FOLDER / "handles_alike_and_opposite.txt"
    out = tmp_path / "plain.txt"
    assert main(["unname", str(source), "-o", str(out)]) == 0
    assert main(["check", str(out)]) == 0
    assert "sk next 6 (8) sts" in out.read_text()
    out.write_text("Number: a = {a}\nRnd 1: {a} sc in ring.")
    assert main(["unname", str(out)]) == 2
    assert "defined by itself" in capsys.readouterr().err
