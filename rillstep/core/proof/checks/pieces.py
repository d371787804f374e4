"""Pieces put together: seams over equal edges, straps alike, and a strap that is joined opposite where it began."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.fabric import LineWork, SizeWork, trace_row
from rillstep.core.fabric.trace import MOST_TRACED
from rillstep.core.findings import Finding, Span
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Gesture, Num, Row, Section, Setup, words_of
from rillstep.core.words.stream import Context, NotUnderstood, Stream
from rillstep.core.words.tokens import tokens_of

_SEWS = re.compile(
    r"\b(?:sew|seam|join|whip ?stitch|mattress|sl st|slip stitch|crochet|attach|pin)\w*\b", re.IGNORECASE
)
_EDGES = (
    ("row ends", r"row ends?|ends? of (?:the )?rows|side edges?|sides?|long edges?"),
    ("foundation", r"foundation|starting ch(?:ain)?|beginning edge|bottom edge|bottom"),
    ("last row", r"last (?:row|rnd|round)|top edge|top|upper edge"),
)
_ORDINALS = re.compile(r"\b(?:first|second|left|right|one|two|1|2|1st|2nd|a|b)\b|[()#]", re.IGNORECASE)
_STRAPS = re.compile(r"\b(?:strap|handle|cord|tie|belt)s?\b", re.IGNORECASE)
_TO_STITCHES = re.compile(r"\bto (?:the )?st(?:s|itches)?\s+(?=\d)", re.IGNORECASE)


@dataclass(frozen=True)
class _Side:
    """An edge of a piece that a seam names."""

    section: int
    edge: str


def seams(subject: Subject) -> list[Finding]:
    """Two edges that are joined stitch by stitch and have not the same number of places."""
    found: list[Finding] = []
    titles = [section.title for section in subject.pattern.sections]
    for words, span, sizes, own in _told(subject):
        sides = _sides_of(words, ["" if index == own else title for index, title in enumerate(titles)])
        if len(sides) != 2 or "evenly" in words.lower() or "easing" in words.lower():
            continue
        for work in subject.works:
            if work.size not in sizes:
                continue
            one, other = (_places(work, side) for side in sides)
            if one is None or other is None or one == other:
                continue
            names = [f"the {side.edge} of {titles[side.section]}" for side in sides]
            message = (
                f"This seam joins unequal edges{subject.in_size(work.size)}: {names[0]} "
                f"has {one}, {names[1]} has {other}."
            )
            found.append(Finding("seam-unequal", "warning", span, message, work.size, one, other))
    return found


def _told(subject: Subject) -> Iterator[tuple[str, Span, tuple[int, ...], int | None]]:
    """Words that sew something: prose, and seams worked. Last, the section whose title they begin with: "Joining: pin
    ..." """
    for index, section, line in ((i, s, line) for i, s in enumerate(subject.pattern.sections) for line in s.lines):
        for words in words_of(line):
            if _SEWS.search(words):
                own = index if section.title and words.lower().startswith(f"{section.title.lower()}:") else None
                yield words, line.span, line.sizes, own
        if isinstance(line, Row | Setup) and "seam" in line.gestures:
            for step in line.steps:
                if isinstance(step, Gesture) and step.kind == "seam":
                    yield step.name, line.span, line.sizes, None


def _sides_of(words: str, titles: list[str]) -> list[_Side]:
    """The pieces named, in their order, each with the edge named beside it; one edge named holds for both."""
    named = sorted(
        (match.start(), index)
        for index, title in enumerate(titles)
        if title and (match := re.search(rf"\b{re.escape(title)}\b", words, re.IGNORECASE))
    )
    if len(named) != 2:
        return []
    for _, index in named:  # "the top border" is a piece here, and no top edge
        words = re.sub(re.escape(titles[index]), lambda match: "_" * len(match[0]), words, flags=re.IGNORECASE)
    edges = [
        (match.start(), edge)
        for edge, shape in _EDGES
        for match in re.finditer(rf"\b(?:{shape})\b", words, re.IGNORECASE)
    ]
    if not edges:
        return []
    sides = []
    for number, (at, section) in enumerate(named):
        start, end = (named[number - 1][0] if number else 0), at
        before = [edge for place, edge in sorted(edges) if start <= place < end]
        sides.append(_Side(section, before[-1] if before else sorted(edges)[-1][1]))
    return sides


def _places(work: SizeWork, side: _Side) -> int | None:
    piece = work.pieces[side.section]
    if side.edge == "row ends":
        return piece.rows or None
    if side.edge == "foundation":
        return piece.underside or None
    return piece.edge.counts().sts or None


# A short one that is sewn to the end of a long one makes one strap with it.
_MEETS = re.compile(r"\b(?:sew|sewn|join|attach)\b[^.;]{0,40}\bend of\s+(?:the\s+)?(?:first|other)\b", re.IGNORECASE)


def _meets_first(section: Section) -> bool:
    return any(_MEETS.search(words) for line in section.lines for words in words_of(line))


def straps_alike(subject: Subject) -> list[Finding]:
    """Two straps that are written one after the other: as long and as wide as each other in every size."""
    found: list[Finding] = []
    first_of: dict[str, int] = {}
    for index, section in enumerate(subject.pattern.sections):
        if not _STRAPS.search(section.title):
            continue
        name = " ".join(_ORDINALS.sub(" ", section.title).lower().split())
        if name not in first_of or name == section.title.lower() or _meets_first(section):
            first_of.setdefault(name, index)
            continue
        other = first_of[name]
        for work in subject.works:
            one, two = (_strap(work, i) for i in (other, index))
            if one != two and None not in (*one, *two):
                message = (
                    f"{subject.pattern.sections[other].title} and {section.title} are not "
                    f"alike{subject.in_size(work.size)}: "
                    f"{one[0]} rows of {one[1]} stitches, and {two[0]} rows of {two[1]}."
                )
                found.append(Finding("straps-not-alike", "error", section.span, message, work.size, one[0], two[0]))
    return found


def _strap(work: SizeWork, section: int) -> tuple[int | None, int | None]:
    lines = [w for w in work.lines if w.section == section and isinstance(w.line, Row | Again)]
    if not lines or any(not w.known or w.trouble is not None for w in lines):
        return (None, None)
    rows = sum(max(0, w.line.rounds(work.size)) for w in lines if isinstance(w.line, Row | Again))
    return (rows, lines[-1].end.counts().sts)


def strap_centred(subject: Subject) -> list[Finding]:
    """A strap grown from an edge, and the stitches of that edge that its end is joined to: they lie opposite each
    other."""
    found: list[Finding] = []
    for index, section in enumerate(subject.pattern.sections):
        if section.continues is None or not _STRAPS.search(section.title):
            continue
        for line in section.lines:
            words = ". ".join((*words_of(line), _seam_words(line))).strip(". ")
            target = _stitches_named(words, subject, line.sizes) if words else None
            if target is None:
                continue
            for work in subject.works:
                if work.size in line.sizes:
                    found += _off_centre(subject, work, (index, section), target, line.span)
    return found


def _seam_words(line: object) -> str:
    steps = getattr(line, "steps", ())
    return next((s.name for s in steps if isinstance(s, Gesture) and s.kind in ("seam", "aside")), "")


def _stitches_named(words: str, subject: Subject, sizes: tuple[int, ...]) -> tuple[Num, Num] | None:
    """ "... to sts 19 (25) to 24 (30) of Body"."""
    match = _TO_STITCHES.search(words)
    if match is None or not _SEWS.search(words):
        return None
    n = len(subject.pattern.sizes)
    stream = Stream(tokens_of(words, 1, n, match.end(), len(sizes)), Context(n, sizes, "US"), Span(1, 1, 1))
    try:
        first = stream.number()
        if first is None or not (stream.mark("-") or stream.word("to", "through")):
            return None
        last = stream.number()
    except NotUnderstood:
        return None
    return (first, last) if last is not None and not stream.findings else None


def _off_centre(
    subject: Subject, work: SizeWork, where: tuple[int, Section], target: tuple[Num, Num], span: Span
) -> list[Finding]:
    index, section = where
    first = next((w for w in work.lines if w.section == index and isinstance(w.line, Row)), None)
    if first is None or first.trouble is not None:
        return []
    around = first.start.counts().sts
    begin, width = _grown_from(first)
    a, b = (number.at(work.size) for number in target)
    if not around or not width:
        return []
    here, there = begin + width / 2, (a - 1 + b) / 2
    off = (there - here) % around - around / 2
    if b - a + 1 == width and abs(off) < 0.51:
        return []
    message = (
        f"{section.title} is not centred{subject.in_size(work.size)}: it is joined "
        f"{abs(off):g} stitches off the place opposite."
    )
    if b - a + 1 != width:
        message = f"{section.title}{subject.in_size(work.size)} is {width} stitches wide, and is joined to {b - a + 1}."
    return [Finding("strap-not-centred", "error", span, message, work.size, around / 2, (there - here) % around)]


def _grown_from(line: LineWork) -> tuple[int, int]:
    """(stitches of the edge before it, stitches that it grows from), by where the stitches of its first row went."""
    turn = line.turns[0] if line.turns else None
    if turn is None or turn.edge.count("st", "sp", "ch") > MOST_TRACED:
        return 0, 0
    trace = trace_row(turn.source, line.size, turn.edge, turn.around)
    stitches = [at for at, one in enumerate(trace.below) if one.place.kind == "st"]
    number = {at: n for n, at in enumerate(stitches)}
    into = [number[at] for made in trace.made if made.place.stitch != "sl st" for at in made.into if at in number]
    return (min(into), max(into) - min(into) + 1) if into else (0, 0)
