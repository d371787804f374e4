"""Text of any kind is answered with a finding: nothing crashes, nothing hangs.

How long an answer takes is not timed here; the steps that may be worked are bounded, and the bound
is what is tested. `make bench` shows the time.
"""

from typing import Any

import pytest

from rillstep.core.fabric.hook import MOST_STEPS, MOST_STEPS_IN_ALL
from rillstep.core.fabric.rounds import MOST_WRONG
from rillstep.core.memory import forget
from rillstep.core.notation.limits import MAX_CHARACTERS, MAX_INSTRUCTIONS, MAX_LINES, MOST_ERRORS
from rillstep.core.proof import prove_text, repairs
from rillstep.core.proof.checks.differences import MOST_STEPS_REPAIRED
from rillstep.core.proof.repairs import MOST_STEPS_TRIED

RING = "Ch 2000, join into a ring.\n"
DEFINED = "".join(f"Define: {b} = ({', '.join([a] * 8)}) in same st\n" for a, b in zip("abcde", "bcdef", strict=True))

HOSTILE = {
    "a line of a megabyte": ("Rnd 1: " + "sc in next st, " * 70_000, "text-too-long"),
    "a long line": ("Rnd 1: " + "sc in next st, " * 300, "line-too-long"),
    "deep brackets": ("Rnd 1: " + "[" * 3000 + "sc" + "]" * 900, "not-understood"),
    "brackets that repeat": ("Ch 9.\nRnd 1: " + "(" * 90 + "sc in next st" + ") 2 times" * 90, "not-understood"),
    "ten thousand digits": ("Rnd 1: sc in next " + "9" * 10_000 + " sts.", "line-too-long"),
    "a hundred thousand digits": ("Ch 9.\n" + "9" * 100_000, "line-too-long"),
    "three thousand digits": ("Rnd 1: sc in next " + "9" * 3_000 + " sts.", "number-too-large"),
    "endless rounds": ("Ch 20.\nRnds 1-999999999: sc in each st around.", "number-too-large"),
    "many rounds": ("Ch 20.\nRnds 1-99999: sc in each st around.", "too-large"),
    "doubling": ("Ch 20, join into a ring.\nRnds 1-40: 2 sc in each st around.", "too-large"),
    "nested repeats": (RING + "Rnd 1: [[[[sc in next st] 99999 times] 9999 times] 9999 times] 999 times.", "too-large"),
    "nested chains": (RING + "Rnd 1: [[[[ch 1] 9999 times] 9999 times] 9999 times] 999 times.", "too-large"),
    "stitches within stitches": ("Define: a = (dc, ch 1, dc) in same st\n" + DEFINED + RING + "Rnd 1: f in each ch around.", "too-large"),
    "towers of powers": ("Number: a = {9**9**9}\nCh 9.\nRnd 1: sc in next {a} ch.", "number-form"),
    "many sizes": ("Sizes: " + ",".join("abcdefghijkl") + "\nRnd 1: 6 sc in ring.", "sizes-count"),
    "a set without end": ("Sizes: a, b\nRnd 1: sc in next 1 (" + ",".join(["2"] * 1500) + ") sts.", "set-length"),
    "stars": ("Rnd 1: " + "*" * 3900, "not-understood"),
    "control characters": ("Rnd 1: sc\x00 in \x07 next st", "not-understood"),
    "another language": ("Rnd 1: Nosrep suc tog, bulb wex.\n" * 900, "too-many-errors"),
    "a text of two thousand lines": ("Rnd 1: Sc in each st around.\n" * 2_000, "text-too-long"),
    "long lines without end": (("Rnd 1: " + "sc in next st, " * 200 + "\n") * 60, "text-too-long"),
    "a layout of everything": ("Square (make 999)\nCh 4.\nRow 1: Sc in each ch across.\nArrange the squares in 999 rows of 999.", "layout-count"),
    "colours without end": ("Ch 9.\nRow 1: " + "a, " * 1_300 + "9 sts", "not-understood"),
    "slashes without end": ("Sizes: S, M\nCh 9.\nRow 1: " + "9/" * 1_900 + ".", "not-understood"),
    "very long lines": ("Ch 9.\n" + ("9 = " * 950 + "\n") * 30, "text-too-long"),
    "rows that repeat themselves": ("Ch 9.\nRow 1: Rep Row 1.", "row-not-found"),
}  # fmt: skip


@pytest.mark.parametrize("what", HOSTILE)
def test_hostile_text_is_answered(what: str) -> None:
    text, code = HOSTILE[what]
    proof = prove_text(text)
    assert code in {f.code for f in proof.findings}, {f.code for f in proof.findings}
    assert all(f.message for f in proof.findings)
    spent = sum(line.last.spent for work in proof.works for line in work.lines if line.last is not None)
    assert spent <= MOST_STEPS_IN_ALL + MOST_STEPS


def test_a_repeat_around_costs_what_its_text_is_long_and_not_its_stitches() -> None:
    def spent(stitches: int) -> int:
        text = (
            f"Ch {stitches}, join into a ring.\nRnd 1: Dc in each ch around; join.\n"
            "Rnd 2: [FPdc around next st, BPdc around next st] around; join.\n"
            "Rnd 3: [(dc, ch 2, dc) in next FPdc, ch 1, sk next st] around; join.\n"
            "Rnd 4: [shell in next ch-2 sp, sc in next ch-1 sp] around; join.\n"
            "Rnd 5: Sc in each st to last 3 sts, [sc in next st] 3 times; join."
        )
        proof = prove_text("Define: shell = 5 dc in same st\n" + text)
        assert proof.ok, proof.findings
        return sum(line.last.spent for line in proof.works[0].lines if line.last is not None)

    assert spent(40) == spent(400) == spent(40_000)


def test_what_is_hardly_understood_is_not_read_to_its_end() -> None:
    proof = prove_text("".join(f"Rnd {n}: Nosrep suc tog, bulb wex.\n" for n in range(1, 900)))
    last = max(f.span.line for f in proof.findings)
    assert MOST_ERRORS < len(proof.findings) < 2 * MOST_ERRORS and last < 400
    assert proof.findings[-1].code == "too-many-errors" and str(last) != "899"


def test_many_warnings_do_not_stop_the_reading() -> None:
    text = (
        "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\n"
        + "Sc in next 2 sts and see how it looks.\n" * 400
        + "Rnd 2: Blub."
    )
    assert {"not-worked", "not-understood"} <= {f.code for f in prove_text(text).findings}


@pytest.mark.parametrize("numbers", [2, 12, 90, 400])
def test_how_many_repairs_are_tried_does_not_grow_with_the_numbers_of_a_line(
    numbers: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    tried = 0
    work_row = repairs.work_row

    def counted(*given: Any) -> Any:
        nonlocal tried
        tried += 1
        return work_row(*given)

    monkeypatch.setattr(repairs, "work_row", counted)
    text = "Ch 9.\nRow 1: " + "sc in next 3, " * min(numbers, 280)
    assert any(f.severity == "error" for f in prove_text(text).findings)
    assert tried <= MOST_STEPS_TRIED


@pytest.mark.parametrize(
    "line",
    [
        " " * 3_000 + "Size S" + " " * 900 + "only!",
        " " * 3_900 + "a word",
        "Make" + " " * 3_000 + "two",
        "S and " * 650 + ":",
        "Stop here for" + " " * 3_000 + "S",
        "9" + " " * 3_000 + "sts and" + " " * 900 + "rows",
    ],
)
def test_long_gaps_in_a_line_are_passed_over(line: str) -> None:
    row = "Row 1: Sc in each ch across, turn. (9)\n"
    for text in (f"Sizes: S, M\n{line}\nCh 9.\n{row}", f"Sizes: S, M\nCh 9.\n{row}{line}\n"):
        proof = prove_text(text)
        assert proof.ok and (proof.lines[-1].sts[0]) == 9


EIGHT = "Sizes: A, B, C, D, E, F, G, H\n"


def plain_rounds(stated: int, count: int) -> str:
    total = ", ".join([str(stated)] * 8)
    rounds = "".join(f"Rnd {n}: Sc in each st around; join. ({total})\n" for n in range(2, count))
    return f"{EIGHT}Ch 60, join into a ring.\nRnd 1: Sc in each ch around; join. (60)\n{rounds}"


def test_the_longest_texts_are_read_up_to_a_line_that_is_named() -> None:
    proof = prove_text(plain_rounds(60, 990))
    (end,) = [f for f in proof.findings if f.code == "text-too-long"]
    assert end.span.line > 400 and "from here on" in end.message
    read = {line.line for line in proof.lines}
    assert max(read) == end.span.line - 1
    assert sum(len(line) for line in plain_rounds(60, 990).split("\n")[: max(read)]) < MAX_INSTRUCTIONS + 200


def test_words_between_the_rows_are_no_instructions() -> None:
    words = "Now hold it up against the evening sky, and see how the rounds lie one upon the other.\n" * 900
    assert len(words) > MAX_INSTRUCTIONS
    proof = prove_text(
        f"Ch 60, join into a ring.\nRnd 1: Sc in each ch around; join. (60)\n{words}Rnd 2: Sc in each st around; join. (61)"
    )
    assert [f.code for f in proof.findings if f.severity == "error"] == ["total-differs"]


def test_after_sixty_wrong_lines_of_a_size_its_rest_is_left() -> None:
    rounds = "".join(f"Rnd {n}: Sc in each st around; join. ({60 + n} (60))\n" for n in range(2, 300))
    text = f"Sizes: S, L\nCh 60, join into a ring.\nRnd 1: Sc in each ch around; join. (60)\n{rounds}"
    proof = prove_text(text)
    (end,) = [f for f in proof.findings if f.code == "too-many-errors"]
    assert end.size == 0
    wrong = [f for f in proof.findings if f.code == "total-differs"]
    assert len(wrong) <= MOST_WRONG + 1 and {f.size for f in wrong} == {0}
    after = [line for line in proof.lines if line.line > end.span.line]
    assert after and all(line.sts[0] is None and line.sts[1] == 60 for line in after)


def test_sixty_wrong_lines_are_counted_whatever_was_worked_before() -> None:
    whole = plain_rounds(60, 300)
    begun = prove_text(whole.replace("(60, ", "(61, ", 30)).findings  # so far it is remembered, and taken over
    anew = prove_text(whole.replace("(60, ", "(61, ")).findings
    forget()
    assert prove_text(whole.replace("(60, ", "(61, ")).findings == anew != begun
    assert prove_text(whole).ok


def test_long_lines_are_given_fewer_repairs_and_the_first_ones_all(monkeypatch: pytest.MonkeyPatch) -> None:
    worked = 0
    work_row = repairs.work_row

    def counted(*given: Any) -> Any:
        nonlocal worked
        work = work_row(*given)
        worked += work.spent
        return work

    monkeypatch.setattr(repairs, "work_row", counted)
    steps = ", ".join(f"sc in next {n % 3 + 1} sts, 2 hdc in next st" for n in range(60))
    rows = "".join(f"Rnd {n}: {steps}, sc in each st to end; join. (400)\n" for n in range(2, 40))
    proof = prove_text(f"Ch 400, join into a ring.\nRnd 1: Sc in each ch around; join. (400)\n{rows}")
    wrong = [f for f in proof.findings if f.code == "total-differs"]
    assert wrong[0].repairs and not wrong[-1].repairs
    assert worked < 200 * MOST_STEPS_REPAIRED


def test_an_honest_text_is_far_from_the_bounds() -> None:
    rows = "".join(
        f"Rnd {n}: Ch 1, sc in next {n % 9 + 1} sts, sc in each st around; join. — 60 sts\n" for n in range(2, 400)
    )
    text = f"Ch 60, join into a ring.\nRnd 1: Sc in each ch around; join. — 60 sts\n{rows}"
    proof = prove_text(text)
    assert proof.ok and len(proof.lines) == 399
    assert text.count("\n") < MAX_LINES / 2 and len(text) < MAX_CHARACTERS / 4
