"""The crochet-along: dated parts with what each needs, its lines and its checkpoint."""

from datetime import date

from rillstep.core.craft import Terms
from rillstep.core.lengths import Units, show_length
from rillstep.core.parts import Part
from rillstep.core.proof import Reprint
from rillstep.design import Facts, facts_of
from rillstep.design.parts import checkpoint_words, needs_of, title_of, yarn_lines_of
from rillstep.design.yarn import SizeYarn, rounded
from rillstep.document import Design
from rillstep.publish.booklet import Booklet, BookletSection, booklet
from rillstep.publish.calendar import calendar_of, part_dates
from rillstep.publish.pdf import html_of, pdf_of
from rillstep.services import views
from rillstep.services.errors import NotFound, NotProved
from rillstep.services.proof_views import finding_view
from rillstep.services.words import section_views, subtitle


def _divided(facts: Facts, terms: Terms) -> tuple[Facts, Reprint]:
    """The pattern cut into parts, and the whole of it as it is printed. Raises NotProved."""
    if not facts.proof.ok:
        first = next(f for f in facts.proof.findings if f.severity == "error")
        raise NotProved(f"The text has to be proved before it is cut into parts. First: {first.message}")
    cut = facts.in_parts
    printed = cut.printed(terms, None, whole=True)
    if not printed.ok:
        raise NotProved("The parts do not prove as they are printed; they are not shown.")
    return cut, printed


def _part_sections(made: Booklet, part: Part) -> tuple[BookletSection, ...]:
    """The sections of a booklet cut down to a part's lines; size lines are kept before a line that needs them."""
    found = []
    for section in made.sections:
        lines = []
        active = None
        for line in section.lines:
            if line.kind == "sizes":
                active = line
            elif part.first_line <= line.line <= part.last_line:
                if active is not None:
                    lines.append(active)
                    active = None
                lines.append(line)
        if lines:
            found.append(BookletSection(section.title, section.worked, tuple(lines)))
    return tuple(found)


def parts_view(design: Design, terms: Terms) -> views.PartsView:
    """All parts, for the screen. Raises NotProved."""
    facts = facts_of(design)
    cut, printed = _divided(facts, terms)
    made = booklet(facts.design, printed, terms, [])
    parts = facts.division.parts
    days = part_dates(facts.design.parts.start, facts.design.parts.every_days, len(parts))
    return views.PartsView(
        proved=printed.ok,
        problems=[finding_view(f, cut.proof.pattern.sizes) for f in printed.proof.findings],
        parts=[_part_view(facts, cut, made, part, day) for part, day in zip(parts, days, strict=True)],
    )


def _part_view(facts: Facts, cut: Facts, made: Booklet, part: Part, day: date) -> views.PartView:
    names, units = cut.proof.pattern.sizes, facts.design.units
    needed = [cut.need(size, (part.first_line, part.last_line)) for size in range(len(names))]
    return views.PartView(
        number=part.number, day=day, title=title_of(part, facts.division),
        needs=needs_of(part, facts.division, yarn_lines_of(facts.design, names, needed)),
        checkpoint=checkpoint_words(part.checkpoints), sections=section_views(_part_sections(made, part)),
        sizes=[_part_size(part, size, name, needed[size], units) for size, name in enumerate(names)],
    )  # fmt: skip


def _part_size(part: Part, size: int, name: str, yarn: SizeYarn | None, units: Units) -> views.PartSizeView:
    point = part.checkpoints[size]
    return views.PartSizeView(
        name=name, stitches=part.stitches[size], grams=None if yarn is None else rounded(yarn.whole)[0],
        sts=point.sts, half=point.half,
        width=None if point.width_mm is None else show_length(point.width_mm, units),
        height=None if point.height_mm is None else show_length(point.height_mm, units),
    )  # fmt: skip


def part_pdf(design: Design, terms: Terms, number: int, made: date) -> bytes:
    """One part as PDF. Raises NotFound, NotProved."""
    facts = facts_of(design)
    cut, printed = _divided(facts, terms)
    parts = facts.division.parts
    if not 1 <= number <= len(parts):
        raise NotFound(f"There is no part {number}; there are {len(parts)}.")
    part = parts[number - 1]
    whole = booklet(facts.design, printed, terms, [])
    view = _part_view(facts, cut, whole, part, made)
    rows = (
        ("Stitches on the round", ["–" if s.sts is None else str(s.sts) for s in view.sizes]),
        ("Stitches of each side", ["–" if s.half is None else str(s.half) for s in view.sizes]),
        ("Width at the widest point", [s.width or "–" for s in view.sizes]),
        ("Height of the wall", [s.height or "–" for s in view.sizes]),
    )
    content = Booklet(
        whole.title, whole.sizes, printed.ok, tuple(view.needs), whole.gauge,
        tuple((name, tuple(values)) for name, values in rows), whole.abbreviations,
        (*whole.notes, f"Checkpoint: {view.checkpoint}"), whole.cautions, _part_sections(whole, part), "",
    )  # fmt: skip
    label = f"Part {number} of {len(parts)}: {view.title}"
    return pdf_of(html_of(content, subtitle(facts, terms, None), made, label))


def parts_calendar(design: Design) -> bytes:
    """The dates as a calendar file. Raises NotProved."""
    view = parts_view(design, design.terms)
    return calendar_of(design.name, [p.day for p in view.parts], [f"{p.title}. {p.checkpoint}" for p in view.parts])
