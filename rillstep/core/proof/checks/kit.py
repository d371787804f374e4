"""A kit that holds less yarn than a size takes: “Kit: 100 (150, 200) g” against the estimate from the worked
stitches."""

import re

from rillstep.core.findings import Finding, Span
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Row
from rillstep.core.yarn import YarnFacts, colour_needs, learned, stitch_sizes, tally, whole_need, with_yarns

_KIT = re.compile(r"(\d[\d.\s,()/]*)\s*g\b", re.IGNORECASE)
_BALL = re.compile(r"(\d+(?:\.\d+)?)\s*g\s*(?:=|/|is|to)\s*(\d+(?:\.\d+)?)\s*m\b", re.IGNORECASE)


def kit(subject: Subject) -> list[Finding]:
    """One finding for each size that takes more than its kit holds. Needs a gauge, and the metres of so many grams of
    the yarn."""
    pattern = subject.pattern
    told = dict(pattern.extra)
    grams = (
        [float(n) for n in re.findall(r"\d+(?:\.\d+)?", found[1])]
        if (found := _KIT.search(told.get("Kit", "")))
        else []
    )
    ball = _BALL.search(told.get("Yarn", ""))
    if not pattern.gauges or not grams or ball is None or len(grams) not in (1, len(pattern.sizes)):
        return []
    facts = YarnFacts(float(ball[1]), float(ball[2]), 1)
    findings = []
    for work in subject.works:
        if any(not line.known for line in work.lines) or facts.grams_per_ball <= 0 or facts.metres_per_ball <= 0:
            continue
        held = grams[work.size] if len(grams) > 1 else grams[0]
        sizes = stitch_sizes(pattern, work.size)
        if sizes is None:
            continue
        used = with_yarns(tally(pattern, work, sizes), ())
        needed = whole_need(colour_needs(used, (), {"": facts}, learned(())))
        if needed.high_g <= held:
            continue
        may = "takes" if needed.grams > held else "may take"
        message = (
            f"The kit holds {held:g} g, and the bag{subject.in_size(work.size)} {may} more: about {needed.grams:.0f} g "
            f"({needed.low_g:.0f} to {needed.high_g:.0f} g, estimated by the usual ratios)."
        )
        first = next((line.span for _, line in pattern.lines() if isinstance(line, Row)), Span(1, 1, 2))
        findings.append(Finding("kit-too-small", "warning", first, message, work.size, held, round(needed.grams)))
    return findings
