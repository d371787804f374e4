"""The crochet-along: dated parts with what each needs, its lines and its checkpoint."""

from collections.abc import Sequence
from datetime import date

from rillstep.core.craft import Terms
from rillstep.core.lengths import show_length
from rillstep.core.parts import Checkpoint, Divided, Part, divide
from rillstep.core.proof import Reprint, reprint
from rillstep.core.words.numbers import set_text
from rillstep.core.yarn import Known
from rillstep.document import Design
from rillstep.publish.booklet import Booklet, BookletSection, booklet
from rillstep.publish.calendar import calendar_of, part_dates
from rillstep.publish.pdf import html_of, pdf_of
from rillstep.services import views
from rillstep.services.errors import NotFound, NotProved
from rillstep.services.proof_views import finding_view
from rillstep.services.words import section_views, subtitle
from rillstep.services.workbench import allowance_of, proof_of
from rillstep.services.yarn_needs import SizeYarn, known_of, yarn_need
from rillstep.services.yarn_views import rounded, yarn_called


def _divided(design: Design, terms: Terms) -> tuple[Divided, Reprint]:
    """The pattern cut into parts, and the whole of it as it is printed."""
    whole = proof_of(design)
    if not whole.ok:
        first = next(f for f in whole.findings if f.severity == "error")
        raise NotProved(f"The text has to be proved before it is cut into parts. First: {first.message}")
    cut = divide(whole.pattern, design.parts.count, allowance_of(design))
    printed = reprint(cut.pattern, terms, None, allowance_of(design), design.hand, fold=False)
    if not printed.ok:
        raise NotProved("The parts do not prove as they are printed; they are not shown.")
    return cut, printed


def _title(part: Part, cut: Divided) -> str:
    titles: list[str] = []
    for section, _ in part.lines:
        title = cut.pattern.sections[section].title
        if title not in titles:
            titles.append(title)
    return ", ".join(titles)


def _yarn_of(design: Design, cut: Divided, part: Part, known: Known) -> list[SizeYarn | None]:
    """The yarn of a part in each size."""
    lines = part.first_line, part.last_line
    return [yarn_need(design, cut.proof, size, *lines, known) for size in range(len(cut.proof.works))]


def _yarn_lines(design: Design, names: Sequence[str], needed: Sequence[SizeYarn | None]) -> list[str]:
    """The yarn of a part in words, a line for each colour."""
    grams: dict[str, list[str]] = {}
    for name, one in zip(names, needed, strict=True):
        for need in one.colours if one is not None else ():
            grams.setdefault(need.colour, []).append(f"{rounded(need.other)[0]} g ({name})")
    if len(design.yarns) == 1:
        return [f"Yarn: about {', '.join(each)}" for each in grams.values()]
    return [f"Yarn {yarn_called(design, colour)}: about {', '.join(each)}" for colour, each in grams.items()]


def _needs(design: Design, part: Part, cut: Divided, needed: Sequence[SizeYarn | None]) -> list[str]:
    first = part.number == 1
    needs = ["Hook, stitch marker, tape measure" if first else "The work from the part before, with its checkpoint met"]
    if first:
        needs.append("A swatch that meets the gauge")
    needs += _yarn_lines(design, cut.pattern.sizes, needed)
    if part is cut.parts[-1]:
        needs.append("Tapestry needle and scissors")
    return needs


def _checkpoint(points: tuple[Checkpoint, ...]) -> str:
    """What the work should look like at the end of a part, in all sizes."""
    halves = [point.half for point in points if point.half is not None]
    if len(halves) < len(points):
        return "Count, and compare the two sides of the bag."
    told = set_text(tuple(halves))
    return f"Both sides alike: {told} stitches from side to side, front and back (a few millimetres apart are fine)."


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
    """All parts, for the screen."""
    cut, printed = _divided(design, terms)
    made = booklet(design, printed, terms, [])
    known = known_of(design, cut.proof)
    days = part_dates(design.parts.start, design.parts.every_days, len(cut.parts))
    return views.PartsView(
        proved=printed.ok,
        problems=[finding_view(f, cut.pattern.sizes) for f in printed.proof.findings],
        parts=[_part_view(design, cut, made, part, day, known) for part, day in zip(cut.parts, days, strict=True)],
    )


def _part_view(design: Design, cut: Divided, made: Booklet, part: Part, day: date, known: Known) -> views.PartView:
    units = design.units
    needed = _yarn_of(design, cut, part, known)
    sizes = [
        views.PartSizeView(
            name=name,
            stitches=part.stitches[size],
            grams=None if (yarn := needed[size]) is None else rounded(yarn.whole)[0],
            sts=point.sts,
            half=point.half,
            width=None if point.width_mm is None else show_length(point.width_mm, units),
            height=None if point.height_mm is None else show_length(point.height_mm, units),
        )
        for size, (name, point) in enumerate(zip(cut.pattern.sizes, part.checkpoints, strict=True))
    ]
    return views.PartView(
        number=part.number,
        day=day,
        title=_title(part, cut),
        needs=_needs(design, part, cut, needed),
        checkpoint=_checkpoint(part.checkpoints),
        sections=section_views(_part_sections(made, part)),
        sizes=sizes,
    )


def part_pdf(design: Design, terms: Terms, number: int, made: date) -> bytes:
    """One part as PDF. Raises NotFound, NotProved."""
    cut, printed = _divided(design, terms)
    if not 1 <= number <= len(cut.parts):
        raise NotFound(f"There is no part {number}; there are {len(cut.parts)}.")
    part = cut.parts[number - 1]
    whole = booklet(design, printed, terms, [])
    view = _part_view(design, cut, whole, part, made, known_of(design, cut.proof))
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
    label = f"Part {number} of {len(cut.parts)}: {view.title}"
    return pdf_of(html_of(content, subtitle(design, terms, None), made, label))


def parts_calendar(design: Design) -> bytes:
    """The dates as a calendar file. Raises NotProved."""
    view = parts_view(design, design.terms)
    return calendar_of(design.name, [p.day for p in view.parts], [f"{p.title}. {p.checkpoint}" for p in view.parts])
