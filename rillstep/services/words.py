"""Words: a design's text for readers, proved as it is printed, and its exports."""

from datetime import date

from rillstep.core.craft import Terms
from rillstep.core.proof import Reprint, reader_text
from rillstep.core.tree import Pattern
from rillstep.design import Facts, allowance_of, facts_of
from rillstep.design.yarn_answers import needs_in_words
from rillstep.document import Design
from rillstep.publish.booklet import Booklet, BookletSection, booklet
from rillstep.publish.markdown import markdown_of
from rillstep.publish.pdf import html_of, pdf_of
from rillstep.services import views
from rillstep.services.drawing_views import printed_pictures
from rillstep.services.errors import Invalid
from rillstep.services.proof_views import finding_view


def size_index(pattern: Pattern, size: str | None) -> int | None:
    """The index of a size by its name; None for all. Raises Invalid."""
    if size is None or size == "all":
        return None
    if size not in pattern.sizes:
        raise Invalid(f"There is no size “{size}” in this pattern; choose one of {', '.join(pattern.sizes)}.")
    return pattern.sizes.index(size)


def booklet_of(facts: Facts, terms: Terms, size: str | None) -> tuple[Booklet, Reprint]:
    """The booklet of a design, for all sizes or one. Raises Invalid."""
    index = size_index(facts.proof.pattern, size)
    printed = facts.printed(terms, index)
    needs = needs_in_words(facts.design, facts.proof.pattern.sizes, facts.needs, index)
    return booklet(facts.design, printed, terms, needs), printed


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
    made, printed = booklet_of(facts_of(design), terms, size)
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
    pattern = facts_of(design).proof.pattern
    index = size_index(pattern, size)
    return reader_text(pattern, terms, index, allowance_of(design), design.hand, source=design.text)


def pattern_pdf(design: Design, terms: Terms, size: str | None, made: date) -> bytes:
    """The booklet as PDF. Raises Invalid."""
    return pdf_of(pattern_html(design, terms, size, made))


def pattern_html(design: Design, terms: Terms, size: str | None, made: date) -> str:
    """The booklet as an HTML page. Raises Invalid."""
    facts = facts_of(design)
    content, _ = booklet_of(facts, terms, size)
    return html_of(content, subtitle(facts, terms, size), made, pictures=printed_pictures(facts, size))


def pattern_markdown(design: Design, terms: Terms, size: str | None) -> str:
    """The booklet as Markdown. Raises Invalid."""
    return markdown_of(booklet_of(facts_of(design), terms, size)[0])


def subtitle(facts: Facts, terms: Terms, size: str | None) -> str:
    sizes = "all sizes" if size in (None, "all") else f"size {size}"
    return f"{sizes} · {terms} terms · {facts.design.hand}-handed"
