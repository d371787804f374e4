"""A pattern text as a booklet of its own, without a design around it; and any booklet as Markdown."""

from rillstep.core.lengths import in_units
from rillstep.core.printing.abbreviations import abbreviations_used
from rillstep.core.proof import Hand, Reprint, advice
from rillstep.core.stitches import Terms
from rillstep.core.tree import Pattern
from rillstep.publish.booklet import Booklet, BookletLine, booklet_sections, gauge_lines


def _measures(reprint: Reprint) -> tuple[tuple[str, tuple[str, ...]], ...]:
    shapes, units = reprint.proof.shapes or (), reprint.proof.pattern.units
    rows = (
        ("Width, lying flat", [shape.width_mm for shape in shapes]),
        ("Height without handles", [shape.height_mm for shape in shapes]),
        ("Depth of the base", [shape.base_depth_mm for shape in shapes]),
        ("Drop of the handles", [shape.drop_mm for shape in shapes]),
    )
    return tuple((name, tuple(f"{in_units(mm, units):.1f} {units}" for mm in row)) for name, row in rows if any(row))


def _notes(pattern: Pattern, terms: Terms, hand: Hand) -> tuple[str, ...]:
    own = [text for key, text in pattern.extra if key == "Note"]
    return tuple(dict.fromkeys([*own, *advice(pattern, terms, hand)]))


def sheet(reprint: Reprint, terms: Terms, hand: Hand = "right") -> Booklet:
    """The booklet of a printed text, from what the text itself says."""
    pattern = reprint.proof.pattern
    gauge = gauge_lines(pattern, terms, None)
    materials = tuple(f"{key}: {text}" for key, text in pattern.extra if key != "Note")
    return Booklet(
        pattern.name or "Pattern", pattern.sizes, reprint.ok, materials, gauge, _measures(reprint),
        abbreviations_used(pattern, terms), _notes(pattern, terms, hand), (), booklet_sections(reprint, terms),
        reprint.text,
    )  # fmt: skip


def markdown_of(booklet: Booklet) -> str:
    """A booklet as Markdown: headings for sections, a list item for each line, its totals in bold."""
    parts = [f"# {booklet.title}", f"Sizes: {', '.join(booklet.sizes)}"]
    if booklet.materials:
        parts.append("\n".join(f"- {item}" for item in booklet.materials))
    if booklet.gauge:
        parts.append(f"Gauge: {booklet.gauge}")
    parts.append("## Abbreviations\n\n" + "\n".join(f"- **{short}** {name}" for short, name in booklet.abbreviations))
    if booklet.notes:
        parts.append("## Notes\n\n" + "\n".join(f"- {note}" for note in booklet.notes))
    for section in booklet.sections:
        if section.lines:
            parts.append(f"## {section.title}\n\n" + "\n".join(_line(line) for line in section.lines))
    return "\n\n".join(parts) + "\n"


def _line(line: BookletLine) -> str:
    if line.kind == "sizes":
        return f"\n*{line.text}*\n"
    label = f"**{line.label}:** " if line.label else ""
    totals = f" **— {line.totals}**" if line.totals else ""
    # A star would begin emphasis, and brackets a link.
    text = line.text.replace("*", "\\*")
    return f"- {label}{text}{totals}"
