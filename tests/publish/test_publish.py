"""What is printed: every line is in the PDF, read back from it by another tool."""

import re
import subprocess
from datetime import date
from io import BytesIO
from pathlib import Path

import pytest
from pypdf import PdfReader

from rillstep.demo.data import nightfield, steward
from rillstep.design import facts_of
from rillstep.document import Design
from rillstep.publish.booklet import hook_letter
from rillstep.publish.calendar import calendar_of, part_dates
from rillstep.services import crochet_along, words
from tests.examples import every_way


def plain(text: str) -> str:
    """Letters and digits only: line breaks and hyphens of the layout do not count."""
    return re.sub(r"\W+", "", text)


def pdftotext(pdf: bytes, tmp_path: Path) -> str:
    path = tmp_path / "booklet.pdf"
    path.write_bytes(pdf)
    return subprocess.run(["pdftotext", "-raw", str(path), "-"], check=True, capture_output=True, text=True).stdout


@pytest.mark.parametrize("design", [nightfield(), steward()], ids=lambda d: d.name)
@pytest.mark.parametrize("size", [None, 1])
def test_the_pdf_holds_every_line(design: Design, size: int | None, tmp_path: Path) -> None:
    name = None if size is None else design.sizes[size].name
    made, _ = words.booklet_of(facts_of(design), "UK", name)
    pdf = words.pattern_pdf(design, "UK", name, date(2026, 11, 24))
    # Running heads and page numbers stand between the lines of two pages, so pages are searched one by one.
    for text in (pdftotext(pdf, tmp_path), "\n".join(page.extract_text() for page in PdfReader(BytesIO(pdf)).pages)):
        found = plain(text)
        lines = [line for section in made.sections for line in section.lines]
        assert len(lines) > 15
        for line in lines:
            assert plain(line.text) in found, line.text
            assert plain(line.label) in found
            assert plain(line.totals) in found
        for items in (made.materials, made.notes, [c.text for c in made.cautions], [a for a, _ in made.abbreviations]):
            assert all(plain(item) in found for item in items)
        assert plain(made.gauge) in found
        for row, values in made.measures:
            assert plain(row + "".join(values)) in found


def test_only_used_abbreviations_are_listed() -> None:
    for design in every_way():
        for terms in ("US", "UK"):
            made, _ = words.booklet_of(facts_of(design), terms, None)
            instructions = " ".join(
                f"{line.text} {line.totals}" for s in made.sections for line in s.lines if line.kind != "sizes"
            )
            for short, _name in made.abbreviations:
                stem = short.removesuffix("(s)")
                assert re.search(rf"\b{stem}s?\b", instructions, re.IGNORECASE) or stem == "rnd", short
            used = set(re.findall(r"\b(sc|hdc|dc|tr|htr|BLO|sk|ch)\b", instructions))
            assert used <= {short for short, _ in made.abbreviations}


def test_parts_print_their_own_lines_only() -> None:
    design = nightfield()
    view = crochet_along.parts_view(design, "US")
    for part in view.parts:
        pdf = crochet_along.part_pdf(design, "US", part.number, date(2026, 11, 24))
        found = plain("".join(page.extract_text() for page in PdfReader(BytesIO(pdf)).pages))
        for other in view.parts:
            rows = [line for s in other.sections for line in s.lines if line.kind == "row"]
            here = [plain(f"{row.label}: {row.text}") in found for row in rows]
            assert (
                all(here) if other is part else not any(plain(f"{r.label}: {r.text}{r.totals}") in found for r in rows)
            )


def test_names_that_look_like_markup_stay_names() -> None:
    design = nightfield().model_copy(update={"name": "<b>&\"Tote'</b>"})
    html = words.pattern_html(design, "US", None, date(2026, 11, 24))
    assert "<b>&" not in html
    assert html.count("<figure>") == len(design.sizes), "each size is drawn"
    assert words.pattern_html(design, "US", design.sizes[0].name, date(2026, 11, 24)).count("<figure>") == 1
    assert words.pattern_pdf(design, "US", None, date(2026, 11, 24))[:5] == b"%PDF-"


def test_hooks_and_dates() -> None:
    assert (hook_letter(5.0), hook_letter(4.5), hook_letter(5.05)) == ("H/8", "7", "")
    assert part_dates(date(2027, 2, 26), 7, 2) == [date(2027, 2, 26), date(2027, 3, 5)]
    once = calendar_of("T", [date(2027, 1, 1)], ["x"])
    again = calendar_of("T", [date(2027, 1, 1)], ["x"])
    uid = re.compile(rb"UID:(.*)\r")
    assert uid.findall(once) == uid.findall(again)
