"""A booklet as Markdown."""

from rillstep.publish.booklet import Booklet, BookletLine


def markdown_of(booklet: Booklet) -> str:
    """A booklet as Markdown: headings for sections, a list item for each line, its totals in bold."""
    parts = [f"# {booklet.title}", f"Sizes: {', '.join(booklet.sizes)}"]
    if booklet.materials:
        parts.append("\n".join(f"- {item}" for item in booklet.materials))
    if booklet.gauge:
        parts.append(f"Gauge: {booklet.gauge}")
    if booklet.measures:
        rows = [f"- {name}: {', '.join(values)}" for name, values in booklet.measures]
        parts.append("## Finished measurements\n\n" + "\n".join(rows))
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
    if line.kind == "vouched":
        return f"- (as it was written, with the designer's word for it) {text}"
    if line.kind == "written":
        return f"- (as it was written, and not proved) {text}"
    return f"- {label}{text}{totals}"
