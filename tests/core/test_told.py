"""What a text tells elsewhere than expected: its sizes, its terms, which chains count, stitches of its own, its columns."""

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.counted import ChainSaid, said_of_chains
from rillstep.core.notation.unlisted_sizes import told_sizes
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.proof.reprint import reader_text
from rillstep.core.words.sizes import size_names

RING = "Ch 24 (30, 36), join into a ring.\nRnd 1: Sc in each ch around; join. — 24 (30, 36) sts"


@pytest.mark.parametrize(
    ("written", "names"),
    [
        ("S, M, L", ("S", "M", "L")), ("S (M, L)", ("S", "M", "L")), ("S[M:L]", ("S", "M", "L")), ("S/M/L", ("S", "M", "L")),
        ("S | M | L", ("S", "M", "L")), ("1, 2 and 3", ("1", "2", "3")), ("Small and Large", ("Small", "Large")),
        ("Small (20 cm), Large (26 cm)", ("Small", "Large")), ("Day and night, Week", ("Day and night", "Week")),
        ("S (M, L)  Finished height: 30 (34, 38) cm", ("S", "M", "L")), ("One lens, Full case", ("One lens", "Full case")),
        ("S/M (L/XL)", ("S/M", "L/XL")), ("1 [2] {3}", ("1", "2", "3")), ("(1, 2, 3)", ("1", "2", "3")), ("S:M:L", ("S", "M", "L")),
        ("Small, Large. Directions are for Small; changes for Large are in parentheses.", ("Small", "Large")),
        ("Market", ("Market",)), ("Small, Large.", ("Small", "Large")), ("", ()),
    ],
)  # fmt: skip
def test_names_of_sizes(written: str, names: tuple[str, ...]) -> None:
    assert size_names(written) == names


@pytest.mark.parametrize(
    "head",
    [
        "Sizes: S, M, L", "Size\nS[M:L]", "SIZES\nS (M, L)", "S (M, L)", "Sizes – S, M, L", "★ SIZES ★ S / M / L",
        "Instructions are for the S pouch, with M and L in parentheses.", "Written for S | M | L",
        "Comet pouch — 3 sizes: S, M, L", "This bag comes in three sizes: S, M and L. Take your time.",
        "- Sizes: S, M, L", "Bag      S     M     L\nS    M    L\nChain    24    30    36", "To fit a S (M: L) telescope.",
        "S: waist up to 80 cm, M: up to 100 cm, L: up to 120 cm", "Sizes: This pouch is written for S; numbers for M and L are in parentheses.",
        "Pattern: Comet pouch\nSizes are written S (M, L)",
    ],
)  # fmt: skip
def test_sizes_are_found_where_they_are_told(head: str) -> None:
    proof = prove_text(f"{head}\n{RING}")
    assert proof.pattern.sizes == ("S", "M", "L")
    assert [line.sts for line in proof.lines] == [(24, 30, 36)]
    assert proof.ok and parse(write(proof.pattern)).pattern == proof.pattern


def test_sizes_that_are_only_counted_are_called_by_their_number_and_can_be_named() -> None:
    proof = prove_text(RING + "\nRnds 2-5 (6, 7): Ch 1, sc in each st around; join.")
    (finding,) = [f for f in proof.findings if f.severity == "warning"]
    assert (finding.code, proof.pattern.sizes) == ("sizes-not-named", ("1", "2", "3"))
    named = apply_edits(RING, finding.repairs[0].edits)
    assert named.startswith("Sizes: 1, 2, 3\n") and prove_text(named).ok


@pytest.mark.parametrize(
    "text",
    [
        "Ch 24, join into a ring.\nRnd 1: Sc in each ch around (24)",  # one number in brackets is no set
        "Rnd 1: 6 sc in ring (6)\nRnd 2: [2 sc in next st] x 6 (12)\nRnd 3: [sc, inc] x 6 (18)",  # times and total
        "Pattern: Large market bag\nCh 24.\nRow 1: Sc in each ch across.",  # a size in a name is none
    ],
)
def test_a_text_in_one_size_stays_so(text: str) -> None:
    assert told_sizes(text.split("\n")) is None
    assert prove_text(text).pattern.sizes == ("One size",)


def test_sizes_are_named_once_and_a_set_of_another_length_is_still_a_fault() -> None:
    twice = prove_text("Sizes: S, M, L\nSizes: A, B\n" + RING)
    assert [(f.code, f.span.line) for f in twice.findings if f.severity == "error"] == [("size-twice", 2)]
    short = prove_text("Sizes: S, M, L\n" + RING.replace("24 (30, 36) sts", "24 (30) sts"))
    assert [f.code for f in short.findings if f.severity == "error"] == ["set-length"]


def test_one_size_with_a_slash_in_its_name_is_printed_and_read_as_one() -> None:
    proof = prove_text("Sizes: S/M, L/XL\n" + RING.replace("24 (30, 36)", "24 (30)"))
    assert proof.pattern.sizes == ("S/M", "L/XL")
    one = reader_text(proof.pattern, "US", 0)
    assert one.ok and one.proof.pattern.sizes == ("S/M",)


def test_a_stitch_defined_before_the_sizes_has_its_numbers_in_all_of_them() -> None:
    text = "Special stitch: shell = 5 dc in same st\nSizes: S, M\nCh 24 (30), join into a ring.\nRnd 1: [Sc in next ch, sk 2 ch, shell in next ch, sk 2 ch] around; join. — 24 (30) sts"  # fmt: skip
    assert prove_text(text).ok


# --- chains that begin a row, in words ---------------------------------------------------


@pytest.mark.parametrize(
    ("words", "said"),
    [
        ("Turning chains do not count as stitches.", [(None, "none")]),
        ("Ch 2 at the beginning of a row does not count as a stitch.", [(2, "none")]),
        ("The ch-3 at the start of a round counts as a dc throughout.", [(3, "dc")]),
        ("Beginning ch 3 counts as first dc; ch 1 doesn't count.", [(3, "dc"), (1, "none")]),
        ("3 ch counts as 1 st", [(3, "st")]), ("Starting chain never counts.", [(None, "none")]),
        ("Ch 3, counting as you go.", []), ("Chain 20 loosely.", []), ("The bag counts as hand luggage.", []),
    ],
)  # fmt: skip
def test_what_words_say_of_chains(words: str, said: list[tuple[int | None, str]]) -> None:
    assert [(one.length, one.counts) for one in said_of_chains(words, "US")] == said


def test_terms_decide_what_a_chain_is_said_to_count_as() -> None:
    assert said_of_chains("The 3 ch counts as a treble.", "UK") == (ChainSaid(3, "dc"),)


ROWS = "Ch 22.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn. — {n} sts\nRow 2: Ch 2, hdc in each st across; turn. — {n} sts"


@pytest.mark.parametrize(
    ("note", "made"), [("Note: Ch 2 does not count.", 20), ("Ch 2 counts as a hdc throughout.", 21)]
)
def test_a_note_answers_whether_a_chain_counts(note: str, made: int) -> None:
    silent = prove_text(ROWS.format(n=20))
    assert "chain-unsaid" in [f.code for f in silent.findings]
    told = prove_text(f"{note}\n{ROWS.format(n=made)}")
    assert [f.code for f in told.findings] == []
    made_again = reader_text(told.pattern, "US")
    assert made_again.ok


def test_what_a_row_says_itself_goes_before_a_note() -> None:
    text = "Turning chains do not count.\n" + ROWS.format(n=20).replace("Ch 2, hdc", "Ch 2 (counts as hdc), hdc")
    row = [line for _, line in parse(text).pattern.lines()][-1]
    assert row.steps[0].counts == "hdc"  # type: ignore[union-attr]


# --- terms, stitches of its own, tables ---------------------------------------------------


@pytest.mark.parametrize(
    ("line", "terms"),
    [
        ("Comet tote (UK)", "UK"), ("Written in UK terms.", "UK"), ("US terminology is used", "US"), ("Abbreviations (UK terms)", "UK"),
        ("Made in the UK", "US"),
    ],
)  # fmt: skip
def test_terms_told_in_the_head(line: str, terms: str) -> None:
    assert parse(f"{line}\n4 mm hook.\nRnd 1: 6 dc in ring.").pattern.terms == terms


@pytest.mark.parametrize("mark", ["", "• ", "- ", "* "])
def test_a_stitch_defined_among_the_notes(mark: str) -> None:
    text = (
        f"Notes\n{mark}V-st: (dc, ch 1, dc) in indicated stitch or space.\n{mark}Beg V-st: ch 4 (counts as dc + ch 1), dc in same stitch or space.\n"
        "Ch 60, join into a ring.\nRnd 1: Sc in each ch around; join. (60 sc)\n"
        "Rnd 2: Beg V-st in first st, sk 2 sts, *V-st in next st, sk 2 sts; rep from * around; join. (20 V-sts)\n"
        "Rnd 3: Sl st in ch-1 sp, beg V-st in same sp, V-st in ch-1 sp of each V-st around; join. ({n} V-sts)"
    )
    assert prove_text(text.format(n=20)).ok
    assert [f.code for f in prove_text(text.format(n=21)).findings if f.severity == "error"] == ["total-differs"]


def test_a_stitch_over_several_places_is_counted_by_its_name() -> None:
    text = "Define: X-st = sk next st, dc in next st, dc in skipped st\nCh 36, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnd 2: Ch 3 (does not count), X-st around; join. ({n} X-sts)"
    assert prove_text(text.format(n=18)).ok
    assert not prove_text(text.format(n=17)).ok


TABLE = "Rnd 1{a}6 sc in ring{b}6\nRnd 2{a}2 sc in each st{b}12\nRnds 3-4{a}sc in each st{b}{n}"


@pytest.mark.parametrize(("a", "b"), [("\t", "\t"), (" | ", " | "), ("\t ", "\t")])
def test_rows_of_a_table(a: str, b: str) -> None:
    assert [line.sts for line in prove_text(TABLE.format(a=a, b=b, n=12)).lines] == [(6,), (12,), (12,)]
    wrong = prove_text(TABLE.format(a=a, b=b, n=13))
    assert [(f.code, f.span.line) for f in wrong.findings] == [("total-differs", 3)]


@pytest.mark.parametrize(
    ("label", "first", "last"),
    [
        ("R2/R3 -", (2, 3), None), ("R2-R5/R3-R7 -", (2, 3), (5, 7)), ("R2–R5 [R7]:", (2, 2), (5, 7)), ("2-5 (7) rnd:", (2, 2), (5, 7)),
        ("Rnds 2-5, 7:", (2, 2), (5, 7)), ("Rnd 2, 3:", (2, 3), None), ("Round two:", (2, 2), None), ("2)", (2, 2), None),
        ("2)-5)", (2, 2), (5, 5)), ("2nd to 5th rnds:", (2, 2), (5, 5)), ("Next 4 (6) rnds.", (2, 2), (5, 7)), ("• Rnd 2.", (2, 2), None),
    ],
)  # fmt: skip
def test_labels_as_people_number_them(label: str, first: tuple[int, int], last: tuple[int, int] | None) -> None:
    text = (
        f"Sizes: S, M\nCh 24, join into a ring.\nRnd 1: Sc in each ch around.\n{label} sc in each st around. (24 sts)"
    )
    row = [line for _, line in parse(text).pattern.lines()][-1]
    assert (row.first.values, row.last and row.last.values) == (first, last)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("text", "sizes"),
    [
        ("Ch 24 (30), join into a ring.\nRnd 1: Ch 1, sc in next 24 (30) ch; join. — 24 (30) sts", ("1", "2")),
        ("Rnd 1: 6 sc in ring (6)\nRnd 2: [2 sc in next st] x 6 (12)\nRnd 3: [sc, inc] x 6 (18)", ("One size",)),
    ],
)
def test_two_numbers_are_sizes_only_where_they_cannot_be_times_and_a_total(text: str, sizes: tuple[str, ...]) -> None:
    proof = prove_text(text)
    assert proof.ok and proof.pattern.sizes == sizes


@pytest.mark.parametrize(
    ("row", "made"),
    [("Rnd 2: Ch 3, dc in each st around; join.", 24), ("Rnd 2: Ch 3, dc in same st, dc in each st around; join.", 25)],
)
@pytest.mark.parametrize("said", ["(ch 3 counts as the first dc)", "with ch 3 as first dc", "w/ ch 3 as first dc"])
def test_a_row_says_of_a_chain_what_holds_for_those_after_it(said: str, row: str, made: int) -> None:
    proof = prove_text(f"Ch 24, join into a ring.\nRnd 1: Dc in each ch around {said}; join. — 24 sts\n{row}")
    assert proof.ok and [line.sts[0] for line in proof.lines] == [24, made]


def test_a_table_of_the_head_tells_and_works_nothing() -> None:
    text = "Small   Large\nChain    24    30\nRounds   8     9\nCh 24 (30), join into a ring.\nRnd 1: Sc in each ch around; join. — 24 (30) sts"
    proof = prove_text(text)
    assert proof.ok and proof.pattern.sizes == ("Small", "Large") and len(proof.lines) == 1
    assert ("Note", "Chain 24 30") in proof.pattern.extra


def test_an_abbreviation_of_a_post_stitch_is_no_stitch_of_its_own() -> None:
    proof = prove_text(
        "Special stitches:\nFPdc: front post double crochet\n\nCh 24, join into a ring.\nRnd 1: Dc in each ch around; join.\nRnd 2: [FPdc around next 2 sts, dc in next st] around; join. — 24 sts"
    )
    assert proof.ok and proof.pattern.specials == ()
