"""Each stitch is known wherever a stitch can stand: 42 of them, in thirteen positions, in US and UK terms, one and
several."""

import pytest

from rillstep.core.craft import MODIFIERS, STITCHES, names_of, stitch_words
from rillstep.core.craft.chart_symbol import Symbol
from rillstep.core.proof import prove_text

# (US, UK, what ends the plural)
STITCHES_SAID = [
    ("sc", "dc"), ("hdc", "htr"), ("dc", "tr"), ("tr", "dtr"), ("dtr", "trtr"), ("trtr", "qtr"),
    ("single crochet", "double crochet"), ("half double crochet", "half treble crochet"),
    ("double crochet", "treble crochet"), ("treble crochet", "double treble crochet"),
    ("FPsc", "FPdc"), ("BPsc", "BPdc"), ("FPhdc", "FPhtr"), ("BPhdc", "BPhtr"), ("FPdc", "FPtr"), ("BPdc", "BPtr"),
    ("FPtr", "FPdtr"), ("BPtr", "BPdtr"),
    ("front post double crochet", "front post treble crochet"), ("back post double crochet", "back post treble crochet"),
    ("esc", "edc"), ("ehdc", "ehtr"), ("edc", "etr"), ("extended single crochet", "extended double crochet"),
    ("rsc", "rdc"), ("reverse single crochet", "reverse double crochet"), ("crab st", "crab st"),
    ("spike sc", "spike dc"), ("spike st", "spike st"), ("linked dc", "linked tr"), ("standing sc", "standing dc"),
    ("rdcf", "rtrf"), ("puff", "puff"), ("puff st", "puff st"), ("bobble", "bobble"), ("popcorn", "popcorn"),
    ("cluster", "cluster"), ("5-dc popcorn", "5-tr popcorn"), ("3-dc cluster", "3-tr cluster"), ("pc", "pc"),
    ("triple crochet", "double treble"), ("crab stitch", "crab stitch"),
]  # fmt: skip
ON_IT = "Row 2: Ch 1, {s} in each st across, turn. (12 sts)\nRow 3: Ch 1, "
POSITIONS: dict[str, str] = {
    "row": "Row 2: Ch 1, {s} in each st across, turn. (12 sts)",
    "beside another": "Row 2: Ch 1, 1 {s} in next st, {b} in each st across, turn. (12 sts)",
    "without label": "{S} in each st across, turn. (12 sts)",
    "bracket": "Row 2: Ch 1, [{s} in next st, {b} in next st] 6 times, turn. (12 sts)",
    "total": "Row 2: Ch 1, {s} in each st across, turn. (12 {p})",
    "place": ON_IT + "{b} in next {s}, {b} in next 11 {p}, turn. (12 sts)",
    "each": ON_IT + "{b} in each {s} across, turn. (12 sts)",
    "last": ON_IT + "{b} in each st to last {s}, 2 {b} in last {s}, turn. (13 sts)",
    "marked": "Row 2: Ch 1, {s} in next 6 sts, place marker in last {s} made, {s} in each st across, turn. (12 sts)\n"
    "Row 3: Ch 1, {b} in each st to marked {s}, 2 {b} in marked {s}, {b} in each st across, turn. (13 sts)",
    "copy": "Row 2: Ch 1, {s} in each st across, turn. (12 {p})\nRows 3-6: Rep Row 2. (12 {p})",
    "rest": "Row 2: Ch 1, {g} in next st, {s} in rem sts, turn. (1 {gathered}, 11 {p})",
    "remaining": ON_IT + "{b} in next 4 {p}, {b} in each rem {s}, turn. (12 {b})",
    "skipped": ON_IT + "{b} in next 2 {p}, sk next {s}, {b} in next 9 {p}, turn. (11 {b})",
}
HEAD = "Pattern: A\nTerms: {t}\n\nBody\nCh 13.\nRow 1: {b} in 2nd ch from hook and in each ch across, turn. (12 {b})\n"


def _text(position: str, terms: str, stitch: str, several: str) -> str:
    plain = "sc" if terms == "US" else "dc"
    # A stitch beside it that is counted by another name.
    gathered = "bobble" if "bobble" not in stitch else "puff"
    row = POSITIONS[position].format(
        s=stitch, S=stitch[0].upper() + stitch[1:], p=several, b=plain, g=gathered, gathered=gathered
    )
    return HEAD.format(t=terms, b=plain) + row + "\n"


def _is_read(text: str) -> bool:
    proof = prove_text(text)
    wrong = [one for one in proof.findings if one.severity != "caution"]
    return not wrong and len(proof.lines) > 1 and all(line.proved for line in proof.lines)


@pytest.mark.parametrize("position", POSITIONS)
def test_a_stitch_is_known_in_every_position(position: str) -> None:
    unread = [
        (terms, name)
        for us, uk in STITCHES_SAID
        for terms, stitch in (("US", us), ("UK", uk))
        for name in (stitch, stitch + ("es" if stitch.endswith("stitch") else "s"))
        if not _is_read(_text(position, terms, stitch, name))
    ]
    assert not unread


@pytest.mark.parametrize("stitch", STITCHES, ids=lambda stitch: stitch.us)
def test_a_stitch_is_one_row(stitch: object) -> None:
    """Its names in both terms lead to it, and it has a height and a symbol."""
    known = next(one for one in STITCHES if one is stitch)
    assert names_of("US")[known.us] == names_of("UK")[known.uk] == known.us
    assert names_of("US")[known.us_name] == names_of("UK")[known.uk_name] == known.us
    assert known.height_ratio > 0 and isinstance(known.symbol, Symbol)


def test_a_way_of_working_composes_with_the_stitches_of_its_row() -> None:
    for modifier in MODIFIERS:
        for us in modifier.of:
            assert names_of("US")[f"{modifier.words[0]} {us}"] == modifier.written.format(us)
    assert stitch_words("US")["fpdcs"] == "FPdc" and stitch_words("UK")["rtrf"] == "FPdc"


@pytest.mark.parametrize(
    ("made", "named"), [("sc", "spike sc"), ("sc", "esc"), ("hdc", "linked dc"), ("sc", "trtr"), ("dc", "puff")]
)
@pytest.mark.parametrize("position", ["each", "marked", "skipped"])
def test_a_stitch_that_is_not_there_is_not_called_by_its_name(made: str, named: str, position: str) -> None:
    """The text works one stitch in Row 2 and calls it by another in Row 3."""
    text = _text(position, "US", made, f"{made}s")
    head, row = text.rsplit("Row 3", 1)
    wrong = head + "Row 3" + row.replace(f"each {made}", f"each {named}").replace(f"marked {made}", f"marked {named}")
    wrong = wrong.replace(f"sk next {made}", f"sk next {named}")
    assert wrong != text
    assert [one.code for one in prove_text(wrong).findings if one.severity == "error"] == ["stitch-not-there"]


BEGIN = "Make a magic ring.\nRnd 1: 6 sc in ring. (6)\nRnd 2: 2 sc in each st around. (12)\n"


@pytest.mark.parametrize(
    "text",
    [
        "Special stitches: leaf = tr3tog in same st.\n\nBase\n"
        f"{BEGIN}Rnd 3: [Leaf in next st, ch 1, sk next st] 6 times. (6 leaves, 6 ch-1 sps)\nRnd 4: 2 sc in each leaf around. (12 sc)\n",
        "Abbreviations: spst = spike stitch\n\n"
        f"{BEGIN}Rnd 3: [Spst in next st, sc in next st] 6 times. (6 spst, 6 sc)\nRnd 4: Sc in each spst and in each sc around. (12)\n",
    ],
    ids=["plural", "abbreviated"],
)
def test_a_stitch_of_the_text_is_a_place_and_a_total(text: str) -> None:
    assert all(line.proved for line in prove_text(text).lines)
