"""Each room of the reader, by what it makes of words: the canonical form that is written for them."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.printing.step_words import write_steps
from rillstep.core.printing.writer import write_label, write_line, write_totals
from rillstep.core.tree import Again, Row, Setup
from rillstep.core.words.tokens import tokens_of

HEAD = "Sizes: S, M, L\nDefine: V-st = (dc, ch 1, dc) in same st\n"


def line(text: str, head: str = HEAD) -> Row | Again | Setup:
    parsed = parse(head + text)
    assert [f.message for f in parsed.findings if f.code != "nothing-to-work"] == []
    found = parsed.pattern.sections[-1].lines[-1]
    assert isinstance(found, Row | Again | Setup)
    return found


def steps(text: str) -> str:
    found = line(f"Rnd 2: {text}")
    assert isinstance(found, Row)
    return write_steps(found.steps, "US", capital=False)


STITCHES = [
    ("6 sc", "sc in next 6 sts"),
    ("sc 6 (8, 10)", "sc in next 6 (8, 10) sts"),
    ("sc6", "sc in next 6 sts"),
    ("sc x 6", "sc in next 6 sts"),
    ("single crochet in next stitch", "sc in next st"),
    ("half double crochet in each of the next 3 stitches", "hdc in next 3 sts"),
    ("2sc in next st", "2 sc in next st"),
    ("inc", "2 sc in next st"),
    ("hdc inc", "2 hdc in next st"),
    ("increase in next 3 sts", "2 sc in each of next 3 sts"),
    ("dec", "sc2tog"),
    ("hdc dec", "hdc2tog"),
    ("sc 2 tog", "sc2tog"),
    ("sc next 2 sts together", "sc2tog"),
    ("dc3tog over next 3 sts", "dc3tog"),
    ("dc3tog in same st", "dc3tog in same st"),
    ("sc2tog 4 times", "sc2tog 4 times"),
    ("sc2tog around", "sc2tog around"),
    ("fpdc around next st", "FPdc around next st"),
    ("front post double crochet around next 2 sts", "FPdc around next 2 sts"),
    ("bptr in next st", "BPtr around next st"),
    ("5-dc popcorn in next st", "popcorn in next st"),
    ("pc st in next st", "popcorn in next st"),
    ("V-st in next st", "V-st in next st"),
    ("rev sc in each st around", "rsc in each st around"),
    ("crab st around", "rsc in each st around"),
    ("extended sc in next st", "esc in next st"),
    ("sl st in next 4 sts, ch 1, sc in same st", "sl st in next 4 sts, ch 1, sc in same st"),
]

PLACES = [
    ("sc in each st", "sc in each st around"),
    ("sc around", "sc in each st around"),
    ("sc to end", "sc in each st across"),
    ("sc in each st to last 2 sts", "sc in each st to last 2 sts"),
    ("sc in each st until 2 sts remain", "sc in each st to last 2 sts"),
    ("sc in each st to within last st", "sc in each st to last st"),
    ("sc in each st to marker B", "sc in each st to marker B"),
    ("sc in each remaining st", "sc in each st around"),
    ("sc in first st", "sc in first st"),
    ("sc in third st", "sc in 3rd st"),
    ("sc in last st", "sc in last st"),
    ("sc in same place as join", "sc in same st"),
    ("sc in next ch-3 loop", "sc in next ch-3 sp"),
    ("sc in next 3ch-sp", "sc in next ch-3 sp"),
    ("sc in next 2 ch-1 spaces", "sc in next 2 ch-1 sps"),
    ("2 sc in each ch1sp around", "2 sc in each ch-1 sp around"),
    ("sc in next 4 chs", "sc in next 4 ch"),
    ("hdc in each st and ch around", "hdc in each st and ch around"),
    ("hdc in each stitch and space around", "hdc in each st and sp around"),
    ("sc in each dc around", "sc in each dc around"),
    ("3 sc in corner", "3 sc in next corner"),
    ("sc in marked st", "sc in marked st"),
    ("sc in st with marker A", "sc in st with marker A"),
    ("sk 1, dc in next st, dc in skipped st", "sk next st, dc in next st, dc in skipped st"),
    ("sc in top of turning chain", "sc in top of turning ch"),
    ("sc in back loop only of next 3 sts", "BLO sc in next 3 sts"),
    ("flo sc in next st", "FLO sc in next st"),
    ("hdc in third loop of each st around", "back bar hdc in each st around"),
    ("sc in front loops of rnd 6", "sc in front loops of Rnd 6"),
    ("sc in the ring", "sc in ring"),
    ("2 sc in each of next 3 sts", "2 sc in each of next 3 sts"),
    ("sc in each V-st around", "sc in each V-st around"),
    ("14 (16, 18) sc evenly along row ends", "14 (16, 18) sc evenly along row ends"),
]

REPEATS = [
    ("(sc, inc) x 6", "[sc in next st, 2 sc in next st] 6 times"),
    ("[sc in next 2 sts, 2 sc in next st] six times", "[sc in next 2 sts, 2 sc in next st] 6 times"),
    ("*sc, inc* 6x", "[sc in next st, 2 sc in next st] 6 times"),
    ("*sc in next st, inc; rep from * around", "[sc in next st, 2 sc in next st] around"),
    ("*sc in next st, inc; rep from * 4 more times", "[sc in next st, 2 sc in next st] 5 times"),
    ("*sc in next st, inc; rep from * 4 times", "[sc in next st, 2 sc in next st] 5 times"),
    ("*sc in next st, inc* 4 times", "[sc in next st, 2 sc in next st] 4 times"),
    ("*sc in next st, ch 1, sk 1; rep from * to last 3 sts", "[sc in next st, ch 1, sk next st] to last 3 sts"),
    ("*sc, ch 1; rep from * to last ch-2 sp", "[sc in next st, ch 1] to last ch-2 sp"),
    ("[sc, [hdc, ch 1] 2 (3, 4) times] around", "[sc in next st, [hdc in next st, ch 1] 2 (3, 4) times] around"),
    ("(2 dc, ch 2, 2 dc) in next ch-2 sp", "(2 dc, ch 2, 2 dc) in next ch-2 sp"),
    ("(sc, hdc, dc) in each of next 2 sts", "(sc, hdc, dc) in each of next 2 sts"),
    ("sc in each st and 2 sc in each ch-2 sp around", "sc in each st and 2 sc in each ch-2 sp around"),
    ("sc, inc, repeat around", "[sc in next st, 2 sc in next st] around"),
    ("(sc in next st, inc) twice", "[sc in next st, 2 sc in next st] 2 times"),
]

CHAINS = [
    ("ch 3 (counts as dc), dc in next st", "ch 3 (counts as dc), dc in next st"),
    ("ch 3 (counts as first dc here and throughout), dc in next st", "ch 3 (counts as dc), dc in next st"),
    ("ch 2 (does not count as a stitch), hdc in next st", "ch 2 (does not count), hdc in next st"),
    ("ch 4 (counts as dc + ch 1), dc in next st", "ch 4 (counts as dc, ch 1), dc in next st"),
    ("ch-3, sk 2", "ch 3, sk next 2 sts"),
    ("3 ch, miss 2", "ch 3, sk next 2 sts"),
    ("chain 24 (30, 36), skip next 14 stitches", "ch 24 (30, 36), sk next 14 sts"),
    ("sc in next st, ch 3, sl st in 3rd ch from hook", "sc in next st, ch 3, sl st in 3rd ch from hook"),
    ("picot, sc in next st", "picot, sc in next st"),
]

GESTURES = [
    ("sc in next st; join with sl st to first sc", "sc in next st; join"),
    ("sc in next st, sl st in first st to join", "sc in next st; join"),
    ("sc in next st; sl st in top of beg ch-3", "sc in next st; join"),
    ("sc in next st; do not join", "sc in next st; do not join"),
    ("sc in next st; turn", "sc in next st; turn"),
    ("sc in next st, pm, sc in next st", "sc in next st; place marker, sc in next st"),
    ("place marker A in first st, sc in next st", "place marker A in first st, sc in next st"),
    ("sc in next st, move marker up", "sc in next st; move marker up"),
    ("sc in next st; change to colour B", "sc in next st; change to B"),
    ("with B, sc in next st", "change to B, sc in next st"),
    ("join colour B in any st, sc in next st", "join colour B in next st, sc in next st"),
    ("sc in next st; finish off", "sc in next st; fasten off"),
    ("sc in next st, leave remaining sts unworked", "sc in next st; leave rem sts unworked"),
    ("rotate, sc in next st", "rotate, sc in next st"),
    ("working along the opposite side of the foundation chain, sc in next st", "rotate, sc in next st"),
]


@pytest.mark.parametrize(
    ("text", "canonical"), STITCHES + PLACES + REPEATS + CHAINS + GESTURES,
    ids=[text for text, _ in STITCHES + PLACES + REPEATS + CHAINS + GESTURES],
)  # fmt: skip
def test_words_become_steps(text: str, canonical: str) -> None:
    assert steps(text) == canonical
    assert steps(canonical) == canonical  # the canonical form is its own


LABELS = [
    ("Rnd 4: sc.", "Rnd 4"),
    ("Round 4. Sc.", "Rnd 4"),
    ("R4: sc.", "Rnd 4"),
    ("Rd 4: sc.", "Rnd 4"),
    ("4th rnd: sc.", "Rnd 4"),
    ("Rnds 4-7 (9, 11): sc around.", "Rnds 4-7 (9, 11)"),
    ("Rnds 4 (5, 6)-7 (9, 11): sc around.", "Rnds 4 (5, 6)-7 (9, 11)"),
    ("R4 (5, 6)-R7 (9, 11): sc around.", "Rnds 4 (5, 6)-7 (9, 11)"),
    ("Rnds 4-7 (5-9, 6-11): sc around.", "Rnds 4 (5, 6)-7 (9, 11)"),
    ("Rounds 4 and 5: sc around.", "Rnds 4-5"),
    ("Rnds 4 to 7: sc around.", "Rnds 4-7"),
    ("Row 4 (WS): sc across.", "Row 4 (WS)"),
    ("Row 4 (right side): sc across.", "Row 4 (RS)"),
    ("Row 4 RS: sc across.", "Row 4 (RS)"),
]


@pytest.mark.parametrize(("text", "label"), LABELS, ids=[text for text, _ in LABELS])
def test_labels(text: str, label: str) -> None:
    found = line(text)
    assert isinstance(found, Row)
    assert write_label(found) == label


def test_next_and_last_rounds_are_counted_on() -> None:
    text = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around.\nNext rnd: Sc around.\nLast rnd: Sc around."
    assert [write_label(row) for _, row in parse(text).pattern.lines() if isinstance(row, Row)] == [
        "Rnd 1",
        "Rnd 2",
        "Rnd 3",
    ]


TOTALS = [
    ("sc around. — 24 (30, 36) sts", "24 (30, 36) sts"),
    ("sc around. = 24 sts", "24 sts"),
    ("sc around (24)", "24 sts"),
    ("sc around. [24 sc]", "24 sc"),
    ("sc around. (24, 30, 36 sts)", "24 (30, 36) sts"),
    ("sc around. (24/30/36 sts)", "24 (30, 36) sts"),
    ("sc around. 24 sts.", "24 sts"),
    ("sc around. You should have 24 sts.", "24 sts"),
    ("sc around. Total: 24 sts", "24 sts"),
    ("sc around: 24 sc", "24 sc"),
    ("sc around. (12 dc, 12 ch-1 sps)", "12 dc, 12 ch-1 sps"),
    ("sc around. (12 dc + 4 ch-2 spaces)", "12 dc, 4 ch-2 sps"),
    ("sc around. (18 sc + ch-12 loop)", "18 sc, 1 ch-12 sp"),
    ("sc around. (10 sc, 4 hdc and 10 dc)", "10 sc, 4 hdc, 10 dc"),
]


@pytest.mark.parametrize(("text", "totals"), TOTALS, ids=[text for text, _ in TOTALS])
def test_totals(text: str, totals: str) -> None:
    found = line(f"Rnd 2: {text}")
    assert isinstance(found, Row)
    assert write_totals(found.totals, "US") == totals
    assert write_steps(found.steps, "US") == "Sc in each st around"


AGAIN = [
    ("Rnd 9: Rep Rnd 7.", "Rnd 9: Rep Rnd 7."),
    ("Rnds 9-20: Rep Rnds 7 and 8.", "Rnds 9-20: Rep Rnds 7 and 8."),
    ("Rnds 9-12: As Rnd 7.", "Rnds 9-12: Rep Rnd 7."),
    ("Rnds 9-20: Repeat rounds 5-8.", "Rnds 9-20: Rep Rnds 5-8."),
    ("Rows 9-12: Rep Row 8. — 24 sts", "Rows 9-12: Rep Row 8. — 24 sts"),
]


@pytest.mark.parametrize(("text", "written"), AGAIN, ids=[text for text, _ in AGAIN])
def test_rows_worked_again(text: str, written: str) -> None:
    assert write_line(line(text), "US", "cm") == written


@pytest.mark.parametrize(
    ("text", "written"),
    [
        ("Ch 31 (37, 43).", "Ch 31 (37, 43)."),
        ("Chain 31.", "Ch 31."),
        ("Foundation: Ch 31.", "Ch 31."),
        ("With A, ch 40.", "Change to A, ch 40."),
        ("Make a magic ring.", "Make a magic ring."),
        ("Ch 4, sl st in first ch to form a ring.", "Ch 4; join into a ring."),
        ("Ch 96, being careful not to twist, join.", "Ch 96; being careful not to twist; join."),
        ("Fasten off.", "Fasten off."),
    ],
)
def test_set_up_lines(text: str, written: str) -> None:
    found = line(text)
    assert isinstance(found, Setup)
    assert write_line(found, "US", "cm") == written


SECTIONS = [
    ("Section: Wall (joined rounds, wall)", ("Wall", "joined rounds", "wall", (1,), "")),
    ("Section: Wall (spiral, tube)", ("Wall", "spiral rounds", "tube", (1,), "")),
    ("Section: Front (rows, panel, make 2)", ("Front", "rows", "panel", (2,), "")),
    ("Section: Front (rows, panel), make 2", ("Front", "rows", "panel", (2,), "")),
    ("Section: Front (rows, panel), make two.", ("Front", "rows", "panel", (2,), "")),
    ("Section: Flap (rows, panel, mirrored)", ("Flap", "rows", "panel", (1,), "mirrored")),
    ("Section: Base (joined rounds, oval, halves alike)", ("Base", "joined rounds", "oval", (1,), "halves")),
    ("FRONT PANEL (make 2)", ("FRONT PANEL", "joined rounds", "panel", (2,), "")),
    ("Base (worked in a spiral)", ("Base", "joined rounds", "disc", (1,), "")),
    ("**Strap**", ("Strap", "joined rounds", "strip", (1,), "")),
]


@pytest.mark.parametrize(("head", "says"), SECTIONS, ids=[head for head, _ in SECTIONS])
def test_sections(head: str, says: tuple[str, str, str, tuple[int, ...], str]) -> None:
    parsed = parse(f"{head}\nRnd 1: 6 sc in a magic ring; join.")
    section = parsed.pattern.sections[0]
    assert parsed.findings == ()
    assert (section.title, section.worked, section.role, section.make, section.alike) == says


def test_what_stands_before_the_first_round_is_its_name_and_notes() -> None:
    text = "EVENING BAG\nA small bag for a clear night.\nWritten in UK terms.\nSizes: S, M\nSpecial stitches\nfan: 5 tr in same st\n\nBase\nRnd 1: 6 dc in a magic ring."
    parsed = parse(text)
    assert parsed.findings == ()
    pattern = parsed.pattern
    assert (pattern.name, pattern.terms, pattern.sizes) == ("EVENING BAG", "UK", ("S", "M"))
    assert pattern.extra == (("Note", "A small bag for a clear night."), ("Note", "Written in UK terms."))
    assert [special.name for special in pattern.specials] == ["fan"]
    assert parse(write(pattern)).pattern == pattern
    assert parse(text, "US").pattern.terms == "US"  # what is known better than the text says


def test_totals_of_each_round_are_held_to() -> None:
    text = "Ch 25.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-4: Ch 1, sc2tog, sc in each st across; turn. (23, 22, 21 sc)"
    pattern = parse(text).pattern
    assert "— 23, 22, 21 sc" in write(pattern)
    assert parse(write(pattern)).pattern == pattern


@pytest.mark.parametrize(
    ("text", "tokens"),
    [
        ("ch3", ["ch", "3"]), ("ch1sp", ["ch", "1", "sp"]), ("12 (15, 18)", ["12 (15, 18)"]), ("sc in ea. st", ["sc", "in", "ea", "st"]), ("2nd", ["2nd"]),
        ("second", ["2nd"]), ("six", ["6"]), ("{2*side}", ["{2*side}"]), ("sts. around", ["sts", "around"]), ("sc (corner made), sc", ["sc", "(", "corner", "made", ")", ",", "sc"]),
        ("(picot made) twice", ["(", "picot", "made", ")", "twice"]), ("hk", ["hook"]), ("“st”", ['"', "st", '"']),
    ],
)  # fmt: skip
def test_tokens(text: str, tokens: list[str]) -> None:
    found = tokens_of(text, 1, 3, 0, 3)
    assert [token.text for token in found] == tokens
    for token in found:
        assert 1 <= token.span.column < token.span.end_column <= len(text) + 1


@pytest.mark.parametrize("tail", ["in blue", "make some", "worked twice"])
def test_words_behind_a_section_that_are_not_understood_are_said(tail: str) -> None:
    findings = parse(f"Pattern: X\n\nSection: Front (rows, panel), {tail}\nCh 5.\n").findings
    (said,) = [f for f in findings if f.code == "section-kind"]
    assert said.severity == "error" and said.span.line == 3 and tail in said.message
