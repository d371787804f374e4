"""Words: a design's text for readers, proved as it is printed, and its exports."""

from datetime import date

from rillstep.core.craft import Terms
from rillstep.core.proof import Proof, Reprint, reader_text, reprint
from rillstep.core.tree import Pattern
from rillstep.core.yarn import ColourNeed
from rillstep.document import Design
from rillstep.publish.booklet import Booklet, BookletSection, booklet
from rillstep.publish.markdown import markdown_of
from rillstep.publish.pdf import html_of, pdf_of
from rillstep.services import views
from rillstep.services.drawing_views import printed_pictures
from rillstep.services.errors import Invalid
from rillstep.services.proof_views import finding_view
from rillstep.services.workbench import allowance_of, proof_of
from rillstep.services.yarn_needs import yarn_needs
from rillstep.services.yarn_views import rounded, yarn_called


def size_index(pattern: Pattern, size: str | None) -> int | None:
    """The index of a size by its name; None for all. Raises Invalid."""
    if size is None or size == "all":
        return None
    if size not in pattern.sizes:
        raise Invalid(f"There is no size “{size}” in this pattern; choose one of {', '.join(pattern.sizes)}.")
    return pattern.sizes.index(size)


def reprinted(design: Design, terms: Terms, size: str | None) -> tuple[Reprint, Proof, int | None]:
    """The text as it would be printed, with its proof; and the proof of the whole design. A line that is not proved
    stands as it was written."""
    whole = proof_of(design)
    index = size_index(whole.pattern, size)
    printed = reprint(whole.pattern, terms, index, allowance_of(design), design.hand, source=design.text)
    return printed, whole, index


def _needs(design: Design, proof: Proof, index: int | None) -> list[tuple[str, str]]:
    rows = []
    for size, needed in enumerate(yarn_needs(design, proof)):
        if needed is not None and (index is None or size == index):
            rows.append(
                (
                    proof.pattern.sizes[size],
                    "; ".join(_colour_need(design, one, len(needed.colours)) for one in needed.colours)
                    + (f"; not counted: {', '.join(needed.missing)}" if needed.missing else "")
                    + (f"; the parts of {', '.join(needed.once)} counted once" if needed.once else ""),
                )
            )
    return rows


def _colour_need(design: Design, one: ColourNeed, colours: int) -> str:
    """ "A: Quiet Meridian: 3 balls (about 250 g, 210 to 290 g)": balls cover the upper end."""
    grams, low, high = rounded(one.other)
    colour = f"{yarn_called(design, one.colour)}: " if colours > 1 else ""
    return f"{colour}{one.balls} ball{'s' if one.balls != 1 else ''} (about {grams} g, {low} to {high} g)"


def booklet_of(design: Design, terms: Terms, size: str | None) -> tuple[Booklet, Reprint]:
    """The booklet of a design, for all sizes or one."""
    printed, whole, index = reprinted(design, terms, size)
    return booklet(design, printed, terms, _needs(design, whole, index)), printed


def section_views(sections: tuple[BookletSection, ...]) -> list[views.BookletSectionView]:
    return [
        views.BookletSectionView(
            title=section.title,
            worked=section.worked,
            lines=[
                views.BookletLineView(
                    kind=line.kind, line=line.line, label=line.label, text=line.text, totals=line.totals,
                    mark=line.mark, sts=list(line.sts),
                )
                for line in section.lines
            ],
        )
        for section in sections
    ]  # fmt: skip


def booklet_view(design: Design, terms: Terms, size: str | None) -> views.BookletView:
    """The booklet as data for the screen."""
    made, printed = booklet_of(design, terms, size)
    problems = [*printed.problems, *(f for f in printed.proof.findings if f not in printed.problems)]
    sizes = printed.proof.pattern.sizes
    return views.BookletView(
        title=made.title, sizes=list(made.sizes), proved=made.proved, unchecked=made.unchecked,
        as_written=made.as_written, vouched=made.vouched,
        problems=[finding_view(f, sizes) for f in problems],
        materials=list(made.materials), gauge=made.gauge,
        measures=[views.TableRow(name=name, values=list(values)) for name, values in made.measures],
        abbreviations=[views.TextPair(name=a, text=b) for a, b in made.abbreviations],
        notes=list(made.notes),
        cautions=[views.TextPair(name=c.code, text=c.text) for c in made.cautions],
        sections=section_views(made.sections), text=made.text,
    )  # fmt: skip


def pattern_text(design: Design, terms: Terms, size: str | None) -> str:
    """The text that stands alone, for the plain text download. Raises Invalid."""
    return reader_print(design, terms, size).text


def reader_print(design: Design, terms: Terms, size: str | None) -> Reprint:
    """The text that stands alone with its proof. Raises Invalid."""
    whole = proof_of(design)
    index = size_index(whole.pattern, size)
    return reader_text(whole.pattern, terms, index, allowance_of(design), design.hand, source=design.text)


def pattern_pdf(design: Design, terms: Terms, size: str | None, made: date) -> bytes:
    """The booklet as PDF. Raises Invalid."""
    return pdf_of(pattern_html(design, terms, size, made))


def pattern_html(design: Design, terms: Terms, size: str | None, made: date) -> str:
    """The booklet as an HTML page. Raises Invalid."""
    content, _ = booklet_of(design, terms, size)
    return html_of(content, subtitle(design, terms, size), made, pictures=printed_pictures(design, size))


def pattern_markdown(design: Design, terms: Terms, size: str | None) -> str:
    """The booklet as Markdown. Raises Invalid."""
    return markdown_of(booklet_of(design, terms, size)[0])


def subtitle(design: Design, terms: Terms, size: str | None) -> str:
    sizes = "all sizes" if size in (None, "all") else f"size {size}"
    return f"{sizes} · {terms} terms · {design.hand}-handed"
