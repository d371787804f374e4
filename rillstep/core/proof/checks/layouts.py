"""Motifs joined in a layout: "Arrange the squares in 3 rows of 4 (4 rows of 5)" needs as many as are made.

A round worked on joined pieces meets an edge that words alone do not count (what the seams use up
differs from maker to maker), so it goes on from what it states, and that is said.
"""

import re
from collections.abc import Iterator

from rillstep.core.findings import Finding
from rillstep.core.measures.arrangement import LAYS_OUT, layout_in
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Pattern, Row, Section, words_of

# So many are not all of them.
_NOT_ALL = re.compile(r"\b(?:plus|leaving|leave|remaining|set aside|aside|extra|except|without)\b", re.IGNORECASE)


def layouts(subject: Subject) -> list[Finding]:
    """A layout that takes more or fewer pieces than are made; and rounds on joined pieces that cannot be worked."""
    found = list(_edges(subject))
    sizes = len(subject.pattern.sizes)
    for index, section in enumerate(subject.pattern.sections):
        for line in section.lines:
            words = ". ".join(words_of(line))
            if not LAYS_OUT.search(words) or _NOT_ALL.search(words):
                continue
            layout = layout_in(words, sizes)
            piece = _piece(subject.pattern, index, words)
            if layout is None or piece is None:
                continue
            for size in line.sizes:
                made, wanted = piece.made(size), layout.rows[size] * layout.columns[size]
                if made != wanted:
                    message = (
                        f"This layout takes {wanted} pieces{subject.in_size(size)}; {made} of {piece.title} are made."
                    )
                    found.append(Finding("layout-count", "error", line.span, message, size, wanted, made))
    return found


def _piece(pattern: Pattern, index: int, words: str) -> Section | None:
    """The piece that is laid out: the one that the words name, or the only one of which several are made."""
    many = [s for s in pattern.sections[: index + 1] if max(s.make) > 2]
    named = [s for s in many if re.search(rf"\b{re.escape(s.title.lower().rstrip('s'))}", words.lower())]
    return named[0] if len(named) == 1 else many[0] if len(many) == 1 else None


def _edges(subject: Subject) -> Iterator[Finding]:
    for section in subject.pattern.sections:
        if section.on is None or section.on.edge not in ("joined pieces", "elsewhere"):
            continue
        first = next((line for line in section.lines if isinstance(line, Row | Again)), None)
        known = all(work.rounds for at in subject.works if first is not None and (work := at.of(first)) is not None)
        if first is not None and not first.broken and not known:
            where = "the joined pieces" if section.on.edge == "joined pieces" else "a piece that is not in this text"
            message = f"{write_label(first)} is worked on {where}, whose edge is not counted here: " + (
                "it goes on from the total that it states."
                if first.totals
                else "state its total, and what follows goes on from it."
            )
            yield Finding("edge-not-counted", "warning", first.label_span, message)
