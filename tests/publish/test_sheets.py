"""Any proved text as a booklet of its own: every line is in it, for each size, hand and terms, in each form."""

from datetime import date
from pathlib import Path

from rillstep.core.proof import prove_text, reprint
from rillstep.publish.booklet import Booklet, booklet
from rillstep.publish.markdown import markdown_of
from rillstep.publish.pdf import html_of
from rillstep.services.checking import design_of


def sheet(text: str, size: int | None = None, fold: bool = True) -> Booklet:
    """The booklet of a text by itself."""
    return booklet(design_of(text), reprint(prove_text(text).pattern, "US", size, fold=fold, source=text), "US", [])


def test_one_size_has_one_column_and_no_word_of_sets() -> None:
    text = (Path(__file__).parents[1] / "corpus" / "mesh_oval.txt").read_text()
    whole, one = sheet(text), sheet(text, 1)
    assert len(whole.sizes) == 3 and len(one.sizes) == 1
    assert any("Numbers are given for" in note for note in whole.notes)
    assert not any("Numbers are given for" in note for note in one.notes)
    assert next(len(line.sts) for section in one.sections for line in section.lines if line.kind == "row") == 1
    assert "(" not in "".join(line.totals for section in one.sections for line in section.lines)


def test_equal_rounds_are_one_line_of_the_sheet_and_the_first_of_them_is_its_source() -> None:
    text = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n" + "".join(
        f"Rnd {n}: Sc in each st around; join.\n" for n in range(2, 7)
    )
    made = sheet(text)
    rows = [line for section in made.sections for line in section.lines if line.kind == "row"]
    assert [(line.label, line.line) for line in rows] == [("Rnd 1", 2), ("Rnds 2-6", 3)]
    apart = sheet(text, fold=False)
    assert len([line for section in apart.sections for line in section.lines if line.kind == "row"]) == 6


def test_stars_and_brackets_of_a_text_do_not_become_marks() -> None:
    text = "Pattern: A *bold* bag\nNote: 2 * 3 is six.\nRnd 1: 6 sc in ring; join.\nUse *this* stitch: <i>sc</i>.\n"
    made = sheet(text)
    assert "\\*this\\*" in markdown_of(made)
    page = html_of(made, "", date(2026, 11, 25))
    assert "<i>sc</i>" not in page and "&lt;i&gt;sc&lt;/i&gt;" in page


def test_a_sheet_tells_every_gauge_and_how_a_panel_is_folded() -> None:
    text = (
        "Gauge: sc 20 sts x 20 rows = 10 cm with 4 mm hook\nGauge: ch 22 = 10 cm\nGauge: mesh 8 loops x 10 rows = 10 cm\n"
        "Panel\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-60: Ch 1, sc in each st across; turn.\n"
        "Fold: in half.\n"
    )
    made = sheet(text)
    assert "4 mm hook" in made.gauge and "ch 22 = 10 cm" in made.gauge and "mesh 8 loops" in made.gauge
    assert "Fold: in half." in markdown_of(made).replace("**", "")


UNREAD = "Pattern: A\nSizes: S, L\nCh 24 (30), join into a ring.\nRnd 1: Sc in each ch around; join. — 24 (30) sts\n"


def test_what_is_not_proved_is_printed_as_it_was_written_and_marked() -> None:
    """Lines that are not understood or wrong stand in every size as they were typed; the others keep their proof."""
    rows = ("Rnd 2: Glorp in each st around; join.", "Rnd 3: Sc in each st around; join. — 25 (31) sts")
    text = UNREAD + "".join(f"{row}\n" for row in rows) + "Rnd 4: Hdc in each st around; join. — 25 (31) sts\n"
    for size in (None, 1):
        made = sheet(text, size)
        lines = {line.line: line for section in made.sections for line in section.lines}
        assert not made.proved and made.as_written == 1
        assert [lines[at].kind for at in (4, 5, 6, 7)] == ["row", "written", "row", "row"]
        assert lines[5].text == rows[0] and lines[4].mark == "proved"
        assert "as it was written, and not proved" in markdown_of(made)
        assert "✕ Rnd 2: Glorp" in html_of(made, "", date(2026, 12, 1))
    wrong = sheet(UNREAD.replace("— 24 (30)", "— 25 (30)"))
    assert wrong.as_written == 1
