"""Phrases that a text teaches: what they may mean, what rests on them, and where they are written."""

import pytest

from rillstep.core.findings import Edit, Finding, apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.phrases import Offer, offer, teach
from rillstep.core.proof import Proof, counts_of, prove_text, reader_text
from tests.core.clauses import CHANGING

HEAD = "Pattern: Comet pouch\nSizes: S, M\n"
BODY = "\nRnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 sc in each st around. (12)\n"


def proved(means: str, line: str) -> Proof:
    return prove_text(f"{HEAD}{means}\n{BODY}{line}\n")


@pytest.mark.parametrize(
    ("means", "line", "printed"),
    [
        ('Means: "in bb" = in back loop', "Rnd 3: Sc in bb of each st around. (12)", "BLO sc in each st around"),
        ('Means: "wee shell" = 3 dc in same st', "Rnd 3: *Sc in next st, wee shell; rep from * around. (48)", "3 dc in same st"),
        ('Means: "dancing" = in next 2 (3) sts', "Rnd 3: *Sc dancing, inc; rep from * around. (16, 15)", "sc in next 2 (3) sts"),
        ("Means: the comet way = nothing", "Rnd 3: Sc the comet way in each st around. (12)", "the comet way"),
        ('Means: "twinkle" = 2 sc in next st', "Rnd 3: *Twinkle; rep from * around. (24)", "2 sc in each st around"),
    ],
)  # fmt: skip
def test_lines_that_rest_on_a_phrase_are_proved_with_it_and_printed_without_it(
    means: str, line: str, printed: str
) -> None:
    proof = proved(means, line)
    assert proof.ok, [f.message for f in proof.findings]
    assert [bool(one.phrases) for one in proof.lines] == [False, False, True]
    assert counts_of(proof).words() == "3 proved (1 with your phrases)"
    made = reader_text(proof.pattern, "US", None)
    assert made.ok and printed in made.text and "Means" not in made.text
    without = proved("", line)
    assert without.lines[-1].mark == "not understood"


@pytest.mark.parametrize(
    ("means", "line"),
    [
        ('Means: "wee shell" = 3 dc in same st', "Rnd 3: *Sc in next st, wee shell; rep from * around. (47)"),
        ('Means: "dancing" = in next 3 sts', "Rnd 3: *Sc dancing, inc; rep from * around. (16)"),
        ('Means: "twinkle" = 2 sc in next st', "Rnd 3: *Twinkle; rep from * around. (12)"),
    ],
)
def test_a_phrase_does_not_make_a_wrong_line_right(means: str, line: str) -> None:
    assert proved(means, line).lines[-1].mark == "wrong"


def test_a_meaning_that_is_not_understood_proves_nothing() -> None:
    assert (
        proved('Means: "in bb" = in the middle of nowhere', "Rnd 3: Sc in bb of each st around. (12)").lines[-1].mark
        == "not understood"
    )


def test_a_number_of_a_meaning_that_nothing_is_made_of_is_not_passed_over() -> None:
    proof = proved('Means: "in the bright ones" = in each st around 5', "Rnd 3: Sc in the bright ones. (12)")
    assert proof.lines[-1].mark == "not understood"


@pytest.mark.parametrize(
    ("means", "code"),
    [
        ("Means: in bb", "phrase-form"),
        ('Means: "" = in back loop', "phrase-form"),
        ('Means: "in next st" = in last st', "phrase-known"),
        ('Means: "sc" = dc', "phrase-known"),
        ('Means: "back loop" = front loop', "phrase-known"),
        ('Means: "missing a bit" = nothing', "phrase-not-harmless"),
        ('Means: "twelve of them" = nothing', "phrase-not-harmless"),
        ('Means: "not here" = nothing', "phrase-not-harmless"),
        ('Means: "of the fourth" = nothing', "phrase-not-harmless"),
        ('Means: "a dozen" = nothing', "phrase-not-harmless"),
        ('Means: "in bb" = in back loop\nMeans: "in bb" = in front loop', "phrase-twice"),
    ],
)
def test_what_may_not_be_taught_is_refused(means: str, code: str) -> None:
    assert code in [finding.code for finding in proved(means, "").findings]


@pytest.mark.parametrize("clause", CHANGING, ids=range(len(CHANGING)))
def test_no_clause_that_changes_the_work_can_be_said_to_change_nothing(clause: object) -> None:
    words = str(getattr(clause, "words", clause))
    assert isinstance(teach(HEAD + BODY, words, "nothing", "US"), Finding)


def test_what_is_not_understood_is_offered_as_short_as_it_is_known() -> None:
    text = HEAD + BODY + "Rnd 3: Sc in bb of each st around, then dazzle. (12)\n"
    lines = text.split("\n")
    offers = [offer(lines[f.span.line - 1], f) for f in parse(text).findings if f.severity == "error"]
    assert offers == [Offer("in bb", True), Offer("dazzle", True)]
    line = "Rnd 3: Sc dazzle 2 wobble. (12)"
    found = [offer(line, f) for f in parse(HEAD + BODY + line).findings if f.severity == "error"]
    assert found and found[0] == Offer("dazzle 2 wobble", False)


@pytest.mark.parametrize(
    ("text", "line"),
    [
        (HEAD + BODY, 3),
        ("Comet pouch\n\nRnd 1: 6 sc in ring. (6)", 2),
        ("Rnd 1: 6 sc in ring. (6)", 1),
        (HEAD + 'Means: "x y" = in back loop\n' + BODY, 4),
        ("Sizes: S, M\n\nSection: Base (spiral rounds, disc)\nNote: Pink.\nRnd 1: 6 sc in ring. (6)", 2),
    ],
)
def test_a_phrase_is_written_into_the_head(text: str, line: int) -> None:
    edit = teach(text, "in  bb", "in back loop", "US")
    assert isinstance(edit, Edit)
    assert edit.span.line == line
    after = apply_edits(text, (edit,))
    assert 'Means: "in bb" = in back loop' in after.split("\n")
    assert parse(after).findings == parse(text).findings or all(f.severity != "error" for f in parse(after).findings)
    assert parse(after).pattern == parse(text).pattern
