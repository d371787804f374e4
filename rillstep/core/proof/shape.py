"""Shape: a base that cups or ruffles, handles that are not alike or not opposite, pulling openings."""

from rillstep.core.findings import Finding
from rillstep.core.measure import FLAT_HIGH, FLAT_LOW
from rillstep.core.notation.tree import Again, Row
from rillstep.core.proof.subject import Subject


def flatness(subject: Subject) -> list[Finding]:
    """The last round of a base that would not lie flat; one finding a size."""
    found: list[Finding] = []
    for size, shape in enumerate(subject.shapes or ()):
        base = [r for r in shape.rounds if r.flatness is not None]
        if not base or base[-1].flatness is None or FLAT_LOW <= round(base[-1].flatness, 2) <= FLAT_HIGH:
            continue
        last = base[-1]
        cups = base[-1].flatness < FLAT_LOW
        word = "cups: it has too few stitches for its size" if cups else "ruffles: it has too many stitches"
        message = f"The base{subject.in_size(size)} {word} (flatness {base[-1].flatness:.2f}; 1.00 is flat)."
        line = next(w.line for w in subject.works[size].lines if w.line.span.line == last.line)
        code = "base-cups" if cups else "base-ruffles"
        found.append(Finding(code, "warning", line.span, message, size, 1.0, round(base[-1].flatness, 2)))
    return found


def handles(subject: Subject) -> list[Finding]:
    """Two handle openings: alike, opposite each other, and long enough not to pull."""
    found: list[Finding] = []
    for work in subject.works:
        for line in work.lines:
            openings = line.openings
            if not openings or not isinstance(line.line, Row | Again) or line.line.broken:
                continue
            where = subject.in_size(work.size)
            for opening in openings:
                if opening.chain < opening.skip:
                    message = (
                        f"The handle opening{where} pulls: {opening.chain} chains over {opening.skip} skipped stitches."
                    )
                    found.append(
                        Finding(
                            "handle-pulls", "warning", line.line.span, message, work.size, opening.skip, opening.chain
                        )
                    )
            if len(openings) != 2 or line.trouble is not None or line.line.kind != "Rnd":
                continue
            one, two = openings
            around = line.start.count("st")
            if (one.skip, one.chain) != (two.skip, two.chain):
                message = f"The two handles{where} are not alike: ch {one.chain} over {one.skip}, ch {two.chain} over {two.skip}."
                found.append(Finding("handles-not-alike", "error", line.line.span, message, work.size))
            elif abs((two.centre - one.centre) - around / 2) > 0.01:
                off = (two.centre - one.centre) - around / 2
                message = f"The handles{where} are not opposite each other: {abs(off):g} stitches off."
                found.append(
                    Finding(
                        "handles-not-opposite",
                        "error",
                        line.line.span,
                        message,
                        work.size,
                        around / 2,
                        two.centre - one.centre,
                    )
                )
    return found
