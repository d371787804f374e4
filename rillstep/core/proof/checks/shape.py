"""Shape: a base that cups or ruffles, handles that are not alike or not opposite, pulling openings."""

from collections.abc import Iterator, Sequence

from rillstep.core.craft import abbreviation, basic
from rillstep.core.fabric import LineWork
from rillstep.core.findings import Finding
from rillstep.core.measures.profile import ESTIMATED_HIGH, ESTIMATED_LOW, FLAT_HIGH, FLAT_LOW, RoundShape, SizeShape
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.tree import Again, Pattern, Row
from rillstep.core.tree.changes import in_gauge_of


def flatness(subject: Subject) -> list[Finding]:
    """The last round of a base that would not lie flat; one finding a size."""
    found: list[Finding] = []
    lies_flat = any(section.role in ("disc", "oval") for section in subject.pattern.sections)
    for size, shape in enumerate(subject.bag.profiles if subject.bag is not None and lies_flat else ()):
        base = [r for r in shape.rounds if r.flatness is not None]
        swatch = in_gauge_of(subject.pattern, size).gauges[0].stitch if subject.pattern.gauges else ""
        estimated = next((basic(r.stitch).us for r in base if basic(r.stitch).us != swatch), "")
        low, high = (ESTIMATED_LOW, ESTIMATED_HIGH) if estimated else (FLAT_LOW, FLAT_HIGH)
        if not base or base[-1].flatness is None or low <= round(base[-1].flatness, 2) <= high:
            continue
        if _is_usual(shape, base, in_gauge_of(subject.pattern, size)):
            continue
        last = base[-1]
        cups = base[-1].flatness < FLAT_LOW
        word = "cups: it has too few stitches for its size" if cups else "ruffles: it has too many stitches"
        message = f"The base{subject.in_size(size)} {word} (flatness {base[-1].flatness:.2f}; 1.00 is flat)."
        if estimated:
            names = [abbreviation(stitch, subject.pattern.terms) for stitch in (estimated, swatch)]
            message += f" The height of {names[0]} is estimated from the swatch in {names[1]}."
        line = next(w.line for w in subject.works[size].lines if w.line.span.line == last.line)
        code = "base-cups" if cups else "base-ruffles"
        found.append(Finding(code, "warning", line.span, message, size, 1.0, round(base[-1].flatness, 2)))
    return found


# So many stitches a round are added by makers, with every yarn and hand, to a base that comes out flat.
_USUAL = {"sc": (5, 7), "hdc": (6, 10), "dc": (10, 14), "tr": (14, 18), "dtr": (18, 22)}


def _is_usual(shape: SizeShape, base: Sequence[RoundShape], pattern: Pattern) -> bool:
    """Does a base grow by as many stitches a round as is usual, or is it an oval of one round, which tells nothing?"""
    straight = round(shape.straight_mm / pattern.gauges[0].width_mm)
    if straight and len(base) == 1:
        return True
    low, high = _USUAL.get(basic(base[-1].stitch).us, (0, -1))
    return low <= (base[-1].sts - 2 * straight) / len(base) <= high


def handles(line: WorkedLine) -> list[Finding]:
    """Two handle openings: alike, opposite each other, and long enough not to pull."""
    if not line.has_openings or not isinstance(line.line, Row | Again) or line.line.broken:
        return []
    return [finding for work in line.done for finding in _of_openings(line, work)]


def _of_openings(line: WorkedLine, work: LineWork) -> Iterator[Finding]:
    openings, where, span = work.openings, line.in_size(work.size), work.line.span
    for opening in openings:
        if opening.chain < opening.skip:
            message = f"The handle opening{where} pulls: {opening.chain} chains over {opening.skip} skipped stitches."
            yield Finding("handle-pulls", "warning", span, message, work.size, opening.skip, opening.chain)
    if (
        len(openings) != 2
        or work.trouble is not None
        or not work.start.runs  # what it is worked on is not known
        or not isinstance(work.line, Row | Again)
        or work.line.kind != "Rnd"
    ):
        return
    one, two = openings
    apart, half = two.centre - one.centre, work.start.count("st") / 2
    if (one.skip, one.chain) != (two.skip, two.chain):
        message = (
            f"The two handles{where} are not alike: ch {one.chain} over {one.skip}, ch {two.chain} over {two.skip}."
        )
        yield Finding("handles-not-alike", "error", span, message, work.size)
    elif abs(apart - half) > 0.01:
        message = f"The handles{where} are not opposite each other: {abs(apart - half):g} stitches off."
        yield Finding("handles-not-opposite", "error", span, message, work.size, half, apart)
